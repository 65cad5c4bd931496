/** The structure of a document for who cannot see it (ISO 32000-1, 14.8): blocks, items as lists, tables with their rows and cells. */
import type { SetCell, SetTable } from "../../layout"
import { ref as reference, textString, type PdfFile, type Ref } from "./objects"

/** Structure of a block, and of what stands before it as an item of a list. */
export interface Element {
  ref: Ref
  tag: string
  content: string[]
  label: { ref: Ref; content: string } | null
  /** The cell that it stands in, on the first of its sheets. */
  cell: SetCell | null
  /** Of a picture: what it shows. */
  alt?: string
}
type Numbered = [leaf: number, Element]

/** A table as a whole: the cells of all its sheets, by their first leaves. */
interface Whole {
  first: SetTable
  cells: Map<number, SetCell>
}

const keyOf = (table: SetTable): string => `${depthOf(table)} ${table.leaf}`

function depthOf({ outer }: SetTable): number {
  return outer ? depthOf(outer.table) + 1 : 0
}

/** The table, and the cell of it, in which a block stands at a depth of tables in tables. */
function standsIn({ cell }: Element, depth: number): SetCell | null {
  let own = cell
  while (own && depthOf(own.table) > depth) own = own.table.outer
  return own && depthOf(own.table) === depth ? own : null
}

class Writer {
  private readonly tables = new Map<string, Whole>()

  constructor(
    private readonly file: PdfFile,
    tables: readonly SetTable[],
  ) {
    for (const table of tables) {
      const key = keyOf(table)
      const whole = this.tables.get(key) ?? { first: table, cells: new Map<number, SetCell>() }
      this.tables.set(key, whole)
      for (const cell of table.cells)
        if (!cell.repeated && !whole.cells.has(cell.leaf)) whole.cells.set(cell.leaf, cell)
    }
  }

  private write(tag: string, own: Ref, over: Ref, content: string, more = ""): Ref {
    return this.file.add(`<</Type/StructElem/S/${tag}/P ${reference(over)}${more}/K[${content}]>>`, own)
  }

  /** Writes blocks, items of lists that follow each other as one list. Returns what their parent holds. */
  blocks(elements: readonly Numbered[], parent: Ref, depth: number): Ref[] {
    const top: Ref[] = []
    for (let i = 0; i < elements.length;) {
      const [, element] = elements[i] as Numbered
      const cell = standsIn(element, depth)
      if (cell) {
        const key = keyOf(cell.table)
        let end = i
        while (end < elements.length) {
          const own = standsIn((elements[end] as Numbered)[1], depth)
          if (!own || keyOf(own.table) !== key) break
          end++
        }
        top.push(this.table(this.tables.get(key) as Whole, elements.slice(i, end), parent, depth))
        i = end
        continue
      }
      const end = endOfList(elements, i)
      if (end > i) {
        top.push(this.list(elements.slice(i, end), parent))
        i = end
        continue
      }
      const { ref: own, tag, content, label, alt } = element
      // A heading says its number itself.
      if (label) this.write("Lbl", label.ref, own, label.content)
      this.write(
        tag === "LBody" ? "P" : tag,
        own,
        parent,
        `${label ? reference(label.ref) : ""}${content.join("")}`,
        alt === undefined ? "" : `/Alt${textString(alt)}`,
      )
      top.push(own)
      i++
    }
    return top
  }

  private list(items: readonly Numbered[], parent: Ref): Ref {
    const list = this.file.reserve()
    const written = items.map(([, { ref: own, content, label }]) => {
      const item = this.file.reserve()
      if (label) this.write("Lbl", label.ref, item, label.content)
      this.write("LBody", own, item, content.join(""))
      return this.write("LI", item, list, `${label ? `${reference(label.ref)} ` : ""}${reference(own)}`)
    })
    return this.write("L", list, parent, written.map(reference).join(" "))
  }

  /** Also cells without text have their place, so that the others keep theirs. */
  private table({ first, cells }: Whole, elements: readonly Numbered[], parent: Ref, depth: number): Ref {
    const inside = new Map<number, Numbered[]>()
    for (const own of elements) {
      const { leaf } = standsIn(own[1], depth) as SetCell
      inside.set(leaf, [...(inside.get(leaf) ?? []), own])
    }
    const table = this.file.reserve()
    const rows = new Map<number, SetCell[]>()
    for (const cell of cells.values()) rows.set(cell.row, [...(rows.get(cell.row) ?? []), cell])
    const written = [...rows]
      .sort(([a], [b]) => a - b)
      .map(([, own]) => {
        const row = this.file.reserve()
        const content = own
          .sort((a, b) => a.column - b.column)
          .map((cell) => this.cell(cell, inside.get(cell.leaf) ?? [], row, depth))
        return this.write("TR", row, table, content.map(reference).join(" "))
      })
    const alt = first.alt ? `/Alt${textString(first.alt)}` : ""
    return this.write("Table", table, parent, written.map(reference).join(" "), alt)
  }

  private cell({ heads, rowspan, colspan }: SetCell, elements: readonly Numbered[], row: Ref, depth: number): Ref {
    const cell = this.file.reserve()
    const said = [
      heads ? `/Scope/${heads === "column" ? "Column" : "Row"}` : "",
      rowspan > 1 ? `/RowSpan ${rowspan}` : "",
      colspan > 1 ? `/ColSpan ${colspan}` : "",
    ].join("")
    const content = this.blocks(elements, cell, depth + 1)
    return this.write(heads ? "TH" : "TD", cell, row, content.map(reference).join(" "), said && `/A<</O/Table${said}>>`)
  }
}

/** Index behind the items that follow each other without a gap from `from` on, in one cell or in none. */
function endOfList(elements: readonly Numbered[], from: number): number {
  let end = from
  while (
    elements[end]?.[1].tag === "LBody" &&
    elements[end]?.[1].label &&
    elements[end]?.[1].cell?.leaf === elements[from]?.[1].cell?.leaf &&
    (end === from || elements[end]?.[0] === (elements[end - 1]?.[0] ?? 0) + 1)
  )
    end++
  return end
}

/** Writes the structure of blocks, which are in the order of the text. Returns what the document holds. */
export function writeElements(
  file: PdfFile,
  elements: readonly Numbered[],
  parent: Ref,
  tables: readonly SetTable[],
): Ref[] {
  return new Writer(file, tables).blocks(elements, parent, 0)
}
