/** Draws the first sheet of a document; runs in a thread that may be ended. Its own layout is remembered from picture to picture, its typefaces of documents' own are not. */
import { parentPort } from "node:worker_threads"
import { readDocument } from "@biblon/core/document/reading"
import { layoutOf, openTypesetter, typesetter } from "@biblon/core/node"
import { sheetPicture } from "@biblon/core/output"

export interface ToDraw {
  /** A document node as JSON text, and what the document is called. */
  content: string
  name: string
  /** Files that it needs, by their SHA-256. */
  assets: (readonly [sha256: string, bytes: Uint8Array])[]
}

export interface Drawn {
  sheets: number
  svg: string
}

parentPort?.on("message", ({ content, name, assets }: ToDraw) => {
  try {
    const files = new Map(assets)
    const setter = files.size > 0 ? openTypesetter((sha256) => files.get(sha256)) : typesetter()
    const { placed } = layoutOf(readDocument(JSON.parse(content)), setter, name)
    const first = placed[0]
    parentPort?.postMessage({
      sheets: placed.length,
      svg: first ? sheetPicture(first, setter.fonts) : "",
    } satisfies Drawn)
  } catch (error) {
    parentPort?.postMessage({ error: error instanceof Error ? error.message : String(error) })
  }
})
