/** Words in which core's tests are told. */
import type { Node } from "prosemirror-model"
import { EditorState, TextSelection, type Plugin } from "prosemirror-state"
import { document, leavesOf, paragraphAttrs, textOf } from "../src/document"
import type { Command } from "../src/editing"
import { fragmentsOf, tablesOf, type Layout } from "../src/layout"

/** A state of these blocks, with the selection from the n-th position of one block to that of another. */
export function stateOf(
  blocks: Node[],
  from: [block: number, offset: number] = [0, 0],
  to = from,
  plugins: Plugin[] = [],
): EditorState {
  const doc = document(blocks)
  const at = ([block, offset]: [number, number]) => leavesOf(doc).start(block) + offset
  return EditorState.create({ doc, selection: TextSelection.create(doc, at(from), at(to)), plugins })
}

/** The state after commands; each of them has to apply. */
export function after(state: EditorState, ...commands: Command[]): EditorState {
  for (const command of commands) {
    let next: EditorState | null = null
    if (!command(state, (tr) => (next = state.apply(tr)))) throw new Error("A command does not apply")
    state = next ?? state
  }
  return state
}

export function texts(doc: Node): string[] {
  const list: string[] = []
  leavesOf(doc).nodes.forEach((block) => list.push(textOf(block)))
  return list
}

export function styles(doc: Node): string[] {
  const list: string[] = []
  leavesOf(doc).nodes.forEach((block) => list.push(paragraphAttrs(block).style))
  return list
}

/** The text with the caret as | or the selection between [ and ]. */
export function told(state: EditorState): string {
  const { $anchor, $head, empty } = state.selection
  return texts(state.doc)
    .map((text, block) => {
      const start = leavesOf(state.doc).start(block)
      const marks = empty
        ? [{ at: $head.pos, sign: "|" }]
        : [
            { at: Math.min($anchor.pos, $head.pos), sign: "[" },
            { at: Math.max($anchor.pos, $head.pos), sign: "]" },
          ]
      for (const { at, sign } of marks.reverse())
        if (at >= start && at <= start + text.length) text = text.slice(0, at - start) + sign + text.slice(at - start)
      return text
    })
    .join("\n")
}

/** Boxes and lines, to a thousandth of a point. */
const rounded = (all: readonly object[]) =>
  JSON.stringify(all, (_key, value: unknown) => (typeof value === "number" ? Math.round(value * 1000) : value))

/** What a layout shows, without identities: for comparing two. */
export function shown(layout: Layout) {
  return layout.placed.map((placed) => ({
    leaf: placed.leaf,
    fragments: fragmentsOf(placed).map(({ leaf, from, to, y, paragraph }) => [
      leaf,
      from,
      to,
      Math.round(y * 1000),
      paragraph.text,
      paragraph.lines.length,
    ]),
    tables: tablesOf(placed).map(({ leaf, cells, ground }) => [
      leaf,
      cells.map((cell) => cell.leaf),
      rounded(ground.fills),
      rounded(ground.rules),
    ]),
  }))
}
