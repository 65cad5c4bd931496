/** The symbols that the shipped faces can show, by category and by name; and those used last. */
import { create } from "zustand"
import { keep, readKeptList } from "../kept"

export interface SymbolCategory {
  name: string
  items: [char: string, name: string][]
}

const mostRecent = 24
const mostFound = 240

interface Symbols {
  categories: SymbolCategory[] | null
  recent: readonly string[]
  load(): Promise<void>
  used(char: string): void
}

export const useSymbols = create<Symbols>((set, get) => ({
  categories: null,
  recent: readKeptList("symbols").slice(0, mostRecent),
  async load() {
    if (!get().categories) set({ categories: (await (await fetch("/data/symbols.json")).json()) as SymbolCategory[] })
  },
  used(char) {
    const recent = [char, ...get().recent.filter((c) => c !== char)].slice(0, mostRecent)
    keep("symbols", recent)
    set({ recent })
  },
}))

/** Symbols whose names hold every word that was typed; a symbol itself or its number finds it too. */
export function findSymbols(categories: readonly SymbolCategory[], typed: string): [string, string][] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean)
  const code = /^(?:u\+)?([0-9a-f]{4,6})$/i.exec(typed.trim())?.[1]
  const asCode = code ? String.fromCodePoint(Math.min(0x10ffff, parseInt(code, 16))) : null
  const found: [string, string][] = []
  for (const { items } of categories)
    for (const item of items) {
      const name = item[1].toLowerCase()
      if (item[0] === typed.trim() || item[0] === asCode || words.every((word) => name.includes(word))) found.push(item)
      if (found.length >= mostFound) return found
    }
  return found
}
