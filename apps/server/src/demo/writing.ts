/** The demo documents are text files in texts/, written down as lines: a style's key, a colon, the text; lines without a key are body text. *Stars* make italic, **two stars** bold. */
import { readFileSync } from "node:fs"
import { join } from "node:path"
import type { Node } from "prosemirror-model"
import { letters, paragraph, type ParagraphFormat } from "@biblon/core/document"

const keyed = /^(title|subtitle|heading1|heading2|heading3|quotation): /

function inline(text: string): (string | Node)[] {
  return text
    .split(/(\*\*[^*]+\*\*|\*[^*]+\*)/)
    .filter((part) => part !== "")
    .map((part) =>
      part.startsWith("**")
        ? letters(part.slice(2, -2), { bold: true })
        : part.startsWith("*")
          ? letters(part.slice(1, -1), { italic: true })
          : part,
    )
}

function write(text: string, bodyFormat: Partial<ParagraphFormat> | null = null): Node[] {
  return text
    .trim()
    .split(/\n\s*\n/)
    .map((part) => {
      const line = part.trim().replace(/\s*\n\s*/g, " ")
      const style = keyed.exec(line)?.[1]
      return style ? paragraph(style, inline(line.replace(keyed, ""))) : paragraph("body", inline(line), bodyFormat)
    })
}

/** A demo text as blocks; the server runs from the project's root. */
export function readDemo(
  name: "letter" | "minutes" | "paper" | "handbook",
  bodyFormat: Partial<ParagraphFormat> | null = null,
): Node[] {
  return write(readFileSync(join(process.cwd(), "apps/server/src/demo/texts", `${name}.txt`), "utf8"), bodyFormat)
}
