/** Files that a document needs, which are kept beside it by their SHA-256. */
import type { Node } from "prosemirror-model"
import { enclosureOf, type Enclosure } from "./enclosures"
import { fieldAttrs } from "./fields"
import { pictureAttrs } from "./pictures"
import { documentAttrs } from "./schema"

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

/** What files are in documents. */
export type FileKind = "picture" | "enclosure" | "font"

/** The files of its pictures, of what is enclosed, and of typefaces that people brought in, each with what it is. */
export function assetsOf(doc: Node): Map<string, FileKind> {
  const found = new Map<string, FileKind>(enclosuresOf(doc).map(({ enclosure }) => [enclosure.asset, "enclosure"]))
  for (const family of Object.values(documentAttrs(doc).styles.fonts))
    for (const asset of Object.values(family)) found.set(asset, "font")
  // What is shown somewhere is a picture, whether it is enclosed or not.
  doc.descendants((node) => {
    if (node.type.name !== "picture") return true
    const { asset, source } = pictureAttrs(node)
    found.set(asset, "picture")
    if (source) found.set(source, "picture")
    return true
  })
  return found
}
