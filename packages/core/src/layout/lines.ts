/** Breaks a shaped paragraph into lines and places the runs on them. */
import type { RunLook } from "../document"
import { visualOrder } from "./bidi"
import {
  isBlank,
  isWordSpace,
  LINE_FEED,
  Ruler,
  runWidth,
  spacedHeight,
  type LineSource,
  type Segment,
} from "./measuring"
import { breakQuickly } from "./quickBreaking"
import { clusterOf, isUnsafe, plainWords } from "./fonts/glyphs"
import { shapeRun } from "./shaping"
import type { TakenOver } from "./takenOver"
import type { Line, LineRun, Rule, ShapedRun } from "./types"
import { breakWhole } from "./wholeBreaking"

/** How many glyphs, in visual order, belong to offsets before `offset`, or in a run from right to left to `offset` and those after it. */
function glyphAt(run: ShapedRun, offset: number): number {
  const back = run.level % 2 === 1
  const { glyphs } = run
  const { count } = glyphs
  if (offset <= run.from) return back ? count : 0
  if (offset >= run.to) return back ? 0 : count
  if (glyphs.clusters === null && !back) return Math.min(count, offset - glyphs.first)
  let low = 0
  let high = count
  while (low < high) {
    const middle = (low + high) >> 1
    const cluster = clusterOf(glyphs, middle)
    if (back ? cluster >= offset : cluster < offset) low = middle + 1
    else high = middle
  }
  return low
}

function unsafeAt(run: ShapedRun, offset: number, text: string): boolean {
  if (offset <= run.from || offset >= run.to) return false
  const words = plainWords(run.glyphs)
  if (words)
    return isBlank(text.charCodeAt(offset - 1)) ? words.isTight(offset - run.from) : words.isUnsafe(offset - run.from)
  const glyph = glyphAt(run, offset) - (run.level % 2)
  return glyph < 0 || clusterOf(run.glyphs, glyph) !== offset || isUnsafe(run.glyphs, glyph)
}

/** @param ruler that of the text, if it is a part of that */
function pieceOf(run: ShapedRun, from = run.from, to = run.to, ruler: Ruler | null = null): LineRun {
  if (ruler && plainWords(run.glyphs)) {
    const [first, last] = [from - run.from, to - run.from]
    return { run, from, to, first, last, x: 0, width: ruler.widthIn(run, first, last), extra: 0 }
  }
  const foreign = run.from === run.to
  const a = foreign ? 0 : glyphAt(run, from)
  const b = foreign ? run.glyphs.count : glyphAt(run, to)
  const [first, last] = a < b ? [a, b] : [b, a]
  return { run, from, to, first, last, x: 0, width: runWidth(run, first, last), extra: 0 }
}

export interface SetParagraph {
  lines: Line[]
  label: LineRun[]
}

/**
 * The lines of a paragraph, at least one, and the label before the first.
 * @param taken what its lines have of those that it had before
 */
export function setLines(own: LineSource, taken: TakenOver | null = null): SetParagraph {
  const source = taken ? { ...own, runs: taken.runs, begun: taken.begun } : own
  const { text, runs, typesetting, begun } = source
  const ruler = new Ruler(source)
  // What is left of a paragraph that goes on in another width is broken line by line.
  const whole = typesetting.breaking === "whole" && begun.length === 0
  const ends = (whole ? breakWhole(ruler) : null) ?? breakQuickly(ruler, taken?.meets)
  const behind = taken?.behind() ?? []
  // After a line break at the very end there is one more, empty, line.
  if (behind.length === 0 && text.endsWith("\n") && ends.at(-1)?.at === text.length)
    ends.push({ at: text.length, hyphen: false })

  const lines: Line[] = [...begun]
  const before = begun.at(-1)
  let top = before ? before.top + before.height : 0
  let runIndex = 0
  let from = begun.at(-1)?.to ?? 0
  ends.forEach(({ at: to, hyphen }, i) => {
    while (runIndex < runs.length && (runs[runIndex] as ShapedRun).to <= from) runIndex++
    const last = (i === ends.length - 1 && behind.length === 0) || text.charCodeAt(to - 1) === LINE_FEED
    const line = setLine(ruler, {
      n: lines.length,
      from,
      to,
      visibleTo: ruler.visibleEnd(from, to),
      hyphen,
      last,
      runIndex,
    })
    top += source.insets[lines.length]?.above ?? 0
    line.top = top
    top += line.height
    lines.push(line)
    from = to
  })
  for (const line of behind) {
    line.top = top
    top += line.height
    lines.push(line)
  }
  return { lines: exact(lines), label: setLabel(ruler) }
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

const noTabs: Line["tabs"] = []
const noLeaders: Line["leaders"] = []

/** A list that was made by adding to it has room for more, which lines would keep for as long as there is a layout; a copy has none. */
const exact = <T>(list: readonly T[]): T[] => list.slice()

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
function piecesOf(ruler: Ruler, { from, to, visibleTo, runIndex }: LinePlan): LineRun[] {
  const { source } = ruler
  const { runs, text } = source
  const first = runs[runIndex]
  // Most lines are within one run. A list that grows has room for more than it holds, which it would keep.
  const isWithin = first && first.from <= from && first.to >= to && !source.levels
  if (isWithin && !unsafeAt(first, from, text) && !unsafeAt(first, to, text)) return [pieceOf(first, from, to, ruler)]
  const pieces: LineRun[] = []
  const base = source.format.direction === "rtl" ? 1 : 0
  for (let r = runIndex; r < runs.length; r++) {
    let run = runs[r] as ShapedRun
    if (run.from >= to) break
    const a = Math.max(from, run.from)
    const b = Math.min(to, run.to)
    if (unsafeAt(run, a, text) || unsafeAt(run, b, text))
      run = shapeRun(source.fonts, text, a, b, run.face, run.look, {
        level: run.level,
        upper: run.upper,
        small: run.upper && run.look.caps === "small",
      })
    if (source.levels && a < visibleTo && b > visibleTo && run.level !== base) {
      // Spaces that hang at the end of a line go the way of the paragraph (rule L1).
      const [seen, tail] = [
        shapeRun(source.fonts, text, a, visibleTo, run.face, run.look, { level: run.level }),
        shapeRun(source.fonts, text, visibleTo, b, run.face, run.look, { level: base }),
      ]
      pieces.push(pieceOf(seen), pieceOf(tail))
    } else pieces.push(pieceOf(run, a, b))
  }
  return exact(pieces)
}

/** How many spaces that stretch stand in a part of a text. */
function spacesIn(text: string, from: number, to: number): number {
  let spaces = 0
  for (let at = from; at < to; at++) if (isWordSpace(text.charCodeAt(at))) spaces++
  return spaces
}

function setLine(ruler: Ruler, plan: LinePlan): Line {
  const { source } = ruler
  const { text, format, width, cap } = source
  const { from, to, visibleTo, n } = plan
  const pieces = piecesOf(ruler, plan)
  const hyphen = plan.hyphen ? ruler.hyphen(to) : null
  if (hyphen) pieces.push(pieceOf(hyphen))
  const { height, baseline } = heightOf(ruler, pieces)

  const start = ruler.left(n)
  const segments = ruler.segments(from, to, start)
  const stretches = format.align === "justify" && !plan.last
  const lastSegment = segments[segments.length - 1] as Segment
  const capShift = cap && n === 0 ? cap.distance : 0
  const visibleLast = Math.max(lastSegment.from, Math.min(visibleTo, lastSegment.to))
  let visibleRight = lastSegment.x + ruler.natural(lastSegment.from, visibleLast) + (hyphen ? runWidth(hyphen) : 0)

  // Justification stretches the spaces behind the last tab.
  const end = ruler.end(n)
  const free = end - visibleRight
  let extra = 0
  if (stretches) {
    const spaces = spacesIn(text, lastSegment.from, visibleTo)
    if (spaces > 0) {
      extra = free / spaces
      visibleRight = end
    }
  }
  const rtl = format.direction === "rtl"
  const toEnd = format.align === "center" ? 0.5 : format.align === (rtl ? "left" : "right") ? 1 : 0
  const shift = toEnd * free

  if (extra !== 0)
    for (const piece of pieces)
      if (piece.from >= lastSegment.from) {
        piece.extra = extra
        piece.width += extra * spacesIn(text, piece.from, piece.to)
      }
  const isWhole = segments.length === 1
  const runs = isWhole
    ? placePieces(pieces, source, start + shift, capShift)
    : segments.flatMap((segment) =>
        placePieces(
          pieces.filter((piece) => piece.from >= segment.from && (piece.to <= segment.to || piece.from < segment.to)),
          source,
          segment.x + shift,
          capShift,
        ),
      )
  const mirror = rtl ? width : null
  const leaders = isWhole
    ? noLeaders
    : segments.flatMap((segment) => (segment.leader ? leader(segment.leader, source.base, shift, mirror) : []))
  const tabs = isWhole
    ? noTabs
    : segments
        .slice(1)
        .map((segment) => ({ from: segment.from, x: rtl ? width - segment.x - shift : segment.x + shift }))
  const left = start + shift - capShift
  const visible = visibleRight + shift - left
  return {
    from,
    to,
    top: 0,
    height,
    baseline,
    x: rtl ? width - left - visible : left,
    width: visible,
    runs,
    tabs,
    leaders,
  }
}

/**
 * Places pieces one behind the other, in the order in which they are seen.
 * @param start where they begin, from the edge at which lines begin
 * @param capShift how far a drop cap reaches out of the text
 */
function placePieces(
  pieces: LineRun[],
  { levels, format, width }: LineSource,
  start: number,
  capShift: number,
): LineRun[] {
  const rtl = format.direction === "rtl"
  const seen = levels ? visualOrder(pieces, ({ run }) => run.level) : pieces
  let x = rtl ? width - start - pieces.reduce((sum, piece) => sum + piece.width, 0) : start
  for (const piece of seen) {
    piece.x = piece.run.cap ? (rtl ? x + capShift : x - capShift) : x
    x += piece.width
  }
  return seen
}

/** A leader stands a hair above the baseline and keeps clear of the text at both ends. Dots of lines below one another stand below one another. */
function leader(
  { from, to, pattern }: NonNullable<Segment["leader"]>,
  look: RunLook,
  shift: number,
  mirror: number | null,
): Rule {
  const gap = look.size * 0.2
  const height = Math.max(0.5, look.size / 16)
  const left = from + shift + gap
  const length = Math.max(0, to - from - 2 * gap)
  const rule = {
    x: mirror === null ? left : mirror - left - length,
    y: -height,
    width: length,
    height,
    pattern,
    colour: look.colour,
  }
  if (pattern !== "dotted") return rule
  const pitch = look.size * 0.36
  const first = Math.ceil(rule.x / pitch) * pitch
  return { pitch, ...rule, x: first, width: Math.max(0, rule.x + length - first) }
}

/** Height of a line and the distance of its baseline from its top. */
function heightOf(ruler: Ruler, pieces: readonly LineRun[]): { height: number; baseline: number } {
  const { format, base } = ruler.source
  let ascent = 0
  let descent = 0
  let natural = 0
  // At an exact distance, baselines keep it whatever stands on the lines.
  const fixed = format.lineSpacing.rule === "exact"
  let considered: RunLook | null = null
  for (let i = fixed ? pieces.length : 0; i <= pieces.length; i++) {
    const run = pieces[i]?.run
    // After the last one, the paragraph's own letters count where no others did.
    const look: RunLook | null = run ? run.look : considered === null ? base : null
    if (look === null || look === considered || run?.cap) continue
    if (run) considered = look
    const metrics = ruler.metrics(look)
    const rise = run ? look.raise : 0
    ascent = Math.max(ascent, metrics.ascent + Math.max(0, rise))
    descent = Math.max(descent, metrics.descent - Math.min(0, rise))
    natural = Math.max(natural, metrics.natural)
  }
  const spaced = spacedHeight(natural, format.lineSpacing)
  const baseline = (spaced - ascent - descent) / 2 + ascent
  // A picture stands on the baseline and makes its line as much higher as it has to be, whatever the spacing.
  let higher = 0
  for (const { run } of pieces) if (run.picture) higher = Math.max(higher, run.picture.box.height - baseline)
  return { height: spaced + higher, baseline: baseline + higher }
}
