/** Rules that look at the text of paragraphs one by one, and so remember what they found there by node. */
import type { Node } from "prosemirror-model"
import { leavesOf, schema, textOf } from "../../document"
import type { Finding, Rule } from "./rule"

/** A stretch of a paragraph by its offsets, and what belongs there. */
export interface Slip {
  from: number
  to: number
  text: string
}

/** @param slips in the order of the text, none overlapping another */
export function textRule(about: Omit<Rule, "find">, slips: (text: string, paragraph: Node) => readonly Slip[]): Rule {
  const known = new WeakMap<Node, readonly Slip[]>()
  return {
    ...about,
    find(doc) {
      const leaves = leavesOf(doc)
      const found: Finding[] = []
      leaves.nodes.forEach((paragraph, leaf) => {
        let own = known.get(paragraph)
        if (!own) known.set(paragraph, (own = slips(textOf(paragraph), paragraph)))
        if (own.length === 0) return
        const start = leaves.start(leaf)
        for (const { from, to, text } of own)
          found.push({
            leaf,
            from: start + from,
            to: start + to,
            mend: (tr) => put(tr, start + from, start + to, text),
          })
      })
      return found
    },
  }
}

/** Puts text in the place of other text and keeps its look. */
function put(tr: Parameters<NonNullable<Finding["mend"]>>[0], from: number, to: number, text: string): void {
  const marks = tr.doc.resolve(from).marksAcross(tr.doc.resolve(to)) ?? []
  if (text === "") tr.delete(from, to)
  else tr.replaceWith(from, to, schema.text(text, marks))
}

/** The places of a pattern, each with what belongs there. */
export const matches = (text: string, pattern: RegExp, right: (match: RegExpMatchArray) => string): Slip[] =>
  [...text.matchAll(pattern)].map((match) => ({
    from: match.index ?? 0,
    to: (match.index ?? 0) + match[0].length,
    text: right(match),
  }))
