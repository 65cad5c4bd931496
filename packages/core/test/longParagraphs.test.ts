/** Paragraphs that are shaped in several runs: a letter typed in one leaves the others as they were, and most lines are taken over. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document, letters, nodes, p, type ParagraphFormat } from "../src/document"
import { layoutDocument, paragraphsOf, type ParagraphLayout } from "../src/layout"
import { openTypesetter } from "../node/typesetting"
import { runsOf, said, wordsFrom } from "./longText"

function set(typesetter: ReturnType<typeof openTypesetter>, node: Node): ParagraphLayout {
  const { placed } = layoutDocument(typesetter, document([node]))
  return placed.flatMap(({ sheet }) => paragraphsOf(sheet))[0]!
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
