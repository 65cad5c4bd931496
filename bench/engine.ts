/** Layout and PDF against the browser's own, and keystrokes in documents of growing length. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import type { Browser } from "playwright-core"
import { Slice, type Node } from "prosemirror-model"
import { EditorState, Selection } from "prosemirror-state"
import { bodyOf, documentAttrs, leavesOf, p } from "@biblon/core/document"
import { editHistory, insertText, joining, undo } from "@biblon/core/editing"
import { Composition, layoutDocument, type LayoutSpec } from "@biblon/core/layout"
import { faceFile, openTypesetter } from "@biblon/core/node"
import { percentile } from "./figures"
import type { ColdFigures } from "./cold"
import { writeHtml } from "@biblon/core/formats/html/writing"
import { prose, proseParagraphs, shaped, wideParagraphs } from "./text"

const words = 100_000

function html(texts: readonly string[]): string {
  const font = readFileSync(faceFile("tinos/400Regular/Tinos_400Regular.ttf")).toString("base64")
  const bold = readFileSync(faceFile("tinos/700Bold/Tinos_700Bold.ttf")).toString("base64")
  const body = texts.map((text, i) => `${i % 12 === 0 ? `<h1>Part ${i / 12 + 1}</h1>` : ""}<p>${text}</p>`)
  return `<!doctype html><meta charset="utf-8"><title>Prose</title><style>
@font-face{font-family:T;src:url(data:font/ttf;base64,${font})}
@font-face{font-family:T;font-weight:bold;src:url(data:font/ttf;base64,${bold})}
@page{size:A4;margin:25mm}body{margin:0;font:12pt/1.44 T;orphans:2;widows:2}p{margin:0 0 8pt}h1{font-size:18pt;margin:20pt 0 6pt;break-after:avoid}</style>${body.join("")}`
}

/** What history alone holds after 5,000 letters in 500 changes and as many undos, in kB of memory. */
function historyKb(): number {
  const gc = (globalThis as { gc?: () => void }).gc
  if (!gc) return NaN
  const used = () => {
    gc()
    return process.memoryUsage().heapUsed / 1024
  }
  let state = EditorState.create({ doc: prose(100), plugins: [editHistory()] })
  const before = used()
  for (let i = 0; i < 5000; i++) {
    if (i % 10 === 0) state = state.apply(state.tr.setSelection(Selection.atStart(state.doc)))
    insertText("e")(state, (tr) => (state = state.apply(joining(tr, "typed"))))
  }
  while (undo(state, (tr) => (state = state.apply(tr))));
  const after = used()
  // The state is still in use here, so that it was counted.
  return state.doc.childCount > 0 ? after - before : NaN
}

export interface EngineFigures {
  historyKb: number
  layoutVsChromium: number
  /** The same with a vocabulary of 20,000 words. */
  wideLayoutVsChromium: number
  /** What the layout holds a sheet. */
  memoryKbSheet: number
  /** Columns, heads, notes and contents, against Chromium’s of the plain text. */
  everythingLayoutVsChromium: number
  pdfVsChromium: number
  layoutMs: number
  pdfMs: number
  chromiumMs: number
  sheets: number
  keystrokeMs1: number
  keystrokeMs100: number
  keystrokeMs1000: number
  keystroke1000Vs1: number
  /** The command from text to PDF, against Chromium. */
  processVsChromium: number
  switchMs: number
  switchColdMs: number
  /** The same for a document that uses all of typography on each sheet. */
  shapedLayoutVsChromium: number
  shapedPdfVsChromium: number
  shapedKeystrokeMs1000: number
  shapedKeystroke1000Vs1: number
}

/** Loading, laying out and printing the same text as HTML. */
async function chromiumMs(browser: Browser, source: string): Promise<number> {
  const path = join(mkdtempSync(join(tmpdir(), "biblon-bench-")), "prose.html")
  writeFileSync(path, source)
  const page = await browser.newPage()
  const start = performance.now()
  await page.goto(`file://${path}`)
  await page.pdf({ preferCSSPageSize: true, tagged: true, outline: true })
  const took = performance.now() - start
  await page.close()
  return took
}

/** Milliseconds of layout after one letter typed in the middle, the median of many. */
function keystrokeMs(doc: Node): number {
  const typesetter = openTypesetter()
  const middle = Math.floor(leavesOf(doc).count / 2)
  // The same paragraph in a short document and in a long one.
  const began = EditorState.create({ doc })
  let state = began.apply(began.tr.insert(leavesOf(doc).before(middle), p(proseParagraphs(70)[0] as string)))
  let layout = layoutDocument(typesetter, state.doc)
  const times: number[] = []
  for (let i = 0; i < 300; i++) {
    const pos = leavesOf(state.doc).start(middle) + 1 + (i % 10)
    state = state.apply(state.tr.insertText("e", pos))
    const start = performance.now()
    const composition = new Composition(typesetter, state.doc, { mode: "sheets" }, layout)
    while (!composition.step());
    layout = composition.layout
    times.push(performance.now() - start)
  }
  return percentile(times, 0.5)
}

/** Milliseconds to set 1,500 paragraphs on sheets, and to come back to them from the flow view. */
function switching(): { switchMs: number; switchColdMs: number } {
  const typesetter = openTypesetter()
  const doc = prose(1500 * 70)
  const timed = (spec: LayoutSpec) => {
    const start = performance.now()
    layoutDocument(typesetter, doc, spec)
    return performance.now() - start
  }
  const switchColdMs = timed({ mode: "sheets" })
  timed({ mode: "flow", width: 360, margin: 20 })
  return { switchMs: timed({ mode: "sheets" }), switchColdMs }
}

/** Certificates that a machine adds for Node's connections are read at each start, a tenth of a second; the command makes none. */
const { NODE_EXTRA_CA_CERTS: _, ...env } = process.env

/** The command from text to PDF as a whole process, in a folder with the text. */
function processMs(folder: string): number {
  const [from, to] = [join(folder, "prose.txt"), join(folder, "prose.pdf")]
  const start = performance.now()
  execFileSync(process.execPath, ["apps/server/bin/biblon.mjs", "convert", from, to], { env })
  return performance.now() - start
}

type Kind = "prose" | "wide" | "shaped" | "everything"

/** In a process of its own, begun like the command that ships. */
function cold(kind: Kind): ColdFigures {
  const printed = execFileSync(process.execPath, ["--expose-gc", "bench/cold.mjs", kind], { encoding: "utf8" })
  return JSON.parse(printed) as ColdFigures
}

interface Turn {
  chromiumMs: number
  own: ColdFigures
}

/** Chromium’s printing of a text as HTML and our cold layout and PDF of it, by turns, as how fast the machine is changes within minutes; `more` is measured beside them. */
async function byTurns<More>(browser: Browser, kind: Kind, source: string, more: () => More): Promise<(Turn & More)[]> {
  const turns: (Turn & More)[] = []
  for (let turn = 0; turn < 5; turn++)
    turns.push({ ...more(), chromiumMs: await chromiumMs(browser, source), own: cold(kind) })
  return turns
}

/** The median of a value of each turn. */
function median<T>(turns: readonly T[], value: (turn: T) => number): number {
  return percentile(turns.map(value), 0.5)
}

/** A document that uses everything, against Chromium with the same as HTML, in the faces that it names. */
async function measureShaped(browser: Browser) {
  const doc = shaped(words)
  const faces = [
    "tinos/400Regular/Tinos_400Regular",
    "tinos/700Bold/Tinos_700Bold",
    "eb-garamond/400Regular/EBGaramond_400Regular",
  ].map(
    (path) =>
      `@font-face{font-family:"${path.startsWith("tinos") ? "Tinos" : "EB Garamond"}";font-weight:${path.includes("700") ? "bold" : "normal"};src:url(data:font/ttf;base64,${readFileSync(faceFile(`${path}.ttf`)).toString("base64")})}`,
  )
  const source = `<!doctype html><html lang="en-GB"><meta charset="utf-8"><title>Shaped</title><style>${faces.join("")}@page{size:A4;margin:25mm}body{margin:0}</style>${writeHtml(new Slice(bodyOf(doc).content, 0, 0), documentAttrs(doc).styles)}`
  const turns = await byTurns(browser, "shaped", source, () => ({}))
  const { sheets } = (turns[0] as Turn).own
  const [one, thousand] = [keystrokeMs(shaped((words / sheets) * 0.8)), keystrokeMs(shaped((words / sheets) * 1000))]
  return {
    shapedLayoutVsChromium: median(turns, (turn) => turn.own.layoutMs / turn.chromiumMs),
    shapedPdfVsChromium: median(turns, (turn) => turn.own.pdfMs / turn.chromiumMs),
    shapedKeystrokeMs1000: thousand,
    shapedKeystroke1000Vs1: thousand / one,
  }
}

export async function measureEngine(browser: Browser): Promise<EngineFigures> {
  const folder = mkdtempSync(join(tmpdir(), "biblon-bench-"))
  writeFileSync(join(folder, "prose.txt"), proseParagraphs(words).join("\n\n"))
  const turns = await byTurns(browser, "prose", html(proseParagraphs(words)), () => ({
    everythingMs: cold("everything").layoutMs,
    processMs: processMs(folder),
  }))
  const { sheets, memoryKb } = (turns[0] as Turn).own
  const wide = await byTurns(browser, "wide", html(wideParagraphs(words)), () => ({}))
  const [one, hundred, thousand] = [0.8, 100, 1000].map((n) => keystrokeMs(prose((words / sheets) * n))) as [
    number,
    number,
    number,
  ]
  return {
    historyKb: historyKb(),
    layoutVsChromium: median(turns, (turn) => turn.own.layoutMs / turn.chromiumMs),
    wideLayoutVsChromium: median(wide, (turn) => turn.own.layoutMs / turn.chromiumMs),
    memoryKbSheet: memoryKb,
    everythingLayoutVsChromium: median(turns, (turn) => turn.everythingMs / turn.chromiumMs),
    pdfVsChromium: median(turns, (turn) => turn.own.pdfMs / turn.chromiumMs),
    layoutMs: median(turns, (turn) => turn.own.layoutMs),
    pdfMs: median(turns, (turn) => turn.own.pdfMs),
    chromiumMs: median(turns, (turn) => turn.chromiumMs),
    sheets,
    keystrokeMs1: one,
    keystrokeMs100: hundred,
    keystrokeMs1000: thousand,
    keystroke1000Vs1: thousand / one,
    processVsChromium: median(turns, (turn) => turn.processMs / turn.chromiumMs),
    ...switching(),
    ...(await measureShaped(browser)),
  }
}
