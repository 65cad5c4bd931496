/** Makes a file of a document, or a document of a file, telling how far it is. One worker does one thing. */
import { Node } from "prosemirror-model"
import { readBrief } from "@biblon/core/brief/reading"
import { assetsOf, schema, valuesNow, type Brief, type FileKind } from "@biblon/core/document"
import { ReadingError } from "@biblon/core/document/reading"
import { formats, readFile } from "@biblon/core/formats"
import { textOf } from "@biblon/core/formats/encoding"
import type { LeftOut } from "@biblon/core/formats/format"
import type { KindId } from "@biblon/core/formats/kinds"
import { Composition, furnished, type Layout, type Typesetter } from "@biblon/core/layout"
import { createSubsetter, writePdf, writeImposed, type PrintPlan } from "@biblon/core/output"
import { pictureAddress } from "@biblon/core/formats/html/page"
import { zip } from "@biblon/core/formats/zip"
import { sheetPngs, startDrawing, usualDots } from "@biblon/core/output/pixels"
import { readSources, type BroughtSources } from "@biblon/core/sources/reading"
import { addressOf } from "./addresses"
import { drawn } from "./drawings"
import { keepPicture, openTypesetter, pictureBytes, prepareCiting } from "./resources"

export type FileRequest =
  /** `content` is the document node as JSON text; `kept` are files that the server does not have yet. */
  | {
      type: "write"
      kind: KindId
      content: string
      name: string
      kept: readonly [asset: string, bytes: Uint8Array][]
      plan: PrintPlan | null
      /** Whether a PDF is for archives. */
      archive: boolean
    }
  /** `file` is its name with its ending. */
  | { type: "read"; bytes: Uint8Array; file: string }
  /** Rules for documents, as their file. */
  | { type: "brief"; text: string }
  /** A list of sources, as its file. */
  | { type: "sources"; bytes: Uint8Array }

export type FileReply =
  | { type: "progress"; stage: "reading" | "layout" | "writing"; done: number; of: number }
  | { type: "written"; bytes: Uint8Array<ArrayBuffer> }
  /** `document` is the document node as JSON, `assets` the files that it uses. */
  | {
      type: "read"
      document: unknown
      name: string | null
      left: readonly LeftOut[]
      assets: readonly { kind: FileKind; bytes: Uint8Array<ArrayBuffer> }[]
    }
  | { type: "brief"; brief: Brief }
  | ({ type: "sources" } & BroughtSources)
  /** `told`: in words for people. */
  | { type: "failed"; message: string; told: boolean }

const post = (message: FileReply, transfer: Transferable[] = []) => self.postMessage(message, { transfer })
const every = 10

/** All sheets, telling how many are set. */
function layOut(typesetter: Typesetter, doc: Node, name: string): Layout {
  const composition = new Composition(typesetter, doc, { mode: "sheets", name })
  while (!composition.step())
    if (composition.settled % every === 0) post({ type: "progress", stage: "layout", done: composition.settled, of: 0 })
  return furnished(typesetter, composition.layout, valuesNow)
}

async function pdfOf(doc: Node, name: string, plan: PrintPlan | null, archive: boolean): Promise<Uint8Array> {
  const [typesetter, module] = await Promise.all([
    openTypesetter(),
    WebAssembly.compileStreaming(fetch(addressOf("harfbuzz-subset.wasm"))),
  ])
  const layout = layOut(typesetter, doc, name)
  const options = { fonts: typesetter.fonts, subset: createSubsetter(module), assets: pictureBytes, name, archive }
  const writing = plan ? writeImposed(layout, plan, options) : writePdf(layout, options)
  let step = writing.next()
  while (!step.done) {
    if (step.value % every === 0)
      post({ type: "progress", stage: "writing", done: step.value, of: layout.placed.length })
    step = writing.next()
  }
  if (!step.value) throw new Error("no sheets have these numbers")
  return step.value
}

async function pngOf(doc: Node, name: string): Promise<Uint8Array> {
  const [typesetter] = await Promise.all([openTypesetter(), startDrawing(() => fetch(addressOf("resvg.wasm")))])
  const layout = layOut(typesetter, doc, name)
  const numbers = layout.placed.map((_sheet, i) => i)
  const address = (asset: string) => ((bytes) => (bytes ? pictureAddress(bytes) : null))(pictureBytes(asset))
  const drawing = sheetPngs(layout, numbers, { fonts: typesetter.fonts, address, dpi: usualDots })
  let step = drawing.next()
  while (!step.done) {
    post({ type: "progress", stage: "writing", done: step.value, of: numbers.length })
    step = drawing.next()
  }
  const [only, ...rest] = step.value.values()
  return only && rest.length === 0 ? only : zip(step.value, () => true)
}

async function perform(request: FileRequest): Promise<void> {
  if (request.type === "read") {
    const read = readFile(request.bytes, request.file, {
      progress: (done) => post({ type: "progress", stage: "reading", done, of: 0 }),
    })
    const { doc, name, left, assets } = await drawn(read)
    const kindsOfFiles = assetsOf(doc)
    const files = [...assets].map(([asset, bytes]) => ({
      kind: kindsOfFiles.get(asset) ?? ("picture" as const),
      bytes: Uint8Array.from(bytes),
    }))
    return post(
      { type: "read", document: doc.toJSON() as unknown, name, left, assets: files },
      files.map(({ bytes }) => bytes.buffer),
    )
  }
  if (request.type === "brief") return post({ type: "brief", brief: readBrief(request.text) })
  if (request.type === "sources") return post({ type: "sources", ...readSources(textOf(request.bytes)) })
  const { kind, name } = request
  for (const [asset, bytes] of request.kept) keepPicture(asset, bytes)
  const doc = Node.fromJSON(schema, JSON.parse(request.content))
  await prepareCiting(doc)
  const made =
    kind === "pdf"
      ? await pdfOf(doc, name, request.plan, request.archive)
      : kind === "png"
        ? await pngOf(doc, name)
        : formats[kind].write?.({ name: name || null, doc }, pictureBytes)
  if (!made) throw new Error(`${kind} is not written`)
  const bytes = new Uint8Array(made)
  post({ type: "written", bytes }, [bytes.buffer])
}

self.onmessage = ({ data }: MessageEvent<FileRequest>) => {
  perform(data).catch((error: unknown) =>
    post({
      type: "failed",
      message: error instanceof Error ? error.message : String(error),
      told: error instanceof ReadingError,
    }),
  )
}
