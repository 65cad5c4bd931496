/** A person's own most used tools, in their order; kept on this device. */
import { create } from "zustand"
import { keep, readKeptList } from "../kept"
import { tools } from "./registry"

interface Pocket {
  ids: readonly string[]
  toggle(id: string): void
  /** Puts a tool in the place of another. */
  move(id: string, to: number): void
}

export const usePocket = create<Pocket>((set, get) => {
  const put = (ids: readonly string[]) => {
    keep("pocket", ids)
    set({ ids })
  }
  return {
    ids: readKeptList("pocket").filter((id) => tools.some((tool) => tool.id === id)),
    toggle(id) {
      const { ids } = get()
      put(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id])
    },
    move(id, to) {
      const rest = get().ids.filter((other) => other !== id)
      put([...rest.slice(0, to), id, ...rest.slice(to)])
    },
  }
})
