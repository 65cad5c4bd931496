/// <reference path="./linebreak.d.ts" />
/** Where lines may break: Unicode Standard Annex 14, by the linebreak package. */
import LineBreaker from "linebreak"

export interface Breaks {
  /** Offsets after which a line may end, ascending; the last is the text's length. */
  offsets: number[]
  /** Offsets at which a line must end. */
  required: Set<number> | null
}

export function lineBreaks(text: string): Breaks {
  const offsets: number[] = []
  let required: Set<number> | null = null
  const breaker = new LineBreaker(text)
  for (let found = breaker.nextBreak(); found; found = breaker.nextBreak()) {
    offsets.push(found.position)
    if (found.required && found.position < text.length) (required ??= new Set()).add(found.position)
  }
  if (offsets.at(-1) !== text.length) offsets.push(text.length)
  return { offsets, required }
}

const graphemes = new Intl.Segmenter(undefined, { granularity: "grapheme" })

/** Offsets of the ends of what people see as one character, for a short text. */
export function graphemeEnds(text: string): number[] {
  return [...graphemes.segment(text)].map((s) => s.index + s.segment.length)
}
