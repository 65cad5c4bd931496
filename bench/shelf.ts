/** A shelf of 10,000 documents in 200 folders: opened, flung, sorted. */
import type { Browser, Page } from "playwright-core"
import { document as documentOf, p } from "@biblon/core/document"
import { openDatabase } from "../apps/server/src/store/database"
import { DocumentStore } from "../apps/server/src/store/documents"
import { ShelfStore } from "../apps/server/src/store/shelf"
import { formats } from "@biblon/core/formats"
import { launch } from "./browser"
import { newDatabase, startApp } from "./desk"
import { percentile } from "./figures"
import { prose } from "./text"

export interface ShelfFigures {
  /** To the first row, with the request for all. */
  shelfOpenMs10000: number
  /** The longest task while it opens, while it is flung, and while it is sorted by name. */
  shelfOpenTaskMs: number
  shelfFlingTaskMs: number
  shelfSortTaskMs: number
  /** A hundred sheets of Office Open XML brought in, to the first sheet on the screen: the median of five. */
  importMs100: number
  /** From the press on a document of 100 sheets until its first is seen, and until one can write there. */
  pressedSeenMs: number
  pressedReadyMs: number
}

const count = 10_000
const folders = 200
/** Words of a full sheet of prose. */
const wordsASheet = 476

/** The longest task of what is done, in milliseconds; 0 where none is over 50. */
async function longestTask(page: Page, act: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const tasks: number[] = []
    Object.assign(window, { tasks })
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) tasks.push(duration)
    }).observe({ entryTypes: ["longtask"] })
  })
  await act()
  return page.evaluate(
    () =>
      new Promise<number>((done) =>
        setTimeout(() => done(Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)), 500),
      ),
  )
}

function fill(path: string): void {
  const db = openDatabase(path)
  const store = new DocumentStore(db)
  const shelf = new ShelfStore(db)
  const doc = documentOf([p("The chain was oiled, and the far flag could be seen.")])
  db.transaction(() => {
    for (let i = 0; i < folders; i++)
      shelf.change([{ kind: "folder", id: `folder-${i}`, gone: false, name: `Season ${1800 + i}`, folder: null }], i)
    for (let i = 0; i < count; i++)
      store.create(doc, `Log of day ${(i * 7919) % count}`, i, { folder: i % 2 ? `folder-${i % folders}` : null })
  })()
  db.close()
}

async function importMs(browser: Browser): Promise<number> {
  const buffer = Buffer.from(formats.docx.write?.({ name: "A hundred sheets", doc: prose(100 * wordsASheet) }) ?? [])
  const { app, address } = await startApp()
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const times: number[] = []
  for (let n = 0; n < 5; n++) {
    await page.goto(address)
    const input = page.getByLabel("File to bring in")
    await input.waitFor({ state: "attached" })
    const start = performance.now()
    await input.setInputFiles({ name: `report ${n}.docx`, mimeType: "", buffer })
    await page.waitForFunction(
      () => performance.getEntriesByName("sight").length > 0 || document.querySelector(".canvas .run"),
    )
    times.push(performance.now() - start)
  }
  await context.close()
  await app.close()
  return percentile(times, 0.5)
}

async function pressedMs(browser: Browser): Promise<Pick<ShelfFigures, "pressedSeenMs" | "pressedReadyMs">> {
  const { app, address } = await startApp()
  app.store.create(prose(100 * wordsASheet), "A hundred sheets", Date.now())
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  const times: { seen: number; ready: number }[] = []
  for (let n = 0; n < 6; n++) {
    await page.goto(address)
    const link = page.getByRole("link", { name: "Open A hundred sheets" })
    await link.waitFor()
    await page.evaluate(() => {
      addEventListener("click", ({ timeStamp }) => Object.assign(window, { pressed: timeStamp }), { capture: true })
    })
    await link.click()
    times.push(
      await page.evaluate(
        () =>
          new Promise<{ seen: number; ready: number }>((done) => {
            const look = () => {
              if (!document.querySelector(".canvas .run")) return requestAnimationFrame(look)
              const { pressed } = window as unknown as { pressed: number }
              const ready = performance.now() - pressed
              const sight = performance.getEntriesByName("sight").at(-1)?.startTime
              return done({ seen: sight === undefined ? ready : sight - pressed, ready })
            }
            look()
          }),
      ),
    )
  }
  await context.close()
  await app.close()
  // The first fetches the program.
  const median = (of: "seen" | "ready") =>
    percentile(
      times.slice(1).map((own) => own[of]),
      0.5,
    )
  return { pressedSeenMs: median("seen"), pressedReadyMs: median("ready") }
}

export async function measureShelf(browser: Browser): Promise<ShelfFigures> {
  const database = newDatabase()
  fill(database)
  const { app, address } = await startApp(database)
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  // tsx names inner functions by a call that the page does not have.
  await context.addInitScript("globalThis.__name = (f) => f")
  await context.addInitScript(() => {
    const look = () => {
      if (document.querySelector("[role=listitem]")) Object.assign(window, { shown: performance.now() })
      else requestAnimationFrame(look)
    }
    look()
  })
  const page = await context.newPage()
  const cdp = await context.newCDPSession(page)
  let shelfOpenMs10000 = Infinity
  let shelfOpenTaskMs = 0
  for (let i = 0; i < 3; i++) {
    await page.goto("about:blank")
    await page.goto(address, { waitUntil: "commit" })
    shelfOpenTaskMs = await longestTask(page, async () => {
      await page.getByRole("listitem").first().waitFor()
    })
    shelfOpenMs10000 = Math.min(
      shelfOpenMs10000,
      await page.evaluate(() => (window as unknown as { shown: number }).shown),
    )
  }
  const shelfFlingTaskMs = await longestTask(page, async () => {
    for (const yDistance of [-12_000, -12_000, 12_000])
      await cdp.send("Input.synthesizeScrollGesture", { x: 180, y: 400, yDistance, speed: 5000 })
  })
  const shelfSortTaskMs = await longestTask(page, async () => {
    await page.getByLabel("Order of the shelf").selectOption("By name")
  })
  await context.close()
  await app.close()
  const importMs100 = await importMs(browser)
  const pressed = await pressedMs(browser)
  return { shelfOpenMs10000, shelfOpenTaskMs, shelfFlingTaskMs, shelfSortTaskMs, importMs100, ...pressed }
}

if (process.argv[1]?.endsWith("shelf.ts")) {
  const browser = await launch()
  console.log(await measureShelf(browser))
  await browser.close()
}
