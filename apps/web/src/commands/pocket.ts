/** A person's own most used tools, in their order; kept on this device. */
import { create } from "zustand"
import { tools } from "./registry"

const key = "biblon-pocket"

function read(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? "[]")
    return Array.isArray(kept) ? kept.filter((id): id is string => tools.some((tool) => tool.id === id)) : []
  } catch {
    return []
  }
}

interface Pocket {
  ids: readonly string[]
  toggle(id: string): void
  /** Puts a tool in the place of another. */
  move(id: string, to: number): void
}

export const usePocket = create<Pocket>((set, get) => {
  const keep = (ids: readonly string[]) => {
    localStorage.setItem(key, JSON.stringify(ids))
    set({ ids })
  }
  return {
    ids: read(),
    toggle(id) {
      const { ids } = get()
      keep(ids.includes(id) ? ids.filter((other) => other !== id) : [...ids, id])
    },
    move(id, to) {
      const rest = get().ids.filter((other) => other !== id)
      keep([...rest.slice(0, to), id, ...rest.slice(to)])
    },
  }
})
