/** Lists of sources as files: CSL JSON, RIS and BibTeX. */
import { entryOf, type sourceRoles, type Source, type Sources } from "../document"
import { dateParts, itemOf } from "./csl"

export type SourcesFormat = "csl" | "ris" | "bibtex"
type List = Sources["list"]

const namesIn = ({ names }: Source, role: (typeof sourceRoles)[number]) => names[role] ?? []

const risKinds: Partial<Record<Source["kind"], string>> = {
  book: "BOOK",
  chapter: "CHAP",
  "article-journal": "JOUR",
  "article-magazine": "MGZN",
  "article-newspaper": "NEWS",
  webpage: "ELEC",
  report: "RPRT",
  thesis: "THES",
  "paper-conference": "CPAPER",
  "entry-encyclopedia": "ENCYC",
  legislation: "STAT",
  legal_case: "CASE",
  motion_picture: "MPCT",
  broadcast: "VIDEO",
  personal_communication: "PCOMM",
  dataset: "DATA",
  manuscript: "UNPB",
}

function ris(list: List): string {
  return Object.entries(list)
    .map(([key, source]) => {
      const { fields, kind } = source
      const lines: [string, string | undefined][] = [
        ["TY", risKinds[kind] ?? "GEN"],
        ["ID", key],
      ]
      const named = (tag: string, role: (typeof sourceRoles)[number]) => {
        for (const { family, given, literal } of namesIn(source, role))
          lines.push([tag, [family ?? literal ?? "", given ?? ""].filter(Boolean).join(", ")])
      }
      named("AU", "author")
      named("ED", "editor")
      named("A4", "translator")
      const [date] = (dateParts(source.issued)?.["date-parts"] as number[][] | undefined) ?? []
      const [first = "", last] = (fields.page ?? "").split(/[-–]/)
      lines.push(
        ["TI", fields.title],
        [kind === "article-journal" ? "JO" : "T2", fields["container-title"]],
        ["PY", date ? String(date[0]) : source.issued],
        [
          "DA",
          date && date.length > 1
            ? date.map((part, i) => String(part).padStart(i === 0 ? 4 : 2, "0")).join("/")
            : undefined,
        ],
        ["PB", fields.publisher],
        ["CY", fields["publisher-place"]],
        ["ET", fields.edition],
        ["VL", fields.volume],
        ["IS", fields.issue],
        ["SP", first],
        ["EP", last],
        ["UR", fields.URL],
        ["DO", fields.DOI],
        ["SN", fields.ISBN ?? fields.ISSN],
        ["N1", source.remarks],
      )
      const told = lines
        .filter(([, value]) => value)
        .map(([tag, value]) => `${tag}  - ${(value as string).replace(/\s+/g, " ")}`)
      return [...told, "ER  - ", ""].join("\r\n")
    })
    .join("\r\n")
}

const bibtexKinds: Partial<Record<Source["kind"], string>> = {
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

const bibtexTheses: Readonly<Record<string, string>> = { "PhD thesis": "phdthesis", "Master’s thesis": "mastersthesis" }
const bibtexPapers: Partial<Record<Source["kind"], string>> = {
  "article-magazine": "magazine",
  "article-newspaper": "newspaper",
}

const bibtexManners = { i: "textit", b: "textbf", sup: "textsuperscript", sub: "textsubscript" } as const

/** Signs that BibTeX reads as its own, and the commands for those that have one. */
const bibtexSigns: Readonly<Record<string, string>> = {
  "\\": "textbackslash",
  "^": "textasciicircum",
  "~": "textasciitilde",
}

/** Text, and words of it in another manner. */
const bibtexText = (text: string) =>
  text
    .replace(/[\\{}$&#%_^~]/g, (sign) => (bibtexSigns[sign] ? `\\${bibtexSigns[sign]}{}` : `\\${sign}`))
    // Two of these would be another sign.
    .replace(/([-'`])(?=\1)/g, "$1{}")
    .replace(
      /<(i|b|sup|sub)>([^<>]*)<\/\1>/g,
      (_, manner: keyof typeof bibtexManners, words: string) => `\\${bibtexManners[manner]}{${words}}`,
    )

/** A part of a name, which has no "and" and no comma but in braces. */
const bibtexPart = (part: string) => (/,|\band\b/i.test(part) ? `{${bibtexText(part)}}` : bibtexText(part))

/** A family name; with more than letters in it, it is not to be taken apart either. */
const bibtexFamily = (name: string) => (/[^\p{L}\p{M} .'’]/u.test(name) ? `{${bibtexText(name)}}` : bibtexPart(name))

type Name = NonNullable<Source["names"][(typeof sourceRoles)[number]]>[number]

function bibtexName({ family, given, literal }: Name): string {
  if (!family || !given) return `{${bibtexText(family ?? literal ?? given ?? "")}}`
  // What follows a name, such as "Jr.", stands between the two.
  const [own, ...behind] = given.split(/, */)
  const others = [...behind, own].flatMap((part) => (part ? [bibtexPart(part)] : []))
  return [bibtexFamily(family), ...others].join(", ")
}

/** Addresses stand as they are, but for braces. */
const bibtexAddress = (text: string | undefined) => text?.replace(/[{}]/g, encodeURIComponent)

function bibtex(list: List): string {
  const used = new Set<string>()
  return Object.entries(list)
    .map(([key, source]) => {
      const { fields, kind } = source
      const people = (role: (typeof sourceRoles)[number]) => namesIn(source, role).map(bibtexName).join(" and ")
      const own = key.replace(/[^\p{L}\p{N}:_.-]/gu, "") || "source"
      let id = own
      for (let n = 2; used.has(id); n++) id = `${own}-${n}`
      used.add(id)
      const [date] = (dateParts(source.issued)?.["date-parts"] as number[][] | undefined) ?? []
      const genre = fields.genre ?? ""
      const thesis = kind === "thesis" ? entryOf(bibtexTheses, genre) : undefined
      const kindOf = thesis ?? bibtexKinds[kind] ?? "misc"
      const container = kindOf === "article" ? "journal" : "booktitle"
      const publisher = kindOf === "techreport" ? "institution" : kind === "thesis" ? "school" : "publisher"
      const entries: [string, string | undefined][] = [
        ["author", people("author")],
        ["editor", people("editor")],
        ["translator", people("translator")],
        ["title", fields.title && `{${bibtexText(fields.title)}}`],
        [container, fields["container-title"] && bibtexText(fields["container-title"])],
        ["year", date ? String(date[0]) : bibtexText(source.issued)],
        ["month", date?.[1] === undefined ? undefined : String(date[1])],
        // What a year and a month do not say.
        ["date", date?.[2] !== undefined || (date && source.issued.includes("/")) ? source.issued : undefined],
        [publisher, fields.publisher && bibtexText(fields.publisher)],
        ["type", thesis ? undefined : bibtexText(genre)],
        ["entrysubtype", bibtexPapers[kind]],
        ["address", fields["publisher-place"] && bibtexText(fields["publisher-place"])],
        ["edition", fields.edition && bibtexText(fields.edition)],
        ["volume", fields.volume && bibtexText(fields.volume)],
        ["number", fields.issue && bibtexText(fields.issue)],
        ["pages", fields.page?.replace(/[-–]+/g, "--")],
        ["url", bibtexAddress(fields.URL)],
        ["urldate", dateParts(source.accessed)?.["date-parts"] ? source.accessed : undefined],
        ["doi", bibtexAddress(fields.DOI)],
        ["isbn", fields.ISBN],
        ["issn", fields.ISSN],
        ["note", source.remarks && bibtexText(source.remarks)],
      ]
      const told = entries.filter(([, value]) => value).map(([name, value]) => `  ${name} = {${value}}`)
      return `@${kindOf}{${id},\n${told.join(",\n")}\n}\n`
    })
    .join("\n")
}

/** The sources of a document as a file. */
export function writeSources(list: List, format: SourcesFormat): string {
  if (format === "ris") return ris(list)
  if (format === "bibtex") return bibtex(list)
  return `${JSON.stringify(
    Object.entries(list).map(([key, source]) => ({
      ...itemOf(key, source),
      ...(source.remarks ? { note: source.remarks } : {}),
    })),
    null,
    2,
  )}\n`
}
