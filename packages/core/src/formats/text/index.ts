import type { Node } from "prosemirror-model"
import {
  blocksOf,
  bodyOf,
  citedIn,
  contentsAttrs,
  document,
  documentAttrs,
  labelsOf,
  leavesOf,
  listPlace,
  nodes,
  p,
  plainShown,
  shownByFields,
  spokenText,
} from "../../document"

export interface TextOptions {
  /** Every line is a paragraph. Otherwise a blank line ends one, and lines in between are joined. */
  lines: boolean
}

/** Plain text as a document in body style. Control characters other than tab are left out. */
export function readText(source: string, { lines }: TextOptions): Node {
  const text = source
    .replace(/^\ufeff/, "")
    .replace(/\r\n?/g, "\n")
    .replace(/[\u0000-\u0008\u000b-\u001f]/g, "")
  const paragraphs = lines
    ? text.replace(/\n$/, "").split("\n")
    : text
        .split(/\n[ \t]*(?:\n[ \t]*)+/)
        .map((part) => part.trim().replace(/[ \t]*\n[ \t]*/g, " "))
        .filter((part) => part !== "")
  return document(paragraphs.map((part) => p(part)))
}

/** Lists of references, by the leaves before which they stand. */
function sourceLists(doc: Node): ReadonlyMap<number, string> {
  const blocks = blocksOf(bodyOf(doc))
  return new Map(
    blocks.nodes.flatMap((node, i) =>
      node.type === nodes.contents && contentsAttrs(node).look === "sources"
        ? [
            [
              blocks.leaf(i),
              citedIn(doc)
                .references.map((own) => `${plainShown(own.text)}\n\n`)
                .join(""),
            ] as const,
          ]
        : [],
    ),
  )
}

/** The text of the body, a blank line between paragraphs, items of lists with their marks and line by line. */
export function writeText(doc: Node): string {
  const { styles } = documentAttrs(doc)
  const labels = labelsOf(doc)
  const shown = shownByFields(doc)
  const listed = sourceLists(doc)
  let text = ""
  leavesOf(doc).nodes.forEach((leaf, i, all) => {
    const [own, before] = [leaf, all[i - 1]].map((node) => (node ? listPlace(styles, node) : null))
    const label = labels[i] ?? null
    text += `${i === 0 ? "" : own && before ? "\n" : "\n\n"}${"  ".repeat(own?.level ?? 0)}${label ? `${label} ` : ""}${listed.get(i) ?? ""}${spokenText(styles, leaf, 0, leaf.content.size, shown)}`
  })
  return text + "\n"
}
