/** What is known of words, by dictionary, and how it comes to be known. */
import type { Node } from "prosemirror-model"
import type { StyleSheet } from "../../document"
import type { DictionaryName } from "./dictionaries"
import { Lexicon } from "./lexicon"
import { entriesOf } from "./words"

/** So many words of a dictionary are known at once. */
const mostKnown = 200_000
/** So many are asked for at once, and so many times before the first answer is there. */
const batch = 1500
const mostAsked = 2

export class Lexicons {
  private readonly own = new Map<DictionaryName, Lexicon>()

  of(name: DictionaryName): Lexicon {
    let lexicon = this.own.get(name)
    if (!lexicon) this.own.set(name, (lexicon = new Lexicon()))
    return lexicon
  }

  /** Forgets what is known where that has become too much. */
  thin(): void {
    for (const [name, { entries }] of this.own) if (entries.length > mostKnown) this.own.delete(name)
  }

  /** The next words that dictionaries are to be asked for, of those that have as many as that. */
  take(least: number): [DictionaryName, string[]][] {
    const ready = [...this.own].filter(([, { waiting }]) => waiting >= least)
    return ready.map(([name, lexicon]) => [name, lexicon.take(batch)])
  }

  /** What got no answer is to be asked for again. */
  askAgain(): void {
    for (const lexicon of this.own.values()) lexicon.askAgain()
  }
}

/**
 * Goes through paragraphs, one at a time, and has the words that are met first looked up meanwhile.
 * @param ask looks words up, and says what it found to `lexicons`
 * @returns what is done once all have an answer
 */
export function* meetingWords(
  styles: StyleSheet,
  leaves: Iterable<Node>,
  lexicons: Lexicons,
  ask: (name: DictionaryName, words: string[]) => Promise<void>,
): Generator<void, Promise<void>> {
  lexicons.thin()
  const asked = new Set<Promise<void>>()
  const askFor = (least: number) =>
    lexicons.take(least).map(([name, words]) => {
      const answer = (words.length === 0 ? Promise.resolve() : ask(name, words)).finally(() => asked.delete(answer))
      asked.add(answer)
      return answer
    })
  for (const leaf of leaves) {
    entriesOf(styles, leaf, lexicons)
    if (asked.size < mostAsked) void askFor(batch)
    yield
  }
  const rest = async () => {
    await Promise.all(asked)
    for (let more = askFor(1); more.length > 0; more = askFor(1)) await Promise.all(more)
  }
  return rest()
}
