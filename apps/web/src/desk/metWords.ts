/** Words that the desk has met, and what the dictionaries say of them: asked once, kept by paragraph. */
import type { Node } from "prosemirror-model"
import { entriesOf, Lexicons, meetingWords, spelledWords, type DictionaryName, type Word } from "@biblon/core/checking"
import { documentAttrs, isLeaf, type StyleSheet } from "@biblon/core/document"
import { Dictionaries } from "../workers/spellingClient"

/** A dictionary that was not to be had is asked for again after so many milliseconds. */
const missingFor = 20_000

/** Words, each with how often it stands there. */
export type Tally = ReadonlyMap<string, number>
const noWords: Tally = new Map()

export interface MetWordsTarget {
  /** Dictionaries that could not be had. */
  missing(names: readonly DictionaryName[]): void
  /** All has to be gone through again, since a dictionary may be there now. */
  again(): void
  /** More is known of words in sight. */
  met(): void
  /** Waits for a time in which words may be looked up that are not in sight. */
  resting(): Promise<void>
}

export class MetWords {
  private readonly dictionaries = new Dictionaries()
  /** Of paragraphs whose words are all known, those that no dictionary has: few, so that they are kept and all others forgotten. */
  private readonly kept = new WeakMap<Node, { styles: StyleSheet; words: readonly Word[] }>()
  /** The same of rows, cells and all else in which all words are known, so that a change has to be looked for only in what it changed. */
  private readonly tallies = new WeakMap<Node, { styles: StyleSheet; words: Tally }>()
  private readonly lexicons = new Lexicons()
  private readonly asked = new Set<string>()
  private readonly asking = new Set<Promise<void>>()
  private retry: ReturnType<typeof setTimeout> | undefined
  private missing: readonly DictionaryName[] = []
  /** How often the dictionaries have said something. */
  private answers = 0
  /** The last paragraph with words that are not known, such as the one that is being typed in: it is asked about several times a letter. */
  private unsure: {
    paragraph: Node
    styles: StyleSheet
    answers: number
    words: readonly Word[]
    unknown: readonly Word[]
  } | null = null

  constructor(private readonly target: MetWordsTarget) {}

  close(): void {
    clearTimeout(this.retry)
    this.dictionaries.close()
  }

  /** Whether it has been found out of all words of a paragraph. */
  isKnown(styles: StyleSheet, paragraph: Node): boolean {
    return this.kept.get(paragraph)?.styles === styles
  }

  /**
   * The words of a paragraph in sight that no dictionary has; those of which that cannot be said yet are asked for ahead of all others.
   * @param typed offset at which a word is being typed, which is not asked for with each letter; left out for none
   */
  unlistedNow(styles: StyleSheet, paragraph: Node, typed = -1): readonly Word[] {
    const unknown: Word[] = []
    const words = this.unlisted(styles, paragraph, unknown)
    const finished = unknown.filter(({ from, to }) => typed < from || typed > to)
    if (finished.length > 0) this.askFor(finished)
    return words
  }

  /** The words of a paragraph that no dictionary has; with `unknown` filled, those that have to be looked up before that can be said. */
  unlisted(styles: StyleSheet, paragraph: Node, unknown: Word[] = []): readonly Word[] {
    const kept = this.kept.get(paragraph)
    if (kept?.styles === styles) return kept.words
    const { unsure, answers } = this
    if (unsure?.paragraph === paragraph && unsure.styles === styles && unsure.answers === answers) {
      unknown.push(...unsure.unknown)
      return unsure.words
    }
    if (this.isRight(styles, paragraph)) {
      this.kept.set(paragraph, { styles, words: [] })
      return []
    }
    const words: Word[] = []
    for (const own of spelledWords(styles, paragraph)) {
      const { right } = this.lexicons.of(own.dictionary).of(own.word)
      if (right === null) unknown.push(own)
      else if (!right) words.push(own)
    }
    if (unknown.length === 0) this.kept.set(paragraph, { styles, words })
    else this.unsure = { paragraph, styles, answers, words, unknown: [...unknown] }
    return words
  }

  /** Whether all words of a paragraph are known to be right, as in most. */
  private isRight(styles: StyleSheet, paragraph: Node): boolean {
    return entriesOf(styles, paragraph, this.lexicons).every(({ right }) => right === true)
  }

  /** The paragraphs of a node of which it is not known yet that all words are. */
  private *unlooked(styles: StyleSheet, node: Node): Generator<Node> {
    if (this.tallies.get(node)?.styles === styles) return
    for (const child of node.children) {
      if (!isLeaf(child)) yield* this.unlooked(styles, child)
      else if (!this.isKnown(styles, child)) yield child
    }
  }

  /** Meets all words of a document, and asks for those that are not known yet. */
  meeting(doc: Node): Generator<void, Promise<void>> {
    const { styles } = documentAttrs(doc)
    return meetingWords(styles, this.unlooked(styles, doc), this.lexicons, (dictionary, words) =>
      this.waitFor(this.target.resting().then(() => this.ask(dictionary, words))),
    )
  }

  /** Counts the words of a document that no dictionary has. */
  counting(doc: Node): Generator<void, Tally> {
    return this.tally(documentAttrs(doc).styles, doc)
  }

  private *tally(styles: StyleSheet, node: Node): Generator<void, Tally> {
    const kept = this.tallies.get(node)
    if (kept?.styles === styles) return kept.words
    const words = new Map<string, number>()
    const add = (word: string, times: number) => words.set(word, (words.get(word) ?? 0) + times)
    let isWhole = true
    for (const child of node.children) {
      if (isLeaf(child)) {
        for (const { word } of this.unlisted(styles, child)) add(word, 1)
        isWhole &&= this.isKnown(styles, child)
        yield
      } else {
        for (const [word, times] of yield* this.tally(styles, child)) add(word, times)
        isWhole &&= this.tallies.get(child)?.styles === styles
      }
    }
    if (isWhole) this.tallies.set(node, { styles, words: words.size === 0 ? noWords : words })
    return words
  }

  /** When all that was asked is answered: a round that was given up may have asked for more than the last one. */
  async answered(): Promise<void> {
    await Promise.all(this.asking)
  }

  private setMissing(missing: readonly DictionaryName[]): void {
    this.missing = missing
    this.target.missing(missing)
  }

  private waitFor(answer: Promise<void>): Promise<void> {
    const own = answer.finally(() => this.asking.delete(own))
    this.asking.add(own)
    return own
  }

  private async ask(dictionary: DictionaryName, words: readonly string[]): Promise<void> {
    if (this.missing.includes(dictionary)) return
    const wrong = await this.dictionaries.wrong(dictionary, words)
    const { missing } = this
    if (wrong === null) {
      if (!missing.includes(dictionary)) this.setMissing([...missing, dictionary])
      clearTimeout(this.retry)
      this.retry = setTimeout(() => {
        this.setMissing([])
        this.lexicons.askAgain()
        this.answers++
        this.target.again()
      }, missingFor)
      return
    }
    const lexicon = this.lexicons.of(dictionary)
    for (const word of words) lexicon.of(word).right = true
    for (const word of wrong) lexicon.of(word).right = false
    this.answers++
  }

  /** Asks for the words of a paragraph in sight, ahead of all others. */
  private askFor(words: readonly Word[]): void {
    const unknown = words.filter(
      ({ word, dictionary }) => !this.asked.has(`${dictionary} ${word}`) && !this.missing.includes(dictionary),
    )
    for (const dictionary of new Set(unknown.map((own) => own.dictionary))) {
      const own = unknown.filter((word) => word.dictionary === dictionary).map(({ word }) => word)
      for (const word of own) this.asked.add(`${dictionary} ${word}`)
      void this.waitFor(this.ask(dictionary, own)).then(() => {
        for (const word of own) this.asked.delete(`${dictionary} ${word}`)
        this.target.met()
      })
    }
  }

  suggest(dictionary: DictionaryName, word: string): Promise<string[]> {
    return this.dictionaries.suggest(dictionary, word)
  }
}
