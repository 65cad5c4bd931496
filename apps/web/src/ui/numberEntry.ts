import { useEffect, useState, type ChangeEvent, type FocusEvent, type KeyboardEvent } from "react"

export function showNumber(value: number | undefined): string {
  return value === undefined ? "" : String(Math.round(value * 100) / 100)
}

/** What was typed as a number, with a point or a comma; null if it is none or out of bounds. */
export function readNumber(text: string, min: number, max: number): number | null {
  const value = Number(text.trim().replace(",", "."))
  return text.trim() !== "" && value >= min && value <= max ? value : null
}

/**
 * Props for an input in which a number is typed: taken on Enter and on leaving, put back by Escape or when it cannot be.
 * @param read how what was typed is understood, if not as a mere number
 */
export function useNumberEntry(value: number | undefined, min: number, max: number, onChange: (value: number) => void, read?: (text: string) => number | null) {
  const [text, setText] = useState(showNumber(value))
  useEffect(() => setText(showNumber(value)), [value])
  const take = () => {
    const typed = read ? read(text) : readNumber(text, min, max)
    const taken = typed !== null && typed >= min && typed <= max ? typed : null
    // What only shows rounded is not changed by being left alone.
    if (taken === null || text === showNumber(value)) setText(showNumber(value))
    else if (taken !== value) onChange(taken)
  }
  return {
    value: text,
    onChange: (event: ChangeEvent<HTMLInputElement>) => setText(event.target.value),
    onFocus: (event: FocusEvent<HTMLInputElement>) => event.target.select(),
    onBlur: take,
    onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
      if (event.key === "Enter") take()
      if (event.key === "Escape") setText(showNumber(value))
    },
  }
}
