/** What keys of typing mean where the caret is. */
import { firstOf, type Command } from "./command"
import { atItemStart, deleteMark, endItem, stepLevel } from "./lists"
import { stepIndent } from "./paragraphs"
import { deleteBackward, insertText, splitParagraph } from "./text"

/** Enter: the next paragraph or item; in an item without text the end of the list. */
export const enter: Command = firstOf(endItem, splitParagraph)

/** Backspace: at the start of an item its mark, else what stands before the caret. */
export const backspace: Command = firstOf(deleteMark, deleteBackward)

/** Tab: at the start of items a level deeper, over several paragraphs a step of indent, else a tab. */
export const tabKey: Command = (state, dispatch) => {
  if (atItemStart(state)) return stepLevel(1)(state, dispatch)
  return (state.selection.$from.sameParent(state.selection.$to) ? insertText("\t") : stepIndent(1))(state, dispatch)
}

/** Shift and Tab: in items a level up, else a step of indent less. */
export const backTabKey: Command = firstOf(stepLevel(-1), stepIndent(-1))
