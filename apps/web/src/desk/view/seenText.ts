/** The text as the sheets show it, which may be behind what was done since: who presses there means what is seen. */
import { leavesOf } from "@biblon/core/document"
import type { Node } from "prosemirror-model"
import { Selection, type EditorState } from "prosemirror-state"
import { Mapping, type Step } from "prosemirror-transform"

/** A change that is not shown yet. */
interface Unseen {
  seq: number
  before: Node
  mapping: Mapping
}

export class SeenText {
  private unseen: Unseen[] = []

  constructor(private readonly editor: () => EditorState) {}

  /** @param seq number under which the layout will tell that it shows the change */
  changed(seq: number, before: Node, steps: readonly Step[]): void {
    this.unseen.push({ seq, before, mapping: new Mapping(steps.map((step) => step.getMap())) })
  }

  /** The layout shows all changes up to this one. */
  shows(seq: number): void {
    this.unseen = this.unseen.filter((own) => own.seq > seq)
  }

  /** The document whose leaves have the numbers that are seen. */
  get doc(): Node {
    return this.unseen[0]?.before ?? this.editor().doc
  }

  /** Where a block or a break that is seen begins by now. */
  beginning(pos: number): number {
    return this.unseen.reduce((at, { mapping }) => mapping.map(at), Math.min(pos, this.doc.content.size))
  }

  /** Where a place in the text that is seen is by now; the nearest one if it is gone. */
  now(pos: number): number {
    if (this.unseen.length === 0) return pos
    const $pos = this.editor().doc.resolve(this.beginning(pos))
    return $pos.parent.inlineContent ? $pos.pos : Selection.near($pos).head
  }

  /** Number by now of a leaf that is seen. */
  leafNow(leaf: number): number {
    if (this.unseen.length === 0) return leaf
    return leavesOf(this.editor().doc).at(this.now(leavesOf(this.doc).start(leaf)))
  }
}
