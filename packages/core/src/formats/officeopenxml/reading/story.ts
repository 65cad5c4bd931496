/** Blocks of the body, of a head or foot, of a note or a cell: paragraphs with their runs, tables, what stands round them. */
import {
  asName,
  bodyStyle,
  entryOf,
  fitParagraph,
  isLink,
  limits,
  linkLook,
  lookOfEntries,
  lookOfStops,
  marks as markTypes,
  nodes,
  paragraph,
  schema,
  type ContentsLook,
  type FieldAttrs,
  type LetterFormat,
  type MarkName,
  type ParagraphFormat,
  type Style,
  type TabStop,
  citationItems,
} from "../../../document"
import { Mark, type Node } from "prosemirror-model"
import { enclosedMark } from "../../enclosed"
import { coverMarked, isCoverStart, isPartStart, partMarked, type CoverStart, type PartStart } from "../../partMarks"
import { child, isElement, textIn, within, type XmlElement } from "../../xml/parsing"
import type { Book } from "./book"
import { equationText } from "./equations"
import { fieldOf, instructionOf, type Instruction } from "./fields"
import { readLetters } from "./letters"
import { readParagraph, type ReadParagraph } from "./paragraphs"
import { symbolOf } from "./symbols"
import { TableReader, type CellSays } from "./tables"
import { isOn, valueOf } from "./values"

export type StoryKind = "body" | "edge" | "note" | "cell"

/** The end of a section, with what is said of it. */
export interface SectionEnd {
  sectPr: XmlElement
  /** Whether the paragraph before it stands there for nothing else. */
  bare: boolean
  /** Whether it is that of the last section, wherever it stands. */
  last: boolean
}
export type Block = Node | SectionEnd | PartStart | CoverStart

const isStart = (block: Block): block is PartStart | CoverStart => isPartStart(block) || isCoverStart(block)
export const isSectionEnd = (block: Block): block is SectionEnd => "sectPr" in block

interface OpenField {
  instruction: string
  phase: "instruction" | "shown"
  /** What it is, once its instruction is read; null for one whose text stays. */
  field: FieldAttrs | null
  /** Contents, by their place among the blocks. */
  contents: number | null
  /** How they look, as far as it is known. */
  look: ContentsLook | null
  link: string | null
  /** What it showed, and how that began. */
  text: string
  letters: XmlElement | undefined
}

/** A paragraph while it is read. */
interface Current {
  style: string
  format: Partial<ParagraphFormat>
  nodes: Node[]
  /** Whether something of it stands on the sheet before, so that this is what follows a break. */
  afterBreak: boolean
  touched: boolean
}

const nothing: CellSays = { letters: {}, paragraph: {} }

function isEmpty(format: object): boolean {
  for (const _name in format) return false
  return true
}

const known = new Map<string, readonly Mark[]>()

/** The marks of letters; the same for the same values. */
function marksOf(
  format: Partial<LetterFormat>,
  style: string | undefined,
  link: string | null,
  place: string | null,
): readonly Mark[] {
  // Most text has nothing of its own.
  if (style === undefined && link === null && place === null && isEmpty(format)) return Mark.none
  const key = JSON.stringify([format, style, link, place])
  let found = known.get(key)
  if (!found) {
    const own = (name: MarkName, value: unknown) => markTypes[name].create({ value })
    found = Mark.setFrom([
      ...Object.entries(format).map(([name, value]) => own(name as MarkName, value)),
      ...(style === undefined ? [] : [own("letterStyle", style)]),
      ...(link === null ? [] : [own("link", link)]),
      ...(place === null ? [] : [own("place", place)]),
    ])
    if (known.size > 5000) known.clear()
    known.set(key, found)
  }
  return found
}

/** Wrapped round text or blocks, and of no meaning of their own. */
const wrappers = new Set([
  "w:sdtContent",
  "w:ins",
  "w:moveTo",
  "w:smartTag",
  "w:customXml",
  "w:dir",
  "w:bdo",
  "w:rubyBase",
  "mc:Fallback",
  "mc:Choice",
])
const gone = new Set(["w:del", "w:moveFrom", "w:moveFromRangeStart", "w:rt"])

/** Additions whose drawings are read, so that what stands in for them is not. */
const understood = /^(wps|wpg|wpc|w14|w15|w16|wp14)( |$)/

/** What of alternatives is read. */
function chosen(alternatives: XmlElement): XmlElement | undefined {
  const choices = alternatives.children.filter(isElement)
  return (
    choices.find(({ name, attrs }) => name === "mc:Choice" && understood.test(attrs.Requires ?? "")) ??
    choices.find(({ name }) => name === "mc:Fallback")
  )
}

/** The elements of a name that stand in no other of it; of alternatives, those of the one that is read. */
function outermost(element: XmlElement, name: string): XmlElement[] {
  return element.children.flatMap((own) => {
    if (!isElement(own)) return []
    if (own.name === name) return [own]
    const inside = own.name === "mc:AlternateContent" ? chosen(own) : own
    return inside ? outermost(inside, name) : []
  })
}

export class StoryReader {
  readonly blocks: Block[] = []
  private readonly open: OpenField[] = []
  private readonly bookmarks = new Map<string, string>()
  /** A place whose words come next. */
  private place: string | null = null
  private link: string | null = null
  private current: Current | null = null
  /** A break before the next paragraph. */
  /** Tab stops of the paragraph that is read. */
  private stops: readonly TabStop[] = []
  private pending: "breakBefore" | "columnBefore" | null = null
  private cap: { nodes: Node[]; lines: number; distance: number; family: string | null } | null = null
  /** What stands in boxes beside the paragraph that is read. */
  private beside: Node[] = []

  constructor(
    private readonly book: Book,
    private readonly path: string,
    private readonly kind: StoryKind,
    /** Letters as a table wants them. */
    /** What a table says of the text in it. */
    private readonly said: CellSays = nothing,
    private readonly depth = 0,
  ) {}

  takeAll(parent: XmlElement | undefined): this {
    for (const own of parent?.children ?? []) if (isElement(own)) this.take(own)
    return this
  }

  take(element: XmlElement): void {
    const { name } = element
    if (name === "w:p") this.paragraph(element)
    else if (name === "w:tbl") this.table(element)
    else if (name === "w:sdt") this.content(element)
    else if (name === "w:sectPr") this.blocks.push({ sectPr: element, bare: false, last: true })
    else if (name === "mc:AlternateContent") this.takeAll(chosen(element))
    else if (name === "w:altChunk") this.chunk(element)
    else if (name === "w:subDoc") this.book.leaving.addHere("parts in other files")
    else if (name === "w:bookmarkStart" || name === "w:bookmarkEnd") this.bookmark(element)
    else if (name === "w:commentRangeStart" || name === "w:commentRangeEnd") this.comment(element)
    else if (name === "m:oMathPara" || name === "m:oMath") this.loose(element)
    else if (wrappers.has(name)) this.takeAll(element)
  }

  /** Text that lies in another file of the package. */
  private chunk({ attrs }: XmlElement): void {
    const blocks = this.book.chunk(this.path, attrs["r:id"] ?? "")
    if (!blocks) return this.book.leaving.addHere("parts in other files")
    this.flushPending()
    for (const block of blocks) this.blocks.push(block)
  }

  /** Controlled content: a part of ours, or nothing but what is in it. */
  private content(element: XmlElement): void {
    const properties = child(element, "w:sdtPr")
    if (this.kind === "body") {
      const mark = valueOf(properties, "w:tag")
      const begun = partMarked(mark, valueOf(properties, "w:alias")) ?? coverMarked(mark)
      if (begun) this.blocks.push(begun)
    }
    this.takeAll(child(element, "w:sdtContent"))
  }

  /** Something that stands among blocks although it is text. */
  private loose(element: XmlElement): void {
    this.current = { style: bodyStyle, format: {}, nodes: [], afterBreak: false, touched: false }
    this.inline(element)
    this.end(null)
  }

  private table(element: XmlElement): void {
    if (this.dropping) return
    this.flushPending()
    if (this.depth > 12) {
      this.book.leaving.addHere("tables inside tables, as their text")
      return this.book.textOf(element).forEach((node) => this.blocks.push(node))
    }
    const tblPr = child(element, "w:tblPr")
    if (child(tblPr, "w:tblpPr")) this.book.leaving.addHere("tables that text goes round, which stand in the text")
    const backward = child(tblPr, "w:bidiVisual")
    if (backward && isOn(backward))
      this.book.leaving.addHere("tables whose columns run from right to left, as from left to right")
    const reader = new TableReader(this.book.styles, this.book.theme, (cell, said) => {
      return new StoryReader(
        this.book,
        this.path,
        "cell",
        {
          letters: { ...this.said.letters, ...said.letters },
          paragraph: { ...this.said.paragraph, ...said.paragraph },
        },
        this.depth + 1,
      )
        .takeAll(cell)
        .finish()
    })
    this.blocks.push(...reader.read(element))
  }

  private flushPending(): void {
    if (!this.pending) return
    this.blocks.push(paragraph(bodyStyle, [], { [this.pending]: true, spaceAfter: 0 }))
    this.pending = null
  }

  /** The blocks of what holds no sections. */
  finish(): Node[] {
    const own = this.blocks.filter((block): block is Node => !isSectionEnd(block) && !isStart(block))
    return own.length > 0 ? own : [paragraph()]
  }

  // ---- paragraphs

  /** Whether what is read is shown by a field that makes it anew, or is no text. */
  private get dropping(): boolean {
    return this.open.some(
      ({ phase, field, contents }) => phase === "instruction" || field !== null || contents !== null,
    )
  }

  private paragraph(element: XmlElement): void {
    const pPr = child(element, "w:pPr")
    const id = pPr && child(pPr, "w:pStyle")?.attrs["w:val"]
    const { styles } = this.book
    const read = readParagraph(pPr, styles.tabsOf(id), styles.isBackward(id))
    const style = styles.paragraphKey(read.style)
    const format = this.formatOf(read, style)
    const list = this.open.find(({ contents }) => contents !== null)
    this.stops = format.tabs ?? styles.tabsOf(id)
    if (list) list.look ??= lookOfStops(this.stops)
    const mark = child(pPr, "w:rPr")
    if (read.framed) this.book.leaving.addHere("frames, whose text stands among the rest")
    this.current = { style, format, nodes: [], afterBreak: false, touched: list !== undefined }
    for (const own of element.children) if (isElement(own) && own.name !== "w:pPr") this.inline(own)
    const { nodes: text, touched } = this.current
    const sectPr = child(pPr, "w:sectPr")
    const isUnseen = text.length === 0 && this.lettersOf(mark).hidden
    if (read.cap && text.length > 0) {
      const family = text[0]?.marks.find(({ type }) => type.name === "family")?.attrs.value as string | undefined
      this.cap = { nodes: text, ...read.cap, family: family ?? null }
      this.current = null
    } else if (text.length === 0 && (touched || isUnseen) && this.beside.length === 0) this.current = null
    else this.end(mark)
    if (sectPr && this.kind === "body") this.blocks.push({ sectPr, bare: text.length === 0 && !isUnseen, last: false })
  }

  private formatOf(read: ReadParagraph, style: string): Partial<ParagraphFormat> {
    const { numbering } = read
    let { format } = read
    if (this.said !== nothing) {
      const own = this.book.saidByStyle(style).paragraph
      format = {
        ...Object.fromEntries(Object.entries(this.said.paragraph).filter(([name]) => !own.has(name))),
        ...format,
      }
    }
    if (numbering) {
      const own = this.listOfStyle(style)
      const { numbering: lists } = this.book
      const { num } = numbering
      if (num !== undefined) {
        format = { ...format, list: lists.place(num, numbering.level ?? 0, true) }
        if (lists.isTight(num, numbering.level ?? 0) && format.spaceAlike === false) delete format.spaceAlike
      } else if (own && numbering.level !== undefined)
        format = { ...format, list: { ...own, level: Math.min(8, Math.max(0, numbering.level)) } }
      if (num === "0" && !own) delete format.list
    }
    return this.book.same(format)
  }

  private listOfStyle(style: string): ParagraphFormat["list"] {
    const { styles } = this.book.sheet
    for (let at: string | null = style, turns = 0; at !== null && turns < 30; turns++) {
      const own: Style | undefined = entryOf(styles, at)
      if (own?.paragraph.list !== undefined) return own.paragraph.list
      at = own?.parent ?? null
    }
    return null
  }

  /** Puts the paragraph that is read among the blocks. */
  private end(mark: XmlElement | undefined | null): void {
    const { current } = this
    this.current = null
    if (!current) return
    let { format, nodes: text } = current
    if (this.pending) format = { ...format, [this.pending]: true }
    this.pending = null
    if (this.cap) {
      const { lines, distance, family, nodes: letters } = this.cap
      // The letter is set as high as its lines, whatever size it was given.
      const plain = letters.map((node) =>
        node.mark(node.marks.filter(({ type }) => !["size", "raise", "spacing", "family"].includes(type.name))),
      )
      text = [...plain, ...text]
      format = fitParagraph({ ...format, dropCap: { lines, distance, family } })
      this.cap = null
    }
    const letters = text.length === 0 && mark ? readLetters(mark, this.book.theme).format : {}
    this.blocks.push(
      nodes.paragraph.create(
        {
          style: current.style,
          format: Object.keys(format).length > 0 ? this.book.same(format) : null,
          letters: Object.keys(letters).length > 0 ? letters : null,
        },
        text,
      ),
    )
    const at = this.blocks.length - 1
    if (this.place !== null && text.length > 0) this.markAt(at, this.place)
    this.book.leaving.ended(this.blocks[at] as Node)
    for (const node of this.beside) this.blocks.push(node)
    this.beside = []
    this.place = null
    this.bookmarks.clear()
  }

  /** A place at the very end of a paragraph is that of its last words. */
  private markAt(at: number, place: string): void {
    const block = this.blocks[at]
    if (!block || isSectionEnd(block) || isStart(block) || !block.lastChild?.isText) return
    const last = block.lastChild.mark(markTypes.place.create({ value: place }).addToSet(block.lastChild.marks))
    this.blocks[at] = block.copy(block.content.replaceChild(block.childCount - 1, last))
  }

  private breakTo(what: "breakBefore" | "columnBefore"): void {
    const { current } = this
    if (!current || this.dropping) return
    if (this.kind !== "body") return void this.book.leaving.addHere("breaks of sheets inside tables and notes")
    const { style, format } = current
    if (current.nodes.length > 0) {
      this.end(null)
      const { list: _list, breakBefore: _break, columnBefore: _column, ...rest } = format
      const next = format.list ? { ...rest, list: null } : rest
      this.current = { style, format: next, nodes: [], afterBreak: true, touched: true }
    } else current.touched = true
    this.pending = what
  }

  // ---- text

  private put(node: Node): void {
    const { current } = this
    if (current) current.nodes.push(this.mayBeCommented ? this.book.commenting.on(node) : node)
  }

  private get mayBeCommented(): boolean {
    return this.kind === "body" || this.kind === "cell"
  }

  private comment({ name, attrs }: XmlElement): void {
    const said = this.book.comment(attrs["w:id"] ?? "")
    if (!said || this.dropping) return
    if (!this.mayBeCommented) {
      if (name === "w:commentReference") this.book.leaving.addHere("comments in notes, heads and feet")
    } else if (name === "w:commentRangeStart") this.book.commenting.begin(said.key, said.comment)
    else if (name === "w:commentRangeEnd") this.book.commenting.end(said.key)
    else this.book.commenting.at(said.key, said.comment, this.current?.nodes ?? [])
  }

  private text(words: string, rPr: XmlElement | undefined): void {
    const field = this.open.at(-1)
    if (field?.phase === "instruction") {
      field.instruction += words
      return
    }
    for (const own of this.open) {
      own.text += words
      own.letters ??= rPr
    }
    if (words === "" || this.dropping) return
    const { format, style, hidden, unlike } = this.lettersOf(rPr)
    if (hidden) return this.book.leaving.addHere("hidden text")
    for (const what of unlike) this.book.leaving.addHere(what)
    this.put(schema.text(words, marksOf(format, style, this.linkNow, this.placeNow)))
    this.place = null
  }

  private lettersOf(rPr: XmlElement | undefined) {
    const { format, style, hidden, unlike } = readLetters(rPr, this.book.theme)
    const all = this.said === nothing ? format : { ...this.tableLetters(), ...format }
    // Links look so by themselves.
    if (this.linkNow !== null && all.colour === linkLook.colour) delete all.colour
    if (this.linkNow !== null && all.underline === linkLook.underline) delete all.underline
    return { format: all, style: this.book.styles.lettersKey(style), hidden, unlike }
  }

  /** What the table says of letters, but for what the style of the paragraph says itself. */
  private tableLetters(): Partial<LetterFormat> {
    const own = this.book.saidByStyle(this.current?.style ?? bodyStyle).letters
    return Object.fromEntries(Object.entries(this.said.letters).filter(([name]) => !own.has(name)))
  }

  private get linkNow(): string | null {
    for (let i = this.open.length - 1; i >= 0; i--) if (this.open[i]?.link) return this.open[i]?.link ?? null
    return this.link
  }

  private get placeNow(): string | null {
    return this.place ?? [...this.bookmarks.values()].at(-1) ?? null
  }

  private bookmark({ name, attrs }: XmlElement): void {
    const id = attrs["w:id"] ?? ""
    if (name === "w:bookmarkEnd") return void this.bookmarks.delete(id)
    const place = asName(attrs["w:name"] ?? "")
    if (place === "" || place === "_GoBack" || place.startsWith("_Toc") || this.kind !== "body") return
    this.bookmarks.set(id, place)
    this.place = place
  }

  private inline(element: XmlElement): void {
    switch (element.name) {
      case "w:r":
        return this.run(element)
      case "w:hyperlink":
        return this.hyperlink(element)
      case "w:fldSimple": {
        this.begin(element.attrs["w:instr"] ?? "")
        this.separate()
        this.inlineAll(element)
        return this.endField(undefined)
      }
      case "w:sdt":
        if (this.enclosed(element)) return
        return this.inlineAll(child(element, "w:sdtContent"))
      case "w:ruby":
        this.book.leaving.addHere("readings above the text")
        return this.inlineAll(element)
      case "w:bookmarkStart":
      case "w:bookmarkEnd":
        return this.bookmark(element)
      case "w:commentRangeStart":
      case "w:commentRangeEnd":
        return this.comment(element)
      case "m:oMath":
      case "m:oMathPara":
        this.book.leaving.addHere("equations, as their signs")
        return this.text(equationText(element).replace(/\s+/g, " "), undefined)
      case "mc:AlternateContent":
        return this.inlineAll(chosen(element))
      default:
        if (gone.has(element.name)) return void this.book.leaving.addHere("removed text of proposed edits")
        if (wrappers.has(element.name)) this.inlineAll(element)
    }
  }

  private inlineAll(parent: XmlElement | undefined): void {
    for (const own of parent?.children ?? []) if (isElement(own)) this.inline(own)
  }

  /** A file that goes along. @returns whether it is one */
  private enclosed(content: XmlElement): boolean {
    const properties = child(content, "w:sdtPr")
    const mark = valueOf(properties, "w:tag") ?? ""
    if (!mark.startsWith(enclosedMark) || this.dropping) return false
    const relation = mark.slice(enclosedMark.length)
    const field = this.book.enclosed(this.path, relation, valueOf(properties, "w:alias") ?? "")
    if (!field) return false
    this.atom(field, within(content, "w:rPr"))
    return true
  }

  private hyperlink(element: XmlElement): void {
    const { attrs } = element
    const relation = this.book.parts.relations(this.path).get(attrs["r:id"] ?? "")
    const anchor = attrs["w:anchor"] ? `#${asName(attrs["w:anchor"])}` : ""
    const outer = this.link
    this.link =
      linkTo(relation ? relation.target + (anchor && !relation.target.includes("#") ? anchor : "") : anchor) ?? outer
    this.inlineAll(element)
    this.link = outer
  }

  private run(run: XmlElement): void {
    const rPr = child(run, "w:rPr")
    for (const own of run.children) {
      if (!isElement(own)) continue
      switch (own.name) {
        case "w:t": {
          const words = textIn(own).replace(/[\r\n\t]+/g, " ")
          this.text(own.attrs["xml:space"] === "preserve" ? words : words.trim(), rPr)
          break
        }
        case "w:instrText": {
          const field = this.open.at(-1)
          if (field?.phase === "instruction") field.instruction += textIn(own)
          break
        }
        case "w:fldChar":
          this.fieldSign(own, rPr)
          break
        case "w:tab":
        case "w:ptab":
          this.text("\t", rPr)
          break
        case "w:br":
          if (own.attrs["w:type"] === "page") this.breakTo("breakBefore")
          else if (own.attrs["w:type"] === "column") this.breakTo("columnBefore")
          else this.atom(nodes.lineBreak.create(), rPr)
          break
        case "w:cr":
          this.atom(nodes.lineBreak.create(), rPr)
          break
        case "w:noBreakHyphen":
          this.text("\u2011", rPr)
          break
        case "w:softHyphen":
          this.text("\u00ad", rPr)
          break
        case "w:sym": {
          const code = parseInt(own.attrs["w:char"] ?? "", 16)
          if (code > 0 && code < 0x10ffff)
            this.text(symbolOf(own.attrs["w:font"], code) ?? String.fromCodePoint(code), rPr)
          break
        }
        case "w:footnoteReference":
        case "w:endnoteReference":
          this.note(own)
          break
        case "w:commentReference":
          this.comment(own)
          break
        case "w:drawing":
          this.drawing(own)
          break
        case "w:pict":
        case "w:object":
          this.older(own)
          break
        case "mc:AlternateContent":
          this.run({ ...run, children: [...(rPr ? [rPr] : []), ...(chosen(own)?.children ?? [])] })
          break
      }
    }
  }

  private atom(node: Node, rPr: XmlElement | undefined): void {
    if (this.dropping) return
    const { format, style, hidden } = this.lettersOf(rPr)
    if (!hidden) this.put(node.mark(marksOf(format, style, this.linkNow, null)))
  }

  private note({ name, attrs }: XmlElement): void {
    if (this.dropping) return
    if (this.kind === "edge" || this.kind === "note") return this.book.leaving.addHere("notes in notes, heads and feet")
    const key = this.book.note(name === "w:footnoteReference" ? "note" : "endnote", attrs["w:id"] ?? "")
    if (key !== null) this.put(nodes.anchor.create({ story: key }))
  }

  private drawing(drawing: XmlElement): void {
    if (this.dropping || (this.kind === "edge" && this.book.watermark(this.path, drawing))) return
    for (const picture of this.book.pictures.drawing(drawing, this.path)) this.put(picture)
    this.boxes(drawing)
  }

  private older(pict: XmlElement): void {
    if (this.dropping) return
    if (this.kind === "edge" && this.book.watermark(this.path, pict)) return
    const pictures = this.book.pictures.older(pict, this.path)
    for (const picture of pictures) this.put(picture)
    if (pictures.length === 0 && !within(pict, "w:txbxContent") && pict.name === "w:object")
      this.book.leaving.addHere("parts of other programs")
    this.boxes(pict)
  }

  /** Text in boxes comes behind the paragraph to which these are tied. */
  private boxes(drawing: XmlElement): void {
    if (this.kind === "note" || this.depth > 12) return
    for (const content of outermost(drawing, "w:txbxContent")) {
      this.book.leaving.addHere("text boxes, whose text follows the paragraph")
      this.beside.push(
        ...new StoryReader(this.book, this.path, "cell", nothing, this.depth + 1).takeAll(content).finish(),
      )
    }
  }

  // ---- fields

  private fieldSign(sign: XmlElement, rPr: XmlElement | undefined): void {
    const type = sign.attrs["w:fldCharType"]
    if (type === "begin") this.begin("")
    else if (type === "separate") this.separate()
    else if (type === "end") this.endField(rPr)
  }

  private begin(instruction: string): void {
    this.open.push({
      instruction,
      phase: "instruction",
      field: null,
      contents: null,
      look: null,
      link: null,
      text: "",
      letters: undefined,
    })
  }

  private separate(): void {
    const field = this.open.at(-1)
    if (!field || field.phase === "shown") return
    field.phase = "shown"
    const read = instructionOf(field.instruction)
    if (read.name === "HYPERLINK")
      field.link = linkTo(
        (read.words[0] ?? "") + (read.switches.has("l") ? `#${asName(read.switches.get("l") ?? "")}` : ""),
      )
    else if ((read.name === "TOC" || read.name === "BIBLIOGRAPHY") && !this.dropping) this.contents(field, read)
    else field.field = this.fieldHere(read)
  }

  /** @param isEmpty whether it shows nothing; else a list of sources that nothing tells of stays as it stands there */
  private contents(field: OpenField, { name, switches }: Instruction, isEmpty = false): void {
    if (this.kind !== "body") return
    const sources = name === "BIBLIOGRAPHY"
    if (sources && !isEmpty && Object.keys(this.book.sources.list).length === 0) return
    const levels = Number(/(\d)\s*$/.exec(switches.get("o") ?? "")?.[1] ?? 3)
    const of = asName(switches.get("c") ?? "")
    if (this.current) this.current.touched = true
    this.flushPending()
    field.contents = this.blocks.length
    this.blocks.push(
      nodes.contents.create({ levels: Math.min(9, Math.max(1, levels)), look: sources ? "sources" : "dotted", of }),
    )
    field.look = lookOfStops(this.stops)
  }

  private endContents({ contents, look, text }: OpenField): void {
    const block = contents === null ? undefined : this.blocks[contents]
    if (contents === null || !block || isSectionEnd(block) || isStart(block) || block.attrs.look === "sources") return
    const own = lookOfEntries(look, text.trim() !== "")
    this.blocks[contents] = block.type.create({ ...block.attrs, look: own })
  }

  /** A field that can stand in this text. */
  private fieldHere(read: Instruction): FieldAttrs | null {
    const field = fieldOf(read)
    if (!field) return null
    const ofSheet = ["page", "pages", "sectionPages", "heading"].includes(field.kind)
    if (ofSheet !== (this.kind === "edge") && ofSheet) return null
    if ((field.kind === "caption" || field.kind === "reference") && (this.kind === "edge" || this.kind === "note"))
      return null
    if (field.kind === "reference" && !this.book.places.has(field.format.replace(/^\w+ /, ""))) return null
    if (field.kind === "citation") return this.cites(field) ? field : null
    if (field.format.length > limits.formula) return null
    return field
  }

  /** Whether a citation names sources that the file tells of. */
  private cites({ format }: FieldAttrs): boolean {
    const items = citationItems(format)
    return (
      this.kind !== "edge" &&
      items.length > 0 &&
      format.length <= limits.citation &&
      items.every(({ source }) => Object.hasOwn(this.book.sources.list, source))
    )
  }

  private endField(rPr: XmlElement | undefined): void {
    const field = this.open.at(-1)
    if (field?.phase === "instruction") this.separate()
    this.open.pop()
    if (field) this.endContents(field)
    if (!field || this.dropping) return
    const read = instructionOf(field.instruction)
    const isEmpty = field.contents === null && field.text.trim() === ""
    if (read.name === "BIBLIOGRAPHY" && isEmpty) this.contents(field, read, true)
    if (!field.field) return
    if (read.name === "SEQ" && read.switches.has("h")) return
    const node = nodes.field.create(field.field)
    this.book.shown.set(node, field.text)
    const { format, style } = this.lettersOf(field.letters ?? rPr)
    const marked = node.mark(marksOf(format, style, this.linkNow, this.placeNow))
    this.book.shown.set(marked, field.text)
    this.put(marked)
  }
}

/** An address as links have it; null where it leads nowhere that links may lead. */
function linkTo(address: string): string | null {
  const own = address.trim()
  const whole = /^www\./i.test(own) ? `http://${own}` : own
  try {
    const written = /\s/.test(whole) && !whole.startsWith("#") ? encodeURI(whole) : whole
    return isLink(written) ? written : null
  } catch {
    return null
  }
}
