/** What looks like a list or a heading and is none, and headings that skip a level. */
import type { Node } from "prosemirror-model"
import {
  bodyOf,
  documentAttrs,
  headingsOf,
  leavesOf,
  marks,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  textOf,
  typedItem,
  withTypedLists,
} from "../../document"
import type { Finding, Rule } from "./rule"

export const typedLists: Rule = {
  id: "typedLists",
  name: "Lists typed by hand",
  why: "Numbers that are typed stay as they are when an item comes or goes, and the second line of an item does not hang.",
  act: "Make lists",
  find(doc) {
    const leaves = leavesOf(doc)
    const body = bodyOf(doc)
    const { styles } = documentAttrs(doc)
    const found: Finding[] = []
    let row: { from: number; nodes: Node[]; definition: string } | null = null
    const end = () => {
      if (row && row.nodes.length > 1) {
        const { from, nodes } = row
        const to = nodes.reduce((sum, node) => sum + node.nodeSize, from)
        found.push({
          leaf: leaves.at(from + 1),
          from,
          to,
          mend: (tr) => void tr.replaceWith(from, to, withTypedLists(nodes)),
        })
      }
      row = null
    }
    body.forEach((block, offset) => {
      const item =
        block.isTextblock && paragraphLook(styles, block).paragraph.list === null ? typedItem(textOf(block)) : null
      if (!item || (row && row.definition !== item.definition)) end()
      if (!item) return
      if (row) row.nodes.push(block)
      else row = { from: offset + 1, nodes: [block], definition: item.definition }
    })
    end()
    return found
  },
}

/** Letters of the longest line that is taken for a heading. */
const longestHeading = 80

/** Whether all letters of a paragraph are bold, or larger than those of its style, and it reads like a heading. */
function looksLikeHeading(styles: ReturnType<typeof documentAttrs>["styles"], paragraph: Node): boolean {
  const text = textOf(paragraph).trim()
  if (text.length < 2 || text.length > longestHeading || /[.,;:!?]$/.test(text) || !/\p{L}/u.test(text)) return false
  const { letters, paragraph: look } = paragraphLook(styles, paragraph)
  if (look.list !== null || letters.bold) return false
  let all = true
  paragraph.forEach((child) => {
    const bold = child.marks.some(({ type, attrs }) => type === marks.bold && attrs.value === true)
    const large = child.marks.some(({ type, attrs }) => type === marks.size && (attrs.value as number) > letters.size)
    if (child.isText ? (child.text ?? "").trim() !== "" && !bold && !large : true) all = false
  })
  return all
}

export const boldHeadings: Rule = {
  id: "boldHeadings",
  name: "Bold lines as headings",
  why: "They stand in no outline and no contents, and may part from the text below them.",
  act: "Make headings",
  find(doc) {
    const { styles } = documentAttrs(doc)
    const body = bodyOf(doc)
    const leaves = leavesOf(doc)
    const found: Finding[] = []
    const looks = (node: Node | null) => node?.isTextblock === true && looksLikeHeading(styles, node)
    // A heading stands alone above something, and a title above all.
    body.forEach((block, offset, i) => {
      const next = body.maybeChild(i + 1)
      if (!block.isTextblock || paragraphAttrs(block).style !== "body" || i === 0 || !next) return
      if (!looks(block) || looks(next) || looks(body.maybeChild(i - 1))) return
      const from = offset + 1
      const above = headingsOf(doc).findLast(({ leaf }) => leaves.before(leaf) < from)
      const style = `heading${Math.min(above?.level ?? 1, 3)}`
      found.push({
        leaf: leaves.at(from + 1),
        from,
        to: from + block.nodeSize,
        mend(tr) {
          tr.removeMark(from, from + block.nodeSize, marks.bold)
          tr.removeMark(from, from + block.nodeSize, marks.size)
          tr.setNodeAttribute(from, "style", style)
        },
      })
    })
    return found
  },
}

export const skippedLevels: Rule = {
  id: "skippedLevels",
  name: "Headings that skip a level",
  why: "Who listens to the document, or reads its outline, looks for what should stand between.",
  act: "Raise them",
  find(doc) {
    const leaves = leavesOf(doc)
    const { styles } = documentAttrs(doc)
    let before = 0
    return headingsOf(doc).flatMap(({ leaf, level }): Finding[] => {
      const skips = level > before + 1 && before > 0
      const right = before + 1
      before = skips ? right : level
      const style = `heading${right}`
      if (!skips || outlineLevel(styles, leaves.node(leaf)) === null || !Object.hasOwn(styles.styles, style)) return []
      const pos = leaves.before(leaf)
      return [
        {
          leaf,
          from: pos,
          to: pos + leaves.node(leaf).nodeSize,
          mend(tr) {
            tr.setNodeAttribute(pos, "style", style)
          },
        },
      ]
    })
  },
}
