/** Pasting what is long: part after part, so that no task takes the page for long, as one change of the undo list. */
import { Fragment, Slice, type Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { leavesOf, nodes, schema, tableAt } from "../document"
import type { Command } from "./command"
import { joining } from "./history"
import { landingMarks } from "./typingMarks"

/** Blocks, rows and characters of a part. Each costs as much as the document is long, so that they are as few as a short task allows. */
const most = { blocks: 300, rows: 150, size: 60_000 }

export function isLong({ content }: Pick<Slice, "content">): boolean {
  if (isLongTable(content)) return true
  return content.childCount > 2 * most.blocks || (content.childCount > 2 && content.size > 4 * most.size)
}

/** Whether content is one table with many rows, over which no cell reaches: it can be put in row by row. */
function isLongTable({ childCount, firstChild }: Fragment): boolean {
  return (
    childCount === 1 &&
    firstChild?.type === nodes.table &&
    firstChild.childCount > most.rows &&
    firstChild.children.every((row) => row.children.every(({ attrs }) => attrs.rowspan === 1))
  )
}

export interface Parts {
  /** The beginning, with the end behind it, to be pasted first. */
  first: Slice
  /** What comes before the last block of it, in order. */
  rest: Iterable<readonly Node[]>
  /** Number of blocks in all. */
  count: number
  /** Whether the parts are rows of the one table of the beginning. */
  rows?: boolean
}

/** A slice in parts. */
export function partsOf({ content, openStart, openEnd }: Slice): Parts {
  if (isLongTable(content)) {
    const table = content.firstChild as Node
    const [first = [], ...rest] = cut(table.children, most.rows)
    return {
      first: new Slice(Fragment.from(table.copy(Fragment.from(first))), 0, 0),
      rest,
      count: table.childCount,
      rows: true,
    }
  }
  const blocks = content.content
  const middle = blocks.slice(0, -1)
  const [first = [], ...rest] = cut(middle, most.blocks)
  return {
    first: new Slice(Fragment.from([...first, ...blocks.slice(-1)]), openStart, openEnd),
    rest,
    count: blocks.length,
  }
}

/** @param length of the parts, in blocks */
function cut(blocks: readonly Node[], length: number): Node[][] {
  const parts: Node[][] = []
  let size = Infinity
  for (const block of blocks) {
    const last = parts.at(-1)
    if (!last || last.length >= length || size + block.nodeSize > most.size) {
      parts.push([block])
      size = block.nodeSize
    } else {
      last.push(block)
      size += block.nodeSize
    }
  }
  return parts
}

/** A line feed for each so many characters, beyond which text is long. */
export function isLongText(text: string): boolean {
  return text.length > 8 * most.size
}

/** Long text as paragraphs like the one with the caret, made as they are asked for. */
export function textParts(state: EditorState, text: string): Parts {
  const { $from } = state.selection
  const marks = landingMarks(state)
  const paragraph = (line: string) => nodes.paragraph.create($from.parent.attrs, line ? schema.text(line, marks) : null)
  const clean = (line: string) => line.replace(/[\u0000-\u0008\u000a-\u001f]/g, "")
  let at = 0
  let count = 0
  const next = (): Node | null => {
    if (at > text.length) return null
    const end = text.indexOf("\n", at)
    const line = end < 0 ? text.slice(at) : text.slice(at, end)
    at = end < 0 ? text.length + 1 : end + 1
    count++
    return paragraph(clean(line))
  }
  const lastFeed = text.lastIndexOf("\n")
  const tail = paragraph(clean(text.slice(lastFeed + 1)))
  const head = lastFeed < 0 ? null : next()
  const end = lastFeed
  function* rest(): Generator<Node[]> {
    let part: Node[] = []
    let size = 0
    while (at <= end) {
      const node = next() as Node
      part.push(node)
      size += node.nodeSize
      if (part.length < most.blocks && size < most.size) continue
      yield part
      part = []
      size = 0
    }
    if (part.length > 0) yield part
  }
  return {
    first: new Slice(Fragment.from(head ? [head, tail] : [tail]), 1, 1),
    rest: rest(),
    get count() {
      return count
    },
  }
}

/** Position before the block with the caret: there the parts of a paste go in. */
export function beforeBlock(state: EditorState): number {
  return leavesOf(state.doc).before(leavesOf(state.doc).at(state.selection.head))
}

/** Position at the end of the table with the caret, or before it: there further rows go in. */
export function endOfTable(state: EditorState): number {
  const { $head } = state.selection
  const place = tableAt($head)
  if (place) return place.pos + place.table.nodeSize - 1
  const before = state.doc.resolve($head.before()).nodeBefore
  return before?.type === nodes.table ? $head.before() - 1 : $head.before()
}

/** Puts a further part in, which belongs to the change before it. */
export function insertPart(at: number, blocks: readonly Node[]): Command {
  return (state, dispatch) => {
    dispatch?.(joining(state.tr.insert(at, Fragment.from(blocks)), "pasted"))
    return true
  }
}
