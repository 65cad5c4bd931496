import { create } from "zustand"
import { keep, readKeptList } from "../kept"

const most = { typefaces: 4, colours: 7 }
type Kind = keyof typeof most

/** What a person chose last, newest first, on this device. */
export const useRecents = create<Record<Kind, string[]> & { used(kind: Kind, value: string): void }>((set, get) => ({
  typefaces: readKeptList("recent-typefaces"),
  colours: readKeptList("recent-colours"),
  used: (kind, value) => {
    const next = [value, ...get()[kind].filter((other) => other !== value)].slice(0, most[kind])
    keep(`recent-${kind}`, next)
    set({ [kind]: next } as Pick<Record<Kind, string[]>, Kind>)
  },
}))
