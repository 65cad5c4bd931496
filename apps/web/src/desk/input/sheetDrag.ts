/** Dragging on the sheets, which scroll under the pointer where it comes near the edge of the window. */
import { followPress } from "../../ui/followPress"
import type { SheetView } from "../view/sheetView"

/** Movement, in pixels, up to which a press is none but a press. */
export const sameSpot = 8
/** Distance from the edge at which dragging scrolls, and pixels a frame. */
const scrollEdge = 36
const scrollStep = 14

/** Told where a drag ended, and the event by which it was let go there; null where it was put back. */
export type DragEnd = (x: number, y: number, event: PointerEvent | null) => void

/**
 * Follows the pointer until it is let go.
 * @param moved called when the press has become a drag
 */
export function dragOnSheets(
  view: SheetView,
  press: PointerEvent,
  element: HTMLElement,
  moved: () => void,
  move: (x: number, y: number) => void,
  done: DragEnd,
): void {
  let scrolling = 0
  let last = { x: press.clientX, y: press.clientY }
  const scroll = () => {
    const { top, bottom } = view.host.getBoundingClientRect()
    const step = last.y < top + scrollEdge ? -scrollStep : last.y > bottom - scrollEdge ? scrollStep : 0
    if (step !== 0) {
      view.room.scrollTo(view.room.scrollTop + step)
      move(last.x, last.y)
    }
    scrolling = requestAnimationFrame(scroll)
  }
  followPress(element, press, {
    move: (dx, dy, event) => {
      if (scrolling === 0 && Math.hypot(dx, dy) > sameSpot) scrolling = requestAnimationFrame(scroll)
      if (scrolling !== 0) moved()
      last = { x: event.clientX, y: event.clientY }
      move(last.x, last.y)
    },
    end: (how, event) => {
      cancelAnimationFrame(scrolling)
      done(event?.clientX ?? last.x, event?.clientY ?? last.y, how === "putBack" ? null : event)
    },
  })
}
