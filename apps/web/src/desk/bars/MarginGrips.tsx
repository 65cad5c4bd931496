import { useState } from "react"
import { sectionsOf } from "@biblon/core/document"
import { changeSetup, setupHere } from "@biblon/core/editing"
import { inUnit, stepLength, units, useUnit } from "../../ui/units"
import { useDesk, useSession } from "../context"
import { dragLength } from "../dragging"
import { grid, type Geometry } from "./rulerPegs"

/** The margins at the left and right, to be dragged at the edges of the text. Where inside and outside differ they are set in the tray. */
export function MarginGrips({ geometry }: { geometry: Geometry }) {
  const session = useSession()
  const unit = useUnit((s) => s.unit)
  const { setup, many } = useDesk(({ editor }) => ({
    setup: editor ? setupHere(editor) : null,
    many: editor ? sectionsOf(editor.doc).length > 1 : false,
  }))
  const [dragged, setDragged] = useState<{ side: "left" | "right"; to: number } | null>(null)
  if (!setup || setup.mirrored) return null
  const { scale, from, to } = geometry
  const { margins, gutter } = setup
  return (["left", "right"] as const).map((side) => {
    const value = dragged?.side === side ? dragged.to : margins[side]
    const x = side === "left" ? from + (value + gutter) * scale : to - value * scale
    const set = (next: number) =>
      changeSetup((own) => ({ ...own, margins: { ...own.margins, [side]: next } }), many ? "here" : "all", "Margins")
    return (
      <div
        key={side}
        role="slider"
        tabIndex={0}
        aria-label={`${side === "left" ? "Left" : "Right"} margin`}
        aria-valuenow={inUnit(value, unit)}
        aria-valuemin={0}
        aria-valuemax={inUnit(setup.width, unit)}
        aria-valuetext={`${inUnit(value, unit)} ${unit}`}
        title={`${side === "left" ? "Left" : "Right"} margin: ${inUnit(value, unit)} ${unit}`}
        onPointerDown={(event) =>
          dragLength(event, {
            along: "x",
            value: margins[side],
            perPixel: (side === "left" ? 1 : -1) / scale,
            snap: units[unit] * grid[unit],
            least: 0,
            most: setup.width,
            show: (next) => {
              setDragged(typeof next === "number" ? { side, to: next } : null)
              session.trial.show(typeof next === "number" ? set(next) : null, "once")
            },
            take: (next) => next !== null && session.run(set(next)),
          })
        }
        onKeyDown={(event) => {
          const direction = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0
          if (direction === 0) return
          event.preventDefault()
          event.stopPropagation()
          session.run(
            set(Math.max(0, stepLength(margins[side], (side === "left" ? direction : -direction) as -1 | 1, unit))),
          )
        }}
        className="absolute top-0 flex h-full w-3.5 cursor-col-resize touch-none items-center justify-center"
        style={{ left: side === "left" ? x - 22 : x + 8 }}
      >
        <span className="h-3 w-[3px] rounded-full bg-ink-soft opacity-60" />
      </div>
    )
  })
}
