/** Formatting of letters: on the selection, or, without one, for what is typed next. */
import type { Mark, Node } from "prosemirror-model"
import type { EditorState, Transaction } from "prosemirror-state"
import {
  documentAttrs,
  entryOf,
  fitLetter,
  letterLook,
  leavesOf,
  letterProperties,
  marks,
  nodesBetween,
  paragraphAttrs,
  paragraphLook,
  setEntries,
  tableLetters,
  type LetterFormat,
  type LetterProperty,
  type RunLook,
} from "../document"
import type { Command, Extent } from "./command"
import { named, quoted } from "./history"
import { selectedText } from "./selected"
import { stretchesOf } from "./tables/selection"
import { formatOf, marksOf, typingMarks } from "./typingMarks"

/** The look of the letters of a paragraph before their own marks, with what the look of its table says. @param pos a position in it */
function lettersAt(doc: Node, paragraph: Node, pos: number): RunLook {
  const { styles } = documentAttrs(doc)
  const { letters } = paragraphLook(styles, paragraph)
  const said = tableLetters(styles, doc, leavesOf(doc).at(pos))
  return said ? { ...letters, ...said } : letters
}

/** Calls back for each stretch of selected letters with its look; for an empty selection once with the look of what is typed next. */
function eachLook(state: EditorState, visit: (look: LetterFormat) => boolean | void): void {
  const { styles } = documentAttrs(state.doc)
  const { empty, $from } = state.selection
  if (empty) {
    visit(letterLook(styles, lettersAt(state.doc, $from.parent, $from.pos), typingMarks(state)))
    return
  }
  let stop = false
  let any = false
  for (const { from, to } of stretchesOf(state))
    nodesBetween(state.doc, from, to, (node, pos, parent) => {
      if (stop) return false
      if (node.isText && parent) {
        any = true
        stop = visit(letterLook(styles, lettersAt(state.doc, parent, pos), node.marks)) === false
      }
      return !stop
    })
  if (!any) visit(lettersAt(state.doc, $from.parent, $from.pos))
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

/** What is typed next gets these marks. In an empty paragraph they stay with it. */
export function setTypingMarks(tr: Transaction, next: readonly Mark[]): Transaction {
  const { $from } = tr.selection
  if ($from.parent.content.size === 0) setEntries(tr, $from.before(), "letters", formatOf(next))
  return tr.setStoredMarks(next)
}

/** Calls back for each paragraph of a selection, with the part of it that is selected. */
function eachSelected(
  state: EditorState,
  visit: (paragraph: Node, from: number, to: number, pos: number) => void,
): void {
  for (const { from, to } of stretchesOf(state))
    nodesBetween(state.doc, from, to, (node, pos) => {
      if (node.isTextblock) visit(node, Math.max(from, pos + 1), Math.min(to, pos + 1 + node.content.size), pos)
      return !node.isTextblock
    })
}

/** Gives the selection, or what is typed next, a value. A value that the style gives anyway needs no mark. */
export function setLetters<K extends LetterProperty>(property: K, wished: LetterFormat[K]): Command {
  const value = fitLetter(property, wished)
  return (state, dispatch) => {
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const { empty, $from } = state.selection
    const type = marks[property]
    const tr: Transaction = state.tr
    if (empty) {
      const rest = typingMarks(state).filter((mark) => mark.type !== type)
      const fromStyle = letterLook(styles, lettersAt(state.doc, $from.parent, $from.pos), rest)[property] === value
      setTypingMarks(tr, fromStyle ? rest : type.create({ value }).addToSet(rest))
    } else
      eachSelected(state, (paragraph, from, to, pos) => {
        const given = lettersAt(state.doc, paragraph, pos + 1)[property] === value
        if (from >= to) {
          // An empty paragraph in the middle of a selection goes along.
          if (paragraph.content.size > 0) return
          const rest = marksOf(paragraphAttrs(paragraph).letters ?? {}).filter((mark) => mark.type !== type)
          setEntries(tr, pos, "letters", formatOf(given ? rest : [...rest, type.create({ value })]))
        } else if (given && !paragraph.rangeHasMark(from - pos - 1, to - pos - 1, marks.letterStyle))
          tr.removeMark(from, to, type)
        else tr.addMark(from, to, type.create({ value }))
      })
    dispatch(named(tr, `${valueName(property, value)}${empty ? "" : onWords(state)}`))
    return true
  }
}

/** Lays a style of letters on the selection or on what is typed next; null takes it off. */
export function setLetterStyle(style: string | null): Command {
  return (state, dispatch) => {
    const name = style === null ? null : entryOf(documentAttrs(state.doc).styles.styles, style)?.name
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
  const styleIn = (given: readonly Mark[]) =>
    (given.find(({ type }) => type === marks.letterStyle)?.attrs.value as string | undefined) ?? null
  if (empty) return styleIn(typingMarks(state))
  const found = new Set<string | null>()
  eachSelected(state, (paragraph, from, to, pos) =>
    paragraph.nodesBetween(
      from - pos - 1,
      to - pos - 1,
      (child) => void (child.isInline && found.add(styleIn(child.marks))),
    ),
  )
  return found.size === 1 ? [...found][0] : found.size === 0 ? null : undefined
}

/** Takes direct formatting off letters, so that they look as their style says. Links and places stay. */
export const clearLetters: Command = (state, dispatch) => {
  if (!dispatch) return true
  const tr = state.tr
  const { empty } = state.selection
  if (empty)
    setTypingMarks(
      tr,
      typingMarks(state).filter((mark) => !isFormat(mark)),
    )
  else
    eachSelected(state, (_paragraph, from, to, pos) => {
      setEntries(tr, pos, "letters", null)
      if (from < to)
        for (const property of [...letterProperties, "letterStyle"] as const) tr.removeMark(from, to, marks[property])
    })
  dispatch(named(tr, `Cleared letters${empty ? "" : onWords(state)}`))
  return true
}

const isFormat = ({ type }: Mark) =>
  type === marks.letterStyle || (letterProperties as readonly string[]).includes(type.name)

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
export function setLettersAt<K extends LetterProperty>(
  property: K,
  value: LetterFormat[K],
  from: number,
  to: number,
): Command {
  return (state, dispatch) => {
    const fitting = fitLetter(property, value)
    dispatch?.(
      named(state.tr.addMark(from, to, marks[property].create({ value: fitting })), valueName(property, fitting)),
    )
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

/** Puts a property on; off if all of the selection has it, in whatever kind. Where a part has it, the rest gets the first kind. */
function toggle<K extends LetterProperty>(
  property: K,
  on: LetterFormat[K],
  off: LetterFormat[K],
  alone = false,
): Command {
  const has = (value: LetterFormat[K]) => (alone ? value === on : value !== off)
  return (state, dispatch) => {
    const extent = letterExtent(state, property, has)
    if (extent !== "mixed" || alone) return setLetters(property, extent === "on" ? off : on)(state, dispatch)
    return eachLetters(property, (value) => (has(value) ? value : on), valueName(property, on))(state, dispatch)
  }
}

/** Whether something holds for the values that the selected letters have. */
export function letterExtent<K extends LetterProperty>(
  state: EditorState,
  property: K,
  holds: (value: LetterFormat[K]) => boolean,
): Extent {
  let [some, all] = [false, true]
  eachLook(state, (look) => {
    const held = holds(look[property])
    some ||= held
    all &&= held
    return !some || all
  })
  return all ? "on" : some ? "mixed" : "off"
}

/** Gives each stretch of the selection, or what is typed next, a value made from the one that it has. */
export function eachLetters<K extends LetterProperty>(
  property: K,
  next: (value: LetterFormat[K]) => LetterFormat[K],
  name: string,
): Command {
  return (state, dispatch) => {
    const { styles } = documentAttrs(state.doc)
    const { empty } = state.selection
    let whole: LetterFormat[K] | undefined = letterValue(state, property)
    // One value for all of it is kept no more often than it has to be.
    if (whole !== undefined || empty)
      return setLetters(property, next(whole as LetterFormat[K]))(
        state,
        dispatch && ((tr) => dispatch(named(tr, `${name}${empty ? "" : onWords(state)}`))),
      )
    if (!dispatch) return true
    const { tr } = state
    for (const { from, to } of stretchesOf(state))
      nodesBetween(state.doc, from, to, (node, pos, parent) => {
        if (!node.isInline || !parent) return true
        whole = letterLook(styles, lettersAt(state.doc, parent, pos), node.marks)[property]
        tr.addMark(
          Math.max(from, pos),
          Math.min(to, pos + node.nodeSize),
          marks[property].create({ value: fitLetter(property, next(whole)) }),
        )
        return false
      })
    dispatch(named(tr, `${name}${onWords(state)}`))
    return true
  }
}

export const toggleBold = toggle("bold", true, false)
export const toggleItalic = toggle("italic", true, false)
export const toggleUnderline = toggle("underline", "single", "none")
export const toggleStrike = toggle("strike", "single", "none")
export const toggleSuperscript = toggle("script", "super", "none", true)
export const toggleSubscript = toggle("script", "sub", "none", true)
export const toggleSmallCapitals = toggle("caps", "small", "none", true)
export const toggleCapitals = toggle("caps", "all", "none", true)

/** Steps through which a size grows and shrinks. */
export const sizeSteps = [
  1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 10.5, 11, 12, 14, 16, 18, 20, 24, 28, 32, 36, 42, 48, 60, 72, 84, 96, 120, 144, 168,
  192, 240, 288, 360, 432, 504, 600, 720, 860, 999,
] as const
/** Those that are offered in a list. */
export const usualSizes = sizeSteps.filter((size) => size >= 6 && size <= 72)

/** The next step of size; the size itself at the ends. */
export function nextSize(size: number, direction: -1 | 1): number {
  return (
    (direction > 0 ? sizeSteps.find((step) => step > size + 1e-6) : sizeSteps.findLast((step) => step < size - 1e-6)) ??
    size
  )
}

/** Each stretch of the selection a step larger or smaller than it is. */
export function stepSize(direction: -1 | 1): Command {
  return (state, dispatch) =>
    letterExtent(state, "size", (size) => nextSize(size, direction) !== size) !== "off" &&
    eachLetters("size", (size) => nextSize(size, direction), direction > 0 ? "Larger" : "Smaller")(state, dispatch)
}
