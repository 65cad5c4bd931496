import type { Node } from "prosemirror-model"
import { bodyOf, blockText, document, p } from "../../document"

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

/** The text of the body, a blank line between paragraphs. */
export function writeText(doc: Node): string {
  const parts: string[] = []
  bodyOf(doc).forEach((block) => parts.push(blockText(block)))
  return parts.join("\n\n") + "\n"
}
