/** What keys of typing mean where the caret is. */
import type { EditorState } from "prosemirror-state"
import { documentAttrs, listPlace, outlineLevel, tableAt } from "../document"
import { takeBreak } from "./breaks"
import { firstOf, type Command } from "./command"
import { atItemStart, deleteMark, endItem, stepLevel } from "./lists"
import { stepIndent } from "./paragraphs"
import { setStyle, headingStyle } from "./styles"
import { nextCell, paragraphBefore } from "./tables"
import { deleteBackward, insertText, splitParagraph } from "./text"

/** Enter: the next paragraph or item; in an item without text the end of the list. */
export const enter: Command = firstOf(endItem, paragraphBefore, splitParagraph)

/** Backspace: at the start of an item its mark, of a sheet or column what begins that, else what stands before the caret. */
export const backspace: Command = firstOf(deleteMark, takeBreak, deleteBackward)

/** Tab: in a table to its next cell, at the start of items a level deeper, over several paragraphs a step of indent, else a tab. */
export const tabKey: Command = (state, dispatch) => {
  if (nextCell(1)(state, dispatch)) return true
  if (atHeadingStart(state)) return stepHeading(1)(state, dispatch)
  if (atItemStart(state)) return stepLevel(1)(state, dispatch)
  return (state.selection.$from.sameParent(state.selection.$to) ? insertText("\t") : stepIndent(1))(state, dispatch)
}

/** Shift and Tab: in items a level up, else a step of indent less. */
export const backTabKey: Command = (state, dispatch) =>
  (tableAt(state.selection.$head)
    ? nextCell(-1)
    : atHeadingStart(state)
      ? stepHeading(-1)
      : firstOf(stepLevel(-1), stepIndent(-1)))(state, dispatch)

/** Whether the caret is at the start of a heading that its style numbers: the number follows the level. */
function atHeadingStart({ doc, selection }: EditorState): boolean {
  const { styles } = documentAttrs(doc)
  const { parent, parentOffset } = selection.$from
  return (
    selection.empty && parentOffset === 0 && outlineLevel(styles, parent) !== null && listPlace(styles, parent) !== null
  )
}

/** The heading at the caret a level deeper or up, alone. */
function stepHeading(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const { styles } = documentAttrs(state.doc)
    const style = headingStyle(styles, (outlineLevel(styles, state.selection.$from.parent) ?? 0) + direction)
    return style !== undefined && setStyle(style)(state, dispatch)
  }
}
