/** Where the caret goes by character, word and paragraph. Movement by line needs the layout: see layout/geometry. */
import type { EditorState } from "prosemirror-state"
import { leavesOf, segmenter, textOf } from "../document"
import { partAt } from "./stories"

export type Direction = -1 | 1

/** Text looked at around an offset: enough for any character or word, little in a long paragraph. */
const reach = 200

function boundary(
  granularity: "grapheme" | "word",
  text: string,
  offset: number,
  direction: Direction,
  counts: (segment: Intl.SegmentData) => boolean,
): number {
  const from = Math.max(0, offset - reach)
  const segments = [...segmenter(granularity).segment(text.slice(from, offset + reach))]
  if (direction > 0) {
    for (const s of segments) {
      const end = from + s.index + s.segment.length
      if (end > offset && counts(s)) return end
    }
    return text.length
  }
  for (const s of segments.reverse()) if (from + s.index < offset && counts(s)) return from + s.index
  return 0
}

/** The next offset at which a character, as people see it, begins or ends. */
export function graphemeBoundary(text: string, offset: number, direction: Direction): number {
  return boundary("grapheme", text, offset, direction, () => true)
}

/** The end of the next word, or the start of the one before. */
export function wordBoundary(text: string, offset: number, direction: Direction): number {
  return boundary("word", text, offset, direction, (s) => s.isWordLike === true)
}

/** The word (or the run of spaces or the sign) around an offset. */
export function wordAround(text: string, offset: number): { from: number; to: number } {
  const from = Math.max(0, offset - reach)
  let last = { from: offset, to: offset }
  for (const s of segmenter("word").segment(text.slice(from, offset + reach))) {
    const start = from + s.index
    const end = start + s.segment.length
    if (start > offset) break
    // At the end of a word the word counts, not the space behind it.
    if (start < offset || s.isWordLike || last.to !== offset) {
      if (start === offset && !s.isWordLike && last.to === offset && last.from < last.to) break
      last = { from: start, to: end }
    }
  }
  return last
}

/** The position one character or word further; at the edge of a paragraph, the edge of the neighbour. */
export function moveHorizontally(
  state: EditorState,
  head: number,
  direction: Direction,
  unit: "character" | "word",
): number {
  const $head = state.doc.resolve(head)
  const text = textOf($head.parent)
  const offset = $head.parentOffset
  if (direction < 0 ? offset > 0 : offset < text.length)
    return $head.start() + (unit === "word" ? wordBoundary : graphemeBoundary)(text, offset, direction)
  const leaves = leavesOf(state.doc)
  const leaf = leaves.at(head) + direction
  if (leaf < 0 || leaf >= leaves.count || leaves.flow(leaf).story !== leaves.flow(leaves.at(head)).story) return head
  return direction < 0 ? leaves.end(leaf) : leaves.start(leaf)
}

/** First and last position at which a caret can stand in the text that it is in. */
export function documentEdge(state: EditorState, direction: Direction): number {
  const { from, to } = partAt(state.doc, state.selection.head)
  return direction < 0 ? from : to
}
