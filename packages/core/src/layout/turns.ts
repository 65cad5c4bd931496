/** Text whose lines rise or fall: how long they are, and where its places lie on the sheet. */
import type { Filled } from "./regions"
import type { Turn } from "./types"

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/** Where a box of text that rises or falls upright lies on the sheet. */
export function turnedBox(turn: Turn | null, { x, y, width, height }: Box): Box {
  if (!turn) return { x, y, width, height }
  const [dx, dy] = [x - turn.x, y - turn.y]
  return turn.angle > 0
    ? { x: turn.x + dy, y: turn.y - dx - width, width: height, height: width }
    : { x: turn.x - dy - height, y: turn.y + dx, width: height, height: width }
}

/** The place in text before it is turned that lies at a point of the sheet. */
export function beforeTurn(turn: Turn | null, x: number, y: number): { x: number; y: number } {
  if (!turn) return { x, y }
  const [dx, dy] = [x - turn.x, y - turn.y]
  return turn.angle > 0 ? { x: turn.x - dy, y: turn.y + dx } : { x: turn.x + dy, y: turn.y - dx }
}

/** Lines that rise or fall, of one length. */
export interface TurnedLines {
  filled: Filled
  /** In points. */
  length: number
}

/** So long lines are before text is broken, and so long they may become, in points. */
const [shortest, longest] = [140, 560]
const wide = 1e5

/** How long the longest line is. */
function naturalLength({ inside }: Filled): number {
  let natural = 1
  for (const { box } of inside) {
    if (box.kind !== "lines") continue
    const { indentLeft, indentRight, indentFirst } = box.paragraph.format
    for (const line of box.paragraph.lines)
      natural = Math.max(natural, line.width + indentLeft + indentRight + Math.max(0, indentFirst))
  }
  // A hair more, so that rounding breaks no line.
  return natural + 1
}

/**
 * Sets text into lines that rise or fall, as short as a cell allows in which they lie beside one another.
 * @param fill sets it into lines of a length
 * @param across room for its lines beside one another
 * @param given how long they may be without more ado
 * @returns null where it has no room so, or holds a table
 */
export function turnedLines(fill: (length: number) => Filled, across: number, given: number): TurnedLines | null {
  const all = fill(wide)
  if (!all.atEnd || all.inside.some(({ box }) => box.kind !== "lines")) return null
  const most = Math.min(naturalLength(all), Math.max(longest, given))
  for (let length = Math.min(most, Math.max(shortest, given)); ; length = Math.min(most, length * 1.4)) {
    const filled = fill(length)
    if (filled.height <= across + 1e-6) return { filled, length }
    if (length >= most) return null
  }
}
