import fc from "fast-check"
import { collab, receiveTransaction, sendableSteps } from "prosemirror-collab"
import { EditorState, Selection, TextSelection } from "prosemirror-state"
import { commonEnd, commonStart, document, p } from "../src/document"
import {
  changes,
  deleteBackward,
  editHistory,
  insertText,
  joining,
  redo,
  redoUpTo,
  setParagraphs,
  setStyle,
  splitParagraph,
  takeBack,
  toggleBold,
  touchedBy,
  undo,
  undoBackTo,
  whyNot,
  type Command,
} from "../src/editing"
import { Grown, Mirrors } from "../src/editing/growing"
import { after, stateOf, texts, told } from "./telling"

const start = (...blocks: string[]) =>
  stateOf(
    blocks.map((text) => p(text)),
    [0, 0],
    [0, 0],
    [editHistory()],
  )
const at =
  (block: number, from: number, to = from): Command =>
  (state, dispatch) => {
    let pos = 1
    for (let i = 0; i < block; i++) pos += state.doc.child(0).child(i).nodeSize
    dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, pos + 1 + from, pos + 1 + to)))
    return true
  }
const typed =
  (text: string): Command =>
  (state, dispatch) =>
    insertText(text)(state, dispatch && ((tr) => dispatch(joining(tr, "typed"))))
const names = (state: EditorState) => changes(state).done.map((change) => change.name)
const idOf = (state: EditorState, name: string) => changes(state).done.find((change) => change.name.includes(name))!.id

test("what was done is named in words, newest first; typing joins into one", () => {
  const state = after(
    start("The harbour"),
    at(0, 11),
    ..."​ lies still".split("").map(typed),
    splitParagraph,
    at(0, 0, 11),
    toggleBold,
    setStyle("heading1"),
    setParagraphs({ align: "center" }),
    deleteBackward,
  )
  expect(names(state)).toEqual([
    "Deleted “The harbour”",
    "Centred",
    "Heading 1",
    "Bold on 2 words",
    "New paragraph",
    "Typed “​ lies still”",
  ])
})

test("undo brings back the selection of before, redo what was done", () => {
  const done = after(start("The chain ferry"), at(0, 4, 9), typed("rope"))
  expect(told(after(done, undo))).toBe("The [chain] ferry")
  expect(told(after(done, undo, redo))).toBe("The rope| ferry")
})

test("one goes back several at once, and forward again", () => {
  const done = after(start(""), typed("a"), splitParagraph, typed("b"), splitParagraph, typed("c"))
  const back = after(done, undoBackTo(idOf(done, "“b”")))
  expect(texts(back.doc)).toEqual(["a", ""])
  const { undone } = changes(back)
  expect(texts(after(back, redoUpTo(undone[1]!.id)).doc)).toEqual(["a", "b", ""])
  expect(texts(after(back, redoUpTo(undone.at(-1)!.id)).doc)).toEqual(["a", "b", "c"])
})

test("one earlier change is taken back alone; that can be undone too", () => {
  const done = after(
    start("The ferry", "The chain"),
    at(0, 4),
    typed("old "),
    at(1, 4),
    typed("heavy "),
    at(0, 0, 3),
    toggleBold,
  )
  const taken = after(done, takeBack(idOf(done, "“old")))
  expect(texts(taken.doc)).toEqual(["The ferry", "The heavy chain"])
  expect(names(taken)[0]).toBe("Took back: Typed “old”")
  expect(after(taken, undo).doc.eq(done.doc)).toBe(true)
})

test("what was changed or deleted since says why it cannot be taken back", () => {
  const done = after(start("The ferry"), at(0, 4), typed("old "), at(0, 0, 13), deleteBackward)
  const id = idOf(done, "Typed")
  expect(whyNot(done, id)).toContain("changed or deleted since")
  expect(takeBack(id)(done)).toBe(false)
  const twice = after(start("a"), at(0, 1), typed("b"))
  const taken = after(twice, takeBack(idOf(twice, "Typed")))
  expect(whyNot(taken, changes(taken).done[1]!.id)).toContain("already")
  expect(whyNot(taken, -1)).toContain("not in the list")
})

test("the places that a change touched are known, wherever they have moved", () => {
  const done = after(start("The ferry"), at(0, 4), typed("old "), at(0, 0), typed("See: "))
  expect(touchedBy(done, idOf(done, "“old")).map(({ from, to }) => done.doc.textBetween(from, to))).toEqual(["old "])
})

const commands: Command[] = [
  typed("ab"),
  typed("ferry "),
  splitParagraph,
  deleteBackward,
  toggleBold,
  setStyle("heading1"),
  setParagraphs({ align: "right" }),
]
const acts = fc.array(fc.record({ command: fc.nat(commands.length - 1), from: fc.nat(60), length: fc.nat(4) }), {
  minLength: 1,
  maxLength: 14,
})
const place = (state: EditorState, pos: number) =>
  Selection.near(
    state.doc.resolve(Math.min(2 + (pos % Math.max(1, state.doc.content.size - 2)), state.doc.content.size)),
  ).head

/** Does things at chosen places; each one is a change of its own. */
function perform(state: EditorState, list: { command: number; from: number; length: number }[]): EditorState {
  for (const { command, from, length } of list) {
    state = state.apply(
      state.tr.setSelection(
        TextSelection.between(state.doc.resolve(place(state, from)), state.doc.resolve(place(state, from + length))),
      ),
    )
    commands[command]!(state, (tr) => (state = state.apply(tr)))
  }
  return state
}

test("taking back any change and undoing that gives the same document", () => {
  fc.assert(
    fc.property(acts, fc.nat(), (list, pick) => {
      const state = perform(start("The chain lies", "on the bed."), list)
      const { done } = changes(state)
      if (done.length === 0) return
      const { id } = done[pick % done.length]!
      if (whyNot(state, id) !== null) return
      const taken = after(state, takeBack(id))
      expect(after(taken, undo).doc.eq(state.doc)).toBe(true)
      expect(after(taken, undo, redo).doc.eq(taken.doc)).toBe(true)
    }),
    { numRuns: 300 },
  )
})

test("taking back two changes in different paragraphs gives the same in either order", () => {
  fc.assert(
    fc.property(fc.nat(4), fc.nat(4), fc.nat(10), (a, b, pos) => {
      const safe: Command[] = [
        typed("ab"),
        typed("x"),
        toggleBold,
        setStyle("heading1"),
        setParagraphs({ align: "right" }),
      ]
      let state = start("The chain lies", "on the bed.")
      state = after(state, at(0, pos, pos + 3), safe[a]!, at(1, pos, pos + 1), safe[b]!)
      const [second, first] = changes(state).done.map((c) => c.id)
      const one = after(state, takeBack(first!), takeBack(second!))
      const two = after(state, takeBack(second!), takeBack(first!))
      expect(one.doc.eq(two.doc)).toBe(true)
      expect(texts(one.doc)).toEqual(["The chain lies", "on the bed."])
    }),
    { numRuns: 150 },
  )
})

test("with another person's changes between, undoing everything leaves just theirs", () => {
  fc.assert(
    fc.property(fc.array(acts, { maxLength: 4 }), fc.boolean(), (rounds, confirmed) => {
      let state = EditorState.create({
        doc: document([p("The chain lies"), p("on the bed.")]),
        plugins: [collab({ version: 0, clientID: "me" }), editHistory()],
      })
      // What the server has: without the changes made here that it did not confirm.
      let theirs = state.doc
      for (const mine of rounds) {
        state = perform(
          state,
          mine.map(({ command, from, length }) => ({ command: command % 2, from: from % 9, length })),
        )
        const own = sendableSteps(state)
        if (own && confirmed) {
          theirs = state.doc
          state = state.apply(
            receiveTransaction(
              state,
              own.steps,
              own.steps.map(() => "me"),
            ),
          )
        }
        const { tr } = EditorState.create({ doc: theirs })
        tr.insertText("*", Selection.atEnd(theirs).head)
        theirs = tr.doc
        state = state.apply(
          receiveTransaction(
            state,
            tr.steps,
            tr.steps.map(() => "them"),
          ),
        )
      }
      while (undo(state, (tr) => (state = state.apply(tr))));
      expect(texts(state.doc)).toEqual(["The chain lies", `on the bed.${"*".repeat(rounds.length)}`])
    }),
    { numRuns: 150 },
  )
})

test("a log that has grown long costs a letter no more than a short one: versions share what they have in common", () => {
  let list = Grown.empty as Grown<number>
  for (let i = 0; i < 1000; i++) list = list.with([i])
  const [one, two] = [list.with([-1]), list.with([-2, -3])]
  expect([one.length, one.at(1000), two.at(1000), two.slice(999), list.at(1000)]).toEqual([
    1001,
    -1,
    -2,
    [999, -2, -3],
    undefined,
  ])
  const mirrors = Mirrors.none.with([[3, 7]], 8)
  const [left, right] = [mirrors.with([[4, 9]], 10), mirrors.with([[4, 8]], 9)]
  expect([mirrors.get(3), mirrors.get(4), left.get(4), right.get(4), left.with([[4, 11]], 12).get(4)]).toEqual([
    7,
    undefined,
    9,
    8,
    9,
  ])
})

test("what two texts share at their ends, however long they are", () => {
  const part = fc
    .tuple(fc.constantFrom("tide ", "a", "chain"), fc.nat(900))
    .map(([words, times]) => words.repeat(times))
  fc.assert(
    fc.property(part, fc.string({ maxLength: 3 }), fc.string({ maxLength: 3 }), part, (before, one, other, behind) => {
      const [a, b] = [before + one + behind, before + other + behind]
      const [start, end] = [commonStart(a, b), commonEnd(a, b)]
      expect([a.slice(0, start), a.slice(a.length - end)]).toEqual([b.slice(0, start), b.slice(b.length - end)])
      const most = Math.min(a.length, b.length)
      expect(start === most || a[start] !== b[start]).toBe(true)
      expect(end === most || a[a.length - 1 - end] !== b[b.length - 1 - end]).toBe(true)
    }),
  )
})
