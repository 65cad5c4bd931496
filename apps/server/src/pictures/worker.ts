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

/** So large a picture is drawn on the shelf; larger ones leave their place empty. */
const mostDrawn = 600_000

function dataOf(bytes: Uint8Array | undefined): string | null {
  if (!bytes || bytes.length > mostDrawn) return null
  const type = bytes[0] === 0x89 ? "image/png" : "image/jpeg"
  return `data:${type};base64,${Buffer.from(bytes).toString("base64")}`
}

export interface Drawn {
  sheets: number
  svg: string
}

parentPort?.on("message", ({ content, name, assets }: ToDraw) => {
  try {
    const files = new Map(assets)
    const ownFonts = /"fonts":\{"/.test(content)
    const setter = ownFonts ? openTypesetter((sha256) => files.get(sha256)) : typesetter()
    const { placed } = layoutOf(readDocument(JSON.parse(content)), setter, name)
    const first = placed[0]
    parentPort?.postMessage({
      sheets: placed.length,
      svg: first ? sheetPicture(first, setter.fonts, (asset) => dataOf(files.get(asset))) : "",
    } satisfies Drawn)
  } catch (error) {
    parentPort?.postMessage({ error: error instanceof Error ? error.message : String(error) })
  }
})
