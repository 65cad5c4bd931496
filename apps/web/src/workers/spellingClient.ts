import type { DictionaryName } from "@biblon/core/checking"
import { begunSpeller } from "../early/begun"
import { Asking } from "./asking"
import type { SpellingQuestion } from "./spelling.worker"

/** The dictionaries, in a worker that starts with the first word that is looked up. */
export class Dictionaries {
  private readonly asking = new Asking<SpellingQuestion, string[]>("spelling.worker.js", begunSpeller)

  /** Those of the words that are wrong; null where the dictionary is not to be had. */
  wrong(dictionary: DictionaryName, words: readonly string[]): Promise<string[] | null> {
    return this.asking.ask({ type: "check", dictionary, words })
  }

  async suggest(dictionary: DictionaryName, word: string): Promise<string[]> {
    return (await this.asking.ask({ type: "suggest", dictionary, word })) ?? []
  }

  close(): void {
    this.asking.close()
  }
}
