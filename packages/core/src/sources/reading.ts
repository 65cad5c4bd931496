/// <reference path="./modules.d.ts" />
/** Lists of sources from files: BibTeX, RIS and CSL JSON. What is brought in is told by its content. */
import { plugins } from "@citation-js/core"
import "@citation-js/plugin-bibtex"
import "@citation-js/plugin-ris"
import { ReadingError } from "../document/reading"
import { Source as Shape } from "../document/shapes"
import { entryOf, type Source } from "../document"
import { sourceOf } from "./csl"

export interface BroughtSources {
  /** With the keys that the file has for them, where it has. */
  sources: readonly { key: string | null; source: Source }[]
  /** How many entries could not be read. */
  lost: number
}

/** So many letters a file of sources has at most. */
const largest = 20_000_000

const chain = (text: string, type: string): unknown[] => {
  const read: unknown = plugins.input.chain(text, { forceType: type, generateGraph: false })
  return Array.isArray(read) ? (read as unknown[]) : []
}

/** Entries one by one, so that one that is broken costs no other. */
function eachEntry(entries: readonly string[], type: string): { items: unknown[]; lost: number } {
  let lost = 0
  const items = entries.flatMap((entry) => {
    try {
      return chain(entry, type)
    } catch {
      lost++
      return []
    }
  })
  return { items, lost }
}

/** BibTeX and what grew out of it, with more kinds and fields: what is read as that is read as BibTeX too. */
const bibtex = "@biblatex/text"

/** The key of an entry that has none. */
const unnamed = "unnamed"

/** Names such as al-Farsi, of which the reader would lose the hyphen. */
const hyphened = /(?<=[\s{"])\p{Ll}{1,4}-\p{Lu}\p{L}*(?=[\s,}"])/gu

/** An entry with a key, and without what the reader does not know. */
function readable(entry: string): string {
  const named = entry.replace(/^(@\s*\w+\s*[{(])\s*,/, `$1${unnamed},`)
  const fields = named.indexOf(",")
  return (
    named.slice(0, fields) +
    named
      .slice(fields)
      .replace(/\\(aa|AA)(?![A-Za-z])(?:\{\}| +)?/g, (_, own: string) => (own === "aa" ? "å" : "Å"))
      .replace(/\\([~^])\{ *\}/g, (_, own: string) => `\\text${own === "~" ? "asciitilde" : "asciicircum"}{}`)
      .replace(hyphened, "{$&}")
  )
}

/** Entries of BibTeX, each from its sign to the brace that closes it; what they share, such as words for journals, stands before each. */
function bibtexEntries(text: string): { entries: string[]; shared: string } {
  const entries: string[] = []
  let shared = ""
  const begins = /@\s*(\w+)\s*[{(]/g
  const ahead = /\n[ \t]*@\s*\w+\s*[{(]/g
  for (let match = begins.exec(text); match; match = begins.exec(text)) {
    let depth = 1
    let at = begins.lastIndex
    // An entry that is not closed ends where the next one begins a line.
    ahead.lastIndex = at
    const end = ahead.exec(text)?.index ?? text.length
    for (; at < end && depth > 0; at++) {
      const sign = text[at]
      if (sign === "\\") at++
      else if (sign === "{" || sign === "(")
        depth += sign === "{" || text[match.index + match[0].length - 1] === "(" ? 1 : 0
      else if (sign === "}" || (sign === ")" && text[match.index + match[0].length - 1] === "(")) depth--
    }
    const entry = text.slice(match.index, at)
    const kind = match[1]?.toLowerCase()
    if (kind === "string") shared += `${entry}\n`
    else if (kind !== "comment" && kind !== "preamble") entries.push(entry)
    begins.lastIndex = Math.max(at, match.index + 1)
  }
  return { entries, shared }
}

/** What the reader of BibTeX puts for kinds that say more than ours do. */
const genresMeant: Readonly<Record<string, { genre?: string; type?: string }>> = {
  techreport: {},
  phdthesis: { genre: "PhD thesis" },
  mathesis: { genre: "Master’s thesis" },
  magazine: { type: "article-magazine" },
  newspaper: { type: "article-newspaper" },
}

function inWords(item: unknown): unknown {
  const { genre, ...others } = item as { genre?: unknown }
  const meant = typeof genre === "string" ? entryOf(genresMeant, genre) : undefined
  return meant ? { ...others, ...meant } : item
}

function itemsOf(text: string): { items: unknown[]; lost: number } {
  const start = text.replace(/^\ufeff/, "").trimStart()
  if (/^[[{]/.test(start)) {
    let json: unknown
    try {
      json = JSON.parse(start)
    } catch {
      throw new ReadingError("This list of sources is broken: its JSON does not end as it should")
    }
    return { items: Array.isArray(json) ? (json as unknown[]) : [json], lost: 0 }
  }
  if (/^TY {1,2}-/m.test(start))
    return eachEntry(
      start.split(/^(?=TY {1,2}-)/m).filter((entry) => entry.startsWith("TY")),
      "@ris/file",
    )
  const { entries, shared } = bibtexEntries(start)
  if (entries.length === 0) throw new ReadingError("This file holds no sources: neither BibTeX nor RIS nor CSL JSON")
  const told = ({ items, lost }: { items: unknown[]; lost: number }) => ({ items: items.map(inWords), lost })
  try {
    return told({ items: chain(`${shared}${entries.map(readable).join("\n")}`, bibtex), lost: 0 })
  } catch {
    const each = shared.length * entries.length < largest ? shared : ""
    return told(
      eachEntry(
        entries.map((entry) => each + readable(entry)),
        bibtex,
      ),
    )
  }
}

/**
 * The sources of a file.
 * @throws ReadingError for a file without sources
 */
export function readSources(text: string): BroughtSources {
  if (text.length > largest) throw new ReadingError("A list of sources has up to 20 million letters")
  const { items, lost } = itemsOf(text)
  const sources = items.flatMap((item) => {
    const read = Shape.safeParse(sourceOf(item))
    if (read.success && Object.keys(read.data.fields).length + Object.keys(read.data.names).length === 0) return []
    const key = (item as { id?: unknown } | null)?.id
    const known =
      typeof key === "string" && key.length > 0 && key.length <= 80 && !["__proto__", unnamed].includes(key)
        ? key
        : null
    return read.success ? [{ key: known, source: read.data }] : []
  })
  const all = lost + items.length - sources.length
  if (sources.length === 0) throw new ReadingError("None of the sources in this file could be read")
  return { sources, lost: all }
}
