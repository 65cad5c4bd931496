/** What all texts of one file share while it is read. */
import {
  asName,
  entryOf,
  levelOf,
  nodes,
  readyLists,
  type ParagraphFormat,
  type StyleSheet,
  type Sources,
} from "../../../document"
import type { Node } from "prosemirror-model"
import { Commenting } from "../../commenting"
import type { Leaving } from "../../leaving"
import { enclosedField } from "../../enclosed"
import { sharing } from "../../sharing"
import { withoutTables } from "../../withoutTables"
import { PictureError } from "../../pictures/file"
import { takePicture, type PictureTaken } from "../../pictures/taken"
import { allWithin, child, childrenNamed, isElement, textIn, type XmlElement } from "../../xml/parsing"
import { sourceOfMark } from "../sources"
import { cleanPath } from "../../zip"
import { enclosedFolder } from "../names"
import type { Lists } from "./lists"
import type { Styles } from "./styles"

export class Book {
  readonly stories: Node[] = []
  readonly assets = new Map<string, Uint8Array>()
  /** What fields showed in the file. */
  readonly shown = new Map<Node, string>()
  /** The sheet, once it is made. */
  sheet: StyleSheet | null = null

  constructor(
    readonly lists: Lists,
    readonly leaving: Leaving,
    private readonly file: (path: string) => Uint8Array | undefined,
    /** List styles, and those of dates, by name. */
    private readonly named: ReadonlyMap<string, XmlElement>,
    private kept: Sources,
    private readonly text: XmlElement,
  ) {}

  /** The sources of the file: those that it keeps for us, and those that its citations tell of. */
  get sources(): Sources {
    return this.kept
  }

  /** Sees to it that what a mark cites is among the sources. Returns whether it is. */
  cites(mark: XmlElement, key: string): boolean {
    if (entryOf(this.kept.list, key)) return true
    const source = sourceOfMark(mark)
    if (!source || (Object.keys(source.fields).length === 0 && Object.keys(source.names).length === 0)) return false
    this.kept = { ...this.kept, list: { ...this.kept.list, [key]: source } }
    return true
  }

  readonly commenting = new Commenting()
  private ends: ReadonlySet<string> | null = null

  /** Names of comments that end somewhere; the others are of a single place. */
  get endsOfComments(): ReadonlySet<string> {
    this.ends ??= new Set(
      allWithin(this.text, "office:annotation-end").map(({ attrs }) => asName(attrs["office:name"] ?? "")),
    )
    return this.ends
  }

  /** The same values as one object. */
  readonly same = sharing<Partial<ParagraphFormat>>()

  listStyle(name: string, _styles: Styles): XmlElement | undefined {
    return this.named.get(`list ${name}`)
  }

  /** The definition of a list that names none. */
  plainList(): string {
    return Object.keys(readyLists)[0] ?? "marks"
  }

  indentOf(definition: string, level: number): number {
    const { sheet } = this
    return sheet ? levelOf({ ...sheet, lists: this.lists.definitions }, definition, level).indent : 0
  }

  outlineOf(style: string): number | null {
    return (this.sheet && entryOf(this.sheet.styles, style)?.outline) ?? null
  }

  note(kind: "note" | "endnote", blocks: readonly Node[]): string {
    const key = `${kind}-${this.stories.length + 1}`
    this.stories.push(nodes.story.create({ key, kind }, blocks.map(withoutTables)))
    return key
  }

  edge(kind: "header" | "footer", blocks: readonly Node[]): string {
    const key = `${kind}-${this.stories.length + 1}`
    this.stories.push(nodes.story.create({ key, kind }, [...blocks]))
    return key
  }

  private readonly pictures = new Map<string, PictureTaken | null>()

  /** The first of the forms of a picture that can be shown. */
  picture(forms: readonly XmlElement[]): PictureTaken | null {
    let elsewhere = true
    for (const image of forms) {
      const found = this.form(image)
      if (found !== "elsewhere" && found !== null) return found
      elsewhere &&= found === "elsewhere"
    }
    this.leaving.addHere(elsewhere ? "pictures that lie elsewhere" : "pictures of a kind that is not shown")
    return null
  }

  /** A field that shows a file that is enclosed; null for what lies elsewhere, or cannot be taken. */
  enclosed(href: string, name: string): Node | null {
    const path = cleanPath(href)
    const bytes = path.startsWith(enclosedFolder) ? this.file(path) : undefined
    const made = bytes ? enclosedField(name, bytes) : null
    if (made && bytes) this.assets.set(made.asset, bytes)
    return made?.field ?? null
  }

  private form(image: XmlElement): PictureTaken | "elsewhere" | null {
    const href = image.attrs["xlink:href"] ?? ""
    const inside = child(image, "office:binary-data")
    if (/^[a-z]+:/i.test(href) && !inside) return "elsewhere"
    const path = cleanPath(href)
    let known = inside ? undefined : this.pictures.get(path)
    if (known === undefined) {
      known = null
      const bytes = inside ? bytesOf(textIn(inside)) : this.file(path)
      try {
        if (bytes) {
          known = takePicture(bytes)
          this.assets.set(known.asset, bytes)
        }
      } catch (error) {
        if (!(error instanceof PictureError)) throw error
      }
      if (!inside) this.pictures.set(path, known)
    }
    return known
  }

  /** How a date is written by a style of dates. */
  dateForm(name: string | undefined, time: boolean): string {
    const style = name === undefined ? undefined : this.named.get(`date ${name}`)
    if (!style) return time ? "time" : "short"
    const has = (part: string) => style.children.some((own) => isElement(own) && own.name === `number:${part}`)
    const month = child(style, "number:month")?.attrs
    if (has("hours")) return has("day") ? "dateTime" : "time"
    if (has("day-of-week")) return has("day") ? "full" : "weekday"
    if (!has("day")) return has("month") ? "monthYear" : "year"
    if (!has("year")) return "dayMonth"
    if (month?.["number:textual"] !== "true") return "short"
    return month["number:style"] === "long" ? "long" : "medium"
  }
}

function bytesOf(base64: string): Uint8Array | undefined {
  try {
    return Uint8Array.from(atob(base64.replace(/\s+/g, "")), (sign) => sign.charCodeAt(0))
  } catch {
    return undefined
  }
}

/** List styles and styles of dates of some parts, by kind and name. */
export function namedIn(parts: readonly (XmlElement | undefined)[]): Map<string, XmlElement> {
  const found = new Map<string, XmlElement>()
  for (const part of parts) {
    for (const own of childrenNamed(part, "text:list-style")) found.set(`list ${own.attrs["style:name"] ?? ""}`, own)
    for (const own of childrenNamed(part, "text:outline-style")) found.set("list outline", own)
    for (const name of ["number:date-style", "number:time-style"])
      for (const own of childrenNamed(part, name)) found.set(`date ${own.attrs["style:name"] ?? ""}`, own)
  }
  return found
}
