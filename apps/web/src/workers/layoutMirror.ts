/** What the page knows of the layout: the table of all sheets and the contents of those in range. */
import {
  fragmentsOf,
  paragraphsOf,
  receivedParagraph,
  stackWith,
  withParagraphs,
  type Furniture,
  type ParagraphLayout,
  type PlacedSheet,
  type Sheet,
} from "@biblon/core/layout"
import type { LayoutReport, SheetTable } from "./protocol"

const emptyTable: SheetTable = {
  ids: new Uint32Array(),
  leaves: new Uint32Array(),
  within: new Uint8Array(),
  widths: new Float64Array(),
  heights: new Float64Array(),
}

/** A leaf set on the page ahead of the worker, and the sheets that show it, by those of the worker. */
interface Anticipated {
  leaf: number
  paragraph: ParagraphLayout
  seq: number
  shown: WeakMap<Sheet, PlacedSheet>
}

let ids = 0

export class LayoutMirror {
  /** The last change that is included in what is shown. */
  seq = -1
  complete = false
  table = emptyTable
  private anticipated: Anticipated | null = null
  private readonly sheets = new Map<number, PlacedSheet>()
  private readonly furniture = new Map<number, { sent: string; own: readonly Furniture[] }>()
  private readonly paragraphs = new Map<number, ParagraphLayout>()

  get count(): number {
    return this.table.ids.length
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
    if (this.anticipated && report.seq >= this.anticipated.seq) this.anticipated = null
    this.seq = report.seq
    this.complete = report.complete
    this.table = report.table
    this.forget(report)
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

  /** Shows a leaf newly set on the page until the worker reports a layout with that change or a later one. */
  anticipate(leaf: number, paragraph: ParagraphLayout, seq: number): void {
    this.anticipated = { leaf, paragraph, seq, shown: new WeakMap() }
  }

  /** The contents of a sheet by its place in the table, if they are here. */
  placed(index: number): PlacedSheet | undefined {
    const id = this.table.ids[index]
    const known = id === undefined ? undefined : this.sheets.get(id)
    if (!known) return undefined
    const leaf = this.firstLeaf(index)
    // The same object as long as it stays where it is.
    const furniture = this.furniture.get(known.sheet.id)?.own
    const placed =
      known.leaf === leaf && known.furniture === furniture
        ? known
        : { sheet: known.sheet, leaf, ...(furniture ? { furniture } : {}) }
    if (placed !== known) this.sheets.set(known.sheet.id, placed)
    return this.anticipated ? this.withAnticipated(placed, this.anticipated) : placed
  }

  private withAnticipated(placed: PlacedSheet, ahead: Anticipated): PlacedSheet {
    const { sheet, leaf } = placed
    const known = ahead.shown.get(sheet)
    if (known) return known
    const lines = ahead.paragraph.lines.length
    const at = new Set(
      fragmentsOf(placed).flatMap(({ part, leaf, paragraph }, i) =>
        part === "text" && leaf === ahead.leaf && paragraph.lines.length === lines ? [i] : [],
      ),
    )
    if (at.size === 0) return placed
    // Sheets made here have ids below zero, so that they differ from all that the worker makes.
    let n = 0
    const shown = {
      sheet: { ...withParagraphs(sheet, (own) => (at.has(n++) ? ahead.paragraph : own)), id: --ids },
      leaf,
      ...(placed.furniture ? { furniture: placed.furniture } : {}),
    }
    ahead.shown.set(sheet, shown)
    return shown
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
