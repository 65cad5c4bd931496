/** What is handed over once to the desk that opens a document next in this tab. */
import type { LeftOut } from "@biblon/core/formats/format"

/** A file that a document was made of, and what of it is not there, or is there otherwise. */
export interface Brought {
  file: string
  left: readonly LeftOut[]
}

function handing<T>() {
  const waiting = new Map<string, T>()
  return {
    leave: (id: string, what: T): void => void waiting.set(id, what),
    take(id: string): T | null {
      const what = waiting.get(id) ?? null
      waiting.delete(id)
      return what
    },
  }
}

export const { leave: leaveBrought, take: takeBrought } = handing<Brought>()

/** What is looked for in a document as soon as it is open. */
export const { leave: leaveSearch, take: takeSearch } = handing<string>()
