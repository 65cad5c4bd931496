/** What stands at a point of the canvas, or begins on a sheet, other than text. */
import { breakBefore, type BreakMark } from "@biblon/core/editing"
import {
  blocksOf,
  bodyOf,
  leavesOf,
  leavesOfBody,
  listedIn,
  sectionsOf,
  variantFor,
  type EdgeName,
  type Section,
} from "@biblon/core/document"
import {
  beforeTurn,
  checkAt,
  floatsOn,
  fragmentsOf,
  isBeginning,
  lineTop,
  picturesIn,
  sectionBegun,
  turnedBox,
  type Box,
  type DrawnPicture,
  type Fragment,
  type PlacedSheet,
  type SetCell,
  isOwnText,
} from "@biblon/core/layout"
import type { Area, EdgeArea, PictureSeen, ViewSource } from "./source"
import type { Stack } from "./stack"

/** Where something begins, and where on its sheet that is shown. */
export type SetBreak = BreakMark & { x: number; y: number; width: number }

/** So far above a paragraph it is shown in flow view, in points. */
const flowBreak = 14

/** A picture in a line that rises or falls, turned with it round its own middle. */
function turned<T extends { picture: DrawnPicture; x: number; y: number }>({ turn }: Fragment, own: T): T {
  if (!turn) return own
  const { picture, x, y } = own
  const { width, height } = picture
  const seen = turnedBox(turn, { x, y, width, height })
  return {
    ...own,
    x: seen.x + (seen.width - width) / 2,
    y: seen.y + (seen.height - height) / 2,
    picture: { ...picture, turn: picture.turn - turn.angle },
  }
}

export class Spots {
  constructor(
    private readonly source: ViewSource,
    private readonly stack: () => Stack,
  ) {}

  private left(index: number): number {
    return this.stack().left(index)
  }

  private get scale(): number {
    return this.stack().options.scale
  }

  /** Position by now of what is seen in a leaf. */
  private posNow(leaf: number, offset: number): number {
    const { seen } = this.source
    return seen.now(leavesOf(seen.doc).start(leaf) + offset)
  }

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
    const { doc } = this.source.seen
    const sections = sectionsOf(doc)
    const { section, first } = sectionBegun(blocksOf(bodyOf(doc)), sections, placed.leaf, placed.sheet.start.at)
    const { setup } = sections[section] as Section
    return { edge, sheet, section, variant: variantFor(setup, first, placed.sheet.start.left), story: paper[edge] }
  }

  /** The leaf of the heading that the entry of a list of contents at a point of the canvas stands for; null for none. */
  entryAt(x: number, y: number): number | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const [inX, inY] = [(x - this.left(index)) / this.scale, (y - this.stack().top(index)) / this.scale]
    const at = (placed ? fragmentsOf(placed) : []).find((own) => {
      const [first, last] = [own.paragraph.lines[own.from], own.paragraph.lines[own.to - 1]]
      if (own.entry === null || own.entry < 0 || !first || !last) return false
      const foot = own.y + last.top + last.height - first.top
      return inX >= own.x && inX <= own.x + own.width && inY >= own.y && inY <= foot
    })
    const { seen } = this.source
    const heading = at && listedIn(seen.doc)[at.entry ?? -1]
    return heading ? seen.leafNow(heading.leaf) : null
  }

  /** The pictures of a sheet, those on top first, with their boxes before they are turned, in points of the sheet. */
  private picturesOn(index: number): {
    leaf: number
    offset: number
    floats: boolean
    cell: SetCell | null
    picture: DrawnPicture
    x: number
    y: number
  }[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const middle = <T extends { picture: DrawnPicture; x: number; y: number }>(own: T): T => ({
      ...own,
      x: own.x + (own.picture.box.width - own.picture.width) / 2,
      y: own.y + (own.picture.box.height - own.picture.height) / 2,
    })
    const floats = floatsOn(placed)
      .filter(({ cell }) => !cell?.repeated)
      .map((own) => middle({ floats: true, ...own }))
    const over = floats.filter(({ format }) => format.wrap === "over").reverse()
    const inLines = fragmentsOf(placed)
      .filter(isOwnText)
      .flatMap((fragment) =>
        picturesIn(fragment).map((own) =>
          turned(fragment, middle({ leaf: fragment.leaf, floats: false, cell: null, ...own })),
        ),
      )
    return [...over, ...inLines, ...floats.filter(({ format }) => format.wrap !== "over")]
  }

  /** Position of the picture at a point of the canvas; null for none. Pictures under the text are had where no text is. */
  pictureAt(x: number, y: number): number | null {
    const index = this.stack().indexAt(x, y)
    const [inX, inY] = [(x - this.left(index)) / this.scale, (y - this.stack().top(index)) / this.scale]
    const found = this.picturesOn(index).find(({ picture: { width, height, turn }, x: left, y: top }) => {
      const radians = (-turn * Math.PI) / 180
      const [dx, dy] = [inX - left - width / 2, inY - top - height / 2]
      const [rx, ry] = [
        dx * Math.cos(radians) - dy * Math.sin(radians),
        dx * Math.sin(radians) + dy * Math.cos(radians),
      ]
      return Math.abs(rx) <= width / 2 && Math.abs(ry) <= height / 2
    })
    return found ? this.posNow(found.leaf, found.offset) : null
  }

  /** Where the picture at a position of the document stands; null while its sheet is not here. */
  pictureSeen(pos: number, sheets: Iterable<number>): PictureSeen | null {
    const leaves = leavesOf(this.source.editor().doc)
    const leaf = leaves.at(pos)
    const offset = pos - leaves.start(leaf)
    const { scale } = this
    for (const index of sheets) {
      const pictures = this.picturesOn(index)
      const found = pictures.find((own) => own.leaf === leaf && own.offset === offset)
      const placed = this.source.layout.mirror.placed(index)
      if (!found || !placed) continue
      const [left, top] = [this.left(index), this.stack().top(index)]
      const area = (x: number, y: number, width: number, height: number): Area => ({
        x: left + x * scale,
        y: top + y * scale,
        width: width * scale,
        height: height * scale,
      })
      const { sheet } = placed
      const { paper } = sheet.start
      const { picture, x, y, floats, cell } = found
      // For what floats in it, a cell is a sheet without margins.
      const around = cell?.inside ?? { x: 0, y: 0, width: sheet.width, height: sheet.height }
      const within = cell?.inside ?? (paper ? { x: paper.left, y: paper.top, ...paper } : around)
      const whole = ({ x: inX, y: inY, width, height }: Area) => area(inX, inY, width, height)
      return {
        pos,
        x: left + x * scale,
        y: top + y * scale,
        width: picture.width * scale,
        height: picture.height * scale,
        turn: picture.turn,
        floats,
        scale,
        sheet: whole(around),
        margins: whole(within),
        others: pictures.flatMap((own) =>
          own === found ? [] : [area(own.x, own.y, own.picture.width, own.picture.height)],
        ),
        pin: floats ? this.pinOf(placed, leaf, offset, left, top) : null,
      }
    }
    return null
  }

  /** Where the line begins on which something of a leaf is tied to the text. */
  private pinOf(placed: PlacedSheet, leaf: number, offset: number, left: number, top: number): PictureSeen["pin"] {
    for (const fragment of fragmentsOf(placed)) {
      if (fragment.leaf !== leaf || !isOwnText(fragment)) continue
      const lines = fragment.paragraph.lines.slice(fragment.from, fragment.to)
      const line = lines.find(({ from, to }) => offset >= from && offset < to) ?? lines[0]
      if (line) {
        const at = { x: fragment.x, y: lineTop(fragment, line) + line.height / 2, width: 0, height: 0 }
        const { x, y } = turnedBox(fragment.turn, at)
        return { x: left + x * this.scale, y: top + y * this.scale }
      }
    }
    return null
  }

  /** The field at a point of the canvas; null for none. */
  fieldAt(x: number, y: number): { pos: number; sheet: number; box: Box } | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const { scale } = this
    const [left, top] = [this.left(index), this.stack().top(index)]
    for (const fragment of placed ? fragmentsOf(placed) : []) {
      const { paragraph, leaf } = fragment
      const { x: inX, y: inY } = beforeTurn(fragment.turn, (x - left) / scale, (y - top) / scale)
      if (fragment.entry !== null || !paragraph.text.includes("\ufffc")) continue
      for (const line of paragraph.lines.slice(fragment.from, fragment.to)) {
        const y = lineTop(fragment, line)
        if (inY < y || inY > y + line.height) continue
        const on = line.runs.find((own) => inX >= fragment.x + own.x && inX <= fragment.x + own.x + own.width)
        if (!on || on.run.shows === null || paragraph.text[on.run.from] !== "\ufffc") continue
        if (paragraph.anchors?.some(({ offset }) => offset === on.run.from)) continue
        const seen = turnedBox(fragment.turn, { x: fragment.x + on.x, y, width: on.width, height: line.height })
        const box = {
          x: left + seen.x * scale,
          y: top + seen.y * scale,
          width: seen.width * scale,
          height: seen.height * scale,
        }
        return { pos: this.posNow(leaf, on.run.from), sheet: index, box }
      }
    }
    return null
  }

  /** What begins behind the columns of a sheet, or in flow above its paragraphs, each below the text before it; in points of the sheet. */
  breaksOn(index: number): SetBreak[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const { doc } = this.source.seen
    const count = leavesOfBody(doc)
    const { sheet, leaf: first } = placed
    const before = (leaf: number, x: number, y: number, width: number): SetBreak[] => {
      const mark = leaf < count ? breakBefore(doc, leaf) : null
      return mark ? [{ x, y, width, ...mark }] : []
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
    const leaf = placed && checkAt(placed, (x - left) / scale, (y - top) / scale)
    return typeof leaf === "number" ? this.source.seen.leafNow(leaf) : null
  }
}
