/** Lists of RTF as the numbering of Office Open XML. */
import { levelAligns, levelFollows, listNumberForms } from "../pairs"
import { escaped } from "./letters"

interface Level {
  form: number
  start: number
  /** What stands before an item, with the numbers of levels as bytes below nine. */
  text: readonly (string | number)[]
  indent: number | null
  first: number | null
  font: string | null
  /** What stands between it and the text, and which side of it is even, by their numbers. */
  follow: number
  align: number
}

export interface List {
  id: number | null
  levels: Level[]
}

export const plainLevel = (): Level => ({
  form: 0,
  start: 1,
  text: [],
  indent: null,
  first: null,
  font: null,
  follow: 0,
  align: 0,
})

/** What a control word says of a level. */
export function tellLevel(level: Level, name: string, value: number | null): void {
  if (name === "levelnfc" || name === "levelnfcn") level.form = value ?? 0
  else if (name === "levelstartat") level.start = value ?? 1
  else if (name === "levelfollow") level.follow = value ?? 0
  else if (name === "leveljc" || name === "leveljcn") level.align = value ?? 0
  else if (name === "li" || name === "lin") level.indent = value
  else if (name === "fi") level.first = value
}

const mostLevels = 9

function levelXml({ form, start, text, indent, first, font, follow, align }: Level, n: number): string {
  const kind = listNumberForms.get(form) ?? "decimal"
  // The first byte says how long it is.
  const shown = text
    .slice(1)
    .map((own) => (typeof own === "number" ? (own < mostLevels ? `%${own + 1}` : String.fromCharCode(own)) : own))
    .join("")
    .replace(/;$/, "")
  const words = kind === "bullet" ? shown || "•" : shown || `%${n + 1}.`
  const indents =
    indent === null && first === null
      ? ""
      : `<w:pPr><w:ind w:left="${indent ?? 0}"${first === null ? "" : first < 0 ? ` w:hanging="${-first}"` : ` w:firstLine="${first}"`}/></w:pPr>`
  const face = font ? `<w:rPr><w:rFonts w:ascii="${escaped(font)}" w:hAnsi="${escaped(font)}"/></w:rPr>` : ""
  return `<w:lvl w:ilvl="${n}"><w:start w:val="${start}"/><w:numFmt w:val="${kind}"/><w:suff w:val="${levelFollows[follow] ?? "tab"}"/><w:lvlText w:val="${escaped(words)}"/><w:lvlJc w:val="${levelAligns[align] ?? "left"}"/>${indents}${face}</w:lvl>`
}

/** @param overrides which list each number means */
export function numberingXml(lists: readonly List[], overrides: ReadonlyMap<number, number>): string | null {
  if (lists.length === 0 || overrides.size === 0) return null
  const known = new Map(lists.flatMap(({ id }, n): [number, number][] => (id === null ? [] : [[id, n]])))
  const abstract = lists.map(
    ({ levels }, n) =>
      `<w:abstractNum w:abstractNumId="${n}">${levels.slice(0, mostLevels).map(levelXml).join("")}</w:abstractNum>`,
  )
  const nums = [...overrides].flatMap(([number, id]) => {
    const n = known.get(id)
    return n === undefined ? [] : [`<w:num w:numId="${number}"><w:abstractNumId w:val="${n}"/></w:num>`]
  })
  return abstract.join("") + nums.join("")
}
