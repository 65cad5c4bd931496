/** Where places of the text stand on the canvas, and which is nearest to a point of it: read from the layout mirror and from how the sheets lie. */
import { leavesOf } from "@biblon/core/document"
import type { CellSelection } from "@biblon/core/editing"
import {
  caretBox,
  fragmentsOf,
  hit,
  rangeBoxes,
  underBoxes,
  shownAt,
  tablesOf,
  type Box,
  type Fragment,
  isOwnText,
} from "@biblon/core/layout"
import type { Column, Mark, Place, TableSeen, ViewSource } from "./source"
import type { Spots } from "./spots"
import type { Stack } from "./stack"

/** A box over what is marked, or under its letters. */
export type MarkBox = Box & { kind: string }
const noBoxes: readonly MarkBox[] = []

/** So far beside what is meant a finger may come down, in pixels. */
const finger = 8

const alike = (a: readonly Mark[], b: readonly Mark[]) =>
  a === b ||
  (a.length === b.length &&
    a.every((own, i) => own.from === b[i]?.from && own.to === b[i].to && own.kind === b[i].kind))

export class Places {
  /** Number of the sheet on which a head or foot is written that stands on many. */
  private edgeSheet = 0
  private readonly marked = new WeakMap<Fragment, { marks: readonly Mark[]; boxes: readonly MarkBox[] }>()

  constructor(
    private readonly source: ViewSource,
    private readonly stack: () => Stack,
    /** Numbers of the sheets that are shown. */
    private readonly shown: () => Iterable<number>,
    private readonly spots: Spots,
  ) {}

  /** Where the text begins on the sheet on which a head or foot is written. */
  textBeside(): number {
    const { layout, seen } = this.source
    const placed = layout.mirror.placed(this.edgeSheet)
    const first = placed && fragmentsOf(placed).find(({ part }) => part === "text")
    const leaf = first?.leaf ?? layout.mirror.firstLeaf(this.edgeSheet)
    return seen.now(leavesOf(seen.doc).start(leaf) + (first?.paragraph.lines[first.from]?.from ?? 0))
  }

  /** From now on heads and feet are written on this sheet. */
  writeOn(sheet: number): void {
    this.edgeSheet = sheet
  }

  /** Key of the story that the caret is in; null in the body. */
  private get story(): string | null {
    const { doc, selection } = this.source.editor()
    return leavesOf(doc).flow(leavesOf(doc).at(selection.head)).story
  }

  /** Left edge of a sheet, in pixels of the canvas. */
  left(index: number): number {
    return this.stack().left(index)
  }

  /** CSS pixels for a point. */
  get scale(): number {
    return this.stack().options.scale
  }

  markBoxes(index: number): readonly MarkBox[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return noBoxes
    return fragmentsOf(placed).flatMap((fragment) =>
      isOwnText(fragment) ? this.boxesOf(fragment, this.source.marks(fragment.leaf)) : noBoxes,
    )
  }

  /** Of most paragraphs marks and place are as before. */
  private boxesOf(fragment: Fragment, marks: readonly Mark[]): readonly MarkBox[] {
    if (marks.length === 0) return noBoxes
    const known = this.marked.get(fragment)
    if (known && alike(known.marks, marks)) return known.boxes
    const boxes = marks.flatMap(({ from, to, kind }) => {
      const under = kind === "misspelt" || kind === "worded"
      const own = under ? underBoxes(fragment, from, to) : rangeBoxes(fragment, from, to, false)
      return own.map((box) => ({ kind, ...box }))
    })
    this.marked.set(fragment, { marks, boxes })
    return boxes
  }

  sheetBoxes(index: number, from: number, to: number): Box[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const leaves = leavesOf(this.source.editor().doc)
    return fragmentsOf(placed).flatMap((fragment) => {
      if (!isOwnText(fragment)) return []
      const start = leaves.start(fragment.leaf)
      const length = fragment.paragraph.text.length
      if (from > start + length || to < start) return []
      return rangeBoxes(fragment, Math.max(0, from - start), Math.min(length, to - start), to > start + length)
    })
  }

  /** Whether a finger at a point of the canvas is on a passage. */
  covers(from: number, to: number, x: number, y: number): boolean {
    const index = this.stack().indexAt(x, y)
    const { scale } = this
    const [inX, inY, slack] = [(x - this.left(index)) / scale, (y - this.stack().top(index)) / scale, finger / scale]
    return this.sheetBoxes(index, from, to).some(
      (own) =>
        inX >= own.x - slack &&
        inX <= own.x + own.width + slack &&
        inY >= own.y - slack &&
        inY <= own.y + own.height + slack,
    )
  }

  /** The cells of a selection that stand on a sheet. */
  cellBoxes(index: number, { ranges }: CellSelection): Box[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const leaves = leavesOf(this.source.editor().doc)
    const first = new Set(ranges.map(({ $from }) => leaves.at($from.pos)))
    return tablesOf(placed).flatMap(({ cells }) => cells.filter(({ leaf, repeated }) => !repeated && first.has(leaf)))
  }

  /** The table with a caret, as far as it stands on the sheet of that; null where there is none. */
  tableAt(place: Place): TableSeen | null {
    const found = this.fragmentAt(place)
    const cell = found?.fragment.cell
    if (!found || !cell) return null
    const { scale } = this
    const [left, top] = [this.stack().left(found.index), this.stack().top(found.index)]
    const { table } = cell
    const rows = new Map<number, { row: number; y: number; height: number }>()
    for (const { row, rowspan, repeated, y, height } of table.cells)
      if (!repeated && rowspan === 1) rows.set(row, { row, y: top + y * scale, height: height * scale })
    return {
      x: left + table.x * scale,
      y: top + table.y * scale,
      width: table.width * scale,
      height: table.height * scale,
      scale,
      columns: table.columns,
      rows: [...rows.values()].sort((a, b) => a.row - b.row),
    }
  }

  fragmentAt(place: Place): { index: number; fragment: Fragment; box: Box } | null {
    const { mirror } = this.source.layout
    const { doc } = this.source.editor()
    const leaf = leavesOf(doc).at(place.pos)
    if (mirror.count === 0 || leaf >= leavesOf(doc).count) return null
    const offset = place.pos - leavesOf(doc).start(leaf)
    for (const index of this.sheetsOf(leaf)) {
      const placed = mirror.placed(index)
      for (const fragment of placed ? fragmentsOf(placed) : []) {
        if (fragment.leaf !== leaf || !isOwnText(fragment)) continue
        const box = caretBox(fragment, Math.max(0, Math.min(offset, fragment.paragraph.text.length)), place.bias)
        if (box) return { index, fragment, box }
      }
    }
    return null
  }

  /** The sheets that may show a leaf; of those that all show the same head or foot, first the one on which it is written. */
  private sheetsOf(leaf: number): number[] {
    const { mirror } = this.source.layout
    if (leavesOf(this.source.editor().doc).flow(leaf).story !== null) return [this.edgeSheet, ...this.shown()]
    const { first, last } = mirror.sheetsOfLeaf(leaf)
    const from = Math.max(0, first - 1)
    return Array.from({ length: last - from + 1 }, (_, i) => from + i)
  }

  columnAt(place: Place): Column | null {
    const found = this.fragmentAt(place)
    const { scale } = this
    if (!found) return null
    const x = this.stack().left(found.index)
    return {
      x: x + found.fragment.x * scale,
      width: found.fragment.width * scale,
      sheet: { x, width: (this.stack().table.widths[found.index] ?? 0) * scale },
    }
  }

  get sheetCount(): number {
    return this.source.layout.mirror.count
  }

  /** The sheet on which a leaf begins, from 0, also of those that are not here; null for as long as nothing is laid out. */
  sheetOfLeaf(leaf: number): number | null {
    const { mirror } = this.source.layout
    return mirror.count > 0 ? mirror.sheetsOfLeaf(leaf).first : null
  }

  sheetIndex(place: Place): number | null {
    return this.fragmentAt(place)?.index ?? null
  }

  /** The same, or at least the sheet on which its leaf begins where that is not here. */
  sheetOf(place: Place): number | null {
    const leaves = leavesOf(this.source.editor().doc)
    const leaf = leaves.at(place.pos)
    return this.sheetIndex(place) ?? (leaves.flow(leaf).story === null ? this.sheetOfLeaf(leaf) : this.edgeSheet)
  }

  /** Where a caret stands, in pixels of the canvas; null while its sheet is not here. */
  box(place: Place): Box | null {
    const found = this.fragmentAt(place)
    if (!found) return null
    const { scale } = this
    const { index, box } = found
    return {
      x: this.stack().left(index) + box.x * scale,
      y: this.stack().top(index) + box.y * scale,
      width: box.width * scale,
      height: box.height * scale,
    }
  }

  /** The fragment that shows a caret, for movement by lines. */
  fragment(place: Place): { index: number; fragment: Fragment } | null {
    return this.fragmentAt(place)
  }

  /** The place nearest to a point of the canvas, in the text that the caret is in; null while nothing is there. */
  at(x: number, y: number): Place | null {
    return this.nearest(x, y, this.story)
  }

  /** The same for a press, which may lead out of that text: into a head or foot that is pressed, and back. */
  pressed(x: number, y: number): Place | null {
    const area = this.spots.edgeArea(x, y)
    const place = area?.story ? this.nearest(x, y, area.story) : null
    if (area && place) this.edgeSheet = area.sheet
    return place ?? this.nearest(x, y, null, true)
  }

  /**
   * @param story key of the head, foot or note that counts; null for the text of the body
   * @param notes whether notes count beside the text
   */
  private nearest(x: number, y: number, story: string | null, notes = false): Place | null {
    const { seen, layout } = this.source
    const leaves = leavesOf(seen.doc)
    const index = this.stack().indexAt(x, y)
    const placed = layout.mirror.placed(index)
    const among = ({ part, leaf }: Fragment) =>
      story === null
        ? part === "text" || (notes && part === "note")
        : part !== "text" && leaves.flow(leaf).story === story
    const [inX, inY] = [(x - this.left(index)) / this.scale, (y - this.stack().top(index)) / this.scale]
    const found = placed && hit(placed, inX, inY, among)
    // What stands on several sheets is written on the one that was pressed.
    if (found && notes && leaves.flow(found.leaf).story !== null) this.edgeSheet = index
    return found ? { pos: seen.now(leaves.start(found.leaf) + found.offset), bias: found.bias } : null
  }

  /** What a field shows that stands at a position; null while its sheet is not here. */
  shownAt(pos: number): string | null {
    const found = this.fragmentAt({ pos, bias: 1 })
    if (!found) return null
    const offset = pos - leavesOf(this.source.editor().doc).start(found.fragment.leaf)
    return shownAt(found.fragment.paragraph, offset)
  }
}
