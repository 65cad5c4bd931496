import type { Db } from "./database"

export interface Write {
  /** Runs inside a transaction. */
  write(): void
  /** Called once it is on the disk. */
  done(): void
  /** Called if it is not: nothing of it was written. */
  failed(error: unknown): void
}

/** Writes what comes in the same moment, of however many documents, with one sync of the disk. */
export class Writing {
  private waiting: Write[] = []
  private later: (() => void)[] = []

  constructor(private readonly db: Db) {}

  add(write: Write): void {
    if (this.waiting.length === 0) setImmediate(() => this.flush())
    this.waiting.push(write)
  }

  /** Calls back when nothing waits to be written. */
  whenDone(act: () => void): void {
    if (this.waiting.length === 0) act()
    else this.later.push(act)
  }

  /** Writes all that waits now. */
  flush(): void {
    const writes = this.waiting
    this.waiting = []
    const error = this.attempt(writes)
    if (error === null) for (const { done } of writes) done()
    else if (writes.length === 1) writes[0]?.failed(error)
    // One that cannot be written does not keep the others back.
    else for (const write of writes) ((own) => (own === null ? write.done() : write.failed(own)))(this.attempt([write]))
    if (this.waiting.length === 0) for (const act of this.later.splice(0)) act()
  }

  /** @returns why it failed, or null */
  private attempt(writes: readonly Write[]): unknown {
    if (writes.length === 0 || !this.db.open) return writes.length === 0 ? null : new Error("The server is closing")
    try {
      this.db.transaction(() => {
        for (const { write } of writes) write()
      })()
      return null
    } catch (error) {
      return error ?? new Error("unknown")
    }
  }
}
