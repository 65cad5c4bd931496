/**
 * Shaping word by word: the same words come again and again, so that each is shaped once, with the blank behind it. What the face
 * does between a blank and the letter behind it is learned once for each letter. Where a face does more than that across blanks, its
 * text has to be shaped as a whole; a test holds the two against each other for all faces that ship.
 */
import { grown, hashed, hashFactor, LetterCodes, WordTable, type Codes } from "../../document/wordTable"
import { Recent } from "../recent"
import {
  clusterOf,
  isUnsafe,
  newGlyphs,
  setUnsafe,
  shifted,
  WordGlyphs,
  type MadeGlyphs,
  type ShapedGlyphs,
  type Words,
} from "./glyphs"
import type { LetterPairs, WordStore } from "./pairs"

/** Text as one run of Latin letters, from left to right. */
export type ShapeLatin = (text: string, from: number, to: number) => ShapedGlyphs

// What the glyphs of a word are for a text that is put together: one for each letter, clusters of letters, or nothing that fits; 0 before they are known.
const letterByLetter = 1
const inClusters = 2
const apart = 3

/** So many words are known before others are kept elsewhere: with those of one more text their numbers still have sixteen bits. */
const mostWords = 50_000
/** Longer ones do not come again, and places in a word are kept in eight bits. */
const longest = 100

/** Stretches of so many letters are known as a whole: of a paragraph that long most is as it was when a letter is typed in it. */
const longStretch = 2000
/** So many letters of such are kept. */
const mostLetters = 1_000_000

const blank = 0x20

interface Joint {
  /** Added to the blank before a letter. */
  advance: number
  isUnsafe: boolean
  /** Whether that is all. */
  isKnown: boolean
}

const copied = (text: string) => String.fromCharCode(...Array.from(text, (_, i) => text.charCodeAt(i)))

/** The words of one face in one language and with one choice of features. */
export class ShapedWords implements Words {
  private readonly table = new WordTable()
  private readonly codes = new LetterCodes()
  /** Glyphs of all words one behind the other, and where those of each begin. */
  private starts = new Int32Array(1 << 10)
  private readonly store: WordStore = {
    ids: new Uint16Array(1 << 13),
    advances: new Int16Array(1 << 13),
    unsafe: new Uint8Array(1 << 13),
    clusters: new Uint8Array(1 << 13),
  }
  /** Letters of each word. */
  private lengths = new Uint8Array(1 << 10)
  /** Of each word what it can be put together from. */
  private kinds = new Uint8Array(1 << 10)
  /** By the first glyph of what stands behind a blank, and by the number of a word. */
  private readonly joints = new Map<number, Joint>()
  private readonly byWord: Joint[] = []
  /** Numbers of the words of the text at hand. */
  private numbers = new Int32Array(64)

  constructor(
    private readonly whole: ShapeLatin,
    private readonly pairs: LetterPairs,
  ) {}

  /** Whether it should learn no more. */
  get isFull(): boolean {
    return this.table.count > mostWords
  }

  private readonly stretches = new Recent<string, ShapedGlyphs | null>(
    mostLetters,
    (glyphs) => glyphs?.count ?? 0,
    (own) => this.fromWords(own, 0),
  )

  /** A text from its words; null where it has to be shaped as a whole. */
  shape(text: string, from: number, to: number): ShapedGlyphs | null {
    const own = text.slice(from, to)
    if (to - from < longStretch) return this.fromWords(own, from)
    // A part of a text would hold all of that.
    const glyphs = this.stretches.of(this.stretches.has(own) ? own : copied(own))
    return glyphs && shifted(glyphs, from)
  }

  /** @param first where the text stands */
  private fromWords(text: string, first: number): ShapedGlyphs | null {
    const words = this.find(text)
    if (words === null) return null
    let [count, isPlain] = [0, true]
    for (let w = 0; w < words; w++) {
      const word = this.numbers[w]!
      if (this.kinds[word] === apart) return null
      count += this.starts[word + 1]! - this.starts[word]!
      isPlain &&= this.kinds[word] === letterByLetter
    }
    return this.joined(text, first, words, count, isPlain)
  }

  /** Finds the words of a text, and learns those that come for the first time. @returns how many; null where one is too long */
  private find(text: string): number | null {
    const { table } = this
    const [factor, codes] = [hashFactor, this.codes.of(text)]
    const known = table.count
    // Where those begin and end that come for the first time.
    const fresh: number[] = []
    let words = 0
    for (let at = 0; at < text.length;) {
      const begin = at
      let hash = 0
      for (let code = 0; at < text.length && code !== blank; at++) {
        code = codes[at]!
        hash = hashed(hash, code, factor)
      }
      if (at - begin > longest) {
        // What was found is not forgotten before it is known.
        this.learn(text, codes, fresh, known)
        return null
      }
      if (words === this.numbers.length) this.numbers = grown(this.numbers, words + 1)
      const n = table.number(codes, begin, at, hash)
      if (n === known + fresh.length / 2) fresh.push(begin, at)
      this.numbers[words++] = n
    }
    this.learn(text, codes, fresh, known)
    return words
  }

  /** Learns words that come for the first time: from pairs of letters what can be put together from them, and the others by shaping these together. @param fresh where they begin and end, in the order of their numbers */
  private learn(text: string, codes: Codes, fresh: readonly number[], first: number): void {
    const count = fresh.length / 2
    if (count === 0) return
    this.starts = grown(this.starts, first + count + 1)
    this.kinds = grown(this.kinds, first + count)
    this.lengths = grown(this.lengths, first + count)
    const { starts, kinds, lengths, pairs } = this
    // Only the last of a text has no blank behind it, and comes last here too.
    let unknown = ""
    let room = starts[first]!
    for (let i = 0, n = first; i < count; i++, n++) {
      const [from, to] = [fresh[2 * i]!, fresh[2 * i + 1]!]
      lengths[n] = to - from
      kinds[n] = pairs.has(codes, from, to) ? letterByLetter : 0
      if (kinds[n] === 0) unknown += text.slice(from, to)
      else room += to - from
    }
    const shaped = unknown === "" ? null : this.whole(unknown, 0, unknown.length)
    this.makeRoom(room + (shaped?.count ?? 0))
    let [at, glyph] = [0, 0]
    const learned: number[] = []
    for (let i = 0, n = first; i < count; i++, n++) {
      const [from, to] = [fresh[2 * i]!, fresh[2 * i + 1]!]
      if (kinds[n] === letterByLetter) {
        pairs.put(codes, from, to, this.store, starts[n]!)
        starts[n + 1] = starts[n]! + to - from
        continue
      }
      glyph = this.take(n, shaped!, glyph, at)
      if (learned.length > 0) this.loosen(first + learned.at(-1)!, n, unknown, at)
      learned.push(i)
      at += to - from
    }
    for (const i of learned)
      if (kinds[first + i] === letterByLetter)
        pairs.see(codes, fresh[2 * i]!, fresh[2 * i + 1]!, this.store, starts[first + i]!)
  }

  /** Takes the glyphs of a word out of those of a text. @param at where it begins there @returns the first glyph behind it */
  private take(word: number, glyphs: ShapedGlyphs, from: number, at: number): number {
    const { count, ids, advances } = glyphs
    const { store, starts } = this
    const start = starts[word]!
    const [length, next] = [this.lengths[word]!, at + this.lengths[word]!]
    let isPlain = true
    let [glyph, own] = [from, start]
    for (; glyph < count && clusterOf(glyphs, glyph) < next; glyph++, own++) {
      store.ids[own] = ids[glyph]!
      store.advances[own] = advances[glyph]!
      store.unsafe[own] = own > start && isUnsafe(glyphs, glyph) ? 1 : 0
      store.clusters[own] = clusterOf(glyphs, glyph) - at
      isPlain &&= store.clusters[own] === own - start
    }
    starts[word + 1] = own
    const isApart = glyphs.offsets !== null || !(advances instanceof Int16Array)
    const isWhole = own > start && store.clusters[start] === 0
    this.kinds[word] = isApart || !isWhole ? apart : isPlain && own - start === length ? letterByLetter : inClusters
    return glyph
  }

  /** Takes from the blank behind a word what the one that stood behind it has done to it. */
  private loosen(word: number, next: number, text: string, at: number): void {
    if (this.kinds[word] === apart) return
    const joint = this.kinds[next] === apart ? null : this.joint(text, at, next)
    if (joint?.isKnown) this.store.advances[this.starts[word + 1]! - 1]! -= joint.advance
    else this.kinds[word] = apart
  }

  private makeRoom(glyphs: number): void {
    const { store } = this
    store.ids = grown(store.ids, glyphs)
    store.advances = grown(store.advances, glyphs)
    store.unsafe = grown(store.unsafe, glyphs)
    store.clusters = grown(store.clusters, glyphs)
  }
  /** What comes between a blank and the first glyph of a word behind it. */
  private joint(text: string, from: number, word: number): Joint {
    return this.byWord[word] ?? (this.byWord[word] = this.jointBefore(text, from, word))
  }

  private jointBefore(text: string, from: number, word: number): Joint {
    const start = this.starts[word]!
    const id = this.store.ids[start]!
    let joint = this.joints.get(id)
    if (!joint) {
      // The letters of its first glyph.
      let next = start + 1
      while (next < this.starts[word + 1]! && this.store.clusters[next] === 0) next++
      const letters = next < this.starts[word + 1]! ? this.store.clusters[next]! : 1
      const own = text.slice(from, from + letters)
      const [before, alone] = [this.whole(" ", 0, 1), this.whole(own, 0, letters)]
      const both = this.whole(` ${own}`, 0, letters + 1)
      const isKnown =
        before.count === 1 &&
        both.count === alone.count + 1 &&
        both.ids[0] === before.ids[0] &&
        !both.offsets &&
        alone.ids.every((glyph, i) => glyph === both.ids[i + 1] && alone.advances[i] === both.advances[i + 1])
      const advance = both.advances[0]! - before.advances[0]!
      this.joints.set(id, (joint = { advance, isUnsafe: isUnsafe(both, 1), isKnown }))
    }
    return joint
  }

  private joined(text: string, first: number, words: number, count: number, isPlain: boolean): ShapedGlyphs | null {
    let at = 0
    const tight: number[] = []
    for (let w = 0; w < words; w++) {
      const word = this.numbers[w]!
      if (w > 0) {
        const joint = this.joint(text, at, word)
        if (!joint.isKnown) return null
        if (joint.isUnsafe) tight.push(at)
      }
      at += this.lengths[word]!
    }
    const numbers = String.fromCharCode.apply(null, this.numbers.subarray(0, words) as unknown as number[])
    return new WordGlyphs(this, numbers, first, count, isPlain, isPlain ? tight : null)
  }

  /** Puts words together, none of which is met for the first time. */
  made({ numbers, count, isPlain }: WordGlyphs): MadeGlyphs {
    const { ids, advances, unsafe } = newGlyphs(count)
    const clusters = isPlain ? null : new Uint32Array(count)
    const { starts, lengths, byWord } = this
    const { ids: ownIds, advances: ownAdvances, unsafe: ownUnsafe, clusters: places } = this.store
    let [at, glyph] = [0, 0]
    for (let w = 0; w < numbers.length; w++) {
      const word = numbers.charCodeAt(w)
      const end = starts[word + 1]!
      if (w > 0) {
        const joint = byWord[word]!
        advances[glyph - 1]! += joint.advance
        if (joint.isUnsafe) setUnsafe(unsafe, glyph)
      }
      for (let i = starts[word]!; i < end; i++, glyph++) {
        ids[glyph] = ownIds[i]!
        advances[glyph] = ownAdvances[i]!
        if (ownUnsafe[i] === 1) setUnsafe(unsafe, glyph)
        if (clusters) clusters[glyph] = at + places[i]!
      }
      at += lengths[word]!
    }
    return { ids, clusters, advances, unsafe }
  }

  addUp({ numbers }: WordGlyphs, sums: Float64Array, at: number, x: number, scale: number): number {
    const { starts, byWord } = this
    const { advances } = this.store
    const words = numbers.length
    let word = words > 0 ? numbers.charCodeAt(0) : 0
    for (let w = 1; w <= words; w++) {
      const last = starts[word + 1]! - 1
      for (let i = starts[word]!; i < last; i++) sums[++at] = x += advances[i]! * scale
      let advance = advances[last]!
      if (w < words) advance += byWord[(word = numbers.charCodeAt(w))]!.advance
      sums[++at] = x += advance * scale
    }
    return x
  }

  /** The word of a text that was come to last, and where it begins there: who asks goes on from there. */
  private reached: { own: WordGlyphs | null; word: number; at: number } = { own: null, word: 0, at: 0 }

  /** Goes to the word that a glyph belongs to. */
  private reach(own: WordGlyphs, glyph: number): { word: number; at: number } {
    const { reached, starts } = this
    if (reached.own !== own || reached.at > glyph) {
      reached.own = own
      reached.word = reached.at = 0
    }
    const { numbers } = own
    for (; reached.word < numbers.length; reached.word++) {
      const word = numbers.charCodeAt(reached.word)
      const end = reached.at + starts[word + 1]! - starts[word]!
      if (end > glyph) break
      reached.at = end
    }
    return reached
  }

  units(own: WordGlyphs, first: number, last: number): number {
    const { numbers } = own
    const { starts, byWord } = this
    const { advances } = this.store
    const reached = this.reach(own, first)
    let units = 0
    for (let [glyph, w, at] = [first, reached.word, reached.at]; glyph < last; w++) {
      const word = numbers.charCodeAt(w)
      const [begin, end] = [starts[word]!, starts[word + 1]!]
      const to = Math.min(end, begin + last - at)
      for (let i = begin + glyph - at; i < to; i++) units += advances[i]!
      if (to === end && w + 1 < numbers.length) units += byWord[numbers.charCodeAt(w + 1)]!.advance
      glyph = at += end - begin
    }
    return units
  }

  isUnsafe(own: WordGlyphs, glyph: number): boolean {
    const { word: w, at } = this.reach(own, glyph)
    if (w >= own.numbers.length) return false
    const word = own.numbers.charCodeAt(w)
    if (glyph === at) return w > 0 && this.byWord[word]!.isUnsafe
    return this.store.unsafe[this.starts[word]! + glyph - at] === 1
  }
}
