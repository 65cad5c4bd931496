/**
 * Mouse and touch on the sheets. Mouse: press and drag, two clicks for a word, three for a paragraph.
 * Touch: a tap places the caret, two taps or a long press take a word, handles change the selection;
 * a finger that moves otherwise scrolls.
 */
import { textOf } from "@biblon/core/document"
import { sampleAt, wordAround } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import { dragOnSheets, sameSpot } from "./sheetDrag"
import { Taps } from "./taps"
import { Magnifier } from "../view/magnifier"
import type { EdgeArea, Place } from "../view/source"
import type { SheetView } from "../view/sheetView"

export interface PointerTarget {
  editor(): EditorState
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
  /** An entry of the contents was pressed: goes to the heading of that number. */
  goToHeading(heading: number): void
  /** The selection was made and let go at a point of the window. */
  selected(clientX: number, clientY: number): void
}

type Unit = "character" | "word" | "paragraph"

const manyClicks = 450

export class PointerInput {
  private clicks = { count: 0, time: 0, x: 0, y: 0 }
  private readonly taps: Taps
  private readonly handles: { element: HTMLElement; end: "from" | "to" | "caret" }[]

  constructor(
    private readonly view: SheetView,
    private readonly target: PointerTarget,
  ) {
    this.taps = new Taps(view.canvas)
    this.handles = (["from", "to", "caret"] as const).map((end) => {
      const element = document.createElement("div")
      element.className = `handle ${end === "caret" ? "caret-handle" : end}`
      element.hidden = true
      element.setAttribute("aria-hidden", "true")
      view.canvas.append(element)
      element.addEventListener("pointerdown", (event) => this.dragHandle(event, element, end))
      return { element, end }
    })
    view.canvas.addEventListener("pointerdown", this.onDown)
    view.canvas.addEventListener("contextmenu", (event) => {
      if (this.touching) event.preventDefault()
    })
  }
  private touching = false

  /** Shows the handles where the selection's ends are; only after a touch. */
  placeHandles(
    selection: {
      from: { x: number; y: number; height: number } | null
      to: { x: number; y: number; height: number } | null
    },
    empty: boolean,
    focused: boolean,
  ): void {
    for (const { element, end } of this.handles) {
      const box = end === "from" ? selection.from : selection.to
      const shown = this.touching && focused && box !== null && (end === "caret") === empty
      element.hidden = !shown
      if (shown && box) {
        const dx = end === "from" ? 22 : end === "to" ? 22 : 22
        element.style.transform = `translate(${box.x - dx}px, ${box.y + box.height}px)`
      }
    }
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

  private countClick({ clientX: x, clientY: y, timeStamp: time }: PointerEvent): number {
    const { clicks } = this
    const again = time - clicks.time < manyClicks && Math.hypot(x - clicks.x, y - clicks.y) < sameSpot
    this.clicks = { count: again ? (clicks.count % 3) + 1 : 1, time, x, y }
    return this.clicks.count
  }

  private span(place: Place, unit: Unit): { from: number; to: number } {
    const { doc } = this.target.editor()
    // A sample is taken whole; pressed again, it has the caret inside like any text.
    if (unit === "character") return this.sampleAt(place) ?? { from: place.pos, to: place.pos }
    const $pos = doc.resolve(place.pos)
    if (unit === "paragraph") return { from: $pos.start(), to: $pos.end() }
    const { from, to } = wordAround(textOf($pos.parent), $pos.parentOffset)
    return { from: $pos.start() + from, to: $pos.start() + to }
  }

  private sampleAt({ pos }: Place): { from: number; to: number } | null {
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
    const first = event.shiftKey
      ? { from: this.target.editor().selection.anchor, to: this.target.editor().selection.anchor }
      : this.span(place, unit)
    const extend = (to: Place) => {
      const other = this.span(to, unit)
      if (other.from < first.from) this.target.select(first.to, { pos: other.from, bias: 1 })
      else
        this.target.select(first.from, { pos: Math.max(other.to, first.to), bias: unit === "character" ? to.bias : -1 })
    }
    extend(place)
    this.drag(
      event,
      this.view.canvas,
      (x, y) => {
        const to = this.view.atClient(x, y)
        if (to) extend(to)
      },
      (x, y) => this.target.selected(x, y),
    )
  }

  private takePicture({ clientX, clientY }: MouseEvent, pos: number): void {
    this.target.focus()
    this.target.select(pos, { pos: pos + 1, bias: -1 })
    this.target.selected(clientX, clientY)
  }

  /** A press on an entry of the contents goes to its heading. */
  private goToEntry({ clientX, clientY }: PointerEvent): boolean {
    const heading = this.view.spots.entryAt(...this.view.onCanvas(clientX, clientY))
    if (heading !== null) this.target.goToHeading(heading)
    return heading !== null
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
    this.drag(
      event,
      this.view.canvas,
      (x, y) => {
        carrying ||= Math.hypot(x - event.clientX, y - event.clientY) > sameSpot
        if (carrying) this.target.dropCaret(this.view.atClient(x, y))
      },
      (x, y, letGo) => {
        this.target.dropCaret(null)
        const place = this.view.atClient(x, y)
        if (!carrying && pressed) this.target.select(pressed.pos, pressed)
        else if (carrying && place && letGo) this.target.drop(place, letGo.ctrlKey || letGo.altKey)
      },
    )
  }

  private dragHandle(event: PointerEvent, element: HTMLElement, end: "from" | "to" | "caret"): void {
    event.preventDefault()
    event.stopPropagation()
    // The third of three taps may come down on a handle that the second has brought.
    const { clicks } = this
    if (
      clicks.count === 2 &&
      event.timeStamp - clicks.time < manyClicks &&
      Math.hypot(event.clientX - clicks.x, event.clientY - clicks.y) < sameSpot
    )
      return this.touch(event)
    const { from, to } = this.target.editor().selection
    const fixed = end === "from" ? to : from
    // The finger lies below the line it means.
    const box = element.getBoundingClientRect()
    const dx = event.clientX - (box.left + box.width / 2)
    const dy = event.clientY - (box.top - 8)
    const lens = new Magnifier()
    const look = (x: number, y: number) => {
      const place = this.view.atClient(x - dx, y - dy)
      if (!place) return
      lens.show(this.view.canvas, x - dx, y - dy)
      if (end === "caret") this.target.select(place.pos, place)
      else if (place.pos !== fixed) this.target.select(fixed, place)
    }
    this.drag(event, element, look, (x, y) => {
      lens.hide()
      this.target.selected(x, y)
    })
  }

  private drag(
    event: PointerEvent,
    element: HTMLElement,
    move: (x: number, y: number) => void,
    done?: (x: number, y: number, event: PointerEvent | null) => void,
  ): void {
    // Two clicks with a drag between them are not a double click.
    dragOnSheets(this.view, event, element, () => (this.clicks.count = 0), move, done)
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
