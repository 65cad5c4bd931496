/** What a person wrote that cannot become a part of the document: kept beside it, so that it can be put in again or kept elsewhere. */
import { Fragment, Slice, type Node } from "prosemirror-model"
import { ReplaceStep } from "prosemirror-transform"
import { document, documentAttrs, nodes, readStep, schema } from "../document"
import { selectionSlice } from "./selected"

/** What stands in one version of a document and not in another: the stretch in which they differ. */
export function lostBetween(before: Node, after: Node): Slice {
  const start = before.content.findDiffStart(after.content)
  const end = before.content.findDiffEnd(after.content)
  if (start === null || end === null) return Slice.empty
  // Where the same letters come again, both comparisons may claim them.
  const to = end.a + Math.max(0, start - Math.min(end.a, end.b))
  return to > start ? selectionSlice(before.slice(start, to)) : Slice.empty
}

/** All that changes put in, in the order in which they did: for changes whose document is not to be had. What is no change any more is passed over. */
export function insertedBy(steps: readonly unknown[]): Slice {
  const paragraphs: Node[] = []
  let line: Node[] = []
  const end = () => {
    if (line.length > 0) paragraphs.push(nodes.paragraph.create(null, Fragment.from(line)))
    line = []
  }
  for (const json of steps) {
    let content: Fragment
    try {
      const step = readStep(json)
      if (!(step instanceof ReplaceStep)) continue
      content = step.slice.content
    } catch {
      continue
    }
    content.forEach((node) => {
      if (node.isInline) line.push(node)
      else
        node.descendants((own) => {
          if (!own.isTextblock) return true
          end()
          line.push(...own.children)
          return false
        })
      if (!node.isInline && node.isTextblock) {
        end()
        line.push(...node.children)
      }
    })
  }
  end()
  return new Slice(Fragment.from(paragraphs), 0, 0)
}

/** The words of a slice, a line for each paragraph. */
export function wordsOf(slice: Slice): string {
  return slice.content.textBetween(0, slice.content.size, "\n", (leaf) => leaf.type.spec.leafText?.(leaf) ?? "").trim()
}

/** A document of its own of what was set aside, in the look of the one that it was written in. */
export function documentOf(slice: Slice, like: Node): Node {
  const inline: Node[] = []
  const blocks: Node[] = []
  slice.content.forEach((node) => (node.isInline ? inline : blocks).push(node))
  const paragraphs = inline.length > 0 ? [nodes.paragraph.create(null, Fragment.from(inline)), ...blocks] : blocks
  const { properties: _own, ...attrs } = documentAttrs(like)
  return document(
    paragraphs.filter((block) => block.type === schema.nodes.paragraph),
    attrs,
  )
}
