import { limits, MM, papers, type PaperName } from "@biblon/core/document"
import type { NumberPlace } from "@biblon/core/editing"
import { families } from "@biblon/core/layout"
import { dotLimits } from "@biblon/core/output/pixels"
import { plainPrint } from "@biblon/core/output/printing"
import { UsageError, type Settings } from "./files"

const unitPoints = { mm: MM, cm: 10 * MM, in: 72, pt: 1 } as const

/** A length with its unit, in points. */
function readLength(text: string, what: string): number {
  const match = /^(\d+(?:\.\d+)?)(mm|cm|in|pt)$/.exec(text.trim())
  if (!match) throw new UsageError(`${what} is a number with a unit (mm, cm, in, pt), such as 25mm; it was "${text}"`)
  return Number(match[1]) * unitPoints[match[2] as keyof typeof unitPoints]
}

function readNumber(text: string, what: string, least: number, most: number): number {
  const value = Number(text)
  if (!(value >= least && value <= most))
    throw new UsageError(`${what} is a number from ${least} to ${most}; it was "${text}"`)
  return value
}

function oneOf<T extends string>(text: string, names: readonly T[], what: string): T {
  const found = names.find((name) => name.toLowerCase() === text.toLowerCase())
  if (!found) throw new UsageError(`${what} is one of ${names.join(", ")}; it was "${text}"`)
  return found
}

const parts = { left: 0, middle: 1, right: 2, outer: "outer" } as const

function readPlace(text: string): NumberPlace {
  const [, edge, part] = /^(head|foot)-(left|middle|right|outer)$/.exec(text) ?? []
  if (edge === undefined)
    throw new UsageError(
      `Numbers stand at head or foot, left, middle, right or outer, such as foot-middle; it was "${text}"`,
    )
  return { edge: edge as NumberPlace["edge"], part: parts[part as keyof typeof parts] }
}

export function readSettings(values: {
  font?: string
  size?: string
  spacing?: string
  paper?: string
  margins?: string
  columns?: string
  header?: string
  footer?: string
  numbers?: string
  lines?: boolean
  from?: string
  sheets?: string
  pages?: string
  dpi?: string
  arrange?: string
  "two-sided"?: boolean
  archive?: boolean
}): Settings {
  const { font, size, spacing, paper, margins, columns, header, footer, numbers, lines, dpi } = values
  const sheets = values.sheets ?? values.pages
  return {
    lines: lines ?? false,
    archive: values.archive ?? false,
    ...(sheets === undefined && values.arrange === undefined && !values["two-sided"]
      ? {}
      : {
          print: {
            ...plainPrint,
            sheets: sheets ?? "all",
            twoSided: values["two-sided"] ?? false,
            arrangement: oneOf(values.arrange ?? "one", ["one", "two", "four", "booklet"] as const, "An arrangement"),
          },
        }),
    ...(dpi === undefined ? {} : { dpi: readNumber(dpi, "Dots an inch", ...dotLimits.dpi) }),
    ...(values.from === undefined ? {} : { from: values.from.replace(/^\./, "") }),
    ...(font === undefined
      ? {}
      : {
          family: oneOf(
            font,
            families.map((f) => f.name),
            "A typeface",
          ),
        }),
    ...(size === undefined ? {} : { size: readNumber(size, "A size", 1, 400) }),
    ...(spacing === undefined ? {} : { spacing: readNumber(spacing, "Spacing", 0.5, 10) }),
    ...(paper === undefined ? {} : { paper: oneOf(paper, Object.keys(papers) as PaperName[], "Paper") }),
    ...(margins === undefined ? {} : { margin: readLength(margins, "A margin") }),
    ...(columns === undefined ? {} : { columns: Math.round(readNumber(columns, "Columns", ...limits.columns)) }),
    ...(header === undefined ? {} : { header }),
    ...(footer === undefined ? {} : { footer }),
    ...(numbers === undefined ? {} : { numbers: readPlace(numbers) }),
  }
}
