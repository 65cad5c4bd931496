import type { ReactNode } from "react"
import { createPortal } from "react-dom"
import { View } from "react-native"
import type { Box } from "@biblon/core/layout"
import { useDesk } from "../context"

/** A card that lies on the sheets below something, and moves with them. */
export function FloatingCard({
  label,
  below,
  width,
  children,
}: {
  label: string
  /** In pixels of the canvas. */
  below: Box
  width: number
  children: ReactNode
}) {
  const canvas = useDesk((s) => s.canvas)
  if (!canvas) return null
  const left = Math.max(8, Math.min(canvas.clientWidth - width - 8, below.x - 40))
  return createPortal(
    <div
      className="floating absolute left-0 top-0 z-10 cursor-default"
      style={{ transform: `translate(${left}px, ${below.y + below.height + 8}px)` }}
    >
      <View
        role="group"
        aria-label={label}
        className="overflow-hidden rounded-tray border border-line bg-surface shadow-md"
        style={{ width }}
      >
        {children}
      </View>
    </div>,
    canvas,
  )
}
