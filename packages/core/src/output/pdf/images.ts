/**
 * Pictures in a PDF (ISO 32000-1, 8.9.5): JPEG as it is, PNG without loss, its transparency as a soft mask. PNG (ISO/IEC 15948) that
 * PDF can take as it is stays packed as it was.
 */
import { unzlibSync } from "fflate"
import { ref, type PdfFile, type Ref } from "./objects"

const u32 = (bytes: Uint8Array, at: number) =>
  ((bytes[at] ?? 0) * 0x1000000 +
    (((bytes[at + 1] ?? 0) << 16) | ((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0))) >>>
  0

/** So many pixels a picture may have to be unpacked here. */
const mostPixels = 120_000_000

/** Puts a picture into a file; null for one that cannot be read. */
export function embedImage(file: PdfFile, bytes: Uint8Array): Ref | null {
  try {
    if (bytes[0] === 0xff && bytes[1] === 0xd8) return jpeg(file, bytes)
    return u32(bytes, 0) === 0x89504e47 ? png(file, bytes) : null
  } catch {
    // What is damaged leaves its place empty; the rest of the document is printed.
    return null
  }
}

function jpeg(file: PdfFile, bytes: Uint8Array): Ref | null {
  for (let at = 2; at + 9 < bytes.length;) {
    if (bytes[at] !== 0xff) return null
    const marker = bytes[at + 1] ?? 0
    const isFrame = marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc
    const length = ((bytes[at + 2] ?? 0) << 8) | (bytes[at + 3] ?? 0)
    if (isFrame) {
      const [height, width] = [5, 7].map((i) => ((bytes[at + i] ?? 0) << 8) | (bytes[at + i + 1] ?? 0))
      const parts = bytes[at + 9] ?? 3
      const space = parts === 1 ? "/DeviceGray" : parts === 4 ? "/DeviceCMYK" : "/DeviceRGB"
      // Four inks are kept the other way round.
      const turned = parts === 4 ? "/Decode[1 0 1 0 1 0 1 0]" : ""
      return file.addRaw(
        bytes,
        `/Type/XObject/Subtype/Image/Width ${width}/Height ${height}/ColorSpace${space}/BitsPerComponent 8${turned}/Filter/DCTDecode`,
      )
    }
    at += 2 + length
  }
  return null
}

interface Png {
  width: number
  height: number
  depth: number
  kind: number
  data: Uint8Array
  palette: Uint8Array | null
  clear: Uint8Array | null
}

function readPng(bytes: Uint8Array): Png | null {
  let head: Pick<Png, "width" | "height" | "depth" | "kind"> | null = null
  let [palette, clear]: (Uint8Array | null)[] = [null, null]
  const parts: Uint8Array[] = []
  for (let at = 8; at + 8 <= bytes.length;) {
    const length = u32(bytes, at)
    const name = String.fromCharCode(...bytes.subarray(at + 4, at + 8))
    const data = bytes.subarray(at + 8, at + 8 + length)
    if (name === "IHDR") {
      // Interlaced ones are written anew before they come here.
      if (data[12] !== 0) return null
      head = { width: u32(data, 0), height: u32(data, 4), depth: data[8] ?? 8, kind: data[9] ?? 2 }
    } else if (name === "PLTE") palette = data
    else if (name === "tRNS") clear = data
    else if (name === "IDAT") parts.push(data)
    else if (name === "IEND") break
    at += 12 + length
  }
  if (!head || parts.length === 0 || head.width * head.height > mostPixels || head.width * head.height === 0)
    return null
  const packed = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0))
  let at = 0
  for (const part of parts) {
    packed.set(part, at)
    at += part.length
  }
  return { data: packed, palette: palette ?? null, clear: clear ?? null, ...head }
}

function png(file: PdfFile, bytes: Uint8Array): Ref | null {
  const own = readPng(bytes)
  if (!own) return null
  const { width, height, depth, kind, data, palette, clear } = own
  const size = `/Type/XObject/Subtype/Image/Width ${width}/Height ${height}`
  const samples = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 }[kind]
  if (samples === undefined) return null
  if (kind !== 4 && kind !== 6 && clear === null) {
    const table = kind === 3 && palette ? file.addStream(palette) : null
    const space =
      kind === 0
        ? "/DeviceGray"
        : table
          ? `[/Indexed/DeviceRGB ${(palette?.length ?? 3) / 3 - 1} ${ref(table)}]`
          : "/DeviceRGB"
    const filter = `/Filter/FlateDecode/DecodeParms<</Predictor 15/Colors ${samples}/BitsPerComponent ${depth}/Columns ${width}>>`
    return file.addRaw(data, `${size}/ColorSpace${space}/BitsPerComponent ${depth}${filter}`)
  }
  if (depth !== 8) return null
  const raw = unfiltered(unzlibSync(data), width * samples, height, samples)
  const count = width * height
  const colours = kind === 4 ? 1 : 3
  const [inks, alpha] = [new Uint8Array(count * colours), new Uint8Array(count)]
  for (let i = 0; i < count; i++) {
    if (kind === 3) {
      const index = raw[i] ?? 0
      for (let c = 0; c < 3; c++) inks[3 * i + c] = palette?.[3 * index + c] ?? 0
      alpha[i] = clear?.[index] ?? 255
    } else if (kind === 4 || kind === 6) {
      for (let c = 0; c < colours; c++) inks[colours * i + c] = raw[samples * i + c] ?? 0
      alpha[i] = raw[samples * i + colours] ?? 255
    } else {
      const isClear = (c: number) => raw[samples * i + c] === clear?.[2 * c + 1]
      for (let c = 0; c < 3; c++) inks[3 * i + c] = raw[samples * i + (kind === 0 ? 0 : c)] ?? 0
      alpha[i] = (kind === 0 ? isClear(0) : isClear(0) && isClear(1) && isClear(2)) ? 0 : 255
    }
  }
  const mask = file.addStream(alpha, `${size}/ColorSpace/DeviceGray/BitsPerComponent 8`)
  const space = colours === 1 ? "/DeviceGray" : "/DeviceRGB"
  return file.addStream(inks, `${size}/ColorSpace${space}/BitsPerComponent 8/SMask ${ref(mask)}`)
}

/** The samples of rows of so many bytes, each of which says how it was filtered. */
function unfiltered(data: Uint8Array, row: number, height: number, step: number): Uint8Array {
  const out = new Uint8Array(row * height)
  for (let y = 0; y < height; y++) {
    const filter = data[y * (row + 1)] ?? 0
    const from = y * (row + 1) + 1
    const to = y * row
    for (let x = 0; x < row; x++) {
      const left = x >= step ? (out[to + x - step] ?? 0) : 0
      const above = y > 0 ? (out[to - row + x] ?? 0) : 0
      const corner = x >= step && y > 0 ? (out[to - row + x - step] ?? 0) : 0
      out[to + x] = (data[from + x] ?? 0) + predicted(filter, left, above, corner)
    }
  }
  return out
}

function predicted(filter: number, left: number, above: number, corner: number): number {
  switch (filter) {
    case 1:
      return left
    case 2:
      return above
    case 3:
      return (left + above) >> 1
    case 4: {
      const p = left + above - corner
      const [a, b, c] = [Math.abs(p - left), Math.abs(p - above), Math.abs(p - corner)]
      return a <= b && a <= c ? left : b <= c ? above : corner
    }
    default:
      return 0
  }
}
