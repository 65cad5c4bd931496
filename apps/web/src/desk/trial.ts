/**
 * Values tried on the text while a pointer is on them. The layout gets the steps of the change and, when
 * the pointer leaves, those that take it back; the document, its history and the server hear nothing.
 */
import type { EditorState, Transaction } from "prosemirror-state"
import type { Command } from "@biblon/core/editing"
import { stepText } from "../live/stepText"

/** A pointer that only passes over a value tries nothing, in milliseconds. */
const passing = 70

export interface TrialTarget {
  editor(): EditorState | null
  /** Lays steps out that are no part of the document. */
  layOut(steps: readonly string[]): void
}

/** Whether a change takes text away, puts some in or changes its place. */
function movesText(tr: Transaction): boolean {
  let moves = false
  for (const map of tr.mapping.maps) map.forEach(() => (moves = true))
  return moves
}

export class Trial {
  private back: string[] | null = null
  private waiting: ReturnType<typeof setTimeout> | undefined

  constructor(private readonly target: TrialTarget) {}

  /** Shows what a command would come to; null shows the document as it is. Commands that move text are not tried. */
  show(command: Command | null, at: "once" | "afterPassing" = "afterPassing"): void {
    clearTimeout(this.waiting)
    if (command === null) return this.end()
    if (at === "once") return this.begin(command)
    this.waiting = setTimeout(() => this.begin(command), passing)
  }

  private begin(command: Command): void {
    this.end()
    const editor = this.target.editor()
    if (!editor) return
    command(editor, (tr) => {
      if (!tr.docChanged || movesText(tr)) return
      this.back = tr.steps.map((step, i) => stepText(step.invert(tr.docs[i] ?? editor.doc))).reverse()
      this.target.layOut(tr.steps.map(stepText))
    })
  }

  /** To be called before the document changes. */
  end(): void {
    clearTimeout(this.waiting)
    if (!this.back) return
    const { back } = this
    this.back = null
    this.target.layOut(back)
  }
}
