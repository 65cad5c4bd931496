/** The parts of a file while they are written: what refers to what, and what is written only because something refers to it. */
import {
  documentAttrs,
  linkLook,
  storiesOf,
  textWidth,
  valuesNow,
  valuesOf,
  withName,
  type LetterFormat,
  type StyleSheet,
  shownByFields,
  paragraph,
  type EdgeName,
  type Enclosure,
  type Watermark,
} from "../../../document"
import type { Node } from "prosemirror-model"
import type { WriteSources } from "../../format"
import { enclosedFile } from "../../enclosed"
import { checkPicture } from "../../pictures/file"
import { xml } from "../../xml/writing"
import { namespaces } from "../names"
import { runProperties } from "./letters"
import { WrittenComments } from "../../writtenComments"
import { WrittenLists } from "./numbering"
import { WrittenStyles } from "./styles"
import { watermarkRun } from "./watermarks"

const officeRelations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships/"

/** Writes the blocks of a text in a part. */
export interface BlocksWriter {
  blocks(blocks: readonly Node[]): string
  /** @param before what stands at its start */
  paragraph(node: Node, letters: null, section: "", before: string): string
}

/** @param width of what the text is set into */
export type MakeWriter = (parts: WrittenParts, path: string, kind: "note" | "edge", width: number) => BlocksWriter

export class WrittenParts {
  readonly sheet: StyleSheet
  readonly styles: WrittenStyles
  readonly lists: WrittenLists
  readonly files = new Map<string, Uint8Array | string>()
  readonly pages: ReadonlyMap<number, string> | null
  /** What links look like that have no style. */
  readonly linkLetters: Partial<LetterFormat> = linkLook
  /** Endings of pictures that are written. */
  readonly endings = new Set<string>()
  private readonly relations = new Map<string, Map<string, { type: string; target: string; external: boolean }>>()
  private readonly shownBy: ReadonlyMap<Node, string>

  constructor(
    readonly doc: Node,
    private readonly sources: WriteSources,
    private readonly writer: MakeWriter,
  ) {
    this.sheet = documentAttrs(doc).styles
    this.styles = new WrittenStyles(this.sheet)
    this.lists = new WrittenLists(this.sheet)
    this.comments = new WrittenComments(doc)
    this.pages = sources.pages ?? null
    this.shownBy = shownByFields(doc, sources.pages)
  }

  readonly comments: WrittenComments
  private ids = 0
  nextId(): number {
    return ++this.ids
  }

  private readonly bookmarks = new Map<string, string>()

  /** Names of places may hold blanks, those of bookmarks may not, nor more than forty characters. */
  bookmark(place: string): string {
    let name = this.bookmarks.get(place)
    if (name === undefined) {
      const plain = place.replace(/[^\p{L}\p{N}_]/gu, "_").slice(0, 36)
      const taken = new Set(this.bookmarks.values())
      name = /^[\p{L}_]/u.test(plain) ? plain : `p_${plain}`.slice(0, 36)
      for (let n = 2; taken.has(name); n++) name = `${plain.slice(0, 32)}_${n}`
      this.bookmarks.set(place, name)
    }
    return name
  }

  /** What a part calls another one, or an address outside. */
  relate(path: string, type: string, target: string, external = false): string {
    let own = this.relations.get(path)
    if (!own) this.relations.set(path, (own = new Map()))
    for (const [id, known] of own) if (known.type === type && known.target === target) return id
    const id = `rId${own.size + 1}`
    own.set(id, { type, target, external })
    return id
  }

  relationParts(): [path: string, content: string][] {
    return [...this.relations].map(([path, own]) => {
      const at = path.lastIndexOf("/") + 1
      return [
        `${path.slice(0, at)}_rels/${path.slice(at)}.rels`,
        xml(
          "Relationships",
          { xmlns: namespaces.rel },
          ...[...own].map(([id, { type, target, external }]) =>
            xml("Relationship", {
              Id: id,
              Type: type.includes("/") ? type : officeRelations + type,
              Target: target,
              TargetMode: external ? "External" : undefined,
            }),
          ),
        ),
      ]
    })
  }

  private readonly media = new Map<string, string | null>()

  /** What a part calls the file of a picture; null where that is not to be had. */
  picture(path: string, asset: string): string | null {
    let target = this.media.get(asset)
    if (target === undefined) {
      target = null
      const bytes = this.sources.asset(asset)
      if (bytes) {
        const ending = checkPicture(bytes).type.slice("image/".length)
        target = `media/image${this.media.size + 1}.${ending}`
        this.endings.add(ending)
        this.files.set(`word/${target}`, bytes)
      }
      this.media.set(asset, target)
    }
    return target === null ? null : this.relate(path, "image", target)
  }

  /** Paths of the files that are enclosed. */
  readonly enclosed = new Map<string, string | null>()

  /** What a part calls a file that is enclosed; null where its bytes are not to be had. */
  enclosure(path: string, enclosure: Enclosure): string | null {
    const { asset } = enclosure
    let target = this.enclosed.get(asset)
    if (target === undefined) {
      const bytes = this.sources.asset(asset)
      target = bytes ? `embeddings/${enclosedFile(this.enclosed.size + 1, enclosure)}` : null
      if (bytes) this.files.set(`word/${target ?? ""}`, bytes)
      this.enclosed.set(asset, target)
    }
    return target === null ? null : this.relate(path, "package", target)
  }

  /** What a field shows now. */
  shown(field: Node): string {
    const { letters } = this.sheet.defaults
    const values = valuesOf(this.doc, withName(valuesNow, this.sources.name ?? ""))
    return this.shownBy.get(field) ?? values(field, letters.language)
  }

  readonly notes = { note: new Map<string, number>(), endnote: new Map<string, number>() }

  note(key: string): { kind: "note" | "endnote"; id: number } | null {
    const story = storiesOf(this.doc).get(key)?.node
    const kind = story?.attrs.kind as string | undefined
    if (kind !== "note" && kind !== "endnote") return null
    const own = this.notes[kind]
    let id = own.get(key)
    if (id === undefined) own.set(key, (id = own.size + 1))
    return { kind, id }
  }

  /** The content of the part with the notes of a kind, those that were referred to. */
  notesPart(kind: "note" | "endnote", path: string): string {
    const name = kind === "note" ? "w:footnote" : "w:endnote"
    const mark = kind === "note" ? "w:footnoteRef" : "w:endnoteRef"
    const rule = (id: number, type: string, sign: string) =>
      xml(name, { "w:type": type, "w:id": id }, xml("w:p", null, xml("w:r", null, xml(sign, null))))
    const written = [...this.notes[kind]].map(([key, id]) => {
      const blocks = storiesOf(this.doc).get(key)?.node.children ?? []
      const writer = this.writer(this, path, "note", textWidth(documentAttrs(this.doc).setup))
      const before =
        xml("w:r", null, runProperties({ script: "super" }), xml(mark, null)) +
        xml("w:r", null, xml("w:t", { "xml:space": "preserve" }, " "))
      const [first, ...rest] = blocks
      return xml(
        name,
        { "w:id": id },
        first?.isTextblock ? writer.paragraph(first, null, "", before) + writer.blocks(rest) : writer.blocks(blocks),
      )
    })
    return (
      rule(-1, "separator", "w:separator") +
      rule(0, "continuationSeparator", "w:continuationSeparator") +
      written.join("")
    )
  }

  private readonly edges = new Map<string, string>()

  /** What the main part calls the head or foot with the text of a story, or without any, and with what stands behind the text. */
  edge(story: string | null, name: EdgeName, behind: Watermark | null, width: number): string | undefined {
    const node = story === null ? null : storiesOf(this.doc).get(story)?.node
    if (node === undefined) return undefined
    const key = JSON.stringify([name, story, behind])
    const known = this.edges.get(key)
    if (known !== undefined) return known
    const kind = name === "head" ? "header" : "footer"
    const file = `${kind}${this.edges.size + 1}.xml`
    const id = this.relate("word/document.xml", kind, file)
    this.edges.set(key, id)
    const path = `word/${file}`
    this.files.set(path, part(name === "head" ? "w:hdr" : "w:ftr", this.edgePart(node, behind, path, width)))
    return id
  }

  private edgePart(node: Node | null, behind: Watermark | null, path: string, width: number): string {
    const blocks = node?.children ?? [paragraph()]
    const writer = this.writer(this, path, "edge", width)
    if (!behind) return writer.blocks(blocks)
    const picture = behind.picture ? this.picture(path, behind.picture.asset) : null
    const shape = watermarkRun(behind, picture, this.nextId())
    // It stands in the first paragraph that there is.
    const at = blocks.findIndex(({ isTextblock }) => isTextblock)
    const holder = blocks[at]
    return holder
      ? writer.blocks(blocks.slice(0, at)) +
          writer.paragraph(holder, null, "", shape) +
          writer.blocks(blocks.slice(at + 1))
      : writer.blocks(blocks) + xml("w:p", null, shape)
  }
}

/** A part whose root declares what names in it mean. */
export function part(root: string, content: string): string {
  const declared = { "xmlns:w": namespaces.w, "xmlns:r": namespaces.r, "xmlns:wp": namespaces.wp }
  return xml(root, declared, content)
}
