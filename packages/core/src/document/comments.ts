/** Comments: what was said of passages. A passage has the key of its comment as a mark, so that it goes where its words go; what was said lies with the document. */
import type { Node } from "prosemirror-model"
import { entryOf } from "./keyed"
import { leavesOf } from "./leaves"
import { documentAttrs } from "./schema"
import type { Comment } from "./shapes"

export interface PlacedComment extends Comment {
  key: string
  /** Positions of the first and behind the last of its words. */
  from: number
  to: number
}

/** Keys of what was said of some words. */
export function commentsOn(node: Node): string[] {
  return node.marks.flatMap(({ type, attrs }) => (type.name === "comment" ? [attrs.value as string] : []))
}

interface Span {
  key: string
  from: number
  to: number
}
const inLeaf = new WeakMap<Node, readonly Span[]>()
const none: readonly Span[] = []

/** The passages of a paragraph of which something was said, by offsets, each as one. */
export function commentSpans(leaf: Node): readonly Span[] {
  let spans = inLeaf.get(leaf)
  if (!spans) {
    const found = new Map<string, Span>()
    leaf.forEach((child, offset) => {
      for (const key of commentsOn(child)) {
        const known = found.get(key)
        const to = offset + child.nodeSize
        if (known) known.to = to
        else found.set(key, { key, from: offset, to })
      }
    })
    inLeaf.set(leaf, (spans = found.size > 0 ? [...found.values()] : none))
  }
  return spans
}

const known = new WeakMap<Node, readonly PlacedComment[]>()

/** What was said of passages that are still there, in the order of the text. */
export function commentsOf(doc: Node): readonly PlacedComment[] {
  let comments = known.get(doc)
  if (!comments) known.set(doc, (comments = placed(doc)))
  return comments
}

function placed(doc: Node): PlacedComment[] {
  const { comments } = documentAttrs(doc)
  // A document of which nothing was said is not looked through.
  if (Object.keys(comments).length === 0) return []
  const found = new Map<string, PlacedComment>()
  const leaves = leavesOf(doc)
  leaves.nodes.forEach((node, leaf) => {
    for (const { key, from, to } of commentSpans(node)) {
      const comment = entryOf(comments, key)
      const start = leaves.start(leaf)
      const own = found.get(key)
      if (own) own.to = start + to
      else if (comment) found.set(key, { ...comment, key, from: start + from, to: start + to })
    }
  })
  return [...found.values()]
}

/** What was said of the words at a position. */
export function commentsAt(doc: Node, pos: number): PlacedComment[] {
  return commentsOf(doc).filter(({ from, to }) => from <= pos && pos < to)
}
