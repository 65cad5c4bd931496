/** The style sheet (ISO/IEC 29500-1, 17.7). Styles that every document has by name are ours; others keep their names. */
import {
  asName,
  bodyStyle,
  defaultLetters,
  defaultParagraph,
  defaultStyles,
  entryOf,
  headingsStyle,
  limits,
  type LetterFormat,
  type ParagraphFormat,
  type Style,
  type StyleSheet,
  type TabStop,
} from "../../../document"
import { addReadyStyles } from "../../readyStyles"
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"
import { commonStyles } from "../commonStyles"
import { readLetters } from "./letters"
import type { Numbering } from "./numbering"
import { readParagraph } from "./paragraphs"
import type { Theme } from "./theme"
import { valueOf } from "./values"

interface KnownStyle {
  key: string
  kind: "paragraph" | "letters"
  parent: string | undefined
  element: XmlElement
}

/** What a document looks like of which nothing is said. */
const plainParagraph: ParagraphFormat = {
  ...defaultParagraph,
  lineSpacing: { rule: "multiple", value: 1 },
  spaceAfter: 0,
}
const plainLetters: LetterFormat = { ...defaultLetters, size: 10, colour: "#000000", language: "en-US" }

export class Styles {
  readonly sheet: { defaults: StyleSheet["defaults"]; styles: Record<string, Style> }
  private readonly known = new Map<string, KnownStyle>()
  private readonly tables = new Map<string, XmlElement>()
  private readonly numbered = new Map<string, string>()
  private plain = bodyStyle
  /** The style of tables that name none. */
  plainTable: string | undefined

  constructor(
    private readonly root: XmlElement | undefined,
    private readonly theme: Theme,
    /** Language of a document that names none. */
    language: string | undefined,
    /** Whether words are divided where nothing else is said. */
    hyphenate: boolean,
  ) {
    const defaults = child(root, "w:docDefaults")
    const letters = readLetters(child(child(defaults, "w:rPrDefault"), "w:rPr"), theme).format
    const paragraph = readParagraph(child(child(defaults, "w:pPrDefault"), "w:pPr"), []).format
    this.sheet = {
      defaults: {
        paragraph: { ...plainParagraph, hyphenate, ...paragraph },
        letters: { ...plainLetters, ...(language ? { language } : {}), ...letters },
      },
      styles: {},
    }
    this.list()
  }

  private list(): void {
    const keys = new Set<string>()
    for (const element of childrenNamed(this.root, "w:style")) {
      const { "w:styleId": id = "", "w:type": type = "paragraph", "w:default": standard } = element.attrs
      const isStandard = standard === "1" || standard === "true" || standard === "on"
      if (type === "table") {
        this.tables.set(id, element)
        if (isStandard) this.plainTable = id
      }
      if (type === "numbering") {
        const num = child(child(child(element, "w:pPr"), "w:numPr"), "w:numId")?.attrs["w:val"]
        if (num !== undefined) this.numbered.set(id, num)
      }
      if (type !== "paragraph" && type !== "character") continue
      // Letters that name no style have none, so that the standard one says nothing.
      if (type === "character" && isStandard) continue
      const kind = type === "character" ? "letters" : "paragraph"
      const name = (valueOf(element, "w:name") ?? id).toLowerCase()
      const ours = entryOf(defaultStyles.styles, id)?.name.toLowerCase() === name ? id : undefined
      const common = isStandard && kind === "paragraph" ? bodyStyle : (commonStyles.get(name) ?? ours)
      const fits =
        common !== undefined && (entryOf(defaultStyles.styles, common)?.kind === "letters") === (kind === "letters")
      let key = fits && !keys.has(common) ? common : (asName(id) || "style").slice(0, limits.name - 4)
      for (let n = 2; keys.has(key) || (!(fits && key === common) && Object.hasOwn(defaultStyles.styles, key)); n++)
        key = `${asName(id).slice(0, limits.name - 4)}-${n}`
      keys.add(key)
      if (isStandard && kind === "paragraph") this.plain = id
      this.known.set(`${kind} ${id}`, { key, kind, parent: valueOf(element, "w:basedOn"), element })
    }
  }

  /** The instance of a list that a style of lists names. */
  readonly numberedBy = (style: string): string | undefined => this.numbered.get(style)

  paragraphKey(id: string | undefined): string {
    return this.known.get(`paragraph ${id ?? this.plain}`)?.key ?? bodyStyle
  }

  lettersKey(id: string | undefined): string | undefined {
    return id === undefined ? undefined : this.known.get(`letters ${id}`)?.key
  }

  table(id: string | undefined): XmlElement | undefined {
    return this.tables.get(id ?? this.plainTable ?? "")
  }

  private readonly stops = new Map<string, readonly TabStop[]>()

  /** The stops that paragraphs of a style start from. */
  tabsOf(id: string | undefined, turns = 0): readonly TabStop[] {
    const own = id ?? this.plain
    let stops = this.stops.get(own)
    if (!stops) {
      const style = this.known.get(`paragraph ${own}`)
      const inherited = style?.parent !== undefined && turns < 20 ? this.tabsOf(style.parent, turns + 1) : []
      stops = readParagraph(child(style?.element, "w:pPr"), inherited).format.tabs ?? inherited
      this.stops.set(own, stops)
    }
    return stops
  }

  private readonly directions = new Map<string, boolean>()

  /** Whether paragraphs of a style run from right to left. */
  isBackward(id: string | undefined, turns = 0): boolean {
    const own = id ?? this.plain
    let known = this.directions.get(own)
    if (known === undefined) {
      const style = this.known.get(`paragraph ${own}`)
      const bidi = child(child(style?.element, "w:pPr"), "w:bidi")
      known = bidi
        ? bidi.attrs["w:val"] !== "0" && bidi.attrs["w:val"] !== "false"
        : style?.parent !== undefined && turns < 20
          ? this.isBackward(style.parent, turns + 1)
          : this.sheet.defaults.paragraph.direction === "rtl"
      this.directions.set(own, known)
    }
    return known
  }

  /** The sheet with all styles, once it is known what lists there are. */
  finish(numbering: Numbering): StyleSheet {
    const { styles } = this.sheet
    for (const [known, { key, kind, parent, element }] of this.known) {
      const id = known.slice(kind.length + 1)
      const over = parent === undefined ? undefined : this.known.get(`${kind} ${parent}`)?.key
      const { format: letters } = readLetters(child(element, "w:rPr"), this.theme)
      const read = readParagraph(
        child(element, "w:pPr"),
        parent === undefined ? [] : this.tabsOf(parent),
        parent === undefined ? false : this.isBackward(parent),
      )
      const { num, level } = read.numbering ?? {}
      if (num !== undefined) read.format.list = numbering.place(num, level ?? numbering.levelOfStyle(num, id), false)
      const heading = /^heading(\d)$/.exec(key)
      const outline =
        read.outline === undefined ? (heading ? Number(heading[1]) : null) : read.outline > 8 ? null : read.outline + 1
      const next = valueOf(element, "w:next")
      styles[key] = {
        name: asName(entryOf(defaultStyles.styles, key)?.name ?? valueOf(element, "w:name") ?? id) || key,
        ...(kind === "letters" ? { kind } : {}),
        // What all headings share can still be said of them all.
        parent:
          key === bodyStyle || over === key
            ? null
            : heading && (over ?? bodyStyle) === bodyStyle
              ? headingsStyle
              : (over ?? null),
        next: next === undefined || kind === "letters" ? null : this.paragraphKey(next),
        outline: kind === "letters" ? null : outline,
        paragraph: kind === "letters" ? {} : read.format,
        letters,
      }
    }
    addReadyStyles(styles)
    mendParents(styles)
    return { ...this.sheet, fonts: {}, lists: numbering.lists }
  }
}

/** A style that starts from itself, by way of others, starts from nothing. */
function mendParents(styles: Record<string, Style>): void {
  for (const [key, style] of Object.entries(styles)) {
    const seen = new Set([key])
    for (let at = style.parent; at !== null; at = styles[at]?.parent ?? null) {
      if (!seen.has(at) && Object.hasOwn(styles, at)) {
        seen.add(at)
        continue
      }
      styles[key] = { ...style, parent: null }
      break
    }
  }
}
