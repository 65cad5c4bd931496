/** Dragging on the sheets, which scroll under the pointer where it comes near the edge of the window. */
import type { SheetView } from "../view/sheetView"

/** Movement, in pixels, up to which a press is none but a press. */
export const sameSpot = 8
/** Distance from the edge at which dragging scrolls, and pixels a frame. */
const scrollEdge = 36
const scrollStep = 14

/**
 * Follows the pointer until it is let go.
 * @param moved called when the press has become a drag
 */
export function dragOnSheets(
  view: SheetView,
  event: PointerEvent,
  element: HTMLElement,
  moved: () => void,
  move: (x: number, y: number) => void,
  done?: (x: number, y: number, event: PointerEvent) => void,
): void {
  let scrolling = 0

  element.setPointerCapture(event.pointerId)
  let last = { x: event.clientX, y: event.clientY }
  const scroll = () => {
    const { top, bottom } = view.host.getBoundingClientRect()
    const step = last.y < top + scrollEdge ? -scrollStep : last.y > bottom - scrollEdge ? scrollStep : 0
    if (step !== 0) {
      view.room.scrollTo(view.room.scrollTop + step)
      move(last.x, last.y)
    }
    scrolling = requestAnimationFrame(scroll)
  }
  const onMove = (e: PointerEvent) => {
    if (e.pointerId !== event.pointerId) return
    if (scrolling === 0 && Math.hypot(e.clientX - event.clientX, e.clientY - event.clientY) > sameSpot)
      scrolling = requestAnimationFrame(scroll)
    if (scrolling !== 0) moved()
    last = { x: e.clientX, y: e.clientY }
    move(last.x, last.y)
  }
  const end = (e: PointerEvent) => {
    if (e.pointerId !== event.pointerId) return
    cancelAnimationFrame(scrolling)
    scrolling = 0
    element.removeEventListener("pointermove", onMove)
    element.removeEventListener("pointerup", end)
    element.removeEventListener("pointercancel", end)
    done?.(e.clientX, e.clientY, e)
  }
  element.addEventListener("pointermove", onMove)
  element.addEventListener("pointerup", end)
  element.addEventListener("pointercancel", end)
}
