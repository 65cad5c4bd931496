/** Lists of contents, which are always right. */
import fc from "fast-check"
import { type EditorState, TextSelection } from "prosemirror-state"
import {
  blocksOf,
  bodyOf,
  defaultSetup,
  document,
  headingsOf,
  leavesOf,
  nodes,
  p,
  paragraph,
  sectionsOf,
} from "../src/document"
import { checkDocument, readDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import { changeSetup, settleStories, type Command } from "../src/editing"
import { Composition, fragmentsOf, layoutDocument, numbersOf, sectionBegun, type Layout } from "../src/layout"
import { typesetter } from "../node/typesetting"
import { after, stateOf } from "./telling"

const small = { ...defaultSetup, width: 300, height: 260, margins: { top: 30, right: 30, bottom: 30, left: 30 } }
const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const contents = (levels = 3) => nodes.contents.create({ levels, look: "dotted" })
const parts = (n: number) =>
  Array.from({ length: n }, (_, i) => [
    paragraph(i % 3 === 2 ? "heading2" : "heading1", [`Part ${i}`]),
    p(sentence.repeat(1 + ((i * 7) % 5))),
  ]).flat()

/** What the contents of a layout say, entry by entry. */
const told = (layout: Layout) =>
  layout.placed.flatMap((placed) =>
    fragmentsOf(placed)
      .filter(({ part }) => part === "generated")
      .map(({ paragraph: { text } }) => text.replace("\t", " … ")),
  )
/** What they should say. */
const right = (layout: Layout, levels = 3) => {
  const numbers = numbersOf(layout)
  const pages = new Map(
    layout.placed.flatMap((placed, i) =>
      fragmentsOf(placed)
        .filter(({ part, from }) => part === "text" && from === 0)
        .map(({ leaf }) => [leaf, numbers[i]!.text] as const),
    ),
  )
  return headingsOf(layout.doc)
    .filter(({ level, text }) => level <= levels && text !== "")
    .map(({ leaf, text }) => `${text} … ${pages.get(leaf)}`)
}
const set = (doc: Parameters<typeof layoutDocument>[1]) => layoutDocument(typesetter(), doc)

test("while contents of several sheets are set anew, no sheet of them is shown twice and nothing behind them is gone", () => {
  const doc = document([contents(), ...parts(60)], { setup: small })
  const last = set(doc)
  const composition = new Composition(typesetter(), doc, { mode: "sheets" })
  while (!composition.step()) {
    const { placed, pages } = composition.layout
    const starts = placed.flatMap(({ leaf, sheet: { start } }) => ("entry" in start.at ? [[leaf, start.at.entry]] : []))
    expect(starts).toEqual(starts.filter(([, entry], i) => i === 0 || entry! > starts[i - 1]![1]!))
    if (pages.size > 0) expect(Math.abs(placed.length - last.placed.length)).toBeLessThanOrEqual(2)
  }
  expect(composition.layout.placed.length).toBe(last.placed.length)
  expect(last.placed.filter(({ sheet }) => "entry" in sheet.start.at).length).toBeGreaterThan(3)
})

test("contents name every heading with its sheet, over as many sheets as they take, and only of the levels asked for", () => {
  const layout = set(document([contents(), ...parts(40)], { setup: small }))
  expect(told(layout)).toEqual(right(layout))
  expect(told(layout).length).toBe(40)
  expect(layout.placed[0]!.leaf).toBe(layout.placed[1]!.leaf)
  const one = set(document([p("Report"), contents(1), ...parts(9)], { setup: small }))
  expect(told(one)).toEqual(right(one, 1))
  expect(told(one).length).toBe(6)
})

test("a document that begins with contents has one first sheet", () => {
  const doc = document([contents(), ...parts(40)], { setup: small })
  const begun = set(doc).placed.map(({ sheet, leaf }) =>
    sectionBegun(blocksOf(bodyOf(doc)), sectionsOf(doc), leaf, sheet.start.at),
  )
  expect(begun[0]).toEqual({ section: 0, first: true })
  expect(begun.slice(1).filter(({ first }) => first)).toEqual([])
})

test("contents are kept in no file but their look, pass the check, and go by one Backspace", () => {
  const state = after(stateOf([p("Report"), ...parts(2)]), editing.insertContents({ levels: 2, look: "ruled" }))
  expect(JSON.stringify(state.doc.toJSON())).toContain(
    '{"type":"contents","attrs":{"levels":2,"look":"ruled","of":""}}',
  )
  expect(readDocument(state.doc.toJSON()).eq(state.doc)).toBe(true)
  expect(editing.contentsIn(state)).toMatchObject({ levels: 2, pos: 1 })
  expect(editing.contentsIn(after(state, editing.changeContents({ levels: 1 })))).toMatchObject({ levels: 1 })
  expect(editing.contentsIn(after(state, editing.deleteBackward))).toBeNull()
  expect(bodyOf(after(state, editing.changeContents(null)).doc).childCount).toBe(5)
})

test("in flow, contents have the same room above and below, wherever a strip ends", () => {
  /** From the text before to the first entry, and from the last entry to the text behind. */
  const room = (before: number) => {
    const filled = Array.from({ length: before }, () => paragraph("body", [sentence], { spaceAfter: 9 }))
    const section = nodes.sectionBreak.create()
    const doc = document([...filled, section, contents(), ...parts(2), contents(), section, ...parts(2)])
    let down = 0
    const all = layoutDocument(typesetter(), doc, { mode: "flow", width: 260, margin: 12 }).placed.flatMap((placed) => {
      const top = down
      down += placed.sheet.height
      return fragmentsOf(placed).map(({ part, y }) => ({ part, y: top + y }))
    })
    return all.flatMap(({ part, y }, i) => {
      const last = all[i - 1]
      return last && last.part !== part ? [Math.round((y - last.y) * 100)] : []
    })
  }
  const usual = room(1)
  expect(usual.length).toBe(4)
  for (let before = 2; before < 50; before++) expect(room(before)).toEqual(usual)
})

test("contents put in where all headings stay on their sheets show their numbers too", () => {
  const state = stateOf([paragraph("heading1", ["Tides"]), p("Slack water")])
  const before = set(state.doc)
  const put = after(state, editing.insertContents({ levels: 3, look: "dotted" }))
  const layout = layoutDocument(typesetter(), put.doc, { mode: "sheets" }, before)
  expect(told(layout)).toEqual(right(layout))
  expect(told(layout).length).toBe(1)
})

test("contents that push their own headings over the end of a sheet come to rest", () => {
  for (let n = 1; n < 40; n++) {
    const blocks = Array.from({ length: n }, (_, i) => paragraph("heading1", [`Part ${i}`], { spaceBefore: 0 }))
    const layout = set(document([contents(), ...blocks], { setup: small }))
    expect(told(layout)).toEqual(right(layout))
  }
})

const act = fc.record({
  kind: fc.constantFrom("type", "enter", "heading", "body", "cut", "note", "contents", "numbers", "paper", "gone"),
  leaf: fc.nat(60),
})

test("after whatever is done contents are right, also composed from before", () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 8 }), (acts) => {
      let state = stateOf(parts(12))
      state = after(
        state.apply(state.tr.insert(1, contents())),
        changeSetup(() => small, "all", "Paper"),
      )
      let layout = set(state.doc)
      for (const { kind, leaf } of acts) {
        const leaves = leavesOf(state.doc)
        const at = leaves.start(leaf % leaves.count)
        state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, at)))
        const commands: Record<typeof kind, Command> = {
          type: editing.insertText(sentence),
          enter: editing.enter,
          heading: editing.setStyle("heading1"),
          body: editing.setStyle("body"),
          cut: (own, dispatch) => {
            const { $head } = own.selection
            dispatch?.(own.tr.delete($head.start(), $head.end()))
            return true
          },
          note: editing.insertNote,
          contents: editing.insertContents({ levels: 3, look: "dotted" }),
          gone: editing.changeContents(null),
          numbers: editing.placeNumbers({ edge: "foot", part: 1 }, "%1 of %2"),
          paper: changeSetup((own) => ({ ...own, height: 230 + leaf }), "all", "Paper"),
        }
        const run = (own: EditorState) => {
          commands[kind](own, (tr) => (state = own.apply(settleStories(tr))))
        }
        run(state)
        checkDocument(state.doc)
        layout = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, layout)
        const lists = bodyOf(state.doc).children.filter(({ type }) => type === nodes.contents).length
        const wanted = right(layout)
        expect(told(layout)).toEqual(Array.from({ length: lists }, () => wanted).flat())
        expect(layout.complete).toBe(true)
      }
    }),
    { numRuns: 60 },
  )
})
