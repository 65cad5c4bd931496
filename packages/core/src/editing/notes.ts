/** Notes: put in at the caret, typed at the foot of the sheet, and ways between a mark and its note. */
import { TextSelection, type EditorState } from "prosemirror-state"
import {
  anchorsIn,
  defaultStyles,
  documentAttrs,
  entryOf,
  leavesOf,
  notesOf,
  paragraph,
  setEntries,
  storiesOf,
  type Note,
  type NoteKind,
  type NoteSettings,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { insertStory } from "./stories"

/** Puts a footnote or endnote in place of the selection, and the caret into it. */
export const insertNote: Command = noteOf("note")
export const insertEndnote: Command = noteOf("endnote")

function noteOf(kind: NoteKind): Command {
  return (state, dispatch) =>
    insertStory(kind, [paragraph("note")])(
      state,
      dispatch &&
        ((tr) => {
          const { styles } = documentAttrs(tr.doc)
          const { note } = defaultStyles.styles
          // A document from before there were notes gets their style.
          if (note && !entryOf(styles.styles, "note"))
            setEntries(tr, null, "styles", { ...styles, styles: { ...styles.styles, note } })
          dispatch(tr)
        }),
    )
}

/** The note whose text the caret is in. */
export function noteHere(state: EditorState): Note | null {
  const leaves = leavesOf(state.doc)
  const { story } = leaves.flow(leaves.at(state.selection.head))
  return story === null ? null : (notesOf(state.doc).find(({ key }) => key === story) ?? null)
}

/** The note whose mark stands at the caret, or just before it. */
export function markHere(state: EditorState): Note | null {
  const { $head } = state.selection
  const at = anchorsIn($head.parent).find(
    ({ offset }) => offset === $head.parentOffset || offset + 1 === $head.parentOffset,
  )
  return at ? (notesOf(state.doc).find(({ key }) => key === at.key) ?? null) : null
}

/** From a note to behind its mark, or from a mark to the end of its note. */
export const crossNote: Command = (state, dispatch) => {
  const [inside, mark] = [noteHere(state), markHere(state)]
  const leaves = leavesOf(state.doc)
  if (inside) {
    const pos = leaves.start(inside.leaf) + inside.offset + 1
    dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, pos)).scrollIntoView())
    return true
  }
  const story = mark && storiesOf(state.doc).get(mark.key)
  if (!story) return false
  const last = leaves.at(story.pos + story.node.nodeSize - 1)
  dispatch?.(state.tr.setSelection(TextSelection.create(state.doc, leaves.end(last))).scrollIntoView())
  return true
}

/** How footnotes, or endnotes, are numbered. */
export function changeNotes<K extends keyof NoteSettings>(kind: K, change: Partial<NoteSettings[K]>): Command {
  return (state, dispatch) => {
    const { notes } = documentAttrs(state.doc)
    const tr = setEntries(state.tr, null, "notes", { ...notes, [kind]: { ...notes[kind], ...change } })
    if (!tr.docChanged) return false
    dispatch?.(named(tr, kind === "foot" ? "Footnotes" : "Endnotes"))
    return true
  }
}

/** A footnote becomes an endnote, an endnote a footnote: the one that the caret is in, or whose mark stands at it. */
export const turnNote: Command = (state, dispatch) => {
  const note = noteHere(state) ?? markHere(state)
  const story = note && storiesOf(state.doc).get(note.key)
  if (!note || !story) return false
  const kind: NoteKind = note.kind === "note" ? "endnote" : "note"
  dispatch?.(named(state.tr.setNodeAttribute(story.pos, "kind", kind), kind === "note" ? "Footnote" : "Endnote"))
  return true
}
