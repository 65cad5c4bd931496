/** Match look at the desk: a look that was picked up is laid on what is selected next, once or until it is put down. */
import { layLook, pickUpLook } from "@biblon/core/editing"
import type { DeskPort } from "./ports"
import type { Laying } from "./store"

export class LookLaying {
  constructor(private readonly session: DeskPort) {}

  private get state(): Laying | null {
    return this.session.store.getState().laying
  }

  pickUp(): void {
    const editor = this.session.now
    if (editor)
      this.session.store.setState({
        laying: { look: pickUpLook(editor), part: editor.selection.empty ? "both" : "letters", many: false },
      })
  }

  change(change: Partial<Pick<Laying, "part" | "many">>): void {
    if (this.state) this.session.store.setState({ laying: { ...this.state, ...change } })
  }

  putDown(): void {
    this.session.store.setState({ laying: null })
  }

  /** Lays the look on the selection; by key, or when a selection was made. */
  lay(): void {
    const { state } = this
    if (!state || !this.session.now) return
    this.session.run(layLook(state.look, state.part))
    if (!state.many) this.putDown()
  }

  /** A selection was made by pointer: it gets the look. A mere caret gets it only where the paragraph does. */
  selected(): void {
    if (this.state && (!this.session.now?.selection.empty || this.state.part !== "letters")) this.lay()
  }
}
