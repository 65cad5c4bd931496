/** What of a layout crosses to the page: a row for each sheet, and the contents that the page does not hold yet. */
import { valuesNow } from "@biblon/core/document"
import {
  Furnisher,
  HeldGlyphs,
  isBeginning,
  paragraphsOf,
  sentParagraph,
  stackWith,
  withParagraphs,
  type Layout,
  type PlacedSheet,
  type Sight,
  type Typesetter,
} from "@biblon/core/layout"
import type { LayoutReport, SheetTable } from "./protocol"

/** Whether a sheet begins in the middle of its block, as the table says it. */
export const isWithin = ({ sheet }: PlacedSheet): 0 | 1 => (isBeginning(sheet.start.at) ? 0 : 1)

/** Says in the row of a sheet what is to be said of it, but for its id. */
export function setRow(table: SheetTable, i: number, own: PlacedSheet): void {
  table.leaves[i] = own.leaf
  table.within[i] = isWithin(own)
  table.widths[i] = own.sheet.width
  table.heights[i] = own.sheet.height
}

/** Makes the table of all sheets, of which a letter changes but a few. */
export class Tables {
  private placed: readonly PlacedSheet[] = []
  private table: SheetTable | null = null

  of(placed: readonly PlacedSheet[]): SheetTable {
    const before = this.placed.length === placed.length ? this.table : null
    const table = before ? copyOf(before) : tableFor(placed.length)
    for (let i = 0; i < placed.length; i++) {
      const own = placed[i] as PlacedSheet
      if (before && this.placed[i] === own) continue
      table.ids[i] = own.sheet.id
      setRow(table, i, own)
    }
    this.placed = placed
    this.table = table
    return table
  }
}

export const tableFor = (n: number): SheetTable => ({
  ids: new Uint32Array(n),
  leaves: new Uint32Array(n),
  within: new Uint8Array(n),
  widths: new Float64Array(n),
  heights: new Float64Array(n),
})

export function copyOf({ ids, leaves, within, widths, heights }: SheetTable): SheetTable {
  return {
    ids: ids.slice(),
    leaves: leaves.slice(),
    within: within.slice(),
    widths: widths.slice(),
    heights: heights.slice(),
  }
}

/** What a report says of the sheets in its range. */
type Contents = Pick<LayoutReport, "sheets" | "furniture" | "paragraphs" | "pages">

/** Knows what the page holds: after each report just the sheets of its range. */
export class Sending {
  private sheets = new Set<number>()
  private paragraphs = new Set<number>()
  private pages: Layout["pages"] | null = null
  private readonly glyphs = new HeldGlyphs((paragraph) => this.paragraphs.has(paragraph))

  constructor(private readonly typesetter: Typesetter) {}

  of(layout: Layout, { from, to }: Sight): Contents {
    const pages = layout.pages === this.pages ? null : layout.pages
    this.pages = layout.pages
    const sent: Contents = { sheets: [], furniture: [], paragraphs: [], pages }
    const sheets = new Set<number>()
    const paragraphs = new Set<number>()
    const furnisher = new Furnisher(this.typesetter, layout, valuesNow)
    for (let index = from; index < Math.min(to, layout.placed.length); index++) {
      const { sheet, furniture = [] } = furnisher.of(index)
      sheets.add(sheet.id)
      if (furniture.length > 0)
        sent.furniture.push({
          sheet: sheet.id,
          furniture: furniture.map((one) => ({ ...one, stack: stackWith(one.stack, ({ id }) => id) })),
        })
      for (const paragraph of paragraphsOf(sheet, furniture)) {
        if (!this.paragraphs.has(paragraph.id) && !paragraphs.has(paragraph.id))
          sent.paragraphs.push(sentParagraph(paragraph, this.glyphs))
        paragraphs.add(paragraph.id)
      }
      if (!this.sheets.has(sheet.id)) sent.sheets.push(withParagraphs(sheet, ({ id }) => id))
    }
    this.sheets = sheets
    this.paragraphs = paragraphs
    return sent
  }
}
