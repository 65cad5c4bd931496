/** What a document is held against its brief with: one judge for each rule. */
import type { Node } from "prosemirror-model"
import { documentAttrs, letterLook, type Brief, type RunLook, type StyleSheet } from "../document"
import { titleBlockOf } from "./front"
import { allParagraphs, type BriefParagraph } from "./paragraphs"

export type BriefRule = Exclude<keyof Brief, "name">
export type Asked<R extends BriefRule> = NonNullable<Brief[R]>

/** A place that does not follow a rule. */
export interface BriefPlace {
  leaf: number
  from: number
  to: number
}

export interface Judgement {
  agrees: boolean
  /** What there is, in words; empty where there is nothing to tell. */
  found: string
  places: readonly BriefPlace[]
  /** Whether Biblon can put it right: some things take a person's words. */
  mends: boolean
}

/** What is known beside the document itself. */
export interface World {
  /** How many sheets it has; null while that is not known. */
  sheets: number | null
  /** Lengths and languages in words. */
  length(points: number): string
  language(tag: string): string
}

export type Judge<R extends BriefRule> = (doc: Node, asked: Asked<R>, world: World) => Judgement

/** Points by which lengths may differ, since they are rounded where they are typed. */
const slack = 0.6
export const near = (a: number, b: number) => Math.abs(a - b) <= slack

const known = new WeakMap<Node, readonly BriefParagraph[]>()

/** The paragraphs with text of a document, with what they are for its brief. */
export function paragraphsFor(doc: Node): readonly BriefParagraph[] {
  const all = allParagraphs(doc)
  const asked = documentAttrs(doc).brief?.titleBlock
  if (!asked) return all
  const before = known.get(doc)
  if (before) return before
  const front = new Set(titleBlockOf(doc, asked).map(({ leaf }) => leaf))
  const found = all.map((own): BriefParagraph =>
    own.kind === "text" && front.has(own.leaf) ? { ...own, kind: "front" } : own,
  )
  known.set(doc, found)
  return found
}

/** Stretches of a paragraph whose letters are not as asked. Words in a style of letters, as code is, are left alone. */
export function unlike(
  { node, look, from, leaf }: BriefParagraph,
  styles: StyleSheet,
  asked: (look: RunLook) => boolean,
) {
  const found: BriefPlace[] = []
  node.forEach((child, offset) => {
    if (!child.isText || child.marks.some(({ type }) => type.name === "letterStyle")) return
    if (asked(letterLook(styles, look.letters, child.marks))) return
    const last = found.at(-1)
    if (last?.to === from + offset) last.to += child.nodeSize
    else found.push({ leaf, from: from + offset, to: from + offset + child.nodeSize })
  })
  return found
}

/** A judgement of places each of which has something of its own: tells the most frequent one. */
export function judged(places: readonly BriefPlace[], values: readonly string[], mends = true): Judgement {
  const counts = new Map<string, number>()
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1)
  const [most = ["", 0]] = [...counts].sort((a, b) => b[1] - a[1])
  const more = counts.size > 1 ? ` and ${counts.size - 1} more` : ""
  return {
    agrees: places.length === 0,
    found: places.length > 0 ? `${most[0]}${more}` : "",
    places: places.map(({ leaf, from, to }) => ({ leaf, from, to })),
    mends,
  }
}
