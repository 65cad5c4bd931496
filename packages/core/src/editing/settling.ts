/** Every change is made whole before it is applied: stories come and go with their anchors, tables have whole grids. */
import type { Node } from "prosemirror-model"
import type { Transaction } from "prosemirror-state"
import { gridOf, nodes, nodesBetween, paragraph } from "../document"
import { settleStories } from "./stories"
import { mendTable } from "./tables/rows"

/** Tables in what a change touched are made whole, and behind one that ends its text stands a paragraph. */
function settleTables(tr: Transaction): void {
  const changed = tr.changedRange()
  if (!changed) return
  const tables: number[] = []
  const ends: number[] = []
  const visit = (node: Node, pos: number): boolean => {
    if (node.type === nodes.table && !gridOf(node).whole) tables.push(pos)
    if (node.type.isInGroup("block") === false && !node.isInline && node.lastChild?.type === nodes.table)
      ends.push(pos + node.nodeSize - 1)
    return !node.isTextblock
  }
  const size = tr.doc.content.size
  nodesBetween(tr.doc, Math.max(0, changed.from - 1), Math.min(size, changed.to + 1), visit)
  if (tables.length === 0 && ends.length === 0) return
  for (const pos of ends.reverse()) tr.insert(pos, paragraph())
  const offset = tr.mapping.maps.length
  for (const pos of tables.reverse()) mendTable(tr, tr.mapping.slice(offset - ends.length).map(pos, -1))
}

/** To be done with every change that is made here, before it is applied. */
export function settle(tr: Transaction): Transaction {
  if (tr.docChanged) settleTables(tr)
  return settleStories(tr)
}
