/**
 * A layout in the making. A sheet depends only on where it starts and on the leaves from there on, so after a change composition
 * begins at the first sheet that looked at a changed leaf and ends as soon as it comes to a place, behind the change, where an
 * earlier sheet began: from there on the earlier sheets are taken over.
 */
import type { Node } from "prosemirror-model"
import {
  asksName,
  blocksOf,
  bodyOf,
  changedInBody,
  changedLeaves,
  documentAttrs,
  fieldAttrs,
  firstWhere,
  captionEntries,
  captionLabels,
  captionsOf,
  citedIn,
  computedOf,
  equal,
  hasContents,
  headingsOf,
  labelsOf,
  leavesOf,
  leavesOfBody,
  listsSources,
  nodes,
  noteLabels,
  noteMark,
  notesOf,
  onlyText,
  sameFrom,
  sectionsOf,
  sheetTargets,
  storiesOf,
  structuresOf,
  type Computed,
  type Heading,
  type LeafChange,
  type Note,
  type NoteLabels,
} from "../document"
import { beginning, fragmentsOf, isBeginning, sameBreak } from "./boxes"
import { headingsOn } from "./headings"
import { numbersOf } from "./numbers"
import { sameOwed } from "./notes"
import type { Typesetter } from "./paragraph"
import { SheetComposer, type SheetPlace } from "./sheets"
import type { Break, Layout, LayoutSpec, Owed, PlacedSheet, Sheet } from "./types"

/** Whether sheets are the same, but for what the document is called. */
export function sameSpec(a: LayoutSpec, b: LayoutSpec): boolean {
  if (a.mode === "flow") return b.mode === "flow" && a.width === b.width && a.margin === b.margin
  return b.mode === "sheets"
}

/** A change wide enough to hold a leaf, by its number in the newer document. */
function holding(change: LeafChange | null, leaf: number): LeafChange {
  const shift = change ? change.newTo - change.oldTo : 0
  const newTo = Math.max(change?.newTo ?? 0, leaf + 1)
  return { from: Math.min(change?.from ?? leaf, leaf), oldTo: newTo - shift, newTo }
}

/** What is shown that hangs on where sheets begin: see Layout. */
type Shown = Pick<Layout, "pages" | "marks">

/** A document, and what the marks of its notes show. */
type Noted = Pick<Layout, "doc" | "marks" | "pages">

/** A change of the body, wide enough to hold the marks of all notes that are other ones, show something else or say something else, and the end of the text if endnotes do. */
function withNotes(older: Noted, newer: Noted, paged: boolean, change: LeafChange | null): LeafChange | null {
  const [before, marks] = [older.marks, newer.marks]
  const [notesBefore, now] = [notesOf(older.doc), notesOf(newer.doc)]
  if (notesBefore.length === 0 && now.length === 0) return change
  if (before === marks && sameFrom(1, older.doc.children, newer.doc.children)) return change
  const [storiesBefore, storiesNow] = [storiesOf(older.doc), storiesOf(newer.doc)]
  // In flow all notes stand below the end of the text.
  const below = ({ kind }: Note) => kind === "endnote" || !paged
  let wide = change
  let endsChanged = false
  for (const note of now) {
    const { key, leaf } = note
    const relabelled = before.get(key) !== marks.get(key)
    if (!relabelled && storiesBefore.get(key)?.node === storiesNow.get(key)?.node) continue
    if (relabelled || !below(note)) wide = holding(wide, leaf)
    endsChanged ||= below(note)
  }
  const ends = (notes: readonly Note[]) => notes.filter(below).map(({ key }) => key)
  endsChanged ||= notesBefore !== now && ends(notesBefore).join() !== ends(now).join()
  return endsChanged ? holding(wide, leavesOfBody(newer.doc) - 1) : wide
}

/** The span of leaves of the body that are not as before: those that changed, those whose numbers did, and those with notes that did. */
function changedSince(older: Noted, newer: Noted, paged: boolean): LeafChange | null {
  const inBody = withProperties(older.doc, newer.doc, changedInBody(older.doc, newer.doc))
  const change = withComputed(older, newer, withNotes(older, newer, paged, inBody))
  if (!change) return null
  const [labels, now] = [labelsOf(older.doc), labelsOf(newer.doc)]
  if (labels === now) return change
  const shift = change.newTo - change.oldTo
  let newTo = leavesOfBody(newer.doc)
  while (newTo > change.newTo && now[newTo - 1] === labels[newTo - 1 - shift]) newTo--
  return { from: change.from, oldTo: newTo - shift, newTo }
}

/** A change wide enough to hold the fields that show properties of the document, if these are not as before. */
function withProperties(older: Node, newer: Node, change: LeafChange | null): LeafChange | null {
  if (documentAttrs(older).properties === documentAttrs(newer).properties) return change
  const shows = (child: Node) =>
    child.type === nodes.field && ["title", "author", "property"].includes(fieldAttrs(child).kind)
  let wide = change
  leavesOf(newer)
    .between(0, leavesOfBody(newer))
    .forEach((leaf, i) => {
      if (!onlyText(leaf) && leaf.children.some(shows)) wide = holding(wide, i)
    })
  return wide
}

/** A change wide enough to hold the fields that show something else that is computed. */
function withComputed(older: Noted, newer: Noted, change: LeafChange | null): LeafChange | null {
  const [before, now] = [computedOf(older.doc, older.pages), computedOf(newer.doc, newer.pages)]
  if (before === now || now.size === 0) return change
  const shift = change ? change.newTo - change.oldTo : 0
  const said = (computed: Computed | undefined) => (computed ? [...computed.values()].join("\n") : null)
  const count = leavesOfBody(newer.doc)
  let wide = change
  for (const [leaf, computed] of now) {
    if (leaf >= count || (change && leaf >= change.from && leaf < change.newTo)) continue
    if (said(before.get(change && leaf >= change.newTo ? leaf - shift : leaf)) !== said(computed))
      wide = holding(wide, leaf)
  }
  // What stands in notes is told by their keys, since their leaves move with the text.
  const inNotes = (doc: Node, all: ReadonlyMap<number, Computed>) => {
    const found = new Map<string, string>()
    const body = leavesOfBody(doc)
    for (const [leaf, computed] of all) {
      if (leaf < body) continue
      const { story } = leavesOf(doc).flow(leaf)
      if (story !== null) found.set(story, `${found.get(story) ?? ""}${said(computed) ?? ""}\n`)
    }
    return found
  }
  const [notesBefore, notesNow] = [inNotes(older.doc, before), inNotes(newer.doc, now)]
  if (notesNow.size > 0)
    for (const { key, leaf } of notesOf(newer.doc))
      // Endnotes, and in flow all notes, stand behind the text.
      if (notesNow.get(key) !== notesBefore.get(key)) wide = holding(holding(wide, leaf), count - 1)
  return wide
}

/** So many times at most contents and marks are set anew because they moved what they tell of; then they show what the last time brought. */
const mostRounds = 4

/** Whether a document shows on which sheets something begins. */
const showsPages = (doc: Node) => hasContents(doc) || sheetTargets(doc).size > 0

/** On which sheets headings, captions and what is referred to begin. */
function pagesOf(layout: Layout): Map<number, string> {
  const numbers = numbersOf(layout)
  const pages = new Map<number, string>()
  const targets = new Set([...sheetTargets(layout.doc), ...captionsOf(layout.doc).map(({ leaf }) => leaf)])
  layout.placed.forEach((placed, i) => {
    const { sheet, leaf } = placed
    for (const heading of headingsOn(sheet)) pages.set(leaf + heading.leaf, numbers[i]?.text ?? "")
    if (targets.size > 0)
      for (const own of fragmentsOf(placed))
        if (own.part === "text" && own.from === 0 && targets.has(own.leaf)) pages.set(own.leaf, numbers[i]?.text ?? "")
  })
  return pages
}

/** What the marks of notes show where footnotes are counted on each sheet; elsewhere that hangs on the document alone. */
function marksOn({ doc, placed }: Pick<Layout, "doc" | "placed">): NoteLabels {
  const { foot } = documentAttrs(doc).notes
  if (foot.restart !== "sheet") return noteLabels(doc)
  const marks = new Map(noteLabels(doc))
  for (const { sheet } of placed) sheet.marks.forEach((key, i) => marks.set(key, noteMark(i + 1, foot.form)))
  return marks
}

const sameMarks = (a: NoteLabels, b: NoteLabels) => a === b || samePages(a, b)

/** The marks of a layout as they may still be in another document. */
function movedMarks({ marks }: Layout, now: Node): NoteLabels {
  const labels = noteLabels(now)
  if (documentAttrs(now).notes.foot.restart !== "sheet") return labels
  return new Map([...labels].map(([key, label]) => [key, marks.get(key) ?? label]))
}

/**
 * Whether headings begin on the sheets on which they began in a layout before: as they do where sheets are the same, or begin
 * at the same leaves with headings at the same ones.
 */
function beginAsIn(before: Layout, now: Pick<Layout, "doc" | "placed">): boolean {
  // What showed no numbers knows none; where there are several sections, they may have moved.
  if (
    !before.complete ||
    !hasContents(before.doc) ||
    sectionsOf(now.doc).length > 1 ||
    sectionsOf(before.doc).length > 1
  )
    return false
  if (before.placed.length !== now.placed.length || sectionsOf(now.doc)[0]?.setup !== sectionsOf(before.doc)[0]?.setup)
    return false
  return now.placed.every((placed, i) => {
    const own = before.placed[i] as PlacedSheet
    // Most are the same, of which nothing more need be read.
    if (own === placed) return true
    const { sheet, leaf } = placed
    if (own.sheet === sheet) return true
    const [a, b] = [headingsOn(own.sheet), headingsOn(sheet)]
    return (
      own.leaf === leaf &&
      own.sheet.start.left === sheet.start.left &&
      a.length === b.length &&
      a.every((heading, n) => heading.leaf === b[n]?.leaf)
    )
  })
}

function samePages<K>(a: ReadonlyMap<K, string>, b: ReadonlyMap<K, string>): boolean {
  return a === b || (a.size === b.size && [...a].every(([leaf, page]) => b.get(leaf) === page))
}

/** The numbers that a layout shows, by the leaves that the headings have in another document. */
function movedPages({ doc, pages }: Layout, now: Node): ReadonlyMap<number, string> {
  const change = pages.size > 0 ? changedInBody(doc, now) : null
  if (!change || change.newTo === change.oldTo) return pages
  const shift = change.newTo - change.oldTo
  return new Map([...pages].map(([leaf, page]) => [leaf >= change.oldTo ? leaf + shift : leaf, page]))
}

/** All that may stand in lists of contents. */
function allListed(doc: Node): readonly Heading[] {
  const labels = captionLabels(doc)
  return labels.length === 0
    ? headingsOf(doc)
    : [...headingsOf(doc), ...labels.flatMap((label) => captionEntries(doc, label))]
}

/** A change wide enough to hold the contents that show something else. They have no leaves: the one behind them stands for them. */
function withContents(
  older: Node,
  pagesBefore: ReadonlyMap<number, string>,
  newer: Node,
  pages: ReadonlyMap<number, string>,
  change: LeafChange | null,
): LeafChange | null {
  if (!hasContents(newer)) return change
  const [before, now] = [allListed(older), allListed(newer)]
  const same = (a: Heading, b: Heading | undefined) =>
    a === b
      ? pagesBefore === pages || pagesBefore.get(a.leaf) === pages.get(a.leaf)
      : a.level === b?.level &&
        a.label === b.label &&
        a.listed === b.listed &&
        pagesBefore.get(a.leaf) === pages.get(b.leaf)
  const sources = (doc: Node) => (listsSources(doc) ? citedIn(doc).references.map(({ text }) => text) : [])
  if (
    before.length === now.length &&
    before.every((heading, i) => same(heading, now[i])) &&
    equal(sources(older), sources(newer))
  )
    return change
  const body = bodyOf(newer)
  return structuresOf(body, "contents").reduce(
    (wide, i) => holding(wide, Math.min(blocksOf(body).leaf(i), leavesOfBody(newer) - 1)),
    change,
  )
}

/** The sheets that a layout shows, by the numbers that their leaves have in another document. */
function shownBefore({ doc, placed }: Layout, now: Node): PlacedSheet[] {
  const change = changedLeaves(doc, now)
  if (!change || change.newTo === change.oldTo) return [...placed]
  const shift = change.newTo - change.oldTo
  return placed.flatMap((own) =>
    own.leaf >= change.oldTo
      ? { ...own, leaf: own.leaf + shift }
      : own.leaf < Math.max(change.from + 1, change.newTo)
        ? own
        : [],
  )
}

/** How far into a block a place lies, in lines or rows. */
const progress = (at: Break) => ("line" in at ? at.line : "row" in at ? at.row : at.entry - 1e6 * at.back)

/** Whether a sheet begins before a place. */
function isBefore({ leaf, sheet }: PlacedSheet, place: Pick<SheetPlace, "leaf" | "at">): boolean {
  return leaf < place.leaf || (leaf === place.leaf && progress(sheet.start.at) < progress(place.at))
}

const moved = (placed: PlacedSheet, { shift }: Tail): PlacedSheet =>
  shift === 0 ? placed : { sheet: placed.sheet, leaf: placed.leaf + shift }

/** Sheets by their places in a layout; `to` is not included. */
export interface Sight {
  from: number
  to: number
}

/** Right sheets of an earlier layout that may be taken over as soon as composing comes to where one of them begins. */
interface Tail {
  layout: Layout
  /** The first of them that may still be, and the one behind the last. */
  next: number
  to: number
  /** By how many leaves they move. */
  shift: number
}

/** A layout in the making. Call `step` until it says that all is settled, or stop earlier and go on later. */
export class Composition {
  private composer: SheetComposer
  private composed: PlacedSheet[] = []
  /** The last complete layout, if something of it may be right. */
  private base: Layout | null = null
  /** What was right of the layout before, if that was not complete, and the base. */
  private tails: readonly Tail[] = []
  private cursor: SheetPlace
  /** The leaf behind the last that is not as it was. */
  private changedTo = 0
  private done = false
  /** What contents and the marks of notes show. */
  private shown: Shown
  /** The layout of which that was taken over; null where it is not right. */
  private began: Layout | null
  /** How many times that has been set right. */
  private rounds = 0
  /** The sheets that were shown before, and among them those composed ahead of their turn. */
  private older: PlacedSheet[] = []
  private readonly ahead = new WeakSet<Sheet>()

  constructor(
    private readonly typesetter: Typesetter,
    private readonly doc: Node,
    private readonly spec: LayoutSpec,
    previous: Layout | null = null,
  ) {
    const named = previous?.spec.name !== spec.name && asksName(doc)
    const usable = previous && sameSpec(previous.spec, spec) && !named ? previous : null
    const paged = spec.mode === "sheets"
    this.shown = {
      pages: usable ? movedPages(usable, doc) : new Map(),
      marks: usable && paged ? movedMarks(usable, doc) : noteLabels(doc),
    }
    this.began = usable
    this.composer = new SheetComposer(typesetter, doc, spec, this.shown)
    this.cursor = this.composer.start
    this.begin(usable)
    // Where nothing has to be composed anew, what is shown may still have to be.
    if (this.done) this.finish()
  }

  /** Takes over of a layout what is still right. */
  private begin(usable: Layout | null): void {
    const { doc, composer } = this
    const { styles, typesetting } = documentAttrs(doc)
    this.tails = []
    this.older = []
    this.changedTo = 0
    const sameSetting = (layout: Layout) =>
      documentAttrs(layout.doc).styles === styles && documentAttrs(layout.doc).typesetting === typesetting

    // The head: sheets that looked at nothing that changed.
    this.composed = []
    if (usable && sameSetting(usable)) {
      const count = leavesOfBody(usable.doc)
      const change = this.changedSince(usable)
      this.changedTo = change?.newTo ?? 0
      // A sheet that came to the end of the document also looked at there being nothing more.
      const looked = ({ leaf, sheet }: PlacedSheet) => leaf + sheet.lookedAt + (leaf + sheet.next.leaf >= count ? 1 : 0)
      const settled = usable.placed.slice(0, usable.settled)
      const unchanged = change
        ? settled.slice(
            0,
            firstWhere(settled, (placed) => looked(placed) >= change.from),
          )
        : settled
      this.composed = this.onSamePaper(unchanged, usable)
    }
    this.cursor = this.behindAll(this.composed, composer.start)

    // Other papers move every sheet, and those behind a change lie on the same side as before only with the same ones.
    const hasTail = (layout: Layout) => sameSetting(layout) && this.hasPapersOf(layout)
    const complete = usable?.complete ? usable : usable?.base
    this.base = complete && hasTail(complete) ? complete : null
    this.done = this.composed.length > 0 && composer.isEnd(this.cursor)
    if (!usable || this.done) return
    // A layout that was given up for this one is gone on with: what was right of it, and then what was of the last complete one.
    const before = !usable.complete && hasTail(usable) ? usable : null
    this.tails = [before, this.base].flatMap((layout) => (layout ? this.tailOf(layout) : []))
    this.older = shownBefore(usable, doc)
  }

  /** The sheets that begin behind all that has changed since a layout. */
  private tailOf(layout: Layout): Tail {
    const change = this.changedSince(layout)
    const to = layout.settled
    if (!change) return { layout, next: Math.min(this.composed.length, to), to, shift: 0 }
    // A strip of the flow view also depends on the leaf before it.
    const behind = change.oldTo + (this.spec.mode === "flow" ? 1 : 0)
    const next = firstWhere(layout.placed, ({ leaf }) => leaf >= behind)
    return { layout, next: Math.min(next, to), to, shift: change.newTo - change.oldTo }
  }

  /** What is not as it was in a layout: what changed, and contents that show something else. */
  private changedSince({ doc, pages, marks }: Layout): LeafChange | null {
    const now = { doc: this.doc, ...this.shown }
    const change = changedSince({ doc, marks, pages }, now, this.spec.mode === "sheets")
    return withContents(doc, pages, this.doc, this.shown.pages, change)
  }

  /** Sets contents and marks right, if composing has moved what they tell of. Returns whether sheets are to be composed anew. */
  private settle(): boolean {
    if (this.spec.mode === "flow" || this.rounds >= mostRounds) return false
    const { layout } = this
    // What else than headings is told of may have moved though these have not.
    const more = sheetTargets(this.doc).size > 0 || captionsOf(this.doc).length > 0
    const pages =
      !showsPages(this.doc) || (!more && this.began && beginAsIn(this.began, layout))
        ? this.shown.pages
        : pagesOf(layout)
    const marks = marksOn(layout)
    if (samePages(pages, this.shown.pages) && sameMarks(marks, this.shown.marks)) return false
    this.rounds++
    this.began = null
    this.shown = { pages, marks }
    this.composer = new SheetComposer(this.typesetter, this.doc, this.spec, this.shown)
    this.begin(layout)
    return !this.done
  }

  /** Where the sheet behind some begins that follow a place. */
  private behindAll(sheets: readonly PlacedSheet[], from = this.cursor): SheetPlace {
    // Numbers are counted where the side of a sheet hangs on them.
    const counted = this.composer.papers?.sided ? sheets : sheets.slice(-1)
    return counted.reduce((place, own) => this.composer.placeBehind(own, place.number), from)
  }

  private hasPapersOf({ papers }: Pick<Layout, "papers">): boolean {
    return papers === this.composer.papers || (papers !== null && this.composer.papers?.sameAs(papers) === true)
  }

  /** The first of some sheets, as far as they have the paper that they would have now. */
  private onSamePaper(sheets: PlacedSheet[], { papers }: Layout): PlacedSheet[] {
    if (this.hasPapersOf({ papers })) return sheets
    let place = this.composer.start
    const other = sheets.findIndex((own) => {
      const now = this.composer.startAt({ ...place, leaf: own.leaf, at: own.sheet.start.at })
      place = this.composer.placeBehind(own, place.number)
      const { paper, left, blank } = own.sheet.start
      return now.paper !== paper || now.left !== left || now.blank !== blank
    })
    return other < 0 ? sheets : sheets.slice(0, other)
  }

  /**
   * Sees to it that the sheets in sight show the document as it is now. After a change that reaches all of it they are composed
   * ahead of those before them, from the leaf with which they began, and stand among the sheets of before until their turn comes.
   * @returns false if there is nothing to go by: then they have to be composed in their turn
   */
  look({ from, to }: Sight): boolean {
    if (this.done || this.settled >= to) return true
    if (this.base || this.older.length === 0) return false
    const { placed } = this.layout
    const at = placed.findIndex((own, i) => i >= from && i >= this.composed.length && !this.ahead.has(own.sheet))
    const first = placed[at]
    if (!first || at >= to) return true
    const sheets: PlacedSheet[] = []
    let cursor: SheetPlace =
      first.leaf === this.cursor.leaf
        ? this.cursor
        : {
            leaf: first.leaf,
            at: "line" in first.sheet.start.at ? beginning : first.sheet.start.at,
            number: at + 1,
            owed: [],
          }
    while (sheets.length < to - at && !this.composer.isEnd(cursor)) {
      const sheet = this.composer.compose(cursor, null)
      this.ahead.add(sheet)
      const own = { sheet, leaf: cursor.leaf }
      sheets.push(own)
      cursor = this.composer.placeBehind(own, cursor.number)
    }
    const behind = this.composer.behind(cursor)
    this.older = [
      ...placed.slice(this.composed.length, at),
      ...sheets,
      ...placed.slice(at).filter((own) => own.leaf >= behind),
    ]
    return true
  }

  /** Whether what is in sight is right, and all that has changed, wherever it stands now. */
  shows({ to }: Sight): boolean {
    return this.settled >= to && this.reached >= this.changedTo && this.cursor.owed.length === 0
  }

  /** Composes one more sheet. Returns true when the layout is complete. */
  step(): boolean {
    if (this.done) return true
    if (this.takeOver()) return this.finish()
    const sheet = this.composer.compose(this.cursor, this.stripEnd())
    const own = { sheet, leaf: this.cursor.leaf }
    this.composed.push(own)
    this.cursor = this.composer.placeBehind(own, this.cursor.number)
    return this.takeOver() ? this.finish() : false
  }

  private finish(): boolean {
    this.done = true
    return !this.settle()
  }

  /** In flow, strips end where the next one that may be taken over begins. */
  private stripEnd(): number | null {
    const tail = this.tails.find(({ next, to }) => next < to)
    const expected = tail?.layout.placed[tail.next]
    if (this.spec.mode !== "flow" || !tail || !expected || !isBeginning(expected.sheet.start.at)) return null
    return expected.leaf + tail.shift
  }

  /** Takes over what begins where composing has come to. Returns whether nothing is left to compose. */
  private takeOver(): boolean {
    for (const tail of this.tails) {
      if (!this.meets(tail)) continue
      const { layout, next, to } = tail
      const here = layout.placed.slice(next, to)
      const taken = tail.shift === 0 ? here : here.map((own) => moved(own, tail))
      this.composed = this.composed.concat(taken)
      tail.next = to
      if (layout.complete) return true
      this.cursor = this.behindAll(taken)
    }
    return this.composed.length > 0 && this.composer.isEnd(this.cursor)
  }

  /** Whether the first sheet of a tail that does not begin before the cursor is what would be composed there. */
  private meets(tail: Tail): boolean {
    const { leaf, at } = this.cursor
    const { layout, shift } = tail
    for (; tail.next < tail.to; tail.next++) {
      const placed = layout.placed[tail.next] as PlacedSheet
      const begins = placed.leaf + shift
      const { start } = placed.sheet
      if (isBefore(moved(placed, tail), this.cursor)) continue
      if (begins > leaf || !sameBreak(start.at, at) || !sameOwed(start.owed, this.cursor.owed)) return false
      if (start.owed.length > 0 && !this.saysTheSame(layout, start.owed)) return false
      const begun = this.composer.startAt(this.cursor)
      if (start.paper !== begun.paper || start.left !== begun.left || start.blank !== begun.blank) return false
      // The first leaf of the document keeps its space above it at the top of a sheet, others do not.
      return (placed.leaf === 0) === (leaf === 0)
    }
    return false
  }

  /** Whether notes that go on say what they said in a layout. */
  private saysTheSame({ doc, marks }: Layout, owed: readonly Owed[]): boolean {
    const [older, now] = [storiesOf(doc), storiesOf(this.doc)]
    return owed.every(
      ({ story }) =>
        older.get(story)?.node === now.get(story)?.node && marks.get(story) === this.shown.marks.get(story),
    )
  }

  /** Number of sheets that are right so far. */
  get settled(): number {
    return this.composed.length
  }

  /** The first leaf that is not composed yet. */
  get reached(): number {
    return this.cursor.leaf
  }

  /** The layout as it stands; sheets not yet composed are shown as they were before. */
  get layout(): Layout {
    const placed = [...this.composed]
    if (!this.done) for (const own of this.older) if (!isBefore(own, this.cursor)) placed.push(own)
    const { doc, spec, done } = this
    return {
      doc,
      spec,
      placed,
      settled: this.composed.length,
      complete: done,
      base: done ? null : this.base,
      papers: this.composer.papers,
      ...this.shown,
    }
  }
}

/** The whole layout of a document. */
export function layoutDocument(
  typesetter: Typesetter,
  doc: Node,
  spec: LayoutSpec = { mode: "sheets" },
  previous: Layout | null = null,
): Layout {
  const composition = new Composition(typesetter, doc, spec, previous)
  while (!composition.step());
  return composition.layout
}
