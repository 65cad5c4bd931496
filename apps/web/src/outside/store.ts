/** The printer and the post, as the server tells of them. */
import { create } from "zustand"
import type { Outside, Trouble } from "@biblon/wire"
import { api } from "../api"

interface OutsideState {
  /** null until it is known. */
  outside: Outside | null
  problem: string | null
  load(): Promise<void>
  stop(id: string): Promise<void>
  setTrouble(kind: "print" | "send", trouble: Trouble | null): Promise<void>
}

export const useOutside = create<OutsideState>((set, get) => {
  async function attempt(act: () => Promise<unknown>): Promise<void> {
    try {
      await act()
      set({ problem: null })
    } catch (error) {
      set({
        problem:
          error instanceof TypeError
            ? "The server cannot be reached. What was handed over is kept there and goes on."
            : (error as Error).message,
      })
    }
  }
  return {
    outside: null,
    problem: null,
    load: () => attempt(async () => set({ outside: await api.outside() })),
    stop: (id) =>
      attempt(async () => {
        await api.stopJob(id)
        await get().load()
      }),
    setTrouble: (kind, trouble) => attempt(async () => set({ outside: await api.setTrouble(kind, trouble) })),
  }
})

/** Whether anything is still on its way. */
export const isUnderWay = (outside: Outside | null): boolean =>
  outside?.jobs.some(({ state }) => state === "waiting" || state === "going") ?? false
