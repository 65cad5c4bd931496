/** Going to places of the document: by outline, list of changes, link. */
import {
  commentsOf,
  leavesOf,
  namedPartAt,
  namedParts,
  sectionsOf,
  type EdgeName,
  type PlacedComment,
} from "@biblon/core/document"
import { crossNote, leaveEdge, noteHere, placeOfLink, writeEdge, type Command } from "@biblon/core/editing"
import type { Editing } from "./editing"
import type { SheetView } from "./view/sheetView"

/** Distance from the top of the window at which a place comes to stand, in pixels. */
const nearTop = 80

export interface GoingTarget {
  view(): SheetView | null
  focus(): void
  /** Heads and feet are seen on sheets alone. Fulfilled once these are shown. */
  showSheets(): Promise<void>
  /** Opens the card of what was said of the words at a position. */
  showComments(pos: number): void
  /** Keys that are typed while some work goes on wait for its end. */
  hold<T>(work: Promise<T>): Promise<T>
}

export class Going {
  /** Where the caret was when a part was left, by the name of the part: so many paragraphs from its first. */
  private readonly leftAt = new Map<string, { leaf: number; offset: number }>()

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

  /** To a part by its number: to where one was in it last, or its beginning. */
  toPart(index: number): void {
    const { now } = this.editing
    const part = now && namedParts(now.doc)[index]
    if (!now || !part) return
    const leaves = leavesOf(now.doc)
    const firstOf = (start: number) => leaves.at(start + 1)
    const here = namedPartAt(now.doc, now.selection.head)
    if (here === index) return this.to(leaves.start(firstOf(part.start)))
    const left = namedParts(now.doc)[here]
    if (left) {
      const leaf = leaves.at(now.selection.head)
      this.leftAt.set(left.name, { leaf: leaf - firstOf(left.start), offset: now.selection.head - leaves.start(leaf) })
    }
    const was = this.leftAt.get(part.name) ?? { leaf: 0, offset: 0 }
    const leaf = Math.min(firstOf(part.start) + was.leaf, leaves.at(part.end - 1))
    this.to(Math.min(leaves.start(leaf) + was.offset, leaves.end(leaf)))
  }

  /** The first and last sheet of each part, from 1; none for as long as nothing is laid out. */
  sheetsOfParts(): (readonly [first: number, last: number])[] {
    const { now } = this.editing
    const places = this.target.view()?.places
    if (!now || !places) return []
    const parts = namedParts(now.doc)
    const first = parts.map(({ start }) => places.sheetOfLeaf(leavesOf(now.doc).at(start + 1)))
    const count = places.sheetCount
    return parts.flatMap((part, i) => {
      const [from, next] = [first[i], first[i + 1] ?? count]
      // A part that goes on below another shares its first sheet.
      const below = part.to < sectionsOf(now.doc).length && sectionsOf(now.doc)[part.to]?.setup.begins === "continuous"
      return typeof from === "number" ? [[from + 1, Math.max(from + 1, next + (below ? 1 : 0))] as const] : []
    })
  }

  /** The same for the part with the caret; null in a document without parts. */
  sheetsOfPartHere(): readonly [first: number, last: number] | null {
    const { now } = this.editing
    return (now && this.sheetsOfParts()[namedPartAt(now.doc, now.selection.head)]) ?? null
  }

  /** To the next passage of which something was said, or the one before; round the ends. */
  toComment(direction: -1 | 1): void {
    const { now } = this.editing
    const all = now ? commentsOf(now.doc) : []
    if (!now || all.length === 0) return
    const { head } = now.selection
    const next = direction > 0 ? all.find(({ from }) => from > head) : all.findLast(({ from }) => from < head)
    const { from } = next ?? (all.at(direction > 0 ? 0 : -1) as PlacedComment)
    this.to(from)
    this.target.focus()
    this.target.showComments(from)
  }

  /** To the part behind the one with the caret, or before it; round the ends. */
  toPartBeside(direction: -1 | 1): void {
    const { now } = this.editing
    const count = now ? namedParts(now.doc).length : 0
    if (now && count > 0) this.toPart((namedPartAt(now.doc, now.selection.head) + direction + count) % count)
  }

  /** To a sheet by its number, from 1; the caret goes along where a paragraph begins with it. */
  async toSheet(number: number): Promise<void> {
    await this.target.showSheets()
    const view = this.target.view()
    const leaf = view?.toSheet(number - 1) ?? null
    if (leaf !== null && this.editing.now) {
      const pos = leavesOf(this.editing.now.doc).start(leaf)
      this.editing.select(pos, { pos, bias: 1 })
    }
  }

  /** Selects a stretch of the document and brings it into sight. */
  toRange(from: number, to: number): void {
    if (!this.editing.now) return
    this.editing.select(from, { pos: to, bias: -1 })
    this.target.view()?.reveal({ pos: to, bias: -1 })
    this.target.focus()
  }

  /**
   * Into the head or foot of the sheet in sight, which is made if there is none.
   * @param own whether the section gets its own where it shows that of the one before it
   */
  toEdge(edge: EdgeName, own: boolean): Promise<void> {
    // At once, so that keys wait for it, and a phone shows its keyboard.
    this.target.focus()
    return this.target.hold(this.intoEdge(edge, own))
  }

  private async intoEdge(edge: EdgeName, own: boolean): Promise<void> {
    await this.target.showSheets()
    const view = this.target.view()
    const area = view?.edgeInSight(edge)
    if (!view || !area) return
    view.places.writeOn(area.sheet)
    this.editing.run(writeEdge(edge, area.variant, area.section, own))
    view.reveal(this.editing.head)
    this.target.focus()
  }

  /** Puts in a note, and goes to where it is written. */
  intoNote(command: Command): void {
    if (!this.editing.run(command)) return
    this.target.view()?.reveal(this.editing.head)
    this.target.focus()
  }

  /** Out of a head or foot, to the text of its sheet. Returns false if the caret is in neither. */
  leaveEdge(): boolean {
    return this.editing.run(leaveEdge(this.target.view()?.places.textBeside() ?? 0))
  }

  /** Out of a head, foot or note, to the text that it belongs to. Returns false if the caret is in the text. */
  backToText(): boolean {
    const { now } = this.editing
    if (now && noteHere(now)) {
      this.intoNote(crossNote)
      return true
    }
    if (!this.leaveEdge()) return false
    this.target.view()?.reveal(this.editing.head)
    this.target.focus()
    return true
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
