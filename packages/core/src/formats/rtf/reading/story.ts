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

export class Story {
  private readonly blocks: (Block | string)[] = []
  private rows: SetRow[] = []
  private cells: string[] = []
  private cell = ""
  /** Of the cells that have ended. */
  private row: Row = plainRow
  runs = ""

  constructor(private readonly book: Book) {}

  /** The paragraph ends that is being read. */
  endParagraph(paragraph: Paragraph, ending = ""): void {
    const block = { paragraph, runs: this.runs, ending, section: "" }
    this.runs = ""
    if (paragraph.inTable) this.cell += this.xml(block)
    else {
      this.endTable()
      this.blocks.push(block)
    }
  }

  endCell(paragraph: Paragraph, row: Row, ending: string): void {
    this.row = row
    // What was said between two paragraphs of a cell stands in it too.
    this.endParagraph({ ...paragraph, inTable: true }, ending)
    this.cells.push(this.cell)
    this.cell = ""
  }

  endRow(row: Row): void {
    if (this.cells.length === 0) return
    this.rows.push({ row, cells: this.cells })
    this.cells = []
    this.cell = ""
  }

  private endTable(): void {
    if (this.cell !== "" || this.cells.length > 0) {
      // A row that never ends is one all the same.
      if (this.cell !== "") this.cells.push(this.cell)
      this.cell = ""
      this.endRow(this.row)
    }
    if (this.rows.length > 0) this.blocks.push(tableXml(this.rows))
    this.rows = []
  }

  /** A section ends: with the paragraph that has ended, or with one of its own. */
  endSection(section: string, paragraph: Paragraph): void {
    if (this.runs !== "" || this.rows.length > 0) this.endParagraph({ ...paragraph, inTable: false })
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
    this.endTable()
    const { blocks } = this
    const whole = blocks.map((block) => (typeof block === "string" ? block : this.xml(block))).join("")
    return typeof blocks.at(-1) === "object" ? whole : `${whole}<w:p/>`
  }
}
