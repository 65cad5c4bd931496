/** Texts beside the body come and go with their anchors, and nothing runs from one text into another by accident. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import { anchorsIn, bodyOf, changedLeaves, hasAnchor, leavesOf, nodes, storiesOf, type StoryKind } from "../document"
import type { Command } from "./command"
import { named } from "./history"

/** Where a text begins and ends: the body, or a story. */
export interface Part {
  from: number
  to: number
}

/** The text that a position is in: the first and the last position in it at which a caret can stand. */
export function partAt(doc: Node, pos: number): Part {
  const leaves = leavesOf(doc)
  const { story } = leaves.flow(leaves.at(pos))
  const placed = story === null ? undefined : storiesOf(doc).get(story)
  const [start, end] = placed ? [placed.pos, placed.pos + placed.node.nodeSize] : [0, bodyOf(doc).nodeSize]
  return {
    from: leaves.start(leaves.at(start) + (leaves.before(leaves.at(start)) < start ? 1 : 0)),
    to: leaves.end(leaves.at(end - 1)),
  }
}

/** The end of a selection, held in the text in which it begins. */
export function heldInPart(doc: Node, anchor: number, head: number): number {
  // Without stories there is one text.
  if (doc.childCount === 1) return head
  const { from, to } = partAt(doc, anchor)
  return Math.max(from, Math.min(to, head))
}

/** A key that no story of a document has. */
export function newKey(doc: Node, taken: ReadonlySet<string> = new Set()): string {
  const known = storiesOf(doc)
  let key: string
  do key = Math.random().toString(36).slice(2, 12)
  while (known.has(key) || taken.has(key))
  return key
}

/** Puts an anchor in place of the selection, and its story beside the body, in which the caret then stands. Stories themselves have no anchors. */
export function insertStory(kind: StoryKind, blocks: readonly Node[] = [nodes.paragraph.create()]): Command {
  return (state, dispatch) => {
    const { $from, from, to } = state.selection
    if (!$from.parent.isTextblock || leavesOf(state.doc).flow(leavesOf(state.doc).at(from)).story !== null) return false
    if (!dispatch) return true
    const key = newKey(state.doc)
    const tr = state.tr.replaceWith(from, to, nodes.anchor.create({ story: key }))
    const at = tr.doc.content.size
    tr.insert(at, nodes.story.create({ key, kind }, [...blocks]))
    tr.setSelection(TextSelection.near(tr.doc.resolve(at + 2)))
    const names: Partial<Record<StoryKind, string>> = { note: "Footnote", endnote: "Endnote" }
    dispatch(named(tr, names[kind] ?? "Text beside the body").scrollIntoView())
    return true
  }
}

/** Keys of the anchors of some leaves, with their positions. */
function anchorsOf(doc: Node, from: number, to: number): { key: string; pos: number }[] {
  const leaves = leavesOf(doc)
  const found: { key: string; pos: number }[] = []
  for (let leaf = from; leaf < to; leaf++)
    for (const { key, offset } of anchorsIn(leaves.node(leaf))) found.push({ key, pos: leaves.start(leaf) + offset })
  return found
}

/** Keys of the stories that a change took away. */
function lostStories(before: Node, after: Node, { from, oldTo }: { from: number; oldTo: number }): Set<string> {
  const leaves = leavesOf(before)
  if (oldTo <= from || leaves.flow(oldTo - 1).story === null) return new Set()
  const kept = storiesOf(after)
  return new Set([...storiesOf(before).keys()].filter((key) => !kept.has(key)))
}

/**
 * Makes a change whole: a story whose anchor went goes too, an anchor that came a second time gets a copy of its story, and one
 * without a story, or inside one, goes. To be done with every change before it is applied.
 */
export function settleStories(tr: Transaction): Transaction {
  let mapped = 0
  for (let before = tr.before; tr.docChanged;) {
    const settled = tr.doc
    // Where what stood in the document before now stands.
    const mapping = tr.mapping.slice(mapped)
    mapped = tr.mapping.maps.length
    const change = changedLeaves(before, settled)
    if (!change) return tr
    const [old, now] = [anchorsOf(before, change.from, change.oldTo), anchorsOf(settled, change.from, change.newTo)]
    const lost = lostStories(before, settled, change)
    if (old.length === 0 && now.length === 0 && lost.size === 0) return tr
    const keysOf = (anchors: readonly { key: string }[]) => new Set(anchors.map(({ key }) => key))
    const [had, has] = [keysOf(old), keysOf(now)]
    const inBody = (pos: number) => pos < bodyOf(settled).nodeSize
    const outside = (pos: number) =>
      pos < leavesOf(settled).before(change.from) || pos >= leavesOf(settled).before(change.newTo)
    const came = now.some(
      ({ key, pos }, i) => !inBody(pos) || !had.has(key) || now.findIndex((own) => own.key === key) !== i,
    )
    const everywhere = came || lost.size > 0 ? anchorsOf(settled, 0, leavesOf(settled).count) : []
    const copies: Node[] = []
    const homeless: number[] = []
    const taken = new Set<string>()
    const stood = new Map(old.map(({ key, pos }) => [key, mapping.mapResult(pos)]))
    for (const key of new Set([...(came ? has : []), ...lost])) {
      const story = storiesOf(settled).get(key)?.node
      const all = everywhere.filter((own) => own.key === key).map(({ pos }) => pos)
      const places = all.filter(inBody)
      homeless.push(...all.filter((pos) => !inBody(pos)))
      if (!story || !hasAnchor(story)) {
        homeless.push(...places)
        continue
      }
      // It stays with the anchor that it had.
      const own = stood.get(key)
      const owner =
        places.find(outside) ??
        (own && !own.deletedAfter ? places.find((pos) => pos === own.pos) : undefined) ??
        places[0]
      for (const pos of places) {
        if (pos === owner) continue
        const copy = newKey(settled, taken)
        taken.add(copy)
        tr.setNodeAttribute(pos, "story", copy)
        copies.push(story.type.create({ ...story.attrs, key: copy }, story.content))
      }
    }
    for (const pos of homeless.sort((a, b) => b - a)) tr.delete(pos, pos + 1)
    if (copies.length > 0) tr.insert(tr.doc.content.size, Fragment.from(copies))
    for (const key of had) {
      if (has.has(key)) continue
      const story = storiesOf(tr.doc).get(key)
      const elsewhere = anchorsOf(tr.doc, 0, leavesOf(tr.doc).count).some((own) => own.key === key)
      if (story && hasAnchor(story.node) && !elsewhere) tr.delete(story.pos, story.pos + story.node.nodeSize)
    }
    if (tr.doc === settled) return tr
    before = settled
  }
  return tr
}

/** The selection of all of the text that the caret is in. */
export function wholePart(state: EditorState): TextSelection {
  const { from, to } = partAt(state.doc, state.selection.head)
  return TextSelection.create(state.doc, from, to)
}
