/** Workers that are slow or away for a while, and a server that is far away. */
import type { Page } from "@playwright/test"

/** Workers hear of everything so many milliseconds late, as on a machine that has other things to do. To be called before a page is opened. */
export async function hearLate(page: Page, late: number): Promise<void> {
  if (late > 0)
    await page.addInitScript((milliseconds) => {
      const { postMessage } = Worker.prototype
      // What is handed over, as against copied, is there at once; what is copied, is as it was.
      Worker.prototype.postMessage = function (this: Worker, message: unknown, ...rest: [never]) {
        if (rest.length > 0) return postMessage.call(this, message, ...rest)
        const copy: unknown = structuredClone(message)
        setTimeout(() => postMessage.call(this, copy), milliseconds)
      }
    }, late)
}

/** Lets workers hear of nothing for a while; to be called before a page is opened. @returns what says whether they hear, at first they do */
export async function holdable(page: Page): Promise<(hearing: boolean) => Promise<void>> {
  await page.addInitScript(() => {
    const { postMessage } = Worker.prototype
    let waiting: (() => void)[] | null = null
    Worker.prototype.postMessage = function (this: Worker, ...message: [unknown]) {
      if (waiting) waiting.push(() => postMessage.apply(this, message))
      else postMessage.apply(this, message)
    }
    const hear = (hearing: boolean) => {
      const sent = waiting ?? []
      waiting = hearing ? null : []
      for (const send of sent) send()
    }
    Object.assign(globalThis, { hear })
  })
  return (hearing) => page.evaluate((own) => (globalThis as unknown as { hear(own: boolean): void }).hear(own), hearing)
}

/** The server is so many milliseconds away, there and back: what is asked for, and what is told to it and heard of it. To be called before a page is opened. */
async function beFarAway(page: Page, away: number): Promise<void> {
  if (away > 0)
    await page.addInitScript((milliseconds) => {
      const later = () => new Promise((resolve) => setTimeout(resolve, milliseconds / 2))
      const { fetch } = globalThis
      globalThis.fetch = async (...asked) => {
        await later()
        const answer = await fetch(...asked)
        await later()
        return answer
      }
      const { send } = WebSocket.prototype
      WebSocket.prototype.send = function (...message) {
        void later().then(() => this.readyState === WebSocket.OPEN && send.apply(this, message))
      }
      const onmessage = Object.getOwnPropertyDescriptor(WebSocket.prototype, "onmessage")!
      Object.defineProperty(WebSocket.prototype, "onmessage", {
        ...onmessage,
        set(this: WebSocket, hear: ((event: MessageEvent) => void) | null) {
          onmessage.set!.call(this, hear && ((event: MessageEvent) => void later().then(() => hear.call(this, event))))
        },
      })
    }, away)
}

/** As `BIBLON_LATE` and `BIBLON_FAR` ask for. To be called before a page is opened. */
export async function beLateAsAsked(page: Page): Promise<void> {
  await hearLate(page, Number(process.env["BIBLON_LATE"] ?? 0))
  await beFarAway(page, Number(process.env["BIBLON_FAR"] ?? 0))
}
