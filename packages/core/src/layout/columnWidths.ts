/** Widths that the columns of a table need, so that no line of their cells has to be broken, or no word. */
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  cellFormat,
  documentAttrs,
  gridOf,
  isLeaf,
  lettersOf,
  tableFormat,
  type GridCell,
  type LetterFormat,
  type StyleSheet,
} from "../document"
import { lineBreaks } from "./breaking"
import { caretEdges } from "./geometry"
import type { Setting, Typesetter } from "./paragraph"

/** So many rows are measured: more change nothing that could be seen. */
const measured = 2000
const wide = 1e5

export const total = (widths: readonly number[]) => widths.reduce((sum, own) => sum + own, 0)
const readsAcross = ({ node }: GridCell) => (cellFormat(node).reading ?? "across") === "across"

function widthOf(typesetter: Typesetter, setting: Setting, table: Node, cell: GridCell): number {
  const letters = lettersOf(setting.styles, table, cell)
  const turned = !readsAcross(cell)
  let widest = 0
  let stacked = 0
  for (const block of blocksOf(cell.node).nodes) {
    if (!isLeaf(block)) {
      if (block.type.name === "table") widest = Math.max(widest, total(naturalColumns(typesetter, setting, block)))
      continue
    }
    const { lines, format, height } = typesetter.paragraph(setting, block, wide, null, { letters })
    stacked += height + format.spaceBefore + format.spaceAfter
    const indent = format.indentLeft + format.indentRight + Math.max(0, format.indentFirst)
    for (const line of lines) widest = Math.max(widest, line.width + indent)
  }
  return turned ? stacked : widest
}

/** In points, with the space round their text. */
export function naturalColumns(typesetter: Typesetter, setting: Setting, table: Node): number[] {
  const grid = gridOf(table)
  const { across } = tableFormat(table).padding
  const widths = new Array<number>(grid.columns).fill(12 + 2 * across)
  for (let row = 0; row < Math.min(grid.rows, measured); row++)
    for (const cell of grid.begun(row)) {
      // A hair more, so that rounding breaks no line.
      const own = widthOf(typesetter, setting, table, cell) + 2 * across + 1
      if (cell.colspan === 1) widths[cell.column] = Math.max(widths[cell.column] ?? 0, own)
    }
  return widths.map((width) => Math.round(width * 10) / 10)
}

/** Rows that are measured for the widths on a screen: so many come into sight together at most. */
export const measuredOnScreen = 100

/** What the widest word of each cell takes, as long as nothing changes that it hangs on. */
const words = new WeakMap<Node, { styles: StyleSheet; letters: Partial<LetterFormat> | null; widest: number }>()

function widestWord(typesetter: Typesetter, setting: Setting, table: Node, cell: GridCell): number {
  const letters = lettersOf(setting.styles, table, cell)
  const known = words.get(cell.node)
  if (known?.styles === setting.styles && known.letters === letters) return known.widest
  let widest = 0
  let hasFields = false
  // Lines that rise are as long as they need to be.
  const blocks = readsAcross(cell) ? blocksOf(cell.node).nodes : []
  for (const block of blocks) {
    if (block.type.name === "table") widest = Math.max(widest, total(leastColumns(typesetter, setting, block)))
    if (!isLeaf(block)) continue
    const paragraph = typesetter.paragraph(setting, block, wide, null, { letters })
    const { text, lines, format } = paragraph
    hasFields ||= text.includes("\ufffc")
    const { offsets } = lineBreaks(text)
    const indent = format.indentLeft + format.indentRight
    for (const line of lines) {
      const { leading } = caretEdges(paragraph, line)
      let from = line.from
      for (const to of offsets) {
        if (to <= from) continue
        const end = Math.min(to, line.to)
        const length = text.slice(from, end).trimEnd().length
        const [a, b] = [leading[from - line.from] ?? 0, leading[from + length - line.from] ?? 0]
        // A picture is made as small as its column.
        if (!line.runs.some((own) => own.run.picture && own.from >= from && own.from < end))
          widest = Math.max(widest, Math.abs(b - a) + indent)
        if (to >= line.to) break
        from = end
      }
    }
  }
  // What fields show may be something else the next time.
  if (!hasFields) words.set(cell.node, { styles: setting.styles, letters, widest })
  return widest
}

/** The least widths in which no word of a column has to be broken, told by its first rows, in points. */
export function leastColumns(typesetter: Typesetter, setting: Setting, table: Node): number[] {
  const grid = gridOf(table)
  const { across } = tableFormat(table).padding
  const widths = new Array<number>(grid.columns).fill(12)
  for (let row = 0; row < Math.min(grid.rows, measuredOnScreen); row++)
    for (const cell of grid.begun(row))
      if (cell.colspan === 1)
        widths[cell.column] = Math.max(
          widths[cell.column] ?? 0,
          widestWord(typesetter, setting, table, cell) + 2 * across + 1,
        )
  return widths
}

/** Widths in a room as they were wished for, but so that columns with long words take from those with room to spare. */
export function columnsWithWords(wished: readonly number[], least: readonly number[], room: number): number[] {
  const needed = total(least)
  const all = Math.min(room, Math.max(total(wished), needed))
  if (needed >= all) return least.map((own) => (own * all) / needed)
  const scale = all / total(wished)
  const scaled = wished.map((own) => own * scale)
  const spare = scaled.map((own, i) => Math.max(0, own - least[i]!))
  const lacking = total(scaled.map((own, i) => Math.max(0, least[i]! - own)))
  const given = lacking > 0 ? lacking / total(spare) : 0
  return scaled.map((own, i) => (spare[i]! > 0 ? own - spare[i]! * given : Math.max(own, least[i]!)))
}

/** The setting of a document, for measuring. */
export function settingOf(doc: Node, typesetter: Typesetter): Setting {
  const { styles, typesetting } = documentAttrs(doc)
  return { styles, typesetting, values: typesetter.values }
}
