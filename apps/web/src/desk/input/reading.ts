/** In reading view: keys turn the sheets, and so do a tap and a swipe. */

export interface ReadingTarget {
  reading(): boolean
  /** So many rows of sheets on, or back. */
  turn(rows: number): void
  leave(): void
}

const rowsOf: Record<string, number> = {
  ArrowRight: 1,
  ArrowDown: 1,
  PageDown: 1,
  " ": 1,
  Enter: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  PageUp: -1,
  Backspace: -1,
  Home: -1e6,
  End: 1e6,
}
/** A finger that moves so many pixels aside swipes. */
const swipe = 40
/** A tap in this part of the screen, from the left, turns back. */
const backPart = 1 / 3

export function attachReading(host: HTMLElement, target: ReadingTarget): void {
  host.addEventListener("keydown", (event) => {
    if (!target.reading()) return
    const rows = rowsOf[event.key]
    if (event.key === "Escape") target.leave()
    else if (rows !== undefined) target.turn(rows)
    else return
    event.preventDefault()
  })
  let down: number | null = null
  host.addEventListener("pointerdown", (event) => (down = event.clientX))
  host.addEventListener("pointerup", (event) => {
    if (!target.reading() || down === null) return
    const moved = event.clientX - down
    down = null
    if (Math.abs(moved) > swipe) target.turn(moved < 0 ? 1 : -1)
    else target.turn(event.clientX < host.getBoundingClientRect().left + host.clientWidth * backPart ? -1 : 1)
  })
}
