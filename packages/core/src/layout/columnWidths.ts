/** Widths that the columns of a table need, so that no line of their cells has to be broken. */
import type { Node } from "prosemirror-model"
import { blocksOf, cellFormat, documentAttrs, gridOf, isLeaf, lettersOf, tableFormat, type GridCell } from "../document"
import type { Setting, Typesetter } from "./paragraph"

/** So many rows are measured: more change nothing that could be seen. */
const measured = 2000
const wide = 1e5

function widthOf(typesetter: Typesetter, setting: Setting, table: Node, cell: GridCell): number {
  const letters = lettersOf(setting.styles, table, cell)
  const turned = (cellFormat(cell.node).reading ?? "across") !== "across"
  let widest = 0
  let stacked = 0
  for (const block of blocksOf(cell.node).nodes) {
    if (!isLeaf(block)) {
      if (block.type.name === "table")
        widest = Math.max(
          widest,
          naturalColumns(typesetter, setting, block).reduce((a, b) => a + b, 0),
        )
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

/** The setting of a document, for measuring. */
export function settingOf(doc: Node, typesetter: Typesetter): Setting {
  const { styles, typesetting } = documentAttrs(doc)
  return { styles, typesetting, values: typesetter.values }
}
