/** Paragraphs that were made to look otherwise than others of their style. */
import type { Node } from "prosemirror-model"
import { documentAttrs, leavesOf, letterLook, marks, paragraphAttrs, paragraphLook } from "../../document"
import type { Finding, Rule } from "./rule"

/** Of a style's paragraphs so many at least, and such a part of them, have to look as it says before another look is strange. */
const least = 3
const part = 2 / 3

/** Whether all letters of a paragraph were put into another typeface or size than its style says; null for one without letters. */
const lookCache = new WeakMap<Node, { styles: unknown; strange: boolean | null }>()

export const strangeLooks: Rule = {
  id: "strangeLooks",
  name: "Paragraphs in another typeface or size than their like",
  why: "Others of the same style look as that says. These were made otherwise by hand, or came so from elsewhere.",
  act: "As the others",
  find(doc) {
    const { styles } = documentAttrs(doc)
    const leaves = leavesOf(doc)
    const isStrange = (node: Node): boolean | null => {
      const known = lookCache.get(node)
      if (known?.styles === styles) return known.strange
      const { letters } = paragraphLook(styles, node)
      let strange: boolean | null = null
      node.forEach((child) => {
        if (!child.isText || child.text?.trim() === "") return
        const byHand = child.marks.some(({ type }) => type === marks.family || type === marks.size)
        const own = byHand ? letterLook(styles, letters, child.marks) : letters
        // Lines in bold are headings made by hand, which another rule finds.
        const differs = own.bold === letters.bold && (own.family !== letters.family || own.size !== letters.size)
        strange = strange !== false && differs
      })
      lookCache.set(node, { styles, strange })
      return strange
    }
    const found = new Map<string, { plain: number; strange: number[] }>()
    leaves.nodes.forEach((node, leaf) => {
      const strange = isStrange(node)
      if (strange === null || leaves.flow(leaf).kind !== "body") return
      const { style } = paragraphAttrs(node)
      let own = found.get(style)
      if (!own) found.set(style, (own = { plain: 0, strange: [] }))
      if (strange) own.strange.push(leaf)
      else own.plain++
    })
    const told = [...found.values()].filter(
      ({ plain, strange }) => plain >= least && plain >= (plain + strange.length) * part,
    )
    return told
      .flatMap(({ strange }) => strange)
      .sort((a, b) => a - b)
      .map((leaf): Finding => {
        const [from, to] = [leaves.start(leaf), leaves.end(leaf)]
        return {
          leaf,
          from,
          to,
          mend: (tr) => void tr.removeMark(from, to, marks.family).removeMark(from, to, marks.size),
        }
      })
  },
}
