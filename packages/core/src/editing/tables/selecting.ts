/** Cells, rows, columns and whole tables selected. */
import { gridOf, nodeAt, nodes } from "../../document"
import type { Command } from "../command"
import { selectedRect, selectRect, type Rect } from "./selection"

/** Selects the cell, the row, the column or the table that the caret is in, or those that the selected cells stand in. */
export function selectTable(what: "cell" | "row" | "column" | "table"): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    const { rows, columns } = gridOf(rect.table)
    const across = what === "row" || what === "table" ? { left: 0, right: columns } : {}
    const down = what === "column" || what === "table" ? { top: 0, bottom: rows } : {}
    const { table, pos, ...own } = rect
    dispatch?.(state.tr.setSelection(selectRect(state.doc, table, pos, { ...own, ...across, ...down })))
    return true
  }
}

/** Selects a rectangle of the table at a position. */
export function selectCells(pos: number, rect: Rect): Command {
  return (state, dispatch) => {
    const table = nodeAt(state.doc, pos)
    if (table?.type !== nodes.table) return false
    const { rows, columns } = gridOf(table)
    if (
      rect.top < 0 ||
      rect.left < 0 ||
      rect.bottom > rows ||
      rect.right > columns ||
      rect.top >= rect.bottom ||
      rect.left >= rect.right
    )
      return false
    dispatch?.(state.tr.setSelection(selectRect(state.doc, table, pos, rect)))
    return true
  }
}
