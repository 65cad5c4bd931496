import type { Hit } from "@biblon/core/editing"
import { workerOf } from "./addresses"
import type { FindReply, FindRequest } from "./find.worker"

/** After so many milliseconds without an answer a pattern is stopped. */
const patience = 2000

/** Runs patterns in a worker, which is ended and made anew if one of them takes too long. */
export class PatternFinder {
  private worker: Worker | null = null
  private asked = 0

  /** @returns null if the pattern took too long and was stopped */
  find(expression: RegExp, texts: string[]): Promise<Hit[][] | null> {
    const worker = (this.worker ??= workerOf("find.worker.js"))
    const id = ++this.asked
    return new Promise((resolve) => {
      const end = (hits: Hit[][] | null) => {
        clearTimeout(timer)
        worker.removeEventListener("message", take)
        worker.removeEventListener("error", stop)
        resolve(hits)
      }
      const stop = () => {
        if (this.worker === worker) this.close()
        end(null)
      }
      const take = ({ data }: MessageEvent<FindReply>) => {
        if (data.id === id) end(data.hits)
      }
      const timer = setTimeout(stop, patience)
      worker.addEventListener("message", take)
      worker.addEventListener("error", stop)
      worker.postMessage({ id, source: expression.source, flags: expression.flags, texts } satisfies FindRequest)
    })
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
  }
}
