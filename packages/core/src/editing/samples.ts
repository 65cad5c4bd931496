/** Sample text of a starter, which is there to be typed over. */
import type { Node } from "prosemirror-model"
import { marks } from "../document"

/** The sample that a position stands in, between its first letter and its last. */
export function sampleAt(doc: Node, pos: number): { from: number; to: number } | null {
  const $pos = doc.resolve(pos)
  if (!$pos.parent.isTextblock) return null
  const start = $pos.start()
  let [from, to] = [-1, -1]
  for (const span of samplesIn($pos.parent))
    if (start + span.from <= pos && pos <= start + span.to) ({ from, to } = span)
  return from < 0 ? null : { from: start + from, to: start + to }
}

const known = new WeakMap<Node, readonly { from: number; to: number }[]>()

/** The samples of a paragraph, by offsets. */
export function samplesIn(paragraph: Node): readonly { from: number; to: number }[] {
  let found = known.get(paragraph)
  if (found) return found
  const own: { from: number; to: number }[] = []
  paragraph.forEach((child, offset) => {
    if (!marks.sample.isInSet(child.marks)) return
    const last = own.at(-1)
    if (last?.to === offset) last.to += child.nodeSize
    else own.push({ from: offset, to: offset + child.nodeSize })
  })
  known.set(paragraph, (found = own))
  return found
}
