/** Styles and lists of Office Open XML as the tables of RTF, in which each style tells all that it has. */
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"
import { levelAligns, levelFollows, listNumberForms, reversed } from "../pairs"
import { text, type Numbered } from "./tables"
import { lettersWords, paragraphWords, told, type Told } from "./words"

export interface Look {
  paragraph: Told
  letters: Told
}

const none: Told = new Map()

export class WrittenStyles {
  private readonly styles = new Map<string, XmlElement>()
  private readonly numbers = new Map<string, number>()
  private readonly looks = new Map<string, Look>()
  private readonly usual: Look
  private readonly usualStyle: string | undefined

  constructor(
    root: XmlElement | undefined,
    private readonly numbered: Numbered,
  ) {
    const defaults = child(root, "w:docDefaults")
    this.usual = {
      paragraph: told(none, child(child(defaults, "w:pPrDefault"), "w:pPr")),
      letters: told(none, child(child(defaults, "w:rPrDefault"), "w:rPr")),
    }
    for (const style of childrenNamed(root, "w:style")) {
      const id = style.attrs["w:styleId"] ?? ""
      const type = style.attrs["w:type"]
      if (type !== "paragraph" && type !== "character") continue
      this.styles.set(id, style)
      const isUsual = type === "paragraph" && style.attrs["w:default"] === "1"
      // The usual style of paragraphs is number 0.
      this.numbers.set(id, isUsual ? 0 : this.numbers.size + 1)
    }
    this.usualStyle = [...this.numbers].find(([, number]) => number === 0)?.[0]
  }

  number(id: string | undefined): number {
    return this.numbers.get(id ?? "") ?? 0
  }

  /** All that a style says, with what it starts from. */
  look(id = this.usualStyle): Look {
    const known = this.looks.get(id ?? "")
    if (known) return known
    const style = this.styles.get(id ?? "")
    const based = child(style, "w:basedOn")?.attrs["w:val"]
    const isLetters = style?.attrs["w:type"] === "character"
    const before: Look =
      based !== undefined && based !== id
        ? this.look(based)
        : isLetters
          ? { paragraph: none, letters: none }
          : this.usual
    const look = {
      paragraph: told(before.paragraph, child(style, "w:pPr")),
      letters: told(before.letters, child(style, "w:rPr")),
    }
    this.looks.set(id ?? "", look)
    return look
  }

  table(lists: WrittenLists): string {
    const all = [...this.styles].map(([id, style]) => {
      const name = child(style, "w:name")?.attrs["w:val"] ?? id
      const next = child(style, "w:next")?.attrs["w:val"]
      const based = child(style, "w:basedOn")?.attrs["w:val"]
      const { paragraph, letters } = this.look(id)
      const item = lists.item(paragraph)
      const isLetters = style.attrs["w:type"] === "character"
      const relations =
        (based === undefined ? "" : `\\sbasedon${this.number(based)}`) +
        (next === undefined ? "" : `\\snext${this.number(next)}`)
      return isLetters
        ? `{\\*\\cs${this.number(id)} ${text(name)};}`
        : `{\\s${this.number(id)}${item.words}${paragraphWords(item.paragraph, this.numbered)}${lettersWords(letters, this.numbered)}${relations} ${text(name)};}`
    })
    return `{\\stylesheet${all.join("")}}`
  }
}

const forms = reversed(listNumberForms)

export class WrittenLists {
  private readonly abstracts: readonly XmlElement[]
  private readonly nums: readonly XmlElement[]

  constructor(
    root: XmlElement | undefined,
    private readonly numbered: Numbered,
  ) {
    this.abstracts = childrenNamed(root, "w:abstractNum")
    this.nums = childrenNamed(root, "w:num")
  }

  private abstractOf(number: string | undefined): XmlElement | undefined {
    const num = this.nums.find(({ attrs }) => attrs["w:numId"] === number)
    const id = child(num, "w:abstractNumId")?.attrs["w:val"]
    return this.abstracts.find(({ attrs }) => attrs["w:abstractNumId"] === id)
  }

  /**
   * What tells the list that a paragraph stands in, and what it says with the indents of that.
   * @param paragraph what its style says
   * @param direct what it says itself
   */
  item(paragraph: Told, direct?: XmlElement): { words: string; paragraph: Told } {
    const numbering = child(direct, "w:numPr") ?? paragraph.get("w:numPr")
    const number = child(numbering, "w:numId")?.attrs["w:val"]
    if (number === undefined || number === "0") return { words: "", paragraph }
    const level = child(numbering, "w:ilvl")?.attrs["w:val"] ?? "0"
    const own = childrenNamed(this.abstractOf(number), "w:lvl").find(({ attrs }) => attrs["w:ilvl"] === level)
    return { words: `\\ls${number}\\ilvl${level}`, paragraph: told(paragraph, child(own, "w:pPr")) }
  }

  get tables(): string {
    if (this.nums.length === 0) return ""
    const id = (own: string | undefined) => 1000 + Number(own ?? 0)
    const lists = this.abstracts.map(
      (own) =>
        `{\\list\\listtemplateid${id(own.attrs["w:abstractNumId"])}${childrenNamed(own, "w:lvl")
          .map((level) => this.level(level))
          .join("")}\\listid${id(own.attrs["w:abstractNumId"])}}`,
    )
    const overrides = this.nums.map(
      (own) =>
        `{\\listoverride\\listid${id(child(own, "w:abstractNumId")?.attrs["w:val"])}\\listoverridecount0\\ls${own.attrs["w:numId"]}}`,
    )
    return `{\\*\\listtable${lists.join("")}}{\\*\\listoverridetable${overrides.join("")}}`
  }

  private level(own: XmlElement): string {
    const value = (name: string) => child(own, name)?.attrs["w:val"] ?? ""
    const words = value("w:lvlText")
    const at = (names: readonly string[], name: string) => Math.max(0, names.indexOf(value(name)))
    // Numbers of levels are bytes, and told by their places.
    const parts = [...words.matchAll(/%([1-9])|[^%]|%/g)].map(([part, level]) => (level ? Number(level) - 1 : part))
    const places = parts.flatMap((part, i) => (typeof part === "number" ? [`\\'${hex(i + 1)}`] : []))
    const shown = parts.map((part) => (typeof part === "number" ? `\\'${hex(part)}` : text(part)))
    const format = told(new Map(), child(own, "w:pPr"))
    const indent = format.get("w:ind")?.attrs ?? {}
    const first = Number(indent["w:firstLine"] ?? 0) - Number(indent["w:hanging"] ?? 0)
    const letters = told(new Map(), child(own, "w:rPr"))
    const font = letters.get("w:rFonts")?.attrs["w:ascii"]
    return (
      `{\\listlevel\\levelnfc${forms.get(value("w:numFmt")) ?? 0}\\leveljc${at(levelAligns, "w:lvlJc")}\\levelfollow${at(levelFollows, "w:suff")}\\levelstartat${value("w:start") || 1}` +
      `{\\leveltext\\'${hex(parts.length)}${shown.join("")};}{\\levelnumbers${places.join("")};}` +
      `${font ? `\\f${this.numbered.font(font)}` : ""}\\fi${first}\\li${indent["w:left"] ?? 0}}`
    )
  }
}

const hex = (byte: number) => byte.toString(16).padStart(2, "0")
