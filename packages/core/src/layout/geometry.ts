/** From places in the text to places on the sheet and back. Offsets are UTF-16 units inside a paragraph. */
import { graphemeEnds } from "./breaking"
import { eachCluster, isWordSpace } from "./measuring"
import { fragmentsOf, tablesOf } from "./boxes"
import { isFieldPart } from "./paragraph"
import { standsBeside } from "./rows"
import { beforeTurn, turnedBox, type Box } from "./turns"
import type { Fragment, Line, ParagraphLayout, PlacedSheet, SetCell } from "./types"

/** Carets on a line by offset from its start. Where text changes its direction, the two differ: see caretBox. */
interface Edges {
  /** x of the edge of the character behind the caret at which it begins, from the column's left edge. */
  leading: Float64Array
  /** x of the edge of the character before the caret at which that ends. */
  trailing: Float64Array
}

const edgeCache = new WeakMap<Line, Edges>()

export function caretEdges(paragraph: ParagraphLayout, line: Line): Edges {
  let edges = edgeCache.get(line)
  if (edges) return edges
  const length = line.to - line.from
  const leading = new Float64Array(length + 1).fill(NaN)
  const trailing = new Float64Array(length + 1).fill(NaN)
  for (const piece of line.runs) {
    const back = piece.run.level % 2 === 1
    let x = back ? piece.x + piece.width : piece.x
    eachCluster(piece.run, piece.first, piece.last, piece.to, (from, to, own) => {
      const width = (own + (isWordSpace(paragraph.text.charCodeAt(from)) ? piece.extra : 0)) * (back ? -1 : 1)
      for (let at = from; at < to; at++) {
        // A field's words may be several pieces: they begin with the first of them and end with the last.
        if (back || Number.isNaN(leading[at - line.from]))
          leading[at - line.from] = x + (width * (at - from)) / (to - from)
        if (!back || Number.isNaN(trailing[at - line.from + 1]))
          trailing[at - line.from + 1] = x + (width * (at + 1 - from)) / (to - from)
      }
      x += width
    })
    if (piece.from < piece.to) continue
    // A field's words begin with the first of its pieces; a hyphen that is no part of the text stands before the caret at the end of its line.
    if (isFieldPart(piece.run)) {
      if (back || Number.isNaN(leading[piece.from - line.from]))
        leading[piece.from - line.from] = back ? piece.x + piece.width : piece.x
    } else trailing[piece.to - line.from] = back ? piece.x : piece.x + piece.width
  }
  // Tabs and line breaks have no run: a tab reaches from where the text before it ends to its stop.
  for (const { from, x } of line.tabs) trailing[from - line.from] = x
  const start = paragraph.format.direction === "rtl" ? line.x + line.width : line.x
  for (let at = 0; at <= length; at++) {
    const known = [trailing[at], leading[at], leading[at - 1], start].find(
      (x) => x !== undefined && !Number.isNaN(x),
    ) as number
    if (Number.isNaN(trailing[at] as number))
      trailing[at] = at === 0 ? (Number.isNaN(leading[0] as number) ? start : (leading[0] as number)) : known
    if (Number.isNaN(leading[at] as number)) leading[at] = trailing[at] as number
  }
  edges = { leading, trailing }
  edgeCache.set(line, edges)
  return edges
}

/**
 * The line that shows a caret at an offset. At the place where one line ends and the next begins,
 * `bias` -1 means the end of the earlier line, 1 the start of the later one.
 */
export function lineOfOffset(paragraph: ParagraphLayout, offset: number, bias: -1 | 1 = 1): number {
  const { lines } = paragraph
  let low = 0
  let high = lines.length - 1
  while (low < high) {
    const middle = (low + high + 1) >> 1
    if ((lines[middle] as Line).from <= offset) low = middle
    else high = middle - 1
  }
  const before = lines[low - 1]
  if (bias < 0 && before && (lines[low] as Line).from === offset && paragraph.text[offset - 1] !== "\n") return low - 1
  return low
}

/** Where the caret stands at the end of a line: before the space that hangs there, or before the line break. */
export function lineEndOffset(paragraph: ParagraphLayout, index: number): number {
  const line = paragraph.lines[index] as Line
  const last = index === paragraph.lines.length - 1
  const unit = paragraph.text[line.to - 1]
  return line.to > line.from && (unit === "\n" || (!last && unit === " ")) ? line.to - 1 : line.to
}

/** Where a line begins, before its text is turned. */
export function lineTop(fragment: Fragment, line: Line): number {
  return fragment.y + line.top - (fragment.paragraph.lines[fragment.from] as Line).top
}

/**
 * The caret at an offset: a box without width on the sheet, or without height where text rises or falls, or null if the fragment does not show that offset.
 * Where text changes its direction, the caret stands by the character behind it, or with `bias` -1 by the one before it.
 */
export function caretBox(fragment: Fragment, offset: number, bias: -1 | 1 = 1): Box | null {
  const index = lineOfOffset(fragment.paragraph, offset, bias)
  if (index < fragment.from || index >= fragment.to) return null
  const line = fragment.paragraph.lines[index] as Line
  const edges = caretEdges(fragment.paragraph, line)
  const at = offset - line.from
  const x = (bias < 0 || offset === line.to ? edges.trailing : edges.leading)[at] ?? line.x + line.width
  return turnedBox(fragment.turn, { x: fragment.x + x, y: lineTop(fragment, line), width: 0, height: line.height })
}

/** The drop cap of a fragment: where it ends in the text, and its box on the sheet, as high as all its lines; null for none. */
function capOf({ paragraph, from, to, x }: Fragment, top: number): { end: number; box: Box } | null {
  const [first] = paragraph.lines
  const cap = from === 0 && paragraph.format.dropCap ? first?.runs.find(({ run }) => run.cap) : undefined
  if (!first || !cap) return null
  const foot = first.top + first.baseline - cap.run.rise
  const last =
    paragraph.lines
      .slice(0, to)
      .reverse()
      .find((line) => line.top < foot) ?? first
  return { end: cap.to, box: { x: x + cap.x, y: top, width: cap.width, height: last.top + last.height - first.top } }
}

/** Below the baseline, and so high, stands what is put under letters; in points. */
const under = { distance: 1.6, height: 3 }

/** Boxes close under the letters from one offset to another, however far the lines are apart. */
export function underBoxes(fragment: Fragment, from: number, to: number): Box[] {
  const baselines = new Map(
    fragment.paragraph.lines
      .slice(fragment.from, fragment.to)
      .map((line) => [lineTop(fragment, line), line.baseline] as const),
  )
  return boxesOver(fragment, from, to, false).map((box) =>
    turnedBox(fragment.turn, {
      ...box,
      y: box.y + (baselines.get(box.y) ?? box.height) + under.distance,
      height: under.height,
    }),
  )
}

/** Boxes over the letters from one offset to another. `through` also marks the paragraph's end. */
export function rangeBoxes(fragment: Fragment, from: number, to: number, through: boolean): Box[] {
  return boxesOver(fragment, from, to, through).map((box) => turnedBox(fragment.turn, box))
}

/** The same before the text is turned. */
function boxesOver(fragment: Fragment, from: number, to: number, through: boolean): Box[] {
  const boxes: Box[] = []
  const { paragraph } = fragment
  for (let i = fragment.from; i < fragment.to; i++) {
    const line = paragraph.lines[i] as Line
    if (line.to < from || line.from > to) continue
    const { leading, trailing } = caretEdges(paragraph, line)
    const [y, height] = [lineTop(fragment, line), line.height]
    const parts = line.runs.flatMap(({ run, x, width }): Box[] =>
      run.from >= from && run.from < to && isFieldPart(run) ? [{ x: fragment.x + x, y, width, height }] : [],
    )
    const first = boxes.push(...parts) - parts.length
    const cap = i === 0 && from === 0 && to > 0 ? capOf(fragment, y) : null
    if (cap) boxes.push(cap.box)
    const [a, b] = [Math.max(cap?.end ?? from, line.from) - line.from, Math.min(to, line.to) - line.from]
    if (cap && b <= a) continue
    const last = i === paragraph.lines.length - 1 && through && to >= line.to
    if (hasTurns(paragraph, line)) {
      // Each stretch of one direction has a box of its own.
      for (const piece of line.runs) {
        const [start, end] = [Math.max(a, piece.from - line.from), Math.min(b, piece.to - line.from)]
        if (start >= end) continue
        const sides = [leading[start] as number, trailing[end] as number]
        boxes.push({
          x: fragment.x + Math.min(...sides),
          y,
          width: Math.abs((sides[1] as number) - (sides[0] as number)),
          height,
        })
      }
      if (last)
        boxes.push({
          x: fragment.x + (paragraph.format.direction === "rtl" ? line.x - 5 : line.x + line.width),
          y,
          width: 5,
          height,
        })
      continue
    }
    const left = leading[a] as number
    let right = Math.min(a === b ? left : (trailing[b] as number), Math.max(line.x + line.width, left))
    if (last) right += 5
    if (right <= left) continue
    const whole = { x: fragment.x + left, y, width: right - left, height }
    // What the parts of a field have of it already is not marked twice.
    boxes.splice(first, parts.length, ...parts.filter((part) => !covers(whole, part)))
    boxes.push(whole)
  }
  return boxes
}

/** Whether a box reaches over another one of its line. */
const covers = (whole: Box, part: Box) =>
  part.x >= whole.x - 0.01 && part.x + part.width <= whole.x + whole.width + 0.01

/** Whether anything on a line runs from right to left. */
export function hasTurns(paragraph: ParagraphLayout, line: Line): boolean {
  return paragraph.format.direction === "rtl" || line.runs.some((piece) => piece.run.level > 0)
}

/** The places at which a caret can stand on a line, from left to right. */
export function caretStops(paragraph: ParagraphLayout, index: number): { offset: number; bias: -1 | 1; x: number }[] {
  const line = paragraph.lines[index] as Line
  const { leading, trailing } = caretEdges(paragraph, line)
  const end = lineEndOffset(paragraph, index)
  const ends = [0, ...graphemeEnds(paragraph.text.slice(line.from, end))]
  const stops = ends.flatMap((at): { offset: number; bias: -1 | 1; x: number }[] => {
    const offset = line.from + at
    const before = { offset, bias: -1 as const, x: trailing[at] as number }
    const behind = { offset, bias: 1 as const, x: leading[at] as number }
    if (offset === end) return [{ ...before, bias: end === line.to && index < paragraph.lines.length - 1 ? -1 : 1 }]
    return at === 0 || Math.abs(before.x - behind.x) < 0.01 ? [behind] : [before, behind]
  })
  return stops.sort((a, b) => a.x - b.x)
}

export interface Hit {
  leaf: number
  offset: number
  bias: -1 | 1
}

/** The offset in a line whose caret is nearest to x, never inside what people see as one character. */
export function offsetAtX(paragraph: ParagraphLayout, index: number, x: number): { offset: number; bias: -1 | 1 } {
  const nearest = caretStops(paragraph, index).reduce((best, stop) =>
    Math.abs(stop.x - x) < Math.abs(best.x - x) ? stop : best,
  )
  return { offset: nearest.offset, bias: nearest.bias }
}

/** The leaf whose list mark lies at a point of the sheet, if it can be ticked there. */
export function checkAt(placed: PlacedSheet, left: number, down: number): number | null {
  const reach = 6
  for (const fragment of fragmentsOf(placed)) {
    const { x, y } = beforeTurn(fragment.turn, left, down)
    const { label, lines } = fragment.paragraph
    const line = lines[0]
    const [first, last] = [label?.runs[0], label?.runs.at(-1)]
    if (!label?.check || fragment.from > 0 || !line || !first || !last) continue
    const top = lineTop(fragment, line)
    if (
      x >= fragment.x + first.x - reach &&
      x <= fragment.x + last.x + last.width + reach &&
      y >= top &&
      y <= top + line.height
    )
      return fragment.leaf
  }
  return null
}

/** Whether a cell is another one, or stands in it. */
function stands(cell: SetCell | null, other: SetCell): boolean {
  return cell !== null && (cell === other || stands(cell.table.outer, other))
}

/** The innermost cell at a point of the sheet; null for none. */
export function cellHit(placed: PlacedSheet, x: number, y: number): SetCell | null {
  let found: SetCell | null = null
  for (const { cells } of tablesOf(placed))
    for (const cell of cells)
      if (x >= cell.x && x <= cell.x + cell.width && y >= cell.y && y <= cell.y + cell.height) found = cell
  return found
}

/** How far a place lies outside two others. */
const outside = (at: number, from: number, to: number) => Math.max(0, from - at, at - to)

/**
 * What lies at a point of the sheet, or nearest to it; null only for a sheet without text.
 * @param among which fragments count
 */
export function hit(
  placed: PlacedSheet,
  left: number,
  down: number,
  among: (fragment: Fragment) => boolean = ({ part }) => part === "text",
): Hit | null {
  let nearest: { fragment: Fragment; index: number } | null = null
  let distance = Infinity
  const all = fragmentsOf(placed).filter(among)
  // A point in a cell means that cell, however near the text of another one is.
  const cell = cellHit(placed, left, down)
  const inCell = cell ? all.filter((fragment) => stands(fragment.cell, cell)) : []
  for (const fragment of inCell.length > 0 ? inCell : all) {
    const { x, y } = beforeTurn(fragment.turn, left, down)
    const cap = fragment.paragraph.lines[0] ? capOf(fragment, lineTop(fragment, fragment.paragraph.lines[0])) : null
    if (cap && x >= cap.box.x && x <= cap.box.x + cap.box.width && y >= cap.box.y && y <= cap.box.y + cap.box.height)
      return { leaf: fragment.leaf, ...offsetAtX(fragment.paragraph, 0, x - fragment.x) }
    const aside = outside(x, fragment.x, fragment.x + fragment.width)
    const { lines } = fragment.paragraph
    for (let i = fragment.from; i < fragment.to; i++) {
      const line = lines[i] as Line
      const top = lineTop(fragment, line)
      const beside = standsBeside(lines, i) || standsBeside(lines, i + 1)
      const away =
        (y < top ? top - y : y > top + line.height ? y - top - line.height : 0) +
        (beside ? outside(x - fragment.x, line.x, line.x + line.width) : aside)
      if (away < distance) {
        distance = away
        nearest = { fragment, index: i }
      }
    }
  }
  if (!nearest) return null
  const { fragment, index } = nearest
  const { x } = beforeTurn(fragment.turn, left, down)
  return { leaf: fragment.leaf, ...offsetAtX(fragment.paragraph, index, x - fragment.x) }
}
