import type { FocusEvent, MouseEvent, PointerEvent } from "react"
import type { Command } from "@biblon/core/editing"
import type { DeskSession } from "./session"

/** Where a value was last chosen: what comes under the pointer there afterwards, by itself, is not tried. */
let chosenAt = { x: NaN, y: NaN }

/** Props for something that shows what a command would come to while a pointer or the focus is on it, and runs it when pressed. */
export function trying(session: DeskSession, command: Command, onDone?: () => void) {
  return {
    onPointerEnter: (event: PointerEvent) => {
      if (event.pointerType === "mouse" && (event.clientX !== chosenAt.x || event.clientY !== chosenAt.y))
        session.trial.show(command)
    },
    onPointerDown: (event: PointerEvent) => {
      if (event.pointerType !== "mouse") session.trial.show(command, "once")
    },
    onPointerLeave: () => session.trial.show(null),
    onPointerCancel: () => session.trial.show(null),
    onFocus: (event: FocusEvent<HTMLElement>) => {
      if (event.currentTarget.matches(":focus-visible")) session.trial.show(command)
    },
    onBlur: () => session.trial.show(null),
    onClick: (event: MouseEvent) => {
      chosenAt = { x: event.clientX, y: event.clientY }
      session.run(command)
      onDone?.()
    },
  }
}
