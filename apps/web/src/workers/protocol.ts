/**
 * What the page and the layout worker say to each other. The worker holds the document and all its
 * sheets; the page holds a table of all sheets and the contents of those in or near sight. Both sides
 * know what the page holds: after each report exactly the sheets of its range.
 */
import type { Furniture, Layout, LayoutSpec, SentParagraph, Sheet, Sight } from "@biblon/core/layout"

/** Sheets in or near sight, those in sight among them, and which wish for sheets this is. */
export interface Wish extends Sight {
  sight: Sight
  asked: number
}

export type ToLayout =
  /** A document to be shown before the program is here: the node as JSON text in UTF-8. */
  | { type: "openAhead"; content: ArrayBuffer; spec: LayoutSpec; seq: number }
  /** `content` is the document node as JSON text. */
  | { type: "open"; content: string; spec: LayoutSpec; seq: number }
  | { type: "steps"; steps: readonly string[]; seq: number }
  | { type: "spec"; spec: LayoutSpec; seq: number }
  /** `id` is that of the first sheet, so that it is found though others have come before it meanwhile. */
  | { type: "want"; wish: Wish; id: number | null }
  /** Which sheet shows an offset of a leaf? */
  | { type: "locate"; id: number; leaf: number; offset: number }
  /** How wide do the columns of the table at a position have to be for their text? */
  | { type: "measure"; id: number; pos: number }

/** One row for each sheet, in columns. */
export interface SheetTable {
  ids: Uint32Array
  /** First leaf of the block with which each begins, and 1 where that has begun before it. */
  leaves: Uint32Array
  within: Uint8Array
  widths: Float64Array
  heights: Float64Array
}

/** A sheet whose paragraphs are sent by their ids. */
export type SentSheet = Sheet<number>

/** What stands at the head and foot of a sheet, its paragraphs by their ids. */
export interface SentFurniture {
  sheet: number
  furniture: readonly Furniture<number>[]
}

export interface LayoutReport {
  type: "report"
  /** The last change of the document or the spec that this layout includes. */
  seq: number
  /** Whether every sheet is settled. */
  complete: boolean
  table: SheetTable
  /** The newest wish, as the worker has it by now: it moves with the sheets that it was for. */
  wanted: Wish
  /** What of it is here: at least what is in sight; those near it may come with another report. There may not be so many sheets yet. */
  held: Sight
  /** Those in range that the page does not hold yet. */
  sheets: SentSheet[]
  /** Of all sheets in range that have any. */
  furniture: SentFurniture[]
  paragraphs: SentParagraph[]
  /** See Layout; null as long as they are those that were sent last. */
  pages: Layout["pages"] | null
}

export type FromLayout =
  /** Messages may be sent now. */
  | { type: "ready" }
  | LayoutReport
  | { type: "located"; id: number; sheet: number }
  /** In points; none where there is no table. */
  | { type: "measured"; id: number; widths: number[] }
  | { type: "failed"; message: string }
