/** What goes through the text of a desk and marks places in it: the search, spelling, wording. */
import { commentsAt } from "@biblon/core/document"
import type { Change, Editing } from "./editing"
import { Finder, type FinderTarget } from "./finder"
import { Marking } from "./marking"
import { Spelling, type SpellingTarget } from "./spelling"
import type { SaidKind } from "./store"
import { Wording } from "./wording"

export class Checks {
  readonly finder: Finder
  readonly spelling: Spelling
  readonly wording: Wording
  readonly marking: Marking

  constructor(
    private readonly editing: Editing,
    target: FinderTarget & SpellingTarget,
  ) {
    this.finder = new Finder(target)
    this.spelling = new Spelling(target)
    this.wording = new Wording(target)
    this.marking = new Marking(editing, [this.spelling, this.wording, this.finder], () => target.repaint())
  }

  close(): void {
    this.finder.close()
    this.spelling.close()
    this.wording.close()
  }

  /** To be called when the document or the selection has changed. */
  changed({ tr, steps, here, moved }: Pick<Change, "tr" | "steps" | "here" | "moved">): void {
    const docChanged = steps.length > 0
    this.marking.forget()
    this.finder.changed(docChanged, tr.mapping)
    if (docChanged) {
      this.spelling.changed(here)
      this.wording.changed()
    } else if (moved) this.spelling.moved()
  }

  /** Whether there still is at a position what a card tells of. */
  isSaid(kind: SaidKind, pos: number): boolean {
    const { now } = this.editing
    if (kind === "comment") return now !== null && commentsAt(now.doc, pos).length > 0
    return (kind === "word" ? this.spelling.at(pos) : this.wording.at(pos)) !== null
  }
}
