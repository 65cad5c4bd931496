import type { Node } from "prosemirror-model"
import { paragraph } from "../document"

/** A table in a note is set as its text. */
export function withoutTables(block: Node): Node {
  return block.isTextblock ? block : paragraph("note", [block.textBetween(0, block.content.size, " ")].filter(Boolean))
}
