import type {
  Checks,
  LetterFormat,
  NoteSettings,
  PageSetup,
  ParagraphFormat,
  Properties,
  Sources,
  Style,
  StyleSheet,
  Typesetting,
} from "./shapes"

/** Points in a millimetre. */
export const MM = 72 / 25.4

/** Paper upright: ISO 216 and 269, and the sizes of ANSI, by name. */
export const papers = {
  A3: { width: 297 * MM, height: 420 * MM },
  A4: { width: 210 * MM, height: 297 * MM },
  A5: { width: 148 * MM, height: 210 * MM },
  A6: { width: 105 * MM, height: 148 * MM },
  B4: { width: 250 * MM, height: 353 * MM },
  B5: { width: 176 * MM, height: 250 * MM },
  Letter: { width: 612, height: 792 },
  Legal: { width: 612, height: 1008 },
  Ledger: { width: 792, height: 1224 },
  "Envelope DL": { width: 220 * MM, height: 110 * MM },
  "Envelope C5": { width: 229 * MM, height: 162 * MM },
  "Envelope C6": { width: 162 * MM, height: 114 * MM },
} as const
export type PaperName = keyof typeof papers

const evenMargin = 25 * MM
const edge = { distance: 12.5 * MM, all: null, first: null, left: null }
export const defaultSetup: PageSetup = {
  ...papers.A4,
  margins: { top: evenMargin, right: evenMargin, bottom: evenMargin, left: evenMargin },
  mirrored: false,
  gutter: 0,
  colour: null,
  columns: { count: 1, gap: 8 * MM, line: false, shares: null },
  frame: null,
  watermark: null,
  cover: null,
  begins: "sheet",
  head: edge,
  foot: edge,
  firstOwn: false,
  leftRight: false,
  numbering: { form: "decimal", start: null },
}

/** Text is set into no less than this, in points, whatever margins and columns leave. */
export const leastRoom = 36

/** The width of a head or foot: that of the text, all columns together. */
export function edgeWidth({ width, margins, gutter }: PageSetup): number {
  return Math.max(leastRoom, width - margins.left - margins.right - gutter)
}

/** Width of a column of text, in points. */
export function textWidth(setup: PageSetup): number {
  const { count, gap } = setup.columns
  const all = edgeWidth(setup)
  return Math.max(Math.min(all, leastRoom), Math.round(((all - gap * (count - 1)) / count) * 100) / 100)
}

export const defaultProperties: Properties = { title: "", subtitle: "", author: "", organisation: "", date: "" }

export const defaultNotes: NoteSettings = {
  foot: { form: "decimal", restart: "document" },
  end: { form: "lowerRoman" },
}

export const defaultChecks: Checks = { known: {}, left: {} }

export const defaultSources: Sources = { style: "apa", own: null, list: {} }

export const defaultTypesetting: Typesetting = {
  breaking: "quick",
  hyphenation: { word: 5, before: 2, after: 3, inRow: 3, capitals: true },
}

export const defaultLetters: LetterFormat = {
  family: "Tinos",
  familyEastAsian: "Noto Sans JP",
  familyComplex: "Noto Naskh Arabic",
  size: 12,
  bold: false,
  italic: false,
  underline: "none",
  underlineColour: null,
  strike: "none",
  script: "none",
  raise: 0,
  caps: "none",
  outline: false,
  shadow: false,
  colour: "#1e1a16",
  highlight: null,
  spacing: 0,
  kerning: true,
  ligatures: true,
  language: "en-GB",
}

export const defaultParagraph: ParagraphFormat = {
  align: "left",
  direction: "ltr",
  lineSpacing: { rule: "multiple", value: 1.25 },
  spaceBefore: 0,
  spaceAfter: 8,
  spaceAlike: true,
  indentLeft: 0,
  indentRight: 0,
  indentFirst: 0,
  tabs: [],
  borders: {},
  shading: null,
  dropCap: null,
  list: null,
  hyphenate: false,
  keepNext: false,
  keepTogether: false,
  orphans: 2,
  widows: 2,
  breakBefore: false,
  columnBefore: false,
  listed: true,
  listedAs: "",
}

/** The style that every paragraph has until it is given another. */
export const bodyStyle = "body"

function style(name: string, rest: Partial<Style>): Style {
  return { name, parent: bodyStyle, next: null, outline: null, paragraph: {}, letters: {}, ...rest }
}

/** What all headings share: a change of it changes them all. */
export const headingsStyle = "heading"

function heading(
  level: number,
  size: number,
  spaceBefore: number,
  spaceAfter: number,
  letters: Partial<LetterFormat> = {},
): Style {
  return style(`Heading ${level}`, {
    parent: headingsStyle,
    next: bodyStyle,
    outline: level,
    paragraph: { spaceBefore, spaceAfter },
    letters: { size, ...letters },
  })
}

/** A style of letters. It starts from nothing, so that it changes only what it says. */
function letterStyle(name: string, letters: Partial<LetterFormat>): Style {
  return { name, kind: "letters", parent: null, next: null, outline: null, paragraph: {}, letters }
}

/** The style sheet of a new document. The order is the order in which people are offered them. */
export const defaultStyles: StyleSheet = {
  defaults: { paragraph: defaultParagraph, letters: defaultLetters },
  styles: {
    body: style("Body", { parent: null }),
    title: style("Title", {
      next: "subtitle",
      paragraph: {
        align: "left",
        indentFirst: 0,
        lineSpacing: { rule: "multiple", value: 1.05 },
        spaceAfter: 6,
        keepNext: true,
        hyphenate: false,
      },
      letters: { family: "Literata", size: 26, bold: true },
    }),
    subtitle: style("Subtitle", {
      next: bodyStyle,
      paragraph: {
        align: "left",
        indentFirst: 0,
        lineSpacing: { rule: "multiple", value: 1.1 },
        spaceAfter: 18,
        keepNext: true,
        hyphenate: false,
      },
      letters: { family: "Literata", size: 14, italic: true, colour: "#5e564b" },
    }),
    [headingsStyle]: style("Headings", {
      next: bodyStyle,
      paragraph: {
        align: "left",
        indentFirst: 0,
        lineSpacing: { rule: "multiple", value: 1.1 },
        keepNext: true,
        keepTogether: true,
        hyphenate: false,
      },
      letters: { bold: true },
    }),
    heading1: heading(1, 18, 20, 6),
    heading2: heading(2, 14, 16, 4),
    heading3: heading(3, 12, 12, 2, { italic: true }),
    heading4: heading(4, 12, 10, 2),
    heading5: heading(5, 11, 10, 2, { italic: true }),
    heading6: heading(6, 11, 8, 2),
    heading7: heading(7, 11, 8, 2, { bold: false, italic: true }),
    heading8: heading(8, 10.5, 8, 2),
    heading9: heading(9, 10.5, 8, 2, { bold: false, italic: true }),
    quotation: style("Quotation", {
      paragraph: { indentFirst: 0, indentLeft: 28, indentRight: 28, spaceBefore: 4, spaceAfter: 12 },
      letters: { italic: true },
    }),
    list: style("List", { paragraph: { indentFirst: 0, spaceAlike: false } }),
    caption: style("Caption", {
      next: bodyStyle,
      paragraph: { indentFirst: 0, spaceBefore: 4, spaceAfter: 12, keepTogether: true },
      letters: { size: 10, italic: true, colour: "#5e564b" },
    }),
    note: style("Note", {
      paragraph: { indentFirst: 0, align: "left", lineSpacing: { rule: "multiple", value: 1.1 }, spaceAfter: 2 },
      letters: { size: 10 },
    }),
    reference: style("Reference", { paragraph: { indentLeft: 28, indentFirst: -28, spaceAfter: 6 } }),
    emphasis: letterStyle("Emphasis", { italic: true }),
    strong: letterStyle("Strong", { bold: true }),
    smallPrint: letterStyle("Small print", { size: 9, colour: "#5e564b" }),
    code: letterStyle("Code", { family: "Cousine", size: 10.5 }),
  },
  fonts: {},
  lists: {},
}
