/**
 * The sheets in sight, the caret and the selection, in a scrolling element. It reads the desk's state and
 * the layout mirror and never changes the document.
 */
import { leavesOf, type EdgeName } from "@biblon/core/document"
import { Delayed } from "../../ui/delayed"
import { CaretMark } from "./caretMark"
import { setStyle } from "./elements"
import { Places } from "./places"
import type { EdgeArea, Place, ViewSource } from "./source"
import { Room } from "./room"
import { ShownSheets } from "./shownSheets"
import { Spots } from "./spots"
import { Stack, type StackOptions } from "./stack"
import { Staying } from "./staying"
import { keeping, whatIsAt, type ViewSummary } from "./summary"

/** Left above a sheet that is gone to. */
const sheetEdge = 10

/**
 * So many lines out of sight are painted in a frame, which a slow phone does between two pictures of a fling, and in a faster one
 * as many as go by, up to a most; and in frames only, where the window over the sheets is asked for before: later the browser
 * would have to lay out the page once more to say it.
 */
const aFrame = { least: 4, most: 16 }
/** From one line to the next, about, in points. */
const lineHeight = 14
/** Where nobody scrolls, it waits so long for the next letter, in milliseconds. */
const [pause, scrolling] = [150, 300]

export class SheetView {
  readonly canvas = document.createElement("div")
  readonly room: Room
  readonly places: Places
  readonly spots: Spots
  private readonly caret = new CaretMark("caret")
  private readonly dropCaret = new CaretMark("drop-caret")
  private stack: Stack
  private readonly shown: ShownSheets
  private readonly staying: Staying
  private scrolled = 0
  /** How far the window had been scrolled when the sheets were painted last. */
  private paintedAt = 0
  /** When somebody scrolled, and what waits for a rest. */
  private scrolledAt = -Infinity
  private readonly resting = new Delayed(() => this.paintSoon())

  constructor(
    readonly host: HTMLElement,
    private readonly source: ViewSource,
    private options: StackOptions,
    private readonly onChange: (summary: ViewSummary) => void,
  ) {
    this.room = new Room(host)
    this.spots = new Spots(source, () => this.stack)
    this.places = new Places(
      source,
      () => this.stack,
      () => this.shown.numbers,
      this.spots,
    )
    this.stack = new Stack(source.layout.mirror.table, options)
    this.staying = new Staying(source, this.places, this.room, {
      stack: () => this.stack,
      resize: () => this.resize(),
      paint: () => this.paint(),
    })
    this.shown = new ShownSheets(this.canvas, this.caret.element, source, this.places, this.spots)
    this.canvas.className = `canvas${options.flow ? " flow" : ""}${options.rowHeight === null ? "" : " reading"}`
    this.canvas.append(this.caret.element, this.dropCaret.element)
    host.append(this.canvas)
    host.addEventListener("scroll", this.onScroll, { passive: true })
  }

  destroy(): void {
    this.caret.close()
    cancelAnimationFrame(this.scrolled)
    this.resting.close()
    this.host.removeEventListener("scroll", this.onScroll)
    this.canvas.remove()
  }

  private readonly onScroll = (): void => {
    this.scrolledAt = performance.now()
    this.room.changed()
    this.staying.scrolled()
    this.paintSoon()
  }

  /** Says to assistive technology whether the sheets are behind the text. */
  sayBusy(behind: boolean): void {
    const busy = String(behind || this.shown.lacking)
    if (this.host.getAttribute("aria-busy") !== busy) this.host.setAttribute("aria-busy", busy)
  }

  /** Changes how the sheets lie; the place being read stays where it is. */
  setOptions(options: StackOptions, newLayout: boolean): void {
    this.room.changed()
    // Before any sheet was seen nothing is being read, wherever one would have stood.
    const place = this.shown.some ? this.staying.read() : null
    this.options = options
    this.canvas.classList.toggle("flow", options.flow)
    this.canvas.classList.toggle("reading", options.rowHeight !== null)
    if (newLayout) return this.staying.restore(place)
    this.stack = new Stack(this.source.layout.mirror.table, options)
    if (this.stack.count === 0) return
    if (place) this.staying.scrollTo(place)
    this.paint()
  }

  /** To be called before a change of the whole document, as of a style: what is being read stays where it is until all is composed, or until somebody scrolls. */
  hold(): void {
    this.staying.hold()
  }

  /**
   * Scrolls as little as brings a place into sight, fetching its sheet first if need be.
   * With `y`, the place comes to that height of the window.
   */
  reveal(place: Place, y: number | null = null): void {
    this.staying.reveal(place, y)
  }

  /** Somebody has pressed what is in sight: what was gone to before is not brought there any more. */
  stay(): void {
    this.staying.stay()
  }

  /** Shows what the layout worker reported. */
  refresh(): void {
    const { mirror } = this.source.layout
    const before = this.stack
    const top = this.room.scrollTop
    if (before.table !== mirror.table || before.options !== this.options)
      this.stack = new Stack(mirror.table, this.options)
    this.resize()
    this.staying.follow(before, top)
    this.paint(0, true)
    this.staying.goOn()
  }

  private resize(): void {
    const { height, width } = this.stack
    const wide = width > this.options.width ? `${width}px` : "100%"
    if (setStyle(this.canvas, { height: `${height}px`, width: wide })) this.room.changed()
  }

  /**
   * @param aside so many lines of sheets out of sight are painted too
   * @param asTold whether the selection may be as it was shown: most reports say of a letter what was shown ahead of them
   */
  private paint(aside = 0, asTold = false): void {
    this.resting.cancel()
    const { scrollTop, clientHeight } = this.room
    this.paintedAt = scrollTop
    const first = this.stack.rowAt(scrollTop + 1)
    const last = this.stack.rowAt(scrollTop + clientHeight) + this.options.columns - 1
    this.shown.paint(this.stack, first, last, { lines: aside })
    if (!asTold || this.shown.changed || this.told !== this.state) this.paintSelection(aside > 0)
    if (!this.shown.unfinished) return
    if (aside > 0 || performance.now() - this.scrolledAt < scrolling) this.paintSoon()
    else {
      cancelAnimationFrame(this.scrolled)
      this.resting.in(pause)
    }
  }

  private paintSoon(): void {
    cancelAnimationFrame(this.scrolled)
    this.scrolled = requestAnimationFrame(() => {
      const goneBy = Math.abs(this.room.scrollTop - this.paintedAt) / (lineHeight * this.options.scale)
      this.paint(Math.max(aFrame.least, Math.min(aFrame.most, goneBy)))
    })
  }

  /** What else than the text shows in the selection and in what is told of it. */
  private get state(): string {
    const { current, mirror } = this.source.layout
    return `${current} ${mirror.complete} ${this.stack.count}`
  }
  private told = ""
  private summary: ViewSummary | null = null

  /**
   * Places the caret and the selection anew; to be called after each change of the editor's state.
   * @param aside whether on sheets out of sight too, because somebody scrolls
   */
  paintSelection(aside = false): void {
    const { layout } = this.source
    const editor = this.source.editor()
    this.told = this.state
    if (!layout.current) return
    const { head, empty } = editor.selection
    this.shown.mark(aside)
    const place = { pos: head, bias: this.source.bias() }
    const box = this.places.box(place)
    const { doc } = editor
    const { kind } = leavesOf(doc).flow(leavesOf(doc).at(head))
    this.canvas.classList.toggle("at-edge", kind === "header" || kind === "footer")
    this.caret.show(box)
    if (box) this.caret.light(empty)
    const before = this.summary
    this.summary = keeping(before, {
      sheets: this.stack.count,
      complete: layout.mirror.complete,
      firstShown: this.stack.rowAt(this.room.scrollTop + this.room.clientHeight * 0.4) + 1,
      ...whatIsAt(editor, place, box, this.places, (pos) => this.spots.pictureSeen(pos, this.shown.numbers)),
    })
    // Whoever hears of it sees to more than what it says, but not where somebody scrolls.
    if (!aside || this.summary !== before) this.onChange(this.summary)
  }

  /** Where something that is dragged would land; null when nothing is dragged. */
  showDropCaret(place: Place | null): void {
    this.dropCaret.show(place && this.places.box(place))
  }

  /** A point of the window on the canvas. */
  onCanvas(clientX: number, clientY: number): [x: number, y: number] {
    const { left, top } = this.canvas.getBoundingClientRect()
    return [clientX - left, clientY - top]
  }

  /** The place at a point of the window. */
  atClient(clientX: number, clientY: number): Place | null {
    return this.places.at(...this.onCanvas(clientX, clientY))
  }

  /** The place that a press at a point of the window means, which may be in another text than the caret. */
  pressed(clientX: number, clientY: number): Place | null {
    return this.places.pressed(...this.onCanvas(clientX, clientY))
  }

  /** Whether a finger at a point of the window is on a passage. */
  covers(from: number, to: number, clientX: number, clientY: number): boolean {
    return this.places.covers(from, to, ...this.onCanvas(clientX, clientY))
  }

  /** The head or foot of the sheet in sight, or of the one that is about to be. */
  edgeInSight(edge: EdgeName): EdgeArea | null {
    const inSight = this.stack.rowAt(this.room.scrollTop + this.room.clientHeight * 0.4)
    return this.spots.edgeOf(this.staying.goal ?? inSight, edge)
  }

  /** Shows or hides spaces, tabs, breaks and ends of paragraphs. */
  showSigns(signs: boolean): void {
    this.shown.signs = signs
    this.paint()
  }

  /** Scrolls to a sheet. @returns the leaf that begins with it; null where one goes on from the sheet before */
  toSheet(index: number): number | null {
    if (index < 0 || index >= this.stack.count) return null
    this.staying.leave()
    this.room.scrollTo(Math.max(0, this.stack.top(index) - sheetEdge))
    this.paint()
    const { mirror } = this.source.layout
    return mirror.table.within[index] === 0 ? mirror.firstLeaf(index) : null
  }

  /** So many rows of sheets on or back, in reading view. @returns whether it is done: the sheets that are turned to may not be here yet */
  turn(rows: number): boolean {
    const { rowHeight, columns } = this.options
    if (rowHeight === null) return true
    const row = Math.round(this.room.scrollTop / rowHeight) + rows
    if (row * columns >= this.stack.count && !this.source.layout.mirror.complete) return false
    this.room.scrollTo(row * rowHeight)
    this.paint()
    return true
  }

  /** Whether the sheets at a height of the desk are here; those that are not are asked for, besides those in sight. */
  reach(y: number): boolean {
    const { layout } = this.source
    const row = this.stack.rowAt(Math.max(0, Math.min(y, this.stack.height - 1)))
    // Between two rows the nearer one counts, which may be the next.
    const to = Math.min(this.stack.count, row + 2 * this.options.columns)
    for (let index = row; index < to; index++) {
      if (layout.mirror.placed(index)) continue
      this.shown.want(row, to)
      return false
    }
    return true
  }

  /** Whether a place is on a sheet whose contents are here. */
  holds(place: Place): boolean {
    return this.source.layout.current && this.places.fragmentAt(place) !== null
  }
}
