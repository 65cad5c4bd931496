/** What stands at the heads and feet of sheets: lines of three parts, in stories of their own. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection, type Transaction } from "prosemirror-state"
import {
  edgeAt,
  edgeNames,
  edgeStory,
  edgeWidth,
  edgeNodes,
  fitParagraph,
  nodes,
  paragraph,
  partsOfLine,
  lineOf,
  sectionsOf,
  storiesOf,
  type EdgeName,
  type EdgeVariant,
  type PageSetup,
  type ParagraphFormat,
  type Section,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { putSetup, sectionHere } from "./setup"
import { newKey, partAt } from "./stories"

/** A line of a head or foot: its parts are divided by tabs, which stop in the middle and at the right edge of the text. */
function edgeFormat(setup: PageSetup): Partial<ParagraphFormat> {
  const width = Math.round(edgeWidth(setup) * 100) / 100
  return fitParagraph({
    align: "left",
    lineSpacing: { rule: "multiple", value: 1.15 },
    spaceAfter: 0,
    spaceBefore: 0,
    indentFirst: 0,
    indentLeft: 0,
    tabs: [
      { position: Math.round(width * 50) / 100, align: "center", leader: "none" },
      { position: width, align: "right", leader: "none" },
    ],
  })
}

/** Sees to it that a section has a head or foot of a kind: the one that it shows, or a new one; with what the sheets showed till then copied. */
export function ensureEdge(
  tr: Transaction,
  section: number,
  edge: EdgeName,
  variant: EdgeVariant,
  own: boolean,
): string {
  const sections = sectionsOf(tr.doc)
  const here = sections[section] as Section
  const shown = own ? here.setup[edge][variant] : edgeStory(sections, section, edge, variant)
  if (shown !== null && storiesOf(tr.doc).has(shown)) return shown
  const key = newKey(tr.doc)
  const copied = [variant, "all" as const]
    .map((from) => edgeStory(sections, section, edge, from))
    .map((from) => (from === null ? undefined : storiesOf(tr.doc).get(from)?.node))
    .find((from) => from !== undefined)
  const content = copied?.content ?? Fragment.from(paragraph("body", [], edgeFormat(here.setup)))
  tr.insert(tr.doc.content.size, nodes.story.create({ key, kind: edge === "head" ? "header" : "footer" }, content))
  putSetup(tr, here, { ...here.setup, [edge]: { ...here.setup[edge], [variant]: key } })
  return key
}

/** Changes the parts of the line that a head or foot is. */
export function changeEdgeLine(tr: Transaction, key: string, change: (parts: Node[][]) => readonly Node[][]): void {
  const story = storiesOf(tr.doc).get(key)
  const line = story?.node.firstChild
  if (!story || !line?.isTextblock) return
  const content = lineOf(change(partsOfLine(line)))
  if (!content.eq(line.content)) tr.replaceWith(story.pos + 2, story.pos + 2 + line.content.size, content)
}

/**
 * Brings the caret into the head or foot of a section's sheets, which is made if there is none.
 * @param own whether the section gets its own where it has shown that of the one before it
 */
export function writeEdge(edge: EdgeName, variant: EdgeVariant, section: number, own = false): Command {
  return (state, dispatch) => {
    if (!sectionsOf(state.doc)[section]) return false
    if (!dispatch) return true
    const { tr } = state
    const key = ensureEdge(tr, section, edge, variant, own)
    const story = storiesOf(tr.doc).get(key)
    if (!story) return false
    const { to } = partAt(tr.doc, story.pos + 2)
    tr.setSelection(TextSelection.create(tr.doc, to))
    dispatch(tr.docChanged ? named(tr, edge === "head" ? "Head of the sheets" : "Foot of the sheets") : tr)
    return true
  }
}

/** Out of a head or foot, back to where the text begins that the first sheet in sight shows, or to a position. */
export function leaveEdge(pos: number): Command {
  return (state, dispatch) => {
    if (edgeAt(state.doc, state.selection.head) === null) return false
    dispatch?.(state.tr.setSelection(TextSelection.near(state.doc.resolve(pos))))
    return true
  }
}

/** Has the first sheet, or left sheets, show a head and foot of their own. What they showed is copied; what was written for them before is still there. */
export function divideEdges(which: "firstOwn" | "leftRight", on: boolean): Command {
  return (state, dispatch) => {
    const section = sectionHere(state)
    const here = sectionsOf(state.doc)[section] as Section
    if (here.setup[which] === on) return false
    if (!dispatch) return true
    const { tr } = state
    putSetup(tr, here, { ...here.setup, [which]: on })
    const variant = which === "firstOwn" ? "first" : "left"
    // A first sheet is most often wanted without what stands on the others; left sheets begin with the same.
    if (on && variant === "left")
      for (const edge of edgeNames)
        if (edgeStory(sectionsOf(tr.doc), section, edge, "all") !== null) ensureEdge(tr, section, edge, variant, true)
    const words = { firstOwn: "First sheet of its own", leftRight: "Left and right differ" }
    dispatch(named(tr, words[which]))
    return true
  }
}

/** Fills the head or foot of the first section with a line whose parts, at the left, in the middle and at the right, are divided by bars. */
export function fillEdge(edge: EdgeName, line: string): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { tr } = state
    const key = ensureEdge(tr, 0, edge, "all", true)
    const story = storiesOf(tr.doc).get(key)
    const first = story?.node.firstChild
    if (!story || !first?.isTextblock) return false
    const content = lineOf(
      line
        .replace(/[\u0000-\u001f]/g, " ")
        .split("|")
        .slice(0, 3)
        .map((part) => edgeNodes(part.trim())),
    )
    tr.replaceWith(story.pos + 2, story.pos + 2 + first.content.size, content)
    dispatch(named(tr, edge === "head" ? "Head of the sheets" : "Foot of the sheets"))
    return true
  }
}
