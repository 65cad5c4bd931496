/** Sources as BibTeX. */
import { entryOf, type Source, type Sources } from "../document"
import { firstDate } from "./csl"

const kinds: Partial<Record<Source["kind"], string>> = {
  book: "book",
  chapter: "incollection",
  "article-journal": "article",
  "article-magazine": "article",
  "article-newspaper": "article",
  report: "techreport",
  "paper-conference": "inproceedings",
  manuscript: "unpublished",
  // Kinds of its successors, which older programs take for others.
  thesis: "thesis",
  webpage: "online",
  dataset: "dataset",
  legislation: "legislation",
  motion_picture: "movie",
  personal_communication: "letter",
}

const theses: Readonly<Record<string, string>> = { "PhD thesis": "phdthesis", "Master’s thesis": "mastersthesis" }
const papers: Partial<Record<Source["kind"], string>> = {
  "article-magazine": "magazine",
  "article-newspaper": "newspaper",
}

const manners = { i: "textit", b: "textbf", sup: "textsuperscript", sub: "textsubscript" } as const

/** Signs that BibTeX reads as its own, and the commands for those that have one. */
const signs: Readonly<Record<string, string>> = {
  "\\": "textbackslash",
  "^": "textasciicircum",
  "~": "textasciitilde",
}

/** Text, and words of it in another manner. */
const told = (text: string) =>
  text
    .replace(/[\\{}$&#%_^~]/g, (sign) => (signs[sign] ? `\\${signs[sign]}{}` : `\\${sign}`))
    // Two of these would be another sign.
    .replace(/([-'`])(?=\1)/g, "$1{}")
    .replace(
      /<(i|b|sup|sub)>([^<>]*)<\/\1>/g,
      (_, manner: keyof typeof manners, words: string) => `\\${manners[manner]}{${words}}`,
    )

/** A part of a name, which has no "and" and no comma but in braces. */
const partTold = (part: string) => (/,|\band\b/i.test(part) ? `{${told(part)}}` : told(part))

/** A family name; with more than letters in it, it is not to be taken apart either. */
const familyTold = (name: string) => (/[^\p{L}\p{M} .'’]/u.test(name) ? `{${told(name)}}` : partTold(name))

type Name = NonNullable<Source["names"][keyof Source["names"]]>[number]

function nameTold({ family, given, literal }: Name): string {
  if (!family || !given) return `{${told(family ?? literal ?? given ?? "")}}`
  // What follows a name, such as "Jr.", stands between the two.
  const [own, ...behind] = given.split(/, */)
  const others = [...behind, own].flatMap((part) => (part ? [partTold(part)] : []))
  return [familyTold(family), ...others].join(", ")
}

/** Addresses stand as they are, but for braces. */
const addressTold = (text: string | undefined) => text?.replace(/[{}]/g, encodeURIComponent)

/** What an entry says, in the words of the file. */
function entriesOf({ kind, names, fields, issued, accessed, remarks }: Source, entry: string): [string, string][] {
  const people = (role: keyof Source["names"]) => (names[role] ?? []).map(nameTold).join(" and ")
  const date = firstDate(issued)
  const text = (name: string, own: string | undefined): [string, string] => [name, told(own ?? "")]
  const plain = (name: string, own: string | undefined): [string, string] => [name, own ?? ""]
  const all = [
    plain("author", people("author")),
    plain("editor", people("editor")),
    plain("translator", people("translator")),
    plain("title", fields.title && `{${told(fields.title)}}`),
    text("shorttitle", fields["title-short"]),
    text(entry === "article" ? "journal" : "booktitle", fields["container-title"]),
    text("series", fields["collection-title"]),
    text("eventtitle", fields["event-title"]),
    text("year", date ? String(date[0]) : issued),
    text("month", date?.[1]?.toString()),
    // What a year and a month do not say.
    plain("date", date?.[2] !== undefined || (date && issued.includes("/")) ? issued : ""),
    text(kind === "report" ? "institution" : kind === "thesis" ? "school" : "publisher", fields.publisher),
    text("type", Object.values(theses).includes(entry) ? "" : fields.genre),
    plain("entrysubtype", papers[kind]),
    text("address", fields["publisher-place"]),
    text("edition", fields.edition),
    text("volume", fields.volume),
    text("number", fields.issue ?? fields.number),
    plain("pages", fields.page?.replace(/[-–]+/g, "--")),
    text("pagetotal", fields["number-of-pages"]),
    plain("url", addressTold(fields.URL)),
    plain("urldate", firstDate(accessed) ? accessed : ""),
    plain("doi", addressTold(fields.DOI)),
    text("isbn", fields.ISBN),
    text("issn", fields.ISSN),
    text("note", remarks),
  ]
  return all.filter(([, value]) => value)
}

/** Sources as the text of a file. */
export function bibtex(list: Sources["list"]): string {
  const used = new Set<string>()
  return Object.entries(list)
    .map(([key, source]) => {
      const own = key.replace(/[^\p{L}\p{N}:_.-]/gu, "") || "source"
      let id = own
      for (let n = 2; used.has(id); n++) id = `${own}-${n}`
      used.add(id)
      const { kind, fields } = source
      const entry = (kind === "thesis" ? entryOf(theses, fields.genre ?? "") : undefined) ?? kinds[kind] ?? "misc"
      const lines = entriesOf(source, entry).map(([name, value]) => `  ${name} = {${value}}`)
      return `@${entry}{${id},\n${lines.join(",\n")}\n}\n`
    })
    .join("\n")
}
