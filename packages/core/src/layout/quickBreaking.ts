/** Lines one after the other, each as full as it gets. */
import { firstWhere } from "../document"
import { graphemeEnds } from "./breaking"
import { hair, type Ruler } from "./measuring"

export interface LineEnd {
  at: number
  /** Whether the line ends with a hyphen that is not part of the text. */
  hyphen: boolean
}

/**
 * Ends of the lines behind those that are set already.
 * @param meets whether the lines behind the end of one are known
 */
export function breakQuickly(ruler: Ruler, meets?: (at: number) => boolean): LineEnd[] {
  const { text, breaks, typesetting, divide, begun } = ruler.source
  const { inRow: mostInRow } = typesetting.hyphenation
  const ends: LineEnd[] = []
  let from = begun.at(-1)?.to ?? 0
  let candidate = from
  let inRow = 0
  let isMet = false
  let room = ruler.room(begun.length) + hair
  const end = (at: number, hyphen: boolean) => {
    ends.push({ at, hyphen })
    inRow = hyphen ? inRow + 1 : 0
    from = candidate = at
    room = ruler.room(begun.length + ends.length) + hair
    isMet = !hyphen && meets?.(at) === true
  }
  const first = from === 0 ? 0 : firstWhere(breaks.offsets, (at) => at > from)
  for (let i = first; i < breaks.offsets.length && !isMet;) {
    const next = breaks.offsets[i] as number
    const n = begun.length + ends.length
    if (ruler.measureEnd(from, next, n, undefined, room) <= room) {
      if (breaks.required?.has(next)) end(next, false)
      else candidate = next
      i++
      continue
    }
    const divided =
      divide && inRow < mostInRow
        ? divide(Math.max(candidate, from), Math.min(next, reach(ruler, from, next, n, room) + behind)).findLast(
            (at) => ruler.measureEnd(from, at, n, true) <= room,
          )
        : undefined
    if (divided !== undefined) end(divided, true)
    else if (candidate > from) end(candidate, ruler.softAt(candidate))
    else {
      // One word wider than the line: as many characters as fit, at least one.
      const cut = cutInside(ruler, from, next, n, room)
      if (cut < next) end(cut, false)
      else {
        candidate = next
        i++
        if (i < breaks.offsets.length) end(next, false)
      }
    }
  }
  if (!isMet && (from < text.length || ends.length === 0)) ends.push({ at: text.length, hyphen: false })
  return ends
}

/** Units that are looked at behind what fits, to find the end of a character there. */
const ahead = 64
/** And to find a word that begins before: twice as many as a word that is divided may have. */
const behind = 130

/** How far text fits on a line, or hardly further; what lies far behind that is not looked at. */
function reach(ruler: Ruler, from: number, next: number, n: number, room: number): number {
  const fits = (at: number) => ruler.measure(from, at, n, room) <= room
  // In growing strides to beyond the end, then by halves back to it.
  let low = from
  let high = from + 1
  for (let stride = 1; high < next && fits(high); stride *= 2) {
    low = high
    high = Math.min(next, high + stride)
  }
  if (high === next && fits(next)) return next
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (fits(middle)) low = middle
    else high = middle
  }
  return low
}

/**
 * The end of the last character that fits on a line, or of the first if none does. What lies far behind the line's end is not
 * looked at, so that a word of any length costs what its letters do.
 */
function cutInside(ruler: Ruler, from: number, next: number, n: number, room: number): number {
  const { text } = ruler.source
  const low = reach(ruler, from, next, n, room)
  for (let look = ahead; ; look *= 4) {
    const end = Math.min(next, low + look)
    const ends = graphemeEnds(text.slice(from, end)).map((at) => from + at)
    // The last may go on behind what was looked at.
    if (end < next) ends.pop()
    const first = ends[0]
    if (first === undefined && end < next) continue
    return Math.max(ends.findLast((at) => at <= low) ?? 0, first ?? next)
  }
}
