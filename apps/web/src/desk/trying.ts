import type { FocusEvent, PointerEvent } from "react"
import type { Command } from "@biblon/core/editing"
import type { DeskSession } from "./session"

/** Props for something that shows what a command would come to while a pointer or the focus is on it, and runs it when pressed. */
export function trying(session: DeskSession, command: Command, onDone?: () => void) {
  return {
    onPointerEnter: (event: PointerEvent) => {
      if (event.pointerType === "mouse") session.trial.show(command)
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
    onClick: () => {
      session.run(command)
      onDone?.()
    },
  }
}
