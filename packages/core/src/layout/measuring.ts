/**
 * How wide text is, before it is broken into lines. Lengths run in the direction of the paragraph, from
 * the edge at which its lines begin; which edge of the column that is matters only when lines are placed.
 */
import { allOf, clusterOf, plainWords, unitsOf } from "./fonts/glyphs"
import type { LetterFormat, LineSpacing, ListLevel, ParagraphFormat, RunLook, TabStop, Typesetting } from "../document"
import { firstWhere, knownLanguage } from "../document"
import type { Breaks } from "./breaking"
import type { FontLibrary } from "./fonts/library"
import { shapeShown } from "./shaping"
import type { Insets, Line, ShapedRun } from "./types"

/** Distance of the tab stops that are there without being set. */
const defaultTab = 36

const SPACE = 0x20
const NO_BREAK_SPACE = 0xa0
const SOFT_HYPHEN = 0xad
export const LINE_FEED = 0x0a

/** A hair's breadth of tolerance keeps text that fits exactly from falling over by rounding. */
export const hair = 1e-6
/** Between a mark that ends before the text and the text. */
const labelGap = 5

/** The space between words. */
export const isBlank = (unit: number): boolean => unit === SPACE

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
export function lineMetrics(fonts: FontLibrary, look: RunLook): LineMetrics {
  const { metrics } = fonts.font(fonts.wish(look))
  const scale = look.size / metrics.upem
  return {
    ascent: metrics.ascender * scale,
    descent: -metrics.descender * scale,
    natural: (metrics.ascender - metrics.descender + metrics.lineGap) * scale,
  }
}

export function spacedHeight(natural: number, spacing: LineSpacing): number {
  if (spacing.rule === "exact") return spacing.value
  return spacing.rule === "multiple" ? natural * spacing.value : Math.max(natural, spacing.value)
}

/** Calls back for each cluster of a run in the order of the text, with its width in points. */
export function eachCluster(
  run: ShapedRun,
  first: number,
  last: number,
  to: number,
  visit: (from: number, to: number, width: number) => void,
): void {
  const { glyphs } = run
  const { advances } = glyphs
  const back = run.level % 2 === 1
  const step = back ? -1 : 1
  for (let g = back ? last - 1 : first; g >= first && g < last;) {
    const start = clusterOf(glyphs, g)
    let advance = 0
    for (; g >= first && g < last && clusterOf(glyphs, g) === start; g += step) advance += advances[g] as number
    visit(start, g >= first && g < last ? clusterOf(glyphs, g) : to, advance * run.scale)
  }
}

/** The scale that all runs share; null where they have several. */
function scaleOf(runs: readonly ShapedRun[]): number | null {
  const scale = runs[0]?.scale
  return scale !== undefined && runs.every((run) => run.scale === scale) ? scale : null
}

/** Where sums are written, one text after another. */
let room = new Float64Array(1 << 10)
const mostRoom = 1 << 16

function roomFor(count: number): Float64Array {
  if (count > mostRoom) return new Float64Array(count)
  if (count > room.length) room = new Float64Array(2 * count)
  return room
}

/** By offset, the distance from the start of the text if it stood on one endless line: as far as it was asked for, from a run on. There is one at a time. */
class AdvanceSums {
  /** What lengths are counted in: where all letters have one scale in units of their face, whole numbers that no sum rounds. */
  readonly unit: number
  private readonly scale: number | null
  private readonly origin: number
  private readonly sums: Float64Array
  /** The first run that is not counted yet, and the offset and the sum up to which it is. */
  private next: number
  private done: number
  private x = 0

  /** @param from the first offset that will be asked for */
  constructor(
    private readonly length: number,
    private readonly runs: readonly ShapedRun[],
    from: number,
  ) {
    this.scale = scaleOf(runs)
    this.unit = this.scale ?? 1
    this.next = from === 0 ? 0 : firstWhere(runs, (run) => run.to > from)
    this.origin = this.done = Math.min(from, runs[this.next]?.from ?? from)
    this.sums = roomFor(length - this.origin + 1)
    this.sums[0] = 0
  }

  /** Whether differences of sums are the same wherever they are taken. */
  get isExact(): boolean {
    return this.scale !== null
  }

  at(offset: number): number {
    if (offset > this.done) this.count(offset)
    return this.sums[offset - this.origin] as number
  }

  private count(offset: number): void {
    const { sums, runs, origin } = this
    let { x, done } = this
    while (done < offset && this.next < runs.length) {
      const run = runs[this.next++] as ShapedRun
      const scale = this.scale === null ? run.scale : 1
      while (done < run.from) sums[++done - origin] = x
      done = run.to
      const words = plainWords(run.glyphs)
      if (words) {
        x = words.addUp(sums, run.from - origin, x, scale)
        continue
      }
      const { first, clusters, advances, count } = run.glyphs
      if (clusters === null) {
        for (let g = 0, at = run.from - origin; g < count; g++) sums[++at] = x += (advances[g] as number) * scale
        continue
      }
      const place = first - origin
      const back = run.level % 2 === 1
      const step = back ? -1 : 1
      // The same as eachCluster, without a call for each: this is where most of measuring goes on.
      for (let g = back ? count - 1 : 0; g >= 0 && g < count;) {
        const start = clusters[g] as number
        let advance = 0
        for (; g >= 0 && g < count && clusters[g] === start; g += step) advance += advances[g] as number
        const end = g >= 0 && g < count ? (clusters[g] as number) : run.to - first
        const width = advance * scale
        if (end === start + 1) sums[end + place] = x + width
        else for (let at = start + 1; at <= end; at++) sums[at + place] = x + (width * (at - start)) / (end - start)
        x += width
      }
    }
    if (this.next === runs.length) while (done < this.length) sums[++done - origin] = x
    this.x = x
    this.done = done
  }
}

/** A drop cap: the offset behind it, how far it moves the text beside it, and how many lines it is high. */
export interface Cap {
  to: number
  inset: number
  distance: number
  lines: number
}

export interface LineSource {
  fonts: FontLibrary
  text: string
  runs: readonly ShapedRun[]
  breaks: Breaks
  format: ParagraphFormat
  typesetting: Typesetting
  /** Look of the paragraph's letters, for lines without text. */
  base: RunLook
  /** Width of the column. */
  width: number
  levels: Uint8Array | null
  label: { runs: ShapedRun[]; level: ListLevel } | null
  cap: Cap | null
  /** Its first lines, where they are set already, at another width. */
  begun: readonly Line[]
  /** Room that is taken from its lines; none for most. */
  insets: Insets
  /** Offsets at which the words of a stretch may be divided with a hyphen; null where they may not. */
  divide: ((from: number, to: number) => number[]) | null
}

/** A stretch between tabs, and where it stands on its line. */
export interface Segment {
  from: number
  to: number
  x: number
  /** The tab before it, if that has a leader: what it has to fill. */
  leader: { from: number; to: number; pattern: "dotted" | "dashed" | "solid" } | null
}

const decimals = new Map<string, string>()
function decimalSign({ language }: LetterFormat): string {
  let sign = decimals.get(language)
  if (sign === undefined) {
    sign =
      new Intl.NumberFormat(knownLanguage(language)).formatToParts(1.5).find((part) => part.type === "decimal")
        ?.value ?? "."
    decimals.set(language, sign)
  }
  return sign
}

export class Ruler {
  private readonly sums: AdvanceSums
  /** Offsets of the tabs, ascending. */
  private readonly tabs: readonly number[]
  private readonly hyphens = new Map<RunLook, { run: ShapedRun; width: number }>()
  /** Edge at which lines have to end where nothing stands beside them. */
  private readonly right: number
  /** Where the label of a list item stands, and where the text after it begins. */
  readonly label: { x: number; textAt: number } | null

  constructor(readonly source: LineSource) {
    const { text, runs, format, width } = source
    this.sums = new AdvanceSums(text.length, runs, source.begun.at(-1)?.to ?? 0)
    this.tabs = tabsOf(text)
    this.right = width - format.indentRight
    this.label = source.label && this.placeLabel(source.label)
  }

  private known: { look: RunLook; metrics: LineMetrics } | null = null

  /** The metrics of a look, which most lines of a paragraph share. */
  metrics(look: RunLook): LineMetrics {
    if (this.known?.look !== look) this.known = { look, metrics: lineMetrics(this.source.fonts, look) }
    return this.known.metrics
  }

  /** Whether the width of text depends on where on its line it begins. */
  get hasTabs(): boolean {
    return this.tabs.length > 0
  }

  private placeLabel({ runs, level }: { runs: ShapedRun[]; level: ListLevel }): { x: number; textAt: number } {
    const { format, base } = this.source
    const width = runs.reduce((sum, run) => sum + runWidth(run), 0)
    const start = format.indentLeft + format.indentFirst
    const room = format.indentLeft - start - labelGap
    const x = start + (level.align === "left" ? 0 : level.align === "right" ? room - width : (room - width) / 2)
    const end = x + width
    if (level.follow === "none" || runs.length === 0) return { x, textAt: Math.max(end, start) }
    if (level.follow === "space") return { x, textAt: end + base.size * 0.3 }
    return { x, textAt: end <= format.indentLeft + hair ? format.indentLeft : this.nextStop(end).position }
  }

  /** Where the n-th line begins. */
  left(n: number): number {
    const { insets, format } = this.source
    const inset = insets.length > 0 ? insets[n] : undefined
    return this.ownLeft(n) + (inset ? (format.direction === "rtl" ? inset.right : inset.left) : 0)
  }

  /** Where the n-th line has to end. */
  end(n: number): number {
    const { insets, format } = this.source
    const inset = insets.length > 0 ? insets[n] : undefined
    return this.right - (inset ? (format.direction === "rtl" ? inset.left : inset.right) : 0)
  }

  private ownLeft(n: number): number {
    const { format, cap } = this.source
    if (n > 0) return format.indentLeft + (cap && n < cap.lines ? cap.inset : 0)
    if (cap) return format.indentLeft + cap.distance
    return this.label?.textAt ?? format.indentLeft + format.indentFirst
  }

  room(n: number): number {
    return this.end(n) - this.left(n)
  }

  /** Lines before this one may have less room than the rest. */
  get unlike(): number {
    return Math.max(1, this.source.cap?.lines ?? 0, this.source.insets.length)
  }

  visibleEnd(from: number, to: number): number {
    const { text } = this.source
    while (to > from && (text.charCodeAt(to - 1) === SPACE || text.charCodeAt(to - 1) === LINE_FEED)) to--
    return to
  }

  /** Width of glyphs of a run that stands for them letter by letter. Sums of several scales are rounded otherwise in other places. */
  widthIn(run: ShapedRun, first: number, last: number): number {
    return this.sums.isExact ? this.natural(run.from + first, run.from + last) : runWidth(run, first, last)
  }

  /** Width of text without tabs. */
  natural(from: number, to: number): number {
    const { sums } = this
    return (sums.at(to) - sums.at(from)) * sums.unit
  }

  /** Width of text on the n-th line if it begins it. What is wider than `enough` may be said to be endless. */
  measure(from: number, to: number, n: number, enough = Infinity): number {
    if (!this.hasTabs) return this.natural(from, to)
    const start = this.left(n)
    const segments = this.segments(from, to, start, start + enough)
    const last = segments.at(-1) as Segment
    return last.to < to ? Infinity : last.x + this.natural(last.from, last.to) - start
  }

  /** Width of text up to a place where a line may end, with the hyphen that it ends with there. */
  measureEnd(from: number, end: number, n: number, hyphen = this.softAt(end), enough = Infinity): number {
    return this.measure(from, this.visibleEnd(from, end), n, enough) + (hyphen ? this.hyphenWidth(end) : 0)
  }

  softAt(end: number): boolean {
    return this.source.text.charCodeAt(end - 1) === SOFT_HYPHEN
  }

  /** The run that holds what stands before an offset. */
  private runBefore(at: number): ShapedRun | undefined {
    const { runs } = this.source
    let low = 0
    let high = runs.length
    while (low < high) {
      const middle = (low + high) >> 1
      if ((runs[middle] as ShapedRun).to < at) low = middle + 1
      else high = middle
    }
    return runs[low]
  }

  private hyphenOf({ look, level }: ShapedRun): { run: ShapedRun; width: number } {
    let hyphen = this.hyphens.get(look)
    if (!hyphen) {
      const run = shapeShown(this.source.fonts, "-", 0, 0, look, level)
      this.hyphens.set(look, (hyphen = { run, width: runWidth(run) }))
    }
    return hyphen
  }

  /** The hyphen of a word that is divided at an offset. */
  hyphen(at: number): ShapedRun | null {
    const before = this.runBefore(at)
    if (!before) return null
    const { run } = this.hyphenOf(before)
    return {
      ...run,
      from: at,
      to: at,
      glyphs: allOf(run.glyphs, at),
      level: before.level,
    }
  }

  hyphenWidth(at: number): number {
    const before = this.runBefore(at)
    return before ? this.hyphenOf(before).width : 0
  }

  /**
   * The tab stop that a tab at x leads to: one that was set, the end of a hanging indent, or one of those that are always there.
   * A right one that lies beyond the end of lines counts as there.
   */
  private nextStop(x: number): TabStop {
    const { tabs, indentLeft, indentFirst } = this.source.format
    const set = tabs.find((tab) => tab.position > x + hair)
    const plain = (position: number): TabStop => ({ position, align: "left", leader: "none" })
    if (indentFirst < 0 && indentLeft > x + hair && (!set || set.position > indentLeft)) return plain(indentLeft)
    if (set?.align === "right" && set.position > this.right) return { ...set, position: this.right }
    return set ?? plain((Math.floor(x / defaultTab + hair) + 1) * defaultTab)
  }

  /** The stretches between the tabs of a line that begins at `start`; those behind x `enough` are left out. */
  segments(from: number, to: number, start: number, enough = Infinity): Segment[] {
    if (!this.hasTabs) return [{ from, to, x: start, leader: null }]
    const { base } = this.source
    const segments: Segment[] = []
    let x = start
    let leader: Segment["leader"] = null
    let at = from
    for (let t = firstWhere(this.tabs, (tab) => tab >= from); ; t++) {
      const tab = this.tabs[t]
      const end = tab === undefined || tab >= to ? to : tab
      segments.push({ from: at, to: end, x, leader })
      if (end === to || x > enough) return segments
      x += this.natural(at, end)
      const stop = this.nextStop(x)
      const next = this.tabs[t + 1]
      const following = next === undefined || next >= to ? this.visibleEnd(end + 1, to) : next
      const back = this.beforeStop(stop, end + 1, following, base)
      const target = Math.max(x, stop.position - back)
      leader = stop.leader === "none" ? null : { from: x, to: target, pattern: stop.leader }
      x = target
      at = end + 1
    }
  }

  /** How much of a stretch stands before its tab stop. */
  private beforeStop(stop: TabStop, from: number, to: number, look: LetterFormat): number {
    if (stop.align === "left") return 0
    if (stop.align === "right") return this.natural(from, to)
    if (stop.align === "center") return this.natural(from, to) / 2
    const sign = decimalSign(look)
    const at = this.source.text
      .slice(from, Math.min(to, from + longestNumber))
      .search(new RegExp(`[${sign === "," ? "," : "\\" + sign}](?=\\d|$)`))
    return this.natural(from, at < 0 ? to : from + at)
  }
}

/** Units in which the sign of a decimal is looked for. */
const longestNumber = 200

const noTabs: readonly number[] = []

function tabsOf(text: string): readonly number[] {
  let at = text.indexOf("\t")
  if (at < 0) return noTabs
  const tabs: number[] = []
  for (; at >= 0; at = text.indexOf("\t", at + 1)) tabs.push(at)
  return tabs
}

/** Width of glyphs of a run, all of them if not told otherwise. */
export function runWidth(run: ShapedRun, first = 0, last = run.glyphs.count): number {
  return unitsOf(run.glyphs, first, last) * run.scale
}
