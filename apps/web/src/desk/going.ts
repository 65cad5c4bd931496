/** Going to places of the document: by outline, list of changes, link. */
import { leavesOf } from "@biblon/core/document"
import { placeOfLink } from "@biblon/core/editing"
import type { Editing } from "./editing"
import type { SheetView } from "./view/sheetView"

/** Distance from the top of the window at which a place comes to stand, in pixels. */
const nearTop = 80

export interface GoingTarget {
  view(): SheetView | null
  focus(): void
}

export class Going {
  constructor(
    private readonly editing: Editing,
    private readonly target: GoingTarget,
  ) {}

  private to(pos: number): void {
    this.editing.select(pos, { pos, bias: 1 })
    this.target.view()?.reveal({ pos, bias: 1 }, nearTop)
  }

  /** To a leaf: the caret to its start, its line near the top. */
  toLeaf(leaf: number): void {
    const { now } = this.editing
    if (now) this.to(leavesOf(now.doc).start(leaf))
  }

  /** Selects a stretch of the document and brings it into sight. */
  toRange(from: number, to: number): void {
    if (!this.editing.now) return
    this.editing.select(from, { pos: to, bias: -1 })
    this.target.view()?.reveal({ pos: to, bias: -1 })
    this.target.focus()
  }

  /** Follows a link: to its place in the document, or in another tab. */
  alongLink(href: string): void {
    const { now } = this.editing
    if (!now) return
    const place = placeOfLink(now.doc, href)
    if (place !== null) this.to(place)
    else if (/^(https?|mailto):/i.test(href)) window.open(href, "_blank", "noopener,noreferrer")
  }
}
