import { useEffect, useRef, useState, type ChangeEvent, type FocusEvent, type KeyboardEvent } from "react"

type Field = HTMLInputElement

/**
 * Props for a field in which a value is typed: taken on Enter and however one leaves the field, also when it goes from the
 * screen; put back by Escape, or where it cannot be taken.
 * @param shown the value as text
 * @param take takes what was typed
 */
export function useTyped(shown: string, take: (text: string) => void) {
  const [typed, setTyped] = useState<string | null>(null)
  const latest = useRef({ typed, shown, take })
  latest.current = { typed, shown, take }
  const set = (text: string | null) => {
    latest.current.typed = text
    setTyped(text)
  }
  const leave = () => {
    const { typed, shown, take } = latest.current
    set(null)
    if (typed !== null && typed !== shown) take(typed)
  }
  const end = useRef(leave)
  end.current = leave
  useEffect(() => () => end.current(), [])
  return {
    value: typed ?? shown,
    onChange: (event: ChangeEvent<Field>) => set(event.target.value),
    onFocus: (event: FocusEvent<Field>) => event.target.select(),
    onBlur: leave,
    onKeyDown: (event: KeyboardEvent<Field>) => {
      if (event.key === "Enter") leave()
      if (event.key === "Escape") set(null)
    },
  }
}
