/**
 * Citations: fields that name sources of the document. What they show, and the list of references, is made by a citer that is set
 * where it is needed (sources/citer.ts): a style may ask for all citations at once, so all are made together and remembered.
 */
import type { Node } from "prosemirror-model"
import { childrenThat } from "./children"
import { bodyOf, documentAttrs } from "./schema"
import { fieldAttrs } from "./fields"
import { isLeaf, leavesOf, leavesOfBody, onlyText, structuresOf } from "./leaves"
import type { Sources } from "./shapes"

/** One of the sources of a citation. */
export interface CitationItem {
  /** Key in the document's list. */
  source: string
  /** Where in it: a page, or with a word before it something else, as "ch. 3". */
  at?: string
  /** Words before and after it. */
  before?: string
  after?: string
  /** Whether its author is left out, who is named in the sentence. */
  bare?: boolean
}

/** An item without the parts that say nothing. */
export function citationItem({ source, at, before, after, bare }: CitationItem): CitationItem {
  return {
    source,
    ...(at ? { at } : {}),
    ...(before ? { before } : {}),
    ...(after ? { after } : {}),
    ...(bare ? { bare } : {}),
  }
}

export function citationFormat(items: readonly CitationItem[]): string {
  return JSON.stringify(items.map(citationItem))
}

/** The sources of a citation; none where that cannot be read. */
export function citationItems(format: string): CitationItem[] {
  let json: unknown
  try {
    json = JSON.parse(format)
  } catch {
    return []
  }
  if (!Array.isArray(json)) return []
  const text = (value: unknown) => (typeof value === "string" ? value : "")
  return json.flatMap((own: unknown): CitationItem[] => {
    const item = (typeof own === "object" && own !== null ? own : {}) as Record<string, unknown>
    const [source, at, before, after] = [text(item.source), text(item.at), text(item.before), text(item.after)]
    return source === "" ? [] : [citationItem({ source, at, before, after, bare: item.bare === true })]
  })
}

export interface Citation {
  leaf: number
  field: Node
  /** The number of the note that it stands in, from 1; 0 in the text itself. */
  note: number
}

const inLeaf = new WeakMap<Node, readonly Node[]>()
const none: readonly Node[] = []

/** Citations and anchors of a paragraph, in their order. */
function citingIn(leaf: Node): readonly Node[] {
  if (onlyText(leaf)) return none
  let found = inLeaf.get(leaf)
  if (!found) {
    found = leaf.children.filter(
      (child) => child.type.name === "anchor" || (child.type.name === "field" && fieldAttrs(child).kind === "citation"),
    )
    inLeaf.set(leaf, found)
  }
  return found
}

const known = new WeakMap<Node, readonly Citation[]>()
const noCitations: readonly Citation[] = []

/** Whether a citation stands somewhere in a node. */
function holdsCitation(node: Node): boolean {
  return isLeaf(node) ? citingIn(node).some(({ type }) => type.name === "field") : childrenThatCite(node).length > 0
}
const childrenThatCite = childrenThat(holdsCitation)

/** The citations of a document as one reads: what stands in a note comes where its mark stands. */
export function citationsOf(doc: Node): readonly Citation[] {
  const before = known.get(doc)
  if (before) return before
  if (!holdsCitation(doc)) return noCitations
  const leaves = leavesOf(doc)
  const count = leavesOfBody(doc)
  const inStories = new Map<string, { leaf: number; field: Node }[]>()
  for (let leaf = count; leaf < leaves.count; leaf++) {
    const { story } = leaves.flow(leaf)
    for (const field of citingIn(leaves.node(leaf)))
      if (story !== null && field.type.name === "field")
        inStories.set(story, [...(inStories.get(story) ?? []), { leaf, field }])
  }
  const found: Citation[] = []
  let note = 0
  leaves.between(0, count).forEach((node, leaf) => {
    for (const own of citingIn(node)) {
      if (own.type.name === "field") found.push({ leaf, field: own, note: 0 })
      else {
        note++
        for (const inside of inStories.get(own.attrs.story as string) ?? []) found.push({ ...inside, note })
      }
    }
  })
  known.set(doc, found)
  return found
}

/** What citations of a document show. Words in italics and raised ones stand between signs: see `stretchesOf`. */
export interface Cited {
  /** In the order of the citations. */
  texts: readonly string[]
  /** The entries of the list of references, in its order; a tab divides a number from its entry. */
  references: readonly { source: string; text: string }[]
}

export type Citer = (
  sources: Sources,
  citations: readonly { items: readonly CitationItem[]; note: number }[],
  language: string,
) => Cited

let citer: Citer | null = null
let made = new WeakMap<Sources, Map<string, Cited>>()

/** Sets what makes citations. Until then they show three dots. */
export function setCiter(own: Citer | null): void {
  citer = own
  made = new WeakMap()
}

export function hasCiter(): boolean {
  return citer !== null
}

/** Whether a citer is needed to show a document. */
export function citesSources(doc: Node): boolean {
  return citationsOf(doc).length > 0 || listsSources(doc)
}

/** So many states of citations are remembered. */
const mostKnown = 20

export function listsSources(doc: Node): boolean {
  const body = bodyOf(doc)
  return structuresOf(body, "contents").some((i) => body.child(i).attrs.look === "sources")
}

/** What the citations of a document show now, in their order. */
export function citedIn(doc: Node): Cited {
  const { sources, styles } = documentAttrs(doc)
  const all = citationsOf(doc)
  if (!citer) return { texts: all.map(() => "…"), references: [] }
  const { language } = styles.defaults.letters
  let own = made.get(sources)
  if (!own) made.set(sources, (own = new Map()))
  const key = `${language}\n${all.map(({ field, note }) => `${note} ${fieldAttrs(field).format}`).join("\n")}`
  let cited = own.get(key)
  if (!cited) {
    if (own.size >= mostKnown) own.clear()
    cited = citer(
      sources,
      all.map(({ field, note }) => ({ items: citationItems(fieldAttrs(field).format), note })),
      language,
    )
    own.set(key, cited)
  }
  return cited
}

/** Signs of private use round words in italics, and round raised ones, in what a citation shows. */
export const shownSigns = { italic: ["\ue000", "\ue001"], raised: ["\ue002", "\ue003"] } as const
const anySign = /[\ue000-\ue003]/

/** What is shown without those signs. */
export function plainShown(shown: string): string {
  return anySign.test(shown) ? shown.replace(/[\ue000-\ue003]/g, "") : shown
}

export interface Stretch {
  text: string
  italic: boolean
  raised: boolean
}

/** What is shown, by how it looks. */
export function stretchesOf(shown: string): readonly Stretch[] {
  if (!anySign.test(shown)) return shown === "" ? [] : [{ text: shown, italic: false, raised: false }]
  const found: Stretch[] = []
  let [italic, raised] = [false, false]
  for (const piece of shown.split(/([\ue000-\ue003])/)) {
    if (piece === shownSigns.italic[0]) italic = true
    else if (piece === shownSigns.italic[1]) italic = false
    else if (piece === shownSigns.raised[0]) raised = true
    else if (piece === shownSigns.raised[1]) raised = false
    else if (piece !== "") found.push({ text: piece, italic, raised })
  }
  return found
}
