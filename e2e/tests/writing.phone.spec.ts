import { expect, expectAccessible, test, type DeskPage } from "../desk"
import { hearLate } from "../late"

async function tap(desk: DeskPage, text: string, where: "left" | "middle" | "right" = "middle"): Promise<void> {
  const { left, right, middle } = await desk.where(text)
  await desk.page.touchscreen.tap(where === "left" ? left : where === "right" ? right : (left + right) / 2, middle)
}

/** A finger that presses a point, moves to another, rests there and lets go. */
async function drag(desk: DeskPage, from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
  const cdp = await desk.page.context().newCDPSession(desk.page)
  let timestamp = Date.now() / 1000
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", after: number, point?: { x: number; y: number }) =>
    cdp.send("Input.dispatchTouchEvent", { type, timestamp: (timestamp += after), touchPoints: point ? [point] : [] })
  await touch("touchStart", 0, from)
  for (let i = 1; i <= 6; i++)
    await touch("touchMove", 0.016, { x: from.x + ((to.x - from.x) * i) / 6, y: from.y + ((to.y - from.y) * i) / 6 })
  await touch("touchMove", 0.3, to)
  await touch("touchEnd", 0.3)
}

test("on a phone the text flows at a readable size; a tap writes, the strip takes the bench's place", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Letter to the harbour master")
  await expect(page.locator(".canvas.flow")).toBeVisible()
  const size = await page
    .locator(".run", { hasText: "Dear Captain" })
    .evaluate((run) => run.getBoundingClientRect().height)
  expect(size).toBeGreaterThanOrEqual(16)
  expect(await page.evaluate(() => document.querySelector("[role=main]")!.scrollWidth)).toBeLessThanOrEqual(390)
  await expect(page.getByRole("navigation", { name: "Bench" })).toBeVisible()
  await tap(desk, "Dear Captain Orrin,", "right")
  await expect(desk.field).toBeFocused()
  await expect(page.getByRole("toolbar", { name: "Tools for the text" })).toBeVisible()
  await desk.type(" good day.")
  await expect(page.locator(".run", { hasText: "Dear Captain Orrin, good day." })).toBeVisible()
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await expect(page.getByRole("navigation", { name: "Bench" })).toBeVisible()
})

test("a double tap takes a word, handles change the selection, a tray shapes it and stays open", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await desk.type("The Trust has now completed the survey of the slip.")
  await desk.saved()
  const word = await desk.where("Trust")
  const point = { x: (word.left + word.right) / 2, y: word.middle }
  await page.touchscreen.tap(point.x, point.y)
  await page.touchscreen.tap(point.x, point.y)
  await desk.expectSelected("Trust")

  const to = page.locator(".handle.to")
  const box = (await to.boundingBox())!
  expect(Math.min(box.width, box.height)).toBeGreaterThanOrEqual(44)
  const target = await desk.where("completed")
  await drag(desk, { x: box.x + 26, y: box.y + 12 }, { x: target.right + 4, y: target.bottom + 12 })
  await expect.poll(() => desk.selected()).toBe("Trust has now completed")

  await page.getByRole("toolbar", { name: "Tools for the text" }).getByRole("button", { name: /^Bold/ }).tap()
  await page.getByRole("button", { name: /^Style:/ }).tap()
  const tray = page.getByRole("region", { name: "Structure" })
  await tray.getByRole("button", { name: "Heading 2", exact: true }).tap()
  await tray.getByRole("button", { name: "Quotation", exact: true }).tap()
  await expect(tray).toBeVisible()
  await expect(page.locator(".selected").first()).toBeInViewport()
  const stored = await desk.stored()
  expect(stored[0]?.style).toBe("quotation")
  expect(stored[0]?.runs[1]).toEqual({ text: "Trust has now completed", marks: { bold: true } })
  const grip = (await tray.boundingBox())!
  await drag(desk, { x: grip.x + grip.width / 2, y: grip.y + 12 }, { x: grip.x + grip.width / 2, y: grip.y + 160 })
  await expect(tray).toHaveCount(0)
})

test("a finger scrolls without moving the caret; the sheets can be shown", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  const top = () => page.evaluate(() => document.querySelector("[role=main]")!.scrollTop)
  await drag(desk, { x: 200, y: 600 }, { x: 200, y: 200 })
  await expect.poll(top).toBeGreaterThan(200)
  await expect(desk.field).not.toBeFocused()
  await page.getByRole("button", { name: "Show the sheets" }).tap()
  await expect(page.getByRole("group", { name: /^Sheet \d+ of 1[2-9]$/ }).first()).toBeVisible()
  expect(await page.evaluate(() => document.querySelector("[role=main]")!.scrollWidth)).toBeLessThanOrEqual(390)
})

test("from the shelf to a named letter and its PDF, with a thumb", async ({ desk, page, server }) => {
  await page.goto(server.address)
  await page.getByRole("button", { name: "A blank sheet" }).tap()
  await page.getByRole("button", { name: /^Name: not named yet/ }).tap()
  await page.keyboard.type("Letter to donors")
  await page.keyboard.press("Enter")
  await page.locator(".canvas").tap({ position: { x: 60, y: 40 } })
  await page.getByRole("button", { name: /^Style:/ }).tap()
  await page.getByRole("button", { name: "Heading 1", exact: true }).tap()
  await page.getByRole("button", { name: "Structure" }).tap()
  await desk.type("Thank you")
  await desk.press("Enter")
  await desk.type("Your gift laid the chain.")
  await desk.saved()
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await page.getByRole("button", { name: "Deliver" }).tap()
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /Save as PDF/ }).tap(),
  ])
  expect(download.suggestedFilename()).toBe("Letter to donors.pdf")
  await page.getByRole("button", { name: "Back to the shelf" }).tap()
  await expect(page.getByText("Letter to donors", { exact: true })).toBeVisible()
})

test("the phone's screens pass the automated check of accessibility", async ({ desk, page, server }) => {
  await page.goto(server.address)
  await expect(page.getByText("On the shelf")).toBeVisible()
  await expectAccessible(page)
  await desk.openNamed("Letter to the harbour master")
  await page.getByRole("button", { name: "Write" }).tap()
  await expectAccessible(page)
})

test("two fingers zoom, and the place being read stays", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  await page.getByRole("button", { name: "Show the sheets" }).tap()
  await expect(page.getByRole("group", { name: /^Sheet 1 of/ })).toBeVisible()
  const before = (await desk.firstSheet.boundingBox())!.width
  const cdp = await page.context().newCDPSession(page)
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", gap: number) =>
    cdp.send("Input.dispatchTouchEvent", {
      type,
      touchPoints: gap
        ? [
            { x: 195, y: 400 - gap, id: 1 },
            { x: 195, y: 400 + gap, id: 2 },
          ]
        : [],
    })
  await touch("touchStart", 60)
  for (const gap of [70, 85, 100, 120]) await touch("touchMove", gap)
  await touch("touchEnd", 0)
  await expect.poll(async () => (await desk.firstSheet.boundingBox())!.width).toBeGreaterThan(before * 1.5)
})

test("a glass shows the place while a handle is dragged", async ({ desk, page }) => {
  await desk.openNamed("Letter to the harbour master")
  const { left, right, middle } = await desk.where("Captain")
  await page.touchscreen.tap((left + right) / 2, middle)
  await page.touchscreen.tap((left + right) / 2, middle)
  const handle = (await page.locator(".handle.to").boundingBox())!
  const cdp = await page.context().newCDPSession(page)
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", x = 0) =>
    cdp.send("Input.dispatchTouchEvent", { type, touchPoints: x ? [{ x, y: handle.y + 14 }] : [] })
  await touch("touchStart", handle.x + 24)
  await touch("touchMove", handle.x + 50)
  await expect(page.locator(".magnifier .sheet")).toBeVisible()
  await touch("touchEnd")
  await expect(page.locator(".magnifier")).toHaveCount(0)
})

test("reading on a phone: a tap turns the sheets, also before the next one is here", async ({ desk, page }) => {
  await hearLate(page, 300)
  await desk.openNamed("Minutes, 3 November")
  await page.getByRole("button", { name: "Find a tool" }).tap()
  await page.keyboard.type("reading")
  await page.keyboard.press("Enter")
  const status = page.getByRole("toolbar", { name: "Reading" }).getByRole("status")
  await expect(status).toHaveText("Sheet 1 of 3")
  await page.touchscreen.tap(330, 400)
  await expect(status).toHaveText("Sheet 2 of 3")
  await page.getByRole("button", { name: "Back to writing" }).tap()
  await expect(page.getByRole("navigation", { name: "Bench" })).toBeVisible()
})

test("find, replace and take back, with a thumb", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("The tide and the tide")
  await desk.saved()
  await page.getByRole("button", { name: "Find a tool" }).tap()
  await page.keyboard.type("replace")
  await page.getByRole("option", { name: /Find and replace/ }).tap()
  await page.getByRole("textbox", { name: "Find" }).fill("tide")
  await expect(page.getByTestId("find-count")).toHaveText("1 of 2")
  await page.getByRole("textbox", { name: "Replace with" }).fill("bell")
  await page.getByRole("button", { name: "Replace all" }).tap()
  await desk.expectShown("The bell and the bell")
  await page.getByRole("button", { name: "Find a tool" }).tap()
  await page.keyboard.type("what was done")
  await page.keyboard.press("Enter")
  await page.getByRole("button", { name: /^Replaced 2 places/ }).tap()
  await page.getByRole("button", { name: "Take back this alone" }).tap()
  await desk.expectShown("The tide and the tide")
})

test("turning the phone keeps the place; a swipe turns the sheets of reading view", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  await tap(desk, "promise made")
  for (let i = 0; i < 4; i++) await desk.press("PageDown")
  await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
  const paragraph = await desk.field.inputValue()
  await page.setViewportSize({ width: 844, height: 390 })
  await expect(desk.caret).toBeInViewport()
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(desk.caret).toBeInViewport()
  expect(await desk.field.inputValue()).toBe(paragraph)
  await page.getByRole("button", { name: "Find a tool" }).tap()
  await page.keyboard.type("reading")
  await page.keyboard.press("Enter")
  const status = page.getByRole("toolbar", { name: "Reading" }).getByRole("status")
  await expect(status).toHaveText(/^Sheet \d+ of 12$/)
  const at = Number(/\d+/.exec((await status.textContent()) ?? "")?.[0])
  await drag(desk, { x: 300, y: 400 }, { x: 90, y: 410 })
  await expect(status).toHaveText(`Sheet ${at + 1} of 12`)
})

test("opening a tray scrolls the selection into what is left of the screen", async ({ desk, page }) => {
  await desk.openNamed("Letter to the harbour master")
  const { left, right, middle } = await desk.where("haulage")
  expect(middle).toBeGreaterThan(500)
  await page.touchscreen.tap((left + right) / 2, middle)
  await page.touchscreen.tap((left + right) / 2, middle)
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await page.getByRole("button", { name: "Write" }).tap()
  await expect(page.getByRole("region", { name: "Write" })).toBeVisible()
  await expect.poll(async () => (await desk.where("haulage")).bottom).toBeLessThan(390)
})
