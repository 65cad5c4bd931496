/** Remarks on the wording of a paragraph: what is seen here in every language, and what those who know one language say of a passage in it. */
import type { Node } from "prosemirror-model"
import { limits, segmenter, textOf, type StyleSheet } from "../../document"
import { languagesOf } from "../languages"
import { countWords } from "../statistics"
import { wordingKindNames, type WordingKind } from "./kinds"

export * from "./kinds"

/** By offsets in the text. */
export interface Remark {
  from: number
  to: number
  kind: WordingKind
  /** What is said of it. */
  says: string
  /** What could stand there; "" where it could be left out. */
  instead: readonly string[]
}

/** By what remarks of one kind on the same words are left: short, as names in a document are. */
export function remarkName(kind: WordingKind, words: string): string {
  return `${kind} ${words}`.slice(0, limits.name).replace(/[\ud800-\udbff]$/, "")
}

/** The kind and the words of a name. */
export function remarkNamed(name: string): { kind: WordingKind | undefined; words: string } {
  const blank = name.indexOf(" ")
  return { kind: wordingKindNames.find((kind) => kind === name.slice(0, blank)), words: name.slice(blank + 1) }
}

/** A text and its language, to be looked through by who knows that. */
export interface Passage {
  text: string
  language: string
}

/** In longer paragraphs wording is not looked at, in characters. */
const longest = 20_000
/** From so many words on a sentence is long. */
const longFrom = 40

const isEnglish = (language: string) => /^en\b/i.test(language)

/** What of a paragraph is to be asked about: all of it if it is mostly in English, with its fields as they are. */
export function passageOf(styles: StyleSheet, paragraph: Node): Passage | null {
  const text = textOf(paragraph)
  if (text.length > longest || !/\p{L}{2}/u.test(text)) return null
  const stretches = languagesOf(styles, paragraph)
  const english = stretches.filter(({ language }) => isEnglish(language))
  const length = english.reduce((sum, { from, to }) => sum + to - from, 0)
  return english[0] && length * 2 > text.length ? { text, language: english[0].language } : null
}

function longSentences(text: string): Remark[] {
  if (text.length > longest || text.length < longFrom * 2) return []
  const found: Remark[] = []
  for (const { segment, index } of segmenter("sentence").segment(text)) {
    const words = segment.length < longFrom * 2 ? 0 : countWords(segment.replace(/\ufffc/g, ""))
    if (words >= longFrom)
      found.push({
        from: index,
        to: index + segment.trimEnd().length,
        kind: "long",
        says: `This sentence has ${words} words.`,
        instead: [],
      })
  }
  return found
}

/** Whether a text is a heading, an item or a cell rather than sentences: those may begin as they like. */
const isLabel = (text: string) => !/[.!?…:]["”’)\]]*\s*$/u.test(text)

/** All remarks on a paragraph, in the order of its text. @param said what was said of its passage */
export function remarksOn(styles: StyleSheet, paragraph: Node, said: readonly Remark[]): Remark[] {
  const text = textOf(paragraph)
  const foreign = languagesOf(styles, paragraph).filter(({ language }) => !isEnglish(language))
  const holds = ({ from, to, kind }: Remark) =>
    from >= 0 &&
    from < to &&
    to <= text.length &&
    // A field stands for words that are not known here.
    !text.slice(Math.max(0, from - 1), to + 1).includes("\ufffc") &&
    !foreign.some((own) => own.from < to && from < own.to) &&
    !(kind === "capitals" && text.slice(0, from).trim() === "" && isLabel(text))
  return [...said.filter(holds), ...longSentences(text)].sort((a, b) => a.from - b.from || a.to - b.to)
}
