/** Tables (ISO/IEC 29500-1, 17.4). What their styles say under conditions is laid on the cells themselves. */
import {
  limits,
  nodes,
  paragraph,
  within,
  type Border,
  type CellFormat,
  type LetterFormat,
  type ParagraphFormat,
  type TableFormat,
} from "../../../document"
import type { Node } from "prosemirror-model"
import { squared } from "../../squared"
import { child, childrenNamed, isElement, type XmlElement } from "../../xml/parsing"
import { readLetters } from "./letters"
import { readParagraph } from "./paragraphs"
import type { Styles } from "./styles"
import type { Theme } from "./theme"
import { borderOf, isOn, readingOf, shadingOf, twips, valueOf, whole } from "./values"

const sides = ["top", "right", "bottom", "left"] as const
type Side = (typeof sides)[number]

/** Borders of a table or cell: outer ones, and those between cells. */
type Lines = Partial<Record<Side | "insideH" | "insideV", Border | null>>

function linesOf(element: XmlElement | undefined): Lines {
  const lines: Lines = {}
  for (const [name, ...own] of [
    ["top", "w:top"],
    ["right", "w:end", "w:right"],
    ["bottom", "w:bottom"],
    ["left", "w:start", "w:left"],
    ["insideH", "w:insideH"],
    ["insideV", "w:insideV"],
  ] as const) {
    const border = borderOf(own.map((side) => child(element, side)).find(Boolean))
    if (border !== undefined) lines[name] = border
  }
  return lines
}

/** What a style says of the cells to which a condition applies. */
interface Condition {
  lines: Lines
  shading: string | null | undefined
  said: CellSays
}

/** What a table says of the text of a cell that says nothing of itself. */
export interface CellSays {
  letters: Partial<LetterFormat>
  paragraph: Partial<ParagraphFormat>
}

const conditionNames = [
  "wholeTable",
  "band1Vert",
  "band2Vert",
  "band1Horz",
  "band2Horz",
  "lastCol",
  "firstCol",
  "lastRow",
  "firstRow",
  "neCell",
  "nwCell",
  "seCell",
  "swCell",
] as const
type ConditionName = (typeof conditionNames)[number]

interface TableStyle {
  conditions: Map<ConditionName, Condition>
  padding: XmlElement | undefined
  rowBand: number
  columnBand: number
}

export class TableReader {
  private readonly known = new Map<string, TableStyle>()

  constructor(
    private readonly styles: Styles,
    private readonly theme: Theme,
    /** The blocks of a cell. */
    private readonly blocks: (cell: XmlElement, said: CellSays) => Node[],
  ) {}

  private style(id: string | undefined, turns = 0): TableStyle {
    const known = this.known.get(id ?? "")
    if (known) return known
    const element = this.styles.table(id)
    const over = valueOf(element, "w:basedOn")
    const parent = over !== undefined && turns < 20 ? this.style(over, turns + 1) : undefined
    const properties = child(element, "w:tblPr")
    const conditions = new Map(parent?.conditions)
    const add = (name: ConditionName, from: XmlElement | undefined, tblPr: XmlElement | undefined) => {
      const before = conditions.get(name)
      const tcPr = child(from, "w:tcPr")
      conditions.set(name, {
        lines: { ...before?.lines, ...linesOf(child(tblPr, "w:tblBorders")), ...linesOf(child(tcPr, "w:tcBorders")) },
        shading: shadingOf(child(tcPr, "w:shd")) ?? before?.shading,
        said: {
          letters: { ...before?.said.letters, ...readLetters(child(from, "w:rPr"), this.theme).format },
          paragraph: { ...before?.said.paragraph, ...readParagraph(child(from, "w:pPr"), []).format },
        },
      })
    }
    add("wholeTable", element, properties)
    for (const own of childrenNamed(element, "w:tblStylePr")) {
      const name = conditionNames.find((one) => one === own.attrs["w:type"])
      if (name) add(name, own, child(own, "w:tblPr"))
    }
    const made: TableStyle = {
      conditions,
      padding: child(properties, "w:tblCellMar") ?? parent?.padding,
      rowBand: whole(valueOf(properties, "w:tblStyleRowBandSize")) ?? parent?.rowBand ?? 1,
      columnBand: whole(valueOf(properties, "w:tblStyleColBandSize")) ?? parent?.columnBand ?? 1,
    }
    this.known.set(id ?? "", made)
    return made
  }

  read(table: XmlElement): Node[] {
    const properties = child(table, "w:tblPr")
    const style = this.style(valueOf(properties, "w:tblStyle"))
    const rows = rowsOf(table)
    if (rows.length === 0) return []
    const applied = appliedOf(child(properties, "w:tblLook"))
    const own = linesOf(child(properties, "w:tblBorders"))
    const grid = rows.map((row) => cellsOf(row))
    const columns = Math.max(1, ...grid.map((cells) => cells.reduce((sum, { span, skip }) => sum + span + skip, 0)))
    if (columns > limits.table.columns) return this.flat(grid)
    const heads = headsOf(rows)
    const firstBody = applied.firstRow ? 1 : 0
    const firstColumn = applied.firstCol ? 1 : 0
    const conditionsAt = (row: number, column: number, last: number): Condition[] => {
      const [top, bottom] = [row === 0 && applied.firstRow, row === rows.length - 1 && applied.lastRow]
      const [left, right] = [column === 0 && applied.firstCol, last === columns - 1 && applied.lastCol]
      const bandOf = (at: number, size: number) => Math.floor(at / Math.max(1, size)) % 2
      const names: (ConditionName | false)[] = [
        "wholeTable",
        applied.columnBands &&
          !left &&
          !right &&
          (bandOf(column - firstColumn, style.columnBand) === 0 ? "band1Vert" : "band2Vert"),
        applied.rowBands &&
          !top &&
          !bottom &&
          (bandOf(row - firstBody, style.rowBand) === 0 ? "band1Horz" : "band2Horz"),
        right && "lastCol",
        left && "firstCol",
        bottom && "lastRow",
        top && "firstRow",
        top && right && "neCell",
        top && left && "nwCell",
        bottom && right && "seCell",
        bottom && left && "swCell",
      ]
      return names.flatMap((name) => (name ? (style.conditions.get(name) ?? []) : []))
    }
    const spans = rowSpans(grid)
    const made = rows.map((row, r) => {
      let column = 0
      const cells = (grid[r] ?? []).flatMap((cell) => {
        const at = (column += cell.skip)
        column += cell.span
        if (cell.merged === "goesOn") return []
        const rowspan = spans.get(cell) ?? 1
        const conditions = conditionsAt(r, at, at + cell.span - 1)
        const blocks = this.blocks(cell.element, {
          letters: Object.assign({}, ...conditions.map(({ said }) => said.letters)) as Partial<LetterFormat>,
          paragraph: Object.assign({}, ...conditions.map(({ said }) => said.paragraph)) as Partial<ParagraphFormat>,
        })
        const edges = {
          top: r === 0,
          left: at === 0,
          bottom: r + rowspan === rows.length,
          right: at + cell.span >= columns,
        }
        const format = cellFormatOf(cell.element, conditions, own, edges)
        return [
          nodes.cell.create(
            { colspan: cell.span, rowspan, format: Object.keys(format).length > 0 ? format : null },
            blocks.length > 0 ? blocks : [paragraph()],
          ),
        ]
      })
      const height = twips(valueOf(child(row, "w:trPr"), "w:trHeight"))
      const format = height ? { height: within(height, limits.table.height) } : null
      return nodes.row.create({ format }, cells.length > 0 ? cells : [nodes.cell.create(null, paragraph())])
    })
    const format = this.format(table, properties, style, columns, heads, rows)
    return [squared(nodes.table.create({ format }, made))]
  }

  /** A table that is wider than any here: its cells one below another. */
  private flat(grid: readonly Cell[][]): Node[] {
    return grid.flatMap((cells) => cells.flatMap(({ element }) => this.blocks(element, { letters: {}, paragraph: {} })))
  }

  private format(
    table: XmlElement,
    properties: XmlElement | undefined,
    style: TableStyle,
    columns: number,
    heads: number,
    rows: readonly XmlElement[],
  ): Partial<TableFormat> {
    const said = childrenNamed(child(table, "w:tblGrid"), "w:gridCol").map(({ attrs }) => twips(attrs["w:w"]) ?? 0)
    const widths = said.length === columns && said.every((width) => width > 0) ? said : widthsOfCells(rows, columns)
    const align = valueOf(properties, "w:jc")
    const indent = twips(child(properties, "w:tblInd")?.attrs["w:w"])
    const padding = child(properties, "w:tblCellMar") ?? style.padding
    const room = (...names: string[]) =>
      names.map((name) => twips(child(padding, name)?.attrs["w:w"])).find((own) => own !== undefined)
    const alt = valueOf(properties, "w:tblDescription") ?? valueOf(properties, "w:tblCaption")
    return {
      look: "bare",
      headRows: heads,
      ...(widths.length === columns && widths.every((width) => width > 0)
        ? { columns: widths.map((width) => within(width, limits.table.column)) }
        : {}),
      align: align === "center" ? "center" : align === "right" || align === "end" ? "right" : "left",
      ...(indent && indent > 0 ? { indent: within(indent, limits.space) } : {}),
      divides: !rows.some((row) => flagged(row, "w:cantSplit")),
      padding: {
        across: within(room("w:start", "w:left") ?? 5.4, limits.table.padding),
        down: within(room("w:top") ?? 0, limits.table.padding),
      },
      ...(alt ? { alt: alt.slice(0, limits.alt) } : {}),
    }
  }
}

/** Widths as the cells of a row say them, none of which reaches over two columns. */
function widthsOfCells(rows: readonly XmlElement[], columns: number): number[] {
  for (const row of rows) {
    const cells = cellsOf(row)
    if (cells.length !== columns) continue
    const widths = cells.map(({ element }) => {
      const own = child(child(element, "w:tcPr"), "w:tcW")?.attrs
      return own?.["w:type"] === undefined || own["w:type"] === "dxa" ? (twips(own?.["w:w"]) ?? 0) : 0
    })
    if (widths.every((width) => width > 0)) return widths
  }
  return []
}

const inside = new Set(["w:sdt", "w:sdtContent", "w:customXml", "w:ins", "w:moveTo"])

/** Elements of a name in a row or table, also in what is wrapped round them. */
function unwrapped(parent: XmlElement, name: string): XmlElement[] {
  return parent.children
    .filter(isElement)
    .flatMap((own) => (own.name === name ? [own] : inside.has(own.name) ? unwrapped(own, name) : []))
}

const rowsOf = (table: XmlElement) =>
  unwrapped(table, "w:tr").filter((row) => !child(child(row, "w:trPr"), "w:del") && unwrapped(row, "w:tc").length > 0)

interface Cell {
  element: XmlElement
  span: number
  /** Places before it in which there is nothing. */
  skip: number
  merged: "begins" | "goesOn" | null
}

function cellsOf(row: XmlElement): Cell[] {
  const cells: Cell[] = []
  const before = whole(valueOf(child(row, "w:trPr"), "w:gridBefore")) ?? 0
  unwrapped(row, "w:tc").forEach((element, i) => {
    const properties = child(element, "w:tcPr")
    const span = within(whole(valueOf(properties, "w:gridSpan")) ?? 1, [1, 1000])
    const across = child(properties, "w:hMerge")
    const last = cells.at(-1)
    if (across && across.attrs["w:val"] !== "restart" && last) {
      last.span += span
      return
    }
    const merge = child(properties, "w:vMerge")
    cells.push({
      element,
      span,
      skip: i === 0 ? within(before, [0, limits.table.columns]) : 0,
      merged: merge ? (merge.attrs["w:val"] === "restart" ? "begins" : "goesOn") : null,
    })
  })
  return cells
}

/** How many rows cells reach down that are joined with those below; one that goes on what never began begins itself. */
function rowSpans(grid: readonly Cell[][]): Map<Cell, number> {
  const spans = new Map<Cell, number>()
  let above = new Map<number, Cell>()
  for (const cells of grid) {
    const now = new Map<number, Cell>()
    let column = 0
    for (const cell of cells) {
      column += cell.skip
      const owner = above.get(column)
      if (cell.merged === "goesOn" && owner && owner.span === cell.span) {
        spans.set(owner, (spans.get(owner) ?? 1) + 1)
        now.set(column, owner)
      } else if (cell.merged !== null) {
        cell.merged = "begins"
        now.set(column, cell)
      }
      column += cell.span
    }
    above = now
  }
  return spans
}

const flagged = (row: XmlElement, name: string) => {
  const own = child(child(row, "w:trPr"), name)
  return own !== undefined && isOn(own)
}

function headsOf(rows: readonly XmlElement[]): number {
  const first = rows.findIndex((row) => !flagged(row, "w:tblHeader"))
  return Math.min(limits.table.headRows[1], first < 0 ? rows.length - 1 : first)
}

/** Which conditions of its style a table wants. */
function appliedOf(look: XmlElement | undefined) {
  const bits = parseInt(look?.attrs["w:val"] ?? "04a0", 16)
  const said = (name: string, bit: number) => {
    const own = look?.attrs[`w:${name}`]
    return own === undefined ? (bits & bit) !== 0 : own === "1" || own === "true" || own === "on"
  }
  return {
    firstRow: said("firstRow", 0x20),
    lastRow: said("lastRow", 0x40),
    firstCol: said("firstColumn", 0x80),
    lastCol: said("lastColumn", 0x100),
    rowBands: !said("noHBand", 0x200),
    columnBands: !said("noVBand", 0x400),
  }
}

function cellFormatOf(
  cell: XmlElement,
  conditions: readonly Condition[],
  table: Lines,
  edges: Record<Side, boolean>,
): Partial<CellFormat> {
  const properties = child(cell, "w:tcPr")
  const format: Partial<CellFormat> = {}
  const ground =
    shadingOf(child(properties, "w:shd")) ??
    conditions.reduce<string | null | undefined>((last, { shading }) => shading ?? last, undefined)
  if (ground) format.shading = ground
  const borders: Partial<Record<Side, Border | null>> = {}
  const lay = (lines: Lines) => {
    for (const side of sides) {
      const between = side === "top" || side === "bottom" ? lines.insideH : lines.insideV
      const border = edges[side] ? lines[side] : between
      if (border !== undefined) borders[side] = border
    }
  }
  const [all, ...others] = conditions
  if (all) lay(all.lines)
  for (const { lines } of others) for (const side of sides) if (lines[side] !== undefined) borders[side] = lines[side]
  lay(table)
  const own = linesOf(child(properties, "w:tcBorders"))
  for (const side of sides) if (own[side] !== undefined) borders[side] = own[side]
  if (Object.keys(borders).length > 0) format.borders = borders
  const vertical = valueOf(properties, "w:vAlign")
  if (vertical === "center" || vertical === "bottom") format.vertical = vertical === "center" ? "middle" : "bottom"
  const reading = readingOf(valueOf(properties, "w:textDirection") ?? "lrTb")
  if (reading) format.reading = reading
  return format
}
