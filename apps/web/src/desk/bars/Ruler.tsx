/** The ruler: indents and tab stops of the paragraph at the caret, to be dragged; a line through the text shows where. */
import { useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from "react"
import { paragraphValue, placeTab, setParagraphs, type Command } from "@biblon/core/editing"
import type { TabStop } from "@biblon/core/document"
import { inUnit, stepLength, units, useUnit, type Unit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { tabKinds } from "../trays/write/TabStops"

/** How far, in pixels, a tab stop is pulled off the ruler to remove it. */
const pullOff = 34
/** Steps of a unit to which dragging snaps. */
const grid: Record<Unit, number> = { cm: 0.25, mm: 2.5, in: 0.125, pt: 6 }
/** Units between two numbers. */
const numbered: Record<Unit, number> = { cm: 1, mm: 10, in: 1, pt: 72 }

interface Geometry {
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

function PegHandle({ peg, geometry, tall }: { peg: Peg; geometry: Geometry; tall: boolean }) {
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
    session.store.setState({ guide: column.x + ((rtl ? width - seen : seen) / width) * column.width })
  }

  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return
    event.preventDefault()
    event.stopPropagation()
    const handle = event.currentTarget
    handle.setPointerCapture(event.pointerId)
    const grip = { x: event.clientX, y: event.clientY }
    const snap = units[unit] * grid[unit]
    let to: number | null = peg.at
    const move = (e: globalThis.PointerEvent) => {
      const pulled = peg.tab !== undefined && Math.abs(e.clientY - grip.y) > pullOff
      const sign = (rtl ? -1 : 1) * (peg.shape === "end" ? -1 : 1)
      const exact = peg.at + (sign * (e.clientX - grip.x)) / scale
      to = pulled ? null : Math.round(exact / snap) * snap
      if (to !== null) to = Math.max(peg.least, Math.min(peg.most, to))
      setDragged(to ?? peg.at)
      guide(to)
      session.trial.show(peg.move(to), "once")
    }
    const putBack = (e: globalThis.KeyboardEvent) => {
      if (e.key !== "Escape") return
      e.preventDefault()
      e.stopPropagation()
      to = peg.at
      end(null)
    }
    const end = (e: globalThis.PointerEvent | null) => {
      removeEventListener("keydown", putBack, true)
      handle.removeEventListener("pointermove", move)
      handle.removeEventListener("pointerup", end)
      handle.removeEventListener("pointercancel", end)
      guide(null)
      setDragged(null)
      session.trial.show(null)
      if (e?.type === "pointerup" && to !== peg.at) session.run(peg.move(to))
    }
    addEventListener("keydown", putBack, true)
    handle.addEventListener("pointermove", move)
    handle.addEventListener("pointerup", end)
    handle.addEventListener("pointercancel", end)
  }

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

function usePegs(width: number): Peg[] {
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

function Scale({ geometry, unit }: { geometry: Geometry; unit: Unit }) {
  const { scale, left, width, rtl, from, to } = geometry
  const every = numbered[unit] * units[unit] * scale
  const origin = rtl ? left + width * scale : left
  const marks: ReactNode[] = []
  const fine = 4
  for (let n = Math.ceil(((from - origin) / every) * fine); origin + (n * every) / fine < to; n++) {
    const x = origin + (n * every) / fine
    const distance = rtl ? -n : n
    if (n % fine === 0) {
      if (n !== 0)
        marks.push(
          <text key={n} x={x} y={17} textAnchor="middle" fontSize="10" fill="rgb(var(--ink-soft))" className="font-ui">
            {Math.abs((distance / fine) * numbered[unit])}
          </text>,
        )
    } else
      marks.push(
        <rect
          key={n}
          x={x - 0.5}
          y={n % 2 === 0 ? 10 : 12}
          width="1"
          height={n % 2 === 0 ? 7 : 3}
          fill="rgb(var(--line))"
        />,
      )
  }
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-x-0 top-1/2 h-[26px] w-full -translate-y-1/2">
      <rect x={left} y="3" width={Math.max(0, width * scale)} height="20" rx="4" fill="rgb(var(--raised))" />
      {marks}
    </svg>
  )
}

/** Above the sheets, in line with the column at the caret; compact, as wide as what it stands in. */
export function Ruler({ compact }: { compact?: boolean }) {
  const session = useSession()
  const unit = useUnit((s) => s.unit)
  const bar = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState(0)
  const { column, scale, canvas, rtl } = useDesk((s) => ({
    column: s.view.column,
    scale: s.scale,
    canvas: s.canvas,
    rtl: s.editor ? paragraphValue(s.editor, "direction") === "rtl" : false,
  }))
  useLayoutEffect(() => {
    const element = bar.current
    if (!element) return
    const observer = new ResizeObserver(() => setRoom(element.clientWidth))
    observer.observe(element)
    return () => observer.disconnect()
  }, [])
  const width = column ? column.width / scale : 0
  const pegs = usePegs(width)
  const margin = 20
  const scrolled = canvas?.parentElement?.scrollLeft ?? 0
  const geometry: Geometry | null =
    !column || room === 0
      ? null
      : compact
        ? { scale: (room - 2 * margin) / width, left: margin, width, rtl, from: 0, to: room }
        : {
            scale,
            left: column.x - scrolled,
            width,
            rtl,
            from: column.sheet.x - scrolled,
            to: column.sheet.x + column.sheet.width - scrolled,
          }
  const addTab = (event: PointerEvent<HTMLDivElement>) => {
    if (!geometry || event.button !== 0) return
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left
    const exact = (x - geometry.left) / geometry.scale
    const distance = rtl ? width - exact : exact
    const snap = units[unit] * grid[unit]
    if (distance > 0 && distance < width)
      session.run(placeTab({ position: Math.round(distance / snap) * snap, align: "left", leader: "none" }))
  }
  return (
    <div
      ref={bar}
      role={compact ? "group" : "region"}
      aria-label="Ruler"
      title="Click to put a tab stop"
      onPointerDown={addTab}
      className={`relative w-full shrink-0 overflow-hidden ${compact ? "h-16 rounded-button border border-line bg-surface" : "h-[27px] border-b border-line bg-desk"}`}
    >
      {geometry ? (
        <>
          <Scale geometry={geometry} unit={unit} />
          {pegs.map((peg) => (
            <PegHandle key={peg.key} peg={peg} geometry={geometry} tall={compact === true} />
          ))}
        </>
      ) : null}
    </div>
  )
}
