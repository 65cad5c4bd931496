/** The little of a browser that modules look at when they load. To be imported before them. */

/** What is kept on this device. */
export const kept = new Map<string, string>()

Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (i: number) => [...kept.keys()][i] ?? null,
    get length() {
      return kept.size
    },
  },
})
Object.defineProperty(globalThis, "navigator", { value: { platform: "Linux", language: "en-GB" }, configurable: true })
