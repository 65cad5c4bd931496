import { useMemo, type ReactNode } from "react"
import { createPortal } from "react-dom"
import { View } from "react-native"
import { autoUpdate, flip, limitShift, offset, shift, size, useFloating } from "@floating-ui/react-dom"
import type { Box } from "@biblon/core/layout"
import { useDesk } from "../context"

/** Between the card, what it belongs to, and the edges of what is in sight. */
const gap = 8
/** So far before what it belongs to it begins. */
const before = 40

/** A card that lies on the sheets by something, and moves with it: below it, or above where there is no room, and whole in sight as long as that is. */
export function FloatingCard({
  label,
  by,
  width,
  children,
}: {
  label: string
  /** In pixels of the canvas. */
  by: Box
  width: number
  children: ReactNode
}) {
  const canvas = useDesk((s) => s.canvas)
  const { x, y, width: own, height } = by
  const reference = useMemo(
    () =>
      canvas && {
        contextElement: canvas,
        getBoundingClientRect: () => {
          const { left, top } = canvas.getBoundingClientRect()
          return DOMRect.fromRect({ x: left + x, y: top + y, width: own, height })
        },
      },
    [canvas, x, y, own, height],
  )
  const middleware = useMemo(() => {
    const sight = { boundary: canvas?.parentElement ?? [], padding: gap }
    return [
      offset({ mainAxis: gap, alignmentAxis: -before }),
      flip({ ...sight, crossAxis: false }),
      shift({ ...sight, crossAxis: true, limiter: limitShift() }),
      size({
        ...sight,
        apply: ({ availableHeight, elements }) => {
          elements.floating.style.maxHeight = `${availableHeight}px`
        },
      }),
    ]
  }, [canvas])
  const { refs, floatingStyles, isPositioned } = useFloating({
    open: true,
    placement: "bottom-start",
    middleware,
    elements: { reference },
    whileElementsMounted: autoUpdate,
  })
  if (!canvas) return null
  // Until it is known where it lies it is below, and seen: what is hidden cannot have the keys.
  const left = Math.max(gap, Math.min(canvas.clientWidth - width - gap, x - before))
  const below = { transform: `translate(${left}px, ${y + height + gap}px)` }
  return createPortal(
    <div
      ref={refs.setFloating}
      className="floating z-10 flex cursor-default overflow-y-auto rounded-tray border border-line bg-surface shadow-md"
      style={{ ...floatingStyles, width, ...(isPositioned ? {} : below) }}
    >
      <View role="group" aria-label={label} className="w-full">
        {children}
      </View>
    </div>,
    canvas,
  )
}
