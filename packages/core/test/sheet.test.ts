/** Paper, sections, columns, heads and feet. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import {
  bodyOf,
  defaultProperties,
  defaultSetup,
  document,
  documentAttrs,
  fitSetup,
  leavesOf,
  nodes,
  p,
  paragraph,
  sectionsOf,
  storiesOf,
  type PageSetup,
} from "../src/document"
import { checkDocument, readDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import { changeSetup, placeNumbers, settleStories, startSection, writeEdge, type Command } from "../src/editing"
import { backdropOf, fragmentsOf, layoutDocument, numbersOf, shownText, type Layout } from "../src/layout"
import { layoutOf, typesetter } from "../node/typesetting"
import { after, stateOf } from "./telling"

const small: PageSetup = {
  ...defaultSetup,
  width: 300,
  height: 260,
  margins: { top: 40, right: 30, bottom: 40, left: 30 },
}
const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const breakTo = (setup: PageSetup) => nodes.sectionBreak.create({ setup })
const doc = (blocks: Node[], setup: Partial<PageSetup> = {}) => document(blocks, { setup: { ...small, ...setup } })
const prose = (n: number) => Array.from({ length: n }, (_, i) => p(`${i} ${sentence}`))
const at = (state: EditorState, leaf: number, offset = 0) =>
  state.apply(
    state.tr.setSelection(
      (state.selection.constructor as unknown as { create(doc: Node, pos: number): EditorState["selection"] }).create(
        state.doc,
        leavesOf(state.doc).start(leaf) + offset,
      ),
    ),
  )
const furniture = (layout: Layout) =>
  layout.placed.map((placed) =>
    fragmentsOf(placed)
      .filter(({ part }) => part !== "text")
      .map(({ paragraph }) => shownText(paragraph).replaceAll("\t", "|"))
      .join(" / "),
  )

describe("columns", () => {
  test("are filled one after the other, and as high as each other where a section ends", () => {
    const columns = { count: 2, gap: 20, line: true, shares: null }
    const layout = layoutOf(doc(prose(11), { columns }))
    const [first, last] = [layout.placed[0]!, layout.placed.at(-1)!]
    expect(first.sheet.columns.map(({ x, box }) => [Math.round(x), Math.round(box.width)])).toEqual([
      [30, 110],
      [160, 110],
    ])
    expect(first.sheet.rules).toHaveLength(1)
    const [left = 0, right = 0] = last.sheet.columns.map(({ box }) => box.height)
    expect(Math.abs(left - right)).toBeLessThan(40)
    expect(left).toBeGreaterThanOrEqual(right)
  })

  test("a section that goes on below stands on the same sheet in its own columns; another paper begins a new one", () => {
    const two = { ...small, begins: "continuous" as const, columns: { count: 2, gap: 20, line: false, shares: null } }
    const layout = layoutOf(doc([p("Notice"), breakTo(two), ...prose(2), breakTo({ ...two, width: 400 }), p("Wide")]))
    expect(layout.placed.map(({ sheet }) => [sheet.width, sheet.columns.length])).toEqual([
      [300, 3],
      [400, 1],
    ])
    const [notice, one, other] = layout.placed[0]!.sheet.columns
    expect(one!.y).toBe(other!.y)
    expect(one!.y).toBeGreaterThanOrEqual(notice!.y + notice!.box.height)
  })

  test("a section between other margins begins on a sheet of its own, so that no line of it is lost where it is divided", () => {
    const narrow = { ...small, begins: "continuous" as const, margins: { ...small.margins, right: 190 } }
    const layout = layoutOf(doc([p("Notice"), breakTo(narrow), p(sentence.repeat(9))]))
    expect(layout.placed[0]!.sheet.columns).toHaveLength(1)
    const lines = layout.placed.flatMap((placed) =>
      fragmentsOf(placed).flatMap(({ leaf, from, to }) => (leaf === 1 ? [to - from] : [])),
    )
    const parts = layout.placed.flatMap(fragmentsOf).filter(({ leaf }) => leaf === 1)
    expect(lines.reduce((a, b) => a + b)).toBe(parts[0]!.paragraph.lines.length)
  })

  test("a section that begins on an odd sheet leaves one blank where it has to", () => {
    const layout = layoutOf(
      doc([p("a"), breakTo({ ...small, begins: "odd" }), p("b"), breakTo({ ...small, begins: "even" }), p("c")]),
    )
    expect(
      layout.placed.map((placed) =>
        fragmentsOf(placed)
          .map(({ paragraph }) => paragraph.text)
          .join(),
      ),
    ).toEqual(["a", "", "b", "c"])
    expect(numbersOf(layout).map(({ number }) => number)).toEqual([1, 2, 3, 4])
  })
})

describe("heads and feet", () => {
  const begun = (blocks: Node[]) => {
    const state = stateOf(blocks)
    return after(
      state,
      changeSetup(() => small, "all", "Paper"),
    )
  }

  test("numbers are put in place in one step, moved and taken away, and every sheet shows its own", () => {
    let state = begun(prose(12))
    state = after(state, placeNumbers({ edge: "foot", part: 1 }, "Sheet %1 of %2"))
    const sheets = layoutOf(state.doc).placed.length
    expect(sheets).toBeGreaterThan(2)
    expect(furniture(layoutOf(state.doc))).toEqual(
      Array.from({ length: sheets }, (_, i) => `|Sheet ${i + 1} of ${sheets}`),
    )
    expect(editing.numberPlace(state)).toEqual({ edge: "foot", part: 1, pattern: "Sheet %1 of %2" })
    state = after(state, placeNumbers({ edge: "head", part: 2 }, "– %1 –"))
    expect(furniture(layoutOf(state.doc))[1]).toMatch(/^\|\|– 2 –/)
    state = after(state, placeNumbers({ edge: "head", part: "outer" }, "%1"))
    expect(
      furniture(layoutOf(state.doc))
        .slice(0, 2)
        .map((text) => text.replace(" / ", "")),
    ).toEqual(["||1", "2"])
    expect(editing.numberPlace(state)).toEqual({ edge: "head", part: "outer", pattern: "%1" })
    // Another way to write them keeps their place, and puts none where there are none.
    state = after(state, editing.writeNumbers("%1 of %2"))
    expect(editing.numberPlace(state)).toEqual({ edge: "head", part: "outer", pattern: "%1 of %2" })
    state = after(state, placeNumbers(null, ""))
    expect(editing.writeNumbers("%1")(state)).toBe(false)
    expect(furniture(layoutOf(state.doc)).join("").replace(/[ /]/g, "")).toBe("")
    expect(checkDocument(state.doc)).toBe(state.doc)
  })

  test("numbers leave the words beside them alone", () => {
    let state = after(begun(prose(3)), writeEdge("foot", "all", 0), editing.insertText("Saltmarsh Ferry Trust"))
    state = after(state, placeNumbers({ edge: "foot", part: 2 }, "%1 of %2"))
    expect(furniture(layoutOf(state.doc))[0]).toMatch(/^Saltmarsh Ferry Trust\|\|1 of \d$/)
    state = after(state, placeNumbers({ edge: "foot", part: 0 }, "%1"))
    expect(furniture(layoutOf(state.doc))[0]).toBe("Saltmarsh Ferry Trust 1")
  })

  test("a first sheet of its own is blank till it is written, left sheets begin with a copy, and what was written for them is never lost", () => {
    let state = after(begun(prose(12)), writeEdge("head", "all", 0), editing.insertText("Minutes"))
    state = after(state, editing.divideEdges("firstOwn", true), editing.divideEdges("leftRight", true))
    expect(furniture(layoutOf(state.doc)).slice(0, 3)).toEqual(["", "Minutes", "Minutes"])
    state = after(state, writeEdge("head", "left", 0), editing.insertText(" of the trustees"))
    expect(furniture(layoutOf(state.doc)).slice(0, 3)).toEqual(["", "Minutes of the trustees", "Minutes"])
    state = after(state, editing.divideEdges("leftRight", false))
    expect(furniture(layoutOf(state.doc)).slice(0, 3)).toEqual(["", "Minutes", "Minutes"])
    state = after(state, editing.divideEdges("leftRight", true))
    expect(furniture(layoutOf(state.doc))[1]).toBe("Minutes of the trustees")
  })

  test("a section shows the head of the one before it until it gets its own, and may count anew in another form", () => {
    let state = begun([p("a"), p("b"), p("c")])
    state = after(state, placeNumbers({ edge: "foot", part: 0 }, "%1"))
    state = after(
      state,
      changeSetup((own) => ({ ...own, numbering: { form: "lowerRoman", start: null } }), "all", "Form"),
    )
    state = after(
      at(state, 1),
      startSection("sheet", (own) => own),
    )
    expect(furniture(layoutOf(state.doc))).toEqual(["i", "ii"])
    state = after(
      state,
      changeSetup((own) => ({ ...own, numbering: { form: "decimal", start: 1 } }), "here", "Form"),
    )
    expect(furniture(layoutOf(state.doc))).toEqual(["i", "1"])
    state = after(state, writeEdge("foot", "all", 1, true), editing.insertText(" Trust"))
    expect(furniture(layoutOf(state.doc))).toEqual(["i", "1 Trust"])
    expect(editing.sectionHere(state)).toBe(1)
    // Its beginning is deleted like a letter.
    state = after(at(state, 1), editing.deleteBackward)
    expect([sectionsOf(state.doc).length, leavesOf(state.doc).count - storiesOf(state.doc).size]).toEqual([1, 3])
  })

  test("a head that is higher than its margin pushes the text down; one higher than the sheet leaves room for text", () => {
    const state = after(begun(prose(3)), writeEdge("head", "all", 0))
    const top = (own: EditorState) => layoutOf(own.doc).placed[0]!.sheet.columns[0]!.y
    expect(top(state)).toBeGreaterThan(defaultSetup.head.distance + 15 + 8)
    const high = after(state, ...Array.from({ length: 60 }, () => editing.enter))
    const layout = layoutOf(high.doc)
    expect(top(high)).toBeLessThan(small.height / 2)
    expect(fragmentsOf(layout.placed[0]!).some(({ part }) => part === "text")).toBe(true)
  })

  test("fields of a sheet stand at heads and feet alone", () => {
    const state = begun([p("a")])
    expect(editing.insertFieldOf("page")(state)).toBe(false)
    expect(editing.insertFieldOf("title")(state)).toBe(true)
    const titled = document([paragraph("heading1", ["Tides"]), p("x")], {
      properties: { ...defaultProperties, title: "Slack water", author: "" },
      setup: small,
    })
    const head = after(
      stateOf([p("")]).apply(stateOf([p("")]).tr),
      writeEdge("head", "all", 0),
      editing.insertFieldOf("title"),
      editing.insertFieldOf("heading", "1"),
    )
    const whole = titled.type.create(
      { ...titled.attrs, setup: { ...small, head: documentAttrs(head.doc).setup.head } },
      [bodyOf(titled), ...head.doc.children.slice(1)],
    )
    expect(furniture(layoutOf(whole))).toEqual(["Slack waterTides"])
  })
})

const on = (blocks: Node[], setup: PageSetup) =>
  after(
    stateOf(blocks),
    changeSetup(() => setup, "all", "Paper"),
  )

test("a section of contents alone has a line in which its setup can be reached", () => {
  const contents = nodes.contents.create()
  const state = after(
    at(stateOf([contents, paragraph("heading1", ["Tides"])]), 0, 0),
    startSection("sheet", (own) => own),
  )
  expect(leavesOf(state.doc).nodes.map((leaf) => leaf.textContent)).toEqual(["", "Tides"])
  expect([editing.sectionHere(state), editing.sectionHere(at(state, 0))]).toEqual([1, 0])
})

test("columns share the width as they are told, and a paragraph that goes on in a wider one fills it", () => {
  const columns = { count: 2, gap: 20, line: false, shares: [1, 2] }
  const whole = doc([p(sentence.repeat(22))], { columns })
  const layout = layoutOf(whole)
  const [first] = layout.placed
  expect(first!.sheet.columns.map(({ box }) => Math.round(box.width))).toEqual([73, 147])
  const parts = layout.placed.flatMap(fragmentsOf)
  expect(parts.length).toBeGreaterThan(2)
  // Line follows line without a gap, each within its column and filling more than half of it.
  let at = 0
  for (const { paragraph: own, from, to, width } of parts)
    for (const line of own.lines.slice(from, to)) {
      expect(line.from).toBe(at)
      at = line.to
      expect(line.x + line.width).toBeLessThanOrEqual(width + 0.01)
      if (at < own.text.length) expect(line.width).toBeGreaterThan(width * 0.5)
    }
  expect(at).toBe(parts[0]!.paragraph.text.length)
})

test("a paragraph that begins a column stands at its top, in the last one on the next sheet; a blank sheet is left before what follows", () => {
  const columns = { count: 2, gap: 20, line: false, shares: null }
  const state = after(at(on([p("one"), p("two"), p("three")], { ...small, columns }), 1, 0), editing.insertColumnBreak)
  const tops = (own: Node) =>
    layoutOf(own).placed.flatMap((placed, sheet) =>
      fragmentsOf(placed).map(({ leaf, x, y }) => [sheet, leaf, Math.round(x), Math.round(y)]),
    )
  expect(tops(state.doc)).toEqual([
    [0, 0, 30, 40],
    [0, 1, 160, 40],
    [0, 2, 160, 65],
  ])
  const twice = after(at(state, 2, 0), editing.insertColumnBreak)
  expect(tops(twice.doc).at(-1)).toEqual([1, 2, 30, 40])
  expect(editing.breakBefore(twice.doc, 2)?.kind).toBe("column")
  const pos = editing.breakBefore(twice.doc, 2)!.pos
  expect(after(twice, editing.removeBreak(pos)).doc.eq(state.doc)).toBe(true)
  const blank = after(at(on([p("one"), p("two")], small), 1, 0), editing.insertBlankSheet)
  expect(tops(blank.doc).map(([sheet, leaf]) => [sheet, leaf])).toEqual([
    [0, 0],
    [1, 1],
    [2, 2],
  ])
})

test("a cover shows the properties on a sheet of its own; another design keeps them and what was written there", () => {
  const words = (own: EditorState) =>
    layoutOf(own.doc).placed.map((placed) => fragmentsOf(placed).map(({ paragraph: set }) => shownText(set)))
  const plain = on(prose(2), small)
  let state = after(
    plain,
    editing.changeProperties({ title: "Tides", author: "Nell Caddow" }),
    editing.setCover("pier"),
  )
  expect(words(state)[0]).toEqual(["Tides", "Nell Caddow"])
  expect(numbersOf(layoutOf(state.doc)).map(({ number }) => number)).toEqual([1, 1])
  state = after(
    at(state, 1),
    editing.enter,
    editing.insertText("Draft for the harbour office"),
    editing.setCover("ledger"),
  )
  expect(words(state)[0]).toEqual(["Tides", "Nell Caddow", "Draft for the harbour office"])
  expect(layoutOf(state.doc).placed[0]!.sheet.rules.length).toBe(8)
  state = after(state, editing.changeProperties({ date: "14 November", author: "" }))
  expect(words(state)[0]).toEqual(["Tides", "14 November", "Draft for the harbour office"])
  state = after(state, editing.setCover(null))
  expect(words(state)[0]?.[0]).toBe("Draft for the harbour office")
  expect(documentAttrs(state.doc).setup).toEqual({ ...small, begins: "sheet" })
})

test("a watermark stands in the middle behind the text, no larger than its sheet; a typed number becomes a field", () => {
  const watermark = { text: "DRAFT", family: "Lora", size: 400, angle: 45, colour: "#7a1f4b", strength: 0.2 }
  const layout = layoutOf(doc([p("one")], { watermark }))
  const [fragment] = backdropOf(layout.placed[0]!)
  const line = fragment!.paragraph.lines[0]!
  expect([fragment!.turn, line.runs[0]!.run.look.colour]).toEqual([{ angle: 45, x: 150, y: 130 }, "#e4d2db"])
  expect((line.width + line.height) * Math.SQRT1_2).toBeLessThanOrEqual(260 - 36)
  expect(fragmentsOf(layout.placed[0]!).length).toBe(1)

  const head = after(on(prose(30), small), writeEdge("head", "all", 0), editing.insertText("Tides\tSheet 3"))
  expect(editing.typedNumber(head)?.number).toBe("3")
  const fielded = after(head, editing.typedToNumber)
  expect(
    layoutOf(fielded.doc)
      .placed.slice(0, 2)
      .map((placed) =>
        fragmentsOf(placed)
          .flatMap(({ part, paragraph: set }) => (part === "header" ? shownText(set) : []))
          .join(),
      ),
  ).toEqual(["Tides\tSheet 1", "Tides\tSheet 2"])
  expect(editing.typedNumber(after(stateOf([p("")]), editing.insertText("3")))).toBeNull()
  expect(editing.fieldAt(fielded)?.kind).toBe("page")
})

test("a document of format 2 gets heads, feet, columns and numbers", () => {
  const old = JSON.parse(JSON.stringify(doc([p("a"), breakTo(small), p("b")]).toJSON())) as {
    attrs: { setup: object }
    content: { content: { attrs: { setup: object } }[] }[]
  }
  const { width, height, margins } = small
  old.attrs.setup = { width, height, margins }
  old.content[0]!.content[1]!.attrs.setup = { width, height, margins }
  expect(readDocument(old, 2).eq(doc([p("a"), breakTo(small), p("b")]))).toBe(true)
  expect(() => readDocument(old, 4)).toThrow("setup")
})

const setup = fc
  .record({
    width: fc.double({ min: 0, max: 700, noNaN: true }),
    count: fc.integer({ min: 1, max: 4 }),
    shares: fc.option(fc.array(fc.double({ min: 0.2, max: 3, noNaN: true }), { minLength: 1, maxLength: 4 })),
    frame: fc.constantFrom(null, { pattern: "double" as const, width: 1, colour: "#7a1f4b", distance: 12 }),
    begins: fc.constantFrom("sheet", "odd", "even", "continuous" as const),
    margin: fc.double({ min: -50, max: 400, noNaN: true }),
    leftRight: fc.boolean(),
    firstOwn: fc.boolean(),
    mirrored: fc.boolean(),
    start: fc.option(fc.integer({ min: -1, max: 9 })),
  })
  .map(({ width, count, shares, begins, margin, start, ...flags }) =>
    fitSetup({
      ...small,
      ...flags,
      width,
      begins: begins as PageSetup["begins"],
      margins: { top: 30, right: margin, bottom: 30, left: margin / 2 },
      columns: { count, gap: 12, line: count === 2, shares },
      numbering: { form: "decimal", start },
    }),
  )
const block = fc.oneof(
  { weight: 6, arbitrary: fc.integer({ min: 0, max: 5 }).map((n) => p(sentence.repeat(n))) },
  { weight: 1, arbitrary: setup.map(breakTo) },
  { weight: 1, arbitrary: fc.constant(paragraph("heading1", ["Tides"])) },
  { weight: 1, arbitrary: fc.constant(paragraph("body", [sentence], { breakBefore: true })) },
  { weight: 1, arbitrary: fc.constant(paragraph("body", [sentence.repeat(3)], { columnBefore: true })) },
)

test("whatever the setups, every line stands on the sheets once, in order, in its column; a bound setup passes the check", () => {
  fc.assert(
    fc.property(setup, fc.array(block, { minLength: 1, maxLength: 14 }), (own, blocks) => {
      const whole = checkDocument(document([...blocks, p("end")], { setup: own }))
      const layout = layoutDocument(typesetter(), whole)
      const lines = layout.placed.flatMap((placed) =>
        fragmentsOf(placed).flatMap(({ leaf, from, to }) =>
          Array.from({ length: to - from }, (_, i) => [leaf, from + i]),
        ),
      )
      const wanted = layout.placed
        .flatMap(fragmentsOf)
        .reduce((all, { leaf, paragraph: { lines } }) => all.set(leaf, lines.length), new Map<number, number>())
      expect([...wanted.keys()]).toEqual(Array.from({ length: leavesOf(whole).count }, (_, i) => i))
      expect(lines).toEqual([...wanted].flatMap(([leaf, n]) => Array.from({ length: n }, (_, i) => [leaf, i])))
      for (const { sheet } of layout.placed)
        for (const { x, y, box } of sheet.columns) {
          expect([x >= -0.01, x + box.width <= sheet.width + 0.01]).toEqual([true, true])
          expect(y).toBeGreaterThanOrEqual(0)
        }
    }),
    { numRuns: 150 },
  )
})

const act = fc.record({
  kind: fc.constantFrom("type", "enter", "back", "section", "join", "setup", "head", "numbers", "divide", "delete"),
  leaf: fc.nat(30),
  setup,
})

test("layout from before equals layout from nothing, whatever is done to sections, columns, heads and numbers", () => {
  const plain = (layout: Layout) =>
    layout.placed.map((placed) => [
      placed.leaf,
      placed.sheet.start.left,
      placed.sheet.start.paper,
      fragmentsOf(placed).map(({ leaf, from, to, x, y, width }) => [leaf, from, to, x, y, width]),
    ])
  fc.assert(
    fc.property(fc.array(act, { maxLength: 10 }), (acts) => {
      let state = stateOf(prose(14))
      let layout = layoutDocument(typesetter(), state.doc)
      for (const { kind, leaf, setup: own } of acts) {
        state = at(state, leaf % leavesOf(state.doc).count)
        const { tr } = state
        const commands: Record<typeof kind, Command> = {
          type: editing.insertText(sentence),
          enter: editing.enter,
          back: editing.deleteBackward,
          section: startSection(own.begins, () => own),
          join: editing.joinSections,
          setup: changeSetup(() => own, leaf % 2 === 0 ? "here" : "all", "Paper"),
          head: writeEdge(leaf % 2 === 0 ? "head" : "foot", leaf % 3 === 0 ? "first" : "all", 0),
          numbers: placeNumbers({ edge: "foot", part: leaf % 3 === 0 ? "outer" : 1 }, "%1 of %2"),
          divide: editing.divideEdges(leaf % 2 === 0 ? "firstOwn" : "leftRight", leaf % 5 !== 0),
          delete: (_, dispatch) => {
            dispatch?.(tr.delete(tr.selection.$head.start(), tr.selection.$head.end()))
            return true
          },
        }
        commands[kind](state, (change) => (state = state.apply(settleStories(change))))
        checkDocument(state.doc)
        layout = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, layout)
        expect(plain(layout)).toEqual(plain(layoutDocument(typesetter(), state.doc)))
      }
    }),
    { numRuns: 60 },
  )
})

test("blank paragraphs that were made to reach a new sheet become the beginning of one", () => {
  const enters = Array.from({ length: 7 }, () => editing.enter)
  const state = after(at(stateOf([p("Tides"), p("rest")]), 0, 5), ...enters)
  expect(editing.blanksBefore(state)).toBe(6)
  const done = after(state, editing.blanksToBreak, editing.insertText("Timetable"))
  expect(leavesOf(done.doc).nodes.map((leaf) => leaf.textContent)).toEqual(["Tides", "Timetable", "rest"])
  expect(layoutOf(done.doc).placed.length).toBe(2)
  expect(editing.blanksBefore(done)).toBe(0)
  expect(editing.blanksToBreak(done)).toBe(false)
})
