import { Fragment, Node, Slice } from "prosemirror-model"
import { schema } from "@biblon/core/document"
import type { ReadClip } from "@biblon/core/formats/clipReading"
import type { Transferred } from "@biblon/core/formats/clips"
import { workerOf } from "./addresses"
import type { PasteReply, PasteRequest } from "./paste.worker"

/** After so many milliseconds without a word from the worker, reading is given up. */
const patience = 30_000

/** Has pasted content read in a worker, which is made anew after it failed. */
export class PasteReader {
  private worker: Worker | null = null
  private asked = 0

  /** @returns null where nothing could be read, or reading was stopped */
  read(transferred: Transferred, stop: AbortSignal): Promise<ReadClip | null> {
    const id = ++this.asked
    return new Promise((resolve) => {
      let worker: Worker
      try {
        worker = this.worker ??= workerOf("paste.worker.js")
      } catch {
        return resolve(null)
      }
      const nodes: Node[] = []
      const end = (read: ReadClip | null, over = false) => {
        clearTimeout(timer)
        worker.removeEventListener("message", take)
        worker.removeEventListener("error", fail)
        stop.removeEventListener("abort", fail)
        if (over) this.close()
        resolve(read)
      }
      const fail = () => end(null, true)
      const wait = () => setTimeout(fail, patience)
      let timer = wait()
      const take = ({ data }: MessageEvent<PasteReply>) => {
        if (data.id !== id) return
        clearTimeout(timer)
        timer = wait()
        try {
          if (data.kind === "part") for (const json of data.blocks) nodes.push(Node.fromJSON(schema, json))
          else end({ slice: new Slice(Fragment.from(nodes), data.openStart, data.openEnd), brought: data.brought })
        } catch {
          fail()
        }
      }
      worker.addEventListener("message", take)
      worker.addEventListener("error", fail)
      stop.addEventListener("abort", fail)
      worker.postMessage({ id, transferred } satisfies PasteRequest)
    })
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
  }
}
