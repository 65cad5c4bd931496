/**
 * What a face makes of two letters side by side, seen in words that were shaped: most words that come for the first time are of pairs
 * that have been met, and are put together from these. Only for faces in which nothing depends on more than two letters; which these
 * are is said in families.ts, and a test holds it against whole shaping.
 */
import type { Codes } from "../../document/wordTable"

/** Signs in Latin text that are no ASCII. */
export const usualSigns: readonly number[] = [0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2026]

const places = new Map(usualSigns.map((code, i) => [code, 127 + i]))
/** Letters are ASCII and usual signs; 0 is the end of a word. */
const letters = 127 + usualSigns.length
const placeOf = (code: number) => (code < 127 ? code : (places.get(code) ?? 0))

const isMet = 1
const isUnsafeBefore = 2
/** Seen in more than one way. */
const varies = 4

/** Where the glyphs of words are kept, one behind the other. */
export interface WordStore {
  ids: Uint16Array
  advances: Int16Array
  unsafe: Uint8Array
  /** By glyph, places in its word. */
  clusters: Uint8Array
}

export class LetterPairs {
  /** Of each letter by itself; 0 where it was not asked for. */
  private readonly glyphs = new Uint16Array(letters)
  /** By two letters, what the first takes before the second. */
  private readonly advances = new Int16Array(letters * letters)
  private readonly met = new Uint8Array(letters * letters)

  /** @param nominal the glyph of a character by itself */
  constructor(private readonly nominal: (codePoint: number) => number) {}

  /** Takes note of a word of which each letter has a glyph. @param start where its glyphs are */
  see(codes: Codes, from: number, to: number, store: WordStore, start: number): void {
    const { ids, advances, unsafe } = store
    for (let i = from, own = start; i < to; i++, own++) {
      const isLast = i + 1 === to
      const [place, next] = [placeOf(codes[i]!), isLast ? 0 : placeOf(codes[i + 1]!)]
      if (place === 0 || (next === 0 && !isLast)) return
      const pair = place * letters + next
      const isPlain =
        ids[own] === this.glyphOf(place, codes[i]!) && (isLast || ids[own + 1] === this.glyphOf(next, codes[i + 1]!))
      const state = isPlain ? isMet | (!isLast && unsafe[own + 1] === 1 ? isUnsafeBefore : 0) : varies
      if (this.met[pair] === 0) {
        this.met[pair] = state
        this.advances[pair] = advances[own]!
      } else if (this.met[pair] !== state || this.advances[pair] !== advances[own]) this.met[pair] = varies
    }
  }

  private glyphOf(place: number, code: number): number {
    return this.glyphs[place]! || (this.glyphs[place] = this.nominal(code))
  }

  /** Whether a word can be put together. */
  has(codes: Codes, from: number, to: number): boolean {
    let place = placeOf(codes[from]!)
    for (let i = from + 1; i < to; i++) {
      const next = placeOf(codes[i]!)
      if ((this.met[place * letters + next]! & isMet) === 0) return false
      place = next
    }
    return (this.met[place * letters]! & isMet) !== 0
  }

  /** Puts a word together that it has. @param start where its glyphs come */
  put(codes: Codes, from: number, to: number, store: WordStore, start: number): void {
    let place = placeOf(codes[from]!)
    store.unsafe[start] = 0
    for (let i = from, own = start; i < to; i++, own++) {
      const next = i + 1 < to ? placeOf(codes[i + 1]!) : 0
      const pair = place * letters + next
      store.ids[own] = this.glyphs[place]!
      store.advances[own] = this.advances[pair]!
      if (next !== 0) store.unsafe[own + 1] = this.met[pair]! & isUnsafeBefore ? 1 : 0
      store.clusters[own] = own - start
      place = next
    }
  }
}
