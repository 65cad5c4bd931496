/** The outline: headings, and the sections that they begin. A section is a heading and all up to the next of its level or above. */
import { Fragment, type Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import { documentAttrs, labelsOf, leavesOf, outlineLevel, spokenText, type StyleSheet } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { headingStyle } from "./styles"

export interface Heading {
  leaf: number
  level: number
  text: string
  /** Its number, if headings are numbered. */
  label: string | null
  /** Whether it stands more than one level below the heading before it. */
  skips: boolean
  /** Leaf behind its section. */
  end: number
}

const known = new WeakMap<Node, { styles: StyleSheet; headings: readonly Heading[] }>()

/** The headings of a document in order. */
export function headingsOf(doc: Node): readonly Heading[] {
  const leaves = leavesOf(doc)
  const { styles } = documentAttrs(doc)
  const remembered = known.get(doc)
  if (remembered?.styles === styles) return remembered.headings
  const labels = labelsOf(doc)
  const headings: Heading[] = []
  const open: Heading[] = []
  leaves.nodes.forEach((leaf, number) => {
    const level = outlineLevel(styles, leaf)
    if (level === null) return
    while (open.length > 0 && (open.at(-1)?.level ?? 0) >= level) (open.pop() as Heading).end = number
    const heading: Heading = {
      leaf: number,
      level,
      text: spokenText(styles, leaf).replaceAll("\n", " ").trim(),
      label: labels[number] ?? null,
      skips: level > (headings.at(-1)?.level ?? 0) + 1,
      end: leaves.count,
    }
    headings.push(heading)
    open.push(heading)
  })
  known.set(doc, { styles, headings })
  return headings
}

/** Moves a section, with all in it, before another leaf (the number of leaves for the end). */
export function moveSection(leaf: number, before: number): Command {
  return (state, dispatch) => {
    const heading = headingsOf(state.doc).find((own) => own.leaf === leaf)
    if (!heading || (before >= leaf && before <= heading.end) || before < 0 || before > leavesOf(state.doc).count)
      return false
    if (!dispatch) return true
    const leaves = leavesOf(state.doc)
    const [from, to, target] = [leaves.before(leaf), leaves.before(heading.end), leaves.before(before)]
    const moved = Fragment.from(leaves.nodes.slice(leaf, heading.end))
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
export function promoteSection(leaf: number, direction: -1 | 1): Command {
  return (state, dispatch) => {
    const { styles } = documentAttrs(state.doc)
    const all = headingsOf(state.doc)
    const heading = all.find((own) => own.leaf === leaf)
    if (!heading) return false
    const inside = all.filter((own) => own.leaf >= leaf && own.leaf < heading.end)
    const next = inside.map((own) => headingStyle(styles, own.level + direction))
    if (next.some((key) => key === undefined)) return false
    if (!dispatch) return true
    const leaves = leavesOf(state.doc)
    const { tr } = state
    inside.forEach((own, i) => tr.setNodeAttribute(leaves.before(own.leaf), "style", next[i]))
    dispatch(named(tr, `${direction < 0 ? "Up" : "Down"} a level: ${quoted(heading.text)}`))
    return true
  }
}

/** The heading at the caret, or the one in whose section it stands. */
export function headingAt(doc: Node, leaf: number): Heading | null {
  return headingsOf(doc).findLast((heading) => heading.leaf <= leaf) ?? null
}
