/** What blocks stand in, for assistive technology: items of a list in a list, the blocks of a cell in a row of a table. */
import type { Fragment, ParagraphLayout, SetCell } from "@biblon/core/layout"
import { element, inOrder } from "./elements"

/** An element for each thing that something stands in, kept from one painting to the next. */
class Pool {
  private readonly known = new Map<string, HTMLElement>()
  private used = new Set<string>()

  take(key: string, role: string): HTMLElement {
    let own = this.known.get(key)
    if (!own) this.known.set(key, (own = element("div", role === "list" ? "list" : "nest")))
    if (own.role !== role) own.role = role
    this.used.add(key)
    return own
  }

  /** Takes away what was not asked for since the last time. */
  sweep(): void {
    for (const [key, own] of this.known)
      if (!this.used.has(key)) {
        own.remove()
        this.known.delete(key)
      }
    this.used = new Set()
  }
}

const depthOf = ({ table }: SetCell): number => (table.outer ? depthOf(table.outer) + 1 : 0)

function standsIn(cell: SetCell | null, depth: number): SetCell | null {
  let own = cell
  while (own && depthOf(own) > depth) own = own.table.outer
  return own && depthOf(own) === depth ? own : null
}

/** Elements that follow one another, with what of them is the same. */
function* groups<T>(all: readonly T[], keyOf: (one: T) => unknown): Generator<T[]> {
  let from = 0
  for (let i = 1; i <= all.length; i++) {
    if (i < all.length && keyOf(all[i] as T) === keyOf(all[from] as T)) continue
    yield all.slice(from, i)
    from = i
  }
}

/** Role and level that a paragraph has for assistive technology. */
export function roleOf({ outline, label, format }: ParagraphLayout): { role: string; level: number | null } {
  if (outline !== null) return { role: "heading", level: outline }
  return label && format.list ? { role: "listitem", level: format.list.level + 1 } : { role: "paragraph", level: null }
}

/** A block, and what says where it stands. */
export interface Standing {
  block: HTMLElement
  cell: SetCell | null
  /** Whether it is an item of a list. */
  isItem: boolean
  /** Whether there is anything to read in it. */
  says: boolean
}

export function standing(block: HTMLElement, { cell, paragraph }: Fragment): Standing {
  const { text, label } = paragraph
  return { block, cell, isItem: roleOf(paragraph).role === "listitem", says: text !== "" || label !== null }
}

/** Whether cells of two paintings are told alike. */
function alike(a: SetCell | null, b: SetCell | null): boolean {
  if (a === b) return true
  return (
    a !== null &&
    b !== null &&
    a.leaf === b.leaf &&
    a.row === b.row &&
    a.column === b.column &&
    a.rowspan === b.rowspan &&
    a.colspan === b.colspan &&
    a.heads === b.heads &&
    a.table.alt === b.table.alt &&
    a.table.leaf === b.table.leaf &&
    alike(a.table.outer, b.table.outer)
  )
}

/** Whether all stand where they stood: in one cell with their neighbour, or not, as before. */
function standAlike(all: readonly Standing[], before: readonly Standing[]): boolean {
  return (
    all.length === before.length &&
    all.every(({ block, cell, isItem, says }, i) => {
      const was = before[i] as Standing
      return (
        block === was.block &&
        isItem === was.isItem &&
        says === was.says &&
        alike(cell, was.cell) &&
        (i === 0 || (cell === all[i - 1]?.cell) === (was.cell === before[i - 1]?.cell))
      )
    })
  )
}

export class Nesting {
  private readonly pool = new Pool()
  private before: readonly Standing[] = []
  private outer: HTMLElement[] = []

  /** The blocks, in elements for what they stand in: the same list as long as nothing stands elsewhere. */
  nest(all: readonly Standing[]): HTMLElement[] {
    if (!standAlike(all, this.before)) {
      this.outer = this.inside(all, 0, "")
      this.pool.sweep()
    }
    this.before = all
    return this.outer
  }

  private inside(all: readonly Standing[], depth: number, path: string): HTMLElement[] {
    let tables = 0
    let lists = 0
    return [...groups(all, ({ cell, isItem }) => standsIn(cell, depth)?.table ?? isItem)].flatMap((own) => {
      const { cell, isItem } = own[0] as Standing
      if (standsIn(cell, depth)) return [this.table(own, depth, `${path}/t${tables++}`)]
      const blocks = own.map(({ block }) => block)
      // Items in a row lie in an element that says that they are a list.
      if (!isItem) return blocks
      const list = this.pool.take(`${path}/l${lists++}`, "list")
      inOrder(list, blocks, true)
      return [list]
    })
  }

  private table(all: readonly Standing[], depth: number, path: string): HTMLElement {
    const table = this.pool.take(path, "table")
    const { alt } = (standsIn((all[0] as Standing).cell, depth) as SetCell).table
    if (alt) table.setAttribute("aria-label", alt)
    else table.removeAttribute("aria-label")
    const rows = [...groups(all, ({ cell }) => standsIn(cell, depth)?.row)].map((own, i) => {
      const row = this.pool.take(`${path}/r${i}`, "row")
      const cells = [...groups(own, ({ cell }) => standsIn(cell, depth))].map((inCell, k) => {
        const set = standsIn((inCell[0] as Standing).cell, depth) as SetCell
        // A head that says nothing heads nothing.
        const says = inCell.some((own) => own.says)
        const heads = !says || !set.heads ? "cell" : set.heads === "column" ? "columnheader" : "rowheader"
        const cell = this.pool.take(`${path}/r${i}/c${k}`, heads)
        cell.setAttribute("aria-colindex", String(set.column + 1))
        if (set.colspan > 1) cell.setAttribute("aria-colspan", String(set.colspan))
        else cell.removeAttribute("aria-colspan")
        if (set.rowspan > 1) cell.setAttribute("aria-rowspan", String(set.rowspan))
        else cell.removeAttribute("aria-rowspan")
        inOrder(cell, this.inside(inCell, depth + 1, `${path}/r${i}/c${k}`), true)
        return cell
      })
      row.setAttribute("aria-rowindex", String((standsIn((own[0] as Standing).cell, depth) as SetCell).row + 1))
      inOrder(row, cells, true)
      return row
    })
    inOrder(table, rows, true)
    return table
  }
}
