/** Lists that were typed by hand, with marks and numbers as text. */
import type { Node } from "prosemirror-model"
import { textOf } from "./leaves"
import { newRun } from "./lists"
import type { ListPlace } from "./shapes"

const typedMarks: readonly [RegExp, string][] = [
  [/^(?:[-–*•])[ \t]/, "marks"],
  [/^\+[ \t]/, "crosses"],
  [/^\[[ xX]?\][ \t]/, "tasks"],
  [/^(\d{1,3})\.[ \t]/, "numbers"],
  [/^(\d{1,3})\)[ \t]/, "brackets"],
  [/^\((\d{1,3})\)[ \t]/, "enclosed"],
  [/^(1\.1)[ \t]/, "clauses"],
  [/^a\.[ \t]/, "points"],
  [/^\(?a\)[ \t]/, "letters"],
  [/^i\.[ \t]/, "smallRomans"],
  [/^(A)[.)][ \t]/, "capitals"],
  [/^(I)[.)][ \t]/, "romans"],
]

export interface TypedItem {
  definition: string
  level: number
  /** Characters of the mark, with the blank behind it. */
  length: number
  /** The number where it is not the first. */
  start: number | null
  done: boolean
}

/** The list that text begins as if it were an item typed by hand, and how long its mark is. */
export function typedItem(text: string): TypedItem | null {
  for (const [pattern, definition] of typedMarks) {
    const match = pattern.exec(text)
    if (!match) continue
    const n = Number(match[1])
    return {
      definition,
      level: definition === "clauses" ? 1 : 0,
      length: match[0].length,
      start: Number.isInteger(n) && n !== 1 && match[1] ? n : null,
      done: /[xX]/.test(match[0]) && definition === "tasks",
    }
  }
  return null
}

/** Paragraphs of which at least two in a row begin with marks typed by hand, as items of lists. */
export function withTypedLists(paragraphs: readonly Node[]): Node[] {
  const typed = paragraphs.map((node) => (node.isTextblock ? typedItem(textOf(node)) : null))
  let run = ""
  return paragraphs.map((node, i) => {
    const own = typed[i]
    const follows = own && typed[i - 1]?.definition === own.definition
    if (!own || (!follows && typed[i + 1]?.definition !== own.definition)) return node
    if (!follows) run = newRun()
    const place: ListPlace = {
      definition: own.definition,
      run,
      level: own.level,
      ...(own.start !== null && !follows ? { start: own.start } : {}),
      ...(own.definition === "tasks" ? { done: own.done } : {}),
    }
    const format = { ...(node.attrs.format as object | null), list: place }
    return node.type.create({ ...node.attrs, format }, node.content.cut(own.length))
  })
}
