/** Glyphs of text as shaping gives them. */

/** Glyphs of one run in visual order. Advances and offsets are in font units. */
export interface ShapedGlyphs {
  count: number
  ids: Uint16Array
  /** Offset in the shaped text (UTF-16 units) of the first cluster. */
  first: number
  /** How far behind it the cluster begins that each glyph belongs to; null where they follow one another unit by unit. See `clusterOf`. */
  clusters: Uint32Array | null
  /** In font units. */
  advances: Int16Array | Int32Array | Float64Array
  /** x and y offset of each glyph, or null where all are zero. */
  offsets: Int32Array | null
  /** A bit for each glyph, set where the text cannot be divided before it without shaping anew. See `isUnsafe`. */
  unsafe: Uint8Array
}

/** What is made of words. */
export type MadeGlyphs = Pick<ShapedGlyphs, "ids" | "clusters" | "advances" | "unsafe">

/** Who knows words. All but `made` is for those that have a glyph for each letter, and for who goes through them from the first to the last. */
export interface Words {
  /** Puts them together. */
  made(own: WordGlyphs): MadeGlyphs
  /** Writes what comes before each letter behind the first, and behind the last. @param x what comes before the first @returns what comes behind the last */
  addUp(own: WordGlyphs, sums: Float64Array, at: number, x: number, scale: number): number
  /** Advance of some glyphs, in font units. */
  units(own: WordGlyphs, first: number, last: number): number
  isUnsafe(own: WordGlyphs, glyph: number): boolean
}

/** Glyphs by the words of their text: lines are broken and measured by these, so that most need not be put together before they are drawn. */
export class WordGlyphs implements ShapedGlyphs {
  readonly #words: Words
  readonly #tight: readonly number[] | null
  #made: MadeGlyphs | null

  /** @param tight the first glyphs of words before which the text cannot be divided; null where they are not known */
  constructor(
    words: Words,
    /** The numbers of its words, as the units of a text: a list would weigh three times as much. */
    readonly numbers: string,
    readonly first: number,
    readonly count: number,
    /** Whether there is one for each letter. */
    readonly isPlain: boolean,
    tight: readonly number[] | null = null,
    made: MadeGlyphs | null = null,
  ) {
    this.#words = words
    this.#tight = tight
    this.#made = made
  }

  private get own(): MadeGlyphs {
    return (this.#made ??= this.#words.made(this))
  }

  get ids() {
    return this.own.ids
  }

  get clusters() {
    return this.isPlain ? null : this.own.clusters
  }

  get advances() {
    return this.own.advances
  }

  get unsafe() {
    return this.own.unsafe
  }

  get offsets() {
    return null
  }

  /** The same ones that nothing is made of, to be kept. */
  unmade(): WordGlyphs {
    return new WordGlyphs(this.#words, this.numbers, this.first, this.count, this.isPlain)
  }

  /** The same ones further along. */
  shifted(by: number): WordGlyphs {
    return new WordGlyphs(this.#words, this.numbers, this.first + by, this.count, this.isPlain, this.#tight, this.own)
  }

  addUp(sums: Float64Array, at: number, x: number, scale: number): number {
    return this.#words.addUp(this, sums, at, x, scale)
  }

  units(first: number, last: number): number {
    return this.#words.units(this, first, last)
  }

  isUnsafe(glyph: number): boolean {
    return this.#words.isUnsafe(this, glyph)
  }

  /** The same of the first glyph of a word. */
  isTight(glyph: number): boolean {
    return this.#tight ? this.#tight.includes(glyph) : this.isUnsafe(glyph)
  }
}

/** Glyphs by words with one for each letter; null for others. */
export const plainWords = (glyphs: ShapedGlyphs): WordGlyphs | null =>
  glyphs instanceof WordGlyphs && glyphs.isPlain ? glyphs : null

/** Glyphs as plain data. */
export const madeGlyphs = ({ count, ids, first, clusters, advances, offsets, unsafe }: ShapedGlyphs): ShapedGlyphs => ({
  count,
  ids,
  first,
  clusters,
  advances,
  offsets,
  unsafe,
})

/** Whether the text cannot be divided before a glyph without shaping anew. */
export function isUnsafe({ unsafe }: ShapedGlyphs, glyph: number): boolean {
  return ((unsafe[glyph >> 3]! >> (glyph & 7)) & 1) === 1
}

/** Advance of some glyphs, in font units. */
export function unitsOf(glyphs: ShapedGlyphs, first: number, last: number): number {
  const words = plainWords(glyphs)
  if (words) return words.units(first, last)
  const { advances } = glyphs
  let units = 0
  for (let g = first; g < last; g++) units += advances[g]!
  return units
}

/** Says that the text cannot be divided before a glyph. */
export function setUnsafe(unsafe: Uint8Array, glyph: number): void {
  unsafe[glyph >> 3]! |= 1 << (glyph & 7)
}

/** That text can be divided before each of so many glyphs. */
export const allSafe = (count: number): Uint8Array => new Uint8Array((count + 7) >> 3)

/** Offset in the shaped text of the cluster that a glyph belongs to. */
export function clusterOf({ first, clusters }: ShapedGlyphs, glyph: number): number {
  return first + (clusters === null ? glyph : (clusters[glyph] as number))
}

/** The same glyphs, all of one cluster. */
export function allOf(glyphs: ShapedGlyphs, cluster: number): ShapedGlyphs {
  return { ...madeGlyphs(glyphs), first: cluster, clusters: new Uint32Array(glyphs.count) }
}

/** Glyphs whose clusters lie elsewhere in the text. */
export function shifted(glyphs: ShapedGlyphs, by: number): ShapedGlyphs {
  if (by === 0) return glyphs
  return glyphs instanceof WordGlyphs ? glyphs.shifted(by) : { ...glyphs, first: glyphs.first + by }
}

/** Room for so many glyphs. One buffer for what each run has: a buffer of its own for each list would weigh as much as what is in them. */
export function newGlyphs(count: number): { ids: Uint16Array; advances: Int16Array; unsafe: Uint8Array } {
  const kept = new ArrayBuffer(4 * count + ((count + 7) >> 3))
  return {
    ids: new Uint16Array(kept, 0, count),
    advances: new Int16Array(kept, 2 * count, count),
    unsafe: new Uint8Array(kept, 4 * count),
  }
}
