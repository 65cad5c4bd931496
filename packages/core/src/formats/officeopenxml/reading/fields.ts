/** Fields (ISO/IEC 29500-1, 17.16) by their instructions: those that are ours, and what of the others stays as text. */
import { asName, citationFormat, type dateFormats, limits, type FieldAttrs } from "../../../document"
import { ownNamed } from "../../properties"
import { meanings } from "../../meanings"
import { citationFrom } from "../sources"

/** An instruction in its words: the name, what it is about, and switches with what follows them. */
export interface Instruction {
  name: string
  words: readonly string[]
  switches: ReadonlyMap<string, string>
  /** As it stands in the file. */
  text: string
}

export function instructionOf(text: string): Instruction {
  const parts = [...text.matchAll(/"((?:\\.|[^"\\])*)"|(\\[a-zA-Z*#@!])|([^\s"\\]+|\\\\)/g)].map(
    ([, quoted, sign, word]) => ({ sign, word: quoted?.replace(/\\(["\\])/g, "$1") ?? word ?? "" }),
  )
  const switches = new Map<string, string>()
  const words: string[] = []
  parts.forEach(({ sign, word }, i) => {
    if (sign) {
      const next = parts[i + 1]
      switches.set(sign.slice(1).toLowerCase(), next && !next.sign ? next.word : "")
    } else if (i === 0 || !parts[i - 1]?.sign) words.push(word)
  })
  const [name = "", ...rest] = words
  return { name: name.toUpperCase(), words: rest, switches, text }
}

/** The way of ours in which a pattern such as "d MMMM yyyy" writes a date. */
function dateForm(pattern: string | undefined, time: boolean): string {
  if (pattern === undefined) return time ? "time" : "short"
  const has = (sign: RegExp) => sign.test(pattern)
  const [day, weekday, month, year, hour] = [has(/d/i), has(/dddd/i), has(/MMM/), has(/y/i), has(/h/i)]
  if (hour) return day || year ? "dateTime" : "time"
  if (weekday) return day && has(/(^|[^d])d{1,2}([^d]|$)/i) ? "full" : "weekday"
  if (!day) return has(/M/) ? "monthYear" : "year"
  if (!year) return "dayMonth"
  return month ? (has(/MMMM/) ? "long" : "medium") : "short"
}

/** Our ways to write a date as patterns, for writing. */
export const datePatterns: Readonly<Record<keyof typeof dateFormats, string>> = {
  long: "d MMMM yyyy",
  full: "dddd, d MMMM yyyy",
  medium: "d MMM yyyy",
  short: "dd/MM/yyyy",
  dayMonth: "d MMMM",
  monthYear: "MMMM yyyy",
  weekday: "dddd",
  year: "yyyy",
  time: "HH:mm",
  dateTime: "d MMMM yyyy HH:mm",
}

const propertyMeant = meanings({ title: "title", author: "author", subject: "subtitle", company: "organisation" })

/** The field that an instruction means; null where what it showed last stays as text. */
export function fieldOf({ name, words, switches, text }: Instruction): FieldAttrs | null {
  const [about = ""] = words
  switch (name) {
    case "PAGE":
      return { kind: "page", format: "" }
    case "NUMPAGES":
      return { kind: "pages", format: "" }
    case "SECTIONPAGES":
      return { kind: "sectionPages", format: "" }
    case "DATE":
    case "TIME":
      return { kind: "date", format: dateForm(switches.get("@"), name === "TIME") }
    case "TITLE":
      return { kind: "title", format: "" }
    case "AUTHOR":
      return { kind: "author", format: "" }
    case "FILENAME":
      return { kind: "name", format: "" }
    case "SUBJECT":
      return { kind: "property", format: "subtitle" }
    case "DOCPROPERTY": {
      const property = propertyMeant(about.toLowerCase()) ?? ownNamed(about)
      return property === "title" || property === "author"
        ? { kind: property, format: "" }
        : property
          ? { kind: "property", format: property }
          : null
    }
    case "STYLEREF": {
      const level = /(\d)\s*$/.exec(about)?.[1]
      return level ? { kind: "heading", format: switches.has("l") ? `${level} last` : level } : null
    }
    case "SEQ":
      return about === "" ? null : { kind: "caption", format: asName(about) }
    case "REF":
    case "PAGEREF": {
      const place = asName(about)
      if (place === "" || place.length > limits.formula - 10) return null
      const part =
        name === "PAGEREF" ? "sheet" : switches.has("n") || switches.has("r") || switches.has("w") ? "number" : "words"
      return { kind: "reference", format: `${part} ${place}` }
    }
    case "CITATION":
      return { kind: "citation", format: citationFormat(citationFrom(text)) }
    default:
      return null
  }
}
