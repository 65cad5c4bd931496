/** Captions below or above what they tell of, and references to them. */
import type { Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import {
  asName,
  captionsOf,
  documentAttrs,
  leavesOf,
  marks,
  nodes,
  placesOf,
  schema,
  setEntries,
  tableAt,
  type ReferencePart,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { freeName, linkTargets, type Target } from "./links"
import { typingMarks } from "./typingMarks"

/** Labels that are offered before a document has its own. */
export const usualLabels = ["Figure", "Table"] as const

/**
 * Puts a caption at the table with the caret, or at the paragraph with it (that of a picture, most often), and the caret behind its
 * number. A caption above stays with what it stands over, and what has one below stays with that.
 */
export function insertCaption(wished: string, side: "above" | "below"): Command {
  return (state, dispatch) => {
    const label = asName(wished, 30)
    const { $from } = state.selection
    if (label === "" || !$from.parent.isTextblock) return false
    const table = tableAt($from)
    if (leavesOf(state.doc).flow(leavesOf(state.doc).at($from.pos)).story !== null) return false
    if (!dispatch) return true
    const { tr } = state
    const [before, behind] = table ? [table.pos, table.pos + table.table.nodeSize] : [$from.before(), $from.after()]
    const at = side === "above" ? before : behind
    const styled = Object.hasOwn(documentAttrs(state.doc).styles.styles, "caption")
    const caption = nodes.paragraph.create(
      { style: styled ? "caption" : "body", format: side === "above" ? { keepNext: true } : null },
      [schema.text(`${label} `), nodes.field.create({ kind: "caption", format: label }), schema.text(": ")],
    )
    tr.insert(at, caption)
    if (side === "below" && !table) {
      const own = tr.doc.nodeAt(before)
      setEntries(tr, before, "format", { ...(own?.attrs.format as object | null), keepNext: true })
    }
    tr.setSelection(TextSelection.create(tr.doc, at + caption.nodeSize - 1))
    dispatch(named(tr, `${label} captioned`).scrollIntoView())
    return true
  }
}

export interface ReferenceTarget extends Target {
  /** What kind of thing it is, in words. */
  kind: string
}

/** What can be referred to: captions, headings, and marked places. */
export function referenceTargets(doc: Node): ReferenceTarget[] {
  const names = new Map([...placesOf(doc)].map(([name, leaf]) => [leaf, name]))
  const captions = captionsOf(doc).map(({ leaf, text, label }): ReferenceTarget => ({
    name: names.get(leaf) ?? null,
    text,
    leaf,
    level: null,
    kind: label,
  }))
  const captioned = new Set(captions.map(({ leaf }) => leaf))
  const others = linkTargets(doc)
    .filter(({ leaf }) => !captioned.has(leaf))
    .map((target) => ({ ...target, kind: target.level === null ? "Place" : "Heading" }))
  return [...captions, ...others]
}

/** Puts in a reference to something; what is referred to is marked, so that it holds when its words change. */
export function insertReference(target: ReferenceTarget, part: ReferencePart): Command {
  return (state, dispatch) => {
    const paragraph = leavesOf(state.doc).find(target.leaf)
    if (!paragraph || paragraph.content.size === 0 || !state.selection.$from.parent.isTextblock) return false
    if (!dispatch) return true
    const known = target.name ?? [...placesOf(state.doc)].find(([, leaf]) => leaf === target.leaf)?.[0]
    const name = known ?? freeName(state.doc, target.text)
    const { tr } = state
    if (known === undefined) {
      const start = leavesOf(state.doc).start(target.leaf)
      tr.addMark(start, start + paragraph.content.size, marks.place.create({ value: name }))
    }
    const field = nodes.field.create({ kind: "reference", format: `${part} ${name}` }, null, typingMarks(state))
    tr.replaceSelectionWith(field, false)
    dispatch(named(tr.scrollIntoView(), "Reference"))
    return true
  }
}
