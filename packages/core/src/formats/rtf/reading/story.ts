/** A text of RTF while it is read: paragraphs, rows of tables, and the runs of the paragraph that is being read. */
import { paragraphBeside, paragraphXml, type Paragraph } from "./paragraphs"
import { plainRow, tableXml, type Row, type SetRow } from "./tables"
import type { Book } from "./tellings"

interface Block {
  paragraph: Paragraph
  runs: string
  /** Letters of its end, which are all that it has where it is empty. */
  ending: string
  /** The section that ends with it. */
  section: string
}

/** A table while it is read. */
interface OpenTable {
  rows: SetRow[]
  /** Of the row that is read, those that have ended and what is said of them, and the one that is read. */
  cells: string[]
  row: Row
  cell: string
}

export class Story {
  private readonly blocks: (Block | string)[] = []
  /** Tables that have not ended, each in a cell of the one before. */
  private readonly tables: OpenTable[] = []
  runs = ""

  constructor(private readonly book: Book) {}

  /** The paragraph ends that is being read. */
  endParagraph(paragraph: Paragraph, ending = ""): void {
    const block = { paragraph, runs: this.runs, ending, section: "" }
    this.runs = ""
    const depth = paragraph.inTable ? paragraph.depth : 0
    this.endTables(depth)
    if (depth === 0) this.blocks.push(block)
    else this.table(depth).cell += this.xml(block)
  }

  /** @param depth of the table: 1 where it stands in no other */
  endCell(paragraph: Paragraph, depth: number, row: Row, ending: string): void {
    // What was said between two paragraphs of a cell stands in it too.
    this.endParagraph({ ...paragraph, inTable: true, depth }, ending)
    const table = this.table(depth)
    table.row = row
    table.cells.push(table.cell)
    table.cell = ""
  }

  endRow(row: Row, depth: number): void {
    this.endTables(depth)
    const table = this.tables[depth - 1]
    if (!table || table.cells.length === 0) return
    table.rows.push({ row, cells: table.cells })
    table.cells = []
    table.cell = ""
  }

  private table(depth: number): OpenTable {
    while (this.tables.length < depth) this.tables.push({ rows: [], cells: [], row: plainRow, cell: "" })
    return this.tables[depth - 1] as OpenTable
  }

  /** Ends the tables that stand deeper. */
  private endTables(depth: number): void {
    for (let table = this.tables.at(-1); table && this.tables.length > depth; table = this.tables.at(-1)) {
      // A row that never ends is one all the same.
      if (table.cell !== "") table.cells.push(table.cell)
      this.endRow(table.row, this.tables.length)
      this.tables.pop()
      if (table.rows.length === 0) continue
      const outer = this.tables.at(-1)
      if (outer) outer.cell += tableXml(table.rows)
      else this.blocks.push(tableXml(table.rows))
    }
  }

  /** A section ends: with the paragraph that has ended, or with one of its own. */
  endSection(section: string, paragraph: Paragraph): void {
    if (this.runs !== "" || this.tables.length > 0) this.endParagraph({ ...paragraph, inTable: false })
    const last = this.blocks.at(-1)
    if (typeof last === "object" && last.section === "") last.section = section
    else this.blocks.push({ paragraph: { ...paragraph, inTable: false }, runs: "", ending: "", section })
  }

  private xml({ paragraph, runs, ending, section }: Block): string {
    const { colours } = this.book
    const inside = (runs === "" ? ending : "") + section
    const format = paragraphXml(paragraphBeside(paragraph, this.book.baseOf(paragraph)), colours, inside)
    return runs === "" && format === "" ? "<w:p/>" : `<w:p>${format}${runs}</w:p>`
  }

  /** All of it, with what stands in no paragraph yet as one. */
  finish(paragraph: Paragraph): string {
    if (this.runs !== "") this.endParagraph(paragraph)
    this.endTables(0)
    const { blocks } = this
    const whole = blocks.map((block) => (typeof block === "string" ? block : this.xml(block))).join("")
    return typeof blocks.at(-1) === "object" ? whole : `${whole}<w:p/>`
  }
}
