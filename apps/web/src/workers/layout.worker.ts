/** Lays the open document out. Sheets in sight come first; the rest follows in slices between messages. */
import { Node } from "prosemirror-model"
import { leavesOf, readStep, schema, valuesNow } from "@biblon/core/document"
import {
  Composition,
  Furnisher,
  fragmentsOf,
  isOwnText,
  isBeginning,
  lineOfOffset,
  naturalColumns,
  paragraphsOf,
  sentParagraph,
  settingOf,
  stackWith,
  withParagraphs,
  type Typesetter,
  type Layout,
  type LayoutSpec,
  type PlacedSheet,
} from "@biblon/core/layout"
import type { FromLayout, LayoutReport, SentFurniture, SentSheet, SheetTable, ToLayout } from "./protocol"
import { fetchAhead, openTypesetter, prepareCiting } from "./resources"

const post = (message: FromLayout) => self.postMessage(message)

/** Longest stretch of work between two looks at the messages, and between two reports of a layout in the making, in milliseconds. */
const slice = 8
const reportEvery = 120

class LayoutDesk {
  private doc: Node | null = null
  private spec: LayoutSpec = { mode: "sheets" }
  private seq = 0
  private layout: Layout | null = null
  private composition: Composition | null = null
  private want = { from: 0, to: 2 }
  /** A sheet among those wanted. */
  private anchor: { index: number; id: number } | null = null
  private heldSheets = new Set<number>()
  private heldParagraphs = new Set<number>()
  private lastReport = 0
  private readonly turn = new MessageChannel()

  constructor(private readonly typesetter: Typesetter) {
    this.turn.port1.onmessage = () => this.goOn()
  }

  async receive(message: Exclude<ToLayout, { type: "fetch" }>): Promise<void> {
    if (this.resting) {
      this.resting = false
      if (this.composition) this.later()
    }
    switch (message.type) {
      case "open":
        return this.open(message.content, message.spec, message.seq)
      case "steps":
        for (const json of message.steps) {
          const result = this.doc && readStep(json).apply(this.doc)
          if (!result?.doc) throw new Error("A change does not fit the document that was laid out")
          this.doc = result.doc
        }
        return this.begin(message.seq)
      case "spec":
        this.spec = message.spec
        return this.begin(message.seq)
      case "want":
        this.want = { from: message.from, to: message.to }
        this.anchor = message.id === null ? null : { index: message.from, id: message.id }
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
    await Promise.all([fetchAhead(doc), prepareCiting(doc)])
    this.doc = doc
    this.layout = null
    this.spec = spec
    this.begin(seq)
  }

  private begin(seq: number): void {
    if (!this.doc) return
    this.seq = seq
    // What is cited for the first time shows dots until the program for it is here.
    void prepareCiting(this.doc).then((ready) => {
      if (!ready) return
      this.layout = null
      this.begin(this.seq)
    })
    this.composition = new Composition(this.typesetter, this.doc, this.spec, this.layout)
    this.show()
    this.report()
  }

  /** Composes what is wanted: ahead of its turn where that can be, else with all that comes before it. */
  private show(): void {
    const { composition } = this
    if (!composition) return
    if (!composition.look(this.want)) return this.advance(() => composition.settled >= this.want.to)
    this.layout = composition.layout
    this.later()
  }

  /** Sheets that come or go before those that are wanted move them. */
  private follow(): void {
    const placed = this.layout?.placed ?? []
    const { anchor, want } = this
    if (anchor && placed[anchor.index]?.sheet.id !== anchor.id) {
      const moved = placed.findIndex(({ sheet }) => sheet.id === anchor.id) - anchor.index
      if (moved >= -anchor.index) this.want = { from: Math.max(0, want.from + moved), to: want.to + moved }
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

  private goOn(): void {
    this.waiting = false
    if (!this.composition) return
    const end = performance.now() + slice
    this.advance(() => performance.now() > end)
    if (!this.composition || performance.now() - this.lastReport > reportEvery) this.report()
  }

  private table(placed: readonly PlacedSheet[]): SheetTable {
    const n = placed.length
    const table = {
      ids: new Uint32Array(n),
      leaves: new Uint32Array(n),
      within: new Uint8Array(n),
      widths: new Float64Array(n),
      heights: new Float64Array(n),
    }
    placed.forEach(({ sheet, leaf }, i) => {
      table.ids[i] = sheet.id
      table.leaves[i] = leaf
      table.within[i] = isBeginning(sheet.start.at) ? 0 : 1
      table.widths[i] = sheet.width
      table.heights[i] = sheet.height
    })
    return table
  }

  private report(): void {
    const { layout } = this
    if (!layout) return
    this.lastReport = performance.now()
    this.follow()
    const from = Math.min(this.want.from, layout.placed.length)
    const to = Math.min(this.want.to, layout.placed.length)
    const sheets: SentSheet[] = []
    const paragraphs: LayoutReport["paragraphs"] = []
    const nowSheets = new Set<number>()
    const nowParagraphs = new Set<number>()
    const furniture: SentFurniture[] = []
    const furnisher = new Furnisher(this.typesetter, layout, valuesNow)
    for (let index = from; index < to; index++) {
      const { sheet, furniture: own = [] } = furnisher.of(index)
      nowSheets.add(sheet.id)
      if (own.length > 0)
        furniture.push({
          sheet: sheet.id,
          furniture: own.map((one) => ({ ...one, stack: stackWith(one.stack, ({ id }) => id) })),
        })
      for (const paragraph of paragraphsOf(sheet, own)) {
        if (!this.heldParagraphs.has(paragraph.id) && !nowParagraphs.has(paragraph.id))
          paragraphs.push(sentParagraph(paragraph))
        nowParagraphs.add(paragraph.id)
      }
      if (!this.heldSheets.has(sheet.id)) sheets.push(withParagraphs(sheet, ({ id }) => id))
    }
    this.heldSheets = nowSheets
    this.heldParagraphs = nowParagraphs
    const complete = layout.settled === layout.placed.length && !this.composition
    const table = this.table(layout.placed)
    post({ type: "report", seq: this.seq, complete, table, from, to, sheets, furniture, paragraphs })
  }

  private measure(id: number, pos: number): void {
    const { doc, typesetter } = this
    const table = doc && pos < doc.content.size ? doc.nodeAt(pos) : null
    const widths =
      doc && table?.type.name === "table" ? naturalColumns(typesetter, settingOf(doc, typesetter), table) : []
    post({ type: "measured", id, widths })
  }

  private locate(id: number, leaf: number, offset: number): void {
    const story = this.doc && leavesOf(this.doc).flow(leaf).story
    if (story !== null) {
      // A note stands where it begins; heads and feet stand on every sheet.
      const at = this.layout?.placed.findIndex(({ sheet }) => sheet.notes.some((note) => note.story === story)) ?? -1
      return post({ type: "located", id, sheet: at })
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
    post({ type: "located", id, sheet })
  }
}

let desk: Promise<LayoutDesk> | null = null
/** What it needs and could not be had is asked for again. */
function deskNow(): Promise<LayoutDesk> {
  const own = (desk ??= openTypesetter().then((typesetter) => new LayoutDesk(typesetter)))
  own.catch(() => (desk = null))
  return own
}

const failed = (error: unknown) =>
  post({ type: "failed", message: error instanceof Error ? error.message : String(error) })

// The queue keeps the order of messages that came before the fonts were there. What fails before somebody asks for anything is tried again then.
let queue = deskNow().then(
  () => post({ type: "ready" }),
  () => undefined,
)
function inTurn(act: (desk: LayoutDesk) => Promise<void>): void {
  queue = queue.then(async () => act(await deskNow())).catch(failed)
}

/** Whether the page has brought a content itself. */
let brought = false

/** The content is for the page too, which does not wait for what it is set with. */
async function fetchContent({ address, spec, seq }: Extract<ToLayout, { type: "fetch" }>): Promise<void> {
  const answer = await fetch(address).catch(() => null)
  const bytes = (await answer?.arrayBuffer().catch(() => null)) ?? new ArrayBuffer(0)
  post({ type: "content", status: answer?.status ?? 0, headers: [...(answer?.headers ?? [])], bytes })
  if (answer?.ok && !brought) inTurn((own) => own.openAhead(new TextDecoder().decode(bytes), spec, seq))
}

self.onmessage = ({ data }: MessageEvent<ToLayout>) => {
  if (data.type === "fetch") return void fetchContent(data)
  brought ||= data.type === "open"
  inTurn((own) => own.receive(data))
}
