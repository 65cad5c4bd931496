import { expect, test } from "../desk"

test("letters: on the selection, and for what is typed next; buttons show on, off and mixed", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await page.getByRole("button", { name: "Write" }).click()
  const tray = page.getByRole("region", { name: "Write" })
  const bold = tray.getByRole("button", { name: /^Bold/ })
  await desk.type("The hull was launched")
  await desk.saved()
  await desk.selectWord("hull")
  await expect(bold).toHaveAttribute("aria-pressed", "false")
  await bold.click()
  await expect(bold).toHaveAttribute("aria-pressed", "true")
  await desk.press("Control+i", "Control+u")
  await desk.press("Control+a")
  await expect(bold).toHaveAttribute("aria-pressed", "mixed")
  await expect(tray.getByRole("button", { name: /^Italic/ })).toHaveAttribute("aria-pressed", "mixed")
  await desk.press("End", "Control+b")
  await desk.type(" twice")
  await desk.press("Control+b")
  await desk.type(".")
  expect((await desk.stored())[0]?.runs).toEqual([
    { text: "The ", marks: {} },
    { text: "hull", marks: { bold: true, italic: true, underline: "single" } },
    { text: " was launched", marks: {} },
    { text: " twice", marks: { bold: true } },
    { text: ".", marks: {} },
  ])
  const hull = page.locator(".run", { hasText: /^hull$/ })
  await expect(hull).toHaveCSS("font-family", "Tinos-boldItalic")
  await expect(page.locator(".rule")).toHaveCount(1)
})

test("typeface, size and colour; the list of typefaces shows each in its own face and stays open", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await page.getByRole("button", { name: "Write" }).click()
  const tray = page.getByRole("region", { name: "Write" })
  await desk.type("Saltmarsh")
  await desk.press("Control+a")
  await tray.getByRole("button", { name: /^Typeface/ }).click()
  const options = tray.getByRole("option")
  expect(await options.count()).toBeGreaterThanOrEqual(20)
  await expect(options.filter({ hasText: "EB Garamond" }).locator("span").first()).toHaveCSS(
    "font-family",
    "EBGaramond-regular",
  )
  await options.filter({ hasText: "EB Garamond" }).click()
  await tray.getByRole("combobox", { name: "Find a typeface" }).fill("ari")
  await options.filter({ hasText: "Arimo" }).click()
  await expect(options.filter({ hasText: "Arimo" }).first()).toHaveAttribute("aria-selected", "true")
  const size = tray.getByRole("textbox", { name: "Size" })
  await size.fill("31,5")
  await size.press("Enter")
  await tray.getByRole("button", { name: "Size: more" }).click()
  await tray.getByRole("button", { name: "Murex" }).click()
  const run = page.locator(".run")
  await expect(run).toHaveCSS("font-family", "Arimo-regular")
  await expect(run).toHaveCSS("font-size", "64px")
  await expect(run).toHaveCSS("color", "rgb(122, 31, 75)")
  await size.fill("many")
  await size.press("Enter")
  await expect(size).toHaveValue("32")
})

test("paragraphs: alignment, line spacing, space before and after", async ({ desk }) => {
  await desk.blank()
  const tray = await desk.openPage("Write", "Paragraph")
  await desk.type("First")
  await desk.press("Enter")
  await desk.type("Second")
  await tray.getByRole("button", { name: "Right", exact: true }).click()
  await tray.getByRole("button", { name: "2", exact: true }).click()
  await tray.getByRole("button", { name: "Space before: more" }).click()
  const after = tray.getByRole("textbox", { name: "Space after" })
  await after.fill("20 pt")
  await after.press("Enter")
  expect((await desk.stored()).map((p) => p.format)).toEqual([
    null,
    { align: "right", lineSpacing: { rule: "multiple", value: 2 }, spaceBefore: 3, spaceAfter: 20 },
  ])
  const { right } = await desk.where("Second")
  const sheet = await desk.firstSheet.boundingBox()
  const scale = (sheet?.width ?? 0) / 595.276
  expect(right).toBeCloseTo((sheet?.x ?? 0) + (sheet?.width ?? 0) - 70.866 * scale, 0)
  await desk.press("Control+a")
  await expect(tray.getByRole("button", { name: "Right", exact: true })).toHaveAttribute("aria-pressed", "mixed")
})

test("styles: applied in one click, with inheritance; Enter after a heading returns to body", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await page.getByRole("button", { name: "Structure" }).click()
  const style = (name: string) => page.getByRole("button", { name, exact: true })
  await style("Heading 1").click()
  await desk.type("Mooring rights")
  await desk.press("Enter")
  await expect(style("Body")).toHaveAttribute("aria-pressed", "true")
  await desk.type("Dear Captain Orrin,")
  await desk.press("Enter")
  await style("Quotation").click()
  await desk.type("We ask nothing but the width of a chain.")
  await desk.press("Enter")
  await desk.type("And patience.")
  expect((await desk.stored()).map((p) => p.style)).toEqual(["heading1", "body", "quotation", "quotation"])
  await expect(page.getByRole("heading", { name: "Mooring rights", level: 1 })).toBeVisible()
  await expect(page.locator(".run", { hasText: "We ask nothing" })).toHaveCSS("font-family", "Tinos-italic")
  await desk.press("Control+a")
  await style("Title").click()
  expect((await desk.stored()).map((p) => p.style)).toEqual(["title", "title", "title", "title"])
})

test("the bar by the selection leaves the selected words free and works", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("The chain ferry crosses")
  await desk.saved()
  await desk.selectWord("chain")
  const bar = page.getByRole("toolbar", { name: "Tools for the selection" })
  await bar.getByRole("button", { name: /^Italic/ }).click()
  expect((await desk.stored())[0]?.runs[1]).toEqual({ text: "chain", marks: { italic: true } })
  const word = await desk.where("chain")
  const box = await bar.boundingBox()
  // It stands in the margin, where no line of the text is.
  const sheet = (await desk.firstSheet.boundingBox())!
  expect(box?.x ?? 0).toBeGreaterThan(word.right)
  expect(box?.x ?? 0).toBeGreaterThan(sheet.x + (sheet.width * (210 - 25)) / 210)
})
