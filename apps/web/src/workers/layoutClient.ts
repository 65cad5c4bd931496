/** The page's end of the layout worker. */
import type { LayoutSpec, PlacedSheet, Sight } from "@biblon/core/layout"
import type { BegunLayout } from "../early/begun"
import { workerOf } from "./addresses"
import { logged } from "../debugging"
import { LayoutMirror } from "./layoutMirror"
import type { FromLayout, LayoutReport, ToLayout, Wish } from "./protocol"

export class LayoutClient {
  readonly mirror = new LayoutMirror()
  private readonly worker: Worker
  /** What was heard before somebody listened. */
  private heard: FromLayout[] | null
  private seq = 0
  /** The last change whose outcome was anticipated. */
  private ahead = -1
  private readonly asked = new Map<number, (answer: number | number[]) => void>()
  private asking = 0

  /** @param begun one that lays this document out already, if there is one */
  constructor(
    private readonly begun: BegunLayout | null,
    private readonly later: (task: () => void) => void,
    private readonly onReport: (report: LayoutReport) => void,
    private readonly onFailure: (message: string) => void,
  ) {
    this.worker = begun?.worker ?? workerOf("layout.worker.js")
    this.heard = [...(begun?.said ?? [])]
    this.worker.onmessage = ({ data }: MessageEvent<FromLayout>) => {
      if (this.heard) this.heard.push(data)
      else this.hear(data)
    }
    this.worker.onerror = (event) => onFailure(event.message || "The layout worker did not start")
  }

  private hear(message: FromLayout): void {
    logged("←", message)
    switch (message.type) {
      case "report":
        if (message.wanted.asked === this.wanted.asked) this.wanted = message.wanted
        this.mirror.take(message)
        return this.onReport(message)
      case "located":
        return this.answer(message.id, message.sheet)
      case "measured":
        return this.answer(message.id, message.widths)
      case "failed":
        return this.onFailure(message.message)
      case "ready":
    }
  }

  private answer(id: number, answer: number | number[]): void {
    this.asked.get(id)?.(answer)
    this.asked.delete(id)
  }

  private post(message: ToLayout): void {
    logged("→", message)
    this.worker.postMessage(message)
  }

  private send(message: ToLayout): void {
    this.sendHeld()
    this.post(message)
  }

  /** Messages that wait for the next frame, in order; whatever else is sent goes after them. */
  private held: ToLayout[] = []
  private readonly sendHeld = (): void => {
    const messages = this.held
    this.held = []
    for (const message of messages) this.post(message)
  }

  /** Whether the mirror includes every change sent so far. */
  get current(): boolean {
    return this.mirror.seq === this.seq || this.ahead === this.seq
  }

  /** A change whose outcome, sheets that were made on the page, is shown at once; the worker hears of it behind the next frame. Only where all before it is shown. */
  changeAhead(steps: readonly string[], sheets: ReadonlyMap<number, PlacedSheet>): void {
    this.held.push({ type: "steps", steps, seq: ++this.seq })
    this.later(this.sendHeld)
    this.mirror.anticipate(sheets, this.seq)
    this.ahead = this.seq
  }

  /** @param early whether the content is the one that was asked for before the program was here */
  open(content: string, early: boolean, spec: LayoutSpec): void {
    if (!early || !this.begun) this.send({ type: "open", content, spec, seq: ++this.seq })
    else if (JSON.stringify(spec) !== JSON.stringify(this.begun.spec)) this.setSpec(spec)
  }

  /** From now on what is laid out is shown: the document is here that it shows. */
  listen(): void {
    const { heard } = this
    this.heard = null
    for (const message of heard ?? []) this.hear(message)
  }

  /** @returns the number under which a report tells that it is shown */
  change(steps: readonly string[]): number {
    this.send({ type: "steps", steps, seq: ++this.seq })
    return this.seq
  }

  setSpec(spec: LayoutSpec): void {
    this.send({ type: "spec", spec, seq: ++this.seq })
  }

  /** What the worker was asked for, and where that has come to be. */
  private wanted: Wish = { from: 0, to: 0, sight: { from: 0, to: 0 }, asked: 0 }

  /** The number of the first sheet behind those in sight. */
  get seenTo(): number {
    return this.wanted.sight.to
  }

  /** Asks for sheets, if the worker does not know of it. @param sight those among them that are seen */
  want(from: number, to: number, sight: Sight): void {
    const { wanted } = this
    const isSame = (a: Sight, b: Sight) => a.from === b.from && a.to === b.to
    if (isSame(wanted, { from, to }) && isSame(wanted.sight, sight)) return
    this.wanted = { from, to, sight, asked: wanted.asked + 1 }
    this.send({ type: "want", wish: this.wanted, id: this.mirror.table.ids[from] ?? null })
  }

  private ask<T extends number | number[]>(question: (id: number) => ToLayout): Promise<T> {
    return new Promise((resolve) => {
      const id = ++this.asking
      this.asked.set(id, (answer) => resolve(answer as T))
      this.send(question(id))
    })
  }

  locate(leaf: number, offset: number): Promise<number> {
    return this.ask((id) => ({ type: "locate", id, leaf, offset }))
  }

  /** Widths that the columns of the table at a position need for their text, in points. */
  measure(pos: number): Promise<number[]> {
    return this.ask((id) => ({ type: "measure", id, pos }))
  }

  close(): void {
    this.worker.terminate()
  }
}
