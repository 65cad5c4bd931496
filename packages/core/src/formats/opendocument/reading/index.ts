/** OpenDocument text as a document. */
import {
  asName,
  defaultNotes,
  defaultProperties,
  defaultSetup,
  document,
  fitBorder,
  fitSetup,
  limits,
  nodes,
  paragraph,
  withoutOrphans,
  type NoteSettings,
  type PageSetup,
  type PartName,
  type Properties,
  type Typesetting,
} from "../../../document"
import { checkDocument, ReadingError } from "../../../document/reading"
import type { Node } from "prosemirror-model"
import type { FileRead, ReadOptions } from "../../format"
import { typesettingTold } from "../../hyphenation"
import { Leaving } from "../../leaving"
import { coverMarked, isPartStart, nameLast } from "../../partMarks"
import { formMeant } from "../numberForms"
import { withTrueReferences } from "../../trueReferences"
import { child, childrenNamed, isElement, parseXml, textIn, xmlText, type XmlElement } from "../../xml/parsing"
import { embeddedFonts } from "../fonts"
import { withoutOwn, withShown } from "../../properties"
import { keptFromMeta, placeless } from "../kept"
import { sourcesFromMeta } from "../sources"
import { isZip, unzip } from "../../zip"
import { prefixOf } from "../names"
import { Book, namedIn } from "./book"
import { SectionEdges } from "./edges"
import { Lists } from "./lists"
import { borderOf, colourOf, facesOf, lengthOf, type LetterContext } from "./properties"
import { columnsOf, isSectionStart, StoryReader, type Block, type SectionStart } from "./story"
import { Styles } from "./styles"

interface Source {
  content: XmlElement
  styles: XmlElement | undefined
  meta: XmlElement | undefined
  file(path: string): Uint8Array | undefined
  damaged: boolean
}

/** @throws ReadingError */
function open(bytes: Uint8Array): Source {
  if (!isZip(bytes)) {
    const { root, damaged } = parseXml(xmlText(bytes), { prefix: prefixOf })
    if (root.name !== "office:document") throw new ReadingError("It is no OpenDocument text")
    return { content: root, styles: root, meta: root, file: () => undefined, damaged }
  }
  const files = unzip(bytes)
  const manifest = files.get("META-INF/manifest.xml")
  if (manifest && /encryption-data/.test(xmlText(manifest)))
    throw new ReadingError("It is protected by a password: save it anew without one")
  let damaged = false
  const part = (path: string) => {
    const own = files.get(path)
    if (!own) return undefined
    const read = parseXml(xmlText(own), { prefix: prefixOf })
    damaged ||= read.damaged
    return read.root
  }
  const content = part("content.xml")
  if (!content) throw new ReadingError("There is no text in it: its main part is missing")
  const own = { content, styles: part("styles.xml"), meta: part("meta.xml"), file: (path: string) => files.get(path) }
  return { ...own, damaged }
}

/** @throws ReadingError */
export function readOpenDocument(bytes: Uint8Array, { progress }: ReadOptions = {}): FileRead {
  const { content, styles: common, meta, file, damaged } = open(bytes)
  const text = child(child(content, "office:body"), "office:text")
  if (!text) throw new ReadingError("It is an OpenDocument file of another kind than text")
  const leaving = new Leaving(progress)
  const context: LetterContext = {
    faces: new Map([
      ...facesOf(child(common, "office:font-face-decls")),
      ...facesOf(child(content, "office:font-face-decls")),
    ]),
    replaced: new Map(),
    embedded: embeddedFonts([common, content], file, leaving),
  }
  const named = child(common, "office:styles")
  const [ofContent, ofStyles] = [child(content, "office:automatic-styles"), child(common, "office:automatic-styles")]
  const lists = new Lists(context)
  const listed = namedIn([named, ofStyles, ofContent])
  const book = new Book(lists, leaving, file, listed, sourcesFromMeta(meta), text)
  const styles = new Styles(named, ofContent, context)
  const outline = listed.get("list outline")
  const sheetStyles = styles.sheet((element, key) => {
    const name = element.attrs["style:list-style-name"]
    const level = Number(/^heading(\d)$/.exec(key)?.[1] ?? 0)
    if (name === "") return null
    const own = name === undefined ? undefined : listed.get(`list ${name}`)
    const definition = own ? lists.definition(own, name ?? "") : undefined
    if (definition !== undefined)
      return { definition, run: "", level: Math.max(0, (Number(element.attrs["style:list-level"]) || level || 1) - 1) }
    const numbered =
      outline && level > 0
        ? childrenNamed(outline, "text:outline-level-style").find(({ attrs }) => attrs["text:level"] === String(level))
        : undefined
    if (!outline || !numbered?.attrs["style:num-format"]) return undefined
    const chapters = lists.definition(outline, "outline")
    return chapters === undefined ? undefined : { definition: chapters, run: "", level: level - 1 }
  })
  book.sheet = { defaults: styles.defaults, styles: sheetStyles, fonts: {}, lists: {} }

  const masters = new Masters(common, ofStyles, styles.with(ofStyles), book)
  const reader = new StoryReader(book, styles, "body").takeAll(text)
  const { blocks, setup, part, stories } = sectioned(reader.blocks, masters, book)
  const { kept, own, breaking } = withoutOwn(keptFromMeta(meta), placeless)
  const made = document(
    blocks,
    {
      styles: { ...book.sheet, fonts: context.embedded.families, lists: lists.definitions },
      setup,
      part,
      comments: book.commenting.comments,
      kept,
      properties: withShown({ ...propertiesOf(meta), ...own }, book.shown),
      notes: notesOf(named),
      typesetting: typesettingOf(breaking, styles.usual),
      sources: book.sources,
    },
    stories,
  )
  const doc = checkDocument(withoutOrphans(withTrueReferences(made, book.shown)))
  for (const [asked, shown] of context.replaced) leaving.add(`the typeface ${asked}, shown in ${shown}`)
  if (book.commenting.lost > 0) leaving.add("comments of nothing that is here", book.commenting.lost)
  if (damaged) leaving.add("damaged parts, read as far as they go")
  return {
    name: asName(propertiesOf(meta).title, 200) || null,
    doc,
    assets: new Map([...book.assets, ...context.embedded.assets]),
    left: leaving.listIn(doc),
  }
}

/** Master pages: paper with heads and feet (part 3, 16.9). */
class Masters {
  private readonly setups = new Map<string, PageSetup>()

  constructor(
    private readonly common: XmlElement | undefined,
    private readonly automatic: XmlElement | undefined,
    private readonly styles: Styles,
    private readonly book: Book,
  ) {}

  private get pages(): XmlElement[] {
    return childrenNamed(child(this.common, "office:master-styles"), "style:master-page")
  }

  get first(): string {
    const names = this.pages.map(({ attrs }) => attrs["style:name"] ?? "")
    return names.includes("Standard") ? "Standard" : (names[0] ?? "")
  }

  setup(name: string): PageSetup {
    const known = this.setups.get(name)
    if (known) return known
    const master = this.pages.find(({ attrs }) => attrs["style:name"] === name)
    const layout = childrenNamed(this.automatic, "style:page-layout").find(
      ({ attrs }) => attrs["style:name"] === master?.attrs["style:page-layout-name"],
    )
    const properties = child(layout, "style:page-layout-properties")
    const made = this.read(master, layout, properties)
    this.setups.set(name, made)
    return made
  }

  private read(
    master: XmlElement | undefined,
    layout: XmlElement | undefined,
    properties: XmlElement | undefined,
  ): PageSetup {
    const attrs = properties?.attrs ?? {}
    const all = lengthOf(attrs["fo:margin"])
    const side = (name: string) => Math.max(0, lengthOf(attrs[`fo:margin-${name}`]) ?? all ?? 56.7)
    let behind: PageSetup["watermark"] = null
    const blocksOf = (kind: "header" | "footer", variant: string) => {
      const element = child(master, `style:${kind}${variant}`)
      if (!element || element.attrs["style:display"] === "false") return null
      // Left, middle and right parts are divided by tabs.
      const regions = element.children.filter(isElement).filter(({ name }) => name.startsWith("style:region-"))
      const reader = new StoryReader(this.book, this.styles, "edge")
      for (const region of regions.length > 0 ? regions : [element]) reader.takeAll(region)
      behind ??= reader.behind
      const blocks = reader.finish()
      return { blocks, bare: reader.behind !== null && blocks.every((own) => own.isTextblock && own.childCount === 0) }
    }
    // A head takes its room from the sheet inside the margins.
    const roomOf = (kind: "header" | "footer") => {
      if (!child(master, `style:${kind}`)) return 0
      const own = child(child(layout, `style:${kind}-style`), "style:header-footer-properties")?.attrs ?? {}
      const height = lengthOf(own["svg:height"]) ?? lengthOf(own["fo:min-height"]) ?? 14
      return height + (lengthOf(own[kind === "header" ? "fo:margin-bottom" : "fo:margin-top"]) ?? 0)
    }
    const edge = (kind: "header" | "footer") => {
      const read = ["", "-first", "-left"].map((variant) => blocksOf(kind, variant))
      // Heads that are there for what stands behind the text, and for nothing else, are none.
      const none = read.every((own) => own === null || own.bare)
      const [all = null, first = null, left = null] = read.map((own) =>
        own === null || none ? null : this.book.edge(kind, own.blocks),
      )
      return { distance: side(kind === "header" ? "top" : "bottom"), all, first, left }
    }
    const [head, foot] = [edge("header"), edge("footer")]
    const frame = borderOf(attrs["fo:border"] ?? attrs["fo:border-top"])
    const form = formMeant(attrs["style:num-format"]) ?? "decimal"
    return fitSetup({
      ...defaultSetup,
      width: lengthOf(attrs["fo:page-width"]) ?? defaultSetup.width,
      height: lengthOf(attrs["fo:page-height"]) ?? defaultSetup.height,
      margins: {
        top: side("top") + roomOf("header"),
        bottom: side("bottom") + roomOf("footer"),
        left: side("left"),
        right: side("right"),
      },
      mirrored: layout?.attrs["style:page-usage"] === "mirrored",
      colour: colourOf(attrs["fo:background-color"]) ?? null,
      columns: columnsOf(properties),
      frame: frame ? fitBorder(frame) : null,
      watermark: behind,
      cover: coverMarked(master?.attrs["style:display-name"])?.cover ?? null,
      begins:
        layout?.attrs["style:page-usage"] === "right"
          ? "odd"
          : layout?.attrs["style:page-usage"] === "left"
            ? "even"
            : "sheet",
      head,
      foot,
      firstOwn: head.first !== null || foot.first !== null,
      leftRight: head.left !== null || foot.left !== null,
      numbering: { form, start: null },
    })
  }
}

/** Where other sheets or columns begin, as sections. */
function sectioned(
  blocks: readonly Block[],
  masters: Masters,
  book: Book,
): { blocks: Node[]; setup: PageSetup; part: PartName | null; stories: Node[] } {
  let part: PartName | null = null
  let current: PageSetup | null = null
  let first: PageSetup | null = null
  const made: Node[] = []
  let edges = new SectionEdges(book)
  const begin = ({ master, columns, start }: SectionStart) => {
    const before = current ?? masters.setup(masters.first)
    const setup: PageSetup =
      master !== null
        ? { ...masters.setup(master), numbering: { ...masters.setup(master).numbering, start } }
        : {
            ...before,
            begins: "continuous",
            columns: columns ?? before.columns,
            // What stands at the edges of its sheets stays that of the section before.
            head: { ...before.head, all: null, first: null, left: null },
            foot: { ...before.foot, all: null, first: null, left: null },
            numbering: { ...before.numbering, start: null },
          }
    if (made.length === 0) {
      edges = new SectionEdges(book)
      const own = master === null ? { head: before.head, foot: before.foot } : {}
      first = current = edges.behind(fitSetup({ ...setup, begins: "sheet", ...own }))
    } else {
      if (current === null) edges.behind(before)
      current = fitSetup(master === null ? setup : edges.behind(setup))
      made.push(nodes.sectionBreak.create({ setup: current }))
    }
  }
  for (const block of blocks) {
    if (isSectionStart(block)) begin(block)
    else if (!isPartStart(block)) made.push(block)
    else if (block.first || made.length === 0) part = block.part
    else nameLast(made, block)
  }
  const last = made.at(-1)
  if (!last || last.type === nodes.sectionBreak) {
    // Columns that end the text need nothing behind them.
    if (last && made.length > 1 && made.at(-2)?.isTextblock && (last.attrs.setup as PageSetup).begins === "continuous")
      made.pop()
    else made.push(paragraph())
  }
  const setup = first ?? masters.setup(masters.first)
  if (current === null) edges.behind(setup)
  return { blocks: made, setup, part, stories: edges.stories }
}

function propertiesOf(meta: XmlElement | undefined): Properties {
  const own = child(meta, "office:meta")
  const words = (name: string) => asName(textIn(child(own, name)), limits.property)
  return {
    ...defaultProperties,
    title: words("dc:title"),
    subtitle: words("dc:subject"),
    author: words("meta:initial-creator") || words("dc:creator"),
  }
}

function typesettingOf(breaking: Typesetting["breaking"], usual: XmlElement | undefined): Typesetting {
  const letters = child(usual, "style:text-properties")?.attrs
  return typesettingTold(breaking, {
    before: letters?.["fo:hyphenation-remain-char-count"],
    after: letters?.["fo:hyphenation-push-char-count"],
    inRow: child(usual, "style:paragraph-properties")?.attrs["fo:hyphenation-ladder-count"],
  })
}

function notesOf(named: XmlElement | undefined): NoteSettings {
  const of = (kind: string) =>
    childrenNamed(named, "text:notes-configuration").find(({ attrs }) => attrs["text:note-class"] === kind)?.attrs
  const [foot, end] = [of("footnote"), of("endnote")]
  const restart = foot?.["text:start-numbering-at"]
  return {
    foot: {
      form: formMeant(foot?.["style:num-format"]) ?? defaultNotes.foot.form,
      restart: restart === "page" ? "sheet" : restart === "chapter" ? "section" : "document",
    },
    end: { form: formMeant(end?.["style:num-format"]) ?? defaultNotes.end.form },
  }
}
