/** A press on a handle, followed until it is let go; Escape and a pointer that is lost put back. */

export interface Press {
  readonly button: number
  readonly pointerId: number
  readonly clientX: number
  readonly clientY: number
  preventDefault(): void
  stopPropagation(): void
}

export interface Followed {
  /** Movement, in pixels, up to which a press is none but a press. */
  slack?: number
  /** Called as the pointer moves, with how far it is from where it was pressed, in pixels. */
  move(dx: number, dy: number, event: PointerEvent): void
  /** Called once: let go after it was moved, let go where it was pressed, or put back. */
  end(how: "moved" | "pressed" | "putBack", event: PointerEvent | null): void
}

/** @param where what hears of the pointer: the handle, or the window if the handle may go away meanwhile */
export function followPress(where: HTMLElement | Window, press: Press, { slack = 0, move, end }: Followed): void {
  const over = new AbortController()
  const { signal } = over
  const { pointerId, clientX, clientY } = press
  let moved = false
  if ("setPointerCapture" in where) where.setPointerCapture(pointerId)
  /** Listens to this pointer only. */
  const on = (type: "pointermove" | "pointerup" | "pointercancel", hear: (event: PointerEvent) => void) =>
    where.addEventListener(
      type,
      (event) => (event as PointerEvent).pointerId === pointerId && hear(event as PointerEvent),
      {
        signal,
      },
    )
  const finish = (how: Parameters<Followed["end"]>[0], event: PointerEvent | null) => {
    over.abort()
    end(how, event)
  }
  on("pointermove", (event) => {
    const [dx, dy] = [event.clientX - clientX, event.clientY - clientY]
    moved ||= Math.hypot(dx, dy) > slack
    if (moved) move(dx, dy, event)
  })
  on("pointerup", (event) => finish(moved ? "moved" : "pressed", event))
  on("pointercancel", (event) => finish("putBack", event))
  addEventListener(
    "keydown",
    (event) => {
      if (event.key !== "Escape") return
      event.preventDefault()
      event.stopPropagation()
      finish("putBack", null)
    },
    { capture: true, signal },
  )
}

/** For handles of their own: the main button only, and nobody else hears of the press. */
export function takePress(press: Press): boolean {
  if (press.button !== 0) return false
  press.preventDefault()
  press.stopPropagation()
  return true
}
