/** Embedded typefaces (ISO/IEC 29500-1, 17.8.1): files whose first 32 bytes are mixed with the digits of a key. */
import type { FaceVariant } from "../../document"
import { EmbeddedFonts, type FaceToEmbed } from "../embeddedFonts"
import type { Leaving } from "../leaving"
import { child, childrenNamed } from "../xml/parsing"
import { xml } from "../xml/writing"
import type { Parts } from "./parts"

const variants: readonly (readonly [FaceVariant, string])[] = [
  ["regular", "w:embedRegular"],
  ["bold", "w:embedBold"],
  ["italic", "w:embedItalic"],
  ["boldItalic", "w:embedBoldItalic"],
]

const mixed = 32

/** A file mixed with a key, or unmixed, which is the same; null for what is no key. */
export function mixedFont(bytes: Uint8Array, key: string): Uint8Array | null {
  const digits = key.replace(/[^0-9a-f]/gi, "")
  if (digits.length !== 32) return null
  const own = Uint8Array.from({ length: 16 }, (_, i) => parseInt(digits.slice(30 - 2 * i, 32 - 2 * i), 16))
  const file = bytes.slice()
  file.set(bytes.subarray(0, mixed).map((byte, i) => byte ^ (own[i % 16] ?? 0)))
  return file
}

export function embeddedFonts(parts: Parts, main: string, leaving: Leaving): EmbeddedFonts {
  const fonts = new EmbeddedFonts(leaving)
  const table = parts.related(main, "fontTable")
  if (table === undefined) return fonts
  for (const font of childrenNamed(parts.xml(table), "w:font"))
    for (const [variant, name] of variants) {
      const embedded = child(font, name)?.attrs
      const target = parts.relations(table).get(embedded?.["r:id"] ?? "")?.target
      const bytes = target === undefined ? undefined : parts.bytes(target)
      if (!embedded || !bytes) continue
      const key = embedded["w:fontKey"]
      const file = key === undefined ? bytes : mixedFont(bytes, key)
      fonts.take(font.attrs["w:name"] ?? "", variant, file ?? bytes)
    }
  return fonts
}

/** A key of its own for each file, the same each time. */
function keyOf(asset: string): string {
  const digits = asset.toUpperCase()
  const [a, b, c, d, e] = [0, 8, 12, 16, 20].map((from, i) => digits.slice(from, [8, 12, 16, 20, 32][i]))
  return `{${a}-${b}-${c}-${d}-${e}}`
}

/**
 * The content of the table of typefaces; empty where none goes along.
 * @param put puts a file into the package, and returns what the table calls it
 */
export function fontTable(faces: readonly FaceToEmbed[], put: (name: string, bytes: Uint8Array) => string): string {
  const families = [...new Set(faces.map(({ family }) => family))]
  return families
    .map((family) => {
      const own = faces.filter((face) => face.family === family)
      const embedded = variants.flatMap(([variant, name]) => {
        const face = own.find((one) => one.variant === variant)
        if (!face) return []
        const key = keyOf(face.asset)
        const bytes = mixedFont(face.bytes, key) ?? face.bytes
        return [xml(name, { "r:id": put(`${face.asset.slice(0, 16)}.odttf`, bytes), "w:fontKey": key })]
      })
      return xml("w:font", { "w:name": family }, ...embedded)
    })
    .join("")
}
