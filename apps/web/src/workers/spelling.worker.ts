/** Looks words up away from the page. */
import type { DictionaryName } from "@biblon/core/checking"
import { Speller } from "./speller"

export type SpellingRequest = { id: number; dictionary: DictionaryName } & (
  { type: "check"; words: readonly string[] } | { type: "suggest"; word: string }
)
/** The words that are wrong, or those that could be meant; null where the dictionary is not to be had. */
export interface SpellingReply {
  id: number
  words: string[] | null
}

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

const answer = (reply: SpellingReply) => self.postMessage(reply)

self.onmessage = ({ data }: MessageEvent<SpellingRequest>) => {
  const { id, dictionary } = data
  const found = data.type === "check" ? speller.wrong(dictionary, data.words) : speller.suggest(dictionary, data.word)
  found.then(
    (words) => answer({ id, words }),
    (error: unknown) => {
      console.error(error)
      answer({ id, words: null })
    },
  )
}
