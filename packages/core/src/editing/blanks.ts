/** Blank paragraphs that somebody made to come to a new sheet, and what does it better. */
import type { EditorState } from "prosemirror-state"
import { bodyOf, leavesOf, paragraphAttrs, setEntries } from "../document"
import type { Command } from "./command"
import { named } from "./history"

/** How many blank paragraphs stand before the one with the caret, one after another; 0 where that is not blank itself, or not in the body. */
export function blanksBefore(state: EditorState): number {
  const { $head, empty } = state.selection
  if (!empty || $head.depth !== 2 || $head.node(1) !== bodyOf(state.doc) || $head.parent.content.size > 0) return 0
  const here = $head.index(1)
  let first = here
  const blank = (n: number) => {
    const node = $head.node(1).child(n)
    return node.isTextblock && node.content.size === 0
  }
  while (first > 0 && blank(first - 1)) first--
  return here - first
}

/** Takes those blank paragraphs away, and has the one with the caret begin a new sheet. */
export const blanksToBreak: Command = (state, dispatch) => {
  const count = blanksBefore(state)
  if (count === 0) return false
  if (!dispatch) return true
  const { $head } = state.selection
  const leaves = leavesOf(state.doc)
  const leaf = leaves.at($head.pos)
  const { tr } = state
  tr.delete(leaves.before(leaf - count), leaves.before(leaf))
  const pos = tr.mapping.map($head.before())
  setEntries(tr, pos, "format", { ...paragraphAttrs($head.parent).format, breakBefore: true })
  dispatch(named(tr, "New sheet in place of blank paragraphs").scrollIntoView())
  return true
}
