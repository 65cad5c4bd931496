/** What is being read stays where it is when sheets change, and what somebody goes to comes into sight, however late its sheet is here. */
import { leavesOf } from "@biblon/core/document"
import type { Places } from "./places"
import type { Room } from "./room"
import type { Place, ViewSource } from "./source"
import type { Stack } from "./stack"

/** The caret keeps this distance from the edges when it is scrolled into sight. */
const comfort = 48
/** What is nearer to the top of all sheets than this part of the window is shown from the top on. */
const nearTop = 6

/** Who has scrolled less than this is at the beginning, and stays there whatever comes before the sheet that was first. */
const begun = 4

/** A place, and its height in the window. */
interface Read {
  place: Place
  y: number
}

/** The same, and the scrolling that keeps it there: who scrolls on reads something else. */
interface Held extends Read {
  top: number
}

export interface StayingSheets {
  stack(): Stack
  /** Gives the canvas the size of the stack. */
  resize(): void
  paint(): void
}

export class Staying {
  private revealing: { place: Place; y: number | null } | null = null
  /** What was being read in another layout. */
  private restoring: Held | null = null
  /** What is being read while the whole document is composed anew. */
  private holding: Held | null = null

  constructor(
    private readonly source: ViewSource,
    private readonly places: Places,
    private readonly room: Room,
    private readonly sheets: StayingSheets,
  ) {}

  /** Somebody may have scrolled. */
  scrolled(): void {
    const elsewhere = (held: Held | null) => held && Math.abs(this.room.scrollTop - held.top) > 2
    if (elsewhere(this.holding)) this.holding = null
    if (elsewhere(this.restoring)) this.restoring = null
  }

  private heldHere(read: Read | null): Held | null {
    return read && { top: this.room.scrollTop, ...read }
  }

  /** Scrolls for what is being read, which stays so. */
  private follows(y: number = this.room.scrollTop): void {
    if (y !== this.room.scrollTop) this.room.scrollTo(y)
    for (const held of [this.holding, this.restoring]) if (held) held.top = this.room.scrollTop
  }

  /** Number of the sheet that is gone to, though it may not be in sight yet; null where nothing is gone to. */
  get goal(): number | null {
    return this.revealing && this.places.sheetOf(this.revealing.place)
  }

  /** Somebody is where they want to be: nothing that was gone to is brought there any more. */
  stay(): void {
    this.revealing = null
  }

  /** Somebody goes elsewhere. */
  leave(): void {
    this.revealing = this.holding = null
  }

  /** To be put where it is when another layout is here. */
  restore(read: Read | null): void {
    this.restoring = this.heldHere(read)
  }

  /** The caret if it is in sight, else what stands near the top; with its height in the window. */
  read(): Read | null {
    const { from } = this.source.editor().selection
    const own = { pos: this.source.editor().selection.head, bias: this.source.bias() }
    const box = this.places.box(own)
    const { scrollTop, clientHeight, clientWidth } = this.room
    if (box && box.y >= scrollTop && box.y <= scrollTop + clientHeight) return { place: own, y: box.y - scrollTop }
    if (scrollTop < begun) return null
    const place = this.places.at(clientWidth / 2, scrollTop + comfort) ?? { pos: from, bias: 1 as const }
    const top = this.places.box(place)
    return top && { place, y: top.y - scrollTop }
  }

  /** What is being read stays where it is until all is composed, or until somebody scrolls. */
  hold(): void {
    const read = this.holding || this.sheets.stack().count === 0 ? null : this.read()
    if (read) this.holding = this.heldHere(read)
  }

  /** Whether what is being read could be put where it was. */
  private keepHeld(): boolean {
    const { holding } = this
    return holding !== null && this.scrollTo(holding)
  }

  /** Whether a place could be put at its height of the window. */
  scrollTo({ place, y }: Read): boolean {
    this.sheets.resize()
    const box = this.places.box(place)
    if (box) this.follows(box.y - y)
    return box !== null
  }

  /** Scrolls so that what was in sight stays there, after the stack of sheets has become another one. @param top how far it was scrolled before */
  follow(before: Stack, top: number): void {
    const { mirror, current } = this.source.layout
    const stack = this.sheets.stack()
    const anchor = before.count > 0 ? before.rowAt(top) : -1
    const anchorId = before.table.ids[anchor]
    if (this.restoring) {
      const { restoring } = this
      if (!this.scrollTo(restoring)) this.bringNear(restoring.place)
      // Sheets of the layout before may still come first.
      else if (current) this.restoring = null
    } else if (this.keepHeld()) {
      if (mirror.complete && current) this.holding = null
    } else if (top >= begun && anchorId !== undefined && mirror.table.ids[anchor] !== anchorId) {
      // What lies above changed its height: the sheet at the top of the window stays where it was.
      const now = mirror.table.ids.indexOf(anchorId)
      if (now >= 0) this.follows(this.room.scrollTop + stack.top(now) - before.top(anchor))
    } else if (anchor > 0) {
      this.follows(this.room.scrollTop + stack.top(anchor) - before.top(anchor))
    }
    if (this.holding && mirror.complete && current) {
      // It has come to be on a sheet that is not here yet.
      this.revealing = this.holding
      this.holding = null
    }
    this.follows()
  }

  /** What is gone to may be here now. */
  goOn(): void {
    if (this.revealing) this.reveal(this.revealing.place, this.revealing.y)
  }

  /**
   * Scrolls as little as brings a place into sight, fetching its sheet first if need be.
   * With `y`, the place comes to that height of the window.
   */
  reveal(place: Place, y: number | null = null): void {
    this.revealing = { place, y }
    if (!this.source.layout.current) return
    const box = this.places.box(place)
    if (!box) return this.bringNear(place)
    this.revealing = this.restoring = null
    const { rowHeight, columns } = this.sheets.stack().options
    if (rowHeight !== null) {
      this.room.scrollTo(Math.floor((this.places.sheetIndex(place) ?? 0) / columns) * rowHeight)
      return this.sheets.paint()
    }
    const { scrollTop, clientHeight, scrollLeft, clientWidth } = this.room
    const margin = Math.min(comfort, Math.max(4, (clientHeight - box.height) / 2))
    if (y !== null) this.room.scrollTo(box.y - y)
    else if (box.y < scrollTop + margin / 2) {
      const up = box.y - margin
      // With the first line of a document the head of its first sheet comes along.
      this.room.scrollTo(up < clientHeight / nearTop ? 0 : up)
    } else if (box.y + box.height > scrollTop + clientHeight - margin / 2)
      this.room.scrollTo(box.y + box.height - clientHeight + margin)
    if (box.x < scrollLeft + 8) this.room.scrollAside(Math.max(0, box.x - 40))
    else if (box.x > scrollLeft + clientWidth - 8) this.room.scrollAside(box.x - clientWidth + 40)
    // From now on this is what is being read.
    if (this.holding) this.holding = this.heldHere({ place, y: box.y - this.room.scrollTop })
    if (this.room.scrollTop !== scrollTop || this.room.scrollLeft !== scrollLeft) this.sheets.paint()
  }

  /** Scrolls to the sheet of a place that is not here yet, unless it is in sight; its contents come with the next report. */
  private bringNear(place: Place): void {
    const { doc } = this.source.editor()
    const leaf = leavesOf(doc).at(place.pos)
    void this.source.layout.locate(leaf, place.pos - leavesOf(doc).start(leaf)).then((index) => {
      // Meanwhile a report may have brought it, and it stands where it should; or somebody went elsewhere.
      const stack = this.sheets.stack()
      const isGoneTo = this.revealing?.place === place
      if ((!isGoneTo && this.restoring?.place !== place) || this.places.box(place)) return
      const { mirror, current } = this.source.layout
      if (index < 0 && isGoneTo && mirror.complete && current) {
        this.revealing = null
        return this.source.lost()
      }
      if (index < 0 || index >= stack.count) return
      const { scrollTop, clientHeight } = this.room
      const bottom = stack.top(index) + (stack.table.heights[index] ?? 0) * stack.options.scale
      if (stack.top(index) < scrollTop + clientHeight && bottom > scrollTop) return
      this.follows(stack.top(index))
      this.sheets.paint()
    })
  }
}
