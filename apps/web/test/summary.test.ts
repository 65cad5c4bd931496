import { keeping, type ViewSummary } from "../src/desk/view/summary"

const box = { x: 1, y: 2, width: 3, height: 4 }
const summary = (change: Partial<ViewSummary> = {}): ViewSummary => ({
  sheets: 3,
  complete: true,
  firstShown: 1,
  caretSheet: 1,
  caret: { ...box },
  column: { x: 10, width: 200, sheet: { x: 0, width: 400 } },
  table: null,
  picture: null,
  selection: { from: { ...box }, to: { ...box } },
  ...change,
})

test("what says the same stays the same object, part by part and as a whole", () => {
  const before = summary()
  expect(keeping(null, before)).toBe(before)
  expect(keeping(before, summary())).toBe(before)
  const scrolled = keeping(before, summary({ firstShown: 2 }))
  expect(scrolled).toEqual(summary({ firstShown: 2 }))
  expect([scrolled.caret, scrolled.column, scrolled.selection]).toEqual([before.caret, before.column, before.selection])
  expect(scrolled.column).toBe(before.column)
  const moved = keeping(before, summary({ caret: { ...box, x: 9 } }))
  expect(moved.caret?.x).toBe(9)
  expect(moved.selection).toBe(before.selection)
})
