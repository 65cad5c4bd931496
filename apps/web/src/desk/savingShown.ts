/** Tells the bars whether all is saved: at once where it is not, and that it is only once it has stayed so, since while one types it is and is not with each letter. */
import type { Saving } from "../live/connection"
import { Delayed } from "../ui/delayed"
import { Showing } from "./showing"
import type { DeskStore } from "./store"

/** So many milliseconds have to pass without anything to save. */
const calm = 250

export class SavingShown {
  private readonly showing: Showing
  private told: Saving["kind"] = "saved"
  private saved: Saving = { kind: "saved", at: null }
  private readonly calm = new Delayed(() => this.tell(this.saved))

  constructor(store: DeskStore) {
    this.showing = new Showing(store)
  }

  show(saving: Saving): void {
    const { told } = this
    this.calm.cancel()
    if (saving.kind === "saving" && told === "saving") return
    if (saving.kind !== "saved" || told !== "saving") return this.tell(saving)
    this.saved = saving
    this.calm.in(calm)
  }

  private tell(saving: Saving): void {
    this.told = saving.kind
    this.showing.show({ saving }, false)
  }
}
