/** Values of letters as properties of runs, in the order that the standard wants. */
import type { LetterFormat } from "../../../document"
import { faceName } from "../../familyMeant"
import { xml } from "../../xml/writing"
import { flag, hex, shading, twips, value } from "./values"

const underlines: Readonly<Record<LetterFormat["underline"], string>> = {
  none: "none",
  single: "single",
  double: "double",
  thick: "thick",
  dotted: "dotted",
  dashed: "dash",
  wavy: "wave",
}
const scripts: Readonly<Record<LetterFormat["script"], string>> = {
  none: "baseline",
  super: "superscript",
  sub: "subscript",
}

/**
 * @param style the id of a style of letters
 * @param rtl whether the text runs from right to left
 */
export function runProperties(format: Partial<LetterFormat>, style?: string, rtl = false): string {
  const { family, familyEastAsian, familyComplex, caps, strike, underline, underlineColour, size } = format
  const face = family === undefined ? undefined : faceName(family)
  const fonts =
    (face ?? familyEastAsian ?? familyComplex)
      ? xml("w:rFonts", {
          "w:ascii": face,
          "w:hAnsi": face,
          "w:eastAsia": familyEastAsian,
          "w:cs": familyComplex ?? face,
        })
      : ""
  const half = size === undefined ? undefined : Math.max(2, Math.round(size * 2))
  const all =
    value("w:rStyle", style) +
    fonts +
    flag("w:b", format.bold) +
    flag("w:bCs", format.bold) +
    flag("w:i", format.italic) +
    flag("w:iCs", format.italic) +
    flag("w:caps", caps === undefined ? undefined : caps === "all") +
    flag("w:smallCaps", caps === undefined ? undefined : caps === "small") +
    flag("w:strike", strike === undefined ? undefined : strike === "single") +
    flag("w:dstrike", strike === undefined ? undefined : strike === "double") +
    flag("w:outline", format.outline) +
    flag("w:shadow", format.shadow) +
    value("w:color", format.colour === undefined ? undefined : hex(format.colour)) +
    value("w:spacing", format.spacing === undefined ? undefined : twips(format.spacing)) +
    value("w:position", format.raise === undefined ? undefined : Math.round(format.raise * 2)) +
    value("w:sz", half) +
    value("w:szCs", half) +
    (underline === undefined && !underlineColour
      ? ""
      : xml("w:u", {
          "w:val": underlines[underline ?? "single"],
          "w:color": underlineColour ? hex(underlineColour) : undefined,
        })) +
    (format.highlight === undefined ? "" : shading(format.highlight)) +
    value("w:vertAlign", format.script === undefined ? undefined : scripts[format.script]) +
    flag("w:rtl", rtl || undefined) +
    value("w:lang", format.language || undefined)
  return all === "" ? "" : `<w:rPr>${all}</w:rPr>`
}
