import { create } from "zustand"
import type { FoundDocument, ShelfEntry } from "@biblon/wire"
import { leftOutWords } from "@biblon/core/formats/format"
import { api } from "../api"
import { leaveWords } from "../firstWords"
import { addFile } from "../live/files"
import { readFile } from "../workers/fileClient"

interface ShelfState {
  entries: ShelfEntry[] | null
  /** Numbers of sheets, as they become known. */
  sheets: Record<string, number | null>
  trouble: string | null
  load(): Promise<void>
  create(): Promise<string | null>
  /** Reads a file as a new document. @returns its id */
  bringIn(file: File): Promise<string | null>
  /** What is being done with a file, in words. */
  reading: string | null
  stopReading(): void
  rename(id: string, name: string | null): Promise<void>
  /** What lies in the bin. */
  binned: ShelfEntry[]
  /** The document that was put into the bin last, as long as that can be taken back at once. */
  justBinned: ShelfEntry | null
  bin(entry: ShelfEntry): Promise<void>
  restore(id: string): Promise<void>
  remove(ids: readonly string[]): Promise<void>
  duplicate(id: string): Promise<void>
  /** What is searched for, and what was found; null while nothing is searched. */
  words: string
  found: FoundDocument[] | null
  search(words: string): Promise<void>
}

/** Does something that the server may refuse, which is said. */
async function attempt(
  set: (change: Partial<ShelfState>) => void,
  done: string,
  act: () => Promise<void>,
): Promise<void> {
  try {
    await act()
  } catch (error) {
    const why = error instanceof TypeError ? "the server cannot be reached" : (error as Error).message
    set({ trouble: `It could not be ${done}: ${why}. Nothing was changed.` })
  }
}

let stop = new AbortController()

export const useShelf = create<ShelfState>((set, get) => ({
  entries: null,
  sheets: {},
  trouble: null,
  reading: null,

  async load() {
    try {
      const [entries, binned] = await Promise.all([api.list(), api.binned()])
      set({ entries, binned, trouble: null })
      for (const { id } of entries)
        void api
          .sheets(id)
          .then(({ sheets }) => set((state) => ({ sheets: { ...state.sheets, [id]: sheets } })))
          .catch(() => undefined)
    } catch {
      set({ trouble: "The shelf cannot be reached. Your documents are safe; Biblon tries again by itself." })
    }
  },

  async create() {
    try {
      return (await api.create()).id
    } catch {
      set({ trouble: "A new document could not be made: the server cannot be reached." })
      return null
    }
  },

  stopReading: () => stop.abort(),

  async bringIn(file) {
    stop = new AbortController()
    const { signal } = stop
    set({ reading: `Reading ${file.name}`, trouble: null })
    try {
      const { document, name, left, assets } = await readFile(file, signal)
      for (const [i, bytes] of assets.entries()) {
        set({ reading: `Picture ${i + 1} of ${assets.length} of ${file.name}` })
        signal.throwIfAborted()
        await addFile(new Blob([bytes]))
      }
      const { id } = await api.keepAsNew(name, document)
      if (left.length > 0)
        leaveWords(id, `${file.name} is here. Left out, or taken in otherwise: ${leftOutWords(left)}.`)
      return id
    } catch (error) {
      if (!signal.aborted)
        set({ trouble: `${file.name} was not brought in. ${(error as Error).message}. The file is as it was.` })
      return null
    } finally {
      set({ reading: null })
    }
  },

  binned: [],
  justBinned: null,

  async bin(entry) {
    await attempt(set, "put into the bin", async () => {
      await api.bin(entry.id)
      set({ justBinned: entry })
      await get().load()
    })
  },

  async restore(id) {
    await attempt(set, "put back", async () => {
      await api.restore(id)
      set({ justBinned: null })
      await get().load()
    })
  },

  async remove(ids) {
    await attempt(set, "removed", async () => {
      for (const id of ids) await api.remove(id)
      await get().load()
    })
  },

  async duplicate(id) {
    await attempt(set, "copied", async () => {
      await api.duplicate(id)
      await get().load()
    })
  },

  words: "",
  found: null,

  async search(words) {
    set({ words })
    if (words.trim() === "") return set({ found: null })
    await attempt(set, "searched", async () => {
      const found = await api.search(words)
      // Of several searches under way only the last one counts.
      if (get().words === words) set({ found })
    })
  },

  async rename(id, name) {
    const before = get().entries
    const put = (entry: ShelfEntry) =>
      set((state) => ({ entries: state.entries?.map((e) => (e.id === entry.id ? entry : e)) ?? null }))
    try {
      put(await api.rename(id, name))
    } catch (error) {
      set({ entries: before, trouble: `The name could not be changed: ${(error as Error).message}` })
    }
  },
}))
