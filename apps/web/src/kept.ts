/** Small settings of a person that stay on this device. */

/** What was kept under a name; null where nothing was, or what is there cannot be read. */
export function readKept(name: string): unknown {
  try {
    return JSON.parse(localStorage.getItem(`biblon-${name}`) ?? "null")
  } catch {
    return null
  }
}

/** The strings of a list that was kept. */
export function readKeptList(name: string): string[] {
  const kept = readKept(name)
  return Array.isArray(kept) ? kept.filter((item): item is string => typeof item === "string") : []
}

export function keep(name: string, value: unknown): void {
  try {
    localStorage.setItem(`biblon-${name}`, JSON.stringify(value))
  } catch {
    // Where nothing may be kept, it holds for this page.
  }
}
