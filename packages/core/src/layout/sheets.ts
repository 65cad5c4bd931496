/**
 * Composes leaves into sheets. A sheet depends only on where it starts and on the leaves from there
 * on, so after a change composition begins at the first sheet that looked at a changed leaf and ends
 * as soon as it comes to a place, behind the change, where an earlier sheet began: from there on the
 * earlier sheets are taken over.
 */
import type { Node } from "prosemirror-model"
import { changedLeaves, documentAttrs, labelsOf, leavesOf, type Labels, type LeafChange, type Leaves, type ListPlace, type PageSetup, type ParagraphFormat } from "../document"
import { borderThickness, frameOf, frameSpace, hasFrame, sharesFrame } from "./ornaments"
import type { Setting, Typesetter } from "./paragraph"
import type { Fragment, Layout, LayoutSpec, ParagraphLayout, PlacedSheet, Sheet } from "./types"

interface Cursor {
  leaf: number
  line: number
}

/** A rectangle of a sheet that text fills from top to bottom: the text area, later a column of it. */
interface Region {
  x: number
  y: number
  width: number
  height: number
}

/** A fragment whose frame is not drawn yet. */
interface Set {
  fragment: Omit<Fragment, "frame">
  /** Whether it stands in one frame with what is above it in its region. */
  joins: boolean
}

/** What stands above the next lines in a region, and where they may begin. */
interface Pen {
  y: number
  above: ParagraphLayout | null
}

let ids = 0

/** The height at which a strip of the flow view ends, and the bounds within which it keeps an earlier end. */
const strip = { wanted: 900, least: 300, most: 1800 }

class SheetComposer {
  private readonly leaves: Leaves
  private readonly labels: Labels
  private readonly setting: Setting
  private readonly setup: PageSetup

  constructor(
    private readonly typesetter: Typesetter,
    doc: Node,
    private readonly spec: LayoutSpec,
  ) {
    const { styles, typesetting, setup } = documentAttrs(doc)
    this.leaves = leavesOf(doc)
    this.labels = labelsOf(doc)
    this.setting = { styles, typesetting, flow: spec.mode === "flow" }
    this.setup = setup
  }

  private paragraph(leaf: number, width: number): ParagraphLayout {
    return this.typesetter.paragraph(this.setting, this.leaves.node(leaf), width, this.labels[leaf] ?? null)
  }

  /** @param wantedEnd in flow, the leaf before which the strip should end if it gets a fair height */
  compose(start: Cursor, wantedEnd: number | null): Sheet {
    return this.spec.mode === "flow" ? this.composeStrip(start, wantedEnd, this.spec) : this.composeSheet(start)
  }

  private composeSheet(start: Cursor): Sheet {
    const { width, height, margins } = this.setup
    const regions: Region[] = [
      { x: margins.left, y: margins.top, width: Math.max(36, width - margins.left - margins.right), height: Math.max(36, height - margins.top - margins.bottom) },
    ]
    const fragments: Fragment[] = []
    let cursor = start
    let lookedAt = start.leaf
    for (const region of regions) {
      const filled = this.fillRegion(region, cursor, start.leaf, fragments.length === 0)
      fragments.push(...filled.fragments)
      cursor = filled.next
      lookedAt = Math.max(lookedAt, filled.lookedAt)
    }
    return this.sheet(start, cursor, width, height, lookedAt, fragments)
  }

  private sheet(start: Cursor, next: Cursor, width: number, height: number, lookedAt: number, fragments: Fragment[]): Sheet {
    return {
      id: ++ids,
      width,
      height,
      start: { line: start.line },
      next: { leaf: next.leaf - start.leaf, line: next.line },
      lookedAt: lookedAt - start.leaf,
      fragments,
    }
  }

  private fillRegion(region: Region, start: Cursor, firstLeaf: number, mayBreakBefore: boolean): { fragments: Fragment[]; next: Cursor; lookedAt: number } {
    const set: Set[] = []
    const bottom = region.y + region.height + 1e-6
    let pen: Pen = { y: region.y, above: null }
    let { leaf, line } = start
    while (leaf < this.leaves.count) {
      const paragraph = this.paragraph(leaf, region.width)
      const { format, lines } = paragraph
      const atTop = set.length === 0
      if (format.breakBefore && line === 0 && !(atTop && mayBreakBefore)) return { fragments: framed(set), next: { leaf, line }, lookedAt: leaf }
      const { y, joins } = begin(pen, paragraph, line, leaf === 0)
      const foot = bottom - frameSpace(format).bottom

      const first = lines[line]
      let to = line
      if (first) {
        const offset = y - first.top
        while (to < lines.length && offset + (lines[to]?.top ?? 0) + (lines[to]?.height ?? 0) <= foot) to++
      }
      if (to < lines.length) {
        to = divide(paragraph, line, to)
        if (to <= line && atTop) to = Math.min(lines.length, line + Math.max(1, this.fitting(paragraph, line, foot - y)))
      }
      if (to > line) set.push({ fragment: { leaf: leaf - firstLeaf, paragraph, from: line, to, x: region.x, y, width: region.width }, joins })
      if (to < lines.length) {
        if (to > line) return { fragments: framed(set), next: { leaf, line: to }, lookedAt: leaf }
        return { ...this.keepWithNext(set, { leaf, line: 0 }, firstLeaf), lookedAt: leaf }
      }
      pen = { y: y + linesHeight(paragraph, line, to), above: paragraph }
      leaf++
      line = 0
    }
    return { fragments: framed(set), next: { leaf, line: 0 }, lookedAt: leaf - 1 }
  }

  private fitting(paragraph: ParagraphLayout, from: number, room: number): number {
    let n = 0
    while (from + n < paragraph.lines.length && linesHeight(paragraph, from, from + n + 1) <= room) n++
    return n
  }

  /** Takes leaves that must stay with the following one off the end of a region, unless nothing would be left. */
  private keepWithNext(set: Set[], next: Cursor, firstLeaf: number): { fragments: Fragment[]; next: Cursor } {
    let keep = set.length
    while (keep > 0) {
      const before = set[keep - 1]?.fragment
      if (!before?.paragraph.format.keepNext || before.from > 0) break
      keep--
    }
    const moved = set[keep]?.fragment
    if (keep === 0 || !moved) return { fragments: framed(set), next }
    return { fragments: framed(set.slice(0, keep)), next: { leaf: firstLeaf + moved.leaf, line: 0 } }
  }

  private composeStrip(start: Cursor, wantedEnd: number | null, spec: LayoutSpec & { mode: "flow" }): Sheet {
    const width = Math.max(36, spec.width - 2 * spec.margin)
    const set: Set[] = []
    let { leaf, line } = start
    let pen: Pen = { y: start.leaf === 0 && start.line === 0 ? spec.margin : 0, above: null }
    while (leaf < this.leaves.count) {
      const keepsEnd = wantedEnd !== null && wantedEnd > start.leaf && pen.y < strip.most
      if (set.length > 0 && line === 0 && (keepsEnd && pen.y >= strip.least ? leaf >= wantedEnd || pen.y >= strip.most : pen.y >= strip.wanted && !keepsEnd)) break
      const paragraph = this.paragraph(leaf, width)
      const { lines } = paragraph
      // A strip goes on where the one before it ended, so that its first paragraph has its space above it there.
      const { y, joins } = begin(set.length === 0 && line === 0 && leaf > 0 ? { ...pen, above: this.paragraph(leaf - 1, width) } : pen, paragraph, line, leaf === 0)
      const to = Math.min(lines.length, line + Math.max(1, this.fitting(paragraph, line, strip.most)))
      set.push({ fragment: { leaf: leaf - start.leaf, paragraph, from: line, to, x: spec.margin, y, width }, joins })
      pen = { y: y + linesHeight(paragraph, line, to), above: paragraph }
      line = to
      if (to < lines.length) break
      leaf++
      line = 0
    }
    let end = pen.y
    const follows = line === 0 && leaf < this.leaves.count ? this.paragraph(leaf, width) : null
    if (leaf >= this.leaves.count) end += spec.margin + (pen.above ? frameSpace(pen.above.format).bottom : 0)
    const joinsBelow = follows !== null && pen.above !== null && sharesFrame(pen.above.format, follows.format)
    return this.sheet(start, { leaf, line }, spec.width, end, Math.min(leaf, this.leaves.count - 1), framed(set, joinsBelow))
  }
}

/** Whether two neighbours are both in one list, with what is inside it, or both in none. */
function inOneList(a: ListPlace | null, b: ListPlace | null): boolean {
  if (!a || !b) return a === b
  return a.level > 0 || b.level > 0 || (a.definition === b.definition && a.run === b.run)
}

/** Where the lines of a paragraph begin below what stands above it, and whether the two stand in one frame. */
function begin({ y, above }: Pen, paragraph: ParagraphLayout, line: number, firstOfAll: boolean): { y: number; joins: boolean } {
  const { format, style } = paragraph
  if (above === null || line > 0) return { y: y + (firstOfAll && line === 0 ? format.spaceBefore : 0) + frameSpace(format).top, joins: false }
  const alike = above.style === style
  // Where a list begins or ends, the space that its items drop between them is there, unless what stands beside it drops it too.
  const among = inOneList(above.format.list, format.list)
  const lists = above.format.list !== null && format.list !== null
  const drops = (own: ParagraphFormat, other: ParagraphFormat) => alike && !own.spaceAlike && (among || (!lists && !other.spaceAlike))
  const gap = (drops(above.format, format) ? 0 : above.format.spaceAfter) + (drops(format, above.format) ? 0 : format.spaceBefore)
  const joins = sharesFrame(above.format, format)
  const { between } = format.borders
  const frames = joins ? (between ? borderThickness(between) + between.distance : 0) : frameSpace(above.format).bottom + frameSpace(format).top
  return { y: y + gap + frames, joins }
}

/** Fragments with their frames, which reach over the space to a neighbour in the same frame. */
function framed(set: readonly Set[], lastJoinsBelow = false): Fragment[] {
  const endOf = ({ fragment: { y, paragraph, from, to } }: Set) => y + linesHeight(paragraph, from, to)
  return set.map((own, i): Fragment => {
    const { fragment, joins } = own
    if (!hasFrame(fragment.paragraph.format)) return { ...fragment, frame: null }
    const before = set[i - 1]
    const top = !joins ? fragment.y : before ? endOf(before) : 0
    const frame = frameOf(fragment.paragraph, { x: fragment.x, width: fragment.width, top, bottom: endOf(own), joinsAbove: joins, joinsBelow: set[i + 1]?.joins ?? lastJoinsBelow })
    return { ...fragment, frame }
  })
}

function linesHeight(paragraph: ParagraphLayout, from: number, to: number): number {
  const last = paragraph.lines[to - 1]
  const first = paragraph.lines[from]
  return last && first ? last.top + last.height - first.top : 0
}

/** How far a paragraph of which the lines up to `to` fit may be set, by its keeps, widows and orphans. */
function divide(paragraph: ParagraphLayout, from: number, to: number): number {
  const { keepTogether, widows, dropCap } = paragraph.format
  // The lines beside a drop cap stay with it.
  const orphans = Math.max(paragraph.format.orphans, dropCap?.lines ?? 0)
  const count = paragraph.lines.length
  if (keepTogether && from === 0) return from
  if (count - to < widows) to = count - widows
  if (from === 0 && to < orphans) to = 0
  return Math.max(from, to)
}

export function sameSpec(a: LayoutSpec, b: LayoutSpec): boolean {
  if (a.mode === "flow") return b.mode === "flow" && a.width === b.width && a.margin === b.margin
  return b.mode === "sheets"
}

/** The span of leaves that are not as before: those that changed, and those whose numbers did. */
function changedSince(older: Node, newer: Node): LeafChange | null {
  const change = changedLeaves(older, newer)
  if (!change) return null
  const [before, now] = [labelsOf(older), labelsOf(newer)]
  if (before === now) return change
  const shift = change.newTo - change.oldTo
  let newTo = now.length
  while (newTo > change.newTo && now[newTo - 1] === before[newTo - 1 - shift]) newTo--
  return { from: change.from, oldTo: newTo - shift, newTo }
}

/** The sheets that a layout shows, by the numbers that their leaves have in another document. */
function shownBefore({ doc, placed }: Layout, now: Node): PlacedSheet[] {
  const change = changedLeaves(doc, now)
  if (!change || change.newTo === change.oldTo) return [...placed]
  const shift = change.newTo - change.oldTo
  return placed.flatMap((own) => (own.leaf >= change.oldTo ? { ...own, leaf: own.leaf + shift } : own.leaf < Math.max(change.from + 1, change.newTo) ? own : []))
}

/** Index of the first element for which a condition holds that, once it holds, holds to the end. */
function firstWhere<T>(list: readonly T[], holds: (element: T) => boolean): number {
  let low = 0
  let high = list.length
  while (low < high) {
    const middle = (low + high) >> 1
    if (holds(list[middle] as T)) high = middle
    else low = middle + 1
  }
  return low
}

/** Sheets by their places in a layout; `to` is not included. */
export interface Sight {
  from: number
  to: number
}

/** A layout in the making. Call `step` until it says that all is settled, or stop earlier and go on later. */
export class Composition {
  private readonly leaves: Leaves
  private readonly composer: SheetComposer
  private composed: PlacedSheet[]
  private readonly base: Layout | null
  /** In the base: sheets from here on, moved by `shift` leaves, may be taken over. */
  private next = 0
  private shift = 0
  private cursor: Cursor
  private done = false
  /** Without a base: the sheets that were shown before, and among them those composed ahead of their turn. */
  private older: PlacedSheet[] = []
  private readonly ahead = new WeakSet<Sheet>()

  constructor(
    typesetter: Typesetter,
    private readonly doc: Node,
    private readonly spec: LayoutSpec,
    previous: Layout | null = null,
  ) {
    const { styles, typesetting, setup } = documentAttrs(doc)
    this.leaves = leavesOf(doc)
    this.composer = new SheetComposer(typesetter, doc, spec)
    const usable = previous && sameSpec(previous.spec, spec) && previous.setup === setup ? previous : null
    const sameSetting = (layout: Layout) => documentAttrs(layout.doc).styles === styles && documentAttrs(layout.doc).typesetting === typesetting

    // The head: sheets that looked at nothing that changed.
    this.composed = []
    if (usable && sameSetting(usable)) {
      const count = leavesOf(usable.doc).count
      const change = changedSince(usable.doc, doc)
      // A sheet that came to the end of the document also looked at there being nothing more.
      const looked = ({ leaf, sheet }: PlacedSheet) => leaf + sheet.lookedAt + (leaf + sheet.next.leaf >= count ? 1 : 0)
      const settled = usable.placed.slice(0, usable.settled)
      this.composed = change ? settled.slice(0, firstWhere(settled, (placed) => looked(placed) >= change.from)) : settled
    }
    const last = this.composed.at(-1)
    this.cursor = last ? { leaf: last.leaf + last.sheet.next.leaf, line: last.sheet.next.line } : { leaf: 0, line: 0 }

    // The tail: sheets of the last complete layout that begin behind all changes.
    const complete = usable && usable.settled < usable.placed.length ? usable.base : usable
    this.base = complete && sameSetting(complete) ? complete : null
    if (this.base) {
      const change = changedSince(this.base.doc, doc)
      if (change) {
        this.shift = change.newTo - change.oldTo
        // A strip of the flow view also depends on the leaf before it.
        const behind = change.oldTo + (spec.mode === "flow" ? 1 : 0)
        this.next = firstWhere(this.base.placed, ({ leaf }) => leaf >= behind)
      } else this.next = Math.min(this.composed.length, this.base.placed.length)
    }
    this.done = this.composed.length > 0 && this.cursor.leaf >= this.leaves.count
    if (usable && !this.base && !this.done) this.older = shownBefore(usable, doc)
  }

  /**
   * Sees to it that the sheets in sight show the document as it is now. After a change that reaches all of it they are composed
   * ahead of those before them, from the leaf with which they began, and stand among the sheets of before until their turn comes.
   * @returns false if there is nothing to go by: then they have to be composed in their turn
   */
  look({ from, to }: Sight): boolean {
    if (this.done || this.settled >= to) return true
    if (this.older.length === 0) return false
    const { placed } = this.layout
    const at = placed.findIndex((own, i) => i >= from && i >= this.composed.length && !this.ahead.has(own.sheet))
    const first = placed[at]
    if (!first || at >= to) return true
    const sheets: PlacedSheet[] = []
    let cursor: Cursor = first.leaf === this.cursor.leaf ? this.cursor : { leaf: first.leaf, line: 0 }
    while (sheets.length < to - at && cursor.leaf < this.leaves.count) {
      const sheet = this.composer.compose(cursor, null)
      this.ahead.add(sheet)
      sheets.push({ sheet, leaf: cursor.leaf })
      cursor = { leaf: cursor.leaf + sheet.next.leaf, line: sheet.next.line }
    }
    const behind = cursor.leaf + (cursor.line > 0 ? 1 : 0)
    this.older = [...placed.slice(this.composed.length, at), ...sheets, ...placed.slice(at).filter((own) => own.leaf >= behind)]
    return true
  }

  /** Composes one more sheet. Returns true when the layout is complete. */
  step(): boolean {
    if (this.done) return true
    if (this.takeOver()) return (this.done = true)
    const expected = this.base?.placed[this.next]
    const sheet = this.composer.compose(this.cursor, this.stripEnd(expected))
    this.composed.push({ sheet, leaf: this.cursor.leaf })
    this.cursor = { leaf: this.cursor.leaf + sheet.next.leaf, line: sheet.next.line }
    if (this.cursor.leaf >= this.leaves.count) this.done = true
    return this.done
  }

  /** In flow, strips end where the next one that may be taken over begins. */
  private stripEnd(expected: PlacedSheet | undefined): number | null {
    if (this.spec.mode !== "flow" || !expected || expected.sheet.start.line > 0) return null
    return expected.leaf + this.shift
  }

  private takeOver(): boolean {
    if (!this.base) return false
    const { leaf, line } = this.cursor
    for (; this.next < this.base.placed.length; this.next++) {
      const placed = this.base.placed[this.next] as PlacedSheet
      const begins = placed.leaf + this.shift
      if (begins < leaf || (begins === leaf && placed.sheet.start.line < line)) continue
      if (begins > leaf || placed.sheet.start.line > line) return false
      // The first leaf of the document keeps its space above it at the top of a sheet, others do not.
      if ((placed.leaf === 0) !== (leaf === 0)) return false
      const tail = this.base.placed.slice(this.next)
      this.composed = this.composed.concat(this.shift === 0 ? tail : tail.map((p) => this.moved(p)))
      return true
    }
    return false
  }

  private moved(placed: PlacedSheet): PlacedSheet {
    return this.shift === 0 ? placed : { sheet: placed.sheet, leaf: placed.leaf + this.shift }
  }

  /** Number of sheets that are right so far. */
  get settled(): number {
    return this.composed.length
  }

  /** The first leaf that is not composed yet. */
  get reached(): number {
    return this.cursor.leaf
  }

  /** The layout as it stands; sheets not yet composed are shown as they were before. */
  get layout(): Layout {
    const placed = [...this.composed]
    if (!this.done) {
      if (this.base) for (const tail of this.base.placed.slice(this.next)) if (tail.leaf + this.shift >= this.cursor.leaf) placed.push(this.moved(tail))
      for (const tail of this.older) if (tail.leaf >= this.cursor.leaf) placed.push(tail)
    }
    const { doc, spec } = this
    const complete = this.done
    return { doc, spec, setup: documentAttrs(doc).setup, placed, settled: this.composed.length, base: complete ? null : this.base }
  }
}

/** The whole layout of a document. */
export function layoutDocument(typesetter: Typesetter, doc: Node, spec: LayoutSpec = { mode: "sheets" }, previous: Layout | null = null): Layout {
  const composition = new Composition(typesetter, doc, spec, previous)
  while (!composition.step());
  return composition.layout
}
