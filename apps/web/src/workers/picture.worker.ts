/**
 * Prepares pictures: upright, of a size that is drawn quickly, as PNG or JPEG; and makes their colours anew. What is shown is what is
 * printed, since both show the same file. The original is kept beside it.
 */
import { changeColours, cutAway, type Pixels } from "./pixels"
import type { PictureFormat } from "@biblon/core/document"

export type PictureRequest =
  | { type: "take"; file: Blob }
  /** @param tint the colour of a tone that is one */
  | { type: "colours"; file: Blob; colours: PictureFormat["colours"]; tint: string }

export type PictureReply =
  /** `original` is whether the file itself can be shown as it is. */
  { type: "made"; file: Blob; width: number; height: number; original: boolean } | { type: "failed"; message: string }

/** The longest side of what is shown, in pixels: finer than any printer needs on a sheet. */
const longest = 2600
const largestFile = 30 * 1024 * 1024

async function kindOf(file: Blob): Promise<string | null> {
  const bytes = new Uint8Array(await file.slice(0, 16).arrayBuffer())
  const text = String.fromCharCode(...bytes)
  if (text.startsWith("\x89PNG")) return "image/png"
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return "image/jpeg"
  if (text.startsWith("GIF8")) return "image/gif"
  return text.startsWith("RIFF") && text.slice(8, 12) === "WEBP" ? "image/webp" : null
}

/** Whether a PNG can be put into a PDF as it is: not interlaced, eight bits or less. */
async function isPlainPng(file: Blob): Promise<boolean> {
  const bytes = new Uint8Array(await file.slice(0, 29).arrayBuffer())
  return bytes[28] === 0 && (bytes[24] ?? 16) <= 8
}

/** How a JPEG is turned, by its EXIF data (1 for upright). */
async function orientationOf(file: Blob): Promise<number> {
  const data = new DataView(await file.slice(0, 128 * 1024).arrayBuffer())
  for (let at = 2; at + 4 < data.byteLength && data.getUint8(at) === 0xff;) {
    const [marker, length] = [data.getUint8(at + 1), data.getUint16(at + 2)]
    if (marker === 0xda) return 1
    if (marker === 0xe1 && at + 18 < data.byteLength && data.getUint32(at + 4) === 0x45786966) {
      const start = at + 10
      const little = data.getUint16(start) === 0x4949
      const directory = start + data.getUint32(start + 4, little)
      if (directory + 2 > data.byteLength) return 1
      const count = data.getUint16(directory, little)
      for (let i = 0; i < Math.min(count, 64); i++) {
        const entry = directory + 2 + 12 * i
        if (entry + 10 > data.byteLength) return 1
        if (data.getUint16(entry, little) === 0x0112) return data.getUint16(entry + 8, little)
      }
    }
    at += 2 + length
  }
  return 1
}

async function decode(file: Blob): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(file, { imageOrientation: "from-image" })
  } catch {
    throw new Error("The picture cannot be read: its file is damaged or cut off.")
  }
}

function canvasOf(
  bitmap: ImageBitmap,
  scale: number,
): { canvas: OffscreenCanvas; context: OffscreenCanvasRenderingContext2D } {
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  )
  const context = canvas.getContext("2d", { willReadFrequently: true })
  if (!context) throw new Error("This browser cannot draw the picture.")
  context.imageSmoothingQuality = "high"
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  return { canvas, context }
}

async function take(file: Blob): Promise<PictureReply> {
  if (file.size > largestFile)
    throw new Error(`The file is too large; pictures of up to ${largestFile / 1048576} MB are taken.`)
  const kind = await kindOf(file)
  if (!kind) throw new Error("This is no picture of a kind that is taken: PNG, JPEG, WebP, GIF or SVG.")
  const bitmap = await decode(file)
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height))
  const asItIs =
    scale === 1 &&
    ((kind === "image/jpeg" && (await orientationOf(file)) <= 1) || (kind === "image/png" && (await isPlainPng(file))))
  if (asItIs) return { type: "made", file, width: bitmap.width, height: bitmap.height, original: true }
  const { canvas } = canvasOf(bitmap, scale)
  const made = await canvas.convertToBlob(
    kind === "image/jpeg" ? { type: "image/jpeg", quality: 0.92 } : { type: "image/png" },
  )
  return { type: "made", file: made, width: canvas.width, height: canvas.height, original: false }
}

async function colour(file: Blob, colours: PictureFormat["colours"], tint: string): Promise<PictureReply> {
  const bitmap = await decode(file)
  const { canvas, context } = canvasOf(bitmap, Math.min(1, longest / Math.max(bitmap.width, bitmap.height)))
  const image = context.getImageData(0, 0, canvas.width, canvas.height)
  const pixels: Pixels = { data: image.data, width: canvas.width, height: canvas.height }
  if (colours.cut !== null) cutAway(pixels, colours.cut)
  changeColours(pixels, colours, tint)
  context.putImageData(image, 0, 0)
  const made = await canvas.convertToBlob({ type: "image/png" })
  return { type: "made", file: made, width: canvas.width, height: canvas.height, original: false }
}

self.onmessage = ({ data }: MessageEvent<PictureRequest>) => {
  const work = data.type === "take" ? take(data.file) : colour(data.file, data.colours, data.tint)
  work
    .catch((error: unknown): PictureReply => ({
      type: "failed",
      message: error instanceof Error ? error.message : String(error),
    }))
    .then((reply) => self.postMessage(reply))
    .catch(() => undefined)
}
