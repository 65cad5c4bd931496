/** Styles: named ones of the sheet, and automatic ones for what is said directly, each once. */
import {
  bodyStyle,
  entryOf,
  levelOf,
  listNamed,
  type LetterFormat,
  styleLook,
  type ListLevel,
  type ListPlace,
  type ParagraphFormat,
  type Style,
  type StyleSheet,
  type Typesetting,
} from "../../../document"
import { boxes } from "../../boxes"
import { formLetters } from "../numberForms"
import { xml, type XmlValues } from "../../xml/writing"
import { commonStyles } from "../commonStyles"
import { paragraphProperties, points, textProperties } from "./properties"

const standard = new Map([...commonStyles].map(([name, key]) => [key, name]))

/** A name as names of styles have to be. */
const encoded = (name: string): string => {
  const own = name.replace(/[^\p{L}\p{N}-]/gu, (sign) => `_${sign.codePointAt(0)?.toString(16)}_`)
  return /^\p{L}/u.test(own) ? own : `s${own}`
}

export class WrittenStyles {
  constructor(readonly sheet: StyleSheet) {}

  name(key: string): string {
    const own = entryOf(this.sheet.styles, key) ? key : bodyStyle
    return standard.get(own) ?? encoded(own)
  }

  isBackward(key: string | null): boolean {
    for (let at = key, turns = 0; at !== null && turns < 40; turns++) {
      const own: Style | undefined = entryOf(this.sheet.styles, at)
      if (own?.paragraph.direction) return own.paragraph.direction === "rtl"
      at = own?.parent ?? null
    }
    return this.sheet.defaults.paragraph.direction === "rtl"
  }

  /** The named styles, and the lists that these give to their paragraphs. */
  part(lists: WrittenLists, { before, after, inRow }: Typesetting["hyphenation"]): string {
    const { letters, paragraph } = this.sheet.defaults
    const {
      list: _list,
      dropCap: _cap,
      tabs: _tabs,
      borders: _borders,
      breakBefore: _break,
      columnBefore: _column,
      ...plain
    } = paragraph
    const defaults = xml(
      "style:default-style",
      { "style:family": "paragraph" },
      paragraphProperties(plain, plain.direction === "rtl", plain.indentLeft, {
        "style:tab-stop-distance": "36pt",
        "fo:hyphenation-ladder-count": inRow,
      }),
      textProperties(letters, plain.hyphenate, {
        "fo:hyphenation-remain-char-count": before,
        "fo:hyphenation-push-char-count": after,
      }),
    )
    const named = Object.entries(this.sheet.styles).map(([key, own]) => this.style(key, own, lists))
    return defaults + named.join("")
  }

  private style(key: string, own: Style, lists: WrittenLists): string {
    const letters = own.kind === "letters"
    const { list, hyphenate, ...format } = own.paragraph
    const rtl = (own.paragraph.direction ?? (this.isBackward(own.parent) ? "rtl" : "ltr")) === "rtl"
    return xml(
      "style:style",
      {
        "style:name": this.name(key),
        "style:display-name": own.name === this.name(key) ? undefined : own.name,
        "style:family": letters ? "text" : "paragraph",
        "style:parent-style-name": own.parent === null ? undefined : this.name(own.parent),
        "style:next-style-name": letters || own.next === null ? undefined : this.name(own.next),
        "style:default-outline-level": letters || own.outline === null ? undefined : own.outline,
        "style:list-style-name":
          letters || list === undefined ? undefined : list === null ? "" : lists.style(list.definition),
        "style:list-level": letters || !list ? undefined : list.level + 1,
      },
      !letters && paragraphProperties(format, rtl, styleLook(this.sheet, key).paragraph.indentLeft),
      textProperties(own.letters, letters ? undefined : hyphenate),
    )
  }
}

/** Automatic styles of one part. */
export class AutomaticStyles {
  private readonly made = new Map<string, { name: string; content: string }>()
  private readonly counts = new Map<string, number>()

  /** The name of a style with that in it, of a family whose names begin with some letters. */
  style(prefix: string, family: string, attrs: XmlValues, content: string): string {
    const key = `${family} ${Object.values(attrs).join(" ")} ${content}`
    const known = this.made.get(key)
    if (known) return known.name
    const n = (this.counts.get(prefix) ?? 0) + 1
    this.counts.set(prefix, n)
    const name = `${prefix}${n}`
    const written = xml("style:style", { "style:name": name, "style:family": family, ...attrs }, content)
    this.made.set(key, { name, content: written })
    return name
  }

  /** Names of styles by all that was asked of them. */
  private readonly asked = new Map<string, string | null>()

  private once<Name extends string | null>(asked: readonly unknown[], make: () => Name): Name {
    const key = JSON.stringify(asked)
    const known = this.asked.get(key)
    if (known !== undefined) return known as Name
    const name = make()
    this.asked.set(key, name)
    return name
  }

  paragraph(
    parent: string,
    format: Partial<ParagraphFormat>,
    letters: Partial<LetterFormat>,
    { direction, indentLeft }: Pick<ParagraphFormat, "direction" | "indentLeft">,
    more: XmlValues,
    page: XmlValues,
  ): string {
    return this.once(["P", parent, format, letters, direction, indentLeft, more, page], () => {
      const { list: _list, hyphenate, ...own } = format
      const family = own.dropCap?.family
      const capStyle = family ? (this.text(undefined, { family }) ?? undefined) : undefined
      const content =
        paragraphProperties(own, direction === "rtl", indentLeft, page, capStyle) + textProperties(letters, hyphenate)
      if (content === "" && Object.values(more).every((value) => value === undefined)) return parent
      return this.style("P", "paragraph", { "style:parent-style-name": parent, ...more }, content)
    })
  }

  text(parent: string | undefined, letters: Partial<LetterFormat>): string | null {
    return this.once(["T", parent, letters], () => {
      const content = textProperties(letters)
      if (content === "") return parent ?? null
      return this.style("T", "text", { "style:parent-style-name": parent }, content)
    })
  }

  get part(): string {
    return [...this.made.values()].map(({ content }) => content).join("")
  }
}

const doneName = (definition: string) => `${encoded(definition)}_done`

/** Styles of lists that are used. */
export class WrittenLists {
  private readonly used = new Set<string>()
  /** Those of which something is done. */
  private readonly ticked = new Set<string>()

  constructor(private readonly sheet: StyleSheet) {}

  style(definition: string): string {
    this.used.add(definition)
    return encoded(definition)
  }

  /** The style of an item that is done: the same with boxes that are ticked; undefined for one that is none to tick, or not done. */
  done({ definition, level, done }: ListPlace): string | undefined {
    if (!done || levelOf(this.sheet, definition, level).kind !== "check") return undefined
    this.ticked.add(definition)
    return doneName(definition)
  }

  isCheck(definition: string): boolean {
    return levelOf(this.sheet, definition, 0).kind === "check"
  }

  get part(): string {
    const open = [...this.used].map((own) => this.listStyle(own, encoded(own), "", boxes.open))
    const done = [...this.ticked].map((own) => this.listStyle(own, doneName(own), ", done", boxes.done))
    return [...open, ...done].join("")
  }

  private listStyle(definition: string, name: string, more: string, box: string): string {
    const { name: shown, levels } = listNamed(this.sheet, definition)
    return xml(
      "text:list-style",
      { "style:name": name, "style:display-name": shown + more },
      ...levels.map((own, depth) => this.level(own, depth, box)),
    )
  }

  private level(own: ListLevel, depth: number, box: string): string {
    const place = xml(
      "style:list-level-properties",
      {
        "fo:text-align": own.align === "left" ? undefined : own.align === "right" ? "end" : "center",
        "text:list-level-position-and-space-mode": "label-alignment",
      },
      xml("style:list-level-label-alignment", {
        "text:label-followed-by": { tab: "listtab", space: "space", none: "nothing" }[own.follow],
        "text:list-tab-stop-position": own.follow === "tab" ? points(own.indent) : undefined,
        "fo:text-indent": points(-own.hanging),
        "fo:margin-left": points(own.indent),
      }),
    )
    const letters = textProperties(own.letters)
    if (own.kind !== "number")
      return xml(
        "text:list-level-style-bullet",
        {
          "text:level": depth + 1,
          "text:bullet-char": own.kind === "check" ? box : own.format.slice(0, 1) || "•",
        },
        place,
        letters,
      )
    const [first, ...more] = [...own.format.matchAll(/%(\d)/g)]
    const last = more.at(-1) ?? first
    const shown = first && last ? Number(last[1]) - Number(first[1]) + 1 : 1
    return xml(
      "text:list-level-style-number",
      {
        "text:level": depth + 1,
        "style:num-format": first ? formLetters[own.numbering] : "",
        "style:num-prefix": (first ? own.format.slice(0, first.index) : own.format) || undefined,
        "style:num-suffix": (last ? own.format.slice(last.index + 2) : "") || undefined,
        "text:display-levels": shown > 1 ? Math.min(shown, depth + 1) : undefined,
        "text:start-value": own.start,
      },
      place,
      letters,
    )
  }
}
