/**
 * Citations as marks of a bibliography (OpenDocument 1.3, 7.6), each with what is known of its source, for other programs; all that we
 * know of the sources stands among the properties of the file.
 */
import {
  citationItem,
  defaultSources,
  entryOf,
  limits,
  type CitationItem,
  type Source,
  type Sources,
} from "../../document"
import { firstDate, sourceOf } from "../../sources"
import { keptSources, sourcesKept } from "../keptSources"
import { child, childrenNamed, textIn, type XmlElement } from "../xml/parsing"
import { escapeXml, xml } from "../xml/writing"

/** The name of the property that holds the sources. */
export const sourcesPropertyName = "Biblon sources"

/** The property, written; nothing for a document without sources. */
export function sourcesProperty(sources: Sources): string {
  if (Object.keys(sources.list).length === 0) return ""
  return xml(
    "meta:user-defined",
    { "meta:name": sourcesPropertyName, "meta:value-type": "string" },
    escapeXml(keptSources(sources)),
  )
}

export function sourcesFromMeta(meta: XmlElement | undefined): Sources {
  const own = childrenNamed(child(meta, "office:meta"), "meta:user-defined").find(
    ({ attrs }) => attrs["meta:name"] === sourcesPropertyName,
  )
  return own ? sourcesKept(textIn(own)) : defaultSources
}

const kinds: Partial<Record<Source["kind"], string>> = {
  book: "book",
  chapter: "inbook",
  "article-journal": "article",
  "article-magazine": "article",
  "article-newspaper": "article",
  webpage: "www",
  report: "techreport",
  thesis: "phdthesis",
  "paper-conference": "inproceedings",
  manuscript: "unpublished",
}

/** One item of a citation as a mark. What the format has no place for stands in the fields that are free. */
export function citationMark(item: CitationItem, source: Source | undefined, first: boolean, shown: string): string {
  const people = (role: "author" | "editor") =>
    source?.names[role]
      ?.map(({ family, given, literal }) => literal ?? [family, given].filter(Boolean).join(", "))
      .join("; ")
  const fields = source?.fields ?? {}
  const date = firstDate(source?.issued ?? "")
  return xml(
    "text:bibliography-mark",
    {
      "text:identifier": item.source,
      "text:bibliography-type": (source && kinds[source.kind]) ?? "misc",
      "text:author": people("author"),
      "text:editor": people("editor"),
      "text:title": fields.title,
      "text:booktitle": source?.kind === "chapter" ? fields["container-title"] : undefined,
      "text:journal": source?.kind.startsWith("article") ? fields["container-title"] : undefined,
      "text:publisher": fields.publisher,
      "text:address": fields["publisher-place"],
      "text:volume": fields.volume,
      "text:number": fields.issue,
      "text:pages": fields.page,
      "text:edition": fields.edition,
      "text:url": fields.URL,
      "text:isbn": fields.ISBN,
      "text:year": date ? String(date[0]) : source?.issued || undefined,
      "text:custom1": item.at,
      "text:custom2": item.before,
      "text:custom3": item.after,
      "text:custom4": item.bare ? "bare" : undefined,
      "text:custom5": first ? undefined : "joined",
    },
    first ? shown : "",
  )
}

/** The item of a citation that a mark is, and whether it goes on with the citation before it. */
export function itemOfMark({ attrs }: XmlElement): { item: CitationItem; joined: boolean } | null {
  const source = (attrs["text:identifier"] ?? "").slice(0, limits.name)
  if (source === "" || source === "__proto__") return null
  const [at = "", before = "", after = ""] = [attrs["text:custom1"], attrs["text:custom2"], attrs["text:custom3"]]
  return {
    item: citationItem({ source, at, before, after, bare: attrs["text:custom4"] === "bare" }),
    joined: attrs["text:custom5"] === "joined",
  }
}

const kindsMeant: Readonly<Record<string, Source["kind"]>> = {
  book: "book",
  booklet: "book",
  inbook: "chapter",
  incollection: "chapter",
  article: "article-journal",
  journal: "article-journal",
  www: "webpage",
  email: "personal_communication",
  techreport: "report",
  phdthesis: "thesis",
  mastersthesis: "thesis",
  conference: "paper-conference",
  inproceedings: "paper-conference",
  proceedings: "book",
  unpublished: "manuscript",
}

/** The source that a mark of another program tells of. */
export function sourceOfMark({ attrs }: XmlElement): Source | null {
  const own = (name: string) => attrs[`text:${name}`] ?? ""
  const people = (text: string) =>
    text
      .split(/;| and /)
      .map((name) => name.trim())
      .filter((name) => name !== "")
      .map((name) => {
        const [family = "", given = ""] = name.split(/,(.*)/s).map((part) => part.trim())
        return given ? { family, given } : { literal: family }
      })
  return sourceOf({
    type: entryOf(kindsMeant, own("bibliography-type")) ?? "document",
    author: people(own("author")),
    editor: people(own("editor")),
    title: own("title"),
    "container-title": own("journal") || own("booktitle"),
    publisher: own("publisher") || own("institution") || own("school"),
    "publisher-place": own("address"),
    volume: own("volume"),
    issue: own("number"),
    page: own("pages"),
    edition: own("edition"),
    URL: own("url"),
    ISBN: own("isbn"),
    issued: own("year"),
    note: own("note"),
  })
}
