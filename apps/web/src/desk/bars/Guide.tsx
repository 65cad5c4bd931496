import { createPortal } from "react-dom"
import { useDesk } from "../context"

/** Lines over the sheets at which what is dragged stands: an indent, a tab stop, a picture. */
export function Guide() {
  const { guide, canvas } = useDesk((s) => ({ guide: s.guide, canvas: s.canvas }))
  if (guide === null || !canvas) return null
  const look = "pointer-events-none absolute z-10 bg-murex"
  return createPortal(
    <>
      {guide.x === null ? null : (
        <div className={`${look} inset-y-0 left-0 w-px`} style={{ transform: `translateX(${guide.x}px)` }} />
      )}
      {guide.y === null ? null : (
        <div className={`${look} inset-x-0 top-0 h-px`} style={{ transform: `translateY(${guide.y}px)` }} />
      )}
    </>,
    canvas,
  )
}
