import fc from "fast-check"
import { Fragment, Slice } from "prosemirror-model"
import { type EditorState, TextSelection } from "prosemirror-state"
import {
  document,
  fitSetup,
  leavesOf,
  limits,
  nodes,
  p,
  storiesOf,
  table,
  textOf,
  withoutOrphans,
} from "../src/document"
import { checkDocument, readDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import {
  editHistory,
  heldInPart,
  insertStory,
  partAt,
  selectedSlice,
  settleStories,
  type Command,
} from "../src/editing"
import { after, stateOf } from "./telling"

/** A state after a command, as the desk applies it. */
function acted(state: EditorState, command: Command): EditorState {
  command(state, (tr) => (state = state.apply(settleStories(tr))))
  return state
}
const caret = (state: EditorState, pos: number, head = pos) =>
  state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos, head)))
const noted = () =>
  acted(
    caret(stateOf([p("The ferry runs."), p("At low water it does not.")], [0, 0], [0, 0], [editHistory()]), 9),
    insertStory("note", [p("By chain.")]),
  )
const anchors = (state: EditorState) => {
  const keys: string[] = []
  state.doc.descendants((node) => void (node.type.name === "anchor" && keys.push(node.attrs.story as string)))
  return keys
}

describe("a story and its anchor", () => {
  test("come together, with the caret in the story, and go together in one undo", () => {
    const state = noted()
    expect(leavesOf(state.doc).nodes.map(textOf)).toEqual([
      "The fer\ufffcry runs.",
      "At low water it does not.",
      "By chain.",
    ])
    expect([...storiesOf(state.doc).keys()]).toEqual(anchors(state))
    expect(leavesOf(state.doc).at(state.selection.head)).toBe(2)
    const undone = acted(state, editing.undo)
    expect([undone.doc.childCount, anchors(undone)]).toEqual([1, []])
    expect(acted(undone, editing.redo).doc.eq(state.doc)).toBe(true)
  })

  test("stay together where a copy is put before them, so that what made them can be taken back alone", () => {
    const typed = acted(caret(noted(), 2), editing.insertText("tide"))
    const copied = acted(caret(typed, 2), editing.pasteSlice(selectedSlice(acted(typed, editing.selectAll))))
    expect(anchors(copied)[1]).toBe(anchors(typed)[0])
    const back = acted(copied, editing.takeBack(editing.changes(copied).done.at(-1)?.id ?? -1))
    expect(anchors(back)).toEqual([anchors(copied)[0]])
    expect([...storiesOf(back.doc).keys()]).toEqual(anchors(back))
  })

  test("go together when the text around the anchor goes, and come back together", () => {
    const state = noted()
    const cut = acted(caret(state, 3, 14), editing.deleteSelection)
    expect([cut.doc.childCount, anchors(cut)]).toEqual([1, []])
    expect(acted(cut, editing.undo).doc.eq(state.doc)).toBe(true)
  })

  test("are copied together, under a new key", () => {
    const state = noted()
    const slice = selectedSlice(caret(state, 2, 14))
    const twice = acted(caret(state, leavesOf(state.doc).end(1)), editing.pasteSlice(slice))
    expect(new Set(anchors(twice)).size).toBe(2)
    expect([...storiesOf(twice.doc).keys()].sort()).toEqual([...anchors(twice)].sort())
    expect([...storiesOf(twice.doc).values()].map(({ node }) => node.textContent)).toEqual(["By chain.", "By chain."])
  })

  test("go along to another document", () => {
    const state = noted()
    const slice = selectedSlice(caret(state, 2, 14))
    const brought = editing.broughtBy(slice, state.doc)
    const other = acted(
      stateOf([p("Here: ")], [0, 6]),
      editing.pasteSlice(slice, "Pasted", JSON.parse(JSON.stringify(brought))),
    )
    expect([...storiesOf(other.doc).values()].map(({ node }) => node.textContent)).toEqual(["By chain."])
    expect(anchors(other)).toEqual([...storiesOf(other.doc).keys()])
  })
})

test("movement, selecting all and joining stay in the text that the caret is in", () => {
  const state = noted()
  const leaves = leavesOf(state.doc)
  const [bodyEnd, noteStart] = [leaves.end(1), leaves.start(2)]
  expect(editing.moveHorizontally(state, bodyEnd, 1, "character")).toBe(bodyEnd)
  expect(editing.moveHorizontally(state, noteStart, -1, "word")).toBe(noteStart)
  expect(editing.deleteForward(caret(state, bodyEnd))).toBe(false)
  expect(editing.deleteBackward(caret(state, noteStart))).toBe(false)
  expect(editing.selectedText(after(caret(state, 4), editing.selectAll))).toBe(
    "The ferry runs.\nAt low water it does not.",
  )
  expect(editing.selectedText(after(caret(state, noteStart), editing.selectAll))).toBe("By chain.")
  expect([heldInPart(state.doc, 4, noteStart + 2), heldInPart(state.doc, noteStart, 3)]).toEqual([bodyEnd, noteStart])
  expect([editing.documentEdge(caret(state, 4), 1), editing.documentEdge(caret(state, noteStart), -1)]).toEqual([
    bodyEnd,
    noteStart,
  ])
})

const closed = new Slice(Fragment.from([p("Ebb"), p("Flow")]), 0, 0)

test("behind whole paragraphs that are pasted at the end of a text the caret stays in it", () => {
  const pasted = editing.pasteSlice(closed)
  const state = noted()
  const leaves = leavesOf(state.doc)
  const cells = stateOf([table([[[p("a")], [p("b")]]]), p("behind")], [0, 1])
  const anchored = insertStory("note")
  for (const own of [
    caret(state, leaves.end(1)),
    caret(state, leaves.start(1), leaves.end(1)),
    after(caret(state, leaves.start(1)), editing.selectAll),
    caret(state, leaves.end(2)),
    cells,
    acted(caret(cells, leavesOf(cells.doc).end(2)), anchored),
  ]) {
    const { selection, doc } = acted(own, pasted)
    const leaf = leavesOf(doc).at(selection.head)
    expect([textOf(leavesOf(doc).node(leaf)), selection.head]).toEqual(["Flow", leavesOf(doc).end(leaf)])
  }
})

test("a document from outside loses stories without an anchor, and anchors without a story or with one that another has", () => {
  const anchor = (story: string) => nodes.anchor.create({ story })
  const story = (key: string, kind: string, ...inside: Parameters<typeof p>) =>
    nodes.story.create({ key, kind }, p(...inside))
  const doc = document(
    [p("a", anchor("one"), anchor("one"), anchor("none"), anchor("top")), table([[[p("b", anchor("two"))]]])],
    {},
    [
      story("one", "note", "1"),
      story("two", "note", "2", anchor("three")),
      story("three", "note", "3"),
      story("lost", "note", "x", anchor("lost2")),
      story("lost2", "note", "y"),
      story("one", "note", "again"),
      story("top", "header", "Saltmarsh Ferry Trust"),
    ],
  )
  const whole = withoutOrphans(checkDocument(doc))
  expect(whole.children.slice(1).map((node) => node.textContent)).toEqual(["1", "2", "Saltmarsh Ferry Trust"])
  expect(leavesOf(whole).nodes.slice(0, 2).map(textOf)).toEqual(["a\ufffc", "b\ufffc"])
  expect(withoutOrphans(whole)).toBe(whole)
})

const act = fc.record({
  kind: fc.constantFrom(
    "type",
    "delete",
    "back",
    "forward",
    "note",
    "copy",
    "paste",
    "drag",
    "enter",
    "undo",
    "redo",
    "takeBack",
    "all",
  ),
  from: fc.nat(80),
  to: fc.nat(80),
})

const storyOf = ({ doc, selection }: EditorState) => leavesOf(doc).flow(leavesOf(doc).at(selection.head)).story

test("whatever is done, every anchor has its story, every story its anchor, and a selection stays in one text, that in which one writes", () => {
  fc.assert(
    fc.property(fc.array(act, { maxLength: 20 }), (acts) => {
      let state = noted()
      for (const { kind, from, to } of acts) {
        const leaves = leavesOf(state.doc)
        const place = (n: number) =>
          leaves.start(n % leaves.count) + (n % (leaves.node(n % leaves.count).content.size + 1))
        const collapsed = ["type", "note", "enter", "copy"].includes(kind)
        const anchor = place(from)
        state = state.apply(
          state.tr.setSelection(editing.selectionBetween(state.doc, anchor, collapsed ? anchor : place(to))),
        )
        const whole = selectedSlice(acted(state, editing.selectAll))
        const story = storyOf(state)
        const command: Command = {
          type: editing.insertText("tide"),
          delete: editing.deleteSelection,
          back: editing.deleteBackward,
          forward: editing.deleteWordForward,
          note: insertStory("note"),
          copy: editing.pasteSlice(whole),
          paste: editing.pasteSlice(closed),
          drag: editing.dragSelection(place(to + from), to % 2 === 0),
          enter: editing.enter,
          undo: editing.undo,
          redo: editing.redo,
          takeBack: editing.takeBack(editing.changes(state).done[to % 3]?.id ?? -1),
          all: editing.selectAll,
        }[kind]
        // What would grow without end is copied only while it is small.
        if (kind === "copy" && state.doc.content.size > 1500) continue
        state = acted(state, command)
        if (["type", "delete", "back", "forward", "copy", "paste", "enter"].includes(kind))
          expect([kind, storyOf(state)]).toEqual([kind, story])
        const { anchor: a, head: h } = state.selection
        const part = partAt(state.doc, a)
        expect([h >= part.from && h <= part.to, withoutOrphans(state.doc) === state.doc]).toEqual([true, true])
        expect([...anchors(state)].sort()).toEqual([...storiesOf(state.doc).keys()].sort())
      }
      expect(readDocument(state.doc.toJSON()).eq(state.doc)).toBe(true)
    }),
    { numRuns: 150 },
  )
})

test("the heads of the widest and the narrowest sheets can be written", () => {
  for (const width of [limits.paper[0], 4000, limits.paper[1]]) {
    const wide = acted(
      stateOf([p("Tides")], [0, 0]),
      editing.changeSetup((setup) => fitSetup({ ...setup, width }), "all", "Paper"),
    )
    const { doc } = acted(wide, editing.writeEdge("head", "all", 0))
    checkDocument(doc)
    expect(storiesOf(doc).size).toBe(1)
  }
})
