/** Invariants of layout and output over documents that use all of typography, made at random. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { EditorState, Selection } from "prosemirror-state"
import {
  defaultStyles,
  defaultTypesetting,
  document,
  labelsOf,
  leavesOf,
  letters,
  paragraph,
  type Border,
  type LetterFormat,
  type ParagraphFormat,
  type Typesetting,
  defaultSetup,
} from "../src/document"
import { readDocument } from "../src/document/reading"
import {
  changeStyleFormat,
  deleteBackward,
  enter,
  insertText,
  restartList,
  setLetters,
  setParagraphs,
  setStyle,
  stepLevel,
  toggleList,
  type Command,
} from "../src/editing"
import {
  fragmentsOf,
  caretBox,
  Composition,
  hit,
  layoutDocument,
  rangeBoxes,
  type Layout,
  type LayoutSpec,
} from "../src/layout"
import { sheetPicture } from "../src/output"
import { pdfOf, typesetter } from "../node/typesetting"
import { after, stateOf } from "./telling"

const words = [
  "ferry",
  "estuary",
  "responsibilities",
  "tide",
  "המעבורת",
  "12.50",
  "office",
  "ข้ามฟาก",
  "渡し船",
  "extra\u00adordinary",
  "—",
  "(1887)",
  "naïve",
  "😀",
]
const text = fc.array(fc.constantFrom(...words), { minLength: 0, maxLength: 40 }).map((list) => list.join(" "))

const letterFormat: fc.Arbitrary<Partial<LetterFormat>> = fc.record(
  {
    size: fc.constantFrom(7, 10.5, 18, 30),
    bold: fc.boolean(),
    caps: fc.constantFrom("none", "small", "all"),
    script: fc.constantFrom("none", "super", "sub"),
    raise: fc.constantFrom(0, 4, -3),
    spacing: fc.constantFrom(0, 1.5, -0.3),
    underline: fc.constantFrom("none", "single", "double", "dotted", "wavy"),
    strike: fc.constantFrom("none", "double"),
    highlight: fc.constantFrom(null, "#f4e3b5"),
    outline: fc.boolean(),
    shadow: fc.boolean(),
    family: fc.constantFrom("EB Garamond", "Inter", "Nowhere Sans"),
    language: fc.constantFrom("en-GB", "de", "he", "xx"),
  },
  { requiredKeys: [] },
)
const border: fc.Arbitrary<Border> = fc.record({
  pattern: fc.constantFrom("solid", "double", "dotted", "dashed", "wavy"),
  width: fc.constantFrom(0.5, 3),
  colour: fc.constant("#7a1f4b"),
  distance: fc.constantFrom(0, 8),
})
const format: fc.Arbitrary<Partial<ParagraphFormat>> = fc.record(
  {
    align: fc.constantFrom("left", "center", "right", "justify"),
    direction: fc.constantFrom("ltr", "rtl"),
    lineSpacing: fc.constantFrom(
      { rule: "multiple", value: 1 } as const,
      { rule: "exact", value: 14 } as const,
      { rule: "atLeast", value: 30 } as const,
    ),
    spaceAfter: fc.constantFrom(0, 12),
    spaceAlike: fc.boolean(),
    indentLeft: fc.constantFrom(-20, 0, 40),
    indentRight: fc.constantFrom(-10, 0, 60),
    indentFirst: fc.constantFrom(-30, 0, 25),
    tabs: fc.constantFrom(
      [],
      [{ position: 120, align: "right", leader: "dotted" } as const],
      [
        { position: 90, align: "decimal", leader: "none" } as const,
        { position: 200, align: "center", leader: "solid" } as const,
      ],
    ),
    borders: fc.record(
      { top: border, right: border, bottom: border, left: border, between: border },
      { requiredKeys: [] },
    ),
    shading: fc.constantFrom(null, "#dcebe0"),
    dropCap: fc.constantFrom(null, { lines: 3, distance: 6, family: null }),
    list: fc.constantFrom(
      null,
      { definition: "numbers", run: "a", level: 0 },
      { definition: "clauses", run: "a", level: 2 },
      { definition: "tasks", run: "b", level: 1, done: true },
    ),
    hyphenate: fc.boolean(),
    keepNext: fc.boolean(),
    keepTogether: fc.boolean(),
    breakBefore: fc.boolean(),
    orphans: fc.constantFrom(1, 4),
  },
  { requiredKeys: [] },
)
const styleKeys = ["body", "heading1", "heading2", "quotation", "list", "reference", "title", "gone"]
const block: fc.Arbitrary<Node> = fc
  .tuple(
    fc.constantFrom(...styleKeys),
    fc.array(fc.tuple(text, letterFormat, fc.constantFrom(undefined, "strong", "code")), { maxLength: 3 }),
    fc.option(format, { freq: 1 }),
  )
  .map(([style, runs, own]) =>
    paragraph(
      style,
      runs.flatMap(([words, marks, letterStyle]) =>
        words === ""
          ? []
          : [letters(words.replace(/ (?=12)/, "\t"), { ...marks, ...(letterStyle ? { letterStyle } : {}) }), " "],
      ),
      own && Object.keys(own).length > 0 ? own : null,
    ),
  )
const typesetting: fc.Arbitrary<Typesetting> = fc.constantFrom(defaultTypesetting, {
  ...defaultTypesetting,
  breaking: "whole" as const,
})
const setup = { ...defaultSetup, width: 320, height: 420, margins: { top: 30, right: 40, bottom: 30, left: 40 } }
const documents = fc
  .tuple(fc.array(block, { minLength: 1, maxLength: 10 }), typesetting)
  .map(([blocks, own]) => document(blocks, { setup, typesetting: own }))

const specs: readonly LayoutSpec[] = [{ mode: "sheets" }, { mode: "flow", width: 260, margin: 12 }]

/** All that is shown, by place, without identities. */
/** What a layout shows. Flow is one long page: where it is cut into strips is not seen. */
function seen({ placed, spec }: Layout) {
  const round = (n: number) => Math.round(n * 100)
  const sheets: unknown[][] = []
  let down = 0
  for (const own of placed) {
    const { sheet, leaf: first } = own
    const fragments = fragmentsOf(own).map(({ leaf, from, to, x, y, paragraph: set, frame }) => [
      leaf,
      from,
      to,
      [x, y + down].map(round),
      set.text,
      set.label?.text ?? null,
      frame && [
        [frame.box.x, frame.box.y + down, frame.box.width, frame.box.height].map(round),
        frame.rules.length,
        frame.shading,
      ],
      set.lines
        .slice(from, to)
        .map((line) => [
          line.from,
          line.to,
          line.runs.map((run) => [run.from, run.to, Math.round(run.x * 100), run.run.face, run.run.size]),
        ]),
    ])
    if (spec.mode === "flow") down += sheet.height
    if (spec.mode === "flow" && sheets[0]) sheets[0].push(...fragments)
    else sheets.push([first, ...fragments])
  }
  return [sheets, round(down)]
}

describe("whatever a document holds", () => {
  test("all its text is on the lines, once and in order; sheets end within their margins", () => {
    fc.assert(
      fc.property(documents, (doc) => {
        const layout = layoutDocument(typesetter(), doc)
        const shown = leavesOf(doc).nodes.map(() => "")
        for (const placed of layout.placed)
          for (const { leaf, paragraph: set, from, to } of fragmentsOf(placed)) {
            expect(to).toBeGreaterThan(from)
            for (const line of set.lines.slice(from, to)) {
              shown[leaf] += set.text.slice(line.from, line.to)
              // Every letter of a line belongs to exactly one run of it, or is a tab.
              const covered = line.runs
                .filter((run) => run.to > run.from)
                .reduce((sum, run) => sum + run.to - run.from, 0)
              expect(covered).toBe(set.text.slice(line.from, line.to).replace(/[\t\n]/g, "").length)
            }
          }
        expect(shown).toEqual(leavesOf(doc).nodes.map((node) => node.textContent))
        expect([...shown].length).toBe(leavesOf(doc).count)
      }),
      { numRuns: 120 },
    )
  })

  test("composing on from before equals composing from nothing, on sheets and in flow, after any change", () => {
    const acts: fc.Arbitrary<Command> = fc.oneof(
      text.map((typed) => insertText(`${typed} x`)),
      fc.constant(enter),
      fc.constant(deleteBackward),
      fc.constantFrom(...styleKeys.slice(0, 6)).map(setStyle),
      format.map((own) => setParagraphs(own)),
      fc.constantFrom("numbers", "marks", "clauses").map(toggleList),
      fc.constantFrom(-1 as const, 1 as const).map(stepLevel),
      fc.constant(restartList(4)),
      fc.constant(setLetters("caps", "small")),
      fc
        .constantFrom("body", "heading1", "quotation")
        .map((key) => changeStyleFormat(key, { letters: { size: 17 }, paragraph: { spaceAfter: 3 } })),
    )
    fc.assert(
      fc.property(
        documents,
        fc.array(fc.tuple(acts, fc.nat(50), fc.nat(200)), { minLength: 1, maxLength: 4 }),
        fc.constantFrom(...specs),
        (doc, changes, spec) => {
          let state = EditorState.create({ doc })
          let layout = layoutDocument(typesetter(), doc, spec)
          for (const [act, where, offset] of changes) {
            const number = where % leavesOf(state.doc).count
            const node = leavesOf(state.doc).node(number)
            const at = leavesOf(state.doc).start(number) + (offset % (node.content.size + 1))
            state = EditorState.create({ doc: state.doc, selection: Selection.near(state.doc.resolve(at)) })
            act(state, (tr) => (state = state.apply(tr)))
            const composition = new Composition(typesetter(), state.doc, spec, layout)
            while (!composition.step());
            layout = composition.layout
            expect(seen(layout)).toEqual(seen(layoutDocument(typesetter(), state.doc, spec)))
          }
        },
      ),
      { numRuns: 120 },
    )
  })

  test("every caret has its place, every place its caret, and a selection of all covers all", () => {
    fc.assert(
      fc.property(documents, (doc) => {
        for (const placed of layoutDocument(typesetter(), doc).placed)
          for (const fragment of fragmentsOf(placed)) {
            const { lines, text: own } = fragment.paragraph
            const [first, last] = [lines[fragment.from]!, lines[fragment.to - 1]!]
            for (let offset = first.from; offset < last.to; offset++) {
              const box = caretBox(fragment, offset)!
              expect(Number.isFinite(box.x) && Number.isFinite(box.y)).toBe(true)
              expect(hit(placed, box.x, box.y + box.height / 2)).not.toBeNull()
            }
            const boxes = rangeBoxes(fragment, first.from, last.to, false)
            for (const box of boxes) expect(box.width >= 0 && Number.isFinite(box.x)).toBe(true)
            if (own.slice(first.from, last.to).trim() !== "") expect(boxes.length).toBeGreaterThan(0)
          }
      }),
      { numRuns: 60 },
    )
  })

  test("it is drawn in PDF and as a picture without a number that is none, and read back from JSON as it was", () => {
    fc.assert(
      fc.property(documents, (doc) => {
        expect(readDocument(JSON.parse(JSON.stringify(doc.toJSON()))).eq(doc)).toBe(true)
        const layout = layoutDocument(typesetter(), doc)
        const pdf = Buffer.from(pdfOf(layout, "x"))
        expect(pdf.subarray(0, 5).toString()).toBe("%PDF-")
        for (const placed of layout.placed)
          expect(sheetPicture(placed, typesetter().fonts)).not.toMatch(/NaN|undefined|Infinity/)
      }),
      { numRuns: 25 },
    )
  })
})

test("a change of one style sets anew only what has it; the rest keeps its layout", () => {
  const doc = document([paragraph("heading1", ["a"]), paragraph("body", ["b"]), paragraph("quotation", ["c"])])
  const before = layoutDocument(typesetter(), doc)
  const changed = after(EditorState.create({ doc }), changeStyleFormat("heading1", { letters: { size: 30 } })).doc
  const now = layoutDocument(typesetter(), changed, { mode: "sheets" }, before)
  const paragraphs = (layout: Layout) =>
    layout.placed
      .slice(0, 1)
      .flatMap(fragmentsOf)
      .map((fragment) => fragment.paragraph)
  expect(paragraphs(now).map((own, i) => own === paragraphs(before)[i])).toEqual([false, true, true])
})

test("labels stay the same array while no item of a list comes, goes or moves", () => {
  const listed = [
    paragraph("body", ["one"], { list: { definition: "numbers", run: "a", level: 0 } }),
    paragraph("body", ["text"]),
  ]
  const state = stateOf(listed, [1, 2])
  const before = labelsOf(state.doc)
  const typed = after(state, insertText("more"))
  expect(labelsOf(typed.doc)).toBe(before)
  const split = after(typed, enter)
  expect(labelsOf(split.doc)).toEqual(["1.", null, null])
  expect(labelsOf(after(split, toggleList("marks")).doc)).toEqual(["1.", null, "•"])
  expect(defaultStyles.lists).toEqual({})
})
