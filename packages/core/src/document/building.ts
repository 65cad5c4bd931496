/** A few words in which to write documents down: for starters, demo data, readers of formats and tests. */
import type { Node } from "prosemirror-model"
import { marks, nodes, schema, type MarkName } from "./schema"
import { bodyStyle } from "./defaults"
import type { CellFormat, LetterFormat, ParagraphFormat, TableFormat } from "./shapes"
import type { DocumentAttrs } from "./schema"

type Inline = string | Node

function inline(parts: readonly Inline[]): Node[] {
  return parts.flatMap((part) => (typeof part === "string" ? (part ? [schema.text(part)] : []) : [part]))
}

export function paragraph(
  style: string = bodyStyle,
  parts: readonly Inline[] = [],
  format: Partial<ParagraphFormat> | null = null,
): Node {
  return nodes.paragraph.create({ style, format }, inline(parts))
}

/** A paragraph of body text. */
export function p(...parts: Inline[]): Node {
  return paragraph(bodyStyle, parts)
}

export function letters(
  text: string,
  format: Partial<LetterFormat> & { letterStyle?: string; link?: string; place?: string; sample?: true },
): Node {
  return schema.text(
    text,
    Object.entries(format).map(([name, value]) => marks[name as MarkName].create({ value })),
  )
}

/** A cell as it is written down: its blocks, or these with how far it reaches and how it looks. */
type CellWords =
  readonly Node[] | { blocks: readonly Node[]; colspan?: number; rowspan?: number; format?: Partial<CellFormat> | null }

export function cell(words: CellWords): Node {
  const { blocks, ...attrs } = "blocks" in words ? words : { blocks: words }
  return nodes.cell.create(attrs, [...blocks])
}

/** A table, row by row; each cell holds blocks. */
export function table(rows: readonly (readonly CellWords[])[], format: Partial<TableFormat> | null = null): Node {
  return nodes.table.create(
    { format },
    rows.map((cells) => nodes.row.create(null, cells.map(cell))),
  )
}

/** A whole document. Without blocks it holds one empty paragraph. */
export function document(
  blocks: readonly Node[],
  attrs: Partial<DocumentAttrs> = {},
  stories: readonly Node[] = [],
): Node {
  return nodes.doc.create(attrs, [nodes.body.create(null, blocks.length > 0 ? blocks : [paragraph()]), ...stories])
}
