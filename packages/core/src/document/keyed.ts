/** Objects whose keys come from people or files. Words that every object answers to, such as "constructor", are no keys of theirs. */

/** What an object holds under a key of its own; undefined for none. */
export function entryOf<T>(entries: Readonly<Record<string, T>>, key: string): T | undefined {
  return Object.hasOwn(entries, key) ? entries[key] : undefined
}
