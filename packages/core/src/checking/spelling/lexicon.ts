/** Words by their letters: a text is gone through letter by letter and none of its words is cut out, which counts when a whole document is looked through. */

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

const [other, letter, joint, figure, full, colon, sign] = [0, 1, 2, 3, 4, 5, 6]

/** What an ASCII character is for words. */
const kinds = Uint8Array.from({ length: 128 }, (_, code) => {
  const char = String.fromCharCode(code)
  if (/[A-Za-z]/.test(char)) return letter
  if (/\d/.test(char)) return figure
  if (char === "'" || char === "-") return joint
  if (char === ".") return full
  if (char === ":") return colon
  return /[@\\_#]/.test(char) ? sign : other
})

const [smallA, smallZ] = [0x61, 0x7a]
const apostrophe = 0x27
const typographic = 0x2019
/** Dashes, quotation marks, dots, no-break spaces, and what stands for fields. */
export const usualSigns = new Set([0xa0, 0x2013, 0x2014, 0x2018, typographic, 0x201a, 0x201c, 0x201d, 0x2026, 0xfffc])

/** What a character is; null where it takes a closer look. */
function kindOf(code: number): number | null {
  if (code < 128) return kinds[code]!
  if (code === typographic) return joint
  return usualSigns.has(code) ? other : null
}

export class Lexicon {
  readonly entries: Entry[] = []
  /** Places in `entries` and one more, by hash; 0 where there is none. */
  private table = new Int32Array(1 << 12)
  /** The letters of all entries one behind the other, and where those of each begin. */
  private letters = new Uint16Array(1 << 14)
  private starts = new Int32Array(1 << 11)

  /** What is known of a word. */
  of(word: string): Entry {
    let hash = 0
    for (let i = 0; i < word.length; i++) hash = hashed(hash, word.charCodeAt(i))
    return this.at(word, 0, word.length, hash)
  }

  /**
   * The words of a text that are looked up, some perhaps several times; null where letters are not plain ones, or an address may be
   * among them, so that each has to be looked at more closely.
   */
  in(text: string): Entry[] | null {
    const found: Entry[] = []
    for (let i = 0; i < text.length;) {
      const kind = kindOf(text.charCodeAt(i))
      if (kind === letter) {
        const from = i
        let hash = 0
        for (;;) {
          const code = text.charCodeAt(i)
          const own = code < 128 ? kinds[code]! : code === typographic ? joint : other
          if (own === letter) hash = hashed(hash, code)
          else if (own === joint && kinds[text.charCodeAt(i + 1)] === letter)
            hash = hashed(hash, code === typographic ? apostrophe : code)
          else break
          i++
        }
        const to = i
        if (kinds[text.charCodeAt(i)] === figure) i = behindFigures(text, i)
        if (i > to || to - from < 2 || to - from > longest) continue
        found.push(this.at(text, from, to, hash))
      } else {
        i++
        if (kind === figure) i = behindFigures(text, i)
        else if (kind === null || kind === sign || (kind === full && mayBeAddress(text, i))) return null
        else if (kind === colon && text.startsWith("//", i)) return null
      }
    }
    return found
  }

  private at(text: string, from: number, to: number, hash: number): Entry {
    const length = to - from
    const mask = this.table.length - 1
    let slot = mixed(hash) & mask
    for (let n = this.table[slot]!; n > 0; n = this.table[(slot = (slot + 1) & mask)]!) {
      const start = this.starts[n - 1]!
      if (this.starts[n]! - start !== length) continue
      let same = 0
      while (same < length && this.letters[start + same] === plainCode(text.charCodeAt(from + same))) same++
      if (same === length) return this.entries[n - 1]!
    }
    return this.add(text, from, to, slot)
  }

  private add(text: string, from: number, to: number, slot: number): Entry {
    const start = this.starts[this.entries.length]!
    const end = start + to - from
    this.letters = grown(this.letters, end)
    let isUsual = true
    for (let i = from; i < to; i++) {
      const code = text.charCodeAt(i)
      // A word of small letters behind its first one is like most, so that nothing more is asked of it.
      isUsual &&= i === from || (code >= smallA && code <= smallZ)
      this.letters[start + i - from] = plainCode(code)
    }
    const word = isUsual ? text.slice(from, to) : text.slice(from, to).replaceAll("’", "'")
    const entry: Entry = { word, right: !isUsual && asItIs.test(word) ? true : null }
    const n = this.entries.push(entry)
    this.starts = grown(this.starts, n + 1)
    this.starts[n] = end
    this.table[slot] = n
    if (n * 2 > this.table.length) this.spread()
    return entry
  }

  /** Makes the table twice as large. */
  private spread(): void {
    const table = new Int32Array(this.table.length * 2)
    const mask = table.length - 1
    for (let n = 1; n <= this.entries.length; n++) {
      let hash = 0
      for (let i = this.starts[n - 1]!; i < this.starts[n]!; i++) hash = hashed(hash, this.letters[i]!)
      let slot = mixed(hash) & mask
      while (table[slot] !== 0) slot = (slot + 1) & mask
      table[slot] = n
    }
    this.table = table
  }
}

/** Another one each time, so that nobody can think out words that all have one place. */
const factor = Math.floor(Math.random() * 2 ** 31) * 2 + 1
const hashed = (hash: number, code: number) => (Math.imul(hash, factor) + code) | 0
const mixed = (hash: number) => hash ^ (hash >>> 15)
const plainCode = (code: number) => (code === typographic ? apostrophe : code)

/** What stands together with figures is no word. */
function behindFigures(text: string, at: number): number {
  let i = at
  for (let kind = kinds[text.charCodeAt(i)]; kind === letter || kind === figure; kind = kinds[text.charCodeAt(i)]) i++
  return i
}

/** A full stop with a letter behind it stands in names of files and hosts; "www." is one even alone. */
const mayBeAddress = (text: string, after: number) =>
  kinds[text.charCodeAt(after)] === letter || text.startsWith("ww", after - 3)

function grown<T extends Int32Array | Uint16Array>(array: T, needed: number): T {
  if (array.length >= needed) return array
  const larger = new (array.constructor as new (length: number) => T)(Math.max(needed, array.length * 2))
  larger.set(array)
  return larger
}
