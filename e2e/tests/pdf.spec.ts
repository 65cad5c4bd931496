import { execFileSync } from "node:child_process"
import { readFileSync } from "node:fs"
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs"
import { unzip } from "../../packages/core/src/formats/zip"
import { expect, expectAccessible, test } from "../desk"

const open = (path: string) =>
  getDocument({ data: new Uint8Array(readFileSync(path)), useSystemFonts: false, verbosity: 0 }).promise

test("the PDF has the sheets and the lines of the screen, each where the screen has it", async ({ desk, page }) => {
  await desk.openNamed("Letter to the harbour master")
  await page.evaluate(() => document.fonts.ready)
  const path = await desk.pdf()
  expect(path).toMatch(/Letter to the harbour master\.pdf$/)
  // Lines on the screen, in points from the sheet's upper left corner.
  const screen = await page.evaluate(() => {
    const sheet = document.querySelector(".sheet")!.getBoundingClientRect()
    const scale = sheet.width / 595.276
    return [...document.querySelectorAll(".sheet")[0]!.querySelectorAll(".line")].flatMap((line) => {
      const runs = [...line.querySelectorAll(".run")]
      const strut = runs[0]
      if (!strut) return []
      const node = [...strut.childNodes].find((n) => n.nodeType === Node.TEXT_NODE)!
      const range = document.createRange()
      range.selectNode(node)
      return [
        {
          text: line.textContent!.trimEnd(),
          x: (range.getBoundingClientRect().left - sheet.left) / scale,
          top: (line.getBoundingClientRect().top - sheet.top) / scale,
        },
      ]
    })
  })
  const pdf = await open(path)
  const content = await (await pdf.getPage(1)).getTextContent()
  const lines = new Map<number, { x: number; text: string }>()
  for (const item of content.items) {
    if (!("str" in item) || item.str === "") continue
    const y = Math.round((841.89 - (item.transform[5] as number)) * 10) / 10
    const line = lines.get(y)
    if (line) line.text += item.str
    else lines.set(y, { x: item.transform[4] as number, text: item.str })
  }
  const printed = [...lines.entries()].sort((a, b) => a[0] - b[0])
  expect(printed.map(([, l]) => l.text.replace(/\s+/g, " ").trimEnd())).toEqual(
    screen.map((l) => l.text.replace(/\s+/g, " ")),
  )
  for (const [i, [y, { x }]] of printed.entries()) {
    const line = screen[i]!
    expect(Math.abs(x - line.x), line.text).toBeLessThan(0.2)
    expect(y - line.top, line.text).toBeGreaterThan(0)
    expect(y - line.top, line.text).toBeLessThan(40)
  }
})

test("the PDF of a long paper: clean file, title and language, bookmarks, structure, page count", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Tides and timetables")
  const sheets = Number(/of (\d+)/.exec((await page.getByText(/^Sheet 1 of \d+$/).textContent()) ?? "")?.[1])
  const path = await desk.pdf()
  expect(execFileSync("qpdf", ["--check", path], { encoding: "utf8" })).toContain(
    "No syntax or stream encoding errors found",
  )
  const pdf = await open(path)
  expect(pdf.numPages).toBe(sheets)
  expect(sheets).toBeGreaterThanOrEqual(12)
  expect((await pdf.getMetadata()).info).toMatchObject({
    Title: "Tides and timetables",
    Author: "Nell Caddow",
    Language: "en-GB",
  })
  const outline = await pdf.getOutline()
  expect(outline.map((o) => o.title)).toEqual([
    "Introduction",
    "The estuary and its water",
    "Three ways of telling the time",
    "The printed timetable",
    "Living in two times",
    "What the Trust might learn",
    "Conclusion",
    "Notes on the evidence",
  ])
  expect(outline[1]?.items.map((o) => o.title)).toEqual([
    "The shape of the channel",
    "The rhythm of springs and neaps",
    "What counts as late",
  ])
  const structure = JSON.stringify(await (await pdf.getPage(1)).getStructTree())
  expect(structure).toContain('"role":"H1"')
  expect(structure).toContain('"role":"P"')
  const fonts = execFileSync("pdffonts", [path], { encoding: "utf8" }).trim().split("\n").slice(2)
  for (const font of fonts) expect(font).toMatch(/CID TrueType\s+Identity-H\s+yes yes yes/)
})

test("text copies out of the PDF as it was written: ligatures, accents, other scripts, emoji", async ({ desk }) => {
  const text = "Office efficient flow naïve café Ωμέγα Привет 👩‍🚀 😀 ✓ ∑"
  await desk.blank()
  await desk.type(text)
  await desk.saved()
  const path = await desk.pdf()
  expect(execFileSync("pdftotext", [path, "-"], { encoding: "utf8" }).trim()).toBe(text)
})

test("printing opens the same PDF", async ({ desk, page }) => {
  await desk.openNamed("Letter to the harbour master")
  await page.locator(".sheet").first().click()
  await desk.press("Control+p")
  const frame = page.locator('iframe[title="The document to be printed"]')
  await expect(frame).toHaveCount(1)
  const kind = await page.evaluate(async () => {
    const { src } = document.querySelector<HTMLIFrameElement>('iframe[title="The document to be printed"]')!
    const blob = await (await fetch(src)).blob()
    return { type: blob.type, head: await blob.slice(0, 8).text() }
  })
  expect(kind).toEqual({ type: "application/pdf", head: "%PDF-1.7" })
})

test("sheets lie on paper as they were drawn: a booklet of some of them", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const tray = page.getByRole("region", { name: "Deliver" })
  await tray.getByRole("button", { name: "How it lies on the paper" }).click()
  await tray.getByLabel("Sheets", { exact: true }).selectOption("These")
  await tray.getByRole("textbox", { name: "Numbers, such as 1-3, 7" }).fill("9-5-1")
  await expect(tray.getByText("These name no sheets.")).toBeVisible()
  await expect(tray.getByRole("button", { name: "Print so" })).toBeDisabled()
  await tray.getByRole("textbox", { name: "Numbers, such as 1-3, 7" }).fill("1-4")
  await tray.getByRole("button", { name: "Booklet" }).click()
  await expect(tray.getByRole("img", { name: "Side 1: 4, 1" })).toBeVisible()
  await expect(tray.getByRole("img", { name: "Side 2: 2, 3" })).toBeVisible()
  await expectAccessible(page)
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    tray.getByRole("button", { name: "Save so as PDF" }).click(),
  ])
  const told = execFileSync("pdfinfo", [await file.path()], { encoding: "utf8" })
  expect(told).toMatch(/Pages:\s+2[\s\S]*Page size:\s+841\.8\d* x 595/)
})

test("the sheets go out as pictures: one as it is, several in an archive", async ({ desk, page }) => {
  const save = async () => {
    await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: /Save as pictures/ }).click(),
    ])
    await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) }
  }
  await desk.blank()
  await desk.type("The ferry runs.")
  const one = await save()
  expect(one.name).toBe("Document.png")
  expect([...one.bytes.subarray(1, 4)].map((own) => String.fromCharCode(own)).join("")).toBe("PNG")
  // A4 at 150 dots an inch.
  expect([one.bytes.readUInt32BE(16), one.bytes.readUInt32BE(20)]).toEqual([1240, 1754])
  await page.locator(".run", { hasText: "The ferry runs." }).click()
  await desk.press("Control+Enter")
  await desk.type("And back.")
  const two = await save()
  expect(two.name).toBe("Document.zip")
  expect([...unzip(new Uint8Array(two.bytes)).keys()]).toEqual(["1.png", "2.png"])
})

test("PDFs are made for archives once that is asked for, also after a reload", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Minutes of the trustees")
  const button = page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver" })
  const toggle = page.getByRole("switch", { name: /^For archives/ })
  await button.click()
  await expect(toggle).not.toBeChecked()
  await toggle.click()
  await expect(toggle).toBeChecked()
  await button.click()
  await desk.saved()
  await page.reload()
  await expect(desk.firstSheet).toBeVisible()
  const path = await desk.pdf()
  const told = execFileSync("pdfinfo", ["-meta", path], { encoding: "utf8" })
  expect(told).toMatch(/<pdfaid:part>3<.*<pdfaid:conformance>B</)
})
