/** Styles: laying them on, making and changing them. The style sheet is one attribute of the document; every change of it is one step over the entries that change. */
import type { Mark, Node } from "prosemirror-model"
import type { EditorState, Transaction } from "prosemirror-state"
import {
  asName,
  bodyStyle,
  chainIds,
  documentAttrs,
  entryOf,
  equal,
  fitLetters,
  fitParagraph,
  leavesOf,
  limits,
  listNamed,
  marks,
  nodesBetween,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  setEntries,
  styleLook,
  type LetterFormat,
  type Look,
  type OwnFamily,
  type ParagraphFormat,
  type Style,
  type StyleSheet,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { formatOf } from "./typingMarks"
import { eachParagraph, listOnly, onParagraphs } from "./paragraphs"
import { stretchesOf } from "./tables/selection"

/** The style of all selected paragraphs, or undefined where they differ. */
export function styleValue(state: EditorState): string | undefined {
  const found = new Set<string>()
  eachParagraph(state, (paragraph) => found.add(paragraphAttrs(paragraph).style))
  return found.size === 1 ? [...found][0] : undefined
}

/** Gives the selected paragraphs a style. Direct formatting of the paragraph goes, but not its list; that of letters stays. */
export function setStyle(style: string): Command {
  return (state, dispatch) => {
    const entry = entryOf(documentAttrs(state.doc).styles.styles, style)
    if (!entry || entry.kind) return false
    if (!dispatch) return true
    const tr = state.tr
    eachParagraph(state, (paragraph, pos) => {
      const attrs = paragraphAttrs(paragraph)
      // A heading is no item of a list unless its style says so.
      const format = entry.outline === null ? listOnly(attrs.format) : null
      if (attrs.style !== style) tr.setNodeAttribute(pos, "style", style)
      setEntries(tr, pos, "format", format)
    })
    dispatch(named(tr.setStoredMarks(state.storedMarks), `${entry.name}${onParagraphs(state)}`))
    return true
  }
}

/** Direct formatting of letters that all text of a stretch shares. */
function sharedLetters(node: Node, from = 0, to = node.content.size): Partial<LetterFormat> {
  let shared: readonly Mark[] | null = null
  node.nodesBetween(from, to, (child) => {
    if (child.isText) shared = shared === null ? child.marks : shared.filter((mark) => mark.isInSet(child.marks))
    return !child.isText
  })
  return formatOf(shared ?? []) ?? {}
}

/** Direct formatting of the paragraph at the caret: of its own, and of all its letters, or of those that are selected in it. */
export function directFormat(state: EditorState): {
  paragraph: Partial<ParagraphFormat>
  letters: Partial<LetterFormat>
} {
  const { $from, $to, empty } = state.selection
  const { parent } = $from
  const part = !empty && $from.sameParent($to)
  // A place in a list belongs to the item, not to its look.
  const { list: _list, ...paragraph } = paragraphAttrs(parent).format ?? {}
  return {
    paragraph,
    letters: part ? sharedLetters(parent, $from.parentOffset, $to.parentOffset) : sharedLetters(parent),
  }
}

/** Whether the paragraph at the caret or the selected letters look other than their style says. */
export function differsFromStyle(state: EditorState): boolean {
  const { empty, $from } = state.selection
  const direct = directFormat(state)
  if (Object.keys(direct.paragraph).length > 0 || Object.keys(direct.letters).length > 0) return true
  if (empty) return formatOf(state.storedMarks ?? $from.marks()) !== null
  let found = false
  for (const { from, to } of stretchesOf(state))
    nodesBetween(state.doc, from, to, (node) => {
      if (node.isText && formatOf(node.marks)) found = true
      return !found
    })
  return found
}

function setSheet(tr: Transaction, change: Partial<StyleSheet>): Transaction {
  return setEntries(tr, null, "styles", { ...documentAttrs(tr.doc).styles, ...change })
}

function putStyle(tr: Transaction, key: string, style: Style): Transaction {
  const { styles } = documentAttrs(tr.doc).styles
  return setSheet(tr, { styles: { ...styles, [key]: style } })
}

/** Takes the direct formatting off the paragraph at a position that its style now has. */
function undress(tr: Transaction, pos: number, letters: Partial<LetterFormat>): void {
  const paragraph = tr.doc.nodeAt(pos)
  if (!paragraph) return
  const { format } = paragraphAttrs(paragraph)
  setEntries(tr, pos, "format", listOnly(format))
  for (const property of Object.keys(letters))
    tr.removeMark(pos + 1, pos + 1 + paragraph.content.size, marks[property as keyof LetterFormat])
}

/** Values that differ from those that the parent gives anyway. */
function beyond<T extends object>(values: Partial<T>, base: T): Partial<T> {
  return Object.fromEntries(
    Object.entries(values).filter(([name, value]) => !equal(value, base[name as keyof T])),
  ) as Partial<T>
}

/** Makes the style look like the paragraph at the caret; everything in that style follows. */
export const updateStyle: Command = (state, dispatch) => {
  const { $from } = state.selection
  const { styles } = documentAttrs(state.doc)
  const key = paragraphAttrs($from.parent).style
  const style = entryOf(styles.styles, key)
  const { paragraph, letters } = directFormat(state)
  if (!style || (Object.keys(paragraph).length === 0 && Object.keys(letters).length === 0)) return false
  if (!dispatch) return true
  const parent = style.parent === null ? styles.defaults : styleLook(styles, style.parent)
  const tr = putStyle(state.tr, key, {
    ...style,
    paragraph: beyond({ ...style.paragraph, ...paragraph }, parent.paragraph),
    letters: beyond<LetterFormat>({ ...style.letters, ...letters }, parent.letters),
  })
  undress(tr, $from.before(), letters)
  dispatch(named(tr, `${style.name} looks like this`))
  return true
}

/** A key that no style has yet, made from a name. */
function keyFor(sheet: StyleSheet, name: string): string {
  const plain =
    name
      .trim()
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 60) || "style"
  for (let n = 1; ; n++) {
    const key = n === 1 ? plain : `${plain}-${n}`
    if (!Object.hasOwn(sheet.styles, key)) return key
  }
}

/** A name that no style has yet. */
function freeName(sheet: StyleSheet, wanted: string): string {
  const names = new Set(Object.values(sheet.styles).map(({ name }) => name))
  for (let n = 1; ; n++) {
    const name = n === 1 ? wanted : `${asName(wanted, limits.name - 8)} ${n}`
    if (!names.has(name)) return name
  }
}

/** A new style from the look at the caret, laid on the paragraphs selected, or with `letters` on the words selected. */
export function newStyle(wanted: string, kind: "paragraph" | "letters"): Command {
  return (state, dispatch) => {
    const text = asName(wanted)
    const { styles } = documentAttrs(state.doc)
    const { $from, from, to, empty } = state.selection
    if (text === "" || (kind === "letters" && empty)) return false
    if (!dispatch) return true
    const name = freeName(styles, text)
    const key = keyFor(styles, name)
    const tr = state.tr
    if (kind === "letters") {
      // What some of the words have stays theirs.
      const letters = sharedLetters(state.doc, from, to)
      putStyle(tr, key, { name, kind, parent: null, next: null, outline: null, paragraph: {}, letters })
      for (const property of Object.keys(letters)) tr.removeMark(from, to, marks[property as keyof LetterFormat])
      tr.addMark(from, to, marks.letterStyle.create({ value: key }))
    } else {
      const { paragraph, letters } = directFormat(state)
      const parent = paragraphAttrs($from.parent).style
      putStyle(tr, key, {
        name,
        parent: entryOf(styles.styles, parent) ? parent : bodyStyle,
        next: null,
        outline: entryOf(styles.styles, parent)?.outline ?? null,
        paragraph,
        letters,
      })
      eachParagraph(state, (_paragraph, pos) => {
        tr.setNodeAttribute(pos, "style", key)
        undress(tr, pos, letters)
      })
    }
    dispatch(named(tr, `New style ${name}`))
    return true
  }
}

/** Changes a style. A parent that would make a circle is refused. */
export function changeStyle(key: string, change: Partial<Style>): Command {
  return (state, dispatch) => {
    const sheet = documentAttrs(state.doc).styles
    const style = entryOf(sheet.styles, key)
    const name = change.name === undefined ? undefined : asName(change.name)
    // A name that another style has would make the two look the same in every list.
    if (
      !style ||
      name === "" ||
      Object.entries(sheet.styles).some(([other, own]) => other !== key && own.name === name)
    )
      return false
    if (change.parent && chainIds(sheet, change.parent).includes(key)) return false
    const next: Style = { ...style, ...change, ...(name === undefined ? {} : { name }) }
    dispatch?.(
      named(
        putStyle(state.tr, key, {
          ...next,
          paragraph: fitParagraph(next.paragraph),
          letters: fitLetters(next.letters),
        }),
        next.name !== style.name ? `Renamed ${style.name} to ${next.name}` : `Changed ${style.name}`,
      ),
    )
    return true
  }
}

/** Changes what a style says of its letters or its paragraphs; undefined lets the parent say it. */
export function changeStyleFormat(
  key: string,
  change: { paragraph?: Partial<ParagraphFormat>; letters?: Partial<LetterFormat> },
): Command {
  return (state, dispatch) => {
    const style = entryOf(documentAttrs(state.doc).styles.styles, key)
    if (!style) return false
    const merged = <T extends object>(own: Partial<T>, by: Partial<T> | undefined) =>
      Object.fromEntries(Object.entries({ ...own, ...by }).filter(([, value]) => value !== undefined)) as Partial<T>
    return changeStyle(key, {
      paragraph: merged(style.paragraph, change.paragraph),
      letters: merged(style.letters, change.letters),
    })(state, dispatch)
  }
}

/** What paragraphs and letters of a style look like. */
export function formatOfStyle(state: EditorState, key: string): Look {
  return styleLook(documentAttrs(state.doc).styles, key)
}

/** Changes what a style says, and lets all that start from it say the same; so do the texts in these styles, but for what was set by hand. */
export function changeStyleFamily(
  key: string,
  change: { paragraph?: Partial<ParagraphFormat>; letters?: Partial<LetterFormat> },
): Command {
  return (state, dispatch) => {
    const sheet = documentAttrs(state.doc).styles
    const style = entryOf(sheet.styles, key)
    if (!style || style.kind) return false
    if (!dispatch) return true
    const without = <T extends object>(own: Partial<T>, by: object | undefined) =>
      Object.fromEntries(Object.entries(own).filter(([name]) => !by || !Object.hasOwn(by, name))) as Partial<T>
    // What starts from Body goes its own way: a heading stays as large as it is.
    const follows = (other: string) => key !== bodyStyle && other !== key && chainIds(sheet, other).includes(key)
    const styles = Object.entries(sheet.styles).map(([other, own]): [string, Style] => {
      if (other === key)
        return [
          other,
          {
            ...own,
            paragraph: { ...own.paragraph, ...fitParagraph(change.paragraph ?? {}) },
            letters: { ...own.letters, ...fitLetters(change.letters ?? {}) },
          },
        ]
      return [
        other,
        follows(other)
          ? {
              ...own,
              paragraph: without(own.paragraph, change.paragraph),
              letters: without(own.letters, change.letters),
            }
          : own,
      ]
    })
    dispatch(named(setSheet(state.tr, { styles: Object.fromEntries(styles) }), `Changed ${style.name}`))
    return true
  }
}

/** Takes a style away; what used it falls to its parent. Body stays. */
export function deleteStyle(key: string): Command {
  return (state, dispatch) => {
    const sheet = documentAttrs(state.doc).styles
    const style = entryOf(sheet.styles, key)
    if (!style || key === bodyStyle) return false
    if (!dispatch) return true
    const tr = state.tr
    const heir = style.parent ?? bodyStyle
    const leaves = leavesOf(state.doc)
    leaves.nodes.forEach((leaf, number) => {
      const pos = leaves.before(number)
      if (paragraphAttrs(leaf).style === key) tr.setNodeAttribute(pos, "style", heir)
      if (style.kind)
        leaf.forEach((child, offset) => {
          const mark = child.marks.find(({ type, attrs }) => type === marks.letterStyle && attrs.value === key)
          if (!mark) return
          const [from, to] = [pos + 1 + offset, pos + 1 + offset + child.nodeSize]
          tr.removeMark(from, to, mark)
          if (style.parent) tr.addMark(from, to, marks.letterStyle.create({ value: style.parent }))
        })
    })
    const rest = Object.entries(sheet.styles).filter(([name]) => name !== key)
    const freed = rest.map(([name, own]): [string, Style] => [
      name,
      { ...own, parent: own.parent === key ? style.parent : own.parent, next: own.next === key ? null : own.next },
    ])
    setSheet(tr, { styles: Object.fromEntries(freed) })
    dispatch(named(tr, `Removed the style ${style.name}`))
    return true
  }
}

/** Takes all direct formatting off the selected paragraphs and all their letters, so that they look as their style says. */
export const resetToStyle: Command = (state, dispatch) => {
  if (!differsFromStyle(state)) return false
  if (!dispatch) return true
  const tr = state.tr
  eachParagraph(state, (paragraph, pos) => {
    const { format } = paragraphAttrs(paragraph)
    setEntries(tr, pos, "format", listOnly(format))
    setEntries(tr, pos, "letters", null)
    paragraph.forEach((child, offset) => {
      for (const mark of child.marks)
        if (formatOf([mark])) tr.removeMark(pos + 1 + offset, pos + 1 + offset + child.nodeSize, mark)
    })
  })
  dispatch(named(tr, `As the style${onParagraphs(state)}`))
  return true
}

/** The key of the style for headings of a level. */
export function headingStyle({ styles }: StyleSheet, level: number): string | undefined {
  return Object.keys(styles).find((key) => styles[key]?.outline === level && !styles[key]?.kind)
}

/** Levels through which one key goes. */
const cycled = 4

/** Text becomes a heading, a heading goes a level deeper, and the deepest is text again. */
export const cycleHeading: Command = (state, dispatch) => {
  const sheet = documentAttrs(state.doc).styles
  const level = outlineLevel(sheet, state.selection.$from.parent) ?? 0
  return setStyle((level < cycled ? headingStyle(sheet, level + 1) : undefined) ?? bodyStyle)(state, dispatch)
}

/** Numbers the headings through one list, each at its level; null takes their numbers away. */
export function numberHeadings(definition: string | null): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const sheet = documentAttrs(state.doc).styles
    const next = Object.entries(sheet.styles).map(([key, style]): [string, Style] => {
      if (style.outline === null) return [key, style]
      const { list: _list, ...rest } = style.paragraph
      return [
        key,
        {
          ...style,
          paragraph: definition === null ? rest : { ...rest, list: { definition, run: "", level: style.outline - 1 } },
        },
      ]
    })
    dispatch(
      named(
        setSheet(state.tr, { styles: Object.fromEntries(next) }),
        definition === null ? "Headings without numbers" : `Headings numbered ${listNamed(sheet, definition).name}`,
      ),
    )
    return true
  }
}

/** The list through which headings are numbered, if they are. */
export function headingNumbers(state: EditorState): string | null {
  return (
    Object.values(documentAttrs(state.doc).styles.styles).find((style) => style.outline === 1)?.paragraph.list
      ?.definition ?? null
  )
}

/** Changes what holds for the whole document where no style says otherwise. */
export function changeDefaults(
  change: { paragraph?: Partial<ParagraphFormat>; letters?: Partial<LetterFormat> },
  name: string,
): Command {
  return (state, dispatch) => {
    const { defaults } = documentAttrs(state.doc).styles
    dispatch?.(
      named(
        setSheet(state.tr, {
          defaults: {
            paragraph: { ...defaults.paragraph, ...fitParagraph(change.paragraph ?? {}) },
            letters: { ...defaults.letters, ...fitLetters(change.letters ?? {}) },
          },
        }),
        name,
      ),
    )
    return true
  }
}

/** Puts another style sheet in place of the document's, as one change. */
export function replaceSheet(next: (sheet: StyleSheet) => StyleSheet, name: string): Command {
  return (state, dispatch) => {
    const sheet = documentAttrs(state.doc).styles
    dispatch?.(named(setEntries(state.tr, null, "styles", next(sheet)), name))
    return true
  }
}

/** Makes a family that people brought in one of the document's. */
export function addFont(wanted: string, faces: OwnFamily): Command {
  const name = asName(wanted, limits.family)
  return (state, dispatch) => {
    if (name === "") return false
    const { fonts } = documentAttrs(state.doc).styles
    dispatch?.(
      named(
        setSheet(state.tr, { fonts: { ...fonts, [name]: { ...entryOf(fonts, name), ...faces } } }),
        `Added ${name}`,
      ),
    )
    return true
  }
}

/** Keys of the styles that paragraphs of the document have. */
export function stylesInUse(doc: Node): Set<string> {
  let used = inUse.get(doc)
  if (!used) {
    used = new Set(leavesOf(doc).nodes.map((leaf) => paragraphAttrs(leaf).style))
    inUse.set(doc, used)
  }
  return used
}
const inUse = new WeakMap<Node, Set<string>>()

/** Families that letters of the document are set in, those of most styles first. */
export function familiesInUse(doc: Node): string[] {
  const { styles } = documentAttrs(doc)
  const found = new Set<string>()
  for (const leaf of leavesOf(doc).nodes) {
    found.add(paragraphLook(styles, leaf).letters.family)
    for (const child of leaf.children)
      for (const mark of child.marks) if (mark.type === marks.family) found.add(mark.attrs.value as string)
  }
  return [...found]
}

/** Colours that letters of the document have. */
export function coloursInUse(doc: Node): string[] {
  const { styles } = documentAttrs(doc)
  const found = new Set<string>()
  for (const leaf of leavesOf(doc).nodes) {
    found.add(paragraphLook(styles, leaf).letters.colour)
    for (const child of leaf.children)
      for (const mark of child.marks) if (mark.type === marks.colour) found.add(mark.attrs.value as string)
  }
  return [...found]
}
