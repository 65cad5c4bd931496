/** Cells joined to one, and divided. */
import { Fragment, type Node } from "prosemirror-model"
import { gridOf, limits } from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { blankLike, modelOf, rebuild, type Slot } from "./model"
import { near, setWidths } from "./rows"
import { CellSelection, selectedRect } from "./selection"

/** What of a rectangle's cells holds nothing to be read. */
const isBlank = (cell: Node) =>
  cell.childCount === 1 && cell.firstChild?.isTextblock === true && cell.firstChild.content.size === 0

/** Joins the selected cells to one, which holds what all of them held. */
export const joinCells: Command = (state, dispatch) => {
  const { selection } = state
  if (!(selection instanceof CellSelection) || selection.ranges.length < 2) return false
  if (!dispatch) return true
  const { table, pos, top, left, bottom, right } = selection.rect
  const { slots, rows } = modelOf(table)
  const inside = ({ row, column }: Slot) => row >= top && row < bottom && column >= left && column < right
  const first = slots.find(({ row, column }) => row === top && column === left) as Slot
  const filled = slots.filter((slot) => inside(slot) && !isBlank(slot.node)).flatMap(({ node }) => node.children)
  const content = filled.length > 0 ? Fragment.from(filled) : first.node.content
  const whole = { ...first, node: first.node.copy(content), rowspan: bottom - top, colspan: right - left }
  const { tr } = state
  rebuild(tr, pos, { slots: [...slots.filter((slot) => !inside(slot)), whole], rows })
  near(tr, pos, top, left)
  dispatch(named(tr, "Cells joined").scrollIntoView())
  return true
}

/** Divides the cell at the caret: one that reaches over several places into these, another into two beside each other. */
export const divideCell: Command = (state, dispatch) => {
  const rect = selectedRect(state)
  if (!rect) return false
  const grid = gridOf(rect.table)
  const cell = grid.standing(rect.top).find(({ column }) => column === rect.left)
  if (!cell || (state.selection instanceof CellSelection && state.selection.ranges.length > 1)) return false
  const { pos, table } = rect
  const { row, column, rowspan, colspan } = cell
  if (rowspan === 1 && colspan === 1 && grid.columns >= limits.table.columns) return false
  if (!dispatch) return true
  const { tr } = state
  const { slots, rows } = modelOf(table)
  const blank = (at: Pick<Slot, "row" | "column">): Slot => ({
    node: blankLike(cell.node),
    ...at,
    rowspan: 1,
    colspan: 1,
  })
  const others = slots.filter((slot) => slot !== cell)
  if (rowspan === 1 && colspan === 1) {
    // A column more, over which all other cells of this one reach.
    const moved = others.map((slot) =>
      slot.column > column
        ? { ...slot, column: slot.column + 1 }
        : slot.column + slot.colspan > column
          ? { ...slot, colspan: slot.colspan + 1 }
          : slot,
    )
    rebuild(tr, pos, { slots: [...moved, cell, blank({ row, column: column + 1 })], rows })
    setWidths(tr, pos, (widths) => {
      const half = Math.max(limits.table.column[0], (widths[column] ?? 0) / 2)
      return [...widths.slice(0, column), half, half, ...widths.slice(column + 1)]
    })
  } else {
    const places = Array.from({ length: rowspan * colspan - 1 }, (_, i) => ({
      row: row + Math.floor((i + 1) / colspan),
      column: column + ((i + 1) % colspan),
    }))
    rebuild(tr, pos, { slots: [...others, { ...cell, rowspan: 1, colspan: 1 }, ...places.map(blank)], rows })
  }
  near(tr, pos, row, column)
  dispatch(named(tr, "Cell divided").scrollIntoView())
  return true
}
