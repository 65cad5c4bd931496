import { createPortal } from "react-dom"
import { useDesk } from "../context"

/** A line through the text while an indent or a tab stop is dragged. */
export function Guide() {
  const { guide, canvas } = useDesk((s) => ({ guide: s.guide, canvas: s.canvas }))
  if (guide === null || !canvas) return null
  return createPortal(
    <div
      className="pointer-events-none absolute inset-y-0 left-0 z-10 w-px bg-murex"
      style={{ transform: `translateX(${guide}px)` }}
    />,
    canvas,
  )
}
