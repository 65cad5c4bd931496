/** Indents and tab stops on the ruler, to be dragged. */
import { useState, type KeyboardEvent, type PointerEvent, type ReactNode } from "react"
import { paragraphValue, placeTab, setParagraphs, type Command } from "@biblon/core/editing"
import type { TabStop } from "@biblon/core/document"
import { inUnit, stepLength, units, useUnit, type Unit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { dragLength } from "../dragging"
import { tabKinds } from "../trays/write/TabStops"

/** How far, in pixels, a tab stop is pulled off the ruler to remove it. */
const pullOff = 34
/** Steps of a unit to which dragging snaps. */
export const grid: Record<Unit, number> = { cm: 0.25, mm: 2.5, in: 0.125, pt: 6 }
/** Units between two numbers. */
export const numbered: Record<Unit, number> = { cm: 1, mm: 10, in: 1, pt: 72 }

export interface Geometry {
  /** Pixels of the ruler for a point, and the pixel at which the column begins. */
  scale: number
  left: number
  /** Width of the column in points. */
  width: number
  rtl: boolean
  /** Pixels between which there are numbers: the edges of the sheet. */
  from: number
  to: number
}

interface Peg {
  key: string
  label: string
  at: number
  shape: "first" | "start" | "end" | "tab"
  tab?: TabStop
  /** Between which distances it can stand: some text always has room between the edges. */
  least: number
  most: number
  /** What moving it to a distance comes to; null takes it away. */
  move: (to: number | null) => Command
}

/** Drawn by us: a pin from above for the first line, posts from below for the edges, a flag for a tab stop. */
function PegShape({ peg }: { peg: Peg }): ReactNode {
  const accent = "rgb(var(--murex))"
  if (peg.shape === "first")
    return <path d="M9 0v9M9 9a3.2 3.2 0 1 0 .01 0z" fill={accent} stroke={accent} strokeWidth="2" />
  if (peg.shape === "start") return <path d="M9 26V14M5 14h8v-3h-8z" fill={accent} stroke={accent} strokeWidth="2" />
  if (peg.shape === "end")
    return <path d="M9 26V14M5 11h8v3h-8z" fill="rgb(var(--raised))" stroke={accent} strokeWidth="2" />
  const ink = "rgb(var(--ink))"
  const flag = {
    left: "M9 25v-9h6",
    right: "M9 25v-9H3",
    center: "M9 25v-9M4 16h10",
    decimal: "M9 25v-9M4 16h10M14 23.5h.5",
  }[peg.tab?.align ?? "left"]
  return <path d={flag} fill="none" stroke={ink} strokeWidth="2" strokeLinecap="round" />
}

export function PegHandle({ peg, geometry, tall }: { peg: Peg; geometry: Geometry; tall: boolean }) {
  const session = useSession()
  const unit = useUnit((s) => s.unit)
  const [dragged, setDragged] = useState<number | null>(null)
  const { scale, left, width, rtl } = geometry
  const distance = dragged ?? peg.at
  // The right edge is counted from the right.
  const fromStart = peg.shape === "end" ? width - distance : distance
  const x = left + (rtl ? width - fromStart : fromStart) * scale
  const guide = (at: number | null) => {
    if (at === null) return session.store.setState({ guide: null })
    const column = session.store.getState().view.column
    if (!column) return
    const seen = peg.shape === "end" ? width - at : at
    session.store.setState({ guide: { x: column.x + ((rtl ? width - seen : seen) / width) * column.width, y: null } })
  }

  const onDown = (event: PointerEvent<HTMLDivElement>) =>
    dragLength(event, {
      along: "x",
      value: peg.at,
      perPixel: ((rtl ? -1 : 1) * (peg.shape === "end" ? -1 : 1)) / scale,
      snap: units[unit] * grid[unit],
      least: peg.least,
      most: peg.most,
      ...(peg.tab ? { pullOff } : {}),
      show: (to) => {
        setDragged(to === undefined ? null : (to ?? peg.at))
        guide(to ?? null)
        session.trial.show(to === undefined ? null : peg.move(to), "once")
      },
      take: (to) => void session.run(peg.move(to)),
    })

  const onKey = (event: KeyboardEvent) => {
    const direction = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0
    if (direction === 0 && event.key !== "Delete") return
    event.preventDefault()
    event.stopPropagation()
    if (event.key === "Delete") {
      if (peg.tab) session.run(peg.move(null))
    } else
      session.run(
        peg.move(
          Math.max(
            peg.least,
            Math.min(
              peg.most,
              stepLength(peg.at, (direction * (rtl ? -1 : 1) * (peg.shape === "end" ? -1 : 1)) as -1 | 1, unit),
            ),
          ),
        ),
      )
  }

  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={peg.label}
      aria-valuenow={inUnit(distance, unit)}
      aria-valuemin={-200}
      aria-valuemax={inUnit(width, unit)}
      aria-valuetext={`${inUnit(distance, unit)} ${unit}`}
      title={`${peg.label}: ${inUnit(distance, unit)} ${unit}`}
      onPointerDown={onDown}
      onKeyDown={onKey}
      // The pin of the first line has the upper half, so that it and the post below it can each be taken.
      className={`absolute top-0 cursor-ew-resize touch-none ${peg.shape === "first" ? "h-1/2" : "h-full"}`}
      style={{ left: x - (tall ? 16 : 10), width: tall ? 32 : 20, zIndex: peg.shape === "first" ? 2 : 1 }}
    >
      <svg
        width={18}
        height={26}
        viewBox="0 0 18 26"
        aria-hidden
        className="pointer-events-none absolute left-1/2 -translate-x-1/2 overflow-visible"
        style={{ top: tall ? 19 : 0 }}
      >
        <PegShape peg={peg} />
      </svg>
    </div>
  )
}

/** Room in points that is left for text between the edges. */
const leastRoom = 18

export function usePegs(width: number): Peg[] {
  const { first, start, end, tabs } = useDesk(({ editor }) => ({
    first: editor ? paragraphValue(editor, "indentFirst") : undefined,
    start: editor ? paragraphValue(editor, "indentLeft") : undefined,
    end: editor ? paragraphValue(editor, "indentRight") : undefined,
    tabs: editor ? paragraphValue(editor, "tabs") : undefined,
  }))
  const far = 1500
  const most = width > 0 && end !== undefined ? Math.max(0, width - end - leastRoom) : far
  const mostEnd =
    width > 0 && start !== undefined ? Math.max(0, width - Math.max(start, start + (first ?? 0)) - leastRoom) : far
  const pegs: Peg[] = []
  if (start !== undefined && first !== undefined)
    pegs.push({
      key: "first",
      label: "First line",
      at: start + first,
      least: -400,
      most,
      shape: "first",
      move: (to) => setParagraphs({ indentFirst: (to ?? 0) - start }, "Indent of the first line"),
    })
  if (start !== undefined)
    pegs.push({
      key: "start",
      label: "Indent at the start",
      at: start,
      least: -400,
      most: most - Math.max(0, first ?? 0),
      shape: "start",
      move: (to) => setParagraphs({ indentLeft: to ?? 0 }, "Indent"),
    })
  if (end !== undefined)
    pegs.push({
      key: "end",
      label: "Indent at the end",
      at: end,
      least: -400,
      most: mostEnd,
      shape: "end",
      move: (to) => setParagraphs({ indentRight: to ?? 0 }, "Indent at the end"),
    })
  for (const [i, tab] of (tabs ?? []).entries())
    pegs.push({
      key: `tab ${i}`,
      label: `Tab stop ${i + 1}, ${tabKinds.find(([kind]) => kind === tab.align)?.[1].toLowerCase()}`,
      at: tab.position,
      least: 0,
      most: far,
      shape: "tab",
      tab,
      move: (to) => placeTab(to === null ? null : { ...tab, position: to }, tab.position),
    })
  return pegs
}
