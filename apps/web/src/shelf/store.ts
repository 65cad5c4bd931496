import { create } from "zustand"
import type { ShelfEntry } from "@biblon/wire"
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
}

let stop = new AbortController()

export const useShelf = create<ShelfState>((set, get) => ({
  entries: null,
  sheets: {},
  trouble: null,
  reading: null,

  async load() {
    try {
      const entries = await api.list()
      set({ entries, trouble: null })
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
