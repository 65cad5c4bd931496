/** HarfBuzz, faces and hyphenation in a worker. What is not there yet is fetched, without going on, when a letter first needs it; the browser keeps the file. */
import { citesSources, hasCiter, setCiter, valuesNow } from "@biblon/core/document"
import { FontLibrary, HarfBuzz, Hyphenator, MissingFaceError, Typesetter, wantedBy } from "@biblon/core/layout"
import { faceAddress } from "@biblon/core/layout/catalogue"
import { createCiter, type Citeproc } from "@biblon/core/sources/citer"
import type { Node } from "prosemirror-model"
import { addressOf } from "./addresses"

/** So many leaves fill the sheets that are seen first. */
const firstLeaves = 80

const fetched = new Map<string, Uint8Array<ArrayBuffer>>()

function fetchNow(address: string, what: string): Uint8Array<ArrayBuffer> {
  const known = fetched.get(address)
  if (known) return known
  const request = new XMLHttpRequest()
  request.open("GET", address, false)
  request.responseType = "arraybuffer"
  request.send()
  if (request.status === 404) throw new MissingFaceError(`${what} is not here`)
  if (request.status !== 200) throw new Error(`${what} could not be loaded`)
  const bytes = new Uint8Array(request.response as ArrayBuffer)
  fetched.set(address, bytes)
  return bytes
}

const textAt = (address: string): string | undefined => {
  try {
    return new TextDecoder().decode(fetchNow(address, "A style of citation"))
  } catch {
    return undefined
  }
}

/** Sees to it that the citations of a document can be shown. What cannot be had is asked for again. @returns whether they could not be before */
export async function prepareCiting(doc: Node): Promise<boolean> {
  if (hasCiter() || !citesSources(doc)) return false
  const loaded = (await import(addressOf("citing.js")).catch(() => null)) as { default: Citeproc } | null
  if (!loaded) return false
  const program = loaded.default
  setCiter(
    createCiter(program, {
      style: (id) => (/^[\w-]+$/.test(id) ? textAt(`/citing/styles/${id}.csl`) : undefined),
      locale: (id) => (/^[\w-]+$/.test(id) ? textAt(`/citing/locales/${id}.xml`) : undefined),
    }),
  )
  return true
}

const pictureAddress = (asset: string) => `/api/assets/${asset}`

/** Makes a picture known that the server does not have yet. */
export function keepPicture(asset: string, bytes: Uint8Array): void {
  fetched.set(pictureAddress(asset), Uint8Array.from(bytes))
}

/** The bytes of a picture; undefined where they are not to be had. */
export function pictureBytes(asset: string): Uint8Array | undefined {
  try {
    return fetchNow(pictureAddress(asset), "The picture")
  } catch {
    // It leaves its place empty; all else is written.
    return undefined
  }
}

const patternAddress = (name: string) => `/hyphenation/${name}.wasm`

/** Fetches side by side what the first sheets of a document are set in. What cannot be had is asked for again when it is needed. */
export async function fetchAhead(doc: Node): Promise<void> {
  const { faces, patterns } = wantedBy(doc, firstLeaves)
  const addresses = [...faces.map(faceAddress), ...patterns.map(patternAddress)].filter(
    (address) => !fetched.has(address),
  )
  await Promise.all(
    addresses.map(async (address) => {
      const response = await fetch(address).catch(() => null)
      if (response?.ok) fetched.set(address, new Uint8Array(await response.arrayBuffer()))
    }),
  )
}

export async function openTypesetter(): Promise<Typesetter> {
  const wasm = await WebAssembly.compileStreaming(fetch(addressOf("harfbuzz.wasm")))
  const fonts = new FontLibrary(new HarfBuzz(wasm), (id) => fetchNow(faceAddress(id), `The typeface ${id}`))
  return new Typesetter(
    fonts,
    new Hyphenator((name) => fetchNow(patternAddress(name), `The hyphenation of ${name}`)),
    valuesNow,
  )
}
