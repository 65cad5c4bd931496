/** How a document was looked at last on this device, and how one is looked at first. */
import { keep, readKept } from "../../kept"
import { wideFrom } from "../../ui/wide"
import { fullSize, type Fit, type ViewMode } from "./fitting"

export interface KeptView {
  mode: "flow" | "sheets"
  /** How the sheets fit the window; null where a scale was chosen. */
  fit: Fit | null
  /** CSS pixels for a point. */
  scale: number
}

const nameOf = (id: string) => `view-${id}`

/** Before anything is known of a document. */
export const firstView = (): KeptView => ({
  mode: window.innerWidth < wideFrom ? "flow" : "sheets",
  fit: "width",
  scale: fullSize,
})

export function viewOf(id: string): KeptView {
  const first = firstView()
  const kept = readKept(nameOf(id)) as KeptView | null
  if (!kept || (kept.mode !== "flow" && kept.mode !== "sheets")) return first
  const fit = kept.fit === null || kept.fit === "sheet" || kept.fit === "pair" ? kept.fit : "width"
  return { mode: kept.mode, fit, scale: fit === null && Number.isFinite(kept.scale) ? kept.scale : first.scale }
}

export function keepView(id: string, view: KeptView): void {
  keep(nameOf(id), view)
}

/** Whether sheets are shown dark: as a person chose, else in dark surroundings where the text fills the screen. */
export function isDark({ darkSheets, mode }: { darkSheets: boolean | null; mode: ViewMode }): boolean {
  return darkSheets ?? (mode === "flow" && matchMedia("(prefers-color-scheme: dark)").matches)
}

/** What a person chose; null for as the surroundings ask. */
export function keptDark(): boolean | null {
  const kept = readKept("dark-sheets")
  return typeof kept === "boolean" ? kept : null
}

export const keptRuler = (): boolean => readKept("ruler") !== false
