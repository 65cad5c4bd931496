/**
 * Citations and lists of references by citeproc-js (https://citationstyles.org, CSL 1.0.2). Its program and its files are handed in,
 * so that they are loaded where and when somebody cites.
 */
import { entryOf, shownSigns, type CitationItem, type Cited, type Citer, type Sources } from "../document"
import { itemOf } from "./csl"
import { citationLocale } from "./styles"

interface Engine {
  rebuildProcessorState(citations: unknown[], format: "html", uncited: string[]): [string, number, string][]
  updateItems(ids: string[]): void
  updateUncitedItems(ids: string[]): void
  makeCitationCluster(items: unknown[]): string
  makeBibliography(): false | [{ entry_ids: string[][] }, string[]]
}

export interface Citeproc {
  Engine: new (system: object, style: string, language: string, force?: boolean) => Engine
}

export interface CitingFiles {
  /** The text of a style, and of the words of a language, by their names; undefined where there is none. */
  style(id: string): string | undefined
  locale(id: string): string | undefined
}

const entities: Readonly<Record<string, string>> = {
  "&#38;": "&",
  "&amp;": "&",
  "&lt;": "<",
  "&gt;": ">",
  "&quot;": '"',
  "&#60;": "<",
  "&#62;": ">",
  "&nbsp;": "\u00a0",
}

/** What citeproc writes as HTML, as what a citation shows. */
export function shownOf(html: string): string {
  const [italic, raised] = [shownSigns.italic, shownSigns.raised]
  return html
    .replace(/[\ue000-\ue003]/g, "")
    .replace(
      /<div class="csl-left-margin">([\s\S]*?)<\/div>\s*<div class="csl-right-inline">/g,
      (_all, mark: string) => `${mark.trim()}\t`,
    )
    .replace(/<i>/g, italic[0])
    .replace(/<\/i>/g, italic[1])
    .replace(/<sup>/g, raised[0])
    .replace(/<\/sup>/g, raised[1])
    .replace(/<[^>]*>/g, "")
    .replace(/&(?:#\d+|\w+);/g, (own) => entryOf(entities, own) ?? own)
    .replace(/[\n\r]+/g, " ")
    .trim()
}

/** Words for places in a source, by the labels of the Citation Style Language. */
const labels: readonly (readonly [RegExp, string])[] = [
  [/^(?:pages?|pp?\.?)\s+(?=\S)/i, "page"],
  [/^(?:chapters?|ch\.|chap\.)\s*/i, "chapter"],
  [/^(?:sections?|sec\.|§+)\s*/i, "section"],
  [/^(?:paragraphs?|para\.|¶+)\s*/i, "paragraph"],
  [/^(?:volumes?|vol\.)\s*/i, "volume"],
  [/^(?:lines?|l\.)\s+/i, "line"],
  [/^(?:figures?|fig\.)\s*/i, "figure"],
  [/^(?:verses?|v\.)\s+/i, "verse"],
  [/^(?:notes?|n\.)\s+/i, "note"],
]

/** A place in a source, by its label. */
export function locatorOf(at: string): { label: string; locator: string } {
  for (const [pattern, label] of labels) {
    const locator = at.replace(pattern, "")
    if (locator !== at && locator !== "") return { label, locator }
  }
  return { label: "page", locator: at }
}

/** A prefix is divided from what follows by a blank, a suffix from what is before it. */
const spaced = (text: string, side: "before" | "after") =>
  side === "before" ? (/\s$/.test(text) ? text : `${text} `) : /^[\s,;.]/.test(text) ? text : ` ${text}`

function citeprocItem({ source, at, before, after, bare }: CitationItem) {
  return {
    id: source,
    ...(at ? locatorOf(at) : {}),
    ...(before ? { prefix: spaced(before, "before") } : {}),
    ...(after ? { suffix: spaced(after, "after") } : {}),
    ...(bare ? { "suppress-author": true } : {}),
  }
}

/** Whether a style asks where a citation stands: whether it is the first of its source, or follows another of it. */
const asksPosition = /<style[^>]*\sclass="note"|\sposition="/

function referencesBy(engine: Engine): Cited["references"] {
  let list: ReturnType<Engine["makeBibliography"]>
  try {
    list = engine.makeBibliography()
  } catch {
    // A style that was added may be wrong here alone.
    return []
  }
  return list ? list[1].map((html, i) => ({ source: list[0].entry_ids[i]?.[0] ?? "", text: shownOf(html) })) : []
}

/** Shown for a source that is no longer in the list. */
const gone = "(source missing)"

/** @returns what makes citations, by files that are read when they are needed */
export function createCiter({ Engine }: Citeproc, files: CitingFiles): Citer {
  const styleOf = (sources: Sources): string => {
    const style = sources.style === "own" && sources.own ? sources.own.xml : files.style(sources.style)
    if (style === undefined) throw new Error(`There is no style of citation ${sources.style}`)
    return style
  }
  const engineFor = (sources: Sources, style: string, language: string): Engine => {
    const system = {
      retrieveItem: (id: string) => itemOf(id, entryOf(sources.list, id) as Sources["list"][string]),
      retrieveLocale: (name: string) => files.locale(name) ?? files.locale(citationLocale(name)) ?? "",
    }
    return new Engine(system, style, citationLocale(language), true)
  }
  const cite: Citer = (sources, citations, language): Cited => {
    const style = styleOf(sources)
    const engine = engineFor(sources, style, language)
    const known = citations.map(({ items }) =>
      items.filter(({ source }) => entryOf(sources.list, source) !== undefined),
    )
    const cited = known.flatMap((items, i) => (items.length > 0 ? [i] : []))
    const itemsOf = (i: number) => (known[i] as CitationItem[]).map(citeprocItem)
    let shown: Map<number, string>
    if (asksPosition.test(style)) {
      const all = cited.map((i) => ({
        citationID: String(i),
        citationItems: itemsOf(i),
        properties: { noteIndex: citations[i]?.note ?? 0 },
      }))
      shown = new Map(engine.rebuildProcessorState(all, "html", []).map(([id, , html]) => [Number(id), shownOf(html)]))
    } else {
      // Where no citation hangs on those before it, each is made alone, which takes half as long.
      engine.updateItems([...new Set(cited.flatMap((i) => itemsOf(i).map(({ id }) => id)))])
      shown = new Map(cited.map((i) => [i, shownOf(engine.makeCitationCluster(itemsOf(i)))]))
    }
    // Before anything is cited, the list shows what could be.
    if (cited.length === 0) engine.updateUncitedItems(Object.keys(sources.list))
    let references: Cited["references"] | undefined
    return {
      texts: citations.map(({ items }, i) => {
        const lost = (known[i] as CitationItem[]).length < items.length || items.length === 0
        return [shown.get(i) ?? "", lost ? gone : ""].filter(Boolean).join(" ")
      }),
      // Most documents that cite list their references, but not while they are begun.
      get references() {
        return (references ??= referencesBy(engine))
      },
    }
  }
  return (sources, citations, language) => {
    try {
      return cite(sources, citations, language)
    } catch (error) {
      // A style that was added may be wrong in ways that show only now.
      const words = `(citation: ${error instanceof Error ? error.message.slice(0, 80) : "the style does not work"})`
      return { texts: citations.map(() => words), references: [] }
    }
  }
}
