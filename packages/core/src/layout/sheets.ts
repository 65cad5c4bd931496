/** Composes one sheet of paper, or one strip of the flow view, from where it starts. */
import type { Node } from "prosemirror-model"
import {
  blocksOf,
  bodyOf,
  documentAttrs,
  entriesOf,
  edgeWidth,
  firstLeafOf,
  computedOf,
  listedIn,
  labelsOf,
  leastRoom,
  leavesOfBody,
  sectionsOf,
  valuesOf,
  withName,
  type PageSetup,
  type Section,
} from "../document"
import { beginning, blockAt, isBeginning, sectionBegun } from "./boxes"
import { fillBand, type Band } from "./columns"
import { FlowSetter, type Contents, type SetBefore } from "./flow"
import type { Filled, Flowing, Region } from "./regions"
import { edgeRoom, Papers, type Paper } from "./paper"
import type { Typesetter } from "./paragraph"
import { NoteSetter, type NotesSet } from "./notes"
import { leafOfBreak } from "./tables"
import { borderRound } from "./ornaments"
import type {
  BlockPlace,
  Break,
  Layout,
  LayoutSpec,
  Owed,
  Placed,
  PlacedSheet,
  Rule,
  Sheet,
  SheetStart,
  Stack,
} from "./types"

/** Where a sheet starts: the first leaf of a block of the body, or in a table that of a row, where that block goes on, and the number that the sheet would have. */
export interface SheetPlace {
  leaf: number
  at: Break
  number: number
  /** Notes that go on from the sheet before. */
  owed: readonly Owed[]
}

let ids = 0

/** The height at which a strip of the flow view ends, and the bounds within which it keeps an earlier end. */
const strip = { wanted: 900, least: 300, most: 1800 }

/** How high a picture may be on a screen, in points. */
const tallestInFlow = 900

const numbered = new WeakMap<readonly { leaf: number }[], ReadonlyMap<number, number>>()

/** The numbers of what lists of contents lead to, by leaf. A heading in a caption's paragraph counts as itself. */
function numbersAmong(listed: readonly { leaf: number }[]): ReadonlyMap<number, number> {
  let numbers = numbered.get(listed)
  if (!numbers)
    numbered.set(listed, (numbers = new Map([...listed.entries()].reverse().map(([n, { leaf }]) => [leaf, n]))))
  return numbers
}

export class SheetComposer {
  /** Leaves of the body. */
  readonly count: number
  private readonly body: Flowing
  private readonly setter: FlowSetter
  private readonly notes: NoteSetter
  private readonly sections: readonly Section[]
  /** Null in flow, which has no paper. */
  readonly papers: Papers | null

  constructor(
    typesetter: Typesetter,
    doc: Node,
    private readonly spec: LayoutSpec,
    /** Numbers of the sheets on which headings begin, by leaf, and what the marks of notes show. */
    { pages, marks }: Pick<Layout, "pages" | "marks">,
    before?: SetBefore,
  ) {
    const { styles, typesetting } = documentAttrs(doc)
    const blocks = blocksOf(bodyOf(doc))
    this.body = { blocks, firstLeaf: 0, hasSections: true }
    this.count = leavesOfBody(doc)
    const labels = labelsOf(doc)
    const values = valuesOf(doc, withName(typesetter.values, spec.name ?? ""), marks)
    const { margins, height } = documentAttrs(doc).setup
    const tallest =
      spec.mode === "flow" ? tallestInFlow : Math.max(leastRoom, height - margins.top - margins.bottom - 1)
    const setting = { styles, typesetting, values, flow: spec.mode === "flow", tallest }
    const entries: Contents = (contents, width) => {
      const numbers = numbersAmong(listedIn(doc))
      return entriesOf(doc, contents, width, spec.mode === "flow" ? null : pages).map(({ node, heading }, i) => ({
        node,
        entry: heading === null ? -1 - i : (numbers.get(heading.leaf) ?? 0),
      }))
    }
    this.setter = new FlowSetter(typesetter, setting, labels, entries, computedOf(doc, pages), before)
    this.notes = new NoteSetter(this.setter, doc, marks)
    this.sections = sectionsOf(doc)
    this.papers =
      spec.mode === "flow"
        ? null
        : new Papers(doc, (story, setup, edge) => {
            const firstLeaf = firstLeafOf(doc, story.attrs.key as string) ?? 0
            const region = { width: edgeWidth(setup), height: edgeRoom(setup, edge), top: 0, fresh: true }
            return this.setter.fill({ blocks: blocksOf(story), firstLeaf }, region, { block: 0, at: beginning }).height
          })
  }

  /** Where the first sheet begins. */
  get start(): SheetPlace {
    return { number: 1, owed: [], ...this.placed({ block: 0, at: beginning }) }
  }

  /** The block that a place is in. */
  private blockAt({ leaf, at }: Pick<SheetPlace, "leaf" | "at">): number {
    return blockAt(this.body.blocks, leaf, at)
  }

  /** A place in the flow by its leaf. */
  private placed({ block, at }: BlockPlace): Pick<SheetPlace, "leaf" | "at"> {
    const { blocks } = this.body
    const node = blocks.nodes[block]
    const leaf = blocks.leaf(block) + (node && "row" in at ? leafOfBreak(node, at) : 0)
    if (node?.type.name !== "contents") return { leaf, at }
    return { leaf, at: { entry: "entry" in at ? at.entry : 0, back: blocks.at(leaf) - block } }
  }

  private at({ leaf, at }: Pick<SheetPlace, "leaf" | "at">): { section: number; first: boolean } {
    return sectionBegun(this.body.blocks, this.sections, leaf, at)
  }

  /** The number of the sheet that begins at a place, as its section counts. */
  numberAt(place: SheetPlace): number {
    const { section, first } = this.at(place)
    const starts = first && !this.isBlank(place)
    return (starts ? this.sections[section]?.setup.numbering.start : null) ?? place.number
  }

  /** Where the sheet behind one begins. @param number what the one would have if its section did not begin to count anew */
  placeBehind({ leaf, sheet }: PlacedSheet, number: number): SheetPlace {
    const own = this.numberAt({ leaf, at: sheet.start.at, number, owed: sheet.start.owed })
    return { leaf: leaf + sheet.next.leaf, at: sheet.next.at, number: own + 1, owed: sheet.next.owed }
  }

  /** Whether a section that begins at a place wants the other side, so that this one stays blank. */
  private isBlank(place: SheetPlace): boolean {
    const { section, first } = this.at(place)
    if (!this.papers?.sided || !first || section === 0) return false
    const { begins } = (this.sections[section] as Section).setup
    return (begins === "odd" && place.number % 2 === 0) || (begins === "even" && place.number % 2 === 1)
  }

  /** Whether nothing of the document is left for a sheet that would begin at a place. */
  isEnd({ leaf, at, owed }: SheetPlace): boolean {
    return leaf >= this.count && owed.length === 0 && !("entry" in at)
  }

  private isLeft(place: SheetPlace): boolean {
    return this.papers?.sided === true && this.numberAt(place) % 2 === 0
  }

  /** What a sheet that begins at a place begins with; null for its paper in flow. */
  startAt(place: SheetPlace): Pick<SheetStart, "paper" | "left" | "blank"> {
    if (!this.papers) return { paper: null, left: false, blank: false }
    const left = this.isLeft(place)
    const blank = this.isBlank(place)
    const only = this.papers.only
    if (only) return { paper: only, left, blank }
    const { section, first } = this.at(place)
    return { paper: this.papers.of(section, first, left), left, blank }
  }

  /** The first leaf behind the block that a place is in, or the place's own if that is not begun. */
  behind({ leaf, at }: SheetPlace): number {
    const { blocks } = this.body
    const block = blocks.at(leaf)
    return isBeginning(at) || !blocks.nodes[block] ? leaf : blocks.leaf(block + 1)
  }

  /** @param wantedEnd in flow, the leaf before which the strip should end if it gets a fair height */
  compose(start: SheetPlace, wantedEnd: number | null): Sheet {
    return this.spec.mode === "flow" ? this.composeStrip(start, wantedEnd, this.spec) : this.composeSheet(start)
  }

  private composeSheet(start: SheetPlace): Sheet {
    const { paper, blank } = this.startAt(start) as { paper: Paper; blank: boolean }
    const { section: opening } = this.at(start)
    const size = { width: paper.setup.width, height: paper.setup.height }
    const at = { block: this.blockAt(start), at: start.at }
    if (blank) return this.sheet(start, size, { next: at, lookedAt: start.leaf, owed: start.owed })
    if (start.leaf >= this.count && !("entry" in start.at)) {
      // Of the text nothing is left but notes that go on.
      const feet = start.owed.filter((own) => !this.notes.isEnd(own))
      const set = this.notes.some(feet, paper.width, paper.height, true)
      const notes = this.withEnds(paper, this.foot(paper, set), set.height, start.owed, {
        top: 0,
        fresh: feet.length === 0,
      })
      return this.sheet(
        start,
        size,
        { next: at, lookedAt: start.leaf, owed: notes.owed },
        { columns: [], marks: [], ...notes },
      )
    }
    let text = this.bands(start, paper, opening, at, paper.height)
    if (!this.notes.any && start.owed.length === 0)
      return this.sheet(start, size, { owed: [], ...text }, { notes: [], marks: [], ...text })
    for (;;) {
      const marked = this.notes.marked(text.columns)
      const wanted = [...start.owed, ...marked]
      const room = paper.height - text.height
      const set = this.notes.set(wanted, paper.width, room)
      const fewer = set ? null : this.fewerLines(start, paper, { opening, at, text, wanted, marked: marked.length })
      if (fewer && fewer.height < text.height - 0.01) {
        text = fewer
        continue
      }
      const notes = set ?? this.notes.some(wanted, paper.width, room)
      const foot = this.foot(paper, notes)
      const ended = text.next.block >= this.body.blocks.nodes.length
      const place = { top: text.height + text.spaceAfter, fresh: false }
      const all = ended ? this.withEnds(paper, foot, notes.height, this.notes.ends, place) : foot
      const own = { columns: text.columns, rules: [...text.rules, ...all.rules], notes: all.notes }
      return this.sheet(start, size, { owed: all.owed, ...text }, { marks: marked.map(({ story }) => story), ...own })
    }
  }

  /**
   * Text that leaves more room for notes. As much as the notes of all marks that stand there need is the most that the text can
   * keep, if no mark goes with the lines that go. If some do, those that stay need less, and no text is higher than they allow; if
   * marks come back with that, it is one line less.
   */
  private fewerLines(
    start: SheetPlace,
    paper: Paper,
    now: { opening: number; at: BlockPlace; text: SheetText; wanted: readonly Owed[]; marked: number },
  ): SheetText {
    const { opening, at, text, wanted, marked } = now
    const less = text.bottom - 0.5
    let marks = marked
    for (let turn = 0; turn < 2; turn++) {
      const kept = paper.height - this.notes.least(wanted.slice(0, wanted.length - marked + marks), paper.width)
      if (kept <= leastRoom || kept >= less) break
      const own = this.bands(start, paper, opening, at, kept)
      const stay = this.notes.marked(own.columns).length
      if (stay === marks || turn > 0) return own
      marks = stay
    }
    return this.bands(start, paper, opening, at, less)
  }

  /** Notes where they stand: at the foot of the paper's room for text, or from a height on. */
  private foot(
    paper: Paper,
    { notes, height, owed }: NotesSet,
    from = Math.max(0, paper.height - height),
  ): NotesPlaced {
    const top = paper.top + from
    return {
      owed,
      rules: height > 0 ? [NoteSetter.rule(paper.left, top, paper.width)] : [],
      notes: notes.map(({ story, stack }) => ({
        story,
        stack: { ...stack, x: paper.left, y: top + stack.y },
      })),
    }
  }

  /** Notes at the foot, and between them and the text the endnotes among those that are owed. */
  private withEnds(
    paper: Paper,
    foot: NotesPlaced,
    footHeight: number,
    owed: readonly Owed[],
    { top, fresh }: { top: number; fresh: boolean },
  ): NotesPlaced {
    const ends = owed.filter((own) => this.notes.isEnd(own))
    if (ends.length === 0) return foot
    const below = this.foot(paper, this.notes.below(ends, paper.width, paper.height - footHeight - top, fresh), top)
    return {
      owed: [...foot.owed, ...below.owed],
      rules: [...below.rules, ...foot.rules],
      notes: [...below.notes, ...foot.notes],
    }
  }

  /** The text of a sheet in a height: one band of columns, and more where sections go on below one another. */
  bands(start: SheetPlace, paper: Paper, opening: number, from: BlockPlace, height: number) {
    const { blocks } = this.body
    const columns: Placed<Stack>[] = []
    const rules: Rule[] = []
    let [section, y, lookedAt, next, end, bottom, spaceAfter] = [opening, 0, start.leaf, from, 0, 0, 0]
    for (;;) {
      const { setup } = this.sections[section] as Section
      const room = { x: paper.left, y: paper.top + y, width: paper.width, height: height - y, fresh: y === 0, paper }
      const leaf = blocks.leaf(next.block)
      const band: Band = fillBand(this.setter, this.body, room, setup.columns, next)
      columns.push(...band.columns.map((column) => ({ ...column, leaf: column.leaf + leaf - start.leaf })))
      rules.push(...band.rules)
      lookedAt = Math.max(lookedAt, band.lookedAt)
      next = band.next
      end = Math.max(end, y + band.height)
      bottom = y + band.bottom
      spaceAfter = band.spaceAfter
      if (blocks.nodes[next.block]?.type.name !== "sectionBreak") break
      next = { block: next.block + 1, at: beginning }
      const following = this.sections[section + 1]?.setup
      y += band.height + band.spaceAfter
      if (!goesOnBelow(paper.setup, following) || height - y < leastRoom || next.block >= blocks.nodes.length) break
      section++
    }
    return { columns, rules, next, lookedAt, height: end, bottom, spaceAfter }
  }

  private composeStrip(start: SheetPlace, wantedLeaf: number | null, spec: LayoutSpec & { mode: "flow" }): Sheet {
    const { blocks } = this.body
    const first = this.blockAt(start)
    const wantedEnd = wantedLeaf === null ? null : blocks.at(wantedLeaf)
    const ends = (y: number, block: number) => {
      const keepsEnd = wantedEnd !== null && wantedEnd > first && y < strip.most
      return keepsEnd && y >= strip.least ? block >= wantedEnd || y >= strip.most : y >= strip.wanted && !keepsEnd
    }
    const region: Region = {
      width: Math.max(leastRoom, spec.width - 2 * spec.margin),
      height: Infinity,
      top: start.leaf === 0 && isBeginning(start.at) ? spec.margin : 0,
      fresh: true,
      endless: { ends, longest: strip.most },
    }
    const filled = this.setter.fill(this.body, region, { block: first, at: start.at })
    // Leaves count from the block that goes on, which may begin before the strip.
    const columns = [{ ...column(filled, region, spec.margin, 0), leaf: blocks.leaf(first) - start.leaf }]
    if (!filled.atEnd) {
      const size = { width: spec.width, height: filled.height }
      return this.sheet(start, size, { owed: [], ...filled }, { columns, rules: [], notes: [], marks: [] })
    }
    // What stands at the feet of sheets stands at the end of the text.
    const top = filled.height + filled.spaceAfter
    const { notes, height } = this.notes.below(this.notes.all, region.width, Infinity, true)
    const size = { width: spec.width, height: (height > 0 ? top + height : filled.height) + spec.margin }
    return this.sheet(
      start,
      size,
      { owed: [], ...filled },
      {
        columns,
        rules: height > 0 ? [NoteSetter.rule(spec.margin, top, region.width)] : [],
        notes: notes.map(({ story, stack }) => ({ story, stack: { ...stack, x: spec.margin, y: top + stack.y } })),
        marks: [],
      },
    )
  }

  private sheet(
    start: SheetPlace,
    { width, height }: { width: number; height: number },
    { next, lookedAt, owed }: Pick<Filled, "next" | "lookedAt"> & { owed: readonly Owed[] },
    { columns, rules, notes, marks }: Parts = { columns: [], rules: [], notes: [], marks: [] },
  ): Sheet {
    const { leaf, at } = this.placed(next)
    const { paper, left, blank } = this.startAt(start)
    const frame = paper?.setup.frame
    return {
      id: ++ids,
      width,
      height,
      start: { paper, at: start.at, left, blank, owed: start.owed },
      next: { leaf: leaf - start.leaf, at, owed },
      lookedAt: Math.max(0, lookedAt - start.leaf),
      columns,
      rules: frame && !blank ? [...rules, ...borderRound(frame, width, height)] : rules,
      notes,
      marks,
    }
  }
}

/** What stands on a sheet. */
type Parts = Pick<Sheet, "columns" | "rules" | "notes" | "marks">
/** The text of a sheet. */
type SheetText = ReturnType<SheetComposer["bands"]>
type NotesPlaced = Pick<Sheet, "rules" | "notes"> & { owed: readonly Owed[] }

/**
 * Whether a section goes on below the one before it: on the same paper, between the same margins, since the rest of a paragraph
 * that is divided there is set on the next sheet between its own.
 */
function goesOnBelow(own: PageSetup, following: PageSetup | undefined): boolean {
  if (following?.begins !== "continuous") return false
  const sides = ({ width, height, gutter, mirrored, margins: { left, right } }: PageSetup) =>
    [width, height, gutter, mirrored, left, right].join()
  return sides(own) === sides(following)
}

function column({ inside, height }: Filled, { width }: Region, x: number, y: number): Placed<Stack> {
  return { box: { kind: "stack", role: "column", width, height, inside }, leaf: 0, x, y }
}
