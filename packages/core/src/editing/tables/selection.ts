/**
 * Selected cells: a rectangle of the grid of a table. Its ends stand in the text of two cells, as those of all selections do, so
 * that caret and text field need not know of it; `ranges` are the contents of the cells, in the order of the document.
 */
import { Fragment, Slice, type Node, type ResolvedPos } from "prosemirror-model"
import { Selection, SelectionRange, TextSelection, type EditorState } from "prosemirror-state"
import type { Mappable } from "prosemirror-transform"
import { cellPosition, gridOf, nodes, tableAt, type GridCell, type TablePlace } from "../../document"
import { heldInPart } from "../stories"

/** A rectangle of a grid; `bottom` and `right` are behind it. */
export interface Rect {
  top: number
  left: number
  bottom: number
  right: number
}

/** A rectangle of a table, and where that stands. */
export interface TableRect extends Rect {
  table: Node
  /** Position before the table. */
  pos: number
}

/** The least rectangle that holds two cells and divides none. */
function rectOf(table: Node, a: GridCell, b: GridCell): Rect {
  const grid = gridOf(table)
  const rect = {
    top: Math.min(a.row, b.row),
    left: Math.min(a.column, b.column),
    bottom: Math.max(a.row + a.rowspan, b.row + b.rowspan),
    right: Math.max(a.column + a.colspan, b.column + b.colspan),
  }
  for (let grown = true; grown;) {
    grown = false
    for (let row = rect.top; row < rect.bottom; row++)
      for (const cell of grid.standing(row)) {
        if (cell.column + cell.colspan <= rect.left || cell.column >= rect.right) continue
        const wider = {
          top: Math.min(rect.top, cell.row),
          left: Math.min(rect.left, cell.column),
          bottom: Math.max(rect.bottom, cell.row + cell.rowspan),
          right: Math.max(rect.right, cell.column + cell.colspan),
        }
        if (wider.top < rect.top || wider.left < rect.left || wider.bottom > rect.bottom || wider.right > rect.right) {
          Object.assign(rect, wider)
          grown = true
        }
      }
  }
  return rect
}

/** The cells that begin in a rectangle, in the order of the document. */
export function cellsIn(table: Node, { top, left, bottom, right }: Rect): GridCell[] {
  const grid = gridOf(table)
  const found: GridCell[] = []
  for (let row = top; row < bottom; row++)
    for (const cell of grid.begun(row)) if (cell.column >= left && cell.column < right) found.push(cell)
  return found
}

/** The table that holds two positions in different cells of it, with these; the outermost such one. */
function commonTable($a: ResolvedPos, $b: ResolvedPos): { a: TablePlace; b: TablePlace } | null {
  const shared = $a.sharedDepth($b.pos)
  const place = ($pos: ResolvedPos) => {
    // The table around which both stand is that at the shared depth, or of the row there.
    let own = tableAt($pos)
    while (own && own.depth > shared) own = tableAt($pos.doc.resolve(own.pos))
    return own
  }
  const table = $a.node(shared).type
  if (table !== nodes.table && table !== nodes.row) return null
  const depth = table === nodes.table ? shared : shared - 1
  const at = ($pos: ResolvedPos) => {
    const cell = gridOf($pos.node(depth)).begun($pos.index(depth))[$pos.index(depth + 1)]
    const base = place($pos)
    return cell && base ? { ...base, depth, table: $pos.node(depth), pos: $pos.before(depth), cell } : null
  }
  const [a, b] = [at($a), at($b)]
  return a && b ? { a, b } : null
}

export class CellSelection extends Selection {
  readonly rect: TableRect

  /** @throws RangeError unless both stand in cells of one table */
  constructor($anchor: ResolvedPos, $head: ResolvedPos) {
    const places = placesOf($anchor, $head)
    if (!places) throw new RangeError("Cells are selected in one table")
    const { table, pos } = places.a
    const rect = rectOf(table, places.a.cell, places.b.cell)
    const { doc } = $anchor
    const ranges = cellsIn(table, rect).map((cell) => {
      const start = cellPosition(table, pos, cell) + 1
      const end = start + cell.node.content.size
      return new SelectionRange(Selection.near(doc.resolve(start), 1).$from, Selection.near(doc.resolve(end), -1).$to)
    })
    super($anchor, $head, ranges)
    this.rect = { ...rect, table, pos }
  }

  static create(doc: Node, anchor: number, head = anchor): CellSelection {
    return new CellSelection(doc.resolve(anchor), doc.resolve(head))
  }

  override get $to(): ResolvedPos {
    return (this.ranges.at(-1) as SelectionRange).$to
  }

  override get to(): number {
    return this.$to.pos
  }

  override get empty(): boolean {
    return false
  }

  override eq(other: Selection): boolean {
    return other instanceof CellSelection && other.anchor === this.anchor && other.head === this.head
  }

  override map(doc: Node, mapping: Mappable): Selection {
    const [$anchor, $head] = [doc.resolve(mapping.map(this.anchor)), doc.resolve(mapping.map(this.head))]
    if ($anchor.parent.isTextblock && $head.parent.isTextblock && placesOf($anchor, $head))
      return new CellSelection($anchor, $head)
    return TextSelection.between($anchor, $head)
  }

  /** The cells as a table of their own. */
  override content(): Slice {
    return new Slice(Fragment.from(partOf(this.rect)), 0, 0)
  }

  override toJSON() {
    return { type: "cells", anchor: this.anchor, head: this.head }
  }

  static override fromJSON(doc: Node, json: { anchor: number; head: number }): CellSelection {
    return CellSelection.create(doc, json.anchor, json.head)
  }
}
Selection.jsonID("cells", CellSelection)

function placesOf($anchor: ResolvedPos, $head: ResolvedPos): { a: TablePlace; b: TablePlace } | null {
  const common = commonTable($anchor, $head)
  if (common) return common
  const [a, b] = [tableAt($anchor), tableAt($head)]
  return a && b && a.cellPos === b.cellPos ? { a, b } : null
}

/** A rectangle of a table as a table of its own. */
export function partOf({ table, ...rect }: TableRect): Node {
  const grid = gridOf(table)
  const rows: Node[] = []
  for (let row = rect.top; row < rect.bottom; row++) {
    const cells = grid.begun(row).filter(({ column }) => column >= rect.left && column < rect.right)
    const own = table.child(row)
    if (cells.length > 0)
      rows.push(
        own.type.create(
          own.attrs,
          cells.map(({ node }) => node),
        ),
      )
  }
  const { columns, ...format } = (table.attrs.format ?? {}) as { columns?: readonly number[] | null }
  const widths = columns ? columns.slice(rect.left, rect.right) : []
  return table.type.create({ format: { ...format, ...(widths.length > 0 ? { columns: widths } : {}) } }, rows)
}

/** The selection that two places mean: text, or cells where they stand in several of one table. A table is selected as a whole from without. */
export function selectionBetween(doc: Node, anchor: number, wished: number): Selection {
  const head = heldInPart(doc, anchor, wished)
  const [$anchor, $head] = [doc.resolve(anchor), doc.resolve(head)]
  if (commonTable($anchor, $head)) return new CellSelection($anchor, $head)
  const forward = anchor <= head
  return TextSelection.create(
    doc,
    edgeOfTable($anchor, $head, forward ? -1 : 1),
    edgeOfTable($head, $anchor, forward ? 1 : -1),
  )
}

/** A position, or where it is in a table that another one is not in, the first or last place for a caret in that. */
function edgeOfTable($pos: ResolvedPos, $other: ResolvedPos, side: -1 | 1): number {
  const depth = tableDepth($pos, $other)
  if (depth === null) return $pos.pos
  const { doc } = $pos
  return side < 0
    ? Selection.near(doc.resolve($pos.start(depth)), 1).from
    : Selection.near(doc.resolve($pos.end(depth)), -1).to
}

/** The depth of the outermost table that holds a position and not another one. */
function tableDepth($pos: ResolvedPos, $other: ResolvedPos): number | null {
  for (let depth = $pos.sharedDepth($other.pos) + 1; depth <= $pos.depth; depth++)
    if ($pos.node(depth).type === nodes.table) return depth
  return null
}

/** A range of the document, widened so that it holds a table whole or not at all. */
export function withWholeTables(doc: Node, from: number, to: number): { from: number; to: number } {
  const [$from, $to] = [doc.resolve(from), doc.resolve(to)]
  const [first, last] = [tableDepth($from, $to), tableDepth($to, $from)]
  return { from: first === null ? from : $from.before(first), to: last === null ? to : $to.after(last) }
}

/** The stretches of text that are selected: one, or the content of each cell. */
export function stretchesOf({ selection }: Pick<EditorState, "selection">): { from: number; to: number }[] {
  return selection.ranges.map(({ $from, $to }) => ({ from: $from.pos, to: $to.pos }))
}

/** The cells that are selected, or the one with the caret. */
export function selectedRect({ selection }: Pick<EditorState, "selection">): TableRect | null {
  if (selection instanceof CellSelection) return selection.rect
  const place = tableAt(selection.$head)
  if (!place) return null
  const { row, column, rowspan, colspan } = place.cell
  return {
    table: place.table,
    pos: place.pos,
    top: row,
    left: column,
    bottom: row + rowspan,
    right: column + colspan,
  }
}

/** A selection of the cells of a rectangle. */
export function selectRect(doc: Node, table: Node, pos: number, rect: Rect): Selection {
  const cells = cellsIn(table, rect)
  const [first, last] = [cells[0], cells.at(-1)]
  if (!first || !last) return Selection.near(doc.resolve(pos + 1))
  const at = (cell: GridCell) => Selection.near(doc.resolve(cellPosition(table, pos, cell) + 1), 1).from
  return CellSelection.create(doc, at(first), at(last))
}
