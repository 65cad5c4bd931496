import { expect, test } from "../desk"

test("with the keyboard alone: from the shelf to a shaped document and back", async ({ page, server }) => {
  await page.goto(server.address)
  await expect(page.getByRole("button", { name: "A blank sheet" })).toBeVisible()
  for (let i = 0; i < 30; i++) {
    await page.keyboard.press("Tab")
    if (await page.evaluate(() => document.activeElement?.textContent === "A blank sheet")) break
  }
  await page.keyboard.press("Enter")
  await expect(page.getByRole("main", { name: "Document" })).toBeVisible()
  const field = page.getByLabel("Text of the document")
  for (let i = 0; i < 40; i++) {
    await page.keyboard.press("Tab")
    if (await field.evaluate((f) => f === document.activeElement)) break
  }
  await expect(field).toBeFocused()
  await page.keyboard.type("Notice to passengers")
  await page.keyboard.press("Control+k")
  await page.keyboard.type("styles")
  await page.keyboard.press("Enter")
  const option = page.getByRole("button", { name: "Title", exact: true })
  await expect(option).toBeVisible()
  await option.focus()
  expect(await option.evaluate((o) => getComputedStyle(o).outlineStyle)).not.toBe("none")
  await page.keyboard.press("Enter")
  await expect(page.locator(".run", { hasText: "Notice to passengers" })).toHaveCSS("font-family", "Literata-bold")
  await page.keyboard.press("Control+k")
  await page.keyboard.type("nothing of the kind")
  await expect(page.getByText("No tool answers to that.")).toBeVisible()
  await page.keyboard.press("Escape")
  await expect(field).toBeFocused()
})

test("the text of a sheet is read with its headings, paragraph by paragraph", async ({ desk, page }) => {
  await desk.openNamed("Minutes, 3 November")
  await expect(page.getByRole("heading", { name: "2 The hull", level: 1 })).toBeVisible()
  await expect(page.getByRole("heading", { name: "2.1 Report of the boatbuilder", level: 2 })).toBeVisible()
  await expect(page.getByRole("paragraph").filter({ hasText: "Wilf Sandry reported" })).toBeVisible()
  await expect(page.getByRole("group", { name: "Sheet 1 of 3" })).toHaveCount(1)
})
