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
