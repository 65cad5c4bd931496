/** Moves the caret, or the end of the selection, by keys. */
import type { EditorState } from "prosemirror-state"
import { leavesOf } from "@biblon/core/document"
import { documentEdge, moveHorizontally } from "@biblon/core/editing"
import type { Editing } from "../editing"
import type { LayoutMirror } from "../../workers/layoutMirror"
import type { Place } from "../view/source"
import type { SheetView } from "../view/sheetView"
import {
  besideCharacter,
  besideLine,
  besidePage,
  caretX,
  lineEdge,
  reachesPage,
  runsBackwards,
  type Motion,
} from "./movement"
import type { WaitingKeys } from "./waiting"

const byLine: ReadonlySet<Motion> = new Set(["up", "down", "pageUp", "pageDown"])
const bySheet: ReadonlySet<Motion> = new Set([...byLine, "lineStart", "lineEnd"])

/** Whether the text lies in a direction from the head, foot or note that the caret is in. */
function towardsText({ doc, selection }: EditorState, direction: -1 | 1): boolean {
  const { kind } = leavesOf(doc).flow(leavesOf(doc).at(selection.head))
  return direction > 0 ? kind === "header" : kind === "footer" || kind === "note" || kind === "endnote"
}

export interface CaretTarget {
  view(): SheetView | null
  mirror: LayoutMirror
  /** Out of the head, foot or note that the caret is in. Returns false if it is in the text. */
  leave(): boolean
}

export class Caret {
  /** x that movement up and down holds on to, in points. */
  private goalX: number | null = null

  constructor(
    private readonly editing: Editing,
    private readonly waiting: WaitingKeys,
    private readonly target: CaretTarget,
  ) {}

  /** The caret has come to where it is by other ways than up and down. */
  forgetGoal(): void {
    this.goalX = null
  }

  /** With `extend` the end of the selection moves. Fetches the caret's sheet first if it is out of reach. */
  move(motion: Motion, extend: boolean): void {
    const view = this.target.view()
    if (!view) return
    const { head } = this.editing
    const again = () => this.waiting.again(() => this.move(motion, extend))
    if (bySheet.has(motion) && !view.holds(head)) {
      again()
      return view.reveal(head)
    }
    if ((motion === "pageUp" || motion === "pageDown") && !reachesPage(view, head, motion === "pageUp" ? -1 : 1))
      return again()
    const goal = byLine.has(motion) ? (this.goalX ?? caretX(view, head)) : null
    const target = this.place(motion, extend, view, goal)
    if (target) {
      this.editing.select(extend ? this.editing.open.selection.anchor : target.pos, target)
      view.reveal(target)
    }
    this.goalX = goal
  }

  private place(motion: Motion, extend: boolean, view: SheetView, goal: number | null): Place | null {
    const { open: editor, head } = this.editing
    const { selection } = editor
    const at = (pos: number): Place => ({ pos, bias: 1 })
    // Without shift, left and right first go to that end of the selection.
    if (!extend && !selection.empty && (motion === "left" || motion === "right"))
      return at(motion === "left" ? selection.from : selection.to)
    const beside = (direction: -1 | 1) => {
      const line = besideLine(view, this.target.mirror, editor, head, direction, goal ?? 0)
      if (line || goal === null) return line
      // From a head down, and from a foot or note up, the way leads back to the text.
      if (!extend && towardsText(editor, direction) && this.target.leave()) return null
      return lineEdge(view, editor, head, direction)
    }
    switch (motion) {
      case "left":
      case "right": {
        const direction = motion === "left" ? -1 : 1
        return (
          besideCharacter(view, editor, head, direction) ??
          at(moveHorizontally(editor, head.pos, direction, "character"))
        )
      }
      case "wordLeft":
      case "wordRight":
        return at(
          moveHorizontally(editor, head.pos, (motion === "wordLeft") === runsBackwards(view, head) ? 1 : -1, "word"),
        )
      case "up":
        return beside(-1)
      case "down":
        return beside(1)
      case "lineStart":
        return lineEdge(view, editor, head, -1)
      case "lineEnd":
        return lineEdge(view, editor, head, 1)
      case "pageUp":
        return besidePage(view, head, -1)
      case "pageDown":
        return besidePage(view, head, 1)
      case "documentStart":
        return at(documentEdge(editor, -1))
      case "documentEnd":
        return at(documentEdge(editor, 1))
    }
  }
}
