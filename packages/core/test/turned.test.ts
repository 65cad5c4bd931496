import { execFileSync } from "node:child_process"
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { cellFormat, document, p, paragraph, table, type CellFormat } from "../src/document"
import { checkDocument } from "../src/document/reading"
import { cellsHere, setCells } from "../src/editing"
import { readFile, formats } from "../src/formats/table"
import { caretBox, fragmentsOf, hit, rangeBoxes, tablesOf, type Fragment } from "../src/layout"
import { layoutOf, pdfOf } from "../node/typesetting"
import { after, stateOf } from "./telling"

const up: Partial<CellFormat> = { reading: "up" }
const down: Partial<CellFormat> = { reading: "down" }

/** Fares by boat, whose names rise above narrow columns. */
const fares = (names: readonly string[], format: Partial<CellFormat> = up, columns: number[] | null = null) =>
  document([
    table([names.map((name) => ({ blocks: [p(name)], format })), names.map(() => [p("1")])], { columns }),
    p("behind"),
  ])

const fragment = (doc: Node, text: string): Fragment =>
  layoutOf(doc)
    .placed.flatMap(fragmentsOf)
    .find((own) => own.paragraph.text === text)!

describe("cells whose lines rise or fall", () => {
  test("their row is as high as the longest needs, and their letters lie in it from foot to head, or from head to foot", () => {
    for (const format of [up, down]) {
      const doc = fares(["Harbour office", "Marsh gate"], format, [40, 40])
      checkDocument(doc)
      const own = fragment(doc, "Harbour office")
      const cell = own.cell!
      const line = own.paragraph.lines[0]!
      expect(own.paragraph.lines).toHaveLength(1)
      expect(cell.height).toBeCloseTo(line.width + 1 + 6, 3)
      const [first, last] = [caretBox(own, 0)!, caretBox(own, 14)!]
      expect(Math.abs(first.y - last.y)).toBeCloseTo(line.width, 3)
      expect(first.y > last.y).toBe(format === up)
      for (const box of rangeBoxes(own, 0, 14, false)) {
        expect([box.x >= cell.x, box.x + box.width <= cell.x + cell.width]).toEqual([true, true])
        expect([box.y >= cell.y, box.y + box.height <= cell.y + cell.height]).toEqual([true, true])
      }
    }
  })

  test("a press finds the letter that is there", () => {
    fc.assert(
      fc.property(fc.constantFrom(up, down), fc.nat(14), (format, offset) => {
        const doc = fares(["Harbour office", "Marsh gate"], format, [40, 40])
        const [placed] = layoutOf(doc).placed
        const box = caretBox(fragment(doc, "Harbour office"), offset)!
        const found = hit(placed!, box.x + box.width / 2, box.y + box.height / 2)
        expect([found!.leaf, found!.offset]).toEqual([0, offset])
      }),
      { numRuns: 30 },
    )
  })

  test("long text is broken where the row is high or the column wide; what has no room so, and tables, stand upright", () => {
    const long = "From the north quay to the island and back again before the tide turns"
    expect(fragment(fares([long], up, [200]), long).paragraph.lines.length).toBeGreaterThan(1)
    expect(fragment(fares([long], up, [18]), long).paragraph.lines).toHaveLength(1)
    const endless = long.repeat(30)
    const upright = fragment(fares([endless], up, [40]), endless)
    expect([upright.turn, upright.paragraph.lines.length > 10]).toEqual([null, true])
    const nested = document([table([[{ blocks: [table([[[p("inside")]]])], format: up }]]), p()])
    expect(fragment(nested, "inside").turn).toBeNull()
    expect(fragment(fares(["narrow"], up, [12]), "narrow").turn).toBeNull()
  })

  test("one that has no room at the foot of a sheet goes on to the next, whole", () => {
    const filled = Array.from({ length: 44 }, () => paragraph("body", ["line"], { spaceAfter: 0 }))
    const [head, row] = [fares(["Harbour office"]).child(0).child(0).child(0), p("end")]
    for (const divides of [true, false]) {
      const own = table([head.children.map((cell) => ({ blocks: cell.children, format: up }))], { divides })
      const layout = layoutOf(document([...filled, own, row]))
      const sheets = layout.placed.map((placed) => tablesOf(placed).length)
      expect(sheets).toEqual([0, 1])
    }
  })

  test("all formats that can carry it do", () => {
    const doc = document([
      table([
        [
          { blocks: [p("Rises")], format: { reading: "up", vertical: "middle" } },
          { blocks: [p("Falls")], format: down },
          [p("Lies")],
        ],
      ]),
      p("behind"),
    ])
    for (const [ending, format] of Object.entries(formats)) {
      if (["docx", "odt", "fodt", "html", "rtf", "json"].every((own) => own !== ending)) continue
      const read = readFile(
        format.write!({ name: "Fares", doc }, () => undefined),
        `fares.${ending}`,
      )
      const found: unknown[] = []
      read.doc.descendants((node) => {
        if (node.type.name === "cell") found.push([node.textContent, cellFormat(node).reading ?? "across"])
        return true
      })
      expect([ending, found]).toEqual([
        ending,
        [
          ["Rises", "up"],
          ["Falls", "down"],
          ["Lies", "across"],
        ],
      ])
    }
  })

  test("the PDF turns them, as another program reads it", () => {
    const file = pdfOf(layoutOf(fares(["Harbour", "Marsh"])), "Fares")
    const found = execFileSync("pdftotext", ["-bbox", "-", "-"], { input: file, encoding: "utf8" })
    const words = [...found.matchAll(/xMin="(.+?)" yMin="(.+?)" xMax="(.+?)" yMax="(.+?)">(.+?)</g)]
    const rises = new Map(words.map(([, left, top, right, foot, word]) => [word, +foot! - +top! > +right! - +left!]))
    expect(rises).toEqual(
      new Map([
        ["Harbour", true],
        ["Marsh", true],
        ["1", true],
        ["behind", false],
      ]),
    )
  })

  test("are turned by a command, which says what the selected cells share", () => {
    const state = stateOf([table([[[p("a")], [p("b")]]]), p()], [0, 0], [1, 1])
    const turned = after(state, setCells(up))
    expect([cellsHere(state)!.reading, cellsHere(turned)!.reading]).toEqual(["across", "up"])
    checkDocument(turned.doc)
  })
})
