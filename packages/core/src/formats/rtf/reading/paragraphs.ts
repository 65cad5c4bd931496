/** Properties of paragraphs, from control words to those of Office Open XML. */

import { borderLines, leaders } from "../pairs"

interface Line {
  val: string
  /** Eighths of a point. */
  size: number
  space: number
  colour: string | null
}

interface TabStop {
  kind: string
  leader: string
  at: number
}

export interface Paragraph {
  style: number | null
  /** A list by its number, and the level in it. */
  list: number | null
  level: number
  /** Lengths in twips and switches, by the names of their control words. */
  own: ReadonlyMap<string, number>
  align: string | null
  tabs: readonly TabStop[]
  /** What the next stop is like. */
  nextTab: { kind: string; leader: string }
  borders: ReadonlyMap<string, Line>
  /** The side whose line is being told. */
  side: string | null
  inTable: boolean
  /** How many tables it stands in, one in the other, if it stands in one. */
  depth: number
}

/** So many tables at most stand in each other. */
const deepest = 12

const usualTab = { kind: "left", leader: "none" }

export const plainParagraph: Paragraph = {
  style: null,
  list: null,
  level: 0,
  own: new Map(),
  align: null,
  tabs: [],
  nextTab: usualTab,
  borders: new Map(),
  side: null,
  inTable: false,
  depth: 1,
}

const alignments = new Map([
  ["ql", "left"],
  ["qr", "right"],
  ["qc", "center"],
  ["qj", "both"],
  ["qd", "distribute"],
])
const tabKinds = new Map([
  ["tqr", "right"],
  ["tqc", "center"],
  ["tqdec", "decimal"],
])
const sides = new Map([
  ["brdrt", "top"],
  ["brdrb", "bottom"],
  ["brdrl", "left"],
  ["brdrr", "right"],
  ["brdrbtw", "between"],
])
/** Those of a box. */
const around = ["top", "bottom", "left", "right"]
const lengths = new Set([
  "li",
  "ri",
  "fi",
  "lin",
  "rin",
  "sb",
  "sa",
  "sl",
  "slmult",
  "keep",
  "keepn",
  "pagebb",
  "rtlpar",
  "hyphpar",
  "outlinelevel",
  "cbpat",
  "contextualspace",
  "widctlpar",
  "nowidctlpar",
  "dropcapli",
  "dropcapt",
  "dfrmtxtx",
])

/** A line of which nothing has been said yet. */
export const usualLine: Line = { val: "single", size: 4, space: 1, colour: null }

/** What a control word makes of the line of a side; null for one that says nothing of lines. */
export function withLine(
  line: Line | undefined,
  name: string,
  value: number | null,
  colours: readonly (string | null)[],
): Line | null {
  const own = line ?? { val: "single", size: 4, space: 0, colour: null }
  const val = borderLines.get(name)
  if (val) return { ...own, val, size: name === "brdrth" ? own.size * 2 : own.size }
  if (name === "brdrw") return { ...own, size: Math.max(2, Math.round(((value ?? 10) * 8) / 20)) }
  if (name === "brsp") return { ...own, space: Math.round((value ?? 0) / 20) }
  if (name === "brdrcf") return { ...own, colour: colours[value ?? 0] ?? null }
  if (name === "brdrnone" || name === "brdrnil") return { ...own, val: "nil" }
  return null
}

export type { Line }

/** What a control word makes of a paragraph; null for one that says nothing of it. */
export function withParagraph(
  before: Paragraph,
  name: string,
  value: number | null,
  colours: readonly (string | null)[],
): Paragraph | null {
  const align = alignments.get(name)
  if (align) return { ...before, align }
  const kind = tabKinds.get(name)
  if (kind) return { ...before, nextTab: { ...before.nextTab, kind } }
  const leader = leaders.get(name)
  if (leader) return { ...before, nextTab: { ...before.nextTab, leader } }
  const side = sides.get(name)
  if (side) return { ...before, side, borders: new Map(before.borders).set(side, usualLine) }
  if (name === "box") return { ...before, side: "all", borders: new Map(around.map((own) => [own, usualLine])) }
  if (before.side !== null && name.startsWith("br")) {
    const told = before.side === "all" ? around : [before.side]
    const borders = new Map(before.borders)
    for (const own of told) {
      const line = withLine(borders.get(own), name, value, colours)
      if (line) borders.set(own, line)
    }
    return { ...before, borders }
  }
  switch (name) {
    case "pard":
      return plainParagraph
    case "s":
      return { ...before, style: value }
    case "ls":
      return { ...before, list: value === 0 ? null : value }
    case "ilvl":
      return { ...before, level: Math.min(8, Math.max(0, value ?? 0)) }
    case "intbl":
      return { ...before, inTable: true }
    case "itap":
      return { ...before, depth: Math.min(deepest, Math.max(1, value ?? 1)) }
    case "tx":
      return {
        ...before,
        tabs: [...before.tabs.slice(0, 99), { ...before.nextTab, at: value ?? 0 }],
        nextTab: usualTab,
      }
    default:
      return lengths.has(name) ? { ...before, own: new Map(before.own).set(name, value ?? 1) } : null
  }
}

/** What says that a paragraph has not what its style has, where that is not 0. */
const off = new Map([
  ["outlinelevel", 9],
  ["hyphpar", 1],
])

/** What a paragraph has that another has not, and the other way round. */
export function paragraphBeside(paragraph: Paragraph, base: Paragraph): Paragraph {
  const own = new Map<string, number>()
  for (const [name, value] of paragraph.own) if (base.own.get(name) !== value) own.set(name, value)
  for (const name of base.own.keys())
    if (!paragraph.own.has(name) && name !== "slmult") own.set(name, off.get(name) ?? 0)
  // What goes together is told together.
  if (own.has("sl") || own.has("slmult")) {
    own.set("sl", paragraph.own.get("sl") || 240)
    own.set("slmult", paragraph.own.get("sl") ? (paragraph.own.get("slmult") ?? 0) : 1)
  }
  const align = paragraph.align === base.align ? null : (paragraph.align ?? "left")
  const isSame = paragraph.list === base.list && paragraph.level === base.level
  // 0 stands for no list.
  const list = isSame ? null : (paragraph.list ?? (base.list === null ? null : 0))
  return { ...paragraph, own, align, list }
}

export const lineXml = (side: string, { val, size, space, colour }: Line): string =>
  `<w:${side} w:val="${val}" w:sz="${size}" w:space="${space}" w:color="${colour ?? "auto"}"/>`

/** @param inside what else belongs there, at its end */
export function paragraphXml(paragraph: Paragraph, colours: readonly (string | null)[], inside = ""): string {
  const { own, style, list, level, align, tabs, borders } = paragraph
  const get = (name: string) => own.get(name)
  const on = (name: string, tag: string) => {
    const value = get(name)
    return value === undefined ? "" : `<w:${tag}${value === 0 ? ' w:val="0"' : ""}/>`
  }
  const attribute = (name: string, value: number | string | undefined) =>
    value === undefined ? "" : ` w:${name}="${value}"`
  const first = get("fi")
  const indents =
    attribute("left", get("lin") ?? get("li")) +
    attribute("right", get("rin") ?? get("ri")) +
    (first === undefined ? "" : first < 0 ? attribute("hanging", -first) : attribute("firstLine", first))
  const line = get("sl")
  const rule = get("slmult") === 1 ? "auto" : line !== undefined && line < 0 ? "exact" : "atLeast"
  const spacing =
    attribute("before", get("sb")) +
    attribute("after", get("sa")) +
    (line ? attribute("line", Math.abs(line)) + attribute("lineRule", rule) : "")
  const ground = colours[get("cbpat") ?? 0]
  const told = [...around, "between"].flatMap((side) => {
    const border = borders.get(side)
    return border ? [lineXml(side, border)] : []
  })
  const outline = get("outlinelevel")
  const all =
    (style === null ? "" : `<w:pStyle w:val="s${style}"/>`) +
    on("keepn", "keepNext") +
    on("keep", "keepLines") +
    on("pagebb", "pageBreakBefore") +
    (get("dropcapli")
      ? `<w:framePr w:dropCap="${get("dropcapt") === 2 ? "margin" : "drop"}" w:lines="${get("dropcapli")}" w:hSpace="${get("dfrmtxtx") ?? 0}"/>`
      : "") +
    (get("nowidctlpar") === undefined ? "" : '<w:widowControl w:val="0"/>') +
    (list === null ? "" : `<w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${list}"/></w:numPr>`) +
    (told.length > 0 ? `<w:pBdr>${told.join("")}</w:pBdr>` : "") +
    (ground ? `<w:shd w:val="clear" w:color="auto" w:fill="${ground}"/>` : "") +
    (tabs.length > 0
      ? `<w:tabs>${tabs.map(({ kind, leader, at }) => `<w:tab w:val="${kind}" w:leader="${leader}" w:pos="${at}"/>`).join("")}</w:tabs>`
      : "") +
    (get("hyphpar") === undefined ? "" : `<w:suppressAutoHyphens w:val="${get("hyphpar") === 0 ? 1 : 0}"/>`) +
    on("rtlpar", "bidi") +
    (spacing ? `<w:spacing${spacing}/>` : "") +
    (indents ? `<w:ind${indents}/>` : "") +
    on("contextualspace", "contextualSpacing") +
    (align ? `<w:jc w:val="${align}"/>` : "") +
    (outline !== undefined && outline < 9 ? `<w:outlineLvl w:val="${outline}"/>` : "") +
    inside
  return all === "" ? "" : `<w:pPr>${all}</w:pPr>`
}
