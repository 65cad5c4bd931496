/** Makes a PDF of a document, telling how far it is. One worker makes one file. */
import { Node } from "prosemirror-model"
import { schema } from "@biblon/core/document"
import { Composition } from "@biblon/core/layout"
import { createSubsetter, writePdf } from "@biblon/core/output"
import { addressOf } from "./addresses"
import { openTypesetter } from "./resources"

export interface PdfRequest {
  content: string
  name: string
}
export type PdfReply =
  | { type: "progress"; stage: "layout" | "writing"; done: number; of: number }
  | { type: "done"; bytes: Uint8Array<ArrayBuffer> }
  | { type: "failed"; message: string }

const post = (message: PdfReply, transfer: Transferable[] = []) => self.postMessage(message, { transfer })
const every = 10

self.onmessage = async ({ data }: MessageEvent<PdfRequest>) => {
  try {
    const [typesetter, module] = await Promise.all([
      openTypesetter(),
      WebAssembly.compileStreaming(fetch(addressOf("harfbuzz-subset.wasm"))),
    ])
    const composition = new Composition(typesetter, Node.fromJSON(schema, JSON.parse(data.content)), { mode: "sheets" })
    while (!composition.step())
      if (composition.settled % every === 0)
        post({ type: "progress", stage: "layout", done: composition.settled, of: 0 })
    const { layout } = composition
    const writing = writePdf(layout, { fonts: typesetter.fonts, subset: createSubsetter(module), name: data.name })
    let step = writing.next()
    while (!step.done) {
      if (step.value % every === 0)
        post({ type: "progress", stage: "writing", done: step.value, of: layout.placed.length })
      step = writing.next()
    }
    const bytes = new Uint8Array(step.value)
    post({ type: "done", bytes }, [bytes.buffer])
  } catch (error) {
    post({ type: "failed", message: error instanceof Error ? error.message : String(error) })
  }
}
