/** The headings of a document, for its outline, its contents and the bookmarks of its PDF. */
import type { Node } from "prosemirror-model"
import { changedInBody, leavesOf, leavesOfBody } from "./leaves"
import { outlineLevel, paragraphLook } from "./look"
import { labelsOf, type Labels } from "./numbering"
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

interface Found {
  doc: WeakRef<Node>
  labels: Labels
  headings: readonly Heading[]
}
const known = new WeakMap<Node, Found>()
/** What was asked for last, by style sheet. */
const latest = new WeakMap<StyleSheet, Found>()

/** The headings of the document asked for before, if nothing that has changed since is one: the same list. */
function stillThose(doc: Node, styles: StyleSheet, labels: Labels): readonly Heading[] | undefined {
  const before = latest.get(styles)
  const older = before?.doc.deref()
  if (!before || !older || before.labels !== labels || leavesOfBody(older) !== leavesOfBody(doc)) return undefined
  const change = changedInBody(older, doc)
  if (!change) return before.headings
  const plain = (own: Node, from: number, to: number) =>
    leavesOf(own)
      .between(from, to)
      .every((leaf) => outlineLevel(styles, leaf) === null)
  return change.newTo === change.oldTo &&
    plain(older, change.from, change.oldTo) &&
    plain(doc, change.from, change.newTo)
    ? before.headings
    : undefined
}

/** The headings of a document in order. */
export function headingsOf(doc: Node): readonly Heading[] {
  const { styles } = documentAttrs(doc)
  const remembered = known.get(doc)
  if (remembered) return remembered.headings
  const labels = labelsOf(doc)
  const headings = stillThose(doc, styles, labels) ?? findHeadings(doc, styles, labels)
  const found = { doc: new WeakRef(doc), labels, headings }
  known.set(doc, found)
  latest.set(styles, found)
  return headings
}

function findHeadings(doc: Node, styles: StyleSheet, labels: Labels): Heading[] {
  const leaves = leavesOf(doc)
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
  return headings
}
