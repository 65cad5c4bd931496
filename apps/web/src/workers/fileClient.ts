import type { Brief } from "@biblon/core/document"
import { kinds, type KindId } from "@biblon/core/formats/kinds"
import type { PrintPlan } from "@biblon/core/output/printing"
import type { BroughtSources } from "@biblon/core/sources/reading"
import type { FileReply, FileRequest } from "./file.worker"
import { workerOf } from "./addresses"

export interface FileProgress {
  stage: "reading" | "layout" | "writing"
  done: number
  /** 0 while it is not known yet. */
  of: number
}

export type ReadFile = Extract<FileReply, { type: "read" }>

/** Runs a request in a worker of its own. Rejects with what happened, or with an AbortError when it was stopped. */
function perform(
  request: FileRequest,
  onProgress: (progress: FileProgress) => void,
  signal: AbortSignal,
): Promise<Extract<FileReply, { type: "written" | "read" | "brief" | "sources" }>> {
  return new Promise((resolve, reject) => {
    const worker = workerOf("file.worker.js")
    const end = (act: () => void) => {
      worker.terminate()
      act()
    }
    const stop = () => end(() => reject(new DOMException("Stopped", "AbortError")))
    signal.addEventListener("abort", stop, { once: true })
    worker.onmessage = ({ data }: MessageEvent<FileReply>) => {
      if (data.type === "progress") onProgress(data)
      else if (data.type === "failed") end(() => reject(new Error(data.message)))
      else end(() => resolve(data))
    }
    worker.onerror = (event) => end(() => reject(new Error(event.message || "its program did not start")))
    worker.postMessage(request)
  })
}

/**
 * @param content the document node as JSON text
 * @param kept files of its pictures that the server does not have yet
 * @param plan how the sheets of a PDF lie on paper; null for a PDF of the sheets themselves
 * @param archive whether a PDF is for archives
 */
export async function makeFile(
  kind: KindId,
  content: string,
  name: string,
  kept: readonly [asset: string, bytes: Uint8Array][],
  plan: PrintPlan | null,
  archive: boolean,
  onProgress: (progress: FileProgress) => void,
  signal: AbortSignal,
): Promise<Blob> {
  const made = await perform({ type: "write", kind, content, name, kept, plan, archive }, onProgress, signal)
  if (made.type !== "written") throw new Error("no file was made")
  return new Blob([made.bytes], { type: kinds[kind].media })
}

/** Reads a file as a document, telling how many paragraphs were read. Rejects with an AbortError when it was stopped. */
export async function readFile(
  file: File,
  onParagraphs: (count: number) => void,
  signal: AbortSignal,
): Promise<ReadFile> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const read = await perform({ type: "read", bytes, file: file.name }, ({ done }) => onParagraphs(done), signal)
  if (read.type !== "read") throw new Error("nothing was read")
  return read
}

/** Reads a brief from the text of its file. Rejects with what is wrong with it. */
export async function readBriefFile(text: string): Promise<Brief> {
  const read = await perform({ type: "brief", text }, () => undefined, new AbortController().signal)
  if (read.type !== "brief") throw new Error("nothing was read")
  return read.brief
}

/** Reads a list of sources from its file. Rejects with what is wrong with it. */
export async function readSourcesFile(file: File): Promise<BroughtSources> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  const read = await perform({ type: "sources", bytes }, () => undefined, new AbortController().signal)
  if (read.type !== "sources") throw new Error("nothing was read")
  return read
}
