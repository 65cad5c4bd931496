/** The words that a person has said are right, on this device and in all its tabs. */
import { createStore } from "zustand/vanilla"
import { keep, readKeptList } from "../kept"

const name = "words"

/** So many are kept; the last ones. */
const most = 20_000

export const ownWords = createStore<{ words: ReadonlySet<string> }>(() => ({ words: new Set(readKeptList(name)) }))

function put(words: readonly string[]): void {
  const kept = words.slice(-most)
  keep(name, kept)
  ownWords.setState({ words: new Set(kept) })
}

export function learnWord(word: string): void {
  put([...ownWords.getState().words, word])
}

export function forgetWord(word: string): void {
  put([...ownWords.getState().words].filter((own) => own !== word))
}

if (typeof addEventListener === "function")
  addEventListener("storage", ({ key }) => {
    if (key === `biblon-${name}`) ownWords.setState({ words: new Set(readKeptList(name)) })
  })
