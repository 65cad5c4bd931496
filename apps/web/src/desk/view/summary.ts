/** What the bars and trays are told of the sheets: where the caret stands, and what stands there. */
import { equal } from "@biblon/core/document"
import { pictureHere } from "@biblon/core/editing"
import type { Box } from "@biblon/core/layout"
import type { EditorState } from "prosemirror-state"
import { shallow } from "zustand/shallow"
import type { Places } from "./places"
import type { Column, PictureSeen, Place, TableSeen } from "./source"

export interface ViewSummary extends AtCaret {
  sheets: number
  complete: boolean
  /** The first sheet in sight, from 1. */
  firstShown: number
}

interface AtCaret {
  /** Number of the sheet with the caret, from 1. */
  caretSheet: number
  caret: Box | null
  /** The column with the caret. */
  column: Column | null
  /** The table with the caret. */
  table: TableSeen | null
  /** The picture that is selected. */
  picture: PictureSeen | null
  /** Edges of the selection in the view's pixels, where they are in sight. */
  selection: { from: Box | null; to: Box | null }
}

/** A summary with the parts of one before as far as they say the same, and that one where all do: what is drawn of these is not drawn anew with each letter, or frame of a fling. */
export function keeping(before: ViewSummary | null, now: ViewSummary): ViewSummary {
  if (!before) return now
  const kept = <T>(own: T, other: T) => (equal(own, other) ? own : other)
  const own = {
    ...now,
    caret: kept(before.caret, now.caret),
    column: kept(before.column, now.column),
    table: kept(before.table, now.table),
    picture: kept(before.picture, now.picture),
    selection: kept(before.selection, now.selection),
  }
  return shallow(before, own) ? before : own
}

/**
 * @param caret the box of the place, if it is in sight
 * @param pictureAt how the picture at a position is seen
 */
export function whatIsAt(
  editor: EditorState,
  place: Place,
  caret: Box | null,
  places: Places,
  pictureAt: (pos: number) => PictureSeen | null,
): AtCaret {
  const { from, head, anchor, empty } = editor.selection
  const edge = (pos: number) => (pos === head ? caret : places.box({ pos, bias: pos === from ? 1 : -1 }))
  const picture = pictureHere(editor)
  return {
    caretSheet: (places.sheetOf(place) ?? 0) + 1,
    caret,
    column: places.columnAt(place),
    table: places.tableAt(place),
    picture: picture && pictureAt(picture.pos),
    selection: empty
      ? { from: caret, to: caret }
      : { from: edge(Math.min(anchor, head)), to: edge(Math.max(anchor, head)) },
  }
}
