/** Counting what a reader leaves out or takes in otherwise. */
import type { LeftOut } from "./format"

export class Leaving {
  private readonly counts = new Map<string, number>()

  /** @param what in words, such as "pictures" */
  add(what: string, count = 1): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + count)
  }

  get list(): LeftOut[] {
    return [...this.counts].map(([what, count]) => ({ what, count }))
  }
}
