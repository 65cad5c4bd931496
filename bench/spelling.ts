/** Spelling of a thousand sheets: finding the words and looking them up, against Hunspell alone on the words that differ. */
import { readFileSync } from "node:fs"
import { documentAttrs, leavesOf } from "@biblon/core/document"
import { spelledWords } from "@biblon/core/checking"
import { Speller } from "../apps/web/src/workers/speller"
import { prose, wideParagraphs } from "./text"

export interface SpellingFigures {
  /** All of it against Hunspell's own time, once the dictionary is open. */
  spellingVsHunspell: number
  spellingMs1000: number
  spellingDistinct: number
}

const words = 400_000
/** So many words are looked up at once, as at the desk. */
const batch = 1500

export async function measureSpelling(): Promise<SpellingFigures> {
  const files = {
    affixes: readFileSync("node_modules/dictionary-en-gb/index.aff"),
    words: readFileSync("node_modules/dictionary-en-gb/index.dic"),
  }
  const doc = prose(words, wideParagraphs(words))
  const { styles } = documentAttrs(doc)
  const speller = new Speller(() => Promise.resolve(files))
  await speller.wrong("en-gb", ["ferry"])
  const all = performance.now()
  const distinct = new Set<string>()
  for (const leaf of leavesOf(doc).nodes) for (const { word } of spelledWords(styles, leaf)) distinct.add(word)
  const list = [...distinct]
  for (let i = 0; i < list.length; i += batch) await speller.wrong("en-gb", list.slice(i, i + batch))
  const spellingMs1000 = performance.now() - all
  // A second one, so that nothing is remembered.
  const other = new Speller(() => Promise.resolve(files))
  await other.wrong("en-gb", ["ferry"])
  const own = performance.now()
  await other.wrong("en-gb", list)
  const hunspellMs = performance.now() - own
  return { spellingVsHunspell: spellingMs1000 / hunspellMs, spellingMs1000, spellingDistinct: list.length }
}

if (process.argv[1]?.endsWith("spelling.ts")) console.log(await measureSpelling())
