/** Edges and middles at which something that is dragged over a sheet catches. */

/** A stretch along one direction, in pixels. */
export interface Stretch {
  start: number
  length: number
}

/** How near an edge or a middle is caught, in pixels. */
const catches = 6

export interface Caught {
  /** Where the dragged stretch starts then. */
  start: number
  /** Where the line stands that it catches at. */
  line: number
}

/**
 * The nearest line that a stretch catches at: its ends at the ends of others, its middle at the middles of those that have one to catch at.
 * @param others what lies beside it; `middles` says whether their middles count
 */
export function catchAt(own: Stretch, others: readonly (Stretch & { middles: boolean })[]): Caught | null {
  let best: (Caught & { away: number }) | null = null
  const ends = [own.start, own.start + own.length]
  const half = own.length / 2
  const offer = (at: number, line: number) => {
    const away = Math.abs(line - at)
    if (away < catches && (!best || away < best.away)) best = { start: own.start + line - at, line, away }
  }
  for (const { start, length, middles } of others) {
    for (const line of [start, start + length]) for (const end of ends) offer(end, line)
    if (middles) offer(own.start + half, start + length / 2)
  }
  const found = best as (Caught & { away: number }) | null
  return found && { start: found.start, line: found.line }
}
