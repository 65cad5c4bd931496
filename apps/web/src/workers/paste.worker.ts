/** Reads what is pasted away from the page, however long it is, and hands it over in parts. */
import type { Brought } from "@biblon/core/document"
import { readClips } from "@biblon/core/formats/clipReading"
import type { Transferred } from "@biblon/core/formats/clips"

export interface PasteRequest {
  id: number
  transferred: Transferred
}
export type PasteReply =
  /** Blocks as JSON, in order. */
  | { id: number; kind: "part"; blocks: unknown[] }
  | { id: number; kind: "end"; openStart: number; openEnd: number; brought: Brought | null }

/** Blocks of a part: the page makes nodes of it in one task. */
const partBlocks = 150

self.onmessage = ({ data }: MessageEvent<PasteRequest>) => {
  const { id } = data
  const post = (reply: PasteReply) => self.postMessage(reply)
  const { slice, brought } = readClips(data.transferred)
  for (let at = 0; at < slice.content.childCount; at += partBlocks)
    post({
      id,
      kind: "part",
      blocks: slice.content.content.slice(at, at + partBlocks).map((node) => node.toJSON() as unknown),
    })
  post({ id, kind: "end", openStart: slice.openStart, openEnd: slice.openEnd, brought })
}
