import { addressOf } from "./addresses"
import type { PdfReply, PdfRequest } from "./pdf.worker"

export interface PdfProgress {
  stage: "layout" | "writing"
  done: number
  /** 0 while it is not known yet. */
  of: number
}

/** Makes a PDF in a worker of its own. Rejects with what happened, or with an AbortError when it was stopped. */
export function makePdf(
  request: PdfRequest,
  onProgress: (progress: PdfProgress) => void,
  signal: AbortSignal,
): Promise<Blob> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(addressOf("pdf.worker.js"), { type: "module" })
    const end = (act: () => void) => {
      worker.terminate()
      act()
    }
    signal.addEventListener("abort", () => end(() => reject(new DOMException("Stopped", "AbortError"))), { once: true })
    worker.onmessage = ({ data }: MessageEvent<PdfReply>) => {
      if (data.type === "progress") onProgress(data)
      else if (data.type === "done") end(() => resolve(new Blob([data.bytes], { type: "application/pdf" })))
      else end(() => reject(new Error(data.message)))
    }
    worker.onerror = (event) => end(() => reject(new Error(event.message || "The PDF could not be made")))
    worker.postMessage(request)
  })
}
