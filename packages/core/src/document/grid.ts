/**
 * The grid of a table: which cell stands where. Cells may reach over columns and rows; one that would lie over another, or reach
 * beyond the table, is taken as far as it has room, and a place without a cell stays empty, so that every table has a grid
 * (two people who change one at once may leave it ragged: see editing/tables/mending.ts).
 */
import type { Node } from "prosemirror-model"
import { ofChildren } from "./children"
import { leavesBefore, leavesIn } from "./leaves"

export interface GridCell {
  node: Node
  /** The row and column in which it begins, from 0. */
  row: number
  column: number
  /** How many rows and columns it stands in. */
  rowspan: number
  colspan: number
  /** Its number among the cells of its row. */
  index: number
}

export interface Grid {
  readonly rows: number
  readonly columns: number
  /** The cells that begin in a row, from left to right. */
  begun(row: number): readonly GridCell[]
  /** The cells that stand in a row, also those that began above. */
  standing(row: number): readonly GridCell[]
  /** Whether every place has one cell, and every cell is as large as it says. */
  readonly whole: boolean
  /** Leaves of the table before a row; for the number of rows, all of them. */
  leaf(row: number): number
}

/** How many columns the cells of a row take, and whether each takes one, in one row. */
interface Measure {
  width: number
  plain: boolean
}
const measured = new WeakMap<Node, Measure>()

function measure(row: Node): Measure {
  let known = measured.get(row)
  if (!known) {
    known = { width: 0, plain: true }
    for (const cell of row.children) {
      const { colspan, rowspan } = cell.attrs as { colspan: number; rowspan: number }
      known.width += colspan
      known.plain &&= colspan === 1 && rowspan === 1
    }
    measured.set(row, known)
  }
  return known
}

/** The most and the fewest columns that rows take, and whether each cell takes one place. */
const measuredRows = ofChildren<{ columns: number; least: number; plain: boolean }>((rows, known) => {
  if (known && known.oldTo > known.from) {
    const alike = measure(known.older[known.from] as Node)
    const is = (row: Node) => measure(row).width === alike.width && measure(row).plain === alike.plain
    // What is there in place of rows of one kind is of the same kind.
    if (
      known.newTo > known.from &&
      known.older.slice(known.from, known.oldTo).every(is) &&
      rows.slice(known.from, known.newTo).every(is)
    )
      return known.result
  }
  let [columns, least, plain] = [0, Infinity, true]
  for (const row of rows) {
    const own = measure(row)
    columns = Math.max(columns, own.width)
    least = Math.min(least, own.width)
    plain &&= own.plain
  }
  return { columns, least, plain }
})

/** Where no cell reaches over another place: rows are made when they are asked for. */
function gridOfPlain(table: Node, columns: number, whole: boolean): Grid {
  const rows: (readonly GridCell[] | undefined)[] = []
  const begun = (row: number) =>
    (rows[row] ??= (table.children[row]?.children ?? []).map((node, index) => ({
      node,
      row,
      column: index,
      rowspan: 1,
      colspan: 1,
      index,
    })))
  return { rows: table.childCount, columns, whole, begun, standing: begun, leaf: (row) => leavesBefore(table, row) }
}

function gridOfSpanned(table: Node): Grid {
  const count = table.childCount
  const begun: GridCell[][] = []
  const standing: GridCell[][] = []
  /** By column, the cell that reaches into the row at hand. */
  let open: (GridCell | undefined)[] = []
  let [columns, area, kept] = [0, 0, true]
  table.children.forEach((own, row) => {
    const here: (GridCell | undefined)[] = open.map((cell) =>
      cell && cell.row + cell.rowspan > row ? cell : undefined,
    )
    const cells: GridCell[] = []
    let column = 0
    own.children.forEach((node, index) => {
      while (here[column]) column++
      const wanted = node.attrs as { colspan: number; rowspan: number }
      let colspan = 1
      while (colspan < wanted.colspan && !here[column + colspan]) colspan++
      const cell = { node, row, column, rowspan: Math.min(wanted.rowspan, count - row), colspan, index }
      kept &&= cell.rowspan === wanted.rowspan && colspan === wanted.colspan
      area += cell.rowspan * colspan
      for (let i = 0; i < colspan; i++) here[column + i] = cell
      cells.push(cell)
      column += colspan
    })
    columns = Math.max(columns, here.length)
    begun.push(cells)
    standing.push(here.filter((cell, i): cell is GridCell => cell !== undefined && cell !== here[i - 1]))
    open = here
  })
  return {
    rows: count,
    columns,
    whole: kept && area === count * columns,
    begun: (row) => begun[row] ?? [],
    standing: (row) => standing[row] ?? [],
    leaf: (row) => leavesBefore(table, row),
  }
}

const grids = new WeakMap<Node, Grid>()

/** The grid of a table, made once for each. */
export function gridOf(table: Node): Grid {
  let grid = grids.get(table)
  if (!grid) {
    const { columns, least, plain } = measuredRows(table)
    grids.set(table, (grid = plain ? gridOfPlain(table, columns, least === columns) : gridOfSpanned(table)))
  }
  return grid
}

/** The cell that stands at a place of the grid; null where there is none. */
export function cellAt(grid: Grid, row: number, column: number): GridCell | null {
  return grid.standing(row).find((cell) => cell.column <= column && column < cell.column + cell.colspan) ?? null
}

/** The first leaf of a cell, counted from the first of its table. */
export function leafOfCell(table: Node, { row, index }: GridCell): number {
  let leaf = gridOf(table).leaf(row)
  const { children } = table.child(row)
  for (let i = 0; i < index; i++) leaf += leavesIn(children[i] as Node)
  return leaf
}
