/** The words of a paragraph that can be spelt rightly or wrongly, each in its language. */
import type { Node } from "prosemirror-model"
import { letterLook, paragraphLook, textOf, type StyleSheet } from "../../document"
import { dictionaries, dictionaryOf, type DictionaryName } from "./dictionaries"

/** A word by its offsets in the paragraph. */
export interface Word {
  from: number
  to: number
  /** As it is looked up: with plain apostrophes and without soft hyphens. */
  word: string
  dictionary: DictionaryName
}

/** Letters, with apostrophes and hyphens between them. */
const words = /[\p{L}\p{M}\u00ad]+(?:['’\-\u2010\u2011][\p{L}\p{M}\u00ad]+)*/gu
/** In what stands between blanks and is no writing: addresses, paths, what is made of signs. */
const signs = /[@\\_#]|:\/\/|^www\./u
/** And at the end of names of files and hosts. */
const ending = /[\p{L}\p{N}]\.\p{L}{2,5}$/u
/** Abbreviations, and names written in a manner of their own. */
const asItIs = /^[\p{Lu}\p{M}'’-]+$|\p{Ll}\p{Lu}/u
const digit = /[\p{N}_]/u
/** Longer ones are not looked up: nobody writes them, and they take long. */
const longest = 60

interface Stretch {
  from: number
  to: number
  language: string
}

/** The languages of a paragraph, stretch by stretch. */
function languagesOf(styles: StyleSheet, paragraph: Node): Stretch[] {
  const base = paragraphLook(styles, paragraph).letters
  const found: Stretch[] = []
  paragraph.forEach((child, offset) => {
    const { language } = child.marks.length === 0 ? base : letterLook(styles, base, child.marks)
    const last = found.at(-1)
    if (last?.language === language) last.to = offset + child.nodeSize
    else found.push({ from: offset, to: offset + child.nodeSize, language })
  })
  return found
}

interface Known {
  styles: StyleSheet
  words: readonly Word[]
}
const known = new WeakMap<Node, Known>()

/** Whether the words of a paragraph were found before, so that asking for them costs nothing. */
export function knowsWords(styles: StyleSheet, paragraph: Node): boolean {
  return known.get(paragraph)?.styles === styles
}

/** The words of a paragraph that are looked up. Those in a language without a dictionary, or of "zxx", are not among them. */
export function spelledWords(styles: StyleSheet, paragraph: Node): readonly Word[] {
  const before = known.get(paragraph)
  if (before?.styles === styles) return before.words
  const found = findWords(styles, paragraph)
  known.set(paragraph, { styles, words: found })
  return found
}

function findWords(styles: StyleSheet, paragraph: Node): Word[] {
  const text = textOf(paragraph)
  const stretches = languagesOf(styles, paragraph)
  const passed = [...text.matchAll(/\S+/g)]
    .filter(([token]) => signs.test(token) || ending.test(token.slice(-12).replace(/[,.;:!?)\]}"'’”]+$/, "")))
    .map(({ index, 0: token }) => ({ from: index, to: index + token.length }))
  const found: Word[] = []
  let at = 0
  let address = 0
  for (const { index: from, 0: own } of text.matchAll(words)) {
    const to = from + own.length
    while ((stretches[at]?.to ?? Infinity) <= from) at++
    while ((passed[address]?.to ?? Infinity) <= from) address++
    if ((passed[address]?.from ?? Infinity) < to) continue
    if (own.length > longest || asItIs.test(own)) continue
    if (digit.test(text[from - 1] ?? "") || digit.test(text[to] ?? "")) continue
    const dictionary = dictionaryOf(stretches[at]?.language ?? "")
    if (dictionary === null || !dictionaries[dictionary].script.test(own)) continue
    const word = plain(own)
    if (word.length > 1) found.push({ from, to, word, dictionary })
  }
  return found
}

function plain(word: string): string {
  return word
    .replace(/\u00ad/g, "")
    .replace(/’/g, "'")
    .replace(/[\u2010\u2011]/g, "-")
    .normalize("NFC")
}

/**
 * Whether a word is among those that somebody said are right. A word is, then, with a capital and all in capitals too, and with the 's
 * of a possessive; a name that was said with its capital is not right without it.
 */
export function isAmong(known: { has(word: string): boolean }, word: string): boolean {
  const own = word.replace(/'s$/i, "")
  const lower = own.toLowerCase()
  return (
    known.has(word) ||
    known.has(own) ||
    (own !== lower && own.slice(1) === lower.slice(1) && known.has(lower)) ||
    (own === own.toUpperCase() && (known.has(lower) || known.has(own[0] + lower.slice(1))))
  )
}
