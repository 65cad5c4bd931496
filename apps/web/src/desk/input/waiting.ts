/** Keys that come while something is awaited (a paste that is being read, a sheet that is on its way): they follow in order. */

export class WaitingKeys {
  private readonly queue: (() => void)[] = []
  private holds = 0
  private acting = false
  private stalled = false

  /** @param onChange hears when keys begin or end to wait */
  constructor(private readonly onChange: () => void) {}

  get any(): boolean {
    return this.holds > 0 || this.queue.length > 0
  }

  /** Keeps what is typed until all that is awaited is here. */
  push(act: () => void): void {
    this.queue.push(act)
    this.onChange()
  }

  /** Does something once all that was typed before it is done: at once, unless keys wait. Returns whether it was done, or will be. */
  inTurn(act: () => boolean): boolean {
    if (this.acting || !this.any) return act()
    this.push(() => void act())
    return true
  }

  /** For an act that cannot be done yet: before those that came after it. */
  again(act: () => void): void {
    if (this.acting) {
      this.queue.unshift(act)
      this.stalled = true
    } else this.queue.push(act)
    this.onChange()
  }

  /** What is typed until a promise is settled comes after what it leads to. */
  async hold<T>(promise: Promise<T>): Promise<T> {
    this.holds++
    this.onChange()
    try {
      return await promise
    } finally {
      this.holds--
      // After what the caller does with it.
      setTimeout(() => this.release())
    }
  }

  /** To be called whenever something that was awaited may be here. */
  release(): void {
    if (this.acting || this.holds > 0 || this.queue.length === 0) return this.onChange()
    this.acting = true
    this.stalled = false
    while (this.queue.length > 0 && this.holds === 0 && !this.stalled) this.queue.shift()?.()
    this.acting = false
    this.onChange()
  }
}
