import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { zlibSync } from "fflate"
import { EditorState } from "prosemirror-state"
import {
  defaultSetup,
  document,
  leavesOf,
  letters,
  nodes,
  p,
  pictureAttrs,
  paragraph,
  pictureSize,
  type ParagraphFormat,
  table,
  textOf,
  type PictureFormat,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { fitPicture, insertPicture, pictureHere, replacePicture, setPicture } from "../src/editing"
import {
  backdropOf,
  caretBox,
  floatsOn,
  fragmentsOf,
  hit,
  layoutDocument,
  lineOfOffset,
  lineTop,
  picturesIn,
  standsBeside,
  tablesOf,
  type Layout,
  type PlacedSheet,
} from "../src/layout"
import { layoutOf, pdfOf, typesetter } from "../node/typesetting"
import { after, shown, stateOf } from "./telling"

const asset = "a".repeat(64)
const picture = (format: Partial<PictureFormat> | null = null, pixels: [number, number] = [400, 300]) =>
  nodes.picture.create({ asset, pixels, format })
const words = "The chain ferry crosses at slack water and rests when the tide runs hard. "

describe("a picture in its line", () => {
  test("stands on the baseline, makes its line higher, and is no wider than its column", () => {
    const layout = layoutDocument(
      typesetter(),
      document([p("See ", picture({ width: 60 }), " there"), p(picture({ width: 3000 }))]),
    )
    const [first, second] = fragmentsOf(layout.placed[0]!)
    const [own] = picturesIn(first!)
    expect([own!.picture.width, own!.picture.height]).toEqual([60, 45])
    expect(first!.paragraph.lines[0]!.height).toBeGreaterThan(45)
    expect(own!.y + 45).toBeCloseTo(lineTop(first!, first!.paragraph.lines[0]!) + first!.paragraph.lines[0]!.baseline)
    const { width, margins } = defaultSetup
    expect(picturesIn(second!)[0]!.picture.width).toBeCloseTo(width - margins.left - margins.right)
  })

  test("takes no width from other columns in the flow view", () => {
    const row = [[p(picture({ width: 900 }))], [p("Slack water")]]
    const layout = layoutDocument(typesetter(), document([table([row], { columns: [200, 200] })]), {
      mode: "flow",
      width: 340,
      margin: 12,
    })
    const [own] = tablesOf(layout.placed[0]!)
    expect(own!.columns[1]).toBeCloseTo(own!.width / 2, 1)
    expect(picturesIn(fragmentsOf(layout.placed[0]!)[0]!)[0]!.picture.width).toBeLessThan(own!.columns[1]!)
  })

  test("is never higher than its sheet, so that it stays where it is", () => {
    const layout = layoutDocument(typesetter(), document([p(picture({ width: 300, height: 4000 })), p("behind")]))
    const { height, margins } = defaultSetup
    expect(picturesIn(fragmentsOf(layout.placed[0]!)[0]!)[0]!.picture.height).toBeLessThan(
      height - margins.top - margins.bottom,
    )
    expect(layout.placed.length).toBeLessThanOrEqual(2)
  })

  test("is cropped and turned in proportion", () => {
    const crop = { top: 0, bottom: 0.5, left: 0, right: 0 }
    expect(pictureSize(picture({ width: 80, crop }))).toEqual({ width: 80, height: 30 })
    const layout = layoutDocument(typesetter(), document([p(picture({ width: 80, turn: 90 }))]))
    const [own] = picturesIn(fragmentsOf(layout.placed[0]!)[0]!)
    expect([Math.round(own!.picture.box.width), Math.round(own!.picture.box.height)]).toEqual([60, 80])
  })
})

describe("a picture beside the text", () => {
  const beside = (format: Partial<PictureFormat>) =>
    layoutDocument(
      typesetter(),
      document([p(picture({ width: 160, wrap: "beside", ...format }), words.repeat(12)), p(words.repeat(6))]),
    )
  /** Left edges and ends of the lines beside it. */
  const lines = (layout: Layout) => {
    const [placed] = layout.placed as [PlacedSheet]
    const [own] = floatsOn(placed)
    return fragmentsOf(placed).flatMap((fragment) =>
      fragment.paragraph.lines.slice(fragment.from, fragment.to).flatMap((line) => {
        const top = lineTop(fragment, line)
        return top < own!.y + own!.picture.box.height && top + line.height > own!.y
          ? [[fragment.x + line.x, fragment.x + line.x + line.width] as const]
          : []
      }),
    )
  }

  test("has text at its left where it stands right, and the other way round", () => {
    const right = beside({})
    const [own] = floatsOn(right.placed[0]!)
    expect(own!.x + own!.picture.width).toBeCloseTo(defaultSetup.width - defaultSetup.margins.right)
    for (const [, end] of lines(right)) expect(end).toBeLessThanOrEqual(own!.x - 9 + 0.01)
    const left = beside({ across: { of: "column", align: "left", at: 0 } })
    for (const [start] of lines(left)) expect(start).toBeGreaterThanOrEqual(defaultSetup.margins.left + 169 - 0.01)
  })

  test("has no text beside it where it stands across, and does not matter where it is over or under", () => {
    expect(lines(beside({ wrap: "across" }))).toEqual([])
    const plain = layoutDocument(typesetter(), document([p(words.repeat(12))]))
    const over = layoutDocument(typesetter(), document([p(words.repeat(12), picture({ width: 160, wrap: "over" }))]))
    const ends = (layout: Layout) => fragmentsOf(layout.placed[0]!)[0]!.paragraph.lines.map(({ to }) => to)
    expect(ends(over).slice(0, -1)).toEqual(ends(plain).slice(0, -1))
  })

  test("is passed by its outline where it is round", () => {
    const ends = lines(beside({ shape: "round", height: 160 })).map(([, end]) => end)
    expect(Math.max(...ends) - Math.min(...ends)).toBeGreaterThan(30)
  })

  describe("amid the text", () => {
    const amid = (
      format: Partial<PictureFormat> = {},
      paragraphFormat: Partial<ParagraphFormat> = {},
      more: Node[] = [],
    ) =>
      layoutDocument(
        typesetter(),
        document([
          paragraph(
            "body",
            [
              picture({
                width: 100,
                height: 90,
                wrap: "beside",
                across: { of: "column", align: "center", at: 0 },
                ...format,
              }),
              ...more,
              words.repeat(9),
            ],
            paragraphFormat,
          ),
          p(words.repeat(2)),
        ]),
      )
    /** Lines in rows: those that stand side by side, with their edges on the sheet. */
    const rows = (layout: Layout) => {
      const [fragment] = fragmentsOf(layout.placed[0]!)
      const { lines } = fragment!.paragraph
      const found: { left: number; right: number; from: number }[][] = []
      lines.forEach((line, n) => {
        const own = { left: fragment!.x + line.x, right: fragment!.x + line.x + line.width, from: line.from }
        if (standsBeside(lines, n)) found.at(-1)!.push(own)
        else found.push([own])
      })
      return found
    }

    test("text stands on both sides of it, line by line across it", () => {
      const layout = amid({}, { align: "justify" })
      const [own] = floatsOn(layout.placed[0]!)
      const divided = rows(layout).filter((row) => row.length === 2)
      expect(divided.length).toBeGreaterThan(4)
      for (const [left, right] of divided) {
        expect(left!.left).toBeCloseTo(defaultSetup.margins.left)
        expect(left!.right).toBeCloseTo(own!.x - 9)
        expect(right!.left).toBeCloseTo(own!.x + 109)
        expect(right!.from).toBeGreaterThan(left!.from)
      }
      expect(rows(layout).at(-1)).toHaveLength(1)
    })

    test("from right to left, the right side comes first", () => {
      const [row] = rows(amid({}, { direction: "rtl", align: "right" })).filter((own) => own.length === 2)
      expect(row![0]!.left).toBeGreaterThan(row![1]!.right)
    })

    test("where one side is narrow, beside a letter as high as some lines, or if it is asked for, it stands on one side", () => {
      const narrow = amid({ across: { of: "column", align: null, at: 50 } })
      for (const layout of [
        narrow,
        amid({ side: "wider" }),
        amid({}, { dropCap: { lines: 3, distance: 4, family: null } }),
      ])
        expect(rows(layout).every((row) => row.length === 1)).toBe(true)
    })

    test("a point on either side means the text there, and each place is found where it is shown", () => {
      const layout = amid()
      const [placed] = layout.placed as [PlacedSheet]
      const [fragment] = fragmentsOf(placed)
      const { lines } = fragment!.paragraph
      for (const [n, line] of lines.entries())
        for (const offset of [line.from + 3, line.to - 2]) {
          const box = caretBox(fragment!, offset)!
          expect(lineOfOffset(fragment!.paragraph, offset)).toBe(n)
          expect(hit(placed, box.x + 0.2, box.y + box.height / 2)).toMatchObject({ leaf: 0, offset })
        }
    })

    test("larger letters on one side leave the rows below them clear", () => {
      const big = letters("Chains and ropes and tides and more of them", { size: 22 })
      const layout = amid({}, {}, [big])
      const boxes = fragmentsOf(layout.placed[0]!).flatMap((fragment) =>
        fragment.paragraph.lines.map((line) => ({
          left: fragment.x + line.x,
          right: fragment.x + line.x + line.width,
          top: lineTop(fragment, line),
          bottom: lineTop(fragment, line) + line.height,
        })),
      )
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1))
          expect(
            a.right > b.left + 0.1 && b.right > a.left + 0.1 && a.bottom > b.top + 0.1 && b.bottom > a.top + 0.1,
          ).toBe(false)
    })
  })

  test("tables stand below it, and in flow view it stands in its line", () => {
    const doc = document([p(picture({ width: 100, wrap: "beside" }), "Short."), table([[[p("a")], [p("b")]]]), p()])
    const { placed } = layoutDocument(typesetter(), doc)
    const [own] = floatsOn(placed[0]!)
    const cell = fragmentsOf(placed[0]!).find(({ cell: inCell }) => inCell)!
    expect(cell.y).toBeGreaterThanOrEqual(own!.y + own!.picture.height)
    const flow = layoutDocument(typesetter(), doc, { mode: "flow", width: 360, margin: 20 })
    expect([floatsOn(flow.placed[0]!).length, picturesIn(fragmentsOf(flow.placed[0]!)[0]!).length]).toEqual([0, 1])
  })
})

describe("a picture beside the text of a cell", () => {
  const format = { width: 60, wrap: "beside", across: { of: "column", align: "right", at: 0 } } as const
  const inCell = (own: Partial<PictureFormat>, text = words.repeat(4)) => {
    const rows = [
      [[p(picture(own), text)], [p("Slack water")]],
      [[p("Below")], [p("Ebb")]],
    ]
    return document([p("Before"), table(rows), p("After")])
  }

  test("is passed by that text alone, and keeps its row as high as it is", () => {
    const { placed } = layoutDocument(typesetter(), inCell(format))
    const [own] = floatsOn(placed[0]!)
    const [cells] = tablesOf(placed[0]!).map((one) => one.cells)
    const [first, second, below] = cells!
    expect(own!.cell).toMatchObject({ row: 0, column: 0 })
    expect(own!.x + 60).toBeCloseTo(first!.inside.x + first!.inside.width)
    const fragments = fragmentsOf(placed[0]!).filter(({ cell }) => cell?.leaf === first!.leaf)
    const lines = fragments.flatMap((one) =>
      one.paragraph.lines.map((line) => [lineTop(one, line), one.x + line.x + line.width]),
    )
    for (const [top, right] of lines) if (top! < own!.y + 45) expect(right).toBeLessThanOrEqual(own!.x - 9 + 0.01)
    expect(lines.some(([top]) => top! < own!.y + 45)).toBe(true)
    // The row is as high as the picture, though its text is short.
    const short = layoutDocument(typesetter(), inCell({ ...format, height: 200 }, "Short."))
    const [one, , under] = tablesOf(short.placed[0]!)[0]!.cells
    expect(one!.height).toBeGreaterThanOrEqual(200)
    expect(under!.y).toBeGreaterThanOrEqual(one!.y + 200)
    expect([second!.x > first!.x, below!.y > first!.y]).toEqual([true, true])
  })

  test("stands in its line in flow view and where lines rise; one in a head is shown again with it, and told once in the PDF", async () => {
    const flow = layoutDocument(typesetter(), inCell(format), { mode: "flow", width: 360, margin: 20 })
    expect([floatsOn(flow.placed[0]!).length, fragmentsOf(flow.placed[0]!).flatMap(picturesIn).length]).toEqual([0, 1])
    const rows = [
      [[p(picture({ ...format, alt: "A bell" }), words)]],
      ...Array.from({ length: 40 }, () => [[p(words)]]),
    ]
    const { placed } = layoutDocument(typesetter(), document([table(rows, { headRows: 1 })]))
    expect(placed.length).toBeGreaterThan(1)
    expect(placed.map((sheet) => floatsOn(sheet).map(({ cell }) => cell?.repeated))).toEqual([
      [false],
      ...placed.slice(1).map(() => [true]),
    ])
  })
})

const wrap = fc.constantFrom<PictureFormat["wrap"]>("line", "beside", "across", "under", "over")
const format: fc.Arbitrary<Partial<PictureFormat>> = fc.record({
  wrap,
  width: fc.integer({ min: 10, max: 700 }),
  height: fc.option(fc.integer({ min: 10, max: 900 })),
  shape: fc.constantFrom("plain" as const, "round" as const),
  side: fc.constantFrom("both" as const, "both" as const, "wider" as const, "left" as const, "right" as const),
  distance: fc.integer({ min: 0, max: 30 }),
  across: fc.record({
    of: fc.constantFrom("column" as const, "margins" as const, "sheet" as const),
    align: fc.option(fc.constantFrom("left" as const, "center" as const, "right" as const)),
    at: fc.integer({ min: -200, max: 500 }),
  }),
  down: fc.record({
    of: fc.constantFrom("paragraph" as const, "margins" as const, "sheet" as const),
    at: fc.integer({ min: -300, max: 900 }),
  }),
})
const block = fc.tuple(fc.option(format, { freq: 2 }), fc.nat(9), fc.nat(6)).map(([own, n, long]) => {
  const text =
    long > 4
      ? [words.repeat(long - 3), letters(words.slice(0, 9 * n) || "tide", { size: 8 + 2 * n })]
      : [words.repeat(long)]
  const format: Partial<ParagraphFormat> = n > 7 ? { direction: "rtl" } : n > 5 ? { align: "justify" } : {}
  const inside = own ? [`${n} `, picture(own), ...text] : [`${n} `, ...text]
  return paragraph(
    "body",
    inside.filter((piece) => piece !== ""),
    Object.keys(format).length > 0 ? format : null,
  )
})
/** Cells are set like columns. */
const grid = fc
  .array(fc.tuple(fc.array(block, { minLength: 1, maxLength: 3 }), fc.array(block, { minLength: 1, maxLength: 2 })), {
    minLength: 1,
    maxLength: 3,
  })
  .map((rows) => table(rows, { headRows: 0 }))
const documents = fc
  .tuple(
    fc.array(fc.oneof({ arbitrary: block, weight: 6 }, { arbitrary: grid, weight: 1 }), {
      minLength: 1,
      maxLength: 14,
    }),
    fc.constantFrom(1, 2),
  )
  .map(([blocks, count]) =>
    document(blocks, { setup: { ...defaultSetup, columns: { ...defaultSetup.columns, count } } }),
  )

/** What each leaf shows, in the order of the sheets. */
function textsOf(layout: Layout): string[] {
  const found: string[] = []
  for (const placed of layout.placed)
    for (const { leaf, paragraph: own, from, to } of fragmentsOf(placed))
      for (const line of own.lines.slice(from, to))
        found[leaf] = (found[leaf] ?? "") + own.text.slice(line.from, line.to)
  return found
}

test("wherever pictures stand, all text is there once, no line lies on one that it should keep clear of, none on another, and all on their sheet", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      checkDocument(doc)
      const layout = layoutDocument(typesetter(), doc)
      expect(textsOf(layout)).toEqual(leavesOf(doc).nodes.map(textOf))
      let pictures = 0
      for (const placed of layout.placed) {
        const boxes = fragmentsOf(placed).flatMap((fragment) =>
          fragment.paragraph.lines.slice(fragment.from, fragment.to).map((line) => ({
            left: fragment.x + line.x,
            right: fragment.x + line.x + line.width,
            top: lineTop(fragment, line),
            bottom: lineTop(fragment, line) + line.height,
          })),
        )
        for (const [i, a] of boxes.entries())
          for (const b of boxes.slice(Math.max(0, i - 4), i))
            if (a.right > b.left + 0.1 && b.right > a.left + 0.1)
              expect(Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)).toBeLessThan(0.1)
        const floats = floatsOn(placed)
        pictures += floats.length + fragmentsOf(placed).flatMap(picturesIn).length
        const moving = floats.filter(({ format: own }) => own.wrap === "beside" || own.wrap === "across")
        for (const own of floats) {
          expect(own.x).toBeGreaterThanOrEqual(-0.01)
          expect(own.x + own.picture.box.width).toBeLessThanOrEqual(placed.sheet.width + 0.01)
          expect(own.y + own.picture.box.height).toBeLessThanOrEqual(placed.sheet.height + 0.01)
        }
        for (const fragment of fragmentsOf(placed))
          for (const line of fragment.paragraph.lines.slice(fragment.from, fragment.to)) {
            if (line.width === 0) continue
            const [top, left] = [lineTop(fragment, line), fragment.x + line.x]
            for (const { x, y, picture: drawn } of moving) {
              // In another column than its own it moves nothing.
              if (x + drawn.box.width <= fragment.x || x >= fragment.x + fragment.width || drawn.shape === "round")
                continue
              const over =
                left < x + drawn.box.width - 0.1 &&
                left + line.width > x + 0.1 &&
                top < y + drawn.box.height - 0.1 &&
                top + line.height > y + 0.1
              expect(over && line.width > 40 ? `${top} ${y}` : null).toBeNull()
            }
          }
      }
      let all = 0
      doc.descendants((node) => void (all += node.type === nodes.picture ? 1 : 0))
      expect(pictures).toBe(all)
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 60) },
  )
})

test("layout with pictures from before equals layout from nothing", () => {
  fc.assert(
    fc.property(documents, fc.array(fc.tuple(fc.nat(20), block), { minLength: 1, maxLength: 4 }), (doc, edits) => {
      let layout: Layout | null = null
      let now = doc
      for (const [where, by] of [[0, null] as const, ...edits]) {
        const blocks = [...now.child(0).children]
        if (by) blocks.splice(where % (blocks.length + 1), where % 2, by)
        now = now.copy(now.content.replaceChild(0, document(blocks).child(0)))
        layout = layoutDocument(typesetter(), now, { mode: "sheets" }, layout)
      }
      expect(shown(layout!)).toEqual(shown(layoutDocument(typesetter(), now)))
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 40) },
  )
})

describe("pictures are put in and shaped", () => {
  const source = { asset, source: null, pixels: [400, 300] as const }
  test("one takes the place of the selection and is selected; values keep within their bounds", () => {
    const state = after(stateOf([p("Tides and times")], [0, 6], [0, 9]), insertPicture(source))
    const here = pictureHere(state)
    expect([textOf(leavesOf(state.doc).node(0)), here?.pos]).toEqual(["Tides \ufffc times", 8])
    const shaped = after(
      state,
      setPicture(8, { width: 1e9, turn: 999, crop: { top: 2, bottom: 2, left: -1, right: 0 }, alt: "x".repeat(9999) }),
    )
    expect(() => checkDocument(shaped.doc)).not.toThrow()
    expect(pictureAttrs(pictureHere(shaped)!.node).format).toMatchObject({ width: 4000, turn: 180 })
    expect(setPicture(3, { width: 20 })(state)).toBe(false)
    const other = after(shaped, replacePicture(8, { ...source, asset: "b".repeat(64) }))
    expect(pictureAttrs(pictureHere(other)!.node)).toMatchObject({ asset: "b".repeat(64), format: { turn: 180 } })
  })

  test("what is no number becomes one", () => {
    expect(fitPicture({ width: NaN, turn: NaN, opacity: 7, distance: -3 })).toEqual({
      width: null,
      turn: 0,
      opacity: 1,
      distance: 0,
    })
  })
})

/** A PNG of one colour, with or without its transparency. */
function png(width: number, height: number, alpha: boolean): Uint8Array {
  const samples = alpha ? 4 : 3
  const rows = new Uint8Array(height * (1 + width * samples)).fill(128)
  for (let y = 0; y < height; y++) rows[y * (1 + width * samples)] = 0
  const chunk = (name: string, data: Uint8Array) => {
    const own = new Uint8Array(12 + data.length)
    new DataView(own.buffer).setUint32(0, data.length)
    own.set(
      [...name].map((letter) => letter.charCodeAt(0)),
      4,
    )
    own.set(data, 8)
    return own
  }
  const head = new Uint8Array(13)
  new DataView(head.buffer).setUint32(0, width)
  new DataView(head.buffer).setUint32(4, height)
  head.set([8, alpha ? 6 : 2, 0, 0, 0], 8)
  const parts = [
    Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10),
    chunk("IHDR", head),
    chunk("IDAT", zlibSync(rows)),
    chunk("IEND", new Uint8Array()),
  ]
  return Uint8Array.from(parts.flatMap((part) => [...part]))
}

describe("pictures in a PDF", () => {
  const written = (bytes: Uint8Array | undefined) => {
    const layout = layoutOf(
      document([p("Two: ", picture({ width: 60, alt: "A buoy" }), picture({ width: 40, opacity: 0.5, shadow: true }))]),
    )
    return Buffer.from(pdfOf(layout, "Buoys", undefined, () => bytes)).toString("latin1")
  }
  test("one that is drawn twice is there once, with its transparency as a mask", () => {
    const file = written(png(8, 6, true))
    expect(file.match(/\/Subtype\/Image\/Width 8/g)).toHaveLength(2)
    expect(file.match(/\/SMask/g)).toHaveLength(1)
    expect(written(png(8, 6, false)).match(/\/Subtype\/Image\/Width 8[^>]*Predictor 15/g)).toHaveLength(1)
  })
  test("one that is damaged, or not to be had, leaves its place empty and the rest is written", () => {
    for (const bytes of [undefined, Uint8Array.of(0xff, 0xd8, 0xff), png(8, 6, true).slice(0, 40), new Uint8Array(40)])
      expect(written(bytes)).not.toContain("/Subtype/Image")
  })
})

test("a picture stands behind the text of each sheet, no larger than that, and is in the PDF once", () => {
  const watermark = {
    text: "x",
    family: "Lora",
    size: 400,
    angle: 30,
    colour: "#7a1f4b",
    strength: 0.2,
    picture: { asset, pixels: [8, 6] as [number, number] },
  }
  const doc = document([p("a"), p("b ".repeat(4000))], { setup: { ...defaultSetup, watermark } })
  checkDocument(doc)
  const layout = layoutOf(doc)
  const [own] = backdropOf(layout.placed[1]!)
  const [drawn] = picturesIn(own!)
  expect([own!.turn!.angle, drawn!.picture.opacity]).toEqual([30, 0.2])
  expect(drawn!.picture.width).toBeLessThan(defaultSetup.width)
  const file = Buffer.from(pdfOf(layout, "Marked", undefined, () => png(8, 6, false))).toString("latin1")
  expect(file.match(/\/Subtype\/Image/g)).toHaveLength(1)
})

test("a selection of a picture survives a document without it", () => {
  const state = EditorState.create({ doc: document([p("no picture")]) })
  expect([pictureHere(state), insertPicture({ asset, source: null, pixels: [1, 1] })(state)]).toEqual([null, true])
})
