/** Breaks a shaped paragraph into lines and places the runs on them. */
import type { RunLook } from "../document"
import { visualOrder } from "./bidi"
import { isWordSpace, LINE_FEED, lineMetrics, Ruler, runWidth, spacedHeight, type LineSource, type Segment } from "./measuring"
import { breakQuickly } from "./quickBreaking"
import { shapeRun } from "./shaping"
import type { Line, LineRun, Rule, ShapedRun } from "./types"
import { breakWhole } from "./wholeBreaking"

/** How many glyphs, in visual order, belong to offsets before `offset`, or in a run from right to left to `offset` and those after it. */
function glyphAt(run: ShapedRun, offset: number): number {
  const back = run.level % 2 === 1
  const { clusters, count } = run.glyphs
  if (offset <= run.from) return back ? count : 0
  if (offset >= run.to) return back ? 0 : count
  let low = 0
  let high = count
  while (low < high) {
    const middle = (low + high) >> 1
    if (back ? (clusters[middle] as number) >= offset : (clusters[middle] as number) < offset) low = middle + 1
    else high = middle
  }
  return low
}

function glyphRange(run: ShapedRun, from: number, to: number): { first: number; last: number } {
  const [a, b] = [glyphAt(run, from), glyphAt(run, to)]
  return { first: Math.min(a, b), last: Math.max(a, b) }
}

function unsafeAt(run: ShapedRun, offset: number): boolean {
  if (offset <= run.from || offset >= run.to) return false
  const glyph = glyphAt(run, offset) - (run.level % 2)
  return run.glyphs.clusters[glyph] !== offset || run.glyphs.unsafe[glyph] === 1
}

function pieceOf(run: ShapedRun, from = run.from, to = run.to): LineRun {
  const range = run.from === run.to ? { first: 0, last: run.glyphs.count } : glyphRange(run, from, to)
  return { run, from, to, ...range, x: 0, width: runWidth({ run, ...range }), extra: 0 }
}

export interface SetParagraph {
  lines: Line[]
  label: LineRun[]
}

/** The lines of a paragraph, at least one, and the label before the first. */
export function setLines(source: LineSource): SetParagraph {
  const { text, runs, typesetting } = source
  const ruler = new Ruler(source)
  const ends = (typesetting.breaking === "whole" ? breakWhole(ruler) : null) ?? breakQuickly(ruler)
  // After a line break at the very end there is one more, empty, line.
  if (text.endsWith("\n") && ends.at(-1)?.at === text.length) ends.push({ at: text.length, hyphen: false })

  const lines: Line[] = []
  let top = 0
  let runIndex = 0
  ends.forEach(({ at: to, hyphen }, n) => {
    const from = n === 0 ? 0 : (ends[n - 1]?.at ?? 0)
    while (runIndex < runs.length && (runs[runIndex] as ShapedRun).to <= from) runIndex++
    const last = n === ends.length - 1 || text.charCodeAt(to - 1) === LINE_FEED
    const line = setLine(ruler, { n, from, to, visibleTo: ruler.visibleEnd(from, to), hyphen, last, runIndex })
    line.top = top
    top += line.height
    lines.push(line)
  })
  return { lines, label: setLabel(ruler) }
}

function setLabel({ label, source }: Ruler): LineRun[] {
  if (!label || !source.label) return []
  const pieces = source.label.runs.map((run) => pieceOf(run))
  const width = pieces.reduce((sum, piece) => sum + piece.width, 0)
  let x = source.format.direction === "rtl" ? source.width - label.x - width : label.x
  for (const piece of visualOrder(pieces, ({ run }) => run.level)) {
    piece.x = x
    x += piece.width
  }
  return pieces
}

interface LinePlan {
  n: number
  from: number
  to: number
  visibleTo: number
  hyphen: boolean
  /** Whether the paragraph, or what stands before a line break, ends with it. */
  last: boolean
  /** First run that reaches into the line. */
  runIndex: number
}

/** The pieces of runs on a line in the order of the text, shaped anew where a break divides what was shaped together. */
function piecesOf({ source }: Ruler, { from, to, visibleTo, runIndex }: LinePlan): LineRun[] {
  const pieces: LineRun[] = []
  const base = source.format.direction === "rtl" ? 1 : 0
  for (let r = runIndex; r < source.runs.length; r++) {
    let run = source.runs[r] as ShapedRun
    if (run.from >= to) break
    const [a, b] = [Math.max(from, run.from), Math.min(to, run.to)]
    if (unsafeAt(run, a) || unsafeAt(run, b)) run = shapeRun(source.fonts, source.text, a, b, run.face, run.look, { level: run.level, upper: run.upper, small: run.upper && run.look.caps === "small" })
    if (source.levels && a < visibleTo && b > visibleTo && run.level !== base) {
      // Spaces that hang at the end of a line go the way of the paragraph (rule L1).
      const [text, tail] = [shapeRun(source.fonts, source.text, a, visibleTo, run.face, run.look, { level: run.level }), shapeRun(source.fonts, source.text, visibleTo, b, run.face, run.look, { level: base })]
      pieces.push(pieceOf(text), pieceOf(tail))
    } else pieces.push(pieceOf(run, a, b))
  }
  return pieces
}

function setLine(ruler: Ruler, plan: LinePlan): Line {
  const { source } = ruler
  const { text, format, width, cap } = source
  const { from, to, visibleTo, n } = plan
  const pieces = piecesOf(ruler, plan)
  const hyphen = plan.hyphen ? ruler.hyphen(to) : null
  if (hyphen) pieces.push(pieceOf(hyphen))
  const { height, baseline } = heightOf(source, pieces)

  const start = ruler.left(n)
  const segments = ruler.segments(from, to, start)
  const stretches = format.align === "justify" && !plan.last
  const endOf = (segment: Segment, end: number) => segment.x + ruler.natural(segment.from, Math.max(segment.from, end))
  const lastSegment = segments.at(-1) as Segment
  const capShift = cap && n === 0 ? cap.distance : 0
  let visibleRight = endOf(lastSegment, Math.min(visibleTo, lastSegment.to)) + (hyphen ? runWidth(pieceOf(hyphen)) : 0)

  // Justification stretches the spaces behind the last tab.
  const free = ruler.right - visibleRight
  let extra = 0
  if (stretches) {
    let spaces = 0
    for (let at = lastSegment.from; at < visibleTo; at++) if (isWordSpace(text.charCodeAt(at))) spaces++
    if (spaces > 0) {
      extra = free / spaces
      visibleRight = ruler.right
    }
  }
  const rtl = format.direction === "rtl"
  const toEnd = format.align === "center" ? 0.5 : format.align === (rtl ? "left" : "right") ? 1 : 0
  const shift = toEnd * free

  const placed: LineRun[] = []
  const leaders: Rule[] = []
  for (const segment of segments) {
    const own = pieces.filter((piece) => piece.from >= segment.from && (piece.to <= segment.to || piece.from < segment.to))
    let total = 0
    for (const piece of own) {
      if (extra !== 0 && segment === lastSegment) {
        piece.extra = extra
        for (let at = piece.from; at < piece.to; at++) if (isWordSpace(text.charCodeAt(at))) piece.width += extra
      }
      total += piece.width
    }
    const at = segment.x + shift
    let x = rtl ? width - at - total : at
    for (const piece of source.levels ? visualOrder(own, (p) => p.run.level) : own) {
      piece.x = piece.run.cap ? x - capShift : x
      x += piece.width
      placed.push(piece)
    }
    if (segment.leader) leaders.push(leader(segment.leader, source.base, shift, rtl ? width : null))
  }
  const tabs = segments.slice(1).map((segment) => ({ from: segment.from, x: rtl ? width - segment.x - shift : segment.x + shift }))
  const left = start + shift - capShift
  const visible = visibleRight + shift - left
  return { from, to, top: 0, height, baseline, x: rtl ? width - left - visible : left, width: visible, runs: placed, tabs, leaders }
}

/** A leader stands a hair above the baseline and keeps clear of the text at both ends. */
function leader({ from, to, pattern }: NonNullable<Segment["leader"]>, look: RunLook, shift: number, mirror: number | null): Rule {
  const gap = look.size * 0.2
  const height = Math.max(0.5, look.size / 16)
  const left = from + shift + gap
  const length = Math.max(0, to - from - 2 * gap)
  return { x: mirror === null ? left : mirror - left - length, y: -height, width: length, height, pattern, colour: look.colour }
}

/** Height of a line and the distance of its baseline from its top. */
function heightOf(source: LineSource, pieces: readonly LineRun[]): { height: number; baseline: number } {
  const { fonts, format, base } = source
  let ascent = 0
  let descent = 0
  let natural = 0
  const consider = (look: RunLook, rise = 0) => {
    const metrics = lineMetrics(fonts, look)
    ascent = Math.max(ascent, metrics.ascent + Math.max(0, rise))
    descent = Math.max(descent, metrics.descent - Math.min(0, rise))
    natural = Math.max(natural, metrics.natural)
  }
  // At an exact distance, baselines keep it whatever stands on the lines.
  const fixed = format.lineSpacing.rule === "exact"
  let considered: RunLook | null = null
  if (!fixed) for (const { run } of pieces) if (run.look !== considered && !run.cap) consider((considered = run.look), run.look.raise)
  if (considered === null) consider(base)
  const height = spacedHeight(natural, format.lineSpacing)
  return { height, baseline: (height - ascent - descent) / 2 + ascent }
}
