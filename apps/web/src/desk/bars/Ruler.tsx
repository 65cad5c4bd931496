/** The ruler: indents and tab stops of the paragraph at the caret, to be dragged; a line through the text shows where. */
import { useLayoutEffect, useRef, useState, type PointerEvent, type ReactNode } from "react"
import { paragraphValue, placeTab } from "@biblon/core/editing"
import { units, useUnit, type Unit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { MarginGrips } from "./MarginGrips"
import { grid, numbered, PegHandle, usePegs, type Geometry } from "./rulerPegs"

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
  const { column, scale, canvas, rtl, mode } = useDesk((s) => ({
    mode: s.mode,
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
          {compact || mode === "flow" ? null : <MarginGrips geometry={geometry} />}
          {pegs.map((peg) => (
            <PegHandle key={peg.key} peg={peg} geometry={geometry} tall={compact === true} />
          ))}
        </>
      ) : null}
    </div>
  )
}
