/** Tables come: blank ones, of selected text, and of what is pasted; and become text again. */
import { Fragment, type Node } from "prosemirror-model"
import { Selection, TextSelection, type Transaction } from "prosemirror-state"
import { cellParagraph, gridOf, leavesOf, limits, nodes, paragraphAttrs, tableAt, textOf, within } from "../../document"
import type { Command } from "../command"
import { named } from "../history"
import { rowStarts } from "./model"
import { putColumns, putRows } from "./rows"
import { selectedRect, selectRect } from "./selection"

const cellOf = (content: Fragment | Node | null): Node =>
  nodes.cell.create(null, nodes.paragraph.create({ format: cellParagraph }, content))

/** Rows of as many cells each; what lacks is put in. */
function tableOf(rows: readonly (readonly Node[])[], head: boolean): Node {
  const columns = Math.max(1, ...rows.map((row) => row.length))
  return nodes.table.create(
    head ? null : { format: { headRows: 0 } },
    rows.map((row) =>
      nodes.row.create(null, [...row, ...Array.from({ length: columns - row.length }, () => cellOf(null))]),
    ),
  )
}

/** Puts a block where the caret is: in place of an empty paragraph, else between what stands before and behind it. Returns its position. */
export function putBlock(tr: Transaction, block: Node): number {
  if (!tr.selection.empty) tr.deleteSelection()
  // Where the caret is then: the place where the selection began may have gone with its paragraph.
  const { $from: $at } = tr.selection
  const { parent, parentOffset } = $at
  if (parent.content.size === 0) {
    const pos = $at.before()
    tr.replaceWith(pos, $at.after(), block)
    return pos
  }
  if (parentOffset === 0 || parentOffset === parent.content.size) {
    const pos = parentOffset === 0 ? $at.before() : $at.after()
    tr.insert(pos, block)
    return pos
  }
  tr.split($at.pos)
  tr.insert($at.pos + 1, block)
  return $at.pos + 1
}

/** A blank table at the caret, which then stands in its first cell. */
export function insertTable(rows: number, columns: number): Command {
  return (state, dispatch) => {
    const { $from } = state.selection
    if (!$from.parent.isTextblock || !(rows >= 1) || !(columns >= 1)) return false
    if (!dispatch) return true
    const wide = Math.floor(within(columns, [1, limits.table.columns]))
    const high = Math.floor(within(rows, [1, 500]))
    const row = () => Array.from({ length: wide }, () => cellOf(null))
    const { tr } = state
    const pos = putBlock(tr, tableOf(Array.from({ length: high }, row), high > 1))
    tr.setSelection(Selection.near(tr.doc.resolve(pos + 3), 1))
    dispatch(named(tr, `Table ${high} × ${wide}`).scrollIntoView())
    return true
  }
}

/** What divides the cells of a line of text. */
export type Divider = "tabs" | "commas" | "semicolons" | "paragraphs"
const signs: Readonly<Record<Exclude<Divider, "paragraphs">, string>> = { tabs: "\t", commas: ",", semicolons: ";" }

/** What most likely divides the cells of some lines: the sign that each of them has, as often as it can be. */
export function likelyDivider(lines: readonly string[]): Divider {
  const filled = lines.filter((line) => line.trim() !== "")
  const each = (sign: string) => filled.length > 0 && filled.every((line) => line.includes(sign))
  return each("\t") ? "tabs" : each(";") ? "semicolons" : each(",") ? "commas" : "paragraphs"
}

/** The parts of a paragraph's content between signs, without the blanks round them. */
function parts(line: Node, sign: string): Fragment[] {
  const text = textOf(line)
  const found: Fragment[] = []
  for (let from = 0; from <= text.length;) {
    const end = text.indexOf(sign, from)
    const to = end < 0 ? text.length : end
    const [lead, tail] = [
      /^ */.exec(text.slice(from, to))?.[0].length ?? 0,
      / *$/.exec(text.slice(from, to))?.[0].length ?? 0,
    ]
    found.push(line.content.cut(Math.min(from + lead, to), Math.max(from + lead, to - tail)))
    from = to + sign.length
  }
  return found
}

/** Makes a table of the selected paragraphs: a row of each. */
export function tableFromText(wished?: Divider): Command {
  return (state, dispatch) => {
    const { $from, $to } = state.selection
    const range = $from.blockRange($to, (node) => ["body", "cell", "story"].includes(node.type.name))
    if (!range || !$from.parent.isTextblock) return false
    const lines = range.parent.children.slice(range.startIndex, range.endIndex)
    if (!lines.every((line) => line.isTextblock)) return false
    if (!dispatch) return true
    const divider = wished ?? likelyDivider(lines.map(textOf))
    const rows = lines
      .filter((line) => line.content.size > 0 || lines.length === 1)
      .map((line) => (divider === "paragraphs" ? [cellOf(line.content)] : parts(line, signs[divider]).map(cellOf)))
    const most = limits.table.columns
    // What is too wide keeps its last parts in the last cell.
    const fitting = rows.map((row) =>
      row.length <= most
        ? row
        : [
            ...row.slice(0, most - 1),
            nodes.cell.create(
              null,
              row.slice(most - 1).flatMap((own) => own.children),
            ),
          ],
    )
    const { tr } = state
    tr.replaceWith(range.start, range.end, tableOf(fitting.length > 0 ? fitting : [[cellOf(null)]], fitting.length > 1))
    tr.setSelection(Selection.near(tr.doc.resolve(range.start + 3), 1))
    dispatch(named(tr, "Table of the text").scrollIntoView())
    return true
  }
}

/** Makes text of the table at the caret: a paragraph of each row, its cells divided by tabs; cells of several blocks keep these. */
export const textFromTable: Command = (state, dispatch) => {
  const rect = selectedRect(state)
  if (!rect) return false
  if (!dispatch) return true
  const { table, pos } = rect
  const grid = gridOf(table)
  const tab = state.schema.text("\t")
  const blocks: Node[] = []
  for (let row = 0; row < grid.rows; row++) {
    const cells = grid.begun(row)
    const simple = cells.every(({ node }) => node.childCount === 1 && node.firstChild?.isTextblock)
    if (!simple) cells.forEach(({ node }) => blocks.push(...node.children))
    else {
      const first = cells[0]?.node.firstChild
      const content = cells.reduce(
        (all, { node }, i) => (i === 0 ? all : all.addToEnd(tab)).append(node.firstChild?.content ?? Fragment.empty),
        Fragment.empty,
      )
      blocks.push(nodes.paragraph.create({ style: first ? paragraphAttrs(first).style : "body" }, joined(content)))
    }
  }
  const { tr } = state
  tr.replaceWith(pos, pos + table.nodeSize, blocks)
  const end = pos + blocks.reduce((sum, block) => sum + block.nodeSize, 0)
  tr.setSelection(TextSelection.between(tr.doc.resolve(pos + 1), tr.doc.resolve(end - 1)))
  dispatch(named(tr, "Text of the table").scrollIntoView())
  return true
}

/** The same content with neighbours of one look as one text. */
function joined(content: Fragment): Node[] {
  return Fragment.fromArray(content.content.slice()).content.reduce<Node[]>((all, node) => {
    const last = all.at(-1)
    if (last?.isText && node.isText && last.sameMarkup(node))
      all[all.length - 1] = node.type.schema.text(`${last.text ?? ""}${node.text ?? ""}`, node.marks)
    else all.push(node)
    return all
  }, [])
}

/** Puts the cells of a table into the one with the caret, from that cell on; rows and columns that lack are added. */
export function pasteCells(copied: Node): Command {
  return (state, dispatch) => {
    const rect = selectedRect(state)
    if (!rect || copied.type !== nodes.table) return false
    const from = gridOf(copied)
    const { pos, top, left } = rect
    if (left + from.columns > limits.table.columns) return false
    const place = tableAt(state.selection.$head)
    // Where cells reach over places, those of the two tables would not fit.
    const plain = (table: Node) =>
      table.children.every((row) => row.children.every(({ attrs }) => attrs.colspan === 1 && attrs.rowspan === 1))
    if (!place || !plain(copied) || !plain(rect.table)) return false
    if (!dispatch) return true
    const { tr } = state
    const into = gridOf(rect.table)
    const [rows, columns] = [top + from.rows - into.rows, left + from.columns - into.columns]
    if (rows > 0) putRows(tr, pos, into.rows, rows, into.rows - 1)
    if (columns > 0) putColumns(tr, pos, into.columns, columns, into.columns - 1)
    const table = tr.doc.nodeAt(pos) as Node
    const starts = rowStarts(table, pos)
    const rowsNow = table.children.slice(top, top + from.rows).map((own, row) => {
      const pasted = copied.child(row).children
      const cells = own.children.map((cell, column) =>
        column >= left && column < left + from.columns
          ? cell.copy(pasted[column - left]?.content ?? cell.content)
          : cell,
      )
      return own.copy(Fragment.from(cells))
    })
    tr.replaceWith(starts[top] as number, starts[top + from.rows] as number, rowsNow)
    tr.setSelection(
      selectRect(tr.doc, tr.doc.nodeAt(pos) as Node, pos, {
        top,
        left,
        bottom: top + from.rows,
        right: left + from.columns,
      }),
    )
    dispatch(named(tr, "Cells pasted").scrollIntoView())
    return true
  }
}

/** A paragraph before the table at the caret, where nothing could be written otherwise; for Enter at its very beginning. */
export const paragraphBefore: Command = (state, dispatch) => {
  const { $head, empty } = state.selection
  const place = empty ? tableAt($head) : null
  if (!place || $head.parentOffset > 0) return false
  const { pos, table } = place
  if (leavesOf(state.doc).at($head.pos) !== leavesOf(state.doc).at(pos + 3)) return false
  if (tableAt(state.doc.resolve(pos + 3))?.pos !== pos || table.firstChild?.firstChild?.firstChild !== $head.parent)
    return false
  if (state.doc.resolve(pos).nodeBefore?.isTextblock) return false
  if (dispatch) {
    const { tr } = state
    tr.insert(pos, nodes.paragraph.create())
    tr.setSelection(TextSelection.create(tr.doc, pos + 1))
    dispatch(named(tr, "Paragraph before the table").scrollIntoView())
  }
  return true
}
