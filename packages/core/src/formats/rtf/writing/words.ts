/** Properties of Office Open XML as control words. */
import { isElement, type XmlElement } from "../../xml/parsing"
import { noLanguage, numberOfLanguage } from "../languages"
import { borderLines, leaders, reversed } from "../pairs"
import type { Numbered } from "./tables"

/** By the names of their elements; what is told later replaces what was told before. */
export type Told = ReadonlyMap<string, XmlElement>

export function told(before: Told, element: XmlElement | undefined): Told {
  if (!element) return before
  const all = new Map(before)
  for (const own of element.children) if (isElement(own)) all.set(own.name, merged(all.get(own.name), own))
  return all
}

/** Attributes that are told alone leave the others. */
const parts = new Set(["w:ind", "w:spacing", "w:rFonts", "w:lang"])
const merged = (before: XmlElement | undefined, own: XmlElement): XmlElement =>
  before && parts.has(own.name) ? { ...own, attrs: { ...withoutOpposite(before.attrs, own.attrs), ...own.attrs } } : own

/** A first line goes in or out. */
function withoutOpposite(before: XmlElement["attrs"], own: XmlElement["attrs"]): XmlElement["attrs"] {
  const { "w:hanging": _hanging, "w:firstLine": _first, ...rest } = before
  if (own["w:hanging"] !== undefined || own["w:firstLine"] !== undefined) return rest
  return before
}

const isOn = (element: XmlElement | undefined) =>
  element !== undefined && !["0", "false", "none"].includes(element.attrs["w:val"] ?? "1")
const value = (element: XmlElement | undefined, name = "w:val") => element?.attrs[name]
const colourOf = (value: string | undefined) => (value && /^[0-9a-f]{6}$/i.test(value) ? value : null)

const flags: readonly (readonly [string, string])[] = [
  ["w:b", "b"],
  ["w:i", "i"],
  ["w:caps", "caps"],
  ["w:smallCaps", "scaps"],
  ["w:strike", "strike"],
  ["w:dstrike", "striked1"],
  ["w:outline", "outl"],
  ["w:shadow", "shad"],
  ["w:vanish", "v"],
]
const underlines: Readonly<Record<string, string>> = {
  single: "ul",
  words: "ulw",
  double: "uldb",
  dotted: "uld",
  dash: "uldash",
  dashed: "uldash",
  dotDash: "uldashd",
  dotDotDash: "uldashdd",
  thick: "ulth",
  wave: "ulwave",
}
/** All of them, so that they stand whatever stood before: behind a \plain. */
export function lettersWords(own: Told, numbered: Numbered): string {
  const font = value(own.get("w:rFonts"), "w:ascii")
  const colour = colourOf(value(own.get("w:color")))
  const ground = colourOf(value(own.get("w:shd"), "w:fill"))
  const underline = own.get("w:u")
  const line = underlines[value(underline) ?? "none"]
  const lineColour = line ? colourOf(value(underline, "w:color")) : null
  const script = { superscript: "\\super", subscript: "\\sub" }[value(own.get("w:vertAlign")) ?? ""] ?? ""
  const raised = Number(value(own.get("w:position")) ?? 0)
  const spacing = Number(value(own.get("w:spacing")) ?? 0)
  const name = value(own.get("w:lang")) ?? ""
  const language = name === noLanguage.name ? noLanguage.number : numberOfLanguage(name)
  return (
    (font ? `\\f${numbered.font(font)}` : "") +
    `\\fs${value(own.get("w:sz")) ?? 24}` +
    flags.map(([name, word]) => (isOn(own.get(name)) ? `\\${word}` : "")).join("") +
    (line ? `\\${line}` : "") +
    (lineColour ? `\\ulc${numbered.colour(lineColour)}` : "") +
    (colour ? `\\cf${numbered.colour(colour)}` : "") +
    (ground ? `\\chcbpat${numbered.colour(ground)}` : "") +
    script +
    (raised > 0 ? `\\up${raised}` : raised < 0 ? `\\dn${-raised}` : "") +
    (spacing ? `\\expndtw${spacing}` : "") +
    (isOn(own.get("w:rtl")) ? "\\rtlch" : "") +
    (language ? `\\lang${language}` : "")
  )
}

const alignments: Readonly<Record<string, string>> = {
  left: "ql",
  start: "ql",
  right: "qr",
  end: "qr",
  center: "qc",
  both: "qj",
  distribute: "qd",
}
const tabKinds: Readonly<Record<string, string>> = { right: "\\tqr", end: "\\tqr", center: "\\tqc", decimal: "\\tqdec" }
const leaderWords = reversed(leaders)
const leader = (kind: string) => (leaderWords.has(kind) ? `\\${leaderWords.get(kind)}` : "")
const lines = reversed(borderLines)

/** The line of a side; nothing where there is none. */
export function lineWords(line: XmlElement | undefined, side: string, numbered: Numbered): string {
  const kind = value(line) ?? "none"
  if (!line || kind === "nil" || kind === "none") return ""
  const colour = colourOf(value(line, "w:color"))
  const width = Math.max(1, Math.round((Number(value(line, "w:sz") ?? 4) * 20) / 8))
  return `\\${side}\\${lines.get(kind) ?? "brdrs"}\\brdrw${width}\\brsp${Number(value(line, "w:space") ?? 0) * 20}${colour ? `\\brdrcf${numbered.colour(colour)}` : ""}`
}

export const sides = ["top", "left", "bottom", "right"] as const
const edges = [...sides.map((side) => [side, `brdr${side.charAt(0)}`] as const), ["between", "brdrbtw"] as const]

export function paragraphWords(own: Told, numbered: Numbered): string {
  const number = (name: string, at: string) => Number(value(own.get(name), at) ?? 0)
  const [indent, spacing] = ["w:ind", "w:spacing"]
  const first = number(indent, "w:firstLine") - number(indent, "w:hanging")
  const line = number(spacing, "w:line")
  const rule = value(own.get(spacing), "w:lineRule") ?? "auto"
  const borders = own.get("w:pBdr")
  const ground = colourOf(value(own.get("w:shd"), "w:fill"))
  const outline = value(own.get("w:outlineLvl"))
  const tabs = (own.get("w:tabs")?.children ?? []).filter(isElement)
  const cap = own.get("w:framePr")
  return (
    (value(cap, "w:dropCap") === "drop"
      ? `\\pvpara\\phcol\\dfrmtxtx${value(cap, "w:hSpace") ?? 0}\\dropcapli${value(cap, "w:lines") ?? 3}\\dropcapt1`
      : "") +
    `\\${alignments[value(own.get("w:jc")) ?? "left"] ?? "ql"}` +
    `\\li${number(indent, "w:left") || number(indent, "w:start")}\\ri${number(indent, "w:right") || number(indent, "w:end")}\\fi${first}` +
    `\\sb${number(spacing, "w:before")}\\sa${number(spacing, "w:after")}` +
    (line > 0 && !(rule === "auto" && line === 240)
      ? `\\sl${rule === "exact" ? -line : line}\\slmult${rule === "auto" ? 1 : 0}`
      : "") +
    (isOn(own.get("w:keepNext")) ? "\\keepn" : "") +
    (isOn(own.get("w:keepLines")) ? "\\keep" : "") +
    (isOn(own.get("w:pageBreakBefore")) ? "\\pagebb" : "") +
    (own.has("w:widowControl") ? (isOn(own.get("w:widowControl")) ? "\\widctlpar" : "\\nowidctlpar") : "") +
    (isOn(own.get("w:contextualSpacing")) ? "\\contextualspace" : "") +
    (isOn(own.get("w:bidi")) ? "\\rtlpar" : "") +
    (own.has("w:suppressAutoHyphens") ? `\\hyphpar${isOn(own.get("w:suppressAutoHyphens")) ? 0 : 1}` : "") +
    (ground ? `\\cbpat${numbered.colour(ground)}` : "") +
    edges
      .map(([side, word]) =>
        lineWords(
          (borders?.children ?? []).filter(isElement).find(({ name }) => name === `w:${side}`),
          word,
          numbered,
        ),
      )
      .join("") +
    tabs
      .filter((tab) => value(tab) !== "clear")
      .map(
        (tab) =>
          `${tabKinds[value(tab) ?? ""] ?? ""}${leader(value(tab, "w:leader") ?? "")}\\tx${value(tab, "w:pos") ?? 0}`,
      )
      .join("") +
    (outline !== undefined && Number(outline) < 9 ? `\\outlinelevel${outline}` : "")
  )
}
