/**
 * The shapes of everything in a document that is plain data: formats, styles, page setup,
 * properties. Written once as Zod schemas; the rest of the code imports the inferred types
 * only, so that Zod is loaded just where something comes in from outside (see reading.ts).
 *
 * All lengths are points (1/72 inch).
 */
import { z } from "zod"

const length = z.number().min(-4000).max(4000)
const colour = z.string().regex(/^#[0-9a-f]{6}$/, "a colour is written as #rrggbb in lower case")

export const LetterFormat = z.strictObject({
  /** Name of a typeface family in the catalogue. */
  family: z.string().min(1).max(120),
  size: z.number().min(1).max(999),
  bold: z.boolean(),
  italic: z.boolean(),
  underline: z.enum(["none", "single"]),
  colour,
  /** BCP 47 tag, for shaping, hyphenation and spelling. */
  language: z.string().max(35),
})

/** Where a link leads: the web, an e-mail address, or a place of the document by its name. Other schemes do not get in. */
export const Link = z.string().max(2000).regex(/^(https?:\/\/|mailto:)[^\s\u0000-\u001f]+$|^#[^\u0000-\u001f]{1,80}$/i, "a link leads to http, https, mailto or a place of the document")
/** Name of a marked place, to which links lead. */
export const PlaceName = z.string().min(1).max(80)

export const LineSpacing = z.discriminatedUnion("rule", [
  /** Times the height that the typeface asks for. */
  z.strictObject({ rule: z.literal("multiple"), value: z.number().min(0.5).max(10) }),
  z.strictObject({ rule: z.literal("exact"), value: z.number().min(1).max(1000) }),
  z.strictObject({ rule: z.literal("atLeast"), value: z.number().min(0).max(1000) }),
])

export const ParagraphFormat = z.strictObject({
  align: z.enum(["left", "center", "right", "justify"]),
  lineSpacing: LineSpacing,
  spaceBefore: length.min(0),
  spaceAfter: length.min(0),
  indentLeft: length,
  indentRight: length,
  /** Added to indentLeft for the first line; negative for a hanging indent. */
  indentFirst: length,
  /** Stay on the sheet of the following paragraph. */
  keepNext: z.boolean(),
  /** Never divide the paragraph between sheets. */
  keepTogether: z.boolean(),
  /** Fewest lines left at the foot of a sheet, and fewest carried to the next. */
  orphans: z.number().int().min(1).max(9),
  widows: z.number().int().min(1).max(9),
  breakBefore: z.boolean(),
})

export const Style = z.strictObject({
  name: z.string().min(1).max(80),
  /** The style this one starts from. */
  parent: z.string().nullable(),
  /** The style of the paragraph that Enter makes at the end of this one; null for the same. */
  next: z.string().nullable(),
  /** 1 to 9 for headings. */
  outline: z.number().int().min(1).max(9).nullable(),
  paragraph: ParagraphFormat.partial(),
  letters: LetterFormat.partial(),
})

export const StyleSheet = z.strictObject({
  defaults: z.strictObject({ paragraph: ParagraphFormat, letters: LetterFormat }),
  styles: z.record(z.string().min(1).max(80), Style),
})

export const PageSetup = z.strictObject({
  width: z.number().min(72).max(6000),
  height: z.number().min(72).max(6000),
  margins: z.strictObject({ top: length.min(0), right: length.min(0), bottom: length.min(0), left: length.min(0) }),
})

export const Properties = z.strictObject({
  title: z.string().max(1000),
  author: z.string().max(1000),
})

export type LetterFormat = z.infer<typeof LetterFormat>
export type LineSpacing = z.infer<typeof LineSpacing>
export type ParagraphFormat = z.infer<typeof ParagraphFormat>
export type Style = z.infer<typeof Style>
export type StyleSheet = z.infer<typeof StyleSheet>
export type PageSetup = z.infer<typeof PageSetup>
export type Properties = z.infer<typeof Properties>
