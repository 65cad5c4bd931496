/** What was made last of many things that are kept in a smaller form: made again where it is asked for later. */
export class Recent<K extends object, V> {
  /** Oldest first. */
  private readonly made = new Map<K, V>()
  private weight = 0

  /**
   * @param most so much is kept, by weight; the last one in any case
   * @param make the same for the same, each time
   */
  constructor(
    private readonly most: number,
    private readonly weigh: (value: V) => number,
    private readonly make: (key: K) => V,
  ) {}

  of(key: K): V {
    const known = this.made.get(key)
    if (known !== undefined) return known
    const value = this.make(key)
    this.keep(key, value)
    return value
  }

  /** Takes what was made elsewhere. */
  keep(key: K, value: V): void {
    this.made.set(key, value)
    this.weight += this.weigh(value)
    for (const [oldest, own] of this.made) {
      if (this.weight <= this.most || oldest === key) break
      this.made.delete(oldest)
      this.weight -= this.weigh(own)
    }
  }
}
