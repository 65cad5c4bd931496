import { EditorState } from "prosemirror-state"
import { defaultStyles, document, fieldText, formatDate, letters, nodes, p, paragraph } from "../src/document"
import { readDocument, ReadingError } from "../src/document/reading"
import {
  insertField,
  insertLineBreak,
  insertSheetBreak,
  selectedText,
  selectAll,
  deleteBackward,
  undo,
  editHistory,
  dragSelection,
  pasteSlice,
  selectedSlice,
} from "../src/editing"
import { fragmentsOf, caretEdges } from "../src/layout"
import { layoutOf, pdfOf } from "../node/typesetting"
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

  test("goes over to the next line as a whole", () => {
    const many = document([
      paragraph(
        "body",
        Array.from({ length: 12 }, () => [
          nodes.field.create({ kind: "date", format: "full" }),
          letters(" ", {}),
        ]).flat(),
      ),
    ])
    const { lines } = layoutOf(many).placed.slice(0, 1).flatMap(fragmentsOf)[0]!.paragraph
    expect(lines.length).toBeGreaterThan(1)
    expect(lines.reduce((n, line) => n + line.runs.filter((r) => r.run.shows).length, 0)).toBe(12)
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
  })
})
