import type { EditorState, Transaction } from "prosemirror-state"

/** Without `dispatch` it answers "does it apply?"; with it, it acts. */
export type Command = (state: EditorState, dispatch?: (tr: Transaction) => void) => boolean

/** Whether something holds for all, none or a part of the selection. */
export type Extent = "on" | "off" | "mixed"
