/** How the sheets of a document are looked at: flow, sheets or reading, how large, and what is kept of that on this device. */
import type { LayoutSpec } from "@biblon/core/layout"
import { keep } from "../kept"
import type { DeskStore } from "./store"
import { fitted, scales, type Fit, type ViewMode } from "./view/fitting"
import { isDark, keepView, viewOf, type KeptView } from "./view/kept"
import type { SheetView } from "./view/sheetView"
import { specAhead, specFor } from "./view/spec"
import type { StackOptions } from "./view/stack"

export interface ViewingTarget {
  view(): SheetView | null
  /** Size of a sheet in points. */
  sheet(): { width: number; height: number }
  /** Asks for a layout of another kind. */
  setSpec(spec: LayoutSpec): void
  hasLayout(): boolean
  /** Whether the layout that is here is the one that was asked for. */
  isCurrent(): boolean
  /** For what cannot be done before that is here. */
  again(act: () => void): void
  /** Heads and feet are seen on sheets alone: out of those, to the text. */
  leaveEdge(): void
  /** Keeps the caret in sight if it was. */
  keepCaretSeen(): void
  /** Before what is written can no longer be changed: puts the keyboard away. */
  blur(): void
}

export class Viewing {
  /** How the sheets fit the window; null where a scale was chosen. */
  private fit: Fit | null = "width"
  private spec: LayoutSpec
  private modeBefore: ViewMode = "sheets"

  constructor(
    private readonly id: string,
    private readonly store: DeskStore,
    private readonly target: ViewingTarget,
  ) {
    // What the page asked for before the program was here.
    this.spec = specAhead(this.readPreference())
  }

  /** What is laid out, as far as is known: what room there is shows only when the sheets hang in the page. */
  get currentSpec(): LayoutSpec {
    return this.spec
  }

  /** How this document was looked at last, on this device. */
  private readPreference(): KeptView {
    const view = viewOf(this.id)
    const { mode, fit, scale } = view
    this.fit = fit
    this.store.setState({ mode, ...(fit === null ? { scale } : {}) })
    return view
  }

  private keepPreference(): void {
    const { mode, scale } = this.store.getState()
    if (mode !== "reading") keepView(this.id, { mode, fit: this.fit, scale })
  }

  stackOptions(host: HTMLElement): StackOptions {
    const { mode, scale, columns } = this.store.getState()
    return {
      scale,
      flow: mode === "flow",
      width: host.clientWidth,
      columns: mode === "flow" ? 1 : columns,
      rowHeight: mode === "reading" ? host.clientHeight : null,
    }
  }

  /** Fits scale and spec to the room there is; the place being read stays. */
  arrange(): void {
    const view = this.target.view()
    if (!view) return
    const { clientWidth: width, clientHeight: height } = view.host
    if (width === 0) return
    if (this.fit !== null)
      this.store.setState(
        fitted({
          mode: this.store.getState().mode,
          fit: this.fit,
          room: { width, height },
          sheet: this.target.sheet(),
        }),
      )
    const spec = specFor(this.store.getState(), width)
    const changed = JSON.stringify(spec) !== JSON.stringify(this.spec)
    this.spec = spec
    view.setOptions(this.stackOptions(view.host), changed && this.target.hasLayout())
    if (changed) this.target.setSpec(spec)
    else this.target.keepCaretSeen()
  }

  setMode(mode: ViewMode): void {
    if (mode === "flow") this.target.leaveEdge()
    this.store.setState({ mode })
    this.fit = "width"
    this.keepPreference()
    this.arrange()
  }

  /** Shows sheets, once they are here. */
  showSheets(): Promise<void> {
    if (this.store.getState().mode === "sheets") return Promise.resolve()
    this.setMode("sheets")
    return new Promise((resolve) => {
      const stop = this.store.subscribe(() => {
        if (!this.target.isCurrent()) return
        stop()
        resolve()
      })
    })
  }

  /** Scale in CSS pixels for a point. */
  zoom(scale: number): void {
    this.fit = null
    this.store.setState({ scale: Math.min(scales.most, Math.max(scales.least, scale)) })
    this.keepPreference()
    this.arrange()
  }

  /** Lets the sheets fit the window, and go on fitting it. */
  fitTo(fit: Fit): void {
    if (this.store.getState().mode !== "sheets") this.store.setState({ mode: "sheets" })
    this.fit = fit
    this.keepPreference()
    this.arrange()
  }

  toggleSigns(): void {
    const signs = !this.store.getState().signs
    this.store.setState({ signs })
    this.target.view()?.showSigns(signs)
  }

  toggleRuler(): void {
    const ruler = !this.store.getState().ruler
    keep("ruler", ruler)
    this.store.setState({ ruler })
  }

  toggleDark(): void {
    const darkSheets = !isDark(this.store.getState())
    keep("dark-sheets", darkSheets)
    this.store.setState({ darkSheets })
  }

  /** Sheets to be turned, whole, where nothing can be changed by accident. */
  startReading(): void {
    const { mode } = this.store.getState()
    if (mode === "reading") return
    this.modeBefore = mode
    this.target.blur()
    this.store.setState({ tray: null, mode: "reading" })
    this.fit = "width"
    this.arrange()
  }

  leaveReading(): void {
    if (this.store.getState().mode !== "reading") return
    this.store.setState({ mode: this.modeBefore })
    this.readPreference()
    this.arrange()
  }

  turn(rows: number): void {
    const done = this.target.isCurrent() && this.target.view()?.turn(rows) !== false
    if (!done) this.target.again(() => this.turn(rows))
  }
}
