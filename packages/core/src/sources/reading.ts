/** Lists of sources from files: BibTeX, RIS and CSL JSON. What is brought in is told by its content. */
import { ReadingError } from "../document/reading"
import { Source as Shape } from "../document/shapes"
import type { Source } from "../document"
import { itemsOfBibtex, largest, unnamed } from "./bibtexReading"
import { sourceOf } from "./csl"
import { itemsOfRis } from "./ris"

export interface BroughtSources {
  /** With the keys that the file has for them, where it has. */
  sources: readonly { key: string | null; source: Source }[]
  /** How many entries could not be read. */
  lost: number
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
  if (/^TY {1,2}-/m.test(start)) return { items: itemsOfRis(start), lost: 0 }
  const read = itemsOfBibtex(start)
  if (read.items.length + read.lost === 0)
    throw new ReadingError("This file holds no sources: neither BibTeX nor RIS nor CSL JSON")
  return read
}

/**
 * The sources of a file.
 * @throws ReadingError for a file without sources
 */
export function readSources(text: string): BroughtSources {
  if (text.length > largest) throw new ReadingError("A list of sources has up to 20 million letters")
  const { items, lost } = itemsOf(text)
  const sources = items.flatMap((item) => {
    const own = sourceOf(item)
    if (!own || Object.keys(own.fields).length + Object.keys(own.names).length === 0) return []
    const read = Shape.safeParse(own)
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
