/** RTF (its published specification, 1.9) as a document, by way of Office Open XML, which says the same in another way. */
import { ReadingError } from "../../../document/reading"
import type { FileRead, ReadOptions } from "../../format"
import { Leaving } from "../../leaving"
import { readOfficeOpenXml } from "../../officeopenxml/reading"
import { Package } from "./package"
import { numberingXml } from "./lists"
import { RtfReader } from "./reader"
import { sectionXml } from "./sections"
import { takeRtf } from "./tokens"

/** @throws ReadingError */
export function readRtf(bytes: Uint8Array, options: ReadOptions = {}): FileRead {
  const leaving = new Leaving()
  const parts = new Package()
  const reader = new RtfReader(parts, leaving)
  takeRtf(bytes, reader)
  reader.end()
  const { book, main } = reader
  if (!reader.begun) throw new ReadingError("There is no text in it: it does not begin as RTF does")
  const font = book.fonts.get(reader.usualFont)?.name
  const face = font
    ? `<w:rFonts w:ascii="${font.replace(/[&<>"]/g, "")}" w:hAnsi="${font.replace(/[&<>"]/g, "")}"/>`
    : ""
  parts.part(
    "styles",
    "styles",
    `<w:docDefaults><w:rPrDefault><w:rPr>${face}<w:sz w:val="24"/>${reader.language ? `<w:lang w:val="${reader.language}"/>` : ""}</w:rPr></w:rPrDefault></w:docDefaults>${book.styles.join("")}`,
  )
  const numbering = numberingXml(book.lists, book.overrides)
  if (numbering) parts.part("numbering", "numbering", numbering)
  for (const kind of ["footnote", "endnote"] as const) {
    const notes = reader.notes[kind]
    if (notes.length > 0)
      parts.part(
        `${kind}s`,
        `${kind}s`,
        notes.map((inside, n) => `<w:${kind} w:id="${n + 1}">${inside}</w:${kind}>`).join(""),
      )
  }
  if (reader.comments.length > 0) parts.part("comments", "comments", reader.comments.join(""))
  const settings = [...reader.settings].map(([name, own]) => `<${name} w:val="${own}"/>`)
  if (settings.length > 0) parts.part("settings", "settings", settings.join(""))
  const read = readOfficeOpenXml(parts.finish(main + sectionXml(reader.section), book), options)
  return { ...read, left: [...leaving.list, ...read.left] }
}
