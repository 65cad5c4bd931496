/** What could not become a part of the document: refused, of another history, or closed in the wrong moment. */
import { copyFileSync } from "node:fs"
import type { Page } from "@playwright/test"
import { journeyOptions } from "../../scripts/chromium.mjs"
import { DeskPage, expect, expectAccessible, test, testOnOwnServer } from "../desk"

// Here tabs have a process each, as with people.
test.use({ launchOptions: journeyOptions })

/** A server between the page and ours that refuses every change with a word in it. */
async function refusing(page: Page, word: string): Promise<void> {
  await page.routeWebSocket(/\/live\//, (ws) => {
    const server = ws.connectToServer()
    ws.onMessage((message) => {
      const own = JSON.parse(String(message)) as { steps: unknown[] }
      const at = own.steps.findIndex((step) => JSON.stringify(step).includes(word))
      // As our own does: what comes before the change that does not fit is taken.
      if (at === 0) ws.send(JSON.stringify({ type: "refused", reason: "It does not fit." }))
      else server.send(at < 0 ? message : JSON.stringify({ ...own, steps: own.steps.slice(0, at) }))
    })
  })
}

const card = (page: Page) => page.getByRole("alertdialog", { name: "Not in the document" })

test("a refused change is set aside with its words, writing goes on saved, and each way out works", async ({
  desk,
  page,
}) => {
  await refusing(page, "kraken")
  await desk.blank()
  await desk.type("Before. ")
  await desk.paste({ "text/plain": "Here be kraken. " })
  await desk.type("After.")
  await expect(card(page)).toContainText("It does not fit.")
  await expect(card(page).getByRole("note")).toContainText("Here be kraken")
  await expectAccessible(page)
  await desk.expectShown("Before. After.")
  await desk.saved()
  expect(await desk.server.text(desk.id)).toBe("Before. After.")
  // It outlives the page.
  await page.reload()
  await expect(card(page).getByRole("note")).toContainText("Here be kraken")
  await card(page).getByRole("button", { name: "Drop it" }).click()
  await card(page).getByRole("button", { name: "Bring it back" }).click()
  const before = ((await (await fetch(`${desk.server.address}/api/documents`)).json()) as unknown[]).length
  await card(page).getByRole("button", { name: "Keep as a new document" }).click()
  await expect(page).not.toHaveURL(new RegExp(desk.id))
  await expect(page.locator(".run", { hasText: "Here be kraken" })).toBeVisible()
  expect(((await (await fetch(`${desk.server.address}/api/documents`)).json()) as unknown[]).length).toBe(before + 1)
  await expect(card(page)).toBeHidden()
})

test("what was set aside is put in again at the caret, and saved", async ({ desk, page, context }) => {
  await refusing(page, "kraken")
  await desk.blank()
  await desk.paste({ "text/plain": "Here be kraken." })
  await expect(card(page)).toBeVisible()
  // In another tab nothing refuses it any more.
  const again = new DeskPage(await context.newPage(), desk.server)
  await again.open(desk.id)
  await again.firstSheet.click({ position: { x: 120, y: 120 } })
  await card(again.page).getByRole("button", { name: "Put it in again" }).click()
  await again.expectShown("Here be kraken.")
  await again.saved()
  expect(await desk.server.text(desk.id)).toBe("Here be kraken.")
})

test("what was left unconfirmed is taken up although the first attempt to open fails", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Saved. ")
  await desk.saved()
  await page.routeWebSocket(/\/live\//, () => {})
  await page.reload()
  await desk.firstSheet.click({ position: { x: 120, y: 120 } })
  await desk.press("Control+End")
  await desk.type("Kept.")
  await page.route(/\/content/, (route) => route.abort())
  await page.reload()
  await expect(page.getByText("The server cannot be reached.")).toBeVisible()
  await page.unroute(/\/content/)
  await desk.expectShown("Saved. Kept.")
})

test("when the screen cannot be drawn, the text is saved, stays within reach, and a reload goes on", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("The chain holds.")
  await expect(page.getByTestId("words")).toHaveText("3 words")
  await page.evaluate(() =>
    Object.defineProperty(Intl.NumberFormat.prototype, "format", {
      get() {
        throw new Error("No figures today")
      },
    }),
  )
  // One word more is told by figures.
  await page.keyboard.insertText(" Go!")
  const failed = page.getByRole("alert")
  await expect(failed).toContainText("No figures today")
  await expect(failed.getByRole("textbox")).toHaveValue("The chain holds. Go!")
  const kept = await failed.getByRole("textbox").inputValue()
  await failed.getByRole("button", { name: "Reload" }).click()
  await desk.expectShown(kept)
  await desk.saved()
})

test.describe("on a server of its own", () => {
  const own = testOnOwnServer

  own(
    "a server that was put back to an earlier state costs nothing that is on the page",
    async ({ page, ownServer }) => {
      const desk = new DeskPage(page, ownServer)
      await desk.blank()
      await desk.type("On Monday. ")
      await desk.saved()
      await ownServer.kill()
      const files = ["", "-wal"].map(
        (end) => [`${ownServer.database}${end}`, `${ownServer.database}${end}.before`] as const,
      )
      for (const [from, to] of files) copyFileSync(from, to)
      await ownServer.start()
      await expect(desk.saving).toHaveText(/^Saved/)
      await desk.type("On Tuesday.")
      await desk.saved()
      await ownServer.kill()
      for (const [to, from] of files) copyFileSync(from, to)
      await ownServer.start()
      await desk.expectShown("On Monday. ")
      await expect(card(page).getByRole("note")).toContainText("On Tuesday.")
      await page
        .locator(".sheet")
        .first()
        .click({ position: { x: 120, y: 120 } })
      await desk.press("Control+End")
      await card(page).getByRole("button", { name: "Put it in again" }).click()
      await desk.expectShown("On Monday. On Tuesday.")
      await desk.saved()
      expect(await ownServer.text(desk.id)).toBe("On Monday. On Tuesday.")
    },
  )

  own(
    "two tabs opened in the same instant do not both take up what a third has left",
    async ({ context, ownServer }) => {
      const first = new DeskPage(await context.newPage(), ownServer)
      await first.blank()
      await first.saved()
      await ownServer.kill()
      await first.type("Left behind.")
      await expect(first.saving).toHaveText("Offline: kept on this device")
      await first.page.close()
      await ownServer.start()
      const tabs = await Promise.all([0, 1, 2].map(async () => new DeskPage(await context.newPage(), ownServer)))
      await Promise.all(tabs.map((tab) => tab.open(first.id)))
      for (const tab of tabs) await tab.expectShown("Left behind.")
      await tabs[0]!.page
        .locator(".sheet")
        .first()
        .click({ position: { x: 120, y: 120 } })
      await tabs[0]!.press("Control+End")
      await tabs[0]!.type(" Found.")
      for (const tab of tabs) await tab.expectShown("Left behind. Found.")
      for (const tab of tabs) await tab.saved()
      expect(await ownServer.text(first.id)).toBe("Left behind. Found.")
    },
  )

  own(
    "a page closed at once after fast typing, and one whose storage is denied",
    async ({ context, browser, ownServer }) => {
      const text = "The chain lies on the bed of the river and is raised as the ferry passes."
      const desk = new DeskPage(await context.newPage(), ownServer)
      await desk.blank()
      await desk.page.keyboard.type(text)
      await desk.page.close()
      const again = new DeskPage(await context.newPage(), ownServer)
      await again.open(desk.id)
      await again.expectShown(text)
      const shut = await browser.newContext()
      await shut.addInitScript(() => {
        indexedDB.open = () => {
          throw new DOMException("denied", "SecurityError")
        }
        Object.defineProperty(window, "localStorage", {
          get: () => {
            throw new DOMException("denied", "SecurityError")
          },
        })
      })
      const denied = new DeskPage(await shut.newPage(), ownServer)
      await denied.open(desk.id)
      await denied.expectShown(text)
      await denied.firstSheet.click({ position: { x: 120, y: 120 } })
      await denied.press("Control+End")
      await denied.type(" Still.")
      await denied.saved()
      await ownServer.kill()
      await denied.type(" Gone.")
      await expect(denied.saving).toHaveText("Offline: not kept, stay on this page")
      await ownServer.start()
      await denied.saved()
      expect(await ownServer.text(desk.id)).toBe(`${text} Still. Gone.`)
      await shut.close()
    },
  )
})

test("a paste of 12,000 paragraphs is shown, is one undo, and is saved whole", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Above. ")
  const crossings = Array.from(
    { length: 12_000 },
    (_, i) => `Crossing ${i + 1} took six minutes at slack water, with the wind from the south-west.`,
  )
  await desk.paste({ "text/plain": crossings.join("\n") })
  await desk.type(" Below.")
  await expect(page.getByTestId("words")).toContainText(/^1[56]\d,\d{3} words/, { timeout: 60_000 })
  await expect(desk.saving).toHaveText(/^Saved \d\d/, { timeout: 60_000 })
  const stored = await desk.server.paragraphs(desk.id)
  expect([
    stored.length,
    stored[0]?.text.startsWith("Above. Crossing 1 "),
    stored.at(-1)?.text.endsWith("south-west. Below."),
  ]).toEqual([12_000, true, true])
  await desk.press("Control+z", "Control+z")
  await desk.expectShown("Above. ")
})
