/** Changes of style sheets and formats, entry by entry. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { Transform, type Step } from "prosemirror-transform"
import {
  document,
  documentAttrs,
  leavesOf,
  p,
  paragraph,
  paragraphAttrs,
  readStep,
  setEntries,
  type EntriesStep,
  type StyleSheet,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import {
  changeStyle,
  changeStyleFormat,
  deleteStyle,
  editHistory,
  newStyle,
  changes,
  setParagraphs,
  setTypesetting,
  takeBack,
  touchedBy,
  undo,
} from "../src/editing"
import { after, stateOf } from "./telling"

const start = stateOf([p("The ferry waits."), p("The tide does not.")])
const stepsOf = (state: typeof start, command: Parameters<typeof after>[1]) => {
  let steps: Step[] = []
  command(state, (tr) => (steps = tr.steps))
  return steps
}
/** What two people who do not know of each other make of a document: the one's steps, then the other's. */
function both(first: Parameters<typeof after>[1], second: Parameters<typeof after>[1]): Node {
  const tr = new Transform(start.doc)
  for (const step of [...stepsOf(start, first), ...stepsOf(start, second)])
    tr.step(readStep(JSON.parse(JSON.stringify(step.toJSON()))))
  return checkDocument(tr.doc)
}

describe("two people at the same time", () => {
  const size = (key: string, value: number) => changeStyleFormat(key, { letters: { size: value } })
  test("change two styles, or two properties of one: both get what they wanted", () => {
    for (const doc of [both(size("title", 40), size("heading1", 30)), both(size("heading1", 30), size("title", 40))]) {
      const { styles } = documentAttrs(doc).styles
      expect([styles.title?.letters.size, styles["heading1"]?.letters.size]).toEqual([40, 30])
    }
    const { styles } = documentAttrs(
      both(size("title", 40), changeStyleFormat("title", { letters: { bold: true }, paragraph: { align: "right" } })),
    ).styles
    expect(styles.title).toMatchObject({ letters: { size: 40, bold: true }, paragraph: { align: "right" } })
  })

  test("format one paragraph: its indent and its spacing both stay, and a value is never mixed of two", () => {
    const doc = both(
      setParagraphs({ indentLeft: 20, lineSpacing: { rule: "exact", value: 14 } }),
      setParagraphs({ spaceAfter: 30, lineSpacing: { rule: "multiple", value: 2 } }),
    )
    expect(paragraphAttrs(leavesOf(doc).node(0)).format).toEqual({
      indentLeft: 20,
      spaceAfter: 30,
      lineSpacing: { rule: "multiple", value: 2 },
    })
  })

  test("one changes what the other removes: it stays removed", () => {
    expect(documentAttrs(both(deleteStyle("subtitle"), size("subtitle", 9))).styles.styles.subtitle).toBeUndefined()
    expect(documentAttrs(both(size("subtitle", 9), deleteStyle("subtitle"))).styles.styles.subtitle).toBeUndefined()
  })

  test("each makes the other style the parent: a circle does no harm", () => {
    const doc = both(changeStyle("title", { parent: "subtitle" }), changeStyle("subtitle", { parent: "title" }))
    expect(() => after(stateOf([paragraph("title", ["x"])]), changeStyleFormat("body", {}))).not.toThrow()
    expect(documentAttrs(doc).styles.styles.title?.parent).toBe("subtitle")
  })
})

test("undo of one change of a style leaves later ones alone, and says where it touched", () => {
  let state = stateOf([p("The ferry waits.")], [0, 0], [0, 0], [editHistory()])
  state = after(
    state,
    changeStyleFormat("title", { letters: { size: 44 } }),
    changeStyleFormat("body", { letters: { italic: true } }),
    setParagraphs({ align: "center" }),
  )
  const [align, , title] = changes(state).done
  expect(touchedBy(state, align!.id)).toEqual([{ from: 2, to: 18 }])
  state = after(state, takeBack(title!.id))
  const sheet = documentAttrs(state.doc).styles
  expect([sheet.styles.title?.letters.size, sheet.styles.body?.letters.italic]).toEqual([
    documentAttrs(start.doc).styles.styles.title?.letters.size,
    true,
  ])
  state = after(state, undo, undo, undo)
  expect(state.doc.eq(document([p("The ferry waits.")]))).toBe(false)
  expect(documentAttrs(after(state, undo).doc)).toEqual(documentAttrs(document([p("")])))
})

test("a change says only what it changes", () => {
  const [step] = stepsOf(start, changeStyleFormat("title", { letters: { size: 44 } })) as [EntriesStep]
  expect(step.entries).toEqual([{ path: ["styles", "title", "letters", "size"], value: 44 }])
  expect(stepsOf(start, changeStyleFormat("title", {}))).toEqual([])
  const [more] = stepsOf(start, setTypesetting({ breaking: "whole" })) as [EntriesStep]
  expect(more.entries).toEqual([{ path: ["breaking"], value: "whole" }])
  const made = stepsOf(start, newStyle("Aside", "paragraph")).map(
    (s) => s.toJSON() as { entries?: { path: string[] }[] },
  )
  expect(made.flatMap(({ entries }) => entries?.map(({ path }) => path.join(".")) ?? [])).toEqual(["styles.aside"])
})

const value = fc.oneof(
  fc.integer({ min: 1, max: 9 }),
  fc.boolean(),
  fc.constant(null),
  fc.array(fc.nat(3), { maxLength: 2 }),
  fc.record({ kind: fc.constantFrom("a", "b"), n: fc.nat(3) }),
)
const format = fc.dictionary(fc.constantFrom("align", "indentLeft", "tabs", "list", "borders"), value, { maxKeys: 4 })

test("for any two formats the step leads from one to the other, its inverse back, and again as JSON", () => {
  fc.assert(
    fc.property(fc.option(format), fc.option(format), (one, other) => {
      const clean = (own: object | null) => (own && Object.keys(own).length > 0 ? own : null)
      const doc = document([paragraph("body", ["x"], clean(one) as never), p("y")])
      const tr = setEntries(new Transform(doc), leavesOf(doc).before(0), "format", other)
      expect(paragraphAttrs(leavesOf(tr.doc).node(0)).format).toEqual(clean(other))
      expect(tr.steps.length).toBeLessThanOrEqual(1)
      for (const [i, step] of tr.steps.entries()) {
        expect(step.invert(tr.docs[i]!).apply(tr.doc).doc?.eq(doc)).toBe(true)
        expect(
          readStep(JSON.parse(JSON.stringify(step.toJSON())))
            .apply(doc)
            .doc?.eq(tr.doc),
        ).toBe(true)
      }
    }),
  )
})

test("moves with its paragraph and goes with it", () => {
  const [step] = stepsOf(stateOf([p("a"), p("b")], [1, 0]), setParagraphs({ align: "right" }))
  const before = new Transform(start.doc).insert(1, p("new"))
  expect((step!.map(before.mapping) as EntriesStep).pos).toBe(4 + p("new").nodeSize)
  expect(step!.map(new Transform(document([p("a"), p("b")])).delete(3, 7).mapping)).toBeNull()
})

test.each([
  ["no place", { attr: "format", entries: [] }],
  ["another attribute", { pos: null, attr: "content", entries: [] }],
  ["no path", { pos: null, attr: "styles", entries: [{ path: [] }] }],
  ["a path of numbers", { pos: null, attr: "styles", entries: [{ path: [1] }] }],
])("a message with %s is refused", (_what, json) => {
  expect(() => readStep({ stepType: "entries", ...json })).toThrow("A change of entries says what it changes")
})

test("keys that every object has are entries like others, and what does not fit is not let in", () => {
  const doc = document([p("x")])
  const step = (path: string[], to: unknown) =>
    readStep({ stepType: "entries", pos: null, attr: "styles", entries: [{ path, value: to }] }).apply(doc).doc!
  expect(({} as Record<string, unknown>).polluted).toBeUndefined()
  expect(() => step(["__proto__", "polluted"], true)).toThrow("says what it changes")
  expect(() => checkDocument(step(["styles", "title", "letters", "size"], -4))).toThrow(
    /styles.styles.title.letters.size/,
  )
  expect(() => checkDocument(step(["constructor"], {}))).toThrow(/styles/)
  expect((documentAttrs(step(["styles", "title"], undefined)).styles as StyleSheet).styles.title).toBeUndefined()
})
