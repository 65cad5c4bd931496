/** Values of letters and paragraphs as properties. */
import type { Border, LetterFormat, ParagraphFormat } from "../../../document"
import { faceName } from "../../familyMeant"
import { xml, type XmlValues } from "../../xml/writing"

export const points = (own: number): string => `${Math.round(own * 100) / 100}pt`
export const percent = (own: number): string => `${Math.round(own * 10_000) / 100}%`

const patterns: Readonly<Record<Border["pattern"], string>> = {
  solid: "solid",
  double: "double",
  dotted: "dotted",
  dashed: "dashed",
  wavy: "solid",
}

/** A line at an edge; of a double one the whole is said, with the gap. */
export function border(own: Border | null | undefined): string | undefined {
  if (own === undefined) return undefined
  if (own === null) return "none"
  return `${points(own.pattern === "double" ? own.width * 3 : own.width)} ${patterns[own.pattern]} ${own.colour}`
}

const underlineStyles: Readonly<Record<LetterFormat["underline"], string>> = {
  none: "none",
  single: "solid",
  double: "solid",
  thick: "solid",
  dotted: "dotted",
  dashed: "dash",
  wavy: "wave",
}

function lettersOf(format: Partial<LetterFormat>): XmlValues {
  const { underline, strike, caps, script, language } = format
  const [tag, country] = language?.split("-") ?? []
  return {
    "fo:font-family": format.family === undefined ? undefined : `'${faceName(format.family)}'`,
    "fo:font-size": format.size === undefined ? undefined : points(format.size),
    "fo:font-weight": format.bold === undefined ? undefined : format.bold ? "bold" : "normal",
    "fo:font-style": format.italic === undefined ? undefined : format.italic ? "italic" : "normal",
    "fo:color": format.colour,
    "fo:background-color": format.highlight === undefined ? undefined : (format.highlight ?? "transparent"),
    "style:text-underline-style": underline === undefined ? undefined : underlineStyles[underline],
    "style:text-underline-type":
      underline === undefined || underline === "none" ? undefined : underline === "double" ? "double" : "single",
    "style:text-underline-width":
      underline === undefined || underline === "none" ? undefined : underline === "thick" ? "bold" : "auto",
    "style:text-underline-color":
      format.underlineColour ?? (underline === undefined || underline === "none" ? undefined : "font-color"),
    "style:text-line-through-style": strike === undefined ? undefined : strike === "none" ? "none" : "solid",
    "style:text-line-through-type": strike === undefined || strike === "none" ? undefined : strike,
    "style:text-position":
      script === undefined ? undefined : { none: "0% 100%", super: "super 58%", sub: "sub 58%" }[script],
    "fo:font-variant": caps === undefined ? undefined : caps === "small" ? "small-caps" : "normal",
    "fo:text-transform": caps === undefined ? undefined : caps === "all" ? "uppercase" : "none",
    "fo:letter-spacing":
      format.spacing === undefined ? undefined : format.spacing === 0 ? "normal" : points(format.spacing),
    "style:letter-kerning": format.kerning,
    "style:text-outline": format.outline,
    "fo:text-shadow": format.shadow === undefined ? undefined : format.shadow ? "1pt 1pt" : "none",
    "fo:language": tag || undefined,
    "fo:country": tag ? (country ?? "none") : undefined,
  }
}

/**
 * @param hyphenate what a paragraph says of its words, which is said with its letters
 * @param more what else is said there
 */
export function textProperties(format: Partial<LetterFormat>, hyphenate?: boolean, more: XmlValues = {}): string {
  const values: XmlValues = { ...lettersOf(format), "fo:hyphenate": hyphenate, ...more }
  return Object.values(values).some((own) => own !== undefined) ? xml("style:text-properties", values) : ""
}

function spacing({ lineSpacing }: Partial<ParagraphFormat>): XmlValues {
  if (!lineSpacing) return {}
  const { rule, value } = lineSpacing
  if (rule === "atLeast") return { "style:line-height-at-least": points(value) }
  return { "fo:line-height": rule === "exact" ? points(value) : percent(value) }
}

const sides = ["top", "right", "bottom", "left"] as const

/** Stops count from where lines begin, without that of the first. */
function stops({ tabs }: Partial<ParagraphFormat>, indent: number): string {
  if (tabs === undefined) return ""
  return xml(
    "style:tab-stops",
    null,
    ...tabs.map(({ position, align, leader }) =>
      xml("style:tab-stop", {
        "style:position": points(position - indent),
        "style:type": align === "decimal" ? "char" : align,
        "style:char": align === "decimal" ? "." : undefined,
        "style:leader-style": { none: undefined, dotted: "dotted", dashed: "dash", solid: "solid" }[leader],
        "style:leader-text": { none: undefined, dotted: ".", dashed: "-", solid: "_" }[leader],
      }),
    ),
  )
}

/**
 * @param rtl whether it runs from right to left, after all that it starts from
 * @param indent where its lines begin, likewise
 * @param capStyle the name of the style of its drop cap
 */
export function paragraphProperties(
  format: Partial<ParagraphFormat>,
  rtl: boolean,
  indent: number,
  more: XmlValues = {},
  capStyle?: string,
): string {
  const { indentLeft, indentRight, borders, breakBefore, columnBefore, direction, dropCap } = format
  const [start, end] = [
    indentLeft === undefined ? undefined : points(indentLeft),
    indentRight === undefined ? undefined : points(indentRight),
  ]
  const edges: Record<string, string | undefined> = {}
  if (borders)
    for (const side of sides) {
      edges[`fo:border-${side}`] = border(borders[side] ?? null)
      edges[`fo:padding-${side}`] = points(borders[side]?.distance ?? 0)
    }
  const values: XmlValues = {
    ...more,
    "fo:text-align": format.align,
    "fo:margin-left": rtl ? end : start,
    "fo:margin-right": rtl ? start : end,
    "fo:margin-top": format.spaceBefore === undefined ? undefined : points(format.spaceBefore),
    "fo:margin-bottom": format.spaceAfter === undefined ? undefined : points(format.spaceAfter),
    "fo:text-indent": format.indentFirst === undefined ? undefined : points(format.indentFirst),
    ...spacing(format),
    "fo:keep-with-next": format.keepNext === undefined ? undefined : format.keepNext ? "always" : "auto",
    "fo:keep-together": format.keepTogether === undefined ? undefined : format.keepTogether ? "always" : "auto",
    "fo:orphans": format.orphans,
    "fo:widows": format.widows,
    "fo:break-before": breakBefore
      ? "page"
      : columnBefore
        ? "column"
        : breakBefore === undefined && columnBefore === undefined
          ? undefined
          : "auto",
    "fo:background-color": format.shading === undefined ? undefined : (format.shading ?? "transparent"),
    ...edges,
    "style:contextual-spacing": format.spaceAlike === undefined ? undefined : !format.spaceAlike,
    "style:writing-mode": direction === undefined ? undefined : direction === "rtl" ? "rl-tb" : "lr-tb",
  }
  const inside =
    stops(format, indent) +
    (dropCap
      ? xml("style:drop-cap", {
          "style:lines": dropCap.lines,
          "style:length": 1,
          "style:distance": points(dropCap.distance),
          "style:style-name": capStyle,
        })
      : dropCap === null
        ? xml("style:drop-cap", null)
        : "")
  if (inside === "" && Object.values(values).every((own) => own === undefined)) return ""
  return xml("style:paragraph-properties", values, inside)
}
