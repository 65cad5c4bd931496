/** What the paragraphs of a document are for a brief. */
import type { Node } from "prosemirror-model"
import {
  chainIds,
  documentAttrs,
  leavesOf,
  leavesOfBody,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  type Look,
  type StyleSheet,
} from "../document"

/** What a paragraph is for a brief. */
export type TextKind =
  | "text"
  | "list"
  | "quotation"
  | "reference"
  | "heading"
  | "title"
  /** A line before the text that the brief asks for. */
  | "front"
  | "subtitle"
  | "caption"
  | "cell"
  | "note"
  | "other"

/** Kinds whose letters are those of running text. */
export const running: ReadonlySet<TextKind> = new Set(["text", "front", "list", "quotation", "reference"])

const ofStyle = ["title", "subtitle", "caption", "quotation", "reference"] as const

function textKind(styles: StyleSheet, doc: Node, leaf: number, node: Node): TextKind {
  const leaves = leavesOf(doc)
  if (leaf >= leavesOfBody(doc)) {
    const { kind } = leaves.flow(leaf)
    return kind === "note" || kind === "endnote" ? "note" : "other"
  }
  if (outlineLevel(styles, node) !== null) return "heading"
  if (leaves.flow(leaf).kind === "cell") return "cell"
  const chain = chainIds(styles, paragraphAttrs(node).style)
  const own = ofStyle.find((key) => chain.includes(key))
  if (own) return own
  return paragraphLook(styles, node).paragraph.list !== null ? "list" : "text"
}

export interface BriefParagraph {
  leaf: number
  from: number
  to: number
  node: Node
  kind: TextKind
  look: Look
}

/** The paragraphs with text of a document, whatever its brief. What stands at heads and feet is not among them. */
export function allParagraphs(doc: Node): readonly BriefParagraph[] {
  let found = known.get(doc)
  if (!found) {
    const { styles } = documentAttrs(doc)
    const leaves = leavesOf(doc)
    found = leaves.nodes.flatMap((node, leaf) => {
      const kind = node.content.size === 0 ? "other" : textKind(styles, doc, leaf, node)
      if (kind === "other") return []
      const from = leaves.start(leaf)
      return [{ leaf, node, kind, look: paragraphLook(styles, node), from, to: from + node.content.size }]
    })
    known.set(doc, found)
  }
  return found
}
const known = new WeakMap<Node, readonly BriefParagraph[]>()
