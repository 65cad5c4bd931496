/** The state of the open document, and the one place through which every change of it goes. */
import { document } from "@biblon/core/document"
import { selectionBetween, settle, type Command } from "@biblon/core/editing"
import { EditorState, type Transaction } from "prosemirror-state"
import type { Step } from "prosemirror-transform"
import type { Place } from "./view/source"

/** Stands in until the document is here. */
export const blank = EditorState.create({ doc: document([]) })

/** A state that has taken another's place. */
export interface Change {
  tr: Transaction
  before: EditorState
  after: EditorState
  /** All that was done to the document. */
  steps: readonly Step[]
  /** Whether it was made here, other than by those who write along. */
  here: boolean
  /** Whether the selection is another one, other than by being brought along. */
  moved: boolean
}

export interface EditingTarget {
  /** Before the state changes. */
  changing(): void
  changed(change: Change): void
  /** After a change that was made here, other than by those who write along. */
  made(tr: Transaction): void
  /** The caret has gone to the other side of a line's end, or of a turn. */
  turned(): void
}

export class Editing {
  private state: EditorState | null = null
  private side: -1 | 1 = 1

  constructor(private readonly target: EditingTarget) {}

  /** The document now; null until it is here. */
  get now(): EditorState | null {
    return this.state
  }

  /** @throws Error until the document is here */
  get open(): EditorState {
    if (!this.state) throw new Error("The document is not open yet")
    return this.state
  }

  /** A document in place of the one that was open, or of none. */
  begin(state: EditorState): void {
    this.state = state
  }

  get bias(): -1 | 1 {
    return this.side
  }

  get head(): Place {
    return { pos: this.open.selection.head, bias: this.side }
  }

  /** Takes a change, of whomever. */
  apply(tr: Transaction, here = false): void {
    this.target.changing()
    const before = this.open
    const { state: after, transactions } = before.applyTransaction(tr)
    this.state = after
    const steps = transactions.flatMap((own) => own.steps)
    const moved = steps.length === 0 && !after.selection.eq(before.selection)
    this.target.changed({ tr, before, after, steps, here, moved })
  }

  /** Makes a change here. */
  readonly dispatch = (tr: Transaction): void => {
    this.side = 1
    this.apply(settle(tr), true)
    this.target.made(tr)
  }

  /** Runs a command; returns whether it applied. */
  readonly run = (command: Command): boolean => {
    return this.state !== null && command(this.state, this.dispatch)
  }

  select(anchor: number, head: Place): void {
    const { selection, doc } = this.open
    const moves = selection.anchor !== anchor || selection.head !== head.pos
    if (!moves && this.side === head.bias) return
    this.side = head.bias
    if (moves) this.apply(this.open.tr.setSelection(selectionBetween(doc, anchor, head.pos)))
    else this.target.turned()
  }
}
