/** Properties of paragraphs (ISO/IEC 29500-1, 17.3.1). */
import { fitParagraph, type Borders, type LineSpacing, type ParagraphFormat, type TabStop } from "../../../document"
import { meanings } from "../../meanings"
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"
import { borderOf, isOn, shadingOf, twips, whole } from "./values"

export interface ReadParagraph {
  format: Partial<ParagraphFormat>
  style: string | undefined
  /** 0 to 8 for a heading, 9 for none. */
  outline: number | undefined
  numbering: { num: string | undefined; level: number | undefined } | undefined
  /** Number of lines of a letter that is set as high as these, if that is what the paragraph is. */
  cap: { lines: number; distance: number } | undefined
  /** Whether it stands in a frame, apart from the text. */
  framed: boolean
}

/** Space of paragraphs that leave it to the program, as pages of the web do. */
const ownSpace = 14

const leaders = meanings<TabStop["leader"]>({
  dot: "dotted",
  middleDot: "dotted",
  hyphen: "dashed",
  underscore: "solid",
  heavy: "solid",
})
const tabAligns = meanings<TabStop["align"]>({
  center: "center",
  right: "right",
  end: "right",
  decimal: "decimal",
})

/** Stops with what a paragraph says of them: those it clears go. */
function withTabs(inherited: readonly TabStop[], tabs: XmlElement | undefined): TabStop[] | undefined {
  if (!tabs) return undefined
  const stops = new Map(inherited.map((tab) => [tab.position, tab]))
  for (const { attrs } of childrenNamed(tabs, "w:tab")) {
    const position = twips(attrs["w:pos"])
    if (position === undefined || position < 0) continue
    const kind = attrs["w:val"] ?? "left"
    for (const near of stops.keys()) if (Math.abs(near - position) < 0.5) stops.delete(near)
    if (kind === "clear" || kind === "bar" || kind === "num") continue
    stops.set(position, {
      position,
      align: tabAligns(kind) ?? "left",
      leader: leaders(attrs["w:leader"]) ?? "none",
    })
  }
  return [...stops.values()].sort((a, b) => a.position - b.position)
}

function spacingOf({ attrs }: XmlElement): Partial<ParagraphFormat> {
  const format: Partial<ParagraphFormat> = {}
  const on = (value: string | undefined) => value === "1" || value === "true" || value === "on"
  const before = on(attrs["w:beforeAutospacing"]) ? ownSpace : twips(attrs["w:before"])
  const after = on(attrs["w:afterAutospacing"]) ? ownSpace : twips(attrs["w:after"])
  const line = twips(attrs["w:line"])
  if (before !== undefined) format.spaceBefore = before
  if (after !== undefined) format.spaceAfter = after
  if (line !== undefined && line > 0) {
    const rule = attrs["w:lineRule"] ?? "auto"
    const spacing: LineSpacing =
      rule === "exact"
        ? { rule: "exact", value: line }
        : rule === "atLeast"
          ? { rule: "atLeast", value: line }
          : { rule: "multiple", value: Math.round((line / 12) * 1000) / 1000 }
    format.lineSpacing = spacing
  }
  return format
}

function indentsOf({ attrs }: XmlElement): Partial<ParagraphFormat> {
  const format: Partial<ParagraphFormat> = {}
  const left = twips(attrs["w:start"] ?? attrs["w:left"])
  const right = twips(attrs["w:end"] ?? attrs["w:right"])
  const hanging = twips(attrs["w:hanging"])
  const first = twips(attrs["w:firstLine"])
  if (left !== undefined) format.indentLeft = left
  if (right !== undefined) format.indentRight = right
  if (hanging !== undefined) format.indentFirst = -hanging
  else if (first !== undefined) format.indentFirst = first
  return format
}

const sides = ["top", "right", "bottom", "left", "between"] as const

function bordersOf(pBdr: XmlElement): Borders {
  const borders: Borders = {}
  for (const side of sides) {
    const border = borderOf(child(pBdr, `w:${side}`))
    if (border) borders[side] = border
  }
  return borders
}

/** Where lines stand; "left" and "start" mean where they begin, in text from right to left too. */
function alignOf(value: string | undefined, rtl: boolean): ParagraphFormat["align"] {
  if (value === "center") return "center"
  if (value === "both" || value === "distribute" || value?.endsWith("Kashida")) return "justify"
  const toEnd = value === "right" || value === "end"
  return toEnd === rtl ? "left" : "right"
}

/**
 * @param tabs the stops of what it starts from
 * @param rtl whether what it starts from runs from right to left
 */
export function readParagraph(pPr: XmlElement | undefined, tabs: readonly TabStop[], rtl = false): ReadParagraph {
  const read: ReadParagraph = {
    format: {},
    style: undefined,
    outline: undefined,
    numbering: undefined,
    cap: undefined,
    framed: false,
  }
  if (!pPr) return read
  const { format } = read
  const bidi = child(pPr, "w:bidi")
  const backward = bidi ? isOn(bidi) : rtl
  for (const own of pPr.children) {
    if (typeof own === "string") continue
    const { name, attrs } = own
    const value = attrs["w:val"]
    switch (name) {
      case "w:pStyle":
        read.style = value
        break
      case "w:keepNext":
        format.keepNext = isOn(own)
        break
      case "w:keepLines":
        format.keepTogether = isOn(own)
        break
      case "w:pageBreakBefore":
        format.breakBefore = isOn(own)
        break
      case "w:widowControl":
        format.widows = format.orphans = isOn(own) ? 2 : 1
        break
      case "w:numPr":
        read.numbering = {
          num: child(own, "w:numId")?.attrs["w:val"],
          level: whole(child(own, "w:ilvl")?.attrs["w:val"]),
        }
        break
      case "w:pBdr":
        format.borders = bordersOf(own)
        break
      case "w:shd": {
        const shading = shadingOf(own)
        if (shading !== undefined) format.shading = shading
        break
      }
      case "w:tabs": {
        const stops = withTabs(tabs, own)
        if (stops) format.tabs = stops
        break
      }
      case "w:suppressAutoHyphens":
        format.hyphenate = !isOn(own)
        break
      case "w:bidi":
        format.direction = isOn(own) ? "rtl" : "ltr"
        break
      case "w:spacing":
        Object.assign(format, spacingOf(own))
        break
      case "w:ind":
        Object.assign(format, indentsOf(own))
        break
      case "w:contextualSpacing":
        format.spaceAlike = !isOn(own)
        break
      case "w:jc":
        format.align = alignOf(value, backward)
        break
      case "w:outlineLvl":
        read.outline = whole(value)
        break
      case "w:framePr":
        if (attrs["w:dropCap"] === "drop" || attrs["w:dropCap"] === "margin")
          read.cap = { lines: whole(attrs["w:lines"]) ?? 3, distance: twips(attrs["w:hSpace"]) ?? 0 }
        else read.framed = true
        break
    }
  }
  if (bidi && !format.align) format.align = backward ? "right" : "left"
  read.format = fitParagraph(format)
  return read
}
