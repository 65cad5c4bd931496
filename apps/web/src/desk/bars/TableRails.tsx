import { useState, type ReactNode } from "react"
import { createPortal } from "react-dom"
import { gridOf, limits } from "@biblon/core/document"
import {
  addColumns,
  addRows,
  CellSelection,
  moveColumns,
  moveRows,
  selectCells,
  selectedRect,
  selectTable,
  setColumns,
  setHeights,
  type Command,
} from "@biblon/core/editing"
import { Plus } from "../../ui/icons"
import { Glyph } from "../../ui/glyph"
import { useDesk, useSession } from "../context"
import { total, widthsSeen } from "../tabling"
import type { TableSeen } from "../view/source"
import { Rail, RailPress, type RailPart } from "./Rail"
import { Press } from "../../ui/bar"

/** Thickness of a rail, and its distance from the table, in pixels. */
const mouse = { thick: 9, gap: 2 }
const finger = { thick: 18, gap: 2 }

function useRect() {
  return useDesk(({ editor }) => {
    const rect = editor && selectedRect(editor)
    if (!rect) return { top: 0, left: 0, bottom: 0, right: 0, rows: 0, columns: 0, cells: false }
    const { top, left, bottom, right, table } = rect
    const { rows, columns } = gridOf(table)
    return { top, left, bottom, right, rows, columns, cells: editor.selection instanceof CellSelection }
  })
}

function PlusButton({ label, command, style }: { label: string; command: Command; style: object }): ReactNode {
  const session = useSession()
  return (
    <Press
      aria-label={label}
      title={label}
      className="absolute flex items-center justify-center rounded-full border border-line bg-raised p-0 hover:bg-murex-soft"
      style={style}
      onClick={() => {
        session.run(command)
        session.focus()
      }}
    >
      <Glyph icon={Plus} size={12} />
    </Press>
  )
}

/** A command on the table with the caret, wherever that is by then: others may write before it while something is dragged. */
const here =
  (command: (pos: number) => Command): Command =>
  (state, dispatch) => {
    const rect = selectedRect(state)
    return rect !== null && command(rect.pos)(state, dispatch)
  }

function Rails({ table }: { table: TableSeen }) {
  const session = useSession()
  const touch = useDesk((s) => s.touch)
  const rect = useRect()
  const [drop, setDrop] = useState<{ along: "x" | "y"; at: number } | null>(null)
  const { thick, gap } = touch ? finger : mouse
  const { scale } = table
  const columns = table.columns.slice(1).map((edge, i): RailPart => {
    const start = (table.columns[i] ?? 0) * scale
    return {
      number: i,
      start,
      length: edge * scale - start,
      on: rect.cells && i >= rect.left && i < rect.right && rect.top === 0 && rect.bottom === rect.rows,
    }
  })
  const rows = table.rows.map(({ row, y, height }): RailPart => ({
    number: row,
    start: y - table.y,
    length: height,
    on: rect.cells && row >= rect.top && row < rect.bottom && rect.left === 0 && rect.right === rect.columns,
  }))
  const seen = widthsSeen(table)
  const said = session.tabling.widths()
  const widths = said.length === seen.length ? said : seen
  // A screen may have less room than the sheet, where what is dragged has its effect.
  const larger = total(widths) / Math.max(1, total(seen))
  /** The widths with one edge moved: the column behind it takes what the one before it gives, so that the table stays as wide. */
  const moved = (i: number, width: number): number[] =>
    widths.map((own, n) =>
      n === i ? width : n === i + 1 ? Math.max(limits.table.column[0], own - (width - (widths[i] ?? 0))) : own,
    )
  const lowest = limits.table.column[0] + 6
  const across = { thick, gap, touch, onDrop: setDrop }
  return (
    <div
      className="floating table-rails absolute left-0 top-0 z-[5]"
      style={{ transform: `translate(${table.x}px, ${table.y}px)` }}
    >
      <RailPress
        on={columns.every(({ on }) => on) && rows.every(({ on }) => on)}
        along="both"
        aria-label="Select the table"
        title="Select the table"
        style={{ left: -thick - gap, top: -thick - gap, width: thick, height: thick }}
        onClick={() => {
          session.run(selectTable("table"))
          session.focus()
        }}
      />
      <Rail
        {...across}
        along="x"
        name="Column"
        parts={columns}
        chosen={[rect.left, rect.right]}
        select={(left, right) => here((pos) => selectCells(pos, { top: 0, bottom: rect.rows, left, right }))}
        move={(from, to, before) => here((pos) => moveColumns(pos, from, to, before))}
        size={{
          of: "Width of column",
          now: (i) => widths[i] ?? 0,
          perPixel: larger / scale,
          snap: 0.5,
          least: lowest,
          most: (i) =>
            i + 1 < widths.length ? (widths[i] ?? 0) + (widths[i + 1] ?? 0) - lowest : limits.table.column[1],
          set: (i, to) => here((pos) => setColumns(pos, moved(i, to))),
        }}
      />
      <Rail
        {...across}
        along="y"
        name="Row"
        parts={rows}
        chosen={[rect.top, rect.bottom]}
        select={(top, bottom) => here((pos) => selectCells(pos, { left: 0, right: rect.columns, top, bottom }))}
        move={(from, to, before) => here((pos) => moveRows(pos, from, to, before))}
        size={{
          of: "Height of row",
          now: (i) => (rows.find(({ number }) => number === i)?.length ?? 0) / scale,
          perPixel: 1 / scale,
          snap: 1,
          least: 0,
          most: () => limits.table.height[1],
          set: (i, to) => here((pos) => setHeights(pos, i, i + 1, to)),
        }}
      />
      <PlusButton
        label="Add a column at the end"
        command={(state, dispatch) => withLast(state, "column", addColumns("behind"))(state, dispatch)}
        style={{ left: table.width + gap, top: -thick - gap, width: Math.max(16, thick), height: Math.max(16, thick) }}
      />
      <PlusButton
        label="Add a row at the end"
        command={(state, dispatch) => withLast(state, "row", addRows("below"))(state, dispatch)}
        style={{ left: -thick - gap, top: table.height + gap, width: Math.max(16, thick), height: Math.max(16, thick) }}
      />
      {drop ? (
        <div
          className="pointer-events-none absolute bg-murex"
          style={
            drop.along === "x"
              ? { left: drop.at - 1.5, top: -thick - gap, width: 3, height: table.height + thick + gap }
              : { left: -thick - gap, top: drop.at - 1.5, width: table.width + thick + gap, height: 3 }
          }
        />
      ) : null}
    </div>
  )
}

/** A command on the last column or row of the table at the caret. */
function withLast(state: Parameters<Command>[0], what: "column" | "row", command: Command): Command {
  const rect = selectedRect(state)
  if (!rect) return () => false
  const { rows, columns } = gridOf(rect.table)
  const last =
    what === "column"
      ? { top: rect.top, bottom: rect.top + 1, left: columns - 1, right: columns }
      : { top: rows - 1, bottom: rows, left: rect.left, right: rect.left + 1 }
  return (now, dispatch) => {
    let at = now
    selectCells(rect.pos, last)(now, (tr) => (at = now.apply(tr)))
    return command(at, dispatch)
  }
}

/** Along the top and the left of the table with the caret: sizes, choosing and moving of columns and rows. */
export function TableRails() {
  const { table, canvas, shown } = useDesk((s) => ({
    table: s.view.table,
    canvas: s.canvas,
    shown: s.mode !== "reading" && s.pressed === null,
  }))
  const { rows } = useRect()
  if (!table || !canvas || !shown || rows === 0) return null
  return createPortal(<Rails table={table} />, canvas)
}
