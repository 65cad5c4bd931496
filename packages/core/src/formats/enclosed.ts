/** Files that go along with a document, as office documents carry them: in the file, with their names. */
import { enclosureFormat, enclosureOf, fieldAttrs, largestEnclosure, nodes, type Enclosure } from "../document"
import type { Node } from "prosemirror-model"
import { assetName } from "./assets"

/** What the mark of words begins with that show such a file: behind it stands what the part calls the file. */
export const enclosedMark = "enclosure-"

/** The enclosure that a field shows; null for another field. */
export function enclosureIn(field: Node): Enclosure | null {
  const { kind, format } = fieldAttrs(field)
  return kind === "enclosure" ? enclosureOf(format) : null
}

/** How the part with its bytes is called: by a number, and by its ending where that is one of letters. */
export function enclosedFile(number: number, { name }: Enclosure): string {
  const ending = /\.([a-z0-9]{1,8})$/.exec(name.toLowerCase())?.[1] ?? "bin"
  return `enclosure${number}.${ending}`
}

/** A field that shows a file that was read, with the name of its asset; null for one that is too large, or has nothing in it. */
export function enclosedField(name: string, bytes: Uint8Array): { asset: string; field: Node } | null {
  if (bytes.length === 0 || bytes.length > largestEnclosure) return null
  const asset = assetName(bytes)
  const format = enclosureFormat({ asset, size: bytes.length, name })
  return { asset, field: nodes.field.create({ kind: "enclosure", format }) }
}
