/** What documents that ship have beside their text, put in by the commands that people use. */
import type { Node } from "prosemirror-model"
import { EditorState, TextSelection } from "prosemirror-state"
import { leavesOf, textOf } from "@biblon/core/document"
import { insertContents, insertNote, settleStories, type Command } from "@biblon/core/editing"

/** A document after some commands, each at a place of its text. */
export function dressed(doc: Node, ...acts: readonly { at: string; command: Command }[]): Node {
  let state = EditorState.create({ doc })
  for (const { at, command } of acts) {
    const leaves = leavesOf(state.doc)
    const leaf = leaves.nodes.findIndex((node) => textOf(node).includes(at))
    if (leaf < 0) throw new Error(`The demo has no "${at}"`)
    const pos = leaves.start(leaf) + textOf(leaves.node(leaf)).indexOf(at) + at.length
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos)))
    command(state, (tr) => (state = state.apply(settleStories(tr))))
  }
  return state.doc
}

/** A command that may stand anywhere. */
export const anywhere = (command: Command) => ({ at: "", command })

/** A note behind some words. */
export function note(at: string, text: string): { at: string; command: Command } {
  return { at, command: (state, dispatch) => insertNote(state, dispatch && ((tr) => dispatch(tr.insertText(text)))) }
}

/** Contents before the paragraph with some words. */
export function contentsBefore(at: string, levels: number): { at: string; command: Command } {
  return { at, command: insertContents({ levels, look: "dotted" }) }
}
