/** Properties of runs as values of letters (ISO/IEC 29500-1, 17.3.2). */
import { fitLetters, knownLanguage, type LetterFormat } from "../../../document"
import { meanings } from "../../meanings"
import { child, type XmlElement } from "../../xml/parsing"
import type { Theme } from "./theme"
import { colourOf, halfPoints, highlightOf, isOn, shadingOf, twips } from "./values"

export interface ReadLetters {
  format: Partial<LetterFormat>
  /** Its style of letters, by its name in the file. */
  style: string | undefined
  hidden: boolean
  /** What they look like elsewhere and not here, in words. */
  unlike: readonly string[]
}

const none: readonly string[] = []

/** Properties that have no like here, in words for people; null where a value says that it is off. */
function unlikeOf({ name, attrs }: XmlElement): string | null {
  const value = attrs["w:val"] ?? ""
  switch (name) {
    case "w:w":
      return value === "100" || value === "100%" ? null : "letters made wider or narrower"
    case "w:em":
      return value === "none" ? null : "marks above letters"
    case "w:bdr":
      return value === "none" || value === "nil" ? null : "borders round words"
    case "w:emboss":
    case "w:imprint":
      return /^(0|false|off)$/.test(value) ? null : "raised and sunk letters"
    default:
      return null
  }
}

const underlines = meanings<LetterFormat["underline"]>({
  none: "none",
  words: "single",
  double: "double",
  wavyDouble: "wavy",
  thick: "thick",
  dotted: "dotted",
  dottedHeavy: "dotted",
  dotDash: "dashed",
  dotDotDash: "dashed",
  dashDotHeavy: "dashed",
  dashDotDotHeavy: "dashed",
  dash: "dashed",
  dashedHeavy: "dashed",
  dashLong: "dashed",
  dashLongHeavy: "dashed",
  wave: "wavy",
  wavyHeavy: "wavy",
})

export function readLetters(rPr: XmlElement | undefined, theme: Theme): ReadLetters {
  const format: Partial<LetterFormat> = {}
  if (!rPr) return { format, style: undefined, hidden: false, unlike: none }
  let [style, hidden]: [string | undefined, boolean] = [undefined, false]
  const unlike: string[] = []
  /** What holds in the place of the like for scripts that are written from right to left or have their letters joined. */
  const complex: Partial<LetterFormat> = {}
  let isComplex = false
  for (const own of rPr.children) {
    if (typeof own === "string") continue
    const value = own.attrs["w:val"]
    switch (own.name) {
      case "w:rStyle":
        style = value
        break
      case "w:rFonts": {
        const { attrs } = own
        const face = (name: string, use: string) => theme.family(theme.faceFor(attrs[`w:${use}`]) ?? attrs[`w:${name}`])
        const latin = face("ascii", "asciiTheme") ?? face("hAnsi", "hAnsiTheme")
        if (latin) format.family = latin
        break
      }
      case "w:b":
        format.bold = isOn(own)
        break
      case "w:i":
        format.italic = isOn(own)
        break
      case "w:caps":
        if (isOn(own)) format.caps = "all"
        else format.caps ??= "none"
        break
      case "w:smallCaps":
        if (isOn(own)) format.caps = "small"
        else format.caps ??= "none"
        break
      case "w:strike":
        if (isOn(own)) format.strike = "single"
        else format.strike ??= "none"
        break
      case "w:dstrike":
        if (isOn(own)) format.strike = "double"
        else format.strike ??= "none"
        break
      case "w:outline":
        format.outline = isOn(own)
        break
      case "w:shadow":
        format.shadow = isOn(own)
        break
      case "w:vanish":
        hidden = isOn(own)
        break
      case "w:color": {
        const colour = colourOf(value) ?? theme.colour(own.attrs["w:themeColor"])
        if (colour) format.colour = colour
        else if (value === "auto") format.colour = "#000000"
        break
      }
      case "w:spacing": {
        const spacing = twips(value)
        if (spacing !== undefined) format.spacing = spacing
        break
      }
      case "w:position": {
        const raise = halfPoints(value)
        if (raise !== undefined) format.raise = raise
        break
      }
      case "w:sz":
      case "w:szCs": {
        const size = halfPoints(value)
        if (size !== undefined && size > 0) (own.name === "w:sz" ? format : complex).size = size
        break
      }
      case "w:rtl":
      case "w:cs":
        isComplex ||= isOn(own)
        break
      case "w:bCs":
        complex.bold = isOn(own)
        break
      case "w:iCs":
        complex.italic = isOn(own)
        break
      case "w:highlight":
        format.highlight = highlightOf(value) ?? null
        break
      case "w:shd": {
        const ground = shadingOf(own)
        if (ground !== undefined && !child(rPr, "w:highlight")) format.highlight = ground
        break
      }
      case "w:u": {
        format.underline = underlines(value ?? "single") ?? "single"
        const colour = colourOf(own.attrs["w:color"])
        if (colour) format.underlineColour = colour
        break
      }
      case "w:vertAlign":
        format.script = value === "superscript" ? "super" : value === "subscript" ? "sub" : "none"
        break
      case "w:lang":
        if (value && knownLanguage(value) === value) format.language = value
        break
      default: {
        const what = unlikeOf(own)
        if (what !== null) unlike.push(what)
      }
    }
  }
  return { format: fitLetters(isComplex ? { ...format, ...complex } : format), style, hidden, unlike }
}
