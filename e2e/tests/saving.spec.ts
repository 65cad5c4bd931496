import type { Page } from "@playwright/test"
import { journeyOptions } from "../../scripts/chromium.mjs"
import { expect, test, testOnOwnServer } from "../desk"

// Here tabs have a process each, as with people.
test.use({ launchOptions: journeyOptions })

const sentences = Array.from({ length: 12 }, (_, i) => `Crossing ${i + 1} took ${6 + (i % 5)} minutes at slack water.`)

/** How many changes the device keeps because the server has not confirmed them. */
const keptSteps = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        indexedDB.open("biblon").onsuccess = ({ target }) => {
          const count = (target as IDBOpenDBRequest).result.transaction("steps").objectStore("steps").count()
          count.onsuccess = () => resolve(count.result)
        }
      }),
  )

test.describe("on a server of its own", () => {
  const own = testOnOwnServer

  own("a server killed in the middle of typing costs not one character", async ({ page, ownServer }) => {
    const { DeskPage } = await import("../desk")
    const desk = new DeskPage(page, ownServer)
    await desk.blank()
    for (const [i, sentence] of sentences.entries()) {
      const half = Math.floor(sentence.length / 2)
      await desk.type(sentence.slice(0, half))
      if (i % 4 === 1) {
        await ownServer.kill()
        await desk.type(sentence.slice(half))
        await desk.press("Enter")
        await expect(desk.saving).toHaveText("Offline: kept on this device")
        await ownServer.start()
      } else {
        await desk.type(sentence.slice(half))
        await desk.press("Enter")
      }
    }
    await expect(desk.saving).toHaveText(/^Saved \d\d:\d\d/)
    expect(await ownServer.text(desk.id)).toBe([...sentences, ""].join("\n"))
    await page.reload()
    await expect.poll(() => desk.shown()).toContain(sentences[11])
  })

  own("what was typed while the server was gone survives a closed tab", async ({ context, ownServer }) => {
    const { DeskPage } = await import("../desk")
    const first = new DeskPage(await context.newPage(), ownServer)
    await first.blank()
    await first.type("Before the storm. ")
    await first.saved()
    await ownServer.kill()
    await first.type("After it.")
    await expect(first.saving).toHaveText("Offline: kept on this device")
    await expect.poll(() => keptSteps(first.page)).toBe("After it.".length)
    await first.page.close()
    await ownServer.start()
    expect(await ownServer.text(first.id)).toBe("Before the storm. ")
    const second = new DeskPage(await context.newPage(), ownServer)
    await second.open(first.id)
    await second.expectShown("Before the storm. After it.")
    await expect(second.saving).toHaveText(/^Saved \d\d/)
    expect(await ownServer.text(first.id)).toBe("Before the storm. After it.")
    await second.page.reload()
    await second.expectShown("Before the storm. After it.")
  })

  own("a change that was saved but never confirmed is not made twice", async ({ context, ownServer }) => {
    const { DeskPage } = await import("../desk")
    const desk = new DeskPage(await context.newPage(), ownServer)
    // The server's confirmations do not arrive.
    await desk.page.routeWebSocket(/\/live\//, (ws) => {
      const server = ws.connectToServer()
      server.onMessage((message) => {
        if (!String(message).startsWith('{"type":"steps"')) ws.send(message)
      })
    })
    await desk.blank()
    await desk.type("Once only.")
    await expect.poll(() => ownServer.text(desk.id)).toContain("O")
    await expect.poll(() => keptSteps(desk.page)).toBe("Once only.".length)
    await desk.page.close()
    const again = new DeskPage(await context.newPage(), ownServer)
    await again.open(desk.id)
    await again.expectShown("Once only.")
    await again.saved()
    expect(await ownServer.text(desk.id)).toBe("Once only.")
  })
})

test("a lost connection is shown, and typing goes on", async ({ desk, context }) => {
  await desk.blank()
  await desk.type("On land. ")
  await desk.saved()
  await context.setOffline(true)
  await desk.type("At sea.")
  await expect(desk.saving).toHaveText("Offline: kept on this device")
  await context.setOffline(false)
  await desk.saved()
  expect(await desk.server.text(desk.id)).toBe("On land. At sea.")
})

test("two tabs follow each other, and edits in one paragraph both stay", async ({ desk, context, server }) => {
  const { DeskPage } = await import("../desk")
  await desk.blank()
  await desk.type("The chain lies on the bed.")
  await desk.saved()
  const other = new DeskPage(await context.newPage(), server)
  await other.open(desk.id)
  await other.expectShown("The chain lies on the bed.")
  await other.firstSheet.click({ position: { x: 110, y: 90 } })
  await other.press("Control+Home")
  await other.type("Note: ")
  await desk.expectShown("Note: The chain lies on the bed.")
  // The first caret stayed at the end.
  await Promise.all([desk.type(" It is raised as the ferry passes."), other.type("well, ")])
  const text = "Note: well, The chain lies on the bed. It is raised as the ferry passes."
  await desk.expectShown(text)
  await other.expectShown(text)
  await desk.saved()
  expect(await server.text(desk.id)).toBe(text)
  // Undo takes back one's own change only.
  await desk.press("Control+z")
  await expect.poll(async () => (await other.shown())[0]).not.toContain("passes.")
  expect((await other.shown())[0]).toContain("Note: well, ")
})

test("the save shortcut confirms rather than asks", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Kept.")
  await desk.press("Control+s")
  await expect(desk.saving).toHaveText(/^Saved \d\d:\d\d$/)
  await expect(page.getByRole("dialog")).toHaveCount(0)
})
