/**
 * Lines chosen with the whole paragraph in view, so that spaces are as even as they can be. The method,
 * its measure of badness and its weights: D. E. Knuth and M. F. Plass, Breaking Paragraphs into Lines,
 * Software: Practice and Experience 11 (1981). As there, a first attempt divides no words and allows little
 * stretch; only where that fails are words divided, and only where that fails is anything allowed.
 */
import { hair, isWordSpace, type Ruler } from "./measuring"
import type { LineEnd } from "./quickBreaking"

const linePenalty = 10
const hyphenPenalty = 50
const hyphensInRow = 10_000
const unlikeNeighbours = 10_000
const worst = 10_000
/** Beginnings of a line that are weighed at once: more only where text has no width. */
const mostActive = 2000
/** Of the width of a space: what it may grow by at the measure of badness 100, and shrink by at most. */
const stretch = 0.5
const shrink = 0.25
/** Of the width of a line: slack that counts as badness 100 where lines are not justified. */
const raggedness = 0.12
/** Largest stretch of the attempts, in the measure of badness 100. */
const attempts: readonly { divided: boolean; most: number }[] = [
  { divided: false, most: 1.3 },
  { divided: true, most: 2 },
  { divided: true, most: Infinity },
]

/** A place where a line may end, with all that is measured to it. */
interface Candidate {
  end: LineEnd
  required: boolean
  /** Where the next line begins. */
  start: number
  startSpaces: number
  /** Sums up to the last letter that can be seen, and the hyphen behind it. */
  width: number
  spaces: number
}

interface Chosen {
  candidate: Candidate
  /** Number of the line that begins here, as far as lines differ in width. */
  line: number
  demerits: number
  hyphensBefore: number
  /** 0 tight, 1 normal, 2 loose, 3 very loose. */
  fitness: number
  before: Chosen | null
}

function measured(ruler: Ruler): Candidate[] {
  const { text, breaks, divide } = ruler.source
  const spaces = new Float64Array(text.length + 1)
  for (let at = 0; at < text.length; at++)
    spaces[at + 1] = (spaces[at] as number) + (isWordSpace(text.charCodeAt(at)) ? ruler.natural(at, at + 1) : 0)
  const candidate = (at: number, from: number, hyphen: boolean, required: boolean): Candidate => {
    const visible = ruler.visibleEnd(from, at)
    return {
      end: { at, hyphen },
      required,
      start: ruler.natural(0, at),
      startSpaces: spaces[at] as number,
      width: ruler.natural(0, visible) + (hyphen ? ruler.hyphenWidth(at) : 0),
      spaces: spaces[visible] as number,
    }
  }
  const points = divide?.(0, text.length) ?? []
  const all: Candidate[] = []
  let from = 0
  let next = 0
  for (const at of breaks.offsets) {
    for (; next < points.length && (points[next] as number) < at; next++)
      all.push(candidate(points[next] as number, from, true, false))
    if (points[next] === at) next++
    all.push(candidate(at, from, ruler.softAt(at), breaks.required?.has(at) ?? false))
    from = at
  }
  return all
}

/** Ends of the lines; null where no choice fits, or where the width of text depends on where it stands. */
export function breakWhole(ruler: Ruler): LineEnd[] | null {
  const { text } = ruler.source
  if (ruler.hasTabs || text === "") return null
  const all = measured(ruler)
  const whole = all.filter(({ end }) => !end.hyphen || ruler.softAt(end.at))
  for (const { divided, most } of attempts) {
    const ends = attempt(ruler, divided ? all : whole, most)
    if (ends) return ends
  }
  return null
}

function attempt(ruler: Ruler, candidates: readonly Candidate[], most: number): LineEnd[] | null {
  const { text, format, typesetting } = ruler.source
  const justified = format.align === "justify"
  const { inRow } = typesetting.hyphenation
  const { unlike } = ruler
  const rooms = Array.from({ length: unlike + 1 }, (_, n) => ruler.room(n))
  const last = text.length
  const start: Candidate = {
    end: { at: 0, hyphen: false },
    required: false,
    start: 0,
    startSpaces: 0,
    width: 0,
    spaces: 0,
  }
  const active: Chosen[] = [{ candidate: start, line: 0, demerits: 0, hyphensBefore: 0, fitness: 1, before: null }]

  for (const candidate of candidates) {
    const { end, required } = candidate
    const ends = required || end.at === last
    const best: Chosen[] = []
    let kept = 0
    for (const before of active) {
      const room = rooms[before.line] as number
      const free = room - (candidate.width - before.candidate.start)
      let ratio = 0
      if (free > hair) {
        const give = justified ? (candidate.spaces - before.candidate.startSpaces) * stretch : room * raggedness
        ratio = give > 0 ? free / give : Infinity
      } else if (free < -hair) {
        const give = justified ? (candidate.spaces - before.candidate.startSpaces) * shrink : 0
        ratio = give > 0 ? free / give : -Infinity
      }
      // What begins here is too long already, so nothing that comes later can end its line.
      if (ratio < -1 - hair) continue
      if (!ends) active[kept++] = before
      const closing = ends && free >= 0
      if (!closing && ratio > most) continue
      const hyphensBefore = end.hyphen ? before.hyphensBefore + 1 : 0
      if (hyphensBefore > inRow) continue
      const bad = closing ? 0 : Math.min(worst, 100 * Math.abs(ratio) ** 3)
      const fitness = closing ? 1 : ratio < -0.5 ? 0 : ratio <= 0.5 ? 1 : ratio <= 1 ? 2 : 3
      const demerits =
        before.demerits +
        (linePenalty + bad) ** 2 +
        (end.hyphen ? hyphenPenalty ** 2 : 0) +
        (end.hyphen && before.candidate.end.hyphen ? hyphensInRow : 0) +
        (Math.abs(fitness - before.fitness) > 1 ? unlikeNeighbours : 0)
      const line = Math.min(before.line + 1, unlike)
      const rival = best.findIndex(
        (own) => own.line === line && own.fitness === fitness && own.hyphensBefore === hyphensBefore,
      )
      if (rival >= 0 && (best[rival] as Chosen).demerits <= demerits) continue
      const chosen: Chosen = { candidate, line, demerits, hyphensBefore, fitness, before }
      if (rival >= 0) best[rival] = chosen
      else best.push(chosen)
    }
    active.length = kept
    active.push(...best)
    if (active.length === 0 || active.length > mostActive) return null
  }
  const ended = active.filter(({ candidate }) => candidate.end.at === last)
  if (ended.length === 0) return null
  const ends: LineEnd[] = []
  for (
    let chosen: Chosen | null = ended.reduce((a, b) => (b.demerits < a.demerits ? b : a));
    chosen?.before;
    chosen = chosen.before
  )
    ends.push(chosen.candidate.end)
  return ends.reverse()
}
