/** What goes wrong at heads and feet: a number that was typed, letters of another family than the text's. */
import type { Node } from "prosemirror-model"
import {
  documentAttrs,
  leavesOf,
  letterLook,
  marks,
  nodes,
  paragraphLook,
  storiesOf,
  styleLook,
  textOf,
  typedSheetNumbers,
  type StyleSheet,
} from "../../document"
import type { Finding, Rule } from "./rule"

/** The leaves of heads and feet, by their numbers. */
function edgeLeaves(doc: Node): [node: Node, leaf: number][] {
  const leaves = leavesOf(doc)
  const stories = storiesOf(doc)
  return leaves.nodes.flatMap((node, leaf): [Node, number][] => {
    const { story } = leaves.flow(leaf)
    const kind = story === null ? null : stories.get(story)?.node.attrs.kind
    return kind === "header" || kind === "footer" ? [[node, leaf]] : []
  })
}

export const typedNumbers: Rule = {
  id: "typedNumbers",
  name: "Numbers of sheets typed by hand",
  why: "A typed number is the same on every sheet. A field shows the number of its own.",
  act: "The sheet’s number",
  find(doc) {
    const leaves = leavesOf(doc)
    return edgeLeaves(doc).flatMap(([node, leaf]) =>
      typedSheetNumbers(textOf(node)).map((typed): Finding => {
        const [from, to] = [leaves.start(leaf) + typed.from, leaves.start(leaf) + typed.to]
        return {
          leaf,
          from,
          to,
          mend: (tr) =>
            void tr.replaceWith(
              from,
              to,
              nodes.field.create({ kind: "page", format: "" }, null, tr.doc.resolve(to).marks()),
            ),
        }
      }),
    )
  },
}

/** The families of the text and of its headings: what a head or foot may be set in. */
function familiesOf(doc: Node, styles: StyleSheet): { text: string; all: ReadonlySet<string> } {
  const count = new Map<string, number>()
  const leaves = leavesOf(doc)
  leaves.nodes.forEach((node, leaf) => {
    if (leaves.flow(leaf).story !== null) return
    const { family } = paragraphLook(styles, node).letters
    count.set(family, (count.get(family) ?? 0) + node.content.size)
  })
  const text = [...count].reduce((most, own) => (own[1] > most[1] ? own : most), ["", -1])[0]
  const styled = Object.keys(styles.styles).map((key) => styleLook(styles, key).letters.family)
  return { text, all: new Set([...count.keys(), ...styled]) }
}

export const strangeEdges: Rule = {
  id: "strangeEdges",
  name: "Heads and feet in another typeface",
  why: "A head or foot in a typeface that nothing else has looks as if it came from another document.",
  act: "The text’s typeface",
  find(doc) {
    const edges = edgeLeaves(doc)
    if (edges.length === 0) return []
    const { styles } = documentAttrs(doc)
    const { text, all } = familiesOf(doc, styles)
    const leaves = leavesOf(doc)
    return edges.flatMap(([node, leaf]): Finding[] => {
      const { letters } = paragraphLook(styles, node)
      const start = leaves.start(leaf)
      const strange: { from: number; to: number }[] = []
      node.forEach((child, offset) => {
        const { family } = letterLook(styles, letters, child.marks)
        if (!all.has(family)) strange.push({ from: start + offset, to: start + offset + child.nodeSize })
      })
      const [first, last] = [strange[0], strange.at(-1)]
      if (!first || !last) return []
      const mark = marks.family.create({ value: text })
      return [
        {
          leaf,
          from: first.from,
          to: last.to,
          mend(tr) {
            for (const { from, to } of strange) {
              if (letters.family === text) tr.removeMark(from, to, marks.family)
              else tr.addMark(from, to, mark)
            }
          },
        },
      ]
    })
  },
}
