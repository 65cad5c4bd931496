/** Looks words up in dictionaries, each loaded when it is first needed. */
import { loadModule, type Hunspell, type HunspellFactory } from "hunspell-asm"
import type { DictionaryName } from "@biblon/core/checking"

export interface DictionaryFiles {
  affixes: Uint8Array
  words: Uint8Array
}

/** So many suggestions are given. */
const most = 6

export class Speller {
  private readonly opened = new Map<DictionaryName, Promise<Hunspell>>()
  private factory: Promise<HunspellFactory> | null = null

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
    this.factory ??= loadModule()
    const [factory, { affixes, words }] = await Promise.all([this.factory, this.load(name)])
    return factory.create(factory.mountBuffer(affixes, `${name}.aff`), factory.mountBuffer(words, `${name}.dic`))
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
