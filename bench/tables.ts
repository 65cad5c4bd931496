/** Tables that grow, against themselves and against the browser's own, and a key in a long one. */
import { readFileSync, writeFileSync, mkdtempSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import type { Browser } from "playwright-core"
import type { Node } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import { document, leavesOf, paragraph, table } from "@biblon/core/document"
import { settle } from "@biblon/core/editing"
import { layoutDocument } from "@biblon/core/layout"
import { faceFile, openTypesetter } from "@biblon/core/node"
import { launch } from "./browser"
import { percentile } from "./figures"
import { opened, paintMs, startApp } from "./desk"

export interface TableFigures {
  /** Time a row in 10,000 rows of eight cells, against 1,000. */
  tableLinear: number
  /** A letter in the middle of 10,000 rows: made whole and laid out. */
  tableLayoutKeyMs: number
  /** The same in the browser, from the key to its glyph, as work without the wait for the display; the median, and p95. */
  tableKeyMs: number
  tableKeyP95Ms: number
  /** 10,000 rows opened to the first sheet. */
  tableOpenMs: number
  /** Layout of 2,000 rows against Chromium loading and printing them as HTML. */
  tableVsChromium: number
}

const words = (row: number) => [
  `${row + 1}`,
  `Crossing ${row + 1}`,
  ["Ebb", "Flood", "Slack"][row % 3] as string,
  `${(row * 7) % 40} passengers`,
  ["Ash", "Wren", "Lode"][row % 3] as string,
  `${(row * 13) % 60} minutes`,
  row % 5 === 0 ? "The chain was oiled before the first crossing" : "Nothing to note",
  `${((row * 31) % 900) / 10}`,
]

const tight = { spaceBefore: 0, spaceAfter: 0 }

/** Rows of eight cells under a head. */
export function longTable(rows: number): Node {
  return document([
    table([
      ["No.", "What", "Tide", "Who", "Hauled by", "Took", "Note", "Due"].map((own) => [
        paragraph("body", [own], tight),
      ]),
      ...Array.from({ length: rows }, (_, row) => words(row).map((own) => [paragraph("body", [own], tight)])),
    ]),
  ])
}

function layoutMs(doc: Node): number {
  const typesetter = openTypesetter()
  const start = performance.now()
  layoutDocument(typesetter, doc)
  return performance.now() - start
}

/** The least of some, taken in turns with those that it is compared with. */
function least(turns: number, ...acts: (() => number)[]): number[] {
  const times = acts.map(() => Infinity)
  for (let turn = 0; turn < turns; turn++) acts.forEach((act, i) => (times[i] = Math.min(times[i] as number, act())))
  return times
}

function keyMs(doc: Node): number {
  const typesetter = openTypesetter()
  let state = EditorState.create({ doc })
  let layout = layoutDocument(typesetter, state.doc)
  const middle = Math.floor(leavesOf(doc).count / 2)
  const times: number[] = []
  for (let i = 0; i < 60; i++) {
    const start = performance.now()
    const typed = state.tr.insertText("e", leavesOf(state.doc).start(middle) + 1)
    state = state.apply(settle(typed))
    layout = layoutDocument(typesetter, state.doc, { mode: "sheets" }, layout)
    times.push(performance.now() - start)
  }
  return percentile(times, 0.5)
}

async function chromiumMs(browser: Browser, rows: number): Promise<number> {
  const font = readFileSync(faceFile("tinos/400Regular/Tinos_400Regular.ttf")).toString("base64")
  const row = (cells: readonly string[], tag: string) =>
    `<tr>${cells.map((own) => `<${tag}>${own}</${tag}>`).join("")}</tr>`
  const path = join(mkdtempSync(join(tmpdir(), "biblon-bench-")), "table.html")
  writeFileSync(
    path,
    `<!doctype html><meta charset="utf-8"><title>Table</title><style>
@font-face{font-family:T;src:url(data:font/ttf;base64,${font})}
@page{size:A4;margin:25mm}body{margin:0;font:11pt/1.3 T}table{table-layout:fixed;width:100%;border-collapse:collapse}
td,th{border:.5pt solid;padding:2pt 4pt;text-align:left;vertical-align:top;overflow-wrap:anywhere}tr{break-inside:avoid}</style>
<table><thead>${row(["No.", "What", "Tide", "Who", "Hauled by", "Took", "Note", "Due"], "th")}</thead><tbody>${Array.from(
      { length: rows },
      (_, i) => row(words(i), "td"),
    ).join("")}</tbody></table>`,
  )
  const page = await browser.newPage()
  const start = performance.now()
  await page.goto(`file://${path}`)
  await page.pdf({ preferCSSPageSize: true, tagged: true })
  const took = performance.now() - start
  await page.close()
  return took
}

export async function measureTables(browser: Browser): Promise<TableFigures> {
  const [thousand, twoThousand] = [longTable(1000), longTable(2000)]
  const tenThousand = longTable(10_000)
  const [few, some, many] = least(
    3,
    () => layoutMs(thousand),
    () => layoutMs(twoThousand),
    () => layoutMs(tenThousand),
  ) as [number, number, number]
  const theirs = Math.min(await chromiumMs(browser, 2000), await chromiumMs(browser, 2000))
  const { app, address } = await startApp()
  const url = `${address}/d/${app.store.create(tenThousand, "Ten thousand rows", Date.now()).id}`
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  const { seen: tableOpenMs } = await opened(page, url)
  await page.waitForFunction(
    () => !/…/.test(globalThis.document.querySelector("[role=contentinfo]")?.textContent ?? "…"),
  )
  // In the upper part of the first cell whose text is long enough to be pressed in.
  const typed = await paintMs(page, 60, { nth: 15 })
  await context.close()
  await app.close()
  return {
    tableLinear: many / 10 / few,
    tableLayoutKeyMs: keyMs(tenThousand),
    tableKeyMs: percentile(typed.work, 0.5),
    tableKeyP95Ms: percentile(typed.work, 0.95),
    tableOpenMs,
    tableVsChromium: some / theirs,
  }
}

if (process.argv[1]?.endsWith("tables.ts")) {
  const browser = await launch()
  console.log(JSON.stringify(await measureTables(browser), null, 2))
  await browser.close()
}
