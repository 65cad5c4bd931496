/** Lists of sources as files: CSL JSON, RIS and BibTeX. */
import { type sourceRoles, type Source, type Sources } from "../document"
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
  thesis: "phdthesis",
  "paper-conference": "inproceedings",
  manuscript: "unpublished",
}

/** Signs that BibTeX reads as its own. */
const bibtexText = (text: string) =>
  text.replace(/[\\{}$&#%_^~]/g, (sign) =>
    sign === "\\" ? "\\textbackslash{}" : sign === "^" || sign === "~" ? `\\${sign}{}` : `\\${sign}`,
  )

function bibtex(list: List): string {
  const used = new Set<string>()
  return Object.entries(list)
    .map(([key, source]) => {
      const { fields, kind } = source
      const people = (role: (typeof sourceRoles)[number]) =>
        namesIn(source, role)
          .map(({ family, given, literal }) =>
            literal !== undefined && family === undefined
              ? `{${bibtexText(literal)}}`
              : [family, given]
                  .filter((part) => part !== undefined)
                  .map(bibtexText)
                  .join(", "),
          )
          .join(" and ")
      const own = key.replace(/[^\p{L}\p{N}:_.-]/gu, "") || "source"
      let id = own
      for (let n = 2; used.has(id); n++) id = `${own}-${n}`
      used.add(id)
      const [date] = (dateParts(source.issued)?.["date-parts"] as number[][] | undefined) ?? []
      const kindOf = bibtexKinds[kind] ?? "misc"
      const container = kindOf === "article" ? "journal" : "booktitle"
      const publisher = kindOf === "techreport" ? "institution" : kindOf === "phdthesis" ? "school" : "publisher"
      const entries: [string, string | undefined][] = [
        ["author", people("author")],
        ["editor", people("editor")],
        ["title", fields.title && `{${bibtexText(fields.title)}}`],
        [container, fields["container-title"] && bibtexText(fields["container-title"])],
        ["year", date ? String(date[0]) : bibtexText(source.issued)],
        ["month", date?.[1] === undefined ? undefined : String(date[1])],
        [publisher, fields.publisher && bibtexText(fields.publisher)],
        ["address", fields["publisher-place"] && bibtexText(fields["publisher-place"])],
        ["edition", fields.edition && bibtexText(fields.edition)],
        ["volume", fields.volume && bibtexText(fields.volume)],
        ["number", fields.issue && bibtexText(fields.issue)],
        ["pages", fields.page?.replace(/[-–]+/g, "--")],
        ["url", fields.URL],
        ["doi", fields.DOI],
        ["isbn", fields.ISBN],
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
