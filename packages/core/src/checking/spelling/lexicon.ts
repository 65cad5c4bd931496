/** What is known of words. A text is gone through letter by letter and none of its words is cut out, which counts when a whole document is looked through. */
import { hashed, hashFactor, LetterCodes, WordTable, type Codes } from "../../document/wordTable"

/** A word, and what is known of it. */
export interface Entry {
  readonly word: string
  /** Whether it is as it should be, or nobody judges; null as long as the dictionary was not asked. */
  right: boolean | null
}

/** Longer ones are not looked up: nobody writes them, and they take long. */
export const longest = 60
/** Abbreviations, and names written in a manner of their own. */
export const asItIs = /^[\p{Lu}\p{M}'’-]+$|\p{Ll}\p{Lu}/u

const blank = 0x20
const typographic = 0x2019
/** Dashes, quotation marks, dots, no-break spaces, and what stands for fields. */
export const usualSigns = new Set([0xa0, 0x2013, 0x2014, 0x2018, typographic, 0x201a, 0x201c, 0x201d, 0x2026, 0xfffc])

// What a character is for words. One by one, since they are read for each letter.
const other = 0
const letter = 1
const joint = 2
const figure = 3
const full = 4
const colon = 5
const sign = 6
const foreign = 7

/** The kind of an ASCII character. */
function kindOf(code: number): number {
  const char = String.fromCharCode(code)
  if (/[A-Za-z]/.test(char)) return letter
  if (/\d/.test(char)) return figure
  if (char === "'" || char === "-") return joint
  if (char === ".") return full
  if (char === ":") return colon
  return /[@\\_#]/.test(char) ? sign : other
}
// Nearly all are filled in at once, since asking for each takes as long as three frames.
const kinds = new Uint8Array(0x10000).fill(foreign)
for (let code = 0; code < 128; code++) kinds[code] = kindOf(code)
for (const code of usualSigns) kinds[code] = other
kinds[typographic] = joint

export class Lexicon {
  readonly entries: Entry[] = []
  /** So many of them a dictionary was asked for. */
  private asked = 0
  private readonly table = new WordTable()
  private readonly textCodes = new LetterCodes()
  private readonly wordCodes = new LetterCodes()
  /** By the number of each in the table, where words with either apostrophe are two. */
  private readonly numbered: Entry[] = []

  /** What is known of a word. */
  of(word: string): Entry {
    const codes = this.wordCodes.of(word)
    let hash = 0
    for (let i = 0; i < word.length; i++) hash = hashed(hash, codes[i]!)
    return this.at(word, codes, 0, word.length, hash)
  }

  /** How many words a dictionary was not asked for yet. */
  get waiting(): number {
    return this.entries.length - this.asked
  }

  /** The next words to ask a dictionary for, about so many. */
  take(most: number): string[] {
    const next = this.entries.slice(this.asked, this.asked + most)
    this.asked += next.length
    return next.filter(({ right }) => right === null).map(({ word }) => word)
  }

  /** Those that got no answer are to be asked for again. */
  askAgain(): void {
    this.asked = 0
  }

  /**
   * The words of a text that are looked up, some perhaps several times; null where letters are not plain ones, or an address may be
   * among them, so that each has to be looked at more closely.
   */
  in(text: string): Entry[] | null {
    const found: Entry[] = []
    const end = text.length
    // At hand, since they are read for each letter.
    const [map, by, codes] = [kinds, hashFactor, this.textCodes.of(text)]
    let from = 0
    let hash = 0
    for (let i = 0; i <= end; i++) {
      const code = i < end ? codes[i]! : blank
      const kind = map[code]!
      if (kind === letter || (kind === joint && i > from && kindAt(text, i + 1) === letter)) {
        hash = hashed(hash, code, by)
        continue
      }
      if (kind === figure) i = behindFigures(text, i) - 1
      else {
        const length = i - from
        if (length > 1 && length <= longest) found.push(this.at(text, codes, from, i, hash))
        if (kind > figure && isApart(text, i, kind)) return null
      }
      from = i + 1
      hash = 0
    }
    return found
  }

  private at(text: string, codes: Codes, from: number, to: number, hash: number): Entry {
    const n = this.table.number(codes, from, to, hash)
    return this.numbered[n] ?? (this.numbered[n] = this.made(text.slice(from, to)))
  }

  private made(own: string): Entry {
    if (own.includes("’")) return this.of(own.replaceAll("’", "'"))
    // A word of small letters behind its first one is like most, so that nothing more is asked of it.
    const entry: Entry = { word: own, right: !/^.[a-z]*$/.test(own) && asItIs.test(own) ? true : null }
    this.entries.push(entry)
    return entry
  }
}

/** At the end of a text nothing follows. */
const kindAt = (text: string, at: number) => (at < text.length ? kinds[text.charCodeAt(at)]! : other)

/** What stands together with figures is no word. */
function behindFigures(text: string, at: number): number {
  let i = at
  for (let kind = kindAt(text, i); kind === letter || kind === figure; kind = kindAt(text, i)) i++
  return i
}

/** Whether a sign makes a text one that takes a closer look: a full stop with a letter behind it stands in names of files and hosts, and "www." is one even alone. */
function isApart(text: string, at: number, kind: number): boolean {
  if (kind === full) return kindAt(text, at + 1) === letter || (at > 1 && text.startsWith("ww", at - 2))
  return kind !== colon || text.startsWith("//", at + 1)
}
