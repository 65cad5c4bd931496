/** Typing, deleting, dividing and joining paragraphs. */
import { Fragment, Slice, type Mark, type Node } from "prosemirror-model"
import { Selection, TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import { canJoin } from "prosemirror-transform"
import {
  documentAttrs,
  gridOf,
  nodes,
  nodesBetween,
  paragraphAttrs,
  schema,
  setEntries,
  styleOf,
  tableAt,
  textOf,
  withTypedLists,
  type Brought,
} from "../document"
import { bring } from "./bringing"
import type { Command } from "./command"
import { withoutForeignComments } from "./comments"
import { joining, named, quoted } from "./history"
import { wholePart } from "./stories"
import { selectedSlice, selectedText } from "./selected"
import { pasteCells } from "./tables/inserting"
import { deleteTable } from "./tables/rows"
import { CellSelection, withWholeTables } from "./tables/selection"
import { formatOf, marksAt, typingMarks } from "./typingMarks"
import { graphemeBoundary, wordBoundary, type Direction } from "./movement"

/** Replaces a range of one or more paragraphs by text of one look. Line feeds in it divide paragraphs. */
export function insertText(text: string, from?: number, to?: number): Command {
  return (state, dispatch) => {
    const start = from ?? state.selection.from
    const end = to ?? state.selection.to
    if (!dispatch) return true
    const cleared = clearsFirst(state, start, end)
    if (cleared) return afterwards(cleared, insertText(text))(state, dispatch)
    const marks = state.storedMarks ?? marksAt(state.doc.resolve(start), state.doc.resolve(end))
    const tr = state.tr
    const lines = text.replace(/\r\n?/g, "\n").split("\n")
    if (lines.length === 1) {
      if (text) tr.replaceRangeWith(start, end, schema.text(text, marks))
      else tr.delete(start, end)
    } else {
      const attrs = state.doc.resolve(start).parent.attrs
      const paragraphs = withTypedLists(
        lines.map((line) => nodes.paragraph.create(attrs, line ? schema.text(line, marks) : null)),
      )
      const $start = state.doc.resolve(start)
      // In an empty paragraph there is nothing that the first of them could join.
      if (start === end && $start.parent.content.size === 0) tr.replaceWith($start.before(), $start.after(), paragraphs)
      else tr.replace(start, end, new Slice(Fragment.from(paragraphs), 1, 1))
    }
    const caret = tr.mapping.map(end)
    tr.setSelection(TextSelection.near(tr.doc.resolve(caret), -1))
    settleLetters(tr, { at: start, marks })
    if (state.storedMarks) tr.setStoredMarks(state.storedMarks)
    dispatch(tr.scrollIntoView())
    return true
  }
}

/** After a change: what letters look like stays in a paragraph only while it has no text. `emptied` is what one that has just lost its text keeps. */
function settleLetters(tr: Transaction, emptied?: { at: number; marks: readonly Mark[] }): Transaction {
  const at = emptied && tr.doc.resolve(Math.min(emptied.at, tr.doc.content.size))
  const left = at?.parent.isTextblock && at.parent.content.size === 0 ? at.before() : -1
  const changed = tr.changedRange()
  const inside: number[] = []
  if (changed)
    nodesBetween(tr.doc, changed.from, Math.min(changed.to, tr.doc.content.size), (node, pos) => {
      if (node.isTextblock) inside.push(pos)
      return !node.isTextblock
    })
  for (const pos of left < 0 || inside.includes(left) ? inside : [...inside, left]) {
    const paragraph = tr.doc.nodeAt(pos)!
    const { letters } = paragraphAttrs(paragraph)
    const kept = pos === left ? formatOf(emptied!.marks) : paragraph.content.size === 0 ? letters : null
    setEntries(tr, pos, "letters", kept)
  }
  return tr
}

function deleteRange(tr: Transaction, from: number, to: number): Transaction {
  const [$from, $to] = [tr.doc.resolve(from), tr.doc.resolve(to)]
  const marks = marksAt($from, $to)
  tr.delete(from, to)
  // Where whole items of a list are deleted, their list goes too: what is left is plain text.
  const wholeItems = !$from.sameParent($to) && $from.parentOffset === 0 && $to.parentOffset === $to.parent.content.size
  const left = tr.doc.resolve(tr.mapping.map(from))
  if (wholeItems && left.parent.isTextblock && left.parent.content.size === 0) {
    const { list, ...rest } = paragraphAttrs(left.parent).format ?? {}
    if (list) setEntries(tr, left.before(), "format", rest)
  }
  settleLetters(tr, { at: from, marks })
  return joining(tr.setSelection(TextSelection.near(tr.doc.resolve(tr.mapping.map(from)), -1)), "deleted")
}

/** Empties the selected cells, which stay. */
const clearCells: Command = (state, dispatch) => {
  if (!(state.selection instanceof CellSelection)) return false
  if (!dispatch) return true
  const { tr } = state
  for (const { $from, $to } of [...state.selection.ranges].reverse()) {
    const first = $from.parent
    const kept = first.isTextblock ? first.copy() : nodes.paragraph.create()
    const [start, end] = [$from.before($from.depth), $to.after($to.depth)]
    const whole = tr.doc.resolve(start).parent
    if (whole.childCount !== 1 || first.content.size > 0) tr.replaceWith(start, end, kept)
  }
  tr.setSelection(TextSelection.near(tr.doc.resolve(tr.mapping.map(state.selection.$from.before())), 1))
  dispatch(named(tr, "Cells emptied").scrollIntoView())
  return true
}

export const deleteSelection: Command = (state, dispatch) => {
  if (state.selection.empty) return false
  if (state.selection instanceof CellSelection) {
    // Whole rows and columns are emptied too; the table's own tools take them away.
    const { rect } = state.selection
    const grid = gridOf(rect.table)
    const all = rect.top === 0 && rect.left === 0 && rect.bottom === grid.rows && rect.right === grid.columns
    return (all ? deleteTable : clearCells)(state, dispatch)
  }
  const { from, to } = withWholeTables(state.doc, state.selection.from, state.selection.to)
  dispatch?.(deleteRange(state.tr, from, to).scrollIntoView())
  return true
}

/** What has to be done before text can take the place of a range: cells are emptied, tables that are selected from without go. */
function clearsFirst(state: EditorState, from: number, to: number): Command | null {
  const { selection, doc } = state
  if (from !== selection.from || to !== selection.to) return null
  if (selection instanceof CellSelection) return clearCells
  const whole = withWholeTables(doc, from, to)
  return whole.from !== from || whole.to !== to ? deleteSelection : null
}

/** Does one thing and then another, as one change. */
function afterwards(first: Command, then: Command): Command {
  return (state, dispatch) => {
    let tr: Transaction | null = null
    if (!first(state, (made) => (tr = made)) || !tr) return false
    const begun: Transaction = tr
    return then(state.apply(begun), (next) => {
      for (const step of next.steps) begun.step(step)
      begun.setSelection(Selection.fromJSON(begun.doc, next.selection.toJSON() as object))
      if (next.storedMarks) begun.setStoredMarks(next.storedMarks)
      for (const meta of ["changeName", "joins"]) begun.setMeta(meta, next.getMeta(meta))
      dispatch?.(begun.scrollIntoView())
    })
  }
}

/** The same in place of what is selected, whatever that is. */
function inPlace(command: Command): Command {
  return (state, dispatch) => {
    const cleared = clearsFirst(state, state.selection.from, state.selection.to)
    return cleared ? dispatch === undefined || afterwards(cleared, command)(state, dispatch) : command(state, dispatch)
  }
}

/** Joins the paragraph that starts at `at` with the one before it; the joined one keeps the look of the first, unless that was empty. */
function joinAt(tr: Transaction, at: number): Transaction | null {
  // Cells and stories are joined with nothing.
  if (!tr.doc.resolve(at).nodeBefore?.isTextblock || !canJoin(tr.doc, at)) return null
  const $at = tr.doc.resolve(at)
  const before = $at.nodeBefore
  const after = $at.nodeAfter
  if (!before || !after) return null
  if (before.content.size === 0) {
    tr.delete(at - before.nodeSize, at)
    return tr.setSelection(TextSelection.create(tr.doc, at - before.nodeSize + 1))
  }
  tr.join(at)
  return tr.setSelection(TextSelection.create(tr.doc, at - 1))
}

const around = (pos: number, direction: Direction): [from: number, to: number] =>
  direction < 0 ? [pos - 1, pos] : [pos, pos + 1]

/** Deletes the selection, else one character or word beside the caret, else joins paragraphs. */
function deleteBeside(direction: Direction, unit: "character" | "word"): Command {
  return (state, dispatch) => {
    if (!state.selection.empty) return deleteSelection(state, dispatch)
    const { $head } = state.selection as TextSelection
    const text = textOf($head.parent)
    const offset = $head.parentOffset
    const atEdge = direction < 0 ? offset === 0 : offset === text.length
    if (!atEdge) {
      const other = unit === "word" ? wordBoundary(text, offset, direction) : deletedCharacter(text, offset, direction)
      const target = $head.start() + other
      dispatch?.(deleteRange(state.tr, Math.min($head.pos, target), Math.max($head.pos, target)).scrollIntoView())
      return true
    }
    const boundary = direction < 0 ? $head.before() : $head.after()
    const $boundary = state.doc.resolve(boundary)
    const beside = direction < 0 ? $boundary.nodeBefore : $boundary.nodeAfter
    // The beginning of a section, or a list of contents, goes whole.
    const tr =
      beside?.type === nodes.sectionBreak || beside?.type === nodes.contents
        ? named(
            state.tr.delete(...around(boundary, direction)),
            beside.type === nodes.contents ? "Contents taken away" : "Sections joined",
          )
        : joinAt(state.tr, boundary)
    if (!tr) return false
    dispatch?.(tr.scrollIntoView())
    return true
  }
}

/** Backspace takes one code point of a composed character, so that an accent can be corrected; whole emoji go at once. */
function deletedCharacter(text: string, offset: number, direction: Direction): number {
  const whole = graphemeBoundary(text, offset, direction)
  if (direction > 0) return whole
  return /\p{Extended_Pictographic}|\p{Regional_Indicator}/u.test(text.slice(whole, offset)) ||
    !/\p{M}$/u.test(text.slice(whole, offset))
    ? whole
    : offset - 1
}

export const deleteBackward = deleteBeside(-1, "character")
export const deleteForward = deleteBeside(1, "character")
export const deleteWordBackward = deleteBeside(-1, "word")
export const deleteWordForward = deleteBeside(1, "word")

/**
 * Enter: divides the paragraph at the caret. At the end of a paragraph the new one gets the next style
 * of that style sheet entry (after a heading: body); in an empty one with a next style, the style changes instead.
 */
export const splitParagraph: Command = inPlace((state, dispatch) => {
  const { $from, $to } = state.selection as TextSelection
  if (!$from.parent.isTextblock || !$to.parent.isTextblock) return false
  if (!dispatch) return true
  const tr = state.tr.delete($from.pos, $to.pos)
  const $at = tr.doc.resolve(tr.mapping.map($from.pos))
  const { style, format } = paragraphAttrs($at.parent)
  const next = styleOf(documentAttrs(state.doc).styles, style)?.next
  const atEnd = $at.parentOffset === $at.parent.content.size
  const marks = state.storedMarks ?? (atEnd && next ? [] : $at.marks())
  const takesNext = atEnd && next && $at.parent.content.size > 0
  // What marks the start of a paragraph belongs to the one that had it, not to the one split off.
  const { breakBefore: _stays, columnBefore: _column, dropCap: _cap, listedAs: _words, ...rest } = format ?? {}
  if (rest.list) {
    const { start: _start, done, ...place } = rest.list
    rest.list = done === undefined ? place : { ...place, done: false }
  }
  const letters = atEnd ? formatOf(marks) : null
  const attrs = takesNext
    ? { style: next, format: null, letters }
    : { style, format: Object.keys(rest).length > 0 ? rest : null, letters }
  tr.split($at.pos, 1, [{ type: nodes.paragraph, attrs }])
  tr.setSelection(TextSelection.near(tr.doc.resolve($at.pos + 2)))
  if (marks.length > 0) tr.ensureMarks(marks)
  dispatch(tr.scrollIntoView())
  return true
})

/** A new line in the same paragraph. */
export const insertLineBreak: Command = inPlace((state, dispatch) => {
  dispatch?.(
    state.tr.replaceSelectionWith(nodes.lineBreak.create(null, null, typingMarks(state)), false).scrollIntoView(),
  )
  return true
})

/** Text from the clipboard: a line feed divides paragraphs; the text takes the look of where it lands. */
export function pasteText(text: string): Command {
  return (state, dispatch) => {
    const clean = text.replace(/\r\n?/g, "\n").replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, "")
    return (
      clean !== "" && insertText(clean)(state, dispatch && ((tr) => dispatch(named(tr, `Pasted ${quoted(clean)}`))))
    )
  }
}

/** Puts blocks of any kind where the caret is: text at either end joins the text there, other blocks stand between. */
function putBlocks(tr: Transaction, { content, openStart, openEnd }: Slice): void {
  if (!tr.selection.empty) tr.deleteSelection()
  const { $from } = tr.selection
  const [left, right] = [$from.parentOffset > 0, $from.parentOffset < $from.parent.content.size]
  if (left && right) tr.split($from.pos)
  const pos = !left ? $from.before() : $from.pos + 1
  tr.insert(pos, content)
  const end = pos + content.size
  if (right && openEnd > 0 && content.lastChild?.isTextblock) tr.join(end)
  tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(end, tr.doc.content.size)), -1))
  if (left && openStart > 0 && content.firstChild?.isTextblock) tr.join(pos)
}

/** Puts copied content in place of the selection, under its own look. */
export function pasteSlice(slice: Slice, name = "Pasted", brought: Brought | null = null): Command {
  return inPlace((state, dispatch) => {
    if (slice.size === 0) return false
    const [only] = slice.content.content
    const isTable = only?.type === nodes.table && slice.content.childCount === 1
    if (isTable && !brought && tableAt(state.selection.$head) && pasteCells(only)(state, dispatch)) return true
    if (!dispatch) return true
    const { $from, $to } = state.selection
    const tr = brought ? bring(state.tr, brought) : state.tr
    // Paragraphs that land in an empty one keep their style: there is nothing that they could join.
    if (
      (slice.content.childCount > 1 || !only?.isTextblock) &&
      !only?.isInline &&
      $from.sameParent($to) &&
      $from.parent.content.size === 0
    ) {
      tr.replaceWith($from.before(), $from.after(), slice.content)
      tr.setSelection(TextSelection.near(tr.doc.resolve(tr.mapping.map($from.after())), -1))
    } else if (slice.content.content.every((own) => own.isTextblock || own.isInline)) {
      tr.replaceSelection(slice)
      // Behind whole paragraphs at the end of a text the caret would go to what follows that: a cell, a note, a head.
      if ($to.depth > 1 && tr.selection.$head.start(-1) !== tr.mapping.map($to.start(-1), -1)) {
        let end = 0
        tr.mapping.maps.at(-1)?.forEach((_from, _to, _newFrom, newTo) => (end = newTo))
        tr.setSelection(TextSelection.near(tr.doc.resolve(end), -1))
      }
    } else putBlocks(tr, slice)
    settleLetters(tr)
    let words = ""
    slice.content.descendants((node) => {
      if (node.isTextblock && words.length < 60) words += `${textOf(node)} `
      return !node.isTextblock
    })
    dispatch(named(tr, words.trim() ? `${name} ${quoted(words)}` : name).scrollIntoView())
    return true
  })
}

const letterAt = (doc: Node, pos: number) => (pos < 0 || pos >= doc.content.size ? "" : doc.textBetween(pos, pos + 1))
const blankAt = (doc: Node, pos: number) => /^\s$/u.test(letterAt(doc, pos))
const wordAt = (doc: Node, pos: number) => /^[\p{L}\p{N}]$/u.test(letterAt(doc, pos))

/** Whether whole words are selected, inside a paragraph. */
function isWords({ doc }: EditorState, from: number, to: number): boolean {
  return (
    doc.resolve(from).sameParent(doc.resolve(to)) &&
    wordAt(doc, from) &&
    /^[\p{L}\p{N}\p{P}]$/u.test(letterAt(doc, to - 1)) &&
    !wordAt(doc, from - 1) &&
    !wordAt(doc, to)
  )
}

/** Moves the selected text to another place, or copies it there. */
export function dragSelection(to: number, copies: boolean): Command {
  return (state, dispatch) => {
    const { from, to: end } = withWholeTables(state.doc, state.selection.from, state.selection.to)
    // Cells are moved as rows and columns.
    if (state.selection.empty || state.selection instanceof CellSelection) return false
    if ((!copies && to >= from && to <= end) || !state.doc.resolve(to).parent.isTextblock) return false
    if (!dispatch) return true
    const chosen = selectedSlice(state)
    const slice = copies ? withoutForeignComments(chosen, state.doc) : chosen
    const { tr } = state
    const words = isWords(state, from, end)
    // One of the two blanks on either side of words that go, goes with them.
    if (!copies) tr.delete(words && blankAt(state.doc, from - 1) && blankAt(state.doc, end) ? from - 1 : from, end)
    let at = tr.mapping.map(to)
    // Words that come in among words stand apart from them.
    if (words && wordAt(tr.doc, at - 1)) tr.insertText(" ", at++)
    if (words && wordAt(tr.doc, at)) tr.insertText(" ", at)
    const before = tr.doc.content.size
    settleLetters(tr.replace(at, at, slice))
    const put = tr.doc.content.size - before
    tr.setSelection(TextSelection.between(tr.doc.resolve(at), tr.doc.resolve(Math.min(at + put, tr.doc.content.size))))
    dispatch(named(tr, `${copies ? "Copied" : "Moved"} ${quoted(selectedText(state))}`))
    return true
  }
}

export const selectAll: Command = (state, dispatch) => {
  dispatch?.(state.tr.setSelection(wholePart(state)))
  return true
}
