/** HarfBuzz and faces in a worker. A face is fetched, without going on, when a letter first needs it; the browser keeps the file. */
import { FontLibrary, HarfBuzz, Hyphenator, MissingFaceError, Typesetter } from "@biblon/core/layout"
import { faceAddress } from "@biblon/core/layout/catalogue"

function fetchNow(address: string, what: string): Uint8Array<ArrayBuffer> {
  const request = new XMLHttpRequest()
  request.open("GET", address, false)
  request.responseType = "arraybuffer"
  request.send()
  if (request.status === 404) throw new MissingFaceError(`${what} is not here`)
  if (request.status !== 200) throw new Error(`${what} could not be loaded`)
  return new Uint8Array(request.response as ArrayBuffer)
}

export async function openTypesetter(): Promise<Typesetter> {
  const wasm = await WebAssembly.compileStreaming(fetch("/workers/harfbuzz.wasm"))
  const fonts = new FontLibrary(new HarfBuzz(wasm), (id) => fetchNow(faceAddress(id), `The typeface ${id}`))
  return new Typesetter(fonts, new Hyphenator((name) => fetchNow(`/hyphenation/${name}.wasm`, `The hyphenation of ${name}`)))
}
