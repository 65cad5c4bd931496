/** Pictures: atoms in the text whose bytes are assets, named by their SHA-256. They stand in their line, or beside, under or over the text. */
import type { Node } from "prosemirror-model"
import type { PictureFormat } from "./shapes"

export interface PictureAttrs {
  /** What is shown: a PNG or a JPEG. */
  asset: string
  /** What it was made of, where that is another file; changes of its colours begin from there. */
  source: string | null
  /** Size of what is shown, in pixels. */
  pixels: readonly [width: number, height: number]
  format: Partial<PictureFormat> | null
}

export function pictureAttrs(picture: Node): PictureAttrs {
  return picture.attrs as PictureAttrs
}

/** What a picture is like of which nothing else is said. */
export const defaultPicture: PictureFormat = {
  width: null,
  height: null,
  alt: "",
  crop: { top: 0, right: 0, bottom: 0, left: 0 },
  turn: 0,
  shape: "plain",
  frame: null,
  shadow: false,
  opacity: 1,
  colours: { tone: "own", brightness: 0, contrast: 0, cut: null },
  wrap: "line",
  side: "both",
  distance: 9,
  across: { of: "column", align: "right", at: 0 },
  down: { of: "paragraph", at: 0 },
}

const formats = new WeakMap<object, PictureFormat>()

export function pictureFormat(picture: Node): PictureFormat {
  const { format: own } = pictureAttrs(picture)
  if (!own) return defaultPicture
  let format = formats.get(own)
  if (!format) formats.set(own, (format = { ...defaultPicture, ...own }))
  return format
}

/** Points for a pixel, where nobody has said how large a picture is. */
const pixel = 0.75

export interface Size {
  width: number
  height: number
}

/** Width against height of what is seen of a picture. */
export function proportion(picture: Node): number {
  const { pixels } = pictureAttrs(picture)
  const { crop } = pictureFormat(picture)
  return (pixels[0] * (1 - crop.left - crop.right)) / Math.max(1e-6, pixels[1] * (1 - crop.top - crop.bottom))
}

/** How large a picture is drawn, before it is turned: as large as it is said to be, or as it has room, in proportion. */
export function pictureSize(picture: Node, room: Size = { width: Infinity, height: Infinity }): Size {
  const { pixels } = pictureAttrs(picture)
  const { width: wide, height: high, crop, turn } = pictureFormat(picture)
  const ratio = proportion(picture)
  const width = wide ?? (high !== null ? high * ratio : pixels[0] * pixel * (1 - crop.left - crop.right))
  const height = high ?? width / ratio
  const round = turnedSize({ width, height }, turn)
  const scale = Math.min(1, room.width / round.width, room.height / round.height)
  return { width: width * scale, height: height * scale }
}

/** The least upright box round a box that is turned. */
export function turnedSize({ width, height }: Size, turn: number): Size {
  if (turn === 0) return { width, height }
  const [sin, cos] = [Math.abs(Math.sin((turn * Math.PI) / 180)), Math.abs(Math.cos((turn * Math.PI) / 180))]
  return { width: width * cos + height * sin, height: width * sin + height * cos }
}
