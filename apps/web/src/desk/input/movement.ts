/** Movement that follows the lines on the sheets: up and down, to the ends of a line, by a screenful. */
import { contentStart, blockAt, bodyOf } from "@biblon/core/document"
import { lineEndOffset, lineOfOffset, offsetAtX, type Fragment, type Sheet } from "@biblon/core/layout"
import type { EditorState } from "prosemirror-state"
import type { LayoutMirror } from "../../workers/layoutMirror"
import type { Place, SheetView } from "../view/sheetView"

export type Motion = "left" | "right" | "wordLeft" | "wordRight" | "up" | "down" | "lineStart" | "lineEnd" | "pageUp" | "pageDown" | "documentStart" | "documentEnd"

interface LineAt {
  sheet: number
  fragment: Fragment
  line: number
}

/** All lines of a sheet in reading order. */
function linesOf(sheet: Sheet, index: number): LineAt[] {
  return sheet.fragments.flatMap((fragment) => Array.from({ length: fragment.to - fragment.from }, (_, i) => ({ sheet: index, fragment, line: fragment.from + i })))
}

function beside(mirror: LayoutMirror, index: number, fragment: Fragment, line: number, direction: -1 | 1): LineAt | null {
  const sheet = mirror.sheet(index)
  if (!sheet) return null
  const lines = linesOf(sheet, index)
  const at = lines.findIndex((l) => l.fragment === fragment && l.line === line)
  const near = lines[at + direction]
  if (near) return near
  const other = mirror.sheet(index + direction)
  if (!other) return null
  return linesOf(other, index + direction).at(direction > 0 ? 0 : -1) ?? null
}

/** One line up or down, as near as can be to `goalX` (points from the sheet's left edge). Null where there is no such line. */
export function besideLine(view: SheetView, mirror: LayoutMirror, editor: EditorState, from: Place, direction: -1 | 1, goalX: number): Place | null {
  const found = view.fragment(from)
  if (!found) return null
  const { fragment, index } = found
  const offset = from.pos - contentStart(editor.doc, mirror.firstBlock(index) + fragment.block)
  const target = beside(mirror, index, fragment, lineOfOffset(fragment.paragraph, offset, from.bias), direction)
  if (!target) return null
  const { offset: to, bias } = offsetAtX(target.fragment.paragraph, target.line, goalX - target.fragment.x)
  return { pos: contentStart(editor.doc, mirror.firstBlock(target.sheet) + target.fragment.block) + to, bias }
}

/** The x of a caret on its sheet, in points. */
export function caretX(view: SheetView, place: Place): number | null {
  const found = view.fragment(place)
  const box = view.box(place)
  if (!found || !box) return null
  return (box.x - view.left(found.index)) / view.scale
}

export function lineEdge(view: SheetView, editor: EditorState, from: Place, direction: -1 | 1): Place | null {
  const found = view.fragment(from)
  if (!found) return null
  const { paragraph } = found.fragment
  const start = contentStart(editor.doc, blockAt(editor.doc, from.pos))
  const index = lineOfOffset(paragraph, from.pos - start, from.bias)
  const line = paragraph.lines[index]
  if (!line) return null
  if (direction < 0) return { pos: start + line.from, bias: 1 }
  const end = lineEndOffset(paragraph, index)
  return { pos: start + end, bias: end === line.to && index < paragraph.lines.length - 1 ? -1 : 1 }
}

/** A screenful up or down; the window scrolls along. */
export function besidePage(view: SheetView, from: Place, direction: -1 | 1): Place | null {
  const box = view.box(from)
  if (!box) return null
  const step = Math.max(40, view.host.clientHeight - 80) * direction
  const target = view.at(box.x, box.y + box.height / 2 + step)
  view.host.scrollTop += step
  return target
}

export function documentEnd(editor: EditorState): number {
  const body = bodyOf(editor.doc)
  return contentStart(editor.doc, body.childCount - 1) + body.child(body.childCount - 1).content.size
}
