/** Fingers on the sheets: a tap, or one that is held; one that moves scrolls. */
import { followPress } from "../../ui/followPress"
import { sameSpot } from "./sheetDrag"

/** Milliseconds after which a finger is held. */
const longPress = 480

export class Taps {
  private holding: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly canvas: HTMLElement) {}

  down(event: PointerEvent, then: { tapped(): void; held(): void }): void {
    let held = false
    // A second finger ends what the first began.
    clearTimeout(this.holding)
    const holding = (this.holding = setTimeout(() => {
      held = true
      then.held()
    }, longPress))
    followPress(this.canvas, event, {
      slack: sameSpot,
      move: () => clearTimeout(holding),
      end: (how) => {
        clearTimeout(holding)
        if (how === "pressed" && !held) then.tapped()
      },
    })
  }
}
