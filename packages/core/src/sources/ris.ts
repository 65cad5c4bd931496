/** RIS: lists of sources in lines of two letters and a value. One table tells kinds and tags for reading and writing. */
import type { Source, Sources } from "../document"
import { dateParts, firstDate } from "./csl"

type Json = Record<string, unknown>
type Field = keyof Source["fields"]
type Role = keyof Source["names"]
type Names = NonNullable<Source["names"][Role]>

/** The kinds that are written, and after each those that are read as it. */
const kinds: Partial<Record<Source["kind"], readonly string[]>> = {
  book: ["BOOK", "EBOOK", "EDBOOK", "CLSWK"],
  chapter: ["CHAP", "ECHAP"],
  "article-journal": ["JOUR", "EJOUR", "ABST", "INPR", "JFULL"],
  "article-magazine": ["MGZN"],
  "article-newspaper": ["NEWS"],
  webpage: ["ELEC", "WEB", "BLOG"],
  report: ["RPRT", "GOVDOC", "STAND", "PAMP"],
  thesis: ["THES"],
  "paper-conference": ["CPAPER", "CONF"],
  "entry-encyclopedia": ["ENCYC", "DICT"],
  legislation: ["STAT", "BILL", "LEGAL"],
  legal_case: ["CASE", "HEAR"],
  motion_picture: ["MPCT", "VIDEO", "ADVS"],
  broadcast: ["SOUND", "MUSIC"],
  personal_communication: ["PCOMM", "ICOMM"],
  dataset: ["DATA", "AGGR", "DBASE", "COMP"],
  manuscript: ["UNPB", "MANSCPT"],
  speech: ["SLIDE"],
}
const kindsRead = new Map(
  Object.entries(kinds).flatMap(([kind, all]) => all.map((own) => [own, kind as Source["kind"]] as const)),
)

/** Tags of people, the one that is written first. */
const people: readonly (readonly [Role, string, ...string[]])[] = [
  ["author", "AU", "A1"],
  ["editor", "ED", "A2"],
  ["translator", "A4"],
]

/** Tags of all else, the one that is written first; the first that an entry has is read. */
const fields: readonly (readonly [Field, string, ...string[]])[] = [
  ["title", "TI", "T1", "CT"],
  ["container-title", "T2", "JF", "JO", "BT", "JA", "J2", "J1"],
  ["collection-title", "T3"],
  ["publisher", "PB"],
  ["publisher-place", "CY", "PP"],
  ["edition", "ET"],
  ["volume", "VL"],
  ["issue", "IS", "CP"],
  ["genre", "M3"],
  ["title-short", "ST"],
  ["language", "LA"],
  ["archive", "DB"],
  ["URL", "UR"],
  ["DOI", "DO"],
]

const isArticle = (kind: Source["kind"]) => kind.startsWith("article-")

/** Days, months and years, and what is none, stand between strokes. */
function dateOf(value: string | undefined): Json | null {
  if (!value) return null
  const parts = value.split("/", 3).map((part) => part.trim())
  while (parts.at(-1) === "") parts.pop()
  return dateParts(parts.join("-"))
}

function nameOf(value: string): Json {
  const [family, given, suffix] = value.split(",").map((part) => part.trim())
  return given ? { family, given, ...(suffix ? { suffix } : {}) } : { literal: family }
}

type Entry = ReadonlyMap<string, readonly string[]>

/** The entries of a file: the values of each tag. A line without a tag goes on with the one before it. */
function entriesOf(text: string): Entry[] {
  const entries: Map<string, string[]>[] = []
  let last: string[] | null = null
  for (const line of text.split(/\r\n?|\n/)) {
    const [, tag, value = ""] = /^([A-Z][A-Z\d]) {1,2}-(?: (.*))?$/.exec(line) ?? []
    if (!tag) {
      if (last && line.trim()) last.push(`${last.pop() ?? ""} ${line.trim()}`)
      continue
    }
    if (tag === "TY") entries.push(new Map())
    const entry = entries.at(-1)
    last = null
    if (!entry || tag === "ER") continue
    last = entry.get(tag) ?? []
    entry.set(tag, last)
    last.push(value.trim())
  }
  return entries
}

function itemOfEntry(entry: Entry): Json {
  const all = (...tags: string[]) => tags.flatMap((tag) => entry.get(tag) ?? []).filter(Boolean)
  const first = (...tags: string[]): string | undefined => all(...tags)[0]
  const type = kindsRead.get(first("TY") ?? "") ?? "document"
  const item: Json = { type, id: first("ID") }
  for (const [role, ...tags] of people) {
    const names = all(...tags).map(nameOf)
    if (names.length > 0) item[role === "author" && type === "motion_picture" ? "director" : role] = names
  }
  for (const [field, ...tags] of fields) item[field] = first(...tags)
  // Of an article it says what it is of its journal, and of a book in which series it stands.
  if (isArticle(type)) delete item.genre
  if (type === "book" && !item["collection-title"]) {
    item["collection-title"] = item["container-title"]
    delete item["container-title"]
  }
  const [from, to] = [first("SP"), first("EP")]
  if (type === "book" && from && !to && /^\d+$/.test(from)) item["number-of-pages"] = from
  else item.page = [from, from?.includes("-") || to === from ? undefined : to].filter(Boolean).join("-")
  item.DOI = first("DO")?.replace(/^(?:https?:\/\/(?:dx\.)?doi\.org\/|doi:\s*)/i, "")
  const number = first("SN")
  item[isArticle(type) || /^\d{4}-?\d{3}[\dX]$/i.test(number ?? "") ? "ISSN" : "ISBN"] = number
  const [year, day] = [first("PY", "Y1"), first("DA")]
  // Of some programs the day is that of their record.
  item.issued = dateOf(year && day?.slice(0, 4) !== year.slice(0, 4) ? year : day)
  item.accessed = dateOf(first("Y2"))
  item.note = first("N1") ?? first("AB", "N2")
  return item
}

/** The sources of a file as items of CSL JSON. */
export const itemsOfRis = (text: string): Json[] => entriesOf(text).map(itemOfEntry)

const nameTold = ({ family, given, literal }: Names[number]) =>
  [family ?? literal ?? "", given ?? ""].filter(Boolean).join(", ")

function entryTold(key: string, source: Source): string {
  const { kind, names, fields: own } = source
  const date = (written: string) => firstDate(written)?.map((part, i) => String(part).padStart(i === 0 ? 4 : 2, "0"))
  const [issued, accessed] = [date(source.issued), date(source.accessed)]
  const [from = "", to] = (own.page ?? "").split(/[-–]/)
  const isLeft = (field: Field) =>
    kind === "book" ? field === "container-title" : isArticle(kind) && field === "genre"
  // Where many programs look for the name of a journal.
  const tagOf = (tag: string) => (tag === "T2" && kind === "article-journal" ? "JO" : tag)
  const lines: (readonly [string, string | undefined])[] = [
    ["TY", kinds[kind]?.[0] ?? "GEN"],
    ["ID", key],
    ...people.flatMap(([role, tag]) =>
      [...(names[role] ?? []), ...(role === "author" ? (names.director ?? []) : [])].map(
        (name) => [tag, nameTold(name)] as const,
      ),
    ),
    ...fields.map(([field, tag]) => [tagOf(tag), isLeft(field) ? undefined : own[field]] as const),
    ["PY", issued ? issued[0] : source.issued],
    ["DA", issued && issued.length > 1 ? issued.join("/") : undefined],
    ["Y2", accessed?.join("/")],
    ["SP", own.page ? from : own["number-of-pages"]],
    ["EP", to],
    ["SN", own.ISBN ?? own.ISSN],
    ["N1", source.remarks],
  ]
  const said = lines.filter(([, value]) => value)
  return [...said.map(([tag, value]) => `${tag}  - ${(value as string).replace(/\s+/g, " ")}`), "ER  - ", ""].join(
    "\r\n",
  )
}

/** Sources as the text of a file. */
export const ris = (list: Sources["list"]): string =>
  Object.entries(list)
    .map(([key, source]) => entryTold(key, source))
    .join("\r\n")
