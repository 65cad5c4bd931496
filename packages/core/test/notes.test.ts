/** Notes at the foot of sheets. */
import fc from "fast-check"
import { type EditorState, TextSelection } from "prosemirror-state"
import { defaultSetup, leavesOf, notesOf, p, storiesOf } from "../src/document"
import { checkDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import { changeSetup, insertNote, settleStories, type Command } from "../src/editing"
import { fragmentsOf, layoutDocument, shownText, type Layout } from "../src/layout"
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

const act = fc.record({
  kind: fc.constantFrom("note", "long", "type", "enter", "back", "write", "size", "columns", "cut"),
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
            (own) => ({ ...own, columns: { ...own.columns, count: 1 + (leaf % 2) } }),
            "all",
            "Columns",
          ),
          cut: (own, dispatch) => {
            const { $head } = own.selection
            dispatch?.(own.tr.delete($head.start(), $head.end()))
            return true
          },
        }
        commands[kind](state, (tr) => (state = state.apply(settleStories(tr))))
        checkDocument(state.doc)
        layout = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, layout)
        expect(plain(layout)).toEqual(plain(layoutDocument(typesetter(), state.doc)))
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
        // A note begins on the sheet of its mark, or is owed to the next where even one line leaves it no room.
        const begins = placed.sheet.notes.filter(({ stack }) => {
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
