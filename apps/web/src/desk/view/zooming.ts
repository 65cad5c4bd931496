/** Zooming by two fingers and by the wheel with Ctrl. */

export interface ZoomTarget {
  /** The scale now, and a new one, both as factors of nothing in particular. */
  zoomBy(factor: number): void
}

const wheelSpeed = 0.0025

/** Follows two fingers with a transform, and zooms for good when they let go. Returns what ends it. */
export function attachZooming(host: HTMLElement, canvas: HTMLElement, target: ZoomTarget): () => void {
  let start: { distance: number; factor: number } | null = null
  const distance = (touches: TouchList) => {
    const [a, b] = [touches[0] as Touch, touches[1] as Touch]
    return {
      distance: Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY),
      x: (a.clientX + b.clientX) / 2,
      y: (a.clientY + b.clientY) / 2,
    }
  }
  const onTouchMove = (event: TouchEvent) => {
    if (event.touches.length !== 2) return
    event.preventDefault()
    const now = distance(event.touches)
    if (!start) {
      const rect = canvas.getBoundingClientRect()
      canvas.style.transformOrigin = `${now.x - rect.left}px ${now.y - rect.top}px`
      start = { distance: now.distance, factor: 1 }
    }
    start.factor = now.distance / start.distance
    canvas.style.transform = `scale(${start.factor})`
  }
  const onTouchEnd = () => {
    if (!start) return
    const { factor } = start
    start = null
    canvas.style.transform = ""
    target.zoomBy(factor)
  }
  const onWheel = (event: WheelEvent) => {
    if (!event.ctrlKey) return
    event.preventDefault()
    target.zoomBy(Math.exp(-event.deltaY * wheelSpeed))
  }
  host.addEventListener("touchmove", onTouchMove, { passive: false })
  host.addEventListener("touchend", onTouchEnd)
  host.addEventListener("touchcancel", onTouchEnd)
  host.addEventListener("wheel", onWheel, { passive: false })
  return () => {
    host.removeEventListener("touchmove", onTouchMove)
    host.removeEventListener("touchend", onTouchEnd)
    host.removeEventListener("touchcancel", onTouchEnd)
    host.removeEventListener("wheel", onWheel)
  }
}
