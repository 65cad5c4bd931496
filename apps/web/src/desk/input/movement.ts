/** Movement that follows the lines on the sheets: up and down, to the ends of a line, by a screenful. */
import { leavesOf } from "@biblon/core/document"
import {
  caretBox,
  caretStops,
  fragmentsOf,
  hasTurns,
  lineEndOffset,
  lineOfOffset,
  offsetAtX,
  rowStart,
  type Fragment,
  type Line,
  type PlacedSheet,
  type SetCell,
} from "@biblon/core/layout"
import type { EditorState } from "prosemirror-state"
import type { LayoutMirror } from "../../workers/layoutMirror"
import type { Place } from "../view/source"
import type { SheetView } from "../view/sheetView"

export type Motion =
  | "left"
  | "right"
  | "wordLeft"
  | "wordRight"
  | "up"
  | "down"
  | "lineStart"
  | "lineEnd"
  | "pageUp"
  | "pageDown"
  | "documentStart"
  | "documentEnd"

interface LineAt {
  sheet: number
  fragment: Fragment
  line: number
}

/** The lines of a sheet in reading order, as far as they belong to one text. */
function linesOf(placed: PlacedSheet, index: number, among: (fragment: Fragment) => boolean): LineAt[] {
  return fragmentsOf(placed)
    .filter(among)
    .flatMap((fragment) =>
      Array.from({ length: fragment.to - fragment.from }, (_, i) => ({
        sheet: index,
        fragment,
        line: fragment.from + i,
      })),
    )
}

/**
 * The line above or below: in order of the text, but from one cell of a table to the cell above or below it, in which `x` lies.
 */
function beside(
  mirror: LayoutMirror,
  index: number,
  fragment: Fragment,
  line: number,
  direction: -1 | 1,
  x: number,
  among: (fragment: Fragment) => boolean,
): LineAt | null {
  const placed = mirror.placed(index)
  if (!placed) return null
  const lines = linesOf(placed, index, among)
  const at = lines.findIndex((l) => l.fragment === fragment && l.line === line)
  const row = ({ fragment: own, line: n }: Pick<LineAt, "fragment" | "line">) => rowStart(own.paragraph.lines, n)
  const here = row({ fragment, line })
  const follows = (own: LineAt) =>
    !(own.fragment === fragment && row(own) === here) && leadsTo(fragment.cell, own.fragment.cell, direction, x)
  const next = (all: readonly LineAt[], from: number): LineAt | null => {
    for (let i = from; i >= 0 && i < all.length; i += direction) {
      const own = all[i] as LineAt
      if (follows(own))
        return nearest(
          all.filter((other) => other.fragment === own.fragment && row(other) === row(own)),
          x,
        )
    }
    return null
  }
  const near = next(lines, at + direction)
  // Heads and feet stand on every sheet: the next one shows the same.
  if (near || fragment.part === "header" || fragment.part === "footer") return near
  const other = mirror.placed(index + direction)
  if (!other) return null
  const beyond = linesOf(other, index + direction, among)
  return next(beyond, direction > 0 ? 0 : beyond.length - 1)
}

/** Of lines side by side, the one that is nearest to an x of the sheet. */
function nearest(lines: readonly LineAt[], x: number): LineAt | null {
  const away = ({ fragment, line }: LineAt) => {
    const own = fragment.paragraph.lines[line] as Line
    return Math.max(0, fragment.x + own.x - x, x - fragment.x - own.x - own.width)
  }
  return lines.reduce<LineAt | null>((best, own) => (best && away(best) <= away(own) ? best : own), null)
}

/** Whether a line in one cell may follow one in another when one goes up or down. */
function leadsTo(from: SetCell | null, to: SetCell | null, direction: -1 | 1, x: number): boolean {
  if (to === null) return true
  if (from && to.leaf === from.leaf && to.table.leaf === from.table.leaf) return true
  // In the same table, other cells of the row lie beside, not above or below.
  const sameTable = from !== null && from.table.leaf === to.table.leaf
  if (sameTable && (direction > 0 ? to.row < from.row + from.rowspan : to.row + to.rowspan > from.row)) return false
  const { table } = to
  const inside = Math.max(table.x + 1, Math.min(table.x + table.width - 1, x))
  return inside >= to.x && inside <= to.x + to.width && leadsTo(from, table.outer, direction, x)
}

/** One line up or down in the text that the caret is in, as near as can be to `goalX` (points from the sheet's left edge). Null where there is no such line. */
export function besideLine(
  view: SheetView,
  mirror: LayoutMirror,
  editor: EditorState,
  from: Place,
  direction: -1 | 1,
  goalX: number,
): Place | null {
  const found = view.places.fragment(from)
  if (!found) return null
  const { fragment, index } = found
  const offset = from.pos - leavesOf(editor.doc).start(fragment.leaf)
  const leaves = leavesOf(editor.doc)
  const { story } = leaves.flow(fragment.leaf)
  // Contents have no text in which a caret could stand, and nothing runs from one text into another.
  const among = ({ part, leaf }: Fragment) =>
    story === null ? part === "text" : part !== "generated" && leaves.flow(leaf).story === story
  const line = lineOfOffset(fragment.paragraph, offset, from.bias)
  const target = beside(mirror, index, fragment, line, direction, goalX, among)
  if (!target) return null
  const x = target.fragment.turn ? alongTurned(fragment, target.fragment, offset, from.bias) : goalX - target.fragment.x
  const { offset: to, bias } = offsetAtX(target.fragment.paragraph, target.line, x)
  return { pos: leavesOf(editor.doc).start(target.fragment.leaf) + to, bias }
}

/** Where a caret goes on along a line that rises or falls: as far as it stood in the line beside, or from its beginning. */
function alongTurned(from: Fragment, to: Fragment, offset: number, bias: -1 | 1): number {
  const beside = from.cell === to.cell ? caretBox({ ...from, turn: null }, offset, bias) : null
  return beside ? beside.x - from.x : 0
}

/** Whether the text at the caret's line runs from right to left as a whole. */
export function runsBackwards(view: SheetView, from: Place): boolean {
  return view.places.fragment(from)?.fragment.paragraph.format.direction === "rtl"
}

/**
 * One character to the left or right as it is seen, on lines where text runs both ways; over the line's end to
 * the neighbouring one. Null for lines from left to right, where order and sight agree.
 */
export function besideCharacter(view: SheetView, editor: EditorState, from: Place, direction: -1 | 1): Place | null {
  const found = view.places.fragment(from)
  if (!found) return null
  const { paragraph } = found.fragment
  const start = leavesOf(editor.doc).start(leavesOf(editor.doc).at(from.pos))
  const offset = from.pos - start
  const index = lineOfOffset(paragraph, offset, from.bias)
  const line = paragraph.lines[index]
  if (!line || !hasTurns(paragraph, line)) return null
  const stops = caretStops(paragraph, index)
  const here = stops.findIndex((stop) => stop.offset === offset && stop.bias === from.bias)
  const now = here >= 0 ? here : stops.findIndex((stop) => stop.offset === offset)
  const x = stops[now]?.x ?? 0
  // Stops in one place are one to the eye.
  for (let i = now + direction; stops[i]; i += direction) {
    const stop = stops[i] as (typeof stops)[number]
    if (Math.abs(stop.x - x) > 0.01) return { pos: start + stop.offset, bias: stop.bias }
  }
  const forward = direction > 0 === (paragraph.format.direction === "ltr")
  const next = paragraph.lines[index + (forward ? 1 : -1)]
  if (next)
    return forward
      ? { pos: start + next.from, bias: 1 }
      : { pos: start + lineEndOffset(paragraph, index - 1), bias: -1 }
  const leaf = leavesOf(editor.doc).at(from.pos) + (forward ? 1 : -1)
  if (leaf < 0 || leaf >= leavesOf(editor.doc).count) return null
  return {
    pos: leavesOf(editor.doc).start(leaf) + (forward ? 0 : leavesOf(editor.doc).node(leaf).content.size),
    bias: forward ? 1 : -1,
  }
}

/** The x of a caret on its sheet, in points. */
export function caretX(view: SheetView, place: Place): number | null {
  const found = view.places.fragment(place)
  const box = view.places.box(place)
  if (!found || !box) return null
  return (box.x - view.places.left(found.index)) / view.places.scale
}

export function lineEdge(view: SheetView, editor: EditorState, from: Place, direction: -1 | 1): Place | null {
  const found = view.places.fragment(from)
  if (!found) return null
  const { paragraph } = found.fragment
  const start = leavesOf(editor.doc).start(leavesOf(editor.doc).at(from.pos))
  const index = lineOfOffset(paragraph, from.pos - start, from.bias)
  const line = paragraph.lines[index]
  if (!line) return null
  if (direction < 0) return { pos: start + line.from, bias: 1 }
  const end = lineEndOffset(paragraph, index)
  return { pos: start + end, bias: end === line.to && index < paragraph.lines.length - 1 ? -1 : 1 }
}

/** How far a screenful leads. */
const pageStep = (view: SheetView, direction: -1 | 1) => Math.max(40, view.room.clientHeight - 80) * direction

/** Whether the sheet a screenful away is here; if not, it is asked for. */
export function reachesPage(view: SheetView, from: Place, direction: -1 | 1): boolean {
  const box = view.places.box(from)
  return !box || view.reach(box.y + box.height / 2 + pageStep(view, direction))
}

/** A screenful up or down; the window scrolls along. */
export function besidePage(view: SheetView, from: Place, direction: -1 | 1): Place | null {
  const box = view.places.box(from)
  if (!box) return null
  const step = pageStep(view, direction)
  const target = view.places.at(box.x, box.y + box.height / 2 + step)
  view.room.scrollTo(view.room.scrollTop + step)
  return target
}
