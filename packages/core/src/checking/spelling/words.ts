/** The words of a paragraph that can be spelt rightly or wrongly, each in its language. */
import type { Node } from "prosemirror-model"
import { textOf, type StyleSheet } from "../../document"
import { languagesOf } from "../languages"
import { dictionaries, dictionaryOf, latin, type DictionaryName } from "./dictionaries"
import { asItIs, longest, usualSigns, type Entry } from "./lexicon"
import type { Lexicons } from "./lexicons"

/** A word by its offsets in the paragraph. */
export interface Word {
  from: number
  to: number
  /** As it is looked up: with plain apostrophes and without soft hyphens. */
  word: string
  dictionary: DictionaryName
}

/** Letters, with apostrophes and hyphens between them; in text of plain letters alone the same is found much sooner. */
const words = /[\p{L}\p{M}\u00ad]+(?:['’\-\u2010\u2011][\p{L}\p{M}\u00ad]+)*/gu
const plainWords = /[A-Za-z]+(?:['’-][A-Za-z]+)*/g
/** In what stands between blanks and is no writing: addresses, paths, what is made of signs. */
const signs = /[@\\_#]|:\/\/|^www\./u
/** And at the end of names of files and hosts. */
const ending = /[\p{L}\p{N}]\.\p{L}{2,5}$/u
const digit = /[\p{N}_]/u

/** Whether a word of plain letters is one in capitals, or with one inside. */
function hasCapitalInside(word: string): boolean {
  for (let i = 1; i < word.length; i++) {
    const code = word.charCodeAt(i)
    if (code >= 65 && code <= 90) return true
  }
  return false
}

/** Whether there is nothing in a text but ASCII and usual signs, and whether an address could be in it: seen in one go, since most texts are so. */
function kindOf(text: string): { isPlain: boolean; mayHaveAddress: boolean } {
  let isPlain = true
  let mayHaveAddress = false
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    if (code > 127) isPlain &&= usualSigns.has(code)
    else if (code === 64 || code === 92 || code === 95 || code === 35) mayHaveAddress = true
    else if (code === 46 || code === 58 || code === 47) {
      // A full stop, colon or stroke with something other than a blank close behind it.
      const next = text.charCodeAt(i + 1)
      if (next > 32) mayHaveAddress = true
    }
  }
  return { isPlain, mayHaveAddress }
}

/** What of a text stands between blanks and is no writing. */
function addressesIn(text: string): { from: number; to: number }[] {
  return [...text.matchAll(/\S+/g)]
    .filter(([token]) => signs.test(token) || ending.test(token.slice(-12).replace(/[,.;:!?)\]}"'’”]+$/, "")))
    .map(({ index, 0: token }) => ({ from: index, to: index + token.length }))
}

/** The words of a paragraph that are looked up. Those in a language without a dictionary, or of "zxx", are not among them. */
export function spelledWords(styles: StyleSheet, paragraph: Node): Word[] {
  const text = textOf(paragraph)
  const { isPlain, mayHaveAddress } = kindOf(text)
  const stretches = languagesOf(styles, paragraph)
  const passed = mayHaveAddress ? addressesIn(text) : []
  const found: Word[] = []
  const pattern = isPlain ? plainWords : words
  pattern.lastIndex = 0
  let at = 0
  let address = 0
  let dictionary: DictionaryName | null = dictionaryOf(stretches[0]?.language ?? "")
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const own = match[0]
    const from = match.index
    const to = from + own.length
    while ((stretches[at]?.to ?? Infinity) <= from) dictionary = dictionaryOf(stretches[++at]?.language ?? "")
    while ((passed[address]?.to ?? Infinity) <= from) address++
    if (dictionary === null || (passed[address]?.from ?? Infinity) < to || own.length > longest) continue
    if ((isPlain ? hasCapitalInside(own) : true) && asItIs.test(own)) continue
    if (isDigit(text, from - 1) || isDigit(text, to)) continue
    if (!(isPlain && dictionaries[dictionary].script === latin) && !dictionaries[dictionary].script.test(own)) continue
    const word = isPlain ? own.replaceAll("’", "'") : plain(own)
    if (word.length > 1) found.push({ from, to, word, dictionary })
  }
  return found
}

/** The words of a paragraph that are looked up, some several times and perhaps some beside figures, without their places: much faster, which counts when a whole document is gone through. */
export function entriesOf(styles: StyleSheet, paragraph: Node, lexicons: Lexicons): Entry[] {
  const [stretch, more] = languagesOf(styles, paragraph)
  const dictionary = stretch && !more ? dictionaryOf(stretch.language) : null
  const found =
    dictionary !== null && dictionaries[dictionary].script === latin
      ? lexicons.of(dictionary).in(textOf(paragraph))
      : null
  return found ?? spelledWords(styles, paragraph).map(({ word, dictionary }) => lexicons.of(dictionary).of(word))
}

function isDigit(text: string, at: number): boolean {
  const code = text.charCodeAt(at)
  if (code < 128) return (code >= 48 && code <= 57) || code === 95
  return at >= 0 && at < text.length && digit.test(text.charAt(at))
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
