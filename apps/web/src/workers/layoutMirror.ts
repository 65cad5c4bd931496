/** What the page knows of the layout: the table of all sheets and the contents of those in range. */
import type { ParagraphLayout, Sheet } from "@biblon/core/layout"
import type { LayoutReport, SheetTable } from "./protocol"

const emptyTable: SheetTable = { ids: new Uint32Array(), blocks: new Uint32Array(), lines: new Uint32Array(), widths: new Float64Array(), heights: new Float64Array() }

export class LayoutMirror {
  seq = -1
  complete = false
  table = emptyTable
  private readonly sheets = new Map<number, Sheet>()
  private readonly paragraphs = new Map<number, ParagraphLayout>()

  get count(): number {
    return this.table.ids.length
  }

  take(report: LayoutReport): void {
    for (const paragraph of report.paragraphs) this.paragraphs.set(paragraph.id, paragraph)
    for (const sent of report.sheets)
      this.sheets.set(sent.id, { ...sent, fragments: sent.fragments.map((f) => ({ ...f, paragraph: this.paragraphs.get(f.paragraph) as ParagraphLayout })) })
    this.seq = report.seq
    this.complete = report.complete
    this.table = report.table
    this.forget(report)
  }

  /** Keeps just what the worker knows to be kept. */
  private forget({ table, from, to }: LayoutReport): void {
    const kept = new Set(table.ids.subarray(from, to))
    const paragraphs = new Set<number>()
    for (const [id, sheet] of this.sheets) {
      if (kept.has(id)) for (const f of sheet.fragments) paragraphs.add(f.paragraph.id)
      else this.sheets.delete(id)
    }
    for (const id of this.paragraphs.keys()) if (!paragraphs.has(id)) this.paragraphs.delete(id)
  }

  /** The contents of a sheet by its place in the table, if they are here. */
  sheet(index: number): Sheet | undefined {
    const id = this.table.ids[index]
    return id === undefined ? undefined : this.sheets.get(id)
  }

  firstBlock(index: number): number {
    return this.table.blocks[index] ?? 0
  }

  /** The sheets that may show a part of a block: from the first to the last, by their places in the table. */
  sheetsOfBlock(block: number): { first: number; last: number } {
    const { blocks, lines } = this.table
    // The last sheet that starts in or before the block …
    let low = 0
    let high = this.count - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((blocks[middle] ?? 0) <= block) low = middle
      else high = middle - 1
    }
    const last = low
    // … and back over those that start in the middle of it.
    let first = last
    while (first > 0 && blocks[first] === block && (lines[first] ?? 0) > 0) first--
    return { first, last }
  }
}
