/** How the sheets lie on the desk: below one another, or in rows, in CSS pixels. */
import type { SheetTable } from "../../workers/protocol"

/** Space between sheets of paper, and above the first and below the last. */
const sheetGap = 20
/** Least space beside them. */
export const sideGap = 6

export interface StackOptions {
  /** CSS pixels for a point. */
  scale: number
  /** Strips of the flow view follow each other without a gap. */
  flow: boolean
  /** Width of the desk. */
  width: number
  /** Sheets in a row. */
  columns: number
  /** Height of a row in reading view, where one row fills the screen; null for rows as high as their sheets. */
  rowHeight: number | null
}

export class Stack {
  private readonly tops: Float64Array
  private readonly lefts: Float64Array
  readonly height: number
  readonly width: number

  constructor(
    readonly table: SheetTable,
    readonly options: StackOptions,
  ) {
    const { scale, flow, columns, rowHeight } = options
    const gap = flow ? 0 : sheetGap
    const n = table.ids.length
    const heightOf = (i: number) => (table.heights[i] ?? 0) * scale
    const widthOf = (i: number) => (table.widths[i] ?? 0) * scale
    this.tops = new Float64Array(n)
    this.lefts = new Float64Array(n)
    const rows = Math.ceil(n / columns)
    const widths = new Float64Array(rows)
    let y = rowHeight === null ? gap : 0
    let widest = 0
    for (let row = 0, first = 0; row < rows; row++, first += columns) {
      const end = Math.min(first + columns, n)
      let [high, wide] = [0, gap * (end - first - 1)]
      for (let i = first; i < end; i++) {
        high = Math.max(high, heightOf(i))
        wide += widthOf(i)
      }
      for (let i = first; i < end; i++)
        this.tops[i] = flow ? y : Math.round(rowHeight === null ? y : y + Math.max(0, (rowHeight - high) / 2))
      y += rowHeight ?? high + gap
      widths[row] = wide
      widest = Math.max(widest, wide)
    }
    this.height = y
    this.width = Math.max(options.width, widest + 2 * (flow ? 0 : sideGap))
    for (let i = 0, x = 0; i < n; i++) {
      const row = Math.floor(i / columns)
      // An incomplete last row begins where the full ones do.
      if (i % columns === 0) x = Math.max(0, (this.width - (widths[columns > 1 ? 0 : row] ?? 0)) / 2)
      // Whole pixels, so that what is drawn on the sheets falls on them too.
      this.lefts[i] = Math.round(x)
      x += widthOf(i) + gap
    }
  }

  get count(): number {
    return this.tops.length
  }

  top(index: number): number {
    return this.tops[index] ?? 0
  }

  left(index: number): number {
    return this.lefts[index] ?? 0
  }

  /** The first sheet of the row at a height, or of the one above it. */
  rowAt(y: number): number {
    let low = 0
    let high = this.tops.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((this.tops[middle] ?? 0) <= y) low = middle
      else high = middle - 1
    }
    return Math.max(0, low - (low % this.options.columns))
  }

  /** The sheet nearest to a point. */
  indexAt(x: number, y: number): number {
    const { columns, scale } = this.options
    let row = this.rowAt(y)
    const below = row + columns
    // Between two rows the nearer one counts.
    if (below < this.count && this.top(below) - y < y - this.top(row) - (this.table.heights[row] ?? 0) * scale)
      row = below
    for (let i = row; i < Math.min(row + columns, this.count); i++)
      if (x < this.left(i) + (this.table.widths[i] ?? 0) * scale + sheetGap / 2) return i
    return Math.max(0, Math.min(row + columns, this.count) - 1)
  }
}
