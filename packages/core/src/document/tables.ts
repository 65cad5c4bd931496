/** Tables: how they, their rows and their cells are formatted, and where a position is in one. */
import type { Node, ResolvedPos } from "prosemirror-model"
import { gridOf, type GridCell } from "./grid"
import type { CellFormat, ParagraphFormat, RowFormat, TableFormat } from "./shapes"

/** What a table is like of which nothing else is said. */
export const defaultTable: TableFormat = {
  columns: null,
  look: "ledger",
  headRows: 1,
  firstColumn: false,
  lastColumn: false,
  totalRow: false,
  bands: false,
  align: "left",
  indent: 0,
  divides: false,
  padding: { across: 5, down: 3 },
  alt: "",
}

/** A paragraph that comes with its cell keeps to that, whatever space and indents running text has. */
export const cellParagraph: Partial<ParagraphFormat> = { spaceBefore: 0, spaceAfter: 0, indentFirst: 0 }

const formats = new WeakMap<object, TableFormat>()

/** How a table is formatted. */
export function tableFormat(table: Node): TableFormat {
  const own = table.attrs.format as Partial<TableFormat> | null
  if (!own) return defaultTable
  let format = formats.get(own)
  if (!format) formats.set(own, (format = { ...defaultTable, ...own }))
  return format
}

const noFormat: Partial<CellFormat> = {}

/** What is said of a cell by hand. */
export function cellFormat(cell: Node): Partial<CellFormat> {
  return (cell.attrs.format as Partial<CellFormat> | null) ?? noFormat
}

/** The least height of a row, in points; 0 for none. */
export function rowHeight(row: Node): number {
  return (row.attrs.format as Partial<RowFormat> | null)?.height ?? 0
}

/** A place in a table: the innermost one that a position is in. */
export interface TablePlace {
  table: Node
  /** Position before the table, and before the cell. */
  pos: number
  cellPos: number
  /** Depth of the table. */
  depth: number
  cell: GridCell
}

/** Where in a table a position is; null where it is in none. */
export function tableAt($pos: ResolvedPos): TablePlace | null {
  for (let depth = $pos.depth; depth > 2; depth--) {
    if ($pos.node(depth).type.name !== "cell") continue
    const table = $pos.node(depth - 2)
    const cell = gridOf(table).begun($pos.index(depth - 2))[$pos.index(depth - 1)]
    return cell ? { table, pos: $pos.before(depth - 2), cellPos: $pos.before(depth), depth: depth - 2, cell } : null
  }
  return null
}

/** Position before a cell of a table that stands at a position. */
export function cellPosition(table: Node, pos: number, { row, index }: Pick<GridCell, "row" | "index">): number {
  let at = pos + 1
  const { children } = table
  for (let i = 0; i < row; i++) at += (children[i] as Node).nodeSize
  at++
  const own = table.child(row).children
  for (let i = 0; i < index; i++) at += (own[i] as Node).nodeSize
  return at
}
