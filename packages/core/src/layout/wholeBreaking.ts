/**
 * Lines chosen with the whole paragraph in view, so that spaces are as even as they can be. The method,
 * its measure of badness and its weights: D. E. Knuth and M. F. Plass, Breaking Paragraphs into Lines,
 * Software: Practice and Experience 11 (1981).
 */
import { hair, isWordSpace, type Ruler } from "./measuring"
import type { LineEnd } from "./quickBreaking"

const linePenalty = 10
const hyphenPenalty = 50
const hyphensInRow = 10_000
const unlikeNeighbours = 10_000
const worst = 10_000
/** Of the width of a space: what it may grow by at the measure of badness 100, and shrink by at most. */
const stretch = 0.5
const shrink = 0.25
/** Of the width of a line: slack that counts as badness 100 where lines are not justified. */
const raggedness = 0.12

interface Chosen {
  end: LineEnd
  /** Number of the line that begins here, as far as lines differ in width. */
  line: number
  demerits: number
  hyphensBefore: number
  /** 0 tight, 1 normal, 2 loose, 3 very loose. */
  fitness: number
  before: Chosen | null
}

/** For each offset the summed width of the spaces before it. */
function spaceSums(ruler: Ruler): Float64Array {
  const { text } = ruler.source
  const sums = new Float64Array(text.length + 1)
  for (let at = 0; at < text.length; at++) sums[at + 1] = (sums[at] as number) + (isWordSpace(text.charCodeAt(at)) ? ruler.natural(at, at + 1) : 0)
  return sums
}

function candidates(ruler: Ruler): (LineEnd & { required: boolean })[] {
  const { breaks, divide } = ruler.source
  let from = 0
  return breaks.offsets.flatMap((at) => {
    const inside = (divide?.(from, at) ?? []).map((point) => ({ at: point, hyphen: true, required: false }))
    from = at
    return [...inside, { at, hyphen: ruler.softAt(at), required: breaks.required?.has(at) ?? false }]
  })
}

/** Ends of the lines; null where no choice fits, or where the width of text depends on where it stands. */
export function breakWhole(ruler: Ruler): LineEnd[] | null {
  const { text, format, typesetting } = ruler.source
  if (ruler.hasTabs || text === "") return null
  const justified = format.align === "justify"
  const spaces = spaceSums(ruler)
  const last = text.length
  let active: Chosen[] = [{ end: { at: 0, hyphen: false }, line: 0, demerits: 0, hyphensBefore: 0, fitness: 1, before: null }]

  for (const candidate of candidates(ruler)) {
    const { at, hyphen, required } = candidate
    const ends = required || at === last
    const best = new Map<string, Chosen>()
    const still: Chosen[] = []
    for (const before of active) {
      const room = ruler.room(before.line)
      const visible = ruler.visibleEnd(before.end.at, at)
      const width = ruler.measureEnd(before.end.at, at, before.line, hyphen)
      const free = room - width
      const gaps = (spaces[visible] as number) - (spaces[before.end.at] as number)
      const give = free >= 0 ? (justified ? gaps * stretch : room * raggedness) : justified ? gaps * shrink : 0
      const ratio = Math.abs(free) <= hair ? 0 : give > 0 ? free / give : free > 0 ? Infinity : -Infinity
      // What begins here is too long already, so nothing that comes later can end its line.
      if (ratio >= -1 - hair && !ends) still.push(before)
      if (ratio < -1 - hair) continue
      const hyphensBefore = hyphen ? before.hyphensBefore + 1 : 0
      if (hyphensBefore > typesetting.hyphenation.inRow) continue
      const bad = ends && free >= 0 ? 0 : Math.min(worst, 100 * Math.abs(ratio) ** 3)
      const fitness = ends && free >= 0 ? 1 : ratio < -0.5 ? 0 : ratio <= 0.5 ? 1 : ratio <= 1 ? 2 : 3
      const demerits =
        before.demerits +
        (linePenalty + bad) ** 2 +
        (hyphen ? hyphenPenalty ** 2 : 0) +
        (hyphen && before.end.hyphen ? hyphensInRow : 0) +
        (Math.abs(fitness - before.fitness) > 1 ? unlikeNeighbours : 0)
      const line = ends && !required ? before.line : Math.min(before.line + 1, ruler.unlike)
      const key = `${line} ${fitness} ${hyphensBefore}`
      const rival = best.get(key)
      if (!rival || demerits < rival.demerits) best.set(key, { end: { at, hyphen }, line, demerits, hyphensBefore, fitness, before })
    }
    active = [...still, ...best.values()]
    if (active.length === 0) return null
  }
  const ended = active.filter((chosen) => chosen.end.at === last)
  if (ended.length === 0) return null
  const ends: LineEnd[] = []
  for (let chosen: Chosen | null = ended.reduce((a, b) => (b.demerits < a.demerits ? b : a)); chosen?.before; chosen = chosen.before) ends.unshift(chosen.end)
  return ends
}
