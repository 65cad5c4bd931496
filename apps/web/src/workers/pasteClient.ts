import { Fragment, Node, Slice } from "prosemirror-model"
import { schema } from "@biblon/core/document"
import type { Brought } from "@biblon/core/editing"
import { addressOf } from "./addresses"
import type { PasteReply, PasteRequest } from "./paste.worker"

/** After so many milliseconds without a word from the worker, reading is given up. */
const patience = 30_000

export interface ReadPaste {
  slice: Slice
  /** What it needs of the style sheet that it comes from. */
  brought: Brought | null
}

/** Has pasted content read in a worker, which is made anew after it failed. */
export class PasteReader {
  private worker: Worker | null = null
  private asked = 0

  /** @returns null where nothing could be read, or reading was stopped */
  read(own: string, html: string, stop: AbortSignal): Promise<ReadPaste | null> {
    const id = ++this.asked
    return new Promise((resolve) => {
      let worker: Worker
      try {
        worker = this.worker ??= new Worker(addressOf("paste.worker.js"), { type: "module" })
      } catch {
        return resolve(null)
      }
      const nodes: Node[] = []
      const end = (read: ReadPaste | null, over = false) => {
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
      worker.postMessage({ id, own, html } satisfies PasteRequest)
    })
  }

  close(): void {
    this.worker?.terminate()
    this.worker = null
  }
}
