/** Paragraphs as they are kept are, when they are asked for again, what was set. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { document, nodes, p, paragraph, type ParagraphFormat } from "../src/document"
import {
  fragmentsOf,
  HeldGlyphs,
  layoutDocument,
  receivedParagraph,
  sentParagraph,
  type Layout,
  type ParagraphLayout,
} from "../src/layout"
import { madeGlyphs } from "../src/layout/fonts/glyphs"
import { Recent } from "../src/layout/recent"
import { typesetter } from "../node/typesetting"
import { said, wordsFrom } from "./longText"
import { documents } from "./officeDocuments"

const paragraphsIn = ({ placed }: Layout): ParagraphLayout[] => placed.flatMap(fragmentsOf).map((own) => own.paragraph)

let others = 0
/** Sets so much else that nothing from before is at hand. */
function setMuchElse(): void {
  const blocks = Array.from({ length: 12 }, (_, n) => p(`${++others} ${n} ${"\n".repeat(100)}`))
  layoutDocument(typesetter(), document(blocks))
}

/** Paragraphs with their lines and all glyphs on them. */
const opened = (all: readonly ParagraphLayout[]) =>
  all.map((own) => ({
    ...own,
    packed: null,
    lines: own.lines.map((line) => ({
      ...line,
      runs: line.runs.map((piece) => {
        const { glyphs, ...run } = piece.run
        return { ...piece, run: { ...run, glyphs: madeGlyphs(glyphs) } }
      }),
    })),
  }))

/** Paragraphs as another thread has them. */
const crossed = (all: readonly ParagraphLayout[]) =>
  all.map((own) => receivedParagraph(structuredClone(sentParagraph(own))))

/** Looks at all paragraphs as they were set, and again as they were kept. */
function expectKept(doc: Node): void {
  const all = paragraphsIn(layoutDocument(typesetter(), doc))
  const before = opened(all)
  setMuchElse()
  const away = crossed(all)
  const lines = all.at(-1)!.lines
  expect(opened(all)).toEqual(before)
  // The values of a clone are of another realm here.
  for (const own of [away, crossed(all)]) expect(JSON.stringify(opened(own))).toBe(JSON.stringify(before))
  setMuchElse()
  expect(all.at(-1)!.lines).not.toBe(lines)
}

test("whatever stands in a document", () => {
  fc.assert(fc.property(documents, expectKept), { numRuns: 20 })
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
    { numRuns: 25 },
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
  layoutDocument(typesetter(), doc(32_000))
  expect(opened(all)).toEqual(before)
})

test("what came from another thread keeps its lines once they are made", () => {
  const all = paragraphsIn(
    layoutDocument(typesetter(), document([p("The ferry crosses the estuary on the falling tide.")])),
  )
  const [own] = crossed(all)
  expect(own!.lines).toBe(own!.lines)
  expect(own!.lines[0]!.runs[0]!.run.glyphs.count).toBe(50)
})

test("what was asked for longest ago goes first, and a few stay however much they weigh", () => {
  const made: string[] = []
  const thing = (name: string, weight: number) => ({ name, weight })
  const recent = new Recent(
    20,
    ({ weight }: { weight: number }) => weight,
    (own: ReturnType<typeof thing>) => {
      made.push(own.name)
      return { weight: own.weight }
    },
  )
  const small = Array.from({ length: 12 }, (_, n) => thing(`${n}`, 2))
  for (const own of small.slice(0, 10)) recent.of(own)
  recent.of(small[0]!)
  // There is room for ten: the second goes, since the first was asked for again.
  for (const own of [small[10]!, small[0]!, small[1]!]) recent.of(own)
  expect(made.splice(0).join(" ")).toBe("0 1 2 3 4 5 6 7 8 9 10 1")
  const large = thing("large", 99)
  for (const own of [...small.slice(2, 9), large, ...small.slice(2, 9), large]) recent.of(own)
  expect(made.splice(0).join(" ")).toBe("2 3 4 5 6 7 8 large")
})

test("one long paragraph with notes is not made anew for each sheet that it runs over", () => {
  const anchors = Array.from({ length: 60 }, (_, n) => nodes.anchor.create({ story: `n${n}` }))
  const notes = anchors.map((_, n) => nodes.story.create({ key: `n${n}`, kind: "note" }, p(`Note ${n}`)))
  const doc = document(
    [p(...anchors.flatMap((own) => ["The ferry crosses at slack water. ".repeat(20), own]))],
    {},
    notes,
  )
  const { placed } = layoutDocument(typesetter(), doc)
  expect(placed.length).toBeGreaterThan(8)
  const lines = new Set(
    placed
      .flatMap(fragmentsOf)
      .filter(({ leaf }) => leaf === 0)
      .map((own) => own.paragraph.lines),
  )
  expect(lines.size).toBe(1)
})

test("what the other thread has of a long paragraph does not cross again, and what it no longer has does", () => {
  const words = wordsFrom(7, 10_000)
  const set = (text: string) => paragraphsIn(layoutDocument(typesetter(), document([p(text)])))[0]!
  const there = new Map<number, ParagraphLayout>()
  const held = new HeldGlyphs((id) => there.has(id))
  const cross = (own: ParagraphLayout) => {
    const sent = sentParagraph(own, held)
    const received = receivedParagraph(structuredClone(sent), (id) => there.get(id))
    there.clear()
    there.set(own.id, received)
    expect(said(received) === said(own)).toBe(true)
    return sent.packed.runs.filter(({ glyphs }) => "held" in glyphs).length
  }
  expect(cross(set(words))).toBe(0)
  expect(cross(set(`Nine ${words}`))).toBeGreaterThan(0)
  there.clear()
  expect(cross(set(`Ten ${words}`))).toBe(0)
  expect(cross(set(`Ten ${words} more`))).toBeGreaterThan(0)
})
