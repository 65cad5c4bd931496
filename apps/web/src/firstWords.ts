/** What is to be said once to who opens a document next in this tab, such as what was left out of the file it came from. */
const waiting = new Map<string, string>()

export function leaveWords(id: string, text: string): void {
  waiting.set(id, text)
}

export function takeWords(id: string): string | null {
  const text = waiting.get(id) ?? null
  waiting.delete(id)
  return text
}

const searches = new Map<string, string>()

/** What is looked for in a document as soon as it is open. */
export function leaveSearch(id: string, phrase: string): void {
  searches.set(id, phrase)
}

export function takeSearch(id: string): string | null {
  const phrase = searches.get(id)
  searches.delete(id)
  return phrase ?? null
}
