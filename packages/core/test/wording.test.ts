/** Remarks on the wording: what is asked about, and what is heard. */
import fc from "fast-check"
import { passageOf, remarksOn, wordingKindNames, type Remark, type WordingKind } from "../src/checking"
import { defaultStyles, letters, nodes, p, paragraph } from "../src/document"

const said = (kind: WordingKind, from: number, to: number): Remark => ({ from, to, kind, says: "", instead: [] })
const heard = (block: ReturnType<typeof p>, ...remarks: Remark[]) =>
  remarksOn(defaultStyles, block, remarks).map(({ kind, from, to }) => [kind, from, to])

test("what is mostly in English is asked about, with the English that it is in", () => {
  expect(passageOf(defaultStyles, p("The ferry is late."))).toEqual({ text: "The ferry is late.", language: "en-GB" })
  expect(
    passageOf(defaultStyles, paragraph("body", [letters("Il traghetto è in ritardo", { language: "it-IT" })])),
  ).toBeNull()
  const mixed = paragraph("body", [
    "She calls it ",
    letters("il traghetto", { language: "it-IT" }),
    ", and so do we all.",
  ])
  expect(passageOf(defaultStyles, mixed)?.text).toContain("il traghetto")
  for (const none of [p(), p("12 – 14"), p("x".repeat(100_000))]) expect(passageOf(defaultStyles, none)).toBeNull()
})

test("nothing is said of what stands in another language, of fields, or of the small letter that begins a label", () => {
  const mixed = paragraph("body", ["She says ", letters("il traghetto", { language: "it-IT" }), " is is late."])
  expect(heard(mixed, said("meant", 9, 11), said("repeated", 22, 27))).toEqual([["repeated", 22, 27]])
  const fielded = paragraph("body", [
    "On ",
    nodes.field.create({ kind: "date", format: "full" }),
    " the ferry ferry ran.",
  ])
  expect(heard(fielded, said("signs", 2, 3), said("signs", 4, 5), said("repeated", 9, 20))).toEqual([
    ["repeated", 9, 20],
  ])
  expect(heard(p("chains and cables"), said("capitals", 0, 6))).toEqual([])
  expect(heard(p("chains hold it."), said("capitals", 0, 6))).toEqual([["capitals", 0, 6]])
})

test("a sentence of 40 words is long in every language, and takes none of its neighbours along", () => {
  const long = `${Array.from({ length: 39 }, () => "Seil").join(" ")} hält.`
  expect(heard(p(`Kurz. ${long} Kurz.`))).toEqual([["long", 6, 6 + long.length]])
  expect(heard(p(long.slice(5)))).toEqual([])
})

test("whatever is said, what is heard lies in the paragraph, in order, and is among what was said", () => {
  const remark = fc.record({
    from: fc.integer({ min: -2, max: 40 }),
    to: fc.integer({ min: -2, max: 40 }),
    kind: fc.constantFrom(...wordingKindNames),
    says: fc.string(),
    instead: fc.array(fc.string()),
  })
  fc.assert(
    fc.property(fc.string({ maxLength: 30 }), fc.array(remark), (text, remarks) => {
      const block = p(text.replace(/[\n\r]/g, " "))
      const all = remarksOn(defaultStyles, block, remarks)
      for (const [i, { from, to }] of all.entries()) {
        expect(from >= 0 && to <= text.length && from < to).toBe(true)
        expect(from).toBeGreaterThanOrEqual(all[i - 1]?.from ?? 0)
      }
      expect(remarks).toEqual(expect.arrayContaining(all))
    }),
  )
})
