/**
 * Paragraphs as they are kept. Of a long document most are set, counted into their sheets and not looked at again for long, so that
 * their lines are kept as numbers and the glyphs of plain text by its words: a third of what both weigh as objects.
 */
import { WordGlyphs } from "./fonts/glyphs"
import { Recent } from "./recent"
import type { Line, LineRun, ParagraphLayout, ShapedRun } from "./types"

/** Lines as numbers, one behind the other; see `pack` for their order. */
export interface PackedLines {
  numbers: ArrayLike<number>
  /** The runs that stand on them, by number. */
  runs: readonly ShapedRun[]
  /** What few lines have, by line. */
  tabs: readonly { line: number; tabs: Line["tabs"]; leaders: Line["leaders"] }[]
}

const none: readonly never[] = []

/** How many of a line's numbers stand before those of its pieces. */
const ofLine = 7
const ofPiece = 8

/** Where the numbers of a paragraph are put together: a list that holds fractions from the start takes more of them as they are. */
const room = [0.5]

function pack(lines: readonly Line[]): PackedLines {
  const runs: ShapedRun[] = []
  const kept = new Map<ShapedRun, number>()
  const tabs: { line: number; tabs: Line["tabs"]; leaders: Line["leaders"] }[] = []
  let [last, number]: [ShapedRun | null, number] = [null, 0]
  let n = 0
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i]!
    room[n++] = line.to
    room[n++] = line.top
    room[n++] = line.height
    room[n++] = line.baseline
    room[n++] = line.x
    room[n++] = line.width
    room[n++] = line.runs.length
    for (const piece of line.runs) {
      const { run } = piece
      if (run !== last) {
        number = kept.get(run) ?? runs.push(unmade(run)) - 1
        kept.set((last = run), number)
      }
      room[n++] = number
      room[n++] = piece.from
      room[n++] = piece.to
      room[n++] = piece.first
      room[n++] = piece.last
      room[n++] = piece.x
      room[n++] = piece.width
      room[n++] = piece.extra
    }
    if (line.tabs.length > 0 || line.leaders.length > 0) tabs.push({ line: i, tabs: line.tabs, leaders: line.leaders })
  }
  const numbers = room.slice(0, n)
  if (n > mostRoom) room.length = mostRoom
  return { numbers, runs: runs.slice(), tabs: tabs.length > 0 ? tabs : none }
}
const mostRoom = 1 << 18

/** A run whose glyphs are kept by their words where they can be. */
const unmade = (run: ShapedRun): ShapedRun =>
  run.glyphs instanceof WordGlyphs ? { ...run, glyphs: run.glyphs.unmade() } : run

export function unpack({ numbers, runs: packed, tabs }: PackedLines): Line[] {
  // What is made of their glyphs is not kept.
  const shaped = packed.map(unmade)
  const lines: Line[] = []
  let from = 0
  for (let n = 0; n < numbers.length;) {
    const runs = new Array<LineRun>(numbers[n + 6]!)
    const line: Line = {
      from,
      to: (from = numbers[n]!),
      top: numbers[n + 1]!,
      height: numbers[n + 2]!,
      baseline: numbers[n + 3]!,
      x: numbers[n + 4]!,
      width: numbers[n + 5]!,
      runs,
      tabs: none,
      leaders: none,
    }
    n += ofLine
    for (let i = 0; i < runs.length; i++, n += ofPiece)
      runs[i] = {
        run: shaped[numbers[n]!]!,
        from: numbers[n + 1]!,
        to: numbers[n + 2]!,
        first: numbers[n + 3]!,
        last: numbers[n + 4]!,
        x: numbers[n + 5]!,
        width: numbers[n + 6]!,
        extra: numbers[n + 7]!,
      }
    lines.push(line)
  }
  for (const { line, ...own } of tabs) lines[line] = { ...lines[line]!, ...own }
  return lines
}

/** So many lines are at hand as objects. */
const linesAtHand = 1000

const opened = new Recent<PackedLines, Line[]>(linesAtHand, ({ length }) => length, unpack)

export type WithoutLines = Omit<ParagraphLayout, "lines">

/** All of a paragraph but its lines. */
export class Unlined implements WithoutLines {
  readonly id: ParagraphLayout["id"]
  readonly text: ParagraphLayout["text"]
  readonly style: ParagraphLayout["style"]
  readonly format: ParagraphLayout["format"]
  readonly label: ParagraphLayout["label"]
  readonly outline: ParagraphLayout["outline"]
  readonly anchors: ParagraphLayout["anchors"]
  readonly height: ParagraphLayout["height"]
  readonly floats: ParagraphLayout["floats"]

  constructor(own: WithoutLines) {
    this.id = own.id
    this.text = own.text
    this.style = own.style
    this.format = own.format
    this.label = own.label
    this.outline = own.outline
    this.anchors = own.anchors
    this.height = own.height
    this.floats = own.floats
  }
}

/** A paragraph whose lines are made when they are asked for. It cannot be posted to another thread: see `sentParagraph`. */
class PackedParagraph extends Unlined implements ParagraphLayout {
  readonly packed: PackedLines

  constructor(own: ParagraphLayout) {
    super(own)
    this.packed = pack(own.lines)
    // Who sets it is about to look at its lines.
    opened.keep(this.packed, own.lines)
  }

  get lines(): Line[] {
    return opened.of(this.packed)
  }
}

/** A paragraph as it is kept. */
export function packParagraph(own: ParagraphLayout): ParagraphLayout {
  return new PackedParagraph(own)
}

/** The lines of a paragraph as numbers, and the runs on them with their glyphs. */
export function packedLines(own: ParagraphLayout): PackedLines {
  const packed = own instanceof PackedParagraph ? own.packed : pack(own.lines)
  // What was set just now has its glyphs at hand.
  const runs = opened.has(packed) ? runsOn(opened.of(packed)) : packed.runs.map(unmade)
  return { ...packed, runs }
}

/** The runs that stand on lines, as `pack` numbers them. */
function runsOn(lines: readonly Line[]): ShapedRun[] {
  const runs = new Set<ShapedRun>()
  let last: ShapedRun | null = null
  for (const line of lines) for (const { run } of line.runs) if (run !== last) runs.add((last = run))
  return [...runs]
}
