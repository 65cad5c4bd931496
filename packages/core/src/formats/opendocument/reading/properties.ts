/** Properties of text and paragraphs (OpenDocument 1.3, part 3, 20) as our values. */
import {
  asName,
  fitLetters,
  fitParagraph,
  knownLanguage,
  limits,
  within as bound,
  type Border,
  type Borders,
  type CellFormat,
  type LetterFormat,
  type ParagraphFormat,
  type TabStop,
} from "../../../document"
import type { EmbeddedFonts } from "../../embeddedFonts"
import { familyMeant, isOfSigns } from "../../familyMeant"
import { meanings } from "../../meanings"
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"

const units = meanings<number>({ pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, pc: 12, px: 0.75 })

/** A length in points; undefined for what is none. */
export function lengthOf(value: string | undefined): number | undefined {
  const found = /^\s*(-?[\d.]+)\s*(pt|in|cm|mm|pc|px)\s*$/.exec(value ?? "")
  const number = found ? Number(found[1]) * (units(found[2]) ?? Number.NaN) : Number.NaN
  return Number.isFinite(number) ? Math.round(number * 100) / 100 : value?.trim() === "0" ? 0 : undefined
}

export function percentOf(value: string | undefined): number | undefined {
  const found = /^\s*(-?[\d.]+)%\s*$/.exec(value ?? "")
  const part = Number(found?.[1]) / 100
  return Number.isFinite(part) ? part : undefined
}

/** Degrees by which a shape is turned, against the clock. */
export function turnOf(transform: string | undefined): number {
  const found = /rotate\s*\(\s*(-?[\d.]+)\s*\)/.exec(transform ?? "")
  const turn = Number(found?.[1] ?? 0) * (180 / Math.PI)
  return Number.isFinite(turn) ? turn : 0
}

export function colourOf(value: string | undefined): string | undefined {
  return value !== undefined && /^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : undefined
}

/** A colour, or null for none. */
const groundOf = (value: string | undefined) =>
  value === undefined ? undefined : (colourOf(value) ?? (value === "transparent" ? null : undefined))

export function borderOf(value: string | undefined, distance = 0): Border | null | undefined {
  if (value === undefined) return undefined
  if (/^\s*(none|hidden)/.test(value)) return null
  const width = value
    .split(/\s+/)
    .map(lengthOf)
    .find((own) => own !== undefined)
  const pattern = /double|groove|ridge/.test(value)
    ? "double"
    : /dotted/.test(value)
      ? "dotted"
      : /dash/.test(value)
        ? "dashed"
        : "solid"
  const own = width ?? (/thin/.test(value) ? 0.5 : 1)
  return {
    pattern,
    // Of a double line, the whole is said, the gap with it.
    width: bound(pattern === "double" ? own / 3 : own, limits.border.width),
    colour: colourOf(/#[0-9a-f]{6}/i.exec(value)?.[0]) ?? "#000000",
    distance: bound(distance, limits.border.distance),
  }
}

const sides = ["top", "right", "bottom", "left"] as const

/** What is said of the lines at the edges. */
export function edgesOf(
  attrs: Readonly<Record<string, string>>,
): Partial<Record<(typeof sides)[number], Border | null>> {
  const edges: Partial<Record<(typeof sides)[number], Border | null>> = {}
  for (const side of sides) {
    const distance = lengthOf(attrs[`fo:padding-${side}`]) ?? lengthOf(attrs["fo:padding"]) ?? 0
    const border = borderOf(attrs[`fo:border-${side}`] ?? attrs["fo:border"], distance)
    if (border !== undefined) edges[side] = border
  }
  return edges
}

/** Typefaces that the file declares, by name. */
export type Faces = ReadonlyMap<string, { family: string; kind: string | undefined }>

/** The first name of a list of typefaces, without what it is quoted with. */
export function familyNamedIn(list: string | undefined): string | undefined {
  return list?.split(",")[0]?.replace(/^['"\s]+|['"\s]+$/g, "")
}

export function facesOf(declarations: XmlElement | undefined): Faces {
  return new Map(
    childrenNamed(declarations, "style:font-face").map(({ attrs }) => [
      attrs["style:name"] ?? "",
      {
        family: familyNamedIn(attrs["svg:font-family"]) ?? "",
        kind: attrs["style:font-family-generic"],
      },
    ]),
  )
}

export interface LetterContext {
  faces: Faces
  /** Told of typefaces that are not here. */
  replaced: Map<string, string>
  /** Typefaces that the file brings along. */
  embedded: EmbeddedFonts
}

function underlineOf(attrs: Readonly<Record<string, string>>): LetterFormat["underline"] | undefined {
  const style = attrs["style:text-underline-style"]
  if (style === undefined) return undefined
  if (style === "none") return "none"
  if (attrs["style:text-underline-type"] === "double") return "double"
  if (style === "dotted") return "dotted"
  if (style === "wave") return "wavy"
  if (style !== "solid") return "dashed"
  return ["bold", "thick"].includes(attrs["style:text-underline-width"] ?? "") ? "thick" : "single"
}

/** @param size that a percentage is of */
export function readLetters(
  properties: XmlElement | undefined,
  { faces, replaced, embedded }: LetterContext,
  size: number | undefined,
): { format: Partial<LetterFormat>; hidden: boolean; hyphenate: boolean | undefined } {
  const format: Partial<LetterFormat> = {}
  const attrs = properties?.attrs
  if (!attrs) return { format, hidden: false, hyphenate: undefined }
  const face = faces.get(attrs["style:font-name"] ?? "")
  const asked = face?.family || familyNamedIn(attrs["fo:font-family"]) || attrs["style:font-name"]
  if (asked) {
    const { family, known } = familyMeant(asked, face?.kind ?? attrs["style:font-family-generic"])
    if (!known && !embedded.has(asked) && !isOfSigns(asked)) replaced.set(asked, family)
    format.family = embedded.has(asked) ? asName(asked, limits.family) : family
  }
  const points = lengthOf(attrs["fo:font-size"])
  const part = percentOf(attrs["fo:font-size"])
  if (points !== undefined && points > 0) format.size = points
  else if (part !== undefined && size !== undefined) format.size = Math.round(part * size * 2) / 2
  const weight = attrs["fo:font-weight"]
  if (weight !== undefined) format.bold = weight === "bold" || Number(weight) >= 600
  const slant = attrs["fo:font-style"]
  if (slant !== undefined) format.italic = slant === "italic" || slant === "oblique"
  const colour = colourOf(attrs["fo:color"])
  if (colour) format.colour = colour
  const ground = groundOf(attrs["fo:background-color"])
  if (ground !== undefined) format.highlight = ground
  const underline = underlineOf(attrs)
  if (underline !== undefined) format.underline = underline
  const underlineColour = colourOf(attrs["style:text-underline-color"])
  if (underlineColour) format.underlineColour = underlineColour
  const strike = attrs["style:text-line-through-style"]
  if (strike !== undefined)
    format.strike =
      strike === "none" ? "none" : attrs["style:text-line-through-type"] === "double" ? "double" : "single"
  const position = attrs["style:text-position"]
  if (position !== undefined) {
    const by = percentOf(position.split(/\s+/)[0])
    if (/^super/.test(position) || (by !== undefined && by > 0)) format.script = "super"
    else if (/^sub/.test(position) || (by !== undefined && by < 0)) format.script = "sub"
    else format.script = "none"
  }
  if (attrs["fo:font-variant"] !== undefined) format.caps = attrs["fo:font-variant"] === "small-caps" ? "small" : "none"
  if (attrs["fo:text-transform"] === "uppercase") format.caps = "all"
  else if (attrs["fo:text-transform"] === "none") format.caps ??= "none"
  const spacing = attrs["fo:letter-spacing"] === "normal" ? 0 : lengthOf(attrs["fo:letter-spacing"])
  if (spacing !== undefined) format.spacing = spacing
  if (attrs["style:letter-kerning"] !== undefined) format.kerning = attrs["style:letter-kerning"] === "true"
  if (attrs["style:text-outline"] !== undefined) format.outline = attrs["style:text-outline"] === "true"
  if (attrs["fo:text-shadow"] !== undefined) format.shadow = attrs["fo:text-shadow"] !== "none"
  const [language, country] = [attrs["fo:language"], attrs["fo:country"]]
  if (language !== undefined && language !== "none") {
    const tag = country && country !== "none" ? `${language}-${country}` : language
    if (knownLanguage(tag) === tag) format.language = tag
  }
  const hyphenate = attrs["fo:hyphenate"]
  return {
    format: fitLetters(format),
    hidden: attrs["text:display"] === "none",
    hyphenate: hyphenate === undefined ? undefined : hyphenate === "true",
  }
}

const alignMeant = meanings<ParagraphFormat["align"]>({
  left: "left",
  center: "center",
  right: "right",
  justify: "justify",
})

function stopsOf(stops: XmlElement, indent: number): TabStop[] {
  return childrenNamed(stops, "style:tab-stop")
    .flatMap(({ attrs }): TabStop[] => {
      const position = lengthOf(attrs["style:position"])
      if (position === undefined) return []
      const type = attrs["style:type"]
      const leader = attrs["style:leader-style"]
      const sign = attrs["style:leader-text"]
      return [
        {
          position: bound(position + indent, limits.space),
          align: type === "center" || type === "right" ? type : type === "char" ? "decimal" : "left",
          leader:
            leader === undefined || leader === "none"
              ? "none"
              : leader === "dotted" || sign === "." || sign === "·"
                ? "dotted"
                : leader === "dash" || sign === "-"
                  ? "dashed"
                  : "solid",
        },
      ]
    })
    .sort((a, b) => a.position - b.position)
}

/** @param indent of what it starts from, from which tab stops count unless it has one itself */
export function readParagraph(properties: XmlElement | undefined, rtl: boolean, indent = 0): Partial<ParagraphFormat> {
  const format: Partial<ParagraphFormat> = {}
  const attrs = properties?.attrs
  if (!properties || !attrs) return format
  const mode = attrs["style:writing-mode"]
  if (mode === "rl-tb" || mode === "rl") format.direction = "rtl"
  else if (mode === "lr-tb" || mode === "lr") format.direction = "ltr"
  const backward = format.direction === undefined ? rtl : format.direction === "rtl"
  const align = attrs["fo:text-align"]
  if (align === "start" || align === "end") format.align = (align === "start") === backward ? "right" : "left"
  else {
    const meant = alignMeant(align)
    if (meant) format.align = meant
  }
  const all = lengthOf(attrs["fo:margin"])
  const [before, after] = [lengthOf(attrs["fo:margin-top"]) ?? all, lengthOf(attrs["fo:margin-bottom"]) ?? all]
  if (before !== undefined) format.spaceBefore = before
  if (after !== undefined) format.spaceAfter = after
  const [left, right] = [lengthOf(attrs["fo:margin-left"]) ?? all, lengthOf(attrs["fo:margin-right"]) ?? all]
  // Ours count from the edges at which lines begin and end.
  const [begin, end] = backward ? [right, left] : [left, right]
  if (begin !== undefined) format.indentLeft = begin
  if (end !== undefined) format.indentRight = end
  const first = lengthOf(attrs["fo:text-indent"])
  if (first !== undefined) format.indentFirst = first
  const height = attrs["fo:line-height"]
  const [multiple, exact] = [percentOf(height), lengthOf(height)]
  const least = lengthOf(attrs["style:line-height-at-least"])
  if (multiple !== undefined) format.lineSpacing = { rule: "multiple", value: multiple }
  else if (exact !== undefined) format.lineSpacing = { rule: "exact", value: exact }
  else if (height === "normal") format.lineSpacing = { rule: "multiple", value: 1 }
  else if (least !== undefined) format.lineSpacing = { rule: "atLeast", value: least }
  if (attrs["fo:keep-with-next"] !== undefined) format.keepNext = attrs["fo:keep-with-next"] === "always"
  if (attrs["fo:keep-together"] !== undefined) format.keepTogether = attrs["fo:keep-together"] === "always"
  const count = (value: string | undefined) => {
    const number = Number(value)
    return value === undefined || !Number.isFinite(number)
      ? undefined
      : bound(Math.round(number) || 1, limits.keptLines)
  }
  const [orphans, widows] = [count(attrs["fo:orphans"]), count(attrs["fo:widows"])]
  if (orphans !== undefined) format.orphans = orphans
  if (widows !== undefined) format.widows = widows
  const begins = attrs["fo:break-before"]
  if (begins !== undefined) {
    if (begins === "column") format.columnBefore = true
    else format.breakBefore = begins === "page" || begins === "odd-page" || begins === "even-page"
  }
  const ground = groundOf(attrs["fo:background-color"])
  if (ground !== undefined) format.shading = ground
  const edges = edgesOf(attrs)
  if (Object.keys(edges).length > 0) {
    const borders: Borders = {}
    for (const side of sides) if (edges[side]) borders[side] = edges[side] as Border
    format.borders = borders
  }
  const stops = child(properties, "style:tab-stops")
  if (stops) format.tabs = stopsOf(stops, format.indentLeft ?? indent)
  const cap = child(properties, "style:drop-cap")?.attrs
  if (cap) {
    const lines = Number(cap["style:lines"] ?? 1)
    format.dropCap = lines > 1 ? { lines, distance: lengthOf(cap["style:distance"]) ?? 0, family: null } : null
  }
  if (attrs["style:contextual-spacing"] !== undefined) format.spaceAlike = attrs["style:contextual-spacing"] !== "true"
  return fitParagraph(format)
}

/** The way in which the lines of a cell are read, where they are turned. */
export function readingOf(attrs: Readonly<Record<string, string | undefined>>): CellFormat["reading"] | undefined {
  const angle = Number.parseFloat(attrs["style:rotation-angle"] ?? "0")
  const mode = attrs["style:writing-mode"]
  if (angle === 90 || mode === "bt-lr") return "up"
  return angle === 270 || angle === -90 || mode === "tb-rl" || mode === "tb" || mode === "tb-lr" ? "down" : undefined
}
