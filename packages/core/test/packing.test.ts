/** Paragraphs as they are kept are, when they are asked for again, what was set. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document, p, paragraph, type ParagraphFormat } from "../src/document"
import { fragmentsOf, layoutDocument, openParagraph, type Layout, type ParagraphLayout } from "../src/layout"
import { Recent } from "../src/layout/recent"
import { typesetter } from "../node/typesetting"
import { documents } from "./officeDocuments"

const paragraphsIn = ({ placed }: Layout): ParagraphLayout[] => placed.flatMap(fragmentsOf).map((own) => own.paragraph)

let others = 0
/** Sets so much else that nothing from before is at hand. */
function setMuchElse(): void {
  layoutDocument(typesetter(), document([p(`${++others} ${"\n".repeat(1100)}`)]))
}

const opened = (all: readonly ParagraphLayout[]) => all.map(openParagraph)

/** Looks at all paragraphs as they were set, and again as they were kept. */
function expectKept(doc: Node): void {
  const all = paragraphsIn(layoutDocument(typesetter(), doc))
  const before = opened(all)
  setMuchElse()
  const lines = all.at(-1)!.lines
  expect(opened(all)).toEqual(before)
  setMuchElse()
  expect(all.at(-1)!.lines).not.toBe(lines)
}

test("whatever stands in a document", () => {
  fc.assert(fc.property(documents, expectKept), { numRuns: 40 })
})

const hard = fc
  .array(
    fc.constantFrom("ferry ", "office ", "fjord\t", "שלום ", "תודה 12 ", "the 2\u00ad50 ", "T.\n", "潮汐", "é😀 "),
    {
      minLength: 1,
      maxLength: 60,
    },
  )
  .map((words) => words.join(""))

test("text of both directions, tabs with leaders, justified lines and divided words", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(hard, fc.constantFrom<ParagraphFormat["align"]>("left", "justify", "right"), fc.boolean()), {
        minLength: 1,
      }),
      (blocks) => {
        const tabs = [{ position: 200, align: "right" as const, leader: "dotted" as const }]
        expectKept(
          document(blocks.map(([own, align, hyphenate]) => paragraph("body", [own], { align, hyphenate, tabs }))),
        )
      },
    ),
    { numRuns: 60 },
  )
})

test("with more words than are known together", () => {
  const named = (n: number) => `w${n.toString(26).replace(/\d/g, (digit) => "qrstuvwxyz"[Number(digit)]!)}`
  const doc = (from: number) =>
    document(
      Array.from({ length: 400 }, (_, i) =>
        p(Array.from({ length: 80 }, (__, j) => named(from + 80 * i + j)).join(" ")),
      ),
    )
  const all = paragraphsIn(layoutDocument(typesetter(), doc(0))).slice(0, 20)
  const before = opened(all)
  for (const from of [32_000, 64_000]) layoutDocument(typesetter(), doc(from))
  expect(opened(all)).toEqual(before)
})

test("what is opened can be posted", () => {
  const [own] = paragraphsIn(
    layoutDocument(typesetter(), document([p("The ferry crosses the estuary on the falling tide.")])),
  )
  const open = openParagraph(own!)
  expect(JSON.stringify(structuredClone(open))).toBe(JSON.stringify(open))
  expect(open.lines[0]!.runs[0]!.run.glyphs.count).toBe(50)
})

test("the oldest of what is at hand goes, and the last one stays however much it is", () => {
  const made: string[] = []
  const recent = new Recent<{ name: string; weight: number }, { weight: number }>(
    10,
    ({ weight }) => weight,
    (own) => {
      made.push(own.name)
      return { weight: own.weight }
    },
  )
  const [a, b, large] = [
    { name: "a", weight: 4 },
    { name: "b", weight: 6 },
    { name: "large", weight: 99 },
  ]
  for (const own of [a, b, a, large, large, b, b, a]) recent.of(own)
  expect(made.join(" ")).toBe("a b large b a")
})
