/** The sources of a document whole, in CSL JSON, for what a format has no place for. */
import { defaultSources, limits, type Source, type Sources } from "../document"
import { citationStyles, itemOf, sourceOf } from "../sources"

/** All that `sourcesKept` needs to have them again. */
export function keptSources({ style, own, list }: Sources): string {
  const items = Object.entries(list).map(([key, source]) => ({
    ...itemOf(key, source),
    ...(source.remarks ? { note: source.remarks } : {}),
    ...(source.quotations.length > 0 ? { quotations: source.quotations } : {}),
  }))
  return JSON.stringify({ style, own, items })
}

interface OwnPart {
  style?: unknown
  own?: unknown
  items?: unknown
}

function ownPart(text: string): OwnPart {
  try {
    const json: unknown = JSON.parse(text)
    return typeof json === "object" && json !== null ? json : {}
  } catch {
    return {}
  }
}

function quotationsFrom(json: unknown): Source["quotations"] {
  if (!Array.isArray(json)) return []
  return (json as { words?: unknown; page?: unknown }[])
    .slice(0, limits.source.quotations)
    .flatMap((own) =>
      typeof own?.words === "string" && own.words !== "" && own.words.length <= limits.source.remarks
        ? [{ words: own.words, page: typeof own.page === "string" ? own.page.slice(0, limits.source.field) : "" }]
        : [],
    )
}

/** The style that somebody added, from our own part. */
function addedStyle(json: unknown): Sources["own"] {
  if (typeof json !== "object" || json === null) return null
  const { name, notes, xml: text } = json as Record<string, unknown>
  return typeof name === "string" &&
    name !== "" &&
    name.length <= limits.name &&
    typeof text === "string" &&
    text.length <= limits.source.style
    ? { name, notes: notes === true, xml: text }
    : null
}

/** What was kept so; what is no source in it is left out. */
export function sourcesKept(text: string): Sources {
  const { style, own: added, items } = ownPart(text)
  const list: Record<string, Source> = {}
  for (const item of Array.isArray(items) ? (items as Record<string, unknown>[]) : []) {
    const source = sourceOf(item)
    const key = typeof item?.id === "string" ? item.id : ""
    if (source && key !== "" && key.length <= limits.name && key !== "__proto__")
      list[key] = { ...source, quotations: quotationsFrom(item.quotations) }
  }
  const own = addedStyle(added)
  const known =
    typeof style === "string" && (citationStyles.some(({ id }) => id === style) || (style === "own" && own !== null))
  return { style: known ? style : defaultSources.style, own, list }
}
