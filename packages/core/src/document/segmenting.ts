/** Where words, sentences and what people see as one character end, by the platform. */

type Granularity = "grapheme" | "word" | "sentence"

const made = new Map<Granularity, Intl.Segmenter>()

/** The platform takes its time for the first of them, so that none is made before it is needed. */
export function segmenter(granularity: Granularity): Intl.Segmenter {
  let own = made.get(granularity)
  if (!own) made.set(granularity, (own = new Intl.Segmenter(undefined, { granularity })))
  return own
}
