/** What was looked at last of many things that are kept in a smaller form: made again where it is asked for later. */

/** So many are kept whatever they weigh: one that is asked for in turn with some others is not made again each time. */
const least = 8

export class Recent<K, V> {
  /** The one that was asked for longest ago first. */
  private readonly made = new Map<K, V>()
  private weight = 0
  private last: { key: K; value: V } | null = null

  /**
   * @param most so much is kept, by weight
   * @param make the same for the same, each time
   */
  constructor(
    private readonly most: number,
    private readonly weigh: (value: V) => number,
    private readonly make: (key: K) => V,
  ) {}

  of(key: K): V {
    if (this.last?.key === key) return this.last.value
    const value = this.made.get(key)
    if (value === undefined) return this.keep(key, this.make(key))
    this.made.delete(key)
    this.made.set(key, value)
    this.last = { key, value }
    return value
  }

  /** Whether it need not be made. */
  has(key: K): boolean {
    return this.made.has(key)
  }

  /** Takes what was made elsewhere. */
  keep(key: K, value: V): V {
    this.made.set(key, value)
    this.last = { key, value }
    this.weight += this.weigh(value)
    for (const [oldest, own] of this.made) {
      if (this.weight <= this.most || this.made.size <= least) break
      this.made.delete(oldest)
      this.weight -= this.weigh(own)
    }
    return value
  }
}
