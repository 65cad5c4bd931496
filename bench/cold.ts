/** Layout and PDF of 100,000 words in a process that has done nothing else: `node --import tsx bench/cold.ts prose|shaped` prints milliseconds as JSON. */
import { layoutDocument } from "@biblon/core/layout"
import { openFonts, openTypesetter, pdfOf } from "@biblon/core/node"
import { prose, shaped } from "./text"

export interface ColdFigures {
  layoutMs: number
  pdfMs: number
  sheets: number
}

const doc = (process.argv[2] === "shaped" ? shaped : prose)(100_000)
const start = performance.now()
const layout = layoutDocument(openTypesetter(), doc)
const layoutMs = performance.now() - start
const fonts = openFonts()
const printing = performance.now()
pdfOf(layout, "Measured", fonts)
const figures: ColdFigures = { layoutMs, pdfMs: performance.now() - printing, sheets: layout.placed.length }
console.log(JSON.stringify(figures))
