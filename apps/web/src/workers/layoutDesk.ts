/** The document that is laid out in the layout worker, and what the page is told of it. Sheets in sight come first; the rest follows in slices between messages. */
import { Node } from "prosemirror-model"
import { leavesOf, readStep, schema } from "@biblon/core/document"
import {
  Composition,
  fragmentsOf,
  isOwnText,
  lineOfOffset,
  naturalColumns,
  settingOf,
  type Typesetter,
  type Layout,
  type LayoutSpec,
  type PlacedSheet,
  type Sight,
} from "@biblon/core/layout"
import type { FromLayout, ToLayout, Wish } from "./protocol"
import { Sending, Tables } from "./sending"

/** Longest stretch of work between two looks at the messages, and between two reports of a layout in the making, in milliseconds. */
const slice = 8
const reportEvery = 120
/** What is out of sight waits so long for another change: who types has the processor. Where changes keep coming it waits for so long, and goes on for so long. */
const [pause, pauses, work] = [100, 400, 80]

/** What has to be there before a document is set. */
export interface Preparing {
  /** Fetches what the first sheets of a document are set in. */
  fetchAhead(doc: Node): Promise<unknown>
  /** @returns whether its citations could not be shown before and can be now */
  prepareCiting(doc: Node): Promise<boolean>
}

export class LayoutDesk {
  private doc: Node | null = null
  private spec: LayoutSpec = { mode: "sheets" }
  private seq = 0
  private layout: Layout | null = null
  private composition: Composition | null = null
  private want: Wish = { from: 0, to: 2, sight: { from: 0, to: 2 }, asked: 0 }
  /** Whether all that is wanted was composed ahead of its turn. */
  private ahead = false
  /** Whether something that is wanted is to come with another report. */
  private owes = false
  /** A sheet among those wanted. */
  private anchor: { index: number; id: number } | null = null
  private lastReport = 0
  private readonly turn = new MessageChannel()
  private readonly sending: Sending
  private readonly tables = new Tables()

  constructor(
    private readonly typesetter: Typesetter,
    private readonly preparing: Preparing,
    private readonly post: (message: FromLayout) => void,
  ) {
    this.sending = new Sending(typesetter)
    this.turn.port1.onmessage = () => this.goOn()
  }

  close(): void {
    this.composition = null
    this.turn.port1.close()
  }

  async receive(message: Exclude<ToLayout, { type: "openAhead" }>): Promise<void> {
    if (this.resting) {
      this.resting = false
      if (this.composition) this.later()
    }
    switch (message.type) {
      case "open":
        return this.open(message.content, message.spec, message.seq)
      case "steps":
        for (const text of message.steps) {
          const result = this.doc && readStep(JSON.parse(text)).apply(this.doc)
          if (!result?.doc) throw new Error("A change does not fit the document that was laid out")
          this.doc = result.doc
        }
        this.quietUntil = performance.now() + pause
        return this.begin(message.seq)
      case "spec":
        this.spec = message.spec
        return this.begin(message.seq)
      case "want":
        this.want = message.wish
        this.anchor = message.id === null ? null : { index: this.want.from, id: message.id }
        this.follow()
        this.show()
        return this.report()
      case "locate":
        return this.locate(message.id, message.leaf, message.offset)
      case "measure":
        return this.measure(message.id, message.pos)
    }
  }

  /** Lays out what is seen first, and waits with the rest until somebody listens. */
  openAhead(content: string, spec: LayoutSpec, seq: number): Promise<void> {
    this.resting = true
    return this.open(content, spec, seq)
  }

  /** Lays a document out, with what its first sheets are set in at hand. */
  private async open(content: string, spec: LayoutSpec, seq: number): Promise<void> {
    const doc = Node.fromJSON(schema, JSON.parse(content))
    await Promise.all([this.preparing.fetchAhead(doc), this.preparing.prepareCiting(doc)])
    this.doc = doc
    this.layout = null
    this.spec = spec
    this.begin(seq)
  }

  private begin(seq: number): void {
    if (!this.doc) return
    this.seq = seq
    // What is cited for the first time shows dots until the program for it is here.
    void this.preparing.prepareCiting(this.doc).then((ready) => {
      if (!ready) return
      this.layout = null
      this.begin(this.seq)
    })
    this.composition = new Composition(this.typesetter, this.doc, this.spec, this.layout)
    this.show()
    this.report()
  }

  /** Composes what is wanted: ahead of its turn where that can be, else what is in sight with all that comes before it. */
  private show(): void {
    const { composition, want } = this
    if (!composition) return
    this.ahead = composition.look(want)
    if (!this.ahead) return this.advance(() => composition.settled >= want.to || composition.shows(want.sight))
    this.layout = composition.layout
    this.later()
  }

  /** Sheets that come or go before those that are wanted move them. */
  private follow(): void {
    const placed = this.layout?.placed ?? []
    const { anchor, want } = this
    if (anchor && placed[anchor.index]?.sheet.id !== anchor.id) {
      const moved = placed.findIndex(({ sheet }) => sheet.id === anchor.id) - anchor.index
      const along = ({ from, to }: Sight) => ({ from: Math.max(0, from + moved), to: to + moved })
      if (moved >= -anchor.index) this.want = { ...want, ...along(want), sight: along(want.sight) }
    }
    const index = Math.floor((this.want.from + Math.min(this.want.to, placed.length)) / 2)
    const id = placed[index]?.sheet.id
    this.anchor = id === undefined ? null : { index, id }
  }

  /** Composes until there is enough; hands on to slices if that leaves something to do. */
  private advance(enough: () => boolean): void {
    const { composition } = this
    if (!composition) return
    let done = false
    do done = composition.step()
    while (!done && !enough())
    this.layout = composition.layout
    if (done) this.composition = null
    else this.later()
  }

  private waiting = false
  /** Once the first sheets are there, until somebody listens: the page needs the processor for its program. */
  private resting = false

  /** Goes on after the messages that have come meanwhile. */
  private later(): void {
    if (this.resting) return
    if (!this.waiting) this.turn.port2.postMessage(null)
    this.waiting = true
  }

  private quietUntil = 0
  private pausedFrom = -Infinity

  private goOn(): void {
    const now = performance.now()
    if (now < this.quietUntil) {
      if (now - this.pausedFrom > pauses + work) this.pausedFrom = now
      if (now - this.pausedFrom < pauses) return void setTimeout(() => this.goOn(), this.quietUntil - now)
    }
    this.waiting = false
    if (!this.composition) return
    this.advance(() => performance.now() > now + slice)
    const isOwed = this.owes && this.held.to >= this.want.to
    if (!this.composition || isOwed || performance.now() - this.lastReport > reportEvery) this.report()
  }

  /** What is wanted, as far as it is right: sheets near sight may still be those of before. */
  private get held(): Sight {
    const { from, to, sight } = this.want
    const { composition } = this
    return { from, to: composition && !this.ahead ? Math.max(sight.to, Math.min(to, composition.settled)) : to }
  }

  private report(): void {
    const { layout } = this
    if (!layout) return
    this.lastReport = performance.now()
    this.follow()
    const complete = layout.settled === layout.placed.length && !this.composition
    const { seq, want: wanted, held } = this
    this.owes = held.to < wanted.to
    const table = this.tables.of(layout.placed)
    this.post({ type: "report", seq, complete, table, wanted, held, ...this.sending.of(layout, held) })
  }

  private measure(id: number, pos: number): void {
    const { doc, typesetter } = this
    const table = doc && pos < doc.content.size ? doc.nodeAt(pos) : null
    const widths =
      doc && table?.type.name === "table" ? naturalColumns(typesetter, settingOf(doc, typesetter), table) : []
    this.post({ type: "measured", id, widths })
  }

  private locate(id: number, leaf: number, offset: number): void {
    const story = this.doc && leavesOf(this.doc).flow(leaf).story
    if (story !== null) {
      // A note stands where it begins; a head or foot on every sheet of its paper.
      const holds = ({ sheet: { notes, start } }: PlacedSheet) =>
        notes.some((note) => note.story === story) ||
        (!start.blank && (start.paper?.head === story || start.paper?.foot === story))
      const at = this.layout?.placed.findIndex(holds) ?? -1
      return this.post({ type: "located", id, sheet: at })
    }
    const shows = (placed: PlacedSheet) =>
      placed.leaf <= leaf &&
      placed.leaf + placed.sheet.lookedAt >= leaf &&
      fragmentsOf(placed).some((own) => {
        const line = own.leaf === leaf && isOwnText(own) ? lineOfOffset(own.paragraph, offset) : -1
        return line >= own.from && line < own.to
      })
    let sheet = this.layout?.placed.findIndex(shows) ?? -1
    if (sheet < 0 && this.composition) {
      this.advance(() => (this.composition?.reached ?? 0) > leaf)
      this.report()
      sheet = this.layout?.placed.findIndex(shows) ?? -1
    }
    this.post({ type: "located", id, sheet })
  }
}
