/** A document as CommonMark with tables and notes: what is bold, slanted, struck, linked, listed and quoted. */
import {
  bodyOf,
  documentAttrs,
  entriesOf,
  gridOf,
  letterLook,
  levelOf,
  listPlace,
  noteLabels,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  pictureAttrs,
  pictureFormat,
  storiesOf,
  valuesNow,
  valuesOf,
  withName,
  shownByFields,
} from "../../document"
import type { Node } from "prosemirror-model"
import type { AssetSource } from "../format"
import { base64 } from "../html/page"
import { checkPicture } from "../pictures/file"

/** Signs that would mean something, in a line or at its beginning. */
const escaped = (text: string) => text.replace(/[\\`*_[\]<>|~]/g, "\\$&").replace(/&(?=#?\w+;)/g, "\\&")
const begun = (line: string) =>
  line.replace(
    /^(\s*)([#+\-=>]|\d+[.)])(?=\s|$)/,
    (_, blank: string, sign: string) => `${blank}${sign.length > 1 ? sign.slice(0, -1) : ""}\\${sign.at(-1)}`,
  )

class Writer {
  private readonly values
  private readonly labels
  private readonly shown
  private readonly noted = new Set<string>()

  constructor(
    private readonly doc: Node,
    name: string | null,
    private readonly asset: AssetSource,
  ) {
    this.values = valuesOf(doc, withName(valuesNow, name ?? ""))
    this.labels = noteLabels(doc)
    this.shown = shownByFields(doc)
  }

  private get styles() {
    return documentAttrs(this.doc).styles
  }

  private piece(node: Node): string {
    switch (node.type.name) {
      case "text":
        return escaped(node.text ?? "")
      case "lineBreak":
        return "\\\n"
      case "field":
        return escaped(this.shown.get(node) ?? this.values(node, this.styles.defaults.letters.language))
      case "anchor": {
        const key = node.attrs.story as string
        if (!this.labels.has(key)) return ""
        this.noted.add(key)
        return `[^${this.labels.get(key) ?? ""}]`
      }
      case "picture": {
        const bytes = this.asset(pictureAttrs(node).asset)
        const alt = escaped(pictureFormat(node).alt)
        return bytes ? `![${alt}](data:${checkPicture(bytes).type};base64,${base64(bytes)})` : alt
      }
      default:
        return ""
    }
  }

  /** Text with its signs: those of neighbours that share them stand round both. */
  inline(paragraph: Node): string {
    const base = paragraphLook(this.styles, paragraph).letters
    const parts = paragraph.children.map((node) => {
      const look = letterLook(this.styles, base, node.marks)
      const heading = outlineLevel(this.styles, paragraph) !== null
      return {
        text: this.piece(node),
        bold: look.bold && !base.bold && !heading,
        italic: look.italic && !base.italic,
        strike: look.strike !== "none",
        link: look.link && !look.link.startsWith("#") ? look.link : null,
      }
    })
    let made = ""
    for (let i = 0; i < parts.length;) {
      const first = parts[i] as (typeof parts)[number]
      let text = ""
      for (; i < parts.length; i++) {
        const own = parts[i] as typeof first
        if (
          own.bold !== first.bold ||
          own.italic !== first.italic ||
          own.strike !== first.strike ||
          own.link !== first.link
        )
          break
        text += own.text
      }
      // Signs stand close at the words, blanks outside them.
      const [, before = "", words = "", after = ""] = /^(\s*)([\s\S]*?)(\s*)$/.exec(text) ?? []
      const sign = words === "" ? "" : (first.strike ? "~~" : "") + (first.bold ? "**" : "") + (first.italic ? "*" : "")
      const signed = sign + words + [...sign].reverse().join("")
      made +=
        before +
        (first.link !== null && words !== ""
          ? `[${signed}](<${first.link.replace(/[<>]/g, encodeURIComponent)}>)`
          : signed) +
        after
    }
    return made
  }

  /** A cell is one line. */
  private table(table: Node): string {
    const grid = gridOf(table)
    const line = (cells: readonly string[]) => `| ${cells.join(" | ")} |`
    const rows = Array.from({ length: grid.rows }, (_, row) => {
      const cells = Array.from({ length: grid.columns }, () => "")
      for (const { node, column } of grid.begun(row)) {
        const words: string[] = []
        node.descendants((own) => {
          if (own.isTextblock) words.push(this.inline(own).replace(/\\\n|\n/g, " "))
          return !own.isTextblock
        })
        cells[column] = words.join(" ").replace(/\t/g, " ")
      }
      return line(cells)
    })
    const [head = "", ...rest] = rows
    return [head, line(Array.from({ length: grid.columns }, () => "---")), ...rest].join("\n")
  }

  blocks(blocks: readonly Node[]): string {
    const all = blocks.flatMap((block) =>
      block.type.name === "contents" ? entriesOf(this.doc, block, 400, null).map(({ node }) => node) : [block],
    )
    const made: { text: string; item: boolean }[] = []
    const counts = new Map<string, number[]>()
    for (const block of all) {
      if (block.type.name === "table") made.push({ text: this.table(block), item: false })
      if (!block.isTextblock || (block.childCount === 0 && made.length > 0)) continue
      const outline = outlineLevel(this.styles, block)
      const text = this.inline(block).replace(/\t/g, " ")
      const lines = text.split("\n").map(begun).join("\n")
      const place = outline === null ? listPlace(this.styles, block) : null
      if (outline !== null)
        made.push({ text: `${"#".repeat(Math.min(6, outline))} ${lines.replace(/\\?\n/g, " ")}`, item: false })
      else if (place) {
        const level = levelOf(this.styles, place.definition, place.level)
        const run = counts.get(`${place.definition} ${place.run}`) ?? []
        const number = place.start ?? (run[place.level] ?? 0) + 1
        counts.set(`${place.definition} ${place.run}`, [...run.slice(0, place.level), number])
        const mark =
          level.kind === "number" ? `${number}.` : level.kind === "check" ? `- [${place.done ? "x" : " "}]` : "-"
        made.push({ text: `${"    ".repeat(place.level)}${mark} ${lines}`, item: true })
      } else if (paragraphAttrs(block).style === "quotation")
        made.push({ text: lines.replace(/^/gm, "> "), item: false })
      else made.push({ text: lines, item: false })
    }
    return made.map(({ text, item }, i) => (i === 0 ? "" : item && made[i - 1]?.item ? "\n" : "\n\n") + text).join("")
  }

  /** The notes whose marks were written. */
  notes(): string {
    return [...this.noted]
      .map((key) => {
        const blocks = storiesOf(this.doc).get(key)?.node.children ?? []
        return `[^${this.labels.get(key) ?? ""}]: ${this.blocks(blocks).replace(/\n(?=.)/g, "\n    ")}`
      })
      .join("\n")
  }
}

export function writeCommonMark(doc: Node, name: string | null, asset: AssetSource = () => undefined): string {
  const writer = new Writer(doc, name, asset)
  const body = writer.blocks(bodyOf(doc).children)
  const notes = writer.notes()
  return `${body}\n${notes === "" ? "" : `\n${notes}\n`}`
}
