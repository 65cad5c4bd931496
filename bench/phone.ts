/** On a phone with a processor four times slower: opening 100 sheets, a letter, a fling. */
import type { Browser, Page } from "playwright-core"
import { percentile } from "./figures"
import { opened, paintMs, startApp } from "./desk"
import { prose } from "./text"

export interface PhoneFigures {
  /** Until the first text is seen, and until one can write there. */
  phoneOpenMs: number
  phoneReadyMs: number
  phoneKeyMs: number
  /** Frames of more than 50 ms in a fling, of so many. */
  phoneSlowFrames: number
  phoneFrames: number
}

/** How long each frame took while the text was flung down and up again. */
export async function fling(page: Page): Promise<number[]> {
  const cdp = await page.context().newCDPSession(page)
  await page.evaluate(() => {
    const frames: number[] = []
    Object.assign(window, { frames })
    let before = performance.now()
    const next = (now: number) => {
      frames.push(now - before)
      before = now
      requestAnimationFrame(next)
    }
    requestAnimationFrame(next)
  })
  for (const distance of [-12_000, -12_000, 12_000, 12_000])
    await cdp.send("Input.synthesizeScrollGesture", { x: 180, y: 400, yDistance: distance, speed: 5000 })
  return page.evaluate(() => (window as unknown as { frames: number[] }).frames.slice(2))
}

export async function measurePhone(browser: Browser, wordsPerSheet: number): Promise<PhoneFigures> {
  const { app, address } = await startApp()
  const { id } = app.store.create(prose(wordsPerSheet * 100), "A hundred sheets", Date.now())
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true })
  await context.addInitScript("globalThis.__name = (f) => f")
  const page = await context.newPage()
  const cdp = await context.newCDPSession(page)
  await cdp.send("Emulation.setCPUThrottlingRate", { rate: 4 })
  const url = `${address}/d/${id}`
  const { seen, ready } = await opened(page, url, 4)
  const typed = await paintMs(page, 100, { sheets: false })
  const frames = await fling(page)
  await context.close()
  await app.close()
  return {
    phoneOpenMs: seen,
    phoneReadyMs: ready,
    phoneKeyMs: percentile(typed.times, 0.5),
    // Frames come by sixtieths of a second: three of them are 50 ms, give or take the last digits.
    phoneSlowFrames: frames.filter((frame) => frame > 50.5).length,
    phoneFrames: frames.length,
  }
}
