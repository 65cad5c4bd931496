/**
 * Sets tables. A row that does not fit goes on to the next region; it is divided where the table allows it, or where it is higher
 * than a region. Cells that reach over rows are divided with them. Where a table goes on on another sheet, its head is repeated
 * above, unless that would take more than half of the sheet. A cell whose lines rise or fall is not divided: it goes on as a whole,
 * and stands upright where it has no room otherwise.
 */
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  edgeOf,
  gridOf,
  groundOf,
  leafOfCell,
  lettersOf,
  rowHeight,
  tableFormat,
  cellFormat,
  type Border,
  type Grid,
  type GridCell,
  type StyleSheet,
  type TableFormat,
} from "../document"
import { beginning, isBeginning } from "./boxes"
import { columnsWithWords, measuredOnScreen, total } from "./columnWidths"
import type { FloatRoom } from "./floats"
import type { Filled, Flowing, Region } from "./regions"
import { borderThickness } from "./ornaments"
import { turnedLines, type Box, type TurnedLines } from "./turns"
import type { BlockPlace, Break, Ground, PlacedCell, Rule, Table } from "./types"

/** Fills a region with the blocks of a cell. */
export type FillCell = (flow: Flowing, region: Region, start: BlockPlace) => Filled

export interface TableRoom {
  /** The first leaf of the table. */
  firstLeaf: number
  width: number
  height: number
  /** Whether nothing stands above it. */
  atTop: boolean
  /** Whether its head is repeated where it goes on. */
  repeats: boolean
  /** On a screen, what its columns need so that no word is broken; null where they are as the table says. */
  least: readonly number[] | null
}

export interface TableSet {
  /** Null where nothing of it has room. */
  box: Table | null
  /** Where the box stands in the room. */
  x: number
  next: Break | null
  /** The last leaf that was looked at, counted from the table's first: the one behind what is set, since there being no more counts. */
  lookedAt: number
}

/** Widths of the columns of a table in a room, and where each begins. @param least what they need on a screen, where words are not to be broken */
function columnsOf(
  format: TableFormat,
  count: number,
  room: number,
  least: readonly number[] | null,
): { width: number; edges: number[] } {
  const known = format.columns ?? []
  const sum = total(known.slice(0, count))
  // A column of which nothing is known is as wide as the others are in the mean.
  const mean = known.length > 0 ? sum / Math.min(count, known.length) : room / count
  const widths = Array.from({ length: count }, (_, i) => known[i] ?? mean)
  const wanted = total(widths)
  // What has no room is made narrower, all columns alike.
  const scale = wanted > room ? room / wanted : 1
  const set = least ? columnsWithWords(widths, least, room) : widths.map((width) => width * scale)
  const edges = [0]
  for (const width of set) edges.push((edges.at(-1) as number) + width)
  return { width: edges.at(-1) as number, edges }
}

/** A leaf of a table that a place in it hangs on first, counted from the table's first: that of its row, or of a cell that goes on from above. */
export function leafOfBreak(table: Node, at: Break): number {
  if (!("row" in at)) return 0
  const grid = gridOf(table)
  const row = Math.min(at.row, grid.rows)
  const own = grid.leaf(row)
  return at.cells.length === 0 ? own : Math.min(own, ...grid.standing(row).map((cell) => leafOfCell(table, cell)))
}

/** Numbers by which rows are told apart: a row that is another one has another number. */
const numbers = new WeakMap<Node, number>()
let lastNumber = 0
function numberOf(row: Node): number {
  let number = numbers.get(row)
  if (number === undefined) numbers.set(row, (number = ++lastNumber))
  return number
}

/** A cell that is being set, from where it begins in this region. */
interface Open {
  cell: GridCell
  /** Top of its area. */
  y: number
  /** Where it goes on; null where all of it stands above. */
  start: BlockPlace | null
  filled: Filled | null
  /** Where its lines rise or fall. */
  turned?: TurnedLines
}

/** A row, or a part of one, as it stands in the region. */
interface SetRow {
  row: number
  y: number
  bottom: number
  /** The cells in it, by column. */
  cells: readonly Open[]
  repeated: boolean
}

/** Room left in a narrow column, on each side of its text, as part of its width. */
const narrowest = 0.2
/** The same on a screen that is too narrow for the words of a table, in points. */
const leastAcross = 1.5

/** Room on each side of the text of cells: as the table says, but on a screen less where no word has to be broken then. */
function acrossIn({ padding: { across } }: TableFormat, least: readonly number[] | null, room: number): number {
  if (!least) return across
  const lacking = total(least) - room
  const tight = across - Math.max(0, lacking) / (2 * least.length)
  return tight >= leastAcross ? tight : across
}

class Setter {
  private readonly grid: Grid
  private readonly format: TableFormat
  private readonly edges: readonly number[]
  private readonly across: number
  readonly width: number
  private readonly rows: SetRow[] = []
  private y = 0
  /** Rows that are repeated above. */
  private above = 0

  constructor(
    private readonly styles: StyleSheet,
    private readonly table: Node,
    private readonly room: TableRoom,
    private readonly fill: FillCell,
  ) {
    this.grid = gridOf(table)
    this.format = tableFormat(table)
    const inside = Math.max(1, room.width - this.indent)
    this.across = acrossIn(this.format, room.least, inside)
    const saved = 2 * (this.format.padding.across - this.across)
    const least = room.least?.map((own) => own - saved) ?? null
    const { width, edges } = columnsOf(this.format, this.grid.columns, inside, least)
    this.edges = edges
    this.width = width
  }

  private get indent(): number {
    return this.format.align === "center" ? 0 : Math.min(this.format.indent, this.room.width / 2)
  }

  get x(): number {
    const free = this.room.width - this.width
    const { align } = this.format
    return align === "left" ? this.indent : align === "center" ? free / 2 : free - this.indent
  }

  private padding(cell: GridCell): { across: number; down: number } {
    const width = this.widthOf(cell)
    const { down } = this.format.padding
    return { across: Math.min(this.across, width * narrowest), down }
  }

  private widthOf({ column, colspan }: GridCell): number {
    return (this.edges[column + colspan] as number) - (this.edges[column] as number)
  }

  private opened(cell: GridCell, y: number, start: BlockPlace | null): Open {
    return this.filledTo({ cell, y, start, filled: null }, this.room.height)
  }

  /** A cell set down to a height of the region. */
  private filledTo({ cell, y, start }: Open, bottom: number): Open {
    if (!start) return { cell, y, start, filled: null }
    const { across, down } = this.padding(cell)
    const room = bottom - y - 2 * down
    const turned = isBeginning(start.at) && start.block === 0 ? this.turnedIn(cell) : null
    if (turned && turned.length <= room + 1e-6) return { cell, y, start, filled: turned.filled, turned }
    // Where nothing but this row stands, there is no more room to be had.
    if (turned && !this.isAlone)
      return { cell, y, start, filled: { ...turned.filled, inside: [], height: 0, next: start, atEnd: false } }
    const width = Math.max(1, this.widthOf(cell) - 2 * across)
    const height = Math.max(0, room)
    // For what floats in it, a cell is a sheet without margins.
    const [sheet, margins] = [
      { width, height },
      { x: 0, y: 0, width, height },
    ]
    return { cell, y, start, filled: this.fillIn(cell, width, height, start, { x: 0, y: 0, sheet, margins }) }
  }

  private fillIn(cell: GridCell, width: number, height: number, start: BlockPlace, floats?: FloatRoom): Filled {
    const flow = {
      blocks: blocksOf(cell.node),
      firstLeaf: this.room.firstLeaf + leafOfCell(this.table, cell),
      letters: lettersOf(this.styles, this.table, cell),
    }
    return this.fill(flow, { width, height, top: 0, fresh: true, ...(floats ? { floats } : {}) }, start)
  }

  /** The text of a cell in lines of a length that rise or fall, whatever room there is. */
  private readonly inLines = (cell: GridCell) => (length: number) =>
    this.fillIn(cell, length, Infinity, { block: 0, at: beginning })

  private turnedIn(cell: GridCell): TurnedLines | null {
    if ((cellFormat(cell.node).reading ?? "across") === "across") return null
    const { down } = this.padding(cell)
    const rows = this.table.children.slice(cell.row, cell.row + cell.rowspan)
    const given = rows.reduce((sum, row) => sum + rowHeight(row), 0) - 2 * down
    // Rather than upright in a narrow column they stand close to its edges.
    return turnedLines(this.inLines(cell), this.widthOf(cell), given)
  }

  /** Whether nothing stands above the next row but what is repeated. */
  private get isAlone(): boolean {
    return this.room.atTop && this.rows.length === this.above
  }

  private heightOf({ cell, filled, turned }: Open): number {
    return (turned?.length ?? filled?.height ?? 0) + 2 * this.padding(cell).down
  }

  /** The head that is repeated above rows, or the widths of columns on a screen; empty for none. */
  private head(): string {
    const { headRows } = this.format
    const heads = Math.min(headRows, this.grid.rows - 1)
    if (this.room.least) return [this.across, ...this.edges].map((length) => length.toFixed(2)).join()
    if (!this.room.repeats || heads === 0) return ""
    return this.table.children.slice(0, heads).map(numberOf).join()
  }

  /** Sets the head again, if it has room. */
  private repeatHead(): void {
    const heads = Math.min(this.format.headRows, this.grid.rows - 1)
    const before = this.rows.length
    for (let row = 0; row < heads; row++) {
      const open = this.grid.begun(row).map((cell) => this.opened(cell, this.y, { block: 0, at: beginning }))
      const height = Math.max(rowHeight(this.table.child(row)), ...open.map((own) => this.heightOf(own)))
      this.rows.push({ row, y: this.y, bottom: this.y + height, cells: open, repeated: true })
      this.y += height
    }
    if (this.y > this.room.height / 2) {
      this.rows.length = before
      this.y = 0
    }
  }

  set(from: Break): TableSet {
    const start = "row" in from ? from : { row: 0, cells: [] }
    const head = this.head()
    const { room } = this
    if (start.row >= Math.min(this.format.headRows, this.grid.rows - 1) && start.row > 0 && head !== "" && room.repeats)
      this.repeatHead()
    this.above = this.rows.length
    const { above, table, grid } = this
    let open: Open[] = []
    let next: Break | null = null
    let row = start.row
    for (; row < grid.rows; row++) {
      const before = new Map(open.map((own) => [own.cell, own]))
      const first = row === start.row && start.cells.length > 0
      open = grid
        .standing(row)
        .map(
          (cell, i) =>
            before.get(cell) ??
            this.opened(cell, this.y, first ? (start.cells[i] ?? null) : { block: 0, at: beginning }),
        )
      const ending = open.filter(({ cell }) => cell.row + cell.rowspan - 1 === row)
      const least = first ? 0 : rowHeight(table.child(row))
      const height = Math.max(
        least,
        ...ending.map((own) => this.heightOf(own) - (this.y - own.y)),
        // A row in which no cell ends has at least a line's room for those that begin in it.
        ...(ending.length === 0 ? [2 * this.format.padding.down + 1] : []),
      )
      const fits =
        this.y + height <= room.height + 1e-6 && ending.every(({ filled }) => filled === null || filled.atEnd)
      if (fits) {
        this.rows.push({ row, y: this.y, bottom: this.y + height, cells: open, repeated: false })
        this.y += height
        continue
      }
      if (this.isAlone || (this.format.divides && open.some((own) => this.begins(own, row)))) {
        next = this.divide(row, open, height)
        break
      }
      if (this.rows.length === above) return { box: null, x: this.x, next: from, lookedAt: this.seenBefore(row + 1) }
      // A head stays with the first row below it.
      const heads = Math.min(this.format.headRows, grid.rows - 1)
      if (start.row === 0 && row <= heads && !room.atTop)
        return { box: null, x: this.x, next: from, lookedAt: this.seenBefore(row + 1) }
      next = this.moveOn(row, open)
      break
    }
    return { box: this.box(), x: this.x, next, lookedAt: this.seenBefore(row + 1) }
  }

  /** The leaf of a row, before which all was looked at; on a screen, also the rows by which columns are measured. */
  private seenBefore(row: number): number {
    const { grid } = this
    return grid.leaf(Math.min(grid.rows, this.room.least ? Math.max(row, measuredOnScreen) : row))
  }

  /** Whether anything of a cell has room in a row. */
  private begins({ cell, filled }: Open, row: number): boolean {
    return cell.row === row && filled !== null && filled.inside.length > 0
  }

  /** What of a row has room stays, and the rest goes on. */
  private divide(row: number, open: readonly Open[], wanted: number): Break | null {
    const bottom = Math.min(
      this.room.height,
      Math.max(this.y + Math.min(wanted, this.room.height - this.y), ...open.map((own) => own.y + this.heightOf(own))),
    )
    this.rows.push({ row, y: this.y, bottom, cells: open, repeated: false })
    this.y = bottom
    const places = open.map(({ filled }): BlockPlace | null => (filled && !filled.atEnd ? filled.next : null))
    if (places.some((place) => place !== null)) return this.breakAt(row, places)
    return row + 1 < this.grid.rows ? this.breakAt(row + 1, this.goingOn(row + 1, open)) : null
  }

  /** The row goes on as a whole; cells that reach into it from above are divided. */
  private moveOn(row: number, open: readonly Open[]): Break {
    const closed = open.map((own) => (own.cell.row < row ? this.filledTo(own, this.y) : own))
    const above = this.rows.at(-1)
    if (above) {
      const shorter = new Map(closed.map((own) => [own.cell, own]))
      for (const [i, set] of this.rows.entries())
        this.rows[i] = { ...set, cells: set.cells.map((own) => shorter.get(own.cell) ?? own) }
    }
    return this.breakAt(row, this.goingOn(row, closed))
  }

  private breakAt(row: number, cells: readonly (BlockPlace | null)[]): Break {
    const { table, grid } = this
    // The leaves of a table count from its first, those of a sheet from where the table goes on.
    const begun = grid.standing(row).flatMap((cell) => (cell.row < row ? leafOfCell(table, cell) : []))
    return { row, cells, above: [this.head(), grid.leaf(row), ...begun].join(" ") }
  }

  /** Where the cells of a row go on, some of which may have begun above; none where all begin in it. */
  private goingOn(row: number, open: readonly Open[]): readonly (BlockPlace | null)[] {
    const standing = this.grid.standing(row)
    if (standing.every((cell) => cell.row === row)) return []
    const known = new Map(open.map((own) => [own.cell, own]))
    return standing.map((cell) => {
      if (cell.row === row) return { block: 0, at: beginning }
      const filled = known.get(cell)?.filled
      return filled && !filled.atEnd ? filled.next : null
    })
  }

  private box(): Table | null {
    if (this.rows.length === 0) return null
    // A cell ends with the last row that it stands in.
    const bottoms = new Map<Open["cell"], number>()
    const begun = new Map<Open["cell"], number>()
    this.rows.forEach(({ cells, bottom, repeated }, i) => {
      if (repeated) return
      for (const { cell } of cells) {
        bottoms.set(cell, bottom)
        if (!begun.has(cell)) begun.set(cell, i)
      }
    })
    const rows = this.rows.map((set, i) => ({
      repeated: set.repeated,
      cells: set.cells.flatMap((own): PlacedCell[] =>
        set.repeated
          ? [this.placed(own, set.bottom)]
          : begun.get(own.cell) === i
            ? [this.placed(own, bottoms.get(own.cell) ?? set.bottom)]
            : [],
      ),
    }))
    return {
      kind: "table",
      width: this.width,
      height: this.y,
      rows,
      ground: this.ground(rows.flatMap(({ cells }) => cells)),
      columns: this.edges,
      alt: this.format.alt,
    }
  }

  private placed(open: Open, bottom: number): PlacedCell {
    const { cell, y, start, filled } = open
    const { across, down } = this.padding(cell)
    const left = this.edges[cell.column] as number
    const width = this.widthOf(cell)
    const height = filled?.height ?? 0
    const { vertical = "top" } = cellFormat(cell.node)
    const free = Math.max(0, bottom - y - 2 * down - height)
    const whole = filled?.atEnd === true && start?.block === 0 && start.at === beginning
    const lower = whole ? (vertical === "top" ? 0 : vertical === "middle" ? free / 2 : free) : 0
    const first = leafOfCell(this.table, cell)
    const before = start ? blocksOf(cell.node).leaf(start.block) : 0
    const floats = filled?.floats ?? []
    const stack = {
      kind: "stack",
      role: "cell",
      width: Math.max(1, width - 2 * across),
      height,
      inside: filled?.inside ?? [],
      ...(floats.length > 0 ? { floats: floats.map((own) => ({ ...own, leaf: own.leaf - before })) } : {}),
    } as const
    return {
      leaf: first + before,
      row: cell.row,
      column: cell.column,
      rowspan: cell.rowspan,
      colspan: cell.colspan,
      heads:
        cell.row < Math.min(this.format.headRows, this.grid.rows)
          ? "column"
          : this.format.firstColumn && cell.column === 0
            ? "row"
            : null,
      first,
      area: { x: left, y, width, height: bottom - y },
      ...(open.turned
        ? this.placedTurned(open, { x: left + across, y: y + down, width: stack.width, height: bottom - y - 2 * down })
        : { box: stack, x: left + across, y: y + down + lower }),
    }
  }

  /** Lines that rise from the foot of a room or fall from its top, as long as that is high. */
  private placedTurned({ cell }: Open, room: Box): Pick<PlacedCell, "box" | "x" | "y"> {
    const { inside, height } = this.inLines(cell)(room.height)
    const { reading, vertical = "top" } = cellFormat(cell.node)
    const rises = reading === "up"
    const free = room.width - height
    const aside = vertical === "middle" || free < 0 ? free / 2 : vertical === "top" ? 0 : free
    return {
      box: { kind: "stack", role: "cell", width: room.height, height, inside, angle: rises ? 90 : -90 },
      x: rises ? room.x + aside : room.x + room.width - aside,
      y: rises ? room.y + room.height : room.y,
    }
  }

  private ground(placed: readonly PlacedCell[]): Ground {
    const columns = this.grid.columns
    /** By row as it is set, the cell that stands in each column. */
    const lines = this.rows.map(({ cells: open }) => {
      const line = new Array<GridCell | null>(columns).fill(null)
      for (const { cell } of open) for (let i = 0; i < cell.colspan; i++) line[cell.column + i] = cell
      return line
    })
    const fills: Ground["fills"][number][] = []
    for (const own of placed) {
      const colour = groundOf(this.styles, this.table, this.cellOf(own))
      if (colour === null) continue
      const { x, y, width, height } = own.area
      const before = fills.at(-1)
      // Neighbours of one colour are one: between two, a hair of what lies behind them may shine through.
      if (
        before?.colour === colour &&
        before.y === y &&
        before.height === height &&
        Math.abs(before.x + before.width - x) < 1e-6
      )
        fills[fills.length - 1] = { ...before, width: before.width + width }
      else fills.push({ colour, ...own.area })
    }
    const rules: Rule[] = []
    const edge = (
      a: GridCell | null | undefined,
      b: GridCell | null | undefined,
      side: "bottom" | "right",
    ): Border | null => {
      if (a === b) return null
      const first = a ? edgeOf(this.styles, this.table, a, side) : null
      const second = b ? edgeOf(this.styles, this.table, b, side === "bottom" ? "top" : "left") : null
      if (!first || !second) return (first ?? second)?.border ?? null
      // What is said by hand wins, and of two lines the stronger one.
      if (first.byHand !== second.byHand) return first.byHand ? first.border : second.border
      if (!first.border || !second.border) return first.border ?? second.border
      return borderThickness(second.border) > borderThickness(first.border) ? second.border : first.border
    }
    const same = (a: Border | null, b: Border | null) =>
      a === b || (a !== null && b !== null && a.width === b.width && a.colour === b.colour && a.pattern === b.pattern)
    /** One line for each stretch of the same border. */
    const along = (
      count: number,
      at: (i: number) => Border | null,
      add: (border: Border, from: number, to: number) => void,
    ) => {
      let from = 0
      let border: Border | null = null
      for (let i = 0; i <= count; i++) {
        const own = i < count ? at(i) : null
        if (i < count && same(own, border)) continue
        if (border) add(border, from, i)
        from = i
        border = own
      }
    }
    const tops = this.rows.map(({ y }) => y)
    const ys = [...tops, this.y]
    for (let line = 0; line <= this.rows.length; line++)
      along(
        columns,
        (column) => edge(lines[line - 1]?.[column], lines[line]?.[column], "bottom"),
        (border, from, to) => {
          const thick = borderThickness(border)
          const [left, right] = [this.edges[from] as number, this.edges[to] as number]
          rules.push({
            x: left - thick / 2,
            y: (ys[line] as number) - thick / 2,
            width: right - left + thick,
            height: thick,
            pattern: border.pattern,
            colour: border.colour,
          })
        },
      )
    for (let column = 0; column <= columns; column++)
      along(
        this.rows.length,
        (row) => edge(lines[row]?.[column - 1], lines[row]?.[column], "right"),
        (border, from, to) => {
          const thick = borderThickness(border)
          const [top, bottom] = [ys[from] as number, ys[to] as number]
          rules.push({
            x: (this.edges[column] as number) - thick / 2,
            y: top,
            width: thick,
            height: bottom - top,
            pattern: border.pattern,
            colour: border.colour,
          })
        },
      )
    return { fills, rules }
  }

  private cellOf({ row, column }: Pick<PlacedCell, "row" | "column">): GridCell {
    return this.grid.begun(row).find((own) => own.column === column) as GridCell
  }
}

/** Sets a table, or the rest of one, into a room. */
export function setTable(styles: StyleSheet, table: Node, room: TableRoom, from: Break, fill: FillCell): TableSet {
  return new Setter(styles, table, room, fill).set(from)
}
