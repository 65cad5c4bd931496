/** Where a new sheet, column or section begins: put in, found, taken away. */
import type { Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import {
  blocksOf,
  bodyOf,
  documentAttrs,
  edgeAt,
  leavesOf,
  nodeAt,
  nodes,
  paragraphAttrs,
  paragraphLook,
  sectionsOf,
  setEntries,
  type PageSetup,
  type PartName,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { formatParagraph } from "./paragraphs"
import { splitParagraph } from "./text"

/** The paragraph from the caret on; a caret at its start stays where it is. */
const fromHere: Command = (state, dispatch) =>
  state.selection.$from.parentOffset === 0 && state.selection.empty
    ? (dispatch?.(state.tr), true)
    : splitParagraph(state, dispatch)

function beginning(property: "breakBefore" | "columnBefore", name: string): Command {
  return (state, dispatch) => {
    const { $from } = state.selection
    // What stands at the head of a sheet, or in a cell, is in no column.
    if (edgeAt(state.doc, $from.pos) !== null || (property === "columnBefore" && $from.depth !== 2)) return false
    return fromHere(
      state,
      dispatch &&
        ((tr) => {
          const { $head } = tr.selection
          const { format } = paragraphAttrs($head.parent)
          dispatch(named(setEntries(tr, $head.before(), "format", { ...format, [property]: true }), name))
        }),
    )
  }
}

/** What follows the caret begins on a new sheet. */
export const insertSheetBreak = beginning("breakBefore", "New sheet")

/** What follows the caret begins in a new column; in the last one, on a new sheet. */
export const insertColumnBreak = beginning("columnBefore", "New column")

/** A sheet without text before what follows the caret. Only in the body itself. */
export const insertBlankSheet: Command = (state, dispatch) => {
  const { $from } = state.selection
  if ($from.depth !== 2 || $from.node(1).type !== nodes.body) return false
  return fromHere(
    state,
    dispatch &&
      ((tr) => {
        const { $head } = tr.selection
        const at = $head.before()
        const { format } = paragraphAttrs($head.parent)
        // What begins the document needs no break before the sheet that comes before it.
        const opening = at > 1 ? { breakBefore: true } : null
        setEntries(tr, at, "format", { ...format, breakBefore: true })
        tr.insert(at, nodes.paragraph.create({ format: opening }))
        dispatch(named(tr.scrollIntoView(), "Blank sheet"))
      }),
  )
}

/** Something that begins in the body: before which block, and where that is taken away. */
export interface BreakMark {
  kind: "sheet" | "column" | PageSetup["begins"]
  section: boolean
  /** What the part is called that begins with it; "" for none. */
  part: string
  /** Before the paragraph that begins so, or the break of a section. */
  pos: number
}

/** The break before a leaf of the body; null where it begins nothing but itself. */
export function breakBefore(doc: Node, leaf: number): BreakMark | null {
  const leaves = leavesOf(doc)
  const { node, flow } = { node: leaves.find(leaf), flow: leaves.flow(leaf) }
  if (!node || flow.kind !== "body") return null
  const blocks = blocksOf(bodyOf(doc))
  let block = blocks.at(leaf)
  while (blocks.nodes[block - 1]?.type === nodes.contents) block--
  const before = blocks.nodes[block - 1]
  if (before?.type === nodes.sectionBreak) {
    const section = sectionsOf(doc).find((own) => own.block === block)
    if (section && section.pos !== null) {
      const part = (before.attrs.part as PartName | null)?.name ?? ""
      return { kind: section.setup.begins, section: true, part, pos: section.pos }
    }
  }
  if (block === 0) return null
  const { breakBefore: sheet, columnBefore } = paragraphLook(documentAttrs(doc).styles, node).paragraph
  return sheet || columnBefore
    ? { kind: sheet ? "sheet" : "column", section: false, part: "", pos: leaves.before(leaf) }
    : null
}

/** Takes a break away: what follows goes on where the text before it ends, that of a section with the setup of the one before. */
export function removeBreak(pos: number): Command {
  return (state, dispatch) => {
    const node = nodeAt(state.doc, pos)
    const section = node?.type === nodes.sectionBreak
    if (!section && node?.type !== nodes.paragraph) return false
    if (!dispatch) return true
    const { tr } = state
    if (section) tr.delete(pos, pos + 1)
    else formatParagraph(tr, pos, { breakBefore: false, columnBefore: false })
    if (!tr.docChanged) return false
    tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(tr.doc.content.size, pos + 1))))
    dispatch(named(tr, section ? "Sections joined" : "Break taken away").scrollIntoView())
    return true
  }
}

/** At the start of a paragraph that begins a new sheet or column: it begins that no longer. */
export const takeBreak: Command = (state, dispatch) => {
  const { $head, empty } = state.selection
  if (!empty || $head.parentOffset > 0 || !$head.parent.isTextblock) return false
  const { format } = paragraphAttrs($head.parent)
  return (format?.breakBefore || format?.columnBefore || false) && removeBreak($head.before())(state, dispatch)
}
