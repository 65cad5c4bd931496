/** What all texts of one file share while it is read. */
import {
  asName,
  nodes,
  paragraph,
  styleChain,
  type Comment,
  type Watermark,
  type ParagraphFormat,
  type Sources,
  type StyleSheet,
} from "../../../document"
import type { Node } from "prosemirror-model"
import { Commenting, commentOf } from "../../commenting"
import { enclosedField } from "../../enclosed"
import type { Leaving } from "../../leaving"
import { sharing } from "../../sharing"
import { withoutTables } from "../../withoutTables"
import { allWithin, childrenNamed, textIn, type XmlElement } from "../../xml/parsing"
import type { Parts } from "../parts"
import type { Numbering } from "./numbering"
import { readChunk } from "./chunks"
import { PictureReader } from "./pictures"
import type { Styles } from "./styles"
import type { Theme } from "./theme"
import { watermarkDrawn, watermarkIn } from "./watermarks"

type NoteKind = "note" | "endnote"

/** Reads the blocks of a note, or of a head or foot, in a part. */
export type ReadBlocks = (book: Book, path: string, kind: "note" | "edge", of: XmlElement | undefined) => Node[]

export class Book {
  readonly stories: Node[] = []
  readonly pictures: PictureReader
  /** What fields showed in the file. */
  readonly shown = new Map<Node, string>()

  constructor(
    readonly parts: Parts,
    readonly main: string,
    readonly theme: Theme,
    readonly styles: Styles,
    readonly sheet: StyleSheet,
    readonly numbering: Numbering,
    /** Names of places to which something may refer. */
    readonly places: ReadonlySet<string>,
    readonly leaving: Leaving,
    readonly sources: Sources,
    private readonly read: ReadBlocks,
  ) {
    this.pictures = new PictureReader(parts, leaving)
  }

  /** The same values as one object. */
  readonly same = sharing<Partial<ParagraphFormat>>()

  private readonly saidBy = new Map<string, { letters: ReadonlySet<string>; paragraph: ReadonlySet<string> }>()

  /** What a style says, with all that it starts from but the document’s own defaults. */
  saidByStyle(key: string): { letters: ReadonlySet<string>; paragraph: ReadonlySet<string> } {
    let said = this.saidBy.get(key)
    if (!said) {
      const chain = styleChain(this.sheet, key)
      said = {
        letters: new Set(chain.flatMap(({ letters }) => Object.keys(letters))),
        paragraph: new Set(chain.flatMap(({ paragraph }) => Object.keys(paragraph))),
      }
      this.saidBy.set(key, said)
    }
    return said
  }

  private readonly notes = new Map<NoteKind, ReadonlyMap<string, XmlElement>>()
  private readonly used = new Set<string>()

  /** Takes a note in; gives the key of its story, or null where there is none, or it stands somewhere already. */
  note(kind: NoteKind, id: string): string | null {
    const path = this.parts.related(this.main, kind === "note" ? "footnotes" : "endnotes")
    if (path === undefined) return null
    let all = this.notes.get(kind)
    if (!all) {
      const name = kind === "note" ? "w:footnote" : "w:endnote"
      all = new Map(childrenNamed(this.parts.xml(path), name).map((own) => [own.attrs["w:id"] ?? "", own]))
      this.notes.set(kind, all)
    }
    const note = all.get(id)
    const type = note?.attrs["w:type"]
    if (!note || (type !== undefined && type !== "normal")) return null
    const key = asName(`${kind}-${id}`)
    if (this.used.has(key)) return null
    this.used.add(key)
    const blocks = this.read(this, path, "note", note).map(withoutTables)
    const begun = withoutBlank(blocks)
    if (blocks[0] && begun[0]) this.leaving.became(blocks[0], begun[0])
    this.stories.push(nodes.story.create({ key, kind }, begun))
    return key
  }

  readonly commenting = new Commenting()
  private said: ReadonlyMap<string, XmlElement> | null = null

  /** What was said under a number of the file; null where nothing was. */
  comment(id: string): { key: string; comment: Comment } | null {
    const path = this.parts.related(this.main, "comments")
    if (path === undefined) return null
    this.said ??= new Map(childrenNamed(this.parts.xml(path), "w:comment").map((own) => [own.attrs["w:id"] ?? "", own]))
    const own = this.said.get(id)
    if (!own) return null
    const paragraphs = allWithin(own, "w:p").map((line) => allWithin(line, "w:t").map(textIn).join(""))
    return {
      key: `comment-${asName(id)}`,
      comment: commentOf(own.attrs["w:author"] ?? "", own.attrs["w:date"], paragraphs),
    }
  }

  private readonly edges = new Map<string, string | null>()
  private readonly watermarks = new Map<string, Watermark>()

  /** Takes what a head holds that stands behind all text. @returns whether it is such */
  watermark(path: string, shape: XmlElement): boolean {
    const own =
      shape.name === "w:drawing"
        ? watermarkDrawn(shape, () => this.pictures.drawing(shape, path))
        : watermarkIn(shape, () => this.pictures.older(shape, path))
    if (own && !this.watermarks.has(path)) this.watermarks.set(path, own)
    return own !== null
  }

  /** What stands behind all text of the sheets that have one of these heads. */
  watermarkOf(relations: readonly string[]): Watermark | null {
    for (const relation of relations) {
      const own = this.watermarks.get(this.parts.relations(this.main).get(relation)?.target ?? "")
      if (own) return own
    }
    return null
  }

  /** The head or foot that a section refers to. */
  edge(relation: string, edge: "head" | "foot"): string | null {
    const target = this.parts.relations(this.main).get(relation)
    if (!target || target.external || !this.parts.has(target.target)) return null
    const known = this.edges.get(`${edge} ${target.target}`)
    if (known !== undefined) return known
    const before = [...this.edges].some(([of, own]) => own !== null && of.startsWith(edge))
    const key = `${edge}-${this.edges.size + 1}`
    this.edges.set(`${edge} ${target.target}`, key)
    const blocks = this.read(this, target.target, "edge", this.parts.xml(target.target))
    // A head that is there for what stands behind the text, or to end that, and for nothing else, is none.
    if (!before && this.watermarks.size > 0 && blocks.every((own) => own.isTextblock && own.childCount === 0)) {
      this.edges.set(`${edge} ${target.target}`, null)
      return null
    }
    this.stories.push(nodes.story.create({ key, kind: edge === "head" ? "header" : "footer" }, blocks))
    return key
  }

  /** A field that shows a file of the package; null where it cannot be taken. */
  enclosed(path: string, relation: string, name: string): Node | null {
    const target = this.parts.relations(path).get(relation)
    const bytes = target && !target.external ? this.parts.bytes(target.target) : undefined
    const made = bytes ? enclosedField(name, bytes) : null
    if (made && bytes) this.pictures.assets.set(made.asset, bytes)
    return made?.field ?? null
  }

  private chunkRoom = { files: 64, bytes: 32_000_000 }

  /** The blocks of text in another file of the package; null where it cannot be read. */
  chunk(path: string, relation: string): readonly Node[] | null {
    const target = this.parts.relations(path).get(relation)
    const bytes = target && !target.external ? this.parts.bytes(target.target) : undefined
    if (!bytes || this.chunkRoom.files < 1 || this.chunkRoom.bytes < bytes.length) return null
    this.chunkRoom = { files: this.chunkRoom.files - 1, bytes: this.chunkRoom.bytes - bytes.length }
    const read = readChunk(bytes)
    for (const [asset, file] of read?.assets ?? []) this.pictures.assets.set(asset, file)
    for (const { what, count } of read?.left ?? []) this.leaving.add(what, count)
    return read?.blocks ?? null
  }

  /** The paragraphs of something as mere text. */
  textOf(element: XmlElement): Node[] {
    return allWithin(element, "w:p").map((own) => {
      const words = allWithin(own, "w:t").map(textIn).join("")
      return paragraph("body", words === "" ? [] : [words])
    })
  }
}

/** The blank between the mark of a note and its words goes with the mark. */
function withoutBlank(blocks: readonly Node[]): Node[] {
  const [first, ...rest] = blocks
  const words = first?.firstChild
  if (!first || !words?.isText) return [...blocks]
  const text = (words.text ?? "").replace(/^[ \t\u00a0]+/, "")
  const begun =
    text === ""
      ? first.content.cut(words.nodeSize)
      : first.content.replaceChild(0, words.type.schema.text(text, words.marks))
  return [first.copy(begun), ...rest]
}
