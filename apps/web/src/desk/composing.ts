/** The sheets as the worker composes them, what is set ahead of it on the page, and whether they are behind what was typed. */
import { lookOver, type LayoutSpec } from "@biblon/core/layout"
import { documentAttrs } from "@biblon/core/document"
import { begunLayout, endSight } from "../early/begun"
import { stepText } from "../live/stepText"
import { LayoutClient } from "../workers/layoutClient"
import type { LayoutReport } from "../workers/protocol"
import type { EditorState } from "prosemirror-state"
import type { Change } from "./editing"
import type { WaitingKeys } from "./input/waiting"
import { EagerTypesetter } from "./view/eager"
import { SeenText } from "./view/seenText"
import type { SheetView } from "./view/sheetView"

export interface ComposingTarget {
  editor(): EditorState
  view(): SheetView | null
  spec(): LayoutSpec
  /** Does something behind the next frame. */
  later(task: () => void): void
  failed(message: string): void
}

/** Whether a change is one of the whole document's look. */
function reachesAll({ before, after }: Change): boolean {
  const [a, b] = [documentAttrs(before.doc), documentAttrs(after.doc)]
  return a.styles !== b.styles || a.typesetting !== b.typesetting
}

export class Composing {
  readonly layout: LayoutClient
  readonly seen: SeenText
  private readonly eager = new EagerTypesetter()
  private warmed = false
  private looking = false

  constructor(
    id: string,
    private readonly waiting: WaitingKeys,
    private readonly target: ComposingTarget,
  ) {
    this.seen = new SeenText(() => target.editor())
    this.layout = new LayoutClient(
      begunLayout(id),
      (task) => target.later(task),
      (report) => this.onReport(report),
      (message) => target.failed(message),
    )
  }

  changed(change: Change): void {
    const { before, after, steps } = change
    const { layout } = this
    const view = this.target.view()
    if (reachesAll(change)) view?.hold()
    const ahead = layout.current
      ? this.eager.set(before.doc, after.doc, layout.mirror, this.target.spec(), layout.seenTo)
      : null
    const texts = steps.map(stepText)
    // What is on the sheet already need not reach the worker before it is seen.
    if (ahead) layout.changeAhead(texts, ahead)
    else this.seen.changed(layout.change(texts), before.doc, steps)
    if (ahead) view?.refresh()
    this.lookOver()
    this.showBusy()
  }

  /** Lays steps out that are no part of the document. */
  tryOut(steps: readonly string[]): void {
    this.target.view()?.hold()
    this.layout.change(steps)
    this.showBusy()
  }

  /** Asks for a layout of another kind. */
  setSpec(spec: LayoutSpec): void {
    this.layout.setSpec(spec)
    this.showBusy()
  }

  /** Says to assistive technology whether the sheets are behind what was typed. */
  showBusy(): void {
    this.target.view()?.sayBusy(!this.layout.current || this.waiting.any)
  }

  /** Once the sheets are here, those that were shown before them go. */
  endSight(): void {
    if (this.target.view() && this.layout.mirror.count > 0) endSight()
  }

  /** Looks over the document once there is time: a later letter that makes a line more asks it as a whole. */
  private lookOver(): void {
    if (this.looking) return
    this.looking = true
    requestIdleCallback(() => {
      this.looking = false
      lookOver(this.target.editor().doc)
    })
  }

  private onReport({ seq }: LayoutReport): void {
    this.seen.shows(seq)
    this.target.view()?.refresh()
    this.endSight()
    if (!this.warmed && this.layout.mirror.count > 0) {
      this.warmed = true
      // Without it every letter waits for the worker, which is no harm.
      requestIdleCallback(() => void this.eager.warm(this.layout.mirror).catch(() => undefined))
    }
    this.waiting.release()
  }
}
