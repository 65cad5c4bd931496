/** Sheets on paper. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import fc from "fast-check"
import { printFile } from "../node/typesetting"
import { document, p, paragraph } from "../src/document"
import { plainPrint, sheetsNamed, sidesInAll, sidesOf, type PrintPlan } from "../src/output/printing"

const A4 = { width: 595, height: 842 }
const sizes = (count: number) => Array.from({ length: count }, () => A4)
const sheetsOf = (plan: Partial<PrintPlan>, count: number) =>
  sidesOf({ ...plainPrint, ...plan }, sizes(count))?.map(({ placed }) => placed.map(({ sheet }) => sheet + 1))

test.each([
  ["all", [1, 2, 3, 4, 5]],
  ["odd", [1, 3, 5]],
  ["even", [2, 4]],
  ["2-3, 5", [2, 3, 5]],
  ["4-", [4, 5]],
  ["-2", [1, 2]],
  ["3-1", [3, 2, 1]],
  ["2–99", [2, 3, 4, 5]],
  ["7", null],
  ["ferry", null],
  ["1,,2", null],
  ["0", null],
])("the sheets %s of five", (words, named) => {
  expect(sheetsNamed(words, 5)?.map((i) => i + 1) ?? null).toEqual(named)
})

test("two and four on a side, in the order of reading; copies one after the other or sheet by sheet", () => {
  expect(sheetsOf({ arrangement: "two" }, 3)).toEqual([[1, 2], [3]])
  expect(sheetsOf({ arrangement: "four" }, 5)).toEqual([[1, 2, 3, 4], [5]])
  expect(sheetsOf({ copies: 2 }, 2)).toEqual([[1], [2], [1], [2]])
  expect(sheetsOf({ copies: 2, collated: false }, 2)).toEqual([[1], [1], [2], [2]])
  const [side] = sidesOf({ ...plainPrint, arrangement: "two", paper: A4 }, sizes(2)) ?? []
  expect([side?.width, side?.height]).toEqual([842, 595])
  const [left, right] = side?.placed ?? []
  expect([left?.x, left?.y, left?.scale]).toEqual([
    expect.closeTo(0, 0),
    expect.closeTo(0, 0),
    expect.closeTo(0.7066, 3),
  ])
  expect(right?.x).toBeCloseTo(421, 0)
})

test("on both sides, each copy begins on paper of its own; in its own size, what is larger stays so", () => {
  const both = { twoSided: true, copies: 2 }
  expect(sheetsOf(both, 3)).toEqual([[1], [2], [3], [], [1], [2], [3], []])
  expect(sheetsOf({ ...both, collated: false }, 3)).toEqual([[1], [2], [1], [2], [3], [], [3], []])
  expect(sheetsOf({ twoSided: true }, 3)).toEqual([[1], [2], [3]])
  for (const plan of [both, { twoSided: true }, { copies: 3 }, { arrangement: "booklet", copies: 2 }] as const)
    for (const count of [1, 2, 3, 5]) {
      const whole = { ...plainPrint, ...plan }
      const ofOne = sidesOf({ ...whole, copies: 1 }, sizes(count))!.length
      expect(sidesInAll(whole, ofOne)).toBe(sidesOf(whole, sizes(count))!.length)
    }
  const small = { width: 420, height: 595 }
  const scaleOn = (plan: Partial<PrintPlan>) =>
    sidesOf({ ...plainPrint, paper: small, ...plan }, sizes(1))?.[0]?.placed[0]
  expect(scaleOn({})?.scale).toBeCloseTo(0.706, 2)
  expect(scaleOn({ fits: false })).toMatchObject({ scale: 1, x: (420 - 595) / 2 })
  expect(scaleOn({ fits: false, arrangement: "two" })?.scale).toBeLessThan(1)
})

test("a booklet, folded in the middle, is read from the first sheet to the last", () => {
  expect(sheetsOf({ arrangement: "booklet" }, 8)).toEqual([
    [8, 1],
    [2, 7],
    [6, 3],
    [4, 5],
  ])
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 90 }), (count) => {
      const sides = sidesOf({ ...plainPrint, arrangement: "booklet" }, sizes(count)) ?? []
      expect(sides.length % 2).toBe(0)
      const half = (side: (typeof sides)[number] | undefined, right: boolean) =>
        side?.placed.find(({ x }) => x >= side.width / 2 === right)?.sheet ?? null
      // Leaf by leaf from outside in, the right of a front, then the left of its back; and out again on the other halves.
      const leaves = Array.from({ length: sides.length / 2 }, (_, i) => [sides[2 * i], sides[2 * i + 1]] as const)
      const inwards = leaves.flatMap(([front, back]) => [half(front, true), half(back, false)])
      const outwards = [...leaves].reverse().flatMap(([front, back]) => [half(back, true), half(front, false)])
      const read = [...inwards, ...outwards]
      expect(read.slice(0, count)).toEqual(Array.from({ length: count }, (_, i) => i))
      expect(read.slice(count).every((own) => own === null)).toBe(true)
    }),
  )
})

test("nothing lies outside its side or over another, whatever the sheets and the paper", () => {
  const size = fc.record({ width: fc.integer({ min: 72, max: 1200 }), height: fc.integer({ min: 72, max: 1200 }) })
  fc.assert(
    fc.property(
      fc.array(size, { minLength: 1, maxLength: 9 }),
      fc.constantFrom("one", "two", "four", "booklet"),
      fc.option(size),
      (own, arrangement, paper) => {
        const sides = sidesOf({ ...plainPrint, arrangement, paper }, own) ?? []
        expect(sides.flatMap(({ placed }) => placed.map(({ sheet }) => sheet)).sort((a, b) => a - b)).toEqual(
          own.map((_, i) => i),
        )
        for (const { width, height, placed } of sides) {
          const boxes = placed.map(({ sheet, x, y, scale }) => {
            const { width: w, height: h } = own[sheet] ?? A4
            expect(scale).toBeLessThanOrEqual(1)
            return { left: x, right: x + w * scale, bottom: y, top: y + h * scale }
          })
          for (const box of boxes) {
            expect(Math.min(box.left, box.bottom)).toBeGreaterThan(-1e-6)
            expect(box.right).toBeLessThan(width + 1e-6)
            expect(box.top).toBeLessThan(height + 1e-6)
            for (const other of boxes)
              if (other !== box)
                expect(
                  box.right <= other.left + 1e-6 ||
                    other.right <= box.left + 1e-6 ||
                    box.top <= other.bottom + 1e-6 ||
                    other.top <= box.bottom + 1e-6,
                ).toBe(true)
          }
        }
      },
    ),
  )
})

test("the file has the sides that were planned, with their words, and is whole", () => {
  const doc = document([
    p("First"),
    ...["Second", "Third", "Fourth"].map((word) => paragraph("body", [word], { breakBefore: true })),
  ])
  const path = join(mkdtempSync(join(tmpdir(), "biblon-print-")), "a.pdf")
  writeFileSync(path, printFile({ name: "Tides", doc }, { ...plainPrint, arrangement: "booklet", paper: A4 }))
  expect(execFileSync("qpdf", ["--check", path], { encoding: "utf8" })).toContain("No syntax or stream encoding errors")
  const pages = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" }).split("\f")
  expect(pages.slice(0, 2).map((page) => page.trim().split(/\s+/))).toEqual([
    ["Fourth", "First"],
    ["Second", "Third"],
  ])
  expect(execFileSync("pdfinfo", [path], { encoding: "utf8" })).toMatch(/Pages:\s+2[\s\S]*Page size:\s+842 x 595/)
  const plain = execFileSync("qpdf", ["--qdf", "--object-streams=disable", path, "-"], { encoding: "latin1" })
  expect(plain).toContain("/Duplex /DuplexFlipShortEdge")
  expect(() => printFile({ name: null, doc }, { ...plainPrint, sheets: "9" })).toThrow('no sheets "9"')
})
