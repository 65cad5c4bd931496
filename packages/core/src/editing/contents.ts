/** Lists of contents: put in, changed, and taken away again. */
import { TextSelection, type EditorState } from "prosemirror-state"
import { bodyOf, contentsAttrs, nodes, positionOf, structuresOf, type ContentsAttrs } from "../document"
import type { Command } from "./command"
import { named } from "./history"

/** What contents are when they are put in. */
export const usualContents: ContentsAttrs = { levels: 3, look: "dotted", of: "" }

/** The first list of contents of a document, with its position; null for none. */
export function contentsIn(state: EditorState): (ContentsAttrs & { pos: number }) | null {
  const body = bodyOf(state.doc)
  for (const i of structuresOf(body, "contents")) {
    const attrs = contentsAttrs(body.child(i))
    if (attrs.of === "" && attrs.look !== "sources") return { ...attrs, pos: positionOf(body, i) + 1 }
  }
  return null
}

/** Puts a list of contents before the paragraph with the caret. Only in the body itself. */
export function insertContents(attrs: Omit<ContentsAttrs, "of"> & Partial<ContentsAttrs>): Command {
  return (state, dispatch) => {
    const { $head } = state.selection
    if ($head.depth !== 2 || $head.node(1).type !== nodes.body) return false
    if (!dispatch) return true
    const at = $head.before()
    const tr = state.tr.insert(at, nodes.contents.create(attrs))
    tr.setSelection(TextSelection.near(tr.doc.resolve(at + 1)))
    dispatch(named(tr, "Contents").scrollIntoView())
    return true
  }
}

/** Changes how contents look; null takes them away. */
export function changeContents(change: Partial<ContentsAttrs> | null): Command {
  return (state, dispatch) => {
    const found = contentsIn(state)
    if (!found) return false
    const { pos, ...attrs } = found
    const { tr } = state
    if (change) tr.setNodeMarkup(pos, null, { ...attrs, ...change })
    else tr.delete(pos, pos + 1)
    dispatch?.(named(tr, change ? "Contents" : "Contents taken away"))
    return true
  }
}
