/** Contents: lists of the headings that are made anew from the document wherever it is set, so that they are always right. */
import type { Node } from "prosemirror-model"
import { paragraph } from "./building"
import { captionEntries } from "./captions"
import { citedIn, stretchesOf, type Cited } from "./citations"
import { unknownValue } from "./fields"
import { headingsOf, type Heading } from "./headings"
import { structuresOf } from "./leaves"
import { bodyOf, documentAttrs, marks, schema } from "./schema"
import type { ParagraphFormat, StyleSheet, TabStop } from "./shapes"

/** What stands between a heading and its number: dots, a line, or nothing but the number close behind it. Or a list of the sources that are cited. */
export const contentsLooks = ["dotted", "ruled", "plain", "sources"] as const
/** Those of lists of contents proper. */
export const headingLooks = ["dotted", "ruled", "plain"] as const
export type ContentsLook = (typeof contentsLooks)[number]

export interface ContentsAttrs {
  /** Headings of so many levels. */
  levels: number
  look: ContentsLook
  /** The label of the captions that are listed; empty for the headings. */
  of: string
}

export function contentsAttrs(contents: Node): ContentsAttrs {
  return contents.attrs as ContentsAttrs
}

/** How contents look whose entries have such tab stops; null where no number stands at the end of their lines. */
export function lookOfStops(stops: readonly TabStop[]): ContentsLook | null {
  const last = stops.findLast(({ align }) => align === "right")
  if (!last) return null
  return last.leader === "none" ? "plain" : last.leader === "solid" ? "ruled" : "dotted"
}

/**
 * Contents look as the first of their entries do at whose end a number stands; if none does, it stands close behind the words.
 * @param found how that entry looks
 * @param any whether there are entries at all
 */
export const lookOfEntries = (found: ContentsLook | null, any: boolean): ContentsLook =>
  found ?? (any ? "plain" : "dotted")

/** An entry: a paragraph that is nowhere in the document, and the heading that it stands for. */
export interface ContentsEntry {
  node: Node
  /** null for a source. */
  heading: Heading | null
}

/** So much farther in stands each level, in points. */
const step = 18

const made = new WeakMap<Node, Map<string, Node>>()

/** What a list of contents was made of last, and its entries: they are the same with each letter that is typed. */
interface Listing {
  headings: readonly Heading[]
  styles: StyleSheet
  width: number
  pages: ReadonlyMap<number, string> | null
  entries: readonly ContentsEntry[]
}
const latest = new WeakMap<Node, Listing>()

/** Whether a document has a list of contents in its body. */
export function hasContents(doc: Node): boolean {
  return structuresOf(bodyOf(doc), "contents").length > 0
}

/**
 * The entries of a list of contents.
 * @param pages the numbers of the sheets on which headings begin, by leaf; null where there are none
 */
export function entriesOf(
  doc: Node,
  contents: Node,
  width: number,
  pages: ReadonlyMap<number, string> | null,
): readonly ContentsEntry[] {
  const { levels, look, of } = contentsAttrs(contents)
  if (look === "sources") return sourceEntries(doc)
  const { styles } = documentAttrs(doc)
  const headings = of === "" ? headingsOf(doc) : captionEntries(doc, of)
  const before = latest.get(contents)
  if (before?.headings === headings && before.styles === styles && before.width === width && before.pages === pages)
    return before.entries
  let known = made.get(contents)
  if (!known) made.set(contents, (known = new Map()))
  const { defaults } = styles
  const entries = headings
    .filter(({ level, listed }) => level <= levels && listed !== null)
    .map((heading) => {
      const { level, label, listed, leaf } = heading
      const page = pages === null ? "" : (pages.get(leaf) ?? unknownValue)
      const words = `${label ? `${label} ` : ""}${listed}`
      const key = `${level} ${width} ${defaults.letters.size} ${words}\t${page}`
      let node = known.get(key)
      if (!node) {
        const format: Partial<ParagraphFormat> = {
          align: "left",
          indentFirst: 0,
          indentLeft: (level - 1) * step,
          indentRight: 0,
          spaceBefore: level === 1 ? 4 : 0,
          spaceAfter: 2,
          lineSpacing: { rule: "multiple", value: 1.15 },
          hyphenate: false,
          ...(look === "plain"
            ? { tabs: [] }
            : { tabs: [{ position: width, align: "right", leader: look === "dotted" ? "dotted" : "solid" }] }),
        }
        const between = page === "" ? "" : look === "plain" ? `  ${page}` : `\t${page}`
        node = paragraph("body", [schema.text(words + between)], format)
        if (known.size > 5000) known.clear()
        known.set(key, node)
      }
      return { node, heading }
    })
  latest.set(contents, { headings, styles, width, pages, entries })
  return entries
}

const sourceNodes = new WeakMap<Cited, readonly ContentsEntry[]>()

/** The sources that are cited, as the style writes them. */
function sourceEntries(doc: Node): readonly ContentsEntry[] {
  const cited = citedIn(doc)
  let found = sourceNodes.get(cited)
  if (!found) {
    const styled = Object.hasOwn(documentAttrs(doc).styles.styles, "reference")
    found = cited.references.map(({ text }) => ({
      node: paragraph(
        styled ? "reference" : "body",
        stretchesOf(text).map((own) =>
          schema.text(own.text, [
            ...(own.italic ? [marks.italic.create({ value: true })] : []),
            ...(own.raised ? [marks.script.create({ value: "super" })] : []),
          ]),
        ),
      ),
      heading: null,
    }))
    sourceNodes.set(cited, found)
  }
  return found
}
