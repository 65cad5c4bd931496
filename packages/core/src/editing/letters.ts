/** Formatting of letters: on the selection, or, without one, for what is typed next. */
import type { Mark, Node } from "prosemirror-model"
import type { EditorState, Transaction } from "prosemirror-state"
import { documentAttrs, letterLook, letterProperties, marks, paragraphAttrs, paragraphLook, setEntries, type LetterFormat, type LetterProperty } from "../document"
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

/** Marks of these values, for letters in a paragraph that look like `base` without them. */
export function marksOf(format: Partial<LetterFormat>): readonly Mark[] {
  return Object.entries(format).reduce<readonly Mark[]>((set, [name, value]) => marks[name as LetterProperty].create({ value }).addToSet(set), [])
}

/** The values of letters that marks say; null for none. */
export function formatOf(given: readonly Mark[]): Partial<LetterFormat> | null {
  const own = given.filter(({ type }) => (letterProperties as readonly string[]).includes(type.name))
  return own.length > 0 ? (Object.fromEntries(own.map((mark) => [mark.type.name, mark.attrs.value])) as Partial<LetterFormat>) : null
}

/** What is typed next gets these marks. In an empty paragraph they stay with it. */
export function setTypingMarks(tr: Transaction, next: readonly Mark[]): Transaction {
  const { $from } = tr.selection
  if ($from.parent.content.size === 0) setEntries(tr, $from.before(), "letters", formatOf(next))
  return tr.setStoredMarks(next)
}

/** Calls back for each paragraph of a selection, with the part of it that is selected. */
function eachSelected(state: EditorState, visit: (paragraph: Node, from: number, to: number, pos: number) => void): void {
  const { from, to } = state.selection
  state.doc.nodesBetween(from, to, (node, pos) => {
    if (node.isTextblock) visit(node, Math.max(from, pos + 1), Math.min(to, pos + 1 + node.content.size), pos)
    return !node.isTextblock
  })
}

/** Gives the selection, or what is typed next, a value. A value that the style gives anyway needs no mark. */
export function setLetters<K extends LetterProperty>(property: K, value: LetterFormat[K]): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const { empty, $from } = state.selection
    const type = marks[property]
    const tr: Transaction = state.tr
    if (empty) {
      const rest = typingMarks(state).filter((mark) => mark.type !== type)
      const fromStyle = letterLook(styles, paragraphLook(styles, $from.parent).letters, rest)[property] === value
      setTypingMarks(tr, fromStyle ? rest : type.create({ value }).addToSet(rest))
    } else
      eachSelected(state, (paragraph, from, to, pos) => {
        const given = paragraphLook(styles, paragraph).letters[property] === value
        if (from >= to) {
          // An empty paragraph in the middle of a selection goes along.
          if (paragraph.content.size > 0) return
          const rest = marksOf(paragraphAttrs(paragraph).letters ?? {}).filter((mark) => mark.type !== type)
          setEntries(tr, pos, "letters", formatOf(given ? rest : [...rest, type.create({ value })]))
        } else if (given && !paragraph.rangeHasMark(from - pos - 1, to - pos - 1, marks.letterStyle)) tr.removeMark(from, to, type)
        else tr.addMark(from, to, type.create({ value }))
      })
    dispatch(named(tr, `${valueName(property, value)}${empty ? "" : onWords(state)}`))
    return true
  }
}

/** Lays a style of letters on the selection or on what is typed next; null takes it off. */
export function setLetterStyle(style: string | null): Command {
  return (state, dispatch) => {
    const name = style === null ? null : documentAttrs(state.doc).styles.styles[style]?.name
    if (name === undefined) return false
    if (!dispatch) return true
    const { empty } = state.selection
    const mark = style === null ? null : marks.letterStyle.create({ value: style })
    const tr = state.tr
    if (empty) {
      const rest = typingMarks(state).filter(({ type }) => type !== marks.letterStyle)
      tr.setStoredMarks(mark ? mark.addToSet(rest) : rest)
    } else
      eachSelected(state, (_paragraph, from, to) => {
        if (mark) tr.addMark(from, to, mark)
        else tr.removeMark(from, to, marks.letterStyle)
      })
    dispatch(named(tr, `${name ?? "No style of letters"}${empty ? "" : onWords(state)}`))
    return true
  }
}

/** The style of letters that the whole selection has; null for none, undefined where it differs. */
export function letterStyleValue(state: EditorState): string | null | undefined {
  const { empty } = state.selection
  const styleIn = (given: readonly Mark[]) => (given.find(({ type }) => type === marks.letterStyle)?.attrs.value as string | undefined) ?? null
  if (empty) return styleIn(typingMarks(state))
  const found = new Set<string | null>()
  eachSelected(state, (paragraph, from, to, pos) => paragraph.nodesBetween(from - pos - 1, to - pos - 1, (child) => void (child.isInline && found.add(styleIn(child.marks)))))
  return found.size === 1 ? [...found][0] : found.size === 0 ? null : undefined
}

/** Takes direct formatting off letters, so that they look as their style says. Links and places stay. */
export const clearLetters: Command = (state, dispatch) => {
  if (!dispatch) return true
  const tr = state.tr
  const { empty } = state.selection
  if (empty) setTypingMarks(tr, typingMarks(state).filter((mark) => !isFormat(mark)))
  else
    eachSelected(state, (_paragraph, from, to, pos) => {
      setEntries(tr, pos, "letters", null)
      if (from < to) for (const property of [...letterProperties, "letterStyle"] as const) tr.removeMark(from, to, marks[property])
    })
  dispatch(named(tr, `Cleared letters${empty ? "" : onWords(state)}`))
  return true
}

const isFormat = ({ type }: Mark) => type === marks.letterStyle || (letterProperties as readonly string[]).includes(type.name)

/** Takes one property of letters off a stretch of the document. */
export function removeLetters(property: LetterProperty | "letterStyle", from: number, to: number): Command {
  return (state, dispatch) => {
    const $from = state.doc.resolve(from)
    if (!dispatch) return true
    const tr = state.tr
    if ($from.parent.content.size === 0 && property !== "letterStyle") {
      const { [property]: _gone, ...rest } = paragraphAttrs($from.parent).letters ?? {}
      setEntries(tr, $from.before(), "letters", rest)
    } else tr.removeMark(from, to, marks[property])
    dispatch(named(tr, `Removed ${propertyNames[property].toLowerCase()}`))
    return true
  }
}

/** Gives a stretch of the document a value of letters. */
export function setLettersAt<K extends LetterProperty>(property: K, value: LetterFormat[K], from: number, to: number): Command {
  return (state, dispatch) => {
    dispatch?.(named(state.tr.addMark(from, to, marks[property].create({ value })), valueName(property, value)))
    return true
  }
}

/** Properties of letters in words. */
export const propertyNames: Readonly<Record<LetterProperty | "letterStyle", string>> = {
  family: "Typeface",
  familyEastAsian: "East Asian typeface",
  familyComplex: "Typeface for complex scripts",
  size: "Size",
  bold: "Bold",
  italic: "Italic",
  underline: "Underline",
  underlineColour: "Colour of the underline",
  strike: "Strike-through",
  script: "Raised or lowered",
  raise: "Distance from the baseline",
  caps: "Capitals",
  outline: "Outline",
  shadow: "Shadow",
  colour: "Colour",
  highlight: "Highlight",
  spacing: "Letter spacing",
  kerning: "Kerning",
  ligatures: "Ligatures",
  language: "Language",
  letterStyle: "Style of letters",
}

const yesNo = (value: unknown, yes: string, no: string) => (value ? yes : no)

/** A value of letters in words. */
export function valueName<K extends LetterProperty>(property: K, value: LetterFormat[K]): string {
  switch (property) {
    case "bold":
      return yesNo(value, "Bold", "Not bold")
    case "italic":
      return yesNo(value, "Italic", "Upright")
    case "underline":
      return value === "none" ? "Not underlined" : value === "single" ? "Underline" : `Underline ${value}`
    case "strike":
      return value === "none" ? "Not struck through" : value === "single" ? "Struck through" : "Struck through twice"
    case "script":
      return value === "none" ? "On the baseline" : value === "super" ? "Superscript" : "Subscript"
    case "caps":
      return value === "none" ? "Capitals as typed" : value === "small" ? "Small capitals" : "All capitals"
    case "size":
      return `Size ${value}`
    case "family":
      return String(value)
    case "raise":
      return `Raised by ${value} pt`
    case "spacing":
      return `Letter spacing ${value} pt`
    case "outline":
    case "shadow":
    case "kerning":
    case "ligatures":
      return yesNo(value, propertyNames[property], `No ${propertyNames[property].toLowerCase()}`)
    default:
      return value === null ? `No ${propertyNames[property].toLowerCase()}` : `${propertyNames[property]} ${value}`
  }
}

/** How much of the text a change of the selection touches. */
export function onWords(state: EditorState): string {
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
export const toggleStrike = toggle("strike", "single", "none")
export const toggleSuperscript = toggle("script", "super", "none")
export const toggleSubscript = toggle("script", "sub", "none")
export const toggleSmallCapitals = toggle("caps", "small", "none")
export const toggleCapitals = toggle("caps", "all", "none")

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
