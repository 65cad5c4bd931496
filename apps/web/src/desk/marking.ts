/** What is marked in the text besides the selection: fields, samples, what the sources know, such as places found, and what a change touched. */
import type { Node } from "prosemirror-model"
import { commentSpans, leavesOf } from "@biblon/core/document"
import { samplesIn, touchedBy } from "@biblon/core/editing"
import type { Editing } from "./editing"
import type { Mark } from "./view/source"

const known = new WeakMap<Node, readonly Mark[]>()
const none: readonly Mark[] = []

/** What has a quiet tint on the screen in a paragraph: fields, samples that are to be typed over, passages of which something was said. */
function tintedIn(node: Node): readonly Mark[] {
  let marks = known.get(node)
  if (!marks) {
    const found: Mark[] = []
    node.forEach((child, offset) => {
      if (child.type.name === "field") found.push({ from: offset, to: offset + 1, kind: "field-tint" })
    })
    for (const span of samplesIn(node)) found.push({ kind: "sample-tint", ...span })
    for (const { from, to } of commentSpans(node)) found.push({ from, to, kind: "comment-band" })
    known.set(node, (marks = found.length > 0 ? found : none))
  }
  return marks
}

export class Marking {
  private touched: readonly { from: number; to: number }[] = []

  constructor(
    private readonly editing: Editing,
    private readonly sources: readonly { marks(leaf: number, node: Node): readonly Mark[] }[],
    private readonly repaint: () => void,
  ) {}

  /** Marks in the text what a change of the undo list touched; null for none. */
  preview(change: number | null): void {
    const { now } = this.editing
    this.touched = change === null || !now ? [] : touchedBy(now, change)
    this.repaint()
  }

  /** To be called when the document or the selection has changed. */
  forget(): void {
    this.touched = []
  }

  /** What is marked in a leaf, by offsets. */
  of(leaf: number): readonly Mark[] {
    const { now } = this.editing
    const leaves = now && leavesOf(now.doc)
    const node = leaves?.find(leaf)
    if (!leaves || !node) return none
    let marks = tintedIn(node)
    for (const source of this.sources) {
      const own = source.marks(leaf, node)
      if (own.length > 0) marks = marks.length === 0 ? own : [...marks, ...own]
    }
    if (this.touched.length === 0) return marks
    const [start, end] = [leaves.start(leaf), leaves.end(leaf)]
    const touched = this.touched.filter(({ from, to }) => from <= end && to >= start)
    return [
      ...marks,
      ...touched.map(({ from, to }) => ({
        from: Math.max(0, from - start),
        to: Math.min(end, to) - start,
        kind: "touched",
      })),
    ]
  }
}
