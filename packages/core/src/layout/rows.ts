/** Rows of a paragraph: most are one line; where text stands on both sides of a picture, the line behind it stands beside the one before it. */
import type { Line } from "./types"

/** Whether a line stands beside the one before it. */
export function standsBeside(lines: readonly Line[], n: number): boolean {
  const [before, own] = [lines[n - 1], lines[n]]
  return before !== undefined && own !== undefined && own.top < before.top + before.height - 0.01
}

/** The first line of the row of a line. */
export function rowStart(lines: readonly Line[], n: number): number {
  while (standsBeside(lines, n)) n--
  return n
}

/** How far down the lines from one up to, not including, another reach. */
export function bottomOf(lines: readonly Line[], from: number, to: number): number {
  let bottom = 0
  for (let n = to - 1, more = true; more && n >= from; n--) {
    const { top, height } = lines[n] as Line
    bottom = Math.max(bottom, top + height)
    more = standsBeside(lines, n)
  }
  return bottom
}
