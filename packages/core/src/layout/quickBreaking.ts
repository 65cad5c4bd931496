/** Lines one after the other, each as full as it gets. */
import { graphemeEnds } from "./breaking"
import { hair, type Ruler } from "./measuring"

export interface LineEnd {
  at: number
  /** Whether the line ends with a hyphen that is not part of the text. */
  hyphen: boolean
}

/** Ends of the lines but the last. */
export function breakQuickly(ruler: Ruler): LineEnd[] {
  const { text, breaks, typesetting, divide } = ruler.source
  const { inRow: mostInRow } = typesetting.hyphenation
  const ends: LineEnd[] = []
  let from = 0
  let candidate = 0
  let inRow = 0
  let room = ruler.room(0) + hair
  const end = (at: number, hyphen: boolean) => {
    ends.push({ at, hyphen })
    inRow = hyphen ? inRow + 1 : 0
    from = candidate = at
    room = ruler.room(ends.length) + hair
  }
  for (let i = 0; i < breaks.offsets.length; ) {
    const next = breaks.offsets[i] as number
    const n = ends.length
    if (ruler.measureEnd(from, next, n) <= room) {
      if (breaks.required?.has(next)) end(next, false)
      else candidate = next
      i++
      continue
    }
    const divided = divide && inRow < mostInRow ? divide(Math.max(candidate, from), next).findLast((at) => ruler.measureEnd(from, at, n, true) <= room) : undefined
    if (divided !== undefined) end(divided, true)
    else if (candidate > from) end(candidate, ruler.softAt(candidate))
    else {
      // One word wider than the line: as many characters as fit, at least one.
      const inside = graphemeEnds(text.slice(from, next)).map((e) => from + e)
      const fitting = inside.filter((e) => ruler.measure(from, e, n) <= room)
      const cut = Math.max(fitting.at(-1) ?? 0, inside[0] ?? next)
      if (cut < next) end(cut, false)
      else {
        candidate = next
        i++
        if (i < breaks.offsets.length) end(next, false)
      }
    }
  }
  if (from < text.length || ends.length === 0) ends.push({ at: text.length, hyphen: false })
  return ends
}
