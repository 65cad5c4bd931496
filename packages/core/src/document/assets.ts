/** Files that a document needs, which are kept beside it by their SHA-256. */
import type { Node } from "prosemirror-model"
import { enclosureOf, type Enclosure } from "./enclosures"
import { fieldAttrs } from "./fields"
import { pictureAttrs } from "./pictures"

/** The enclosures of a document in the order of its text; those that are shown twice, twice. */
export function enclosuresOf(doc: Node): { pos: number; enclosure: Enclosure }[] {
  const found: { pos: number; enclosure: Enclosure }[] = []
  doc.descendants((node, pos) => {
    if (node.type.name !== "field") return true
    const { kind, format } = fieldAttrs(node)
    const enclosure = kind === "enclosure" ? enclosureOf(format) : null
    if (enclosure) found.push({ pos, enclosure })
    return false
  })
  return found
}

/** Those of its pictures, and those that are enclosed. */
export function assetsOf(doc: Node): Set<string> {
  const found = new Set(enclosuresOf(doc).map(({ enclosure }) => enclosure.asset))
  doc.descendants((node) => {
    if (node.type.name !== "picture") return true
    const { asset, source } = pictureAttrs(node)
    found.add(asset)
    if (source) found.add(source)
    return true
  })
  return found
}
