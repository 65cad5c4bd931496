/** Paper, margins and columns, for the document or a section of it; sections; and what stands at the heads and feet of sheets. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import {
  edgeStory,
  edgeWidth,
  fieldAttrs,
  fieldKinds,
  fitSetup,
  leavesOf,
  nodes,
  paragraph,
  schema,
  sectionAt,
  sectionsOf,
  setEntries,
  storiesOf,
  type EdgeName,
  type EdgeVariant,
  type FieldKind,
  type PageSetup,
  type ParagraphFormat,
  type Section,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"
import { newKey, partAt } from "./stories"
import { typingMarks } from "./typingMarks"

const edges: readonly EdgeName[] = ["head", "foot"]
const variants: readonly EdgeVariant[] = ["all", "first", "left"]

/** The head or foot that a position stands in; null elsewhere. */
export function edgeAt(doc: Node, pos: number): { edge: EdgeName; variant: EdgeVariant; section: number } | null {
  const { story } = leavesOf(doc).flow(leavesOf(doc).at(pos))
  if (story === null) return null
  const sections = sectionsOf(doc)
  for (const [section, { setup }] of sections.entries())
    for (const edge of edges)
      for (const variant of variants) if (setup[edge][variant] === story) return { edge, variant, section }
  return null
}

/** The section that the caret is in; in a head or foot, the one whose that is. */
export function sectionHere(state: EditorState): number {
  const { head } = state.selection
  return edgeAt(state.doc, head)?.section ?? sectionAt(state.doc, head)
}

export function setupHere(state: EditorState): PageSetup {
  return (sectionsOf(state.doc)[sectionHere(state)] as Section).setup
}

function putSetup(tr: Transaction, { pos }: Section, setup: PageSetup): Transaction {
  return setEntries(tr, pos, "setup", fitSetup(setup))
}

/** Changes the setup of all sections, or of the one with the caret. */
export function changeSetup(change: (setup: PageSetup) => PageSetup, scope: "all" | "here", name: string): Command {
  return (state, dispatch) => {
    const sections = sectionsOf(state.doc)
    const here = sectionHere(state)
    const { tr } = state
    // Setting entries moves nothing.
    sections.forEach((section, i) => {
      if (scope === "all" || i === here) putSetup(tr, section, change(section.setup))
    })
    if (!tr.docChanged) return false
    dispatch?.(named(tr, name))
    return true
  }
}

/** The paper turned, its margins with it. */
export function turned(setup: PageSetup): PageSetup {
  const { width, height, margins } = setup
  return {
    ...setup,
    width: height,
    height: width,
    margins: { top: margins.left, right: margins.top, bottom: margins.right, left: margins.bottom },
  }
}

/** From the caret on, the text stands in a section of its own. Only in the body itself, not at its very beginning. */
export function startSection(begins: PageSetup["begins"], change: (setup: PageSetup) => PageSetup): Command {
  return (state, dispatch) => {
    const { $head } = state.selection
    const top = $head.depth === 2 && $head.node(1).type === nodes.body
    if (!top || (leavesOf(state.doc).at($head.pos) === 0 && $head.parentOffset === 0)) return false
    if (!dispatch) return true
    const before = setupHere(state)
    const own = { all: null, first: null, left: null }
    const setup = fitSetup({
      ...change(before),
      begins,
      head: { ...before.head, ...own },
      foot: { ...before.foot, ...own },
      numbering: { ...before.numbering, start: null },
    })
    const { tr } = state
    let at = $head.before()
    if ($head.parentOffset > 0) {
      tr.split($head.pos)
      at = $head.pos + 1
    }
    tr.insert(at, nodes.sectionBreak.create({ setup }))
    tr.setSelection(TextSelection.near(tr.doc.resolve(at + 1)))
    dispatch(named(tr, "New section").scrollIntoView())
    return true
  }
}

/** Takes away where the section with the caret begins: its text goes on in the section before it, with that one's setup. */
export const joinSections: Command = (state, dispatch) => {
  const { pos } = sectionsOf(state.doc)[sectionHere(state)] as Section
  if (pos === null) return false
  dispatch?.(named(state.tr.delete(pos, pos + 1), "Sections joined").scrollIntoView())
  return true
}

/** Three parts stand on a line: left, in the middle, right. */
export type EdgePart = 0 | 1 | 2

/** A line of a head or foot: its parts are divided by tabs, which stop in the middle and at the right edge of the text. */
function edgeFormat(setup: PageSetup): Partial<ParagraphFormat> {
  const width = Math.round(edgeWidth(setup) * 100) / 100
  return {
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
  }
}

/** Sees to it that a section has a head or foot of a kind: the one that it shows, or a new one; with what the sheets showed till then copied. */
function ensureEdge(tr: Transaction, section: number, edge: EdgeName, variant: EdgeVariant, own: boolean): string {
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
      for (const edge of edges)
        if (edgeStory(sectionsOf(tr.doc), section, edge, "all") !== null) ensureEdge(tr, section, edge, variant, true)
    const words = { firstOwn: "First sheet of its own", leftRight: "Left and right differ" }
    dispatch(named(tr, words[which]))
    return true
  }
}

/** Puts in a field. Those that are known only of a sheet stand at heads and feet alone. */
export function insertFieldOf(kind: FieldKind, format = "", name = "Field"): Command {
  return (state, dispatch) => {
    const ofSheet = kind === "page" || kind === "pages" || kind === "sectionPages" || kind === "heading"
    if (ofSheet && edgeAt(state.doc, state.selection.head) === null) return false
    const field = nodes.field.create({ kind, format }, null, typingMarks(state))
    dispatch?.(named(state.tr.replaceSelectionWith(field, false).scrollIntoView(), name))
    return true
  }
}

/** Puts in the date or the time, kept up to date. */
export function insertField(format: string): Command {
  return insertFieldOf("date", format, "Date kept up to date")
}

/** Where the number of a sheet stands: at which edge, and in which part of its line; or at the outer edge. */
export interface NumberPlace {
  edge: EdgeName
  part: EdgePart | "outer"
}

/** How it is written: `%1` stands for the number, `%2` for how many sheets there are. */
export const numberPatterns = ["%1", "– %1 –", "%1 of %2", "Sheet %1", "Sheet %1 of %2"] as const

/** The parts of a line. */
function partsOfLine(line: Node): Node[][] {
  const parts: Node[][] = [[], [], []]
  let part = 0
  line.forEach((child) => {
    if (!child.isText) return void parts[part]?.push(child)
    ;(child.text ?? "").split("\t").forEach((text, i) => {
      if (i > 0) part = Math.min(2, part + 1)
      if (text) parts[part]?.push(schema.text(text, child.marks))
    })
  })
  return parts
}

const isNumber = (node: Node) => node.type === nodes.field && ["page", "pages"].includes(fieldAttrs(node).kind)

/** A part without a number that stood there, with the words that belong to that. */
function withoutNumber(part: readonly Node[]): Node[] {
  return part.some(isNumber)
    ? part.filter((node) => !isNumber(node) && !/^(– | –|Sheet | of )$/.test(node.text ?? ""))
    : [...part]
}

function numberIn(pattern: string): Node[] {
  return pattern
    .split(/(%1|%2)/)
    .filter((piece) => piece !== "")
    .map((piece) =>
      piece.startsWith("%")
        ? nodes.field.create({ kind: piece === "%1" ? "page" : "pages", format: "" })
        : schema.text(piece),
    )
}

function lineOf(parts: readonly Node[][]): Fragment {
  const last = parts.findLastIndex((part) => part.length > 0)
  return Fragment.from(parts.slice(0, last + 1).flatMap((part, i) => (i === 0 ? part : [schema.text("\t"), ...part])))
}

/** A part of a line as it is written out: fields by their kinds in braces, such as "Sheet {page} of {pages}". */
function partIn(text: string): Node[] {
  const isKind = (kind: string): kind is FieldKind => (fieldKinds as readonly string[]).includes(kind)
  return text
    .split(/(\{\w+\})/)
    .filter((piece) => piece !== "")
    .map((piece) => {
      const kind = piece.slice(1, -1)
      if (!piece.startsWith("{") || !isKind(kind)) return schema.text(piece)
      return nodes.field.create({ kind, format: kind === "date" ? "long" : kind === "heading" ? "1" : "" })
    })
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
        .map((part) => partIn(part.trim())),
    )
    tr.replaceWith(story.pos + 2, story.pos + 2 + first.content.size, content)
    dispatch(named(tr, edge === "head" ? "Head of the sheets" : "Foot of the sheets"))
    return true
  }
}

/** The place of the number at the head or foot that sheets of the section with the caret show; null for none. */
export function numberPlace(state: EditorState): (NumberPlace & { pattern: string }) | null {
  const sections = sectionsOf(state.doc)
  const section = sectionHere(state)
  let pattern: string = numberPatterns[0]
  const at = (edge: EdgeName, variant: EdgeVariant): number => {
    const key = edgeStory(sections, section, edge, variant)
    const line = key === null ? undefined : storiesOf(state.doc).get(key)?.node.firstChild
    const parts = line ? partsOfLine(line) : []
    const own = parts.findIndex((part) => part.some(isNumber))
    const text = (parts[own] ?? [])
      .map((node) => (isNumber(node) ? (fieldAttrs(node).kind === "page" ? "%1" : "%2") : (node.text ?? "")))
      .join("")
    if (variant === "all")
      pattern = [...numberPatterns].reverse().find((one) => text.endsWith(one)) ?? numberPatterns[0]
    return own
  }
  for (const edge of edges) {
    const part = at(edge, "all")
    if (part < 0) continue
    const outer = sections[section]?.setup.leftRight === true && part === 2 && at(edge, "left") === 0
    return { edge, part: outer ? "outer" : (part as EdgePart), pattern }
  }
  return null
}

/** Puts the numbers of the sheets in a place, and takes them away from any other; with null, takes them away. */
export function placeNumbers(place: NumberPlace | null, pattern: string): Command {
  return (state, dispatch) => {
    if (!dispatch) return true
    const { tr } = state
    const section = sectionHere(state)
    const current = () => sectionsOf(tr.doc)[section] as Section
    if (place?.part === "outer" && !current().setup.leftRight)
      putSetup(tr, current(), { ...current().setup, leftRight: true })
    const sides: EdgeVariant[] = current().setup.leftRight ? ["all", "left"] : ["all"]
    for (const edge of edges)
      for (const variant of sides) {
        const here = place?.edge === edge
        const shown = edgeStory(sectionsOf(tr.doc), section, edge, variant)
        if (!here && shown === null) continue
        const key = here ? ensureEdge(tr, section, edge, variant, false) : (shown as string)
        const story = storiesOf(tr.doc).get(key)
        const line = story?.node.firstChild
        if (!story || !line?.isTextblock) continue
        const parts = partsOfLine(line).map(withoutNumber)
        if (here) {
          const part = place.part === "outer" ? (variant === "left" ? 0 : 2) : place.part
          const own = parts[part] as Node[]
          parts[part] = [...own, ...(own.length > 0 ? [schema.text(" ")] : []), ...numberIn(pattern)]
        }
        const content = lineOf(parts)
        if (!content.eq(line.content)) tr.replaceWith(story.pos + 2, story.pos + 2 + line.content.size, content)
      }
    if (!tr.docChanged) return false
    dispatch(named(tr, place ? "Numbers of the sheets" : "No numbers"))
    return true
  }
}
