/**
 * A table taken apart: its cells with the places that they have, to be changed freely and put together again. What comes out is
 * whole: rows in which no cell begins go, places without a cell get one. Only rows that differ are replaced.
 */
import type { Attrs, Node } from "prosemirror-model"
import type { Transaction } from "prosemirror-state"
import { gridOf, nodes, type CellFormat } from "../../document"

export interface Slot {
  node: Node
  row: number
  column: number
  rowspan: number
  colspan: number
}

export interface Model {
  slots: readonly Slot[]
  /** Attributes of the rows. */
  rows: readonly Attrs[]
}

export function modelOf(table: Node): Model {
  const grid = gridOf(table)
  return {
    slots: table.children.flatMap((_, row) => grid.begun(row)),
    rows: table.children.map(({ attrs }) => attrs),
  }
}

/** A cell without text that looks like another one. */
export function blankLike(like: Node | null | undefined): Node {
  const first = like?.firstChild
  const { style, format } = first?.isTextblock
    ? (first.attrs as { style: string; format: { list?: unknown } | null })
    : { style: "body", format: null }
  const { list: _none, ...look } = format ?? {}
  return nodes.cell.create(
    { format: (like?.attrs.format as Partial<CellFormat> | null) ?? null },
    nodes.paragraph.create({ style, format: Object.keys(look).length > 0 ? look : null }),
  )
}

/** Rows in which no cell begins go; those over them become shorter. */
function withoutEmptyRows({ slots, rows }: Model): Model {
  const begun = new Set(slots.map(({ row }) => row))
  if (begun.size === rows.length) return { slots, rows }
  /** Rows that stay before each row. */
  const before = [0]
  rows.forEach((_, row) => before.push((before[row] as number) + (begun.has(row) ? 1 : 0)))
  return {
    rows: rows.filter((_, row) => begun.has(row)),
    slots: slots.map((slot) => {
      const [from, to] = [before[slot.row] as number, before[Math.min(rows.length, slot.row + slot.rowspan)] as number]
      return { ...slot, row: from, rowspan: Math.max(1, to - from) }
    }),
  }
}

/** Every place gets a cell. */
function filled({ slots, rows }: Model): Model {
  const columns = Math.max(1, ...slots.map(({ column, colspan }) => column + colspan))
  const taken = rows.map(() => new Uint8Array(columns))
  for (const { row, column, rowspan, colspan } of slots)
    for (let r = row; r < row + rowspan; r++) taken[r]?.fill(1, column, column + colspan)
  const missing = taken.flatMap((line, row) =>
    Array.from(line).flatMap((one, column): Slot[] =>
      one === 0 ? [{ node: blankLike(null), row, column, rowspan: 1, colspan: 1 }] : [],
    ),
  )
  return missing.length > 0 ? { slots: [...slots, ...missing], rows } : { slots, rows }
}

/** Puts a table together anew, in place of the one at a position. */
export function rebuild(tr: Transaction, pos: number, model: Model): void {
  const table = tr.doc.nodeAt(pos) as Node
  const { slots, rows } = filled(withoutEmptyRows(model))
  const byRow = rows.map((): Slot[] => [])
  for (const slot of slots) byRow[slot.row]?.push(slot)
  const now = rows.map((attrs, row) => {
    const cells = (byRow[row] as Slot[])
      .sort((a, b) => a.column - b.column)
      .map(({ node, rowspan, colspan }) =>
        node.attrs.rowspan === rowspan && node.attrs.colspan === colspan
          ? node
          : node.type.create({ ...node.attrs, rowspan, colspan }, node.content),
      )
    return nodes.row.create(attrs, cells)
  })
  const same = (a: Node | undefined, b: Node | undefined) =>
    a !== undefined &&
    b !== undefined &&
    a.attrs === b.attrs &&
    a.childCount === b.childCount &&
    a.children.every((child, i) => child === b.children[i])
  const old = table.children
  let head = 0
  while (head < Math.min(old.length, now.length) && same(old[head], now[head])) head++
  let tail = 0
  while (tail < Math.min(old.length, now.length) - head && same(old[old.length - 1 - tail], now[now.length - 1 - tail]))
    tail++
  const starts = rowStarts(table, pos)
  const [from, to] = [starts[head] as number, starts[old.length - tail] as number]
  const put = now.slice(head, now.length - tail)
  if (from < to || put.length > 0) tr.replaceWith(from, to, put)
}

/** Positions before the rows of a table, and behind the last one. */
export function rowStarts(table: Node, pos: number): number[] {
  const starts = [pos + 1]
  for (const row of table.children) starts.push((starts.at(-1) as number) + row.nodeSize)
  return starts
}
