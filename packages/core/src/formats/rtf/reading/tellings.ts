/** What RTF tells before its text: typefaces, colours, styles, lists, what the document is called. Each is a destination that hears words and text. */
import type { Kept } from "../../../document"
import { propertyKinds } from "../pairs"
import { pageOfSet } from "./encodings"
import { escaped, lettersXml, plainLetters, withLetters, type Letters, type Tables } from "./letters"
import { plainLevel, tellLevel, type List } from "./lists"
import { paragraphXml, plainParagraph, withParagraph, type Paragraph } from "./paragraphs"

/** Hears what stands in a group. */
export interface Destination {
  word?(name: string, value: number | null): void
  text?(text: string): void
  /** A byte written as two digits, where it is no text. */
  hex?(byte: number): void
  binary?(bytes: Uint8Array): void
  /** What a group inside it is for that begins with a word: to tell something, or text of its own; null where that is just said here. */
  group?(name: string): Destination | "story" | null
  /** Hears text of its own that is whole. */
  story?(inside: string): void
  close?(): void
}

export const nothing: Destination = {}

/** Hears a text as a whole, once its group ends. */
export function heard(done: (all: string) => void): Destination {
  let all = ""
  return { text: (text) => (all += text), close: () => done(all) }
}

/** Most of each that is taken. */
const most = 10_000
const longestName = 200

export class Book implements Tables {
  readonly colours: (string | null)[] = []
  readonly fonts = new Map<number, { name: string; page: number | null }>()
  readonly styles: string[] = []
  /** What paragraphs and letters of the styles of paragraphs are like, by number. */
  private readonly looks = new Map<number, { letters: Letters; paragraph: Paragraph }>()
  readonly lists: List[] = []
  readonly overrides = new Map<number, number>()
  /** Its title and the like, and what people made. */
  readonly properties = new Map<string, string>()
  readonly made = new Map<string, Kept["properties"][string]>()

  look(style: number | null): { letters: Letters; paragraph: Paragraph } {
    return this.looks.get(style ?? 0) ?? { letters: plainLetters, paragraph: plainParagraph }
  }

  /** What a paragraph of a style has, and an item of a list in place of that: RTF repeats it. */
  baseOf({ style, list, level }: Paragraph): Paragraph {
    const { paragraph } = this.look(style)
    const of = list === null ? undefined : this.overrides.get(list)
    const told = this.lists.find(({ id }) => id !== null && id === of)?.levels[level]
    if (!told || (told.indent === null && told.first === null)) return paragraph
    return { ...paragraph, own: new Map([...paragraph.own, ["li", told.indent ?? 0], ["fi", told.first ?? 0]]) }
  }

  fontTable(): Destination {
    let number = 0
    let page: number | null = null
    let name = ""
    return {
      word: (word, value) => {
        if (word === "f") [number, name, page] = [value ?? 0, "", null]
        else if (word === "fcharset") page = pageOfSet(value ?? 0)
      },
      text: (text) => {
        name += text
        const end = name.indexOf(";")
        if (end < 0 || this.fonts.size >= most) return
        this.fonts.set(number, { name: name.slice(0, end).trim().slice(0, longestName), page })
        name = ""
      },
      group: (word) => (["falt", "panose", "fname", "fontemb"].includes(word) ? nothing : null),
    }
  }

  colourTable(): Destination {
    let parts = [0, 0, 0]
    let told = false
    return {
      word: (word, value) => {
        const at = ["red", "green", "blue"].indexOf(word)
        if (at < 0) return
        told = true
        parts = parts.map((own, i) => (i === at ? Math.min(255, Math.max(0, value ?? 0)) : own))
      },
      text: (text) => {
        for (const sign of text) {
          if (sign !== ";" || this.colours.length >= most) continue
          this.colours.push(told ? parts.map((own) => own.toString(16).padStart(2, "0")).join("") : null)
          parts = [0, 0, 0]
          told = false
        }
      },
    }
  }

  styleTable(): Destination {
    return { group: () => this.style() }
  }

  private style(): Destination {
    let letters: Letters = plainLetters
    let paragraph: Paragraph = plainParagraph
    let [kind, number, based, next] = ["paragraph", 0, null as number | null, null as number | null]
    let name = ""
    const destination: Destination = {
      word: (word, value) => {
        if (word === "s") number = value ?? 0
        else if (word === "cs") [kind, number] = ["character", value ?? 0]
        else if (word === "ds" || word === "ts") kind = "other"
        else if (word === "sbasedon") based = value
        else if (word === "snext") next = value
        else {
          letters = withLetters(letters, word, value, this) ?? letters
          paragraph = withParagraph(paragraph, word, value, this.colours) ?? paragraph
        }
      },
      text: (text) => (name += text),
      group: () => nothing,
      close: () => {
        const own = name.split(";")[0]?.trim().slice(0, longestName)
        if (!own || kind === "other" || this.styles.length >= most) return
        const id = (n: number) => `${kind === "paragraph" ? "s" : "c"}${n}`
        if (kind === "paragraph") this.looks.set(number, { letters, paragraph })
        const told = paragraphXml({ ...paragraph, style: null }, this.colours)
        this.styles.push(
          `<w:style w:type="${kind}"${kind === "paragraph" && number === 0 ? ' w:default="1"' : ""} w:styleId="${id(number)}"><w:name w:val="${escaped(own)}"/>` +
            (based === null || based === 222 || based === number ? "" : `<w:basedOn w:val="${id(based)}"/>`) +
            (next === null ? "" : `<w:next w:val="${id(next)}"/>`) +
            `${kind === "paragraph" ? told : ""}${lettersXml({ ...letters, style: null }, this)}</w:style>`,
        )
      },
    }
    return destination
  }

  listTable(): Destination {
    return {
      group: (word) => {
        if (word !== "list" || this.lists.length >= most) return nothing
        const list: List = { id: null, levels: [] }
        this.lists.push(list)
        return {
          word: (own, value) => {
            if (own === "listid") list.id = value
          },
          group: (own) => (own === "listlevel" ? this.level(list) : nothing),
        }
      },
    }
  }

  private level(list: List): Destination {
    const level = plainLevel()
    list.levels.push(level)
    return {
      word: (word, value) => {
        tellLevel(level, word, value)
        if (word === "f") level.font = this.fonts.get(value ?? -1)?.name ?? null
      },
      group: (word) => {
        if (word !== "leveltext") return nothing
        const parts: (string | number)[] = []
        level.text = parts
        return {
          text: (text) => void parts.push(...text.slice(0, longestName)),
          hex: (byte) => void parts.push(byte),
          word: (own, value) => {
            if (own === "u" && value !== null) parts.push(String.fromCharCode(value & 0xffff))
          },
        }
      },
    }
  }

  overrideTable(): Destination {
    return {
      group: () => {
        let id = 0
        return {
          word: (word, value) => {
            if (word === "listid") id = value ?? 0
            else if (word === "ls" && this.overrides.size < most) this.overrides.set(value ?? 0, id)
          },
          group: () => nothing,
        }
      },
    }
  }

  info(): Destination {
    const names = new Map([
      ["title", "title"],
      ["subject", "subject"],
      ["author", "creator"],
      ["company", "company"],
    ])
    return {
      group: (word) => {
        const name = names.get(word)
        if (!name) return nothing
        return heard((all) => void this.properties.set(name, all.trim().slice(0, 1000)))
      },
    }
  }

  /** Properties that people made, as they are told: the reader of the other format checks them. */
  userProperties(): Destination {
    let [name, kind] = ["", propertyKinds.get(30)]
    return {
      word: (word, value) => {
        // Whole numbers have one of their own.
        if (word === "proptype") kind = propertyKinds.get(value === 3 ? 5 : (value ?? 30))
      },
      group: (word) => {
        if (word === "propname") return heard((all) => (name = all.trim().slice(0, 1000)))
        if (word !== "staticval") return nothing
        return heard((all) => {
          if (kind && this.made.size < most) this.made.set(name, { kind, value: all.slice(0, 1000) })
        })
      },
    }
  }
}
