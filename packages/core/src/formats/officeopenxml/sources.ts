/**
 * Sources and citations (ISO/IEC 29500-1, 22.6 and 17.16.5.6): a part of the bibliography that other programs read, and beside it one
 * of our own in CSL JSON for what has no place there.
 */
import { defaultSources, entryOf, limits, type CitationItem, type Source, type Sources } from "../../document"
import { firstDate, itemOf, sourceOf } from "../../sources"
import { keptSources, sourcesKept } from "../keptSources"
import { child, childrenNamed, textIn, type XmlElement } from "../xml/parsing"
import { escapeXml, xml } from "../xml/writing"
import { namespaces } from "./names"

type Kind = Source["kind"]
type Field = keyof Source["fields"]
type Role = keyof Source["names"]

/** Kinds by their names there; several of ours share one. */
const kindNames: Readonly<Record<Kind, string>> = {
  book: "Book",
  chapter: "BookSection",
  "article-journal": "JournalArticle",
  "article-magazine": "ArticleInAPeriodical",
  "article-newspaper": "ArticleInAPeriodical",
  webpage: "InternetSite",
  report: "Report",
  thesis: "Report",
  "paper-conference": "ConferenceProceedings",
  "entry-encyclopedia": "BookSection",
  legislation: "Misc",
  legal_case: "Case",
  interview: "Interview",
  motion_picture: "Film",
  broadcast: "SoundRecording",
  speech: "Performance",
  personal_communication: "Misc",
  dataset: "ElectronicSource",
  manuscript: "Misc",
  document: "Misc",
}
const kindsMeant: Readonly<Record<string, Kind>> = {
  Book: "book",
  BookSection: "chapter",
  JournalArticle: "article-journal",
  ArticleInAPeriodical: "article-magazine",
  InternetSite: "webpage",
  DocumentFromInternetSite: "webpage",
  ElectronicSource: "dataset",
  Report: "report",
  ConferenceProceedings: "paper-conference",
  Case: "legal_case",
  Interview: "interview",
  Film: "motion_picture",
  SoundRecording: "broadcast",
  Performance: "speech",
}

/** Where what a source stands in is told. */
const container: Partial<Record<Kind, string>> = {
  chapter: "BookTitle",
  "entry-encyclopedia": "BookTitle",
  "article-journal": "JournalName",
  "article-magazine": "PeriodicalTitle",
  "article-newspaper": "PeriodicalTitle",
  webpage: "InternetSiteTitle",
  "paper-conference": "ConferenceName",
}
const fieldNames: readonly (readonly [Field, string])[] = [
  ["title", "Title"],
  ["publisher", "Publisher"],
  ["publisher-place", "City"],
  ["edition", "Edition"],
  ["volume", "Volume"],
  ["issue", "Issue"],
  ["page", "Pages"],
  ["URL", "URL"],
  ["DOI", "DOI"],
  ["ISBN", "StandardNumber"],
  ["medium", "Medium"],
  ["number", "CaseNumber"],
]
const roleNames: readonly (readonly [Role, string])[] = [
  ["author", "Author"],
  ["editor", "Editor"],
  ["translator", "Translator"],
  ["director", "Director"],
  ["interviewer", "Interviewer"],
]

const element = (name: string, text: string | undefined) => (text ? xml(`b:${name}`, null, escapeXml(text)) : "")

function names(source: Source): string {
  const all = roleNames.flatMap(([role, name]) => {
    const list = source.names[role]
    if (!list) return []
    const [first] = list
    const inside =
      list.length === 1 && first?.literal !== undefined
        ? element("Corporate", first.literal)
        : xml(
            "b:NameList",
            null,
            ...list.map(({ family, given, literal }) =>
              xml("b:Person", null, element("Last", family ?? literal), element("First", given)),
            ),
          )
    return [xml(`b:${name}`, null, inside)]
  })
  return all.length > 0 ? xml("b:Author", null, ...all) : ""
}

function date(written: string, ending: string): string {
  const parts = firstDate(written)
  if (!parts) return element(`Year${ending}`, written)
  return (["Year", "Month", "Day"] as const).map((name, i) => element(name + ending, parts[i]?.toString())).join("")
}

function sourceElement(key: string, source: Source): string {
  return xml(
    "b:Source",
    null,
    element("Tag", key),
    element("SourceType", kindNames[source.kind]),
    names(source),
    ...fieldNames.map(([field, name]) => element(name, source.fields[field])),
    element(container[source.kind] ?? "PublicationTitle", source.fields["container-title"]),
    date(source.issued, ""),
    date(source.accessed, "Accessed"),
    element("Comments", source.remarks),
  )
}

const own = "urn:biblon:sources"

/** Roots of the parts that hold the sources. */
export const ourParts = ["b:Sources", "own:sources"]

/** The parts that hold the sources, without their heads; none for a document without sources. */
export function sourceParts(sources: Sources): string[] {
  const { list, style } = sources
  const all = Object.entries(list)
  if (all.length === 0) return []
  return [
    xml(
      "b:Sources",
      { "xmlns:b": namespaces.b, StyleName: style },
      ...all.map(([key, source]) => sourceElement(key, source)),
    ),
    xml("own:sources", { "xmlns:own": own }, escapeXml(keptSources(sources))),
  ]
}

function namesFrom(author: XmlElement | undefined): Source["names"] {
  return Object.fromEntries(
    roleNames.flatMap(([role, name]) => {
      const found = child(author, `b:${name}`)
      const corporate = textIn(child(found, "b:Corporate")).trim()
      const people = childrenNamed(child(found, "b:NameList"), "b:Person").flatMap((person) => {
        const family = textIn(child(person, "b:Last")).trim()
        const given = [textIn(child(person, "b:First")), textIn(child(person, "b:Middle"))].join(" ").trim()
        return family || given ? [given ? { family, given } : { literal: family }] : []
      })
      const list = corporate ? [{ literal: corporate }] : people
      return list.length > 0 ? [[role, list]] : []
    }),
  ) as Source["names"]
}

/** A source as the part of the bibliography tells it. */
function sourceFrom(found: XmlElement): { key: string; source: Source } | null {
  const text = (name: string) =>
    textIn(child(found, `b:${name}`))
      .replace(/\s+/g, " ")
      .trim()
  const kind = entryOf(kindsMeant, text("SourceType")) ?? "document"
  const stands = [
    "BookTitle",
    "JournalName",
    "PeriodicalTitle",
    "InternetSiteTitle",
    "ConferenceName",
    "PublicationTitle",
  ]
  const fields = Object.fromEntries(
    [
      ...fieldNames.map(([field, name]) => [field, text(name)] as const),
      ["container-title", stands.map(text).find((own) => own !== "") ?? ""] as const,
    ].filter(([, value]) => value !== ""),
  )
  const written = (ending: string) => {
    const [year, month, day] = ["Year", "Month", "Day"].map((name) => text(name + ending))
    const number = (value = "") => (/^\d{1,2}$/.test(value) ? value.padStart(2, "0") : "")
    return [year, number(month), number(month) ? number(day) : ""].filter(Boolean).join("-")
  }
  const key = text("Tag").slice(0, limits.name)
  const source = sourceOf({
    ...itemOf(key, {
      kind,
      names: namesFrom(child(found, "b:Author")),
      fields,
      issued: written(""),
      accessed: written("Accessed"),
      remarks: "",
      quotations: [],
    }),
    note: text("Comments"),
  })
  return key === "" || key === "__proto__" || !source ? null : { key, source }
}

/** Our styles by what others call theirs. */
const stylesMeant: readonly (readonly [RegExp, string])[] = [
  [/apa/i, "apa"],
  [/mla/i, "modern-language-association"],
  [/chicago|turabian/i, "chicago-author-date"],
  [/harvard/i, "harvard-cite-them-right"],
  [/ieee/i, "ieee"],
]

/** @param roots the parts of a document that are neither text nor looks */
export function sourcesFrom(roots: readonly XmlElement[]): Sources {
  const told = roots.find(({ name }) => name === "b:Sources")
  const kept = roots.find(({ name }) => name === "own:sources")
  const whole = kept ? sourcesKept(textIn(kept)) : defaultSources
  if (!told) return defaultSources
  const list: Record<string, Source> = {}
  for (const found of childrenNamed(told, "b:Source")) {
    const read = sourceFrom(found)
    if (!read) continue
    // What somebody changed there counts; else we know more of it.
    const before = entryOf(whole.list, read.key)
    const same =
      before &&
      sourceElement(read.key, before) ===
        sourceElement(read.key, {
          ...read.source,
          kind: kindNames[before.kind] === kindNames[read.source.kind] ? before.kind : read.source.kind,
        })
    list[read.key] = same ? before : read.source
  }
  const named = `${told.attrs.StyleName ?? ""} ${told.attrs.SelectedStyle ?? ""}`
  const style = kept ? whole.style : (stylesMeant.find(([pattern]) => pattern.test(named))?.[1] ?? defaultSources.style)
  return { style, own: whole.own, list }
}

const quoted = (text: string) => `"${text.replace(/["\\]/g, "\\$&")}"`

/** The instruction of a field that cites. */
export function citationInstruction(items: readonly CitationItem[]): string {
  const one = ({ source, at, before, after, bare }: CitationItem) =>
    [
      quoted(source),
      at && `\\p ${quoted(at)}`,
      before && `\\f ${quoted(before)}`,
      after && `\\s ${quoted(after)}`,
      bare && "\\n",
    ]
      .filter(Boolean)
      .join(" ")
  return `CITATION ${items.map(one).join(" \\m ")}`
}

/** The items that the instruction of a field names. */
export function citationFrom(instruction: string): CitationItem[] {
  const parts = [...instruction.matchAll(/"((?:\\.|[^"\\])*)"|\\([a-zA-Z])|([^\s"\\]+)/g)].map(
    ([, text, sign, word]) => ({
      sign: sign?.toLowerCase(),
      word: text?.replace(/\\(["\\])/g, "$1") ?? word ?? "",
    }),
  )
  const items: CitationItem[] = []
  let asked: string | undefined = "m"
  for (const { sign, word } of parts.slice(1)) {
    const item = items.at(-1)
    if (sign !== undefined) {
      if (sign === "n" && item) item.bare = true
      asked = sign === "n" || sign === "y" || sign === "t" ? undefined : sign
      continue
    }
    if (asked === "m") items.push({ source: word })
    else if (item && asked === "p") item.at = word
    else if (item && asked === "f") item.before = word
    else if (item && asked === "s") item.after = word
    asked = undefined
  }
  return items
}
