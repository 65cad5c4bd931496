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

/** What the table says of a sheet. */
export function rowOf({ sheet: { id, width, height, start }, leaf }: PlacedSheet) {
  return { id, leaf, within: isBeginning(start.at) ? 0 : 1, width, height }
}

export function tableOf(placed: readonly PlacedSheet[]): SheetTable {
  const n = placed.length
  const table = {
    ids: new Uint32Array(n),
    leaves: new Uint32Array(n),
    within: new Uint8Array(n),
    widths: new Float64Array(n),
    heights: new Float64Array(n),
  }
  placed.forEach((own, i) => {
    const { id, leaf, within, width, height } = rowOf(own)
    table.ids[i] = id
    table.leaves[i] = leaf
    table.within[i] = within
    table.widths[i] = width
    table.heights[i] = height
  })
  return table
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
