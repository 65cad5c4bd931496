/**
 * Covers: a first section of one sheet whose lines are fields that show the properties of the document. Its setup says which of
 * our designs it has; another design takes the place of the lines, and the properties stay what they are.
 */
import { Mark, type Node } from "prosemirror-model"
import { TextSelection, type EditorState } from "prosemirror-state"
import {
  blocksOf,
  bodyOf,
  type coverNames,
  defaultProperties,
  documentAttrs,
  fieldAttrs,
  fitSetup,
  limits,
  marks,
  nodes,
  paragraph,
  sectionsOf,
  setEntries,
  type LetterFormat,
  type PageSetup,
  type ParagraphFormat,
  type Properties,
} from "../document"
import type { Command } from "./command"
import { named } from "./history"

export type CoverName = (typeof coverNames)[number]

type Property = keyof Properties

interface Line {
  property: Property
  style: string
  format: Partial<ParagraphFormat>
  letters: Partial<LetterFormat>
}

interface Design {
  /** @param room height of the text on its sheet, in points, and a size of letters that suits that */
  lines(room: number, size: number): Line[]
  /** What its sheet has beside the paper of the document. */
  setup: Partial<PageSetup>
}

const murex = "#7a1f4b"
const soft = "#5e564b"
const rule = (width: number, distance: number, colour = murex) => ({
  pattern: "solid" as const,
  width,
  colour,
  distance,
})

const designs: Readonly<Record<CoverName, Design>> = {
  /** A bar beside the title, low on the sheet. */
  pier: {
    setup: {},
    lines: (room, size) => [
      {
        property: "organisation",
        style: "body",
        format: {},
        letters: { size: size * 0.42, caps: "small", spacing: 1, colour: soft },
      },
      {
        property: "title",
        style: "title",
        format: { spaceBefore: room * 0.42, spaceAfter: 0, indentLeft: 16, borders: { left: rule(4, 12) } },
        letters: { size },
      },
      {
        property: "subtitle",
        style: "subtitle",
        format: { spaceAfter: 0, indentLeft: 16, borders: { left: rule(4, 12) } },
        letters: { size: size * 0.5 },
      },
      {
        property: "author",
        style: "body",
        format: { spaceBefore: room * 0.2, spaceAfter: 2 },
        letters: { size: size * 0.42, bold: true },
      },
      { property: "date", style: "body", format: { spaceAfter: 0 }, letters: { size: size * 0.38, colour: soft } },
    ],
  },
  /** All in the middle, the title between two lines. */
  slipway: {
    setup: {},
    lines: (room, size) => [
      {
        property: "organisation",
        style: "body",
        format: { align: "center" },
        letters: { size: size * 0.42, caps: "small", spacing: 1.5, colour: soft },
      },
      {
        property: "title",
        style: "title",
        format: {
          align: "center",
          spaceBefore: room * 0.2,
          spaceAfter: 0,
          borders: { top: rule(1.5, 14), bottom: rule(0.5, 14) },
        },
        letters: { size: size * 1.1 },
      },
      {
        property: "subtitle",
        style: "subtitle",
        format: { align: "center", spaceBefore: 16 },
        letters: { size: size * 0.5 },
      },
      {
        property: "author",
        style: "body",
        format: { align: "center", spaceBefore: room * 0.3, spaceAfter: 2 },
        letters: { size: size * 0.45 },
      },
      {
        property: "date",
        style: "body",
        format: { align: "center", spaceAfter: 0 },
        letters: { size: size * 0.38, colour: soft },
      },
    ],
  },
  /** The title on a field of colour. */
  chart: {
    setup: {},
    lines: (room, size) => [
      {
        property: "title",
        style: "title",
        format: {
          shading: murex,
          spaceBefore: room * 0.12,
          spaceAfter: 0,
          indentLeft: 18,
          indentRight: 18,
          borders: { top: rule(18, 0), bottom: rule(18, 0), left: rule(18, 0), right: rule(18, 0) },
        },
        letters: { size: size * 1.2, colour: "#ffffff" },
      },
      {
        property: "subtitle",
        style: "subtitle",
        format: { spaceBefore: 20, indentLeft: 0 },
        letters: { size: size * 0.55, colour: murex },
      },
      {
        property: "author",
        style: "body",
        format: { spaceBefore: room * 0.3, spaceAfter: 2 },
        letters: { size: size * 0.45, bold: true },
      },
      { property: "organisation", style: "body", format: { spaceAfter: 2 }, letters: { size: size * 0.42 } },
      { property: "date", style: "body", format: { spaceAfter: 0 }, letters: { size: size * 0.38, colour: soft } },
    ],
  },
  /** A frame round the sheet, and a line under each entry. */
  ledger: {
    setup: { frame: { pattern: "double", width: 0.75, colour: soft, distance: 28 } },
    lines: (room, size) => {
      const entry = { spaceAfter: 10, borders: { bottom: rule(0.5, 6, soft) } }
      return [
        { property: "title", style: "title", format: { spaceBefore: room * 0.3, spaceAfter: 6 }, letters: { size } },
        { property: "subtitle", style: "subtitle", format: { spaceAfter: room * 0.06 }, letters: { size: size * 0.5 } },
        { property: "author", style: "body", format: entry, letters: { size: size * 0.42 } },
        { property: "organisation", style: "body", format: entry, letters: { size: size * 0.42 } },
        { property: "date", style: "body", format: entry, letters: { size: size * 0.42 } },
      ]
    },
  },
}

/** The cover of a document: its design, and where its blocks end; null for none. */
export function coverOf(doc: Node): { design: CoverName; blocks: number; end: number } | null {
  const [first, second] = sectionsOf(doc)
  const design = first?.setup.cover ?? null
  if (design === null || !second || second.pos === null) return null
  return { design, blocks: second.block - 1, end: second.pos }
}

/** A field that shows a property of the document. */
export const propertyField = (property: Property) =>
  nodes.field.create({
    kind: property === "title" || property === "author" ? property : "property",
    format: property === "title" || property === "author" ? "" : property,
  })

function blocksFor(design: CoverName, setup: PageSetup, properties: Properties): Node[] {
  const room = Math.max(0, setup.height - setup.margins.top - setup.margins.bottom)
  const size = Math.round(Math.min(34, Math.max(12, room / 20)))
  return designs[design]
    .lines(room, size)
    .filter(({ property }) => property === "title" || properties[property] !== "")
    .map(({ property, style, format, letters }) => {
      const whole = { ...letters, size: Math.round((letters.size ?? size) * 2) / 2 }
      const own = Object.entries(whole).map(([name, value]) => marks[name as keyof LetterFormat].create({ value }))
      const rounded = Object.entries({ indentFirst: 0, ...format }).map(
        ([name, value]) => [name, typeof value === "number" ? Math.round(value * 10) / 10 : value] as const,
      )
      return paragraph(style, [propertyField(property).mark(Mark.setFrom(own))], Object.fromEntries(rounded))
    })
}

/** Paragraphs of a cover that somebody wrote: what is not made of its fields alone, without these. */
function writtenIn(doc: Node, count: number): Node[] {
  const isOurs = (child: Node) =>
    child.type === nodes.field && ["title", "author", "property"].includes(fieldAttrs(child).kind)
  return blocksOf(bodyOf(doc))
    .nodes.slice(0, count)
    .flatMap((node) => {
      if (node.type !== nodes.paragraph) return [node]
      const words = node.children.filter((child) => !isOurs(child))
      const written =
        words.some((child) => child.isText && child.text?.trim() !== "") ||
        words.some((own) => own.type === nodes.anchor)
      return written ? [nodes.paragraph.create(node.attrs, words)] : []
    })
}

/** Gives the document a cover, another design of it, or with null takes it away. What somebody wrote on it beside the properties stays. */
export function setCover(design: CoverName | null): Command {
  return (state, dispatch) => {
    const cover = coverOf(state.doc)
    if (design === (cover?.design ?? null)) return false
    if (!dispatch) return true
    dispatch(named(withCover(state, design).scrollIntoView(), design === null ? "No cover" : "Cover"))
    return true
  }
}

function withCover(state: EditorState, design: CoverName | null) {
  const { doc, tr } = state
  const cover = coverOf(doc)
  const [first, second] = sectionsOf(doc)
  const plain = (cover ? second : first)?.setup as PageSetup
  const { properties } = documentAttrs(doc)
  const written = cover ? writtenIn(doc, cover.blocks) : []
  if (design === null) {
    if (!cover) return tr
    const { start } = plain.numbering
    if (written.length > 0) tr.replaceWith(1, cover.end + 1, written)
    else tr.delete(1, cover.end + 1)
    setEntries(tr, null, "setup", {
      ...plain,
      begins: "sheet",
      numbering: { ...plain.numbering, start: start === 1 ? null : start },
    })
  } else {
    const none = { all: null, first: null, left: null }
    const setup = fitSetup({
      ...plain,
      frame: null,
      watermark: null,
      ...designs[design].setup,
      columns: { ...plain.columns, count: 1, shares: null },
      head: { ...plain.head, ...none },
      foot: { ...plain.foot, ...none },
      firstOwn: false,
      leftRight: false,
      begins: "sheet",
      cover: design,
    })
    const blocks = [...blocksFor(design, setup, properties), ...written]
    if (cover) tr.replaceWith(1, cover.end, blocks)
    else {
      const behind = {
        ...plain,
        begins: "sheet" as const,
        numbering: { ...plain.numbering, start: plain.numbering.start ?? 1 },
      }
      tr.insert(1, [...blocks, nodes.sectionBreak.create({ setup: behind })])
    }
    setEntries(tr, null, "setup", setup)
  }
  if (state.selection.head < (cover?.end ?? 0))
    tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(2, tr.doc.content.size))))
  return tr
}

/** Sets properties of the document. A cover gets lines for those that it lacked, and loses those of what is empty now. */
export function changeProperties(change: Partial<Properties>): Command {
  return (state, dispatch) => {
    const before = documentAttrs(state.doc).properties
    const fit = Object.entries(change).map(([name, text]) => [
      name,
      text.replace(/[\u0000-\u001f]+/g, " ").slice(0, limits.property),
    ])
    const after: Properties = { ...defaultProperties, ...before, ...Object.fromEntries(fit) }
    const tr = setEntries(state.tr, null, "properties", after)
    if (!tr.docChanged) return false
    if (!dispatch) return true
    const cover = coverOf(tr.doc)
    const comes = (Object.keys(after) as Property[]).some((name) => (before[name] === "") !== (after[name] === ""))
    if (cover && comes) {
      const setup = documentAttrs(tr.doc).setup
      tr.replaceWith(1, cover.end, [...blocksFor(cover.design, setup, after), ...writtenIn(tr.doc, cover.blocks)])
    }
    dispatch(named(tr, "Properties"))
    return true
  }
}
