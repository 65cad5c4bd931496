/** How what is known of words comes to be known. */
import type { Node } from "prosemirror-model"
import type { StyleSheet } from "../../document"
import type { DictionaryName } from "./dictionaries"
import { batch, type Lexicons } from "./lexicons"
import { entriesOf } from "./words"

/** Words are asked for so many times before the first answer is there. */
const mostAsked = 2

/**
 * Goes through paragraphs, one at a time, and has the words that are met first looked up meanwhile.
 * @param ask looks words up, and says what it found to `lexicons`
 * @returns what is done once all have an answer
 */
export function* meetingWords(
  styles: StyleSheet,
  leaves: Iterable<Node>,
  lexicons: Lexicons,
  ask: (name: DictionaryName, words: string[]) => Promise<void>,
): Generator<void, Promise<void>> {
  lexicons.thin()
  const asked = new Set<Promise<void>>()
  const askFor = (least: number) =>
    lexicons.take(least).map(([name, words]) => {
      const answer = (words.length === 0 ? Promise.resolve() : ask(name, words)).finally(() => asked.delete(answer))
      asked.add(answer)
      return answer
    })
  for (const leaf of leaves) {
    entriesOf(styles, leaf, lexicons)
    if (asked.size < mostAsked) void askFor(batch)
    yield
  }
  const rest = async () => {
    await Promise.all(asked)
    for (let more = askFor(1); more.length > 0; more = askFor(1)) await Promise.all(more)
  }
  return rest()
}
