/** Reads pasted HTML away from the page, however long it is. */
import { readHtml } from "@biblon/core/formats/html"

export interface PasteRequest {
  id: number
  html: string
}
export interface PasteReply {
  id: number
  /** The slice as JSON; null if there was nothing in it. */
  slice: unknown
  failed: string | null
}

self.onmessage = ({ data }: MessageEvent<PasteRequest>) => {
  try {
    self.postMessage({ id: data.id, slice: readHtml(data.html).toJSON() as unknown, failed: null } satisfies PasteReply)
  } catch (error) {
    self.postMessage({ id: data.id, slice: null, failed: error instanceof Error ? error.message : String(error) } satisfies PasteReply)
  }
}
