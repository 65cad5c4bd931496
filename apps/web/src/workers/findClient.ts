import type { Hit } from "@biblon/core/editing"
import type { FindReply, FindRequest } from "./find.worker"

/** After so many milliseconds without an answer a pattern is stopped. */
const patience = 2000

/** Runs patterns in a worker, which is ended and made anew if one of them takes too long. */
export class PatternFinder {
  private worker: Worker | null = null
  private asked = 0

  /** @returns null if the pattern took too long and was stopped */
  find(expression: RegExp, texts: string[]): Promise<Hit[][] | null> {
    const worker = (this.worker ??= new Worker("/workers/find.worker.js", { type: "module" }))
    const id = ++this.asked
    return new Promise((resolve) => {
      const timer = setTimeout(() => {
        this.close()
        resolve(null)
      }, patience)
      worker.addEventListener("message", ({ data }: MessageEvent<FindReply>) => {
        if (data.id !== id) return
        clearTimeout(timer)
        resolve(data.hits)
      })
      worker.postMessage({ id, source: expression.source, flags: expression.flags, texts } satisfies FindRequest)
    })
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
  }
}
