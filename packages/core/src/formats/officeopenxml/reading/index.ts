/** Office Open XML text as a document. */
import {
  asName,
  defaultNotes,
  defaultProperties,
  document,
  limits,
  nodes,
  paragraph,
  paragraphAttrs,
  withoutOrphans,
  type NoteSettings,
  type PageSetup,
  type PartName,
  type Properties,
} from "../../../document"
import { checkDocument, ReadingError } from "../../../document/reading"
import type { Node } from "prosemirror-model"
import type { FileRead, ReadOptions } from "../../format"
import { typesettingTold } from "../../hyphenation"
import { Leaving } from "../../leaving"
import { isCoverStart, isPartStart, nameLast } from "../../partMarks"
import { meanings } from "../../meanings"
import { withTrueReferences } from "../../trueReferences"
import { child, childrenNamed, textIn, type XmlElement } from "../../xml/parsing"
import { Parts } from "../parts"
import { embeddedFonts } from "../fonts"
import { withoutOwn, withShown } from "../../properties"
import { dataParts, keptFrom } from "../kept"
import { ourParts, sourcesFrom } from "../sources"
import { Book, type ReadBlocks } from "./book"
import { Numbering } from "./numbering"
import { readSection } from "./sections"
import { isSectionEnd, StoryReader, type Block } from "./story"
import { Styles } from "./styles"
import { Theme } from "./theme"
import { colourOf, isOn, numberForms, runsAcross, valueOf } from "./values"

/** @throws ReadingError */
export function readOfficeOpenXml(bytes: Uint8Array, { progress }: ReadOptions = {}): FileRead {
  const parts = Parts.open(bytes)
  const usual = "word/document.xml"
  const main = parts.related("", "officeDocument") ?? (parts.has(usual) ? usual : undefined)
  if (main === undefined) throw new ReadingError("There is no text in it: its main part is missing")
  const leaving = new Leaving(progress)
  const part = (type: string) => parts.xml(parts.related(main, type) ?? "")
  const settings = part("settings")
  const fonts = embeddedFonts(parts, main, leaving)
  const theme = new Theme(part("theme"), part("fontTable"), fonts)
  const flag = (name: string) => {
    const own = child(settings, name)
    return own !== undefined && isOn(own)
  }
  const styles = new Styles(
    part("styles"),
    theme,
    child(settings, "w:themeFontLang")?.attrs["w:val"],
    flag("w:autoHyphenation"),
  )
  const numbering = new Numbering(part("numbering"), theme, leaving, styles.numberedBy)
  const sheet = styles.finish(numbering)
  const data = dataParts(parts, main)
  const sources = sourcesFrom(data.flatMap(({ root }) => root ?? []))
  const book = new Book(
    parts,
    main,
    theme,
    styles,
    sheet,
    numbering,
    placesIn(parts.text(main)),
    leaving,
    sources,
    readBlocks,
  )

  const body = new StoryReader(book, main, "body")
  const root = parts.xml(main, { of: new Set(["w:body"]), take: (own) => body.take(own) })
  if (!root) throw new ReadingError("Its text cannot be read")
  const general = {
    mirrored: flag("w:mirrorMargins"),
    leftRight: flag("w:evenAndOddHeaders"),
    colour: colourOf(child(root, "w:background")?.attrs["w:color"]) ?? null,
  }
  let behind: PageSetup["watermark"] = null
  const { blocks, setup, begun } = sectioned(body.blocks, (sectPr) => {
    for (const what of unlikeIn(sectPr)) leaving.add(what)
    const setup = readSection(sectPr, general, (relation, edge) => book.edge(relation, edge))
    const heads = childrenNamed(sectPr, "w:headerReference").map(({ attrs }) => attrs["r:id"] ?? "")
    // A section without a head of its own goes on with what is behind the one before.
    if (heads.length > 0) behind = book.watermarkOf(heads)
    return { ...setup, watermark: behind }
  })
  const { kept, own, breaking } = withoutOwn(keptFrom(parts, data, ourParts), ["date"])
  const made = document(
    blocks,
    {
      styles: { ...sheet, fonts: fonts.families, lists: numbering.lists },
      setup,
      part: begun,
      comments: book.commenting.comments,
      kept,
      properties: withShown({ ...propertiesOf(parts), ...own }, book.shown),
      notes: notesOf(settings),
      typesetting: typesettingTold(
        breaking,
        { inRow: valueOf(settings, "w:consecutiveHyphenLimit") },
        !flag("w:doNotHyphenateCaps"),
      ),
      sources,
    },
    book.stories,
  )
  const doc = checkDocument(withoutOrphans(withTrueReferences(made, book.shown)))
  if (book.commenting.lost > 0) leaving.add("comments of nothing that is here", book.commenting.lost)
  for (const [asked, shown] of theme.replaced) leaving.add(`the typeface ${asked}, shown in ${shown}`)
  if (parts.damaged.size > 0) leaving.add("damaged parts, read as far as they go", parts.damaged.size)
  return {
    name: asName(documentTitle(parts), 200) || null,
    doc,
    assets: new Map([...book.pictures.assets, ...fonts.assets]),
    left: leaving.listIn(doc),
  }
}

const readBlocks: ReadBlocks = (book, path, kind, of) => new StoryReader(book, path, kind).takeAll(of).finish()

/** Names of places in the text. */
function placesIn(text: string): Set<string> {
  const names = new Set<string>()
  for (let at = text.indexOf("bookmarkStart"); at >= 0; at = text.indexOf("bookmarkStart", at + 1)) {
    const name = /\bname\s*=\s*["']([^"']*)["']/.exec(text.slice(at, at + 500))?.[1]
    if (name !== undefined) names.add(asName(name))
  }
  return names
}

/** Whether a paragraph without words is there for the sheet or column that begins with it. */
function beginsAnew(node: Node): boolean {
  const { format } = paragraphAttrs(node)
  return format?.breakBefore === true || format?.columnBefore === true
}

/** What the sheets of a section look like elsewhere and not here, in words. */
function unlikeIn(sectPr: XmlElement | undefined): string[] {
  const [upright, stands] = [valueOf(sectPr, "w:textDirection"), valueOf(sectPr, "w:vAlign")]
  return [
    ...(child(sectPr, "w:lnNumType") ? ["numbers beside the lines"] : []),
    ...(upright !== undefined && !runsAcross(upright) ? ["text from top to bottom"] : []),
    ...(stands !== undefined && stands !== "top" ? ["text in the middle or at the foot of its sheet"] : []),
  ]
}

/** Ends of sections as beginnings of those behind them. */
function sectioned(
  read: readonly Block[],
  setupOf: (sectPr: XmlElement | undefined) => PageSetup,
): { blocks: Node[]; setup: PageSetup; begun: PartName | null } {
  // What is said of the last section may stand anywhere; the standard has it at the end.
  const isLast = (block: Block) => isSectionEnd(block) && block.last
  const blocks = [...read.filter((block) => !isLast(block)), ...read.filter(isLast).slice(-1)]
  const ends = blocks.filter(isSectionEnd)
  const last = blocks.at(-1)
  const setups = ends.map(({ sectPr }) => setupOf(sectPr))
  const cover = blocks.find(isCoverStart)?.cover ?? null
  // What stands behind the last end belongs to no section that says anything.
  if (!last || !isSectionEnd(last)) setups.push(setupOf(ends.at(-1)?.sectPr))
  const made: Node[] = []
  let section = 0
  let first: PartName | null = null
  for (const block of blocks) {
    if (isPartStart(block)) {
      if (made.length === 0) first = block.part
      else nameLast(made, block)
      continue
    }
    if (isCoverStart(block)) continue
    if (!isSectionEnd(block)) {
      made.push(block)
      continue
    }
    const next = setups[++section]
    if (!next) continue
    const before = made.at(-1)
    const above = made.at(-2)
    if (
      block.bare &&
      next.begins !== "continuous" &&
      before?.isTextblock &&
      before.childCount === 0 &&
      !beginsAnew(before) &&
      above &&
      above.type !== nodes.sectionBreak
    )
      made.pop()
    if (made.length === 0) made.push(paragraph())
    made.push(nodes.sectionBreak.create({ setup: next }))
  }
  if (made.length === 0 || made.at(-1)?.type === nodes.sectionBreak) made.push(paragraph())
  const opening = setups[0] as PageSetup
  // A cover is a section of its own.
  return { blocks: made, setup: setups.length > 1 ? { ...opening, cover } : opening, begun: first }
}

function documentTitle(parts: Parts): string {
  return textIn(child(parts.xml(parts.related("", "core-properties") ?? ""), "dc:title"))
}

function propertiesOf(parts: Parts): Properties {
  const core = parts.xml(parts.related("", "core-properties") ?? "")
  const more = parts.xml(parts.related("", "extended-properties") ?? "")
  const own = (text: string) => asName(text, limits.property)
  return {
    ...defaultProperties,
    title: own(textIn(child(core, "dc:title"))),
    subtitle: own(textIn(child(core, "dc:subject"))),
    author: own(textIn(child(core, "dc:creator"))),
    organisation: own(textIn(child(more, "ep:Company"))),
  }
}

const noteForms = meanings<NoteSettings["end"]["form"]>({ ...numberForms, chicago: "signs" })

function notesOf(settings: XmlElement | undefined): NoteSettings {
  const foot = child(settings, "w:footnotePr")
  const end = child(settings, "w:endnotePr")
  const restart = valueOf(foot, "w:numRestart")
  return {
    foot: {
      form: noteForms(valueOf(foot, "w:numFmt")) ?? defaultNotes.foot.form,
      restart: restart === "eachSect" ? "section" : restart === "eachPage" ? "sheet" : "document",
    },
    end: { form: noteForms(valueOf(end, "w:numFmt")) ?? defaultNotes.end.form },
  }
}
