/**
 * HTML from elsewhere as blocks of ours. What is not on the list here does not get in: no script, no
 * foreign class names, no pictures that report home.
 */
import { Fragment, Slice, type Mark, type Node } from "prosemirror-model"
import type { DefaultTreeAdapterTypes } from "parse5"
import {
  bodyStyle,
  cellParagraph,
  families,
  isLink,
  levelOf,
  limits,
  defaultStyles,
  marks,
  newRun,
  nodes,
  schema,
  withTypedLists,
  type Border,
  type CellFormat,
  type ListPlace,
  type ParagraphFormat,
} from "../../document"
import { meanings } from "../meanings"
import { withoutTables } from "../withoutTables"
import { attribute, type Element } from "./elements"
import { notesIn, placeIn, type PageNotes } from "./notes"
import { parsePart } from "./parsing"
import { readTable } from "./tables"

type Any = DefaultTreeAdapterTypes.Node

const deepest = 256
const longest = 64 * 1024 * 1024

const dropped = new Set(
  "script style head title meta link template noscript iframe object embed svg math canvas video audio select textarea button form colgroup".split(
    " ",
  ),
)
const blocks = new Set(
  "address article aside blockquote body caption center dd details div dl dt fieldset figcaption figure footer h1 h2 h3 h4 h5 h6 header hr html li main nav ol p pre section summary table tbody td tfoot th thead tr ul".split(
    " ",
  ),
)
const headingStyles = new Map([1, 2, 3, 4, 5, 6].map((level) => [`h${level}`, `heading${level}`]))

/** What holds for the text inside an element. */
interface Context {
  marks: readonly Mark[]
  style: string
  format: Partial<ParagraphFormat>
  pre: boolean
  /** The list that items are of, and the item that the next paragraph is. */
  list: { definition: string; run: string; level: number; start: number | null } | null
  item: { place: ListPlace | null; indent: number } | null
  /** How many tables it stands in. */
  tables: number
  pictures: HtmlPictures | null
  notes: ReadingNotes | null
  /** In a note: ids of the marks, to which it leads back. */
  back: ReadonlySet<string> | null
}

/** The notes of a page, and those that were met. */
interface ReadingNotes {
  page: PageNotes
  stories: Node[]
  /** How many marks each has. */
  marked: Map<Element, number>
}

/** Makes a picture of what an image shows; null where it cannot be had, which a page has no say in. */
export type HtmlPictures = (source: string, alt: string, size: { width?: number; height?: number }) => Node | null

function image(element: Element, context: Context, out: Collector): void {
  const style = declarations(element)
  const side = (name: "width" | "height") => points(style.get(name)) ?? points(`${attribute(element, name) ?? ""}px`)
  const [width, height] = [side("width"), side("height")]
  const picture = context.pictures?.(attribute(element, "src") ?? "", attribute(element, "alt") ?? "", {
    ...(width === undefined ? {} : { width }),
    ...(height === undefined ? {} : { height }),
  })
  if (picture) out.atom(picture, context)
}

/** Characters of a declaration of CSS; longer ones say nothing that has a place here. */
const longestDeclaration = 1000

function declarations(element: Element): Map<string, string> {
  const map = new Map<string, string>()
  for (const part of (attribute(element, "style") ?? "").split(";")) {
    const colon = part.indexOf(":")
    if (colon > 0 && part.length <= longestDeclaration)
      map.set(part.slice(0, colon).trim().toLowerCase(), part.slice(colon + 1).trim())
  }
  return map
}

const verticalMeant = meanings<CellFormat["vertical"]>({ middle: "middle", bottom: "bottom" })
const readingMeant = meanings<CellFormat["reading"]>({
  "sideways-lr": "up",
  "sideways-rl": "down",
  "vertical-rl": "down",
  "vertical-lr": "down",
  "tb-rl": "down",
})

/** A length of CSS in points; undefined for those that depend on something else. */
function points(value: string | undefined): number | undefined {
  const match = /^(-?\d*\.?\d+)(pt|px|in|cm|mm)$/.exec(value ?? "")
  if (!match) return undefined
  const unit = { pt: 1, px: 0.75, in: 72, cm: 72 / 2.54, mm: 72 / 25.4 }[match[2] as "pt" | "px" | "in" | "cm" | "mm"]
  return Math.round(Number(match[1]) * unit * 2) / 2
}

const namedColours = new Map(
  Object.entries({
    black: "#000000",
    white: "#ffffff",
    red: "#ff0000",
    green: "#008000",
    blue: "#0000ff",
    gray: "#808080",
    grey: "#808080",
    navy: "#000080",
    maroon: "#800000",
    purple: "#800080",
    teal: "#008080",
  }),
)

function colour(value: string | undefined): string | undefined {
  const text = (value ?? "").toLowerCase()
  if (/^#[0-9a-f]{6}$/.test(text)) return text
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/.exec(text)
  if (short)
    return `#${short
      .slice(1)
      .map((c) => c + c)
      .join("")}`
  const rgb = /^rgba?\(\s*(\d+)[\s,]+(\d+)[\s,]+(\d+)/.exec(text)
  if (rgb)
    return `#${rgb
      .slice(1, 4)
      .map((n) => Math.min(255, Number(n)).toString(16).padStart(2, "0"))
      .join("")}`
  return namedColours.get(text)
}

/** The family of ours that a CSS list of families means: by name, or by the name of what it matches in width. */
function family(value: string | undefined): string | undefined {
  for (const name of (value ?? "").split(",").map((part) =>
    part
      .trim()
      .replace(/^["']|["']$/g, "")
      .toLowerCase(),
  )) {
    const found = families.find((f) => f.name.toLowerCase() === name || f.matches?.toLowerCase() === name)
    if (found) return found.name
  }
  return undefined
}

/** An address that may be a link here; others are refused. */
export function safeLink(href: string | undefined): string | undefined {
  const address = (href ?? "").trim()
  return !address.startsWith("#") && isLink(address) ? address : undefined
}

const underlineKinds = ["double", "dotted", "dashed", "wavy"] as const
const listKinds = new Map([
  ["a", "letters"],
  ["A", "capitals"],
  ["i", "smallRomans"],
  ["I", "romans"],
])

/** Marks that an element gives its letters, over those of what it stands in. */
function withLetters(element: Element, style: Map<string, string>, before: readonly Mark[]): readonly Mark[] {
  const tag = element.tagName
  let own = before
  const set = (name: keyof typeof marks, value: unknown) => {
    own = marks[name].create({ value }).addToSet(own)
  }
  const weight = style.get("font-weight")
  if (weight) set("bold", weight === "bold" || weight === "bolder" || Number(weight) >= 600)
  else if (tag === "b" || tag === "strong" || tag === "th") set("bold", true)
  const slant = style.get("font-style")
  if (slant) set("italic", slant === "italic" || slant === "oblique")
  else if (tag === "i" || tag === "em" || tag === "cite") set("italic", true)
  const decoration = style.get("text-decoration") ?? style.get("text-decoration-line") ?? ""
  if (decoration.includes("underline") || tag === "u" || tag === "ins")
    set("underline", underlineKinds.find((kind) => decoration.includes(kind)) ?? "single")
  if (decoration.includes("line-through") || tag === "s" || tag === "strike" || tag === "del")
    set("strike", (style.get("text-decoration-style") ?? decoration).includes("double") ? "double" : "single")
  const vertical = style.get("vertical-align")
  if (tag === "sup" || vertical === "super") set("script", "super")
  if (tag === "sub" || vertical === "sub") set("script", "sub")
  const raise = points(vertical)
  if (raise !== undefined && Math.abs(raise) <= 400) set("raise", raise)
  const size = points(style.get("font-size"))
  if (size !== undefined && size >= limits.size[0] && size <= limits.size[1]) set("size", size)
  const face = family(style.get("font-family") ?? (tag === "font" ? attribute(element, "face") : undefined))
  if (face) set("family", face)
  const ink = colour(style.get("color") ?? (tag === "font" ? attribute(element, "color") : undefined))
  if (ink) set("colour", ink)
  const ground = blocks.has(tag) ? undefined : colour(style.get("background-color") ?? style.get("background"))
  if (ground && ground !== "#ffffff") set("highlight", ground)
  else if (tag === "mark") set("highlight", "#f4e3b5")
  if ((style.get("font-variant-caps") ?? style.get("font-variant")) === "small-caps") set("caps", "small")
  if (style.get("text-transform") === "uppercase") set("caps", "all")
  const spacing = points(style.get("letter-spacing"))
  if (spacing !== undefined && Math.abs(spacing) <= 100) set("spacing", spacing)
  if (style.get("font-kerning") === "none") set("kerning", false)
  if (/no-common-ligatures|none/.test(style.get("font-variant-ligatures") ?? "")) set("ligatures", false)
  if ((style.get("text-shadow") ?? "none") !== "none") set("shadow", true)
  const language = attribute(element, "lang")
  if (language && /^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(language) && language.length <= 35 && !blocks.has(tag))
    set("language", language)
  const link = tag === "a" ? safeLink(attribute(element, "href")) : undefined
  if (link) set("link", link)
  return own
}

function border(value: string | undefined, distance: number | undefined): Border | undefined {
  const match = /^([\d.]+)(pt|px)\s+(solid|double|dotted|dashed)\s+(.+)$/.exec(value ?? "")
  const ink = colour(match?.[4])
  const width = points(`${match?.[1]}${match?.[2]}`)
  if (!match || !ink || !width || width > 36) return undefined
  return {
    pattern: match[3] as Border["pattern"],
    width,
    colour: ink,
    distance: Math.min(200, Math.max(0, distance ?? 2)),
  }
}

/** Format that an element gives its paragraphs. */
function withFormat(
  element: Element,
  style: Map<string, string>,
  before: Partial<ParagraphFormat>,
): Partial<ParagraphFormat> {
  const format = { ...before }
  const align = style.get("text-align") ?? attribute(element, "align")
  if (align === "left" || align === "center" || align === "right" || align === "justify") format.align = align
  if ((attribute(element, "dir") ?? style.get("direction")) === "rtl")
    Object.assign(format, { direction: "rtl", ...(format.align ? {} : { align: "right" }) })
  const ground = colour(style.get("background-color"))
  if (ground && ground !== "#ffffff") format.shading = ground
  const borders = (["top", "right", "bottom", "left"] as const).flatMap((side) => {
    const own = border(
      style.get(`border-${side}`) ?? style.get("border"),
      points(style.get(`padding-${side}`) ?? style.get("padding")),
    )
    return own ? [[side, own]] : []
  })
  if (borders.length > 0) format.borders = Object.fromEntries(borders) as ParagraphFormat["borders"]
  return format
}

function listOf(element: Element, { list }: Context): NonNullable<Context["list"]> {
  const level = list ? Math.min(8, list.level + 1) : 0
  const ordered = element.tagName === "ol"
  const definition = ordered
    ? (listKinds.get(attribute(element, "type") ?? "") ?? "numbers")
    : element.childNodes.some((child) => hasCheck(child, 0))
      ? "tasks"
      : "marks"
  const start = Number(attribute(element, "start"))
  // A list of the same kind inside another is a level of it.
  return {
    definition:
      list && levelOf(defaultStyles, list.definition, level).kind === (ordered ? "number" : "mark")
        ? list.definition
        : definition,
    run: list?.run ?? newRun(),
    level,
    start: Number.isInteger(start) && start >= 0 && start <= 100000 && attribute(element, "start") ? start : null,
  }
}

/** Levels of elements in which the box of an item is looked for. */
const boxWithin = 6

function hasCheck(node: Any, depth: number): boolean {
  if (!("tagName" in node) || depth > boxWithin) return false
  const element = node as Element
  return (
    (element.tagName === "input" && attribute(element, "type") === "checkbox") ||
    (!["ul", "ol"].includes(element.tagName) && element.childNodes.some((child) => hasCheck(child, depth + 1)))
  )
}

function withElement(element: Element, context: Context): Context {
  const tag = element.tagName
  const style = declarations(element)
  const own = withLetters(element, style, context.marks)
  if (!blocks.has(tag)) return { ...context, marks: own }
  const heading = headingStyles.get(tag)
  const inner: Context = {
    ...context,
    // The tag says how a heading looks here; what a program writes into it to look like one anywhere is left out.
    marks: heading ? [] : own,
    format: withFormat(element, style, context.format),
    style: heading ?? (tag === "blockquote" ? "quotation" : context.style),
    pre: context.pre || tag === "pre",
  }
  if (tag === "ol" || tag === "ul") return { ...inner, list: listOf(element, context), item: null }
  if (tag === "li" && inner.list) {
    const { definition, run, level, start } = inner.list
    const place: ListPlace = {
      definition,
      run,
      level,
      ...(start !== null ? { start } : {}),
      ...(definition === "tasks" ? { done: isTicked(element) } : {}),
    }
    inner.list.start = null
    return { ...inner, item: { place, indent: levelOf(defaultStyles, definition, level).indent } }
  }
  return inner
}

function isTicked(node: Any, depth = 0): boolean {
  if (!("tagName" in node) || depth > boxWithin) return false
  const element = node as Element
  if (element.tagName === "input") return attribute(element, "checked") !== undefined
  return !["ul", "ol"].includes(element.tagName) && element.childNodes.some((child) => isTicked(child, depth + 1))
}

/** The first paragraph of an item has its mark; those that follow in it stand beside. */
function itemFormat(item: Context["item"]): Partial<ParagraphFormat> {
  if (!item) return {}
  if (!item.place) return { indentLeft: item.indent }
  const { place } = item
  item.place = null
  return { list: place }
}

class Collector {
  readonly paragraphs: Node[] = []
  private inline: Node[] = []
  private context: Context | null = null

  text(text: string, context: Context): void {
    let clean = text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, "")
    if (!context.pre) {
      clean = clean.replace(/[ \t\n\r]+/g, " ")
      const before = this.inline.at(-1)
      if (!before || before.type === nodes.lineBreak || /[ \t]$/.test(before.text ?? ""))
        clean = clean.replace(/^ /, "")
    }
    if (clean === "") return
    this.context ??= context
    clean.split("\n").forEach((line, i) => {
      if (i > 0) this.inline.push(nodes.lineBreak.create())
      if (line) this.inline.push(schema.text(line, context.marks))
    })
  }

  atom(node: Node, context: Context): void {
    this.context ??= context
    this.inline.push(node)
  }

  lineBreak(context: Context): void {
    this.context ??= context
    this.inline.push(nodes.lineBreak.create())
  }

  /** Ends a paragraph; `keepEmpty` for those that were empty in the source too. */
  end(context: Context, keepEmpty = false, trim = true): void {
    const last = this.inline.at(-1)
    if (trim && last?.isText && last.text?.endsWith(" ") && !context.pre) {
      this.inline.pop()
      const trimmed = last.text.trimEnd()
      if (trimmed) this.inline.push(schema.text(trimmed, last.marks))
    }
    if (this.inline.at(-1)?.type === nodes.lineBreak) this.inline.pop()
    const { style, format, item } = this.context ?? context
    if (this.inline.length > 0 || keepEmpty) this.push(style, { ...format, ...itemFormat(item) }, this.inline)
    this.inline = []
    this.context = null
  }

  push(style: string, format: Partial<ParagraphFormat>, content: Node[] = []): void {
    this.paragraphs.push(
      nodes.paragraph.create({ style, format: Object.keys(format).length > 0 ? format : null }, content),
    )
  }

  put(block: Node): void {
    this.paragraphs.push(block)
  }

  get open(): boolean {
    return this.inline.length > 0
  }
}

/** The text of what lies too deep to be followed by its elements. */
function flattened(node: Any, context: Context, out: Collector): void {
  const waiting: (Any | "end")[] = [node]
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (next === "end") out.end(context)
    else if (next.nodeName === "#text")
      out.text((next as DefaultTreeAdapterTypes.DefaultTreeAdapterMap["textNode"]).value, context)
    else if ("tagName" in next && !dropped.has((next as Element).tagName)) {
      const { tagName, childNodes } = next as Element
      const isBlock = blocks.has(tagName)
      if (isBlock) out.end(context)
      if (isBlock) waiting.push("end")
      for (let i = childNodes.length - 1; i >= 0; i--) waiting.push(childNodes[i] as Any)
    }
  }
}

const holdsList = ({ childNodes }: Element) =>
  childNodes.some((child) => child.nodeName === "ul" || child.nodeName === "ol")

function walk(node: Any, context: Context, out: Collector, depth: number): void {
  if (depth > deepest) return flattened(node, context, out)
  if (node.nodeName === "#text")
    return out.text((node as DefaultTreeAdapterTypes.DefaultTreeAdapterMap["textNode"]).value, context)
  if (!("tagName" in node)) return
  const element = node as Element
  const tag = element.tagName
  if (dropped.has(tag) || declarations(element).get("display") === "none") return
  if (tag === "br") return out.lineBreak(context)
  if (tag === "input") return
  if (context.notes?.page.apart.has(element)) return
  const place = context.notes || context.back ? placeIn(element) : null
  const note = place === null ? undefined : context.notes?.page.targets.get(place)
  if (note && mark(note, context, out, depth)) return
  if (place !== null && context.back?.has(place)) return
  if (tag === "img") return image(element, context, out)
  if (tag === "hr") {
    out.end(context)
    return out.push(context.style, {
      borders: { bottom: { pattern: "solid", width: 0.75, colour: "#5e564b", distance: 0 } },
    })
  }
  if (tag === "table" && context.tables < deepestTables) return table(element, context, out, depth)
  const inner = withElement(element, context)
  if (tag === "tr") return row(element, inner, out, depth)
  const isBlock = blocks.has(tag)
  if (isBlock) out.end(context)
  if (tag === "p" && element.childNodes.length > 0 && !out.open && isBlank(element)) return out.end(inner, true)
  for (const child of element.childNodes) walk(child, inner, out, depth + 1)
  if (isBlock) out.end(inner, tag === "li" && inner.item?.place !== null && !out.open && !holdsList(element))
}

/** So many marks of one note have its text; others are words like others. */
const mostMarks = 8

/** The mark of a note, and its text as a story. @returns whether there is one */
function mark(note: Element, context: Context, out: Collector, depth: number): boolean {
  const { page, stories, marked } = context.notes as ReadingNotes
  const times = (marked.get(note) ?? 0) + 1
  if (times > mostMarks) return false
  marked.set(note, times)
  const own = new Collector()
  const inner = { ...plainContext, style: "note", pictures: context.pictures, back: page.marks }
  for (const child of note.childNodes) walk(child, inner, own, depth + 1)
  own.end(inner)
  const blocks = own.paragraphs.map(withoutTables)
  const key = `note-${stories.length + 1}`
  const text = blocks.length > 0 ? blocks : [nodes.paragraph.create({ style: "note" })]
  stories.push(nodes.story.create({ key, kind: "note" }, text))
  out.atom(nodes.anchor.create({ story: key }), context)
  return true
}

/** A paragraph that holds just a space that does not break, or a line break: an empty line in its program. */
function isBlank(element: Element): boolean {
  return element.childNodes.every(
    (child) =>
      child.nodeName === "br" ||
      (child.nodeName === "#text" &&
        /^[\s\u00a0]*$/.test((child as DefaultTreeAdapterTypes.DefaultTreeAdapterMap["textNode"]).value)),
  )
}

/** Tables in tables that are read as such. */
const deepestTables = 8

/** What stands round tables says nothing of the text in their cells but how it is lettered and aligned. */
function inTable(element: Element, context: Context): Context {
  const { shading: _ground, borders: _lines, ...format } = withFormat(element, declarations(element), context.format)
  return {
    ...context,
    // A head says that by itself.
    marks: element.tagName === "th" ? context.marks : withLetters(element, declarations(element), context.marks),
    format,
    style: bodyStyle,
    list: null,
    item: null,
    tables: context.tables + 1,
  }
}

function table(element: Element, context: Context, out: Collector, depth: number): void {
  out.end(context)
  const around: Context = { ...context, format: cellParagraph }
  for (const child of element.childNodes) if (child.nodeName === "caption") walk(child, context, out, depth + 1)
  const tables = readTable(element, {
    blocks: (cell) => {
      const own = new Collector()
      const inner = inTable(cell, around)
      for (const child of cell.childNodes) walk(child, inner, own, depth + 3)
      own.end(inner)
      return withTypedLists(own.paragraphs)
    },
    format: (cell) => {
      const style = declarations(cell)
      const { shading, borders } = withFormat(cell, style, {})
      const vertical = verticalMeant(style.get("vertical-align"))
      const turned = readingMeant(style.get("writing-mode"))
      // Lines that fall, turned upside down, rise.
      const reading = turned && /rotate\(-?180deg\)/.test(style.get("transform") ?? "") ? "up" : turned
      const said = attribute(cell, "bgcolor") ? colour(attribute(cell, "bgcolor")) : shading
      return {
        ...(said ? { shading: said } : {}),
        ...(vertical ? { vertical } : {}),
        ...(reading ? { reading } : {}),
        ...(borders
          ? {
              borders: Object.fromEntries(
                Object.entries(borders).map(([side, line]) => [side, { ...line, distance: 0 }]),
              ),
            }
          : {}),
      }
    },
    width: (column) => points(declarations(column).get("width")) ?? points(`${attribute(column, "width") ?? ""}px`),
  })
  for (const own of tables) out.put(own)
}

/** A row that stands in no table of ours is a paragraph, its cells divided by tabs. */
function row(element: Element, context: Context, out: Collector, depth: number): void {
  out.end(context)
  let first = true
  for (const cell of element.childNodes) {
    if (!("tagName" in cell)) continue
    if (!first) out.text("\t", { ...context, pre: true })
    first = false
    const inner = withElement(cell as Element, context)
    for (const child of (cell as Element).childNodes) inlineOnly(child, inner, out, depth + 1)
  }
  out.end(context)
}

function inlineOnly(node: Any, context: Context, out: Collector, depth: number): void {
  if (depth > deepest) return flattened(node, context, out)
  if (node.nodeName === "#text")
    return out.text((node as DefaultTreeAdapterTypes.DefaultTreeAdapterMap["textNode"]).value, context)
  if (!("tagName" in node) || dropped.has((node as Element).tagName)) return
  if ((node as Element).tagName === "img") return image(node as Element, context, out)
  const inner = withElement(node as Element, context)
  for (const child of (node as Element).childNodes)
    inlineOnly(child, { ...inner, style: context.style }, out, depth + 1)
}

/** Begins inside a table: such elements mean something only where nothing of ours stands round them. */
const partOfTable = /^\s*<(?:tr|td|th|tbody|thead|tfoot|col|colgroup|caption)[\s>]/i

const packing = { start: "<!--StartFragment-->", end: "<!--EndFragment-->" }

const plainContext: Context = {
  marks: [],
  style: bodyStyle,
  format: {},
  pre: false,
  list: null,
  item: null,
  tables: 0,
  pictures: null,
  notes: null,
  back: null,
}

/**
 * @param stories takes the notes of a page, whose marks come in the text; without it they are text like other text
 * @returns a slice that may be put in at a caret; letters alone join the paragraph they land in
 */
export function readHtml(source: string, pictures: HtmlPictures | null = null, stories: Node[] | null = null): Slice {
  const out = new Collector()
  // Programs that copy wrap what was copied in comments; what stands outside is packing.
  const [begin, end] = [source.indexOf(packing.start), source.lastIndexOf(packing.end)]
  const packed =
    begin >= 0 && end >= begin + packing.start.length ? source.slice(begin + packing.start.length, end) : source
  const content = packed.slice(0, longest)
  // The parser moves what stands outermost one by one, each past all the others: in an element of ours there is one.
  const bare = partOfTable.test(content)
  const [first, ...others] = parsePart(bare ? `<table>${content}` : `<div>${content}`).childNodes
  const outermost =
    !bare && first && "childNodes" in first ? [...first.childNodes, ...others] : first ? [first, ...others] : []
  const page = stories && notesIn(outermost)
  const context: Context = {
    ...plainContext,
    pictures,
    notes: stories && page ? { page, stories, marked: new Map() } : null,
  }
  for (const child of outermost) walk(child, context, out, 0)
  const onlyLetters = out.paragraphs.length === 0
  out.end(context, false, !onlyLetters)
  const paragraphs = withTypedLists(out.paragraphs)
  if (paragraphs.length === 0) return Slice.empty
  const opening = paragraphs[0] as Node
  // One paragraph, or letters, joins where it lands; several open at both ends unless they are headings.
  const open =
    onlyLetters || (paragraphs.length === 1 && opening.isTextblock && opening.attrs.style === bodyStyle) ? 1 : 0
  return new Slice(Fragment.from(paragraphs), open, open)
}
