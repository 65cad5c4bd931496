import { create } from "zustand"
import type { FoundDocument, ShelfChange, ShelfContents } from "@biblon/wire"
import { api } from "../api"
import { leaveBrought } from "../firstWords"
import { keep, readKept } from "../kept"
import { addFile } from "../live/files"
import { readFile } from "../workers/fileClient"
import { orders, type Order } from "./arranging"

/** What was done on the shelf, in words, and what takes it back. */
interface Done {
  words: string
  back: ShelfChange[]
}

interface ShelfState {
  /** null until it is known. */
  contents: ShelfContents | null
  /** Numbers of sheets that became known since. */
  sheets: Record<string, number | null>
  askSheets(id: string): void
  trouble: string | null
  load(): Promise<void>
  /** Begins a document in a folder, blank or from a starter. @returns its id */
  begin(folder: string | null, starter?: string): Promise<string | null>
  /** Reads a file as a new document. @returns its id */
  bringIn(file: File, folder: string | null): Promise<string | null>
  /** What is being done with a file, in words. */
  reading: string | null
  stopReading(): void
  /** What was done, the last at the end; all of it can be taken back. */
  done: readonly Done[]
  /** Whether what was done last is said. */
  said: boolean
  hush(): void
  /** Makes changes together or not at all, and says so in words such as "Minutes is in the bin". */
  change(words: string, changes: readonly ShelfChange[]): Promise<void>
  undo(): Promise<void>
  duplicate(ids: readonly string[]): Promise<void>
  makeStarter(id: string, name: string): Promise<void>
  order: Order
  setOrder(order: Order): void
  /** What is chosen; null while nothing is being chosen. */
  chosen: ReadonlySet<string> | null
  choose(ids: readonly string[] | null): void
  /** The folder whose name is being typed. */
  naming: string | null
  name(folder: string | null): void
  /** What is searched for, and what was found; null while nothing is searched. */
  words: string
  found: FoundDocument[] | null
  search(words: string): Promise<void>
}

let stop = new AbortController()

const keptOrder = readKept("shelf-order")

export const useShelf = create<ShelfState>((set, get) => {
  /** Does something that the server may refuse, which is said. */
  async function attempt(done: string, act: () => Promise<void>): Promise<void> {
    try {
      await act()
    } catch (error) {
      const why = error instanceof TypeError ? "the server cannot be reached" : (error as Error).message
      set({ trouble: `It could not be ${done}: ${why}. Nothing was changed.` })
    }
  }
  const say = (words: string, back: ShelfChange[]) =>
    set(({ done }) => ({ done: [...done, { words, back }], said: true }))

  return {
    contents: null,
    sheets: {},
    trouble: null,
    reading: null,

    askSheets(id) {
      if (id in get().sheets) return
      void api
        .sheets(id)
        .then(({ sheets }) => set((state) => ({ sheets: { ...state.sheets, [id]: sheets } })))
        .catch(() => undefined)
    },

    async load() {
      try {
        set({ contents: await api.shelf(), trouble: null })
      } catch {
        set({ trouble: "The shelf cannot be reached. Your documents are safe; Biblon tries again by itself." })
      }
    },

    async begin(folder, starter) {
      try {
        return (await api.begin(folder, starter)).id
      } catch {
        set({ trouble: "A new document could not be made: the server cannot be reached." })
        return null
      }
    },

    stopReading: () => stop.abort(),

    async bringIn(file, folder) {
      stop = new AbortController()
      const { signal } = stop
      set({ reading: `Reading ${file.name}`, trouble: null })
      try {
        const { document, name, left, assets } = await readFile(
          file,
          (count) => set({ reading: `${count.toLocaleString("en-GB")} paragraphs of ${file.name}` }),
          signal,
        )
        for (const [i, { kind, bytes }] of assets.entries()) {
          set({ reading: `File ${i + 1} of ${assets.length} of ${file.name}` })
          signal.throwIfAborted()
          await addFile(new Blob([bytes]), kind)
        }
        const { id } = await api.keepAsNew(name, document, folder)
        if (left.length > 0) leaveBrought(id, { file: file.name, left })
        return id
      } catch (error) {
        if (!signal.aborted)
          set({ trouble: `${file.name} was not brought in. ${(error as Error).message}. The file is as it was.` })
        return null
      } finally {
        set({ reading: null })
      }
    },

    done: [],
    said: false,
    hush: () => set({ said: false }),

    async change(words, changes) {
      if (changes.length === 0) return
      await attempt("done", async () => {
        const { back } = await api.changeShelf(changes)
        say(words, back)
        set({ chosen: null })
        await get().load()
      })
    },

    async undo() {
      const last = get().done.at(-1)
      if (!last) return
      // Taken off at once, so that two presses do not take the same back twice.
      set(({ done }) => ({ done: done.slice(0, -1), said: false }))
      await attempt("taken back", async () => {
        await api.changeShelf(last.back)
        await get().load()
      })
    },

    async duplicate(ids) {
      await attempt("copied", async () => {
        const back: ShelfChange[] = []
        for (const id of ids) back.push({ kind: "document", id: (await api.duplicate(id)).id, binned: true })
        say(back.length === 1 ? "A copy was made" : `${back.length} copies were made`, back)
        set({ chosen: null })
        await get().load()
      })
    },

    async makeStarter(id, name) {
      await attempt("made a starter", async () => {
        const made = await api.makeStarter(id)
        say(`${name} stands among your starters`, [{ kind: "document", id: made.id, binned: true, removed: true }])
      })
    },

    order: orders.some(([own]) => own === keptOrder) ? (keptOrder as Order) : "changed",
    setOrder(order) {
      keep("shelf-order", order)
      set({ order })
    },

    chosen: null,
    choose: (ids) => set({ chosen: ids && new Set(ids) }),
    naming: null,
    name: (naming) => set({ naming }),

    words: "",
    found: null,

    async search(words) {
      set({ words })
      if (words.trim() === "") return set({ found: null })
      await attempt("searched", async () => {
        const found = await api.search(words)
        // Of several searches under way only the last one counts.
        if (get().words === words) set({ found })
      })
    },
  }
})
