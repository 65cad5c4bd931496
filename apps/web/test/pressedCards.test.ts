/** What a press on a mark means: with a mouse the text and its card, with a finger first the card alone. */
import "./browser"
import { EditorState, TextSelection, type Transaction } from "prosemirror-state"
import { document, leavesOf, nodes, p, paragraph } from "@biblon/core/document"
import { removeBreak } from "@biblon/core/editing"
import { Editing } from "../src/desk/editing"
import { PressedCards, type PressedCardsTarget } from "../src/desk/pressedCards"
import { Pressing } from "../src/desk/pressing"
import { createDeskStore } from "../src/desk/store"
import { SeenText } from "../src/desk/view/seenText"
import type { SheetView } from "../src/desk/view/sheetView"

/** A desk with a line of text, each letter a pixel wide; letters 4 to 9 are a wrong word, 12 to 30 a remark, and a field stands at 40. */
function desk(touch: boolean) {
  const field = nodes.field.create({ kind: "page", format: "" })
  const doc = document([p(`${"x".repeat(40)}`, field, " end")])
  const start = leavesOf(doc).start(0)
  const store = createDeskStore({ mode: "flow", scale: 1 })
  store.setState({ touch })
  const focused = jest.fn()
  const seen = new SeenText(() => editing.open)
  let seq = 0
  const editing = new Editing({
    changing: () => {},
    changed: (change) => {
      if (change.steps.length > 0) seen.changed(++seq, change.before.doc, change.steps)
      pressing.follow(change)
    },
    made: () => {},
    turned: () => {},
  })
  editing.begin(EditorState.create({ doc, selection: TextSelection.create(doc, start) }))
  const box = { x: 0, y: 0, width: 0, height: 20 }
  const word = { word: "feery", dictionary: "en-gb" as const, from: 4, to: 9, start: start + 4, end: start + 9 }
  const remark = { kind: "grammar", words: "have went", start: start + 12, end: start + 30 }
  const among = (own: { start: number; end: number }, pos: number) => own.start <= pos && pos <= own.end
  const target = {
    seen,
    wrongWord: (pos: number) => (among(word, pos) ? word : null),
    remark: (pos: number) => (among(remark, pos) ? remark : null),
  }
  const view = {
    canvas: { getBoundingClientRect: () => ({ left: 0, top: 0 }) },
    onCanvas: (x: number, y: number) => [x, y],
    pressed: (x: number) => ({ pos: start + x, bias: 1 }),
    // Beside the last letter of the line is the blank.
    covers: (from: number, to: number, x: number, y: number) => y < 20 && start + x >= from && start + x <= to,
    places: { box: () => box, shownAt: () => "1", writeOn: () => {} },
    spots: { fieldAt: (x: number) => (x === 40 ? { pos: start + 40, sheet: 0, box } : null) },
  }
  const pressing = new Pressing(store, {
    run: () => false,
    focus: focused,
    shownAt: () => "1",
    isSaid: () => true,
  })
  const cards = new PressedCards(
    editing,
    store,
    () => view as unknown as SheetView,
    target as unknown as PressedCardsTarget,
  )
  const caretAt = (x: number) => editing.select(start + x, { pos: start + x, bias: 1 })
  const shown = () => {
    const { pressed } = store.getState()
    return pressed && `${pressed.kind} ${pressed.words}`
  }
  return {
    store,
    editing,
    pressing,
    focused,
    shown,
    caret: () => editing.head.pos - start,
    /** A press of the mouse, or a tap, as the surface hands it on. */
    press(x: number, y = 10) {
      if (touch && cards.tap(x, y)) return
      store.setState({ writing: true })
      caretAt(x)
      cards.text(x, y)
    },
    cards,
    seen,
  }
}

test("with a mouse a press brings the caret and the card; a press elsewhere puts it away", () => {
  const own = desk(false)
  own.press(6)
  expect([own.caret(), own.shown()]).toEqual([6, "word feery"])
  own.press(20)
  expect([own.caret(), own.shown()]).toEqual([20, "remark have went"])
  own.press(40)
  expect([own.caret(), own.shown()]).toEqual([40, "field 1"])
  own.press(2)
  expect([own.caret(), own.shown()]).toEqual([2, null])
})

test("a finger on a mark has its card and leaves the caret; the second tap means the text", () => {
  const own = desk(true)
  own.press(6)
  expect([own.caret(), own.shown(), own.store.getState().writing]).toEqual([0, "word feery", false])
  own.press(20)
  expect([own.caret(), own.shown()]).toEqual([0, "remark have went"])
  own.press(21)
  expect([own.caret(), own.shown(), own.store.getState().writing]).toEqual([21, null, true])
  own.press(22)
  expect([own.caret(), own.shown()]).toEqual([21, "remark have went"])
})

test("beside a card that a tap brought, a tap puts it away; where one writes, it means the text too", () => {
  const own = desk(true)
  own.press(6)
  own.press(2)
  expect([own.caret(), own.shown()]).toEqual([0, null])
  own.press(2)
  expect(own.caret()).toBe(2)
  own.press(6)
  expect([own.caret(), own.shown()]).toEqual([2, "word feery"])
  own.press(1)
  expect([own.caret(), own.shown()]).toEqual([1, null])
})

test("a tap beside the letters of a mark means the text, although the nearest place is in it", () => {
  const own = desk(true)
  own.press(9, 40)
  expect([own.caret(), own.shown()]).toEqual([9, null])
  own.press(40)
  expect([own.caret(), own.shown()]).toEqual([40, "field 1"])
})

test("while a look is laid on what is tapped, a tap on a mark means the text", () => {
  const own = desk(true)
  own.store.setState({ laying: { look: { letters: {}, paragraph: null } as never, part: "both", many: true } })
  own.press(6)
  expect([own.caret(), own.shown()]).toEqual([6, null])
})

test("what was pressed is dealt with: who wrote goes on writing, who only read has no keyboard", () => {
  const own = desk(true)
  own.press(6)
  own.pressing.end()
  expect([own.shown(), own.focused.mock.calls.length]).toEqual([null, 0])
  own.press(2)
  own.press(6)
  own.pressing.end()
  expect([own.shown(), own.focused.mock.calls.length]).toEqual([null, 1])
  const mouse = desk(false)
  mouse.press(6)
  mouse.pressing.end()
  expect(mouse.focused).toHaveBeenCalledTimes(1)
})

test("what others write moves the card along; what is done here, or takes away what was pressed, puts it away", () => {
  const own = desk(false)
  const { editing } = own
  const others = (change: (tr: Transaction) => Transaction) => editing.apply(change(editing.open.tr))
  for (const [x, kind] of [
    [6, "word"],
    [40, "field"],
  ] as const) {
    own.press(x)
    const { pos } = own.store.getState().pressed!
    others((tr) => tr.insertText("Ebb ", pos))
    expect([own.store.getState().pressed?.kind, own.store.getState().pressed?.pos]).toEqual([kind, pos + 4])
    others((tr) => tr.delete(pos, pos + 4))
  }
  others((tr) => tr.delete(1, tr.doc.content.size - 1))
  expect(own.shown()).toBeNull()
  const here = desk(false)
  here.press(6)
  here.editing.dispatch(here.editing.open.tr.insertText("e"))
  expect(here.shown()).toBeNull()
})

test("a card of where something begins stays while others write, as long as it begins there", () => {
  const own = desk(false)
  const { editing } = own
  editing.apply(
    editing.open.tr.insert(editing.open.doc.child(0).nodeSize - 1, paragraph("body", ["next"], { breakBefore: true })),
  )
  const pos = leavesOf(editing.open.doc).before(1)
  own.store.setState({ pressed: { kind: "break", pos, words: "New sheet", box: { x: 0, y: 0, width: 9, height: 9 } } })
  editing.apply(editing.open.tr.insertText("Ebb ", leavesOf(editing.open.doc).start(0)))
  expect(own.store.getState().pressed?.pos).toBe(pos + 4)
  removeBreak(pos + 4)(editing.open, (tr) => editing.apply(tr))
  expect(own.shown()).toBeNull()
})

test("the sign of a break that is pressed while the sheets are behind is that of the same break by now, or of none", () => {
  const own = desk(false)
  const { editing } = own
  const block = paragraph("body", ["next"], { breakBefore: true })
  editing.apply(editing.open.tr.insert(editing.open.doc.child(0).nodeSize - 1, block))
  own.seen.shows(1)
  const pos = leavesOf(editing.open.doc).before(1)
  const sign = {
    dataset: { pos: String(pos) },
    textContent: "New sheet",
    getBoundingClientRect: () => ({ left: 0, top: 20, width: 9, height: 9 }),
  } as unknown as HTMLElement
  editing.apply(editing.open.tr.insertText("Ebb ", leavesOf(editing.open.doc).start(0)))
  own.cards.break(sign)
  expect([own.shown(), own.store.getState().pressed?.pos]).toEqual(["break New sheet", pos + 4])
  own.pressing.putAway()
  removeBreak(pos + 4)(editing.open, (tr) => editing.apply(tr))
  own.cards.break(sign)
  expect(own.shown()).toBeNull()
})
