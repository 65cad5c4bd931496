/** What is selected: as content, and as text. */
import { Slice } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { documentAttrs, gridOf, labelsOf, leavesOf, nodesBetween, spokenText, type StyleSheet } from "../document"
import { CellSelection } from "./tables/selection"

/** A stretch of a document, from the blocks down of the text or cell that it is in. */
export function selectionSlice(slice: Slice): Slice {
  let { content, openStart, openEnd } = slice
  for (
    let outer = content.firstChild;
    outer && content.childCount === 1 && !outer.isTextblock && openStart > 0 && openEnd > 0;
    outer = content.firstChild
  )
    [content, openStart, openEnd] = [outer.content, openStart - 1, openEnd - 1]
  return new Slice(content, openStart, openEnd)
}

/** The selected content, from its blocks down. */
export function selectedSlice(state: EditorState): Slice {
  return selectionSlice(state.selection.content())
}

/** Cells as lines of text, divided by tabs. */
function cellsAsText({ rect }: CellSelection, styles: StyleSheet): string {
  const grid = gridOf(rect.table)
  const lines: string[] = []
  for (let row = rect.top; row < rect.bottom; row++) {
    const cells = grid.begun(row).filter(({ column }) => column >= rect.left && column < rect.right)
    lines.push(
      cells
        .map(({ node }) => {
          const words: string[] = []
          node.descendants((leaf) => void (leaf.isTextblock && words.push(spokenText(styles, leaf))))
          return words.join(" ")
        })
        .join("\t"),
    )
  }
  return lines.join("\n")
}

/** The selected text, paragraphs divided by a line feed. */
export function selectedText(state: EditorState): string {
  const { from, to, $from, $to } = state.selection
  const { styles } = documentAttrs(state.doc)
  if ($from.sameParent($to)) return spokenText(styles, $from.parent, $from.parentOffset, $to.parentOffset)
  if (state.selection instanceof CellSelection) return cellsAsText(state.selection, styles)
  // Over several paragraphs, items of lists bring their marks.
  const labels = labelsOf(state.doc)
  const lines: string[] = []
  nodesBetween(state.doc, from, to, (node, pos) => {
    if (!node.isTextblock) return true
    const label = pos + 1 >= from ? (labels[leavesOf(state.doc).at(pos)] ?? null) : null
    lines.push(
      `${label ? `${label} ` : ""}${spokenText(styles, node, Math.max(0, from - pos - 1), Math.min(node.content.size, to - pos - 1))}`,
    )
    return false
  })
  return lines.join("\n")
}
