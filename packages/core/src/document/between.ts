/** Going through a stretch of a document without going through all that stands in front of it. */
import type { Node } from "prosemirror-model"
import { positionsOf } from "./leaves"
import { firstWhere } from "./sorted"

/** @returns whether to go on inside the node; nothing for yes */
type Visit = (node: Node, pos: number, parent: Node) => boolean | void

/** Visits a child and what is in it, as far as the stretch from `from` to `to`, counted from the position before the child, reaches. */
function visitChild(child: Node, at: number, parent: Node, from: number, to: number, visit: Visit): void {
  if (visit(child, at, parent) === false || child.content.size === 0) return
  const inside = (node: Node, pos: number, own: Node | null) => visit(node, pos, own ?? child)
  child.nodesBetween(Math.max(0, from - 1), Math.min(child.content.size, to - 1), inside, at + 1)
}

/** The same nodes in the same order as `nodesBetween` of the document, which looks at each block of the body in turn. */
export function nodesBetween(doc: Node, from: number, to: number, visit: Visit): void {
  const body = doc.child(0)
  if (to > 0 && body.nodeSize > from && visit(body, 0, doc) !== false) {
    const positions = positionsOf(body)
    const first = firstWhere(positions, (at) => at > Math.max(0, from - 1)) - 1
    for (let i = first; i < body.childCount && positions[i]! < to - 1; i++) {
      const at = 1 + positions[i]!
      visitChild(body.child(i), at, body, from - at, to - at, visit)
    }
  }
  for (let i = 1, at = body.nodeSize; i < doc.childCount && at < to; i++) {
    const story = doc.child(i)
    if (at + story.nodeSize > from) visitChild(story, at, doc, from - at, to - at, visit)
    at += story.nodeSize
  }
}
