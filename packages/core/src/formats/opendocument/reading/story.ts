/** Blocks of the body, of a head or foot, of a note or a cell. */
import {
  asName,
  bodyStyle,
  defaultTable,
  isLink,
  limits,
  lookOfEntries,
  lookOfStops,
  marks as markTypes,
  nodes,
  paragraph,
  schema,
  within as bound,
  type CellFormat,
  type ContentsLook,
  type FieldAttrs,
  type LetterFormat,
  type ListPlace,
  type MarkName,
  type PageSetup,
  type ParagraphFormat,
  type PictureFormat,
  type TableFormat,
  citationFormat,
  citationItems,
  fieldAttrs,
  type Watermark,
} from "../../../document"
import { Mark, type Node } from "prosemirror-model"
import { commentOf } from "../../commenting"
import { ownNamed } from "../../properties"
import { meanings } from "../../meanings"
import { isPartStart, partMarked, type PartStart } from "../../partMarks"
import { squared } from "../../squared"
import { child, childrenNamed, isElement, textIn, within, type XmlElement } from "../../xml/parsing"
import { itemOfMark } from "../sources"
import type { Book } from "./book"
import { borderOf, colourOf, edgesOf, lengthOf, readingOf, turnOf } from "./properties"
import type { Styles } from "./styles"
import { watermarkIn } from "./watermarks"

export type StoryKind = "body" | "edge" | "note" | "cell"

/** What follows stands on sheets of a master page, or in columns of their own. */
export interface SectionStart {
  master: string | null
  columns: PageSetup["columns"] | null
  /** The number of its first sheet. */
  start: number | null
}
export type Block = Node | SectionStart | PartStart
export const isSectionStart = (block: Block): block is SectionStart => "master" in block

interface ListNow {
  definition: string | null
  run: string
  level: number
  done: boolean
  start: number | undefined
  /** Whether the next paragraph is the item itself, and not what follows in it. */
  fresh: boolean
}

const contentsKinds = meanings<string>({
  "text:table-of-content": "",
  "text:bibliography": "",
  "text:illustration-index": "Figure",
  "text:table-index": "Table",
})

/** White space that is not one blank. */
const folded = / {2}|[\t\r\n]/

export class StoryReader {
  readonly blocks: Block[] = []
  private list: ListNow | null = null
  private nodes: Node[] = []
  private place: string | null = null
  private readonly bookmarks = new Set<string>()
  private link: string | null = null
  private beside: Node[] = []

  constructor(
    private readonly book: Book,
    private readonly styles: Styles,
    private readonly kind: StoryKind,
    private readonly depth = 0,
  ) {}

  takeAll(parent: XmlElement | undefined): this {
    for (const own of parent?.children ?? []) if (isElement(own)) this.take(own)
    return this
  }

  finish(): Node[] {
    const own = this.blocks.filter((block): block is Node => !isSectionStart(block) && !isPartStart(block))
    return own.length > 0 ? own : [paragraph()]
  }

  take(element: XmlElement): void {
    const { name, attrs } = element
    const of = contentsKinds(name)
    if (name === "text:p" || name === "text:h") this.paragraph(element)
    else if (name === "text:list") this.listOf(element)
    else if (name === "table:table") this.table(element)
    else if (name === "text:section") this.section(element)
    else if (of !== undefined) this.contents(element, of)
    else if (name.startsWith("text:") && within(element, "text:index-body"))
      this.takeAll(within(element, "text:index-body"))
    else if (name === "draw:frame") this.loose(element)
    else if (name === "text:tracked-changes" && element.children.length > 0)
      this.book.leaving.addHere("proposed edits, taken in as accepted")
    else if (name === "text:soft-page-break" || name === "text:sequence-decls" || attrs["office:name"] !== undefined)
      return
    else if (name === "text:numbered-paragraph" || name === "text:index-title") this.takeAll(element)
  }

  private loose(element: XmlElement): void {
    this.nodes = []
    this.inline(element, {}, "")
    if (this.nodes.length > 0) this.blocks.push(paragraph(bodyStyle, this.nodes))
    this.blocks.push(...this.beside)
    this.beside = []
    this.nodes = []
  }

  private section(element: XmlElement): void {
    const style = this.styles.element("section", element.attrs["text:style-name"])
    const columns = columnsOf(child(style, "style:section-properties"))
    if (element.attrs["text:display"] === "none") return this.book.leaving.addHere("hidden sections")
    if (columns.count < 2 || this.kind !== "body") return void this.takeAll(element)
    this.blocks.push({ master: null, columns, start: null })
    this.takeAll(element)
    this.blocks.push({ master: null, columns: { count: 1, gap: columns.gap, line: false, shares: null }, start: null })
  }

  private contents(element: XmlElement, of: string): void {
    if (this.kind !== "body") return
    const source = element.children.filter(isElement).find((own) => own.name.endsWith("-source"))
    const levels = bound(Number(source?.attrs["text:outline-level"] ?? 3) || 3, [1, 9])
    const label = asName(source?.attrs["text:caption-sequence-name"] ?? "") || of
    const sources = element.name === "text:bibliography"
    // A list of sources that nothing tells of stays as it stands there.
    const body = child(element, "text:index-body")
    if (sources && Object.keys(this.book.sources.list).length === 0 && textIn(body).trim() !== "")
      return void this.takeAll(body)
    const title = within(element, "text:index-title")
    if (title) this.takeAll(title)
    const look = sources ? "sources" : this.lookOf(body)
    this.blocks.push(nodes.contents.create({ levels, look, of: of === "" ? "" : label }))
  }

  private lookOf(body: XmlElement | undefined): ContentsLook {
    const entries = childrenNamed(body, "text:p")
    const looks = entries.map(({ attrs }) => lookOfStops(this.styles.stopsOf(attrs["text:style-name"])))
    return lookOfEntries(looks.find((own) => own !== null) ?? null, entries.length > 0)
  }

  // ---- lists

  private listOf(element: XmlElement): void {
    const outer = this.list
    const named = element.attrs["text:style-name"]
    const style = named === undefined ? undefined : this.book.listStyle(named, this.styles)
    const definition = style
      ? (this.book.lists.definition(style, named ?? "") ?? null)
      : (outer?.definition ?? this.book.plainList())
    const level = outer ? Math.min(8, outer.level + 1) : 0
    const run = outer && outer.definition === definition ? outer.run : this.book.lists.run(element, definition ?? "")
    for (const item of element.children.filter(isElement)) {
      if (item.name !== "text:list-item" && item.name !== "text:list-header") continue
      const header = item.name === "text:list-header"
      const override = item.attrs["text:style-override"]
      const signs = override === undefined ? style : (this.book.listStyle(override, this.styles) ?? style)
      this.list = {
        definition: header ? null : definition,
        run,
        level,
        done: definition === "tasks" && signs !== undefined && this.book.lists.isDone(signs),
        start: this.book.lists.startOf(item),
        fresh: true,
      }
      this.takeAll(item)
    }
    this.list = outer
  }

  private placeInList(): ListPlace | null | undefined {
    const { list } = this
    if (!list) return undefined
    const { definition, run, level, done, start, fresh } = list
    list.fresh = false
    if (!fresh || definition === null) return null
    return { definition, run, level, ...(done ? { done } : {}), ...(start === undefined ? {} : { start }) }
  }

  // ---- paragraphs

  private paragraph(element: XmlElement): void {
    const said = this.styles.of("paragraph", element.attrs["text:style-name"])
    const master = said.element?.attrs["style:master-page-name"]
    const begins = child(said.element, "style:paragraph-properties")?.attrs["style:page-number"]
    if (master && this.kind === "body") {
      const start = Number(begins)
      this.blocks.push({ master, columns: null, start: Number.isInteger(start) && start > 0 ? start : null })
    }
    this.nodes = []
    this.beside = []
    this.inlineAll(element, said.letters, "")
    // Nobody sees it.
    if (said.hidden && this.nodes.length === 0 && this.beside.length === 0) return
    let style = said.key
    const level = Number(element.attrs["text:outline-level"])
    if (element.name === "text:h" && level >= 1 && level <= 9 && this.book.outlineOf(style) !== level)
      style = `heading${level}`
    const place = this.placeInList()
    const own: Partial<ParagraphFormat> = { ...said.paragraph }
    // New sheets are begun by the section itself.
    if (master && own.breakBefore) delete own.breakBefore
    if (place !== undefined) {
      // What stands in an item behind its first paragraph stands where that stands.
      if (place === null && this.list?.definition) {
        const { definition, level: depth } = this.list
        own.indentLeft ??= this.book.indentOf(definition, depth)
        own.indentFirst ??= 0
      } else own.list = place
    }
    const letters = this.nodes.length === 0 && Object.keys(said.letters).length > 0 ? said.letters : null
    this.blocks.push(
      nodes.paragraph.create(
        { style, format: Object.keys(own).length > 0 ? this.book.same(own) : null, letters },
        this.nodes,
      ),
    )
    if (this.place !== null) this.markLast()
    this.book.leaving.ended(this.blocks.at(-1) as Node)
    this.blocks.push(...this.beside)
    this.beside = []
    this.bookmarks.clear()
  }

  /** A place behind the last words is that of these. */
  private markLast(): void {
    const at = this.blocks.length - 1
    const block = this.blocks[at]
    const place = this.place
    this.place = null
    if (!block || isSectionStart(block) || isPartStart(block) || !block.lastChild?.isText || place === null) return
    const last = block.lastChild.mark(markTypes.place.create({ value: place }).addToSet(block.lastChild.marks))
    this.blocks[at] = block.copy(block.content.replaceChild(block.childCount - 1, last))
  }

  // ---- text

  private marks(letters: Partial<LetterFormat>, style: string): readonly Mark[] {
    const place = this.place ?? [...this.bookmarks].at(-1)
    const own = (name: MarkName, value: unknown) => markTypes[name].create({ value })
    return Mark.setFrom([
      ...Object.entries(letters).map(([name, value]) => own(name as MarkName, value)),
      ...(style === "" ? [] : [own("letterStyle", style)]),
      ...(this.link === null ? [] : [own("link", this.link)]),
      ...(place === undefined ? [] : [own("place", place)]),
    ])
  }

  private text(words: string, letters: Partial<LetterFormat>, style: string): void {
    if (words === "") return
    const before = this.nodes.at(-1)
    const ends = before === undefined || (before.isText ? before.text?.endsWith(" ") : before.type.name === "lineBreak")
    // White space counts as one blank, and at the start of a line as none.
    const plain = folded.test(words) ? words.replace(/[ \t\r\n]+/g, " ") : words
    const own = ends && plain.startsWith(" ") ? plain.slice(1) : plain
    if (own !== "") this.put(own, letters, style)
  }

  private put(words: string, letters: Partial<LetterFormat>, style: string): void {
    this.push(schema.text(words, this.marks(letters, style)))
    this.place = null
  }

  private annotation(element: XmlElement): void {
    if (!this.isMainText) return this.book.leaving.addHere("comments in notes, heads and feet")
    const { commenting } = this.book
    const name = asName(element.attrs["office:name"] ?? "")
    const lines = [...childrenNamed(element, "text:p"), ...childrenNamed(element, "text:list")].map(textIn)
    const comment = commentOf(textIn(child(element, "dc:creator")), textIn(child(element, "dc:date")), lines)
    if (name !== "" && this.book.endsOfComments.has(name)) commenting.begin(name, comment)
    else commenting.at(commenting.newKey(), comment, this.nodes)
  }

  /** Whether it is the text itself, in cells too: comments and frames may hang on it. */
  private get isMainText(): boolean {
    return this.kind === "body" || this.kind === "cell"
  }

  /** Puts text, or what stands in it, with what was said of it. */
  private push(node: Node): void {
    this.nodes.push(this.isMainText ? this.book.commenting.on(node) : node)
  }

  private inlineAll(parent: XmlElement | undefined, letters: Partial<LetterFormat>, style: string): void {
    for (const own of parent?.children ?? [])
      if (isElement(own)) this.inline(own, letters, style)
      else this.text(own, letters, style)
  }

  private inline(element: XmlElement, letters: Partial<LetterFormat>, style: string): void {
    const { name, attrs } = element
    switch (name) {
      case "text:span": {
        if (this.enclosed(element, letters, style)) return
        const said = this.styles.of("text", attrs["text:style-name"])
        if (said.hidden) return this.book.leaving.addHere("hidden text")
        return this.inlineAll(element, { ...letters, ...said.letters }, said.key || style)
      }
      case "text:a": {
        const outer = this.link
        this.link = linkTo(attrs["xlink:href"]) ?? outer
        this.inlineAll(element, letters, style)
        this.link = outer
        return
      }
      case "text:s":
        return this.put(" ".repeat(bound(Number(attrs["text:c"] ?? 1) || 1, [1, 10_000])), letters, style)
      case "text:tab":
        return this.put("\t", letters, style)
      case "text:line-break":
        return void this.push(nodes.lineBreak.create(null, null, this.marks(letters, style)))
      case "text:bookmark":
      case "text:reference-mark":
      case "text:bookmark-start":
      case "text:reference-mark-start": {
        const part = partMarked(attrs["xml:id"], attrs["text:name"])
        const place = asName(attrs["text:name"] ?? "")
        if (place === "" || this.kind !== "body") return
        // Before the paragraph, which is not among the blocks yet.
        if (part) return void this.blocks.push(part)
        this.place = place
        if (name.endsWith("start")) this.bookmarks.add(place)
        return
      }
      case "text:bookmark-end":
      case "text:reference-mark-end":
        this.bookmarks.delete(asName(attrs["text:name"] ?? ""))
        return
      case "text:note":
        return this.note(element)
      case "draw:frame":
      case "draw:a":
        if (this.isBehind(element)) return
        return this.frame(name === "draw:a" ? child(element, "draw:frame") : element, letters, style)
      case "draw:custom-shape":
      case "draw:g":
      case "draw:line":
      case "draw:rect":
        if (this.isBehind(element)) return
        this.book.leaving.addHere("shapes")
        return this.box(element)
      case "office:annotation":
        return this.annotation(element)
      case "office:annotation-end":
        return this.book.commenting.end(asName(attrs["office:name"] ?? ""))
      case "text:soft-page-break":
      case "text:change-start":
      case "text:change-end":
      case "text:change":
      case "text:script":
      case "office:binary-data":
      case "svg:title":
      case "svg:desc":
        return
      case "text:ruby":
        return this.inlineAll(child(element, "text:ruby-base"), letters, style)
    }
    if (name === "text:bibliography-mark" && this.cite(element, letters, style)) return
    const field = this.fieldOf(element)
    if (field) {
      const node = nodes.field.create(field, null, this.marks(letters, style))
      this.book.shown.set(node, textIn(element))
      this.push(node)
      this.place = null
    } else this.inlineAll(element, letters, style)
  }

  /** A citation, or one more source of the one before it. Returns false where what it shows stays as text. */
  private cite(element: XmlElement, letters: Partial<LetterFormat>, style: string): boolean {
    const read = this.kind === "edge" ? null : itemOfMark(element)
    if (!read || !this.book.cites(element, read.item.source)) return false
    const before = this.nodes.at(-1)
    const joins = read.joined && before?.type === nodes.field && fieldAttrs(before).kind === "citation" ? before : null
    const format = citationFormat([...(joins ? citationItems(fieldAttrs(joins).format) : []), read.item])
    if (format.length > limits.citation) return false
    if (joins) this.nodes.pop()
    const node = nodes.field.create({ kind: "citation", format }, null, joins?.marks ?? this.marks(letters, style))
    this.book.shown.set(node, (joins ? this.book.shown.get(joins) : undefined) ?? textIn(element))
    this.push(node)
    this.place = null
    return true
  }

  private note(element: XmlElement): void {
    if (this.kind === "edge" || this.kind === "note") return this.book.leaving.addHere("notes in notes, heads and feet")
    const kind = element.attrs["text:note-class"] === "endnote" ? "endnote" : "note"
    const blocks = new StoryReader(this.book, this.styles, "note", this.depth + 1)
      .takeAll(child(element, "text:note-body"))
      .finish()
    this.push(nodes.anchor.create({ story: this.book.note(kind, blocks) }))
  }

  private fieldOf({ name, attrs }: XmlElement): FieldAttrs | null {
    const inEdge = this.kind === "edge"
    const plain = this.isMainText
    switch (name) {
      case "text:page-number":
        return inEdge ? { kind: "page", format: "" } : null
      case "text:page-count":
        return inEdge ? { kind: "pages", format: "" } : null
      case "text:date":
      case "text:time":
        return attrs["text:fixed"] === "true"
          ? null
          : { kind: "date", format: this.book.dateForm(attrs["style:data-style-name"], name === "text:time") }
      case "text:title":
        return { kind: "title", format: "" }
      case "text:author-name":
      case "text:initial-creator":
      case "text:creator":
        return { kind: "author", format: "" }
      case "text:subject":
        return { kind: "property", format: "subtitle" }
      case "text:user-defined": {
        const property = ownNamed(attrs["text:name"])
        return property ? { kind: "property", format: property } : null
      }
      case "text:file-name":
        return { kind: "name", format: "" }
      case "text:chapter":
        return inEdge
          ? { kind: "heading", format: String(bound(Number(attrs["text:outline-level"] ?? 1) || 1, [1, 9])) }
          : null
      case "text:sequence": {
        const label = asName(attrs["text:name"] ?? "")
        return plain && label !== "" ? { kind: "caption", format: label } : null
      }
      case "text:bookmark-ref":
      case "text:reference-ref": {
        const place = asName(attrs["text:ref-name"] ?? "")
        const form = attrs["text:reference-format"]
        const part =
          form === "page" ? "sheet" : form?.startsWith("number") || form === "category-and-value" ? "number" : "words"
        return plain && place !== "" ? { kind: "reference", format: `${part} ${place}` } : null
      }
    }
    return null
  }

  // ---- pictures and boxes

  /** A file that goes along. @returns whether it is one */
  private enclosed(span: XmlElement, letters: Partial<LetterFormat>, style: string): boolean {
    const frame = child(span, "draw:frame")
    const bytes = child(frame, "draw:object-ole")
    const field = bytes && this.book.enclosed(bytes.attrs["xlink:href"] ?? "", textIn(child(frame, "svg:title")))
    if (field) this.push(field.mark(this.marks(letters, style)))
    return Boolean(field)
  }

  /** What stands behind all text of the sheets that have this head. */
  behind: Watermark | null = null

  /** Takes a shape of a head that stands behind all text. */
  private isBehind(shape: XmlElement): boolean {
    if (this.kind !== "edge") return false
    const style = this.styles.element("graphic", shape.attrs["draw:style-name"])
    const own = watermarkIn(shape, style, this.styles.context.faces, (forms) => this.book.picture(forms))
    this.behind ??= own
    return own !== null
  }

  private frame(frame: XmlElement | undefined, letters: Partial<LetterFormat>, style: string): void {
    if (!frame) return
    const images = childrenNamed(frame, "draw:image")
    const box = child(frame, "draw:text-box")
    if (box) return this.box(frame)
    const object = child(frame, "draw:object")
    if (object && within(object, "math:math")) {
      this.book.leaving.addHere("equations, as their signs")
      return this.text(textIn(within(object, "math:math")).replace(/\s+/g, " "), letters, style)
    }
    if (object) this.book.leaving.addHere("parts of other programs, as their pictures")
    if (images.length === 0) return this.book.leaving.addHere("parts of other programs")
    const file = this.book.picture(images)
    if (!file) return
    const graphic = this.styles.element("graphic", frame.attrs["draw:style-name"])
    const looks = child(graphic, "style:graphic-properties")?.attrs ?? {}
    const alt = textIn(child(frame, "svg:desc")) || textIn(child(frame, "svg:title"))
    const size = (name: string) => {
      const own = lengthOf(frame.attrs[name])
      return own === undefined || own <= 0 ? undefined : bound(own, limits.picture.size)
    }
    const [width, height] = [size("svg:width"), size("svg:height")]
    const format: Partial<PictureFormat> = {
      ...(width === undefined ? {} : { width }),
      ...(height === undefined ? {} : { height }),
      ...(alt ? { alt: alt.slice(0, limits.alt) } : {}),
      ...placeOf(frame, looks),
    }
    const opacity = Number.parseFloat(looks["draw:image-opacity"] ?? "100") / 100
    if (opacity < 1) format.opacity = bound(opacity, limits.strength)
    if ((looks["style:shadow"] ?? "none") !== "none" || looks["draw:shadow"] === "visible") format.shadow = true
    const turn = bound(Math.round(-turnOf(frame.attrs["draw:transform"])), limits.picture.turn)
    if (turn !== 0) format.turn = turn
    const crop = cropOf(looks["fo:clip"], width, height)
    if (crop) format.crop = crop
    const line = borderOf(looks["fo:border"])
    if (line) format.frame = line
    this.push(
      nodes.picture.create({ asset: file.asset, source: null, pixels: file.pixels, format }, null, this.marks({}, "")),
    )
  }

  /** Text in boxes comes behind the paragraph to which these are tied. */
  private box(frame: XmlElement): void {
    const content = child(frame, "draw:text-box") ?? frame
    if (this.kind === "note" || this.depth > 12 || !within(content, "text:p")) return
    this.book.leaving.addHere("text boxes, whose text follows the paragraph")
    this.beside.push(...new StoryReader(this.book, this.styles, "cell", this.depth + 1).takeAll(content).finish())
  }

  // ---- tables

  private table(element: XmlElement): void {
    if (this.depth > 12) return this.book.leaving.addHere("tables deep inside tables")
    const columns = unfolded(element, "table:table-column")
    const rows = rowsOf(element)
    if (rows.length === 0) return
    const widths = columns.map((column) =>
      lengthOf(
        child(this.styles.element("table-column", column.attrs["table:style-name"]), "style:table-column-properties")
          ?.attrs["style:column-width"],
      ),
    )
    const padding = { across: defaultTable.padding.across, down: 0 }
    let most = 0
    let divides = true
    const made = rows.map(({ element: row }) => {
      const cells: Node[] = []
      let column = 0
      for (const cell of row.children.filter(isElement)) {
        const repeated = bound(Number(cell.attrs["table:number-columns-repeated"] ?? 1) || 1, [1, limits.table.columns])
        for (let i = 0; i < repeated && column < limits.table.columns; i++, column++) {
          if (cell.name !== "table:table-cell") continue
          cells.push(this.cell(cell, limits.table.columns - column, padding))
        }
      }
      most = Math.max(most, column)
      const properties = child(
        this.styles.element("table-row", row.attrs["table:style-name"]),
        "style:table-row-properties",
      )?.attrs
      if (properties?.["fo:keep-together"] === "always") divides = false
      const height = lengthOf(properties?.["style:min-row-height"])
      return nodes.row.create(
        { format: height ? { height: bound(height, limits.table.height) } : null },
        cells.length > 0 ? cells : [nodes.cell.create(null, paragraph())],
      )
    })
    const properties = child(
      this.styles.element("table", element.attrs["table:style-name"]),
      "style:table-properties",
    )?.attrs
    const heads = rows.findIndex(({ head }) => !head)
    const align = properties?.["table:align"]
    const known = widths.slice(0, most).filter((own): own is number => own !== undefined && own > 0)
    const indent =
      align === "left" || align === undefined || align === "margins"
        ? lengthOf(properties?.["fo:margin-left"])
        : undefined
    const format: Partial<TableFormat> = {
      look: "bare",
      headRows: bound(heads < 0 ? rows.length - 1 : heads, limits.table.headRows),
      ...(known.length === most && most > 0 ? { columns: known.map((own) => bound(own, limits.table.column)) } : {}),
      align: align === "center" || align === "right" ? align : "left",
      ...(indent && indent > 0 ? { indent: bound(indent, limits.space) } : {}),
      divides,
      padding,
    }
    const alt = textIn(child(element, "table:desc")).trim() || textIn(child(element, "table:title")).trim()
    if (alt) format.alt = alt.slice(0, limits.alt)
    this.blocks.push(squared(nodes.table.create({ format }, made)))
  }

  private cell(cell: XmlElement, room: number, padding: { across: number; down: number }): Node {
    const properties =
      child(this.styles.element("table-cell", cell.attrs["table:style-name"]), "style:table-cell-properties")?.attrs ??
      {}
    const format: Partial<CellFormat> = {}
    const ground = colourOf(properties["fo:background-color"])
    if (ground) format.shading = ground
    const edges = edgesOf(properties)
    for (const side of ["top", "right", "bottom", "left"] as const) {
      const edge = edges[side]
      if (edge) edges[side] = { ...edge, distance: 0 }
    }
    if (Object.keys(edges).length > 0) format.borders = edges
    const vertical = properties["style:vertical-align"]
    if (vertical === "middle" || vertical === "bottom") format.vertical = vertical
    const reading = readingOf(properties)
    if (reading) format.reading = reading
    const across = lengthOf(properties["fo:padding-left"] ?? properties["fo:padding"])
    const down = lengthOf(properties["fo:padding-top"] ?? properties["fo:padding"])
    if (across !== undefined) padding.across = bound(across, limits.table.padding)
    if (down !== undefined) padding.down = bound(down, limits.table.padding)
    const span = (name: string, most: number) => bound(Math.floor(Number(cell.attrs[name] ?? 1)) || 1, [1, most])
    const inside = new StoryReader(this.book, this.styles, "cell", this.depth + 1).takeAll(cell).finish()
    return nodes.cell.create(
      {
        colspan: span("table:number-columns-spanned", room),
        rowspan: span("table:number-rows-spanned", limits.table.rows),
        format: Object.keys(format).length > 0 ? format : null,
      },
      inside,
    )
  }
}

/** Elements of a name, repeated as often as they say, also in what groups them. */
function unfolded(parent: XmlElement, name: string): XmlElement[] {
  const found: XmlElement[] = []
  for (const own of parent.children.filter(isElement)) {
    if (own.name === name) {
      const times = bound(Number(own.attrs["table:number-columns-repeated"] ?? 1) || 1, [1, limits.table.columns])
      for (let i = 0; i < times && found.length < limits.table.columns; i++) found.push(own)
    } else if (["table:table-columns", "table:table-column-group", "table:table-header-columns"].includes(own.name))
      found.push(...unfolded(own, name))
  }
  return found
}

function rowsOf(parent: XmlElement, head = false): { element: XmlElement; head: boolean }[] {
  return parent.children.filter(isElement).flatMap((own) => {
    if (own.name === "table:table-row") {
      const times = bound(Number(own.attrs["table:number-rows-repeated"] ?? 1) || 1, [1, 1000])
      return Array.from({ length: times }, () => ({ element: own, head }))
    }
    if (own.name === "table:table-header-rows") return rowsOf(own, true)
    return ["table:table-rows", "table:table-row-group"].includes(own.name) ? rowsOf(own, head) : []
  })
}

export function columnsOf(properties: XmlElement | undefined): PageSetup["columns"] {
  const columns = child(properties, "style:columns")
  const count = bound(Number(columns?.attrs["fo:column-count"] ?? 1) || 1, limits.columns)
  const parts = childrenNamed(columns, "style:column").map(({ attrs }) =>
    Number(/^([\d.]+)\*$/.exec(attrs["style:rel-width"] ?? "")?.[1] ?? 0),
  )
  const least = Math.min(...parts)
  const unequal = parts.length === count && least > 0 && parts.some((part) => Math.abs(part / least - 1) > 0.02)
  return {
    count,
    gap: lengthOf(columns?.attrs["fo:column-gap"]) ?? 0,
    line: child(columns, "style:column-sep") !== undefined,
    shares: unequal ? parts.map((part) => bound(Math.round((part / least) * 1000) / 1000, limits.share)) : null,
  }
}

function linkTo(href: string | undefined): string | null {
  const own = (href ?? "").trim()
  const place = own.startsWith("#") ? `#${asName(decoded(own.slice(1)).replace(/\|.*$/, ""))}` : own
  return isLink(place) ? place : null
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

function cropOf(
  clip: string | undefined,
  width: number | undefined,
  height: number | undefined,
): PictureFormat["crop"] | undefined {
  const [top, right, bottom, left] = [...(clip ?? "").matchAll(/-?[\d.]+[a-z]+|auto/g)].map(
    ([own]) => lengthOf(own) ?? 0,
  )
  if (width === undefined || height === undefined || top === undefined || left === undefined) return undefined
  // What is cut off is said in lengths of the picture as it was before.
  const [wide, high] = [width + (left ?? 0) + (right ?? 0), height + (top ?? 0) + (bottom ?? 0)]
  const part = (own: number | undefined, of: number) =>
    bound(Math.round(((own ?? 0) / Math.max(1, of)) * 1000) / 1000, limits.picture.crop)
  const crop = { top: part(top, high), right: part(right, wide), bottom: part(bottom, high), left: part(left, wide) }
  return Object.values(crop).some((own) => own > 0) ? crop : undefined
}

const acrossOf = meanings<PictureFormat["across"]["of"]>({ page: "sheet", "page-content": "margins" })
const downOf = meanings<PictureFormat["down"]["of"]>({ page: "sheet", "page-content": "margins" })

/** Where a picture stands that is not in its line. */
function placeOf(frame: XmlElement, graphic: Readonly<Record<string, string>>): Partial<PictureFormat> {
  const anchor = frame.attrs["text:anchor-type"] ?? "paragraph"
  if (anchor === "as-char") return {}
  const wrap = graphic["style:wrap"] ?? "none"
  const align = graphic["style:horizontal-pos"]
  const length = (name: string) => bound(lengthOf(frame.attrs[name]) ?? 0, limits.length)
  return {
    wrap:
      wrap === "run-through"
        ? graphic["style:run-through"] === "background"
          ? "under"
          : "over"
        : wrap === "none"
          ? "across"
          : "beside",
    side: wrap === "left" || wrap === "right" ? wrap : wrap === "dynamic" || wrap === "biggest" ? "wider" : "both",
    distance: bound(lengthOf(graphic["fo:margin-left"] ?? graphic["fo:margin"]) ?? 0, limits.picture.distance),
    across: {
      of: acrossOf(graphic["style:horizontal-rel"]) ?? (anchor === "page" ? "sheet" : "column"),
      align: align === "left" || align === "center" || align === "right" ? align : null,
      at: length("svg:x"),
    },
    down: {
      of: downOf(graphic["style:vertical-rel"]) ?? (anchor === "page" ? "sheet" : "paragraph"),
      at: length("svg:y"),
    },
  }
}
