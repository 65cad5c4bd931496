/** The sheets in an element of the page, with the text field and the pointer: what people touch and see. */
import { leavesOf, nodeAt, pictureFormat } from "@biblon/core/document"
import { dragSelection, linkAt, redo, toggleDone, undo, writeEdge } from "@biblon/core/editing"
import type { Box } from "@biblon/core/layout"
import type { Mappable } from "prosemirror-transform"
import type { LayoutClient } from "../workers/layoutClient"
import { blank, type Editing } from "./editing"
import { attachDropping } from "./input/dropping"
import { TextField } from "./input/field"
import { PointerInput } from "./input/pointer"
import { attachReading } from "./input/reading"
import type { Typing } from "./input/typing"
import { PressedCards, type PressedCardsTarget } from "./pressedCards"
import type { DeskStore } from "./store"
import { setStyle } from "./view/elements"
import type { Mark, Passage, Place } from "./view/source"
import { SheetView } from "./view/sheetView"
import type { ViewSummary } from "./view/summary"
import { attachZooming } from "./view/zooming"
import type { Viewing } from "./viewing"

export interface SurfaceTarget extends PressedCardsTarget {
  marks(leaf: number): readonly Mark[]
  /** What was gone to stands on no sheet. */
  lost(): void
  /** Something was dropped at a place. */
  dropped(place: Place, data: DataTransfer | null): void
  /** Does something after the keys that wait for what is on its way. */
  inTurn(act: () => boolean): boolean
  /** A selection was made by pointer, and is about to be. */
  selecting(): void
  selected(): void
  follow(href: string): void
  /** To a leaf. */
  goTo(leaf: number): void
  summary(summary: ViewSummary): void
  attached(field: HTMLElement): void
}

export class Surface {
  view: SheetView | null = null
  field: TextField | null = null
  readonly cards: PressedCards
  private pointer: PointerInput | null = null
  private attached: AbortController | null = null
  composing: Passage | null = null
  /** What something is done with by pointer just now, or will be once keys are done that were pressed before. */
  private readonly held = new Set<Passage>()
  /** Where the caret stands, and how high the window was over it: if it was in sight it stays so when a tray takes some of that. */
  private caret: Box | null = null
  private seenHeight = 0

  constructor(
    private readonly editing: Editing,
    private readonly typing: Typing,
    private readonly layout: LayoutClient,
    private readonly viewing: Viewing,
    private readonly store: DeskStore,
    private readonly target: SurfaceTarget,
  ) {
    this.cards = new PressedCards(editing, store, () => this.view, target)
  }

  /** Hangs the sheets into an element of the page; returns what takes them out again. */
  attach(host: HTMLElement): () => void {
    const attached = (this.attached = new AbortController())
    const { signal } = attached
    const view = (this.view = this.viewIn(host))
    const field = (this.field = this.fieldIn(view))
    this.pointer = this.pointerOn(view)
    this.store.setState({ canvas: view.canvas })
    this.target.attached(field.element)
    this.listen(host, view, field, signal)
    const reading = () => this.store.getState().mode === "reading"
    attachReading(host, { reading, turn: (rows) => this.viewing.turn(rows), leave: () => this.viewing.leaveReading() })
    const endZooming = attachZooming(host, view.canvas, {
      zoomBy: (factor) => this.viewing.zoom(this.store.getState().scale * factor),
    })
    const arrange = () => {
      this.viewing.arrange()
      this.seenHeight = host.clientHeight
    }
    const resize = new ResizeObserver(arrange)
    resize.observe(host)
    arrange()
    if (this.layout.mirror.count > 0) {
      view.refresh()
      // A document that is opened shows its first sheet, though contents may stand before its text.
      const { head } = this.editing
      if (head.pos !== leavesOf(this.editing.open.doc).start(0)) view.reveal(head)
    }
    if (reading()) host.focus()
    this.beginWriting()
    const showTray = () => host.classList.toggle("beside-tray", !reading() && this.store.getState().tray !== null)
    showTray()
    const endTrays = this.store.subscribe(showTray)
    signal.addEventListener("abort", () => {
      endTrays()
      resize.disconnect()
      endZooming()
      view.destroy()
      this.store.setState({ canvas: null })
      this.view = this.field = this.pointer = null
    })
    return () => attached.abort()
  }

  /** Carries what is being composed, and what something is done with just now, over a change. */
  map(mapping: Mappable): void {
    for (const own of this.held) {
      own.from = mapping.map(own.from)
      own.to = mapping.map(own.to)
    }
    if (this.composing)
      this.composing = { from: mapping.map(this.composing.from, -1), to: mapping.map(this.composing.to) }
  }

  detach(): void {
    this.attached?.abort()
  }

  private viewIn(host: HTMLElement): SheetView {
    const source = {
      layout: this.layout,
      seen: this.target.seen,
      editor: () => this.editing.open,
      bias: () => this.editing.bias,
      composing: () => this.composing,
      marks: (leaf: number) => this.target.marks(leaf),
      lost: () => this.target.lost(),
    }
    return new SheetView(host, source, this.viewing.stackOptions(host), (summary) => {
      this.target.summary(summary)
      const { caret } = summary
      this.caret = caret
      if (caret && this.field) setStyle(this.field.element, { transform: `translate(${caret.x}px, ${caret.y}px)` })
      // A picture that is selected has a frame with grips of its own.
      const writing = this.store.getState().writing && summary.picture === null
      this.pointer?.placeHandles(summary.selection, this.editing.open.selection.empty, writing)
    })
  }

  private fieldIn(view: SheetView): TextField {
    const field = new TextField({
      editor: () => this.editing.now ?? blank,
      run: (command, joins) => this.typing.type(command, joins),
      composing: (range) => {
        this.composing = range
        this.view?.paintSelection()
      },
      deleteBack: (command) => this.typing.deleteBack(command),
      undo: () => void this.editing.run(undo),
      redo: () => void this.editing.run(redo),
    })
    view.canvas.append(field.element)
    return field
  }

  private pointerOn(view: SheetView): PointerInput {
    return new PointerInput(view, {
      editor: () => this.editing.open,
      drop: (place, copies) => void this.editing.run(dragSelection(place.pos, copies)),
      dropCaret: (place) => view.showDropCaret(place),
      reading: () => this.store.getState().mode === "reading",
      tick: (x, y) => {
        const leaf = view.spots.checkAt(...view.onCanvas(x, y))
        return leaf !== null && this.editing.run(toggleDone(leaf))
      },
      picture: (x, y) => {
        const pos = view.spots.pictureAt(...view.onCanvas(x, y))
        const node = pos === null ? null : nodeAt(this.editing.open.doc, pos)
        return pos !== null && node?.type.name === "picture"
          ? { pos, inLine: pictureFormat(node).wrap === "line" }
          : null
      },
      writeEdge: ({ edge, variant, section, sheet }) => {
        view.places.writeOn(sheet)
        this.editing.run(writeEdge(edge, variant, section))
        this.focus()
      },
      tell: (x, y) => this.cards.tap(x, y),
      goTo: (leaf) => this.target.goTo(leaf),
      selected: (x, y) =>
        void this.target.inTurn(() => {
          this.target.selected()
          this.cards.text(x, y)
          return true
        }),
      follow: () => {
        const link = this.editing.now && linkAt(this.editing.now)
        if (link) this.target.follow(link.href)
        return link !== null
      },
      select: (anchor, head) => this.select(anchor, head),
      hold: (passage) => this.hold(passage),
      focus: () => this.focus(),
    })
  }

  private hold(passage: Passage): () => void {
    this.held.add(passage)
    return () => this.held.delete(passage)
  }

  /** What was typed before stands where it was meant to; only then the caret goes to where somebody has pressed. */
  private select(anchor: number, head: Place): void {
    const own = { from: anchor, to: head.pos }
    let waited = false
    const letGo = this.hold(own)
    this.target.inTurn(() => {
      letGo()
      this.target.selecting()
      this.view?.stay()
      const place = { ...head, pos: own.to }
      this.editing.select(own.from, place)
      // Keys that waited may have led elsewhere.
      if (waited) this.view?.reveal(place)
      return true
    })
    waited = true
  }

  private listen(host: HTMLElement, view: SheetView, field: TextField, signal: AbortSignal): void {
    field.element.addEventListener(
      "keydown",
      (event) => void (field.composing || event.isComposing || this.typing.onKey(event)),
      { signal },
    )
    field.element.addEventListener("focus", () => this.setWriting(true), { signal })
    field.element.addEventListener("blur", () => this.setWriting(false), { signal })
    host.addEventListener("pointerdown", (event) => this.store.setState({ touch: event.pointerType !== "mouse" }), {
      capture: true,
      signal,
    })
    const pressBreak = (event: MouseEvent) => {
      const sign = (event.target as HTMLElement).closest<HTMLElement>(".break")
      if (!sign || this.store.getState().mode === "reading") return
      this.focus()
      this.cards.break(sign)
    }
    view.canvas.addEventListener("click", pressBreak, { signal })
    attachDropping(host, view, (place, data) => this.target.dropped(place, data), signal)
  }

  private setWriting(writing: boolean): void {
    this.store.setState({ writing })
    this.view?.host.classList.toggle("writing", writing)
    if (this.editing.now) this.view?.paintSelection()
  }

  /** Once text and view are here, one can type: at once where there are keys, on a touch screen only in what is still blank. */
  beginWriting(): void {
    const { now } = this.editing
    if (!now || !this.field || document.activeElement !== document.body) return
    const leaves = leavesOf(now.doc)
    const isBlank = leaves.count === 1 && leaves.node(0).content.size === 0
    if (isBlank || matchMedia("(pointer: fine)").matches) this.focus()
  }

  focus(): void {
    if (!this.field || this.store.getState().mode === "reading") return
    // With a tray open on a touch screen the keyboard would cover it: the text keeps the caret without one.
    const { tray, touch } = this.store.getState()
    this.field.element.inputMode = touch && tray !== null ? "none" : "text"
    this.field.focus()
  }

  blur(): void {
    this.field?.element.blur()
  }

  /** Keeps the caret in sight if it was. */
  keepCaretSeen(): void {
    const { view, caret } = this
    const top = view?.room.scrollTop ?? 0
    const wasSeen = caret !== null && caret.y + caret.height > top && caret.y < top + this.seenHeight
    if (this.editing.now && wasSeen) view?.reveal(this.editing.head)
  }

  /** Paints the selection and what is marked anew. */
  repaint(): void {
    if (this.editing.now) this.view?.paintSelection()
  }
}
