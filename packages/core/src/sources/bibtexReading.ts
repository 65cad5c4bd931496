/// <reference path="./modules.d.ts" />
/** BibTeX as items of CSL JSON. */
import { plugins } from "@citation-js/core"
import "@citation-js/plugin-bibtex"
import { entryOf } from "../document"

/** So many letters a file of sources has at most, and so many are read where what entries share stands before each. */
export const largest = 20_000_000

/** BibTeX and what grew out of it, with more kinds and fields: what is read as that is read as BibTeX too. */
const bibtex = "@biblatex/text"

const chain = (text: string): unknown[] => {
  const read: unknown = plugins.input.chain(text, { forceType: bibtex, generateGraph: false })
  return Array.isArray(read) ? (read as unknown[]) : []
}

/** Entries one by one, so that one that is broken costs no other. */
function eachEntry(entries: readonly string[]): { items: unknown[]; lost: number } {
  let lost = 0
  const items = entries.flatMap((entry) => {
    try {
      return chain(entry)
    } catch {
      lost++
      return []
    }
  })
  return { items, lost }
}

/** The key of an entry that has none. */
export const unnamed = "unnamed"

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

/** The entries of a file, and how many could not be read. */
export function itemsOfBibtex(text: string): { items: unknown[]; lost: number } {
  const { entries, shared } = bibtexEntries(text)
  const told = ({ items, lost }: { items: unknown[]; lost: number }) => ({ items: items.map(inWords), lost })
  if (entries.length === 0) return { items: [], lost: 0 }
  try {
    return told({ items: chain(`${shared}${entries.map(readable).join("\n")}`), lost: 0 })
  } catch {
    const each = shared.length * entries.length < largest ? shared : ""
    return told(eachEntry(entries.map((entry) => each + readable(entry))))
  }
}
