/** What letters look like that are about to be typed. */
import type { Mark, ResolvedPos } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { letterProperties, marks, paragraphAttrs, type LetterFormat, type LetterProperty } from "../document"

/** Marks of these values, for letters in a paragraph that look like `base` without them. */
export function marksOf(format: Partial<LetterFormat>): readonly Mark[] {
  return Object.entries(format).reduce<readonly Mark[]>(
    (set, [name, value]) => marks[name as LetterProperty].create({ value }).addToSet(set),
    [],
  )
}

/** The values of letters that marks say; null for none. */
export function formatOf(given: readonly Mark[]): Partial<LetterFormat> | null {
  const own = given.filter(({ type }) => (letterProperties as readonly string[]).includes(type.name))
  return own.length > 0
    ? (Object.fromEntries(own.map((mark) => [mark.type.name, mark.attrs.value])) as Partial<LetterFormat>)
    : null
}

/** The marks that typed text gets: those chosen for what is typed next, else those of the text before the caret. */
export function typingMarks(state: EditorState): readonly Mark[] {
  return state.storedMarks ?? marksAt(state.selection.$from, state.selection.$to)
}

/** The marks of the first selected letter, or of what would be typed at the caret. */
export function trailMarks(state: EditorState): readonly Mark[] {
  const { $from, $to, empty } = state.selection
  return empty ? typingMarks(state) : ($from.marksAcross($to) ?? $from.marks())
}

/** The marks for text in place of a range: those of its first letter, or at a caret those of the letter before it; in an empty paragraph those that it keeps. */
export function marksAt($from: ResolvedPos, $to: ResolvedPos): readonly Mark[] {
  const kept = $from.parent.isTextblock ? paragraphAttrs($from.parent).letters : null
  if (kept && $from.parent.content.size === 0) return marksOf(kept)
  return $from.pos === $to.pos ? $from.marks() : ($from.marksAcross($to) ?? $from.marks())
}

/** The marks for text that replaces the selection. */
export function landingMarks(state: EditorState): readonly Mark[] {
  return state.storedMarks ?? marksAt(state.selection.$from, state.selection.$to)
}
