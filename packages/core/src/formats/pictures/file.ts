/** What a file of a picture is, told by its first bytes: nothing else gets in. */

export class PictureError extends Error {
  override name = "PictureError"
}

export const largestPicture = 30 * 1024 * 1024
const mostSide = 40_000
const mostPixels = 150_000_000

export interface PictureFile {
  type: "image/png" | "image/jpeg" | "image/webp" | "image/gif"
  width: number
  height: number
}

const u16 = (bytes: Uint8Array, at: number) => ((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0)
const u16le = (bytes: Uint8Array, at: number) => (bytes[at] ?? 0) | ((bytes[at + 1] ?? 0) << 8)
const u24le = (bytes: Uint8Array, at: number) => u16le(bytes, at) | ((bytes[at + 2] ?? 0) << 16)
const u32 = (bytes: Uint8Array, at: number) => u16(bytes, at) * 0x10000 + u16(bytes, at + 2)
const text = (bytes: Uint8Array, from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to))

function jpegSize(bytes: Uint8Array): [number, number] | null {
  for (let at = 2; at + 9 < bytes.length && bytes[at] === 0xff; at += 2 + u16(bytes, at + 2)) {
    const marker = bytes[at + 1] ?? 0
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return [u16(bytes, at + 7), u16(bytes, at + 5)]
  }
  return null
}

function sized(bytes: Uint8Array): { type: PictureFile["type"]; size: [number, number] | null } | null {
  if (u32(bytes, 0) === 0x89504e47 && text(bytes, 12, 16) === "IHDR")
    return { type: "image/png", size: [u32(bytes, 16), u32(bytes, 20)] }
  if (u16(bytes, 0) === 0xffd8) return { type: "image/jpeg", size: jpegSize(bytes) }
  if (text(bytes, 0, 4) === "GIF8") return { type: "image/gif", size: [u16le(bytes, 6), u16le(bytes, 8)] }
  if (text(bytes, 0, 4) !== "RIFF" || text(bytes, 8, 12) !== "WEBP") return null
  const kind = text(bytes, 12, 16)
  const size: [number, number] | null =
    kind === "VP8X"
      ? [u24le(bytes, 24) + 1, u24le(bytes, 27) + 1]
      : kind === "VP8L"
        ? [(u16le(bytes, 21) & 0x3fff) + 1, ((u24le(bytes, 22) >> 6) & 0x3fff) + 1]
        : [u16le(bytes, 26) & 0x3fff, u16le(bytes, 28) & 0x3fff]
  return { type: "image/webp", size }
}

/** @throws PictureError in words for people */
export function checkPicture(bytes: Uint8Array): PictureFile {
  if (bytes.length > largestPicture)
    throw new PictureError(`The file is too large; pictures of up to ${largestPicture / 1048576} MB are taken.`)
  const found = bytes.length < 30 ? null : sized(bytes)
  if (!found) throw new PictureError("This is no picture of a kind that is taken: PNG, JPEG, WebP or GIF.")
  const [width, height] = found.size ?? [0, 0]
  if (!(width > 0 && height > 0)) throw new PictureError("The picture is damaged: its size cannot be read.")
  if (width > mostSide || height > mostSide || width * height > mostPixels)
    throw new PictureError(
      `The picture is too large: ${width} × ${height} pixels; up to ${mostPixels / 1e6} million are taken.`,
    )
  return { type: found.type, width, height }
}
