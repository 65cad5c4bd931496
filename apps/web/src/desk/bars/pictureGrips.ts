/** What a picture becomes when it is dragged by its corners, its sides, its stem or itself. Movements are in pixels. */
import { limits, type PictureFormat } from "@biblon/core/document"
import { catchAt } from "../catching"
import type { PictureSeen } from "../view/source"

/** Corners and sides, by where they lie from the middle. */
export const corners = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const
export const sides = [
  [0, -1],
  [1, 0],
  [0, 1],
  [-1, 0],
] as const
export type Grip = readonly [x: -1 | 0 | 1, y: -1 | 0 | 1]

const least = limits.picture.size[0]
/** Degrees to which turning sticks near upright, and in which it goes where it goes by steps. */
const [sticks, step] = [3, 15]
/** A picture is not cropped by more than this part of it. */
const mostCropped = 0.94

/** A movement of the pointer along the sides of a picture that is turned. */
function along(dx: number, dy: number, turn: number): [x: number, y: number] {
  const radians = (-turn * Math.PI) / 180
  return [dx * Math.cos(radians) - dy * Math.sin(radians), dx * Math.sin(radians) + dy * Math.cos(radians)]
}

/** By a corner in proportion, unless it is free; by a side that side alone. */
export function resized(
  { width, height, turn, scale }: PictureSeen,
  format: PictureFormat,
  [gx, gy]: Grip,
  dx: number,
  dy: number,
  free: boolean,
): Partial<PictureFormat> {
  const [wide, high] = [width / scale, height / scale]
  const [ax, ay] = along(dx, dy, turn)
  const [bx, by] = [(gx * ax) / scale, (gy * ay) / scale]
  if (gx === 0 || gy === 0 || free) return { width: Math.max(least, wide + bx), height: Math.max(least, high + by) }
  // As far as the finger went along the diagonal.
  const part = Math.max(least / Math.min(wide, high), 1 + (bx * wide + by * high) / (wide * wide + high * high))
  return { width: wide * part, height: format.height === null ? null : high * part }
}

/** The part that is shown, and its size: what is shown already stays as large as it is. */
export function cropped(
  { width, height, turn, scale }: PictureSeen,
  { crop: now }: PictureFormat,
  [gx, gy]: Grip,
  dx: number,
  dy: number,
): Partial<PictureFormat> {
  const whole = {
    width: width / scale / (1 - now.left - now.right),
    height: height / scale / (1 - now.top - now.bottom),
  }
  const [ax, ay] = along(dx, dy, turn)
  const part = (own: number, other: number, by: number) => Math.max(0, Math.min(mostCropped - other, own + by))
  const next = {
    left: gx < 0 ? part(now.left, now.right, ax / scale / whole.width) : now.left,
    right: gx > 0 ? part(now.right, now.left, -ax / scale / whole.width) : now.right,
    top: gy < 0 ? part(now.top, now.bottom, ay / scale / whole.height) : now.top,
    bottom: gy > 0 ? part(now.bottom, now.top, -ay / scale / whole.height) : now.bottom,
  }
  return {
    crop: next,
    width: whole.width * (1 - next.left - next.right),
    height: whole.height * (1 - next.top - next.bottom),
  }
}

/** Turned so that its stem points to a place, told from its middle. */
export function turnedTo(x: number, y: number, bySteps: boolean): Partial<PictureFormat> {
  const exact = (Math.atan2(x, -y) * 180) / Math.PI
  const stepped = bySteps ? Math.round(exact / step) * step : Math.round(exact)
  const near = Math.round(stepped / 90) * 90
  return { turn: Math.abs(stepped - near) <= sticks ? (near === -180 ? 180 : near) : stepped }
}

/** Turned on by a degree, or a step. */
export function turnedBy(turn: number, direction: number, bySteps: boolean): Partial<PictureFormat> {
  const next = turn + direction * (bySteps ? step : 1)
  return { turn: next > 180 ? next - 360 : next < -180 ? next + 360 : next }
}

/** Carried elsewhere, where it catches on the sheet, its margins and column and on other pictures; with the lines that it caught on. */
export function carried(
  { x, y, width, height, scale, sheet, margins, others }: PictureSeen,
  format: PictureFormat,
  column: { x: number; width: number } | null,
  dx: number,
  dy: number,
): { guide: { x: number | null; y: number | null }; change: Partial<PictureFormat> } {
  const areas = [
    { ...sheet, middles: true },
    { ...margins, middles: true },
    ...others.map((own) => ({ ...own, middles: false })),
  ]
  const columns = column ? [{ start: column.x, length: column.width, middles: true }] : []
  const across = catchAt({ start: x + dx, length: width }, [
    ...areas.map((own) => ({ start: own.x, length: own.width, middles: own.middles })),
    ...columns,
  ])
  const down = catchAt(
    { start: y + dy, length: height },
    areas.map((own) => ({ start: own.y, length: own.height, middles: own.middles })),
  )
  const [left, top] = [across?.start ?? x + dx, down?.start ?? y + dy]
  const { of, at } = format.down
  return {
    guide: { x: across?.line ?? null, y: down?.line ?? null },
    // Across, from the sheet's corner, where it can be seen to go; down, from what it moves with.
    change: {
      across: { of: "sheet", align: null, at: (left - sheet.x) / scale },
      down: {
        of,
        at: of === "sheet" ? (top - sheet.y) / scale : at + (top - y) / scale,
      },
    },
  }
}
