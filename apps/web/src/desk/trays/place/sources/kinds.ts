/** Kinds of sources, and what is asked of each. */
import type { Source } from "@biblon/core/document"

type Kind = Source["kind"]
export type Role = keyof Source["names"]
export type SourceField = keyof Source["fields"]

export const kindNames: readonly (readonly [Kind, string])[] = [
  ["book", "Book"],
  ["chapter", "Chapter of a book"],
  ["article-journal", "Article in a journal"],
  ["article-magazine", "Article in a magazine"],
  ["article-newspaper", "Article in a newspaper"],
  ["webpage", "Web page"],
  ["report", "Report"],
  ["thesis", "Thesis"],
  ["paper-conference", "Paper of a conference"],
  ["entry-encyclopedia", "Entry in a reference work"],
  ["legislation", "Law"],
  ["legal_case", "Court case"],
  ["interview", "Interview"],
  ["motion_picture", "Film"],
  ["broadcast", "Broadcast or recording"],
  ["speech", "Talk"],
  ["personal_communication", "Letter or message"],
  ["dataset", "Data"],
  ["manuscript", "Manuscript"],
  ["document", "Something else"],
]

interface Asked {
  roles: readonly (readonly [Role, string])[]
  fields: readonly (readonly [SourceField, string])[]
  accessed?: boolean
}

const author = ["author", "Authors"] as const
const editor = ["editor", "Editors"] as const
const title = ["title", "Title"] as const
const publisher = ["publisher", "Publisher"] as const
const place = ["publisher-place", "Place"] as const
const pages = ["page", "Pages"] as const
const url = ["URL", "Address"] as const
const doi = ["DOI", "DOI"] as const

const article: Asked = {
  roles: [author],
  fields: [title, ["container-title", "In"], ["volume", "Volume"], ["issue", "Issue"], pages, doi, url],
}
const plain: Asked = { roles: [author], fields: [title, publisher, ["number", "Number"], url], accessed: true }

const asked: Partial<Record<Kind, Asked>> = {
  book: {
    roles: [author, editor, ["translator", "Translators"]],
    fields: [title, publisher, place, ["edition", "Edition"], ["volume", "Volume"], ["ISBN", "ISBN"], doi],
  },
  chapter: {
    roles: [author, editor],
    fields: [title, ["container-title", "In the book"], pages, publisher, place, ["edition", "Edition"], doi],
  },
  "article-journal": article,
  "article-magazine": article,
  "article-newspaper": article,
  webpage: { roles: [author], fields: [title, ["container-title", "Site"], url], accessed: true },
  report: { roles: [author], fields: [title, publisher, ["number", "Number"], url] },
  thesis: { roles: [author], fields: [title, ["genre", "Kind of thesis"], publisher, url] },
  "paper-conference": {
    roles: [author, editor],
    fields: [title, ["event-title", "Conference"], ["container-title", "In"], pages, publisher, doi],
  },
  "entry-encyclopedia": {
    roles: [author, editor],
    fields: [title, ["container-title", "In"], ["edition", "Edition"], publisher, pages, url],
  },
  legislation: {
    roles: [],
    fields: [title, ["container-title", "In"], ["number", "Number"], ["section", "Section"], url],
  },
  legal_case: {
    roles: [],
    fields: [
      title,
      ["authority", "Court"],
      ["number", "Number"],
      ["container-title", "Reporter"],
      ["volume", "Volume"],
      ["page", "Page"],
    ],
  },
  interview: {
    roles: [
      ["author", "Who was asked"],
      ["interviewer", "Who asked"],
    ],
    fields: [title, ["medium", "How"], ["container-title", "In"], url],
  },
  motion_picture: { roles: [["director", "Directors"]], fields: [title, publisher, ["medium", "Medium"], url] },
  broadcast: {
    roles: [author, ["director", "Directors"]],
    fields: [title, ["container-title", "Programme"], publisher, ["medium", "Medium"], url],
  },
  speech: { roles: [author], fields: [title, ["event-title", "Occasion"], place, url] },
  personal_communication: { roles: [author, ["recipient", "To"]], fields: [title, ["medium", "How"]] },
  dataset: { roles: [author], fields: [title, publisher, ["edition", "Version"], doi, url] },
  manuscript: { roles: [author], fields: [title, ["archive", "Archive"], ["archive_location", "Shelf mark"], place] },
}

export const askedOf = (kind: Kind): Asked => asked[kind] ?? plain

type Name = NonNullable<Source["names"][Role]>[number]

/** Names as they are typed: "Marlowe, Ida; Harbour Trust". */
export function namesText(names: readonly Name[] | undefined): string {
  return (names ?? [])
    .map(({ family, given, literal }) => literal ?? [family, given].filter(Boolean).join(", "))
    .join("; ")
}

/** The same the other way round: without a comma it is the name of a body, or of somebody with one name. */
export function namesFrom(text: string): Name[] {
  return text
    .split(";")
    .map((own) => own.trim())
    .filter((own) => own !== "")
    .slice(0, 200)
    .flatMap((own): Name[] => {
      const [family = "", ...others] = own.split(",").map((part) => part.trim())
      const given = others.filter((part) => part !== "").join(", ")
      if (family !== "" && given !== "") return [{ family, given }]
      return family !== "" || given !== "" ? [{ literal: family || given }] : []
    })
}
