import type { PointerEvent } from "react"
import { limits, type PageSetup } from "@biblon/core/document"
import { columnsIn } from "@biblon/core/layout"
import type { Command, NumberPlace } from "@biblon/core/editing"
import { inUnit, stepLength, units, useUnit } from "../../../ui/units"
import { useSession } from "../../context"
import { dragLength } from "../../dragging"
import { Press } from "../../../ui/bar"

/** Pixels into which the longer side of the sheet is drawn: to look at, and to tap. */
const [looked, tapped] = [128, 190]

const places = [
  ["head", 0],
  ["head", 1],
  ["head", 2],
  ["foot", 0],
  ["foot", 1],
  ["foot", 2],
] as const
const words = { head: "at the head", foot: "at the foot" }
const sides = ["left", "middle", "right"]

type Margins = Partial<PageSetup["margins"]>

interface MarginsDragged {
  /** What comes of margins, to be tried. */
  set(margins: Margins): Command
  take(margins: Margins): void
}

const sideNames = { top: "Top", right: "Right", bottom: "Bottom", left: "Left" }

/** An edge of the text in the drawing, to be dragged or moved by keys; what it comes to shows on the sheets meanwhile. */
function MarginHandle({
  side,
  scale,
  setup,
  show,
  take,
}: {
  side: keyof PageSetup["margins"]
  scale: number
  setup: PageSetup
  show: (value: number | null) => void
  take: (value: number) => void
}) {
  const unit = useUnit((s) => s.unit)
  const upright = side === "left" || side === "right"
  const value = setup.margins[side]
  const inward = side === "left" || side === "top" ? 1 : -1
  const edge = (value + (side === "left" ? setup.gutter : 0)) * scale
  const onDown = (event: PointerEvent<HTMLDivElement>) =>
    dragLength(event, {
      along: upright ? "x" : "y",
      value,
      perPixel: inward / scale,
      snap: units[unit] * (unit === "cm" ? 0.1 : unit === "in" ? 0.0625 : 1),
      least: 0,
      most: limits.space[1],
      show: (to) => show(to ?? null),
      take: (to) => to !== null && take(to),
    })
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={`${sideNames[side]} margin`}
      aria-valuenow={inUnit(value, unit)}
      aria-valuemin={0}
      aria-valuemax={inUnit(limits.space[1], unit)}
      aria-valuetext={`${inUnit(value, unit)} ${unit}`}
      title={`${sideNames[side]} margin: ${inUnit(value, unit)} ${unit}`}
      onPointerDown={onDown}
      onKeyDown={(event) => {
        const keys = upright ? ["ArrowLeft", "ArrowRight"] : ["ArrowUp", "ArrowDown"]
        const direction = keys.indexOf(event.key) * 2 - 1
        if (direction < -1) return
        event.preventDefault()
        event.stopPropagation()
        take(Math.max(0, stepLength(value, (direction * inward) as -1 | 1, unit)))
      }}
      className={`group absolute flex touch-none items-center justify-center ${upright ? "inset-y-0 w-6 cursor-ew-resize" : "inset-x-0 h-6 cursor-ns-resize"}`}
      style={{ [side]: edge - 12 }}
    >
      <span className={`bg-murex opacity-60 group-hover:opacity-100 ${upright ? "h-full w-px" : "h-px w-full"}`} />
      <span className={`absolute rounded-full bg-murex ${upright ? "h-5 w-[5px]" : "h-[5px] w-5"}`} />
    </div>
  )
}

/**
 * A small drawing of a sheet as its setup makes it.
 * @param number where the numbers stand, and what it is to tap a place; left out where they are not chosen here
 * @param dragged what dragging the edges of the text comes to; left out where they stand still
 */
export function SheetDrawing({
  setup,
  number,
  margins: dragged,
}: {
  setup: PageSetup
  number?: { place: NumberPlace | null; onPlace: (place: NumberPlace) => void }
  margins?: MarginsDragged
}) {
  const session = useSession()
  const { width, height, margins, gutter, columns, head, foot, colour, frame, watermark } = setup
  const scale = (number || dragged ? tapped : looked) / Math.max(width, height)
  const px = (points: number) => `${Math.round(points * scale * 10) / 10}px`
  const left = margins.left + gutter
  const text = columnsIn(Math.max(0, width - left - margins.right), columns)
  const textHeight = Math.max(0, height - margins.top - margins.bottom)
  return (
    <div className="flex items-center justify-center rounded-tray bg-desk py-4">
      <div
        role="group"
        aria-label="The sheet as it will be"
        className="relative shadow-md"
        style={{ width: px(width), height: px(height), background: colour ?? "#ffffff" }}
      >
        {frame ? (
          <div
            className="absolute"
            style={{
              inset: px(Math.min(frame.distance, Math.min(width, height) / 2 - 2)),
              border: `${frame.pattern === "double" ? 3 : Math.max(1, Math.round(frame.width * scale))}px ${frame.pattern === "wavy" ? "solid" : frame.pattern} ${frame.colour}`,
            }}
          />
        ) : null}
        {watermark ? (
          <div
            aria-hidden
            className="absolute inset-0 flex items-center justify-center overflow-hidden whitespace-nowrap font-display"
            style={{ color: watermark.colour, opacity: watermark.strength }}
          >
            <span
              style={{
                fontSize: Math.min(watermark.size * scale, (1.6 * width * scale) / Math.max(3, watermark.text.length)),
                transform: `rotate(${-watermark.angle}deg)`,
              }}
            >
              {watermark.text}
            </span>
          </div>
        ) : null}
        {text.map((column) => (
          <div
            key={column.left}
            className="absolute"
            style={{
              left: px(left + column.left),
              top: px(margins.top),
              width: px(column.width),
              height: px(textHeight),
              background: "repeating-linear-gradient(#5e564b55 0 1.5px, transparent 1.5px 6px)",
            }}
          />
        ))}
        {columns.line
          ? text.slice(1).map((column) => (
              <div
                key={column.left}
                className="absolute bg-ink-soft"
                style={{
                  left: px(left + column.left - columns.gap / 2),
                  top: px(margins.top),
                  width: "1px",
                  height: px(textHeight),
                }}
              />
            ))
          : null}
        {dragged
          ? (["top", "right", "bottom", "left"] as const).map((side) => (
              <MarginHandle
                key={side}
                side={side}
                scale={scale}
                setup={setup}
                show={(value) => session.trial.show(value === null ? null : dragged.set({ [side]: value }), "once")}
                take={(value) => dragged.take({ [side]: value })}
              />
            ))
          : null}
        {number
          ? places.map(([edge, part]) => {
              const { place } = number
              const on = place?.edge === edge && (place.part === part || (place.part === "outer" && part === 2))
              const y = edge === "head" ? head.distance + 6 : height - foot.distance - 6
              const x = [left, width / 2, width - margins.right][part] as number
              return (
                <Press
                  key={`${edge}${part}`}
                  type="button"
                  aria-label={`Number ${words[edge]}, ${sides[part]}`}
                  aria-pressed={on}
                  onClick={() => number.onPlace({ edge, part })}
                  className="absolute flex h-11 w-11 cursor-pointer items-center justify-center border-0 bg-transparent p-0"
                  style={{ left: `calc(${px(x)} - 22px)`, top: `calc(${px(y)} - 22px)` }}
                >
                  <span
                    className={`flex h-[18px] w-[18px] items-center justify-center rounded-button text-[11px] ${on ? "bg-murex font-ui-bold text-on-murex" : "border border-dashed border-ink-soft bg-white text-transparent"}`}
                  >
                    1
                  </span>
                </Press>
              )
            })
          : null}
      </div>
    </div>
  )
}
