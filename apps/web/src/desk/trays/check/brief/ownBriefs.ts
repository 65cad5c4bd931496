/** Briefs of a person's own, kept on this device as their files. */
import { create } from "zustand"
import type { Brief } from "@biblon/core/document"
import { writeBrief } from "@biblon/core/brief"
import { keep, readKept } from "../../../../kept"

export interface OwnBrief {
  name: string
  text: string
}

/** So many are kept. */
const most = 40

function kept(): OwnBrief[] {
  const found = readKept("briefs")
  if (!Array.isArray(found)) return []
  return (found as Partial<OwnBrief>[]).flatMap((own) =>
    typeof own?.name === "string" && typeof own.text === "string" ? [{ name: own.name, text: own.text }] : [],
  )
}

export const useOwnBriefs = create<{ briefs: readonly OwnBrief[] }>(() => ({ briefs: kept() }))

function put(briefs: readonly OwnBrief[]): void {
  useOwnBriefs.setState({ briefs })
  keep("briefs", briefs)
}

/** Keeps a brief; one of the same name gives way. */
export function keepBrief(brief: Brief): void {
  const name = brief.name ?? "Brief"
  const others = useOwnBriefs.getState().briefs.filter((own) => own.name !== name)
  put([{ name, text: writeBrief(brief) }, ...others].slice(0, most))
}

export function dropBrief(name: string): void {
  put(useOwnBriefs.getState().briefs.filter((own) => own.name !== name))
}
