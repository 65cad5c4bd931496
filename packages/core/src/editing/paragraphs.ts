/** Formatting of whole paragraphs, and styles. */
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { documentAttrs, paragraphAttrs, paragraphLook, styleLook, type ParagraphFormat } from "../document"
import type { Command } from "./command"
import { named } from "./history"

function eachParagraph(state: EditorState, visit: (paragraph: Node, pos: number) => void): void {
  const { from, to } = state.selection
  state.doc.nodesBetween(from, to, (node, pos) => {
    if (node.isTextblock) visit(node, pos)
    return !node.isTextblock
  })
}

function equal(a: unknown, b: unknown): boolean {
  return a === b || (typeof a === "object" && JSON.stringify(a) === JSON.stringify(b))
}

/** The value that all selected paragraphs share, or undefined where they differ. */
export function paragraphValue<K extends keyof ParagraphFormat>(state: EditorState, property: K): ParagraphFormat[K] | undefined {
  const { styles } = documentAttrs(state.doc)
  const values: ParagraphFormat[K][] = []
  eachParagraph(state, (paragraph) => values.push(paragraphLook(styles, paragraph).paragraph[property]))
  return values.every((value) => equal(value, values[0])) ? values[0] : undefined
}

/** Formats the selected paragraphs directly. Values that the style gives anyway are not kept twice. */
export function setParagraphs(format: Partial<ParagraphFormat>): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { styles } = documentAttrs(state.doc)
    const tr = state.tr
    eachParagraph(state, (paragraph, pos) => {
      const attrs = paragraphAttrs(paragraph)
      const base = styleLook(styles, attrs.style).paragraph
      const merged = Object.entries({ ...attrs.format, ...format }).filter(([name, value]) => !equal(value, base[name as keyof ParagraphFormat]))
      const next = merged.length > 0 ? Object.fromEntries(merged) : null
      if (!equal(next, attrs.format)) tr.setNodeAttribute(pos, "format", next)
    })
    dispatch(named(tr.setStoredMarks(state.storedMarks), `${formatName(format)}${onParagraphs(state)}`))
    return true
  }
}

const alignments = { left: "Left", center: "Centred", right: "Right", justify: "Justified" }

/** A format of paragraphs in words. */
function formatName(format: Partial<ParagraphFormat>): string {
  const { align, lineSpacing, spaceBefore, spaceAfter } = format
  if (align) return alignments[align]
  if (lineSpacing) return `Line spacing ${lineSpacing.value}`
  if (spaceBefore !== undefined) return `Space before ${spaceBefore} pt`
  if (spaceAfter !== undefined) return `Space after ${spaceAfter} pt`
  return "Paragraph"
}

function onParagraphs(state: EditorState): string {
  let n = 0
  eachParagraph(state, () => n++)
  return n > 1 ? ` on ${n} paragraphs` : ""
}

/** The style of all selected paragraphs, or undefined where they differ. */
export function styleValue(state: EditorState): string | undefined {
  const found = new Set<string>()
  eachParagraph(state, (paragraph) => found.add(paragraphAttrs(paragraph).style))
  return found.size === 1 ? [...found][0] : undefined
}

/** Gives the selected paragraphs a style. Direct formatting of the paragraph goes; that of letters stays. */
export function setStyle(style: string): Command {
  return (state, dispatch) => {
    const name = documentAttrs(state.doc).styles.styles[style]?.name
    if (!name) return false
    if (!dispatch) return true
    const tr = state.tr
    eachParagraph(state, (paragraph, pos) => {
      const attrs = paragraphAttrs(paragraph)
      if (attrs.style !== style) tr.setNodeAttribute(pos, "style", style)
      if (attrs.format) tr.setNodeAttribute(pos, "format", null)
    })
    dispatch(named(tr.setStoredMarks(state.storedMarks), `${name}${onParagraphs(state)}`))
    return true
  }
}
