/** A long work in parts: begun, switched between, named, moved, delivered together or alone. */
import { execFileSync } from "node:child_process"
import { expect, expectAccessible, test } from "../desk"

const words = (path: string, ...more: string[]) =>
  execFileSync("pdftotext", [...more, path, "-"], { encoding: "utf8" })
    .split("\f")
    .map((sheet) => sheet.trim())
    .filter(Boolean)

test("a work in three parts is switched between, moved by dragging and by keys, and printed whole or in part", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Ropes are measured in spring.")
  const tray = await desk.openPage("Structure", "Parts")
  await expect(tray).toContainText("A long work can be in parts")
  for (const [name, text] of [
    ["Chains", "Chains are measured in autumn."],
    ["Tides", "Tides are read off the board."],
  ] as const) {
    await tray.getByLabel("Its name").fill(name)
    await tray.getByRole("button", { name: "At the end" }).click()
    // The caret is in the new part.
    await desk.type(text)
  }
  const list = tray.getByRole("list", { name: "Parts" })
  const rows = list.getByRole("listitem")
  await expect(rows).toHaveText(["Opening1", "Chains2", "Tides3"])
  await expect(list.locator("[aria-current=true]")).toHaveText("Tides3")

  // Switching leads to where one was.
  await rows.filter({ hasText: "Opening" }).getByRole("button").click()
  await desk.type("! ")
  await rows.filter({ hasText: "Tides" }).getByRole("button").click()
  await desk.type(" Twice a day.")
  await desk.expectShown(
    "! Ropes are measured in spring.",
    "Chains are measured in autumn.",
    "Tides are read off the board. Twice a day.",
  )

  const name = tray.getByLabel("Name of this part")
  await name.fill("Tides & streams")
  await tray.getByLabel("Sign: waves").click()
  await expect(page.getByRole("contentinfo").getByTitle("Switch to another part")).toHaveText("Tides & streams")
  // Where it begins, the sheets say so.
  await expect(page.locator(".break").filter({ hasText: "New part: Tides & streams" })).toHaveCount(1)

  await expectAccessible(page)
  const handle = tray.getByLabel("Move the part Tides & streams")
  const [from, to] = [(await handle.boundingBox())!, (await rows.first().boundingBox())!]
  await page.mouse.move(from.x + 8, from.y + 8)
  await page.mouse.down()
  await page.mouse.move(from.x + 8, from.y - 20, { steps: 4 })
  await page.mouse.move(from.x + 8, to.y + 4, { steps: 4 })
  await page.mouse.up()
  await expect(rows).toHaveText(["Tides & streams1", "Opening2", "Chains3"])
  await rows.nth(1).getByRole("button").focus()
  await page.keyboard.press("Alt+ArrowDown")
  await expect(rows).toHaveText(["Tides & streams1", "Chains2", "Opening3"])
  await desk.expectShown(
    "Tides are read off the board. Twice a day.",
    "Chains are measured in autumn.",
    "! Ropes are measured in spring.",
  )

  await desk.saved()
  const whole = await desk.pdf()
  expect(words(whole)).toEqual([
    "Tides are read off the board. Twice a day.",
    "Chains are measured in autumn.",
    "! Ropes are measured in spring.",
  ])
  const outlines = execFileSync("qpdf", ["--json", "--json-key=outlines", whole], { encoding: "utf8" })
  expect((JSON.parse(outlines) as { outlines: { title: string }[] }).outlines.map(({ title }) => title)).toEqual([
    "Tides & streams",
    "Chains",
    "Opening",
  ])

  // One part alone, for both sides of the paper.
  await desk.openPage("Structure", "Parts")
  await rows.filter({ hasText: "Chains" }).getByRole("button").click()
  await page.getByRole("button", { name: "Deliver" }).first().click()
  const deliver = page.getByRole("region", { name: "Deliver", exact: true })
  await deliver.getByText("How it lies on the paper").click()
  await deliver.getByLabel("Sheets", { exact: true }).selectOption("Of this part")
  await deliver.getByRole("switch", { name: "On both sides of the paper" }).click()
  await expect(deliver).toContainText("1 side on 1 sheet of paper.")
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    deliver.getByRole("button", { name: "Save so as PDF" }).click(),
  ])
  expect(words(await download.path())).toEqual(["Chains are measured in autumn."])
})

test("a part is begun in the middle, joined again, taken away and had back", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Ropes")
  await desk.press("Enter")
  await desk.type("Chains")
  await desk.press("Home")
  const tray = await desk.openPage("Structure", "Parts")
  await tray.getByRole("button", { name: "From here on" }).click()
  const rows = tray.getByRole("list", { name: "Parts" }).getByRole("listitem")
  await expect(rows).toHaveText(["Opening1", "Part 22"])
  await tray.getByRole("button", { name: "Take away with its text" }).click()
  await desk.expectShown("Ropes")
  await expect(rows).toHaveText(["Opening1"])
  await page.getByRole("button", { name: "Undo" }).click()
  await desk.expectShown("Ropes", "Chains")
  await rows.filter({ hasText: "Part 2" }).getByRole("button").click()
  await tray.getByRole("button", { name: "Join with the part before" }).click()
  await expect(rows).toHaveText(["Opening1–2"])
  await desk.saved()
  await page.reload()
  await desk.openPage("Structure", "Parts")
  await expect(tray.getByRole("listitem")).toHaveText(["Opening1–2"])
})
