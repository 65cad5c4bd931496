import { expect, expectAccessible, test } from "../desk"
import { discPng } from "../picture"
import type { Locator } from "@playwright/test"

test("on a phone a notice gets a round picture beside its text, which a finger drags from left to right", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await page.keyboard.insertText("Notice: the ferry rests on Thursday while its chain is turned. ".repeat(8).trim())
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const bench = page.getByRole("navigation", { name: "Bench" })
  await bench.getByRole("button", { name: "Place" }).tap()
  await page
    .getByLabel("Pictures to put in")
    .setInputFiles({ name: "disc.png", mimeType: "image/png", buffer: discPng(300, 300) })
  const picture = page.locator(".canvas .picture").first()
  await expect(picture.locator("img")).toHaveCount(1)
  await bench.getByRole("button", { name: "Write" }).tap()
  await page.getByRole("button", { name: "Beside" }).tap()
  await page.getByRole("button", { name: "Left", exact: true }).first().tap()
  await page.getByRole("button", { name: "Round", exact: true }).tap()
  await expectAccessible(page)
  // On a phone the sheet shows where it stands.
  await page.getByRole("button", { name: "Show the sheets" }).tap()
  await desk.settled()
  const sheet = (await desk.firstSheet.boundingBox())!
  await expect.poll(async () => (await picture.boundingBox())?.x ?? NaN).toBeLessThan(sheet.x + sheet.width / 2)
  await picture.tap({ force: true })
  const body = page.getByTestId("picture-body")
  await expect(body).toBeVisible()
  // Its frame has grips of its own: those of text would lie over them.
  await expect(page.locator(".handle:visible")).toHaveCount(0)
  await expect(page.locator(".canvas .selected")).toHaveCount(0)
  const session = await page.context().newCDPSession(page)
  const middleOf = async (part: Locator) => {
    const { x, y, width, height } = (await part.boundingBox())!
    return [x + width / 2, y + height / 2] as const
  }
  const drag = async (part: Locator, dx: number, dy = 0) => {
    const [x, y] = await middleOf(part)
    const touch = (type: "touchStart" | "touchMove" | "touchEnd", step = 0) =>
      session.send("Input.dispatchTouchEvent", {
        type,
        touchPoints: type === "touchEnd" ? [] : [{ x: x + (dx * step) / 8, y: y + (dy * step) / 8 }],
      })
    await touch("touchStart")
    for (let step = 1; step <= 8; step++) await touch("touchMove", step)
    await touch("touchEnd")
  }
  await drag(body, sheet.width * 0.57)
  await expect.poll(async () => (await picture.boundingBox())?.x ?? NaN).toBeGreaterThan(sheet.x + sheet.width * 0.4)
  // By its knob a quarter round, from above it to its right.
  const knob = page.getByRole("slider", { name: "Turn the picture" })
  const [x, y] = await middleOf(body)
  const [knobX, knobY] = await middleOf(knob)
  await drag(knob, x - knobX + (y - knobY), y - knobY)
  await expect(knob).toHaveAttribute("aria-valuenow", "90")
  await desk.saved()
})
