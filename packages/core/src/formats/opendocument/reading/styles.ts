/** Styles (OpenDocument 1.3, part 3, 16): those with names are the sheet, automatic ones direct formatting. */
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
import { readLetters, readParagraph, type LetterContext } from "./properties"

/** What a style says, with what it starts from. */
export interface Said {
  /** The style of the sheet that it is, or comes down to. */
  key: string
  paragraph: Partial<ParagraphFormat>
  letters: Partial<LetterFormat>
  hidden: boolean
  element: XmlElement | undefined
}

type Family = "paragraph" | "text"

const plainParagraph: ParagraphFormat = {
  ...defaultParagraph,
  lineSpacing: { rule: "multiple", value: 1 },
  spaceAfter: 0,
  orphans: 1,
  widows: 1,
}
const plainLetters: LetterFormat = { ...defaultLetters, colour: "#000000" }

export class Styles {
  readonly defaults: StyleSheet["defaults"]
  /** What paragraphs start from, as it is told. */
  readonly usual: XmlElement | undefined
  private readonly named = new Map<string, XmlElement>()
  private readonly keys = new Map<string, string>()
  private readonly automatic: ReadonlyMap<string, XmlElement>

  /**
   * @param common the part with the styles that have names
   * @param automatic those that direct formatting was made into, of the part that is read
   */
  constructor(
    common: XmlElement | undefined,
    automatic: XmlElement | undefined,
    readonly context: LetterContext,
  ) {
    this.automatic = stylesIn(automatic)
    const base = childrenNamed(common, "style:default-style").find(({ attrs }) => attrs["style:family"] === "paragraph")
    this.usual = base
    const letters = readLetters(child(base, "style:text-properties"), context, 12)
    const paragraph = readParagraph(child(base, "style:paragraph-properties"), false)
    this.defaults = {
      letters: { ...plainLetters, ...letters.format },
      paragraph: {
        ...plainParagraph,
        ...paragraph,
        ...(letters.hyphenate === undefined ? {} : { hyphenate: letters.hyphenate }),
      },
    }
    for (const [name, element] of stylesIn(common)) this.named.set(name, element)
    this.nameAll()
  }

  /** The same styles with the automatic ones of another part. */
  with(automatic: XmlElement | undefined): Styles {
    const own = Object.create(this) as { automatic: ReadonlyMap<string, XmlElement>; said: Map<string, Said> }
    own.automatic = stylesIn(automatic)
    own.said = new Map()
    return own as unknown as Styles
  }

  private nameAll(): void {
    const taken = new Set<string>()
    for (const [name, { attrs }] of this.named) {
      const family = attrs["style:family"]
      if (family !== "paragraph" && family !== "text") continue
      const own = attrs["style:name"] ?? ""
      const letters = family === "text"
      const common =
        commonStyles.get(own) ??
        (entryOf(defaultStyles.styles, own)?.name === (attrs["style:display-name"] ?? own) ? own : undefined)
      const fits = common !== undefined && (entryOf(defaultStyles.styles, common)?.kind === "letters") === letters
      let key = fits && !taken.has(common) ? common : (asName(own) || "style").slice(0, limits.name - 4)
      for (let n = 2; taken.has(key) || (key !== common && Object.hasOwn(defaultStyles.styles, key)); n++)
        key = `${asName(own).slice(0, limits.name - 4)}-${n}`
      taken.add(key)
      this.keys.set(name, key)
    }
  }

  element(family: string, name: string | undefined): XmlElement | undefined {
    const own = `${family} ${name ?? ""}`
    return this.automatic.get(own) ?? this.named.get(own)
  }

  private said = new Map<string, Said>()

  /** What the style of a paragraph or of words says beyond its key in the sheet. */
  of(family: Family, name: string | undefined): Said {
    const known = this.said.get(`${family} ${name ?? ""}`)
    if (known) return known
    const said = this.find(family, name)
    this.said.set(`${family} ${name ?? ""}`, said)
    return said
  }

  private find(family: Family, name: string | undefined, turns = 0): Said {
    const own = `${family} ${name ?? ""}`
    const key = this.keys.get(own)
    const element = this.automatic.get(own)
    if (!element || turns > 20)
      return {
        key: key ?? (family === "paragraph" ? bodyStyle : ""),
        paragraph: {},
        letters: {},
        hidden: false,
        element: this.named.get(own),
      }
    const parent = this.find(family, element.attrs["style:parent-style-name"], turns + 1)
    const indent = parent.paragraph.indentLeft ?? this.indentOf(parent.key)
    const read = this.read(element, this.isBackward(parent.key), this.sizeOf(parent.key), indent)
    return {
      key: parent.key,
      paragraph: { ...parent.paragraph, ...read.paragraph },
      letters: { ...parent.letters, ...read.letters },
      hidden: read.hidden || parent.hidden,
      element,
    }
  }

  private read(element: XmlElement, rtl: boolean, size: number | undefined, indent: number) {
    const {
      format: letters,
      hidden,
      hyphenate,
    } = readLetters(child(element, "style:text-properties"), this.context, size)
    const properties = child(element, "style:paragraph-properties")
    const paragraph = readParagraph(properties, rtl, indent)
    const cap = child(properties, "style:drop-cap")?.attrs["style:style-name"]
    if (paragraph.dropCap && cap !== undefined && element.attrs["style:family"] === "paragraph")
      paragraph.dropCap = { ...paragraph.dropCap, family: this.of("text", cap).letters.family ?? null }
    if (hyphenate !== undefined && element.attrs["style:family"] === "paragraph") paragraph.hyphenate = hyphenate
    return { letters, paragraph, hidden }
  }

  private readonly made: Record<string, Style> = {}

  /** What a style says of something, or else the nearest of those that it starts from. */
  private nearest<T>(key: string, of: (style: Style) => T | undefined): T | undefined {
    for (let at: string | null = key, turns = 0; at !== null && turns < 30; turns++) {
      const own: Style | undefined = entryOf(this.made, at)
      const found = own && of(own)
      if (found !== undefined) return found
      at = own?.parent ?? null
    }
    return undefined
  }

  private sizeOf(key: string): number | undefined {
    return this.nearest(key, ({ letters }) => letters.size) ?? this.defaults.letters.size
  }

  private indentOf(key: string): number {
    return this.nearest(key, ({ paragraph }) => paragraph.indentLeft) ?? this.defaults.paragraph.indentLeft
  }

  /** The tab stops of a paragraph with a style, whether that says them or a style over it. */
  stopsOf(name: string | undefined): readonly TabStop[] {
    const { key, paragraph } = this.of("paragraph", name)
    return paragraph.tabs ?? this.nearest(key, (own) => own.paragraph.tabs) ?? this.defaults.paragraph.tabs
  }

  isBackward(key: string): boolean {
    return (this.nearest(key, ({ paragraph }) => paragraph.direction) ?? this.defaults.paragraph.direction) === "rtl"
  }

  /** @param list the list that a style gives to its paragraphs */
  sheet(list: (element: XmlElement, key: string) => ParagraphFormat["list"] | undefined): StyleSheet["styles"] {
    const { made } = this
    const make = (name: string, turns = 0): string | null => {
      const key = this.keys.get(name)
      const element = this.named.get(name)
      if (key === undefined || !element || turns > 40) return null
      if (Object.hasOwn(made, key)) return key
      const { attrs } = element
      const letters = attrs["style:family"] === "text"
      const family = letters ? "text" : "paragraph"
      const parent = attrs["style:parent-style-name"]
      // What it starts from is made first, so that percentages are of something.
      const over = parent === undefined ? null : make(`${family} ${parent}`, turns + 1)
      if (Object.hasOwn(made, key)) return key
      const read = this.read(
        element,
        over === null ? false : this.isBackward(over),
        over === null ? this.defaults.letters.size : this.sizeOf(over),
        over === null ? this.defaults.paragraph.indentLeft : this.indentOf(over),
      )
      const numbered = letters ? undefined : list(element, key)
      if (numbered !== undefined) read.paragraph.list = numbered
      const outline = Number(attrs["style:default-outline-level"])
      const heading = /^heading(\d)$/.exec(key)
      const next = attrs["style:next-style-name"]
      made[key] = {
        name:
          asName(
            entryOf(defaultStyles.styles, key)?.name ?? attrs["style:display-name"] ?? attrs["style:name"] ?? key,
          ) || key,
        ...(letters ? { kind: "letters" as const } : {}),
        parent: key === bodyStyle ? null : (over ?? (letters ? null : heading ? headingsStyle : null)),
        next: next === undefined || letters ? null : (this.keys.get(`paragraph ${next}`) ?? null),
        outline: letters ? null : outline >= 1 && outline <= 9 ? outline : heading ? Number(heading[1]) : null,
        paragraph: letters ? {} : read.paragraph,
        letters: read.letters,
      }
      return key
    }
    for (const name of this.keys.keys()) make(name)
    addReadyStyles(made)
    return made
  }
}

/** Styles of a part by family and name. */
function stylesIn(part: XmlElement | undefined): Map<string, XmlElement> {
  return new Map(
    childrenNamed(part, "style:style").map((own) => [
      `${own.attrs["style:family"] ?? ""} ${own.attrs["style:name"] ?? ""}`,
      own,
    ]),
  )
}
