/** Notes in the order of their marks in the text, with the numbers that they have there. */
import type { Node } from "prosemirror-model"
import { fieldAttrs, unknownValue, type FieldValues } from "./fields"
import { changedLeaves, leavesOf, leavesOfBody, sameFrom } from "./leaves"
import { bodyOf, documentAttrs } from "./schema"
import { anchorsIn, storiesOf } from "./stories"

export interface Note {
  /** Key of its story. */
  key: string
  /** The leaf with its mark, and where in that. */
  leaf: number
  offset: number
  /** What its mark shows. */
  label: string
}

const none: readonly Note[] = []
const known = new WeakMap<Node, readonly Note[]>()

/** Whether a leaf is empty or one piece of text, as most are: then it holds no mark. */
const onlyText = ({ childCount, firstChild }: Node) =>
  childCount === 0 || (childCount === 1 && firstChild?.isText === true)

/** By the first story, the document whose notes were asked for last. */
const latest = new WeakMap<Node, { doc: WeakRef<Node>; notes: readonly Note[] }>()

/** The notes of the document asked for before, if what has changed since has no marks and moved none: the same list. */
function stillThose(doc: Node): readonly Note[] | undefined {
  const before = latest.get(doc.child(1))
  const older = before?.doc.deref()
  if (!before || !older || !sameFrom(1, older.children, doc.children)) return undefined
  const change = changedLeaves(older, doc)
  if (!change) return before.notes
  const unmarked = (own: Node, from: number, to: number) =>
    leavesOf(own)
      .nodes.slice(from, to)
      .every((leaf) => onlyText(leaf) || anchorsIn(leaf).length === 0)
  return change.newTo === change.oldTo &&
    unmarked(older, change.from, change.oldTo) &&
    unmarked(doc, change.from, change.newTo)
    ? before.notes
    : undefined
}

/** The notes of a document. */
export function notesOf(doc: Node): readonly Note[] {
  if (doc.childCount === 1) return none
  const body = bodyOf(doc)
  let notes = known.get(body) ?? stillThose(doc)
  if (!notes) {
    const found: Note[] = []
    const stories = storiesOf(doc)
    const count = leavesOfBody(doc)
    const { nodes } = leavesOf(doc)
    for (let leaf = 0; leaf < count; leaf++)
      for (const { key, offset } of onlyText(nodes[leaf] as Node) ? [] : anchorsIn(nodes[leaf] as Node))
        if (stories.get(key)?.node.attrs.kind === "note")
          found.push({ key, leaf, offset, label: String(found.length + 1) })
    notes = found
  }
  known.set(body, notes)
  const first = doc.child(1)
  if (latest.get(first)?.doc.deref() !== doc) latest.set(first, { doc: new WeakRef(doc), notes })
  return notes
}

const labels = new WeakMap<readonly Note[], ReadonlyMap<string, string>>()

/** What the marks of notes show, by the keys of their stories. */
export function noteLabels(doc: Node): ReadonlyMap<string, string> {
  const notes = notesOf(doc)
  let own = labels.get(notes)
  if (!own) labels.set(notes, (own = new Map(notes.map(({ key, label }) => [key, label]))))
  return own
}

/** What fields and the marks of notes show in a document. */
export function valuesOf(doc: Node, others: FieldValues): FieldValues {
  const { title, author } = documentAttrs(doc).properties
  const notes = noteLabels(doc)
  return (field, language) => {
    if (field.type.name === "anchor") return notes.get(field.attrs.story as string) ?? unknownValue
    const { kind } = fieldAttrs(field)
    if (kind === "title" || kind === "author") return (kind === "title" ? title : author) || unknownValue
    return others(field, language)
  }
}
