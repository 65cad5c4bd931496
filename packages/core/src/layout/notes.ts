/**
 * Notes at the foot of a sheet: so many lines of text stand on it as have room together with their notes. The last note may go
 * on at the foot of the next sheet, and is owed to it. Endnotes stand below the end of the text, and are owed to the next sheet
 * where they find no room.
 */
import type { Node } from "prosemirror-model"
import { blocksOf, firstLeafOf, noteLabels, notesOf, storiesOf, type NoteKind, type NoteLabels } from "../document"
import { beginning, isBeginning, sameBreak } from "./boxes"
import type { FlowSetter } from "./flow"
import type { Filled } from "./regions"
import type { BlockPlace, Owed, Placed, SetBox, SetNote } from "./types"

/** Space above the line that divides notes from text, between that and the notes, and between two notes, in points. */
const [above, below, between] = [10, 5, 2]
/** So much of a note stands at least on the sheet of its mark, in points: about two lines. */
const least = 26

export function sameOwed(a: readonly Owed[], b: readonly Owed[]): boolean {
  return (
    a === b ||
    (a.length === b.length &&
      a.every((own, i) => {
        const other = b[i] as Owed
        return own.story === other.story && own.from.block === other.from.block && sameBreak(own.from.at, other.from.at)
      }))
  )
}

export interface NotesSet {
  notes: readonly SetNote[]
  /** With the space above them; 0 for none. */
  height: number
  owed: readonly Owed[]
}

const whole = (story: string): Owed => ({ story, from: { block: 0, at: beginning } })

const ended = (y: number, notes: readonly SetNote[]) => (notes.length > 0 ? y : 0)

function setNote(node: Node, { story, from }: Owed, filled: Filled, width: number, y: number): SetNote {
  const box = { kind: "stack", role: "note", width, height: filled.height, inside: filled.inside } as const
  return { story, stack: { box, leaf: blocksOf(node).leaf(from.block), x: 0, y } }
}

/** How far down what was filled reaches, with the frame round its end. */
function reach({ inside, height }: Filled): number {
  const last = inside.at(-1)
  const frame = last?.box.kind === "lines" ? last.box.frame : null
  return last && frame ? Math.max(height, last.y + frame.box.y + frame.box.height) : height
}

const nothing: NotesSet = { notes: [], height: 0, owed: [] }

const kindsOf = new WeakMap<NoteLabels, Pick<NoteSetter, "all" | "ends"> & { kinds: ReadonlyMap<string, NoteKind> }>()

export class NoteSetter {
  private readonly stories
  private readonly kinds: ReadonlyMap<string, NoteKind>
  /** All notes, and all endnotes, each from its beginning. */
  readonly all: readonly Owed[]
  readonly ends: readonly Owed[]

  constructor(
    private readonly setter: FlowSetter,
    private readonly doc: Node,
    /** What stands before each. */
    private readonly labels: NoteLabels,
  ) {
    this.stories = storiesOf(doc)
    const notes = notesOf(doc)
    // The labels are the same value as long as the notes are the same, wherever their marks stand.
    let sorted = kindsOf.get(noteLabels(doc))
    if (!sorted)
      kindsOf.set(
        noteLabels(doc),
        (sorted = {
          kinds: new Map(notes.map(({ key, kind }) => [key, kind])),
          all: notes.map(({ key }) => whole(key)),
          ends: notes.flatMap(({ key, kind }) => (kind === "endnote" ? [whole(key)] : [])),
        }),
      )
    this.kinds = sorted.kinds
    this.all = sorted.all
    this.ends = sorted.ends
  }

  isEnd({ story }: Owed): boolean {
    return this.kinds.get(story) === "endnote"
  }

  get any(): boolean {
    return this.kinds.size > 0
  }

  /** The footnotes whose marks stand in boxes, in the order of the text, each from its beginning. */
  marked(boxes: readonly Placed[]): Owed[] {
    const notes: Owed[] = []
    const visit = (box: SetBox): void => {
      // What is repeated brings no note a second time.
      if (box.kind === "table")
        for (const { cells } of box.rows.filter(({ repeated }) => !repeated)) for (const cell of cells) visit(cell.box)
      else if (box.kind === "stack") for (const inside of box.inside) visit(inside.box)
      else {
        const { paragraph, from, to } = box
        if (!paragraph.anchors) return
        const [start, end] = [paragraph.lines[from]?.from ?? 0, paragraph.lines[to - 1]?.to ?? 0]
        for (const { key, offset } of paragraph.anchors)
          if (offset >= start && offset < end && this.kinds.get(key) === "note") notes.push(whole(key))
      }
    }
    for (const { box } of boxes) visit(box)
    return notes
  }

  /**
   * Sets notes in a width and a room.
   * @returns null if the room is too small: all but the last have to fit, and a little of that
   */
  set(wanted: readonly Owed[], width: number, room: number): NotesSet | null {
    if (wanted.length === 0) return nothing
    const notes: SetNote[] = []
    let y = above + below
    for (const [i, { story, from }] of wanted.entries()) {
      const node = this.stories.get(story)?.node
      if (!node) continue
      const left = room - y
      // On a sheet that its text fills, that is known before any note is set.
      if (left < 0) return null
      const last = i === wanted.length - 1
      const filled = this.fill(node, story, from, width, left)
      const goesOn = !filled.atEnd
      const height = reach(filled)
      if ((goesOn && !last) || height > left + 1e-6 || (goesOn && left < least)) return null
      if (filled.inside.length > 0) notes.push(setNote(node, { story, from }, filled, width, y))
      y += height
      if (goesOn) return { notes, height: y, owed: [{ story, from: filled.next }] }
      y += last ? 0 : between
    }
    return { notes, height: y, owed: [] }
  }

  /** The least room in which `set` sets notes. */
  least(wanted: readonly Owed[], width: number): number {
    const heights = wanted.flatMap(({ story, from }) => {
      const node = this.stories.get(story)?.node
      return node ? reach(this.fill(node, story, from, width, Infinity)) : []
    })
    const last = heights.pop() ?? 0
    return above + below + heights.reduce((sum, height) => sum + height + between, 0) + Math.min(last, least)
  }

  /** As much of notes as has room, where text leaves too little for what `set` wants; the rest is owed. @param fresh whether they have a sheet of their own, on which at least a line stands */
  some(wanted: readonly Owed[], width: number, room: number, fresh = false): NotesSet {
    for (let n = wanted.length; n > 0; n--) {
      const set = this.set(wanted.slice(0, n), width, room)
      if (set) return { ...set, owed: [...set.owed, ...wanted.slice(n)] }
    }
    return fresh ? this.below(wanted, width, room, true) : { ...nothing, owed: wanted }
  }

  /** Notes under each other from a height on, as many as have room; what is left of them is owed. @param fresh as above */
  below(wanted: readonly Owed[], width: number, room: number, fresh: boolean): NotesSet {
    const notes: SetNote[] = []
    let y = above + below
    for (const [i, { story, from }] of wanted.entries()) {
      const node = this.stories.get(story)?.node
      if (!node) continue
      const left = room - y
      if (left < least && !(fresh && notes.length === 0))
        return { notes, height: ended(y, notes), owed: wanted.slice(i) }
      const filled = this.fill(node, story, from, width, left)
      notes.push(setNote(node, { story, from }, filled, width, y))
      y += reach(filled) + between
      if (!filled.atEnd) return { notes, height: y, owed: [{ story, from: filled.next }, ...wanted.slice(i + 1)] }
    }
    return { notes, height: ended(y, notes), owed: [] }
  }

  private fill(node: Node, story: string, from: BlockPlace, width: number, height: number): Filled {
    if (from.block > 0 || !isBeginning(from.at)) return this.fillAnew(node, story, from, width, height)
    // Most stand on one sheet, and are asked for several times until text and notes have their room.
    let known = this.wholes.get(story)
    if (known?.width !== width)
      this.wholes.set(story, (known = { width, filled: this.fillAnew(node, story, from, width, Infinity) }))
    const { filled } = known
    const fits = height === Infinity || (filled.atEnd && reach(filled) <= height)
    return fits ? filled : this.fillAnew(node, story, from, width, height)
  }

  /** Notes as they are where nothing bounds them. */
  private readonly wholes = new Map<string, { width: number; filled: Filled }>()

  private fillAnew(node: Node, story: string, from: BlockPlace, width: number, height: number): Filled {
    const lead = this.labels.get(story) ?? null
    return this.setter.fill(
      { blocks: blocksOf(node), firstLeaf: firstLeafOf(this.doc, story) ?? 0, lead },
      { width, height: Math.max(0, height), top: 0, fresh: true },
      from,
    )
  }

  /** The line above notes, from the left edge of the text. */
  static rule(x: number, y: number, width: number) {
    return { x, y: y + above, width: Math.min(width, 120), height: 0.5, pattern: "solid" as const, colour: "#5e564b" }
  }
}
