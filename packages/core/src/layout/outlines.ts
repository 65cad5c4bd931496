/** The outline of a picture, and its parts, described once for screen, picture and PDF. */
import { borderThickness } from "./ornaments"
import type { DrawnPicture } from "./types"

/** Radii of the corners, from the upper left one with the clock. */
export type Radii = readonly [Radius, Radius, Radius, Radius]
interface Radius {
  x: number
  y: number
}

const square: Radius = { x: 0, y: 0 }
/** Radius of rounded corners, as part of the shorter side. */
const rounded = 0.1

export function radiiOf({ shape, width, height }: Pick<DrawnPicture, "shape" | "width" | "height">): Radii {
  switch (shape) {
    case "plain":
      return [square, square, square, square]
    case "rounded": {
      const own = { x: rounded * Math.min(width, height), y: rounded * Math.min(width, height) }
      return [own, own, own, own]
    }
    case "round": {
      const own = { x: width / 2, y: height / 2 }
      return [own, own, own, own]
    }
    case "arch": {
      const own = { x: width / 2, y: Math.min(width / 2, height) }
      return [own, own, square, square]
    }
  }
}

/** How far the control points of a quarter of an ellipse lie along its sides. */
const quarter = 0.5522847498

/** A box with such corners as path data of M, L, C and Z, from its upper left corner. */
export function outlinePath(width: number, height: number, [a, b, c, d]: Radii, x = 0, y = 0): string {
  const p = (px: number, py: number) => `${round(x + px)} ${round(y + py)}`
  const k = 1 - quarter
  return (
    `M${p(a.x, 0)}L${p(width - b.x, 0)}C${p(width - b.x * k, 0)} ${p(width, b.y * k)} ${p(width, b.y)}` +
    `L${p(width, height - c.y)}C${p(width, height - c.y * k)} ${p(width - c.x * k, height)} ${p(width - c.x, height)}` +
    `L${p(d.x, height)}C${p(d.x * k, height)} ${p(0, height - d.y * k)} ${p(0, height - d.y)}` +
    `L${p(0, a.y)}C${p(0, a.y * k)} ${p(a.x * k, 0)} ${p(a.x, 0)}Z`
  )
}

const round = (n: number) => Math.round(n * 1000) / 1000

/** Where all of the picture lies, of which a part is seen: from the corner of that. */
export function wholeOf({ width, height, crop }: DrawnPicture): {
  x: number
  y: number
  width: number
  height: number
} {
  const [wide, high] = [width / (1 - crop.left - crop.right), height / (1 - crop.top - crop.bottom)]
  return { x: -crop.left * wide, y: -crop.top * high, width: wide, height: high }
}

/** How far a shadow falls to the right and down, and its colour. */
export const pictureShadow = { by: 4, colour: "#c9c3b8" }

/** Thickness and colour of the line round a picture; half of it lies on the picture. */
export function frameOfPicture({
  frame,
}: DrawnPicture): { width: number; colour: string; dashes: string | null } | null {
  if (!frame) return null
  const width = borderThickness(frame)
  const dash = { dotted: [width, 1.4 * width], dashed: [3 * width, 2 * width] }[frame.pattern as string]
  return { width, colour: frame.colour, dashes: dash ? dash.join(" ") : null }
}
