/** Where places of the text stand on the canvas, and what stands at a point of it: read from the layout mirror and from how the sheets lie. */
import { breakBefore, type BreakMark } from "@biblon/core/editing"
import {
  blocksOf,
  bodyOf,
  leavesOf,
  leavesOfBody,
  sectionsOf,
  variantFor,
  type EdgeName,
  type EdgeVariant,
  type Section,
} from "@biblon/core/document"
import {
  caretBox,
  checkAt,
  fragmentsOf,
  hit,
  isBeginning,
  lineTop,
  rangeBoxes,
  sectionBegun,
  shownAt,
  type Box,
  type Fragment,
} from "@biblon/core/layout"
import type { EditorState } from "prosemirror-state"
import type { LayoutClient } from "../../workers/layoutClient"
import type { Stack } from "./stack"

export interface Place {
  pos: number
  /** At the end of a line that goes on below, -1 is there and 1 at the start of the next. */
  bias: -1 | 1
}

export interface ViewSource {
  layout: LayoutClient
  editor(): EditorState
  bias(): -1 | 1
  /** Range of text that an input method is still composing. */
  composing(): { from: number; to: number } | null
  /** What is marked in a leaf, by offsets, with the class of its boxes. */
  marks(leaf: number): readonly Mark[]
}

/** Something marked in the text: a place that was found, what a change touched. */
export interface Mark {
  from: number
  to: number
  kind: string
}

/** The column that a place stands in, in pixels of the canvas; its left edge is where lines without indent begin. */
export interface Column {
  x: number
  width: number
  sheet: { x: number; width: number }
}

/** The head or foot of a sheet, as an area of it. */
export interface EdgeArea {
  edge: EdgeName
  sheet: number
  section: number
  variant: EdgeVariant
  /** Key of the story that stands there; null for none. */
  story: string | null
}

/** Where something begins, and where on its sheet that is shown. */
export type SetBreak = BreakMark & { x: number; y: number; width: number }

/** So far above a paragraph it is shown in flow view, in points. */
const flowBreak = 14

export class Places {
  /** Number of the sheet on which a head or foot is written that stands on many. */
  private edgeSheet = 0

  constructor(
    private readonly source: ViewSource,
    private readonly stack: () => Stack,
    /** Numbers of the sheets that are shown. */
    private readonly shown: () => Iterable<number>,
  ) {}

  /** The head or foot whose area holds a point of the canvas; null where text, or nothing, is. */
  edgeArea(x: number, y: number): EdgeArea | null {
    const sheet = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(sheet)
    const paper = placed?.sheet.start.paper
    if (!placed || !paper) return null
    const [inX, inY] = [(x - this.left(sheet)) / this.scale, (y - this.stack().top(sheet)) / this.scale]
    if (inX < 0 || inX > placed.sheet.width || inY < 0 || inY > placed.sheet.height) return null
    const edge = inY < paper.top ? "head" : inY > paper.top + paper.height ? "foot" : null
    return edge && this.edgeOf(sheet, edge)
  }

  /** The head or foot of a sheet; null while that is not here. */
  edgeOf(sheet: number, edge: EdgeName): EdgeArea | null {
    const placed = this.source.layout.mirror.placed(sheet)
    const paper = placed?.sheet.start.paper
    if (!placed || !paper) return null
    const { doc } = this.source.editor()
    const sections = sectionsOf(doc)
    const { section, first } = sectionBegun(blocksOf(bodyOf(doc)), sections, placed.leaf, placed.sheet.start.at)
    const { setup } = sections[section] as Section
    return { edge, sheet, section, variant: variantFor(setup, first, placed.sheet.start.left), story: paper[edge] }
  }

  /** The first leaf of the sheet on which a head or foot is written. */
  textBeside(): number {
    return this.source.layout.mirror.firstLeaf(this.edgeSheet)
  }

  /** The heading, by its number, that the entry of a list of contents at a point of the canvas stands for; null for none. */
  entryAt(x: number, y: number): number | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const [inX, inY] = [(x - this.left(index)) / this.scale, (y - this.stack().top(index)) / this.scale]
    const at = (placed ? fragmentsOf(placed) : []).find((own) => {
      const [first, last] = [own.paragraph.lines[own.from], own.paragraph.lines[own.to - 1]]
      if (own.entry === null || !first || !last) return false
      const foot = own.y + last.top + last.height - first.top
      return inX >= own.x && inX <= own.x + own.width && inY >= own.y && inY <= foot
    })
    return at?.entry ?? null
  }

  /** From now on heads and feet are written on this sheet. */
  writeOn(sheet: number): void {
    this.edgeSheet = sheet
  }

  /** Key of the story that the caret is in; null in the body. */
  private get story(): string | null {
    const { doc, selection } = this.source.editor()
    return leavesOf(doc).flow(leavesOf(doc).at(selection.head)).story
  }

  /** Left edge of a sheet, in pixels of the canvas. */
  left(index: number): number {
    return this.stack().left(index)
  }

  /** CSS pixels for a point. */
  get scale(): number {
    return this.stack().options.scale
  }

  markBoxes(index: number): (Box & { kind: string })[] {
    const { mirror } = this.source.layout
    const placed = mirror.placed(index)
    return (placed ? fragmentsOf(placed) : []).flatMap((fragment) =>
      this.source
        .marks(fragment.leaf)
        .flatMap(({ from, to, kind }) => rangeBoxes(fragment, from, to, false).map((box) => ({ ...box, kind }))),
    )
  }

  sheetBoxes(index: number, from: number, to: number): Box[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const leaves = leavesOf(this.source.editor().doc)
    return fragmentsOf(placed).flatMap((fragment) => {
      const start = leaves.start(fragment.leaf)
      const length = fragment.paragraph.text.length
      if (from > start + length || to < start) return []
      return rangeBoxes(fragment, Math.max(0, from - start), Math.min(length, to - start), to > start + length)
    })
  }

  fragmentAt(place: Place): { index: number; fragment: Fragment; box: Box } | null {
    const { mirror } = this.source.layout
    const { doc } = this.source.editor()
    const leaf = leavesOf(doc).at(place.pos)
    if (mirror.count === 0 || leaf >= leavesOf(doc).count) return null
    const offset = place.pos - leavesOf(doc).start(leaf)
    for (const index of this.sheetsOf(leaf)) {
      const placed = mirror.placed(index)
      for (const fragment of placed ? fragmentsOf(placed) : []) {
        if (fragment.leaf !== leaf) continue
        const box = caretBox(fragment, Math.max(0, Math.min(offset, fragment.paragraph.text.length)), place.bias)
        if (box) return { index, fragment, box }
      }
    }
    return null
  }

  /** The sheets that may show a leaf; of those that all show the same head or foot, first the one on which it is written. */
  private sheetsOf(leaf: number): number[] {
    const { mirror } = this.source.layout
    if (leavesOf(this.source.editor().doc).flow(leaf).story !== null) return [this.edgeSheet, ...this.shown()]
    const { first, last } = mirror.sheetsOfLeaf(leaf)
    const from = Math.max(0, first - 1)
    return Array.from({ length: last - from + 1 }, (_, i) => from + i)
  }

  columnAt(place: Place): Column | null {
    const found = this.fragmentAt(place)
    const { scale } = this
    if (!found) return null
    const x = this.stack().left(found.index)
    return {
      x: x + found.fragment.x * scale,
      width: found.fragment.width * scale,
      sheet: { x, width: (this.stack().table.widths[found.index] ?? 0) * scale },
    }
  }

  sheetIndex(place: Place): number | null {
    return this.fragmentAt(place)?.index ?? null
  }

  /** Where a caret stands, in pixels of the canvas; null while its sheet is not here. */
  box(place: Place): Box | null {
    const found = this.fragmentAt(place)
    if (!found) return null
    const { scale } = this
    const { index, box } = found
    return {
      x: this.stack().left(index) + box.x * scale,
      y: this.stack().top(index) + box.y * scale,
      width: 0,
      height: box.height * scale,
    }
  }

  /** The fragment that shows a caret, for movement by lines. */
  fragment(place: Place): { index: number; fragment: Fragment } | null {
    return this.fragmentAt(place)
  }

  /** The place nearest to a point of the canvas, in the text that the caret is in; null while nothing is there. */
  at(x: number, y: number): Place | null {
    return this.nearest(x, y, this.story)
  }

  /** The same for a press, which may lead out of that text: into a head or foot that is pressed, and back. */
  pressed(x: number, y: number): Place | null {
    const area = this.edgeArea(x, y)
    const place = area?.story ? this.nearest(x, y, area.story) : null
    if (area && place) this.edgeSheet = area.sheet
    return place ?? this.nearest(x, y, null, true)
  }

  /**
   * @param story key of the head, foot or note that counts; null for the text of the body
   * @param notes whether notes count beside the text
   */
  private nearest(x: number, y: number, story: string | null, notes = false): Place | null {
    const leaves = leavesOf(this.source.editor().doc)
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const among = ({ part, leaf }: Fragment) =>
      story === null
        ? part === "text" || (notes && part === "note")
        : part !== "text" && leaves.flow(leaf).story === story
    const [inX, inY] = [(x - this.left(index)) / this.scale, (y - this.stack().top(index)) / this.scale]
    const found = placed && hit(placed, inX, inY, among)
    // What stands on several sheets is written on the one that was pressed.
    if (found && notes && leaves.flow(found.leaf).story !== null) this.edgeSheet = index
    return found ? { pos: leaves.start(found.leaf) + found.offset, bias: found.bias } : null
  }

  /** The field at a point of the canvas; null for none. */
  fieldAt(x: number, y: number): { pos: number; words: string; box: Box } | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const { scale } = this
    const [left, top] = [this.left(index), this.stack().top(index)]
    const [inX, inY] = [(x - left) / scale, (y - top) / scale]
    for (const fragment of placed ? fragmentsOf(placed) : []) {
      const { paragraph, leaf } = fragment
      if (fragment.entry !== null || !paragraph.text.includes("\ufffc")) continue
      for (const line of paragraph.lines.slice(fragment.from, fragment.to)) {
        const y = lineTop(fragment, line)
        if (inY < y || inY > y + line.height) continue
        const on = line.runs.find((own) => inX >= fragment.x + own.x && inX <= fragment.x + own.x + own.width)
        if (!on || on.run.shows === null || paragraph.text[on.run.from] !== "\ufffc") continue
        if (paragraph.anchors?.some(({ offset }) => offset === on.run.from)) continue
        const box = {
          x: left + (fragment.x + on.x) * scale,
          y: top + y * scale,
          width: on.width * scale,
          height: line.height * scale,
        }
        this.edgeSheet = fragment.part === "text" ? this.edgeSheet : index
        const pos = leavesOf(this.source.editor().doc).start(leaf) + on.run.from
        return { pos, words: this.shownAt(pos) ?? on.run.shows, box }
      }
    }
    return null
  }

  /** What a field shows that stands at a position; null while its sheet is not here. */
  shownAt(pos: number): string | null {
    const found = this.fragmentAt({ pos, bias: 1 })
    if (!found) return null
    const offset = pos - leavesOf(this.source.editor().doc).start(found.fragment.leaf)
    return shownAt(found.fragment.paragraph, offset)
  }

  /** What begins behind the columns of a sheet, or in flow above its paragraphs, each below the text before it; in points of the sheet. */
  breaksOn(index: number): SetBreak[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const { doc } = this.source.editor()
    const count = leavesOfBody(doc)
    const { sheet, leaf: first } = placed
    const before = (leaf: number, x: number, y: number, width: number): SetBreak[] => {
      const mark = leaf < count ? breakBefore(doc, leaf) : null
      return mark ? [{ ...mark, x, y, width }] : []
    }
    if (!sheet.start.paper)
      return fragmentsOf(placed).flatMap((own) =>
        own.part === "text" && own.from === 0 ? before(own.leaf, own.x, own.y - flowBreak, own.width) : [],
      )
    return sheet.columns.flatMap(({ x, y, box }, i) => {
      const following = sheet.columns[i + 1]
      const begins = following ? following.box.inside[0]?.box : null
      const whole = following ? begins?.kind !== "lines" || begins.from === 0 : isBeginning(sheet.next.at)
      return whole ? before(first + (following?.leaf ?? sheet.next.leaf), x, y + box.height, box.width) : []
    })
  }

  /** The thing to do whose box is at a point of the canvas, by its leaf. */
  checkAt(x: number, y: number): number | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const [left, top, { scale }] = [this.stack().left(index), this.stack().top(index), this.stack().options]
    return placed ? checkAt(placed, (x - left) / scale, (y - top) / scale) : null
  }
}
