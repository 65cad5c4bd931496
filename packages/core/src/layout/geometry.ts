/** From places in the text to places on the sheet and back. Offsets are UTF-16 units inside a paragraph. */
import { graphemeEnds } from "./breaking"
import { isWordSpace } from "./lines"
import type { Fragment, Line, LineRun, ParagraphLayout, Sheet } from "./types"

const edgeCache = new WeakMap<Line, Float64Array>()

/** For each offset from the line's start to its end, the x of the caret there, from the column's left edge. */
export function caretEdges(paragraph: ParagraphLayout, line: Line): Float64Array {
  let edges = edgeCache.get(line)
  if (edges) return edges
  edges = new Float64Array(line.to - line.from + 1)
  let at = line.from
  let x = line.x
  for (const piece of line.runs) {
    // Tabs and line breaks have no run: a tab reaches to where the next run begins.
    while (at < piece.from) {
      edges[at - line.from] = x
      at++
      x = piece.x
    }
    const { glyphs, scale } = piece.run
    x = piece.x
    for (let g = piece.first; g < piece.last; ) {
      const start = glyphs.clusters[g] as number
      let width = 0
      while (g < piece.last && glyphs.clusters[g] === start) width += (glyphs.advances[g++] as number) * scale
      const end = g < piece.last ? (glyphs.clusters[g] as number) : piece.to
      if (isWordSpace(paragraph.text.charCodeAt(start))) width += piece.extra
      for (let o = start; o < end; o++) edges[o - line.from] = x + (width * (o - start)) / (end - start)
      x += width
    }
    at = piece.to
  }
  const right = Math.max(x, line.x + line.width)
  while (at < line.to) {
    edges[at - line.from] = x
    if (paragraph.text[at] === "\t") x = right
    at++
  }
  edges[line.to - line.from] = x
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

export interface Box {
  x: number
  y: number
  width: number
  height: number
}

export function lineTop(fragment: Fragment, line: Line): number {
  return fragment.y + line.top - (fragment.paragraph.lines[fragment.from] as Line).top
}

/** The caret at an offset: a box without width on the sheet, or null if the fragment does not show that offset. */
export function caretBox(fragment: Fragment, offset: number, bias: -1 | 1 = 1): Box | null {
  const index = lineOfOffset(fragment.paragraph, offset, bias)
  if (index < fragment.from || index >= fragment.to) return null
  const line = fragment.paragraph.lines[index] as Line
  const x = caretEdges(fragment.paragraph, line)[offset - line.from] ?? line.x + line.width
  return { x: fragment.x + x, y: lineTop(fragment, line), width: 0, height: line.height }
}

/** Boxes over the letters from one offset to another. `through` also marks the paragraph's end. */
export function rangeBoxes(fragment: Fragment, from: number, to: number, through: boolean): Box[] {
  const boxes: Box[] = []
  for (let i = fragment.from; i < fragment.to; i++) {
    const line = fragment.paragraph.lines[i] as Line
    if (line.to < from || line.from > to) continue
    const edges = caretEdges(fragment.paragraph, line)
    const left = edges[Math.max(from, line.from) - line.from] as number
    let right = Math.min(edges[Math.min(to, line.to) - line.from] as number, Math.max(line.x + line.width, left))
    if (i === fragment.paragraph.lines.length - 1 && through && to >= line.to) right += 5
    if (right > left) boxes.push({ x: fragment.x + left, y: lineTop(fragment, line), width: right - left, height: line.height })
  }
  return boxes
}

export interface Hit {
  /** Counted from the sheet's first block. */
  block: number
  offset: number
  bias: -1 | 1
}

/** The offset in a line whose caret is nearest to x, never inside what people see as one character. */
export function offsetAtX(paragraph: ParagraphLayout, index: number, x: number): { offset: number; bias: -1 | 1 } {
  const line = paragraph.lines[index] as Line
  const edges = caretEdges(paragraph, line)
  const end = lineEndOffset(paragraph, index)
  let best = line.from
  for (const stop of [0, ...graphemeEnds(paragraph.text.slice(line.from, end))])
    if (Math.abs((edges[stop] as number) - x) < Math.abs((edges[best - line.from] as number) - x)) best = line.from + stop
  return { offset: best, bias: best === line.to && index < paragraph.lines.length - 1 ? -1 : 1 }
}

/** What lies at a point of the sheet, or nearest to it; null only for a sheet without text. */
export function hit(sheet: Sheet, x: number, y: number): Hit | null {
  let nearest: { fragment: Fragment; index: number } | null = null
  let distance = Infinity
  for (const fragment of sheet.fragments) {
    const aside = x < fragment.x ? fragment.x - x : x > fragment.x + fragment.width ? x - fragment.x - fragment.width : 0
    for (let i = fragment.from; i < fragment.to; i++) {
      const line = fragment.paragraph.lines[i] as Line
      const top = lineTop(fragment, line)
      const away = (y < top ? top - y : y > top + line.height ? y - top - line.height : 0) + aside
      if (away < distance) {
        distance = away
        nearest = { fragment, index: i }
      }
    }
  }
  if (!nearest) return null
  const { fragment, index } = nearest
  return { block: fragment.block, ...offsetAtX(fragment.paragraph, index, x - fragment.x) }
}

/** The rule under a run that is underlined, from the column's left edge and the baseline; spaces hanging at the line's end have none. */
export function underlineOf(line: Line, piece: LineRun): Box | null {
  if (piece.run.look.underline === "none") return null
  const width = Math.min(piece.width, line.x + line.width - piece.x)
  if (width <= 0) return null
  return { x: piece.x, y: piece.run.underline.y, width, height: piece.run.underline.thickness }
}
