/** References of a file that was read: one that would show other words here than it did there stays as the words that it showed. */
import { bodyOf, computedOf, fieldAttrs, isLeaf, leavesOf, nodes, placesOf, referenceOf, schema } from "../document"
import { Fragment, type Node } from "prosemirror-model"

/** @param shown what fields showed in the file */
export function withTrueReferences(doc: Node, shown: ReadonlyMap<Node, string>): Node {
  if (![...shown.keys()].some((field) => fieldAttrs(field).kind === "reference")) return doc
  const values = computedOf(doc, new Map())
  if (values.size === 0) return doc
  const places = placesOf(doc)
  const replaced = new Map<Node, Node>()
  for (const [leaf, fields] of values)
    for (const [field, value] of fields) {
      const { kind, format } = fieldAttrs(field)
      if (kind !== "reference") continue
      const was = shown.get(field)?.trim()
      const { part, place } = referenceOf(format)
      if (was === undefined || (places.has(place) && (part === "sheet" || value === was))) continue
      const node = leavesOf(doc).node(leaf)
      // The number of a caption is often what is meant by its words.
      const number = part === "words" && numberShown(doc, place, was)
      const own = number
        ? nodes.field.create({ kind: "reference", format: `number ${place}` }, null, field.marks)
        : was === ""
          ? null
          : schema.text(was, field.marks)
      const before = replaced.get(node) ?? node
      const at = before.children.indexOf(field)
      if (at < 0) continue
      const children = [...before.children]
      children.splice(at, 1, ...(own ? [own] : []))
      replaced.set(node, before.copy(Fragment.from(children)))
    }
  if (replaced.size === 0) return doc
  const mended = (node: Node): Node => {
    const other = replaced.get(node)
    if (other) return other
    if (isLeaf(node)) return node
    const children = node.children.map(mended)
    return children.every((own, i) => own === node.child(i)) ? node : node.copy(Fragment.from(children))
  }
  return doc.copy(doc.content.replaceChild(0, mended(bodyOf(doc))))
}

/** Whether what a reference showed is the label and number of the caption that it is about. */
function numberShown(doc: Node, place: string, was: string): boolean {
  const leaf = placesOf(doc).get(place)
  if (leaf === undefined) return false
  const caption = leavesOf(doc)
    .node(leaf)
    .children.some((own) => own.type === nodes.field && fieldAttrs(own).kind === "caption")
  return caption && /^\p{L}[\p{L}\s]*\s[\d.]+$/u.test(was)
}
