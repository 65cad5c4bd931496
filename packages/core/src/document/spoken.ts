/** A paragraph's text as people read it: fields say what they show. */
import type { Node } from "prosemirror-model"
import { fieldText } from "./fields"
import { letterLook, paragraphLook } from "./look"
import type { StyleSheet } from "./shapes"

/** @param shown what fields show that is computed from the document */
export function spokenText(
  styles: StyleSheet,
  paragraph: Node,
  from = 0,
  to = paragraph.content.size,
  shown?: ReadonlyMap<Node, string>,
): string {
  const base = paragraphLook(styles, paragraph).letters
  return paragraph.textBetween(from, to, undefined, (leaf) =>
    leaf.type.name === "field"
      ? (shown?.get(leaf) ?? fieldText(leaf, letterLook(styles, base, leaf.marks).language))
      : (leaf.type.spec.leafText?.(leaf) ?? ""),
  )
}
