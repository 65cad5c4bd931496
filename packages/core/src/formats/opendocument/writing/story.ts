/** Blocks of the body, of a head or foot, of a note or a cell. */
import {
  bodyStyle,
  cellFormat,
  contentsAttrs,
  edgeOf,
  entriesOf,
  fieldAttrs,
  gridOf,
  groundOf,
  lettersOf,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  pictureAttrs,
  pictureFormat,
  pictureSize,
  referenceOf,
  rowHeight,
  storiesOf,
  styleLook,
  tableFormat,
  type GridCell,
  type LetterFormat,
  type ListPlace,
  type ParagraphFormat,
  citationItems,
  documentAttrs,
  entryOf,
  type Comment,
} from "../../../document"
import type { Mark, Node } from "prosemirror-model"
import { momentOf } from "../../commenting"
import { enclosureIn } from "../../enclosed"
import { nameOfOwn } from "../../properties"
import { escapeXml, xml, type XmlValues } from "../../xml/writing"
import { citationMark } from "../sources"
import type { Written } from "./written"
import { border, percent, points } from "./properties"
import type { AutomaticStyles } from "./styles"

export type StoryPart = "body" | "edge" | "note"

const none: readonly Mark[] = []
const ownMarks = new Set(["letterStyle", "link", "place", "sample", "comment"])

interface Item {
  node: Node
  place: ListPlace
}

/** What a paragraph begins. */
export interface Opening {
  /** The master page of its sheet; null to go on. */
  master: string | null
  /** The number of that sheet; null to go on counting. */
  start: number | null
  /** Attributes of the mark of a part. */
  mark: { "text:name": string; "xml:id": string } | null
  /** What stands behind the text. */
  behind?: string
}

export class StoryWriter {
  private readonly open = new Set<string>()

  constructor(
    private readonly written: Written,
    private readonly automatic: AutomaticStyles,
    private readonly kind: StoryPart,
    private readonly width: number,
  ) {}

  /** @param opening what the first paragraph begins */
  blocks(
    blocks: readonly Node[],
    letters: Partial<LetterFormat> | null = null,
    opening: Opening | null = null,
  ): string {
    let made = ""
    let begins = opening
    if ((begins?.master ?? begins?.mark) && !blocks[0]?.isTextblock) {
      made += this.unseen(begins)
      begins = null
    }
    for (let i = 0; i < blocks.length;) {
      const block = blocks[i] as Node
      const place = this.placeOf(block)
      if (place) {
        const items: Item[] = []
        for (; i < blocks.length; i++) {
          const node = blocks[i] as Node
          const own = this.placeOf(node)
          if (!own || own.definition !== place.definition || own.run !== place.run) break
          items.push({ node, place: own })
        }
        made += this.list(items, place, letters, begins)
      } else {
        if (block.isTextblock) made += this.paragraph(block, letters, begins)
        else if (block.type.name === "contents") made += this.contents(block)
        else if (block.type.name === "table") made += this.table(block)
        i++
      }
      if (block.isTextblock) begins = null
    }
    return made
  }

  /** Where a paragraph stands in a list that it names itself; what its style says, its style says. */
  private placeOf(node: Node): ListPlace | null {
    return node.isTextblock ? (paragraphAttrs(node).format?.list ?? null) : null
  }

  // ---- lists

  private list(
    items: readonly Item[],
    { definition, run }: ListPlace,
    letters: Partial<LetterFormat> | null,
    opening: Opening | null,
  ): string {
    const { id, goesOn } = this.written.listRun(definition, run)
    let at = 0
    const level = (depth: number): string => {
      let inside = ""
      while (at < items.length && (items[at] as Item).place.level >= depth) {
        const { node, place } = items[at] as Item
        let own = ""
        const start = place.level === depth ? place.start : undefined
        const done = place.level === depth ? this.written.lists.done(place) : undefined
        if (place.level === depth) {
          own = this.paragraph(node, letters, at === 0 ? opening : null)
          at++
        }
        if (at < items.length && (items[at] as Item).place.level > depth) own += level(depth + 1)
        inside += xml("text:list-item", { "text:start-value": start, "text:style-override": done }, own)
      }
      const top = depth === 0
      return xml(
        "text:list",
        {
          "text:style-name": top ? this.written.lists.style(definition) : undefined,
          "xml:id": top && !goesOn ? id : undefined,
          "text:continue-list": top && goesOn ? id : undefined,
        },
        inside,
      )
    }
    return level(0)
  }

  // ---- paragraphs

  paragraph(node: Node, letters: Partial<LetterFormat> | null, opening: Opening | null = null): string {
    const { styles, sheet } = this.written
    const { style, format, letters: markLetters } = paragraphAttrs(node)
    const look = paragraphLook(sheet, node)
    const outline = outlineLevel(sheet, node)
    const own = this.withFittingCap(node, format ?? {})
    const name = this.automatic.paragraph(
      styles.name(style),
      own,
      { ...letters, ...(node.childCount === 0 ? markLetters : null) },
      {
        direction: look.paragraph.direction,
        // Where its list puts it is no matter of its stops.
        indentLeft: own.indentLeft ?? styleLook(sheet, style).paragraph.indentLeft,
      },
      {
        "style:master-page-name": opening?.master ?? undefined,
        "style:list-style-name": format?.list === null ? "" : undefined,
      },
      { "style:page-number": (opening?.master && opening.start) ?? undefined },
    )
    const mark = opening?.mark ? xml("text:bookmark", opening.mark) : ""
    const inside = (opening?.behind ?? "") + mark + this.inline(node.children, null)
    return outline === null
      ? xml("text:p", { "text:style-name": name }, inside)
      : xml("text:h", { "text:style-name": name, "text:outline-level": outline }, inside)
  }

  /** A paragraph that nobody sees, where something begins that has none. */
  private unseen({ master, start, mark, behind = "" }: Opening): string {
    const low = xml("style:paragraph-properties", {
      "fo:line-height": "1pt",
      "fo:margin-top": "0pt",
      "fo:margin-bottom": "0pt",
      "style:page-number": (master && start) ?? undefined,
    })
    const name = this.automatic.style(
      "P",
      "paragraph",
      { "style:parent-style-name": this.written.styles.name(bodyStyle), "style:master-page-name": master ?? undefined },
      low + xml("style:text-properties", { "text:display": "none" }),
    )
    return xml("text:p", { "text:style-name": name }, behind + (mark ? xml("text:bookmark", mark) : ""))
  }

  private withFittingCap(node: Node, format: Partial<ParagraphFormat>): Partial<ParagraphFormat> {
    return format.dropCap && node.childCount === 0 ? { ...format, dropCap: null } : format
  }

  // ---- text

  private inline(children: readonly Node[], letters: Partial<LetterFormat> | null): string {
    let made = ""
    let blank = true
    for (let i = 0; i < children.length;) {
      const link = linkOf(children[i])
      let inside = ""
      for (; i < children.length && linkOf(children[i]) === link; i++) {
        const node = children[i] as Node
        inside += this.places(node) + this.commented(node, this.piece(node, letters, blank))
        blank = node.isText ? (node.text ?? "").endsWith(" ") : node.type.name === "lineBreak"
      }
      made += link === null ? inside : xml("text:a", { "xlink:type": "simple", "xlink:href": link }, inside)
    }
    return made + this.places(null)
  }

  private places(node: Node | null): string {
    const now = new Set(
      (node?.marks ?? none).filter(({ type }) => type.name === "place").map(({ attrs }) => attrs.value as string),
    )
    let made = ""
    for (const name of this.open)
      if (!now.has(name)) {
        this.open.delete(name)
        made += xml("text:bookmark-end", { "text:name": name })
      }
    for (const name of now)
      if (!this.open.has(name)) {
        this.open.add(name)
        made += xml("text:bookmark-start", { "text:name": name })
      }
    return made
  }

  /** What was said of the text goes round it. */
  private commented(node: Node, made: string): string {
    if (this.kind !== "body") return made
    const { begins, ends } = this.written.comments.around(node)
    const before = begins.map((number) => {
      const { author, at, text } = this.written.comments.written.get(number) as Comment
      const moment = momentOf(at)
      return xml(
        "office:annotation",
        { "office:name": `comment-${number}` },
        xml("dc:creator", null, escapeXml(author)),
        moment !== undefined && xml("dc:date", null, moment),
        ...text.split("\n").map((own) => xml("text:p", null, words(own, true))),
      )
    })
    const behind = ends.map((number) => xml("office:annotation-end", { "office:name": `comment-${number}` }))
    return before.join("") + made + behind.join("")
  }

  /** @param blank whether a blank comes before it, or the line begins with it */
  private piece(node: Node, letters: Partial<LetterFormat> | null, blank: boolean): string {
    const format: Record<string, unknown> = { ...letters }
    let style: string | undefined
    for (const { type, attrs } of node.marks) {
      if (type.name === "letterStyle") style = this.written.styles.name(attrs.value as string)
      else if (!ownMarks.has(type.name)) format[type.name] = attrs.value
    }
    const inside = this.content(node, blank)
    if (inside === "" || node.type.name === "picture") return inside
    const name = this.automatic.text(style, format)
    return name === null ? inside : xml("text:span", { "text:style-name": name }, inside)
  }

  private content(node: Node, blank: boolean): string {
    switch (node.type.name) {
      case "text":
        return words(node.text ?? "", blank)
      case "lineBreak":
        return "<text:line-break/>"
      case "anchor":
        return this.note(node)
      case "picture":
        return this.picture(node)
      case "field":
        return this.field(node)
      default:
        return ""
    }
  }

  private note(node: Node): string {
    const key = node.attrs.story as string
    const story = storiesOf(this.written.doc).get(key)?.node
    const kind = story?.attrs.kind as string | undefined
    if (!story || this.kind !== "body" || (kind !== "note" && kind !== "endnote")) return ""
    const writer = new StoryWriter(this.written, this.automatic, "note", this.width)
    return xml(
      "text:note",
      { "text:id": this.written.nextId("n"), "text:note-class": kind === "note" ? "footnote" : "endnote" },
      xml("text:note-citation", null, escapeXml(this.written.noteLabel(key))),
      xml("text:note-body", null, writer.blocks(story.children)),
    )
  }

  private field(node: Node): string {
    const { kind, format } = fieldAttrs(node)
    const shown = escapeXml(this.written.shown(node))
    const enclosure = enclosureIn(node)
    const path = enclosure && this.written.enclosure(enclosure)
    if (enclosure && path !== null) return this.enclosed(enclosure.name, shown, path)
    switch (kind) {
      case "page":
        return xml("text:page-number", { "text:select-page": "current" }, shown)
      case "pages":
        return xml("text:page-count", null, shown)
      case "title":
        return xml("text:title", null, shown)
      case "author":
        return xml("text:initial-creator", null, shown)
      case "name":
        return xml("text:file-name", { "text:display": "name" }, shown)
      case "heading":
        return xml(
          "text:chapter",
          { "text:display": "name", "text:outline-level": Number.parseInt(format) || 1 },
          shown,
        )
      case "date":
        return xml(
          format === "time" ? "text:time" : "text:date",
          { "style:data-style-name": this.written.dateStyle(format) },
          shown,
        )
      case "property": {
        if (format === "subtitle") return xml("text:subject", null, shown)
        const name = nameOfOwn(format)
        return name === undefined ? shown : xml("text:user-defined", { "text:name": name }, shown)
      }
      case "caption":
        return xml("text:sequence", { "text:name": this.written.sequence(format), "style:num-format": "1" }, shown)
      case "reference": {
        const { part, place } = referenceOf(format)
        return xml(
          "text:bookmark-ref",
          { "text:ref-name": place, "text:reference-format": { words: "text", number: "number", sheet: "page" }[part] },
          shown,
        )
      }
      case "citation": {
        const { list } = documentAttrs(this.written.doc).sources
        const items = citationItems(format)
        return items.length === 0
          ? shown
          : items.map((item, i) => citationMark(item, entryOf(list, item.source), i === 0, shown)).join("")
      }
      default:
        return shown
    }
  }

  /** A file that goes along: the words that show it, and behind them a frame in which nothing is seen, with its bytes. */
  private enclosed(name: string, shown: string, path: string): string {
    const style = xml("style:graphic-properties", {
      "fo:border": "none",
      "fo:padding": "0pt",
      "style:vertical-pos": "top",
      "style:vertical-rel": "baseline",
    })
    const number = this.written.nextId("enclosure-")
    const frame = xml(
      "draw:frame",
      {
        "draw:style-name": this.automatic.style("G", "graphic", {}, style),
        "draw:name": number,
        "text:anchor-type": "as-char",
        "svg:width": points(0.1),
        "svg:height": points(0.1),
      },
      xml("draw:object-ole", {
        "xlink:href": path,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
      xml("svg:title", null, escapeXml(name)),
    )
    return xml("text:span", null, shown, frame)
  }

  private picture(node: Node): string {
    const path = this.written.picture(pictureAttrs(node).asset)
    if (path === null) return ""
    const format = pictureFormat(node)
    const { width, height } = pictureSize(node, { width: this.width, height: Infinity })
    const { wrap, crop, frame, turn, alt, opacity, shadow } = format
    const [wide, high] = [width / (1 - crop.left - crop.right), height / (1 - crop.top - crop.bottom)]
    const cropped = crop.top || crop.right || crop.bottom || crop.left
    const floats = wrap !== "line"
    const distance = floats ? points(format.distance) : undefined
    const graphic = this.automatic.style(
      "G",
      "graphic",
      {},
      xml("style:graphic-properties", {
        "fo:clip": cropped
          ? `rect(${[crop.top * high, crop.right * wide, crop.bottom * high, crop.left * wide].map(points).join(", ")})`
          : undefined,
        "fo:border": frame ? border(frame) : undefined,
        "draw:image-opacity": opacity < 1 ? percent(opacity) : undefined,
        "style:shadow": shadow ? "#808080 3.5pt 3.5pt" : undefined,
        "fo:margin-left": distance,
        "fo:margin-right": distance,
        "fo:margin-top": distance,
        "fo:margin-bottom": distance,
        ...(floats
          ? {
              "style:wrap":
                wrap === "across"
                  ? "none"
                  : wrap === "beside"
                    ? { both: "parallel", left: "left", right: "right", wider: "biggest" }[format.side]
                    : "run-through",
              "style:run-through": wrap === "under" ? "background" : wrap === "over" ? "foreground" : undefined,
              "style:horizontal-pos": format.across.align ?? "from-left",
              "style:horizontal-rel": { column: "paragraph", margins: "page-content", sheet: "page" }[format.across.of],
              "style:vertical-pos": "from-top",
              "style:vertical-rel": { paragraph: "paragraph", margins: "page-content", sheet: "page" }[format.down.of],
            }
          : { "style:vertical-pos": "top", "style:vertical-rel": "baseline" }),
      }),
    )
    return xml(
      "draw:frame",
      {
        "draw:style-name": graphic,
        "draw:name": this.written.nextId("Picture "),
        "text:anchor-type": floats ? "paragraph" : "as-char",
        "svg:width": points(width),
        "svg:height": points(height),
        "svg:x": floats && format.across.align === null ? points(format.across.at) : undefined,
        "svg:y": floats ? points(format.down.at) : undefined,
        "draw:transform": turn === 0 ? undefined : `rotate (${Math.round(((-turn * Math.PI) / 180) * 1e5) / 1e5})`,
      },
      xml("draw:image", {
        "xlink:href": path,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
      alt !== "" && xml("svg:desc", null, escapeXml(alt)),
    )
  }

  /** A list of contents, with what it shows now. */
  private contents(node: Node): string {
    const { levels, look, of } = contentsAttrs(node)
    const entries = entriesOf(this.written.doc, node, this.width, null).map(({ node: entry }) =>
      this.paragraph(entry, null),
    )
    const id = this.written.nextId("Contents")
    const body = xml("text:index-body", null, ...entries)
    if (look === "sources")
      return xml("text:bibliography", { "text:name": id }, xml("text:bibliography-source", null), body)
    if (of === "")
      return xml(
        "text:table-of-content",
        { "text:name": id },
        xml("text:table-of-content-source", { "text:outline-level": levels }),
        body,
      )
    const kind = of === "Table" ? "text:table-index" : "text:illustration-index"
    return xml(kind, { "text:name": id }, xml(`${kind}-source`, { "text:caption-sequence-name": of }), body)
  }

  // ---- tables

  private table(table: Node): string {
    const format = tableFormat(table)
    const grid = gridOf(table)
    const widths = format.columns ?? Array.from({ length: grid.columns }, () => this.width / grid.columns)
    const total = widths.reduce((sum, own) => sum + own, 0)
    const part = total > this.width + 1 ? this.width / total : 1
    const style = this.automatic.style(
      "Ta",
      "table",
      {},
      xml("style:table-properties", {
        "style:width": points(total * part),
        "table:align": format.align,
        "fo:margin-left": format.align === "left" && format.indent > 0 ? points(format.indent) : undefined,
        "table:border-model": "collapsing",
      }),
    )
    const columns = widths.map((own) =>
      xml("table:table-column", {
        "table:style-name": this.automatic.style(
          "Co",
          "table-column",
          {},
          xml("style:table-column-properties", { "style:column-width": points(own * part) }),
        ),
      }),
    )
    const rows = table.children.map((row, r) => {
      const height = rowHeight(row)
      const rowStyle = this.automatic.style(
        "Ro",
        "table-row",
        {},
        xml("style:table-row-properties", {
          "style:min-row-height": height > 0 ? points(height) : undefined,
          "fo:keep-together": format.divides ? "auto" : "always",
        }),
      )
      const standing = [...grid.standing(r)].sort((a, b) => a.column - b.column)
      const cells = standing.map((cell) => {
        const covered = "<table:covered-table-cell/>"
        if (cell.row !== r) return covered.repeat(cell.colspan)
        const inner = widths.slice(cell.column, cell.column + cell.colspan).reduce((sum, own) => sum + own * part, 0)
        return this.cell(table, cell, inner) + covered.repeat(cell.colspan - 1)
      })
      return xml("table:table-row", { "table:style-name": rowStyle }, ...cells)
    })
    const heads = Math.min(format.headRows, rows.length - 1)
    return xml(
      "table:table",
      { "table:name": this.written.nextId("Table"), "table:style-name": style },
      format.alt && xml("table:desc", null, escapeXml(format.alt)),
      ...columns,
      heads > 0 && xml("table:table-header-rows", null, ...rows.slice(0, heads)),
      ...rows.slice(Math.max(0, heads)),
    )
  }

  private cell(table: Node, cell: GridCell, width: number): string {
    const { sheet } = this.written
    const { padding } = tableFormat(table)
    const ground = groundOf(sheet, table, cell)
    const { vertical, reading } = cellFormat(cell.node)
    const edges: XmlValues = Object.fromEntries(
      (["top", "right", "bottom", "left"] as const).map((side) => [
        `fo:border-${side}`,
        border(edgeOf(sheet, table, cell, side).border),
      ]),
    )
    const style = this.automatic.style(
      "Ce",
      "table-cell",
      {},
      xml("style:table-cell-properties", {
        "fo:background-color": ground ?? undefined,
        ...edges,
        "fo:padding-top": points(padding.down),
        "fo:padding-right": points(padding.across),
        "fo:padding-bottom": points(padding.down),
        "fo:padding-left": points(padding.across),
        "style:vertical-align": vertical,
        "style:rotation-angle": reading && { across: undefined, up: "90", down: "270" }[reading],
        "style:writing-mode": reading === "down" ? "tb-rl" : undefined,
      }),
    )
    const inner = new StoryWriter(this.written, this.automatic, this.kind, Math.max(20, width - 2 * padding.across))
    return xml(
      "table:table-cell",
      {
        "table:style-name": style,
        "table:number-columns-spanned": cell.colspan > 1 ? cell.colspan : undefined,
        "table:number-rows-spanned": cell.rowspan > 1 ? cell.rowspan : undefined,
        "office:value-type": "string",
      },
      inner.cellBlocks(cell.node.children, lettersOf(sheet, table, cell)),
    )
  }

  /** What a table says of letters is said of the words themselves. */
  private cellBlocks(blocks: readonly Node[], letters: Partial<LetterFormat> | null): string {
    if (!letters) return this.blocks(blocks)
    const dressed = blocks.map((block) => (block.isTextblock ? this.written.dressed(block, letters) : block))
    return this.blocks(dressed)
  }
}

function linkOf(node: Node | undefined): string | null {
  return (node?.marks.find(({ type }) => type.name === "link")?.attrs.value as string | undefined) ?? null
}

/** What is not said as it is written. */
const counted = / {2}|[\t\n]/

/** Text in which blanks count: runs of them, and those at the start of a line, are said. */
function words(text: string, blank: boolean): string {
  if (!counted.test(text) && !(blank && text.startsWith(" "))) return escapeXml(text)
  let made = ""
  let before = blank
  for (const [own] of text.matchAll(/ +|\t|\n|[^ \t\n]+/g)) {
    if (own === "\t") made += "<text:tab/>"
    else if (own === "\n") made += "<text:line-break/>"
    else if (own.startsWith(" ")) {
      const said = before ? own.length : own.length - 1
      made += (before ? "" : " ") + (said > 0 ? xml("text:s", { "text:c": said === 1 ? undefined : said }) : "")
    } else made += escapeXml(own)
    before = own.startsWith(" ") || own === "\n"
  }
  return made
}
