/** The caret as it is drawn, and the one that shows where something that is dragged would land. */
import type { Box } from "@biblon/core/layout"
import { Delayed } from "../../ui/delayed"
import { setStyle } from "./elements"

/** Half the time, in milliseconds, in which the caret blinks once. */
const blink = 560

export class CaretMark {
  readonly element = document.createElement("div")
  private readonly blinking = new Delayed(() => {
    this.element.classList.toggle("lit")
    this.blinking.in(blink)
  })

  constructor(className: string) {
    this.element.className = className
    this.element.hidden = true
  }

  /** @param box in pixels of the canvas; null for none */
  show(box: Box | null): void {
    const hidden = box === null
    if (this.element.hidden !== hidden) this.element.hidden = hidden
    if (!box) return
    // Where text rises or falls, it lies.
    const lies = box.width > box.height
    const transform = lies ? `translate(${box.x}px, ${box.y - 1}px)` : `translate(${box.x - 1}px, ${box.y}px)`
    const [width, height] = lies ? [`${box.width}px`, "2px"] : ["", `${box.height}px`]
    setStyle(this.element, { transform, width, height })
  }

  /** Shows it at once and lets it blink, where nothing is selected; a timer, since an animation would have every frame painted. */
  light(on: boolean): void {
    this.element.classList.toggle("lit", on)
    this.element.classList.toggle("alone", on)
    if (on) this.blinking.in(blink)
    else this.blinking.cancel()
  }

  close(): void {
    this.blinking.close()
  }
}
