/** Rows and columns: added, taken away, moved; cells joined and divided. Every change leaves a whole grid. */
import type { Attrs, Node } from "prosemirror-model"
import { Selection, type Transaction } from "prosemirror-state"
import {
  cellAt,
  cellPosition,
  gridOf,
  limits,
  nodes,
  paragraph,
  setEntries,
  tableAt,
  tableFormat,
  type TableFormat,
} from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { blankLike, modelOf, rebuild, rowStarts, type Slot } from "./model"
import { selectedRect } from "./selection"

/** Position at which a cell that begins in a row and column would be put in. */
export function insertionPoint(table: Node, pos: number, row: number, column: number): number {
  const grid = gridOf(table)
  const behind = grid.begun(row).find((cell) => cell.column >= column)
  if (behind) return cellPosition(table, pos, behind)
  let at = pos + 1
  for (let i = 0; i < row; i++) at += table.child(i).nodeSize
  return at + table.child(row).nodeSize - 1
}

/** Puts rows into a table, before the row of a number; where cells reach over all of that place, below them. */
export function putRows(tr: Transaction, pos: number, wished: number, count: number, like: number): number {
  const table = tr.doc.nodeAt(pos) as Node
  const grid = gridOf(table)
  let at = wished
  const reaching = (row: number) =>
    row > 0 && row < grid.rows ? grid.standing(row).filter((cell) => cell.row < row) : []
  while (at < grid.rows && reaching(at).reduce((sum, { colspan }) => sum + colspan, 0) >= grid.columns) at++
  const attrs = table.child(Math.min(like, grid.rows - 1)).attrs
  const models = Array.from({ length: grid.columns }, (_, column) => cellAt(grid, like, column)?.node)
  if (isPlain(table)) {
    const row = () =>
      nodes.row.create(
        attrs,
        models.map((model) => blankLike(model)),
      )
    tr.insert(rowStarts(table, pos)[at] as number, Array.from({ length: count }, row))
    return at
  }
  const { slots, rows } = modelOf(table)
  const over = new Set<Slot>(reaching(at))
  const moved = slots.map((slot) =>
    over.has(slot)
      ? { ...slot, rowspan: slot.rowspan + count }
      : slot.row >= at
        ? { ...slot, row: slot.row + count }
        : slot,
  )
  const covered = (column: number) =>
    [...over].some((slot) => slot.column <= column && column < slot.column + slot.colspan)
  const put = Array.from({ length: count }, (_, n) =>
    models.flatMap((model, column): Slot[] =>
      covered(column) ? [] : [{ node: blankLike(model), row: at + n, column, rowspan: 1, colspan: 1 }],
    ),
  ).flat()
  rebuild(tr, pos, {
    slots: [...moved, ...put],
    rows: [...rows.slice(0, at), ...Array<Attrs>(count).fill(attrs), ...rows.slice(at)],
  })
  return at
}

/** Whether each cell of a table takes one place, and none is missing. */
function isPlain(table: Node): boolean {
  const grid = gridOf(table)
  for (let row = 0; row < grid.rows; row++) {
    const cells = grid.begun(row)
    if (cells.length !== grid.columns || cells.some(({ rowspan, colspan }) => rowspan > 1 || colspan > 1)) return false
  }
  return true
}

/** Keeps the widths of columns with them when some come or go. */
export function setWidths(tr: Transaction, pos: number, change: (widths: number[]) => number[]): void {
  const table = tr.doc.nodeAt(pos) as Node
  const { columns } = tableFormat(table)
  if (columns) setTableFormat(tr, pos, { columns: change([...columns]) })
}

/** Puts columns into a table, before the column of a number. */
export function putColumns(tr: Transaction, pos: number, at: number, count: number, like: number): void {
  const table = tr.doc.nodeAt(pos) as Node
  const grid = gridOf(table)
  const blank = (row: number) => blankLike(cellAt(grid, row, like)?.node)
  if (isPlain(table))
    // From the last row up, so that positions before stay.
    for (let row = grid.rows - 1; row >= 0; row--) {
      const cells = Array.from({ length: count }, () => blank(row))
      tr.insert(insertionPoint(table, pos, row, at), cells)
    }
  else {
    const { slots, rows } = modelOf(table)
    const over = (slot: Slot) => slot.column < at && at < slot.column + slot.colspan
    const moved = slots.map((slot) =>
      over(slot)
        ? { ...slot, colspan: slot.colspan + count }
        : slot.column >= at
          ? { ...slot, column: slot.column + count }
          : slot,
    )
    const covered = (row: number) =>
      slots.some((slot) => over(slot) && slot.row <= row && row < slot.row + slot.rowspan)
    const put = rows.flatMap((_, row): Slot[] =>
      covered(row)
        ? []
        : Array.from({ length: count }, (_, n) => ({ node: blank(row), row, column: at + n, rowspan: 1, colspan: 1 })),
    )
    rebuild(tr, pos, { slots: [...moved, ...put], rows })
  }
  setWidths(tr, pos, (widths) => {
    const own = widths[like] ?? widths.at(-1) ?? limits.table.column[0]
    const wide = [...widths.slice(0, at), ...Array<number>(count).fill(own), ...widths.slice(at)]
    // The table stays as wide as it was.
    const [before, now] = [widths, wide].map((all) => all.reduce((sum, width) => sum + width, 0)) as [number, number]
    return wide.map((width) => Math.max(limits.table.column[0], (width * before) / now))
  })
}

/** Sets what is said of a whole table. */
export function setTableFormat(tr: Transaction, pos: number, change: Partial<TableFormat>): void {
  const table = tr.doc.nodeAt(pos)
  if (table?.type === nodes.table)
    setEntries(tr, pos, "format", { ...(table.attrs.format as object | null), ...change })
}

/** Brings the caret into a cell near a place of a table. */
export function near(tr: Transaction, pos: number, row: number, column: number): void {
  const table = tr.doc.nodeAt(pos)
  if (table?.type !== nodes.table) return
  const grid = gridOf(table)
  const at = Math.min(row, grid.rows - 1)
  const cell = grid.standing(at).find((own) => own.column + own.colspan > column) ?? grid.standing(at).at(-1)
  if (cell) tr.setSelection(Selection.near(tr.doc.resolve(cellPosition(table, pos, cell) + 1), 1))
}

/** Adds as many rows as are selected, above or below them. */
export function addRows(side: "above" | "below"): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    if (!dispatch) return true
    const { tr } = state
    const count = rect.bottom - rect.top
    const at = side === "above" ? rect.top : rect.bottom
    const put = putRows(tr, rect.pos, at, count, side === "above" ? rect.top : rect.bottom - 1)
    near(tr, rect.pos, put, rect.left)
    dispatch(named(tr, count > 1 ? "Rows added" : "Row added").scrollIntoView())
    return true
  }
}

/** Adds as many columns as are selected, before or behind them. */
export function addColumns(side: "before" | "behind"): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    const count = rect.right - rect.left
    if (gridOf(rect.table).columns + count > limits.table.columns) return false
    if (!dispatch) return true
    const { tr } = state
    const at = side === "before" ? rect.left : rect.right
    putColumns(tr, rect.pos, at, count, side === "before" ? rect.left : rect.right - 1)
    near(tr, rect.pos, rect.top, at)
    dispatch(named(tr, count > 1 ? "Columns added" : "Column added").scrollIntoView())
    return true
  }
}

/** Takes a table away; where nothing else would be left, a paragraph stands in its place. */
function dropTable(tr: Transaction, pos: number): void {
  const table = tr.doc.nodeAt(pos) as Node
  const $pos = tr.doc.resolve(pos)
  if ($pos.parent.childCount > 1) tr.delete(pos, pos + table.nodeSize)
  else tr.replaceWith(pos, pos + table.nodeSize, paragraph())
  const $at = tr.doc.resolve(pos)
  // The caret stays in the text in which the table stood.
  tr.setSelection(Selection.near($at, $at.nodeAfter ? 1 : -1))
}

export const deleteTable: Command = (state, dispatch) => {
  const rect = selectedRect(state)
  if (!rect) return false
  if (dispatch) {
    const { tr } = state
    dropTable(tr, rect.pos)
    dispatch(named(tr, "Table taken away").scrollIntoView())
  }
  return true
}

/** Takes the selected rows away. Cells that reach over them become shorter. */
export const deleteRows: Command = (state, dispatch) => {
  const rect = selectedRect(state)
  if (!rect) return false
  const grid = gridOf(rect.table)
  const { top, bottom, pos, table } = rect
  if (top === 0 && bottom === grid.rows) return deleteTable(state, dispatch)
  if (!dispatch) return true
  const { tr } = state
  dropRows(tr, pos, table, top, bottom)
  near(tr, pos, top, rect.left)
  dispatch(named(tr, bottom - top > 1 ? "Rows taken away" : "Row taken away").scrollIntoView())
  return true
}

/** What is left of a stretch of places when others go, and where it begins then; null where all of it goes. */
function without(start: number, span: number, from: number, to: number): { start: number; span: number } | null {
  const inside = Math.max(0, Math.min(to, start + span) - Math.max(from, start))
  if (inside === span) return null
  return { start: start >= to ? start - (to - from) : Math.min(start, from), span: span - inside }
}

function dropRows(tr: Transaction, pos: number, table: Node, top: number, bottom: number): void {
  if (isPlain(table)) {
    const starts = rowStarts(table, pos)
    tr.delete(starts[top] as number, starts[bottom] as number)
    return
  }
  const { slots, rows } = modelOf(table)
  const left = slots.flatMap((slot) => {
    const own = without(slot.row, slot.rowspan, top, bottom)
    return own ? [{ ...slot, row: own.start, rowspan: own.span }] : []
  })
  rebuild(tr, pos, { slots: left, rows: [...rows.slice(0, top), ...rows.slice(bottom)] })
}

/** Takes the selected columns away. Cells that reach over them become narrower. */
export const deleteColumns: Command = (state, dispatch) => {
  const rect = selectedRect(state)
  if (!rect) return false
  const grid = gridOf(rect.table)
  const { left, right, pos, table } = rect
  if (left === 0 && right === grid.columns) return deleteTable(state, dispatch)
  if (!dispatch) return true
  const { tr } = state
  dropColumns(tr, pos, table, left, right)
  near(tr, pos, rect.top, left)
  dispatch(named(tr, right - left > 1 ? "Columns taken away" : "Column taken away").scrollIntoView())
  return true
}

function dropColumns(tr: Transaction, pos: number, table: Node, left: number, right: number): void {
  if (isPlain(table))
    for (let row = table.childCount - 1; row >= 0; row--)
      tr.delete(insertionPoint(table, pos, row, left), insertionPoint(table, pos, row, right))
  else {
    const { slots, rows } = modelOf(table)
    const rest = slots.flatMap((slot) => {
      const own = without(slot.column, slot.colspan, left, right)
      return own ? [{ ...slot, column: own.start, colspan: own.span }] : []
    })
    rebuild(tr, pos, { slots: rest, rows })
  }
  setWidths(tr, pos, (widths) => {
    const rest = [...widths.slice(0, left), ...widths.slice(right)]
    return rest.length > 0 ? rest : widths
  })
}

/**
 * Makes a ragged table whole: cells that reach too far are shortened, missing ones put in, rows in which no cell begins taken away.
 * To be done after two people have changed one at the same time, and after what may leave it so.
 */
export function mendTable(tr: Transaction, pos: number): void {
  const table = tr.doc.nodeAt(pos)
  if (table?.type === nodes.table && !gridOf(table).whole) rebuild(tr, pos, modelOf(table))
}

/** To the next or the previous cell; behind the last one a row is added. */
export function nextCell(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const place = tableAt(state.selection.$head)
    if (!place) return false
    const { table, pos, cell } = place
    const grid = gridOf(table)
    const order = Array.from({ length: grid.rows }, (_, row) => grid.begun(row)).flat()
    const at = order.findIndex((own) => own === cell || (own.row === cell.row && own.index === cell.index))
    const next = order[at + direction]
    if (next) {
      const start = cellPosition(table, pos, next) + 1
      const first = Selection.near(state.doc.resolve(start), 1)
      dispatch?.(state.tr.setSelection(first).scrollIntoView())
      return true
    }
    if (direction < 0) return false
    if (!dispatch) return true
    const { tr } = state
    putRows(tr, pos, grid.rows, 1, grid.rows - 1)
    near(tr, pos, grid.rows, 0)
    dispatch(named(tr, "Row added").scrollIntoView())
    return true
  }
}
