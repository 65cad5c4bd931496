import { useRef, useState, type PointerEvent as ReactPointerEvent } from "react"
import { View } from "react-native"
import { toolNamed } from "./registry"
import { usePocket } from "./pocket"
import { PlainToolButton } from "./ToolButton"

/** A move of so many pixels takes hold of a tool. */
const grab = 6
const size = 44

/** The pocket's tools as buttons; dragged, they change their order. */
export function Pocket({ upright }: { upright: boolean }) {
  const ids = usePocket((s) => s.ids)
  const [held, setHeld] = useState<string | null>(null)
  const dragged = useRef(false)
  if (ids.length === 0) return null
  const along = (event: { clientX: number; clientY: number }) => (upright ? event.clientY : event.clientX)

  // The window listens: an element that changes its place loses the pointer.
  const drag = (id: string, event: ReactPointerEvent) => {
    const start = along(event)
    const from = ids.indexOf(id)
    dragged.current = false
    const onMove = (e: PointerEvent) => {
      if (Math.abs(along(e) - start) < grab && !dragged.current) return
      dragged.current = true
      setHeld(id)
      const to = Math.max(0, Math.min(ids.length - 1, from + Math.round((along(e) - start) / size)))
      const pocket = usePocket.getState()
      if (pocket.ids.indexOf(id) !== to) pocket.move(id, to)
    }
    const onEnd = () => {
      removeEventListener("pointermove", onMove)
      removeEventListener("pointerup", onEnd)
      removeEventListener("pointercancel", onEnd)
      setHeld(null)
    }
    addEventListener("pointermove", onMove)
    addEventListener("pointerup", onEnd)
    addEventListener("pointercancel", onEnd)
  }

  return (
    <View role="toolbar" aria-label="Pocket" className={upright ? "items-center" : "flex-row items-center"}>
      {ids.map((id) => (
        <div
          key={id}
          style={{ touchAction: "none" }}
          className={held === id ? "rounded-button bg-murex-soft opacity-80" : ""}
          onPointerDown={(event) => drag(id, event)}
          onClickCapture={(event) => {
            if (dragged.current) event.stopPropagation()
          }}
        >
          <PlainToolButton tool={toolNamed(id)} />
        </div>
      ))}
    </View>
  )
}
