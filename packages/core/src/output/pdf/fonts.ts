/**
 * Faces in a PDF: composite fonts (ISO 32000-1, 9.7) with a character identifier for each pair of
 * glyph and text, so that text copies out exactly as it was written, ligatures and all.
 */
import { readFontFile } from "../../document/fontFile"
import type { FaceId, FontLibrary } from "../../layout"
import { assetOfFace } from "../../layout/fonts/catalogue"
import { num, ref, utf16, type PdfFile, type Ref } from "./objects"
import type { Subsetter } from "./subset"

interface Character {
  glyph: number
  text: string
}

/** What a glyph stands for whose text another says: a sign that nobody sees, which readers leave out of words. */
export const silent = "\u200b"

/** A glyph that stands for one unit of text. */
interface Single {
  unit: number
  cid: number
  width: number
}

export class PdfFace {
  readonly ref: Ref
  private readonly characters: Character[] = [{ glyph: 0, text: "" }]
  /** Identifiers by glyph and text. */
  private readonly numbers = new Map<number, Map<string, number>>()
  private readonly advances = new Map<number, number>()
  /** Fonts with PostScript outlines are embedded so that a character's identifier is its glyph (ISO 32000-1, 9.7.4.2). */
  private readonly postscript: boolean
  private readonly whole: boolean

  constructor(
    file: PdfFile,
    readonly id: FaceId,
    readonly name: string,
    private readonly fonts: FontLibrary,
  ) {
    this.ref = file.reserve()
    const own = assetOfFace(id) === null ? null : readFontFile(fonts.bytes(id))
    this.postscript = own?.postscript ?? false
    this.whole = own !== null && !own.subsetting
  }

  /** Whether a glyph can stand for one text only, so that others have to be said beside it. */
  standsFor(glyph: number, text: string): boolean {
    if (!this.postscript) return true
    const known = this.texts.get(glyph) ?? silent
    if (known === silent) this.texts.set(glyph, text)
    return known === silent || known === text
  }
  private readonly texts = new Map<number, string>()

  /** The character identifier for a glyph that stands for a text. */
  cid(glyph: number, text: string): number {
    if (this.postscript) {
      this.texts.set(glyph, this.texts.get(glyph) ?? text)
      return glyph
    }
    let byText = this.numbers.get(glyph)
    if (!byText) this.numbers.set(glyph, (byText = new Map()))
    let cid = byText.get(text)
    if (cid === undefined) {
      cid = this.characters.push({ glyph, text }) - 1
      byText.set(text, cid)
    }
    return cid
  }

  /** A glyph for one unit of text, as it is nearly always; null where it cannot stand for that one. */
  single(glyph: number, text: string, at: number): Single | null {
    const unit = text.charCodeAt(at)
    const known = this.singles[glyph]
    if (known?.unit === unit) return known
    const own = text.charAt(at)
    if (!this.standsFor(glyph, own)) return null
    return (this.singles[glyph] = { unit, cid: this.cid(glyph, own), width: this.width(glyph) })
  }
  private readonly singles: Single[] = []

  /** Declared width of a glyph, in thousandths of the size. */
  width(glyph: number): number {
    let width = this.advances.get(glyph)
    if (width === undefined) {
      const font = this.fonts.font(this.id)
      width = Math.round((font.advance(glyph) * 1e6) / font.metrics.upem) / 1000
      this.advances.set(glyph, width)
    }
    return width
  }

  write(file: PdfFile, subset: Subsetter): void {
    const bytes = this.fonts.bytes(this.id)
    const { metrics } = this.fonts.font(this.id)
    const units = (value: number) => num((value * 1000) / metrics.upem)
    const used = this.postscript ? [...this.texts.keys()].sort((a, b) => a - b) : this.characters.map((c) => c.glyph)
    const program = this.whole ? bytes : subset(bytes, new Set([0, ...used]))
    const plain = this.id.replace(/^own-(.{8}).*$/, "Own-$1")
    const fontName = this.whole ? plain : `${subsetTag(this.id, used.length)}+${plain}`
    const fontFile = file.addStream(program, this.postscript ? "/Subtype/OpenType" : `/Length1 ${program.length}`)
    const { box, italicAngle } = readHead(bytes)
    const descriptor = file.add(
      `<</Type/FontDescriptor/FontName/${fontName}/Flags 4/FontBBox[${box.map(units).join(" ")}]/ItalicAngle ${num(italicAngle)}` +
        `/Ascent ${units(metrics.ascender)}/Descent ${units(metrics.descender)}/CapHeight ${units(metrics.capHeight || metrics.ascender * 0.75)}/StemV 80/${this.postscript ? "FontFile3" : "FontFile2"} ${ref(fontFile)}>>`,
    )
    const widths = this.postscript
      ? used.map((glyph) => `${glyph}[${num(this.width(glyph))}]`).join("")
      : `0[${used.map((glyph) => num(this.width(glyph))).join(" ")}]`
    const map = new Uint8Array(this.characters.length * 2)
    this.characters.forEach(({ glyph }, cid) => map.set([glyph >> 8, glyph & 255], cid * 2))
    const kind = this.postscript
      ? "/Subtype/CIDFontType0"
      : `/Subtype/CIDFontType2/CIDToGIDMap ${ref(file.addStream(map))}`
    const descendant = file.add(
      `<</Type/Font${kind}/BaseFont/${fontName}/CIDSystemInfo<</Registry(Adobe)/Ordering(Identity)/Supplement 0>>/FontDescriptor ${ref(descriptor)}/DW 1000/W[${widths}]>>`,
    )
    const unicode = file.addStream(this.toUnicode())
    file.add(
      `<</Type/Font/Subtype/Type0/BaseFont/${fontName}/Encoding/Identity-H/DescendantFonts[${ref(descendant)}]/ToUnicode ${ref(unicode)}>>`,
      this.ref,
    )
  }

  private toUnicode(): string {
    const characters = this.postscript
      ? [...this.texts].map(([cid, text]) => ({ cid, text }))
      : this.characters.map(({ text }, cid) => ({ cid, text }))
    const rows = characters.flatMap(({ cid, text }) =>
      text ? [`<${cid.toString(16).padStart(4, "0")}><${utf16(text)}>`] : [],
    )
    const blocks: string[] = []
    for (let i = 0; i < rows.length; i += 100) {
      const some = rows.slice(i, i + 100)
      blocks.push(`${some.length} beginbfchar\n${some.join("\n")}\nendbfchar`)
    }
    return `/CIDInit/ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo<</Registry(Adobe)/Ordering(UCS)/Supplement 0>>def\n/CMapName/Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<0000><FFFF>\nendcodespacerange\n${blocks.join("\n")}\nendcmap\nCMapName currentdict/CMap defineresource pop\nend\nend`
  }
}

/** Six letters that tell subsets of one face apart. */
function subsetTag(id: string, count: number): string {
  let hash = count
  for (const c of id) hash = (hash * 31 + c.charCodeAt(0)) >>> 0
  return Array.from({ length: 6 }, (_, i) => String.fromCharCode(65 + (Math.floor(hash / 26 ** i) % 26))).join("")
}

/** Bounding box from the head table and slant from the post table of an OpenType file. */
function readHead(bytes: Uint8Array): { box: number[]; italicAngle: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const tables = new Map<string, number>()
  for (let i = 0; i < view.getUint16(4); i++) {
    const at = 12 + i * 16
    tables.set(String.fromCharCode(...bytes.subarray(at, at + 4)), view.getUint32(at + 8))
  }
  const head = tables.get("head") ?? 0
  const post = tables.get("post")
  return {
    box: [36, 38, 40, 42].map((o) => view.getInt16(head + o)),
    italicAngle: post === undefined ? 0 : view.getInt32(post + 4) / 65536,
  }
}
