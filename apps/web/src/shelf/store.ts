import { create } from "zustand"
import type { ShelfEntry } from "@biblon/wire"
import { leftOutWords } from "@biblon/core/formats/format"
import { api } from "../api"
import { leaveWords } from "../firstWords"
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
  /** The name of a file that is being read. */
  reading: string | null
  rename(id: string, name: string | null): Promise<void>
}

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

  async bringIn(file) {
    set({ reading: file.name, trouble: null })
    try {
      const { document, name, left } = await readFile(file)
      const { id } = await api.keepAsNew(name, document)
      if (left.length > 0)
        leaveWords(id, `${file.name} is here. Left out, since Biblon does not keep them yet: ${leftOutWords(left)}.`)
      return id
    } catch (error) {
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
