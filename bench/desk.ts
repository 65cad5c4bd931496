/** The application in the browser: key to painted glyph, and opening, in short and long documents. */
import { mkdtempSync } from "node:fs"
import { tmpdir } from "node:os"
import type { AddressInfo } from "node:net"
import { join, resolve } from "node:path"
import type { Browser, Page } from "playwright-core"
import { document as emptyDocument } from "@biblon/core/document"
import { createApp, type App } from "../apps/server/src/app"
import { percentile } from "./figures"
import { everything, everythingWords, prose, proseParagraphs, shaped, spelledParagraphs, wideParagraphs } from "./text"

declare const scheduler: { postTask(task: () => void, options: { priority: string }): Promise<void> }

export interface DeskFigures {
  paintMs1: number
  paintP95Ms1: number
  paintMs1000: number
  paintP95Ms1000: number
  /** Work alone, without the wait for the display. */
  paintWorkP95Ms1000: number
  /** Until the first sheet is seen, and until one can write there. */
  openMs1: number
  openMs1000: number
  readyMs1: number
  readyMs1000: number
  /** Opened again after 200 letters. */
  openEditedMs1000: number
  /** In 1,000 sheets of words that no dictionary has, until those in sight are marked. */
  marksMs1000: number
  /** Work of a letter while the words of all 1,000 sheets are to be looked up, against that with spelling off, medians. */
  keyWhileSpelling: number
  /** A letter among columns, heads, notes and contents. */
  everythingPaintWorkP95Ms1000: number
  everythingPaintWorkVsPlain: number
  longestTaskMs1000: number
  /** The same in 1,000 sheets that use all of typography. */
  shapedOpenMs1000: number
  shapedPaintMs1000: number
  shapedPaintP95Ms1000: number
  shapedPaintWorkP95Ms1000: number
  shapedLongestTaskMs1000: number
  /** A set of faces taken in the middle of 1,000 sheets, until all that is in sight wears it. */
  restyleMs1000: number
  /** Typing while more than 10,000 places are marked. */
  foundPlaces: number
  paintP95MsFound: number
  /** 100 sheets of HTML, from the paste to the first sheet painted, and the longest task of it. */
  pasteMs: number
  pasteLongestTaskMs: number
  /** 47,000 paragraphs of plain text, likewise. */
  pasteMs47000: number
  pasteLongestTaskMs47000: number
  /** Growth of the page's memory by 5,000 letters in 500 changes and 500 undos. */
  memoryGrowthKb: number
}

export interface Opened {
  /** Until the letters of the first sheet have been painted, and until one can write there. */
  seen: number
  ready: number
}

/** Opens a document several times. @returns the least of each */
export async function opened(page: Page, url: string, times = 2): Promise<Opened> {
  const all: Opened[] = []
  for (let n = 0; n < times; n++) all.push(await open(page, url))
  return { seen: Math.min(...all.map(({ seen }) => seen)), ready: Math.min(...all.map(({ ready }) => ready)) }
}

/** Opens a document until one can write in it. */
export async function open(page: Page, url: string): Promise<Opened> {
  await page.goto("about:blank")
  await page.goto(url, { waitUntil: "commit" })
  return page.evaluate(
    () =>
      new Promise<Opened>((done) => {
        const look = () => {
          if (document.querySelector(".canvas .run"))
            requestAnimationFrame(() =>
              setTimeout(() => {
                const ready = performance.now()
                done({ seen: performance.getEntriesByName("sight")[0]?.startTime ?? ready, ready })
              }),
            )
          else requestAnimationFrame(look)
        }
        look()
      }),
  )
}

/** From the time at which one can write in a document until its wrong words in sight are marked, the median of several openings. */
async function marksMs(page: Page, url: string): Promise<number> {
  const times: number[] = []
  for (let n = 0; n < 5; n++) {
    const { ready } = await open(page, url)
    const marked = await page.evaluate(
      () =>
        new Promise<number>((done) => {
          const look = () => {
            if (document.querySelector(".misspelt")) done(performance.now())
            else requestAnimationFrame(look)
          }
          look()
        }),
    )
    times.push(marked - ready)
  }
  return percentile(times, 0.5)
}

/** For each letter typed in the middle: from the key's own time stamp until the frame that shows it has been made, and that without the wait for the display. */
export async function paintMs(
  page: Page,
  letters: number,
  { key = "e", nth = 1, among = ".block", sheets = true } = {},
): Promise<{ times: number[]; work: number[]; longest: number }> {
  if (sheets)
    await page.waitForFunction(() =>
      document.querySelector(".sheet")?.getAttribute("aria-label")?.startsWith("Sheet 1 of"),
    )
  const block = page.locator(among).nth(nth)
  await block.scrollIntoViewIfNeeded()
  const box = (await block.boundingBox())!
  await page.mouse.click(box.x + 200, box.y + 8)
  await page.evaluate(() => {
    const times: number[] = []
    const work: number[] = []
    const tasks: number[] = []
    const heard = new AbortController()
    const long = new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration)))
    long.observe({ entryTypes: ["longtask"] })
    let pressed = 0
    // A hyphen may go where a letter comes, so that the length alone says nothing.
    const shown = () => [...document.querySelectorAll(".sheet")].map((sheet) => sheet.textContent).join()
    let before = ""
    document.addEventListener(
      "keydown",
      (event) => {
        pressed = event.timeStamp
        before = shown()
      },
      { capture: true, signal: heard.signal },
    )
    const changes = new MutationObserver(() => {
      if (pressed === 0 || shown() === before) return
      const start = pressed
      pressed = 0
      const changed = performance.now()
      requestAnimationFrame(() => {
        // The frame's own work begins when its callbacks do; until then the page waits for the display.
        const began = performance.now()
        // The first task after the frame that shows the letter.
        void scheduler.postTask(
          () => {
            const now = performance.now()
            work.push(changed - start + now - began)
            times.push(now - start)
          },
          { priority: "user-blocking" },
        )
      })
    })
    changes.observe(document.querySelector(".canvas")!, { childList: true, subtree: true })
    const stop = () => {
      heard.abort()
      for (const own of [long, changes]) own.disconnect()
    }
    Object.assign(window, { times, work, tasks, stop })
  })
  for (let i = 0; i < letters; i++) {
    const done = await page.evaluate(() => (window as unknown as { times: number[] }).times.length)
    await page.keyboard.press(key)
    await page.waitForFunction((n) => (window as unknown as { times: number[] }).times.length > n, done)
  }
  return page.evaluate(() => {
    const { times, work, tasks, stop } = window as unknown as Record<"times" | "work" | "tasks", number[]> & {
      stop(): void
    }
    // Whoever types again is not heard twice.
    stop()
    return { times: times.slice(5), work: work.slice(5), longest: Math.max(0, ...tasks) }
  })
}

/** Waits until all sheets are composed, so that their number is told. */
async function composed(page: Page): Promise<void> {
  await page.waitForFunction(() => !/…/.test(document.querySelector("[role=contentinfo]")?.textContent ?? "…"))
}

/** What letters take in two documents of which one holds everything, typed by turns: how fast the machine is changes within minutes. */
async function inTurns(plain: Page, everything: Page): Promise<{ plain: number[]; everything: number[] }> {
  const work = { plain: [] as number[], everything: [] as number[] }
  for (let turn = 0; turn < 6; turn++) {
    await plain.bringToFront()
    work.plain.push(...(await paintMs(plain, 45)).work)
    await everything.bringToFront()
    work.everything.push(...(await paintMs(everything, 45, { among: ".block.text", sheets: false })).work)
  }
  return work
}

/** What a letter takes right after opening, when all words are to be looked up, against one with spelling off; openings take turns. */
async function keyWhileSpelling(page: Page, url: string): Promise<number> {
  const letters = { on: [] as number[], off: [] as number[] }
  for (let n = 0; n < 8; n++)
    for (const turn of ["on", "off"] as const) {
      await page.evaluate((on) => localStorage.setItem("biblon-spelling", String(on)), turn === "on")
      await open(page, url)
      letters[turn].push(...(await paintMs(page, 20)).work)
    }
  await page.evaluate(() => localStorage.removeItem("biblon-spelling"))
  return percentile(letters.on, 0.5) / percentile(letters.off, 0.5)
}

/** Types in the document that is open while all places of a letter are marked. */
async function whileFound(page: Page): Promise<Pick<DeskFigures, "foundPlaces" | "paintP95MsFound">> {
  await page.keyboard.press("Control+f")
  await page.getByRole("textbox", { name: "Find" }).fill("ferry")
  const count = page.getByTestId("find-count")
  await page.waitForFunction(() =>
    /of \d+$/.test(document.querySelector("[data-testid=find-count]")?.textContent ?? ""),
  )
  const foundPlaces = Number(/of (\d+)/.exec((await count.textContent()) ?? "")?.[1])
  const { times } = await paintMs(page, 120)
  return { foundPlaces, paintP95MsFound: percentile(times, 0.95) }
}

/** Takes a set of faces and colours in the middle of the document that is open: until all that is in sight wears it. */
async function restyleMs(page: Page): Promise<number> {
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Structure" }).click()
  await page.getByRole("tab", { name: "Sets" }).click()
  await page.evaluate(() => {
    const main = document.querySelector("[role=main]")!
    const scroller = [main, ...main.querySelectorAll("*")].find(
      (own) => own.scrollHeight > 10_000 && own.clientHeight < 2000,
    )!
    scroller.scrollTop = scroller.scrollHeight / 2
  })
  await page.waitForFunction(
    () =>
      /^Sheet (\d+) of (\d+)$/
        .exec(document.querySelector(".sheet")?.getAttribute("aria-label") ?? "")
        ?.slice(1)
        .map(Number)
        .reduce((n, of) => Number(n > of / 3)) && document.querySelectorAll(".canvas .run").length > 40,
  )
  await page.evaluate(() => {
    const seen = () =>
      [...document.querySelectorAll<HTMLElement>(".canvas .run")].filter(
        (run) => run.getBoundingClientRect().bottom > 100 && run.getBoundingClientRect().top < innerHeight - 40,
      )
    const look = (start: number) => {
      if (seen().length > 8 && seen().every((run) => run.style.fontFamily.includes("EBGaramond")))
        Object.assign(window, { restyled: performance.now() - start })
      else requestAnimationFrame(() => look(start))
    }
    document.addEventListener("click", (event) => look(event.timeStamp), { capture: true, once: true })
  })
  await page.getByRole("option", { name: "Lantern" }).click()
  await page.waitForFunction(() => "restyled" in window)
  return page.evaluate(() => (window as unknown as { restyled: number }).restyled)
}

/** Pastes a long text as HTML into an empty document. */
async function pasteHtmlMs(
  page: Page,
  url: string,
  words: number,
): Promise<Pick<DeskFigures, "pasteMs" | "pasteLongestTaskMs">> {
  const html = proseParagraphs(words)
    .map((text, i) => `${i % 12 === 0 ? `<h1>Part ${i}</h1>` : ""}<p>${text.replace(/ferry/g, "<b>ferry</b>")}</p>`)
    .join("")
  return pasteMs(page, url, "text/html", html)
}

/** Pastes 47,000 paragraphs of text, and waits until all are in. */
async function pasteTextMs(
  page: Page,
  url: string,
): Promise<Pick<DeskFigures, "pasteMs47000" | "pasteLongestTaskMs47000">> {
  const text = Array.from({ length: 47_000 }, (_, i) => `Crossing ${i + 1} took six minutes at slack water.`).join("\n")
  const { pasteMs: first, pasteLongestTaskMs: longest } = await pasteMs(page, url, "text/plain", text, 47_000)
  return { pasteMs47000: first, pasteLongestTaskMs47000: longest }
}

/** @param blocks how many have to be in before the longest task is told */
async function pasteMs(
  page: Page,
  url: string,
  type: string,
  source: string,
  blocks = 0,
): Promise<Pick<DeskFigures, "pasteMs" | "pasteLongestTaskMs">> {
  await page.goto(url)
  await page
    .locator(".sheet")
    .first()
    .click({ position: { x: 200, y: 150 } })
  const result = await page.evaluate(
    ({ type, source, blocks }) =>
      new Promise<{ pasteMs: number; pasteLongestTaskMs: number }>((done) => {
        const tasks: number[] = [0]
        new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration))).observe({
          entryTypes: ["longtask"],
        })
        const clipboardData = new DataTransfer()
        clipboardData.setData(type, source)
        const start = performance.now()
        document.activeElement?.dispatchEvent(
          new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }),
        )
        const look = () => {
          if (document.querySelectorAll(".canvas .run").length < 20) return void requestAnimationFrame(look)
          const took = performance.now() - start
          const words = () =>
            Number((document.querySelector("[data-testid=words]")?.textContent ?? "").replace(/\D/g, ""))
          const rest = () =>
            words() < blocks * 8
              ? setTimeout(rest, 500)
              : setTimeout(() => done({ pasteMs: took, pasteLongestTaskMs: Math.max(...tasks) }), 2000)
          rest()
        }
        requestAnimationFrame(look)
      }),
    { type, source, blocks },
  )
  return result
}

/** Types 5,000 letters as 500 changes and undoes them all. */
async function memoryGrowth(page: Page, url: string): Promise<Pick<DeskFigures, "memoryGrowthKb">> {
  await page.goto(url)
  await page
    .locator(".sheet")
    .first()
    .click({ position: { x: 200, y: 150 } })
  const cdp = await page.context().newCDPSession(page)
  const used = async () => {
    // What was done last is through, and the page has come to rest.
    await page.waitForFunction(() => document.querySelector("[role=main]")?.getAttribute("aria-busy") === "false")
    await page.waitForTimeout(2000)
    await cdp.send("HeapProfiler.collectGarbage")
    return (await cdp.send("Runtime.getHeapUsage")).usedSize / 1024
  }
  const word = async () => {
    for (const letter of "ferry tide") await page.keyboard.press(letter === " " ? "Space" : letter)
    await page.keyboard.press("ArrowLeft")
    await page.keyboard.press("ArrowRight")
  }
  for (let i = 0; i < 20; i++) await word()
  const before = await used()
  for (let i = 0; i < 500; i++) await word()
  for (let i = 0; i < 500; i++) await page.keyboard.press("Control+z")
  return { memoryGrowthKb: (await used()) - before }
}

/** Path of a database of its own. */
export const newDatabase = () => join(mkdtempSync(join(tmpdir(), "biblon-bench-")), "bench.sqlite")

/** The real server on a database of its own. */
export async function startApp(database = newDatabase()): Promise<{ app: App; address: string }> {
  const app = createApp({
    database,
    web: resolve("apps/web/dist"),
  })
  await new Promise<void>((done) => app.server.listen(0, "127.0.0.1", done))
  return { app, address: `http://127.0.0.1:${(app.server.address() as AddressInfo).port}` }
}

export async function measureDesk(browser: Browser, wordsPerSheet: number): Promise<DeskFigures> {
  const { app, address } = await startApp()
  const short = app.store.create(prose(wordsPerSheet * 0.9), "One sheet", Date.now())
  const long = app.store.create(prose(wordsPerSheet * 1000), "A thousand sheets", Date.now())
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  // tsx names inner functions by a call that the page does not have.
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  await open(page, `${address}/d/${short.id}`)
  const short1 = await opened(page, `${address}/d/${short.id}`)
  const one = await paintMs(page, 200)
  const openMs1000 = await opened(page, `${address}/d/${long.id}`)
  await composed(page)
  const thousand = await paintMs(page, 200)
  const openEditedMs1000 = await opened(page, `${address}/d/${long.id}`)
  await composed(page)
  const found = await whileFound(page)
  const restyleMs1000 = await restyleMs(page)
  const shapedLong = app.store.create(shaped(wordsPerSheet * 800), "A thousand shaped sheets", Date.now())
  const shapedOpenMs1000 = await opened(page, `${address}/d/${shapedLong.id}`)
  await composed(page)
  const shapedThousand = await paintMs(page, 200)
  const wideLong = app.store.create(
    prose(wordsPerSheet * 1000, wideParagraphs(wordsPerSheet * 1000)),
    "A thousand sheets of many words",
    Date.now(),
  )
  const marksMs1000 = await marksMs(page, `${address}/d/${wideLong.id}`)
  await composed(page)
  const spelledLong = app.store.create(
    prose(wordsPerSheet * 1000, spelledParagraphs(wordsPerSheet * 1000)),
    "A thousand sheets of listed words",
    Date.now(),
  )
  const whileSpelling = await keyWhileSpelling(page, `${address}/d/${spelledLong.id}`)
  const everythingLong = app.store.create(everything(everythingWords * 1000), "Everything", Date.now())
  await open(page, `${address}/d/${everythingLong.id}`)
  await composed(page)
  // An entry of the contents leads to where the text begins.
  await page.locator(".block.generated").first().click()
  await page.locator(".block.text[role=heading]").first().waitFor()
  const all = await paintMs(page, 200, { among: ".block.text", sheets: false })
  const plainPage = await context.newPage()
  await open(plainPage, `${address}/d/${long.id}`)
  await composed(plainPage)
  const turns = await inTurns(plainPage, page)
  await plainPage.close()
  const pasted = await pasteHtmlMs(
    page,
    `${address}/d/${app.store.create(emptyDocument([]), "Pasted", Date.now()).id}`,
    wordsPerSheet * 100,
  )
  const pastedText = await pasteTextMs(
    page,
    `${address}/d/${app.store.create(emptyDocument([]), "Pasted text", Date.now()).id}`,
  )
  const memory = await memoryGrowth(
    await browser.newPage(),
    `${address}/d/${app.store.create(emptyDocument([]), "Typed", Date.now()).id}`,
  )
  await context.close()
  await app.close()
  return {
    ...found,
    ...pasted,
    ...pastedText,
    ...memory,
    paintMs1: percentile(one.times, 0.5),
    paintP95Ms1: percentile(one.times, 0.95),
    paintMs1000: percentile(thousand.times, 0.5),
    paintP95Ms1000: percentile(thousand.times, 0.95),
    paintWorkP95Ms1000: percentile(thousand.work, 0.95),
    openMs1: short1.seen,
    openMs1000: openMs1000.seen,
    readyMs1: short1.ready,
    readyMs1000: openMs1000.ready,
    openEditedMs1000: openEditedMs1000.seen,
    everythingPaintWorkP95Ms1000: percentile(all.work, 0.95),
    everythingPaintWorkVsPlain: percentile(turns.everything, 0.95) / percentile(turns.plain, 0.95),
    marksMs1000,
    keyWhileSpelling: whileSpelling,
    longestTaskMs1000: thousand.longest,
    restyleMs1000,
    shapedOpenMs1000: shapedOpenMs1000.seen,
    shapedPaintMs1000: percentile(shapedThousand.times, 0.5),
    shapedPaintP95Ms1000: percentile(shapedThousand.times, 0.95),
    shapedPaintWorkP95Ms1000: percentile(shapedThousand.work, 0.95),
    shapedLongestTaskMs1000: shapedThousand.longest,
  }
}
