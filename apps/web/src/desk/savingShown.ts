/** Tells the bars whether all is saved: at once where it is not, and that it is only once it has stayed so, since while one types it is and is not with each letter. */
import type { Saving } from "../live/connection"
import { Showing } from "./showing"
import type { DeskStore } from "./store"

/** So many milliseconds have to pass without anything to save. */
const calm = 250

export class SavingShown {
  private readonly showing: Showing
  private told: Saving["kind"] = "saved"
  private timer: ReturnType<typeof setTimeout> | undefined

  constructor(store: DeskStore) {
    this.showing = new Showing(store)
  }

  show(saving: Saving): void {
    const { told } = this
    clearTimeout(this.timer)
    if (saving.kind === "saving" && told === "saving") return
    if (saving.kind === "saved" && told === "saving") this.timer = setTimeout(() => this.tell(saving), calm)
    else this.tell(saving)
  }

  private tell(saving: Saving): void {
    this.told = saving.kind
    this.showing.show({ saving }, false)
  }
}
