import type { Node } from "prosemirror-model"
import { bodyOf, blockText } from "../document"

const segmenter = new Intl.Segmenter(undefined, { granularity: "word" })
const spaced = /^[\u0000-\u024f\u0370-\u052f\u2010-\u2027]*$/

/** Words in a text. Where words are divided by spaces, a word is what stands between them if it holds a letter or a digit. */
export function countWords(text: string): number {
  if (spaced.test(text)) return text.match(/[^\s\u2013\u2014]*[\p{L}\p{N}][^\s\u2013\u2014]*/gu)?.length ?? 0
  let n = 0
  for (const segment of segmenter.segment(text)) if (segment.isWordLike) n++
  return n
}

const counted = new WeakMap<Node, number>()

/** Words in the body; blocks that were counted before are not counted again. */
export function documentWords(doc: Node): number {
  let sum = 0
  bodyOf(doc).forEach((block) => {
    let words = counted.get(block)
    if (words === undefined) counted.set(block, (words = countWords(blockText(block))))
    sum += words
  })
  return sum
}
