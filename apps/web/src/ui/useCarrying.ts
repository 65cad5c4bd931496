import { useState, type PointerEvent, type RefObject } from "react"
import { followPress } from "./followPress"

/** Movement, in pixels, from which a press on a row's handle carries it. */
const carries = 6

export interface Carried {
  /** The row that is carried, by its number. */
  row: number
  /** The row before which it would land; null for behind the last that is there. */
  before: number | null
  /** Where the line that shows it lies in the list. */
  y: number
}

/**
 * Rows of a list that are carried by a handle to another place in it. Each has its number as `data-row`.
 * @param drop where a row was let go
 */
export function useCarrying(list: RefObject<HTMLElement | null>, drop: (row: number, before: number | null) => void) {
  const [carried, setCarried] = useState<Carried | null>(null)
  /** Where a row would land if it were let go at a height of the window. */
  const landing = (row: number, clientY: number): Carried | null => {
    const top = list.current?.getBoundingClientRect().top ?? 0
    const rows = [...(list.current?.querySelectorAll<HTMLElement>("[data-row]") ?? [])]
    for (const own of rows) {
      const box = own.getBoundingClientRect()
      if (clientY < box.top + box.height / 2) return { row, before: Number(own.dataset.row), y: box.top - top }
    }
    const last = rows.at(-1)
    return last ? { row, before: null, y: last.getBoundingClientRect().bottom - top } : null
  }
  const carry = (row: number) => (event: PointerEvent<HTMLElement>) => {
    let at: Carried | null = null
    followPress(event.currentTarget, event, {
      slack: carries,
      move: (_dx, _dy, { clientY }) => setCarried((at = landing(row, clientY))),
      end: (how) => {
        if (at && how === "moved") drop(row, at.before)
        setCarried(null)
      },
    })
  }
  return { carried, carry }
}
