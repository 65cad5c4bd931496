/** Pictures of sheets: from the screen and from a PDF, compared by how much ink lies where. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { expect, type Locator, type Page } from "@playwright/test"
import type { DeskPage } from "./desk"

/** What pictures are taken with that show the text alone: without the caret, which comes and goes, what is marked and what says where something begins. */
export const textAlone = ".canvas :is(.caret, .marks, .break) { visibility: hidden !important }"

/** Darkness from 0 to 1 of each cell of a sheet, row by row. */
export interface Ink {
  columns: number
  rows: number
  cells: number[]
}

/** Cells over a sheet: letters are a cell or two wide, so that what is off by one shows, but not how edges are smoothed. */
const columns = 64

function gather(width: number, height: number, darkness: (x: number, y: number) => number): Ink {
  const cell = width / columns
  const rows = Math.floor(height / cell)
  const sums = new Float64Array(columns * rows)
  const counts = new Float64Array(columns * rows)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [column, row] = [Math.floor(x / cell), Math.floor(y / cell)]
      if (column >= columns || row >= rows) continue
      const at = row * columns + column
      sums[at]! += darkness(x, y)
      counts[at]! += 1
    }
  return { columns, rows, cells: [...sums].map((sum, i) => sum / (counts[i] || 1)) }
}

/** What a sheet looks like on the screen. */
const screenInk = async (page: Page, sheet: Locator) => inkOf(page, await sheet.screenshot({ animations: "disabled" }))

/** What a picture in PNG shows. */
export async function inkOf(page: Page, picture: Buffer): Promise<Ink> {
  const png = picture.toString("base64")
  const { width, height, grey } = await page.evaluate(async (data) => {
    const blob = new Blob([Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0))], { type: "image/png" })
    const bitmap = await createImageBitmap(blob)
    const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext("2d")!
    context.drawImage(bitmap, 0, 0)
    const { data: pixels } = context.getImageData(0, 0, bitmap.width, bitmap.height)
    const grey = Uint8Array.from({ length: pixels.length / 4 }, (_, i) =>
      Math.round(0.299 * pixels[4 * i]! + 0.587 * pixels[4 * i + 1]! + 0.114 * pixels[4 * i + 2]!),
    )
    // As text: a list of so many numbers takes seconds to come over.
    let text = ""
    for (let at = 0; at < grey.length; at += 8192) text += String.fromCharCode(...grey.subarray(at, at + 8192))
    return { width: bitmap.width, height: bitmap.height, grey: btoa(text) }
  }, png)
  const bytes = Buffer.from(grey, "base64")
  return gather(width, height, (x, y) => 1 - bytes[y * width + x]! / 255)
}

/** What a page of a PDF looks like, at a width in pixels. */
function pdfInk(path: string, pageNumber: number, width: number): Ink {
  const stem = join(mkdtempSync(join(tmpdir(), "biblon-page-")), "page")
  execFileSync("pdftoppm", [
    "-gray",
    "-f",
    String(pageNumber),
    "-l",
    String(pageNumber),
    "-singlefile",
    "-scale-to-x",
    String(width),
    "-scale-to-y",
    "-1",
    path,
    stem,
  ])
  const bytes = readFileSync(`${stem}.pgm`)
  // P5, width, height and the lightest value, then one byte a pixel.
  const header = /^P5\s+(\d+)\s+(\d+)\s+(\d+)\s/.exec(bytes.subarray(0, 60).toString("latin1"))!
  const [w, h] = [Number(header[1]), Number(header[2])]
  const start = header[0].length
  return gather(w, h, (x, y) => 1 - bytes[start + y * w + x]! / 255)
}

/** The cell in which two pictures differ most, and the mean over all cells. */
export function difference(a: Ink, b: Ink): { worst: number; at: string; mean: number } {
  const n = Math.min(a.cells.length, b.cells.length)
  let worst = 0
  let at = 0
  let sum = 0
  for (let i = 0; i < n; i++) {
    const off = Math.abs(a.cells[i]! - b.cells[i]!)
    if (off > worst) [worst, at] = [off, i]
    sum += off
  }
  return {
    worst,
    at: `${at % a.columns} of ${a.columns} across, ${Math.floor(at / a.columns)} of ${a.rows} down`,
    mean: sum / n,
  }
}

/** Saves the open document, which shows its sheets, as a PDF and compares every sheet of it with the screen. */
export async function expectPrintsAsSeen(desk: DeskPage): Promise<void> {
  const { page } = desk
  await desk.saved()
  const path = await desk.pdf()
  const whole = page.getByRole("button", { name: "Whole", exact: true })
  if (await whole.isVisible()) await whole.click()
  // Without caret, tints and signs of breaks, which no PDF has.
  await page.getByRole("main").focus()
  await page.locator(".canvas").evaluate((canvas) => canvas.classList.add("reading"))
  await page.evaluate(() => document.fonts.ready)
  await desk.settled()
  const label = await desk.firstSheet.getAttribute("aria-label")
  const count = Number(/\d+$/.exec(label!)![0])
  for (let i = 0; i < count; i++) {
    // Those far from what is in sight are not there.
    const sheet = page.getByLabel(`Sheet ${i + 1} of ${count}`, { exact: true })
    await sheet.scrollIntoViewIfNeeded()
    await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
    const width = Math.round((await sheet.boundingBox())!.width)
    const { worst, at, mean } = difference(await screenInk(page, sheet), pdfInk(path, i + 1, width))
    // A letter that is missing, or off by its own width, fills a cell; edges smoothed otherwise do not (the finer the sheet, the more they do).
    expect(worst, `sheet ${i + 1}, ${at}`).toBeLessThan(width < 500 ? 0.3 : 0.2)
    expect(mean, `sheet ${i + 1}`).toBeLessThan(width < 500 ? 0.018 : 0.012)
  }
}
