/** Formatting of letters: on the selection, or, without one, for what is typed next. */
import type { EditorState, Transaction } from "prosemirror-state"
import { documentAttrs, letterLook, marks, paragraphLook, type LetterFormat, type LetterProperty } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { selectedText, typingMarks } from "./text"

/** Calls back for each stretch of selected letters with its look; for an empty selection once with the look of what is typed next. */
function eachLook(state: EditorState, visit: (look: LetterFormat) => boolean | void): void {
  const { styles } = documentAttrs(state.doc)
  const { from, to, empty, $from } = state.selection
  if (empty) {
    visit(letterLook(styles, paragraphLook(styles, $from.parent).letters, typingMarks(state)))
    return
  }
  let stop = false
  let any = false
  state.doc.nodesBetween(from, to, (node, _pos, parent) => {
    if (stop) return false
    if (node.isText && parent) {
      any = true
      stop = visit(letterLook(styles, paragraphLook(styles, parent).letters, node.marks)) === false
    }
    return !stop
  })
  if (!any) visit(paragraphLook(styles, $from.parent).letters)
}

/** The value that all selected letters share, or undefined where they differ. */
export function letterValue<K extends LetterProperty>(state: EditorState, property: K): LetterFormat[K] | undefined {
  let value: LetterFormat[K] | undefined
  let first = true
  eachLook(state, (look) => {
    if (first) value = look[property]
    else if (value !== look[property]) {
      value = undefined
      return false
    }
    first = false
    return true
  })
  return value
}

/** Gives the selection, or what is typed next, a value. A value that the style gives anyway needs no mark. */
export function setLetters<K extends LetterProperty>(property: K, value: LetterFormat[K]): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const { from, to, empty, $from } = state.selection
    const type = marks[property]
    const tr: Transaction = state.tr
    if (empty) {
      const rest = typingMarks(state).filter((mark) => mark.type !== type)
      const fromStyle = paragraphLook(styles, $from.parent).letters[property] === value
      tr.setStoredMarks(fromStyle ? rest : type.create({ value }).addToSet(rest))
    } else {
      state.doc.nodesBetween(from, to, (node, pos) => {
        if (!node.isTextblock) return true
        const start = Math.max(from, pos + 1)
        const end = Math.min(to, pos + 1 + node.content.size)
        if (start >= end) return false
        if (paragraphLook(styles, node).letters[property] === value) tr.removeMark(start, end, type)
        else tr.addMark(start, end, type.create({ value }))
        return false
      })
    }
    dispatch(named(tr, `${valueName(property, value)}${empty ? "" : onWords(state)}`))
    return true
  }
}

/** A value of letters in words. */
function valueName<K extends LetterProperty>(property: K, value: LetterFormat[K]): string {
  switch (property) {
    case "bold":
      return value ? "Bold" : "Not bold"
    case "italic":
      return value ? "Italic" : "Upright"
    case "underline":
      return value === "none" ? "Not underlined" : "Underline"
    case "size":
      return `Size ${value}`
    case "family":
      return String(value)
    default:
      return `${property === "colour" ? "Colour" : "Language"} ${value}`
  }
}

/** How much of the text a change of the selection touches. */
function onWords(state: EditorState): string {
  const words = selectedText(state).split(/\s+/).filter(Boolean)
  return words.length === 1 ? ` on ${quoted(words[0] as string)}` : ` on ${words.length} words`
}

/** Puts a property with two values on; off if the whole selection has it. */
function toggle<K extends LetterProperty>(property: K, on: LetterFormat[K], off: LetterFormat[K]): Command {
  return (state, dispatch) => setLetters(property, letterValue(state, property) === on ? off : on)(state, dispatch)
}

export const toggleBold = toggle("bold", true, false)
export const toggleItalic = toggle("italic", true, false)
export const toggleUnderline = toggle("underline", "single", "none")

/** Steps through which a size grows and shrinks. */
export const sizeSteps = [6, 7, 8, 9, 10, 10.5, 11, 12, 14, 16, 18, 20, 24, 28, 32, 36, 42, 48, 60, 72] as const

export function stepSize(direction: -1 | 1): Command {
  return (state, dispatch) => {
    const size = letterValue(state, "size") ?? smallestSize(state)
    const next = direction > 0 ? sizeSteps.find((s) => s > size) : [...sizeSteps].reverse().find((s) => s < size)
    return next !== undefined && setLetters("size", next)(state, dispatch)
  }
}

function smallestSize(state: EditorState): number {
  let size = Infinity
  eachLook(state, (look) => {
    size = Math.min(size, look.size)
  })
  return size
}
