/** Sections and what stands at the head and foot of their sheets. The first section's setup hangs on the document, that of each other one on the break before it. */
import type { Node } from "prosemirror-model"
import { leavesOf, positionOf, structuresOf } from "./leaves"
import { bodyOf, documentAttrs } from "./schema"
import type { PageSetup } from "./shapes"

export interface Section {
  /** Its first block in the body; one that ends with a break has a section without blocks behind it. */
  block: number
  setup: PageSetup
  /** Position before the break with its setup; null for the first, whose setup is the document's. */
  pos: number | null
}

const known = new WeakMap<Node, { setup: PageSetup; sections: readonly Section[] }>()

/** The sections of a document in order. */
export function sectionsOf(doc: Node): readonly Section[] {
  const body = bodyOf(doc)
  const { setup } = documentAttrs(doc)
  const before = known.get(body)
  if (before?.setup === setup) return before.sections
  const sections: Section[] = [{ block: 0, setup, pos: null }]
  for (const i of structuresOf(body, "sectionBreak"))
    sections.push({ block: i + 1, setup: body.child(i).attrs.setup as PageSetup, pos: positionOf(body, i) + 1 })
  known.set(body, { setup, sections })
  return sections
}

/** The number of the section that a position is in; positions in stories count as in the first. */
export function sectionAt(doc: Node, pos: number): number {
  if (pos > bodyOf(doc).nodeSize) return 0
  return Math.max(
    0,
    sectionsOf(doc).findLastIndex((section) => section.pos === null || section.pos < pos),
  )
}

export type EdgeName = "head" | "foot"
export type EdgeVariant = "all" | "first" | "left"

/** The key of the story that stands at an edge of a section's sheets: its own, or that of the nearest section before it that has one. */
export function edgeStory(
  sections: readonly Section[],
  section: number,
  edge: EdgeName,
  variant: EdgeVariant,
): string | null {
  for (let i = section; i >= 0; i--) {
    const own = sections[i]?.setup[edge][variant]
    if (own) return own
  }
  return null
}

/** Which of the variants a sheet of a section shows. */
export function variantFor({ firstOwn, leftRight }: PageSetup, first: boolean, left: boolean): EdgeVariant {
  return firstOwn && first ? "first" : leftRight && left ? "left" : "all"
}

export const edgeNames: readonly EdgeName[] = ["head", "foot"]
export const edgeVariants: readonly EdgeVariant[] = ["all", "first", "left"]

/** The head or foot that a position stands in; null elsewhere. */
export function edgeAt(doc: Node, pos: number): { edge: EdgeName; variant: EdgeVariant; section: number } | null {
  const { story } = leavesOf(doc).flow(leavesOf(doc).at(pos))
  if (story === null) return null
  const sections = sectionsOf(doc)
  for (const [section, { setup }] of sections.entries())
    for (const edge of edgeNames)
      for (const variant of edgeVariants) if (setup[edge][variant] === story) return { edge, variant, section }
  return null
}
