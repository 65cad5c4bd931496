import type { Node } from "prosemirror-model"
import { strangeEdges, typedNumbers } from "./edges"
import type { Finding, Rule } from "./rule"
import { blankParagraphs, blanksAsTab, blanksAtStart, blanksToSheet } from "./spacing"
import { boldHeadings, skippedLevels, typedLists } from "./structure"
import { strangeLooks } from "./looks"
import { deadLinks, idleFormatting, silentFields, silentPictures, unusedStyles } from "./traces"
import { blankBeforeSign, blanksAtEnd, doubleBlanks, doubleWords, mixedMarks, openBrackets } from "./words"

export { previewOf } from "./preview"
export type { Finding, Rule } from "./rule"

/** The rules in the order in which they are shown, and put right. */
export const tidyRules: readonly Rule[] = [
  blankParagraphs,
  blanksToSheet,
  blanksAtStart,
  blanksAsTab,
  typedLists,
  boldHeadings,
  skippedLevels,
  doubleWords,
  doubleBlanks,
  blankBeforeSign,
  blanksAtEnd,
  mixedMarks,
  openBrackets,
  typedNumbers,
  strangeEdges,
  strangeLooks,
  idleFormatting,
  deadLinks,
  silentFields,
  silentPictures,
  unusedStyles,
]

/** What is untidy in a document, rule by rule, so that one can pause; rules that find nothing are left out. */
export function* untidy(doc: Node): Generator<void, { rule: Rule; findings: readonly Finding[] }[]> {
  const found: { rule: Rule; findings: readonly Finding[] }[] = []
  for (const rule of tidyRules) {
    const findings = rule.find(doc)
    if (findings.length > 0) found.push({ rule, findings })
    yield
  }
  return found
}
