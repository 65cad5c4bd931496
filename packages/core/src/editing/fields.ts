/** Fields: put in, changed, taken away. */
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import { edgeAt, fieldAttrs, nodeAt, nodes, type FieldAttrs, type FieldKind } from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { typingMarks } from "./typingMarks"

/** Whether what a field shows is known of a sheet alone, so that it stands at heads and feet. */
export function isOfSheet(kind: FieldKind): boolean {
  return kind === "page" || kind === "pages" || kind === "sectionPages" || kind === "heading"
}

/** Puts in a field. Those that are known only of a sheet stand at heads and feet alone. */
export function insertFieldOf(kind: FieldKind, format = "", name = "Field"): Command {
  return (state, dispatch) => {
    if (isOfSheet(kind) && edgeAt(state.doc, state.selection.head) === null) return false
    const field = nodes.field.create({ kind, format }, null, typingMarks(state))
    dispatch?.(named(state.tr.replaceSelectionWith(field, false).scrollIntoView(), name))
    return true
  }
}

/** Puts in the date or the time, kept up to date. */
export function insertField(format: string): Command {
  return insertFieldOf("date", format, "Date kept up to date")
}

/** The field at a position, or at the caret: just behind it, or else before it. A position may be one of an older document. */
export function fieldAt(state: EditorState, pos = state.selection.head): (FieldAttrs & { pos: number }) | null {
  if (pos > state.doc.content.size) return null
  const $pos = state.doc.resolve(pos)
  if ($pos.nodeAfter?.type === nodes.field) return { ...fieldAttrs($pos.nodeAfter), pos }
  return $pos.nodeBefore?.type === nodes.field ? { ...fieldAttrs($pos.nodeBefore), pos: pos - 1 } : null
}

/** Has a field show something else; null takes it away. */
export function changeField(pos: number, change: Partial<FieldAttrs> | null): Command {
  return (state, dispatch) => {
    const field = nodeAt(state.doc, pos)
    if (field?.type !== nodes.field) return false
    const { tr } = state
    if (change === null) tr.delete(pos, pos + 1)
    else replaceField(tr, pos, { ...fieldAttrs(field), ...change })
    dispatch?.(named(tr, change === null ? "Field taken away" : "Field"))
    return true
  }
}

function replaceField(tr: Transaction, pos: number, attrs: FieldAttrs): void {
  const field = tr.doc.nodeAt(pos)
  if (field) tr.replaceWith(pos, pos + 1, nodes.field.create(attrs, null, field.marks))
}

/** Fixes what a field shows: the words take its place. */
export function fieldToText(pos: number, words: string): Command {
  return (state, dispatch) => {
    const field = nodeAt(state.doc, pos)
    if (field?.type !== nodes.field) return false
    const { tr } = state
    const clean = words.replace(/[\u0000-\u001f]/g, " ")
    if (clean === "") tr.delete(pos, pos + 1)
    else {
      tr.replaceWith(pos, pos + 1, state.schema.text(clean, field.marks))
      tr.setSelection(TextSelection.create(tr.doc, pos + clean.length))
    }
    dispatch?.(named(tr, "Field made text"))
    return true
  }
}
