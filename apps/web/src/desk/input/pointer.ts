/**
 * Mouse and touch on the sheets. Mouse: press and drag, two clicks for a word, three for a paragraph.
 * Touch: a tap places the caret, two taps or a long press take a word, handles change the selection;
 * a finger that moves otherwise scrolls.
 */
import { textOf } from "@biblon/core/document"
import { sampleAt, wordAround } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import { Handles, type SelectionEnds } from "./handles"
import { dragOnSheets, sameSpot, type DragEnd } from "./sheetDrag"
import { Taps } from "./taps"
import type { EdgeArea, Passage, Place } from "../view/source"
import type { SheetView } from "../view/sheetView"

export interface PointerTarget {
  editor(): EditorState
  /** A passage that something is done with is carried over what others change meanwhile. @returns what ends that */
  hold(passage: Passage): () => void
  select(anchor: number, head: Place): void
  focus(): void
  /** The selection was let go at a place; with `copies` it also stays where it was. */
  drop(place: Place, copies: boolean): void
  dropCaret(place: Place | null): void
  /** Whether nothing may be changed or selected now. */
  reading(): boolean
  /** The picture at a point of the window; null for none. */
  picture(clientX: number, clientY: number): { pos: number; inLine: boolean } | null
  /** Opens the link at the caret. Returns false if there is none. */
  follow(): boolean
  /** Ticks the thing to do whose box is at a point of the window. Returns false if there is none. */
  tick(clientX: number, clientY: number): boolean
  /** A head or foot is to be written where there is none yet. */
  writeEdge(area: EdgeArea): void
  /** A tap on what a card of its own tells of. Returns false if the tap means the text. */
  tell(clientX: number, clientY: number): boolean
  /** An entry of the contents was pressed: goes to the leaf of its heading. */
  goTo(leaf: number): void
  /** The selection was made and let go at a point of the window. */
  selected(clientX: number, clientY: number): void
}

type Unit = "character" | "word" | "paragraph"

const manyClicks = 450

export class PointerInput {
  private clicks = { count: 0, time: 0, x: 0, y: 0 }
  private readonly taps: Taps
  private readonly handles: Handles

  constructor(
    private readonly view: SheetView,
    private readonly target: PointerTarget,
  ) {
    this.taps = new Taps(view.canvas)
    this.handles = new Handles(view, {
      selection: () => target.editor().selection,
      select: (anchor, head) => target.select(anchor, head),
      hold: (passage) => target.hold(passage),
      selected: (x, y) => target.selected(x, y),
      takes: (event) => this.takesThirdTap(event),
      dragged: () => this.endClicks(),
    })
    view.canvas.addEventListener("pointerdown", this.onDown)
    view.canvas.addEventListener("contextmenu", (event) => {
      if (this.touching) event.preventDefault()
    })
  }
  private touching = false

  /** Shows the handles where the selection's ends are; only after a touch. */
  placeHandles(selection: SelectionEnds, empty: boolean, focused: boolean): void {
    this.handles.place(selection, empty, this.touching && focused)
  }

  private readonly onDown = (event: PointerEvent): void => {
    if (this.target.reading()) return
    if (event.button !== 0 || (event.target as HTMLElement).closest(".handle, .floating, .break")) return
    const touch = event.pointerType !== "mouse"
    this.touching = touch
    if (!touch && (this.target.tick(event.clientX, event.clientY) || this.goToEntry(event)))
      return event.preventDefault()
    if (touch) this.touch(event)
    else {
      event.preventDefault()
      this.dragSelection(event, this.countClick(event))
    }
  }

  /** Whether a press follows the last one in time and place. */
  private isAgain({ clientX, clientY, timeStamp }: PointerEvent): boolean {
    const { time, x, y } = this.clicks
    return timeStamp - time < manyClicks && Math.hypot(clientX - x, clientY - y) < sameSpot
  }

  private countClick(event: PointerEvent): number {
    const { clientX: x, clientY: y, timeStamp: time } = event
    const again = this.isAgain(event)
    this.clicks = { count: again ? (this.clicks.count % 3) + 1 : 1, time, x, y }
    return this.clicks.count
  }

  /** The third of three taps may come down on a handle that the second has brought. */
  private takesThirdTap(event: PointerEvent): boolean {
    const isThird = this.clicks.count === 2 && this.isAgain(event)
    if (isThird) this.touch(event)
    return isThird
  }

  /** Two clicks with a drag between them are not a double click. */
  private endClicks(): void {
    this.clicks.count = 0
  }

  private span(place: Place, unit: Unit): Passage {
    const { doc } = this.target.editor()
    // A sample is taken whole; pressed again, it has the caret inside like any text.
    if (unit === "character") return this.sampleAt(place) ?? { from: place.pos, to: place.pos }
    const $pos = doc.resolve(place.pos)
    if (unit === "paragraph") return { from: $pos.start(), to: $pos.end() }
    const { from, to } = wordAround(textOf($pos.parent), $pos.parentOffset)
    return { from: $pos.start() + from, to: $pos.start() + to }
  }

  private sampleAt({ pos }: Place): Passage | null {
    const { doc, selection } = this.target.editor()
    const sample = sampleAt(doc, pos)
    return sample && (selection.from > sample.from || selection.to < sample.to || selection.empty) ? sample : null
  }

  private dragSelection(event: PointerEvent, count: number): void {
    if (count === 2 && this.writeEdge(event)) return
    const picture = event.shiftKey ? null : this.target.picture(event.clientX, event.clientY)
    if (picture !== null) {
      this.takePicture(event, picture.pos)
      return picture.inLine ? this.carrySelection(event, null) : undefined
    }
    const place = this.view.pressed(event.clientX, event.clientY)
    this.target.focus()
    if (!place) return
    const { from, to, empty } = this.target.editor().selection
    if (count === 1 && !event.shiftKey && !empty && place.pos > from && place.pos < to)
      return this.carrySelection(event, place)
    if ((event.ctrlKey || event.metaKey) && count === 1 && !event.shiftKey) {
      this.target.select(place.pos, place)
      if (this.target.follow()) return
    }
    const unit: Unit = count === 1 ? "character" : count === 2 ? "word" : "paragraph"
    const { anchor } = this.target.editor().selection
    const first = event.shiftKey ? { from: anchor, to: anchor } : { ...this.span(place, unit) }
    const extend = (to: Place) => {
      const other = this.span(to, unit)
      if (other.from < first.from) this.target.select(first.to, { pos: other.from, bias: 1 })
      else
        this.target.select(first.from, { pos: Math.max(other.to, first.to), bias: unit === "character" ? to.bias : -1 })
    }
    extend(place)
    const letGo = this.target.hold(first)
    this.drag(
      event,
      (x, y) => {
        const to = this.view.atClient(x, y)
        if (to) extend(to)
      },
      (x, y) => {
        letGo()
        this.target.selected(x, y)
      },
    )
  }

  private takePicture({ clientX, clientY }: MouseEvent, pos: number): void {
    this.target.focus()
    this.target.select(pos, { pos: pos + 1, bias: -1 })
    this.target.selected(clientX, clientY)
  }

  /** A press on an entry of the contents goes to its heading. */
  private goToEntry({ clientX, clientY }: PointerEvent): boolean {
    const leaf = this.view.spots.entryAt(...this.view.onCanvas(clientX, clientY))
    if (leaf !== null) this.target.goTo(leaf)
    return leaf !== null
  }

  /** Two presses where a head or foot could stand begin one. */
  private writeEdge({ clientX, clientY }: PointerEvent): boolean {
    const area = this.view.spots.edgeArea(...this.view.onCanvas(clientX, clientY))
    // What is written there is pressed like any text.
    if (area?.story !== null) return false
    this.target.writeEdge(area)
    return true
  }

  /** A press inside the selection carries it elsewhere; a mere click puts the caret where it was pressed, if that is given. */
  private carrySelection(event: PointerEvent, pressed: Place | null): void {
    let carrying = false
    const held = pressed && { from: pressed.pos, to: pressed.pos }
    const letGo = held && this.target.hold(held)
    this.drag(
      event,
      (x, y) => {
        carrying ||= Math.hypot(x - event.clientX, y - event.clientY) > sameSpot
        if (carrying) this.target.dropCaret(this.view.atClient(x, y))
      },
      (x, y, event) => {
        letGo?.()
        this.target.dropCaret(null)
        const place = this.view.atClient(x, y)
        if (!carrying && pressed && held) this.target.select(held.from, { ...pressed, pos: held.to })
        else if (carrying && place && event) this.target.drop(place, event.ctrlKey || event.altKey)
      },
    )
  }

  private drag(event: PointerEvent, move: (x: number, y: number) => void, done: DragEnd): void {
    dragOnSheets(this.view, event, this.view.canvas, () => this.endClicks(), move, done)
  }

  private touch(event: PointerEvent): void {
    const { clientX, clientY } = event
    this.taps.down(event, {
      held: () => this.takeWord(clientX, clientY),
      tapped: () => this.tap(event),
    })
  }

  private tap(event: PointerEvent): void {
    const { clientX, clientY } = event
    if (this.target.tick(clientX, clientY) || this.goToEntry(event)) return
    const count = this.countClick(event)
    if (count === 2) return this.writeEdge(event) ? undefined : this.takeWord(clientX, clientY)
    const picture = this.target.picture(clientX, clientY)
    if (picture !== null) return this.takePicture(event, picture.pos)
    if (count === 1 && this.target.tell(clientX, clientY)) return
    const place = this.view.pressed(clientX, clientY)
    this.target.focus()
    if (!place) return
    const { from, to } = this.span(place, count === 3 ? "paragraph" : "character")
    this.target.select(from, from === to ? place : { pos: to, bias: -1 })
    this.target.selected(clientX, clientY)
  }

  private takeWord(clientX: number, clientY: number): void {
    const place = this.view.pressed(clientX, clientY)
    this.target.focus()
    if (!place) return
    const { from, to } = this.span(place, "word")
    this.target.select(from, { pos: to, bias: -1 })
    this.target.selected(clientX, clientY)
  }
}
