/** Values that only grow, from which the next is made without copying: versions share what they have in common. */

/** A list of which each version sees so many of the first elements. */
export class Grown<T> {
  static readonly empty = new Grown<never>([], 0)

  private constructor(
    private readonly shared: T[],
    readonly length: number,
  ) {}

  at(index: number): T | undefined {
    return index < this.length ? this.shared[index] : undefined
  }

  slice(from: number): T[] {
    return this.shared.slice(from, this.length)
  }

  with<U>(more: readonly U[]): Grown<T | U> {
    // Another version may have gone on from here already.
    const list: (T | U)[] =
      this.shared.length === this.length && this.length > 0 ? this.shared : this.shared.slice(0, this.length)
    for (const element of more) list.push(element)
    return new Grown(list, this.length + more.length)
  }
}

/** A list of which the newest are asked for: each element and those before it. */
export type Chain<T> = { readonly element: T; readonly before: Chain<T> } | null

export function chained<T>(chain: Chain<T>, more: Iterable<T>): Chain<T> {
  for (const element of more) chain = { element, before: chain }
  return chain
}

/** The last elements, in their order, and what is before them. */
export function lastOf<T>(chain: Chain<T>, count: number): { last: T[]; before: Chain<T> } {
  const last: T[] = []
  for (; chain && last.length < count; chain = chain.before) last.push(chain.element)
  return { last: last.reverse(), before: chain }
}

/** Which item undoes which, or does it again: versions see the pairs whose later one they know of. */
export class Mirrors {
  static readonly none = new Mirrors(new Map(), 0)

  private constructor(
    private readonly shared: Map<number, number>,
    /** Items that this version knows. */
    private readonly known: number,
  ) {}

  get(item: number): number | undefined {
    const later = this.shared.get(item)
    return later !== undefined && later < this.known ? later : undefined
  }

  /** All pairs that are seen here. */
  *pairs(): Generator<[number, number]> {
    for (const [item, later] of this.shared) if (later < this.known) yield [item, later]
  }

  /** With more pairs; of a first that has a second already, that one stays. */
  with(more: Iterable<readonly [item: number, later: number]>, known: number): Mirrors {
    let shared = this.known === 0 && this.shared.size === 0 ? new Map<number, number>() : this.shared
    let own = shared !== this.shared
    for (const [item, later] of more) {
      if (this.get(item) !== undefined) continue
      const other = shared.get(item)
      if (other === later) continue
      if (other !== undefined && !own) {
        shared = new Map(this.pairs())
        own = true
      }
      if (!shared.has(item)) shared.set(item, later)
    }
    return new Mirrors(shared, known)
  }
}
