/** What was said of passages, while they are edited. */
import { Fragment, Slice, type Node } from "prosemirror-model"
import { commentsOf, commentsOn, documentAttrs, entryOf, leavesOf, marks, setEntries } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"

/** Takes away what was said, and its mark from the passage. */
export function removeComment(key: string): Command {
  return (state, dispatch) => {
    const { [key]: own, ...others } = documentAttrs(state.doc).comments
    if (!own || !entryOf(documentAttrs(state.doc).comments, key)) return false
    if (!dispatch) return true
    const tr = setEntries(state.tr, null, "comments", others)
    const leaves = leavesOf(state.doc)
    leaves.nodes.forEach((node, leaf) =>
      node.forEach((child, offset) => {
        if (!commentsOn(child).includes(key)) return
        const from = leaves.start(leaf) + offset
        tr.removeMark(from, from + child.nodeSize, marks.comment.create({ value: key }))
      }),
    )
    dispatch(named(tr, `Took away the comment ${quoted(own.text)}`))
    return true
  }
}

/** Text that comes into a document, without comments that are not of it or still stand where they stood: words that were cut bring theirs back, copies have none. */
export function withoutForeignComments(slice: Slice, doc: Node): Slice {
  let any = false
  slice.content.descendants((node) => !(any ||= commentsOn(node).length > 0))
  if (!any) return slice
  const { comments } = documentAttrs(doc)
  const standing = new Set(commentsOf(doc).map(({ key }) => key))
  const strip = (fragment: Fragment): Fragment =>
    Fragment.from(
      fragment.content.map((node) => {
        if (!node.isInline) return node.copy(strip(node.content))
        const kept = node.marks.filter(({ type, attrs }) => {
          const key = attrs.value as string
          return type !== marks.comment || (entryOf(comments, key) !== undefined && !standing.has(key))
        })
        return kept.length === node.marks.length ? node : node.mark(kept)
      }),
    )
  return new Slice(strip(slice.content), slice.openStart, slice.openEnd)
}
