/** Brings what changed into the desk's store, from which bars and trays are drawn: after the sheets, and seldom while one types. */
import { Delayed } from "../ui/delayed"
import type { DeskState, DeskStore } from "./store"

/** A tab out of sight gets no frames: then bars and trays are drawn after so many milliseconds. */
const unseenDelay = 200
/** While one types, bars and trays are drawn so long after the last key, and this long after the first at most, in milliseconds. */
const rest = 100
const longest = 300

export class Showing {
  private change: Partial<DeskState> = {}
  private frame = 0
  private readonly timer = new Delayed(() => this.now())
  /** When the change that waits has to be shown at the latest; null where it goes with the next frame. */
  private due: number | null = null

  constructor(private readonly store: DeskStore) {}

  /** @param typed whether it came of a key that types, for which the bars need not be there at once */
  show(change: Partial<DeskState>, typed: boolean): void {
    const first = Object.keys(this.change).length === 0
    Object.assign(this.change, change)
    if (first && typed) this.due = performance.now() + longest
    if (typed && this.due !== null) {
      this.timer.in(Math.max(0, Math.min(rest, this.due - performance.now())))
    } else if (first || this.due !== null) {
      this.due = null
      this.frame = requestAnimationFrame(() => setTimeout(this.now))
      this.timer.in(unseenDelay)
    }
  }

  private readonly now = (): void => {
    cancelAnimationFrame(this.frame)
    this.timer.cancel()
    this.due = null
    const { change } = this
    this.change = {}
    if (Object.keys(change).length > 0) this.store.setState(change)
  }
}
