/** Paragraphs that are shaped in several runs: where these are cut is for the letters there to say, so that a letter typed in one leaves the others as they were. */
import fc from "fast-check"
import { document, p } from "../src/document"
import { layoutDocument, paragraphsOf } from "../src/layout"
import { openTypesetter } from "../node/typesetting"

/** Text of so many different words that their order chooses places enough. */
function wordsFrom(seed: number, count: number): string {
  let n = seed
  const next = (below: number) => ((n = (Math.imul(n, 1103515245) + 12345) >>> 0) >>> 16) % below
  const vocabulary = Array.from({ length: 2000 }, (_, i) => (i * 7919 + 26 ** 2).toString(36).replace(/\d/g, "e"))
  return Array.from({ length: count }, () => vocabulary[next(vocabulary.length)]).join(" ")
}

const runsOf = (typesetter: ReturnType<typeof openTypesetter>, text: string) => {
  const [paragraph] = layoutDocument(typesetter, document([p(text)])).placed.flatMap(({ sheet }) => paragraphsOf(sheet))
  return [...new Set(paragraph!.lines.flatMap(({ runs }) => runs.map(({ run }) => run)))]
}

test("after a change a long paragraph is set as from nothing, and most of its glyphs are those of before", () => {
  const warm = openTypesetter()
  fc.assert(
    fc.property(fc.nat(1e6), fc.nat(99_999), fc.constantFrom("e", "fi", " and ", "\t", "é"), (seed, at, typed) => {
      const text = wordsFrom(seed + 1, 20_000)
      const before = runsOf(warm, text)
      const cut = at % text.length
      const changed = `${text.slice(0, cut)}${typed}${text.slice(cut)}`
      const after = runsOf(warm, changed)
      const known = new Set(before.map(({ glyphs }) => glyphs.ids))
      const kept = after.filter(({ glyphs }) => known.has(glyphs.ids))
      expect(kept.reduce((sum, { from, to }) => sum + to - from, 0)).toBeGreaterThan(changed.length / 2)
      // As one text: lists of so many numbers take long to be compared one by one.
      const said = (runs: typeof after) =>
        runs
          .map(({ from, to, glyphs: { count, ids, first, clusters, advances, unsafe } }) =>
            [from, to, count, first, ids, clusters ?? "", advances, unsafe].join(),
          )
          .join("\n")
      expect(said(after) === said(runsOf(openTypesetter(), changed))).toBe(true)
    }),
    { numRuns: 4 },
  )
})
