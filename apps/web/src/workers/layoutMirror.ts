/** What the page knows of the layout: the table of all sheets and the contents of those in range. */
import {
  paragraphsOf,
  receivedParagraph,
  sameBreak,
  stackWith,
  withParagraphs,
  type Furniture,
  type Layout,
  type ParagraphLayout,
  type PlacedSheet,
} from "@biblon/core/layout"
import type { LayoutReport, SheetTable } from "./protocol"
import { copyOf, isWithin, setRow, tableFor } from "./sending"

/** Sheets made on the page ahead of the worker, by their numbers, with those in whose place they stand, and the table with them. */
interface Anticipated {
  seq: number
  sheets: ReadonlyMap<number, { placed: PlacedSheet; before: PlacedSheet }>
  table: SheetTable
}

let ids = 0

export class LayoutMirror {
  /** The last change that is included in what is shown. */
  seq = -1
  complete = false
  /** See Layout. */
  pages: Layout["pages"] = new Map()
  private reported = tableFor(0)
  private anticipated: Anticipated | null = null
  private readonly sheets = new Map<number, PlacedSheet>()
  private readonly furniture = new Map<number, { sent: string; own: readonly Furniture[] }>()
  private readonly paragraphs = new Map<number, ParagraphLayout>()

  get table(): SheetTable {
    return this.anticipated?.table ?? this.reported
  }

  get count(): number {
    return this.reported.ids.length
  }

  take(report: LayoutReport): void {
    const held = (id: number) => this.paragraphs.get(id)
    for (const sent of report.paragraphs) this.paragraphs.set(sent.id, receivedParagraph(sent, held))
    for (const sent of report.sheets)
      this.sheets.set(sent.id, {
        sheet: withParagraphs(sent, (id) => this.paragraphs.get(id) as ParagraphLayout),
        leaf: 0,
      })
    const shown = (id: number) => this.paragraphs.get(id) as ParagraphLayout
    const before = new Map(this.furniture)
    this.furniture.clear()
    for (const { sheet, furniture } of report.furniture) {
      const sent = JSON.stringify(furniture)
      const known = before.get(sheet)
      // The same object as long as it is the same.
      if (known?.sent === sent) this.furniture.set(sheet, known)
      else {
        const own = furniture.map((one) => ({ ...one, stack: stackWith(one.stack, shown) }))
        this.furniture.set(sheet, { sent, own })
      }
    }
    const ahead = this.anticipated
    this.anticipated = null
    this.seq = report.seq
    this.complete = report.complete
    this.pages = report.pages ?? this.pages
    this.reported = report.table
    this.forget(report)
    if (ahead && report.seq < ahead.seq) this.keep(ahead)
  }

  /** What is ahead of a report stays, as long as sheets begin where they began when it was made. */
  private keep({ seq, sheets }: Anticipated): void {
    const stays = [...sheets].every(([index, { before }]) => {
      const now = this.placed(index)
      return now?.leaf === before.leaf && sameBreak(now.sheet.start.at, before.sheet.start.at)
    })
    if (stays) this.anticipated = { seq, sheets, table: this.tableWith(sheets) }
  }

  /** Keeps just what the worker knows to be kept. */
  private forget({ table, held }: LayoutReport): void {
    const kept = new Set(table.ids.subarray(held.from, held.to))
    const paragraphs = new Set<number>()
    for (const [id, { sheet }] of this.sheets) {
      if (kept.has(id))
        for (const paragraph of paragraphsOf(sheet, this.furniture.get(id)?.own)) paragraphs.add(paragraph.id)
      else this.sheets.delete(id)
    }
    for (const id of this.paragraphs.keys()) if (!paragraphs.has(id)) this.paragraphs.delete(id)
  }

  /** Shows sheets made on the page, by their numbers, until the worker reports a layout with that change or a later one. */
  anticipate(sheets: ReadonlyMap<number, PlacedSheet>, seq: number): void {
    const all = new Map(this.anticipated?.sheets)
    for (const [index, { sheet, ...placed }] of sheets) {
      const before = this.placed(index)
      // Sheets made here have ids below zero, so that they differ from all that the worker makes.
      if (before) all.set(index, { placed: { ...placed, sheet: { ...sheet, id: --ids } }, before })
    }
    this.anticipated = { seq, sheets: all, table: this.tableWith(all) }
  }

  /** The table with other sheets in it, for which it keeps the ids that the worker knows; the same one where these begin and end as before. */
  private tableWith(sheets: Anticipated["sheets"]): SheetTable {
    const { reported } = this
    const isSame = [...sheets].every(
      ([index, { placed }]) =>
        reported.leaves[index] === placed.leaf &&
        reported.heights[index] === placed.sheet.height &&
        reported.within[index] === isWithin(placed),
    )
    if (isSame) return reported
    const table = copyOf(reported)
    for (const [index, { placed }] of sheets) setRow(table, index, placed)
    return table
  }

  /** The contents of a sheet by its place in the table, if they are here. */
  placed(index: number): PlacedSheet | undefined {
    const ahead = this.anticipated?.sheets.get(index)
    if (ahead) return ahead.placed
    const id = this.reported.ids[index]
    const known = id === undefined ? undefined : this.sheets.get(id)
    if (!known) return undefined
    const leaf = this.firstLeaf(index)
    // The same object as long as it stays where it is.
    const furniture = this.furniture.get(known.sheet.id)?.own
    if (known.leaf === leaf && known.furniture === furniture) return known
    const placed = { sheet: known.sheet, leaf, ...(furniture ? { furniture } : {}) }
    this.sheets.set(known.sheet.id, placed)
    return placed
  }

  firstLeaf(index: number): number {
    return this.table.leaves[index] ?? 0
  }

  /** The sheets that may show a part of a leaf: from the first to the last, by their places in the table. */
  sheetsOfLeaf(leaf: number): { first: number; last: number } {
    const { leaves, within } = this.table
    // The last sheet that starts in or before the leaf …
    let low = 0
    let high = this.count - 1
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if ((leaves[middle] ?? 0) <= leaf) low = middle
      else high = middle - 1
    }
    const last = low
    // … and back over those that start in the middle of its block.
    let first = last
    while (first > 0 && leaves[first] === leaves[last] && within[first] === 1) first--
    return { first, last }
  }
}
