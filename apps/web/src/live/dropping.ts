/** Taking an unconfirmed change out of a document, with what depends on it and nothing else. */
import { rebaseSteps, type Rebaseable } from "prosemirror-collab"
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"

const pluginKey = "collab$"

/**
 * A transaction that takes out the first of the unconfirmed changes and makes the rest anew where they still have a place; null
 * where there are none. History and field take it for one that brings in other people's changes (prosemirror-collab, `receiveTransaction`).
 */
export function withoutFirst(state: EditorState): Transaction | null {
  const plugin = state.plugins.find((own) => (own as unknown as { key: string }).key === pluginKey)
  const { version, unconfirmed } = plugin?.getState(state) as { version: number; unconfirmed: Rebaseable[] }
  const [first, ...others] = unconfirmed
  if (!first) return null
  const { tr } = state
  const rest = rebaseSteps(others, [first.inverted], tr)
  if (state.selection instanceof TextSelection)
    tr.setSelection(
      TextSelection.between(
        tr.doc.resolve(tr.mapping.map(state.selection.anchor, -1)),
        tr.doc.resolve(tr.mapping.map(state.selection.head, -1)),
        -1,
      ),
    )
  return tr
    .setMeta("rebased", unconfirmed.length)
    .setMeta("addToHistory", false)
    .setMeta(pluginKey, { version, unconfirmed: rest })
}
