import { useRef, useState, type PointerEvent as ReactPointerEvent } from "react"
import { followPress } from "../ui/followPress"
import { toolNamed } from "./registry"
import { usePocket } from "./pocket"
import { PlainToolButton } from "./ToolButton"
import { Bar } from "../ui/bar"

/** A move of so many pixels takes hold of a tool. */
const grab = 6
const size = 44

/** The pocket's tools as buttons; dragged, they change their order. */
export function Pocket({ upright }: { upright: boolean }) {
  const ids = usePocket((s) => s.ids)
  const [held, setHeld] = useState<string | null>(null)
  const dragged = useRef(false)
  if (ids.length === 0) return null

  // The window listens: an element that changes its place loses the pointer.
  const drag = (id: string, event: ReactPointerEvent) => {
    const from = ids.indexOf(id)
    dragged.current = false
    followPress(window, event, {
      slack: grab,
      move: (dx, dy) => {
        dragged.current = true
        setHeld(id)
        const to = Math.max(0, Math.min(ids.length - 1, from + Math.round((upright ? dy : dx) / size)))
        const pocket = usePocket.getState()
        if (pocket.ids.indexOf(id) !== to) pocket.move(id, to)
      },
      end: (how) => {
        if (how === "putBack") usePocket.getState().move(id, from)
        setHeld(null)
      },
    })
  }

  return (
    <Bar label="Pocket" upright={upright} className="items-center">
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
    </Bar>
  )
}
