/** Sources of the document, citations of them in the text or in notes, and the list of references. */
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import type { Node } from "prosemirror-model"
import {
  bodyOf,
  citationFormat,
  citationItems,
  citationsOf,
  contentsAttrs,
  documentAttrs,
  entryOf,
  fieldAttrs,
  leavesOf,
  limits,
  nodeAt,
  nodes,
  notesOf,
  paragraph,
  schema,
  setEntries,
  positionOf,
  storiesOf,
  structuresOf,
  type CitationItem,
  type Source,
  type Sources,
} from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { newKey } from "./stories"
import { typingMarks } from "./typingMarks"

const isCitation = (node: Node | null | undefined) => node?.type === nodes.field && fieldAttrs(node).kind === "citation"

const isKey = (key: string) => key !== "" && key.length <= limits.name && key !== "__proto__"

/** So many sources a document has at most. */
const mostSources = 10_000

/** Puts sources into the document's list, in place of those of the same keys; null takes one out of it. */
export function putSources(change: Readonly<Record<string, Source | null>>): Command {
  return (state, dispatch) => {
    const { sources } = documentAttrs(state.doc)
    const list = new Map(Object.entries(sources.list))
    for (const [key, source] of Object.entries(change))
      if (source === null) list.delete(key)
      else if (isKey(key)) list.set(key, source)
    if (list.size > mostSources) return false
    const tr = setEntries(state.tr, null, "sources", { ...sources, list: Object.fromEntries(list) })
    if (!tr.docChanged) return false
    const count = Object.keys(change).length
    dispatch?.(named(tr, count === 1 ? "Source" : `${count} sources`))
    return true
  }
}

const citedBy = new WeakMap<object, ReadonlySet<string>>()

/** The keys of the sources that are cited. */
export function citedSources(doc: Node): ReadonlySet<string> {
  const all = citationsOf(doc)
  let cited = citedBy.get(all)
  if (!cited) {
    cited = new Set(all.flatMap(({ field }) => citationItems(fieldAttrs(field).format).map(({ source }) => source)))
    citedBy.set(all, cited)
  }
  return cited
}

/** The citation at a position, or at the caret: just behind it, or else before it. */
export function citationAt(
  state: EditorState,
  pos = state.selection.head,
): { pos: number; items: CitationItem[] } | null {
  const $pos = state.doc.resolve(pos)
  const at = isCitation($pos.nodeAfter) ? pos : isCitation($pos.nodeBefore) ? pos - 1 : null
  const field = at === null ? null : state.doc.nodeAt(at)
  return at === null || !field ? null : { pos: at, items: citationItems(fieldAttrs(field).format) }
}

/**
 * Cites at the caret. Where citations stand in notes, the citation gets one, unless the caret is in a note already.
 * @param inNotes whether the style of the document has its citations in notes
 */
export function insertCitation(items: readonly CitationItem[], inNotes: boolean): Command {
  return (state, dispatch) => {
    const format = citationFormat(items)
    const { $from, from, to } = state.selection
    const leaves = leavesOf(state.doc)
    const { kind } = leaves.flow(leaves.at(from))
    if (items.length === 0 || format.length > limits.citation || !$from.parent.isTextblock) return false
    if (kind === "header" || kind === "footer") return false
    if (!dispatch) return true
    const field = nodes.field.create({ kind: "citation", format }, null, typingMarks(state))
    const { tr } = state
    const noted = inNotes && (kind === "body" || kind === "cell")
    if (!noted) tr.deleteRange(from, to)
    const end = putCitation(tr, noted ? to : from, field, noted)
    tr.setSelection(TextSelection.create(tr.doc, end))
    dispatch(named(tr.scrollIntoView(), "Citation"))
    return true
  }
}

/** Puts a citation at a position, or the mark of a note with it. Returns where it ends. */
function putCitation(tr: Transaction, pos: number, field: Node, noted: boolean): number {
  const key = newKey(tr.doc)
  tr.insert(pos, noted ? nodes.anchor.create({ story: key }) : field)
  if (noted) tr.insert(tr.doc.content.size, noteFor(key, field.mark([])))
  return pos + 1
}

/** Quotations of so many words stand alone where the brief says nothing else. */
const longQuotation = 40

/** Quotes a passage with its citation: in the line between quotation marks, or a long one in a paragraph of its own. */
export function insertQuotation(words: string, item: CitationItem, inNotes: boolean): Command {
  return (state, dispatch) => {
    const { $from, from } = state.selection
    const text = words.replace(/[\u0000-\u001f\s]+/g, " ").trim()
    if (text === "" || !$from.parent.isTextblock) return false
    const leaves = leavesOf(state.doc)
    const { kind } = leaves.flow(leaves.at(from))
    if (kind === "header" || kind === "footer") return false
    if (!dispatch) return true
    const { brief, styles } = documentAttrs(state.doc)
    const long =
      text.split(/\s+/).length >= (brief?.quotations?.words ?? longQuotation) && entryOf(styles.styles, "quotation")
    const { tr } = state
    const field = nodes.field.create({ kind: "citation", format: citationFormat([item]) })
    const noted = inNotes && (kind === "body" || kind === "cell")
    // The mark of a note stands close behind the words.
    const gap = noted ? "" : " "
    let at = from
    if (long) {
      at = $from.after()
      tr.insert(at, paragraph("quotation", [schema.text(text + gap)]))
      at += 1 + text.length + gap.length
    } else {
      tr.insertText(`\u201c${text}\u201d${gap}`)
      at = tr.selection.from
    }
    const end = putCitation(tr, at, field, noted)
    tr.setSelection(TextSelection.create(tr.doc, end))
    dispatch(named(tr.scrollIntoView(), "Quotation"))
    return true
  }
}

/** Changes what a citation names; without items it goes. */
export function changeCitation(pos: number, items: readonly CitationItem[]): Command {
  return (state, dispatch) => {
    const field = nodeAt(state.doc, pos)
    const format = citationFormat(items)
    if (!field || !isCitation(field) || format.length > limits.citation || format === fieldAttrs(field).format)
      return false
    const { tr } = state
    if (items.length === 0) tr.delete(pos, pos + 1)
    else tr.replaceWith(pos, pos + 1, nodes.field.create({ kind: "citation", format }, null, field.marks))
    dispatch?.(named(tr, "Citation"))
    return true
  }
}

function noteFor(key: string, field: Node): Node {
  return nodes.story.create({ key, kind: "note" }, [paragraph("note", [field])])
}

/** Notes that hold a citation and nothing else, by their keys. */
function citationNotes(doc: Node): ReadonlyMap<string, Node> {
  const found = new Map<string, Node>()
  for (const { key } of notesOf(doc)) {
    const story = storiesOf(doc).get(key)?.node
    const [first, ...rest] = story?.children ?? []
    if (!first?.isTextblock || rest.length > 0) continue
    const inside = first.children.filter((child) => !(child.isText && /^[\s.]*$/.test(child.text ?? "")))
    const [only, ...others] = inside
    if (only && others.length === 0 && isCitation(only)) found.set(key, only)
  }
  return found
}

/**
 * Changes how the document cites. Citations in the text go into notes where the style has them there, and those that stand alone in
 * notes come back into the text.
 */
export function changeCitationStyle(style: string, inNotes: boolean, own: Sources["own"] = null): Command {
  return (state, dispatch) => {
    if (!isKey(style)) return false
    const { sources } = documentAttrs(state.doc)
    const { tr } = state
    setEntries(tr, null, "sources", { ...sources, style, own: own ?? sources.own })
    const places: { pos: number; node: Node }[] = []
    const alone = citationNotes(state.doc)
    bodyOf(state.doc).descendants((node, pos) => {
      const moves = inNotes ? isCitation(node) : node.type === nodes.anchor && alone.has(node.attrs.story as string)
      if (moves) places.push({ pos: pos + 1, node })
    })
    const stories: Node[] = []
    const taken = new Set<string>()
    for (const { pos, node } of places.reverse()) {
      if (inNotes) {
        const key = newKey(state.doc, taken)
        taken.add(key)
        stories.unshift(noteFor(key, node.mark([])))
        // The blank before what stood in the text goes with it.
        const before = tr.doc.resolve(pos).nodeBefore
        const blank = before?.isText && /[^\s] $/.test(before.text ?? "") ? 1 : 0
        tr.replaceWith(pos - blank, pos + 1, nodes.anchor.create({ story: key }))
      } else {
        const before = tr.doc.resolve(pos).nodeBefore
        const joined = before?.isText && !/\s$/.test(before.text ?? "")
        const field = alone.get(node.attrs.story as string) as Node
        tr.replaceWith(pos, pos + 1, [...(joined ? [schema.text(" ", before.marks)] : []), field.mark(node.marks)])
      }
    }
    if (stories.length > 0) tr.insert(tr.doc.content.size, stories)
    if (!inNotes) {
      const gone = [...alone.keys()].flatMap((key) => storiesOf(tr.doc).get(key) ?? [])
      for (const { pos, node } of gone.sort((a, b) => b.pos - a.pos)) tr.delete(pos, pos + node.nodeSize)
    }
    if (!tr.docChanged) return false
    dispatch?.(named(tr, "Style of citation"))
    return true
  }
}

/** Where the list of references stands; null for none. */
export function referenceList(doc: Node): number | null {
  const body = bodyOf(doc)
  const own = structuresOf(body, "contents").find((i) => contentsAttrs(body.child(i)).look === "sources")
  return own === undefined ? null : positionOf(body, own) + 1
}

/** Puts the list of references at the end of the text, under a heading; or takes it away. */
export function turnReferenceList(on: boolean): Command {
  return (state, dispatch) => {
    const { doc, tr } = state
    const pos = referenceList(doc)
    if ((pos !== null) === on) return false
    if (!dispatch) return true
    if (pos !== null) tr.delete(pos, pos + 1)
    else {
      const { styles, brief } = documentAttrs(doc)
      const words = brief?.references?.heading ?? "References"
      const body = bodyOf(doc)
      const last = body.lastChild as Node
      const blank = last.isTextblock && last.content.size === 0
      const end = body.nodeSize - 1 - (blank && body.childCount > 1 ? last.nodeSize : 0)
      const style = entryOf(styles.styles, "heading1") ? "heading1" : "body"
      const headed = body.children.some((node) => node.isTextblock && node.textContent.trim() === words)
      const breaks = brief?.references?.ownSheet === true ? { breakBefore: true } : {}
      tr.insert(end, [
        ...(headed ? [] : [paragraph(style, [schema.text(words)], breaks)]),
        nodes.contents.create({ levels: 1, look: "sources", of: "" }),
        ...(blank && body.childCount > 1 ? [] : [paragraph("body")]),
      ])
    }
    dispatch(named(tr, on ? "References" : "References taken away"))
    return true
  }
}

/** Takes a source out of the document's list; its citations say that it is missing. */
export function removeSource(key: string): Command {
  return (state, dispatch) => {
    const source = entryOf(documentAttrs(state.doc).sources.list, key)
    if (!source) return false
    return putSources({ [key]: null })(
      state,
      dispatch && ((tr) => dispatch(named(tr, `${quoted(source.fields.title ?? key)} taken out`))),
    )
  }
}
