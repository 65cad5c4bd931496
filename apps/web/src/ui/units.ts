/** The unit in which a person reads and types lengths. The document knows points alone. */
import { create } from "zustand"
import { keep, readKept } from "../kept"

export const units = { cm: 72 / 2.54, mm: 72 / 25.4, in: 72, pt: 1 } as const
export type Unit = keyof typeof units

/** What one step of a button is, in the unit itself. */
const steps: Record<Unit, number> = { cm: 0.25, mm: 2.5, in: 0.1, pt: 3 }

/** The unit in which most people of a place measure paper. */
function usual(): Unit {
  return /-(US|LR|MM)\b/.test(navigator.language) ? "in" : "cm"
}

function kept(): Unit {
  const found = readKept("unit")
  return typeof found === "string" && found in units ? (found as Unit) : usual()
}

export const useUnit = create<{ unit: Unit; choose(unit: Unit): void }>((set) => ({
  unit: kept(),
  choose: (unit) => {
    keep("unit", unit)
    set({ unit })
  },
}))

export function inUnit(points: number, unit: Unit): number {
  return Math.round((points / units[unit]) * 100) / 100
}

/** A length that was typed, with or without a unit of its own, in points; null if it is none. */
export function readLength(text: string, unit: Unit): number | null {
  const match = /^\s*(-?\d*[.,]?\d+)\s*(cm|mm|in|pt|")?\s*$/i.exec(text)
  if (!match) return null
  const own = match[2] === '"' ? "in" : (match[2]?.toLowerCase() as Unit | undefined)
  return Number((match[1] as string).replace(",", ".")) * units[own ?? unit]
}

/** The next length in steps of the unit. */
export function stepLength(points: number, direction: -1 | 1, unit: Unit): number {
  const step = steps[unit]
  const now = points / units[unit] / step
  return (direction > 0 ? Math.floor(now + 1.01) : Math.ceil(now - 1.01)) * step * units[unit]
}
