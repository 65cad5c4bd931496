/** Formatting of whole paragraphs. */
import type { Node } from "prosemirror-model"
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import {
  documentAttrs,
  equal,
  fitParagraph,
  fitTypesetting,
  limits,
  nodeAt,
  nodes,
  nodesBetween,
  paragraphAttrs,
  paragraphLook,
  setEntries,
  textWidth,
  undressedFormat,
  type Border,
  type Borders,
  type DropCap,
  type ParagraphFormat,
  type TabStop,
  type Typesetting,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { stretchesOf } from "./tables/selection"

export function eachParagraph(
  state: Pick<EditorState, "doc" | "selection">,
  visit: (paragraph: Node, pos: number) => void,
): void {
  for (const { from, to } of stretchesOf(state))
    nodesBetween(state.doc, from, to, (node, pos) => {
      if (node.isTextblock) visit(node, pos)
      return !node.isTextblock
    })
}

/** The value that all selected paragraphs share, or undefined where they differ. */
export function paragraphValue<K extends keyof ParagraphFormat>(
  state: EditorState,
  property: K,
): ParagraphFormat[K] | undefined {
  const { styles } = documentAttrs(state.doc)
  const values: ParagraphFormat[K][] = []
  eachParagraph(state, (paragraph) => values.push(paragraphLook(styles, paragraph).paragraph[property]))
  return values.every((value) => equal(value, values[0])) ? values[0] : undefined
}

/** Direct formatting without all that is not the paragraph's place in a list. */
export function listOnly(format: Partial<ParagraphFormat> | null): Partial<ParagraphFormat> | null {
  return format?.list ? { list: format.list } : null
}

/** Gives one paragraph direct formatting over what it has. Values that its style or list gives anyway are not kept twice. */
export function formatParagraph(tr: Transaction, pos: number, format: Partial<ParagraphFormat>): void {
  const paragraph = tr.doc.nodeAt(pos)
  if (!paragraph) return
  const { styles } = documentAttrs(tr.doc)
  const attrs = paragraphAttrs(paragraph)
  const wished = { ...attrs.format, ...fitParagraph(format) }
  const listed =
    wished.list === undefined ? paragraph : paragraph.type.create({ ...attrs, format: { list: wished.list } })
  const base = undressedFormat(styles, listed)
  const own = undressedFormat(styles, paragraph.type.create({ ...attrs, format: null })).list
  const kept = Object.entries(wished).filter(([name, value]) =>
    name === "list" ? !equal(value, own) : !equal(value, base[name as keyof ParagraphFormat]),
  )
  setEntries(tr, pos, "format", Object.fromEntries(kept))
}

/** Formats the selected paragraphs directly. */
export function setParagraphs(format: Partial<ParagraphFormat>, name = formatName(format)): Command {
  return eachFormatted(() => format, name)
}

/** Formats each selected paragraph by what it has now. */
export function eachFormatted(formatOf: (now: ParagraphFormat) => Partial<ParagraphFormat>, name: string): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const tr = state.tr
    eachParagraph(state, (paragraph, pos) =>
      formatParagraph(tr, pos, formatOf(paragraphLook(styles, paragraph).paragraph)),
    )
    dispatch(named(tr.setStoredMarks(state.storedMarks), `${name}${onParagraphs(state)}`))
    return true
  }
}

const alignments = { left: "Left", center: "Centred", right: "Right", justify: "Justified" }

/** Properties of paragraphs in words. */
export const formatNames: Readonly<Record<keyof ParagraphFormat, string>> = {
  align: "Alignment",
  direction: "Direction",
  lineSpacing: "Line spacing",
  spaceBefore: "Space before",
  spaceAfter: "Space after",
  spaceAlike: "Space between paragraphs of one style",
  indentLeft: "Indent",
  indentRight: "Indent at the end",
  indentFirst: "Indent of the first line",
  tabs: "Tab stops",
  borders: "Borders",
  shading: "Background",
  dropCap: "Drop cap",
  list: "List",
  hyphenate: "Hyphenation",
  keepNext: "Stay with the next",
  keepTogether: "Keep together",
  orphans: "Fewest lines at the foot",
  widows: "Fewest lines carried over",
  columnBefore: "Begins a new column",
  listed: "Stands in the contents",
  listedAs: "Words in the contents",
  breakBefore: "Begin on a new sheet",
}

/** A format of paragraphs in words. */
function formatName(format: Partial<ParagraphFormat>): string {
  const { align, lineSpacing } = format
  if (align) return alignments[align]
  if (lineSpacing) return `Line spacing ${lineSpacing.value}${lineSpacing.rule === "multiple" ? "" : " pt"}`
  const [name, value] = (Object.entries(format)[0] ?? []) as [keyof ParagraphFormat | undefined, unknown]
  if (!name) return "Paragraph"
  if (typeof value === "boolean") return value ? formatNames[name] : `No ${formatNames[name].toLowerCase()}`
  return typeof value === "number" && name.startsWith("space") ? `${formatNames[name]} ${value} pt` : formatNames[name]
}

export function onParagraphs(state: EditorState): string {
  let n = 0
  eachParagraph(state, () => n++)
  return n > 1 ? ` on ${n} paragraphs` : ""
}

/** Switches a property with two values; on where the selection is mixed. */
export function toggleParagraph(
  property: "keepNext" | "keepTogether" | "breakBefore" | "hyphenate" | "spaceAlike",
): Command {
  return (state, dispatch) => setParagraphs({ [property]: paragraphValue(state, property) !== true })(state, dispatch)
}

/** Distance of one step of indent, in points. */
export const indentStep = 18

/** Moves the text one step in or out. */
export function stepIndent(direction: -1 | 1): Command {
  return (state, dispatch) => {
    if (direction < 0 && paragraphValue(state, "indentLeft") === 0) return false
    return eachFormatted(
      ({ indentLeft }) => ({
        indentLeft: Math.max(
          direction < 0 ? Math.min(0, indentLeft) : limits.length[0],
          (direction > 0
            ? Math.floor(indentLeft / indentStep + 1e-6) + 1
            : Math.ceil(indentLeft / indentStep - 1e-6) - 1) * indentStep,
        ),
      }),
      direction > 0 ? "Indented" : "Indented less",
    )(state, dispatch)
  }
}

/** From left to right and back; text that was flush at one side is flush at the other. */
export const toggleDirection: Command = (state, dispatch) =>
  eachFormatted(({ direction, align }) => {
    const turned = { left: "right", right: "left", center: "center", justify: "justify" } as const
    return { direction: direction === "ltr" ? "rtl" : "ltr", align: turned[align] }
  }, "Direction of the text")(state, dispatch)

/** Puts a tab stop, or moves the one at `from`; for null that one goes. A paragraph has room for so many only. */
export function placeTab(stop: TabStop | null, from: number | null = null): Command {
  return (state, dispatch) => {
    let full = false
    if (stop && from === null)
      eachParagraph(
        state,
        (paragraph) =>
          (full ||= paragraphLook(documentAttrs(state.doc).styles, paragraph).paragraph.tabs.length >= limits.tabs),
      )
    return !full && putTab(stop, from)(state, dispatch)
  }
}

/** Tab stops with one more, or with the one at `from` moved; for null that one goes. Ascending, one at a place. */
export function withTab(tabs: readonly TabStop[], stop: TabStop | null, from: number | null = null): TabStop[] {
  const rest = tabs.filter(
    ({ position }) => Math.abs(position - (from ?? -1)) > 0.01 && (!stop || Math.abs(position - stop.position) > 0.01),
  )
  return [...rest, ...(stop ? [stop] : [])].sort((a, b) => a.position - b.position)
}

function putTab(stop: TabStop | null, from: number | null): Command {
  return eachFormatted(
    ({ tabs }) => ({ tabs: withTab(tabs, stop, from) }),
    stop ? (from === null ? "Tab stop" : "Moved a tab stop") : "Removed a tab stop",
  )
}

export const defaultBorder: Border = { pattern: "solid", width: 0.75, colour: "#5e564b", distance: 4 }

/** A stop at the right edge of the text, to which dots lead: for prices and contents. */
export const priceLine: Command = (state, dispatch) =>
  placeTab({ position: textWidth(documentAttrs(state.doc).setup), align: "right", leader: "dotted" })(state, dispatch)

/** How far further in the lines after the first stand, in points. */
const hanging = 28

/** Text after the first line stands further in than the first, or where it does, no more. */
export const toggleHanging: Command = (state, dispatch) => {
  const on = (paragraphValue(state, "indentFirst") ?? 0) >= 0
  return eachFormatted(
    ({ indentLeft, indentFirst }) =>
      !on
        ? { indentLeft: Math.max(0, indentLeft + Math.min(0, indentFirst)), indentFirst: 0 }
        : indentFirst < 0
          ? {}
          : { indentLeft: indentLeft + hanging, indentFirst: -hanging },
    on ? "Hanging indent" : "No hanging indent",
  )(state, dispatch)
}

/** Borders with one side's set, or for null taken away; "around" means all four. */
export function withBorder(borders: Borders, side: keyof Borders | "around", border: Border | null): Borders {
  const sides = side === "around" ? (["top", "right", "bottom", "left"] as const) : [side]
  const rest = Object.fromEntries(
    Object.entries(borders).filter(([name]) => !(sides as readonly string[]).includes(name)),
  )
  return { ...rest, ...(border ? Object.fromEntries(sides.map((name) => [name, border])) : {}) }
}

/** Sets or takes away one side's border. */
export function setBorder(side: keyof Borders | "around", border: Border | null): Command {
  return eachFormatted(
    ({ borders }) => ({ borders: withBorder(borders, side, border) }),
    border ? "Border" : "No border",
  )
}

export function setDropCap(dropCap: DropCap | null): Command {
  return setParagraphs({ dropCap }, dropCap ? "Drop cap" : "No drop cap")
}

/** A line across the text, as a paragraph of its own below the one with the caret. */
export const insertRule: Command = (state, dispatch) => {
  const { $to } = state.selection
  if (!dispatch) return true
  const rule = nodes.paragraph.create({
    style: paragraphAttrs($to.parent).style,
    format: { borders: { bottom: { ...defaultBorder, distance: 0 } }, list: null, indentFirst: 0 },
  })
  const tr = state.tr
  const end = $to.after()
  tr.insert(end, rule)
  // One goes on below it.
  const next = end + rule.nodeSize
  if (next >= tr.doc.content.size - 1)
    tr.insert(next, nodes.paragraph.create({ style: paragraphAttrs($to.parent).style }))
  tr.setSelection(TextSelection.near(tr.doc.resolve(next + 1), 1))
  dispatch(named(tr.scrollIntoView(), "Line across"))
  return true
}

/** Takes direct formatting off the selected paragraphs, so that they look as their style says. Items stay in their list. */
export const clearParagraphs: Command = (state, dispatch) => {
  if (!dispatch) return true
  const tr = state.tr
  eachParagraph(state, (paragraph, pos) => {
    const { format } = paragraphAttrs(paragraph)
    setEntries(tr, pos, "format", listOnly(format))
  })
  dispatch(named(tr.setStoredMarks(state.storedMarks), `Cleared paragraph${onParagraphs(state)}`))
  return true
}

/** Takes one property of direct formatting off the selected paragraphs. */
export function removeFormatHere(property: keyof ParagraphFormat): Command {
  return (state, dispatch) => {
    const { tr } = state
    eachParagraph(state, (paragraph, pos) => {
      const { [property]: gone, ...rest } = paragraphAttrs(paragraph).format ?? {}
      if (gone !== undefined) setEntries(tr, pos, "format", rest)
    })
    if (!tr.docChanged) return false
    dispatch?.(named(tr, `Removed ${formatNames[property].toLowerCase()}${onParagraphs(state)}`))
    return true
  }
}

/** The values that each of the selected paragraphs has. */
export function paragraphValues<K extends keyof ParagraphFormat>(
  state: EditorState,
  property: K,
): ParagraphFormat[K][] {
  const { styles } = documentAttrs(state.doc)
  const values = new Set<ParagraphFormat[K]>()
  eachParagraph(state, (paragraph) => values.add(paragraphLook(styles, paragraph).paragraph[property]))
  return [...values]
}

/** Takes one property of direct formatting off the paragraph at a position. */
export function removeFormat(pos: number, property: keyof ParagraphFormat): Command {
  return (state, dispatch) => {
    const paragraph = nodeAt(state.doc, pos)
    if (!paragraph || paragraphAttrs(paragraph).format?.[property] === undefined) return false
    const { [property]: _gone, ...rest } = paragraphAttrs(paragraph).format ?? {}
    dispatch?.(named(setEntries(state.tr, pos, "format", rest), `Removed ${formatNames[property].toLowerCase()}`))
    return true
  }
}

/** How the lines of the whole document are broken. */
export function setTypesetting(change: Partial<Typesetting>): Command {
  return (state, dispatch) => {
    dispatch?.(
      named(
        setEntries(
          state.tr,
          null,
          "typesetting",
          fitTypesetting({ ...documentAttrs(state.doc).typesetting, ...change }),
        ),
        "Line breaking",
      ),
    )
    return true
  }
}
