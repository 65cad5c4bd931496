import { useTyped } from "./typed"

export function showNumber(value: number | undefined): string {
  return value === undefined ? "" : String(Math.round(value * 100) / 100)
}

/** What was typed as a number, with a point or a comma; null if it is none or out of bounds. */
export function readNumber(text: string, min: number, max: number): number | null {
  const value = Number(text.trim().replace(",", "."))
  return text.trim() !== "" && value >= min && value <= max ? value : null
}

/**
 * Props for an input in which a number is typed.
 * @param read how what was typed is understood, if not as a mere number
 */
export function useNumberEntry(
  value: number | undefined,
  min: number,
  max: number,
  onChange: (value: number) => void,
  read?: (text: string) => number | null,
) {
  return useTyped(showNumber(value), (text) => {
    const typed = read ? read(text) : readNumber(text, min, max)
    if (typed !== null && typed >= min - 1e-6 && typed <= max + 1e-6 && typed !== value) onChange(typed)
  })
}
