/** Fields: places in the text that show something computed: the date, the number of the sheet, what the document is called. */
import type { Node } from "prosemirror-model"
import { enclosureWords } from "./enclosures"
import { entryOf } from "./keyed"
import { knownLanguage } from "./language"

/**
 * What a field may show. `page` and those after it up to `heading` are known only of a sheet: they stand in heads and feet, and
 * elsewhere show a dash.
 */
export const fieldKinds = [
  "date",
  "page",
  "pages",
  "sectionPages",
  "heading",
  "title",
  "author",
  "property",
  "name",
  "formula",
  "caption",
  "reference",
  "citation",
  "enclosure",
  "enclosures",
] as const
export type FieldKind = (typeof fieldKinds)[number]

export interface FieldAttrs {
  kind: FieldKind
  /** Of a date, a key of dateFormats; of a heading, its level and, for the last one on the sheet, "last"; of a property, its key; of a formula, how it is written and what it computes; of a caption, its label; of a reference, what it shows of which place; of a citation, its items; of an enclosure, its file; of the enclosures, "names" or empty for how many; otherwise empty. */
  format: string
}

export function fieldAttrs(field: Node): FieldAttrs {
  return field.attrs as FieldAttrs
}

/** How dates and times may be written, each in the words and order of the document's language. */
export const dateFormats: Readonly<Record<string, Intl.DateTimeFormatOptions>> = {
  long: { dateStyle: "long" },
  full: { dateStyle: "full" },
  medium: { dateStyle: "medium" },
  short: { dateStyle: "short" },
  dayMonth: { day: "numeric", month: "long" },
  monthYear: { month: "long", year: "numeric" },
  weekday: { weekday: "long" },
  year: { year: "numeric" },
  time: { timeStyle: "short" },
  dateTime: { dateStyle: "long", timeStyle: "short" },
}

/** A moment in one of the formats. An unknown format counts as long. */
export function formatDate(moment: Date, format: string, language: string): string {
  return new Intl.DateTimeFormat(knownLanguage(language), entryOf(dateFormats, format) ?? dateFormats.long).format(
    moment,
  )
}

/** What fields show, each in a language. Handed to all that shows or sets text, which does not ask for the time itself. */
export type FieldValues = (field: Node, language: string) => string

/** The values of fields whenever they are asked for. */
export const valuesNow: FieldValues = (field, language) => fieldText(field, language)

/** The same where a document has a name, which its title is too as long as it has no other. */
export function withName(values: FieldValues, name: string): FieldValues {
  return (field, language) => {
    const { kind } = fieldAttrs(field)
    return (kind === "name" || kind === "title") && name !== "" ? name : values(field, language)
  }
}

/** What a field shows now, as far as that hangs on neither sheet nor document. */
export function fieldText(field: Node, language: string, now = new Date()): string {
  const { kind, format } = fieldAttrs(field)
  if (kind === "enclosure") return enclosureWords(format, language)
  return kind === "date" ? formatDate(now, format, language) : unknownValue
}

/** Shown for what is not known. */
export const unknownValue = "–"
