/** HarfBuzz and faces in a worker. A face is fetched, without going on, when a letter first needs it; the browser keeps the file. */
import { FontLibrary, HarfBuzz } from "@biblon/core/layout"

export function fetchFace(id: string): Uint8Array {
  const request = new XMLHttpRequest()
  request.open("GET", `/fonts/${id}.ttf`, false)
  request.responseType = "arraybuffer"
  request.send()
  if (request.status !== 200) throw new Error(`The typeface ${id} could not be loaded`)
  return new Uint8Array(request.response as ArrayBuffer)
}

export async function openFonts(): Promise<FontLibrary> {
  const wasm = await WebAssembly.compileStreaming(fetch("/workers/harfbuzz.wasm"))
  return new FontLibrary(new HarfBuzz(wasm), fetchFace)
}
