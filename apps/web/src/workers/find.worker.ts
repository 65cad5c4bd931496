/** Runs a person's pattern over texts, away from the page: a pattern that runs away is ended with its worker. */
import { findInText, type Hit } from "@biblon/core/editing"

export interface FindRequest {
  id: number
  source: string
  flags: string
  texts: string[]
}
export interface FindReply {
  id: number
  hits: Hit[][]
}

self.onmessage = ({ data }: MessageEvent<FindRequest>) => {
  const expression = new RegExp(data.source, data.flags)
  self.postMessage({
    id: data.id,
    hits: data.texts.map((text) => findInText(expression, text, true)),
  } satisfies FindReply)
}
