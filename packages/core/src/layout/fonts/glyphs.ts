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
  /** What they can be made of again; null where they have to be kept as they are. */
  kept: WordGlyphs | null
}

/** Whether the text cannot be divided before a glyph without shaping anew. */
export function isUnsafe({ unsafe }: ShapedGlyphs, glyph: number): boolean {
  return ((unsafe[glyph >> 3]! >> (glyph & 7)) & 1) === 1
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
  return { ...glyphs, first: cluster, clusters: new Uint32Array(glyphs.count), kept: null }
}

/** Glyphs whose clusters lie elsewhere in the text. */
export function shifted(glyphs: ShapedGlyphs, by: number): ShapedGlyphs {
  if (by === 0) return glyphs
  const kept = glyphs.kept && { ...glyphs.kept, first: glyphs.kept.first + by }
  return { ...glyphs, first: glyphs.first + by, kept }
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

/** Glyphs by the words of their text. */
export interface WordGlyphs {
  /** Who puts them together. */
  words: { glyphs(own: WordGlyphs): ShapedGlyphs }
  /** Those of its words, as the units of a text: a list would weigh three times as much. */
  numbers: string
  first: number
  count: number
  /** Whether there is one for each letter. */
  isPlain: boolean
}
