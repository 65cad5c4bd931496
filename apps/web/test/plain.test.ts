import { sheetWords, titleWords, whenWords } from "../src/shelf/words"
import { readNumber, showNumber } from "../src/ui/numberEntry"
import { Stack } from "../src/desk/view/stack"
import { LayoutMirror } from "../src/workers/layoutMirror"

const table = (ids: number[], leaves: number[], within: number[]) => ({
  ids: Uint32Array.from(ids),
  leaves: Uint32Array.from(leaves),
  within: Uint8Array.from(within),
  widths: Float64Array.from(ids, () => 600),
  heights: Float64Array.from(ids, () => 800),
})

test("when something happened is said as one would say it", () => {
  const now = new Date(2026, 10, 25, 14, 5).getTime()
  const at = (...args: [number, number, number, number?, number?]) => whenWords(new Date(...args).getTime(), now)
  expect([at(2026, 10, 25, 9, 7), at(2026, 10, 24, 23), at(2026, 10, 20), at(2026, 9, 3), at(2025, 9, 3)]).toEqual([
    "09:07",
    "yesterday",
    "Friday",
    "3 Oct",
    "3 Oct 2025",
  ])
})

test("a document without a name is told apart by its text or its hour", () => {
  const now = new Date(2026, 10, 25, 14, 5).getTime()
  const entry = { id: "x", created: now, changed: now, version: 0, folder: null, sheets: null }
  expect(titleWords({ ...entry, name: "Notice", opening: "Dogs" }, now)).toEqual({ text: "Notice", named: true })
  expect(titleWords({ ...entry, name: null, opening: "Dogs travel free" }, now).text).toBe("“Dogs travel free”")
  expect(titleWords({ ...entry, name: null, opening: "" }, now).text).toBe("Blank, begun 14:05")
  expect([sheetWords(1), sheetWords(2), sheetWords(undefined)]).toEqual(["1 sheet", "2 sheets", null])
})

test("numbers are read with a point or a comma, within bounds", () => {
  expect([
    readNumber("10,5", 1, 400),
    readNumber(" 12 ", 1, 400),
    readNumber("", 0, 9),
    readNumber("x", 0, 9),
    readNumber("500", 1, 400),
  ]).toEqual([10.5, 12, null, null, null])
  expect([showNumber(1.15), showNumber(1 / 3), showNumber(undefined)]).toEqual(["1.15", "0.33", ""])
})

test("sheets lie below one another, in the middle of the desk", () => {
  const stack = new Stack(table([1, 2, 3], [0, 5, 9], [0, 0, 0]), {
    scale: 0.5,
    flow: false,
    width: 1000,
    columns: 1,
    rowHeight: null,
  })
  expect([stack.top(0), stack.top(1), stack.height]).toEqual([20, 440, 1280])
  expect(stack.left(0)).toBe(350)
  expect([0, 430, 440, 9999].map((y) => stack.indexAt(500, y))).toEqual([0, 0, 1, 2])
  expect(
    new Stack(table([1, 2], [0, 5], [0, 0]), { scale: 1, flow: true, width: 600, columns: 1, rowHeight: null }).top(1),
  ).toBe(800)
})

test("the mirror finds the sheets of a block that goes over several", () => {
  const mirror = new LayoutMirror()
  mirror.take({
    type: "report",
    seq: 1,
    complete: true,
    table: table([1, 2, 3, 4], [0, 5, 5, 6], [0, 1, 1, 1]),
    wanted: { from: 0, to: 0, sight: { from: 0, to: 0 }, asked: 0 },
    held: { from: 0, to: 0 },
    sheets: [],
    furniture: [],
    paragraphs: [],
    pages: null,
  })
  expect(mirror.sheetsOfLeaf(5)).toEqual({ first: 0, last: 2 })
  expect(mirror.sheetsOfLeaf(6)).toEqual({ first: 2, last: 3 })
  expect(mirror.sheetsOfLeaf(2)).toEqual({ first: 0, last: 0 })
})
