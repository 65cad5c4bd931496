/** Spelling of a thousand sheets: finding the words and looking them up, against Hunspell alone on the words that differ. */
import { readFileSync } from "node:fs"
import { documentAttrs, leavesOf } from "@biblon/core/document"
import { entriesOf, Lexicons } from "@biblon/core/checking"
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
  const opened = async () => {
    const speller = new Speller(() => Promise.resolve(files))
    await speller.wrong("en-gb", ["ferry"])
    return speller
  }
  let [spellingMs1000, hunspellMs, spellingDistinct] = [Infinity, Infinity, 0]
  // In turns, so that each of them gets what the machine has learned; and each time anew, so that nothing else is remembered.
  for (let round = 0; round < 4; round++) {
    const doc = prose(words, wideParagraphs(words))
    const { styles } = documentAttrs(doc)
    const { nodes } = leavesOf(doc)
    const speller = await opened()
    const all = performance.now()
    const lexicons = new Lexicons()
    for (const leaf of nodes) entriesOf(styles, leaf, lexicons)
    const [[, list] = ["en-gb", []]] = lexicons.unknown()
    for (let i = 0; i < list.length; i += batch) await speller.wrong("en-gb", list.slice(i, i + batch))
    spellingMs1000 = Math.min(spellingMs1000, performance.now() - all)
    const other = await opened()
    const own = performance.now()
    await other.wrong("en-gb", list)
    hunspellMs = Math.min(hunspellMs, performance.now() - own)
    spellingDistinct = list.length
  }
  return { spellingVsHunspell: spellingMs1000 / hunspellMs, spellingMs1000, spellingDistinct }
}

if (process.argv[1]?.endsWith("spelling.ts")) console.log(await measureSpelling())
