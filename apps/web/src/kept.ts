/** Small settings of a person that stay on this device. */

/** What was kept under a name; null where nothing was, or what is there cannot be read. */
export function readKept(name: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(`biblon-${name}`) ?? "null")
  } catch {
    return null
  }
}

/** Whether wrong words are marked while one writes. */
export const isSpellingOn = (): boolean => readKept("spelling") !== false

/** The strings of a list that was kept. */
export function readKeptList(name: string): string[] {
  const kept = readKept(name)
  return Array.isArray(kept) ? kept.filter((item): item is string => typeof item === "string") : []
}

/** The name that this browser gives itself, so that what was done here can be told from what others did. */
export function personHere(): string {
  const kept = readKept("person")
  if (typeof kept === "string" && /^[A-Za-z0-9_-]{8,60}$/.test(kept)) return kept
  // Only secure pages have randomUUID.
  const person = globalThis.isSecureContext
    ? crypto.randomUUID()
    : `p${Math.random().toString(36).slice(2)}${Date.now().toString(36)}`
  keep("person", person)
  return person
}

export function keep(name: string, value: unknown): void {
  try {
    localStorage.setItem(`biblon-${name}`, JSON.stringify(value))
  } catch {
    // Where nothing may be kept, it holds for this page.
  }
}
