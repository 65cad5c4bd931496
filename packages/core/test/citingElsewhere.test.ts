/** Citations and lists of references against those of an independent program that reads the same styles. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import {
  citationFormat,
  citedIn,
  defaultSources,
  document,
  nodes,
  p,
  plainShown,
  type CitationItem,
  type Source,
} from "../src/document"
import { citationStyles, itemOf } from "../src/sources"
import { prepareCiting } from "../node/typesetting"

const one = (
  kind: Source["kind"],
  names: Source["names"],
  fields: Source["fields"],
  issued: string,
  accessed = "",
) => ({
  kind,
  names,
  fields,
  issued,
  accessed,
  remarks: "",
  quotations: [],
})
const name = (family: string, given: string) => ({ family, given })
const list: Record<string, Source> = {
  book: one(
    "book",
    { author: [name("Marlowe", "Ida")] },
    { title: "Ferries of the Saltmarsh", publisher: "Estuary Press", "publisher-place": "Saltmarsh", edition: "2" },
    "2019",
  ),
  article: one(
    "article-journal",
    { author: [name("Caddow", "Nell"), name("Sandry", "Wilf")] },
    {
      title: "Chain and tide",
      "container-title": "Journal of Small Crossings",
      volume: "12",
      issue: "3",
      page: "45-67",
      DOI: "10.5555/chain",
    },
    "2021-05",
  ),
  chapter: one(
    "chapter",
    { author: [name("Pengelly", "Ruth")], editor: [name("Marlowe", "Ida")] },
    {
      title: "Night bells",
      "container-title": "Sounds of the estuary",
      publisher: "Toll House",
      "publisher-place": "Fenwick",
      page: "101-119",
    },
    "2015",
  ),
  later: one("book", { author: [name("Marlowe", "Ida")] }, { title: "Ropes", publisher: "Estuary Press" }, "2019"),
  many: one(
    "article-journal",
    { author: ["Abel", "Burr", "Crane", "Dove", "Eames", "Finch", "Gale"].map((own) => name(own, "Jo Lee")) },
    { title: "Seven hands on a chain", "container-title": "Tidal Letters", volume: "3", page: "7-9" },
    "2008",
  ),
}

const cited: Partial<CitationItem>[][] = [
  [{ source: "book" }],
  [{ source: "article", at: "47" }],
  [{ source: "chapter" }, { source: "later" }],
  [{ source: "many", before: "see" }],
  [{ source: "many", at: "8" }],
]

/** As words with single blanks, since each program divides numbers from entries in its own way; and a note may begin with a capital. */
const plain = (text: string) => text.replace(/\s+/g, " ").replace(/^see /, "See ").trim()

/** What stands above the line is told by signs of its own. */
const lowered = (text: string) =>
  text.replace(/\^\(([^)]*\)?)\)/g, "$1").replace(/[¹²³⁰-⁹]/g, (digit) => digit.normalize("NFKC"))

/** The same by the other program: it tells notes behind the list of references, each with its number. */
function elsewhere(style: string): { texts: string[]; references: string[] } {
  const folder = mkdtempSync(join(tmpdir(), "biblon-citing-"))
  const [items, text] = [join(folder, "items.json"), join(folder, "text.md")]
  writeFileSync(items, JSON.stringify(Object.entries(list).map(([id, source]) => itemOf(id, source))))
  const written = cited.map((own) =>
    own.map(({ source, at, before }) => `${before ? `${before} ` : ""}@${source}${at ? `, p. ${at}` : ""}`).join("; "),
  )
  writeFileSync(
    text,
    `---\nlang: en-GB\n---\n\n${written.map((own) => `Cited[${own}]`).join("\n\n")}\n\n# References\n`,
  )
  const styles = join(__dirname, "../citing/styles", `${style}.csl`)
  const out = execFileSync(
    "pandoc",
    ["--citeproc", "--csl", styles, "--bibliography", items, "-t", "plain", "--wrap=none", text],
    { encoding: "utf8" },
  )
  const parts = out
    .split("\n\n")
    .map(plain)
    .filter((part) => part !== "")
  const heading = parts.indexOf("References")
  const shown = parts.slice(0, heading).map((part) => plain(lowered(part.replace(/^Cited/, ""))))
  const behind = parts.slice(heading + 1)
  const isNoted = citationStyles.some(({ id, notes }) => id === style && notes)
  if (!isNoted) return { texts: shown, references: behind }
  return {
    texts: behind.slice(-cited.length).map((note) => note.replace(/^\[\d+\] /, "")),
    references: behind.slice(0, -cited.length),
  }
}

test.each(citationStyles.map(({ id }) => id))(
  "%s: citations and references are those of the other program",
  (style) => {
    const fields = cited.map((items) =>
      nodes.field.create({ kind: "citation", format: citationFormat(items as CitationItem[]) }),
    )
    const doc = document(
      fields.map((field) => p("x", field)),
      { sources: { ...defaultSources, list, style } },
    )
    prepareCiting(doc)
    const { texts, references } = citedIn(doc)
    expect({
      texts: texts.map((own) => plain(plainShown(own))),
      references: references.map(({ text }) => plain(plainShown(text))),
    }).toEqual(elsewhere(style))
  },
)
