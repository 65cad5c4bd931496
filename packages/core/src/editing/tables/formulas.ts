/** Formulas put into cells. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import { fieldAttrs, formulaFormat, formulaOf, limits, nodes, tableAt, type Formula } from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { typingMarks } from "../typingMarks"

/** The formula in the cell with the caret; null for none. */
export function formulaHere(state: Parameters<Command>[0]): (Formula & { pos: number }) | null {
  const place = tableAt(state.selection.$head)
  let found: (Formula & { pos: number }) | null = null
  place?.cell.node.descendants((node, at) => {
    if (!found && node.type === nodes.field && fieldAttrs(node).kind === "formula")
      found = { ...formulaOf(fieldAttrs(node).format), pos: place.cellPos + 1 + at }
    return !found
  })
  return found
}

/** Puts a formula into the cell with the caret, in place of the one that is there; an empty one takes that away. */
export function setFormula({ expression, decimals }: Formula): Command {
  return (state, dispatch) => {
    const place = tableAt(state.selection.$head)
    if (!place) return false
    const text = expression
      .replace(/^[\s=]+/, "")
      .replace(/[\u0000-\u001f]/g, " ")
      .trim()
      .slice(0, limits.formula - 4)
    const before = formulaHere(state)
    if (text === "" && !before) return false
    if (!dispatch) return true
    const { tr } = state
    const field = nodes.field.create(
      { kind: "formula", format: formulaFormat({ expression: text, decimals }) },
      null,
      before ? (state.doc.nodeAt(before.pos) as Node).marks : typingMarks(state),
    )
    if (before) tr.replaceWith(before.pos, before.pos + 1, text === "" ? Fragment.empty : field)
    else {
      const { $from, $to } = state.selection
      const at = $from.sameParent($to) ? state.selection : TextSelection.near($from)
      tr.replaceWith(at.from, at.to, field)
    }
    dispatch(named(tr, text === "" ? "Formula taken away" : "Formula"))
    return true
  }
}
