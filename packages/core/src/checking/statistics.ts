import type { Node } from "prosemirror-model"
import { leavesOf, segmenter, textOf } from "../document"

/** Scripts that write no spaces between words: Thai and its neighbours, Burmese, Khmer, Chinese, Japanese. */
const unspaced =
  /[\u0e00-\u0eff\u1000-\u109f\u1780-\u17ff\u1950-\u19df\u1a20-\u1aaf\u3040-\u30ff\u3400-\u9fff\uf900-\ufaff\u{20000}-\u{3ffff}]/u

/** Words in a text. Where words are divided by spaces, a word is what stands between them if it holds a letter or a digit. */
export function countWords(text: string): number {
  if (!unspaced.test(text)) return text.match(/[^\s\u2013\u2014]*[\p{L}\p{N}][^\s\u2013\u2014]*/gu)?.length ?? 0
  let n = 0
  for (const segment of segmenter("word").segment(text)) if (segment.isWordLike) n++
  return n
}

const counted = new WeakMap<Node, number>()

/** Words in a paragraph, counted once. */
export function leafWords(leaf: Node): number {
  let words = counted.get(leaf)
  if (words === undefined) counted.set(leaf, (words = countWords(textOf(leaf))))
  return words
}

/** Counts the words between two positions leaf by leaf, so that one can pause. What stands at heads and feet counts only where it alone is meant. Whole leaves that were counted before are not counted again. */
export function* countingWords(doc: Node, from = 0, to = doc.content.size): Generator<void, number> {
  const leaves = leavesOf(doc)
  let sum = 0
  for (let number = leaves.at(from); number < leaves.count && leaves.before(number) < to; number++) {
    const leaf = leaves.node(number)
    const { kind } = leaves.flow(number)
    if ((kind === "header" || kind === "footer") && leaves.flow(leaves.at(from)).kind !== kind) continue
    const [start, end] = [leaves.start(number), leaves.end(number)]
    if (from > end) continue
    sum +=
      from <= start && to >= end
        ? leafWords(leaf)
        : countWords(leaf.textBetween(Math.max(0, from - start), Math.max(0, Math.min(end, to) - start), "\n"))
    yield
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
