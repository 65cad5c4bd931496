/**
 * Something that is done later and put off again and again, as with each letter. The timer runs on and looks, when its time has
 * come, whether it is to run once more: setting timers anew each time would cost as much as a good part of the letter.
 */
export class Delayed {
  private due = Infinity
  /** When the timer that runs will look; Infinity where none does. */
  private looks = Infinity
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly act: () => void) {}

  /** Whether it is still to be done. */
  get waits(): boolean {
    return this.due < Infinity
  }

  /** From now on it is to be done in so many milliseconds, and not when it was to be done before. */
  in(wait: number): void {
    const now = performance.now()
    this.due = now + wait
    if (this.looks > this.due) this.lookIn(wait, now)
  }

  /** It is not to be done. */
  cancel(): void {
    this.due = Infinity
  }

  /** The same, with no timer left. */
  close(): void {
    this.cancel()
    clearTimeout(this.timer)
    this.looks = Infinity
  }

  private lookIn(wait: number, now: number): void {
    clearTimeout(this.timer)
    this.looks = now + wait
    this.timer = setTimeout(this.look, wait)
  }

  private readonly look = (): void => {
    this.looks = Infinity
    if (!this.waits) return
    const now = performance.now()
    // Timers may be early by a part of a millisecond.
    const left = this.due - now
    if (left >= 1) return this.lookIn(left, now)
    this.due = Infinity
    this.act()
  }
}
