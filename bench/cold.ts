/** Layout and PDF of 100,000 words in a process that has done nothing else; prints milliseconds as JSON. Begun by cold.mjs. */
import { layoutDocument } from "@biblon/core/layout"
import { openFonts, openTypesetter, pdfOf } from "@biblon/core/node"
import { everything, prose, shaped, wideParagraphs } from "./text"

export interface ColdFigures {
  layoutMs: number
  pdfMs: number
  sheets: number
  /** What the layout holds a sheet, in kB; NaN without --expose-gc. */
  memoryKb: number
}

const total = 100_000
const docs = {
  prose: () => prose(total),
  wide: () => prose(total, wideParagraphs(total)),
  shaped: () => shaped(total),
  everything: () => everything(total),
}
const make = docs[process.argv[2] as keyof typeof docs]
const doc = make()
const typesetter = openTypesetter()
const used = () => {
  const gc = (globalThis as { gc?: () => void }).gc
  if (!gc) return NaN
  // What only something that has just gone held goes with the next one.
  for (let i = 0; i < 4; i++) gc()
  const { heapUsed, arrayBuffers } = process.memoryUsage()
  return (heapUsed + arrayBuffers) / 1024
}
const start = performance.now()
const layout = layoutDocument(typesetter, doc)
const layoutMs = performance.now() - start
const fonts = openFonts()
const printing = performance.now()
pdfOf(layout, "Measured", fonts)
const pdfMs = performance.now() - printing
// A second layout, so that the program itself and what it knows by now are not counted.
const again = make()
const before = used()
const sheets = layoutDocument(typesetter, again).placed
const memoryKb = (used() - before) / sheets.length
const figures: ColdFigures = { layoutMs, pdfMs, sheets: sheets.length, memoryKb }
console.log(JSON.stringify(figures))
