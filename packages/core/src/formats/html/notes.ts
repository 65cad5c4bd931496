/** Notes of a page: texts at its foot that links in its text lead to, as their roles say (WAI-ARIA for digital publishing, EPUB) or their place among such. */
import type { DefaultTreeAdapterTypes } from "parse5"
import { attribute, type Element } from "./elements"

type Any = DefaultTreeAdapterTypes.Node

export interface PageNotes {
  /** The notes that something leads to, by their ids. */
  readonly targets: ReadonlyMap<string, Element>
  /** What stands for them alone: the notes, what holds only such, and lines before that. */
  readonly apart: ReadonlySet<Element>
  /** Ids of the marks that lead to them. */
  readonly marks: ReadonlySet<string>
}

/** More notes are left as text. */
const most = 50_000

const says = (element: Element, pattern: RegExp) =>
  ["role", "epub:type", "class"].some((name) => pattern.test(attribute(element, name) ?? ""))
const isNote = (element: Element) =>
  says(element, /(?:^|\s)(?:doc-footnote|doc-endnote|footnote|endnote|rearnote|footnote-item)(?:\s|$)/)
const holdsNotes = (element: Element) => says(element, /(?:^|\s)(?:doc-endnotes|footnotes|endnotes|rearnotes)(?:\s|$)/)

/** As it is meant: what is written down may be encoded or not. */
function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

/** What an address inside the page leads to; null for another one. */
export function placeIn(element: Element): string | null {
  const address = element.tagName === "a" ? attribute(element, "href") : undefined
  return address?.startsWith("#") ? decoded(address.slice(1)) : null
}

/** Ids as links say them. */
function idOf(element: Element): string | undefined {
  const id = attribute(element, "id")
  return id === undefined ? undefined : decoded(id)
}

interface Standing {
  node: Any
  /** Whether it stands among notes, and the note that it stands in. */
  among: boolean
  note: Element | null
  /** The element before it. */
  before: Element | null
}

/** All elements in the order of the page. */
function* elementsIn(roots: readonly Any[]): Generator<{ element: Element } & Omit<Standing, "node">> {
  const waiting = inside(roots, false, null)
  for (let own = waiting.pop(); own; own = waiting.pop()) {
    if (!("tagName" in own.node)) continue
    const element = own.node as Element
    const among = own.among || holdsNotes(element)
    const note = own.note ?? (isNote(element) || (own.among && element.tagName === "li") ? element : null)
    yield { element, among, note, before: own.before }
    for (const child of inside(element.childNodes, among, note)) waiting.push(child)
  }
}

/** What stands in something, the last first. */
function inside(children: readonly Any[], among: boolean, note: Element | null): Standing[] {
  let before: Element | null = null
  const all = children.map((node): Standing => {
    const own = { node, among, note, before }
    if ("tagName" in node) before = node as Element
    return own
  })
  return all.reverse()
}

/** Whether there is nothing in an element but what stands apart. */
function isEmptyBut(element: Element, apart: ReadonlySet<Element>): boolean {
  return element.childNodes.every(
    (child) =>
      child.nodeName === "#comment" ||
      (child.nodeName === "#text" && (child as DefaultTreeAdapterTypes.TextNode).value.trim() === "") ||
      ("tagName" in child &&
        (apart.has(child as Element) || (child as Element).tagName === "hr" || isEmptyList(child as Element, apart))),
  )
}
const isEmptyList = (element: Element, apart: ReadonlySet<Element>) =>
  (element.tagName === "ol" || element.tagName === "ul") &&
  element.childNodes.every((child) => !("tagName" in child) || apart.has(child as Element))

/** @returns null where a page has none */
export function notesIn(roots: readonly Any[]): PageNotes | null {
  const notes = new Map<string, Element>()
  const holders: { holder: Element; before: Element | null }[] = []
  for (const { element, note, before } of elementsIn(roots)) {
    if (holdsNotes(element)) holders.push({ holder: element, before })
    const id = element === note ? idOf(element) : undefined
    if (id && notes.size < most && !notes.has(id)) notes.set(id, element)
  }
  if (notes.size === 0) return null
  const targets = new Map<string, Element>()
  const marks = new Set<string>()
  for (const { element, note } of elementsIn(roots)) {
    const place = note === null ? placeIn(element) : null
    const target = place === null ? undefined : notes.get(place)
    if (place === null || !target) continue
    targets.set(place, target)
    const above = element.parentNode as Element | null
    for (const id of [idOf(element), above && "attrs" in above ? idOf(above) : undefined]) if (id) marks.add(id)
  }
  const apart = new Set(targets.values())
  for (const { holder, before } of holders) {
    if (!isEmptyBut(holder, apart)) continue
    apart.add(holder)
    if (before?.tagName === "hr") apart.add(before)
  }
  return { targets, apart, marks }
}
