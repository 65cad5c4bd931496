/** A stretch of a document as HTML for other programs: tags where HTML has one, the rest as inline style. */
import type { Node, Slice } from "prosemirror-model"
import {
  borderSides,
  cellFormat,
  edgeOf,
  fieldText,
  gridOf,
  groundOf,
  letterLook,
  lettersOf,
  levelOf,
  nodes,
  listPlace,
  outlineLevel,
  paragraphAttrs,
  paragraphLook,
  tableFormat,
  type Border,
  type LetterFormat,
  type ListPlace,
  type ParagraphFormat,
  type RunLook,
  type StyleSheet,
} from "../../document"

const entities: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" }
export const safe = (text: string) => text.replace(/[&<>"]/g, (c) => entities[c] as string)

function css(properties: Record<string, string | null>): string {
  const said = Object.entries(properties).filter(([, value]) => value !== null)
  return said.length > 0 ? ` style="${safe(said.map(([name, value]) => `${name}:${value}`).join(";"))}"` : ""
}

const underlines: Record<LetterFormat["underline"], string> = {
  none: "none",
  single: "solid",
  double: "double",
  thick: "solid",
  dotted: "dotted",
  dashed: "dashed",
  wavy: "wavy",
}

/** Letters that differ from those of their paragraph. */
function run(text: string, look: RunLook, base: LetterFormat): string {
  const differs = <K extends keyof LetterFormat>(name: K) => look[name] !== base[name]
  const lined = differs("underline") && look.underline !== "none" && !look.link
  const plainLine = look.underline === "single" && look.underlineColour === null
  const span = css({
    "font-family": differs("family") ? `'${look.family}'` : null,
    "font-size": differs("size") ? `${look.size}pt` : null,
    color: differs("colour") && !look.link ? look.colour : null,
    "background-color": differs("highlight") ? (look.highlight ?? "transparent") : null,
    "font-weight": differs("bold") && !look.bold ? "normal" : null,
    "font-style": differs("italic") && !look.italic ? "normal" : null,
    "text-decoration":
      lined && !plainLine
        ? `underline ${underlines[look.underline]} ${look.underlineColour ?? look.colour}${look.underline === "thick" ? " 2px" : ""}`
        : null,
    "font-variant-caps": differs("caps") && look.caps === "small" ? "small-caps" : null,
    "text-transform": differs("caps") && look.caps === "all" ? "uppercase" : null,
    "letter-spacing": differs("spacing") ? `${look.spacing}pt` : null,
    "vertical-align": differs("raise") && look.script === "none" ? `${look.raise}pt` : null,
    "font-kerning": differs("kerning") ? (look.kerning ? "auto" : "none") : null,
    "font-variant-ligatures": differs("ligatures") && !look.ligatures ? "no-common-ligatures" : null,
    "text-shadow": differs("shadow") && look.shadow ? "0.05em 0.05em #bbb" : null,
    "-webkit-text-stroke": differs("outline") && look.outline ? "0.03em" : null,
  })
  const language = differs("language") ? ` lang="${safe(look.language)}"` : ""
  let html = safe(text)
    .replace(/\n/g, "<br>")
    .replace(/ {2,}|^ | $/g, (spaces) => "&nbsp;".repeat(spaces.length - 1) + " ")
  if (span || language) html = `<span${language}${span}>${html}</span>`
  if (lined && plainLine) html = `<u>${html}</u>`
  if (differs("strike") && look.strike !== "none")
    html = `<s${look.strike === "double" ? ' style="text-decoration-style:double"' : ""}>${html}</s>`
  if (differs("script") && look.script !== "none")
    html = look.script === "super" ? `<sup>${html}</sup>` : `<sub>${html}</sub>`
  if (differs("italic") && look.italic) html = `<em>${html}</em>`
  if (differs("bold") && look.bold) html = `<strong>${html}</strong>`
  return look.link && !look.link.startsWith("#") ? `<a href="${safe(look.link)}">${html}</a>` : html
}

/** What a page shows beyond the words of its paragraphs. */
export interface HtmlSources {
  /** Of a picture: as HTML. */
  picture(picture: Node): string
  /** Of the mark of a note: as HTML. */
  mark(anchor: Node): string
  /** What a field shows. */
  field(field: Node, language: string): string
  /** Whether places of the document can be gone to. */
  places: boolean
}

/** On a clipboard there are words alone. */
const wordsAlone: HtmlSources = { picture: () => "", mark: () => "", field: fieldText, places: false }

/** A name as it may stand behind a #. */
export const idOf = (place: string): string => `p-${encodeURIComponent(place).replaceAll("%", "_")}`

function inline(paragraph: Node, styles: StyleSheet, sources: HtmlSources): string {
  const base = paragraphLook(styles, paragraph).letters
  let html = ""
  const begun = new Set<string>()
  paragraph.forEach((child) => {
    const look = letterLook(styles, base, child.marks)
    const place = child.marks.find(({ type }) => type.name === "place")?.attrs.value as string | undefined
    if (sources.places && place !== undefined && !begun.has(place)) {
      begun.add(place)
      html += `<a id="${safe(idOf(place))}"></a>`
    }
    if (child.type === nodes.picture) html += sources.picture(child)
    else if (child.type === nodes.anchor) html += sources.mark(child)
    else {
      const words = child.isText
        ? (child.text ?? "")
        : child.type === nodes.field
          ? sources.field(child, look.language)
          : (child.type.spec.leafText?.(child) ?? "")
      const made = run(words, look, base)
      html +=
        sources.places && look.link?.startsWith("#") ? `<a href="#${safe(idOf(look.link.slice(1)))}">${made}</a>` : made
    }
  })
  return html
}

function border(own: Border | undefined): string | null {
  return own ? `${own.width}pt ${own.pattern === "wavy" ? "solid" : own.pattern} ${own.colour}` : null
}

/** Style of a paragraph; items of a list get their indent from the list. */
function paragraphCss(format: ParagraphFormat, letters: LetterFormat, level: number | null, item: boolean): string {
  const { lineSpacing, borders } = format
  const sides = Object.entries(borders).filter(([side]) => side !== "between")
  return css({
    "font-family": `'${letters.family}'`,
    "font-size": `${letters.size}pt`,
    color: letters.colour,
    "font-weight": level && !letters.bold ? "normal" : !level && letters.bold ? "bold" : null,
    "font-style": letters.italic ? "italic" : null,
    "text-align": format.align === "left" ? null : format.align,
    "line-height":
      lineSpacing.rule === "multiple"
        ? String(Math.round(lineSpacing.value * 1.2 * 100) / 100)
        : lineSpacing.rule === "exact"
          ? `${lineSpacing.value}pt`
          : null,
    margin: `${format.spaceBefore}pt ${item ? 0 : format.indentRight}pt ${format.spaceAfter}pt ${item ? 0 : format.indentLeft}pt`,
    "text-indent": format.indentFirst && !item ? `${format.indentFirst}pt` : null,
    "background-color": format.shading,
    ...Object.fromEntries(
      sides.flatMap(([side, own]) => [
        [`border-${side}`, border(own)],
        [`padding-${side}`, `${own.distance}pt`],
      ]),
    ),
    "break-before": format.breakBefore ? "page" : format.columnBefore ? "column" : null,
    hyphens: format.hyphenate ? "auto" : null,
  })
}

/** Whether a paragraph is nothing but a line across. */
function isRule(paragraph: Node, { borders }: ParagraphFormat): boolean {
  const sides = Object.keys(borders)
  return paragraph.content.size === 0 && sides.length === 1 && (sides[0] === "bottom" || sides[0] === "top")
}

function block(paragraph: Node, styles: StyleSheet, sources: HtmlSources): string {
  const level = outlineLevel(styles, paragraph)
  const { paragraph: format, letters } = paragraphLook(styles, paragraph)
  if (isRule(paragraph, format)) return "<hr>"
  const tag = level ? `h${Math.min(6, level)}` : paragraphAttrs(paragraph).style === "quotation" ? "blockquote" : "p"
  const direction = format.direction === "rtl" ? ' dir="rtl"' : ""
  return `<${tag}${direction}${paragraphCss(format, letters, level, false)}>${inline(paragraph, styles, sources)}</${tag}>`
}

const listTypes: Partial<Record<string, string>> = {
  lowerLetter: "a",
  upperLetter: "A",
  lowerRoman: "i",
  upperRoman: "I",
}

function listTag(styles: StyleSheet, place: ListPlace): { tag: string; open: string } {
  const level = levelOf(styles, place.definition, place.level)
  if (level.kind !== "number")
    return { tag: "ul", open: level.kind === "check" ? '<ul style="list-style:none">' : "<ul>" }
  const type = listTypes[level.numbering]
  return {
    tag: "ol",
    open: `<ol${type ? ` type="${type}"` : ""}${place.start !== undefined ? ` start="${place.start}"` : ""}>`,
  }
}

/** Items that follow each other as nested lists. */
class Lists {
  private readonly open: { tag: string; run: string }[] = []

  constructor(
    private readonly styles: StyleSheet,
    private readonly sources: HtmlSources,
  ) {}

  item(paragraph: Node, place: ListPlace): string {
    const run = `${place.definition} ${place.run}`
    let html = ""
    // A deeper list of another kind stands in the item above it.
    while (
      this.open.length > place.level + 1 ||
      (this.open.length === place.level + 1 && this.open.at(-1)?.run !== run)
    )
      html += this.end()
    if (this.open.length === place.level + 1) html += "</li>"
    while (this.open.length < place.level + 1) {
      const { tag, open } = listTag(this.styles, { ...place, level: this.open.length })
      html += open + (this.open.length < place.level ? "<li>" : "")
      this.open.push({ tag, run })
    }
    const { paragraph: format, letters } = paragraphLook(this.styles, paragraph)
    const check =
      levelOf(this.styles, place.definition, place.level).kind === "check"
        ? `<input type="checkbox"${place.done ? " checked" : ""}>`
        : ""
    return `${html}<li${paragraphCss(format, letters, null, true)}>${check}${inline(paragraph, this.styles, this.sources)}`
  }

  private end(): string {
    const list = this.open.pop()
    return list ? `</li></${list.tag}>` : ""
  }

  close(): string {
    let html = ""
    while (this.open.length > 0) html += this.end()
    return html
  }
}

/** A part of one paragraph comes as letters, whole paragraphs as blocks. */
export function writeHtml(slice: Slice, styles: StyleSheet, sources: HtmlSources = wordsAlone): string {
  const blocks: Node[] = []
  // Those of stories stand where their marks are lost.
  slice.content.descendants((node) => {
    if (node.isTextblock || node.type === nodes.table) blocks.push(node)
    return !node.isTextblock && node.type !== nodes.table
  })
  const [only] = blocks
  if (only?.isTextblock && blocks.length === 1 && slice.openStart > 0) return inline(only, styles, sources)
  return writeBlocks(blocks, styles, sources)
}

export function writeBlocks(blocks: readonly Node[], styles: StyleSheet, sources: HtmlSources): string {
  const lists = new Lists(styles, sources)
  const written = blocks.map((node, i) => {
    const between = i > 0 ? "\n" : ""
    if (node.type === nodes.table) return `${lists.close()}${between}${table(node, styles, sources)}`
    if (!node.isTextblock) return ""
    // A numbered heading stays a heading.
    const place = outlineLevel(styles, node) === null ? listPlace(styles, node) : null
    return place ? lists.item(node, place) : `${lists.close()}${between}${block(node, styles, sources)}`
  })
  return written.join("") + lists.close()
}

/** A table with what is seen of it: grounds, lines and widths. */
function table(own: Node, styles: StyleSheet, sources: HtmlSources): string {
  const grid = gridOf(own)
  const { headRows, firstColumn, columns, align } = tableFormat(own)
  const widths = (columns ?? []).map((width) => `<col style="width:${Math.round(width * 10) / 10}pt">`).join("")
  const rows = Array.from({ length: grid.rows }, (_, row) => {
    const head = row < headRows
    const cells = grid.begun(row).map((cell) => {
      const { node, colspan, rowspan, column } = cell
      const tag = head || (firstColumn && column === 0) ? "th" : "td"
      const spans = `${colspan > 1 ? ` colspan="${colspan}"` : ""}${rowspan > 1 ? ` rowspan="${rowspan}"` : ""}`
      const said = lettersOf(styles, own, cell)
      const { vertical = "top", reading = "across" } = cellFormat(node)
      const look = css({
        "background-color": groundOf(styles, own, cell),
        ...Object.fromEntries(
          borderSides.map((side) => [`border-${side}`, border(edgeOf(styles, own, cell, side).border ?? undefined)]),
        ),
        padding: "3pt 5pt",
        "vertical-align": vertical,
        "writing-mode": { across: null, up: "sideways-lr", down: "vertical-rl" }[reading],
        "font-weight": said?.bold ? "bold" : "normal",
        color: said?.colour ?? null,
        "text-align": "left",
      })
      const scope = tag === "th" ? ` scope="${head ? "col" : "row"}"` : ""
      return `<${tag}${spans}${scope}${look}>${writeBlocks(node.children, styles, sources)}</${tag}>`
    })
    return `<tr>${cells.join("")}</tr>`
  })
  const heads = Math.min(headRows, grid.rows)
  const part = (tag: string, some: readonly string[]) => (some.length > 0 ? `<${tag}>${some.join("\n")}</${tag}>` : "")
  const place = { left: null, center: "0 auto", right: "0 0 0 auto" }[align]
  return `<table${css({ "border-collapse": "collapse", margin: place, width: columns ? null : "100%" })}>${widths ? `<colgroup>${widths}</colgroup>` : ""}${part("thead", rows.slice(0, heads))}${part("tbody", rows.slice(heads))}</table>`
}
