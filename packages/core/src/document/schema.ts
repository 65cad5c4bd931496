import { Schema, type Attrs, type MarkSpec, type MarkType, type Node } from "prosemirror-model"
import {
  bodyStyle,
  defaultChecks,
  defaultNotes,
  defaultProperties,
  defaultSetup,
  defaultSources,
  defaultStyles,
  defaultTypesetting,
} from "./defaults"
import { fieldText } from "./fields"
import type {
  Brief,
  Checks,
  Comments,
  Kept,
  LetterFormat,
  NoteSettings,
  PageSetup,
  ParagraphFormat,
  PartName,
  Properties,
  Sources,
  StyleSheet,
  Typesetting,
} from "./shapes"

/** Each property of letters is one mark of that name whose `value` says what it is: bold can be put *off* as well as on. */
export const letterProperties = [
  "family",
  "familyEastAsian",
  "familyComplex",
  "size",
  "bold",
  "italic",
  "underline",
  "underlineColour",
  "strike",
  "script",
  "raise",
  "caps",
  "outline",
  "shadow",
  "colour",
  "highlight",
  "spacing",
  "kerning",
  "ligatures",
  "language",
] as const satisfies readonly (keyof LetterFormat)[]
export type LetterProperty = (typeof letterProperties)[number]

/** What texts beside the body are for. */
export const storyKinds = ["header", "footer", "note", "endnote", "textBox"] as const
export type StoryKind = (typeof storyKinds)[number]

export interface DocumentAttrs {
  styles: StyleSheet
  setup: PageSetup
  typesetting: Typesetting
  properties: Properties
  notes: NoteSettings
  checks: Checks
  brief: Brief | null
  sources: Sources
  /** What its first section begins: see parts.ts. */
  part: PartName | null
  /** By key: see comments.ts. */
  comments: Comments
  /** Of other programs. */
  kept: Kept
}
export interface ParagraphAttrs {
  /** Key in the style sheet; a key that is not there counts as body. */
  style: string
  /** Direct formatting, or null for none. Never an empty object. */
  format: Partial<ParagraphFormat> | null
  /** In a paragraph without text, the direct formatting of what is typed into it; null for none. */
  letters: Partial<LetterFormat> | null
}

const letterMark: MarkSpec = { attrs: { value: {} } }
const noComments: Comments = {}
const noneKept: Kept = { properties: {}, parts: {} }
/** Marks that belong to the words they are on and do not go on when one types behind them. */
const wordMark: MarkSpec = { ...letterMark, inclusive: false }

export const schema = new Schema({
  nodes: {
    doc: {
      content: "body story*",
      attrs: {
        styles: { default: defaultStyles },
        setup: { default: defaultSetup },
        typesetting: { default: defaultTypesetting },
        properties: { default: defaultProperties },
        notes: { default: defaultNotes },
        checks: { default: defaultChecks },
        brief: { default: null },
        sources: { default: defaultSources },
        part: { default: null },
        comments: { default: noComments },
        kept: { default: noneKept },
      },
    },
    body: { content: "block+" },
    /** A text of its own beside the body. Its anchor stands in the text that it belongs to. */
    story: { content: "block+", isolating: true, attrs: { key: { default: "" }, kind: { default: "note" } } },
    paragraph: {
      content: "inline*",
      group: "block",
      attrs: { style: { default: bodyStyle }, format: { default: null }, letters: { default: null } },
    },
    table: { content: "row+", group: "block", isolating: true, attrs: { format: { default: null } } },
    row: { content: "cell+", attrs: { format: { default: null } } },
    cell: {
      content: "block+",
      isolating: true,
      attrs: { colspan: { default: 1 }, rowspan: { default: 1 }, format: { default: null } },
    },
    /** What follows stands on sheets of another setup, from a new sheet on; with a name, it is a part: see parts.ts. */
    sectionBreak: { group: "block", atom: true, attrs: { setup: { default: defaultSetup }, part: { default: null } } },
    /** A list of the headings, of which nothing is kept but how it looks: see contents.ts. */
    contents: {
      group: "block",
      atom: true,
      attrs: { levels: { default: 3 }, look: { default: "dotted" }, of: { default: "" } },
    },
    text: { group: "inline" },
    /** A new line inside a paragraph. */
    lineBreak: { group: "inline", inline: true, selectable: false, leafText: () => "\n" },
    /** Shows something computed: see fields.ts. */
    field: {
      group: "inline",
      inline: true,
      attrs: { kind: { default: "date" }, format: { default: "long" } },
      leafText: (field) => fieldText(field, "en-GB"),
    },
    /** See pictures.ts. */
    picture: {
      group: "inline",
      inline: true,
      attrs: {
        asset: { default: "" },
        source: { default: null },
        pixels: { default: [1, 1] },
        format: { default: null },
      },
      leafText: () => "",
    },
    /** Stands for a story, by its key. */
    anchor: { group: "inline", inline: true, selectable: false, attrs: { story: { default: "" } }, leafText: () => "" },
  },
  marks: {
    ...(Object.fromEntries(letterProperties.map((name) => [name, letterMark])) as Record<LetterProperty, MarkSpec>),
    /** A style of letters, by its key in the style sheet. */
    letterStyle: letterMark,
    /** Leads to an address or, with #, to a place. */
    link: wordMark,
    /** A place that links lead to, by its name. */
    place: wordMark,
    /** Stands where something of one's own is to be typed: a tap takes all of it. */
    sample: wordMark,
    /** Words of which something was said, by the key of that; several may have been said of the same. */
    comment: { ...wordMark, excludes: "" },
  },
})

export const nodes = schema.nodes
export type MarkName = LetterProperty | "letterStyle" | "link" | "place" | "sample" | "comment"
export const marks = schema.marks as Readonly<Record<MarkName, MarkType>>

export function documentAttrs(doc: Node): DocumentAttrs {
  return doc.attrs as Attrs as DocumentAttrs
}
export function paragraphAttrs(paragraph: Node): ParagraphAttrs {
  return paragraph.attrs as Attrs as ParagraphAttrs
}
export function bodyOf(doc: Node): Node {
  return doc.child(0)
}
