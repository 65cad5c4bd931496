/** Fields: places in the text that show something computed. For now the date and the time, kept up to date. */
import type { Node } from "prosemirror-model"
import { entryOf } from "./keyed"
import { knownLanguage } from "./language"

export interface FieldAttrs {
  kind: "date"
  /** A key of dateFormats. */
  format: string
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

/** What a field shows now. */
export function fieldText(field: Node, language: string, now = new Date()): string {
  return formatDate(now, (field.attrs as FieldAttrs).format, language)
}
