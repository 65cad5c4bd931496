/**
 * Fills columns, cells and strips with the blocks of a flow: one code for every place in which text runs from top to bottom.
 * What comes out counts from the upper left corner of the region.
 */
import type { Node } from "prosemirror-model"
import type { Computed, Labels, LetterFormat, ListLevel, ListPlace, ParagraphFormat } from "../document"
import { beginning, beginsBlock, isBeginning, sameInsets } from "./boxes"
import { borderThickness, frameOf, frameSpace, hasFrame, sharesFrame } from "./ornaments"
import { leastColumns } from "./columnWidths"
import { bottomOf, rowStart } from "./rows"
import {
  behindNext,
  belowAll,
  clearOf,
  insetsOf,
  isEarly,
  place,
  reach,
  type FloatRoom,
  type Set as FloatSet,
} from "./floats"
import type { Around, Setting, Typesetter } from "./paragraph"
import type { Filled, Flowing, Region } from "./regions"
import { setTable, type FillCell } from "./tables"
import type { BlockPlace, Insets, Line, Lines, ParagraphLayout, Placed, Shape, Table } from "./types"

/** How the number of a note stands before it. */
const noteLevel: ListLevel = {
  format: "%1",
  kind: "number",
  numbering: "decimal",
  start: 1,
  indent: 0,
  hanging: 0,
  align: "left",
  follow: "space",
  restart: null,
  legal: false,
  tight: true,
  letters: { script: "super" },
}

/** A block, or a part of it, that is set but has no frame yet. */
interface Set {
  block: number
  box: Lines | Table
  /** Of a table, where it stands in the width of the region. */
  x?: number
  y: number
  end: number
  /** Whether it stands in one frame with what is above it in its region. */
  joins: boolean
}

/** What stands above the next lines in a region, and where they may begin. */
interface Pen {
  y: number
  above: ParagraphLayout | "table" | null
}

/** A paragraph beside pictures, the room that these take from its lines, those that are tied to it, and whether they stand in its lines instead. */
interface Beside {
  paragraph: ParagraphLayout
  insets: Insets
  own: readonly FloatSet[]
  inLine: boolean
}

const noInsets: Insets = []
/** So many times at most lines beside pictures are set anew because they are as high as others were not. */
const mostTurns = 5

/** Left free below a table, in points. */
const tableSpace = 6

/** Gives the paragraphs of a list of contents, and the number of the heading that each stands for. */
export type Contents = (contents: Node, width: number) => readonly { node: Node; entry: number }[]

/** How a paragraph that nothing stands beside was set last. */
interface SetLast {
  width: number
  label: string | null
  letters: Partial<LetterFormat> | null
  /** Whether its pictures might stand elsewhere than in its lines; null where it has none. */
  floats: boolean | null
  isNote: boolean
  paragraph: ParagraphLayout
}

/** What was set last of each paragraph: regions are filled several times, until all has its room. */
export type SetBefore = WeakMap<Node, SetLast>

export class FlowSetter {
  constructor(
    private readonly typesetter: Typesetter,
    private readonly setting: Setting,
    private readonly labels: Labels,
    private readonly contents: Contents = () => [],
    /** What fields show that is computed from the document, by leaf. */
    private readonly computed: ReadonlyMap<number, Computed> = new Map(),
    private readonly known: SetBefore = new WeakMap(),
  ) {}

  private readonly fillCell: FillCell = (flow, region, start) => this.fill(flow, region, start)

  /** Sets blocks from a place on until the region is full, a section ends or nothing is left. */
  fill(flow: Flowing, region: Region, start: BlockPlace): Filled {
    if (!region.floats) return this.once(flow, region, start, [], false)
    const early: FloatSet[] = []
    const first = this.once(flow, region, start, [], early)
    if (early.length === 0) return first
    // Text above has to keep clear of what stands there: it is set once more, now that this is known.
    const more: FloatSet[] = []
    const again = this.once(flow, region, start, early, more)
    const stays =
      more.length === 0 &&
      again.isClear &&
      early.every(({ block, offset }) =>
        again.floats.some((own) => own.offset === offset && (own as FloatSet).block === block),
      )
    const set = stays ? again : this.once(flow, region, start, [], false)
    // What was looked at for that counts too.
    return { ...set, lookedAt: Math.max(first.lookedAt, again.lookedAt, set.lookedAt) }
  }

  /**
   * @param known pictures that are there from the beginning
   * @param early takes those that stand above their paragraph; false where none may, so that they stand in their lines
   */
  private once(
    flow: Flowing,
    region: Region,
    start: BlockPlace,
    known: readonly FloatSet[],
    early: FloatSet[] | false,
  ): Filled & { isClear: boolean } {
    const { nodes } = flow.blocks
    const { width, endless } = region
    const bottom = region.height + 1e-6
    const set: Set[] = []
    let floats: FloatSet[] = [...known]
    /** Whether no table stands on a picture for want of room. */
    let isClear = true
    let { block, at } = start
    let pen: Pen = {
      y: region.top,
      above: endless && block > 0 && beginsBlock(at) ? this.above(flow, block, width) : null,
    }
    const result = (next: BlockPlace, pieces: readonly Set[] = set, joinsBelow = false) => ({
      inside: this.framed(flow, flow.blocks.leaf(start.block), pieces, joinsBelow),
      floats: (floats = floats.filter(
        (own) => own.block < next.block || (own.block === next.block && !isBeginning(next.at)),
      )),
      height: floats.length > 0 ? Math.max(pen.y, reach(floats)) : pen.y,
      spaceAfter: pen.above === null || pen.above === "table" ? 0 : pen.above.format.spaceAfter,
      next,
      lookedAt: Math.min(flow.blocks.leaf(block), flow.blocks.leaf(nodes.length) - 1),
      atEnd: next.block >= nodes.length,
      isClear,
    })

    for (; block < nodes.length; block++, at = beginning) {
      const node = nodes[block] as Node
      const atTop = set.length === 0
      if (node.type.name === "sectionBreak") {
        // No strip begins with what has no leaf.
        if (endless || !flow.hasSections) continue
        return result({ block, at })
      }
      if (endless && !atTop && isBeginning(at) && endless.ends(pen.y, block))
        return result({ block, at }, set, this.joins(flow, block, width, pen))
      if (node.type.name === "contents") {
        const entries = this.contents(node, width)
        const firstRow = "entry" in at ? at.entry : 0
        for (let row = firstRow; row < entries.length; row++) {
          const { node: own, entry } = entries[row] as (typeof entries)[number]
          const paragraph = this.typesetter.paragraph(this.setting, own, width, null)
          const { y } = begin(pen, paragraph, 0, block === 0 && row === 0)
          const end = y + paragraph.height
          if (end > bottom && set.length > 0) return result({ block, at: { entry: row, back: 0 } })
          const box = {
            kind: "lines" as const,
            paragraph,
            from: 0,
            to: paragraph.lines.length,
            width,
            frame: null,
            entry,
          }
          set.push({ block, box, y, end, joins: false })
          pen = { y: end, above: paragraph }
        }
        continue
      }
      if (node.type.name === "table") {
        const { above } = pen
        const wished =
          pen.y +
          (above === "table" ? tableSpace : above ? above.format.spaceAfter + frameSpace(above.format).bottom : 0)
        const room = {
          firstLeaf: flow.firstLeaf + flow.blocks.leaf(block),
          width,
          atTop: atTop || endless !== undefined,
          repeats: !endless,
          least: this.setting.flow ? leastColumns(this.typesetter, this.setting, node) : null,
        }
        const setAt = (top: number) => {
          const height = endless ? endless.longest : bottom - top
          return setTable(this.setting.styles, node, { height, ...room }, at, this.fillCell)
        }
        let y = floats.length > 0 ? clearOf(floats, wished) : wished
        let own = setAt(y)
        let { lookedAt } = own
        for (;;) {
          const lower = own.box && behindNext(floats, y, own.box.height)
          if (lower === null) break
          // Rather on a picture than nowhere.
          if (atTop && lower >= bottom / 2) {
            isClear = false
            break
          }
          own = setAt((y = lower))
          lookedAt = Math.max(lookedAt, own.lookedAt)
        }
        const { box, x, next } = own
        if (box) {
          set.push({ block, box, x, y, end: y + box.height, joins: false })
          pen = { y: y + box.height, above: "table" }
        }
        if (next) {
          const kept = box || endless ? null : keptAbove(set)
          const place = kept ? { block: kept.block, at: beginning } : { block, at: next }
          return {
            ...result(place, kept ? set.slice(0, kept.index) : set),
            lookedAt: flow.blocks.leaf(block) + lookedAt,
          }
        }
        continue
      }
      const { line, shape = [] }: { line: number; shape?: Shape } = "line" in at ? at : { line: 0 }
      let insets: Insets = noInsets
      let inLine = shape.some((piece) => piece.inLine)
      let paragraph = this.paragraph(flow, block, width, { shape, floats: region.floats !== undefined && !inLine })
      const beside = region.floats && (paragraph.floats !== null || floats.length > 0)
      let own: readonly FloatSet[] = []
      if (beside && region.floats) {
        const set = this.beside(flow, block, line, region, region.floats, { pen, paragraph, floats, shape, early })
        ;({ paragraph, insets, own } = set)
        inLine ||= set.inLine
      }
      const { format, lines } = paragraph
      if (!endless && format.breakBefore && line === 0 && !(atTop && region.fresh)) return result({ block, at })
      if (!endless && format.columnBefore && line === 0 && !atTop) return result({ block, at })
      const { y: begins, joins } = begin(pen, paragraph, line, block === 0)
      const y = begins + (insets[line]?.above ?? 0)
      const foot = endless ? y + endless.longest : bottom - frameSpace(format).bottom
      let to = line
      const first = lines[line]
      if (first) {
        const offset = y - first.top
        while (to < lines.length && offset + (lines[to]?.top ?? 0) + (lines[to]?.height ?? 0) <= foot) to++
      }
      if (to < lines.length) {
        if (!endless) to = divide(paragraph, line, to)
        if (to <= line && (atTop || endless))
          to = Math.min(lines.length, line + Math.max(1, fitting(paragraph, line, foot - y)))
      }
      const end = y + linesHeight(paragraph, line, to)
      if (to > line) floats = [...floats, ...own]
      if (to > line)
        set.push({
          block,
          box: { kind: "lines", paragraph, from: line, to, width, frame: null, entry: null },
          y,
          end,
          joins,
        })
      if (to < lines.length) {
        if (to > line) {
          pen = { y: end, above: paragraph }
          const piece = {
            lines: to,
            width,
            ...(insets.length > 0 ? { insets } : {}),
            ...(inLine ? { inLine } : {}),
          }
          const unlike = region.varies || insets.length > 0 || inLine || shape.length > 0
          const before = unlike ? { shape: [...shape, piece] } : {}
          return result({ block, at: { line: to, ...before } })
        }
        const kept = keptAbove(set)
        return kept
          ? result({ block: kept.block, at: beginning }, set.slice(0, kept.index))
          : result({ block, at: beginning })
      }
      pen = { y: end, above: paragraph }
    }
    const below = endless && pen.above !== null && pen.above !== "table" ? frameSpace(pen.above.format).bottom : 0
    const whole = result({ block, at: beginning })
    return { ...whole, height: Math.max(whole.height, pen.y + below) }
  }

  /** A paragraph with the pictures that are tied to it where they stand, and its lines beside these and others. */
  private beside(
    flow: Flowing,
    block: number,
    line: number,
    region: Region,
    room: FloatRoom,
    now: {
      pen: Pen
      paragraph: ParagraphLayout
      floats: readonly FloatSet[]
      shape: Shape
      early: FloatSet[] | false
    },
  ): Beside {
    const { pen, floats, shape, early } = now
    let { paragraph } = now
    const own: FloatSet[] = []
    const tied = { leaf: flow.blocks.leaf(block), block, top: begin(pen, paragraph, line, block === 0).y }
    for (const floating of line === 0 ? (paragraph.floats ?? []) : []) {
      if (floats.some((known) => known.block === block && known.offset === floating.offset)) continue
      const set = place(floating, tied, region, room, [...floats, ...own])
      const above = set !== null && isEarly(set, tied.top)
      if (!set || (above && early === false)) {
        // What has no room beside the text stands in it.
        const inLine = this.paragraph(flow, block, region.width, { shape })
        return this.keepingClear(flow, block, line, region, { ...now, paragraph: inLine, floats }, false)
      }
      if (above && early) early.push(set)
      own.push(set)
    }
    const mayFloat = !shape.some((piece) => piece.inLine)
    const set = this.keepingClear(
      flow,
      block,
      line,
      region,
      { ...now, paragraph, floats: [...floats, ...own] },
      mayFloat,
    )
    paragraph = set.paragraph
    return { ...set, own }
  }

  /** The lines of a paragraph beside pictures, set until they keep clear of them. */
  private keepingClear(
    flow: Flowing,
    block: number,
    line: number,
    region: Region,
    now: { pen: Pen; paragraph: ParagraphLayout; floats: readonly FloatSet[]; shape: Shape },
    mayFloat: boolean,
  ): Beside {
    const { pen, floats, shape } = now
    let { paragraph } = now
    let insets: Insets = noInsets
    if (floats.length === 0) return { paragraph, insets, own: [], inLine: !mayFloat }
    const before = shape.at(-1)?.insets ?? noInsets
    for (let turns = 0; ; turns++) {
      const { y } = begin(pen, paragraph, line, block === 0)
      const { direction, dropCap } = paragraph.format
      // A letter as high as several lines has these beside it.
      const taking = { rtl: direction === "rtl", divides: dropCap === null }
      const next = insetsOf(floats, region.width, y, paragraph.lines, line, before, taking)
      if (sameInsets(next, insets)) {
        if (!sticksOut(paragraph.lines, region.width, insets)) break
        turns = mostTurns
      }
      // Lines that would not come to rest beside pictures stand below them all.
      insets = turns < mostTurns ? next : belowAll(floats, y, line, before)
      paragraph = this.paragraph(flow, block, region.width, { shape, floats: mayFloat, insets })
      if (turns >= mostTurns) break
    }
    return { paragraph, insets, own: [], inLine: !mayFloat }
  }

  private paragraph(
    { blocks, firstLeaf, lead, letters = null }: Flowing,
    block: number,
    width: number,
    around: Around = {},
  ): ParagraphLayout {
    const node = blocks.nodes[block] as Node
    const leaf = firstLeaf + blocks.leaf(block)
    const computed = this.computed.get(leaf)
    const isNote = Boolean(lead) && block === 0
    const label = (isNote ? lead : this.labels[leaf]) ?? null
    const { shape, insets, floats = false } = around
    const isPlain = !computed && !shape?.length && !insets?.length
    const known = isPlain ? this.known.get(node) : undefined
    if (
      known?.width === width &&
      known.label === label &&
      known.letters === letters &&
      (known.floats === floats || known.floats === null) &&
      known.isNote === isNote
    )
      return known.paragraph
    const setting = computed ? withComputed(this.setting, computed) : this.setting
    const own: Around = { level: isNote ? noteLevel : null, letters: isNote ? null : letters, shape, floats, insets }
    const paragraph = this.typesetter.paragraph(setting, node, width, label, own)
    if (isPlain) this.known.set(node, { width, label, letters, floats, isNote, paragraph })
    return paragraph
  }

  /** What a region without a foot goes on below. */
  private above(flow: Flowing, block: number, width: number): Pen["above"] {
    const { nodes } = flow.blocks
    for (let last = block - 1; last >= 0; last--) {
      const before = nodes[last] as Node
      if (before.inlineContent) return this.paragraph(flow, last, width)
      if (before.type.name === "table") return "table"
      if (before.type.name === "contents") {
        const row = this.contents(before, width).at(-1)
        if (row) return this.typesetter.paragraph(this.setting, row.node, width, null)
      }
      // There a section ends without a trace, or nothing has an entry.
    }
    return null
  }

  private joins(flow: Flowing, block: number, width: number, { above }: Pen): boolean {
    return (
      above !== null &&
      above !== "table" &&
      flow.blocks.nodes[block]?.inlineContent === true &&
      sharesFrame(above.format, this.paragraph(flow, block, width).format)
    )
  }

  /** Boxes with their frames, which reach over the space to a neighbour in the same frame. */
  private framed({ blocks }: Flowing, firstLeaf: number, set: readonly Set[], lastJoinsBelow: boolean): Placed[] {
    return set.map(({ block, box, x = 0, y, end, joins }, i): Placed => {
      const leaf = blocks.leaf(block) - firstLeaf
      if (box.kind === "table" || !hasFrame(box.paragraph.format)) return { box, leaf, x, y }
      const top = !joins ? y : (set[i - 1]?.end ?? 0)
      const frame = frameOf(box.paragraph, {
        x: 0,
        width: box.width,
        top: top - y,
        bottom: end - y,
        joinsAbove: joins,
        joinsBelow: set[i + 1]?.joins ?? lastJoinsBelow,
      })
      return { box: { ...box, frame }, leaf, x, y }
    })
  }
}

/** The setting in which fields of a leaf show what is computed. */
function withComputed(setting: Setting, computed: Computed): Setting {
  return { ...setting, values: (field, language) => computed.get(field) ?? setting.values(field, language) }
}

/** Whether two neighbours are both in one list, with what is inside it, or both in none. */
function inOneList(a: ListPlace | null, b: ListPlace | null): boolean {
  if (!a || !b) return a === b
  return a.level > 0 || b.level > 0 || (a.definition === b.definition && a.run === b.run)
}

/** Whether anything that cannot be divided, such as a picture, is wider than its line has room beside pictures. */
function sticksOut(lines: readonly Line[], width: number, insets: Insets): boolean {
  return insets.some((inset, n) => {
    const line = lines[n]
    if (!line || (inset.left === 0 && inset.right === 0)) return false
    return line.x < inset.left - 0.5 || line.x + line.width > width - inset.right + 0.5
  })
}

/** Where the lines of a paragraph begin below what stands above it, and whether the two stand in one frame. */
function begin(
  { y, above }: Pen,
  paragraph: ParagraphLayout,
  line: number,
  firstOfAll: boolean,
): { y: number; joins: boolean } {
  const { format, style } = paragraph
  if (above === null || line > 0)
    return { y: y + (firstOfAll && line === 0 ? format.spaceBefore : 0) + frameSpace(format).top, joins: false }
  if (above === "table")
    return { y: y + Math.max(tableSpace, format.spaceBefore) + frameSpace(format).top, joins: false }
  const alike = above.style === style
  // Where a list begins or ends, the space that its items drop between them is there, unless what stands beside it drops it too.
  const among = inOneList(above.format.list, format.list)
  const lists = above.format.list !== null && format.list !== null
  const drops = (own: ParagraphFormat, other: ParagraphFormat) =>
    alike && !own.spaceAlike && (among || (!lists && !other.spaceAlike))
  const gap =
    (drops(above.format, format) ? 0 : above.format.spaceAfter) + (drops(format, above.format) ? 0 : format.spaceBefore)
  const joins = sharesFrame(above.format, format)
  const { between } = format.borders
  const frames = joins
    ? between
      ? borderThickness(between) + between.distance
      : 0
    : frameSpace(above.format).bottom + frameSpace(format).top
  return { y: y + gap + frames, joins }
}

function linesHeight(paragraph: ParagraphLayout, from: number, to: number): number {
  const first = paragraph.lines[from]
  return first && to > from ? bottomOf(paragraph.lines, from, to) - first.top : 0
}

/** How far a paragraph of which the lines up to `to` fit may be set, by its keeps, widows and orphans. */
function divide(paragraph: ParagraphLayout, from: number, to: number): number {
  const { keepTogether, widows, dropCap } = paragraph.format
  // The lines beside a drop cap stay with it.
  const orphans = Math.max(paragraph.format.orphans, dropCap?.lines ?? 0)
  const count = paragraph.lines.length
  if (keepTogether && from === 0) return from
  if (count - to < widows) to = count - widows
  // What stands side by side stays so.
  to = Math.max(from, rowStart(paragraph.lines, to))
  if (from === 0 && to < orphans) to = 0
  return Math.max(from, to)
}

function fitting(paragraph: ParagraphLayout, from: number, room: number): number {
  let n = 0
  while (from + n < paragraph.lines.length && linesHeight(paragraph, from, from + n + 1) <= room) n++
  return n
}

/** The first of the blocks at the end of a region that must stay with the one following them, unless nothing would be left. */
function keptAbove(set: readonly Set[]): { index: number; block: number } | null {
  let index = set.length
  while (index > 0) {
    const box = set[index - 1]?.box
    if (box?.kind !== "lines" || !box.paragraph.format.keepNext || box.from > 0) break
    index--
  }
  const first = set[index]
  return index > 0 && first ? { index, block: first.block } : null
}
