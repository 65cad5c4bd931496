/** What the view reads, and the words in which it tells of places. */
import type { EdgeName, EdgeVariant } from "@biblon/core/document"
import type { EditorState } from "prosemirror-state"
import type { LayoutClient } from "../../workers/layoutClient"
import type { SeenText } from "./seenText"

export interface Place {
  pos: number
  /** At the end of a line that goes on below, -1 is there and 1 at the start of the next. */
  bias: -1 | 1
}

/** Where something begins and ends in the text. */
export interface Passage {
  from: number
  to: number
}

export interface ViewSource {
  layout: LayoutClient
  /** The text that the layout shows. */
  seen: SeenText
  editor(): EditorState
  bias(): -1 | 1
  /** Range of text that an input method is still composing. */
  composing(): Passage | null
  /** What is marked in a leaf, by offsets, with the class of its boxes. */
  marks(leaf: number): readonly Mark[]
  /** Somebody went to a place that stands on no sheet, as in a head that none has any more. */
  lost(): void
}

/** Something marked in the text: a place that was found, what a change touched. */
export interface Mark {
  from: number
  to: number
  kind: string
}

/** The column that a place stands in, in pixels of the canvas; its left edge is where lines without indent begin. */
export interface Column {
  x: number
  width: number
  sheet: { x: number; width: number }
}

/** The table with the caret, as far as it stands on one sheet, in pixels of the canvas. */
export interface TableSeen {
  x: number
  y: number
  width: number
  height: number
  /** Pixels for a point. */
  scale: number
  /** Where its columns begin and the last one ends, in points from its left edge. */
  columns: readonly number[]
  /** Rows of which a cell takes but that one. */
  rows: readonly { row: number; y: number; height: number }[]
}

/** A picture that is selected: its box before it is turned, in pixels of the canvas. */
export interface PictureSeen {
  pos: number
  x: number
  y: number
  width: number
  height: number
  turn: number
  /** Whether it stands elsewhere than in its line. */
  floats: boolean
  /** Pixels for a point. */
  scale: number
  sheet: Area
  /** The room between the sheet's margins. */
  margins: Area
  /** The other pictures of the sheet. */
  others: readonly Area[]
  /** Where the place that it moves with is shown, for one that floats. */
  pin: { x: number; y: number } | null
}

/** In the view's pixels. */
export interface Area {
  x: number
  y: number
  width: number
  height: number
}

/** The head or foot of a sheet, as an area of it. */
export interface EdgeArea {
  edge: EdgeName
  sheet: number
  section: number
  variant: EdgeVariant
  /** Key of the story that stands there; null for none. */
  story: string | null
}
