/** Breaks a shaped paragraph into lines and places the runs on them. */
import type { LetterFormat, LineSpacing, ParagraphFormat } from "../document"
import { graphemeEnds, type Breaks } from "./breaking"
import { faceOf } from "./fonts/catalogue"
import type { FontLibrary } from "./fonts/library"
import { shapeRun } from "./shaping"
import type { Line, LineRun, ShapedRun } from "./types"

/** Distance of the tab stops that are there without being set. */
export const defaultTab = 36

const SPACE = 0x20
const NO_BREAK_SPACE = 0xa0
const TAB = 0x09
const LINE_FEED = 0x0a

/** Spaces that stretch in a justified line. */
export function isWordSpace(unit: number): boolean {
  return unit === SPACE || unit === NO_BREAK_SPACE
}

export interface LineMetrics {
  ascent: number
  descent: number
  /** Height of a line at single spacing. */
  natural: number
}

/** Line metrics follow the chosen typeface, not the fallback of a single character, so that lines keep their distance. */
export function lineMetrics(fonts: FontLibrary, look: LetterFormat): LineMetrics {
  const { metrics } = fonts.font(faceOf(look.family, look.bold, look.italic))
  const scale = look.size / metrics.upem
  return { ascent: metrics.ascender * scale, descent: -metrics.descender * scale, natural: (metrics.ascender - metrics.descender + metrics.lineGap) * scale }
}

function spacedHeight(natural: number, spacing: LineSpacing): number {
  if (spacing.rule === "exact") return spacing.value
  return spacing.rule === "multiple" ? natural * spacing.value : Math.max(natural, spacing.value)
}

/** For each offset of the text, the distance from the text's start if it stood on one endless line. */
function advanceSums(text: string, runs: readonly ShapedRun[]): Float64Array {
  const sums = new Float64Array(text.length + 1)
  let x = 0
  let done = 0
  for (const run of runs) {
    while (done < run.from) sums[++done] = x
    const { count, clusters, advances } = run.glyphs
    for (let g = 0; g < count; ) {
      const start = clusters[g] as number
      let advance = 0
      while (g < count && clusters[g] === start) advance += advances[g++] as number
      const end = g < count ? (clusters[g] as number) : run.to
      const width = advance * run.scale
      for (let at = start + 1; at <= end; at++) sums[at] = x + (width * (at - start)) / (end - start)
      x += width
    }
    done = run.to
  }
  while (done < text.length) sums[++done] = x
  return sums
}

/** Index of the first glyph whose cluster is at `offset` or after it. */
function glyphAt(run: ShapedRun, offset: number): number {
  if (offset <= run.from) return 0
  if (offset >= run.to) return run.glyphs.count
  const { clusters } = run.glyphs
  let low = 0
  let high = run.glyphs.count
  while (low < high) {
    const middle = (low + high) >> 1
    if ((clusters[middle] as number) < offset) low = middle + 1
    else high = middle
  }
  return low
}

function unsafeAt(run: ShapedRun, offset: number): boolean {
  if (offset <= run.from || offset >= run.to) return false
  const glyph = glyphAt(run, offset)
  return run.glyphs.clusters[glyph] !== offset || run.glyphs.unsafe[glyph] === 1
}

export interface LineSource {
  fonts: FontLibrary
  text: string
  runs: readonly ShapedRun[]
  breaks: Breaks
  format: ParagraphFormat
  /** Look of the paragraph's letters, for lines without text. */
  base: LetterFormat
  /** Width of the column. */
  width: number
}

/** The lines of a paragraph; at least one. */
export function setLines(source: LineSource): Line[] {
  const { text, runs, breaks, format, width } = source
  const sums = advanceSums(text, runs)
  const tabs = text.includes("\t")
  const sum = (at: number) => sums[at] as number
  const left = (first: boolean) => format.indentLeft + (first ? format.indentFirst : 0)
  const visibleEnd = (from: number, to: number) => {
    while (to > from && (text.charCodeAt(to - 1) === SPACE || text.charCodeAt(to - 1) === LINE_FEED)) to--
    return to
  }
  // Width of text from one offset to another when it starts a line at `start`.
  const measure = (from: number, to: number, start: number) => {
    if (!tabs) return sum(to) - sum(from)
    let x = start
    for (let at = from; at < to; ) {
      const tab = text.indexOf("\t", at)
      const end = tab < 0 || tab >= to ? to : tab
      x += sum(end) - sum(at)
      at = end
      if (at < to) {
        x = nextTab(x)
        at++
      }
    }
    return x - start
  }

  const ends: number[] = []
  let from = 0
  let candidate = 0
  let i = 0
  while (i < breaks.offsets.length) {
    const end = breaks.offsets[i] as number
    const first = ends.length === 0
    const room = width - format.indentRight - left(first)
    // A hair's breadth of tolerance keeps text that fits exactly from falling over by rounding.
    if (measure(from, visibleEnd(from, end), left(first)) <= room + 1e-6) {
      if (breaks.required?.has(end)) {
        ends.push(end)
        from = candidate = end
      } else candidate = end
      i++
    } else if (candidate > from) {
      ends.push(candidate)
      from = candidate
    } else {
      // One word wider than the line: as many characters as fit, at least one.
      const inside = graphemeEnds(text.slice(from, end)).map((e) => from + e)
      const fitting = inside.filter((e) => measure(from, e, left(first)) <= room)
      const cut = Math.max(fitting.at(-1) ?? 0, inside[0] ?? end)
      if (cut >= end) {
        candidate = end
        i++
        if (i < breaks.offsets.length) {
          ends.push(end)
          from = end
        }
      } else {
        ends.push(cut)
        from = candidate = cut
      }
    }
  }
  if (from < text.length || ends.length === 0) ends.push(text.length)
  // After a line break at the very end there is one more, empty, line.
  if (text.endsWith("\n") && ends.at(-1) === text.length) ends.push(text.length)

  const lines: Line[] = []
  let top = 0
  let runIndex = 0
  ends.forEach((to, n) => {
    const start = n === 0 ? 0 : (ends[n - 1] as number)
    while (runIndex < runs.length && (runs[runIndex] as ShapedRun).to <= start) runIndex++
    const last = n === ends.length - 1 || text.charCodeAt(to - 1) === LINE_FEED
    const line = setLine(source, { from: start, to, visibleTo: visibleEnd(start, to), first: n === 0, last, runIndex, left: left(n === 0) })
    line.top = top
    top += line.height
    lines.push(line)
  })
  return lines
}

function nextTab(x: number): number {
  return (Math.floor(x / defaultTab + 1e-6) + 1) * defaultTab
}

interface LinePlan {
  from: number
  to: number
  visibleTo: number
  first: boolean
  last: boolean
  /** First run that reaches into the line. */
  runIndex: number
  left: number
}

function setLine(source: LineSource, plan: LinePlan): Line {
  const { fonts, text, format, width } = source
  const { from, to, visibleTo } = plan
  const right = width - format.indentRight
  const justified = format.align === "justify" && !plan.last

  // The pieces of runs on this line, shaped anew where a break divides what was shaped together.
  const pieces: LineRun[] = []
  for (let r = plan.runIndex; r < source.runs.length; r++) {
    let run = source.runs[r] as ShapedRun
    if (run.from >= to) break
    const a = Math.max(from, run.from)
    const b = Math.min(to, run.to)
    if (unsafeAt(run, a) || unsafeAt(run, b)) run = shapeRun(fonts, text, a, b, run.face, run.look)
    pieces.push({ run, from: a, to: b, first: glyphAt(run, a), last: glyphAt(run, b), x: 0, width: 0, extra: 0 })
  }

  let ascent = 0
  let descent = 0
  let natural = 0
  const consider = (look: LetterFormat) => {
    const metrics = lineMetrics(fonts, look)
    ascent = Math.max(ascent, metrics.ascent)
    descent = Math.max(descent, metrics.descent)
    natural = Math.max(natural, metrics.natural)
  }
  let considered: LetterFormat | null = null
  for (const piece of pieces) if (piece.run.look !== considered) consider((considered = piece.run.look))
  if (pieces.length === 0) consider(source.base)

  let x = plan.left
  let visibleRight = x
  let spaces = 0
  let stretchFrom = 0
  let at = from
  for (const [n, piece] of pieces.entries()) {
    while (at < piece.from) {
      if (text.charCodeAt(at++) !== TAB) continue
      x = nextTab(x)
      spaces = 0
      stretchFrom = n
    }
    piece.x = x
    piece.width = runWidth(piece)
    x += piece.width
    at = piece.to
    const visible = Math.min(piece.to, visibleTo)
    if (visible > piece.from) visibleRight = piece.x + (visible === piece.to ? piece.width : runWidth({ ...piece, last: glyphAt(piece.run, visible) }))
    if (justified) for (let s = piece.from; s < visible; s++) if (isWordSpace(text.charCodeAt(s))) spaces++
  }
  while (at < visibleTo) if (text.charCodeAt(at++) === TAB) visibleRight = x = nextTab(x)

  const free = right - visibleRight
  if (justified && spaces > 0) {
    const extra = free / spaces
    let shift = 0
    for (const piece of pieces.slice(stretchFrom)) {
      piece.x += shift
      piece.extra = extra
      let own = 0
      for (let s = piece.from; s < piece.to; s++) if (isWordSpace(text.charCodeAt(s))) own++
      piece.width += own * extra
      shift += own * extra
    }
    visibleRight = right
  } else if (format.align === "right" || format.align === "center") {
    const shift = format.align === "right" ? free : free / 2
    for (const piece of pieces) piece.x += shift
    visibleRight += shift
    plan = { ...plan, left: plan.left + shift }
  }

  const height = spacedHeight(natural, format.lineSpacing)
  return { from, to, top: 0, height, baseline: (height - ascent - descent) / 2 + ascent, x: plan.left, width: visibleRight - plan.left, runs: pieces }
}

function runWidth(piece: LineRun): number {
  let units = 0
  for (let g = piece.first; g < piece.last; g++) units += piece.run.glyphs.advances[g] as number
  return units * piece.run.scale
}
