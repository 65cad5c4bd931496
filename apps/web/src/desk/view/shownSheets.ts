/** The sheets in sight and near it, as elements on the canvas, with what is marked on them. */
import { CellSelection, pictureHere } from "@biblon/core/editing"
import { debugging } from "../../debugging"
import { PaintedSheet, type Lines } from "./painter"
import type { MarkBox, Places } from "./places"
import type { ViewSource } from "./source"
import type { Spots } from "./spots"
import type { Stack } from "./stack"

/** So many sheets beside those in sight are kept ready. */
const spare = 2

export class ShownSheets {
  private readonly painted = new Map<number, PaintedSheet>()
  private wanted = { from: 0, to: 0 }
  private sight = { from: 0, to: 0 }
  /** Whether a sheet in sight is still on its way. */
  lacking = false
  /** Whether lines of sheets out of sight are left to be painted. */
  unfinished = false
  /** Whether text has come, gone or moved when it was painted last. */
  changed = false
  /** Whether spaces, tabs, breaks and ends of paragraphs are shown. */
  signs = false

  constructor(
    private readonly canvas: HTMLElement,
    /** Sheets lie before it. */
    private readonly following: HTMLElement,
    private readonly source: ViewSource,
    private readonly places: Places,
    private readonly spots: Spots,
  ) {}

  get some(): boolean {
    return this.painted.size > 0
  }

  /** Their numbers. */
  get numbers(): Iterable<number> {
    return this.painted.keys()
  }

  /** Asks for sheets besides those that are wanted. */
  want(from: number, to: number): void {
    this.wanted = { from: Math.min(from, this.wanted.from), to: Math.max(to, this.wanted.to) }
    this.source.layout.want(this.wanted.from, this.wanted.to, this.sight)
  }

  /** Paints those from one to another, and of a few beside them so many lines as there is room for. */
  paint(stack: Stack, first: number, last: number, room: Lines): void {
    const from = Math.max(0, first - spare)
    const to = Math.min(Math.max(stack.count, 1), last + 1 + spare)
    this.wanted = { from, to }
    this.sight = { from: first, to: Math.min(to, last + 1) }
    this.source.layout.want(from, to, this.sight)
    for (const [index, sheet] of this.painted)
      if (index < from || index >= to || index >= stack.count) {
        sheet.element.remove()
        this.painted.delete(index)
      }
    this.lacking = this.unfinished = this.changed = false
    for (let index = from; index < Math.min(to, stack.count); index++) {
      const inSight = index >= first && index <= last
      if (!this.paintSheet(stack, index, inSight ? { lines: Infinity } : room)) this.lacking ||= inSight
    }
  }

  /** @returns whether what it shows is here */
  private paintSheet(stack: Stack, index: number, room: Lines): boolean {
    const { layout } = this.source
    const content = layout.mirror.placed(index)
    let painted = this.painted.get(index)
    if (!painted) {
      if (!content) return false
      this.painted.set(index, (painted = new PaintedSheet()))
      const behind = [...this.painted.entries()].filter(([i]) => i > index).sort((a, b) => a[0] - b[0])[0]
      this.canvas.insertBefore(painted.element, behind?.[1].element ?? this.following)
    }
    const { scale, flow } = stack.options
    const width = (stack.table.widths[index] ?? 0) * scale
    const height = (stack.table.heights[index] ?? 0) * scale
    const label = flow ? "Text" : `Sheet ${index + 1} of ${stack.count}`
    painted.place(stack.left(index), stack.top(index), width, height, scale, label)
    if (content && !painted.paint(content, this.signs, room)) this.unfinished = true
    this.changed ||= painted.changed
    painted.changed = false
    if (!content) return false
    if (layout.current) painted.showBreaks(this.spots.breaksOn(index), scale)
    if (debugging) painted.outline(content)
    return true
  }

  /** Shows what is selected, marked and composed. @param aside whether on sheets out of sight too, which have to show it before they are seen */
  mark(aside: boolean): void {
    const editor = this.source.editor()
    const { selection } = editor
    const { from, to, empty } = selection
    // A picture has a frame of its own.
    const isText = !empty && !pictureHere(editor)
    const composing = this.source.composing()
    for (const [index, painted] of this.painted) {
      if (!aside && (index < this.sight.from || index >= this.sight.to)) continue
      const boxes: MarkBox[] = []
      const add = (kind: string, start: number, end: number) =>
        boxes.push(...this.places.sheetBoxes(index, start, end).map((box) => ({ kind, ...box })))
      if (selection instanceof CellSelection)
        boxes.push(...this.places.cellBoxes(index, selection).map((box) => ({ kind: "selected", ...box })))
      else if (isText) add("selected", from, to)
      boxes.push(...this.places.markBoxes(index))
      if (composing) add("composing", composing.from, composing.to)
      painted.mark(boxes)
    }
  }
}
