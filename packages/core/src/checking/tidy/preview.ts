/** How a place reads before and after it is put right, in a few words. */
import type { Node } from "prosemirror-model"
import { Transform } from "prosemirror-transform"
import { documentAttrs, leavesOf, paragraphAttrs, paragraphLook, styleOf, textOf } from "../../document"
import type { Finding } from "./rule"

/** So many letters are shown before a place, and behind it. */
const around = [16, 34] as const

function wordsOf(doc: Node, leaf: number, from: number, to: number): string {
  const leaves = leavesOf(doc)
  const node = leaves.find(leaf)
  if (!node) return ""
  const { styles } = documentAttrs(doc)
  const start = leaves.start(leaf)
  const text = textOf(node)
  const [first, last] = [Math.max(0, from - start - around[0]), Math.max(0, to - start) + around[1]]
  const words = text.slice(first, last).replace(/[\ufffc\n]/g, " ")
  const style = styleOf(styles, paragraphAttrs(node).style)
  const { level } = paragraphLook(styles, node)
  return [
    paragraphAttrs(node).format?.breakBefore ? "On a new sheet: " : "",
    style?.outline ? `${style.name}: ` : "",
    level ? (level.kind === "number" ? "1. " : "• ") : "",
    first > 0 ? "…" : "",
    words,
    last < text.length ? "…" : "",
  ].join("")
}

/** What stands at a place now, and what would once it was put right; null where that takes a person's words. */
export function previewOf(doc: Node, finding: Finding): { before: string; after: string | null } {
  const { leaf, from, to, mend } = finding
  const before = wordsOf(doc, leaf, from, to)
  if (!mend) return { before, after: null }
  const tr = new Transform(doc)
  mend(tr)
  const leaves = leavesOf(tr.doc)
  const pos = Math.min(tr.mapping.map(from, -1) + 1, tr.doc.content.size)
  const own = Math.min(leaves.at(pos), leaves.count - 1)
  return { before, after: wordsOf(tr.doc, own, tr.mapping.map(from, -1), tr.mapping.map(to, 1)) }
}
