import type { Node } from "prosemirror-model"
import { bodyOf, blockText } from "../document"

const segmenter = new Intl.Segmenter(undefined, { granularity: "word" })
/** Scripts that write no spaces between words: Thai and its neighbours, Burmese, Khmer, Chinese, Japanese. */
const unspaced = /[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u1950-\u19df\u1a20-\u1aaf\u3040-\u30ff\u3400-\u9fff\uf900-\ufaff\u{20000}-\u{3ffff}]/u

/** Words in a text. Where words are divided by spaces, a word is what stands between them if it holds a letter or a digit. */
export function countWords(text: string): number {
  if (!unspaced.test(text)) return text.match(/[^\s\u2013\u2014]*[\p{L}\p{N}][^\s\u2013\u2014]*/gu)?.length ?? 0
  let n = 0
  for (const segment of segmenter.segment(text)) if (segment.isWordLike) n++
  return n
}

const counted = new WeakMap<Node, number>()

function blockWords(block: Node): number {
  let words = counted.get(block)
  if (words === undefined) counted.set(block, (words = countWords(blockText(block))))
  return words
}

/** Counts the words between two positions block by block, so that one can pause. Whole blocks that were counted before are not counted again. */
export function* countingWords(doc: Node, from = 0, to = doc.content.size): Generator<void, number> {
  let sum = 0
  let start = 1
  for (const block of bodyOf(doc).children) {
    const end = start + block.nodeSize
    if (from < end && to > start) {
      sum += from <= start + 1 && to >= end - 1 ? blockWords(block) : countWords(block.textBetween(Math.max(0, from - start - 1), Math.min(block.content.size, to - start - 1), "\n"))
      yield
    }
    start = end
  }
  return sum
}

/** Counts the words between two positions at a stretch. */
export function wordsIn(doc: Node, from?: number, to?: number): number {
  const counting = countingWords(doc, from, to)
  let step = counting.next()
  while (!step.done) step = counting.next()
  return step.value
}
