/** Notes at the foot of sheets. */
import fc from "fast-check"
import { type EditorState, TextSelection } from "prosemirror-state"
import { defaultSetup, documentAttrs, leavesOf, noteMark, notesOf, p, storiesOf } from "../src/document"
import { checkDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import { changeSetup, insertNote, settleStories, type Command } from "../src/editing"
import { Composition, fragmentsOf, layoutDocument, shownText, type Layout, type LayoutSpec } from "../src/layout"
import { layoutOf, typesetter } from "../node/typesetting"
import { after, stateOf } from "./telling"

const small = { ...defaultSetup, width: 300, height: 300, margins: { top: 30, right: 30, bottom: 30, left: 30 } }
const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const begun = (n: number) =>
  after(
    stateOf(Array.from({ length: n }, (_, i) => p(`${i} ${sentence}`))),
    changeSetup(() => small, "all", "Paper"),
  )
const at = (state: EditorState, leaf: number, offset = 3) => {
  const leaves = leavesOf(state.doc)
  const pos = leaves.start(leaf) + Math.min(offset, leaves.node(leaf).content.size)
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos)))
}
const noted = (state: EditorState, leaf: number, text: string) =>
  after(at(state, leaf), insertNote, editing.insertText(text))
/** Sheet by sheet, what stands at its foot. */
const feet = (layout: Layout) =>
  layout.placed.map((placed) =>
    fragmentsOf(placed)
      .filter(({ part }) => part === "note")
      .map(
        ({ paragraph, from }) => `${from === 0 ? (paragraph.label?.text ?? "") : "…"} ${paragraph.text.slice(0, 12)}`,
      ),
  )

test("a note is numbered by the order of the marks, stands at the foot of the sheet of its mark, and goes with it", () => {
  let state = noted(noted(begun(8), 5, "Second"), 1, "First")
  expect(notesOf(state.doc).map(({ leaf, label }) => [leaf, label])).toEqual([
    [1, "1"],
    [5, "2"],
  ])
  const layout = layoutOf(state.doc)
  expect(feet(layout).flat()).toEqual(["1 First", "2 Second"])
  const marks = layout.placed.flatMap((placed) => fragmentsOf(placed)).filter(({ paragraph }) => paragraph.anchors)
  expect(marks.map(({ paragraph }) => shownText(paragraph).slice(0, 4))).toEqual(["1 T1", "5 T2"])
  for (const placed of layout.placed)
    for (const { part, y, leaf } of fragmentsOf(placed)) {
      if (part === "note") expect(y).toBeGreaterThan(150)
      expect(leaf).toBeLessThan(leavesOf(state.doc).count)
    }
  state = after(at(state, 1, 4), (own, dispatch) =>
    editing.deleteBackward(own, dispatch && ((tr) => dispatch(settleStories(tr)))),
  )
  expect([storiesOf(state.doc).size, notesOf(state.doc).map(({ label }) => label)]).toEqual([1, ["1"]])
})

test("one gets from the mark to the note and back; a note cannot hold a note", () => {
  const state = noted(begun(2), 1, "See the tide table")
  expect(editing.noteHere(state)?.label).toBe("1")
  expect(insertNote(state)).toBe(false)
  const back = after(state, editing.crossNote)
  expect([editing.markHere(back)?.label, leavesOf(back.doc).at(back.selection.head)]).toEqual(["1", 1])
  expect(after(back, editing.crossNote).selection.head).toBe(state.selection.head)
})

test("a note longer than three sheets goes on at the foot of each next one, and nothing of it is lost", () => {
  const state = noted(begun(3), 1, sentence.repeat(60))
  const layout = layoutOf(state.doc)
  expect(layout.placed.length).toBeGreaterThan(3)
  const lines = layout.placed.flatMap((placed) =>
    fragmentsOf(placed)
      .filter(({ part }) => part === "note")
      .flatMap(({ from, to }) => Array.from({ length: to - from }, (_, i) => from + i)),
  )
  expect(lines).toEqual(lines.map((_, i) => i))
  expect(lines.length).toBeGreaterThan(60)
  const body = layout.placed.flatMap((placed) => fragmentsOf(placed)).filter(({ part }) => part === "text")
  expect(new Set(body.map(({ leaf }) => leaf)).size).toBe(3)
})

test("of a note in letters higher than the sheet, or on a sheet without room, a line stands on each, and nothing hangs", () => {
  for (const kind of [insertNote, editing.insertEndnote])
    for (const size of [10, 70, 300, 1600])
      for (const height of [62, 100, 290]) {
        let state = after(at(begun(2), 1), kind, editing.insertText("Slack water"))
        const { $head } = state.selection
        state = after(
          state.apply(state.tr.setSelection(TextSelection.create(state.doc, $head.start(), $head.end()))),
          editing.setLetters("size", size),
          changeSetup(() => ({ ...small, height }), "all", "Paper"),
        )
        const composition = new Composition(typesetter(), state.doc, { mode: "sheets" })
        let sheets = 0
        while (!composition.step()) expect(++sheets).toBeLessThan(60)
        const lines = layoutOf(state.doc)
          .placed.flatMap((placed) => fragmentsOf(placed))
          .filter(({ part }) => part === "note")
          .map(({ from, to, paragraph }) => ({ from, to, all: paragraph.lines.length }))
        expect(lines.map(({ from }) => from)).toEqual([0, ...lines.slice(0, -1).map(({ to }) => to)])
        expect(lines.at(-1)!.to).toBe(lines[0]!.all)
      }
})

test("what stands round a note has room at the foot too, however high the sheet is", () => {
  const border = { width: 2, pattern: "solid", colour: "#7a1f4b", distance: 9 } as const
  const framed = after(noted(begun(4), 1, sentence.repeat(2)), editing.setBorder("around", border))
  for (let height = 200; height < small.height; height++) {
    const { doc } = after(
      framed,
      changeSetup((own) => ({ ...own, height }), "all", "Paper"),
    )
    const frames = layoutOf(doc)
      .placed.flatMap(fragmentsOf)
      .flatMap(({ part, frame }) => (part === "note" && frame ? [frame.box.y + frame.box.height] : []))
    expect(frames.length).toBeGreaterThan(0)
    expect(Math.max(...frames)).toBeLessThanOrEqual(height - small.margins.bottom + 0.01)
  }
})

test("endnotes stand below the end of the text, counted apart, and go on over sheets of their own", () => {
  let state = begun(4)
  for (const leaf of [3, 1])
    state = after(at(state, leaf), editing.insertEndnote, editing.insertText(`End ${leaf} ${sentence.repeat(12)}`))
  state = noted(state, 2, "Foot")
  expect(notesOf(state.doc).map(({ kind, label }) => [kind, label])).toEqual([
    ["endnote", "i"],
    ["note", "1"],
    ["endnote", "ii"],
  ])
  const layout = layoutOf(state.doc)
  expect(layout.placed.length).toBe(3)
  const found = feet(layout)
  expect(found.at(-1)).toEqual(["… End 3 The ch"])
  expect(found.flat().filter((own) => !own.startsWith("…"))).toEqual(["i End 1 The ch", "1 Foot", "ii End 3 The ch"])
  // A footnote stands at the foot, an endnote behind the text.
  const text = layout.placed
    .flatMap(fragmentsOf)
    .filter(({ part }) => part === "text")
    .at(-1)!
  const first = fragmentsOf(layout.placed.find(({ sheet }) => sheet.notes.length > 0)!).find(
    ({ part }) => part === "note",
  )!
  expect(first.y).toBeGreaterThan(text.y)
  const turned = after(at(state, 1, 4), editing.turnNote)
  expect(notesOf(turned.doc).map(({ kind, label }) => [kind, label])[0]).toEqual(["note", "1"])
})

test("footnotes are counted anew in each section or on each sheet, in figures or in signs", () => {
  let state = begun(30)
  for (const leaf of [28, 27, 12, 2, 1]) state = noted(state, leaf, "Note")
  state = after(
    at(state, 10, 0),
    editing.startSection("sheet", (own) => own),
  )
  const shown = (restart: "document" | "section" | "sheet", form: "decimal" | "signs" = "decimal") => {
    const layout = layoutOf(after(state, editing.changeNotes("foot", { restart, form })).doc)
    return layout.placed
      .flatMap((placed) =>
        fragmentsOf(placed).flatMap(({ part, paragraph, from }) =>
          part === "note" && from === 0 ? paragraph.label!.text : [],
        ),
      )
      .join(" ")
  }
  expect(shown("document", "signs")).toBe("* † ‡ § **")
  expect(shown("section")).toBe("1 2 1 2 3")
  expect(shown("sheet")).toBe("1 2 1 1 2")
})

const narrow: LayoutSpec = { mode: "flow", width: 240, margin: 12 }

test("in flow all notes stand below the end of the text, in the order of their marks", () => {
  const state = after(noted(noted(begun(40), 5, "Second"), 1, "First"), editing.turnNote)
  const flow = layoutDocument(typesetter(), state.doc, narrow)
  expect(flow.placed.length).toBeGreaterThan(1)
  expect(flow.placed.map(({ sheet }) => sheet.notes.length)).toEqual(
    flow.placed.map((_, i) => (i === flow.placed.length - 1 ? 2 : 0)),
  )
  const last = flow.placed.at(-1)!.sheet
  expect(last.notes[0]!.stack.y).toBeGreaterThan(last.columns[0]!.box.height)
  expect(last.height).toBeGreaterThan(last.notes[1]!.stack.y)
})

const act = fc.record({
  kind: fc.constantFrom(
    "note",
    "long",
    "type",
    "enter",
    "back",
    "write",
    "size",
    "columns",
    "cut",
    "end",
    "turn",
    "number",
    "section",
  ),
  leaf: fc.nat(40),
  offset: fc.nat(90),
})

test("whatever is done: notes stand on the sheet of their mark, every line once, none over another; and layout from before equals layout from nothing", () => {
  const plain = (layout: Layout) =>
    layout.placed.map(({ sheet, leaf }) => [
      leaf,
      sheet.start.owed,
      sheet.notes.map(({ story, stack }) => [story, stack.y, stack.leaf]),
      fragmentsOf({ sheet, leaf }).map(({ from, to, x, y, width, leaf: own }) => [own, from, to, x, y, width]),
    ])
  fc.assert(
    fc.property(fc.array(act, { maxLength: 9 }), (acts) => {
      let state = begun(12)
      let layout = layoutDocument(typesetter(), state.doc)
      let flow = layoutDocument(typesetter(), state.doc, narrow)
      for (const { kind, leaf, offset } of acts) {
        state = at(state, leaf % leavesOf(state.doc).count, offset)
        const notes = [...storiesOf(state.doc).values()]
        const note = notes[leaf % Math.max(1, notes.length)]
        if (kind === "write" && note)
          state = state.apply(state.tr.setSelection(TextSelection.near(state.doc.resolve(note.pos + 2))))
        const long: Command = (own, dispatch) =>
          insertNote(own, dispatch && ((tr) => dispatch(tr.insertText(sentence.repeat(1 + (offset % 9))))))
        const commands: Record<typeof kind, Command> = {
          note: insertNote,
          long,
          type: editing.insertText(sentence),
          enter: editing.enter,
          back: editing.deleteBackward,
          write: editing.insertText(sentence.repeat(3)),
          size: changeSetup((own) => ({ ...own, height: 220 + offset * 3 }), "all", "Paper"),
          columns: changeSetup(
            (own) => ({
              ...own,
              columns: {
                ...own.columns,
                count: 1 + (leaf % 2),
                shares: offset % 2 === 0 ? [1 + offset / 40, 1] : null,
              },
            }),
            "all",
            "Columns",
          ),
          cut: (own, dispatch) => {
            const { $head } = own.selection
            dispatch?.(own.tr.delete($head.start(), $head.end()))
            return true
          },
          end: editing.insertEndnote,
          turn: editing.turnNote,
          number: editing.changeNotes("foot", {
            form: leaf % 2 === 0 ? "signs" : "decimal",
            restart: (["document", "section", "sheet"] as const)[offset % 3]!,
          }),
          section: editing.startSection("sheet", (own) => own),
        }
        commands[kind](state, (tr) => (state = state.apply(settleStories(tr))))
        checkDocument(state.doc)
        layout = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, layout)
        flow = layoutDocument(typesetter(), state.doc, narrow, flow)
        expect(plain(flow)).toEqual(plain(layoutDocument(typesetter(), state.doc, narrow)))
        const anew = layoutDocument(typesetter(), state.doc)
        expect(plain(layout)).toEqual(plain(anew))
        expect([...layout.marks]).toEqual([...anew.marks])
      }
      const whole = layoutOf(state.doc)
      const seen = new Map<number, number>()
      whole.placed.forEach((placed) => {
        const parts = fragmentsOf(placed)
        for (const { leaf, from, to } of parts) {
          expect(seen.get(leaf) ?? 0).toBe(from)
          seen.set(leaf, to)
        }
        const bottom = Math.max(
          0,
          ...parts
            .filter(({ part }) => part === "text")
            .map(({ y, paragraph, from, to }) => {
              const [first, last] = [paragraph.lines[from]!, paragraph.lines[to - 1]!]
              return y + last.top + last.height - first.top
            }),
        )
        const top = Math.min(Infinity, ...parts.filter(({ part }) => part === "note").map(({ y }) => y))
        expect(bottom).toBeLessThanOrEqual(top + 0.01)
        if (documentAttrs(state.doc).notes.foot.restart === "sheet")
          expect(placed.sheet.marks.map((key) => whole.marks.get(key))).toEqual(
            placed.sheet.marks.map((_, i) => noteMark(i + 1, documentAttrs(state.doc).notes.foot.form)),
          )
        // A note begins on the sheet of its mark, or is owed to the next where even one line leaves it no room.
        const begins = placed.sheet.notes.filter(({ stack, story }) => {
          if (storiesOf(state.doc).get(story)?.node.attrs.kind === "endnote") return false
          const first = stack.box.inside[0]?.box
          return first?.kind === "lines" && first.from === 0 && stack.leaf === 0
        })
        const marks = parts.flatMap(({ paragraph, from, to }) =>
          (paragraph.anchors ?? [])
            .filter(({ offset }) => offset >= paragraph.lines[from]!.from && offset < paragraph.lines[to - 1]!.to)
            .map(({ key }) => key),
        )
        const owed = placed.sheet.start.owed.map(({ story }) => story)
        for (const { story } of begins) expect([...marks, ...owed]).toContain(story)
      })
      const notes = notesOf(state.doc).length
      expect(seen.size).toBe(leavesOf(state.doc).count)
      expect(notes).toBe(storiesOf(state.doc).size)
    }),
    { numRuns: 80 },
  )
})
