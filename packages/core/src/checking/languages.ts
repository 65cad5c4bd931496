import type { Node } from "prosemirror-model"
import { letterLook, paragraphLook, type StyleSheet } from "../document"

/** A part of a paragraph in one language, by offsets. */
export interface Stretch {
  from: number
  to: number
  language: string
}

/** The languages of a paragraph, stretch by stretch. */
export function languagesOf(styles: StyleSheet, paragraph: Node): Stretch[] {
  const base = paragraphLook(styles, paragraph).letters
  const found: Stretch[] = []
  paragraph.forEach((child, offset) => {
    const { language } = child.marks.length === 0 ? base : letterLook(styles, base, child.marks)
    const last = found.at(-1)
    if (last?.language === language) last.to = offset + child.nodeSize
    else found.push({ from: offset, to: offset + child.nodeSize, language })
  })
  return found
}
