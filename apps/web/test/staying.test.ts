/** What is being read stays in sight, and what is gone to comes there: over a model of sheets whose heights can be changed. */
import fc from "fast-check"
import { document, leavesOf, p } from "@biblon/core/document"
import { EditorState, TextSelection } from "prosemirror-state"
import type { Places } from "../src/desk/view/places"
import { Room } from "../src/desk/view/room"
import type { Place, ViewSource } from "../src/desk/view/source"
import { Stack } from "../src/desk/view/stack"
import { Staying } from "../src/desk/view/staying"

const window = { height: 400, width: 800 }
const caretHeight = 20

/** A desk on which each paragraph has a sheet of its own, and stands at its middle. */
function desk(heights: number[], rowHeight: number | null = null) {
  const options = { scale: 1, flow: true, width: window.width, columns: 1, rowHeight }
  const doc = document(heights.map((_, n) => p(`Paragraph ${n}`)))
  const leaves = leavesOf(doc)
  const pos = (leaf: number) => leaves.start(leaf)
  let editor = EditorState.create({ doc, selection: TextSelection.create(doc, pos(0)) })
  const table = (all: readonly number[], ids = all.map((_, n) => n)) => ({
    ids: Uint32Array.from(ids),
    leaves: Uint32Array.from(all, (_, n) => n),
    within: new Uint8Array(all.length),
    widths: Float64Array.from(all, () => 600),
    heights: Float64Array.from(all),
  })
  const mirror = { complete: true, table: table(heights) }
  /** Sheets that are here. */
  const here = new Set(heights.map((_, n) => n))
  const layout = { mirror, current: true, locate: (leaf: number) => Promise.resolve(leaf) }
  let stack = new Stack(mirror.table, options)
  const host = { scrollTop: 0, scrollLeft: 0, clientHeight: window.height, clientWidth: window.width }
  const room = new Room(host as HTMLElement)
  const box = ({ pos: at }: Place) => {
    const leaf = leaves.at(at)
    if (!here.has(leaf)) return null
    const middle = stack.top(leaf) + (stack.table.heights[leaf]! - caretHeight) / 2
    return { x: 300, y: middle, width: 0, height: caretHeight }
  }
  const places = {
    box,
    at: (_x: number, y: number): Place => ({ pos: pos(stack.indexAt(300, y)), bias: 1 }),
    sheetIndex: ({ pos: at }: Place) => leaves.at(at),
  }
  const source = { editor: () => editor, bias: () => 1, layout }
  const staying = new Staying(source as unknown as ViewSource, places as unknown as Places, room, {
    stack: () => stack,
    resize: () => room.changed(),
    paint: () => {},
  })
  return {
    staying,
    here,
    layout,
    room,
    place: (leaf: number): Place => ({ pos: pos(leaf), bias: 1 }),
    caretAt: (leaf: number) => (editor = editor.apply(editor.tr.setSelection(TextSelection.create(doc, pos(leaf))))),
    /** Height of a paragraph in the window. */
    seenAt: (leaf: number) => box({ pos: pos(leaf), bias: 1 })!.y - room.scrollTop,
    scroll: (y: number) => {
      room.scrollTo(y)
      staying.scrolled()
    },
    /** A report of the layout worker. */
    report: (all: readonly number[], complete = true, ids?: number[]) => {
      const [before, top] = [stack, room.scrollTop]
      Object.assign(mirror, { complete, table: table(all, ids) })
      stack = new Stack(mirror.table, options)
      staying.follow(before, top)
      staying.goOn()
    },
  }
}

const many = (height: number) => Array.from({ length: 20 }, () => height)
const heights = fc.array(fc.integer({ min: 100, max: 900 }), { minLength: 20, maxLength: 20 })

test("wherever one goes, the place comes into sight, and what is in sight already stays where it is", () => {
  fc.assert(
    fc.property(heights, fc.array(fc.nat(19), { minLength: 1 }), (all, goes) => {
      const own = desk(all)
      for (const leaf of goes) {
        own.staying.reveal(own.place(leaf))
        expect(own.seenAt(leaf)).toBeGreaterThanOrEqual(0)
        expect(own.seenAt(leaf) + caretHeight).toBeLessThanOrEqual(window.height)
        const { scrollTop } = own.room
        own.staying.reveal(own.place(leaf))
        expect(own.room.scrollTop).toBe(scrollTop)
      }
    }),
  )
})

test("what is being read stays at its height while all is composed anew, however the sheets become", () => {
  fc.assert(
    fc.property(
      heights,
      fc.array(heights, { minLength: 1, maxLength: 4 }),
      fc.integer({ min: 1, max: 18 }),
      (all, then, leaf) => {
        const own = desk(all)
        own.caretAt(leaf)
        own.staying.reveal(own.place(leaf))
        const before = own.seenAt(leaf)
        own.staying.hold()
        then.forEach((next, n) => {
          own.report(next, n === then.length - 1)
          // Nothing is above the first sheet.
          if (own.room.scrollTop > 0) expect(own.seenAt(leaf)).toBeCloseTo(before, 6)
        })
      },
    ),
  )
})

test("what is being read stays at its height in another layout, also where sheets of the one before still come", () => {
  fc.assert(
    fc.property(heights, fc.array(heights, { maxLength: 3 }), heights, fc.nat(19), (all, late, then, leaf) => {
      const own = desk(all)
      own.caretAt(leaf)
      own.staying.reveal(own.place(leaf))
      const before = own.seenAt(leaf)
      own.staying.restore(own.staying.read())
      own.layout.current = false
      for (const next of late) own.report(next)
      own.layout.current = true
      own.report(then)
      if (own.room.scrollTop > 0) expect(own.seenAt(leaf)).toBeCloseTo(before, 6)
      const { scrollTop } = own.room
      own.report(then)
      expect(own.room.scrollTop).toBe(scrollTop)
    }),
  )
})

test("who scrolls meanwhile reads on there", () => {
  const own = desk(many(500))
  own.caretAt(6)
  own.staying.reveal(own.place(6))
  own.staying.hold()
  own.report(many(700), false)
  own.scroll(10 * 700)
  own.report(many(600))
  // The sheet at the top of the window, not the caret's, is the one that stays.
  expect(own.room.scrollTop).toBe(10 * 600)
})

test("who went elsewhere meanwhile is not taken to the sheet that was asked for before", async () => {
  const own = desk(many(500))
  own.here.delete(15)
  own.staying.reveal(own.place(15))
  own.staying.reveal(own.place(2))
  await Promise.resolve()
  expect(own.seenAt(2)).toBeGreaterThanOrEqual(0)
  expect(own.seenAt(2)).toBeLessThan(window.height)
})

test("who presses what is in sight stays there, though somewhere else was gone to that is not here yet", () => {
  const own = desk(many(500))
  own.layout.current = false
  own.staying.reveal(own.place(15))
  own.staying.stay()
  own.layout.current = true
  own.report(many(500))
  expect(own.room.scrollTop).toBe(0)
})

test("where something above becomes higher, is added or goes, the sheet at the top of the window stays", () => {
  const own = desk(many(500))
  own.caretAt(0)
  own.scroll(5 * 500 + 30)
  own.report([900, ...many(500).slice(1)])
  expect(own.room.scrollTop).toBe(5 * 500 + 430)
  // A sheet before all others.
  own.report([300, 900, ...many(500).slice(1)], true, [99, ...many(0).map((_, n) => n)])
  expect(own.room.scrollTop).toBe(5 * 500 + 730)
})

test("who is at the beginning stays there, as when contents that come late push the text of a document away", () => {
  const own = desk(many(500))
  own.caretAt(12)
  own.report(many(500), true, [101, 102, 103, ...many(0).map((_, n) => n)])
  expect(own.room.scrollTop).toBe(0)
})

test("a place whose sheet is not here is gone near to, and comes into sight when the sheet does", async () => {
  const own = desk(many(500))
  own.here.delete(15)
  own.staying.reveal(own.place(15))
  await Promise.resolve()
  expect(own.room.scrollTop).toBe(15 * 500)
  own.here.add(15)
  own.report(many(500))
  expect(own.seenAt(15)).toBeGreaterThanOrEqual(0)
  expect(own.seenAt(15)).toBeLessThanOrEqual(window.height - caretHeight)
  // Who goes elsewhere before it is here is not called back.
  own.here.delete(3)
  own.staying.reveal(own.place(3))
  own.staying.leave()
  await Promise.resolve()
  own.scroll(12 * 500)
  own.here.add(3)
  own.report(many(500))
  expect(own.room.scrollTop).toBe(12 * 500)
})

test("nothing moves for a place on a sheet in sight before its contents are here", async () => {
  const own = desk(many(300))
  own.scroll(40)
  own.here.delete(1)
  own.staying.reveal(own.place(1))
  await Promise.resolve()
  expect(own.room.scrollTop).toBe(40)
  own.here.add(1)
  own.report(many(300))
  expect(own.seenAt(1)).toBeLessThanOrEqual(window.height - caretHeight)
})

test("another layout shows at the same height what was read in the one before, once it is here", () => {
  const own = desk(many(500))
  own.caretAt(8)
  own.staying.reveal(own.place(8))
  const before = own.seenAt(8)
  own.staying.restore(own.staying.read())
  own.here.delete(8)
  own.report(many(260), false)
  own.here.add(8)
  own.report(many(260))
  expect(own.seenAt(8)).toBeCloseTo(before, 6)
})

test("who scrolls before another layout is here is not called back", () => {
  const own = desk(many(500))
  own.staying.restore(own.staying.read())
  own.scroll(2600)
  own.report(many(500), false)
  own.report(many(500))
  expect(own.room.scrollTop).toBe(2600)
})

test("in reading view whole rows are shown", () => {
  const own = desk(many(380), 400)
  own.staying.reveal(own.place(7))
  expect(own.room.scrollTop).toBe(7 * 400)
})
