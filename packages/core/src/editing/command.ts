import type { EditorState, Transaction } from "prosemirror-state"

/** Without `dispatch` it answers "does it apply?"; with it, it acts. */
export type Command = (state: EditorState, dispatch?: (tr: Transaction) => void) => boolean

/** The first of several commands that applies. */
export function firstOf(...commands: Command[]): Command {
  return (state, dispatch) => commands.some((command) => command(state, dispatch))
}

/** Whether something holds for all, none or a part of the selection. */
export type Extent = "on" | "off" | "mixed"
