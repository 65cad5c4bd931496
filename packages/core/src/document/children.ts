/**
 * What is made of the children of a node, as of the rows of a table: of a node that differs in few of them from one that was asked
 * for before, only these are looked at.
 */
import type { Node } from "prosemirror-model"

/** Children from `from` on, up to `oldTo` in the older list and `newTo` in the newer one. */
interface Span {
  from: number
  oldTo: number
  newTo: number
}

/** What was made of a node that shares children with the one at hand. */
interface Known<R> extends Span {
  result: R
  older: readonly Node[]
}

function changed(older: readonly Node[], newer: readonly Node[]): Span {
  const least = Math.min(older.length, newer.length)
  let from = 0
  while (from < least && older[from] === newer[from]) from++
  let same = 0
  while (same < least - from && older[older.length - 1 - same] === newer[newer.length - 1 - same]) same++
  return { from, oldTo: older.length - same, newTo: newer.length - same }
}

/** With fewer children nothing is gained, and so many long nodes are known at a time. */
const [few, most] = [64, 4]

export function ofChildren<R>(make: (children: readonly Node[], known: Known<R> | null) => R): (node: Node) => R {
  const made = new WeakMap<Node, R>()
  let recent: readonly WeakRef<Node>[] = []
  return (node) => {
    const own = made.get(node)
    if (own !== undefined) return own
    const { children } = node
    if (children.length < few) {
      const result = make(children, null)
      made.set(node, result)
      return result
    }
    let known: Known<R> | null = null
    let from: WeakRef<Node> | null = null
    for (const reference of recent) {
      const other = reference.deref()
      if (!other || (other.children[0] !== children[0] && other.children.at(-1) !== children.at(-1))) continue
      known = { result: made.get(other) as R, older: other.children, ...changed(other.children, children) }
      from = reference
      break
    }
    const result = make(children, known)
    made.set(node, result)
    recent = [new WeakRef(node), ...recent.filter((reference) => reference !== from)].slice(0, most)
    return result
  }
}

/** The numbers of the children of which something is true. */
export function childrenThat(test: (child: Node) => boolean): (node: Node) => readonly number[] {
  const among = (children: readonly Node[], from: number, to: number): number[] => {
    const found: number[] = []
    for (let i = from; i < to; i++) if (test(children[i] as Node)) found.push(i)
    return found
  }
  return ofChildren<readonly number[]>((children, known) => {
    if (!known) return among(children, 0, children.length)
    const { result, from, oldTo, newTo } = known
    const inside = among(children, from, newTo)
    const gone = result.some((i) => i >= from && i < oldTo)
    if (inside.length === 0 && !gone && (oldTo === newTo || result.every((i) => i < from))) return result
    return [
      ...result.filter((i) => i < from),
      ...inside,
      ...result.filter((i) => i >= oldTo).map((i) => i + newTo - oldTo),
    ]
  })
}
