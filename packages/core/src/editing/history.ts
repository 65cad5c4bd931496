/** Undo and redo: typing joins into one entry until there is a pause, a jump of the caret or another kind of change. */
import { history, redo as redoCommand, redoDepth, undo as undoCommand, undoDepth } from "prosemirror-history"
import type { Plugin } from "prosemirror-state"
import type { Command } from "./command"

export function editHistory(): Plugin {
  return history({ depth: 10000, newGroupDelay: 600 })
}

export const undo: Command = undoCommand
export const redo: Command = redoCommand
export { redoDepth, undoDepth }
