/** What keys and the text field do to the document: typing with its corrections, deleting, tools by their keys. */
import { changes, correct, insertText, joining, undo, type Command } from "@biblon/core/editing"
import { useCorrections } from "../corrections"
import type { Editing } from "../editing"
import type { WaitingKeys } from "./waiting"

export interface TypingTarget {
  /** What a key stands for; null for keys that mean nothing here, such as letters. */
  action(event: KeyboardEvent): (() => void) | null
  /** Leads out of the text. */
  leave(): void
}

export class Typing {
  /** The last correction, and where the caret was after it. */
  private corrected: { change: number; head: number } | null = null
  /** Whether a key that types is being followed just now. */
  active = false

  constructor(
    private readonly editing: Editing,
    private readonly waiting: WaitingKeys,
    private readonly target: TypingTarget,
  ) {}

  /** Runs a command of typing, which joins what was typed just before, and corrects what came of it. */
  type(command: Command, joins?: "typed" | "composed"): void {
    const typing: Command = (state, dispatch) =>
      command(state, dispatch && ((tr) => dispatch(joins ? joining(tr, joins) : tr)))
    this.active = joins !== undefined
    try {
      if (this.editing.run(typing) && joins === "typed") this.correct()
    } finally {
      this.active = false
    }
  }

  /** Corrects what was just typed; Backspace straight after it takes that back. */
  private correct(): void {
    if (this.editing.run(correct(useCorrections.getState().settings)))
      this.corrected = { change: changes(this.editing.open).done[0]?.id ?? -1, head: this.editing.open.selection.head }
  }

  /** Backspace: the last correction if it was just made, else what is before the caret. */
  deleteBack(command: Command): void {
    const { corrected } = this
    const { now } = this.editing
    const still =
      now &&
      corrected &&
      now.selection.empty &&
      now.selection.head === corrected.head &&
      changes(now).done[0]?.id === corrected.change
    this.corrected = null
    this.editing.run(still ? undo : command)
  }

  /** A key came while the text has the keyboard. */
  onKey(event: KeyboardEvent): void {
    const { key, ctrlKey, metaKey } = event
    // Tab belongs to the text; Escape leads out of it, so that the next Tab goes on to the bars.
    if (key === "Escape") return this.target.leave()
    let act = this.target.action(event)
    if (!act && this.waiting.any && key.length === 1 && !ctrlKey && !metaKey)
      act = () => this.type(insertText(key), "typed")
    if (!act) return
    event.preventDefault()
    if (this.waiting.any) this.waiting.push(act)
    else act()
  }
}
