/** Words by their letters, found in a text without being cut out of it: where the same come again and again, that is most of the work. */

/** Another one each time, so that nobody can think out words that all have one place. */
export const hashFactor = Math.floor(Math.random() * 2 ** 29) * 2 + 1

/** The hash of letters with one more. @param factor given where it is at hand, in loops over letters */
export const hashed = (hash: number, code: number, factor = hashFactor) => (Math.imul(hash, factor) + code) | 0
const mixed = (hash: number) => hash ^ (hash >>> 15)

export function grown<T extends Int32Array | Uint16Array | Int16Array | Uint8Array>(array: T, needed: number): T {
  if (array.length >= needed) return array
  const larger = new (array.constructor as new (length: number) => T)(Math.max(needed, array.length * 2))
  larger.set(array)
  return larger
}

/** The codes of letters one behind the other. */
export type Codes = Uint8Array | Uint16Array

const encoder = new TextEncoder()

/** Gives the letters of texts by their codes, for loops over them: asked for one by one they take three times as long. */
export class LetterCodes {
  private narrow = new Uint8Array(1 << 10)
  private wide = new Uint16Array(0)
  private text = ""
  private codes: Codes = this.narrow

  /** Those of a text, and what is left of others behind them; until another one is asked for. */
  of(text: string): Codes {
    if (text !== this.text) {
      this.codes = this.read(text)
      this.text = text
    }
    return this.codes
  }

  private read(text: string): Codes {
    const { length } = text
    this.narrow = grown(this.narrow, length + 1)
    // A letter that is no ASCII takes more than a byte; where there is no room for that, not all are read.
    const { read, written } = encoder.encodeInto(text, this.narrow)
    if (read === length && written === length) return this.narrow
    this.wide = grown(this.wide, length)
    for (let i = 0; i < length; i++) this.wide[i] = text.charCodeAt(i)
    return this.wide
  }
}

/** Numbers words in the order in which they come. */
export class WordTable {
  count = 0
  /** Numbers and one more, by hash; 0 where there is none. */
  private table = new Int32Array(1 << 12)
  /** The letters of all one behind the other, and where those of each begin. */
  private letters = new Uint16Array(1 << 14)
  private starts = new Int32Array(1 << 11)
  private hashes = new Int32Array(1 << 11)

  /** The number of a stretch of a text; one that is new gets the next, and counts from then on. @param hash of its letters, from 0 on */
  number(codes: Codes, from: number, to: number, hash: number): number {
    const { table, starts, letters, hashes } = this
    const length = to - from
    const mask = table.length - 1
    let slot = mixed(hash) & mask
    for (let n = table[slot]!; n > 0; n = table[(slot = (slot + 1) & mask)]!) {
      if (hashes[n - 1] !== hash) continue
      const start = starts[n - 1]!
      if (starts[n]! - start !== length) continue
      let same = 0
      while (same < length && letters[start + same] === codes[from + same]) same++
      if (same === length) return n - 1
    }
    return this.add(codes, from, to, hash, slot)
  }

  private add(codes: Codes, from: number, to: number, hash: number, slot: number): number {
    const start = this.starts[this.count]!
    const end = start + to - from
    this.letters = grown(this.letters, end)
    for (let i = from; i < to; i++) this.letters[start + i - from] = codes[i]!
    const n = ++this.count
    this.starts = grown(this.starts, n + 1)
    this.starts[n] = end
    this.hashes = grown(this.hashes, n)
    this.hashes[n - 1] = hash
    this.table[slot] = n
    if (n * 2 > this.table.length) this.spread()
    return n - 1
  }

  /** Makes the table twice as large. */
  private spread(): void {
    const table = new Int32Array(this.table.length * 2)
    const mask = table.length - 1
    for (let n = 1; n <= this.count; n++) {
      let slot = mixed(this.hashes[n - 1]!) & mask
      while (table[slot] !== 0) slot = (slot + 1) & mask
      table[slot] = n
    }
    this.table = table
  }
}
