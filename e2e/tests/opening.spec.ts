/** What is seen before the program is here: the first sheets, where the desk then shows them. */
import type { Page } from "@playwright/test"
import { expect, test } from "../desk"
import { difference, inkOf, textAlone } from "../pictures"
import { hearLate } from "../late"

/** Keeps the program, or another script, away until it is let in. */
async function held(page: Page, script = /\/entry-.*\.js/): Promise<() => void> {
  let letIn = () => {}
  const wait = new Promise<void>((resolve) => (letIn = resolve))
  await page.route(script, async (route) => {
    await wait
    await route.continue()
  })
  return letIn
}

const inSight = (page: Page) => page.waitForFunction(() => performance.getEntriesByName("sight").length > 0)

for (const [view, late] of [
  ["Sheets", 0],
  ["Flow", 0],
  ["Flow", 300],
] as const)
  test(`the first sheets are seen before the program is here, and stay where they are when it comes: ${view}, workers ${late} ms late`, async ({
    desk,
    page,
  }) => {
    await hearLate(page, late)
    await desk.openNamed("Risk report")
    await page.getByRole("button", { name: view, exact: true }).click()
    await desk.saved()
    const { x, y, width } = (await page.getByRole("main").boundingBox())!
    // A part tells whether it is where it was, and is looked at much sooner.
    const clip = { x: x + width / 2 - 240, y, width: 480, height: 400 }
    const letIn = await held(page)
    await page.reload({ waitUntil: "commit" })
    await inSight(page)
    await page.evaluate(() => document.fonts.ready)
    const before = await inkOf(page, await page.screenshot({ clip }))
    letIn()
    await desk.saved()
    await page.getByRole("main").focus()
    const { worst, at } = difference(before, await inkOf(page, await page.screenshot({ clip, style: textAlone })))
    expect(worst, at).toBeLessThan(0.02)
  })

test("what is pressed on the shelf is seen before its desk is there, is asked for once, and stays where it was", async ({
  desk,
  page,
  server,
}) => {
  await desk.blank()
  await desk.type("Low water is at six. The crossing is closed while the chain is turned.")
  await desk.saved()
  let asked = 0
  page.on("request", (request) => (asked += /\/content$/.test(request.url()) ? 1 : 0))
  const deskProgram = /(\[|%5B)id(\]|%5D)-.*\.js/
  for (const time of ["first", "again"]) {
    await page.goto(server.address)
    const link = page.getByRole("link", { name: "Open “Low water is at six" }).first()
    // The desk's program comes only once its sheets have been looked at.
    const letIn = await held(page, deskProgram)
    asked = 0
    await link.dblclick()
    await inSight(page)
    await page.evaluate(() => document.fonts.ready)
    const clip = { x: 450, y: 100, width: 480, height: 400 }
    const before = await inkOf(page, await page.screenshot({ clip }))
    letIn()
    await expect(page.locator(".canvas .run").first()).toBeVisible()
    await desk.saved()
    await page.getByRole("main").focus()
    const { worst, at } = difference(before, await inkOf(page, await page.screenshot({ clip, style: textAlone })))
    expect(worst, `${time}, ${at}`).toBeLessThan(0.02)
    expect(asked).toBe(1)
    await page.unroute(deskProgram)
    await page.getByRole("link", { name: "Back to the shelf" }).click()
    await expect(link).toBeVisible()
  }
})

test("what is typed goes on from where the first sheets were seen; of a document that is missing none are", async ({
  desk,
  page,
  server,
}) => {
  await desk.blank()
  await desk.type("Low water at six.")
  await desk.saved()
  const letIn = await held(page)
  await page.reload({ waitUntil: "commit" })
  await inSight(page)
  letIn()
  await desk.firstSheet.click({ position: { x: 120, y: 120 } })
  await desk.press("Control+End")
  await desk.type(" The crossing is closed.")
  await desk.expectShown("Low water at six. The crossing is closed.")
  await page.goto(`${server.address}/d/nothing-of-the-kind`)
  await expect(page.getByText("This document is not on the shelf.")).toBeVisible()
})

test("the scripts of the page that is asked for are here before the program begins, and each is asked for once", async ({
  desk,
  page,
  server,
}) => {
  const asked: string[] = []
  page.on("request", (request) => {
    const name = /\/js\/web\/(.*)-\w+\.js$/.exec(decodeURI(request.url()))?.[1]
    if (name) asked.push(name)
  })
  const scripts = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLScriptElement>("head script[src*='/js/web/']")].map(
        ({ src }) => /([^/]*)-\w+\.js$/.exec(decodeURI(src))?.[1],
      ),
    )
  const begun = ["__expo-metro-runtime", "__common", "_layout"]
  await desk.open(await server.create())
  await expect(desk.field).toBeAttached()
  expect(await scripts()).toEqual([...begun, "[id]", "entry"])
  expect(asked.sort()).toEqual([...begun, "[id]", "entry"].sort())
  await page.goto(server.address)
  await expect(page.getByRole("button", { name: /New/ }).first()).toBeVisible()
  expect(await scripts()).toEqual([...begun, "index", "entry"])
})

test("scripts that the browser may not have are asked for with the page, and those that it has behind the first sheets", async ({
  desk,
  page,
  server,
}) => {
  const ahead = () => page.locator("head link[rel=preload][as=script]").count()
  await desk.open(await server.create())
  await desk.saved()
  expect(await ahead()).toBe(5)
  await page.reload()
  await desk.saved()
  expect(await ahead()).toBe(0)
  // A newer program has other names.
  await page.evaluate(() => localStorage.setItem("biblon-program [id]", JSON.stringify("/entry-of-before.js")))
  await page.reload()
  await desk.saved()
  expect(await ahead()).toBe(5)
})

test("what cannot be had at first, or never comes, is asked for again, and the document opens", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Low water at six.")
  await desk.saved()
  const only = async (of: RegExp, what: "abort" | "wait") => {
    let times = 0
    await page.route(of, (route) => {
      if (times++ > 0) return route.continue()
      // What waits is never answered.
      return what === "abort" ? route.abort() : undefined
    })
    await page.reload()
    await desk.expectShown("Low water at six.")
    await expect(page.getByRole("alert")).toHaveCount(0)
    expect(times).toBeGreaterThan(1)
    await page.unroute(of)
  }
  await only(/harfbuzz[^/]*\.wasm/, "abort")
  await only(/\/content$/, "abort")
  await only(/\/content$/, "wait")
  await desk.firstSheet.click({ position: { x: 120, y: 120 } })
  await desk.press("Control+End")
  await desk.type(" The crossing is closed.")
  await desk.expectShown("Low water at six. The crossing is closed.")
  await desk.saved()
})
