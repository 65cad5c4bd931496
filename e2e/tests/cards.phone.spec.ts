/** Cards on the sheets lie whole in sight, wherever what they belong to stands. */
import type { Locator } from "@playwright/test"
import { expect, test } from "../desk"

test("the cards of links and of what was pasted are whole in sight above the keyboard, and go along when one scrolls", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  for (let line = 0; line < 20; line++) {
    await desk.type(line === 12 ? "See https://saltmarsh.example/boards today. " : "The ferry ran on time.")
    await desk.press("Enter")
  }
  await desk.saved()
  // The keyboard is up.
  await page.setViewportSize({ width: 390, height: 430 })
  await desk.settled()
  const host = page.locator(".canvas").locator("..")
  const scroll = (by: number) => host.evaluate((own, y) => (own.scrollTop += y), by)
  const room = (await host.boundingBox())!
  /** How far from the foot of the room words stand. */
  const under = async (words: string) => room.y + room.height - (await desk.where(words)).bottom
  const expectWhole = async (card: Locator) => {
    await expect
      .poll(async () => {
        const box = await card.boundingBox()
        if (!box) return null
        const across = box.x >= 0 && box.x + box.width <= 390
        return across && box.y >= room.y && box.y + box.height <= room.y + room.height
      })
      .toBe(true)
  }
  const tap = async (words: string) => {
    const { left, right, middle } = await desk.where(words)
    await page.touchscreen.tap((left + right) / 2, middle)
  }

  await scroll(12 - (await under("saltmarsh.example")))
  await desk.settled()
  const link = page.getByRole("group", { name: "Link", exact: true })
  await tap("saltmarsh.example")
  await expect(link.getByRole("button", { name: "Open" })).toBeVisible()
  await expectWhole(link)
  const { top } = await desk.where("saltmarsh.example")
  const card = (await link.boundingBox())!
  expect([card.y + card.height <= top, card.y + card.height > top - 24]).toEqual([true, true])

  // Where there is room below it lies there; scrolled on, it goes along.
  await scroll(140)
  await expect
    .poll(async () => (await link.boundingBox())!.y > (await desk.where("saltmarsh.example")).bottom)
    .toBe(true)
  await expectWhole(link)

  const pasted = page.getByRole("group", { name: "How to paste" })
  await desk.press("End")
  await desk.paste({ "text/html": "<p>The <b>board</b> is right.</p>" })
  await expect(pasted.getByRole("button", { name: "Text only" })).toBeVisible()
  await expectWhole(pasted)
})
