/** How much a text is, in all the ways in which lengths are asked for. Counted leaf by leaf and remembered by node. */
import type { Node } from "prosemirror-model"
import { leavesOf, paragraphAttrs, segmenter, textOf } from "../document"
import { countWords } from "./statistics"

export interface Count {
  words: number
  characters: number
  charactersWithoutBlanks: number
  /** Those that hold something. */
  paragraphs: number
  sentences: number
  /** As they are spoken, roughly: only for the readability of English. */
  syllables: number
}

/** What counts beside the text itself. */
export interface Counted {
  notes: boolean
  captions: boolean
  references: boolean
}

export const allCounted: Counted = { notes: true, captions: true, references: true }

const nothing: Count = {
  words: 0,
  characters: 0,
  charactersWithoutBlanks: 0,
  paragraphs: 0,
  sentences: 0,
  syllables: 0,
}

/** Groups of vowels that are spoken, without an e that is silent at the end. */
const vowels = /[aeiouyà-öø-ÿ]+/giu

function syllablesIn(text: string): number {
  let count = 0
  for (const [word] of text.matchAll(/\p{L}+/gu)) {
    const groups = word.match(vowels)?.length ?? 0
    count += Math.max(1, /[^aeiouyl]e$/i.test(word) && groups > 1 ? groups - 1 : groups)
  }
  return count
}

/** @param text without the signs that stand for fields and pictures */
export function countText(text: string): Count {
  const plain = text.replace(/\ufffc/g, "")
  if (plain.trim() === "") return { ...nothing, characters: plain.length }
  let sentenceCount = 0
  for (const { segment } of segmenter("sentence").segment(plain)) if (/[\p{L}\p{N}]/u.test(segment)) sentenceCount++
  const characters = [...plain].length
  return {
    words: countWords(plain),
    characters,
    charactersWithoutBlanks: characters - (plain.match(/\s/g)?.length ?? 0),
    paragraphs: 1,
    sentences: sentenceCount,
    syllables: syllablesIn(plain),
  }
}

const counted = new WeakMap<Node, Count>()

function leafCount(leaf: Node): Count {
  let count = counted.get(leaf)
  if (!count) counted.set(leaf, (count = countText(textOf(leaf))))
  return count
}

/** Counts what stands between two positions leaf by leaf, so that one can pause. Heads and feet count only where they alone are meant. */
export function* counting(
  doc: Node,
  { notes, captions, references }: Counted = allCounted,
  from = 0,
  to = doc.content.size,
): Generator<void, Count> {
  const leaves = leavesOf(doc)
  const sum = { ...nothing }
  const first = leaves.at(from)
  for (let n = first; n < leaves.count && leaves.before(n) < to; n++) {
    const { kind } = leaves.flow(n)
    if ((kind === "header" || kind === "footer") && leaves.flow(first).kind !== kind) continue
    if ((kind === "note" || kind === "endnote") && !notes && leaves.flow(first).kind !== kind) continue
    const leaf = leaves.node(n)
    const { style } = paragraphAttrs(leaf)
    if ((style === "caption" && !captions) || (style === "reference" && !references)) continue
    const [start, end] = [leaves.start(n), leaves.end(n)]
    if (from > end) continue
    const whole = from <= start && to >= end
    const own = whole
      ? leafCount(leaf)
      : countText(textOf(leaf).slice(Math.max(0, from - start), Math.min(end, to) - start))
    for (const name of Object.keys(sum) as (keyof Count)[]) sum[name] += own[name]
    yield
  }
  return sum
}

/** Words that are read in a minute: the middle of what is measured for plain text. */
const wordsAMinute = 238

/** Minutes that reading takes. */
export const readingMinutes = ({ words }: Count): number => words / wordsAMinute

/** How easily English is read, from 0 to 100: the ease of R. Flesch (1948), of words a sentence and syllables a word; null for too little. */
export function readingEase({ words, sentences: all, syllables }: Count): number | null {
  if (words < 30 || all === 0) return null
  return Math.round(Math.min(100, Math.max(0, 206.835 - 1.015 * (words / all) - 84.6 * (syllables / words))))
}
