/** What is known of words, by dictionary. */
import type { DictionaryName } from "./dictionaries"
import { Lexicon } from "./lexicon"

/** So many words of a dictionary are known at once. */
const mostKnown = 200_000
/** So many are asked for at once. */
export const batch = 1500

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
