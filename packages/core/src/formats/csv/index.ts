/** Comma- and tab-separated values (RFC 4180) as a table, and tables of a document as such. */
import Papa from "papaparse"
import type { Node } from "prosemirror-model"
import {
  cellParagraph,
  document,
  gridOf,
  limits,
  nodes,
  paragraph,
  readNumber,
  type ParagraphFormat,
} from "../../document"

const cellOf = (text: string, format: Partial<ParagraphFormat>): Node =>
  nodes.cell.create(
    null,
    nodes.paragraph.create(
      { format: { ...cellParagraph, ...format } },
      text
        .split(/\r\n?|\n/)
        .flatMap((line, i) => [
          ...(i > 0 ? [nodes.lineBreak.create()] : []),
          ...(line ? [line] : []).map((own) =>
            nodes.paragraph.schema.text(own.replace(/[\u0000-\u0008\u000b-\u001f]/g, "")),
          ),
        ]),
    ),
  )

/** A table of lines of values; the first line is its head. Columns of numbers stand at the right. */
export function tableOfValues(rows: readonly (readonly string[])[]): Node[] {
  const filled = rows.filter((row) => row.some((value) => value.trim() !== ""))
  const columns = Math.max(0, ...filled.map((row) => row.length))
  if (columns === 0) return []
  const made: Node[] = []
  for (let from = 0; from < columns; from += limits.table.columns) {
    const to = Math.min(columns, from + limits.table.columns)
    const numbers = Array.from(
      { length: to - from },
      (_, i) =>
        filled.slice(1).every((row) => !row[from + i]?.trim() || readNumber(row[from + i] as string, "en") !== null) &&
        filled.slice(1).some((row) => row[from + i]?.trim()),
    )
    const table = filled.map((row) =>
      nodes.row.create(
        null,
        numbers.map((number, i) => cellOf((row[from + i] ?? "").trim(), number ? { align: "right" } : {})),
      ),
    )
    made.push(nodes.table.create(filled.length > 1 ? null : { format: { headRows: 0 } }, table))
    made.push(paragraph())
  }
  return made
}

/** A file of values as a document with a table. What divides the values is found by looking at them. */
export function readCsv(source: string, divider?: string): Node {
  const { data } = Papa.parse<string[]>(source.replace(/^\ufeff/, ""), {
    delimiter: divider ?? "",
    skipEmptyLines: true,
  })
  return document(tableOfValues(data))
}

/** Lines of values divided by tabs, as calculating programs copy them; null for other text. */
export function valuesByTabs(text: string): string[][] | null {
  const lines = text.replace(/\r\n?/g, "\n").replace(/\n$/, "")
  const [first = ""] = lines.split("\n", 1)
  if (!first.includes("\t") || !lines.includes("\n")) return null
  const { data } = Papa.parse<string[]>(lines, { delimiter: "\t", skipEmptyLines: true })
  const columns = data[0]?.length ?? 0
  return data.length > 1 && columns > 1 && data.every((row) => row.length === columns) ? data : null
}

/** The first table of a document as values divided by commas; without one, a line of each paragraph. */
export function writeCsv(doc: Node): string {
  let table: Node | null = null
  doc.child(0).descendants((node) => {
    if (!table && node.type === nodes.table) table = node
    return !table && !node.isTextblock
  })
  return `${Papa.unparse(table ? valuesOfTable(table) : doc.child(0).children.map((block) => [block.textContent]))}\r\n`
}

function valuesOfTable(table: Node): string[][] {
  const grid = gridOf(table)
  return Array.from({ length: grid.rows }, (_, row) => {
    const line = new Array<string>(grid.columns).fill("")
    for (const { node, column } of grid.begun(row))
      line[column] = node.children.map((block) => block.textBetween(0, block.content.size, "\n", "\n")).join("\n")
    return line
  })
}
