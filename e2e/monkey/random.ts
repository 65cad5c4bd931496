/** Chance that can be had again. */
export class Chance {
  private state: number

  constructor(seed: number) {
    this.state = seed >>> 0
  }

  /** From 0 to 1, the same for the same seed; what it meets on the page still hangs on the machine. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(this.state ^ (this.state >>> 15), this.state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }

  from(least: number, most: number): number {
    return least + this.next() * (most - least)
  }

  any<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)] as T
  }

  /** A list to go through, of at least one and at most so many. */
  upTo(most: number): unknown[] {
    return Array.from({ length: Math.ceil(this.next() * most) })
  }
}
