/** Font files that people bring in: looked at before anything else touches them. Structure: OpenType 1.9, "Organization of an OpenType font". */
import type { FaceVariant } from "./families"

/** Why a file is not taken, in words for people. */
export class FontFileError extends Error {
  override name = "FontFileError"
}

export interface FontFile {
  family: string
  variant: FaceVariant
  /** Whether its outlines are PostScript's (CFF). */
  postscript: boolean
  /** Whether a part of it may be embedded, or only the whole. */
  subsetting: boolean
  /** Whether it may go along in a document that is written on. */
  editing: boolean
}

export const largestFontFile = 12 * 1024 * 1024

const needed = ["cmap", "head", "hhea", "hmtx", "maxp", "name", "OS/2"]

// OS/2.fsType
const RESTRICTED = 0x0002
const READ_ONLY = 0x0004
const NO_SUBSETTING = 0x0100
const BITMAPS_ONLY = 0x0200
// OS/2.fsSelection
const ITALIC = 0x0001
const BOLD = 0x0020

function fontTables(bytes: Uint8Array): Map<string, DataView> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const tables = new Map<string, DataView>()
  const count = view.getUint16(4)
  for (let i = 0; i < count; i++) {
    const at = 12 + i * 16
    const [offset, length] = [view.getUint32(at + 8), view.getUint32(at + 12)]
    if (offset + length > bytes.length) throw new RangeError("A table reaches beyond the file")
    tables.set(
      String.fromCharCode(...bytes.subarray(at, at + 4)),
      new DataView(bytes.buffer, bytes.byteOffset + offset, length),
    )
  }
  return tables
}

/** @throws FontFileError */
export function readFontFile(bytes: Uint8Array): FontFile {
  if (bytes.length > largestFontFile)
    throw new FontFileError(
      `The file has ${Math.ceil(bytes.length / 1048576)} MB; fonts of up to ${largestFontFile / 1048576} MB are taken.`,
    )
  const magic = bytes.length > 12 ? String.fromCharCode(...bytes.subarray(0, 4)) : ""
  if (magic === "wOFF" || magic === "wOF2")
    throw new FontFileError(
      "This is a font packed for web pages (WOFF). Bring in the TTF or OTF file that it was made from.",
    )
  if (magic === "ttcf")
    throw new FontFileError("This file holds several fonts (a collection). Bring in a file with one font, TTF or OTF.")
  if (magic !== "\u0000\u0001\u0000\u0000" && magic !== "OTTO" && magic !== "true")
    throw new FontFileError("This is not a font file. Fonts end in .ttf or .otf.")
  try {
    return readTables(fontTables(bytes), magic)
  } catch (error) {
    if (error instanceof FontFileError) throw error
    throw new FontFileError("The font file is damaged: its tables cannot be read.")
  }
}

function readTables(tables: Map<string, DataView>, magic: string): FontFile {
  const missing = [...needed, magic === "OTTO" ? "CFF " : "glyf"].filter((name) => !tables.has(name))
  if (missing.length > 0)
    throw new FontFileError(`The font file is incomplete: it has no ${missing.map((name) => name.trim()).join(", ")}.`)
  const os2 = tables.get("OS/2") as DataView
  const embedding = os2.getUint16(8)
  if (embedding & RESTRICTED)
    throw new FontFileError(
      "The maker of this font does not allow it to be embedded in documents, so it cannot be used here. Ask for a licence that does, or choose another font.",
    )
  if (embedding & BITMAPS_ONLY)
    throw new FontFileError(
      "The maker of this font allows only pictures of its letters to be embedded, so it cannot be used here.",
    )
  const names = readNames(tables.get("name") as DataView)
  const weight = os2.getUint16(4)
  const family = familyOf(names, weight)
  if (family === "") throw new FontFileError("The font file does not say what its typeface is called.")
  const selection = os2.getUint16(62)
  const bold = (selection & BOLD) !== 0 || (weight >= 600 && weight <= 700)
  const italic = (selection & ITALIC) !== 0
  return {
    family,
    variant: bold ? (italic ? "boldItalic" : "bold") : italic ? "italic" : "regular",
    postscript: magic === "OTTO",
    subsetting: !(embedding & NO_SUBSETTING),
    editing: !(embedding & READ_ONLY),
  }
}

/** Weights that a family has beside its regular and bold ones (OS/2.usWeightClass). */
const weights: readonly (readonly [number, string])[] = [
  [100, "Thin"],
  [200, "Extra Light"],
  [300, "Light"],
  [500, "Medium"],
  [800, "Extra Bold"],
  [900, "Black"],
]

/**
 * What the typeface is called here. A family has four faces; a weight beyond them is a family of its own, as name 1 of the
 * standard has it, so that no weight takes another's place.
 */
function familyOf(names: ReadonlyMap<number, string>, weight: number): string {
  const whole = (names.get(16) ?? names.get(1) ?? "").trim()
  const special = weights.find(([value]) => Math.abs(value - weight) < 50)?.[1]
  // Many say 500 of what is their regular face; one that is meant to be more is called so.
  const plain = special === "Medium" && !/medium/i.test(names.get(17) ?? names.get(4) ?? "")
  if (special === undefined || plain) return whole.slice(0, 120)
  const four = (names.get(1) ?? "").trim()
  if (four !== "" && four !== whole) return four.slice(0, 120)
  return (whole.toLowerCase().endsWith(special.toLowerCase()) ? whole : `${whole} ${special}`).slice(0, 120)
}

/** Names by their number; Unicode ones before those of old systems, English before other languages. */
function readNames(table: DataView): Map<number, string> {
  const names = new Map<number, { text: string; rank: number }>()
  const storage = table.getUint16(4)
  for (let i = 0; i < table.getUint16(2); i++) {
    const at = 6 + i * 12
    const [platform, , language, id, length, offset] = [0, 2, 4, 6, 8, 10].map((o) => table.getUint16(at + o)) as [
      number,
      number,
      number,
      number,
      number,
      number,
    ]
    const wide = platform === 0 || platform === 3
    let text = ""
    for (let b = 0; b < length; b += wide ? 2 : 1)
      text += String.fromCharCode(wide ? table.getUint16(storage + offset + b) : table.getUint8(storage + offset + b))
    const rank = (wide ? 2 : 0) + (language === 0x409 || language === 0 ? 1 : 0)
    if ((names.get(id)?.rank ?? -1) < rank) names.set(id, { text, rank })
  }
  return new Map([...names].map(([id, { text }]) => [id, text]))
}
