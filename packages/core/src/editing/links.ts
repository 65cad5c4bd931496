/** Links to the web, to an e-mail address, and to headings and marked places of the document. */
import type { Mark, Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import { asName, documentAttrs, isLink, leavesOf, limits, marks, outlineLevel, placesOf, textOf } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { wordAround } from "./movement"

export interface LinkAt {
  from: number
  to: number
  href: string
}

const linkOf = (node: Node): Mark | undefined => node.marks.find((mark) => mark.type === marks.link)

/** The link in which the caret stands or which holds the selection. */
export function linkAt(state: EditorState): LinkAt | null {
  const { $from, $to } = state.selection
  if (!$from.sameParent($to)) return null
  let found: LinkAt | null = null
  const start = $from.start()
  $from.parent.forEach((child, offset) => {
    const mark = linkOf(child)
    const [from, to] = [start + offset, start + offset + child.nodeSize]
    if (!mark) return
    if (found && found.to === from && found.href === mark.attrs.value && found.from <= $from.pos) found.to = to
    else if (!found || found.to < $from.pos) found = { from, to, href: mark.attrs.value as string }
  })
  const link = found as LinkAt | null
  return link && link.from <= $from.pos && link.to >= $to.pos ? link : null
}

/** What was typed as an address, in full: www.… and bare e-mail addresses get their scheme. Null if it is none. */
export function readAddress(typed: string): string | null {
  const text = typed.trim()
  const address = inFull(text)
  return address !== null && isLink(address) ? address : null
}

function inFull(text: string): string | null {
  if (text.length > limits.address) return null
  if (/^(https?:\/\/[^\s/?#]+\S*|mailto:\S+@\S+)$/i.test(text)) return text
  if (/^[^\s@:/]+@[^\s@:/]+\.[\p{L}]{2,}(\?\S*)?$/u.test(text)) return `mailto:${text}`
  if (/^(www\.)?[\p{L}\p{N}-]+(\.[\p{L}\p{N}-]+)*\.[\p{L}]{2,}([/?#]\S*)?$/u.test(text)) return `https://${text}`
  return null
}

/** Makes the selection, the link at the caret or the word there lead somewhere; with nothing there the address itself is put in. */
export function setLink(href: string): Command {
  return (state, dispatch) => {
    if (!isLink(href)) return false
    if (!dispatch) return true
    const { $from, from, to, empty } = state.selection
    const current = linkAt(state)
    const word = wordAround(textOf($from.parent), $from.parentOffset)
    let range = current ?? (empty ? { from: $from.start() + word.from, to: $from.start() + word.to } : { from, to })
    const tr = state.tr
    const mark = marks.link.create({ value: href })
    if (range.from === range.to || (empty && !current && !textOf($from.parent).slice(word.from, word.to).trim())) {
      const shown = href.replace(/^mailto:|^https?:\/\//, "").replace(/\?.*$/, "")
      tr.insertText(shown, from)
      range = { from, to: from + shown.length }
    }
    tr.addMark(range.from, range.to, mark)
    dispatch(named(tr, `Link on ${quoted(tr.doc.textBetween(range.from, range.to, " "))}`))
    return true
  }
}

export const removeLink: Command = (state, dispatch) => {
  const { from, to, empty } = state.selection
  const link = linkAt(state)
  if (!link && (empty || !state.doc.rangeHasMark(from, to, marks.link))) return false
  const range = link ?? { from, to }
  dispatch?.(named(state.tr.removeMark(range.from, range.to, marks.link), "Removed a link"))
  return true
}

export interface Target {
  /** Name of the place, or null for a heading that is not marked yet. */
  name: string | null
  text: string
  leaf: number
  /** 1 to 9 for a heading. */
  level: number | null
}

/** Headings and marked places, to which links can lead. */
export function linkTargets(doc: Node): Target[] {
  const { styles } = documentAttrs(doc)
  const names = new Map([...placesOf(doc)].map(([name, leaf]) => [leaf, name]))
  const targets: Target[] = []
  leavesOf(doc).nodes.forEach((paragraph, leaf) => {
    const level = outlineLevel(styles, paragraph)
    const name = names.get(leaf) ?? null
    const text = textOf(paragraph).trim()
    if (text && (level !== null || name !== null))
      targets.push({ name, text: level === null && name ? name : text, leaf, level })
  })
  return targets
}

/** Links to a heading or place; a heading is marked as a place first, so that the link holds when its words change. */
export function linkToTarget(target: Target): Command {
  return (state, dispatch) => {
    const name = target.name ?? freeName(state.doc, target.text)
    return setLink(`#${name}`)(
      state,
      dispatch &&
        ((tr) => {
          if (target.name === null) {
            const start = tr.mapping.map(leavesOf(state.doc).start(target.leaf))
            tr.addMark(start, start + tr.doc.resolve(start).parent.content.size, marks.place.create({ value: name }))
          }
          dispatch(tr)
        }),
    )
  }
}

/** A name for a place that no other one has. */
export function freeName(doc: Node, text: string): string {
  const taken = placesOf(doc)
  const base = asName(text, 60) || "place"
  let name = base
  for (let n = 2; taken.has(name); n++) name = `${base} ${n}`
  return name
}

/** Marks the selection, or the paragraph at the caret, as a place that links can lead to. */
export function markPlace(wanted: string): Command {
  const name = asName(wanted)
  return (state, dispatch) => {
    const { $from, from, to, empty } = state.selection
    const range = empty ? { from: $from.start(), to: $from.end() } : { from, to }
    if (range.from === range.to || name === "" || placesOf(state.doc).has(name)) return false
    dispatch?.(
      named(
        state.tr.addMark(range.from, range.to, marks.place.create({ value: name })),
        `Marked the place ${quoted(name)}`,
      ),
    )
    return true
  }
}

/** Where a link inside the document leads: the start of its leaf. */
export function placeOfLink(doc: Node, href: string): number | null {
  const leaf = href.startsWith("#") ? placesOf(doc).get(href.slice(1)) : undefined
  return leaf === undefined ? null : leavesOf(doc).start(leaf)
}
