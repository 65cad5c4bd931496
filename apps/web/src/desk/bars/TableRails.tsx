import { useState, type KeyboardEvent, type PointerEvent as ReactPointerEvent, type ReactNode } from "react"
import { createPortal } from "react-dom"
import { gridOf, limits, rowHeight } from "@biblon/core/document"
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
import { Glyph } from "../../ui/pieces"
import { useDesk, useSession } from "../context"
import { dragLength } from "../dragging"
import { widthsSeen } from "../tabling"
import type { TableSeen } from "../view/source"

/** Thickness of a rail, and its distance from the table, in pixels. */
const mouse = { thick: 9, gap: 2 }
const finger = { thick: 18, gap: 2 }
/** Movement, in pixels, from which on a press moves what it is on. */
const moves = 8

interface Rail {
  /** Which column or row, from 0. */
  number: number
  start: number
  length: number
  on: boolean
}

/** Where something that is moved along a rail would come to stand: before which of them. */
function target(rails: readonly Rail[], at: number): number {
  const before = rails.find(({ start, length }) => at < start + length / 2)
  return before ? before.number : (rails.at(-1)?.number ?? 0) + 1
}

function useRect() {
  return useDesk(({ editor }) => {
    const rect = editor && selectedRect(editor)
    if (!rect) return { pos: -1, top: 0, left: 0, bottom: 0, right: 0, rows: 0, columns: 0, cells: false }
    const { pos, top, left, bottom, right, table } = rect
    const { rows, columns } = gridOf(table)
    return { pos, top, left, bottom, right, rows, columns, cells: editor.selection instanceof CellSelection }
  })
}

/** A press on a rail selects, a drag moves. */
function pressRail(
  event: ReactPointerEvent<HTMLElement>,
  along: "x" | "y",
  act: { select: (extends_: boolean) => void; show: (at: number | null) => void; move: (at: number) => void },
): void {
  if (event.button !== 0) return
  event.preventDefault()
  event.stopPropagation()
  const handle = event.currentTarget
  handle.setPointerCapture(event.pointerId)
  const ended = new AbortController()
  const start = along === "x" ? event.clientX : event.clientY
  const from = along === "x" ? handle.offsetLeft : handle.offsetTop
  const size = along === "x" ? handle.offsetWidth : handle.offsetHeight
  let at: number | null = null
  const { shiftKey } = event
  handle.addEventListener(
    "pointermove",
    (e: PointerEvent) => {
      const by = (along === "x" ? e.clientX : e.clientY) - start
      if (at === null && Math.abs(by) < moves) return
      at = from + size / 2 + by
      act.show(at)
    },
    { signal: ended.signal },
  )
  const end = (e: PointerEvent) => {
    ended.abort()
    act.show(null)
    if (e.type === "pointercancel") return
    if (at === null) act.select(shiftKey)
    else act.move(at)
  }
  handle.addEventListener("pointerup", end, { signal: ended.signal })
  handle.addEventListener("pointercancel", end, { signal: ended.signal })
  addEventListener(
    "keydown",
    (e) => {
      if (e.key !== "Escape") return
      e.stopPropagation()
      ended.abort()
      act.show(null)
    },
    { capture: true, signal: ended.signal },
  )
}

function PlusButton({ label, command, style }: { label: string; command: Command; style: object }): ReactNode {
  const session = useSession()
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="absolute flex cursor-pointer items-center justify-center rounded-full border border-line bg-raised p-0 hover:bg-murex-soft"
      style={style}
      onClick={() => {
        session.run(command)
        session.focus()
      }}
    >
      <Glyph icon={Plus} size={12} />
    </button>
  )
}

function Rails({ table, pos }: { table: TableSeen; pos: number }) {
  const session = useSession()
  const touch = useDesk((s) => s.touch)
  const rect = useRect()
  const [drop, setDrop] = useState<{ along: "x" | "y"; at: number } | null>(null)
  const { thick, gap } = touch ? finger : mouse
  const { scale } = table
  const columns = table.columns.slice(1).map((edge, i): Rail => {
    const start = (table.columns[i] ?? 0) * scale
    return {
      number: i,
      start,
      length: edge * scale - start,
      on: rect.cells && i >= rect.left && i < rect.right && rect.top === 0 && rect.bottom === rect.rows,
    }
  })
  const rows = table.rows.map(({ row, y, height }): Rail => ({
    number: row,
    start: y - table.y,
    length: height,
    on: rect.cells && row >= rect.top && row < rect.bottom && rect.left === 0 && rect.right === rect.columns,
  }))
  const widths = widthsSeen(table)
  const lineOf = (rails: readonly Rail[], at: number) => {
    const number = target(rails, at)
    const own = rails.find((rail) => rail.number === number)
    const last = rails.at(-1)
    return own ? own.start : last ? last.start + last.length : 0
  }
  const bar = (on: boolean) =>
    `absolute cursor-pointer rounded-[3px] border border-line p-0 touch-none ${on ? "bg-murex" : "bg-surface hover:bg-murex-soft"}`
  const step = (event: KeyboardEvent, act: (direction: -1 | 1) => void) => {
    const direction =
      event.key === "ArrowRight" || event.key === "ArrowDown"
        ? 1
        : event.key === "ArrowLeft" || event.key === "ArrowUp"
          ? -1
          : 0
    if (direction === 0) return
    event.preventDefault()
    event.stopPropagation()
    act(direction)
  }
  /** The widths with one edge moved: the column behind it takes what the one before it gives, so that the table stays as wide. */
  const moved = (i: number, width: number): number[] =>
    widths.map((own, n) =>
      n === i ? width : n === i + 1 ? Math.max(limits.table.column[0], own - (width - (widths[i] ?? 0))) : own,
    )
  const lowest = limits.table.column[0] + 6
  return (
    <div
      className="floating table-rails absolute left-0 top-0 z-[5]"
      style={{ transform: `translate(${table.x}px, ${table.y}px)` }}
    >
      <button
        type="button"
        aria-label="Select the table"
        title="Select the table"
        className={bar(columns.every(({ on }) => on) && rows.every(({ on }) => on))}
        style={{ left: -thick - gap, top: -thick - gap, width: thick, height: thick }}
        onClick={() => {
          session.run(selectTable("table"))
          session.focus()
        }}
      />
      {columns.map(({ number, start, length, on }) => (
        <button
          key={`c${number}`}
          type="button"
          aria-label={`Column ${number + 1}`}
          aria-pressed={on}
          title="Press to select, drag to move"
          className={bar(on)}
          style={{ left: start + 1, top: -thick - gap, width: Math.max(2, length - 2), height: thick }}
          onClick={(event) =>
            event.detail === 0 &&
            session.run(selectCells(pos, { top: 0, bottom: rect.rows, left: number, right: number + 1 }))
          }
          onPointerDown={(event) =>
            pressRail(event, "x", {
              select: (more) => {
                session.run(
                  selectCells(pos, {
                    top: 0,
                    bottom: rect.rows,
                    left: more ? Math.min(rect.left, number) : number,
                    right: more ? Math.max(rect.right, number + 1) : number + 1,
                  }),
                )
                session.focus()
              },
              show: (at) => setDrop(at === null ? null : { along: "x", at: lineOf(columns, at) }),
              move: (at) => {
                const [from, to] = on ? [rect.left, rect.right] : [number, number + 1]
                session.run(moveColumns(pos, from, to, target(columns, at)))
                session.focus()
              },
            })
          }
        />
      ))}
      {rows.map(({ number, start, length, on }) => (
        <button
          key={`r${number}`}
          type="button"
          aria-label={`Row ${number + 1}`}
          aria-pressed={on}
          title="Press to select, drag to move"
          className={bar(on)}
          style={{ left: -thick - gap, top: start + 1, width: thick, height: Math.max(2, length - 2) }}
          onClick={(event) =>
            event.detail === 0 &&
            session.run(selectCells(pos, { left: 0, right: rect.columns, top: number, bottom: number + 1 }))
          }
          onPointerDown={(event) =>
            pressRail(event, "y", {
              select: (more) => {
                session.run(
                  selectCells(pos, {
                    left: 0,
                    right: rect.columns,
                    top: more ? Math.min(rect.top, number) : number,
                    bottom: more ? Math.max(rect.bottom, number + 1) : number + 1,
                  }),
                )
                session.focus()
              },
              show: (at) => setDrop(at === null ? null : { along: "y", at: lineOf(rows, at) }),
              move: (at) => {
                const [from, to] = on ? [rect.top, rect.bottom] : [number, number + 1]
                session.run(moveRows(pos, from, to, target(rows, at)))
                session.focus()
              },
            })
          }
        />
      ))}
      {columns.map(({ number, start, length }) => (
        <div
          key={`w${number}`}
          role="slider"
          tabIndex={0}
          aria-label={`Width of column ${number + 1}`}
          aria-valuenow={Math.round(widths[number] ?? 0)}
          aria-valuemin={lowest}
          aria-valuemax={1000}
          aria-valuetext={`${Math.round(widths[number] ?? 0)} pt`}
          className="absolute cursor-col-resize touch-none"
          style={{
            left: start + length - (touch ? 9 : 4),
            top: -thick - gap,
            width: touch ? 18 : 8,
            height: thick + gap,
          }}
          onPointerDown={(event) =>
            dragLength(event, {
              along: "x",
              value: widths[number] ?? 0,
              perPixel: 1 / scale,
              snap: 0.5,
              least: lowest,
              most:
                number + 1 < widths.length
                  ? (widths[number] ?? 0) + (widths[number + 1] ?? 0) - lowest
                  : limits.table.column[1],
              show: (to) =>
                session.trial.show(typeof to === "number" ? setColumns(pos, moved(number, to)) : null, "once"),
              take: (to) => to !== null && session.run(setColumns(pos, moved(number, to))),
            })
          }
          onKeyDown={(event) =>
            step(event, (by) =>
              session.run(setColumns(pos, moved(number, Math.max(lowest, (widths[number] ?? 0) + by * 4)))),
            )
          }
        />
      ))}
      {rows.map(({ number, start, length }) => (
        <div
          key={`h${number}`}
          role="slider"
          tabIndex={0}
          aria-label={`Height of row ${number + 1}`}
          aria-valuenow={Math.round(length / scale)}
          aria-valuemin={0}
          aria-valuemax={1000}
          aria-valuetext={`${Math.round(length / scale)} pt`}
          className="absolute cursor-row-resize touch-none"
          style={{
            left: -thick - gap,
            top: start + length - (touch ? 7 : 3),
            width: thick + gap,
            height: touch ? 14 : 6,
          }}
          onPointerDown={(event) =>
            dragLength(event, {
              along: "y",
              value: length / scale,
              perPixel: 1 / scale,
              snap: 1,
              least: 0,
              most: limits.table.height[1],
              show: (to) =>
                session.trial.show(typeof to === "number" ? setHeights(pos, number, number + 1, to) : null, "once"),
              take: (to) => to !== null && session.run(setHeights(pos, number, number + 1, to)),
            })
          }
          onKeyDown={(event) =>
            step(event, (by) => {
              const now = session.now?.doc.nodeAt(pos)?.maybeChild(number)
              session.run(
                setHeights(pos, number, number + 1, Math.max(0, (now ? rowHeight(now) || length / scale : 0) + by * 4)),
              )
            })
          }
        />
      ))}
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
  const pos = useRect().pos
  if (!table || !canvas || !shown || pos < 0) return null
  return createPortal(<Rails table={table} pos={pos} />, canvas)
}
