/** A person's settings of the corrections while typing; kept on this device. */
import { create } from "zustand"
import { correctionKinds, type CorrectionKind, type CorrectionSettings } from "@biblon/core/editing"

const key = "biblon-corrections"

function read(): CorrectionSettings {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<CorrectionSettings>
    const own = Object.entries(kept.own ?? {}).filter((pair): pair is [string, string] => typeof pair[1] === "string")
    return { off: correctionKinds.filter((kind) => kept.off?.includes(kind)), own: Object.fromEntries(own) }
  } catch {
    return { off: [], own: {} }
  }
}

interface Corrections {
  settings: CorrectionSettings
  toggle(kind: CorrectionKind): void
  /** A slip of one's own; with no meaning it is taken out of the list. */
  setSlip(typed: string, meant: string | null): void
}

export const useCorrections = create<Corrections>((set, get) => {
  const keep = (settings: CorrectionSettings) => {
    localStorage.setItem(key, JSON.stringify(settings))
    set({ settings })
  }
  return {
    settings: read(),
    toggle(kind) {
      const { settings } = get()
      keep({ ...settings, off: settings.off.includes(kind) ? settings.off.filter((k) => k !== kind) : [...settings.off, kind] })
    },
    setSlip(typed, meant) {
      const { settings } = get()
      const { [typed.toLowerCase()]: _gone, ...rest } = settings.own
      keep({ ...settings, own: meant === null ? rest : { ...rest, [typed.toLowerCase()]: meant } })
    },
  }
})
