/** What is opened over and beside the sheets: trays, the search, the cards for a link, a name, a tool. */
import type { DeskStore, TrayId } from "./store"

export class Opening {
  constructor(
    private readonly store: DeskStore,
    private readonly desk: { endTrial(): void; focus(): void },
  ) {}

  /** Opens a tray, at one of its pages, or with null puts the open one away. */
  tray(tray: TrayId | null, page?: string): void {
    this.desk.endTrial()
    this.store.setState(({ pages, scope }) => ({
      tray,
      // The sheets move beside it, and a card that lies on them would not.
      pressed: null,
      scope: tray === null ? null : scope,
      ...(tray && page ? { pages: { ...pages, [tray]: page } } : {}),
    }))
    if (this.store.getState().writing) this.desk.focus()
  }

  /** Opens where a copy is sent. */
  sending(): void {
    // Each time anew, so that it unfolds again where it was folded.
    this.tray("deliver", `send ${performance.now()}`)
  }

  /** Opens the search, or brings one back to it, for what is selected. */
  search(): void {
    this.store.setState((state) => ({ tray: "find", findAsked: state.findAsked + 1 }))
  }

  findTool(open: boolean): void {
    this.store.setState({ findingTool: open })
  }

  link(linking: boolean): void {
    if (this.store.getState().linking !== linking) this.store.setState({ linking })
  }

  name(): void {
    this.store.setState({ naming: true })
  }

  /** The save shortcut: everything is saved as it is typed, so this only draws attention to the state. */
  confirmSaved(): void {
    this.store.setState((state) => ({ confirmed: state.confirmed + 1 }))
  }
}
