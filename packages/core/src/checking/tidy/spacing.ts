/** Space that was made by hand: blank paragraphs, blanks and tabs. */
import type { Node } from "prosemirror-model"
import { bodyOf, documentAttrs, leavesOf, paragraphAttrs, paragraphLook, setEntries, textOf } from "../../document"
import type { Finding, Rule } from "./rule"

/** So many blank paragraphs in a row were made to come to a new sheet. */
const toNewSheet = 5

const isBlank = (node: Node | null | undefined) =>
  node?.isTextblock === true && node.content.size === 0 && !paragraphAttrs(node).format?.breakBefore

/** Blank paragraphs of the body, in rows, with the paragraph before each. */
function rowsOf(doc: Node): { first: number; count: number }[] {
  const body = bodyOf(doc)
  const rows: { first: number; count: number }[] = []
  body.forEach((block, _offset, i) => {
    if (!isBlank(block)) return
    const last = rows.at(-1)
    if (last && last.first + last.count === i) last.count++
    else rows.push({ first: i, count: 1 })
  })
  // The last paragraph is where one goes on writing, and before the first there is nothing that could have space after it.
  return rows.filter(({ first, count }) => {
    const [before, behind] = [body.maybeChild(first - 1), body.maybeChild(first + count)]
    return before?.isTextblock === true && behind?.isTextblock === true
  })
}

function blanksOf(doc: Node, wanted: (count: number) => boolean, mend: (count: number, row: Row) => Finding["mend"]) {
  const body = bodyOf(doc)
  const leaves = leavesOf(doc)
  const starts: number[] = []
  body.forEach((_block, offset) => starts.push(offset + 1))
  return rowsOf(doc)
    .filter(({ count }) => wanted(count))
    .map(({ first, count }): Finding => {
      const from = starts[first] ?? 0
      const to = starts[first + count] ?? 0
      const row = { from, to, before: starts[first - 1] ?? 0, behind: to }
      return { leaf: leaves.at(from + 1), from, to, mend: mend(count, row) }
    })
}

interface Row {
  from: number
  to: number
  /** Positions of the paragraphs before and behind. */
  before: number
  behind: number
}

export const blankParagraphs: Rule = {
  id: "blankParagraphs",
  name: "Blank paragraphs as space",
  why: "They stay at the top of a sheet and fall apart when text is added above. Space behind a paragraph does neither.",
  act: "Space instead",
  find: (doc) =>
    blanksOf(
      doc,
      (count) => count < toNewSheet,
      (count, { from, to, before }) =>
        (tr) => {
          const { styles } = documentAttrs(tr.doc)
          const paragraph = tr.doc.nodeAt(before)
          if (!paragraph) return
          const { paragraph: look, letters } = paragraphLook(styles, paragraph)
          const added = Math.round(letters.size * 1.25 * count)
          tr.delete(from, to)
          setEntries(tr, before, "format", {
            ...paragraphAttrs(paragraph).format,
            spaceAfter: Math.min(200, look.spaceAfter + added),
          })
        },
    ),
}

export const blanksToSheet: Rule = {
  id: "blanksToSheet",
  name: "Blank paragraphs up to a new sheet",
  why: "When text is added above, what should begin a sheet moves on. A break stays where it is.",
  act: "A break instead",
  find: (doc) =>
    blanksOf(
      doc,
      (count) => count >= toNewSheet,
      (_count, { from, to, behind }) =>
        (tr) => {
          const paragraph = tr.doc.nodeAt(behind)
          if (!paragraph) return
          setEntries(tr, behind, "format", { ...paragraphAttrs(paragraph).format, breakBefore: true })
          tr.delete(from, to)
        },
    ),
}

/** Points by which a first line goes in where it was pushed by hand. */
const indent = 28

export const blanksAtStart: Rule = {
  id: "blanksAtStart",
  name: "Blanks or a tab before the first line",
  why: "Pushed by hand, no two paragraphs begin alike. An indent belongs to the paragraph.",
  act: "Indent instead",
  find(doc) {
    const leaves = leavesOf(doc)
    const { styles } = documentAttrs(doc)
    return leaves.nodes.flatMap((paragraph, leaf): Finding[] => {
      const length = /^(?:[ \u00a0]{2,}|\t)(?=\S)/.exec(textOf(paragraph).slice(0, 60))?.[0].length ?? 0
      const { tabs, align, list } = paragraphLook(styles, paragraph).paragraph
      if (length === 0 || tabs.length > 0 || list !== null || align === "center" || align === "right") return []
      const start = leaves.start(leaf)
      return [
        {
          leaf,
          from: start,
          to: start + length,
          mend(tr) {
            tr.delete(start, start + length)
            const own = tr.doc.nodeAt(start - 1)
            if (own) setEntries(tr, start - 1, "format", { ...paragraphAttrs(own).format, indentFirst: indent })
          },
        },
      ]
    })
  },
}

export const blanksAsTab: Rule = {
  id: "blanksAsTab",
  name: "Blanks that line text up",
  why: "Letters differ in width, so that blanks line up nothing. A tab leads to the same place in each line.",
  act: "A tab instead",
  find(doc) {
    const leaves = leavesOf(doc)
    return leaves.nodes.flatMap((paragraph, leaf) =>
      [...textOf(paragraph).matchAll(/(?<=[^\s]) {3,}(?=[^\s])/g)].map((match): Finding => {
        const from = leaves.start(leaf) + (match.index ?? 0)
        const to = from + match[0].length
        return {
          leaf,
          from,
          to,
          mend: (tr) => void tr.replaceWith(from, to, tr.doc.type.schema.text("\t", tr.doc.resolve(from).marks())),
        }
      }),
    )
  },
}
