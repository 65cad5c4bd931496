/** Layout and PDF against the browser's own, and keystrokes in documents of growing length. */
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import type { Browser } from "playwright-core"
import { Slice, type Node } from "prosemirror-model"
import { EditorState, Selection } from "prosemirror-state"
import { blockStarts, bodyOf, documentAttrs } from "@biblon/core/document"
import { editHistory, insertText, joining, undo } from "@biblon/core/editing"
import { Composition, layoutDocument, Typesetter } from "@biblon/core/layout"
import { faceFile, openFonts, openHyphenator, pdfOf } from "@biblon/core/node"
import { percentile } from "./browser"
import { writeHtml } from "@biblon/core/formats/html/writing"
import { prose, proseParagraphs, shaped } from "./text"

const words = 100_000

function html(): string {
  const font = readFileSync(faceFile("tinos/400Regular/Tinos_400Regular.ttf")).toString("base64")
  const bold = readFileSync(faceFile("tinos/700Bold/Tinos_700Bold.ttf")).toString("base64")
  const body = proseParagraphs(words).map((text, i) => `${i % 12 === 0 ? `<h1>Part ${i / 12 + 1}</h1>` : ""}<p>${text}</p>`)
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
  pdfVsChromium: number
  layoutMs: number
  pdfMs: number
  chromiumMs: number
  sheets: number
  keystrokeMs1: number
  keystrokeMs100: number
  keystrokeMs1000: number
  keystroke1000Vs1: number
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
function keystrokeMs(doc: Node): { median: number; sheets: number } {
  const typesetter = new Typesetter(openFonts(), openHyphenator())
  let state = EditorState.create({ doc })
  let layout = layoutDocument(typesetter, state.doc)
  const times: number[] = []
  // The same kind of paragraph in a short document and in a long one: the next one of plain text after the middle.
  const blocks = bodyOf(doc).children
  const half = Math.floor(blocks.length / 2)
  const middle = Math.max(half, blocks.findIndex((block, i) => i >= half && block.content.size > 250 && block.childCount === 1 && block.attrs.format === null))
  for (let i = 0; i < 300; i++) {
    const pos = (blockStarts(state.doc)[middle] as number) + 2 + (i % 10)
    state = state.apply(state.tr.insertText("e", pos))
    const start = performance.now()
    const composition = new Composition(typesetter, state.doc, { mode: "sheets" }, layout)
    while (!composition.step());
    layout = composition.layout
    times.push(performance.now() - start)
  }
  return { median: percentile(times, 0.5), sheets: layout.placed.length }
}

/** A document that uses everything, against Chromium with the same as HTML, in the faces that it names. */
async function measureShaped(browser: Browser) {
  const doc = shaped(words)
  const faces = ["tinos/400Regular/Tinos_400Regular", "tinos/700Bold/Tinos_700Bold", "eb-garamond/400Regular/EBGaramond_400Regular"].map((path) => `@font-face{font-family:"${path.startsWith("tinos") ? "Tinos" : "EB Garamond"}";font-weight:${path.includes("700") ? "bold" : "normal"};src:url(data:font/ttf;base64,${readFileSync(faceFile(`${path}.ttf`)).toString("base64")})}`)
  const source = `<!doctype html><html lang="en-GB"><meta charset="utf-8"><title>Shaped</title><style>${faces.join("")}@page{size:A4;margin:25mm}body{margin:0}p::first-letter{}</style>${writeHtml(new Slice(bodyOf(doc).content, 0, 0), documentAttrs(doc).styles)}`
  const chromium = Math.min(await chromiumMs(browser, source), await chromiumMs(browser, source))
  const start = performance.now()
  const layout = layoutDocument(new Typesetter(openFonts(), openHyphenator()), doc)
  const layoutMs = performance.now() - start
  const fonts = openFonts()
  const printing = performance.now()
  pdfOf(layout, "Shaped", fonts)
  const pdfMs = performance.now() - printing
  const perSheet = words / layout.placed.length
  const [one, thousand] = [keystrokeMs(shaped(perSheet * 0.9)), keystrokeMs(shaped(perSheet * 1000))]
  return { shapedLayoutVsChromium: layoutMs / chromium, shapedPdfVsChromium: pdfMs / chromium, shapedKeystrokeMs1000: thousand.median, shapedKeystroke1000Vs1: thousand.median / one.median }
}

export async function measureEngine(browser: Browser): Promise<EngineFigures> {
  const chromium = Math.min(await chromiumMs(browser, html()), await chromiumMs(browser, html()))
  // Cold: fonts are opened and every paragraph is set for the first time.
  const doc = prose(words)
  const start = performance.now()
  const layout = layoutDocument(new Typesetter(openFonts()), doc)
  const layoutMs = performance.now() - start
  const fonts = openFonts()
  const printing = performance.now()
  pdfOf(layout, "Prose", fonts)
  const pdfMs = performance.now() - printing
  const perSheet = words / layout.placed.length
  const one = keystrokeMs(prose(perSheet * 0.9))
  const hundred = keystrokeMs(prose(perSheet * 100))
  const thousand = keystrokeMs(prose(perSheet * 1000))
  return {
    historyKb: historyKb(),
    layoutVsChromium: layoutMs / chromium,
    pdfVsChromium: pdfMs / chromium,
    layoutMs,
    pdfMs,
    chromiumMs: chromium,
    sheets: layout.placed.length,
    keystrokeMs1: one.median,
    keystrokeMs100: hundred.median,
    keystrokeMs1000: thousand.median,
    keystroke1000Vs1: thousand.median / one.median,
    ...(await measureShaped(browser)),
  }
}
