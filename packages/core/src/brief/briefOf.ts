/** The brief that a document follows as it is. */
import type { Node } from "prosemirror-model"
import { documentAttrs, leavesOf, letterLook, paragraphLook, styleLook, type Brief, type EdgeName } from "../document"
import { paragraphsFor } from "./judging"
import { titleBlockOf } from "./front"
import { beginsSheet, referencesOf } from "./parts"
import { edgeWords, plainSections } from "./sheet"

/** What most of the text has, by how many letters have it. */
function mostly<T>(values: readonly (readonly [value: T, weight: number])[], otherwise: T): T {
  const sums = new Map<T, number>()
  for (const [value, weight] of values) sums.set(value, (sums.get(value) ?? 0) + weight)
  return [...sums].sort((a, b) => b[1] - a[1])[0]?.[0] ?? otherwise
}

/** Reads out of a document what another one would have to be like to look the same. */
export function briefOf(doc: Node, name: string): Brief {
  const { styles } = documentAttrs(doc)
  const text = paragraphsFor(doc).filter(({ kind }) => kind === "text")
  const body = styleLook(styles, "body")
  const letters = text.flatMap(({ node, look }) =>
    node.children
      .filter((child) => child.isText)
      .map((child) => [letterLook(styles, look.letters, child.marks), child.nodeSize] as const),
  )
  const format = text.map(({ look, node }) => [look.paragraph, node.content.size] as const)
  const spacing = mostly(
    format.map(([{ lineSpacing }, weight]) => [lineSpacing.rule === "multiple" ? lineSpacing.value : null, weight]),
    null,
  )
  const align = mostly(
    format.map(([own, weight]) => [own.align, weight]),
    body.paragraph.align,
  )
  const first = plainSections(doc)[0]
  const setup = first?.section.setup ?? documentAttrs(doc).setup
  const headings = ["heading1", "heading2", "heading3"].map((style) => {
    const look = styleLook(styles, style)
    return {
      align: look.paragraph.align === "center" ? ("center" as const) : ("left" as const),
      bold: look.letters.bold,
      italic: look.letters.italic,
      size: look.letters.size,
    }
  })
  const edges = (["head", "foot"] as EdgeName[]).flatMap((edge) =>
    [0, 1, 2].flatMap((part) => {
      const where = { edge, part }
      const shown = first && edgeWords(doc, first.number, where, "all")
      if (!shown) return []
      return [
        { ...where, text: shown, first: !setup.firstOwn || edgeWords(doc, first.number, where, "first") === shown },
      ]
    }),
  )
  const numbers = edges.find(({ text: own }) => own.includes("{page}"))
  const runningHead = edges.find(({ text: own, edge }) => edge === "head" && !own.includes("{page}"))
  const lines = titleBlockOf(doc, {
    lines: ["title", "subtitle", "author", "organisation", "date"],
  }).filter(({ leaf }) => leaf !== null)
  const last = Math.max(-1, ...lines.map(({ leaf }) => leaf as number))
  const titled = lines.find(({ name: own }) => own === "title")?.leaf ?? lines[0]?.leaf
  const title =
    typeof titled === "number" ? paragraphLook(styles, leavesOf(doc).node(titled)) : styleLook(styles, "title")
  const list = referencesOf(doc, { heading: "References" })
  const hanging = styleLook(styles, "reference").paragraph.indentLeft
  return {
    name,
    typeface: mostly(
      letters.map(([{ family }, weight]) => [family, weight]),
      body.letters.family,
    ),
    size: mostly(
      letters.map(([{ size }, weight]) => [size, weight]),
      body.letters.size,
    ),
    ...(spacing === null ? {} : { lineSpacing: spacing }),
    spaceBetween: mostly(
      format.map(([own, weight]) => [own.spaceAfter, weight]),
      body.paragraph.spaceAfter,
    ),
    indentFirst: Math.max(
      0,
      mostly(
        format.map(([own, weight]) => [own.indentFirst, weight]),
        body.paragraph.indentFirst,
      ),
    ),
    ...(align === "left" || align === "justify" ? { align } : {}),
    language: styles.defaults.letters.language,
    paper: { width: Math.min(setup.width, setup.height), height: Math.max(setup.width, setup.height) },
    margins: setup.margins,
    ...(lines.length > 0
      ? {
          titleBlock: {
            ownSheet: beginsSheet(doc, last + 1),
            align: title.paragraph.align === "center" ? ("center" as const) : ("left" as const),
            size: title.letters.size,
            lines: lines.map(({ name: own }) => own),
          },
        }
      : {}),
    ...(runningHead ? { runningHead } : {}),
    ...(numbers ? { numbers } : {}),
    headings,
    ...(list
      ? {
          references: {
            heading: list.heading.text.trim().slice(0, 80),
            ownSheet: beginsSheet(doc, list.heading.leaf),
            hanging,
            sorted: true,
          },
        }
      : {}),
  }
}
