/** Rows of RTF, each of which says where its cells end, as a table of Office Open XML with one grid for all. */
import { lineXml, withLine, type Line } from "./paragraphs"

interface Cell {
  /** Where it ends, in twips from the left edge of the text. */
  to: number
  /** Whether it goes on from the one before it, beside or above it; or begins such. */
  beside: "begins" | "goesOn" | null
  above: "begins" | "goesOn" | null
  borders: ReadonlyMap<string, Line>
  ground: string | null
  vertical: string | null
  /** In which direction its lines run, as the other format says it. */
  direction: string | null
}

const plainCell: Cell = {
  to: 0,
  beside: null,
  above: null,
  borders: new Map(),
  ground: null,
  vertical: null,
  direction: null,
}

export interface Row {
  left: number
  header: boolean
  height: number | null
  whole: boolean
  /** Where the table lies, as the other format says it. */
  align: string | null
  /** Room in its cells, in twips, by the sides that are told of; of those at the side also by the distance of texts. */
  room: ReadonlyMap<string, number>
  cells: readonly Cell[]
  /** What the next cell is like, and the side whose line is being told. */
  next: Cell
  side: string | null
}

export const plainRow: Row = {
  left: 0,
  header: false,
  height: null,
  whole: false,
  align: null,
  room: new Map(),
  cells: [],
  next: plainCell,
  side: null,
}

/** Most cells that a row has here. */
const mostCells = 200

const sides = new Map([
  ["clbrdrt", "top"],
  ["clbrdrb", "bottom"],
  ["clbrdrl", "left"],
  ["clbrdrr", "right"],
])
const rooms = new Map([
  ["trgaph", "beside"],
  ["trpaddt", "top"],
  ["trpaddl", "left"],
  ["trpaddb", "bottom"],
  ["trpaddr", "right"],
])
/** Of the row: told, but taken from the cells. */
const ofRow = /^trbrdr[tlbrhv]$/

/** What a control word makes of a row; null for one that says nothing of it. */
export function withRow(row: Row, name: string, value: number | null, colours: readonly (string | null)[]): Row | null {
  const cell = (own: Partial<Cell>): Row => ({ ...row, next: { ...row.next, ...own } })
  const side = sides.get(name)
  if (side)
    return {
      ...row,
      side,
      next: {
        ...row.next,
        borders: new Map(row.next.borders).set(side, { val: "single", size: 4, space: 0, colour: null }),
      },
    }
  const room = rooms.get(name)
  if (room) return { ...row, room: new Map(row.room).set(room, value ?? 0) }
  if (ofRow.test(name)) return { ...row, side: "" }
  if (row.side !== null && name.startsWith("brdr")) {
    const line = row.side === "" ? null : withLine(row.next.borders.get(row.side), name, value, colours)
    return line ? cell({ borders: new Map(row.next.borders).set(row.side, line) }) : row
  }
  switch (name) {
    case "trowd":
      return plainRow
    case "trleft":
      return { ...row, left: value ?? 0 }
    case "trhdr":
      return { ...row, header: true }
    case "trkeep":
      return { ...row, whole: true }
    case "trqc":
      return { ...row, align: "center" }
    case "trqr":
      return { ...row, align: "right" }
    case "trrh":
      return { ...row, height: value }
    case "clmgf":
      return cell({ beside: "begins" })
    case "clmrg":
      return cell({ beside: "goesOn" })
    case "clvmgf":
      return cell({ above: "begins" })
    case "clvmrg":
      return cell({ above: "goesOn" })
    case "clcbpat":
      return cell({ ground: colours[value ?? 0] ?? null })
    case "clvertalc":
      return cell({ vertical: "center" })
    case "clvertalb":
      return cell({ vertical: "bottom" })
    case "cltxtbrl":
      return cell({ direction: "tbRl" })
    case "cltxbtlr":
      return cell({ direction: "btLr" })
    case "cellx":
      if (row.cells.length >= mostCells) return row
      return { ...row, side: null, cells: [...row.cells, { ...row.next, to: value ?? 0 }], next: plainCell }
    default:
      return null
  }
}

export interface SetRow {
  row: Row
  /** Blocks of its cells. */
  cells: readonly string[]
}

/** Edges that lie closer, in twips, are one. */
const near = 20
const emptyParagraph = "<w:p/>"

export function tableXml(rows: readonly SetRow[]): string {
  const ends = rows.flatMap(({ row, cells }) => [row.left, ...endsOf(row, cells.length)])
  const edges: number[] = []
  for (const edge of [...new Set(ends)].sort((a, b) => a - b))
    if (edge - (edges.at(-1) ?? -Infinity) >= near) edges.push(edge)
  const at = (edge: number) => {
    let best = 0
    for (let i = 1; i < edges.length; i++)
      if (Math.abs((edges[i] as number) - edge) < Math.abs((edges[best] as number) - edge)) best = i
    return best
  }
  const grid = edges.slice(1).map((edge, i) => `<w:gridCol w:w="${edge - (edges[i] as number)}"/>`)
  const set = rows.map(({ row, cells }) => {
    const told = endsOf(row, cells.length)
    let from = at(row.left)
    const before = from > 0 ? `<w:gridBefore w:val="${from}"/>` : ""
    const parts: string[] = []
    for (let i = 0; i < told.length; i++) {
      const cell = row.cells[i] ?? plainCell
      // Those that go on beside it belong to it.
      let last = i
      if (cell.beside === "begins") while (row.cells[last + 1]?.beside === "goesOn") last++
      const to = Math.max(from + 1, at(told[last] as number))
      const content = cells.slice(i, last + 1).filter((own) => own !== emptyParagraph)
      parts.push(cellXml(cell, to - from, content.join("") || emptyParagraph))
      from = to
      i = last
    }
    const format =
      before +
      (row.whole ? "<w:cantSplit/>" : "") +
      (row.height
        ? `<w:trHeight w:val="${Math.abs(row.height)}" w:hRule="${row.height < 0 ? "exact" : "atLeast"}"/>`
        : "") +
      (row.header ? "<w:tblHeader/>" : "")
    return `<w:tr>${format ? `<w:trPr>${format}</w:trPr>` : ""}${parts.join("")}</w:tr>`
  })
  const left = edges[0] ?? 0
  const format =
    `<w:tblW w:w="0" w:type="auto"/>` +
    (rows[0]?.row.align ? `<w:jc w:val="${rows[0].row.align}"/>` : "") +
    (left ? `<w:tblInd w:w="${left}" w:type="dxa"/>` : "") +
    `<w:tblLayout w:type="fixed"/>` +
    roomXml(rows[0]?.row.room ?? new Map())
  return `<w:tbl><w:tblPr>${format}</w:tblPr><w:tblGrid>${grid.join("")}</w:tblGrid>${set.join("")}</w:tbl>`
}

function roomXml(room: Row["room"]): string {
  const own = ["top", "left", "bottom", "right"].flatMap((side) => {
    const width = room.get(side) ?? (side === "left" || side === "right" ? room.get("beside") : undefined)
    return width === undefined ? [] : [`<w:${side} w:w="${Math.max(0, width)}" w:type="dxa"/>`]
  })
  return own.length > 0 ? `<w:tblCellMar>${own.join("")}</w:tblCellMar>` : ""
}

/** Where the cells of a row end: those that it does not tell of are as wide as an inch. */
function endsOf({ left, cells }: Row, count: number): number[] {
  const ends: number[] = []
  for (let i = 0; i < Math.max(count, 1); i++)
    ends.push(Math.max((ends.at(-1) ?? left) + near, cells[i]?.to ?? (ends.at(-1) ?? left) + 1440))
  return ends
}

function cellXml({ above, borders, ground, vertical, direction }: Cell, span: number, content: string): string {
  const lines = ["top", "left", "bottom", "right"].flatMap((side) => {
    const line = borders.get(side)
    return line ? [lineXml(side, line)] : []
  })
  const format =
    (span > 1 ? `<w:gridSpan w:val="${span}"/>` : "") +
    (above ? `<w:vMerge${above === "begins" ? ' w:val="restart"' : ""}/>` : "") +
    (lines.length > 0 ? `<w:tcBorders>${lines.join("")}</w:tcBorders>` : "") +
    (ground ? `<w:shd w:val="clear" w:color="auto" w:fill="${ground}"/>` : "") +
    (direction ? `<w:textDirection w:val="${direction}"/>` : "") +
    (vertical ? `<w:vAlign w:val="${vertical}"/>` : "")
  return `<w:tc>${format ? `<w:tcPr>${format}</w:tcPr>` : ""}${content}</w:tc>`
}
