/** Looks words up away from the page. */
import type { DictionaryName } from "@biblon/core/checking"
import { answering } from "./asking"
import { Speller } from "./speller"

/** Which words are wrong, or which could be meant; there is no answer where the dictionary is not to be had. */
export type SpellingQuestion = { dictionary: DictionaryName } & (
  { type: "check"; words: readonly string[] } | { type: "suggest"; word: string }
)

async function bytesOf(path: string): Promise<Uint8Array> {
  const response = await fetch(path)
  if (!response.ok) throw new Error(`${path} is not to be had`)
  return new Uint8Array(await response.arrayBuffer())
}

const speller = new Speller(async (name) => {
  const [affixes, words] = await Promise.all([
    bytesOf(`/dictionaries/${name}.aff`),
    bytesOf(`/dictionaries/${name}.dic`),
  ])
  return { affixes, words }
})

answering((question: SpellingQuestion) =>
  question.type === "check"
    ? speller.wrong(question.dictionary, question.words)
    : speller.suggest(question.dictionary, question.word),
)
