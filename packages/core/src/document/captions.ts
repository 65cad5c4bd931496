/**
 * Captions: paragraphs with a field that counts those of its label ("Figure", "Table", one's own) in the order of the text. And
 * references: fields that show the number, the words or the sheet of a marked place, always as they are now; and those that tell of the enclosures.
 */
import type { Node } from "prosemirror-model"
import { citationsOf, citedIn, plainShown } from "./citations"
import { enclosureOf } from "./enclosures"
import { fieldAttrs, unknownValue, type FieldKind } from "./fields"
import { formulasOf, type Computed } from "./formulas"
import { headingsOf, type Heading } from "./headings"
import { changedInBody, leavesOf, leavesOfBody, onlyText, placesOf } from "./leaves"
import { bodyOf } from "./schema"

export interface Caption {
  leaf: number
  label: string
  number: number
  /** All that the paragraph says, with its number. */
  text: string
  field: Node
}

/** What hangs on what stands elsewhere in the body. */
const counted: ReadonlySet<string> = new Set<FieldKind>(["caption", "reference", "enclosure", "enclosures"])

/** Fields of those kinds in one paragraph. */
const fieldsIn = new WeakMap<Node, readonly Node[]>()
const none: readonly Node[] = []

function countedIn(leaf: Node): readonly Node[] {
  if (onlyText(leaf)) return none
  let found = fieldsIn.get(leaf)
  if (!found) {
    found = leaf.children.filter((child) => child.type.name === "field" && counted.has(fieldAttrs(child).kind))
    if (found.length === 0) found = none
    fieldsIn.set(leaf, found)
  }
  return found
}

interface Found {
  captions: readonly Caption[]
  /** References, by leaf. */
  references: readonly { leaf: number; field: Node }[]
  /** Names of the files that are enclosed, and the fields that tell of all of them, by leaf. */
  enclosed: readonly string[]
  tellings: readonly { leaf: number; field: Node }[]
}
const known = new WeakMap<Node, Found>()

function found(doc: Node): Found {
  const body = bodyOf(doc)
  const remembered = known.get(body)
  if (remembered) return remembered
  const own = stillThose(body, doc) ?? findAll(doc)
  known.set(body, own)
  latest = { doc: new WeakRef(doc), found: own }
  return own
}

/** What was asked for last: most changes touch neither a caption nor a reference. */
let latest: { doc: WeakRef<Node>; found: Found } | null = null

function stillThose(body: Node, doc: Node): Found | undefined {
  const older = latest?.doc.deref()
  if (!older || !latest || leavesOfBody(older) !== leavesOfBody(doc)) return undefined
  const change = older.child(0) === body ? null : changedInBody(older, doc)
  if (!change) return latest.found
  const plain = (own: Node, from: number, to: number) =>
    leavesOf(own)
      .between(from, to)
      .every((leaf) => countedIn(leaf) === none)
  return change.newTo === change.oldTo &&
    plain(older, change.from, change.oldTo) &&
    plain(doc, change.from, change.newTo)
    ? latest.found
    : undefined
}

function findAll(doc: Node): Found {
  const captions: Caption[] = []
  const references: { leaf: number; field: Node }[] = []
  const enclosed: string[] = []
  const tellings: { leaf: number; field: Node }[] = []
  const counts = new Map<string, number>()
  const { nodes } = leavesOf(doc)
  const count = leavesOfBody(doc)
  for (let leaf = 0; leaf < count; leaf++) {
    const node = nodes[leaf] as Node
    for (const field of countedIn(node)) {
      const { kind, format: label } = fieldAttrs(field)
      if (kind === "reference") references.push({ leaf, field })
      else if (kind === "enclosures") tellings.push({ leaf, field })
      else if (kind === "enclosure") enclosed.push(enclosureOf(label)?.name ?? unknownValue)
      else {
        const number = (counts.get(label) ?? 0) + 1
        counts.set(label, number)
        captions.push({ leaf, label, number, text: wordsOf(node, field, number), field })
      }
    }
  }
  return { captions, references, enclosed, tellings }
}

function wordsOf(paragraph: Node, field: Node, number: number): string {
  return paragraph.children
    .map((child) => (child === field ? String(number) : child.isText ? (child.text ?? "") : ""))
    .join("")
    .trim()
}

/** The captions of the body in order. */
export function captionsOf(doc: Node): readonly Caption[] {
  return found(doc).captions
}

/** Labels that captions have, each once, in the order of the text. */
export function captionLabels(doc: Node): string[] {
  return [...new Set(captionsOf(doc).map(({ label }) => label))]
}

const entries = new WeakMap<readonly Caption[], Map<string, readonly Heading[]>>()

/** Captions as entries of a list of contents; the same list as long as the captions are the same. */
export function captionEntries(doc: Node, label: string): readonly Heading[] {
  const captions = captionsOf(doc)
  let known = entries.get(captions)
  if (!known) entries.set(captions, (known = new Map()))
  let found = known.get(label)
  if (!found) {
    found = captions
      .filter((own) => own.label === label)
      .map(({ leaf, text }) => ({ leaf, level: 1, text, listed: text, label: null, skips: false, end: leaf + 1 }))
    known.set(label, found)
  }
  return found
}

const together = new WeakMap<readonly Caption[], { headings: readonly Heading[]; all: readonly { leaf: number }[] }>()

/**
 * All that lists of contents can lead to: the headings, and then the captions. Entries are told by their number among these. The
 * same list as long as both are the same.
 */
export function listedIn(doc: Node): readonly { leaf: number }[] {
  const [headings, captions] = [headingsOf(doc), captionsOf(doc)]
  if (captions.length === 0) return headings
  const known = together.get(captions)
  if (known?.headings === headings) return known.all
  const all = [...headings, ...captions]
  together.set(captions, { headings, all })
  return all
}

/** What a reference shows: the number, the words, or the sheet of a place. */
export const referenceParts = ["number", "words", "sheet"] as const
export type ReferencePart = (typeof referenceParts)[number]

export function referenceOf(format: string): { part: ReferencePart; place: string } {
  const [part = "", ...rest] = format.split(" ")
  const isPart = (own: string): own is ReferencePart => (referenceParts as readonly string[]).includes(own)
  return isPart(part) ? { part, place: rest.join(" ") } : { part: "words", place: format }
}

const listed = new WeakMap<readonly { leaf: number }[], ReadonlyMap<number, unknown>>()

/** What stands at a leaf, of a list that many ask. */
function atLeaf<T extends { leaf: number }>(list: readonly T[], leaf: number): T | undefined {
  let known = listed.get(list)
  // Of two in one paragraph the first counts.
  if (!known) listed.set(list, (known = new Map([...list].reverse().map((own) => [own.leaf, own]))))
  return known.get(leaf) as T | undefined
}

/** Shown where a place is gone. */
const gone = "what is no longer there"

function referenceValue(
  doc: Node,
  format: string,
  places: ReadonlyMap<string, number>,
  pages: ReadonlyMap<number, string>,
): string {
  const { part, place } = referenceOf(format)
  const leaf = places.get(place)
  if (leaf === undefined) return gone
  if (part === "sheet") return pages.get(leaf) ?? unknownValue
  const caption = atLeaf(captionsOf(doc), leaf)
  if (caption && part === "number") return `${caption.label} ${caption.number}`
  if (caption) return caption.text
  const heading = atLeaf(headingsOf(doc), leaf)
  if (part === "number" && heading?.label) return heading.label
  return (heading?.text ?? leavesOf(doc).node(leaf).textContent.trim()) || unknownValue
}

/** Leaves whose sheets are shown by references. */
export function sheetTargets(doc: Node): ReadonlySet<number> {
  const { references } = found(doc)
  const wanted = references.filter(({ field }) => referenceOf(fieldAttrs(field).format).part === "sheet")
  if (wanted.length === 0) return new Set()
  const places = placesOf(doc)
  return new Set(wanted.flatMap(({ field }) => places.get(referenceOf(fieldAttrs(field).format).place) ?? []))
}

/** For what does not know on which sheets anything begins. */
export const unknownPages: ReadonlyMap<number, string> = new Map()

/**
 * What fields show that is computed from the document: formulas, numbers of captions, references, citations; by leaf.
 * @param pages the numbers of sheets on which leaves begin, as far as they are known
 */
export function computedOf(doc: Node, pages: ReadonlyMap<number, string>): ReadonlyMap<number, Computed> {
  const formulas = formulasOf(doc)
  const { captions, references, enclosed, tellings } = found(doc)
  const citations = citationsOf(doc)
  if ([captions, references, tellings, citations].every((own) => own.length === 0)) return formulas
  const all = new Map(formulas)
  const put = (leaf: number, field: Node, shows: string) =>
    all.set(leaf, new Map([...(all.get(leaf) ?? []), [field, shows]]))
  for (const { leaf, field, number } of captions) put(leaf, field, String(number))
  const places = references.length > 0 ? placesOf(doc) : new Map<string, number>()
  for (const { leaf, field } of references)
    put(leaf, field, referenceValue(doc, fieldAttrs(field).format, places, pages))
  for (const { leaf, field } of tellings) {
    const names = [...new Set(enclosed)]
    put(leaf, field, fieldAttrs(field).format === "names" ? names.join(", ") || unknownValue : String(names.length))
  }
  if (citations.length > 0) {
    const { texts } = citedIn(doc)
    citations.forEach(({ leaf, field }, i) => put(leaf, field, texts[i] ?? unknownValue))
  }
  return all
}

/** The same by the fields themselves, in plain words: for what is written into files. */
export function shownByFields(doc: Node, pages = unknownPages): Map<Node, string> {
  return new Map(
    [...computedOf(doc, pages).values()].flatMap((own) =>
      [...own].map(([field, shown]) => [field, plainShown(shown)] as const),
    ),
  )
}
