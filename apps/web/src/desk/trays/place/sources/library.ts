/** A person's library of sources, kept on this device in CSL JSON. */
import { create } from "zustand"
import type { Source } from "@biblon/core/document"
import { itemOf, sameSource, sourceOf } from "@biblon/core/sources"
import { keep, readKept } from "../../../../kept"

/** So many are kept. */
const most = 3000

function kept(): Source[] {
  const found = readKept("library")
  return Array.isArray(found) ? found.flatMap((item) => sourceOf(item) ?? []) : []
}

export const useLibrary = create<{ sources: readonly Source[] }>(() => ({ sources: kept() }))

/** Keeps sources; one that is there already gives way. */
export function keepSources(added: readonly Source[]): void {
  const others = useLibrary.getState().sources.filter((own) => !added.some((source) => sameSource(own, source)))
  const sources = [...added, ...others].slice(0, most)
  useLibrary.setState({ sources })
  keep(
    "library",
    sources.map((source) => ({ ...itemOf("", source), note: source.remarks })),
  )
}
