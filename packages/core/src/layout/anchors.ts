import type { Node } from "prosemirror-model"
import { anchorsIn, textOf } from "../document"

/** The anchors of a paragraph; null for none, so that most paragraphs carry nothing. */
export function anchorsOf(node: Node): readonly { key: string; offset: number }[] | null {
  const anchors = textOf(node).includes("\ufffc") ? anchorsIn(node) : []
  return anchors.length > 0 ? anchors : null
}
