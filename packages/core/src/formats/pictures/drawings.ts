/** Drawings in files: Scalable Vector Graphics and metafiles, also compressed. Their sizes are read here; drawn.ts makes pixels of them. */
import { gunzipSync } from "fflate"
import { PictureError } from "./file"

export type DrawingKind = "svg" | "metafile"

export interface Drawing {
  kind: DrawingKind
  /** Unpacked. */
  bytes: Uint8Array
  /** In points. */
  width: number
  height: number
}

/** Bytes that a drawing may come to. */
const largest = 20 * 1024 * 1024
/** Where a drawing does not say how large it is; in points. */
const usual = { width: 240, height: 180 }
/** So much of a file of text is looked through for the element that begins a drawing. */
const head = 16_384

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

function unpacked(bytes: Uint8Array): Uint8Array | null {
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes
  // Its last bytes say what it comes to; no more than that is unpacked.
  if (bytes.length < 20 || view(bytes).getUint32(bytes.length - 4, true) > largest) return null
  try {
    return gunzipSync(bytes)
  } catch {
    return null
  }
}

const units: ReadonlyMap<string, number> = new Map([
  ["", 0.75],
  ["px", 0.75],
  ["pt", 1],
  ["pc", 12],
  ["mm", 72 / 25.4],
  ["cm", 72 / 2.54],
  ["in", 72],
])

function lengthOf(value: string | undefined): number | undefined {
  const [, number = "", unit = ""] = /^\s*([\d.]+)\s*([a-z]*)\s*$/i.exec(value ?? "") ?? []
  const length = Number(number) * (units.get(unit.toLowerCase()) ?? Number.NaN)
  return length > 0 ? length : undefined
}

function svgIn(bytes: Uint8Array): Omit<Drawing, "bytes"> | null {
  const text = new TextDecoder().decode(bytes.subarray(0, head))
  if (!/^\ufeff?\s*</.test(text)) return null
  const begin = text.search(/<(?:[\w-]+:)?svg[\s>]/)
  if (begin < 0) return null
  const tag = text.slice(begin, begin + Math.max(0, text.slice(begin).indexOf(">")))
  const attribute = (name: string) => new RegExp(`\\s${name}\\s*=\\s*["']([^"']*)["']`).exec(tag)?.[1]
  const box = (attribute("viewBox") ?? "")
    .trim()
    .split(/[\s,]+/)
    .map(Number)
  const [wide, high] = [box[2] ?? 0, box[3] ?? 0]
  const shape = wide > 0 && high > 0 ? high / wide : undefined
  const [width, height] = [lengthOf(attribute("width")), lengthOf(attribute("height"))]
  if (width && height) return { kind: "svg", width, height }
  const own = width ?? (height && shape ? height / shape : wide > 0 ? wide * 0.75 : usual.width)
  return { kind: "svg", width: own, height: height ?? (shape ? own * shape : usual.height) }
}

/** The size that the records of a metafile of the older kind give it, in its own units; null for none. */
function windowIn(bytes: Uint8Array): { width: number; height: number } | null {
  const data = view(bytes)
  for (let at = 18, records = 0; at + 10 <= bytes.length && records < 200; records++) {
    const words = data.getUint32(at, true)
    if (data.getUint16(at + 4, true) === 0x020c) {
      const [height, width] = [Math.abs(data.getInt16(at + 6, true)), Math.abs(data.getInt16(at + 8, true))]
      return width > 0 && height > 0 ? { width, height } : null
    }
    if (words < 3) return null
    at += words * 2
  }
  return null
}

function metafileIn(bytes: Uint8Array): Omit<Drawing, "bytes"> | null {
  if (bytes.length < 40) return null
  const data = view(bytes)
  const sized = (width: number, height: number) => ({
    kind: "metafile" as const,
    ...(width > 0 && height > 0 ? { width, height } : usual),
  })
  // Its frame, in hundredths of a millimetre.
  if (data.getUint32(0, true) === 1 && data.getUint32(40, true) === 0x464d4520) {
    const [left, top, right, bottom] = [24, 28, 32, 36].map((at) => data.getInt32(at, true)) as [
      number,
      number,
      number,
      number,
    ]
    return sized(((right - left) / 2540) * 72, ((bottom - top) / 2540) * 72)
  }
  if (data.getUint32(0, true) === 0x9ac6cdd7) {
    const [left, top, right, bottom] = [6, 8, 10, 12].map((at) => data.getInt16(at, true)) as [
      number,
      number,
      number,
      number,
    ]
    const inch = data.getUint16(14, true) || 1440
    return sized((Math.abs(right - left) / inch) * 72, (Math.abs(bottom - top) / inch) * 72)
  }
  const [type, words, version] = [0, 2, 4].map((at) => data.getUint16(at, true))
  if ((type !== 1 && type !== 2) || words !== 9 || (version !== 0x300 && version !== 0x100)) return null
  const own = windowIn(bytes)
  return own ? sized(usual.width, (usual.width * own.height) / own.width) : sized(0, 0)
}

/** What a file draws; null where it is no drawing. @throws PictureError where it is too large */
export function drawingIn(file: Uint8Array): Drawing | null {
  const bytes = unpacked(file)
  const found = bytes && (metafileIn(bytes) ?? svgIn(bytes))
  if (!bytes || !found) return null
  if (bytes.length > largest)
    throw new PictureError(`The drawing is too large; drawings of up to ${largest / 1048576} MB are taken.`)
  return { ...found, bytes }
}
