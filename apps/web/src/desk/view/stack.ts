/** How the sheets lie on the desk: one below the other, in CSS pixels. */
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
}

export class Stack {
  private readonly tops: Float64Array
  readonly height: number
  readonly width: number

  constructor(
    readonly table: SheetTable,
    readonly options: StackOptions,
  ) {
    const { scale, flow } = options
    const gap = flow ? 0 : sheetGap
    const n = table.ids.length
    this.tops = new Float64Array(n)
    let y = gap
    let widest = 0
    for (let i = 0; i < n; i++) {
      this.tops[i] = y
      y += (table.heights[i] ?? 0) * scale + gap
      widest = Math.max(widest, table.widths[i] ?? 0)
    }
    this.height = y
    this.width = Math.max(options.width, widest * scale + 2 * (flow ? 0 : sideGap))
  }

  get count(): number {
    return this.tops.length
  }

  top(index: number): number {
    return this.tops[index] ?? 0
  }

  left(index: number): number {
    return Math.max(0, (this.width - (this.table.widths[index] ?? 0) * this.options.scale) / 2)
  }

  /** The sheet at a height, or the one above it. */
  indexAt(y: number): number {
    let low = 0
    let high = this.tops.length - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((this.tops[middle] ?? 0) <= y) low = middle
      else high = middle - 1
    }
    return Math.max(0, low)
  }
}
