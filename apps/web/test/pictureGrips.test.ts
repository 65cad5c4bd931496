/** A picture dragged by its corners, its sides, its stem and itself. */
import fc from "fast-check"
import { pictureFormat, nodes } from "@biblon/core/document"
import { carried, corners, cropped, resized, sides, turnedBy, turnedTo } from "../src/desk/bars/pictureGrips"
import type { PictureSeen } from "../src/desk/view/source"

const format = pictureFormat(nodes.picture.create())
const seen = (own: Partial<PictureSeen> = {}): PictureSeen => ({
  pos: 1,
  x: 300,
  y: 400,
  width: 200,
  height: 100,
  turn: 0,
  scale: 2,
  floats: true,
  pin: null,
  sheet: { x: 0, y: 0, width: 1200, height: 1700 },
  margins: { x: 140, y: 140, width: 920, height: 1420 },
  others: [],
  ...own,
})
const pixels = fc.integer({ min: -900, max: 900 })
const turn = fc.integer({ min: -180, max: 180 })

test("by a corner a picture keeps its proportions, however it is turned, and never becomes nothing", () => {
  fc.assert(
    fc.property(fc.constantFrom(...corners), pixels, pixels, turn, (grip, dx, dy, turned) => {
      const own = resized(seen({ turn: turned }), { ...format, height: 50 }, grip, dx, dy, false)
      expect(own.width! / own.height!).toBeCloseTo(2, 6)
      expect(Math.min(own.width!, own.height!)).toBeGreaterThan(0)
    }),
  )
  // A picture whose height follows from its width keeps on doing so.
  expect(resized(seen(), { ...format, height: null }, [1, 1], 40, 20, false)).toEqual({ width: 120, height: null })
})

test("by a side it changes that side alone, and a corner that is free goes where the finger goes", () => {
  for (const [gx, gy] of sides)
    expect(resized(seen(), format, [gx, gy], 30 * gx, 30 * gy, false)).toEqual({
      width: gx === 0 ? 100 : 115,
      height: gy === 0 ? 50 : 65,
    })
  expect(resized(seen(), format, [1, 1], 60, -20, true)).toEqual({ width: 130, height: 40 })
  // Turned by a quarter, its right side lies below.
  expect(resized(seen({ turn: 90 }), format, [1, 0], 0, 40, false).width).toBeCloseTo(120, 6)
})

test("what is cropped away leaves the rest as large as it was, and something is left", () => {
  const part = fc.integer({ min: 0, max: 45 }).map((percent) => percent / 100)
  fc.assert(
    fc.property(
      fc.record({ left: part, right: part, top: part, bottom: part }),
      fc.constantFrom(...corners, ...sides),
      pixels,
      pixels,
      turn,
      (crop, grip, dx, dy, turned) => {
        const own = cropped(seen({ turn: turned }), { ...format, crop }, grip, dx, dy)
        const { left, right, top, bottom } = own.crop!
        for (const each of [left, right, top, bottom]) expect(each).toBeGreaterThanOrEqual(0)
        expect(left + right).toBeLessThan(0.95)
        expect(top + bottom).toBeLessThan(0.95)
        expect(own.width! / (1 - left - right)).toBeCloseTo(100 / (1 - crop.left - crop.right), 6)
        expect(own.height! / (1 - top - bottom)).toBeCloseTo(50 / (1 - crop.top - crop.bottom), 6)
      },
    ),
  )
})

test("the stem points to the finger, sticks near upright, and goes by steps if one likes", () => {
  expect([turnedTo(0, -10, false), turnedTo(10, 0, false), turnedTo(0, 10, false)]).toEqual(
    [0, 90, 180].map((degrees) => ({ turn: degrees })),
  )
  expect(turnedTo(1, -30, false)).toEqual({ turn: 0 })
  expect(turnedTo(10, -10, false)).toEqual({ turn: 45 })
  fc.assert(
    fc.property(pixels, pixels, fc.boolean(), (x, y, bySteps) => {
      const own = turnedTo(x, y, bySteps).turn!
      expect(Math.abs(own)).toBeLessThanOrEqual(180)
      if (bySteps) expect(Math.abs(own % 15)).toBe(0)
    }),
  )
  fc.assert(
    fc.property(turn, fc.constantFrom(-1, 1), fc.boolean(), (own, direction, bySteps) => {
      const next = turnedBy(own, direction, bySteps).turn!
      expect(Math.abs(next)).toBeLessThanOrEqual(180)
      expect((((next - own - direction * (bySteps ? 15 : 1)) % 360) + 360) % 360).toBe(0)
    }),
  )
})

test("carried, it goes with the finger, and catches at the sheet, its margins, its column and other pictures", () => {
  const free = carried(seen(), { ...format, down: { of: "paragraph", at: 10 } }, null, 33, 21)
  expect(free).toEqual({
    guide: { x: null, y: null },
    change: { across: { of: "sheet", align: null, at: 166.5 }, down: { of: "paragraph", at: 20.5 } },
  })
  // Its left edge comes near that of the margins, its middle near that of the sheet, its right edge near that of a column.
  expect(carried(seen(), format, null, -157, 0).guide.x).toBe(140)
  expect(carried(seen(), format, null, 203, 0).guide.x).toBe(600)
  expect(carried(seen(), format, { x: 450, width: 300 }, 248, 0).guide.x).toBe(750)
  const other = { x: 20, y: 600, width: 50, height: 50 }
  const beside = carried(seen({ others: [other] }), { ...format, down: { of: "sheet", at: 0 } }, null, 0, 203)
  expect(beside.guide.y).toBe(600)
  expect(beside.change.down).toEqual({ of: "sheet", at: 300 })
})
