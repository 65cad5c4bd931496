/** What stands before the text of a paper: its title, and who wrote it. */
import type { Node } from "prosemirror-model"
import { documentAttrs, fieldAttrs, nodes, textOf, type Brief, type Properties } from "../document"
import { leafWords } from "../checking"
import { allParagraphs } from "./paragraphs"

/** Words of the longest paragraph that stands before the text, as a name or date does. */
const longestLine = 20
/** Paragraphs that are looked at for what stands before the text. */
const mostLines = 12

/** The paragraphs before the text: up to the first heading, or the first that is long. */
function titleLines(doc: Node): readonly { leaf: number; node: Node; title: boolean }[] {
  const found: { leaf: number; node: Node; title: boolean }[] = []
  for (const { leaf, node, kind } of allParagraphs(doc).slice(0, mostLines)) {
    const title = kind === "title" || kind === "subtitle"
    if (!title && (kind !== "text" || leafWords(node) > longestLine)) break
    found.push({ leaf, node, title: kind === "title" })
  }
  return found
}

/** Letters that a property has at least to be known again among other words. */
const leastNamed = 5

/** Whether a paragraph shows a property: by a field, or typed. */
function showsProperty(node: Node, name: keyof Properties, properties: Properties): boolean {
  const wanted = properties[name].trim()
  const text = textOf(node).trim()
  const typed = wanted !== "" && (text === wanted || (wanted.length >= leastNamed && text.includes(wanted)))
  return (
    typed ||
    node.children.some((child) => {
      if (child.type !== nodes.field) return false
      const { kind, format } = fieldAttrs(child)
      return kind === "property" ? format === name : kind === name
    })
  )
}

/** What a property is called. */
export const propertyWords: Readonly<Record<keyof Properties, string>> = {
  title: "title",
  subtitle: "subtitle",
  author: "author",
  organisation: "organisation",
  date: "date",
}

/** Where each line that is asked for stands before the text; null for one that is missing. */
export function titleBlockOf(
  doc: Node,
  asked: Pick<NonNullable<Brief["titleBlock"]>, "lines">,
): { name: keyof Properties; leaf: number | null }[] {
  const lines = titleLines(doc)
  const { properties } = documentAttrs(doc)
  return asked.lines.map((name) => {
    const own = lines.find(({ node, title }) => (name === "title" && title) || showsProperty(node, name, properties))
    return { name, leaf: own?.leaf ?? null }
  })
}
