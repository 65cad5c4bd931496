/** Paper, margins and columns, for the document or a section of it; and sections. */
import type { ResolvedPos } from "prosemirror-model"
import { TextSelection, type EditorState, type Transaction } from "prosemirror-state"
import { edgeAt, fitSetup, nodes, sectionAt, sectionsOf, setEntries, type PageSetup, type Section } from "../document"
import type { Command } from "./command"
import { named } from "./history"

/** The section that the caret is in; in a head or foot, the one whose that is. */
export function sectionHere(state: EditorState): number {
  const { head } = state.selection
  return edgeAt(state.doc, head)?.section ?? sectionAt(state.doc, head)
}

export function setupHere(state: EditorState): PageSetup {
  return (sectionsOf(state.doc)[sectionHere(state)] as Section).setup
}

/** Sets a section's setup, within its bounds. */
export function putSetup(tr: Transaction, { pos }: Section, setup: PageSetup): Transaction {
  return setEntries(tr, pos, "setup", fitSetup(setup))
}

/** Changes the setup of all sections, or of the one with the caret. */
export function changeSetup(change: (setup: PageSetup) => PageSetup, scope: "all" | "here", name: string): Command {
  return (state, dispatch) => {
    const sections = sectionsOf(state.doc)
    const here = sectionHere(state)
    const { tr } = state
    // Setting entries moves nothing.
    sections.forEach((section, i) => {
      if (scope !== "all" && i !== here) return
      const changed = change(section.setup)
      // A cover stands in one column whatever the text does.
      putSetup(tr, section, section.setup.cover ? { ...changed, columns: section.setup.columns } : changed)
    })
    if (!tr.docChanged) return false
    dispatch?.(named(tr, name))
    return true
  }
}

/** The paper turned, its margins with it. */
export function turned(setup: PageSetup): PageSetup {
  const { width, height, margins } = setup
  return {
    ...setup,
    width: height,
    height: width,
    margins: { top: margins.left, right: margins.top, bottom: margins.right, left: margins.bottom },
  }
}

/** What a section has that begins behind another: its paper and columns, and the heads and feet that it shows; its sheets are counted on. */
export function setupBehind(before: PageSetup, begins: PageSetup["begins"]): PageSetup {
  const own = { all: null, first: null, left: null }
  return fitSetup({
    ...before,
    begins,
    cover: null,
    head: { ...before.head, ...own },
    foot: { ...before.foot, ...own },
    numbering: { ...before.numbering, start: null },
  })
}

/** Ends a section between two blocks of the body. @returns the position behind the break */
export function breakSection(tr: Transaction, at: number, setup: PageSetup): number {
  // A section of nothing but contents, say, has a line for the caret.
  const above = tr.doc.resolve(at).nodeBefore
  const lacking = !above?.isTextblock && above?.type !== nodes.table
  tr.insert(at, [...(lacking ? [nodes.paragraph.create()] : []), nodes.sectionBreak.create({ setup })])
  return at + (lacking ? 3 : 1)
}

/** The same at a place in the body itself, where its paragraph is divided; the caret stands behind the break. */
export function breakSectionAt(tr: Transaction, $at: ResolvedPos, setup: PageSetup): number {
  let at = $at.before()
  if ($at.parentOffset > 0) {
    tr.split($at.pos)
    at = $at.pos + 1
  }
  const behind = breakSection(tr, at, setup)
  tr.setSelection(TextSelection.near(tr.doc.resolve(behind)))
  return behind
}

/** From the caret on, the text stands in a section of its own. Only in the body itself, not at its very beginning. */
export function startSection(begins: PageSetup["begins"], change: (setup: PageSetup) => PageSetup): Command {
  return (state, dispatch) => {
    const { $head } = state.selection
    const top = $head.depth === 2 && $head.node(1).type === nodes.body
    if (!top || ($head.index(1) === 0 && $head.parentOffset === 0)) return false
    if (!dispatch) return true
    const setup = setupBehind(change(setupHere(state)), begins)
    const { tr } = state
    breakSectionAt(tr, $head, setup)
    dispatch(named(tr, "New section").scrollIntoView())
    return true
  }
}

/** Takes away where the section with the caret begins: its text goes on in the section before it, with that one's setup. */
export const joinSections: Command = (state, dispatch) => {
  const { pos } = sectionsOf(state.doc)[sectionHere(state)] as Section
  if (pos === null) return false
  dispatch?.(named(state.tr.delete(pos, pos + 1), "Sections joined").scrollIntoView())
  return true
}
