/** Long paragraphs for tests, and what there is to compare in them. */
import type { ParagraphLayout } from "../src/layout"

/** Text of so many different words that their order chooses places enough to cut it. */
export function wordsFrom(seed: number, count: number): string {
  let n = seed
  const next = (below: number) => ((n = (Math.imul(n, 1103515245) + 12345) >>> 0) >>> 16) % below
  const vocabulary = Array.from({ length: 2000 }, (_, i) => (i * 7919 + 26 ** 2).toString(36).replace(/\d/g, "e"))
  return Array.from({ length: count }, () => vocabulary[next(vocabulary.length)]).join(" ")
}

export const runsOf = ({ lines }: ParagraphLayout) => [
  ...new Set(lines.flatMap(({ runs }) => runs.map(({ run }) => run))),
]

/** All of a paragraph's lines and runs, as one text: lists of so many numbers take long to be compared one by one. */
export function said(paragraph: ParagraphLayout): string {
  const runs = runsOf(paragraph)
  const number = new Map(runs.map((run, i) => [run, i]))
  return [
    ...runs.map(({ from, to, face, look, glyphs: { count, ids, first, clusters, advances, unsafe } }) =>
      [from, to, face, look.bold, count, first, ids, clusters ?? "", advances, unsafe].join(),
    ),
    ...paragraph.lines.map(({ runs: pieces, tabs, leaders, ...line }) =>
      JSON.stringify([
        Object.entries(line).sort(),
        pieces.map(({ run, ...piece }) => [number.get(run), Object.entries(piece).sort()]),
        tabs,
        leaders,
      ]),
    ),
  ].join("\n")
}
