/** Tables of HTML as tables of ours. */
import type { Node } from "prosemirror-model"
import type { DefaultTreeAdapterTypes } from "parse5"
import { limits, nodes, paragraph, within, type CellFormat, type TableFormat } from "../../document"
import { squared } from "../squared"

type Element = DefaultTreeAdapterTypes.Element

export interface TableSource {
  /** The blocks of a cell. */
  blocks(cell: Element): Node[]
  /** What is said of a cell itself. */
  format(cell: Element): Partial<CellFormat>
  /** A width in points; undefined where none is said. */
  width(column: Element): number | undefined
}

const elementsIn = ({ childNodes }: Element): Element[] =>
  childNodes.filter((child): child is Element => "tagName" in child)

function spanOf(cell: Element, name: "colspan" | "rowspan", most: number): number {
  const value = Number(cell.attrs.find((attr) => attr.name === name)?.value ?? 1)
  return Number.isFinite(value) ? within(Math.floor(value) || 1, [1, most]) : 1
}

interface Row {
  element: Element
  /** Whether it stands in a head. */
  head: boolean
}

function rowsOf(table: Element): Row[] {
  return elementsIn(table).flatMap((part) =>
    part.tagName === "tr"
      ? [{ element: part, head: false }]
      : ["thead", "tbody", "tfoot"].includes(part.tagName)
        ? elementsIn(part)
            .filter(({ tagName }) => tagName === "tr")
            .map((element) => ({ element, head: part.tagName === "thead" }))
        : [],
  )
}

const cellsOf = (row: Element) => elementsIn(row).filter(({ tagName }) => tagName === "td" || tagName === "th")

function columnWidths(table: Element, source: TableSource): number[] | null {
  const columns = elementsIn(table)
    .flatMap((part) => (part.tagName === "colgroup" ? elementsIn(part) : [part]))
    .filter(({ tagName }) => tagName === "col")
    .flatMap((column) => Array.from({ length: spanOf(column, "colspan", 63) }, () => source.width(column)))
  if (columns.length === 0 || columns.length > limits.table.columns) return null
  const widths = columns.filter((width): width is number => width !== undefined)
  return widths.length === columns.length ? widths.map((width) => within(width, limits.table.column)) : null
}

/** Tables that together hold all rows, each with as many columns as a table may have: what is wider is set below it. */
export function readTable(table: Element, source: TableSource): Node[] {
  const rows = rowsOf(table)
  const filled = rows.filter(({ element }) => cellsOf(element).length > 0)
  if (filled.length === 0) return []
  const isHead = ({ element, head }: Row) => head || cellsOf(element).every(({ tagName }) => tagName === "th")
  const firstBody = filled.findIndex((row) => !isHead(row))
  const heads = Math.min(limits.table.headRows[1], firstBody < 0 ? 0 : firstBody)
  const widest = Math.max(
    ...filled.map(({ element }) => cellsOf(element).reduce((sum, cell) => sum + spanOf(cell, "colspan", 63), 0)),
  )
  const made: Node[] = []
  for (let from = 0; from < widest; from += limits.table.columns) {
    const part = filled.map(({ element }) => rowOf(element, from, source))
    const format: Partial<TableFormat> = heads === 1 ? {} : { headRows: heads }
    const widths = widest <= limits.table.columns ? columnWidths(table, source) : null
    if (widths) format.columns = widths
    made.push(squared(nodes.table.create({ format: Object.keys(format).length > 0 ? format : null }, part)))
    if (from + limits.table.columns < widest) made.push(paragraph())
  }
  return made
}

function rowOf(element: Element, from: number, source: TableSource): Node {
  let column = 0
  const cells = cellsOf(element).flatMap((cell) => {
    const at = column
    const colspan = spanOf(cell, "colspan", 63)
    column += colspan
    if (at < from || at >= from + limits.table.columns) return []
    const blocks = source.blocks(cell)
    const format = source.format(cell)
    return [
      nodes.cell.create(
        {
          colspan: Math.min(colspan, from + limits.table.columns - at),
          rowspan: spanOf(cell, "rowspan", limits.table.rows),
          format: Object.keys(format).length > 0 ? format : null,
        },
        blocks.length > 0 ? blocks : [paragraph()],
      ),
    ]
  })
  return nodes.row.create(null, cells.length > 0 ? cells : [nodes.cell.create(null, paragraph())])
}
