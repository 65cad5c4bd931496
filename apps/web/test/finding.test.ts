/** Find and replace at the desk, with a desk that is only a state; and how sheets fit the window. */
import { EditorState, TextSelection } from "prosemirror-state"
import { document as makeDocument, p } from "@biblon/core/document"
import { editHistory, noQuery, undo } from "@biblon/core/editing"
import { Finder } from "../src/desk/finder"
import { fitted } from "../src/desk/view/fitting"

// Patterns run in a worker; here one that answers at once, or never.
class FakeWorker {
  static silent = false
  private readonly listeners = new Set<(event: { data: unknown }) => void>()
  static listening = 0
  addEventListener(type: string, listener: (event: { data: unknown }) => void) {
    if (type === "message") this.listeners.add(listener)
    FakeWorker.listening = this.listeners.size
  }
  removeEventListener(_type: string, listener: (event: { data: unknown }) => void) {
    this.listeners.delete(listener)
    FakeWorker.listening = this.listeners.size
  }
  postMessage({ id, source, flags, texts }: { id: number; source: string; flags: string; texts: string[] }) {
    if (FakeWorker.silent) return
    const hits = texts.map((text) =>
      [...text.matchAll(new RegExp(source, flags))].map((m) => ({ from: m.index, to: m.index + m[0].length })),
    )
    queueMicrotask(() => this.listeners.forEach((listener) => listener({ data: { id, hits } })))
  }
  terminate() {}
}
Object.assign(globalThis, { Worker: FakeWorker })

function desk(...paragraphs: string[]) {
  let state = EditorState.create({ doc: makeDocument(paragraphs.map((text) => p(text))), plugins: [editHistory()] })
  const run = (command: (s: EditorState, d?: (tr: any) => void) => boolean) =>
    command(state, (tr) => {
      state = state.apply(tr)
      finder.changed(tr.docChanged, tr.mapping)
    })
  const finder = new Finder({
    editor: () => state,
    select: (from, to) => {
      state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, from, to.pos)))
    },
    run,
    repaint: () => {},
  })
  return {
    finder,
    run,
    text: () => state.doc.child(0).textBetween(0, state.doc.child(0).content.size, "\n"),
    selected: () => state.doc.textBetween(state.selection.from, state.selection.to),
    told: () => finder.store.getState(),
  }
}

const settled = () => new Promise((resolve) => setTimeout(resolve, 200))

test("as one types, all is counted, marked, and the first place selected; one steps around the ends", async () => {
  const { finder, told, selected } = desk("The ferry and the ferryman", "no", "A ferry")
  finder.set({ ...noQuery, text: "ferry" })
  await settled()
  expect(told()).toMatchObject({ count: 3, current: 1, problem: null })
  expect([0, 1, 2].map((block) => finder.marks(block).map((m) => m.kind))).toEqual([
    ["found-now", "found"],
    [],
    ["found"],
  ])
  finder.next(1)
  finder.next(1)
  expect(told().current).toBe(3)
  finder.next(1)
  expect([told().current, selected()]).toEqual([1, "ferry"])
  finder.next(-1)
  expect(told().current).toBe(3)
  finder.close()
  expect(finder.marks(0)).toEqual([])
})

test("replacing one goes on to the next; replacing all tells how many, and is one change", async () => {
  const { finder, told, text, run } = desk("one two one", "one")
  finder.set({ ...noQuery, text: "one" })
  await settled()
  finder.store.setState({ replacement: "three" })
  finder.replaceOne()
  await settled()
  expect([text(), told().count]).toEqual(["three two one\none", 2])
  expect(finder.replaceAll()).toBe(2)
  await settled()
  expect([text(), told().count]).toEqual(["three two three\nthree", 0])
  run(undo)
  expect(text()).toBe("three two one\none")
  await settled()
  expect(told().count).toBe(2)
})

test("a pattern is run elsewhere; a bad one is told, one that never ends is stopped", async () => {
  const { finder, told } = desk("3 November", "14 November")
  finder.set({ ...noQuery, text: "\\d+", pattern: true })
  await settled()
  expect(told()).toMatchObject({ count: 2, problem: null })
  expect(FakeWorker.listening).toBe(0)
  finder.set({ ...noQuery, text: "(", pattern: true })
  expect(told().problem).toMatch(/^This pattern cannot be used/)
  jest.useFakeTimers()
  FakeWorker.silent = true
  finder.set({ ...noQuery, text: "(a+)+b", pattern: true })
  await jest.advanceTimersByTimeAsync(2500)
  expect(told()).toMatchObject({ problem: expect.stringContaining("takes too long"), count: 0 })
  jest.useRealTimers()
  FakeWorker.silent = false
})

test("the range of a search is what a person had selected, and goes with the text", async () => {
  const { finder, told, run, text } = desk("ferry one", "ferry two", "ferry three")
  run((state, dispatch) => (dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, 13, 22))), true))
  finder.set({ ...noQuery, text: "ferry" })
  await settled()
  expect(told().count).toBe(3)
  // Typing has gone to the first place; what was selected before is meant.
  expect(finder.selected).toEqual({ from: 13, to: 22 })
  finder.set({ ...told().query, within: finder.selected })
  await settled()
  expect(told().count).toBe(1)
  run((state, dispatch) => (dispatch?.(state.tr.insertText("A long beginning. ", 2)), true))
  await settled()
  expect(told().count).toBe(1)
  finder.store.setState({ replacement: "boat" })
  expect(finder.replaceAll()).toBe(1)
  expect(text()).toBe("A long beginning. ferry one\nboat two\nferry three")
})

test("Enter while a pattern is being tried runs nothing of it here", async () => {
  const { finder, selected } = desk("a".repeat(40) + "!")
  FakeWorker.silent = true
  finder.set({ ...noQuery, text: "(a+)+$", pattern: true })
  finder.next(1)
  finder.replaceOne()
  expect([selected(), finder.replaceAll()]).toEqual(["", 0])
  FakeWorker.silent = false
  finder.close()
})

test("when the selection leaves a place, there is no current one any more", async () => {
  const { finder, told, run } = desk("ferry ferry")
  finder.set({ ...noQuery, text: "ferry" })
  await settled()
  run((state, dispatch) => {
    dispatch?.(state.tr.setSelection(TextSelection.atEnd(state.doc)))
    return true
  })
  expect(told().current).toBeNull()
})

describe("how sheets fit", () => {
  const sheet = { width: 595, height: 842 }
  const wide = { width: 1196, height: 712 }
  const phone = { width: 390, height: 720 }
  const fit = (
    mode: "flow" | "sheets" | "reading",
    how: "width" | "sheet" | "pair",
    room: { width: number; height: number },
  ) => fitted({ mode, fit: how, room, sheet })

  test("in width they fill the window, but never look larger than 125 %", () => {
    expect(fit("sheets", "width", wide).scale).toBeCloseTo((96 / 72) * 1.25)
    expect(fit("sheets", "width", phone).scale * sheet.width).toBeCloseTo(378)
  })

  test("whole sheets and pairs stay inside it", () => {
    const whole = fit("sheets", "sheet", wide)
    expect(whole.scale * sheet.height).toBeLessThanOrEqual(wide.height)
    const pair = fit("sheets", "pair", wide)
    expect([pair.columns, 2 * pair.scale * sheet.width + 20 <= wide.width]).toEqual([2, true])
  })

  test("reading shows two where there is width for them, else one", () => {
    expect([fit("reading", "width", wide).columns, fit("reading", "width", phone).columns]).toEqual([2, 1])
    for (const room of [wide, phone]) {
      const { scale, columns } = fit("reading", "width", room)
      expect(scale * sheet.height).toBeLessThanOrEqual(room.height)
      expect(scale * sheet.width * columns).toBeLessThanOrEqual(room.width)
    }
  })

  test("flow is set at a size that reads well", () => {
    for (const room of [wide, phone]) expect(fit("flow", "width", room).scale * 12).toBeGreaterThanOrEqual(16)
  })
})
