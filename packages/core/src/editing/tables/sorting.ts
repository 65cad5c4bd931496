/** Rows put into order by what one or more of their cells say. */
import type { Node } from "prosemirror-model"
import {
  cellAt,
  documentAttrs,
  formulaValue,
  fieldAttrs,
  gridOf,
  isLeaf,
  knownLanguage,
  readDate,
  readNumber,
  tableFormat,
} from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { rowStarts } from "./model"
import { CellSelection, selectedRect } from "./selection"

/** Rows of a part of a change. */
const most = 200

export interface SortKey {
  column: number
  /** -1 for the last first. */
  direction: 1 | -1
}

/** What a cell says, as it is read: formulas with their values. */
function cellText(table: Node, row: number, column: number, language: string): string {
  const cell = cellAt(gridOf(table), row, column)
  let text = ""
  cell?.node.descendants((node) => {
    if (node.isText) text += node.text ?? ""
    else if (node.type.name === "field" && fieldAttrs(node).kind === "formula")
      text += formulaValue(table, cell, fieldAttrs(node).format, language)
    else if (isLeaf(node) && text !== "") text += " "
    return true
  })
  return text.trim()
}

/** The rows that would be sorted: those selected, or all between head and total row. Null where cells reach over rows. */
export function sortedRows(
  state: Parameters<Command>[0],
): { table: Node; pos: number; from: number; to: number } | null {
  const rect = selectedRect(state)
  if (!rect) return null
  const { table, pos } = rect
  const grid = gridOf(table)
  const { headRows, totalRow } = tableFormat(table)
  const several = state.selection instanceof CellSelection && rect.bottom - rect.top > 1
  const [from, to] = several
    ? [Math.max(rect.top, Math.min(headRows, grid.rows)), rect.bottom]
    : [Math.min(headRows, grid.rows), grid.rows - (totalRow ? 1 : 0)]
  for (let row = from; row < to; row++)
    if (grid.standing(row).some((cell) => cell.row < from || cell.row + cell.rowspan > to || cell.rowspan > 1))
      return null
  return to - from > 1 ? { table, pos, from, to } : null
}

type Ordered = (a: string, b: string) => number

/** How the values of a column are compared: as numbers or dates where all are such, else as words of the language. */
function orderOf(values: readonly string[], language: string): Ordered {
  const filled = values.filter((value) => value !== "")
  for (const read of [readNumber, readDate]) {
    const known = new Map(filled.map((value) => [value, read(value, language)]))
    if (filled.length > 0 && [...known.values()].every((value) => value !== null))
      return (a, b) => (known.get(a) ?? 0) - (known.get(b) ?? 0)
  }
  const { compare } = new Intl.Collator(knownLanguage(language), { numeric: true })
  return compare
}

/** Sorts the rows of the table at the caret, by the first key, and where that is alike by the next. Blank cells come last. */
export function sortRows(keys: readonly SortKey[]): Command {
  return (state, dispatch) => {
    const sorted = sortedRows(state)
    if (!sorted || keys.length === 0) return false
    const { table, pos, from, to } = sorted
    const { columns } = gridOf(table)
    if (!keys.every(({ column }) => Number.isInteger(column) && column >= 0 && column < columns)) return false
    if (!dispatch) return true
    const { language } = documentAttrs(state.doc).styles.defaults.letters
    const rows = Array.from({ length: to - from }, (_, i) => ({
      node: table.child(from + i),
      values: keys.map(({ column }) => cellText(table, from + i, column, language)),
    }))
    const orders = keys.map((_, i) =>
      orderOf(
        rows.map(({ values }) => values[i] ?? ""),
        language,
      ),
    )
    const now = [...rows].sort((a, b) => {
      for (const [i, { direction }] of keys.entries()) {
        const [own, other] = [a.values[i] ?? "", b.values[i] ?? ""]
        if ((own === "") !== (other === "")) return own === "" ? 1 : -1
        const order = own === other ? 0 : (orders[i] as Ordered)(own, other)
        if (order !== 0) return order * direction
      }
      return 0
    })
    const { tr } = state
    // In parts, so that none is too large to be sent.
    let at = rowStarts(table, pos)[from] as number
    const sizeOf = (some: readonly { node: Node }[]) => some.reduce((sum, { node }) => sum + node.nodeSize, 0)
    for (let i = 0; i < now.length; i += most) {
      const [before, after] = [rows.slice(i, i + most), now.slice(i, i + most)]
      if (after.some(({ node }, n) => node !== before[n]?.node))
        tr.replaceWith(
          at,
          at + sizeOf(before),
          after.map(({ node }) => node),
        )
      at += sizeOf(after)
    }
    dispatch(named(tr, "Rows sorted"))
    return true
  }
}
