import type { Node } from "prosemirror-model"
import { documentAttrs, type Brief } from "../document"
import { leafWords } from "../checking"
import { paragraphsFor, type Asked, type BriefRule, type Judge, type Judgement, type World } from "./judging"
import { judgeCaptions, judgeHeadings, judgeQuotations, judgeReferences, judgeTitleBlock } from "./parts"
import { propertyWords } from "./front"
import { judgeEdge, judgeMargins, judgePaper, marginWords, paperName } from "./sheet"
import {
  judgeAlign,
  judgeIndentFirst,
  judgeLanguage,
  judgeLineSpacing,
  judgeSize,
  judgeSpaceBetween,
  judgeTypeface,
} from "./text"

export { changeBrief, followBrief, setBrief } from "./following"
export type { Asked, BriefPlace, BriefRule, Judgement, World } from "./judging"
export { briefOf } from "./briefOf"
export { readyBriefs } from "./ready"
export { writeBrief } from "./writing"

const figures = new Intl.NumberFormat("en")

const judgeLength: Judge<"length"> = (doc, { unit, least, most }, { sheets }) => {
  const count =
    unit === "sheets"
      ? sheets
      : paragraphsFor(doc).reduce(
          (sum, { kind, node }) => (kind === "reference" || kind === "note" ? sum : sum + leafWords(node)),
          0,
        )
  if (count === null) return { agrees: true, found: "", places: [], mends: false }
  const found = `${figures.format(count)} ${count === 1 ? unit.slice(0, -1) : unit}`
  return { agrees: count >= least && (most === 0 || count <= most), found, places: [], mends: false }
}

interface Ruling<R extends BriefRule> {
  /** What the rule is of. */
  name: string
  /** What it asks for, in words. */
  says(asked: Asked<R>, world: World): string
  judge: Judge<R>
}

const edgeSays = ({ edge, part, text, first }: Asked<"numbers">) =>
  `“${text.replace(/\{(\w+)\}/g, (_all, kind: string) => fieldWords[kind] ?? kind)}” at the ${["left", "middle", "right"][part]} of the ${edge}${first ? "" : ", not on the first sheet"}`
const fieldWords: Readonly<Record<string, string>> = {
  page: "number",
  pages: "number of sheets",
  title: "title",
  author: "author",
  name: "name of the document",
  date: "date",
}

/** The rules in the order in which they are shown and put right. */
export const rulings: { readonly [R in BriefRule]: Ruling<R> } = {
  typeface: { name: "Typeface", says: (asked) => asked, judge: judgeTypeface },
  size: { name: "Size", says: (asked) => `${asked} pt`, judge: judgeSize },
  lineSpacing: {
    name: "Space between lines",
    says: (asked) => (asked === 1 ? "single" : asked === 2 ? "double" : `${asked} lines`),
    judge: judgeLineSpacing,
  },
  spaceBetween: {
    name: "Space between paragraphs",
    says: (asked, { length }) => (asked === 0 ? "none" : length(asked)),
    judge: judgeSpaceBetween,
  },
  indentFirst: {
    name: "First line",
    says: (asked, { length }) => (asked === 0 ? "not indented" : `indented by ${length(asked)}`),
    judge: judgeIndentFirst,
  },
  align: {
    name: "Lines",
    says: (asked) => (asked === "left" ? "begin at the left, end as they come" : "end at both edges"),
    judge: judgeAlign,
  },
  language: { name: "Language", says: (asked, { language }) => language(asked), judge: judgeLanguage },
  paper: { name: "Paper", says: (asked, { length }) => paperName(asked, length), judge: judgePaper },
  margins: { name: "Margins", says: (asked, { length }) => marginWords(asked, length), judge: judgeMargins },
  titleBlock: {
    name: "Before the text",
    says: ({ ownSheet, align, lines }) =>
      `${lines.map((line) => propertyWords[line]).join(", ")}, ${align === "center" ? "in the middle" : "at the left"}${ownSheet ? ", on a sheet of its own" : ""}`,
    judge: judgeTitleBlock,
  },
  runningHead: { name: "Running head", says: edgeSays, judge: judgeEdge },
  numbers: { name: "Numbers of sheets", says: edgeSays, judge: judgeEdge },
  headings: {
    name: "Headings",
    says: (asked) =>
      `${asked.length} ${asked.length === 1 ? "level" : "levels"}, the first ${asked[0]?.align === "center" ? "in the middle" : "at the left"}${asked[0]?.bold ? ", bold" : ""}, ${asked[0]?.size} pt`,
    judge: judgeHeadings,
  },
  references: {
    name: "References",
    says: ({ heading, ownSheet, hanging, sorted }, { length }) =>
      `“${heading}”${ownSheet ? " on a new sheet" : ""}${hanging > 0 ? `, hanging by ${length(hanging)}` : ""}${sorted ? ", in order of names" : ""}`,
    judge: judgeReferences,
  },
  quotations: {
    name: "Long quotations",
    says: ({ words, indent }, { length }) => `from ${words} words on alone, indented by ${length(indent)}`,
    judge: judgeQuotations,
  },
  captions: {
    name: "Captions",
    says: ({ figures: own, tables }) => `${own} figures, ${tables} tables`,
    judge: judgeCaptions,
  },
  length: {
    name: "Length",
    says: ({ unit, least, most }) =>
      most === 0
        ? `at least ${figures.format(least)} ${unit}`
        : least === 0
          ? `up to ${figures.format(most)} ${unit}`
          : `${figures.format(least)} to ${figures.format(most)} ${unit}`,
    judge: judgeLength,
  },
}

export const briefRules = Object.keys(rulings) as readonly BriefRule[]

export interface Verdict extends Judgement {
  rule: BriefRule
  name: string
  says: string
}

/** Holds a document against one rule of its brief; null if that is not asked. */
export function verdictOf<R extends BriefRule>(doc: Node, brief: Brief, rule: R, world: World): Verdict | null {
  const asked = brief[rule]
  if (asked === undefined) return null
  const { name, says, judge } = rulings[rule] as Ruling<R>
  return { rule, name, says: says(asked, world), ...judge(doc, asked, world) }
}

/** Holds a document against its brief, rule by rule, so that one can pause. */
export function* verdicts(doc: Node, world: World): Generator<void, Verdict[]> {
  const { brief } = documentAttrs(doc)
  const found: Verdict[] = []
  for (const rule of briefRules) {
    const own = brief && verdictOf(doc, brief, rule, world)
    if (own) found.push(own)
    yield
  }
  return found
}
