import type { Locator, Page } from "@playwright/test"
import { expect, test, type DeskPage } from "../desk"

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "

async function begun(desk: DeskPage, paragraphs: number): Promise<void> {
  await desk.blank()
  await desk.page.evaluate(
    (text) => navigator.clipboard.writeText(text),
    `${sentence.repeat(5)}\n`.repeat(paragraphs).trim(),
  )
  await desk.press("Control+v")
  await expect(desk.page.locator(".block.text")).not.toHaveCount(1)
  await desk.press("Control+Home")
}

/** Presses what lies under the text. */
async function press(page: Page, under: Locator): Promise<void> {
  await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
  await under.scrollIntoViewIfNeeded()
  const { x, y, width, height } = (await under.boundingBox())!
  await page.mouse.click(x + width / 2, y + height / 2)
}

const place = (desk: DeskPage) =>
  desk.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).click()

test("a break is seen where it stands, says what it is, and is taken away by a press or like a letter", async ({
  desk,
  page,
}) => {
  await begun(desk, 4)
  await desk.press("Control+End", "Control+Enter")
  await desk.type("Timetable")
  const foot = page.getByRole("contentinfo")
  await expect(foot).toContainText("Sheet 2 of 2")
  const sign = page.locator(".break")
  await expect(sign).toHaveText("New sheet")
  // It stands on the sheet before, below its text.
  const [own, text] = [(await sign.boundingBox())!, (await page.locator(".block.text").nth(3).boundingBox())!]
  expect(own.y).toBeGreaterThanOrEqual(text.y + text.height - 1)
  await sign.click()
  const card = page.getByRole("group", { name: "New sheet" })
  await expect(card).toContainText("begins on a new sheet")
  await desk.press("Escape")
  await expect(card).toBeHidden()
  await desk.press("Escape")
  await sign.click()
  await card.getByRole("button", { name: "Take away" }).click()
  await expect(foot).toContainText(/Sheet 1 of 1/)
  await expect(card).toBeHidden()
  await desk.press("Control+z")
  await expect(sign).toHaveCount(1)
  await sign.click()
  await desk.press("Delete")
  await expect(sign).toHaveCount(0)
  await desk.press("Control+z", "Control+End", "Home", "Backspace")
  await expect(sign).toHaveCount(0)
  await expect(page.locator(".block.text").last()).toHaveText("Timetable")
  await desk.press("Control+z")
  await place(desk)
  await page.getByRole("button", { name: "Blank sheet" }).click()
  await expect(foot).toContainText("Sheet 3 of 3")
  await expect(sign).toHaveCount(2)
  // In flow the sign stands between the paragraphs.
  await foot.getByRole("button", { name: "Flow" }).click()
  await expect(sign).toHaveCount(2)
  await desk.saved()
})

test("text goes to the next column where one says so, in columns that are not alike", async ({ desk, page }) => {
  await begun(desk, 3)
  const tray = await desk.openPage("Sheet", "Columns")
  await tray.getByRole("button", { name: "Two", exact: true }).click()
  await tray.getByRole("button", { name: "Narrow left" }).click()
  const columns = () =>
    page
      .locator(".block.text")
      .evaluateAll((all) => [
        ...new Map(
          all.map((own) => [
            Math.round(own.getBoundingClientRect().left),
            Math.round(own.getBoundingClientRect().width),
          ]),
        ).values(),
      ])
  await desk.settled()
  await expect.poll(async () => (await columns()).length).toBe(2)
  const [narrow, broad] = (await columns()) as [number, number]
  expect(broad / narrow).toBeCloseTo(2, 1)
  // Every line fits its column, also those of the paragraph that is divided between the two.
  const over = await page
    .locator(".block.text")
    .evaluateAll((all) =>
      all.flatMap((block) =>
        [...block.querySelectorAll(".run")].map(
          (run) => run.getBoundingClientRect().right - block.getBoundingClientRect().right,
        ),
      ),
    )
  // The blank at the end of a line hangs.
  expect(Math.max(...over)).toBeLessThan(8)
  await place(desk)
  await desk.press("Control+Home", "End")
  await page.getByRole("button", { name: "New column" }).click()
  await expect(page.locator(".break")).toHaveText("New column")
  await expect(page.locator(".block.text").nth(0)).toHaveText(/^The chain ferry crosses at/)
  const second = (await page.locator(".block.text").nth(1).boundingBox())!
  const first = (await page.locator(".block.text").nth(0).boundingBox())!
  expect([second.x > first.x + first.width, Math.abs(second.y - first.y) < 2]).toEqual([true, true])
  await desk.press("Backspace")
  await expect(page.locator(".break")).toHaveCount(0)
})

test("a number typed at the foot becomes that of each sheet; a field is changed where it stands", async ({
  desk,
  page,
}) => {
  await begun(desk, 18)
  const tray = await desk.openPage("Sheet", "Head, foot")
  await tray.getByRole("button", { name: "Write the foot" }).click()
  await desk.type("Sheet 1")
  await page.getByRole("button", { name: "Number each sheet" }).click()
  const feet = page.locator(".block.footer")
  await expect.poll(async () => (await feet.allTextContents()).slice(0, 2)).toEqual(["Sheet 1", "Sheet 2"])
  await expect(page.getByRole("button", { name: "Number each sheet" })).toBeHidden()
  await tray.getByRole("button", { name: "Title", exact: true }).click()
  await desk.press("Escape")
  const field = page.locator(".field-tint")
  await press(page, field.first())
  const card = page.getByRole("group", { name: "Field" })
  await card.getByLabel("Shows").selectOption("pages")
  await expect.poll(async () => (await feet.allTextContents())[0]).toMatch(/^Sheet [2-9]/)
  await press(page, field.nth(1))
  await card.getByLabel("Title", { exact: true }).fill("Tides")
  await card.getByLabel("Title", { exact: true }).press("Enter")
  await expect.poll(async () => (await feet.allTextContents())[0]).toMatch(/^Sheet [2-9]Tides$/)
  await card.getByRole("button", { name: "Make it text" }).click()
  await expect(card).toBeHidden()
  await desk.type("!")
  await expect(feet.first()).toHaveText(/Tides!$/)
  await expect.poll(() => page.locator(".sheet").first().locator(".field-tint").count()).toBe(1)
  await press(page, field.first())
  await card.getByRole("button", { name: "Take away" }).click()
  await expect(feet.first()).toHaveText("Sheet Tides!")
  await desk.saved()
})

test("the document's name is a field that follows it", async ({ desk, page }) => {
  await begun(desk, 2)
  const tray = await desk.openPage("Sheet", "Head, foot")
  await tray.getByRole("button", { name: "Write the head" }).click()
  await tray.getByRole("button", { name: "Document’s name" }).click()
  await page.getByRole("button", { name: /^Name/ }).first().click()
  await page.getByRole("textbox", { name: /Name/ }).fill("Toll book")
  await page.keyboard.press("Enter")
  await expect(page.locator(".block.header").first()).toHaveText("Toll book")
})

test("margins are dragged at the ruler and in the drawing, seen while they are, put back by Escape", async ({
  desk,
  page,
}) => {
  await begun(desk, 2)
  const left = async () => Math.round((await page.locator(".block.text").first().boundingBox())!.x)
  const before = await left()
  const drag = async (name: string, dx: number, escape = false) => {
    const grip = (await page.getByRole("slider", { name }).last().boundingBox())!
    const [x, y] = [grip.x + grip.width / 2, grip.y + grip.height / 2]
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + dx / 2, y, { steps: 3 })
    await page.mouse.move(x + dx, y, { steps: 3 })
    await expect.poll(left).not.toBe(before)
    if (escape) await page.keyboard.press("Escape")
    await page.mouse.up()
  }
  await drag("Left margin", 60, true)
  await expect.poll(left).toBe(before)
  await drag("Left margin", 60)
  await expect.poll(async () => Math.abs((await left()) - before - 60) < 12).toBe(true)
  await desk.press("Control+z")
  await expect.poll(left).toBe(before)
  const tray = await desk.openPage("Sheet", "Paper")
  const fromTray = await left()
  const grip = (await tray.getByRole("slider", { name: "Left margin" }).boundingBox())!
  await page.mouse.move(grip.x + grip.width / 2, grip.y + 60)
  await page.mouse.down()
  await page.mouse.move(grip.x + grip.width / 2 + 20, grip.y + 60, { steps: 4 })
  await expect.poll(left).toBeGreaterThan(fromTray + 20)
  await page.mouse.up()
  await expect.poll(left).toBeGreaterThan(fromTray + 20)
  await tray.getByRole("slider", { name: "Top margin" }).press("ArrowDown")
  await expect(tray.getByRole("textbox", { name: "Top" })).not.toHaveValue("2.5")
})

test("endnotes stand behind the text; footnotes are counted on each sheet and in signs; one becomes the other", async ({
  desk,
  page,
}) => {
  await begun(desk, 14)
  await place(desk)
  const tray = page.getByRole("region", { name: "Place", exact: true })
  await desk.press("End")
  await tray.getByRole("button", { name: "Endnote" }).click()
  await desk.type("From the toll book.")
  const notes = page.locator(".block.note")
  await expect(notes.last()).toHaveText("iFrom the toll book.")
  await desk.press("Escape", "Control+Home")
  await tray.getByRole("button", { name: "Footnote", exact: true }).click()
  await desk.type("One.")
  await desk.press("Escape", "Control+End")
  await tray.getByRole("button", { name: "Footnote", exact: true }).click()
  await desk.type("Two.")
  await expect.poll(() => notes.allTextContents()).toEqual(expect.arrayContaining(["2Two.", "iFrom the toll book."]))
  await tray.getByRole("button", { name: "How notes are numbered" }).click()
  await tray.getByLabel("Counted anew").selectOption("sheet")
  await expect.poll(() => notes.allTextContents()).toEqual(expect.arrayContaining(["1Two."]))
  await tray.getByLabel("Footnotes", { exact: true }).selectOption("signs")
  await expect.poll(() => notes.allTextContents()).toEqual(expect.arrayContaining(["*Two."]))
  await page.locator(".block.note .run", { hasText: "Two." }).click()
  await tray.getByRole("button", { name: "Make it an endnote" }).click()
  await expect.poll(() => notes.allTextContents()).toEqual(expect.arrayContaining(["iiTwo."]))
  await desk.saved()
})

test("by the arrow keys the caret stays in its text over sheets, and leaves a head downwards, a note upwards", async ({
  desk,
  page,
}) => {
  await begun(desk, 12)
  const tray = await desk.openPage("Sheet", "Head, foot")
  await tray.getByRole("button", { name: "Number at the foot, middle" }).click()
  await tray.getByRole("button", { name: "Write the head" }).click()
  await desk.type("Minutes")
  await desk.press("ArrowDown")
  await expect(page.getByRole("button", { name: "Back to the text" })).toBeHidden()
  await desk.type("X")
  await expect(page.locator(".block.text").first()).toContainText("XThe chain")
  await desk.press("Backspace", "End", "Control+Alt+n")
  await desk.type("From the toll book.")
  await desk.press("ArrowUp")
  await expect(page.getByRole("button", { name: "Back to the text" })).toBeHidden()
  // Down over the foot of the first sheet, its note and the head of the second one.
  await desk.press("Control+Home")
  const foot = page.getByRole("contentinfo")
  for (let i = 0; i < 45; i++) await desk.press("ArrowDown")
  await expect(foot).toContainText("Sheet 2 of 2")
  await desk.type("Zz")
  await expect(page.locator(".block.text", { hasText: "Zz" })).toHaveCount(1)
  await expect(page.locator(".block.header, .block.note, .block.footer").filter({ hasText: "Zz" })).toHaveCount(0)
})
