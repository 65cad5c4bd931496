/** A person's settings of the corrections while typing; kept on this device. */
import { create } from "zustand"
import { correctionKinds, type CorrectionKind, type CorrectionSettings } from "@biblon/core/editing"
import { keep, readKept } from "../kept"

function read(): CorrectionSettings {
  const kept = (readKept("corrections") ?? {}) as Partial<CorrectionSettings>
  const own = Object.entries(kept.own ?? {}).filter((pair): pair is [string, string] => typeof pair[1] === "string")
  return {
    off: correctionKinds.filter((kind) => Array.isArray(kept.off) && kept.off.includes(kind)),
    own: Object.fromEntries(own),
  }
}

interface Corrections {
  settings: CorrectionSettings
  toggle(kind: CorrectionKind): void
  /** A slip of one's own; with no meaning it is taken out of the list. */
  setSlip(typed: string, meant: string | null): void
}

export const useCorrections = create<Corrections>((set, get) => {
  const put = (settings: CorrectionSettings) => {
    keep("corrections", settings)
    set({ settings })
  }
  return {
    settings: read(),
    toggle(kind) {
      const { settings } = get()
      put({
        ...settings,
        off: settings.off.includes(kind) ? settings.off.filter((k) => k !== kind) : [...settings.off, kind],
      })
    },
    setSlip(typed, meant) {
      const { settings } = get()
      const { [typed.toLowerCase()]: _gone, ...rest } = settings.own
      put({ ...settings, own: meant === null ? rest : { ...rest, [typed.toLowerCase()]: meant } })
    },
  }
})
