/** Values as the standard writes them down, in both its forms. */
import { limits, within } from "../../../document"
import type { Border, CellFormat, RulePattern } from "../../../document"
import { meanings } from "../../meanings"
import { child, type XmlElement } from "../../xml/parsing"

const points = meanings<number>({ pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, pc: 12, pi: 12 })

/** Forms of numbers (17.18.59) that all numbers may have, those of sheets, notes and lists. */
export const numberForms = {
  decimal: "decimal",
  lowerLetter: "lowerLetter",
  upperLetter: "upperLetter",
  lowerRoman: "lowerRoman",
  upperRoman: "upperRoman",
} as const

/** A number of units, or a number with a unit of its own, in points; undefined for what is none. */
function measure(value: string | undefined, unit: number): number | undefined {
  const found = /^\s*(-?[\d.]+)\s*([a-z]{2})?\s*$/.exec(value ?? "")
  if (!found) return undefined
  const number = Number(found[1]) * (found[2] ? (points(found[2]) ?? Number.NaN) : unit)
  return Number.isFinite(number) ? Math.round(number * 1000) / 1000 : undefined
}

/** Twentieths of a point. */
export const twips = (value: string | undefined) => measure(value, 1 / 20)
export const halfPoints = (value: string | undefined) => measure(value, 1 / 2)
/** Of drawings: 12,700 to a point. */
export const emus = (value: string | undefined) => measure(value, 1 / 12_700)

export function whole(value: string | undefined): number | undefined {
  const number = value === undefined ? Number.NaN : Number(value)
  return Number.isFinite(number) ? Math.round(number) : undefined
}

/** Whether something that is there is on: that is so unless it says it is not. */
export function isOn(element: XmlElement): boolean {
  return !["0", "false", "off", "none"].includes(element.attrs["w:val"] ?? "true")
}

export function valueOf(parent: XmlElement | undefined, name: string): string | undefined {
  return child(parent, name)?.attrs["w:val"]
}

/** Whether a direction of text is the usual one, in lines across. */
export const runsAcross = (direction: string): boolean => /^(lrTb|tb)V?$/.test(direction)

/** The way in which the lines of a cell are read that are turned; undefined for the usual one. */
export const readingOf = (direction: string): CellFormat["reading"] | undefined =>
  runsAcross(direction) ? undefined : /^(btLr|lr)$/.test(direction) ? "up" : "down"

const unitsOfShapes = meanings({ pt: 1, in: 72, cm: 72 / 2.54, mm: 72 / 25.4, px: 0.75 })

/** A length in points that the CSS of a shape says; undefined for none. */
export function lengthOfShape(style: string | undefined, name: "width" | "height" | "font-size"): number | undefined {
  const found = new RegExp(`(?:^|;)\\s*${name}\\s*:\\s*([\\d.]+)(pt|in|cm|mm|px)?`).exec(style ?? "")
  const unit = unitsOfShapes(found?.[2] ?? "px")
  return found && unit !== undefined ? Number(found[1]) * unit : undefined
}

/** A colour as six figures; undefined for one that is left to the program. */
export function colourOf(value: string | undefined): string | undefined {
  return value !== undefined && /^[0-9a-f]{6}$/i.test(value) ? `#${value.toLowerCase()}` : undefined
}

/** The sixteen colours that marks over words may have. */
const highlights: ReadonlyMap<string, string> = new Map([
  ["black", "#000000"],
  ["blue", "#0000ff"],
  ["cyan", "#00ffff"],
  ["green", "#00ff00"],
  ["magenta", "#ff00ff"],
  ["red", "#ff0000"],
  ["yellow", "#ffff00"],
  ["white", "#ffffff"],
  ["darkBlue", "#000080"],
  ["darkCyan", "#008080"],
  ["darkGreen", "#008000"],
  ["darkMagenta", "#800080"],
  ["darkRed", "#800000"],
  ["darkYellow", "#808000"],
  ["darkGray", "#808080"],
  ["lightGray", "#c0c0c0"],
])
export const highlightOf = (value: string | undefined) => highlights.get(value ?? "")

/** The colour of a ground: that of its pattern mixed with what lies below, as far as the pattern covers. */
export function shadingOf(shd: XmlElement | undefined): string | null | undefined {
  if (!shd) return undefined
  const { "w:fill": fill, "w:color": colour, "w:val": pattern = "clear" } = shd.attrs
  const below = colourOf(fill)
  const above = colourOf(colour) ?? "#000000"
  const part = pattern === "solid" ? 1 : Number(/^pct(\d+)$/.exec(pattern)?.[1] ?? 0) / 100
  if (part === 0) return below ?? null
  const mixed = [1, 3, 5].map((at) => {
    const [a, b] = [above, below ?? "#ffffff"].map((own) => parseInt(own.slice(at, at + 2), 16)) as [number, number]
    return Math.round(a * part + b * (1 - part))
      .toString(16)
      .padStart(2, "0")
  })
  return `#${mixed.join("")}`
}

const patterns: readonly (readonly [RegExp, RulePattern])[] = [
  [/^(double|triple|thin|thick[A-Z]|outset|inset|three)/, "double"],
  [/^dot(ted)?$|^dotDash/, "dotted"],
  [/^dash/, "dashed"],
  [/wave/i, "wavy"],
]

/** A line at an edge; null for none, undefined where nothing is said. */
export function borderOf(element: XmlElement | undefined): Border | null | undefined {
  if (!element) return undefined
  const { "w:val": pattern = "single", "w:sz": size, "w:space": space, "w:color": colour } = element.attrs
  if (pattern === "nil" || pattern === "none") return null
  return {
    pattern: patterns.find(([own]) => own.test(pattern))?.[1] ?? "solid",
    width: within((whole(size) ?? 4) / 8 || 0.5, limits.border.width),
    colour: colourOf(colour) ?? "#000000",
    distance: within(whole(space) ?? 0, limits.border.distance),
  }
}
