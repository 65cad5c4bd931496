/**
 * A long paragraph in which little was changed: only the lines round the change are set. Those before it are the same, and from the
 * first line on that begins where one began before, those behind it are the same further along.
 */
import { firstWhere } from "../document"
import type { Breaks } from "./breaking"
import { clusterOf, isUnsafe, shifted } from "./fonts/glyphs"
import type { Before } from "./longParagraphs"
import type { LineSource } from "./measuring"
import type { Line, LineRun, ShapedRun } from "./types"

/** Units in front of a change, and behind it, that may be looked at from there: more than a line that is full looks beyond its end. */
const margin = 2000

/** Whether two runs are set alike, wherever they stand. */
const alike = (a: ShapedRun, b: ShapedRun) =>
  a.face === b.face &&
  a.look === b.look &&
  a.scale === b.scale &&
  a.level === 0 &&
  b.level === 0 &&
  a.upper === b.upper &&
  a.glyphs.offsets === null &&
  b.glyphs.offsets === null

/** Whether a run is another one further along. */
const isMoved = (a: ShapedRun, b: ShapedRun, by: number) =>
  alike(a, b) && b.from === a.from + by && b.to === a.to + by && b.glyphs.ids === a.glyphs.ids

/** Whether a glyph of a run is that of another one further along. */
const sameGlyph = ({ glyphs: a }: ShapedRun, i: number, { glyphs: b }: ShapedRun, j: number, by: number) =>
  clusterOf(b, j) === clusterOf(a, i) + by &&
  b.ids[j] === a.ids[i] &&
  b.advances[j] === a.advances[i] &&
  isUnsafe(b, j) === isUnsafe(a, i)

/** The offset up to which two runs have the same glyphs. */
function sameTo(a: ShapedRun, b: ShapedRun): number {
  if (!alike(a, b) || b.from !== a.from) return Math.min(a.from, b.from)
  let i = 0
  while (i < a.glyphs.count && i < b.glyphs.count && sameGlyph(a, i, b, i, 0)) i++
  return i < a.glyphs.count ? clusterOf(a.glyphs, i) : a.to
}

/** The offset in a run from which on another one, which ends further along, has the same glyphs; its end where none are. */
function sameFrom(a: ShapedRun, b: ShapedRun, by: number): number {
  if (!alike(a, b) || b.to !== a.to + by) return a.to
  let [i, j] = [a.glyphs.count, b.glyphs.count]
  while (i > 0 && j > 0 && sameGlyph(a, i - 1, b, j - 1, by)) [i, j] = [i - 1, j - 1]
  return i < a.glyphs.count ? clusterOf(a.glyphs, i) : a.to
}

/** Whether what stands at the end of a line is a hyphen that is not part of the text: only so many may follow one another. */
const endsWithHyphen = ({ runs }: Line) => runs.some(({ run }) => run.from === run.to)

export class TakenOver {
  /** The runs of the text, those of before where they are the same. */
  readonly runs: readonly ShapedRun[]
  /** The lines in front of the change. */
  readonly begun: readonly Line[]
  private readonly by: number
  private readonly lines: readonly Line[]
  /** From this offset of the older text on all is as it was. */
  private sameFrom: number
  /** What stands in the place of runs behind the change, and how many places further back the glyphs have their numbers there. */
  private readonly places = new Map<ShapedRun, { run: ShapedRun; glyphs: number }>()
  /** The first line of those behind. */
  private met: number | null = null

  constructor(
    source: Pick<LineSource, "text" | "runs" | "breaks">,
    private readonly before: Before,
  ) {
    this.lines = before.set.layout.lines
    const { set, change } = before
    const old = set.runs
    this.by = change.newTo - change.oldTo
    this.sameFrom = change.oldTo + margin
    const least = Math.min(old.length, source.runs.length)
    let same = 0
    while (same < least && isMoved(old[same]!, source.runs[same]!, 0)) same++
    this.runs = [...old.slice(0, same), ...source.runs.slice(same)]
    this.begun = this.linesBefore(old[same], source.runs[same], source.breaks)
    this.placeBehind(least - same)
    this.compareBreaks(source.breaks)
  }

  /** @param a the first run in which something is changed, and what stands in its place */
  private linesBefore(a: ShapedRun | undefined, b: ShapedRun | undefined, { offsets }: Breaks): readonly Line[] {
    const { lines } = this
    const { change } = this.before
    const end = Math.min(change.from, a ? (b ? sameTo(a, b) : a.from) : Infinity)
    let count = firstWhere(lines, ({ to }) => {
      const next = offsets[firstWhere(offsets, (at) => at > to)] ?? Infinity
      return Math.min(next, to + margin) + margin > end
    })
    while (count > 0 && endsWithHyphen(lines[count - 1]!)) count--
    return lines
      .slice(0, count)
      .map((line) =>
        a && b && line.to > a.from
          ? { ...line, runs: line.runs.map((piece) => (piece.run === a ? { ...piece, run: b } : piece)) }
          : line,
      )
  }

  /** @param most so many runs are not those in front */
  private placeBehind(most: number): void {
    const old = this.before.set.runs
    const { runs, by } = this
    for (let n = 1; ; n++) {
      const a = old[old.length - n]
      const b = runs[runs.length - n]
      if (!a || a.to <= this.sameFrom) return
      if (!b) {
        this.sameFrom = a.to
        return
      }
      this.places.set(a, { run: b, glyphs: b.glyphs.count - a.glyphs.count })
      if (n <= most && isMoved(a, b, by)) continue
      this.sameFrom = Math.max(this.sameFrom, sameFrom(a, b, by))
      return
    }
  }

  /** What neighbours alone tell is the same behind them; the rules may look further. */
  private compareBreaks({ offsets, plain }: Breaks): void {
    const { offsets: old, plain: wasPlain } = this.before.set.breaks
    if (plain && wasPlain) return
    for (let n = 1; ; n++) {
      const at = old[old.length - n]
      if (at === undefined || at <= this.sameFrom) return
      if (offsets[offsets.length - n] === at + this.by) continue
      this.sameFrom = at + 1
      return
    }
  }

  /** Whether the lines behind the end of one, which is no hyphen, are those of before. */
  readonly meets = (at: number): boolean => {
    const { lines } = this
    const from = at - this.by
    if (from < this.sameFrom) return false
    const first = firstWhere(lines, (line) => line.from >= from)
    if (first === 0 || lines[first]?.from !== from || endsWithHyphen(lines[first - 1]!)) return false
    this.met = first
    return true
  }

  /** The lines behind the end of one that meets them, for which only their tops are not known. */
  behind(): Line[] {
    const { by, places } = this
    if (this.met === null) return []
    const apart = new Map<ShapedRun, ShapedRun>()
    const moved = (piece: LineRun): LineRun => {
      const place = places.get(piece.run)
      let run = place?.run ?? apart.get(piece.run)
      if (!run) {
        const own = piece.run
        run = { ...own, from: own.from + by, to: own.to + by, glyphs: shifted(own.glyphs, by) }
        apart.set(own, run)
      }
      const glyphs = place?.glyphs ?? 0
      const { from, to, first, last, x, width, extra } = piece
      return { run, from: from + by, to: to + by, first: first + glyphs, last: last + glyphs, x, width, extra }
    }
    return this.lines.slice(this.met).map((line) => ({
      from: line.from + by,
      to: line.to + by,
      top: 0,
      height: line.height,
      baseline: line.baseline,
      x: line.x,
      width: line.width,
      runs: line.runs.map(moved),
      tabs: line.tabs.length > 0 ? line.tabs.map((tab) => ({ ...tab, from: tab.from + by })) : line.tabs,
      leaders: line.leaders,
    }))
  }
}
