/** What all texts of one file share while it is written. */
import {
  type Enclosure,
  dateFormats,
  documentAttrs,
  entryOf,
  marks,
  noteLabels,
  paragraph,
  valuesNow,
  valuesOf,
  withName,
  type LetterFormat,
  type MarkName,
  type StyleSheet,
  shownByFields,
} from "../../../document"
import { Fragment, type Node } from "prosemirror-model"
import { enclosedFile } from "../../enclosed"
import type { WriteSources } from "../../format"
import { checkPicture } from "../../pictures/file"
import { WrittenComments } from "../../writtenComments"
import { xml } from "../../xml/writing"
import { enclosedFolder } from "../names"
import { WrittenLists, WrittenStyles } from "./styles"

/** Dates by their parts, in the order of writing. */
const dateParts: Readonly<Record<keyof typeof dateFormats, readonly string[]>> = {
  long: ["day", " ", "month", " ", "year"],
  full: ["day-of-week", ", ", "day", " ", "month", " ", "year"],
  medium: ["day", " ", "short-month", " ", "year"],
  short: ["day", "/", "number-month", "/", "year"],
  dayMonth: ["day", " ", "month"],
  monthYear: ["month", " ", "year"],
  weekday: ["day-of-week"],
  year: ["year"],
  time: ["hours", ":", "minutes"],
  dateTime: ["day", " ", "month", " ", "year", " ", "hours", ":", "minutes"],
}

function datePart(part: string): string {
  switch (part) {
    case "month":
      return xml("number:month", { "number:textual": true, "number:style": "long" })
    case "short-month":
      return xml("number:month", { "number:textual": true })
    case "number-month":
      return xml("number:month", { "number:style": "long" })
    case "day":
    case "minutes":
    case "hours":
      return xml(`number:${part}`, part === "minutes" ? { "number:style": "long" } : null)
    case "day-of-week":
    case "year":
      return xml(`number:${part}`, { "number:style": "long" })
    default:
      return xml("number:text", null, part)
  }
}

export class Written {
  readonly comments: WrittenComments
  readonly sheet: StyleSheet
  readonly styles: WrittenStyles
  readonly lists: WrittenLists
  readonly files = new Map<string, Uint8Array>()
  readonly blank = paragraph()
  private readonly shownBy: Map<Node, string>

  constructor(
    readonly doc: Node,
    private readonly sources: WriteSources,
  ) {
    this.comments = new WrittenComments(doc)
    this.sheet = documentAttrs(doc).styles
    this.styles = new WrittenStyles(this.sheet)
    this.lists = new WrittenLists(this.sheet)
    this.shownBy = shownByFields(doc, sources.pages)
  }

  private ids = 0
  nextId(prefix: string): string {
    return `${prefix}${++this.ids}`
  }

  private readonly runs = new Map<string, string>()

  /** The name of the list that a run is, and whether there was one of it before. */
  listRun(definition: string, run: string): { id: string; goesOn: boolean } {
    const key = `${definition} ${run}`
    const known = this.runs.get(key)
    if (known !== undefined) return { id: known, goesOn: true }
    const id = this.nextId("list")
    this.runs.set(key, id)
    return { id, goesOn: false }
  }

  shown(field: Node): string {
    const values = valuesOf(this.doc, withName(valuesNow, this.sources.name ?? ""))
    return this.shownBy.get(field) ?? values(field, this.sheet.defaults.letters.language)
  }

  noteLabel(key: string): string {
    return noteLabels(this.doc).get(key) ?? ""
  }

  private readonly media = new Map<string, string | null>()

  /** The path of the file of a picture; null where that is not to be had. */
  picture(asset: string): string | null {
    let path = this.media.get(asset)
    if (path === undefined) {
      path = null
      const bytes = this.sources.asset(asset)
      if (bytes) {
        path = `Pictures/${asset.slice(0, 16)}.${checkPicture(bytes).type.slice("image/".length)}`
        this.files.set(path, bytes)
      }
      this.media.set(asset, path)
    }
    return path
  }

  private readonly enclosed = new Map<string, string | null>()

  /** The path of a file that is enclosed; null where its bytes are not to be had. */
  enclosure(enclosure: Enclosure): string | null {
    const { asset } = enclosure
    let path = this.enclosed.get(asset)
    if (path === undefined) {
      const bytes = this.sources.asset(asset)
      path = bytes ? enclosedFolder + enclosedFile(this.enclosed.size + 1, enclosure) : null
      if (bytes && path !== null) this.files.set(path, bytes)
      this.enclosed.set(asset, path)
    }
    return path
  }

  private readonly dates = new Set<keyof typeof dateFormats>()

  dateStyle(format: string): string {
    const own = entryOf(dateFormats as Record<string, object>, format) ? format : "long"
    this.dates.add(own)
    return `date-${own}`
  }

  get dateStyles(): string {
    return [...this.dates]
      .map((format) =>
        xml(
          format === "time" ? "number:time-style" : "number:date-style",
          { "style:name": `date-${format}` },
          ...(dateParts[format] ?? []).map(datePart),
        ),
      )
      .join("")
  }

  readonly sequences = new Set<string>()

  sequence(label: string): string {
    this.sequences.add(label)
    return label
  }

  /** A paragraph whose words have letters of which they say nothing themselves. */
  dressed(block: Node, letters: Partial<LetterFormat>): Node {
    const own = Object.entries(letters).map(([name, value]) => marks[name as MarkName].create({ value }))
    const children = block.children.map((node) => {
      const made = own.reduce(
        (now, mark) => (now.marks.some(({ type }) => type === mark.type) ? now : now.mark(mark.addToSet(now.marks))),
        node,
      )
      const shown = this.shownBy.get(node)
      if (shown !== undefined) this.shownBy.set(made, shown)
      return made
    })
    return block.copy(Fragment.from(children))
  }
}
