import { createContext, useContext } from "react"
import { useStore } from "zustand"
import { useShallow } from "zustand/react/shallow"
import type { DeskSession } from "./session"
import type { DeskState } from "./store"

export const SessionContext = createContext<DeskSession | null>(null)

export function useSession(): DeskSession {
  const session = useContext(SessionContext)
  if (!session) throw new Error("This belongs on the desk")
  return session
}

/** Reads the desk's state; renders again only when what is picked changes. */
export function useDesk<T>(pick: (state: DeskState) => T): T {
  return useStore(useSession().store, useShallow(pick))
}
