/** The handles by which a finger changes the selection, with a lens above the finger while it does. */
import { setStyle } from "../view/elements"
import { Magnifier } from "../view/magnifier"
import type { Passage, Place } from "../view/source"
import type { SheetView } from "../view/sheetView"
import { dragOnSheets } from "./sheetDrag"

type End = "from" | "to" | "caret"
interface Box {
  x: number
  y: number
  height: number
}

/** Where the selection begins and ends on the canvas, as far as that is in sight. */
export interface SelectionEnds {
  from: Box | null
  to: Box | null
}

export interface HandlesTarget {
  selection(): Passage
  select(anchor: number, head: Place): void
  hold(passage: Passage): () => void
  /** A handle was let go at a point of the window. */
  selected(clientX: number, clientY: number): void
  /** Takes a press that came down on a handle but meant what lies below it; returns false for any other. */
  takes(event: PointerEvent): boolean
  dragged(): void
}

/** Half the width of a handle, in pixels. */
const half = 22

export class Handles {
  private readonly all: { element: HTMLElement; end: End }[]

  constructor(
    private readonly view: SheetView,
    private readonly target: HandlesTarget,
  ) {
    this.all = (["from", "to", "caret"] as const).map((end) => {
      const element = document.createElement("div")
      element.className = `handle ${end === "caret" ? "caret-handle" : end}`
      element.hidden = true
      element.setAttribute("aria-hidden", "true")
      view.canvas.append(element)
      element.addEventListener("pointerdown", (event) => this.drag(event, element, end))
      return { element, end }
    })
  }

  place(selection: SelectionEnds, empty: boolean, touched: boolean): void {
    for (const { element, end } of this.all) {
      const box = end === "from" ? selection.from : selection.to
      const shown = touched && box !== null && (end === "caret") === empty
      if (element.hidden === shown) element.hidden = !shown
      if (shown) setStyle(element, { transform: `translate(${box.x - half}px, ${box.y + box.height}px)` })
    }
  }

  private drag(event: PointerEvent, element: HTMLElement, end: End): void {
    event.preventDefault()
    event.stopPropagation()
    if (this.target.takes(event)) return
    const { from, to } = this.target.selection()
    const fixed = end === "from" ? { from: to, to } : { from, to: from }
    const letFixedGo = this.target.hold(fixed)
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
      else if (place.pos !== fixed.from) this.target.select(fixed.from, place)
    }
    const letGo = (x: number, y: number) => {
      letFixedGo()
      lens.hide()
      this.target.selected(x, y)
    }
    dragOnSheets(this.view, event, element, () => this.target.dragged(), look, letGo)
  }
}
