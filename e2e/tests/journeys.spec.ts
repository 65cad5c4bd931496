/** Three finished sheets, made as a person makes them, and compared as pictures with their PDF. */
import { expect, test } from "../desk"
import { expectPrintsAsSeen } from "../pictures"

test("a record of a ferry hand, with tab stops, hanging indents and rules under its headings", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Nell Caddow")
  await desk.openPage("Structure", "Styles")
  await page.getByRole("button", { name: "Title", exact: true }).click()
  await desk.press("Enter")
  await page.getByRole("button", { name: "Heading 1", exact: true }).click()
  await desk.type("On the ferry")
  const tray = await desk.openPage("Write", "Paragraph")
  await tray.getByRole("button", { name: "Borders and background" }).click()
  await tray.getByRole("combobox", { name: "Side" }).selectOption("bottom")
  await tray.getByRole("combobox", { name: "Line" }).selectOption("solid")
  await desk.press("Enter")
  await tray.getByRole("button", { name: "Indents and tab stops" }).click()
  const fill = async (name: string, value: string) => {
    const field = tray.getByRole("textbox", { name, exact: true })
    await field.fill(value)
    await field.press("Enter")
  }
  await fill("Start", "3 cm")
  await fill("First line", "-3 cm")
  await tray.getByRole("button", { name: "Add a tab stop" }).click()
  await fill("Tab stop at", "16 cm")
  await tray.getByRole("combobox", { name: "Text stands" }).selectOption("right")
  await tray.getByRole("combobox", { name: "Leader" }).selectOption("dotted")
  await desk.type("2023–today\tFerry hand\tSaltmarsh Ferry Trust")
  await desk.press("Enter")
  await desk.type(
    "2021–2023\tKeeper of the tide board, who chalked the day’s hours twice a day and answered for them whatever the weather\tHarbour Office",
  )
  const sheet = (await desk.firstSheet.boundingBox())!
  const cm = (sheet.width / 595.276) * (72 / 2.54)
  const left = sheet.x + 2.5 * cm
  expect((await desk.where("2023–today")).left).toBeCloseTo(left, 0)
  expect((await desk.where("Ferry hand")).left).toBeCloseTo(left + 3 * cm, 0)
  expect((await desk.where("Saltmarsh Ferry Trust")).right).toBeCloseTo(left + 16 * cm, 0)
  // Lines after the first hang at the indent.
  expect((await desk.where("answered")).left).toBeGreaterThanOrEqual(left + 3 * cm - 1)
  await expect(page.locator(".canvas .ground").first()).toBeAttached()
  await expectPrintsAsSeen(desk)
})

test("a numbered report, with sub-points and bullets inside numbers", async ({ desk, page }) => {
  await desk.blank()
  await desk.press("Control+Alt+j")
  await desk.type("What can go wrong")
  await desk.press("Enter")
  const outline = await desk.openPage("Structure", "Outline")
  await outline.getByRole("combobox", { name: "Numbers of headings" }).selectOption("chapters")
  await desk.type("1. Before each crossing:")
  await desk.press("Enter", "Tab")
  await desk.type("the chain is looked at")
  await desk.press("Enter")
  await desk.type("the board shows")
  await desk.press("Enter", "Tab")
  const tray = await desk.openPage("Write", "List")
  await tray.getByRole("button", { name: "Dots and dashes" }).click()
  await desk.type("the hours")
  await desk.press("Enter")
  await desk.type("who is on duty")
  await desk.press("Enter", "Shift+Tab", "Shift+Tab")
  await desk.type("No crossing in fog.")
  await desk.press("Enter", "Enter")
  await desk.press("Control+Alt+j")
  await desk.type("Still to do")
  await desk.expectShown(
    "1What can go wrong",
    "1.Before each crossing:",
    "a)the chain is looked at",
    "b)the board shows",
    "∘the hours",
    "∘who is on duty",
    "2.No crossing in fog.",
    "2Still to do",
  )
  // Taken out and put back, the numbers are right each time.
  await desk.where("the chain is").then(({ left, middle }) => page.mouse.click(left + 2, middle, { clickCount: 3 }))
  await desk.press("Shift+ArrowDown", "Delete", "Control+z")
  await desk.expectShown(
    "1What can go wrong",
    "1.Before each crossing:",
    "a)the chain is looked at",
    "b)the board shows",
    "∘the hours",
    "∘who is on duty",
    "2.No crossing in fog.",
    "2Still to do",
  )
  await expectPrintsAsSeen(desk)
})

test("a notice, with a drop cap, a frame over three paragraphs and a line across", async ({ desk, page }) => {
  await desk.blank()
  await desk.type(
    "On Saturday the fourth of April the chain ferry crosses the estuary for the first time in sixty-four years. She leaves the Toll House slip two hours before high water and goes back and forth until two hours after, as long as there is somebody on either bank who wants to be on the other.",
  )
  const tray = await desk.openPage("Write", "Paragraph")
  await tray.getByRole("button", { name: "Justify" }).click()
  await tray.getByRole("button", { name: "Drop cap and line across" }).click()
  await tray.getByRole("switch", { name: "Drop cap" }).click()
  const high = async (text: string) => desk.where(text).then(({ bottom, top }) => bottom - top)
  await expect.poll(async () => (await high("O")) / (await high("n Saturday"))).toBeGreaterThan(2.4)
  const [cap, second] = [await desk.where("O"), await desk.where("n Saturday")]
  expect(second.left).toBeGreaterThan(cap.right)
  await tray.getByRole("button", { name: "Put a line across below" }).click()
  await desk.type("No crossing when the red flag flies")
  await tray.getByRole("button", { name: "Centre", exact: true }).click()
  await tray.getByRole("button", { name: "Borders and background" }).click()
  await tray.getByRole("combobox", { name: "Line", exact: true }).selectOption("double")
  await tray.getByRole("button", { name: "Mallow" }).click()
  await desk.press("Enter")
  await desk.type("Dogs are welcome")
  await desk.press("Enter")
  await desk.type("Ask at the Old Toll House")
  // One frame round all three: four corners, not twelve.
  await expect(page.locator(".canvas .ground")).toHaveCount(4)
  const thin = () =>
    page
      .locator(".canvas .ground .rule")
      .evaluateAll((all) => all.filter((rule) => Math.min(rule.clientWidth, rule.clientHeight) < 8).length)
  // Two lines for each of eight sides, and the line across.
  await expect.poll(thin).toBe(17)
  await expectPrintsAsSeen(desk)
})
