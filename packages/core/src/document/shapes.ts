/**
 * The shapes of everything in a document that is plain data: formats, styles, page setup,
 * properties. Written once as Zod schemas; the rest of the code imports the inferred types
 * only, so that Zod is loaded just where something comes in from outside (see reading.ts).
 *
 * All lengths are points (1/72 inch).
 */
import { z } from "zod"
import {
  type borderSides,
  coverNames,
  limits,
  linkPattern,
  noteForms,
  noteRestarts,
  numberForms,
  pictureShapes,
  pictureTones,
  sourceFields,
  sourceKinds,
  sourceRoles,
  documentProperties,
  partSigns,
  tableLooks,
  wraps,
  wrapSides,
  type Range,
} from "./bounds"

const ranged = ([least, most]: Range) => z.number().min(least).max(most)
const length = ranged(limits.length)
const space = ranged(limits.space)
const colour = z.string().regex(/^#[0-9a-f]{6}$/, "a colour is written as #rrggbb in lower case")

/** A colour, or null for none. */
const maybeColour = colour.nullable()
const familyName = z.string().min(1).max(limits.family)
const key = z.string().min(1).max(limits.name)
/** Entries by keys that people choose. Zod passes over "__proto__", so that it has to be looked for apart. */
const keyed = <T extends z.ZodType>(of: z.ZodString, what: T) =>
  z.record(of, what).refine((entries) => !Object.hasOwn(entries, "__proto__"), "a key may not be __proto__")

export const LetterFormat = z.strictObject({
  /** Name of a typeface family in the catalogue, or of one of the document's own. */
  family: familyName,
  /** For Chinese, Japanese and Korean characters, and for scripts whose letters take their form from their neighbours, where `family` lacks them. */
  familyEastAsian: familyName,
  familyComplex: familyName,
  size: ranged(limits.size),
  bold: z.boolean(),
  italic: z.boolean(),
  underline: z.enum(["none", "single", "double", "thick", "dotted", "dashed", "wavy"]),
  /** null: that of the letters. */
  underlineColour: maybeColour,
  strike: z.enum(["none", "single", "double"]),
  script: z.enum(["none", "super", "sub"]),
  /** Points above the baseline; negative below. */
  raise: ranged(limits.raise),
  caps: z.enum(["none", "small", "all"]),
  /** Drawn as a line round each letter. */
  outline: z.boolean(),
  shadow: z.boolean(),
  colour,
  highlight: maybeColour,
  /** Points added after each letter. */
  spacing: ranged(limits.letterSpacing),
  kerning: z.boolean(),
  ligatures: z.boolean(),
  /** BCP 47 tag, for shaping, hyphenation and spelling. */
  language: z.string().max(35),
})

/** Where a link leads: the web, an e-mail address, or a place of the document by its name. Other schemes do not get in. */
export const Link = z
  .string()
  .max(limits.address)
  .regex(linkPattern, "a link leads to http, https, mailto or a place of the document")
/** Name of a marked place, to which links lead. */
export const PlaceName = z.string().min(1).max(limits.name)

export const LineSpacing = z.discriminatedUnion("rule", [
  /** Times the height that the typeface asks for. */
  z.strictObject({ rule: z.literal("multiple"), value: ranged(limits.lines.multiple) }),
  z.strictObject({ rule: z.literal("exact"), value: ranged(limits.lines.exact) }),
  z.strictObject({ rule: z.literal("atLeast"), value: ranged(limits.lines.atLeast) }),
])

export const TabStop = z.strictObject({
  /** From the edge at which lines begin, without indents. */
  position: space,
  align: z.enum(["left", "center", "right", "decimal"]),
  leader: z.enum(["none", "dotted", "dashed", "solid"]),
})

export const RulePattern = z.enum(["solid", "double", "dotted", "dashed", "wavy"])

export const Border = z.strictObject({
  pattern: RulePattern,
  /** Thickness of the line, for a double one of each. */
  width: ranged(limits.border.width),
  colour,
  /** From the text to the line. */
  distance: ranged(limits.border.distance),
})
/** `between` is drawn between neighbours that share these borders. */
export const Borders = z
  .strictObject({ top: Border, right: Border, bottom: Border, left: Border, between: Border })
  .partial()

export const DropCap = z.strictObject({
  lines: ranged(limits.dropCap.lines).int(),
  distance: ranged(limits.dropCap.distance),
  family: familyName.nullable(),
})

/** The place of an item in a list. Items of one definition and one run are numbered together, in the order of the document. */
export const ListPlace = z.strictObject({
  /** Key of a definition: one that ships, or one of the document's. */
  definition: key,
  /** Tells lists of the same definition apart. Empty for lists that styles give. */
  run: z.string().max(40),
  /** 0 to 8. */
  level: ranged(limits.list.level).int(),
  /** The number of this item, where it does not simply follow. */
  start: ranged(limits.list.start).int().optional(),
  /** For check lists. */
  done: z.boolean().optional(),
})

export const ParagraphFormat = z.strictObject({
  align: z.enum(["left", "center", "right", "justify"]),
  direction: z.enum(["ltr", "rtl"]),
  lineSpacing: LineSpacing,
  spaceBefore: space,
  spaceAfter: space,
  /** Whether there is space before and after towards neighbours of the same style too. */
  spaceAlike: z.boolean(),
  /** From the edge at which lines begin: the left one, or in a right-to-left paragraph the right one. Negative into the margin. */
  indentLeft: length,
  /** From the edge at which lines end. */
  indentRight: length,
  /** Added to indentLeft for the first line; negative for a hanging indent. */
  indentFirst: length,
  /** Ascending by position. */
  tabs: z.array(TabStop).max(limits.tabs),
  borders: Borders,
  shading: maybeColour,
  dropCap: DropCap.nullable(),
  list: ListPlace.nullable(),
  hyphenate: z.boolean(),
  /** Stay on the sheet of the following paragraph. */
  keepNext: z.boolean(),
  /** Never divide the paragraph between sheets. */
  keepTogether: z.boolean(),
  /** Fewest lines left at the foot of a sheet, and fewest carried to the next. */
  orphans: ranged(limits.keptLines).int(),
  widows: ranged(limits.keptLines).int(),
  /** Begins a new sheet, or else a new column. */
  breakBefore: z.boolean(),
  columnBefore: z.boolean(),
  /** Whether a heading stands in the contents, and in which words if not its own; empty for those. */
  listed: z.boolean(),
  listedAs: z.string().max(limits.shortForm),
})

export const ListLevel = z.strictObject({
  /** The mark itself, or for numbers a pattern in which %1 to %9 stand for the numbers of those levels. A check list draws its own mark. */
  format: z.string().max(limits.mark),
  kind: z.enum(["mark", "number", "check"]),
  numbering: z.enum(["decimal", "zero", "lowerLetter", "upperLetter", "lowerRoman", "upperRoman"]),
  start: ranged(limits.list.start).int(),
  /** Where the text begins, and how far before it the mark stands, in points. */
  indent: length,
  hanging: ranged(limits.list.hanging),
  align: z.enum(["left", "center", "right"]),
  /** What stands between the mark and the text. */
  follow: z.enum(["tab", "space", "none"]),
  /** The level above which this one starts anew, 0 for any; null for never. */
  restart: z.number().int().min(0).max(8).nullable(),
  /** Numbers of other levels in the pattern are written 1, 2, 3. */
  legal: z.boolean(),
  /** Whether items stand without the space of their style between them. */
  tight: z.boolean(),
  letters: LetterFormat.partial(),
})
export const ListDefinition = z.strictObject({ name: key, levels: z.array(ListLevel).length(9) })

export const Style = z.strictObject({
  name: key,
  /** A style of letters is laid on words inside a paragraph; left out for a style of paragraphs. */
  kind: z.literal("letters").optional(),
  /** The style this one starts from. */
  parent: z.string().nullable(),
  /** The style of the paragraph that Enter makes at the end of this one; null for the same. */
  next: z.string().nullable(),
  /** 1 to 9 for headings. */
  outline: z.number().int().min(1).max(9).nullable(),
  paragraph: ParagraphFormat.partial(),
  letters: LetterFormat.partial(),
})

export const Asset = z.string().regex(/^[0-9a-f]{64}$/, "an asset is named by its SHA-256")
/** Faces of a family that people brought in, each named by its asset. */
export const OwnFamily = z.strictObject({ regular: Asset, italic: Asset, bold: Asset, boldItalic: Asset }).partial()

export const StyleSheet = z.strictObject({
  defaults: z.strictObject({ paragraph: ParagraphFormat, letters: LetterFormat }),
  styles: keyed(key, Style),
  /** Families that people brought in, by name. */
  fonts: keyed(familyName, OwnFamily),
  /** List definitions of this document's, by key. */
  lists: keyed(key, ListDefinition),
})

/** How lines are broken. */
export const Typesetting = z.strictObject({
  /** Line by line, or looking at the whole paragraph. */
  breaking: z.enum(["quick", "whole"]),
  hyphenation: z.strictObject({
    /** Fewest letters of a word that may be divided, and fewest before and after the hyphen. */
    word: ranged(limits.hyphenation.word).int(),
    before: ranged(limits.hyphenation.before).int(),
    after: ranged(limits.hyphenation.after).int(),
    /** Most lines in a row that end with a hyphen. */
    inRow: ranged(limits.hyphenation.inRow).int(),
    /** Whether words with a capital may be divided. */
    capitals: z.boolean(),
  }),
})

/** What is written at the head or foot of sheets: keys of stories, and null where a section has none of its own and goes on with that of the one before. */
const Edge = z.strictObject({
  /** From the edge of the paper to the text, in points. */
  distance: space,
  all: key.nullable(),
  /** On the first sheet, where that has its own. */
  first: key.nullable(),
  /** On left sheets, where left and right differ. */
  left: key.nullable(),
})

const pixelCount = ranged(limits.picture.pixels).int()

const Watermark = z.strictObject({
  /** Shown in place of the words: three times as wide as their size. */
  picture: z
    .strictObject({ asset: z.string().regex(/^[0-9a-f]{64}$/), pixels: z.tuple([pixelCount, pixelCount]) })
    .optional(),
  text: z.string().min(1).max(limits.watermark),
  family: familyName,
  /** In points; as much smaller as it has to be to stay on the sheet. */
  size: ranged(limits.size),
  /** Degrees by which it rises from left to right. */
  angle: ranged(limits.angle),
  colour,
  /** 1 for the colour itself, 0 for that of the paper. */
  strength: ranged(limits.strength),
})

/** Paper and all that is the same on each sheet of a section. */
export const PageSetup = z.strictObject({
  width: ranged(limits.paper),
  height: ranged(limits.paper),
  margins: z.strictObject({ top: space, right: space, bottom: space, left: space }),
  /** Whether the left margin is the inner one: on left sheets it stands at the right. */
  mirrored: z.boolean(),
  /** Added to the inner margin, for binding. */
  gutter: space,
  /** Of the paper; null for white. */
  colour: maybeColour,
  columns: z.strictObject({
    count: ranged(limits.columns).int(),
    /** Between two of them, in points. */
    gap: space,
    /** Whether a line stands between them. */
    line: z.boolean(),
    /** How the columns share the width, each against the others; null where they are alike. */
    shares: z.array(ranged(limits.share)).max(limits.columns[1]).nullable(),
  }),
  /** A line round each sheet; its distance is that from the edge of the paper. */
  frame: Border.nullable(),
  /** Words behind the text of each sheet. */
  watermark: Watermark.nullable(),
  /** The design of which the section is the cover; null for all other sections. */
  cover: z.enum(coverNames).nullable(),
  /** Where the section begins: on a new sheet, on one with an odd or even number, or below what is there. */
  begins: z.enum(["sheet", "odd", "even", "continuous"]),
  head: Edge,
  foot: Edge,
  /** Whether the first sheet of the section has a head and a foot of its own. */
  firstOwn: z.boolean(),
  /** Whether left sheets, those with even numbers, have a head and a foot of their own. */
  leftRight: z.boolean(),
  numbering: z.strictObject({
    form: z.enum(numberForms),
    /** Number of its first sheet; null to go on counting. */
    start: ranged(limits.sheetNumber).int().nullable(),
  }),
})

/** What other programs put into the file that a document was read from, to be given back to them. */
export const Kept = z.strictObject({
  /** Properties of the document that people made, by name. */
  properties: keyed(
    z.string().min(1).max(limits.property),
    z.strictObject({ kind: z.enum(["text", "number", "date", "yes"]), value: z.string().max(limits.property) }),
  ),
  /** Data as XML, with what is told about it. */
  parts: keyed(
    z.string().min(1).max(limits.name),
    z.strictObject({
      content: z.string().max(limits.kept.part),
      about: z.string().max(limits.kept.part).nullable(),
    }),
  ),
})

/** What a part of a document is called, from the section on that says so. */
export const PartName = z.strictObject({
  name: z.string().min(1).max(limits.name),
  sign: z.enum(partSigns).nullable(),
})

/** What somebody said of a passage, which has its key as a mark. */
const Comment = z.strictObject({
  author: z.string().max(limits.property),
  /** When it was said, as in ISO 8601; empty where nobody knows. */
  at: z.string().max(40),
  /** Its paragraphs, divided by line feeds. */
  text: z.string().max(limits.comment),
})
export const CommentKey = key
export const Comments = keyed(z.string().min(1).max(limits.name), Comment)

const property = z.string().max(limits.property)
/** The date is in the words in which it is to be read. */
export const Properties = z.strictObject(
  Object.fromEntries(documentProperties.map((name) => [name, property])) as Record<
    (typeof documentProperties)[number],
    typeof property
  >,
)

/** What checking goes by in this document. */
export const Checks = z.strictObject({
  /** Words that are right here, whatever dictionaries say. */
  known: keyed(z.string().min(1).max(limits.name), z.literal(true)),
  /** Remarks on the wording that are heard no more, by remarkName. */
  left: keyed(z.string().min(1).max(limits.name), z.literal(true)),
})

/** Something in one part of a line at the head or foot: left, middle or right. Fields stand in braces, as {page}. */
const BriefEdge = z.strictObject({
  edge: z.enum(["head", "foot"]),
  part: z.number().int().min(0).max(2),
  text: z.string().min(1).max(limits.property),
  /** Whether it stands on the first sheet too. */
  first: z.boolean(),
})
const BriefHeading = z.strictObject({
  align: z.enum(["left", "center"]),
  bold: z.boolean(),
  italic: z.boolean(),
  size: ranged(limits.size),
})
const bothSides = z.enum(["above", "below"])

/** The rules that a document must follow. A rule that is left out asks for nothing. */
export const Brief = z
  .strictObject({
    name: key,
    paper: z.strictObject({ width: ranged(limits.paper), height: ranged(limits.paper) }),
    margins: z.strictObject({ top: space, right: space, bottom: space, left: space }),
    typeface: familyName,
    size: ranged(limits.size),
    /** Times the height that the typeface asks for. */
    lineSpacing: ranged(limits.lines.multiple),
    /** After each paragraph. */
    spaceBetween: space,
    indentFirst: space,
    align: z.enum(["left", "justify"]),
    language: z.string().min(2).max(35),
    /** What stands before the text, in this order. */
    titleBlock: z.strictObject({
      ownSheet: z.boolean(),
      align: z.enum(["left", "center"]),
      /** Of the title's letters. */
      size: ranged(limits.size),
      lines: z.array(z.enum(documentProperties)).min(1).max(5),
    }),
    runningHead: BriefEdge,
    numbers: BriefEdge,
    /** By level, from the first on. */
    headings: z.array(BriefHeading).min(1).max(9),
    references: z.strictObject({
      heading: z.string().min(1).max(limits.name),
      ownSheet: z.boolean(),
      hanging: space,
      sorted: z.boolean(),
    }),
    /** Quotations of so many words stand in paragraphs of their own, so far in. */
    quotations: z.strictObject({ words: ranged(limits.briefWords).int(), indent: space }),
    /** Where captions stand. */
    captions: z.strictObject({ figures: bothSides, tables: bothSides }),
    length: z.strictObject({
      unit: z.enum(["words", "sheets"]),
      least: ranged(limits.briefLength).int(),
      most: ranged(limits.briefLength).int(),
    }),
  })
  .partial()

const sourceText = z.string().max(limits.source.field)
const SourceName = z.strictObject({ family: sourceText, given: sourceText, literal: sourceText }).partial()
const sourceField = z.string().min(1).max(limits.source.field)

/** Something that is cited. */
export const Source = z.strictObject({
  kind: z.enum(sourceKinds),
  names: z.partialRecord(z.enum(sourceRoles), z.array(SourceName).min(1).max(limits.source.names)),
  fields: z.partialRecord(z.enum(sourceFields), sourceField),
  /** When it came out, and when it was read: a year, year and month, or day, as 2019-05-04; otherwise words as "around 1890". */
  issued: sourceText,
  accessed: sourceText,
  /** What a person wrote of it. */
  remarks: z.string().max(limits.source.remarks),
  /** Passages that may be quoted, with where they stand. */
  quotations: z
    .array(z.strictObject({ words: z.string().min(1).max(limits.source.remarks), page: sourceText }))
    .max(limits.source.quotations),
})

/** The sources of a document, and how they are cited. */
export const Sources = z.strictObject({
  /** Key of a style that ships, or "own". */
  style: key,
  /** A style that was added, in the Citation Style Language; null for none. */
  own: z.strictObject({ name: key, notes: z.boolean(), xml: z.string().max(limits.source.style) }).nullable(),
  list: keyed(key, Source),
})

/** How notes are numbered. */
export const NoteSettings = z.strictObject({
  foot: z.strictObject({ form: z.enum(noteForms), restart: z.enum(noteRestarts) }),
  end: z.strictObject({ form: z.enum(noteForms) }),
})

const fraction = ranged(limits.picture.crop)
const part = ranged(limits.picture.part)
export const PictureFormat = z.strictObject({
  /** In points, before it is turned; null for what follows from the other, or from its pixels. */
  width: ranged(limits.picture.size).nullable(),
  height: ranged(limits.picture.size).nullable(),
  /** What it shows, for who cannot see it. */
  alt: z.string().max(limits.alt),
  /** Parts of it that are not shown, from each side. */
  crop: z.strictObject({ top: fraction, right: fraction, bottom: fraction, left: fraction }),
  /** Degrees by which it is turned, with the clock. */
  turn: ranged(limits.picture.turn),
  shape: z.enum(pictureShapes),
  frame: Border.nullable(),
  shadow: z.boolean(),
  opacity: ranged(limits.strength),
  /** How its colours were changed from those of its source. */
  colours: z.strictObject({
    tone: z.enum(pictureTones),
    brightness: part,
    contrast: part,
    /** How unlike the colour at its edges may be that was taken away; null for none. */
    cut: ranged([0, 1]).nullable(),
  }),
  wrap: z.enum(wraps),
  side: z.enum(wrapSides),
  /** From it to the text beside it. */
  distance: ranged(limits.picture.distance),
  /** Where it stands from left to right, if not in its line: at an edge or the middle of something, or so far from its left edge. */
  across: z.strictObject({
    of: z.enum(["column", "margins", "sheet"]),
    align: z.enum(["left", "center", "right"]).nullable(),
    at: length,
  }),
  /** So far below the top of something. */
  down: z.strictObject({ of: z.enum(["paragraph", "margins", "sheet"]), at: length }),
})

/** What is the same for all of a table. */
export const TableFormat = z.strictObject({
  /** Widths of its columns in points, as long as they have room together; null where they share the width alike. */
  columns: z.array(ranged(limits.table.column)).min(1).max(limits.table.columns).nullable(),
  look: z.enum(tableLooks),
  /** Rows that are its head: repeated where it goes on on another sheet. */
  headRows: ranged(limits.table.headRows).int(),
  /** Whether these have a look of their own. */
  firstColumn: z.boolean(),
  lastColumn: z.boolean(),
  totalRow: z.boolean(),
  bands: z.boolean(),
  align: z.enum(["left", "center", "right"]),
  /** From the edge at which it stands. */
  indent: space,
  /** Whether a row may be divided between two sheets. */
  divides: z.boolean(),
  /** Round the text of its cells. */
  padding: z.strictObject({ across: ranged(limits.table.padding), down: ranged(limits.table.padding) }),
  /** What it tells, for who cannot see it. */
  alt: z.string().max(limits.alt),
})
export const RowFormat = z.strictObject({
  /** It is at least as high. */
  height: ranged(limits.table.height),
})
const maybeBorder = Border.nullable()
export const CellFormat = z.strictObject({
  shading: maybeColour,
  /** null for no line, whatever the look of the table says. */
  borders: z.strictObject({ top: maybeBorder, right: maybeBorder, bottom: maybeBorder, left: maybeBorder }).partial(),
  vertical: z.enum(["top", "middle", "bottom"]),
  /** Which way its lines are read: across, or turned so that they rise or fall. */
  reading: z.enum(["across", "up", "down"]),
})

export type LetterFormat = z.infer<typeof LetterFormat>
export type LineSpacing = z.infer<typeof LineSpacing>
export type TabStop = z.infer<typeof TabStop>
export type RulePattern = z.infer<typeof RulePattern>
export type Border = z.infer<typeof Border>
export type Borders = z.infer<typeof Borders>
export type BorderSide = (typeof borderSides)[number]
export type DropCap = z.infer<typeof DropCap>
export type ListPlace = z.infer<typeof ListPlace>
export type ListLevel = z.infer<typeof ListLevel>
export type ListDefinition = z.infer<typeof ListDefinition>
export type ParagraphFormat = z.infer<typeof ParagraphFormat>
export type TableFormat = z.infer<typeof TableFormat>
export type PictureFormat = z.infer<typeof PictureFormat>
export type RowFormat = z.infer<typeof RowFormat>
export type CellFormat = z.infer<typeof CellFormat>
export type OwnFamily = z.infer<typeof OwnFamily>
export type Style = z.infer<typeof Style>
export type StyleSheet = z.infer<typeof StyleSheet>
export type Typesetting = z.infer<typeof Typesetting>
export type PageSetup = z.infer<typeof PageSetup>
export type Comment = z.infer<typeof Comment>
export type Kept = z.infer<typeof Kept>
export type Comments = z.infer<typeof Comments>
export type PartName = z.infer<typeof PartName>
export type Watermark = z.infer<typeof Watermark>
export type Properties = z.infer<typeof Properties>
export type Brief = z.infer<typeof Brief>
export type Source = z.infer<typeof Source>
export type Sources = z.infer<typeof Sources>
export type Checks = z.infer<typeof Checks>
export type NoteSettings = z.infer<typeof NoteSettings>
