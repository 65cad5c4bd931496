/** How tables, their rows and their cells look: read and set. */
import type { Node } from "prosemirror-model"
import type { EditorState, Transaction } from "prosemirror-state"
import {
  borderSides,
  cellFormat,
  cellPosition,
  documentAttrs,
  edgeOf,
  equal,
  fitBorder,
  groundOf,
  gridOf,
  limits,
  nodeAt,
  nodes,
  rowHeight,
  sectionAt,
  sectionsOf,
  setEntries,
  tableFormat,
  textWidth,
  within,
  type Border,
  type BorderSide,
  type CellFormat,
  type GridCell,
  type TableFormat,
} from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { setTableFormat } from "./rows"
import { cellsIn, selectedRect, type Rect, type TableRect } from "./selection"

/** What is said of the table at the caret; null where there is none. */
export function tableHere(state: Pick<EditorState, "selection">): TableFormat | null {
  const rect = selectedRect(state)
  return rect && tableFormat(rect.table)
}

function fitTable(change: Partial<TableFormat>): Partial<TableFormat> {
  const { columns, headRows, indent, padding, alt } = change
  return {
    ...change,
    ...(columns
      ? { columns: columns.slice(0, limits.table.columns).map((width) => within(width, limits.table.column)) }
      : {}),
    ...(headRows === undefined ? {} : { headRows: Math.round(within(headRows, limits.table.headRows)) }),
    ...(indent === undefined ? {} : { indent: within(indent, limits.space) }),
    ...(padding
      ? {
          padding: {
            across: within(padding.across, limits.table.padding),
            down: within(padding.down, limits.table.padding),
          },
        }
      : {}),
    ...(alt === undefined ? {} : { alt: alt.slice(0, limits.alt) }),
  }
}

/** Sets what is said of the table at the caret. */
export function setTable(change: Partial<TableFormat>, name = "Table shaped"): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    if (dispatch) {
      const { tr } = state
      setTableFormat(tr, rect.pos, fitTable(change))
      dispatch(named(tr, name))
    }
    return true
  }
}

/** How wide a table of the body is on its sheet of which no width is said, in points; null for one that stands elsewhere. */
export function wholeWidth(doc: Node, pos: number): number | null {
  const table = doc.nodeAt(pos)
  const setup = sectionsOf(doc)[sectionAt(doc, pos)]?.setup
  if (table?.type !== nodes.table || doc.resolve(pos).parent.type !== nodes.body || !setup) return null
  const { align, indent } = tableFormat(table)
  const room = textWidth(setup)
  return room - (align === "center" ? 0 : Math.min(indent, room / 2))
}

/** Sets the widths of the columns of a table, by where it stands: for those that are dragged. */
export function setColumns(pos: number, columns: readonly number[]): Command {
  return (state, dispatch) => {
    const table = nodeAt(state.doc, pos)
    if (table?.type.name !== "table" || columns.length === 0 || !columns.every((width) => Number.isFinite(width)))
      return false
    if (dispatch) {
      const { tr } = state
      setTableFormat(tr, pos, fitTable({ columns: [...columns] }))
      dispatch(named(tr, "Widths of columns"))
    }
    return true
  }
}

/** The columns of a table as alike as they were wide together. */
export function evenColumns(widths: readonly number[]): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect || widths.length === 0) return false
    const selected = rect.right - rect.left
    // The columns that are selected, or where it is only one, all.
    const [from, to] = selected > 1 ? [rect.left, rect.right] : [0, widths.length]
    const mean = widths.slice(from, to).reduce((sum, width) => sum + width, 0) / (to - from)
    return setColumns(
      rect.pos,
      widths.map((width, i) => (i >= from && i < to ? mean : width)),
    )(state, dispatch)
  }
}

/** Sets the least height of rows, 0 for that of their text. */
export function setRowHeight(height: number): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    return rect !== null && setHeights(rect.pos, rect.top, rect.bottom, height)(state, dispatch)
  }
}

export function setHeights(pos: number, top: number, bottom: number, height: number): Command {
  return (state, dispatch) => {
    const table = nodeAt(state.doc, pos)
    if (table?.type.name !== "table" || !Number.isFinite(height)) return false
    if (!dispatch) return true
    const { tr } = state
    let at = pos + 1
    table.forEach((row, _offset, i) => {
      const fitting = within(height, limits.table.height)
      if (i >= top && i < bottom) setEntries(tr, at, "format", fitting > 0 ? { height: fitting } : null)
      at += row.nodeSize
    })
    dispatch(named(tr, "Height of rows"))
    return true
  }
}

/** The least height that the selected rows share; undefined where they differ. */
export function rowHeightHere(state: Pick<EditorState, "selection">): number | undefined {
  const rect = selectedRect(state)
  if (!rect) return undefined
  const heights = rect.table.children.slice(rect.top, rect.bottom).map(rowHeight)
  return heights.every((height) => height === heights[0]) ? heights[0] : undefined
}

function setCellFormat(tr: Transaction, pos: number, change: Partial<CellFormat>): void {
  const cell = tr.doc.nodeAt(pos) as Node
  setEntries(tr, pos, "format", { ...cellFormat(cell), ...change })
}

/** Sets what is said of the selected cells. */
export function setCells(
  change: Partial<Pick<CellFormat, "shading" | "vertical" | "reading">>,
  name = "Cells shaped",
): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    if (dispatch) {
      const { tr } = state
      for (const cell of cellsIn(rect.table, rect)) setCellFormat(tr, cellPosition(rect.table, rect.pos, cell), change)
      dispatch(named(tr, name))
    }
    return true
  }
}

/** What the selected cells share: their ground as it is seen, and how their text stands and is read; undefined where they differ. */
export function cellsHere(state: Pick<EditorState, "doc" | "selection">): {
  shading: string | null | undefined
  vertical: CellFormat["vertical"] | undefined
  reading: CellFormat["reading"] | undefined
} | null {
  const rect = selectedRect(state)
  if (!rect) return null
  const { styles } = documentAttrs(state.doc)
  const cells = cellsIn(rect.table, rect)
  const shared = <T>(of: (cell: GridCell) => T): T | undefined => {
    const [first, ...others] = cells.map(of)
    return others.every((own) => own === first) ? first : undefined
  }
  return {
    shading: shared((cell) => groundOf(styles, rect.table, cell)),
    vertical: shared(({ node }) => cellFormat(node).vertical ?? "top"),
    reading: shared(({ node }) => cellFormat(node).reading ?? "across"),
  }
}

/** Lines of the selected cells: all of them, those round them, those between them, or those of one side. */
export type LinesOf = "all" | "round" | "between" | BorderSide

const opposite = { top: "bottom", bottom: "top", left: "right", right: "left" } as const

function isAtEdge(cell: GridCell, rect: Rect, side: BorderSide): boolean {
  switch (side) {
    case "top":
      return cell.row === rect.top
    case "bottom":
      return cell.row + cell.rowspan === rect.bottom
    case "left":
      return cell.column === rect.left
    case "right":
      return cell.column + cell.colspan === rect.right
  }
}

function concerns(which: LinesOf, side: BorderSide, atEdge: boolean): boolean {
  if (which === "all") return true
  if (which === "round") return atEdge
  return which === "between" ? !atEdge : which === side && atEdge
}

/** Draws lines at the selected cells, or with null takes them away. What stands beside gets the same at its side. */
export function setLines(which: LinesOf, border: Border | null): Command {
  const line = border && { ...fitBorder(border), distance: 0 }
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect) return false
    if (!dispatch) return true
    const { tr } = state
    const { table, pos } = rect
    const changes = new Map<GridCell, Partial<Record<BorderSide, Border | null>>>()
    const put = (cell: GridCell, side: BorderSide) => changes.set(cell, { ...changes.get(cell), [side]: line })
    for (const cell of cellsIn(table, rect))
      for (const side of borderSides) {
        if (!concerns(which, side, isAtEdge(cell, rect, side))) continue
        put(cell, side)
        for (const neighbour of beside(rect, cell, side)) put(neighbour, opposite[side])
      }
    for (const [cell, borders] of changes)
      setCellFormat(tr, cellPosition(table, pos, cell), { borders: { ...cellFormat(cell.node).borders, ...borders } })
    dispatch(named(tr, line ? "Lines of the table" : "Lines taken away"))
    return true
  }
}

/** The cells at a side of another one. */
function beside({ table }: TableRect, cell: GridCell, side: BorderSide): GridCell[] {
  const grid = gridOf(table)
  const rows = Array.from({ length: cell.rowspan }, (_, i) => cell.row + i)
  const overlaps = (own: GridCell) => own.column < cell.column + cell.colspan && cell.column < own.column + own.colspan
  if (side === "top") return cell.row === 0 ? [] : grid.standing(cell.row - 1).filter(overlaps)
  if (side === "bottom") {
    const below = cell.row + cell.rowspan
    return below >= grid.rows ? [] : grid.standing(below).filter(overlaps)
  }
  const at = side === "left" ? cell.column - 1 : cell.column + cell.colspan
  return [
    ...new Set(
      rows.flatMap((row) => grid.standing(row).filter((own) => own.column <= at && at < own.column + own.colspan)),
    ),
  ]
}

/** The line that all that are meant share; undefined where they differ. */
export function linesHere(state: Pick<EditorState, "doc" | "selection">, which: LinesOf): Border | null | undefined {
  const rect = selectedRect(state)
  if (!rect) return undefined
  const { styles } = documentAttrs(state.doc)
  const found: (Border | null)[] = []
  for (const cell of cellsIn(rect.table, rect))
    for (const side of borderSides)
      if (concerns(which, side, isAtEdge(cell, rect, side))) found.push(edgeOf(styles, rect.table, cell, side).border)
  return found.every((own) => equal(own, found[0])) ? (found[0] ?? null) : undefined
}
