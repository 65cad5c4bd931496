import { readFileSync } from "node:fs"
import { expect, test } from "../desk"

test("a paper is brought to a brief by taps, then to another; a rule is changed, the brief saved as a file and brought in again", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Hauling and being hauled")
  await desk.openPage("Structure", "Styles")
  await page.getByRole("button", { name: "Title", exact: true }).click()
  await desk.press("Enter")
  await page.getByRole("button", { name: "Body", exact: true }).click()
  await desk.type(
    "The ferry crosses when the tide allows it, and not when the clock says so, which is the reason for all that follows here.",
  )
  const tray = await desk.openPage("Check", "Brief")
  await tray.getByRole("button", { name: /psychology/ }).click()
  const status = tray.getByRole("status")
  await expect(status).toHaveText(/^\d of 14 rules agree/)
  const foot = page.getByRole("contentinfo")
  await expect(foot).toContainText(/Brief: \d of 14/)
  await tray.getByRole("button", { name: "Put all right" }).click()
  await expect(status).toHaveText("12 of 14 rules agree.")
  for (const [name, value] of [
    ["Author", "Ida Marlowe"],
    ["Organisation", "Harbour School"],
    ["Date", "4 May"],
  ] as const) {
    await tray.getByRole("textbox", { name, exact: true }).fill(value)
    await desk.press("Enter")
  }
  await expect(status).toHaveText("13 of 14 rules agree.")
  await expect(foot).toContainText("Sheet 2 of 2")
  await expect(page.locator(".block.text").nth(1)).toHaveText("Ida Marlowe")
  await expect(tray.getByRole("listitem").filter({ hasText: "References" })).toContainText("Here: there is none")

  await tray.getByRole("button", { name: "Another brief" }).click()
  await tray.getByRole("button", { name: /humanities/ }).click()
  await tray.getByRole("button", { name: "Put all right" }).click()
  await expect(status).toHaveText("13 of 14 rules agree.")
  await expect(page.locator(".block.header").first()).toHaveText(/Ida Marlowe\s*1/)

  // A teacher's own: a rule is changed and one dropped.
  await tray.getByRole("button", { name: "Change rules" }).click()
  const name = tray.getByRole("textbox", { name: "Name of the brief" })
  await name.fill("For Mr Sands")
  await desk.press("Enter")
  await tray.getByRole("button", { name: "Drop the rule: References" }).click()
  await tray.getByRole("combobox", { name: "Typeface" }).selectOption("Lora")
  await tray.getByRole("button", { name: "Done", exact: true }).click()
  await expect(status).toHaveText("12 of 13 rules agree.")
  await tray.getByRole("button", { name: "Put right: Typeface" }).click()
  await expect(status).toHaveText("All 13 rules agree.")
  await expect(foot).toContainText("Follows its brief")
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    tray.getByRole("button", { name: "Save as file" }).click(),
  ])
  expect(download.suggestedFilename()).toBe("For Mr Sands.json")
  const file = readFileSync(await download.path())
  expect(JSON.parse(file.toString())).toMatchObject({ biblonBrief: 1, name: "For Mr Sands", typeface: "Lora" })
  await tray.getByRole("button", { name: "No brief" }).click()
  const input = tray.getByLabel("File with a brief")
  await input.setInputFiles({
    name: "wrong.json",
    mimeType: "application/json",
    buffer: Buffer.from('{"biblonBrief":1,"size":-1}'),
  })
  await expect(tray.getByRole("alert")).toContainText("The brief is not right at size")
  await input.setInputFiles({ name: "mine.json", mimeType: "application/json", buffer: file })
  await expect(status).toHaveText("All 13 rules agree.")
  // What was typed since, it sees.
  await desk.firstSheet.click({ position: { x: 400, y: 300 } })
  await desk.press("Control+a")
  const write = await desk.openPage("Write", "Letters")
  await write.getByRole("button", { name: "Bold" }).first().click()
  await desk.openPage("Check", "Brief")
  await tray.getByRole("button", { name: "Another brief" }).click()
  await expect(tray.getByRole("list", { name: "Briefs of your own" })).toContainText("For Mr Sands")
  await desk.saved()
})
