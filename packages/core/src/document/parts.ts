/** Parts: runs of sections with a name, which people switch between. All of them are one text, so that lists, numbers and references go across. */
import type { Node } from "prosemirror-model"
import { bodyOf, documentAttrs } from "./schema"
import { sectionsOf, type Section } from "./setup"
import type { PartName } from "./shapes"

export interface NamedPart extends PartName {
  /** Its first section, and the first one that is no longer of it. */
  from: number
  to: number
  /** Position before the break that carries its name; null for the document, which carries that of the first. */
  pos: number | null
  /** Positions between which its blocks stand, in the body. */
  start: number
  end: number
}

/** What a section is said to begin, where it begins a part. */
export function partBegun(doc: Node, { pos }: Section): PartName | null {
  return pos === null ? documentAttrs(doc).part : ((doc.nodeAt(pos)?.attrs.part ?? null) as PartName | null)
}

/** Where the blocks of some sections stand in the body, without the break before them. */
export function blocksBetween(doc: Node, from: number, to: number): { start: number; end: number } {
  const sections = sectionsOf(doc)
  return {
    start: (sections[from]?.pos ?? 0) + 1,
    end: sections[to]?.pos ?? bodyOf(doc).nodeSize - 1,
  }
}

const known = new WeakMap<Node, readonly NamedPart[]>()

/** The parts of a document in order; none if nothing has a name. Sections before the first that has one are a part without. */
export function namedParts(doc: Node): readonly NamedPart[] {
  let parts = known.get(doc)
  if (!parts) known.set(doc, (parts = made(doc)))
  return parts
}

function made(doc: Node): NamedPart[] {
  const sections = sectionsOf(doc)
  const begun = sections.flatMap((section, from) => {
    const part = partBegun(doc, section)
    return part ? [{ ...part, from, pos: section.pos }] : []
  })
  if (begun.length === 0) return []
  if (begun[0]?.from !== 0) begun.unshift({ name: "", sign: null, from: 0, pos: null })
  return begun.map((part, i) => {
    const to = begun[i + 1]?.from ?? sections.length
    return { ...part, to, ...blocksBetween(doc, part.from, to) }
  })
}

/** The number of the part that a position is in; -1 in a document without parts, and in what stands beside the text. */
export function namedPartAt(doc: Node, pos: number): number {
  return namedParts(doc).findIndex(({ start, end }) => pos >= start - 1 && pos <= end)
}
