import type { Node } from "prosemirror-model"

/** What begins at a position, which may be one of an older document that was longer; null where nothing does. */
export function nodeAt(doc: Node, pos: number): Node | null {
  return pos >= 0 && pos < doc.content.size ? doc.nodeAt(pos) : null
}
