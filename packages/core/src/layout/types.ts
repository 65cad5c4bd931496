/**
 * What layout makes. All lengths are points, y grows downwards. Everything is immutable; unchanged parts keep their identity from
 * one layout to the next. What is posted to another thread is plain data, see `sentParagraph`.
 */
import type { Node } from "prosemirror-model"
import type { Border, FlowKind, NoteLabels, ParagraphFormat, PictureFormat, RulePattern, RunLook } from "../document"
import type { FaceId } from "./fonts/catalogue"
import type { ShapedGlyphs } from "./fonts/glyphs"
import type { Paper, Papers } from "./paper"

/** How a run is shaped. */
export interface RunOptions {
  level?: number
  /** Set in capitals, and these reduced to the size of small ones. */
  upper?: boolean
  small?: boolean
}

/** A stretch of a paragraph in one face and look, shaped as a whole. */
export interface ShapedRun {
  /** Offsets in the paragraph; equal for what is no part of it, such as a hyphen. */
  from: number
  to: number
  face: FaceId
  look: RunLook
  /** Points; smaller than the look's for raised letters and drawn small capitals. */
  size: number
  /** Points above the baseline of the line. */
  rise: number
  /** Points for a font unit. */
  scale: number
  glyphs: ShapedGlyphs
  /** Where the face wants an underline and a strike: distance from the baseline down to the upper edge, and thickness. */
  underline: { y: number; thickness: number }
  strike: { y: number; thickness: number }
  /** Embedding level; odd where the run goes from right to left. */
  level: number
  /** Whether its letters are shown as capitals. */
  upper: boolean
  /** What is shown in place of the run's offsets; null for text of the paragraph itself. */
  shows: string | null
  /** Of a field whose words are broken into lines, where what it shows begins in these. */
  part?: number
  /** A drop cap, which has no part in the height of its line. */
  cap: boolean
  /** What it shows instead of letters. */
  picture?: DrawnPicture
}

/** A picture as it is drawn, in points. */
export interface DrawnPicture {
  asset: string
  /** Before it is turned. */
  width: number
  height: number
  /** The upright box round it, turned. */
  box: { width: number; height: number }
  turn: number
  crop: PictureFormat["crop"]
  shape: PictureFormat["shape"]
  frame: Border | null
  shadow: boolean
  opacity: number
  alt: string
}

/** A picture that stands not in a line but beside, under or over the text: where in its paragraph it is tied, and its node's format. */
export interface Floating {
  offset: number
  picture: DrawnPicture
  format: PictureFormat
}

/** One where it stands: from the corner of its region, or of its sheet. */
export interface SetFloat extends Floating {
  /** The leaf that it is tied to, counted like those of the box that it stands in. */
  leaf: number
  x: number
  y: number
}

/** One on its sheet, with the cell that it stands in; null for none. */
export interface StandingFloat extends SetFloat {
  cell: SetCell | null
}

/** The part of a run that stands on one line. */
export interface LineRun {
  run: ShapedRun
  from: number
  to: number
  /** Glyphs of the run from `first` up to, not including, `last`. */
  first: number
  last: number
  /** Left edge, from the left edge of the column. */
  x: number
  width: number
  /** Added to the advance of each word space by justification. */
  extra: number
}

export interface Line {
  /** Offsets in the paragraph; `to` counts the spaces that hang at the end. */
  from: number
  to: number
  /** From the top of the paragraph's first line to the top of this one. */
  top: number
  height: number
  /** From the top of the line to the baseline. */
  baseline: number
  /** Edges of the visible text, from the left edge of the column. */
  x: number
  width: number
  /** In visual order. */
  runs: LineRun[]
  /** Where the text behind each tab begins. */
  tabs: readonly { from: number; x: number }[]
  /** Leaders of tabs, from the left edge of the column and the baseline. */
  leaders: readonly Rule[]
}

/** A line that is drawn, along the longer side of its box. */
export interface Rule {
  x: number
  y: number
  width: number
  height: number
  pattern: RulePattern
  colour: string
  /** From one dot or dash to the next, in points; left out for what the thickness gives. */
  pitch?: number
}

/** Its lines may be kept in a smaller form and made anew when they are asked for: see packing.ts. */
export interface ParagraphLayout {
  /** Different for each layout of a paragraph made in this thread. */
  id: number
  text: string
  /** Key of its style, so that neighbours can be compared. */
  style: string
  format: ParagraphFormat
  /** What stands before the first line of a list item, on its baseline. */
  label: { runs: LineRun[]; text: string; check: boolean } | null
  /** 1 to 9 for a heading. */
  outline: number | null
  /** The marks of notes in it, by offset; null for none. */
  anchors: readonly { key: string; offset: number }[] | null
  lines: Line[]
  /** Sum of the lines, without the space before and after. */
  height: number
  /** Pictures that are tied to it; null for none. */
  floats: readonly Floating[] | null
}

/**
 * What sheets are made of. Coordinates count from the upper left corner of the box that something stands in, leaves from the
 * first leaf of that box, so that a box that moves stays the same object.
 */
export type SetBox<P = ParagraphLayout> = Lines<P> | Stack<P> | Table<P>

export interface Placed<B = SetBox> {
  box: B
  leaf: number
  x: number
  y: number
}

/** Some lines of a paragraph, from the top of the first. */
export interface Lines<P = ParagraphLayout> {
  kind: "lines"
  paragraph: P
  /** Lines from `from` up to, not including, `to`. */
  from: number
  to: number
  /** Width of the column. */
  width: number
  /** Background and borders; a neighbour that goes on in the same frame begins where this one ends. */
  frame: Frame | null
  /** Of a generated paragraph, the heading that it stands for, by its number among the headings, or of a source its own, which is negative; null for text of the document. */
  entry: number | null
}

/** Boxes under each other, as far as they stand in one column, cell or note. */
export interface Stack<P = ParagraphLayout> {
  kind: "stack"
  role: FlowKind | "column"
  width: number
  height: number
  inside: readonly Placed<SetBox<P>>[]
  /** Degrees by which its lines rise, turned round its corner; left out for none. */
  angle?: number
  /** Pictures beside, under and over its text, from its corner; left out for none. */
  floats?: readonly SetFloat[]
}

/** A cell of a table, or a part of one; its stack stands where its text does. */
export interface PlacedCell<P = ParagraphLayout> extends Placed<Stack<P>> {
  /** Where in the grid of its table. */
  row: number
  column: number
  rowspan: number
  colspan: number
  /** Whether it says what its column, or its row, holds. */
  heads: "column" | "row" | null
  /** Its first leaf, counted like `leaf`: that of a cell that goes on here may stand on another sheet. */
  first: number
  /** All of the room that it takes, from the corner of the table. */
  area: { x: number; y: number; width: number; height: number }
}

/** Some rows of a table. */
export interface Table<P = ParagraphLayout> {
  kind: "table"
  width: number
  height: number
  /** Those that are repeated show text that stands on a sheet before. */
  rows: readonly { cells: readonly PlacedCell<P>[]; repeated: boolean }[]
  /** Grounds of its cells and lines between them, from its corner. */
  ground: Ground
  /** Where its columns begin and the last one ends, from its left edge. */
  columns: readonly number[]
  /** What it tells, for who cannot see it. */
  alt: string
}

/** What lies behind the text of a table. */
export interface Ground {
  fills: readonly { x: number; y: number; width: number; height: number; colour: string }[]
  rules: readonly Rule[]
}

/** A table where it stands on a sheet, as far as it does. */
export interface SetTable {
  part: Fragment["part"]
  /** Its first leaf. */
  leaf: number
  /** Its cells, as far as they stand on the sheet. */
  cells: SetCell[]
  alt: string
  x: number
  y: number
  width: number
  height: number
  columns: readonly number[]
  /** On the sheet. */
  ground: Ground
  /** The cell that it stands in. */
  outer: SetCell | null
}

/** A cell where it stands on a sheet, as far as it does. */
export interface SetCell {
  table: SetTable
  /** Its first leaf, by which it is known. */
  leaf: number
  row: number
  column: number
  rowspan: number
  colspan: number
  heads: "column" | "row" | null
  /** Whether it is shown again, as a part of a head. */
  repeated: boolean
  x: number
  y: number
  width: number
  height: number
  /** The room for what stands in it. */
  inside: { x: number; y: number; width: number; height: number }
}

/** Some lines of a leaf where they stand on a sheet: what all that shows or measures text reads. See `fragmentsOf`. */
export interface Fragment {
  /** Where on the sheet; what is generated has no text of the document, and stands before its leaf. */
  part: "text" | "generated" | "repeated" | Furniture["part"]
  /** The cell that it stands in; null for none. */
  cell: SetCell | null
  /** See Lines. */
  entry: number | null
  leaf: number
  paragraph: ParagraphLayout
  /** Lines from `from` up to, not including, `to`. */
  from: number
  to: number
  /** Left edge of the column, and top of the first line here, on the sheet. */
  x: number
  y: number
  /** Width of the column. */
  width: number
  /** Background and borders, on the sheet. */
  frame: Frame | null
  /** How all of that is turned; null where it stands upright. */
  turn: Turn | null
}

/** How something is turned: it rises by so many degrees from left to right, round a point of the sheet. */
export interface Turn {
  angle: number
  x: number
  y: number
}

export interface Frame {
  box: { x: number; y: number; width: number; height: number }
  shading: string | null
  rules: Rule[]
}

/** Of a paragraph that goes on in a column of another width: so many of its lines, counted from its first, stand in columns of such widths. */
export type Shape = readonly {
  lines: number
  width: number
  /** What pictures beside them took. */
  insets?: Insets
  /** Whether pictures that could not stand elsewhere stand in its lines. */
  inLine?: boolean
}[]

/** By line of a paragraph: room that is taken at its left and right, and space above it that is left free. */
export type Insets = readonly Inset[]
export interface Inset {
  left: number
  right: number
  above: number
}

/**
 * Where a block goes on: at a line, or at a row, in those of whose cells that are not at their end. `{ line: 0 }` is the
 * beginning of any block.
 */
export type Break =
  /** With the shape that the lines before it were set in, where columns differ. */
  | { line: number; shape?: Shape }
  /**
   * With what the row hangs on above it, the head that is repeated or the widths of columns on a screen, and how many leaves stand
   * there: the same as long as that is the same. No cells where none has begun before the row.
   */
  | { row: number; cells: readonly (BlockPlace | null)[]; above: string }
  /** In a list of contents, which has no leaf: so many blocks before that of the leaf that is told with it. */
  | { entry: number; back: number }

/** A place in a flow: one of its blocks, and where in it. */
export interface BlockPlace {
  block: number
  at: Break
}

/** A note that is not set to its end, and where it goes on. */
export interface Owed {
  /** Key of its story. */
  story: string
  from: BlockPlace
}

/** A note, or a part of one, at the foot of a sheet; its leaves are counted in its story. */
export interface SetNote<P = ParagraphLayout> {
  story: string
  stack: Placed<Stack<P>>
}

/** All that composition carries from sheet to sheet. Sheets that begin alike before the same leaves are the same. */
export interface SheetStart {
  /** Its paper; null for a strip of the flow view. */
  paper: Paper | null
  /** Where its first block goes on. */
  at: Break
  /** Whether it is a left one, with an even number; false where sides do not matter. */
  left: boolean
  /** Whether it is left without text, since a section wants to begin on the other side. */
  blank: boolean
  /** Notes that go on from the sheet before. */
  owed: readonly Owed[]
}

/** @typeParam P what stands for a paragraph: between threads, its id */
export interface Sheet<P = ParagraphLayout> {
  id: number
  width: number
  height: number
  start: SheetStart
  /** First leaf of the next sheet's first block, counted from this one's, and where that goes on. */
  next: { leaf: number; at: Break; owed: readonly Owed[] }
  /** The last leaf that composing this sheet looked at, counted from its first. */
  lookedAt: number
  columns: readonly Placed<Stack<P>>[]
  /** At its foot, and below the end of the text. */
  notes: readonly SetNote<P>[]
  /** Keys of the footnotes whose marks stand on it. */
  marks: readonly string[]
  /** Lines between columns, above notes and round it, on the sheet. */
  rules: readonly Rule[]
}

/** What stands on a sheet beside the text of the body. Its leaves are counted in the document. */
export interface Furniture<P = ParagraphLayout> {
  part: "header" | "footer" | "note" | "watermark"
  stack: Placed<Stack<P>>
  /** Degrees by which it rises from left to right, turned round its middle; left out for none. */
  angle?: number
}

/** A sheet and the number of the first leaf of the block with which it begins. */
export interface PlacedSheet {
  sheet: Sheet
  leaf: number
  /** Where it is known: see furniture.ts. */
  furniture?: readonly Furniture[]
}

export type LayoutSpec = (
  | /** Sheets of paper. */
    { mode: "sheets" }
    /** One endless column of this width, delivered as strips that follow each other without a gap. */
  | { mode: "flow"; width: number; margin: number }
) & {
  /** What the document is called, for fields that say so. */
  name?: string
}

export interface Layout {
  doc: Node
  spec: LayoutSpec
  placed: readonly PlacedSheet[]
  /** So many sheets are right; those after them are from before the last change and about to be looked at. */
  settled: number
  /** Whether they reach to the end of the document, and all are right. */
  complete: boolean
  /** The last complete layout, if this one is not. */
  base: Layout | null
  papers: Papers | null
  /** Numbers of the sheets on which headings begin, by leaf, as its contents show them; empty without contents. */
  pages: ReadonlyMap<number, string>
  /** What the marks of notes show. */
  marks: NoteLabels
}
