/** What people do about what checking found. */
import type { Node } from "prosemirror-model"
import type { Transform } from "prosemirror-transform"
import { documentAttrs, limits, schema, setEntries } from "../document"
import type { Command } from "./command"
import { named, quoted } from "./history"

/** Text by its positions, and what is put in its place. */
export interface Repair {
  from: number
  to: number
  text: string
}

/** Puts right several places at once; each keeps its look. Those that are no stretch of a paragraph are left, and of those that overlap the last one counts. */
export function repairText(repairs: readonly Repair[], name: string): Command {
  return (state, dispatch) => {
    const inOneParagraph = ({ from, to }: Repair) => {
      if (from >= to || to > state.doc.content.size) return false
      const [$from, $to] = [state.doc.resolve(from), state.doc.resolve(to)]
      return $from.parent.isTextblock && $from.sameParent($to)
    }
    const able = repairs.filter(inOneParagraph)
    if (able.length === 0) return false
    if (!dispatch) return true
    const { tr } = state
    let before = Infinity
    for (const { from, to, text } of able.sort((a, b) => b.from - a.from)) {
      if (to > before) continue
      before = from
      const marks = state.doc.resolve(from).marksAcross(state.doc.resolve(to)) ?? []
      if (text === "") tr.delete(from, to)
      else tr.replaceWith(from, to, schema.text(text, marks))
    }
    dispatch(named(tr, name))
    return true
  }
}

/** Puts a name into a list that checking goes by, or takes it out. */
function listed(list: "known" | "left", own: string, isListed: boolean, name: string): Command {
  return (state, dispatch) => {
    if (own === "" || own.length > limits.name || own === "__proto__") return false
    const { checks } = documentAttrs(state.doc)
    if (Object.hasOwn(checks[list], own) === isListed) return false
    const { [own]: _gone, ...rest } = checks[list]
    const next = { ...checks, [list]: isListed ? { ...rest, [own]: true as const } : rest }
    dispatch?.(named(setEntries(state.tr, null, "checks", next), name))
    return true
  }
}

/** Says that a word is right in this document, or no longer. */
export function knowWord(word: string, known: boolean): Command {
  return listed("known", word, known, `${quoted(word)} is ${known ? "right here" : "checked again"}`)
}

/** Says that a remark on the wording is not wanted in this document, or again. @param remark see remarkName of checking/wording */
export function leaveRemark(remark: string, left: boolean): Command {
  return listed("left", remark, left, left ? "A remark left" : "A remark heard again")
}

/** Something that can be put right: see Finding of checking/tidy. */
interface Mendable {
  from: number
  mend: ((tr: Transform) => void) | null
}

/** Puts right what rules find, rule after rule, each in what the one before it left; one undo takes all back. */
export function mendAll(finders: readonly ((doc: Node) => readonly Mendable[])[], name: string): Command {
  return (state, dispatch) => {
    const { tr } = state
    for (const find of finders)
      // From the end on, so that no place moves before its turn.
      for (const { mend } of [...find(tr.doc)].sort((a, b) => b.from - a.from)) mend?.(tr)
    if (!tr.docChanged) return false
    dispatch?.(named(tr, name))
    return true
  }
}
