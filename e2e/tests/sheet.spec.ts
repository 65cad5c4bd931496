import { readFileSync } from "node:fs"
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs"
import { expect, test, type DeskPage } from "../desk"
import { expectPrintsAsSeen } from "../pictures"

const openPdf = async (desk: DeskPage) =>
  getDocument({ data: new Uint8Array(readFileSync(await desk.pdf())), useSystemFonts: false, verbosity: 0 }).promise

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "

/** A document of some sheets. */
async function long(desk: DeskPage): Promise<void> {
  await desk.blank()
  await desk.page.evaluate((text) => navigator.clipboard.writeText(text), `${sentence.repeat(6)}\n`.repeat(24).trim())
  await desk.press("Control+v")
  await expect(desk.page.getByRole("contentinfo")).toContainText(/Sheet [3-9] of/)
  await desk.press("Control+Home")
  await expect(desk.page.getByRole("contentinfo")).toContainText(/Sheet 1 of [3-9]/)
}

test("numbers go where one taps in the drawing; head and foot are written on the sheet and printed as seen", async ({
  desk,
  page,
}) => {
  await long(desk)
  const tray = await desk.openPage("Sheet", "Head, foot")
  await tray.getByRole("button", { name: "Number at the foot, middle" }).click()
  await tray.getByLabel("Written as").selectOption("%1 of %2")
  await expect(page.locator(".block.footer").first()).toHaveText(/^1 of [3-9]$/)
  await desk.settled()
  // Two clicks at the top of the sheet begin its head.
  const sheet = (await desk.firstSheet.boundingBox())!
  await page.mouse.dblclick(sheet.x + 200, sheet.y + 40)
  await expect(page.getByRole("status").filter({ hasText: "Head of the sheets" })).toBeVisible()
  await desk.type("Minutes\t\tSaltmarsh Ferry Trust")
  await expect(page.locator(".block.header").first()).toContainText("Saltmarsh Ferry Trust")
  await desk.press("Escape")
  await expect(page.getByRole("button", { name: "Back to the text" })).toBeHidden()
  await desk.type("Tides. ")
  await expect(page.locator(".block.text").first()).toContainText("Tides. The chain ferry")
  // One click on what is written there leads in, one in the text leads out.
  await page.locator(".block.header .run").first().click()
  await expect(page.getByRole("button", { name: "Back to the text" })).toBeVisible()
  await desk.press("End")
  await desk.type("!")
  await expect(page.locator(".block.header").nth(1)).toContainText("Trust!")
  await page.locator(".block.text .run").first().click()
  await expect(page.getByRole("button", { name: "Back to the text" })).toBeHidden()
  await tray.getByRole("switch", { name: "A first sheet of its own" }).click()
  await expect(page.locator(".sheet").first().locator(".header, .footer")).toHaveCount(0)
  await desk.press("Control+z")
  await expect(page.locator(".sheet").first().locator(".header")).toHaveCount(1)
  await expectPrintsAsSeen(desk)
  await page.reload()
  await expect(page.locator(".block.header").first()).toContainText("Trust!")
})

test("front matter in Roman figures, then the body from 1: the PDF's labels follow", async ({ desk, page }) => {
  await long(desk)
  const edges = await desk.openPage("Sheet", "Head, foot")
  await edges.getByRole("button", { name: "Number at the foot, right" }).click()
  await edges.getByLabel("Figures").selectOption("lowerRoman")
  await expect(page.locator(".block.footer").first()).toHaveText("i")
  await page.locator(".block.text .run").nth(8).click()
  await (await desk.openPage("Sheet", "Columns")).getByRole("button", { name: "On a new sheet" }).click()
  await desk.openPage("Sheet", "Head, foot")
  await edges.getByRole("button", { name: "This section", exact: true }).click()
  await edges.getByLabel("Figures").selectOption("decimal")
  await edges.getByRole("switch", { name: "Count anew here" }).click()
  await expect.poll(() => page.locator(".block.footer").allTextContents()).toEqual(expect.arrayContaining(["i", "1"]))
  const pdf = await openPdf(desk)
  expect((await pdf.getPageLabels())?.slice(0, 3)).toEqual(["i", "1", "2"])
})

test("a newsletter: two columns below a title, then a section sideways; each section deleted like a letter", async ({
  desk,
  page,
}) => {
  await long(desk)
  await desk.type("Slack water")
  await desk.press("Enter")
  const tray = await desk.openPage("Sheet", "Columns")
  await tray.getByRole("button", { name: "Same sheet" }).click()
  await tray.getByRole("button", { name: "This section" }).click()
  await tray.getByRole("button", { name: "Two", exact: true }).click()
  const lefts = () =>
    page
      .locator(".sheet")
      .first()
      .locator(".block")
      .evaluateAll((all) => [...new Set(all.map((own) => Math.round(own.getBoundingClientRect().left)))].length)
  await expect.poll(lefts).toBe(2)
  await desk.press("Control+End")
  await desk.openPage("Sheet", "Paper")
  await tray.getByRole("button", { name: "From here on" }).click()
  await tray.getByRole("button", { name: "Sideways" }).click()
  await expect(page.getByRole("contentinfo")).toContainText(/Sheet (\d+) of \1/)
  const pdf = await openPdf(desk)
  const size = async (n: number) => (await pdf.getPage(n)).view.slice(2).map(Math.round)
  expect([await size(1), await size(pdf.numPages)]).toEqual([
    [595, 842],
    [842, 595],
  ])
  await desk.openPage("Sheet", "Paper")
  await page.locator(".block.text .run").last().click()
  await desk.press("Control+End")
  await expect(page.getByRole("button", { name: "Sideways" })).toHaveAttribute("aria-pressed", "true")
  await desk.press("Home", "Backspace")
  await expect(page.getByRole("button", { name: "Upright" })).toHaveAttribute("aria-pressed", "true")
  await desk.press("Control+z")
  await expect(page.getByRole("button", { name: "Sideways" })).toHaveAttribute("aria-pressed", "true")
})

test("margins that leave no room are limited, and the stage says so; each setting is one undo", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Tides")
  const tray = await desk.openPage("Sheet", "Paper")
  await tray.getByRole("textbox", { name: "Left" }).fill("100cm")
  await tray.getByRole("textbox", { name: "Left" }).press("Enter")
  await expect(tray.getByRole("status")).toContainText("limited")
  await expect(page.locator(".block.text")).toHaveText("Tides")
  await page.getByRole("button", { name: "Undo" }).click()
  await tray.getByLabel("Paper", { exact: true }).selectOption("A5")
  await expect
    .poll(async () => (await openPdf(desk)).getPage(1).then((own) => Math.round(own.view[2] as number)))
    .toBe(420)
  await desk.openPage("Sheet", "Paper")
  await tray.getByRole("button", { name: "Sand" }).click()
  await expect(desk.firstSheet).toHaveCSS("background-color", "rgb(244, 227, 181)")
  await page.getByRole("button", { name: "Undo" }).click()
  await expect(desk.firstSheet).toHaveCSS("background-color", "rgb(255, 255, 255)")
})

test("footnotes are typed at the foot of the sheet, numbered by their marks, and printed, linked and tagged", async ({
  desk,
  page,
}) => {
  await long(desk)
  const tray = page.getByRole("region", { name: "Place", exact: true })
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).click()
  await page.locator(".block.text .run").nth(2).click()
  await desk.press("End")
  await tray.getByRole("button", { name: "Footnote" }).click()
  await desk.type("From the toll book.")
  await expect(page.locator(".block.note")).toContainText("1From the toll book.")
  await desk.press("Escape")
  await page.locator(".block.text .run").first().click()
  await desk.press("Home", "Control+Alt+n")
  await desk.type("An earlier one.")
  await expect
    .poll(() => page.locator(".block.note").allTextContents())
    .toEqual(["1An earlier one.", "2From the toll book."])
  await desk.press("Escape", "!")
  await expect(page.locator(".block.text").first()).toContainText("1!The chain ferry")
  // A press into a note leads there.
  await page.locator(".block.note .run").last().click()
  await desk.press("End", "?")
  await expect(page.locator(".block.note").nth(1)).toContainText("toll book.?")
  await desk.press("Escape")
  const pdf = await openPdf(desk)
  const first = await pdf.getPage(1)
  const links = (await first.getAnnotations()).filter(({ subtype, dest }) => subtype === "Link" && dest)
  // From each mark to its note, and back.
  expect(links.length).toBe(4)
  expect(JSON.stringify(await first.getStructTree())).toContain('"role":"Note"')
  await desk.press("Control+Home")
  await page.locator(".block.text .run").first().click()
  await desk.press("Home", "Delete")
  await expect.poll(() => page.locator(".block.note").allTextContents()).toEqual(["1From the toll book.?"])
  await page.reload()
  await expect(page.locator(".block.note")).toContainText("toll book.?")
})

test("contents are put in by one press, follow every change by themselves, and lead to their headings", async ({
  desk,
  page,
}) => {
  await long(desk)
  await desk.press("Control+Alt+j")
  await desk.press("Control+End", "Enter")
  await desk.type("Timetable")
  await desk.press("Control+Alt+j", "Control+Home")
  const tray = await desk.openPage("Structure", "Outline")
  await tray.getByRole("button", { name: "Put the contents here" }).click()
  const entries = page.locator(".block.generated")
  await expect(entries).toHaveCount(2)
  await expect(entries.nth(1)).toHaveText(/^Timetable[4-9]$/)
  const before = await entries.nth(1).textContent()
  await desk.press("Control+Home", "Control+Enter", "Control+Home")
  await expect(entries.nth(1)).not.toHaveText(before!)
  const now = await entries.nth(1).textContent()
  await entries.nth(1).click()
  await expect(page.locator(".block[role=heading]", { hasText: "Timetable" })).toBeVisible()
  await expect(page.getByRole("contentinfo")).toContainText(`Sheet ${now!.replace(/\D/g, "")} of`)
  // The first one stands right behind the contents.
  await desk.press("Control+Home")
  await entries.first().click()
  await expect(page.locator(".block[role=heading]").first()).toBeVisible()
  await expect(page.getByRole("contentinfo")).toContainText("Sheet 2 of")
  const pdf = await openPdf(desk)
  const links = await Promise.all(
    [1, 2, 3].map(async (n) => (await (await pdf.getPage(n)).getAnnotations()).filter(({ dest }) => dest).length),
  )
  expect(links.reduce((a, b) => a + b)).toBeGreaterThanOrEqual(2)
  await desk.openPage("Structure", "Outline")
  await tray.getByRole("button", { name: "Take the contents away" }).click()
  await expect(tray.getByRole("button", { name: "Put the contents here" })).toBeVisible()
})

test("from the foot line one goes to a sheet by its number, to a heading by its words, to the mark of a note", async ({
  desk,
  page,
}) => {
  await long(desk)
  await desk.press("Control+End", "Enter")
  await desk.type("Timetable of slack water")
  await desk.press("Control+Alt+j", "Control+Home")
  const foot = page.getByRole("contentinfo")
  await foot.getByRole("button", { name: /^Sheet 1 of/ }).click()
  const card = page.getByRole("form", { name: "Go to" })
  await card.getByRole("textbox").fill("2")
  await expect(card.getByRole("button")).toHaveText(/^Sheet 2 of [3-9]$/)
  await desk.press("Enter")
  await expect(card).toBeHidden()
  await expect(page.locator(".sheet[aria-label^='Sheet 2 of']")).toBeInViewport({ ratio: 0.4 })
  await desk.press("Control+Alt+g")
  await card.getByRole("textbox").fill("slack water")
  await card.getByRole("button", { name: "Timetable of slack water" }).click()
  await expect(page.locator(".block[role=heading]")).toBeInViewport()
  await desk.type("! ")
  await expect(page.locator(".block[role=heading]")).toHaveText(/^! Timetable/)
  await desk.press("Control+Alt+g")
  await card.getByRole("textbox").fill("nowhere")
  await expect(card).toContainText("No sheet, section, part, heading, note or place is called that.")
  await desk.press("Escape")
  await expect(card).toBeHidden()
  await expect(desk.field).toBeFocused()
})

test("Enter pressed many times to reach a new sheet is answered by the offer of one", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Tides")
  await desk.press(...Array.from({ length: 7 }, () => "Enter"))
  await page.getByRole("button", { name: "Begin a new sheet" }).click()
  await desk.type("Timetable")
  await desk.expectShown("Tides", "Timetable")
  await expect(page.getByRole("contentinfo")).toContainText("Sheet 2 of 2")
  await desk.press("Enter", "Enter", "Enter", "Enter", "Enter", "Enter", "Enter")
  await page.getByRole("button", { name: "Leave them" }).click()
  await desk.press("Enter", "Enter")
  await expect(page.getByRole("button", { name: "Begin a new sheet" })).toBeHidden()
})
