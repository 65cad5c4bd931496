/** What can be changed in each rule of a brief, as data of which a form is drawn. */
import type { BriefRule } from "@biblon/core/brief"
import { limits, MM, papers, type Brief, type Range } from "@biblon/core/document"
import { families } from "@biblon/core/layout/catalogue"
import { languageOptions } from "../../../languages"

/** A value inside a rule, by the keys that lead to it. */
export type RulePart = { label: string; path: readonly (string | number)[] } & (
  | { kind: "length"; most: number; least?: number; points?: boolean }
  | { kind: "number"; range: Range; step: number }
  | { kind: "choice"; options: readonly (readonly [value: string | number, name: string])[] }
  | { kind: "text"; most: number }
  | { kind: "switch" }
)

const sides = [
  ["left", "Left"],
  ["center", "In the middle"],
] as const
const belows = [
  ["above", "Above"],
  ["below", "Below"],
] as const
const size = (path: RulePart["path"], label = "Size (pt)"): RulePart => ({
  label,
  path,
  kind: "number",
  range: limits.size,
  step: 1,
})

const edge: readonly RulePart[] = [
  { label: "Words, with {page}, {pages}, {title}, {author}", path: ["text"], kind: "text", most: limits.property },
  {
    label: "Edge",
    path: ["edge"],
    kind: "choice",
    options: [
      ["head", "Head"],
      ["foot", "Foot"],
    ],
  },
  {
    label: "Place",
    path: ["part"],
    kind: "choice",
    options: [
      [0, "Left"],
      [1, "Middle"],
      [2, "Right"],
    ],
  },
  { label: "On the first sheet too", path: ["first"], kind: "switch" },
]

/** The parts of a rule. */
export function partsOf<R extends BriefRule>(rule: R, asked: NonNullable<Brief[R]>): readonly RulePart[] {
  switch (rule) {
    case "typeface":
      return [{ label: "Typeface", path: [], kind: "choice", options: families.map(({ name }) => [name, name]) }]
    case "size":
      return [size([])]
    case "lineSpacing":
      return [{ label: "Lines", path: [], kind: "number", range: limits.lines.multiple, step: 0.25 }]
    case "spaceBetween":
      return [{ label: "After each paragraph", path: [], kind: "length", most: 200, points: true }]
    case "indentFirst":
      return [{ label: "First line in by", path: [], kind: "length", most: 200 }]
    case "align":
      return [
        {
          label: "Lines",
          path: [],
          kind: "choice",
          options: [
            ["left", "Begin at the left, end as they come"],
            ["justify", "End at both edges"],
          ],
        },
      ]
    case "language":
      return [{ label: "Language", path: [], kind: "choice", options: languageOptions(asked as string) }]
    case "paper":
      return [
        { label: "Width", path: ["width"], kind: "length", least: limits.paper[0], most: limits.paper[1] },
        { label: "Height", path: ["height"], kind: "length", least: limits.paper[0], most: limits.paper[1] },
      ]
    case "margins":
      return (["top", "right", "bottom", "left"] as const).map((side) => ({
        label: side[0]?.toUpperCase() + side.slice(1),
        path: [side],
        kind: "length",
        most: 400,
      }))
    case "titleBlock":
      return [
        { label: "On a sheet of its own", path: ["ownSheet"], kind: "switch" },
        { label: "Lines", path: ["align"], kind: "choice", options: sides },
        size(["size"], "Size of the title (pt)"),
      ]
    case "runningHead":
    case "numbers":
      return edge
    case "headings":
      return (asked as NonNullable<Brief["headings"]>).flatMap((_own, i): RulePart[] => [
        { label: `Level ${i + 1}`, path: [i, "align"], kind: "choice", options: sides },
        size([i, "size"], `Level ${i + 1}: size (pt)`),
        { label: `Level ${i + 1}: bold`, path: [i, "bold"], kind: "switch" },
        { label: `Level ${i + 1}: italic`, path: [i, "italic"], kind: "switch" },
      ])
    case "references":
      return [
        { label: "Heading", path: ["heading"], kind: "text", most: limits.name },
        { label: "Hanging by", path: ["hanging"], kind: "length", most: 200 },
        { label: "On a new sheet", path: ["ownSheet"], kind: "switch" },
        { label: "In order of names", path: ["sorted"], kind: "switch" },
      ]
    case "quotations":
      return [
        { label: "From so many words", path: ["words"], kind: "number", range: limits.briefWords, step: 10 },
        { label: "In by", path: ["indent"], kind: "length", most: 200 },
      ]
    case "captions":
      return [
        { label: "Of figures", path: ["figures"], kind: "choice", options: belows },
        { label: "Of tables", path: ["tables"], kind: "choice", options: belows },
      ]
    default:
      return [
        {
          label: "Counted in",
          path: ["unit"],
          kind: "choice",
          options: [
            ["words", "Words"],
            ["sheets", "Sheets"],
          ],
        },
        { label: "At least", path: ["least"], kind: "number", range: limits.briefLength, step: 100 },
        { label: "At most (0: any)", path: ["most"], kind: "number", range: limits.briefLength, step: 100 },
      ]
  }
}

export function valueAt(asked: unknown, path: RulePart["path"]): unknown {
  return path.reduce((inside, key) => (inside as Record<string | number, unknown>)[key], asked)
}

export function withValue(asked: unknown, [key, ...rest]: RulePart["path"], value: unknown): unknown {
  if (key === undefined) return value
  const inside = withValue((asked as Record<string | number, unknown>)[key], rest, value)
  return Array.isArray(asked)
    ? asked.map((own: unknown, i) => (i === key ? inside : own))
    : { ...(asked as object), [key]: inside }
}

/** What a rule asks for at first, where the document itself says nothing. */
export const usualRules: Required<Omit<Brief, "name">> = {
  typeface: "Tinos",
  size: 12,
  lineSpacing: 1.5,
  spaceBetween: 8,
  indentFirst: 0,
  align: "left",
  language: "en-GB",
  paper: papers.A4,
  margins: { top: 25 * MM, right: 25 * MM, bottom: 25 * MM, left: 25 * MM },
  titleBlock: { ownSheet: false, align: "left", size: 18, lines: ["title", "author"] },
  runningHead: { edge: "head", part: 0, text: "{title}", first: false },
  numbers: { edge: "foot", part: 2, text: "{page}", first: true },
  headings: [
    { align: "left", bold: true, italic: false, size: 16 },
    { align: "left", bold: true, italic: false, size: 13 },
    { align: "left", bold: false, italic: true, size: 12 },
  ],
  references: { heading: "References", ownSheet: false, hanging: 28, sorted: true },
  quotations: { words: 40, indent: 28 },
  captions: { figures: "below", tables: "above" },
  length: { unit: "words", least: 1000, most: 1500 },
}
