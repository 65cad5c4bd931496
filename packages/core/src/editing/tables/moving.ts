/** Rows and columns moved to other places of their table. */
import type { Node } from "prosemirror-model"
import { cellPosition, gridOf, nodeAt, nodes, type Grid } from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { rowStarts } from "./model"
import { insertionPoint, setWidths } from "./rows"
import { selectRect } from "./selection"

/** Whether any cell reaches over the edge of a stretch of rows. */
function dividesRows(grid: Grid, top: number, bottom: number): boolean {
  const over = (row: number) => row > 0 && row < grid.rows && grid.standing(row).some((cell) => cell.row < row)
  return over(top) || over(bottom)
}

/** Moves rows before the row of a number. Rows over which a cell reaches from outside stay where they are. */
export function moveRows(pos: number, top: number, bottom: number, to: number): Command {
  return (state, dispatch) => {
    const table = nodeAt(state.doc, pos)
    if (table?.type !== nodes.table) return false
    const grid = gridOf(table)
    if (top < 0 || bottom > grid.rows || to < 0 || to > grid.rows || top >= bottom) return false
    if ((to >= top && to <= bottom) || dividesRows(grid, top, bottom) || dividesRows(grid, to, to)) return false
    if (!dispatch) return true
    const starts = rowStarts(table, pos)
    const [from, end, at] = [starts[top] as number, starts[bottom] as number, starts[to] as number]
    const { tr } = state
    const rows = table.children.slice(top, bottom)
    tr.delete(from, end)
    tr.insert(tr.mapping.map(at), rows)
    const now = tr.doc.nodeAt(pos) as Node
    const first = to > top ? to - (bottom - top) : to
    tr.setSelection(
      selectRect(tr.doc, now, pos, { top: first, bottom: first + bottom - top, left: 0, right: grid.columns }),
    )
    dispatch(named(tr, bottom - top > 1 ? "Rows moved" : "Row moved").scrollIntoView())
    return true
  }
}

/** Moves columns before the column of a number. Columns over which a cell reaches from outside stay where they are. */
export function moveColumns(pos: number, left: number, right: number, to: number): Command {
  return (state, dispatch) => {
    const table = nodeAt(state.doc, pos)
    if (table?.type !== nodes.table) return false
    const grid = gridOf(table)
    if (left < 0 || right > grid.columns || to < 0 || to > grid.columns || left >= right) return false
    if (to >= left && to <= right) return false
    for (let row = 0; row < grid.rows; row++)
      for (const { column, colspan } of grid.standing(row))
        if ([left, right, to].some((edge) => column < edge && edge < column + colspan)) return false
    if (!dispatch) return true
    const { tr } = state
    for (let row = grid.rows - 1; row >= 0; row--) {
      const own = grid.begun(row)
      const moving = own.filter(({ column }) => column >= left && column < right)
      const [first, last] = [moving[0], moving.at(-1)]
      if (!first || !last) continue
      const from = cellPosition(table, pos, first)
      const end = cellPosition(table, pos, last) + last.node.nodeSize
      const at = insertionPoint(table, pos, row, to)
      const offset = tr.mapping.maps.length
      tr.delete(from, end)
      tr.insert(
        tr.mapping.slice(offset).map(at),
        moving.map(({ node }) => node),
      )
    }
    setWidths(tr, pos, (widths) => {
      const own = widths.slice(left, right)
      const rest = [...widths.slice(0, left), ...widths.slice(right)]
      const at = to > left ? to - (right - left) : to
      return [...rest.slice(0, at), ...own, ...rest.slice(at)]
    })
    const now = tr.doc.nodeAt(pos) as Node
    const first = to > left ? to - (right - left) : to
    tr.setSelection(
      selectRect(tr.doc, now, pos, { top: 0, bottom: grid.rows, left: first, right: first + right - left }),
    )
    dispatch(named(tr, right - left > 1 ? "Columns moved" : "Column moved").scrollIntoView())
    return true
  }
}
