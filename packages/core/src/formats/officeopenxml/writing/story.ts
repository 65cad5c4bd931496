/** Blocks of the body, of a head or foot, of a note or a cell. */
import {
  cellFormat,
  contentsAttrs,
  edgeOf,
  entriesOf,
  entryOf,
  fieldAttrs,
  groundOf,
  gridOf,
  letterLook,
  levelOf,
  lettersOf,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  referenceOf,
  rowHeight,
  tableFormat,
  type GridCell,
  type LetterFormat,
  type ListPlace,
  citationItems,
} from "../../../document"
import type { Mark, Node } from "prosemirror-model"
import { escapeXml, xml } from "../../xml/writing"
import { datePatterns } from "../reading/fields"
import { runProperties } from "./letters"
import { enclosedMark, enclosureIn } from "../../enclosed"
import { nameOfOwn } from "../../properties"
import { citationInstruction } from "../sources"
import { paragraphProperties } from "./paragraphs"
import { assetOf, drawing } from "./pictures"
import type { WrittenParts } from "./parts"
import { border, flag, shading, twips, value } from "./values"

export type StoryPart = "body" | "edge" | "note"

const ownMarks = new Set(["letterStyle", "link", "place", "sample", "comment"])
const none: readonly Mark[] = []

/** Letters of scripts that run from right to left, and what stands among them, in the order of the text. */
const backward = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff](?:[^\p{L}]*[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff])*/gu

const anyBackward = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/

/** Pieces of a text that run one way. */
function byDirection(text: string): { text: string; rtl: boolean }[] {
  if (!anyBackward.test(text)) return [{ text, rtl: false }]
  const pieces: { text: string; rtl: boolean }[] = []
  let at = 0
  for (const { 0: found, index } of text.matchAll(backward)) {
    if (index > at) pieces.push({ text: text.slice(at, index), rtl: false })
    pieces.push({ text: found, rtl: true })
    at = index + found.length
  }
  if (at < text.length) pieces.push({ text: text.slice(at), rtl: false })
  return pieces
}

export class StoryWriter {
  private open = new Map<string, number>()

  constructor(
    private readonly parts: WrittenParts,
    /** The path of the part that is written. */
    private readonly path: string,
    private readonly kind: StoryPart,
    private readonly width: number,
  ) {}

  blocks(blocks: readonly Node[], letters: Partial<LetterFormat> | null = null): string {
    let written = ""
    blocks.forEach((block, i) => {
      if (block.isTextblock) written += this.paragraph(block, letters, "", "", blocks[i + 1])
      else if (block.type.name === "contents") written += this.contents(block)
      else if (block.type.name === "table") {
        written += this.table(block)
        // Tables that follow one another would be one, and nothing may end with one.
        if (!blocks[i + 1]?.isTextblock) written += between()
      }
    })
    return written
  }

  // ---- paragraphs

  /**
   * @param section properties of the section that it ends
   * @param before what stands at its start
   */
  paragraph(node: Node, letters: Partial<LetterFormat> | null, section = "", before = "", next?: Node): string {
    const { styles, sheet } = this.parts
    const { style, format: own, letters: markLetters } = paragraphAttrs(node)
    const { list, dropCap, columnBefore, ...format } = own ?? {}
    const look = paragraphLook(sheet, node)
    const place = look.paragraph.list
    const numbering = list === undefined ? undefined : list === null ? null : this.parts.lists.item(list)
    const outline = outlineLevel(sheet, node)
    const styled = entryOf(sheet.styles, style)
    const isTight = place && own?.spaceAlike === undefined && levelOf(sheet, place.definition, place.level).tight
    const tight = isTight ? this.goesOn(place, next) : undefined
    const parts = {
      style: styles.paragraphId(style),
      numbering,
      inherited: styles.tabs(style),
      tight: tight || undefined,
      outline: outline !== null && styled === undefined ? outline - 1 : undefined,
    }
    const rtl = look.paragraph.direction === "rtl"
    const mark = runProperties({ ...letters, ...markLetters })
    const cap = dropCap ?? look.paragraph.dropCap
    const leads = columnBefore ? xml("w:r", null, xml("w:br", { "w:type": "column" })) : ""
    // A paragraph with nothing but a break is one with the next.
    const [alone, begin] = node.childCount === 0 && leads !== "" ? [xml("w:p", null, leads), ""] : ["", leads]
    const first = cap && node.firstChild?.isText ? [...(node.firstChild.text ?? "")][0] : undefined
    if (!cap || first === undefined)
      return (
        alone +
        xml(
          "w:p",
          null,
          paragraphProperties(format, { mark, section, ...parts }, rtl),
          before + begin + this.inline(node.children, letters),
        )
      )
    const { size } = letterLook(sheet, look.letters, node.firstChild?.marks ?? none)
    const letter = node.firstChild?.type.schema.text(first, node.firstChild.marks)
    const high: Partial<LetterFormat> = {
      ...letters,
      size: Math.round(size * cap.lines * 1.15),
      ...(cap.family ? { family: cap.family } : {}),
    }
    const { breakBefore, ...rest } = format
    return (
      xml(
        "w:p",
        null,
        paragraphProperties(
          { ...(breakBefore === undefined ? {} : { breakBefore }), keepNext: true },
          { style: parts.style, cap },
          rtl,
        ),
        before + begin + this.inline(letter ? [letter] : [], high),
      ) +
      xml(
        "w:p",
        null,
        paragraphProperties(rest, { mark, section, ...parts }, rtl),
        this.inline(node.content.cut(first.length).content, letters),
      )
    )
  }

  /** Whether the next block is an item of the same list. */
  private goesOn({ definition, run }: ListPlace, next: Node | undefined): boolean {
    const place = next?.isTextblock ? paragraphLook(this.parts.sheet, next).paragraph.list : null
    return place?.definition === definition && place.run === run
  }

  // ---- text

  private inline(children: readonly Node[], letters: Partial<LetterFormat> | null): string {
    let written = ""
    for (let i = 0; i < children.length;) {
      const link = linkOf(children[i])
      let to = i + 1
      while (to < children.length && linkOf(children[to]) === link) to++
      const inside = children
        .slice(i, to)
        .map((node) => this.places(node) + this.commented(node, this.piece(node, letters)))
        .join("")
      written += link === null ? inside : this.hyperlink(link, inside)
      i = to
    }
    return written + this.places(null)
  }

  /** Begins and ends places where the text goes in and out of them. */
  private places(node: Node | null): string {
    const now = new Set(
      (node?.marks ?? none).filter(({ type }) => type.name === "place").map(({ attrs }) => attrs.value as string),
    )
    let written = ""
    for (const [name, id] of this.open)
      if (!now.has(name)) {
        this.open.delete(name)
        written += xml("w:bookmarkEnd", { "w:id": id })
      }
    for (const name of now)
      if (!this.open.has(name)) {
        const id = this.parts.nextId()
        this.open.set(name, id)
        written += xml("w:bookmarkStart", { "w:id": id, "w:name": this.parts.bookmark(name) })
      }
    return written
  }

  /** What was said of the text goes round it. */
  private commented(node: Node, written: string): string {
    if (this.kind !== "body") return written
    const { begins, ends } = this.parts.comments.around(node)
    const before = begins.map((id) => xml("w:commentRangeStart", { "w:id": id }))
    const behind = ends.map(
      (id) => xml("w:commentRangeEnd", { "w:id": id }) + run("", xml("w:commentReference", { "w:id": id })),
    )
    return before.join("") + written + behind.join("")
  }

  private hyperlink(href: string, inside: string): string {
    if (href.startsWith("#"))
      return xml("w:hyperlink", { "w:anchor": this.parts.bookmark(href.slice(1)), "w:history": 1 }, inside)
    const id = this.parts.relate(this.path, "hyperlink", href, true)
    return xml("w:hyperlink", { "r:id": id, "w:history": 1 }, inside)
  }

  private propertiesOf(node: Node, letters: Partial<LetterFormat> | null, rtl = false): string {
    const format: Record<string, unknown> = { ...letters }
    let style: string | undefined
    for (const { type, attrs } of node.marks) {
      if (type.name === "letterStyle") style = this.parts.styles.id(attrs.value as string)
      else if (!ownMarks.has(type.name)) format[type.name] = attrs.value
    }
    const link = linkOf(node) === null ? {} : this.parts.linkLetters
    return runProperties({ ...link, ...format }, style, rtl)
  }

  private piece(node: Node, letters: Partial<LetterFormat> | null): string {
    switch (node.type.name) {
      case "text":
        return byDirection(node.text ?? "")
          .map(({ text, rtl }) => run(this.propertiesOf(node, letters, rtl), words(text)))
          .join("")
      case "lineBreak":
        return run(this.propertiesOf(node, letters), xml("w:br", null))
      case "anchor":
        return this.anchor(node)
      case "picture":
        return this.picture(node)
      case "field":
        return this.field(node, letters)
      default:
        return ""
    }
  }

  private anchor(node: Node): string {
    const note = this.kind === "body" ? this.parts.note(node.attrs.story as string) : null
    if (!note) return ""
    const name = note.kind === "note" ? "w:footnoteReference" : "w:endnoteReference"
    return run(runProperties({ script: "super" }), xml(name, { "w:id": note.id }))
  }

  private picture(node: Node): string {
    const relation = this.parts.picture(this.path, assetOf(node))
    return relation === null
      ? ""
      : run("", drawing(node, relation, this.parts.nextId(), { width: this.width, height: Infinity }))
  }

  private field(node: Node, letters: Partial<LetterFormat> | null): string {
    const properties = this.propertiesOf(node, letters)
    const shown = run(properties, words(this.parts.shown(node)))
    const enclosure = enclosureIn(node)
    const file = enclosure && this.parts.enclosure(this.path, enclosure)
    if (enclosure && file !== null)
      return xml(
        "w:sdt",
        null,
        xml("w:sdtPr", null, value("w:alias", enclosure.name), value("w:tag", enclosedMark + file)),
        xml("w:sdtContent", null, shown),
      )
    const instruction = instructionFor(node, this.parts)
    return instruction === null ? shown : xml("w:fldSimple", { "w:instr": ` ${instruction} ` }, shown)
  }

  /** A list of contents: a field that other programs fill when they are asked to; what it shows now stands in it. */
  private contents(node: Node): string {
    const { levels, look, of } = contentsAttrs(node)
    const instruction =
      look === "sources" ? "BIBLIOGRAPHY" : of === "" ? `TOC \\o "1-${levels}" \\h \\z \\u` : `TOC \\h \\z \\c "${of}"`
    const sign = (type: string, dirty?: number) =>
      xml("w:r", null, xml("w:fldChar", { "w:fldCharType": type, "w:dirty": dirty }))
    const begin =
      sign("begin", 1) +
      xml("w:r", null, xml("w:instrText", { "xml:space": "preserve" }, ` ${instruction.replaceAll('"', "&quot;")} `)) +
      sign("separate")
    const entries = entriesOf(this.parts.doc, node, this.width, this.parts.pages)
    if (entries.length === 0) return xml("w:p", null, begin, sign("end"))
    return entries
      .map(({ node: entry }, i) => {
        const { format, style } = paragraphAttrs(entry)
        return xml(
          "w:p",
          null,
          paragraphProperties(
            format ?? {},
            look === "sources" ? { style: this.parts.styles.paragraphId(style) } : {},
            false,
          ),
          i === 0 && begin,
          this.inline(entry.children, null),
          i === entries.length - 1 && sign("end"),
        )
      })
      .join("")
  }

  // ---- tables

  private table(table: Node): string {
    const format = tableFormat(table)
    const grid = gridOf(table)
    const room = this.width
    const widths = format.columns ?? Array.from({ length: grid.columns }, () => room / grid.columns)
    const total = widths.reduce((sum, own) => sum + own, 0)
    const part = total > room + 1 ? room / total : 1
    const wide = (from: number, span: number) =>
      Math.round(widths.slice(from, from + span).reduce((sum, own) => sum + twips(own * part), 0))
    const padding = (side: string, own: number) => xml(`w:${side}`, { "w:w": twips(own), "w:type": "dxa" })
    const properties = xml(
      "w:tblPr",
      null,
      xml("w:tblW", { "w:w": wide(0, grid.columns), "w:type": "dxa" }),
      value("w:jc", format.align === "left" ? undefined : format.align),
      format.indent > 0 && xml("w:tblInd", { "w:w": twips(format.indent), "w:type": "dxa" }),
      xml("w:tblLayout", { "w:type": "fixed" }),
      xml(
        "w:tblCellMar",
        null,
        padding("top", format.padding.down),
        padding("left", format.padding.across),
        padding("bottom", format.padding.down),
        padding("right", format.padding.across),
      ),
      xml("w:tblLook", {
        "w:val": "0000",
        "w:firstRow": 0,
        "w:lastRow": 0,
        "w:firstColumn": 0,
        "w:lastColumn": 0,
        "w:noHBand": 1,
        "w:noVBand": 1,
      }),
    )
    const rows = table.children.map((row, r) => {
      const height = rowHeight(row)
      const cells = [...grid.standing(r)].sort((a, b) => a.column - b.column)
      return xml(
        "w:tr",
        null,
        xml(
          "w:trPr",
          null,
          flag("w:cantSplit", !format.divides || undefined),
          height > 0 && xml("w:trHeight", { "w:val": twips(height), "w:hRule": "atLeast" }),
          flag("w:tblHeader", r < format.headRows || undefined),
        ).replace("<w:trPr/>", ""),
        ...cells.map((cell) => this.cell(table, cell, r, wide(cell.column, cell.colspan))),
      )
    })
    return xml(
      "w:tbl",
      null,
      properties,
      xml("w:tblGrid", null, ...widths.map((_, i) => xml("w:gridCol", { "w:w": wide(i, 1) }))),
      ...rows,
    )
  }

  private cell(table: Node, cell: GridCell, row: number, width: number): string {
    const { sheet } = this.parts
    const begins = cell.row === row
    const ground = groundOf(sheet, table, cell)
    const { vertical, reading } = cellFormat(cell.node)
    const borders = (["top", "left", "bottom", "right"] as const).map((side) =>
      border(`w:${side}`, edgeOf(sheet, table, cell, side).border),
    )
    const properties = xml(
      "w:tcPr",
      null,
      xml("w:tcW", { "w:w": width, "w:type": "dxa" }),
      value("w:gridSpan", cell.colspan > 1 ? cell.colspan : undefined),
      cell.rowspan > 1 && (begins ? value("w:vMerge", "restart") : xml("w:vMerge", null)),
      xml("w:tcBorders", null, ...borders),
      ground !== null && shading(ground),
      value("w:textDirection", reading && { across: undefined, up: "btLr", down: "tbRl" }[reading]),
      value("w:vAlign", vertical && { top: "top", middle: "center", bottom: "bottom" }[vertical]),
    )
    if (!begins) return xml("w:tc", null, properties, xml("w:p", null))
    const { padding } = tableFormat(table)
    const inner = new StoryWriter(this.parts, this.path, this.kind, Math.max(20, width / 20 - 2 * padding.across))
    return xml("w:tc", null, properties, inner.blocks(cell.node.children, lettersOf(sheet, table, cell)))
  }
}

/** A paragraph that nobody sees, where the format wants one: behind a table, and to end a section, whose properties it has then. */
export function between(section = ""): string {
  const low = xml("w:spacing", { "w:before": 0, "w:after": 0, "w:line": 20, "w:lineRule": "exact" })
  return xml("w:p", null, xml("w:pPr", null, low, xml("w:rPr", null, xml("w:vanish", null)), section))
}

function linkOf(node: Node | undefined): string | null {
  return (node?.marks.find(({ type }) => type.name === "link")?.attrs.value as string | undefined) ?? null
}

const run = (properties: string, inside: string) => (inside === "" ? "" : `<w:r>${properties}${inside}</w:r>`)

/** Text with its tabs and the hyphens that are no letters. */
function words(text: string): string {
  return text
    .split(/([\t\u2011\u00ad\n])/)
    .map((own) =>
      own === ""
        ? ""
        : own === "\t"
          ? xml("w:tab", null)
          : own === "\u2011"
            ? xml("w:noBreakHyphen", null)
            : own === "\u00ad"
              ? xml("w:softHyphen", null)
              : own === "\n"
                ? xml("w:br", null)
                : textElement(own),
    )
    .join("")
}

function textElement(text: string): string {
  const own = xml("w:t", { "xml:space": "preserve" }, escapeXml(text))
  return own.endsWith("/>") ? "" : own
}

function propertyInstruction(property: string): string | null {
  if (property === "subtitle") return "SUBJECT"
  const name = property === "organisation" ? "Company" : nameOfOwn(property)
  return name === undefined ? null : `DOCPROPERTY "${name}"`
}

/** The instruction of a field; null for one whose words stand for it elsewhere. */
function instructionFor(field: Node, parts: WrittenParts): string | null {
  const { kind, format } = fieldAttrs(field)
  switch (kind) {
    case "page":
      return "PAGE"
    case "pages":
      return "NUMPAGES"
    case "sectionPages":
      return "SECTIONPAGES"
    case "title":
      return "TITLE"
    case "author":
      return "AUTHOR"
    case "name":
      return "FILENAME"
    case "date":
      return `${format === "time" ? "TIME" : "DATE"} \\@ "${entryOf(datePatterns as Record<string, string>, format) ?? datePatterns.long}"`
    case "property":
      return propertyInstruction(format)
    case "heading": {
      const level = Number.parseInt(format) || 1
      return `STYLEREF ${level}${format.endsWith("last") ? " \\l" : ""}`
    }
    case "caption":
      return `SEQ ${/\s/.test(format) ? `"${format}"` : format} \\* ARABIC`
    case "reference": {
      const { part, place } = referenceOf(format)
      const name = parts.bookmark(place)
      return part === "sheet" ? `PAGEREF ${name} \\h` : `REF ${name}${part === "number" ? " \\r" : ""} \\h`
    }
    case "citation":
      return citationInstruction(citationItems(format))
    case "enclosure":
    case "enclosures":
    case "formula":
      return null
  }
}
