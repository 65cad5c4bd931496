/** Where places of the text stand on the canvas, and what stands at a point of it: read from the layout mirror and from how the sheets lie. */
import { leavesOf } from "@biblon/core/document"
import { caretBox, checkAt, fragmentsOf, hit, rangeBoxes, type Box, type Fragment } from "@biblon/core/layout"
import type { EditorState } from "prosemirror-state"
import type { LayoutClient } from "../../workers/layoutClient"
import type { Stack } from "./stack"

export interface Place {
  pos: number
  /** At the end of a line that goes on below, -1 is there and 1 at the start of the next. */
  bias: -1 | 1
}

export interface ViewSource {
  layout: LayoutClient
  editor(): EditorState
  bias(): -1 | 1
  /** Range of text that an input method is still composing. */
  composing(): { from: number; to: number } | null
  /** What is marked in a leaf, by offsets, with the class of its boxes. */
  marks(leaf: number): readonly Mark[]
}

/** Something marked in the text: a place that was found, what a change touched. */
export interface Mark {
  from: number
  to: number
  kind: string
}

/** The column that a place stands in, in pixels of the canvas; its left edge is where lines without indent begin. */
export interface Column {
  x: number
  width: number
  sheet: { x: number; width: number }
}

export class Places {
  constructor(
    private readonly source: ViewSource,
    private readonly stack: () => Stack,
  ) {}

  /** Left edge of a sheet, in pixels of the canvas. */
  left(index: number): number {
    return this.stack().left(index)
  }

  /** CSS pixels for a point. */
  get scale(): number {
    return this.stack().options.scale
  }

  markBoxes(index: number): (Box & { kind: string })[] {
    const { mirror } = this.source.layout
    const placed = mirror.placed(index)
    return (placed ? fragmentsOf(placed) : []).flatMap((fragment) =>
      this.source
        .marks(fragment.leaf)
        .flatMap(({ from, to, kind }) => rangeBoxes(fragment, from, to, false).map((box) => ({ ...box, kind }))),
    )
  }

  sheetBoxes(index: number, from: number, to: number): Box[] {
    const placed = this.source.layout.mirror.placed(index)
    if (!placed) return []
    const leaves = leavesOf(this.source.editor().doc)
    return fragmentsOf(placed).flatMap((fragment) => {
      const start = leaves.start(fragment.leaf)
      const length = fragment.paragraph.text.length
      if (from > start + length || to < start) return []
      return rangeBoxes(fragment, Math.max(0, from - start), Math.min(length, to - start), to > start + length)
    })
  }

  fragmentAt(place: Place): { index: number; fragment: Fragment; box: Box } | null {
    const { mirror } = this.source.layout
    const { doc } = this.source.editor()
    const leaf = leavesOf(doc).at(place.pos)
    if (mirror.count === 0 || leaf >= leavesOf(doc).count) return null
    const offset = place.pos - leavesOf(doc).start(leaf)
    const { first, last } = mirror.sheetsOfLeaf(leaf)
    for (let index = Math.max(0, first - 1); index <= last; index++) {
      const placed = mirror.placed(index)
      for (const fragment of placed ? fragmentsOf(placed) : []) {
        if (fragment.leaf !== leaf) continue
        const box = caretBox(fragment, Math.max(0, Math.min(offset, fragment.paragraph.text.length)), place.bias)
        if (box) return { index, fragment, box }
      }
    }
    return null
  }

  columnAt(place: Place): Column | null {
    const found = this.fragmentAt(place)
    const { scale } = this
    if (!found) return null
    const x = this.stack().left(found.index)
    return {
      x: x + found.fragment.x * scale,
      width: found.fragment.width * scale,
      sheet: { x, width: (this.stack().table.widths[found.index] ?? 0) * scale },
    }
  }

  sheetIndex(place: Place): number | null {
    return this.fragmentAt(place)?.index ?? null
  }

  /** Where a caret stands, in pixels of the canvas; null while its sheet is not here. */
  box(place: Place): Box | null {
    const found = this.fragmentAt(place)
    if (!found) return null
    const { scale } = this
    const { index, box } = found
    return {
      x: this.stack().left(index) + box.x * scale,
      y: this.stack().top(index) + box.y * scale,
      width: 0,
      height: box.height * scale,
    }
  }

  /** The fragment that shows a caret, for movement by lines. */
  fragment(place: Place): { index: number; fragment: Fragment } | null {
    return this.fragmentAt(place)
  }

  /** The place nearest to a point of the canvas; null while nothing is there. */
  at(x: number, y: number): Place | null {
    const { mirror } = this.source.layout
    const index = this.stack().indexAt(x, y)
    const placed = mirror.placed(index)
    const found =
      placed && hit(placed, (x - this.stack().left(index)) / this.scale, (y - this.stack().top(index)) / this.scale)
    if (!found) return null
    return { pos: leavesOf(this.source.editor().doc).start(found.leaf) + found.offset, bias: found.bias }
  }

  /** The thing to do whose box is at a point of the canvas, by its leaf. */
  checkAt(x: number, y: number): number | null {
    const index = this.stack().indexAt(x, y)
    const placed = this.source.layout.mirror.placed(index)
    const [left, top, { scale }] = [this.stack().left(index), this.stack().top(index), this.stack().options]
    return placed ? checkAt(placed, (x - left) / scale, (y - top) / scale) : null
  }
}
