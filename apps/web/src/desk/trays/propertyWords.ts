/** Properties of letters and paragraphs, and their values, in words for people. */
import {
  readyLists,
  type LetterFormat,
  type LineSpacing,
  type ListPlace,
  type ParagraphFormat,
  type TabStop,
} from "@biblon/core/document"
import { formatNames, propertyNames } from "@biblon/core/editing"
import { inUnit, type Unit } from "../../ui/units"
import { languageName } from "../languages"

export type PropertyOf =
  { of: "letters"; property: keyof LetterFormat } | { of: "paragraph"; property: keyof ParagraphFormat }

export function nameOf(subject: PropertyOf): string {
  return subject.of === "letters" ? propertyNames[subject.property] : formatNames[subject.property]
}

type Options = readonly (readonly [string, string])[]

export const choices: Partial<Record<keyof LetterFormat | keyof ParagraphFormat, Options>> = {
  underline: [
    ["none", "None"],
    ["single", "Single"],
    ["double", "Double"],
    ["thick", "Thick"],
    ["dotted", "Dotted"],
    ["dashed", "Dashed"],
    ["wavy", "Wavy"],
  ],
  strike: [
    ["none", "None"],
    ["single", "Single"],
    ["double", "Double"],
  ],
  script: [
    ["none", "On the line"],
    ["super", "Superscript"],
    ["sub", "Subscript"],
  ],
  caps: [
    ["none", "As typed"],
    ["small", "Small capitals"],
    ["all", "All capitals"],
  ],
  align: [
    ["left", "Left"],
    ["center", "Centre"],
    ["right", "Right"],
    ["justify", "Justified"],
  ],
  direction: [
    ["ltr", "Left to right"],
    ["rtl", "Right to left"],
  ],
}
export const colours = new Set<string>(["colour", "highlight", "underlineColour", "shading"])
export const lengths = new Set<string>(["spaceBefore", "spaceAfter", "indentLeft", "indentRight", "indentFirst"])
export const faces = new Set<string>(["family", "familyEastAsian", "familyComplex"])

/** A value in words for people. */
export function valueWords({ property }: PropertyOf, value: unknown, unit: Unit): string {
  const options = choices[property]
  if (options) return options.find(([key]) => key === value)?.[1] ?? String(value)
  if (value === null) return "none"
  if (typeof value === "boolean") return value ? "yes" : "no"
  if (lengths.has(property)) return `${inUnit(value as number, unit)} ${unit}`
  if (property === "size" || property === "spacing" || property === "raise") return `${value as number} pt`
  if (property === "language") return languageName(value as string)
  if (property === "lineSpacing") {
    const { rule, value: height } = value as LineSpacing
    return rule === "multiple" ? String(height) : `${rule === "exact" ? "exactly" : "at least"} ${height} pt`
  }
  if (property === "tabs")
    return (value as TabStop[]).length === 0
      ? "none"
      : (value as TabStop[]).map(({ position, align }) => `${align} ${inUnit(position, unit)}`).join(", ") + ` ${unit}`
  if (property === "borders")
    return Object.keys(value as object).length === 0 ? "none" : Object.keys(value as object).join(", ")
  if (property === "dropCap") return `${(value as { lines: number }).lines} lines`
  if (property === "list")
    return `${readyLists[(value as ListPlace).definition]?.name ?? "own list"}, level ${(value as ListPlace).level + 1}`
  return String(value)
}
