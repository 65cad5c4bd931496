/** Paragraphs that are shaped in several runs: a letter typed in one leaves the others as they were, and most lines are taken over. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document, letters, nodes, p, type ParagraphFormat } from "../src/document"
import { layoutDocument, paragraphsOf, type ParagraphLayout } from "../src/layout"
import { openTypesetter } from "../node/typesetting"

/** Text of so many different words that their order chooses places enough to cut it. */
function wordsFrom(seed: number, count: number): string {
  let n = seed
  const next = (below: number) => ((n = (Math.imul(n, 1103515245) + 12345) >>> 0) >>> 16) % below
  const vocabulary = Array.from({ length: 2000 }, (_, i) => (i * 7919 + 26 ** 2).toString(36).replace(/\d/g, "e"))
  return Array.from({ length: count }, () => vocabulary[next(vocabulary.length)]).join(" ")
}

function set(typesetter: ReturnType<typeof openTypesetter>, node: Node): ParagraphLayout {
  const { placed } = layoutDocument(typesetter, document([node]))
  return placed.flatMap(({ sheet }) => paragraphsOf(sheet))[0]!
}

const runsOf = ({ lines }: ParagraphLayout) => [...new Set(lines.flatMap(({ runs }) => runs.map(({ run }) => run)))]

/** All of a paragraph's lines, as one text: lists of so many numbers take long to be compared one by one. */
function said(paragraph: ParagraphLayout): string {
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

const formats: Partial<ParagraphFormat>[] = [
  {},
  { align: "justify", hyphenate: true },
  { align: "center", indentFirst: 20, indentRight: 60 },
  { lineSpacing: { rule: "multiple", value: 1.3 }, hyphenate: true },
  { direction: "rtl" },
]
const typed = ["e", "fi", " and ", "\t", "é", "x".repeat(300), "-", "שלום", "🜲", "\u00ad", "", "e\u0301".repeat(40)]

/** A letter, a word, nothing or much put in the place of so many units. */
const edits = fc.array(
  fc.record({
    at: fc.nat(99_999),
    size: fc.constantFrom(0, 1, 5, 3000),
    text: fc.constantFrom(...typed),
    bold: fc.boolean(),
  }),
  { minLength: 1, maxLength: 4 },
)

test("after changes a long paragraph is set as from nothing", () => {
  const warm = openTypesetter()
  fc.assert(
    fc.property(fc.nat(1e6), fc.constantFrom(...formats), edits, (seed, format, changes) => {
      let text = wordsFrom(seed + 1, 5000)
      let bold = text.length
      const node = () => {
        const parts = [text.slice(0, bold), text.slice(bold)]
        const inline = parts.flatMap((own, i) => (own === "" ? [] : [letters(own, i === 0 ? {} : { bold: true })]))
        return nodes.paragraph.create({ ...p().attrs, format }, inline)
      }
      set(warm, node())
      for (const { at, size, text: own, bold: isBolder } of changes) {
        const cut = at % text.length
        text = text.slice(0, cut) + own + text.slice(cut + size)
        if (isBolder) bold = Math.min(cut + 7, text.length)
        const after = set(warm, node())
        expect(said(after) === said(set(openTypesetter(), node()))).toBe(true)
      }
    }),
    { numRuns: 12 },
  )
})

test("of a long paragraph in which a letter is typed most lines and glyphs are those of before", () => {
  const warm = openTypesetter()
  const text = wordsFrom(7, 20_000)
  const before = set(warm, p(text))
  for (const cut of [30, text.length >> 1, text.length - 3]) {
    const after = set(warm, p(`${text.slice(0, cut)}e${text.slice(cut)}`))
    const known = new Set(runsOf(before).map(({ glyphs }) => glyphs.ids))
    const kept = runsOf(after).filter(({ glyphs }) => known.has(glyphs.ids))
    expect(kept.reduce((sum, { from, to }) => sum + to - from, 0)).toBeGreaterThan(text.length / 2)
  }
})
