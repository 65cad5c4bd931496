/** Dragging a length along a line: shown while it is dragged, taken when it is let go, put back by Escape. */
import type { PointerEvent as ReactPointerEvent } from "react"
import { followPress, takePress } from "../ui/followPress"

export interface DraggedLength {
  along: "x" | "y"
  value: number
  /** What a pixel comes to; below zero where lengths grow to the left or upwards. */
  perPixel: number
  /** Lengths are multiples of this. */
  snap: number
  least: number
  most: number
  /** From so many pixels across the line on, what is dragged is pulled off. */
  pullOff?: number
  /** Called with what it is at the moment, null where it is pulled off; `undefined` when dragging is over. */
  show(to: number | null | undefined): void
  /** Called if it was let go at another length, or pulled off. */
  take(to: number | null): void
}

/** To be called when a handle is pressed. */
export function dragLength(event: ReactPointerEvent<HTMLElement>, drag: DraggedLength): void {
  if (!takePress(event)) return
  let to: number | null = drag.value
  followPress(event.currentTarget, event, {
    move: (dx, dy) => {
      const [along, across] = drag.along === "x" ? [dx, dy] : [dy, dx]
      const exact = Math.round((drag.value + along * drag.perPixel) / drag.snap) * drag.snap
      to =
        drag.pullOff !== undefined && Math.abs(across) > drag.pullOff
          ? null
          : Math.max(drag.least, Math.min(drag.most, exact))
      drag.show(to)
    },
    end: (how) => {
      drag.show(undefined)
      if (how === "moved" && to !== drag.value) drag.take(to)
    },
  })
}
