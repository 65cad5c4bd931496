/** What the parts of the desk may ask of the desk that they are on. */
import type { Command } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import type { Picturing } from "./picturing"
import type { DeskStore } from "./store"

export interface DeskPort {
  readonly store: DeskStore
  readonly picturing: Pick<Picturing, "add">
  /** The document now; null until it is here. */
  readonly now: EditorState | null
  /** Runs a command, after what was typed before it; returns whether it applied, or is waiting for that. */
  run(command: Command): boolean
  /** The same for work for which keys are waiting. */
  runAhead(command: Command): boolean
  /** Gives the text the keyboard. */
  focus(): void
  /** What is typed until a promise is settled comes after what it leads to. */
  holdKeys<T>(promise: Promise<T>): Promise<T>
}
