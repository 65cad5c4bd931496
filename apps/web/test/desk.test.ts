/** The parts of the desk that need no screen: keys, tools, symbols, the mirror of the layout, the paragraph set ahead. */
import { readFileSync } from "node:fs"
import { EditorState } from "prosemirror-state"
import { document as makeDocument, leavesOf, p, valuesNow } from "@biblon/core/document"
import {
  Composition,
  FontLibrary,
  fragmentsOf,
  HarfBuzz,
  Typesetter,
  type Layout,
  type PlacedSheet,
} from "@biblon/core/layout"
import { faceFile, openFonts, wasmFile } from "@biblon/core/node"
import { shippedFaces } from "@biblon/core/layout/catalogue"
import { answers, findTools } from "../src/commands/search"
import { findSymbols } from "../src/desk/symbols"
import { EagerTypesetter } from "../src/desk/view/eager"
import { Stack } from "../src/desk/view/stack"
import { LayoutMirror } from "../src/workers/layoutMirror"
import type { LayoutReport } from "../src/workers/protocol"
import { Sending, Tables } from "../src/workers/sending"
import { linkWords } from "../src/desk/linkWords"
import { savingWords } from "../src/desk/savingWords"

describe("finding a tool", () => {
  const tools = [
    { name: "Bold", words: "strong heavy thick" },
    { name: "Justify", words: "align block both sides" },
    { name: "Undo", words: "back revert" },
    { name: "Sheet view", words: "paper page" },
  ]
  const names = (typed: string) => findTools(tools, typed).map((t) => t.name)

  test("goes by the name first, then by other words, and every word has to fit", () => {
    expect(names("bo")).toEqual(["Bold", "Justify"])
    expect(names("thick")).toEqual(["Bold"])
    expect(names("page view")).toEqual(["Sheet view"])
    expect(names("page bold")).toEqual([])
    expect(names("  ")).toEqual(["Bold", "Justify", "Undo", "Sheet view"])
    expect(answers(tools[3]!, "view")).toBe(3)
  })
})

test("symbols are found by all words of their name, by themselves and by their number", () => {
  const categories = [
    {
      name: "Arrows",
      items: [
        ["→", "rightwards arrow"],
        ["⇒", "rightwards double arrow"],
      ] as [string, string][],
    },
    { name: "Greek", items: [["ω", "greek small letter omega"]] as [string, string][] },
  ]
  const found = (typed: string) => findSymbols(categories, typed).map(([char]) => char)
  expect(found("arrow right")).toEqual(["→", "⇒"])
  expect(found("double")).toEqual(["⇒"])
  expect(found("ω")).toEqual(["ω"])
  expect(found("U+21D2")).toEqual(["⇒"])
  expect(found("03c9")).toEqual(["ω"])
  expect(found("none such")).toEqual([])
})

test("where a link leads is said for people", () => {
  expect(
    ["https://ferry.example/a%20b", "mailto:imre@ferry.example", "#Conclusion", "https://ferry.example/%E0%A4%A"].map(
      linkWords,
    ),
  ).toEqual(["ferry.example/a b", "imre@ferry.example", "Conclusion", "ferry.example/%E0%A4%A"])
})

test("the state of saving is said in words", () => {
  expect(savingWords({ kind: "saved", at: null }).words).toBe("Saved")
  expect(savingWords({ kind: "saved", at: new Date(2026, 10, 25, 14, 5).getTime() }).words).toBe("Saved 14:05")
  expect(savingWords({ kind: "offline", kept: true })).toMatchObject({
    words: "Offline: kept on this device",
    tone: "ochre",
  })
  expect(savingWords({ kind: "offline", kept: false }).tone).toBe("madder")
  expect(savingWords({ kind: "postponed", reason: "x", kept: true }).words).toBe("Not saved: tried again")
  expect(savingWords({ kind: "postponed", reason: "x", kept: false })).toMatchObject({
    words: "Not saved: stay on this page",
    tone: "madder",
  })
})

describe("sheets side by side", () => {
  const n = 5
  const table = {
    ids: Uint32Array.from({ length: n }, (_, i) => i),
    leaves: new Uint32Array(n),
    within: new Uint8Array(n),
    widths: new Float64Array(n).fill(600),
    heights: new Float64Array(n).fill(800),
  }
  const stack = new Stack(table, { scale: 0.5, flow: false, width: 1000, columns: 2, rowHeight: null })

  test("lie in rows, the last one under the first column", () => {
    expect([0, 1, 2, 3, 4].map((i) => [stack.left(i), stack.top(i)])).toEqual([
      [190, 20],
      [510, 20],
      [190, 440],
      [510, 440],
      [190, 860],
    ])
    expect(stack.height).toBe(1280)
  })

  test("are found by a point", () => {
    expect(
      [
        [200, 30],
        [520, 30],
        [495, 30],
        [999, 450],
        [0, 9999],
        [999, 9999],
      ].map(([x, y]) => stack.indexAt(x!, y!)),
    ).toEqual([0, 1, 0, 3, 4, 4])
    expect([0, 439, 440, 2000].map((y) => stack.rowAt(y))).toEqual([0, 0, 2, 4])
  })

  test("in reading view each row fills the screen", () => {
    const reading = new Stack(table, { scale: 0.5, flow: false, width: 1000, columns: 2, rowHeight: 500 })
    expect([reading.top(0), reading.top(2), reading.height]).toEqual([50, 550, 1500])
  })
})

describe("the mirror of the layout and the paragraph set ahead of it", () => {
  const typesetter = new Typesetter(openFonts(), null, valuesNow)
  /** A report as the worker makes it for a page that holds nothing yet, of sheets up to `to`. */
  const report = (layout: Layout, seq: number, to: number): LayoutReport => ({
    type: "report",
    seq,
    complete: true,
    table: new Tables().of(layout.placed),
    wanted: { from: 0, to, sight: { from: 0, to }, asked: 0 },
    held: { from: 0, to },
    ...new Sending(typesetter).of(layout, { from: 0, to }),
  })
  const lay = (state: EditorState, previous: Layout | null = null) => {
    const composition = new Composition(typesetter, state.doc, { mode: "sheets" }, previous)
    while (!composition.step());
    return composition.layout
  }
  const text = "The Trust has now completed the survey of the east slipway and writes to apply for the mooring rights. "
  // Labels stay the same from one document to the next, so that each story begins with its own.
  const begun = () => EditorState.create({ doc: makeDocument(Array.from({ length: 60 }, () => p(text.repeat(2)))) })

  beforeAll(() => {
    const paths = new Map(shippedFaces().map((face) => [`/fonts/${face.id}.ttf`, faceFile(face.path)]))
    const answer = (bytes: Buffer) => ({
      ok: true,
      arrayBuffer: async () => bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength),
    })
    Object.assign(globalThis, {
      fetch: async (url: string) => answer(readFileSync(paths.get(url) ?? wasmFile("harfbuzz"))),
    })
    WebAssembly.compileStreaming = async (response) =>
      new WebAssembly.Module(await (await (response as unknown as Promise<Response>)).arrayBuffer())
  })

  test("holds just the sheets in range and puts their paragraphs together again", () => {
    const state = begun()
    const layout = lay(state)
    const mirror = new LayoutMirror()
    mirror.take(report(layout, 1, 3))
    expect([mirror.count, fragmentsOf(mirror.placed(0)!)[0]?.paragraph.text, mirror.placed(3)]).toEqual([
      layout.placed.length,
      text.repeat(2),
      undefined,
    ])
    mirror.take({ ...report(layout, 1, 1), sheets: [], paragraphs: [] })
    expect([mirror.placed(0) !== undefined, mirror.placed(1)]).toEqual([true, undefined])
  })

  const spec = { mode: "sheets" } as const
  const warm = async (mirror: LayoutMirror) => {
    const eager = new EagerTypesetter()
    await eager.warm(mirror)
    return eager
  }
  /** What stands where, whoever has set it. */
  const look = (placed: PlacedSheet | undefined) =>
    placed &&
    fragmentsOf(placed).map(({ leaf, part, x, y, from, to, paragraph: { lines, text } }) => {
      const set = lines.slice(from, to).map((line) => [line.from, line.to, line.x, line.width])
      return { leaf, part, x, y, text, set }
    })
  const looks = (placed: readonly (PlacedSheet | undefined)[]) => placed.map(look)

  test("shows a letter at once, exactly as the worker will, until its report comes", async () => {
    const state = begun()
    const typed = state.apply(state.tr.insertText("x", 10))
    const layout = lay(state)
    const mirror = new LayoutMirror()
    mirror.take(report(layout, 1, 2))
    expect(new EagerTypesetter().set(state.doc, typed.doc, mirror, spec, 2)).toBeNull()
    const ahead = (await warm(mirror)).set(state.doc, typed.doc, mirror, spec, 2)!
    const { table } = mirror
    mirror.anticipate(ahead, 2)
    expect([[...ahead.keys()], mirror.table === table]).toEqual([[0], true])
    expect(mirror.placed(0)).toBe(mirror.placed(0))
    const after = lay(typed, layout)
    expect(look(mirror.placed(0))).toEqual(look(after.placed[0]))
    mirror.take(report(layout, 1, 2))
    expect(look(mirror.placed(0))).toEqual(look(after.placed[0]))
    mirror.take(report(after, 2, 2))
    expect(mirror.placed(0)!.sheet.id).toBe(after.placed[0]!.sheet.id)
  })

  test("shows it on all sheets that its paragraph runs over, once they are here", async () => {
    const long = EditorState.create({ doc: makeDocument([p(text.repeat(45)), p(text)]) })
    const typedThere = long.apply(long.tr.insertText("x", 10))
    const layout = lay(long)
    const [some, all] = [new LayoutMirror(), new LayoutMirror()]
    some.take(report(layout, 1, 1))
    all.take(report(layout, 1, 2))
    const eager = await warm(all)
    expect(eager.set(long.doc, typedThere.doc, some, spec, 1)).toBeNull()
    all.anticipate(eager.set(long.doc, typedThere.doc, all, spec, 2)!, 2)
    expect(looks([0, 1].map((i) => all.placed(i)))).toEqual(looks(lay(typedThere, layout).placed.slice(0, 2)))
  })

  test("composes the sheets that a new line changes, as far as they are seen, and a letter behind it on top of them", async () => {
    const state = begun()
    const layout = lay(state)
    const mirror = new LayoutMirror()
    mirror.take(report(layout, 1, 5))
    const eager = await warm(mirror)
    const longer = state.apply(state.tr.insertText(text, 10))
    const ahead = eager.set(state.doc, longer.doc, mirror, spec, 2)!
    mirror.anticipate(ahead, 2)
    const after = lay(longer, layout)
    expect([...ahead.keys()]).toEqual([0])
    expect(looks([0, 1].map((i) => mirror.placed(i)))).toEqual(looks(after.placed.slice(0, 2)))
    expect([...mirror.table.leaves].slice(0, 2)).toEqual(after.placed.slice(0, 2).map(({ leaf }) => leaf))
    const more = longer.apply(longer.tr.insertText("x", leavesOf(longer.doc).start(1) + 3))
    mirror.anticipate(eager.set(longer.doc, more.doc, mirror, spec, 2)!, 3)
    const both = looks(lay(more, after).placed.slice(0, 2))
    expect(looks([0, 1].map((i) => mirror.placed(i)))).toEqual(both)
    mirror.take(report(after, 2, 5))
    expect(looks([0, 1].map((i) => mirror.placed(i)))).toEqual(both)
  })

  test("keeps them only as long as sheets begin where they began", async () => {
    const state = begun()
    const layout = lay(state)
    const mirror = new LayoutMirror()
    mirror.take(report(layout, 1, 5))
    const typedThere = state.apply(state.tr.insertText("x", leavesOf(state.doc).start(layout.placed[1]!.leaf + 2)))
    mirror.anticipate((await warm(mirror)).set(state.doc, typedThere.doc, mirror, spec, 2)!, 3)
    const isAhead = () => mirror.placed(1)!.sheet.id < 0
    expect(isAhead()).toBe(true)
    mirror.take(report(layout, 2, 5))
    expect(isAhead()).toBe(true)
    mirror.take(report(lay(state.apply(state.tr.insertText(text.repeat(8), 1))), 2, 5))
    expect(isAhead()).toBe(false)
  })

  test("leaves it to the worker where more may move: more blocks, other styles, sheets that are not here", async () => {
    const state = begun()
    const mirror = new LayoutMirror()
    mirror.take(report(lay(state), 1, 2))
    const eager = await warm(mirror)
    const divided = state.apply(state.tr.split(10))
    const two = state.apply(state.tr.insertText("x", 10).insertText("y", leavesOf(state.doc).node(0).nodeSize + 10))
    const outOfSight = state.apply(state.tr.insertText("x", state.doc.content.size - 20))
    const styled = state.apply(state.tr.setDocAttribute("styles", { ...state.doc.attrs.styles }))
    const foreign = state.apply(state.tr.insertText("Ω😀", 10))
    for (const other of [divided, two, outOfSight, styled, foreign])
      expect(eager.set(state.doc, other.doc, mirror, spec, 2)).toBeNull()
  })

  test("composes nothing of sheets that are not here", async () => {
    const state = begun()
    const layout = lay(state)
    const [whole, few] = [new LayoutMirror(), new LayoutMirror()]
    whole.take(report(layout, 1, 3))
    few.take(report(layout, 1, 1))
    const eager = await warm(whole)
    const longer = state.apply(state.tr.insertText(text, 10))
    const sets = [whole, few].map((mirror) => eager.set(state.doc, longer.doc, mirror, spec, 2) !== null)
    expect(sets).toEqual([true, false])
  })
})

test("a face that cannot be had fails by name", () => {
  const fonts = new FontLibrary(new HarfBuzz(readFileSync(wasmFile("harfbuzz"))), (id) => {
    throw new Error(`no ${id}`)
  })
  expect(() => fonts.font("Tinos-regular")).toThrow("no Tinos-regular")
})
