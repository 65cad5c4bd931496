import { document, leavesOf, letters, p, paragraph, textOf } from "../src/document"
import { editHistory, expressionOf, findInText, noQuery, replaceHits, Search, undo, type Query } from "../src/editing"
import { EditorState } from "prosemirror-state"
import { schema } from "../src/document"
import { after, stateOf, texts } from "./telling"

const doc = document([
  paragraph("heading1", ["The Ferry"]),
  p("A ferry, a ferryman; the fer", letters("ry", { bold: true }), " and ", letters("FERRY", { colour: "#7a1f4b" })),
  p("naïve Ωμέγα 12 Nov"),
])
/** A search that has learnt the hits of its pattern, as from the worker. */
function searching(query: Partial<Query>, node = doc): Search {
  const search = new Search({ ...noQuery, ...query })
  if (search.query.pattern)
    for (const block of leavesOf(node).nodes) search.learn(block, findInText(search.expression!, textOf(block), true))
  return search
}
const found = (query: Partial<Query>) =>
  searching(query)
    .all(doc)
    .map(({ leaf, from, to }) => texts(doc)[leaf]!.slice(from, to))

test("text is found whatever its case and across formatting; by case and by whole words if asked", () => {
  expect(found({ text: "ferry" })).toEqual(["Ferry", "ferry", "ferry", "ferry", "FERRY"])
  expect(found({ text: "ferry", matchCase: true })).toEqual(["ferry", "ferry", "ferry"])
  expect(found({ text: "ferry", wholeWords: true })).toEqual(["Ferry", "ferry", "ferry", "FERRY"])
  expect(found({ text: "ΩΜΈΓΑ" })).toEqual(["Ωμέγα"])
  expect(found({ text: "ferry." })).toEqual([])
})

test("patterns find what they say; those that are none are refused in words", () => {
  expect(found({ text: "\\d+ \\p{L}+", pattern: true })).toEqual(["12 Nov"])
  expect(found({ text: "x*", pattern: true })).toEqual([])
  expect(() => expressionOf({ ...noQuery, text: "(ferry", pattern: true })).toThrow(
    /^This pattern cannot be used: unterminated group/,
  )
})

test("looks are found with or without text, also within a part", () => {
  expect(found({ look: { style: "heading1" } })).toEqual(["The Ferry"])
  expect(found({ look: { bold: true } })).toEqual(["The Ferry", "ry"])
  expect(found({ text: "ferry", look: { colour: "#7a1f4b" } })).toEqual(["FERRY"])
  expect(found({ text: "ferry", look: { bold: true } })).toEqual(["Ferry"])
  expect(found({ text: "ferry", within: { from: 13, to: 28 } })).toEqual(["ferry"])
  expect(found({})).toEqual([])
})

test("one goes from hit to hit, around the ends", () => {
  const search = new Search({ ...noQuery, text: "the" })
  const at = (pos: number, direction: -1 | 1) => search.next(doc, pos, direction)
  expect(at(2, 1)).toMatchObject({ leaf: 0, from: 0 })
  expect(at(3, 1)).toMatchObject({ leaf: 1, from: 21 })
  expect(at(60, 1)).toMatchObject({ leaf: 0, from: 0 })
  expect(at(2, -1)).toMatchObject({ leaf: 1, from: 21 })
  expect(new Search({ ...noQuery, text: "absent" }).next(doc, 0, 1)).toBeNull()
})

test("replacing one or all is one change, keeps looks and fills in groups", () => {
  const state = stateOf(
    [p("one two, ", letters("one two", { bold: true })), p("one two")],
    [0, 0],
    [0, 0],
    [editHistory()],
  )
  const search = searching({ text: "(\\w+) (?<second>\\w+)", pattern: true }, state.doc)
  const all = after(state, replaceHits(search, search.all(state.doc), "$<second> $1$$"))
  expect(texts(all.doc)).toEqual(["two one$, two one$", "two one$"])
  expect(
    all.doc
      .child(0)
      .child(0)
      .lastChild!.marks.map((m) => m.type.name),
  ).toEqual(["bold"])
  expect(after(all, undo).doc.eq(state.doc)).toBe(true)
  const plain = new Search({ ...noQuery, text: "two" })
  expect(texts(after(state, replaceHits(plain, plain.all(state.doc).slice(1, 2), "$1")).doc)).toEqual([
    "one two, one $1",
    "one two",
  ])
  expect(replaceHits(plain, [], "x")(state)).toBe(false)
})

test("a person's pattern runs where it can be ended, not here", () => {
  expect(new Search({ ...noQuery, text: "(a+)+$", pattern: true }).all(document([p(`${"a".repeat(40)}!`)]))).toEqual([])
})

test("a range goes with the search, what was found stays known", () => {
  const search = searching({ text: "f.rry", pattern: true })
  expect(search.between({ from: 13, to: 28 }).all(doc).length).toBe(1)
  expect(search.between(null).all(doc).length).toBe(5)
})

test("a new line in what replaces is a new line of the paragraph", () => {
  const broken = document([paragraph("body", ["Notice", schema.nodes.lineBreak!.create(), "to all"])])
  const state = EditorState.create({ doc: broken })
  const done = after(
    state,
    replaceHits(
      searching({ text: "(e)\\n(t)", pattern: true }, broken),
      searching({ text: "(e)\\n(t)", pattern: true }, broken).all(broken),
      "$1$&$2",
    ),
  )
  expect(done.doc.child(0).child(0).toString()).toBe(
    'paragraph("Notice" + "e", lineBreak, "tto all")'.replace('"Notice" + "e"', '"Noticee"'),
  )
})
