/** Footnotes and endnotes in the order of their marks in the text, with the numbers that they have there. */
import type { Node } from "prosemirror-model"
import { fieldAttrs, unknownValue, type FieldValues } from "./fields"
import { entryOf } from "./keyed"
import { changedInBody, leavesOf, leavesOfBody, onlyText } from "./leaves"
import { formatNumber } from "./numbering"
import { bodyOf, documentAttrs } from "./schema"
import type { NoteSettings } from "./shapes"
import { sectionsOf } from "./setup"
import { firstWhere } from "./sorted"
import { anchorsIn, storiesOf } from "./stories"

export type NoteKind = "note" | "endnote"

export interface Note {
  /** Key of its story. */
  key: string
  kind: NoteKind
  /** The leaf with its mark, and where in that. */
  leaf: number
  offset: number
  /** What its mark shows, as far as that does not hang on its sheet. */
  label: string
}

const none: readonly Note[] = []

export function isNote(story: Node): boolean {
  const kind = story.attrs.kind as string
  return kind === "note" || kind === "endnote"
}

const signs = ["*", "†", "‡", "§"]

/** The n-th mark of a form, from 1. Of signs the fifth is the first twice, and so on. */
export function noteMark(n: number, form: NoteSettings["end"]["form"]): string {
  if (form === "signs") return (signs[(n - 1) % signs.length] as string).repeat(Math.ceil(n / signs.length))
  return formatNumber(n, form) || String(n)
}

/** Whether two documents have the same stories, whatever these say. */
function sameStories(older: Node, doc: Node): boolean {
  if (older.childCount !== doc.childCount) return false
  for (let i = 1; i < doc.childCount; i++) {
    const [before, now] = [older.child(i), doc.child(i)]
    if (before !== now && (before.attrs.key !== now.attrs.key || before.attrs.kind !== now.attrs.kind)) return false
  }
  return true
}

/** What was found in a document, and in which settings. */
interface Found {
  doc: WeakRef<Node>
  settings: NoteSettings
  notes: readonly Note[]
}
const known = new WeakMap<Node, Found>()
/** By the first story, what was asked for last. */
const latest = new WeakMap<Node, Found>()

/** The notes whose marks stand in some leaves of the body, not numbered yet. */
function marksIn(doc: Node, from: number, to: number): Note[] {
  const stories = storiesOf(doc)
  const found: Note[] = []
  leavesOf(doc)
    .between(from, to)
    .forEach((node, i) => {
      for (const { key, offset } of onlyText(node) ? [] : anchorsIn(node)) {
        const story = stories.get(key)?.node
        if (story && isNote(story))
          found.push({ key, kind: story.attrs.kind as NoteKind, leaf: from + i, offset, label: "" })
      }
    })
  return found
}

/** The same notes with their numbers; those that have had them keep being the same objects. */
function numbered(doc: Node, marked: readonly Note[]): Note[] {
  const { foot, end } = documentAttrs(doc).notes
  const leaves = leavesOf(doc)
  const bounds = foot.restart === "section" ? sectionsOf(doc).flatMap(({ pos }) => pos ?? []) : []
  const numbers: Record<NoteKind, number> = { note: 0, endnote: 0 }
  return marked.map((mark) => {
    while (bounds.length > 0 && leaves.start(mark.leaf) > (bounds[0] as number)) {
      bounds.shift()
      numbers.note = 0
    }
    const label = noteMark(++numbers[mark.kind], mark.kind === "note" ? foot.form : end.form)
    return mark.label === label ? mark : { ...mark, label }
  })
}

/** The notes of a document that comes from the one asked for before: only what has changed since is looked at. */
function carriedOver(doc: Node): readonly Note[] | undefined {
  const before = latest.get(doc.child(1))
  const older = before?.doc.deref()
  if (!before || !older || before.settings !== documentAttrs(doc).notes || !sameStories(older, doc)) return undefined
  const change = changedInBody(older, doc)
  if (!change) return before.notes
  const shift = change.newTo - change.oldTo
  const { notes } = before
  const [from, to] = [change.from, change.oldTo].map((at) => firstWhere(notes, ({ leaf }) => leaf >= at)) as [
    number,
    number,
  ]
  const old = notes.slice(from, to)
  const now = marksIn(doc, change.from, change.newTo)
  const behind = notes.slice(to)
  const tail = shift === 0 ? behind : behind.map((note) => ({ ...note, leaf: note.leaf + shift }))
  const alike =
    old.length === now.length && now.every(({ key, kind }, i) => key === old[i]?.key && kind === old[i].kind)
  // Where sections begin, numbers may begin anew.
  if (!alike || before.settings.foot.restart === "section")
    return numbered(doc, [...notes.slice(0, from), ...now, ...tail])
  if (old.length === 0 && shift === 0) return notes
  const labelled = now.map((mark, i) => ({ ...mark, label: (old[i] as Note).label }))
  const moved = [...notes.slice(0, from), ...labelled, ...tail]
  // What marks show is the same value as long as it is the same.
  labels.set(moved, labelsOf(notes))
  return moved
}

/** The notes of a document. */
export function notesOf(doc: Node): readonly Note[] {
  if (doc.childCount === 1) return none
  const body = bodyOf(doc)
  const first = doc.child(1)
  const settings = documentAttrs(doc).notes
  const before = known.get(body)
  const older = before?.doc.deref()
  const same = older !== undefined && before?.settings === settings && (older === doc || sameStories(older, doc))
  const notes = same ? before.notes : (carriedOver(doc) ?? numbered(doc, marksIn(doc, 0, leavesOfBody(doc))))
  if (latest.get(first)?.doc.deref() !== doc || before?.notes !== notes) {
    const found = { doc: new WeakRef(doc), settings, notes }
    known.set(body, found)
    latest.set(first, found)
  }
  return notes
}

/** What the marks of notes show, by the keys of their stories. */
export type NoteLabels = ReadonlyMap<string, string>

const labels = new WeakMap<readonly Note[], NoteLabels>()

/** What the marks of notes show as far as that does not hang on their sheets. */
export function noteLabels(doc: Node): NoteLabels {
  return labelsOf(notesOf(doc))
}

function labelsOf(notes: readonly Note[]): NoteLabels {
  let own = labels.get(notes)
  if (!own) labels.set(notes, (own = new Map(notes.map(({ key, label }) => [key, label]))))
  return own
}

/** Whether a document shows what it is called. */
export function asksName(doc: Node): boolean {
  const { title } = documentAttrs(doc).properties
  return leavesOf(doc).nodes.some(
    (leaf) =>
      !onlyText(leaf) &&
      leaf.children.some((child) => {
        if (child.type.name !== "field") return false
        const { kind } = fieldAttrs(child)
        return kind === "name" || (kind === "title" && title === "")
      }),
  )
}

/**
 * What fields and the marks of notes show in a document.
 * @param marks of notes, where these hang on the sheets
 */
export function valuesOf(doc: Node, others: FieldValues, marks = noteLabels(doc)): FieldValues {
  const { properties } = documentAttrs(doc)
  return (field, language) => {
    if (field.type.name === "anchor") return marks.get(field.attrs.story as string) ?? unknownValue
    const { kind, format } = fieldAttrs(field)
    if (kind === "title") return properties.title || others(field, language)
    if (kind === "author") return properties.author || unknownValue
    if (kind === "property") return entryOf(properties as Record<string, string>, format) || unknownValue
    return others(field, language)
  }
}
