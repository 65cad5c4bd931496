/** What was pressed in the text, of which a card tells: fields, words that look wrong, what is said of the wording, comments, and where something begins. */
import type { Node } from "prosemirror-model"
import { leavesOf, nodeAt } from "@biblon/core/document"
import { breakBefore, removeBreak, type Command } from "@biblon/core/editing"
import type { Change } from "./editing"
import type { DeskStore, Pressed, SaidKind } from "./store"

export interface PressingTarget {
  run(command: Command): boolean
  focus(): void
  /** What a field shows that stands at a position. */
  shownAt(pos: number): string | null
  /** Whether there is still something to say of what stands at a position. */
  isSaid(kind: SaidKind, pos: number): boolean
}

export class Pressing {
  constructor(
    private readonly store: DeskStore,
    private readonly target: PressingTarget,
  ) {}

  get any(): boolean {
    return this.store.getState().pressed !== null
  }

  putAway(): void {
    if (this.any) this.store.setState({ pressed: null })
  }

  /** What was pressed is dealt with. The text has the keys again, if it had them: on a touch screen that would bring the keyboard. */
  end(): void {
    this.putAway()
    const { touch, writing } = this.store.getState()
    if (writing || !touch) this.target.focus()
  }

  /** The words of the field whose card is open, as they are now. */
  words(): string {
    const { pressed } = this.store.getState()
    return pressed ? (this.target.shownAt(pressed.pos) ?? pressed.words) : ""
  }

  /** The card stays as long as what was pressed is there and nothing else is done here; what others write moves it along. */
  follow({ tr, after, steps, here, moved }: Change): void {
    const { pressed } = this.store.getState()
    if (!pressed) return
    const { kind, words, box } = pressed
    const pos = tr.mapping.map(pressed.pos, 1)
    const isElse = moved || (here && steps.length > 0 && kind !== "field")
    if (isElse || !this.isThere(kind, pos, after.doc)) this.putAway()
    else if (pos !== pressed.pos) this.store.setState({ pressed: { kind, pos, words, box } })
  }

  private isThere(kind: Pressed["kind"], pos: number, doc: Node): boolean {
    if (kind === "field") return nodeAt(doc, pos)?.type.name === "field"
    return kind === "break" ? isBreakAt(doc, pos) : this.target.isSaid(kind, pos)
  }

  /** What a key means for what was pressed; null where it means nothing for that. */
  keyAction({ key }: KeyboardEvent): (() => void) | null {
    const { pressed } = this.store.getState()
    if (pressed?.kind !== "break" || (key !== "Delete" && key !== "Backspace")) return null
    return () => void this.target.run(removeBreak(pressed.pos))
  }
}

/** Whether something begins at a block, or behind a break of sections. */
export function isBreakAt(doc: Node, pos: number): boolean {
  const node = nodeAt(doc, pos)
  const leaf = node && leavesOf(doc).at(pos + (node.isLeaf ? 2 : 1))
  return leaf !== null && breakBefore(doc, leaf)?.pos === pos
}
