import { Fragment, type Node } from "prosemirror-model"
import { gridOf, nodes, paragraph } from "../document"

/** The same table with a cell in each place, none of which reaches farther than it has room. */
export function squared(table: Node): Node {
  const grid = gridOf(table)
  const rows = table.children.map((own, row) => {
    const taken = new Uint8Array(grid.columns)
    for (const cell of grid.standing(row)) taken.fill(1, cell.column, cell.column + cell.colspan)
    const cells = grid.begun(row).map(({ node, rowspan, colspan, column }) => ({
      column,
      node:
        node.attrs.rowspan === rowspan && node.attrs.colspan === colspan
          ? node
          : node.type.create({ ...node.attrs, rowspan, colspan }, node.content),
    }))
    taken.forEach((one, column) => {
      if (one === 0) cells.push({ column, node: nodes.cell.create(null, paragraph()) })
    })
    cells.sort((a, b) => a.column - b.column)
    return own.copy(Fragment.from(cells.map(({ node }) => node)))
  })
  return table.copy(Fragment.from(rows))
}
