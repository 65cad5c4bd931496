import type { PageSetup } from "@biblon/core/document"
import { columnsIn } from "@biblon/core/layout"
import type { NumberPlace } from "@biblon/core/editing"

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

/**
 * A small drawing of a sheet as its setup makes it.
 * @param number where the numbers stand, and what it is to tap a place; left out where they are not chosen here
 */
export function SheetDrawing({
  setup,
  number,
}: {
  setup: PageSetup
  number?: { place: NumberPlace | null; onPlace: (place: NumberPlace) => void }
}) {
  const { width, height, margins, gutter, columns, head, foot, colour } = setup
  const scale = (number ? tapped : looked) / Math.max(width, height)
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
        {number
          ? places.map(([edge, part]) => {
              const { place } = number
              const on = place?.edge === edge && (place.part === part || (place.part === "outer" && part === 2))
              const y = edge === "head" ? head.distance + 6 : height - foot.distance - 6
              const x = [left, width / 2, width - margins.right][part] as number
              return (
                <button
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
                </button>
              )
            })
          : null}
      </div>
    </div>
  )
}
