/**
 * Pictures beside, above and below, under or over the text. One stands on the sheet, and in the column, in which its paragraph
 * begins. Where it would lie over another one it goes below that; where it has no room there it stands in its line. Text keeps
 * clear of it by its outline; where too little is left beside it, lines go on below.
 */
import { leastRoom } from "../document"
import type { Floating, Inset, Insets, Line, SetFloat } from "./types"

/** The sheet round a region in which pictures may float. */
export interface FloatRoom {
  /** Corner of the region on the sheet. */
  x: number
  y: number
  sheet: { width: number; height: number }
  /** The room between the margins, on the sheet. */
  margins: { x: number; y: number; width: number; height: number }
}

/** A picture where it stands in a region, and which block of the flow it is tied to. */
export interface Set extends SetFloat {
  block: number
}

/** Whether a picture takes room from the lines beside it. */
export const movesText = ({ format: { wrap } }: Pick<Floating, "format">): boolean =>
  wrap === "beside" || wrap === "across"

/** What a picture takes of the region, with its distance from the text. */
function taken({ x, y, picture, format }: SetFloat): { left: number; top: number; right: number; bottom: number } {
  const { distance, wrap } = format
  const { width, height } = picture.box
  return wrap === "across"
    ? { left: -Infinity, top: y - distance, right: Infinity, bottom: y + height + distance }
    : { left: x - distance, top: y - distance, right: x + width + distance, bottom: y + height + distance }
}

/** From left to right, what a picture takes between two heights; null for nothing. */
function takenBetween(own: SetFloat, top: number, bottom: number): { left: number; right: number } | null {
  const box = taken(own)
  if (bottom <= box.top + 1e-6 || top >= box.bottom - 1e-6) return null
  if (own.picture.shape !== "round" || own.picture.turn !== 0 || own.format.wrap === "across") return box
  // Round ones are passed by their outline, at its widest between the two heights.
  const middle = (box.top + box.bottom) / 2
  const half = (box.bottom - box.top) / 2
  const away = Math.max(0, top - middle, middle - bottom)
  const part = Math.sqrt(Math.max(0, 1 - (away / half) ** 2))
  const [center, reach] = [(box.left + box.right) / 2, ((box.right - box.left) / 2) * part]
  return { left: center - reach, right: center + reach }
}

/** Text stands on both sides of a picture where so much is left on each, in points. */
const leastBeside = 72

/** Where a picture wants to stand in a region; null where it has no room in it. */
export function place(
  floating: Floating,
  tied: { leaf: number; block: number; top: number },
  region: { width: number; height: number },
  room: FloatRoom,
  others: readonly Set[],
): Set | null {
  const { picture, format } = floating
  const { width, height } = picture.box
  const base = {
    column: { x: 0, width: region.width },
    margins: { x: room.margins.x - room.x, width: room.margins.width },
    sheet: { x: -room.x, width: room.sheet.width },
  }[format.across.of]
  const { align, at } = format.across
  const wished =
    align === null ? base.x + at : base.x + (base.width - width) * { left: 0, center: 0.5, right: 1 }[align]
  // Where there are several columns, what moves text stays in its own.
  const held = movesText(floating) && region.width < room.margins.width - 1
  const [leftmost, rightmost] = held
    ? [0, Math.max(0, region.width - width)]
    : [-room.x, room.sheet.width - room.x - width]
  const x = Math.max(leftmost, Math.min(rightmost, wished))
  const from = { paragraph: tied.top, margins: room.margins.y - room.y, sheet: -room.y }[format.down.of]
  const [highest, lowest] = movesText(floating)
    ? [0, region.height - height]
    : [-room.y, room.sheet.height - room.y - height]
  if (lowest < highest - 1e-6) return null
  let y = Math.max(highest, Math.min(lowest, from + format.down.at))
  const set = (): Set => ({ leaf: tied.leaf, block: tied.block, x, y, ...floating })
  if (!movesText(floating)) return set()
  for (let turns = 0; turns <= others.length; turns++) {
    const own = { left: x, right: x + width, top: y, bottom: y + height }
    const over = others.find((other) => {
      const box = {
        left: other.x,
        right: other.x + other.picture.box.width,
        top: other.y,
        bottom: other.y + other.picture.box.height,
      }
      return (
        movesText(other) &&
        own.left < box.right - 1e-6 &&
        box.left < own.right - 1e-6 &&
        own.top < box.bottom - 1e-6 &&
        box.top < own.bottom - 1e-6
      )
    })
    if (!over) return set()
    y = over.y + over.picture.box.height + Math.max(over.format.distance, format.distance)
    if (y > lowest + 1e-6) return null
  }
  return null
}

/** A stretch of a line that is free, from the left edge of the region. */
interface Stretch {
  from: number
  to: number
}

/** What is left of a line between two heights, from left to right, and how far below it would have to begin where that is too little. */
function lineBetween(
  floats: readonly SetFloat[],
  width: number,
  top: number,
  bottom: number,
  divides: boolean,
): { free: Stretch[]; below: number | null } {
  let all: Stretch = { from: 0, to: width }
  const amid: Stretch[] = []
  let below = Infinity
  for (const own of floats) {
    const box = takenBetween(own, top, bottom)
    if (!box) continue
    below = Math.min(below, taken(own).bottom)
    const { side } = own.format
    const [before, behind] = [box.left, width - box.right]
    if (side === "both" && divides && Math.min(before, behind) >= leastBeside)
      amid.push({ from: box.left, to: box.right })
    else if (side === "left" || (side !== "right" && before > behind)) all = { ...all, to: Math.min(all.to, box.left) }
    else all = { ...all, from: Math.max(all.from, Math.min(width, box.right)) }
  }
  let free = [all]
  for (const { from, to } of amid)
    free = free.flatMap((own) =>
      to <= own.from || from >= own.to
        ? [own]
        : [
            { from: own.from, to: from },
            { from: to, to: own.to },
          ],
    )
  const least = Math.min(leastRoom, width)
  const wide = free.filter(({ from, to }) => to - from >= (free.length > 1 ? leastBeside : least))
  if (wide.length > 0) return { free: wide, below: null }
  // Where nothing is wide enough, the widest is, if text has nowhere to go below.
  const widest = free.reduce((best, own) => (own.to - own.from > best.to - best.from ? own : best))
  return { free: [widest], below: widest.to - widest.from < least && below < Infinity ? below : null }
}

/** How a paragraph takes what is left beside pictures. */
export interface Taking {
  rtl: boolean
  /** Whether its lines go on behind a picture amid them. */
  divides: boolean
}

/**
 * Room that pictures take from the lines of a paragraph. Where text stands on both sides of one, the stretch behind it is a line of
 * its own, beside the one before it.
 * @param y where its line of number `from` begins in the region
 * @param lines as they are set so far: their heights are taken, and that of the last for those that may come
 */
export function insetsOf(
  floats: readonly SetFloat[],
  width: number,
  y: number,
  lines: readonly Line[],
  from: number,
  before: Insets,
  { rtl, divides }: Taking,
): Insets {
  const moving = floats.filter(movesText)
  const lowest = Math.max(...moving.map((own) => taken(own).bottom))
  const insets: Inset[] = Array.from({ length: from }, (_, n) => before[n] ?? { left: 0, right: 0, above: 0 })
  const heightOf = (n: number) => (lines[n] ?? lines.at(-1))?.height ?? 12
  let top = y
  /** By how much what stands beside others is less high than these. */
  let lacking = 0
  while (top < lowest && insets.length < from + mostLines) {
    const height = heightOf(insets.length)
    let above = lacking
    let own = lineBetween(moving, width, top, top + height, divides)
    for (let turns = 0; own.below !== null && turns <= moving.length; turns++) {
      above += own.below - top
      top = own.below
      own = lineBetween(moving, width, top, top + height, divides)
    }
    let highest = 0
    let last = 0
    for (const stretch of rtl ? [...own.free].reverse() : own.free) {
      const higher = heightOf(insets.length)
      insets.push({ left: stretch.from, right: width - stretch.to, above: last > 0 ? -last : above })
      ;[highest, last] = [Math.max(highest, higher), higher]
    }
    lacking = highest - last
    top += highest
  }
  if (lacking > 0) insets.push({ left: 0, right: 0, above: lacking })
  while (insets.length > from && isFree(insets.at(-1) as Inset)) insets.pop()
  return insets.every(isFree) ? [] : insets
}

/** Room above a line that brings it below all pictures. */
export function belowAll(floats: readonly SetFloat[], y: number, from: number, before: Insets): Insets {
  const lowest = Math.max(y, ...floats.filter(movesText).map((own) => taken(own).bottom))
  const free = { left: 0, right: 0, above: 0 }
  return [...Array.from({ length: from }, (_, n) => before[n] ?? free), { ...free, above: lowest - y }]
}

/** Lines of one paragraph beside pictures: more than a sheet of any size has. */
const mostLines = 2000

const isFree = ({ left, right, above }: Inset) => left === 0 && right === 0 && above === 0

/** Where something that cannot stand beside pictures begins: below those that are there. */
export function clearOf(floats: readonly SetFloat[], y: number): number {
  let top = y
  for (const own of [...floats].filter(movesText).sort((a, b) => a.y - b.y)) {
    const box = taken(own)
    if (box.top < top + 1 && box.bottom > top) top = box.bottom
  }
  return top
}

/** Where something of a height that cannot stand beside pictures is clear of the first that it would reach into; null where it is clear of all. */
export function behindNext(floats: readonly SetFloat[], y: number, height: number): number | null {
  const reached = floats.filter(movesText).map(taken)
  const first = reached.filter(({ top, bottom }) => top < y + height - 1e-6 && bottom > y + 1e-6)
  return first.length > 0 ? Math.min(...first.map(({ bottom }) => bottom)) : null
}

/** How far down pictures reach that text keeps clear of. */
export function reach(floats: readonly SetFloat[]): number {
  return Math.max(0, ...floats.filter(movesText).map(({ y, picture }) => y + picture.box.height))
}

/** Whether a picture stands above the paragraph that it is tied to, where text is set before that is known. */
export function isEarly(own: SetFloat, top: number): boolean {
  return movesText(own) && own.y < top - 0.01
}
