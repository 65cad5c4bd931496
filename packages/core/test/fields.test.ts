import { execFileSync } from "node:child_process"
import { mkdtempSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import { Transform } from "prosemirror-transform"
import {
  defaultProperties,
  defaultSetup,
  defaultStyles,
  document,
  fieldText,
  formatDate,
  letters,
  MM,
  nodes,
  p,
  paragraph,
  schema,
  setEntries,
} from "../src/document"
import { readDocument, ReadingError } from "../src/document/reading"
import {
  changeField,
  deleteBackward,
  dragSelection,
  editHistory,
  fieldAt,
  fieldToText,
  insertField,
  insertLineBreak,
  insertSheetBreak,
  moveRows,
  pasteSlice,
  removeBreak,
  selectAll,
  selectedSlice,
  selectedText,
  undo,
} from "../src/editing"
import { fragmentsOf, caretEdges, layoutDocument, rangeBoxes, shownText, type Layout } from "../src/layout"
import { layoutOf, pdfOf, typesetter } from "../node/typesetting"
import { after, stateOf, styles, texts, told } from "./telling"

const moment = new Date(2026, 10, 3, 14, 5)

test.each([
  ["long", "en-GB", "3 November 2026"],
  ["full", "en-GB", "Tuesday 3 November 2026"],
  ["short", "en-GB", "03/11/2026"],
  ["dayMonth", "de-DE", "3. November"],
  ["monthYear", "fr-FR", "novembre 2026"],
  ["time", "en-GB", "14:05"],
  ["nothing", "en-GB", "3 November 2026"],
])("a date in the format %s in %s is %s", (format, language, expected) => {
  expect(formatDate(moment, format, language).replace(/,/g, "")).toBe(expected)
})

describe("a field", () => {
  const state = after(stateOf([p("On ")], [0, 3]), insertField("long"))
  const field = state.doc.child(0).child(0).lastChild!
  const shown = fieldText(field, "en-GB")

  test("is one place in the text and shows a date", () => {
    expect(field.type).toBe(nodes.field)
    expect(texts(state.doc)).toEqual(["On \ufffc"])
    expect(selectedText(after(state, selectAll))).toBe(`On ${shown}`)
    expect(texts(after(state, deleteBackward).doc)).toEqual(["On "])
  })

  test("is copied in the document's language", () => {
    const german = {
      ...defaultStyles,
      defaults: { ...defaultStyles.defaults, letters: { ...defaultStyles.defaults.letters, language: "de-DE" } },
    }
    const { doc } = state.apply(state.tr.setDocAttribute("styles", german))
    expect(selectedText(after(EditorState.create({ doc }), selectAll))).toBe(`On ${fieldText(field, "de-DE")}`)
  })

  test("is as wide as its text, with the caret before and behind it", () => {
    const { paragraph: laid } = layoutOf(state.doc).placed.slice(0, 1).flatMap(fragmentsOf)[0]!
    const run = laid.lines[0]!.runs.find((r) => r.run.shows !== null)!
    expect(run.run.shows).toBe(shown)
    const plain = layoutOf(document([p(`On ${shown}`)]))
      .placed.slice(0, 1)
      .flatMap(fragmentsOf)[0]!.paragraph.lines[0]!
    expect(laid.lines[0]!.width).toBeCloseTo(plain.width, 3)
    const { leading: edges } = caretEdges(laid, laid.lines[0]!)
    expect(edges[4]! - edges[3]!).toBeCloseTo(run.width, 3)
  })

  test("is broken into lines as its words would be", () => {
    const title = "A hundred tides of the Saltmarsh"
    const one = [nodes.field.create({ kind: "title", format: "" }), letters(" ", {})]
    const many = document([paragraph("body", Array.from({ length: 12 }, () => one).flat())], {
      properties: { ...defaultProperties, title },
    })
    const set = layoutOf(many).placed.slice(0, 1).flatMap(fragmentsOf)[0]!.paragraph
    expect(set.lines.length).toBeGreaterThan(1)
    expect(shownText(set)).toBe(`${title} `.repeat(12))
    // Some of them go on on the next line.
    expect(set.lines.reduce((n, line) => n + line.runs.filter((r) => r.run.shows).length, 0)).toBeGreaterThan(12)
  })

  test("gets into the PDF, and only kinds that exist get into a document", () => {
    expect(pdfOf(layoutOf(state.doc), "x").length).toBeGreaterThan(1000)
    const json = state.doc.toJSON()
    json.content[0].content[0].content[1].attrs.kind = "script"
    expect(() => readDocument(json)).toThrow(ReadingError)
  })
})

describe("breaks", () => {
  test("a new sheet begins with what follows the caret", () => {
    const state = after(stateOf([paragraph("heading1", ["Part"]), p("one two")], [1, 4]), insertSheetBreak)
    expect(texts(state.doc)).toEqual(["Part", "one ", "two"])
    expect(layoutOf(state.doc).placed.length).toBe(2)
    expect(styles(state.doc)).toEqual(["heading1", "body", "body"])
  })

  test("at the start of a paragraph that paragraph begins the sheet", () => {
    const state = after(stateOf([p("one"), p("two")], [1, 0], [1, 0], [editHistory()]), insertSheetBreak)
    expect(texts(state.doc)).toEqual(["one", "two"])
    expect(layoutOf(state.doc).placed.length).toBe(2)
    expect(layoutOf(after(state, undo).doc).placed.length).toBe(1)
  })

  test("a new line keeps the look of what is typed", () => {
    const state = after(stateOf([p(letters("bold", { bold: true }))], [0, 4]), insertLineBreak)
    expect(
      state.doc
        .child(0)
        .child(0)
        .lastChild!.marks.map((m) => m.type.name),
    ).toEqual(["bold"])
  })
})

describe("moving text", () => {
  test("the selection is carried elsewhere or copied, also over paragraphs, and not into itself", () => {
    const state = stateOf([p("one two"), p("three")], [0, 0], [0, 4], [editHistory()])
    expect(told(after(state, dragSelection(state.doc.content.size - 2, false)))).toBe("two\nthree[one ]")
    expect(texts(after(state, dragSelection(state.doc.content.size - 2, true)).doc)).toEqual(["one two", "threeone "])
    expect(dragSelection(3, false)(state)).toBe(false)
    expect(after(after(state, dragSelection(9, false)), undo).doc.eq(state.doc)).toBe(true)
  })

  test("paragraphs that are pasted into an empty one keep their styles", () => {
    const source = after(stateOf([paragraph("title", ["Head"]), p("body")]), selectAll)
    const pasted = after(stateOf([p("before"), p()], [1, 0]), pasteSlice(selectedSlice(source)))
    expect(styles(pasted.doc)).toEqual(["body", "title", "body"])
    expect(told(pasted)).toBe("before\nHead\nbody|")
    const inside = after(stateOf([p("before")], [0, 3]), pasteSlice(selectedSlice(source)))
    expect(texts(inside.doc)).toEqual(["befHead", "bodyore"])
    const words = stateOf([p("some words")], [0, 5], [0, 10])
    const inline = words.doc.slice(words.selection.from, words.selection.to)
    expect(inline.content.firstChild?.isText).toBe(true)
    expect(texts(after(stateOf([p("before ")], [0, 7]), pasteSlice(inline)).doc)).toEqual(["before words"])
    expect(texts(after(stateOf([p()], [0, 0]), pasteSlice(inline)).doc)).toEqual(["words"])
  })
})

test("whatever a field shows, its paragraph has the lines that it would have with those words as text, and each place of it once", () => {
  const words = fc
    .array(fc.constantFrom("tide", "a", "timetables of the ferry", "slack-water", "x".repeat(30), "Ωμέγα", "مد", "–"), {
      maxLength: 14,
    })
    .map((own) => own.join(" "))
  const format = fc.record({
    align: fc.constantFrom("left" as const, "center" as const, "right" as const),
    hyphenate: fc.boolean(),
    indentFirst: fc.constantFrom(0, 20),
  })
  fc.assert(
    fc.property(words, words, words, words, format, (before, title, between, author, own) => {
      const title_ = title || "–"
      const author_ = author || "–"
      const field = (kind: "title" | "author") => nodes.field.create({ kind, format: "" })
      const properties = { ...defaultProperties, title, author }
      const setup = { ...defaultSetup, width: 260, height: 3000 }
      const lay = (parts: Parameters<typeof paragraph>[1]) =>
        layoutOf(document([paragraph("body", parts, own)], { setup, properties })).placed.flatMap((placed) =>
          fragmentsOf(placed).map((fragment) => fragment.paragraph),
        )[0]!
      const fielded = lay([before, field("title"), between, field("author")])
      const plain = lay([`${before}${title_}${between}${author_}`])
      const places = ({ lines }: typeof plain) =>
        lines.map(({ x, width, height, top }) => [x, width, height, top].map((n) => Math.round(n * 100)))
      // A short field without blanks is one letter to the line breaker.
      if ([title_, author_].every((shown) => /\s/.test(shown))) expect(places(fielded)).toEqual(places(plain))
      expect(shownText(fielded)).toBe(plain.text)
      expect(fielded.lines.map(({ from }) => from).slice(1)).toEqual(fielded.lines.map(({ to }) => to).slice(0, -1))
      expect([fielded.lines[0]!.from, fielded.lines.at(-1)!.to]).toEqual([0, fielded.text.length])
      for (const line of fielded.lines) {
        expect(line.x + line.width).toBeLessThanOrEqual(260 - 2 * 25 * MM + 0.01)
        for (const edge of caretEdges(fielded, line).leading) expect(Number.isFinite(edge)).toBe(true)
      }
    }),
    { numRuns: 200 },
  )
})

test("the caret stands before a field's first letter and behind its last, also where its words are set in several pieces", () => {
  const properties = { ...defaultProperties, title: "Saltmarsh Ferry Trust" }
  const lay = (parts: Parameters<typeof paragraph>[1]) =>
    layoutOf(document([paragraph("body", parts)], { properties })).placed.flatMap((placed) =>
      fragmentsOf(placed).map((fragment) => fragment.paragraph),
    )[0]!
  const marks = [schema.marks.caps!.create({ value: "small" })]
  const fielded = lay(["By ", nodes.field.create({ kind: "title", format: "" }, null, marks), " of old"])
  const plain = lay(["By ", schema.text("Saltmarsh Ferry Trust", marks), " of old"])
  const line = fielded.lines[0]!
  expect(line.runs.length).toBeGreaterThan(4)
  const [own, wanted] = [caretEdges(fielded, line), caretEdges(plain, plain.lines[0]!)]
  const behind = 3 + properties.title.length
  expect([own.leading[2], own.trailing[3], own.leading[3]]).toEqual([
    wanted.leading[2],
    wanted.trailing[3],
    wanted.leading[3],
  ])
  expect([own.trailing[4], own.leading[4], own.leading[6]]).toEqual([
    wanted.trailing[behind],
    wanted.leading[behind],
    wanted.leading[behind + 2],
  ])
})

test.each([190, 400, 900])("what is marked of a field is marked once, on a sheet %d points wide", (width) => {
  const field = nodes.field.create({ kind: "title", format: "" }, null, [schema.marks.caps!.create({ value: "small" })])
  const doc = document([paragraph("body", ["By ", field, " of old"])], {
    properties: { ...defaultProperties, title: "Saltmarsh Ferry Trust and Friends" },
    setup: { ...defaultSetup, width },
  })
  const [fragment] = fragmentsOf(layoutOf(doc).placed[0]!)
  const boxes = rangeBoxes(fragment!, 3, 4, false)
  const lines = new Map<number, number>()
  for (const { y, x, width: wide } of boxes) {
    expect(x).toBeGreaterThanOrEqual((lines.get(y) ?? 0) - 0.01)
    lines.set(y, x + wide)
  }
  // And all of it is: as much as its runs take.
  const runs = fragment!.paragraph.lines.flatMap((line) => line.runs.filter(({ run }) => run.shows !== null))
  const sum = (widths: number[]) => widths.reduce((all, own) => all + own, 0)
  expect(sum(boxes.map((box) => box.width))).toBeGreaterThan(0.9 * sum(runs.map((run) => run.width)))
})

test("a field that is broken into lines says its words once in the PDF", () => {
  const title = "Timetables of a ferry that was hauled by hand along a chain in all weathers"
  const field = nodes.field.create({ kind: "title", format: "" })
  const path = join(mkdtempSync(join(tmpdir(), "biblon-field-")), "title.pdf")
  const doc = document([paragraph("title", [field])], {
    setup: { ...defaultSetup, width: 400 },
    properties: { ...defaultProperties, title },
  })
  writeFileSync(path, pdfOf(layoutOf(doc), "x"))
  const text = execFileSync("pdftotext", [path, "-"], { encoding: "utf8" })
  expect(text.replace(/\s+/g, " ").trim()).toBe(title)
  expect(text.trim().split("\n").length).toBeGreaterThan(3)
})

test.each([{ mode: "sheets" as const }, { mode: "flow" as const, width: 360, margin: 20 }])(
  "fields in the text follow the properties of the document ($mode)",
  (spec) => {
    const field = (kind: string, format = "") => nodes.field.create({ kind, format })
    const made = (author: string) => ({ ...defaultProperties, title: "Slack water", author, date: `${author} day` })
    const blocks = [
      p("Before."),
      paragraph("body", ["By ", field("author")]),
      paragraph("body", [field("property", "date")]),
      p("After."),
    ]
    const before = document(blocks, { properties: made("Ida") })
    const now = setEntries(new Transform(before), null, "properties", made("Nell Caddow")).doc
    const set = typesetter()
    const told = (layout: Layout) =>
      layout.placed.flatMap((placed) => fragmentsOf(placed).map((own) => shownText(own.paragraph)))
    expect(told(layoutDocument(set, now, spec, layoutDocument(set, before, spec)))).toEqual([
      "Before.",
      "By Nell Caddow",
      "Nell Caddow day",
      "After.",
    ])
  },
)

test("what a card was told of in an older, longer document is nothing in a shorter one", () => {
  const state = stateOf([p("Ebb")])
  for (const far of [5, 6, 7, 4000]) {
    expect(fieldAt(state, far)).toBeNull()
    for (const command of [changeField(far, null), fieldToText(far, "1"), moveRows(far, 0, 1, 2), removeBreak(far)])
      expect(command(state)).toBe(false)
  }
})
