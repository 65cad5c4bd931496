/** The outline: headings, and the sections that they begin. A section is a heading and all up to the next of its level or above. */
import type { Node } from "prosemirror-model"
import { TextSelection } from "prosemirror-state"
import { bodyOf, documentAttrs, headingsOf, leavesOf, leavesOfBody, type Heading } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"
import { headingStyle } from "./styles"

/** Moves a section, with all in it, before another leaf (the number of leaves for the end). */
export function moveSection(leaf: number, before: number): Command {
  return (state, dispatch) => {
    const heading = headingsOf(state.doc).find((own) => own.leaf === leaf)
    if (!heading || (before >= leaf && before <= heading.end) || before < 0 || before > leavesOfBody(state.doc))
      return false
    const leaves = leavesOf(state.doc)
    const end = bodyOf(state.doc).nodeSize - 1
    const place = (own: number) => (own < leavesOfBody(state.doc) ? leaves.before(own) : end)
    const [from, to, target] = [place(leaf), place(heading.end), place(before)]
    // Only what stands in the body itself is moved, with all that stands between.
    if ([from, to, target].some((pos) => state.doc.resolve(pos).depth !== 1)) return false
    if (!dispatch) return true
    const moved = bodyOf(state.doc).slice(from - 1, to - 1).content
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
