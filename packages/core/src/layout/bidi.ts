/// <reference path="./bidi-js.d.ts" />
/** Which way text runs: Unicode Standard Annex 9, by the bidi-js package. */
import createBidi from "bidi-js"

const bidi = createBidi()

/** Has letters, signs or controls that can make text run from right to left. */
const rightToLeft =
  /[\u0590-\u08ff\u200f\u202a-\u202e\u2066-\u2069\ufb1d-\ufdff\ufe70-\ufeff]|[\ud802\ud803\ud83a\ud83b]/

/** The embedding level of each UTF-16 unit, odd for right to left; null where all of the text runs left to right. */
export function bidiLevels(text: string, direction: "ltr" | "rtl"): Uint8Array | null {
  if (direction === "ltr" && !rightToLeft.test(text)) return null
  return bidi.getEmbeddingLevels(text, direction).levels
}

/**
 * Brings the pieces of a line from logical into visual order (rule L2): from the highest level to the
 * lowest odd one, every stretch of pieces at that level or above is turned round.
 */
export function visualOrder<T>(pieces: readonly T[], levelOf: (piece: T) => number): T[] {
  const order = [...pieces]
  const levels = order.map(levelOf)
  const lowestOdd = Math.min(...levels.map((level) => (level % 2 === 1 ? level : level + 1)))
  for (let level = Math.max(0, ...levels); level >= lowestOdd; level--) {
    for (let from = 0; from < order.length; from++) {
      if ((levels[from] as number) < level) continue
      let to = from + 1
      while (to < order.length && (levels[to] as number) >= level) to++
      order.splice(from, to - from, ...order.slice(from, to).reverse())
      levels.splice(from, to - from, ...levels.slice(from, to).reverse())
      from = to
    }
  }
  return order
}
