import { useEffect, useState } from "react"
import type { DictionaryName } from "@biblon/core/checking"
import { useSession } from "./context"

/** What could be meant by a wrong word; null while it is being looked up. */
export function useSuggestions(word: string, dictionary: DictionaryName): readonly string[] | null {
  const session = useSession()
  const [found, setFound] = useState<{ of: string; words: readonly string[] } | null>(null)
  const of = `${dictionary} ${word}`
  useEffect(() => {
    let wanted = true
    void session.spelling.suggest({ word, dictionary }).then((words) => {
      if (wanted) setFound({ of, words })
    })
    return () => {
      wanted = false
    }
  }, [session, word, dictionary, of])
  return found?.of === of ? found.words : null
}
