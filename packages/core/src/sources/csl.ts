/** Sources as items of the Citation Style Language (CSL JSON), and back. */
import { entryOf, limits, sourceFields, sourceKinds, sourceRoles, type Source } from "../document"

type Json = Record<string, unknown>

/** A date in the form of CSL JSON: its parts, or words where it is none. */
export function dateParts(written: string): Json | null {
  const own = written.trim()
  if (own === "") return null
  const [from = "", to] = own.split("/")
  const parts = [from, to].map((date) => /^(-?\d{1,4})(?:-(\d{1,2}))?(?:-(\d{1,2}))?$/.exec(date ?? ""))
  const numbers = parts.flatMap((match) =>
    match ? [match.slice(1).flatMap((part) => (part ? [Number(part)] : []))] : [],
  )
  return numbers.length === own.split("/").length ? { "date-parts": numbers } : { literal: own }
}

/** The year, month and day of a date, as far as they are said; of two the first. Undefined where it is none. */
export const firstDate = (written: string): number[] | undefined =>
  (dateParts(written)?.["date-parts"] as number[][] | undefined)?.[0]

/** @param id by which citations name it */
export function itemOf(id: string, { kind, names, fields, issued, accessed }: Source): Json {
  const [out, seen] = [dateParts(issued), dateParts(accessed)]
  return { id, type: kind, ...names, ...fields, ...(out ? { issued: out } : {}), ...(seen ? { accessed: seen } : {}) }
}

const asText = (value: unknown) =>
  typeof value === "string" || typeof value === "number" ? String(value).replace(/\s+/g, " ").trim() : ""
const cut = (text: string) => text.slice(0, limits.source.field)

function dateText(value: unknown): string {
  if (typeof value !== "object" || value === null) return cut(asText(value))
  const { "date-parts": parts, literal, raw } = value as Json
  if (Array.isArray(parts))
    return parts
      .slice(0, 2)
      .filter((date): date is unknown[] => Array.isArray(date) && Number.isInteger(Number(date[0])))
      .map((date) =>
        date
          .slice(0, 3)
          .filter((part) => Number.isInteger(Number(part)) && part !== "")
          .map((part, i) => (i === 0 ? String(Number(part)) : String(Number(part)).padStart(2, "0")))
          .join("-"),
      )
      .join("/")
  return cut(asText(literal) || asText(raw))
}

/** Kinds that CSL JSON has beside ours, by the one that is nearest. */
const kindsMeant: Readonly<Record<string, Source["kind"]>> = {
  article: "article-journal",
  "post-weblog": "webpage",
  post: "webpage",
  "entry-dictionary": "entry-encyclopedia",
  entry: "entry-encyclopedia",
  bill: "legislation",
  treaty: "legislation",
  regulation: "legislation",
  hearing: "legal_case",
  song: "broadcast",
  graphic: "document",
  map: "document",
  pamphlet: "document",
  patent: "document",
  review: "article-journal",
  "review-book": "article-journal",
  standard: "report",
  software: "dataset",
  classic: "book",
  collection: "book",
  periodical: "book",
  event: "speech",
  performance: "speech",
}

/** A source from an item of CSL JSON; null for what is none. */
export function sourceOf(item: unknown): Source | null {
  if (typeof item !== "object" || item === null || Array.isArray(item)) return null
  const json = item as Json
  const type = asText(json.type)
  const kind = sourceKinds.find((own) => own === type) ?? entryOf(kindsMeant, type) ?? "document"
  const names = Object.fromEntries(
    sourceRoles.flatMap((role) => {
      const list = Array.isArray(json[role]) ? (json[role] as unknown[]) : []
      const found = list.slice(0, limits.source.names).flatMap((own) => {
        const name = (typeof own === "object" && own !== null ? own : {}) as Json
        const particles = [name["dropping-particle"], name["non-dropping-particle"]]
          .map(asText)
          .filter(Boolean)
          .join(" ")
        const family = [particles, asText(name.family)].filter(Boolean).join(" ")
        const given = [asText(name.given), asText(name.suffix)].filter(Boolean).join(", ")
        const literal = asText(name.literal)
        const made = {
          ...(family ? { family: cut(family) } : {}),
          ...(given ? { given: cut(given) } : {}),
          ...(literal && !family ? { literal: cut(literal) } : {}),
        }
        return Object.keys(made).length > 0 ? [made] : []
      })
      return found.length > 0 ? [[role, found]] : []
    }),
  ) as Source["names"]
  const fields = Object.fromEntries(
    sourceFields.flatMap((field) => {
      const text = cut(asText(Array.isArray(json[field]) ? (json[field] as unknown[])[0] : json[field]))
      return text ? [[field, text]] : []
    }),
  ) as Source["fields"]
  return {
    kind,
    names,
    fields,
    issued: dateText(json.issued),
    accessed: dateText(json.accessed),
    remarks: asText(json.note ?? json.abstract).slice(0, limits.source.remarks),
    quotations: [],
  }
}

/** Words in a field may be set in another manner, as they are in CSL JSON. */
const manners = /<\/?(?:i|b|sc|sup|sub|span(?: [^<>]*)?)>/g

/** How a source is told to a person in one line: who, when, what. */
export function sourceWords({ names, fields, issued }: Source): { who: string; when: string; what: string } {
  const people = sourceRoles.map((role) => names[role]).find((own) => own !== undefined) ?? []
  const who = people.map(({ family, literal, given }) => family ?? literal ?? given ?? "").filter(Boolean)
  return {
    who: who.length > 2 ? `${who[0]} and others` : who.join(" and "),
    when: /\d{4}/.exec(issued)?.[0] ?? issued,
    what: (fields.title ?? fields["container-title"] ?? "").replace(manners, ""),
  }
}

/** A key for a new source that no other one has: the name and the year, and a letter where there are several. */
export function keyFor(source: Source, taken: (key: string) => boolean): string {
  const { who, when, what } = sourceWords(source)
  const word = (text: string) =>
    /[\p{L}\p{N}]+/u.exec(text.normalize("NFD").replace(/\p{M}/gu, ""))?.[0].toLowerCase() ?? ""
  const base = `${(word(who) || word(what) || "source").slice(0, 40)}${/\d{1,4}/.exec(when)?.[0] ?? ""}`
  for (let n = 0; ; n++) {
    const key = n === 0 ? base : n <= 26 ? `${base}${String.fromCharCode(96 + n)}` : `${base}-${n}`
    if (!taken(key) && key !== "__proto__") return key
  }
}

/** Whether two sources are most likely the same: one of their numbers is, or who, when and what are. */
export function sameSource(a: Source, b: Source): boolean {
  for (const field of ["DOI", "ISBN"] as const) {
    const plain = (source: Source) => (source.fields[field] ?? "").toLowerCase().replace(/[^a-z0-9./]/g, "")
    if (plain(a) !== "" && plain(a) === plain(b)) return true
  }
  const told = (source: Source) => {
    const { who, when, what } = sourceWords(source)
    return `${who}|${when}|${what}`.toLowerCase().replace(/[^\p{L}\p{N}|]/gu, "")
  }
  return sourceWords(a).what !== "" && told(a) === told(b)
}
