/** Looks words up in dictionaries, each loaded when it is first needed. */
import type { DictionaryName } from "@biblon/core/checking"
import { Hunspell, startHunspell, type DictionaryFiles, type HunspellModule } from "./hunspell"

/** So many suggestions are given. */
const most = 6

export class Speller {
  private readonly opened = new Map<DictionaryName, Promise<Hunspell>>()
  private module: Promise<HunspellModule> | null = null

  constructor(private readonly load: (name: DictionaryName) => Promise<DictionaryFiles>) {}

  private open(name: DictionaryName): Promise<Hunspell> {
    let own = this.opened.get(name)
    if (!own) {
      own = this.make(name)
      this.opened.set(name, own)
      // One that could not be fetched is asked for again the next time.
      own.catch(() => this.opened.delete(name))
    }
    return own
  }

  private async make(name: DictionaryName): Promise<Hunspell> {
    this.module ??= startHunspell()
    const [module, files] = await Promise.all([this.module, this.load(name)])
    return new Hunspell(module, name, files)
  }

  /** Those that are not in the dictionary. */
  async wrong(name: DictionaryName, words: readonly string[]): Promise<string[]> {
    const dictionary = await this.open(name)
    return words.filter((word) => !dictionary.spell(word))
  }

  async suggest(name: DictionaryName, word: string): Promise<string[]> {
    return (await this.open(name)).suggest(word).slice(0, most)
  }
}
