/** The headings of a document, for its outline, its contents and the bookmarks of its PDF. */
import type { Node } from "prosemirror-model"
import { leavesOf, leavesOfBody } from "./leaves"
import { outlineLevel, paragraphLook } from "./look"
import { labelsOf } from "./numbering"
import { documentAttrs } from "./schema"
import type { StyleSheet } from "./shapes"
import { spokenText } from "./spoken"

export interface Heading {
  leaf: number
  level: number
  text: string
  /** The words for it in a list of contents; null where it is left out. */
  listed: string | null
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
  const count = leavesOfBody(doc)
  const headings: Heading[] = []
  const open: Heading[] = []
  leaves.nodes.forEach((leaf, number) => {
    const level = outlineLevel(styles, leaf)
    if (level === null || leaves.flow(number).story !== null) return
    while (open.length > 0 && (open.at(-1)?.level ?? 0) >= level) (open.pop() as Heading).end = number
    const text = spokenText(styles, leaf).replaceAll("\n", " ").trim()
    const { listed, listedAs } = paragraphLook(styles, leaf).paragraph
    const heading: Heading = {
      leaf: number,
      level,
      text,
      listed: (listed && (listedAs || text)) || null,
      label: labels[number] ?? null,
      skips: level > (headings.at(-1)?.level ?? 0) + 1,
      end: count,
    }
    headings.push(heading)
    open.push(heading)
  })
  known.set(doc, { styles, headings })
  return headings
}
