/** The outline: headings, and the sections that they begin. A section is a heading and all up to the next of its level or above. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import { blockStarts, bodyOf, documentAttrs, labelsOf, outlineLevel, spokenText, type StyleSheet } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { headingStyle } from "./styles"

export interface Heading {
  block: number
  level: number
  text: string
  /** Its number, if headings are numbered. */
  label: string | null
  /** Whether it stands more than one level below the heading before it. */
  skips: boolean
  /** Block behind its section. */
  end: number
}

const known = new WeakMap<Node, { styles: StyleSheet; headings: readonly Heading[] }>()

/** The headings of a document in order. */
export function headingsOf(doc: Node): readonly Heading[] {
  const body = bodyOf(doc)
  const { styles } = documentAttrs(doc)
  const remembered = known.get(body)
  if (remembered?.styles === styles) return remembered.headings
  const labels = labelsOf(doc)
  const headings: Heading[] = []
  const open: Heading[] = []
  body.children.forEach((block, number) => {
    const level = outlineLevel(styles, block)
    if (level === null) return
    while (open.length > 0 && (open.at(-1)?.level ?? 0) >= level) (open.pop() as Heading).end = number
    const heading: Heading = { block: number, level, text: spokenText(styles, block).replaceAll("\n", " ").trim(), label: labels[number] ?? null, skips: level > (headings.at(-1)?.level ?? 0) + 1, end: body.childCount }
    headings.push(heading)
    open.push(heading)
  })
  known.set(body, { styles, headings })
  return headings
}

/** Moves a section, with all in it, before another block (the number of blocks for the end). */
export function moveSection(block: number, before: number): Command {
  return (state, dispatch) => {
    const heading = headingsOf(state.doc).find((own) => own.block === block)
    if (!heading || (before >= block && before <= heading.end) || before < 0 || before > bodyOf(state.doc).childCount) return false
    if (!dispatch) return true
    const starts = blockStarts(state.doc)
    const [from, to, target] = [starts[block] as number, starts[heading.end] as number, starts[before] as number]
    const moved = Fragment.from(bodyOf(state.doc).children.slice(block, heading.end))
    const { tr } = state
    if (target < from) tr.delete(from, to).insert(target, moved)
    else tr.insert(target, moved).delete(from, to)
    const at = target < from ? target : target - (to - from)
    tr.setSelection(TextSelection.near(tr.doc.resolve(at + 1)))
    dispatch(named(tr, `Moved the section ${quoted(heading.text)}`))
    return true
  }
}

/** Moves a heading and those under it a level up or down. */
export function promoteSection(block: number, direction: -1 | 1): Command {
  return (state, dispatch) => {
    const { styles } = documentAttrs(state.doc)
    const all = headingsOf(state.doc)
    const heading = all.find((own) => own.block === block)
    if (!heading) return false
    const inside = all.filter((own) => own.block >= block && own.block < heading.end)
    const next = inside.map((own) => headingStyle(styles, own.level + direction))
    if (next.some((key) => key === undefined)) return false
    if (!dispatch) return true
    const starts = blockStarts(state.doc)
    const { tr } = state
    inside.forEach((own, i) => tr.setNodeAttribute(starts[own.block] as number, "style", next[i]))
    dispatch(named(tr, `${direction < 0 ? "Up" : "Down"} a level: ${quoted(heading.text)}`))
    return true
  }
}

/** The heading at the caret, or the one in whose section it stands. */
export function headingAt(doc: Node, block: number): Heading | null {
  return headingsOf(doc).findLast((heading) => heading.block <= block) ?? null
}
