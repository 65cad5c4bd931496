/** Documents that are large in one way: a key in each, from the key's time stamp to its glyph, as work without the wait for the display. */
import type { Browser } from "playwright-core"
import { document, p, paragraph } from "@biblon/core/document"
import { percentile } from "./figures"
import { open as openPage, paintMs, startApp } from "./desk"
import { proseParagraphs } from "./text"

export interface GrowthFigures {
  /** A letter near the start of one paragraph of 100,000 words. */
  longParagraphKeyMs: number
  longParagraphTaskMs: number
  /** Enter at the top of 10,000 numbered items. */
  itemsEnterMs: number
  itemsTaskMs: number
  /** A letter with 2,000 headings and the outline open. */
  headingsKeyMs: number
  headingsTaskMs: number
}

export async function measureGrowth(browser: Browser): Promise<GrowthFigures> {
  const { app, address } = await startApp()
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  const open = async (name: string, blocks: Parameters<typeof document>[0], outline = false) => {
    await openPage(page, `${address}/d/${app.store.create(document(blocks), name, Date.now()).id}`)
    await page.waitForFunction(
      () => !/…/.test(globalThis.document.querySelector("[role=contentinfo]")?.textContent ?? "…"),
    )
    if (!outline) return
    await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Structure" }).click()
    await page.getByRole("tab", { name: "Outline" }).click()
  }
  const words = proseParagraphs(100_000).join(" ")
  await open("One paragraph", [p(words)])
  const long = await paintMs(page, 40, { nth: 0 })
  const item = (i: number) =>
    paragraph("body", [`Crossing ${i}`], { list: { definition: "numbers", run: "a", level: 0 } })
  await open(
    "Items",
    Array.from({ length: 10_000 }, (_, i) => item(i)),
  )
  const items = await paintMs(page, 25, { key: "Enter", nth: 0 })
  await open(
    "Headings",
    Array.from({ length: 4000 }, (_, i) =>
      i % 2 === 0 ? paragraph("heading1", [`Part ${i}`]) : p("The ferry waits."),
    ),
    true,
  )
  const headings = await paintMs(page, 40)
  await context.close()
  await app.close()
  return {
    longParagraphKeyMs: percentile(long.work, 0.5),
    longParagraphTaskMs: long.longest,
    itemsEnterMs: percentile(items.work, 0.5),
    itemsTaskMs: items.longest,
    headingsKeyMs: percentile(headings.work, 0.5),
    headingsTaskMs: headings.longest,
  }
}
