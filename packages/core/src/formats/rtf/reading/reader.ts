/** Goes through RTF group by group and writes down its texts as those of Office Open XML. */
import type { Leaving } from "../../leaving"
import { languageOf } from "../languages"
import { momentRead } from "../moments"
import { plainLevel } from "./lists"
import { escaped, plainLetters, withLetters, type Letters } from "./letters"
import type { Package } from "./package"
import { plainParagraph, withParagraph, type Paragraph } from "./paragraphs"
import { Picture, type PictureDone } from "./picture"
import { isEdge, sectionFrom, sectionXml, withDocumentSetup, withSection, type Section, type Setup } from "./sections"
import { Runs } from "./runs"
import { Shape } from "./shapes"
import { elements, oldLists, passed, shownFields, symbols, toldAs } from "./symbols"
import { plainRow, withRow, type Row } from "./tables"
import { Book, heard, nothing, type Destination } from "./tellings"
import type { RtfTaker } from "./tokens"

interface Group {
  /** Null for text. */
  destination: Destination | null
  letters: Letters
  paragraph: Paragraph
  /** Signs that stand for one in Unicode, for readers that know none. */
  uc: number
  /** Whether nothing has been said in it yet, and whether it may be passed where it is not known. */
  fresh: boolean
  starred: boolean
  /** What is to be done when it closes. */
  closing: (() => void) | null
}

export class RtfReader implements RtfTaker {
  readonly book = new Book()
  readonly notes = { footnote: [] as string[], endnote: [] as string[] }
  main = ""
  begun = false
  /** What the document is told, as settings of the other format. */
  readonly settings = new Map<string, string>()
  language: string | null = null
  private setup: Setup = new Map()
  section: Section = sectionFrom(this.setup)
  private readonly runs = new Runs(this.book)
  private row: Row = plainRow
  private readonly groups: Group[] = []
  private group: Group = {
    destination: null,
    letters: plainLetters,
    paragraph: plainParagraph,
    uc: 1,
    fresh: false,
    starred: false,
    closing: null,
  }
  /** Signs that are still to be passed behind one in Unicode. */
  private passing = 0
  private pictures = 0

  constructor(
    private readonly parts: Package,
    private readonly leaving: Leaving,
  ) {}

  get usualFont(): number {
    return this.runs.usualFont
  }

  // ---- signs

  open(): void {
    this.flushBytes()
    this.passing = 0
    this.groups.push(this.group)
    this.group = { ...this.group, fresh: true, starred: false, closing: null }
  }

  close(): void {
    this.flushBytes()
    this.passing = 0
    const { closing } = this.group
    const outer = this.groups.pop()
    if (!outer) return
    closing?.()
    this.group = outer
  }

  binary(bytes: Uint8Array): void {
    this.group.destination?.binary?.(bytes)
  }

  hex(byte: number): void {
    if (this.passing > 0) return void this.passing--
    const { destination } = this.group
    if (destination?.hex) destination.hex(byte)
    else this.runs.byte(byte)
  }

  text(bytes: Uint8Array): void {
    this.group.fresh = false
    let from = 0
    while (this.passing > 0 && from < bytes.length) {
      from++
      this.passing--
    }
    for (let i = from; i < bytes.length; i++) this.runs.byte(bytes[i] as number)
    this.flushBytes()
  }

  private flushBytes(): void {
    const text = this.runs.taken(this.group.letters)
    if (text !== "") this.say(text)
  }

  private say(text: string): void {
    const { destination } = this.group
    if (destination) return destination.text?.(text)
    this.begun = true
    this.runs.say(text, this.group)
  }

  private put(inside: string): void {
    this.runs.put(inside, this.group)
  }

  // ---- words

  word(name: string, value: number | null): void {
    this.flushBytes()
    this.passing = 0
    if (name === "*") return void (this.group.starred = true)
    if (name === "u") return this.unicode(value ?? 63)
    if (name === "uc") return void (this.group.uc = Math.min(9, Math.max(0, value ?? 1)))
    const { fresh } = this.group
    this.group.fresh = false
    if (fresh && this.begin(name, value)) return
    const { destination } = this.group
    if (destination) {
      const sign = symbols.get(name)
      if (sign) destination.text?.(sign)
      destination.word?.(name, value)
    } else this.inText(name, value)
  }

  private unicode(value: number): void {
    const sign = String.fromCharCode(value & 0xffff)
    const { destination } = this.group
    if (destination?.hex) destination.word?.("u", value)
    else this.say(sign)
    this.passing = this.group.uc
  }

  /** A group begins with a word. @returns whether that says what the group is for */
  private begin(name: string, value: number | null): boolean {
    const { group } = this
    const hear = (destination: Destination) => {
      group.destination = destination
      group.closing = () => destination.close?.()
      return true
    }
    if (group.destination) {
      const outer = group.destination
      const inner = outer.group?.(name)
      if (!inner) return false
      if (inner === "story") {
        group.destination = null
        return this.aside((inside) => outer.story?.(inside))
      }
      hear(inner)
      inner.word?.(name, value)
      return true
    }
    switch (name) {
      case "rtf":
        this.begun = true
        return true
      case "fonttbl":
        return hear(this.book.fontTable())
      case "colortbl":
        return hear(this.book.colourTable())
      case "stylesheet":
        return hear(this.book.styleTable())
      case "listtable":
        return hear(this.book.listTable())
      case "listoverridetable":
        return hear(this.book.overrideTable())
      case "info":
        return hear(this.book.info())
      case "userprops":
        return hear(this.book.userProperties())
      case "nesttableprops":
        return this.nestedRow()
      case "pict":
        return hear(this.picture())
      case "shpinst":
      case "do":
        return hear(this.shape(this.groups.at(-1) ?? group))
      case "shppict":
      case "fldrslt":
      case "result":
      case "ud":
      case "upr":
        return true
      case "field":
        return this.field()
      case "fldinst":
        return hear(this.instruction())
      case "bkmkstart":
        return hear(this.bookmark("Start"))
      case "bkmkend":
        return hear(this.bookmark("End"))
      case "pn":
        return hear(this.oldList(this.groups.at(-1)))
      case "footnote":
        return this.note()
      case "annotation":
        return this.comment()
      case "atrfstart":
      case "atrfend":
        return hear(this.commented(name === "atrfstart" ? "Start" : "End"))
      case "atnauthor":
      case "atnref":
      case "atndate":
        return hear(this.aboutComment(name))
      default:
        if (isEdge(name)) return this.edge(name)
        if (toldAs.has(name)) this.leaving.add(toldAs.get(name) as string)
        if (group.starred || passed.has(name)) return hear(nothing)
        return false
    }
  }

  private inText(name: string, value: number | null): void {
    const { group } = this
    const { colours } = this.book
    const sign = symbols.get(name)
    if (sign) return this.say(sign)
    const element = elements.get(name)
    if (element) return this.put(element)
    const field = shownFields.get(name)
    if (field) {
      const shown = `<w:r>${this.runs.look(group)}<w:t>1</w:t></w:r>`
      return this.runs.putBeside(`<w:fldSimple w:instr="${field}">${shown}</w:fldSimple>`)
    }
    const letters = withLetters(group.letters, name, value, this.book)
    if (letters) return void (group.letters = letters)
    const row = withRow(this.row, name, value, colours)
    if (row) return void (this.row = row)
    const paragraph = withParagraph(group.paragraph, name, value, colours)
    if (paragraph) return void (group.paragraph = paragraph)
    this.inStructure(name, value)
  }

  private inStructure(name: string, value: number | null): void {
    const { paragraph } = this.group
    switch (name) {
      case "par":
        this.runs.flush()
        return this.runs.story.endParagraph(paragraph, this.runs.look(this.group))
      case "cell":
        this.runs.flush()
        return this.runs.story.endCell(paragraph, 1, this.row, this.runs.look(this.group))
      case "nestcell":
        this.runs.flush()
        // What its row is like is said at the end of that.
        return this.runs.story.endCell(paragraph, Math.max(2, paragraph.depth), plainRow, this.runs.look(this.group))
      case "row":
        this.runs.flush()
        return this.runs.story.endRow(this.row, 1)
      case "nestrow":
        this.runs.flush()
        return this.runs.story.endRow(this.row, Math.max(2, paragraph.depth))
      case "sect":
        this.runs.flush()
        this.runs.story.endSection(sectionXml(this.section), paragraph)
        // Heads and feet go on until others are told.
        this.section = { ...this.section, edges: new Map() }
        return
      case "chftn":
        if (this.inNote) this.put("<w:footnoteRef/>")
        return
      case "ftnalt":
        this.endnotes.add(this.group)
        return
      case "sectd":
        this.section = { ...sectionFrom(this.setup), edges: this.section.edges }
        return
      case "ansicpg":
        this.runs.page = value ?? 1252
        return
      case "mac":
        this.runs.page = 10000
        return
      case "pc":
      case "pca":
        this.runs.page = 437
        return
      case "deff":
        this.runs.usualFont = value ?? 0
        return
      case "deflang":
        this.language = languageOf(value ?? 0) ?? this.language
        return
      case "hyphauto":
        this.settings.set("w:autoHyphenation", value === 0 ? "0" : "1")
        return
      case "hyphconsec":
        this.settings.set("w:consecutiveHyphenLimit", String(value ?? 0))
        return
      case "hyphcaps":
        this.settings.set("w:doNotHyphenateCaps", value === 0 ? "1" : "0")
        return
      case "margmirror":
        this.settings.set("w:mirrorMargins", "1")
        return
      case "facingp":
        this.settings.set("w:evenAndOddHeaders", "1")
        return
    }
    const setup = withDocumentSetup(this.setup, name, value)
    if (setup) {
      this.setup = setup
      this.section = { ...this.section, setup: new Map([...this.section.setup, ...setup]) }
    } else this.section = withSection(this.section, name, value, this.book.colours) ?? this.section
  }

  // ---- what stands in the text

  /** Takes the file of a picture among the parts. */
  private file({ content, ending }: Parameters<PictureDone>[0]): { relation: string; number: number } | null {
    if (!content || ending === null) {
      this.leaving.add("pictures of a kind that is not read")
      return null
    }
    const number = ++this.pictures
    return { relation: this.parts.add("image", `media/image${number}.${ending}`, content), number }
  }

  private picture(): Destination {
    return new Picture((own) => {
      const file = this.file(own)
      if (!file) return
      const { relation, number } = file
      const [cx, cy] = [own.width, own.height].map((twips) => Math.max(1, Math.round((twips ?? 1440) * 635)))
      this.put(
        `<w:drawing><wp:inline><wp:extent cx="${cx}" cy="${cy}"/><wp:docPr id="${number}" name="Picture ${number}"/><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture">` +
          `<pic:pic><pic:blipFill><a:blip r:embed="${relation}"/></pic:blipFill><pic:spPr/></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing>`,
      )
    })
  }

  private shape(outer: Group): Destination {
    return new Shape(
      (drawings) => {
        if (drawings.length === 0) this.leaving.add("drawings")
        for (const own of drawings) this.runs.put(own, outer)
      },
      (own) => this.file(own),
    )
  }

  /** What is said of a row of a table in a cell leaves the row of that cell as it is. */
  private nestedRow(): boolean {
    const { row } = this
    this.group.closing = () => (this.row = row)
    this.row = plainRow
    return true
  }

  private field(): boolean {
    this.group.closing = () => this.put('<w:fldChar w:fldCharType="end"/>')
    this.put('<w:fldChar w:fldCharType="begin"/>')
    return true
  }

  private instruction(): Destination {
    return heard((all) => {
      this.put(`<w:instrText xml:space="preserve">${escaped(all.slice(0, 4000))}</w:instrText>`)
      this.put('<w:fldChar w:fldCharType="separate"/>')
    })
  }

  private bookmark(end: "Start" | "End"): Destination {
    return heard((name) => {
      const id = escaped(name.trim().slice(0, 80))
      this.runs.putBeside(`<w:bookmark${end} w:id="${id}"${end === "Start" ? ` w:name="${id}"` : ""}/>`)
    })
  }

  private oldList(outer: Group | undefined): Destination {
    return {
      word: (name) => {
        const list =
          name === "pnlvlblt" ? oldLists.marks : name === "pnlvlbody" || name === "pndec" ? oldLists.numbers : null
        if (!outer || list === null) return
        outer.paragraph = { ...outer.paragraph, list }
        if (this.book.overrides.has(list)) return
        this.book.overrides.set(list, list)
        const level = { ...plainLevel(), form: list === oldLists.marks ? 23 : 0, indent: 360, first: -360 }
        this.book.lists.push({ id: list, levels: [level] })
      },
      group: () => nothing,
    }
  }

  /** Text of its own begins, which is handed on when its group closes. */
  private aside(done: (inside: string, group: Group) => void): boolean {
    this.runs.flush()
    const { row, runs } = this
    const { story } = runs
    runs.story = runs.begin()
    this.group.letters = plainLetters
    this.group.paragraph = plainParagraph
    const { group } = this
    group.closing = () => {
      this.runs.flush()
      const inside = runs.story.finish(group.paragraph)
      runs.story = story
      this.row = row
      done(inside, group)
    }
    return true
  }

  private note(): boolean {
    const { group } = this
    const outer = this.groups.at(-1)
    let kind: "footnote" | "endnote" = "footnote"
    this.inNote = true
    const begun = this.aside((inside) => {
      this.inNote = false
      this.notes[kind].push(inside)
      this.runs.put(`<w:${kind}Reference w:id="${this.notes[kind].length}"/>`, outer ?? group)
    })
    // A word close behind says that it stands at the end.
    const { closing } = group
    group.closing = () => {
      if (this.endnotes.has(group)) kind = "endnote"
      closing?.()
    }
    return begun
  }

  readonly comments: string[] = []
  private about = new Map<string, string>()

  private commented(end: "Start" | "End"): Destination {
    return heard((id) => this.runs.putBeside(`<w:commentRange${end} w:id="${escaped(id.trim().slice(0, 40))}"/>`))
  }

  private aboutComment(name: string): Destination {
    return heard((all) => void this.about.set(name, all.trim().slice(0, 200)))
  }

  private comment(): boolean {
    const outer = this.groups.at(-1) ?? this.group
    return this.aside((inside) => {
      const { about } = this
      this.about = new Map()
      const id = escaped((about.get("atnref") ?? `own${this.comments.length}`).slice(0, 40))
      const date = momentRead(Number(about.get("atndate") ?? 0))
      this.comments.push(
        `<w:comment w:id="${id}" w:author="${escaped(about.get("atnauthor") ?? "")}"${date === null ? "" : ` w:date="${date}"`}>${inside}</w:comment>`,
      )
      this.runs.put(`<w:commentReference w:id="${id}"/>`, outer)
    })
  }

  /** Whether a note is being read. */
  private inNote = false
  private readonly endnotes = new WeakSet<Group>()

  private edge(name: string): boolean {
    return this.aside((inside) => {
      const kind = name.startsWith("header") ? "header" : "footer"
      const number = String(this.section.edges.size + this.edges++)
      const id = this.parts.part(kind, kind === "header" ? "hdr" : "ftr", inside, number)
      this.section = { ...this.section, edges: new Map(this.section.edges).set(name, id) }
    })
  }

  private edges = 0

  end(): void {
    while (this.groups.length > 0) this.close()
    this.flushBytes()
    this.runs.flush()
    this.main = this.runs.story.finish(this.group.paragraph)
  }
}
