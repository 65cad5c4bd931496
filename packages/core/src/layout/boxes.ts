/** The boxes of sheets, laid flat: what stands where, for all that shows, measures or writes text. */
import type { Blocks, Section } from "../document"
import type {
  Break,
  DrawnPicture,
  Fragment,
  Frame,
  Furniture,
  Insets,
  Lines,
  ParagraphLayout,
  Placed,
  PlacedSheet,
  SetBox,
  SetCell,
  StandingFloat,
  SetTable,
  Shape,
  Sheet,
  Stack,
  Turn,
} from "./types"

/** What stands on a sheet, laid flat. */
interface Flat {
  fragments: Fragment[]
  tables: SetTable[]
  floats: StandingFloat[]
}
const flat = new WeakMap<PlacedSheet, Flat>()

function flatOf(placed: PlacedSheet): Flat {
  let found = flat.get(placed)
  if (!found) {
    found = { fragments: [], tables: [], floats: [] }
    for (const column of placed.sheet.columns)
      collect(column, { firstLeaf: placed.leaf, left: 0, top: 0, part: "text", cell: null, turn: null }, found)
    for (const { part, stack } of placed.furniture ?? [])
      if (part !== "watermark") collect(stack, { firstLeaf: 0, left: 0, top: 0, part, cell: null, turn: null }, found)
    flat.set(placed, found)
  }
  return found
}

/** The lines of a sheet in the order of the text, and then those of its head and foot, with their places on the sheet and the numbers of their leaves in the document. */
export function fragmentsOf(placed: PlacedSheet): readonly Fragment[] {
  return flatOf(placed).fragments
}

/** The tables of a sheet, each before those in it. */
export function tablesOf(placed: PlacedSheet): readonly SetTable[] {
  return flatOf(placed).tables
}

/** Pictures that stand not in lines, where they stand on the sheet. */
export function floatsOn(placed: PlacedSheet): readonly StandingFloat[] {
  return flatOf(placed).floats
}

/** What a box stands in. */
interface Around {
  firstLeaf: number
  left: number
  top: number
  part: Fragment["part"]
  cell: SetCell | null
  turn: Turn | null
}

/** Whether a fragment is the text of its leaf, and not a head that is repeated or an entry of contents before it. */
export function isOwnText({ part }: Fragment): boolean {
  return part !== "repeated" && part !== "generated"
}

function collect({ box, leaf, x, y }: Placed, { firstLeaf, left, top, part, cell, turn }: Around, found: Flat): void {
  const at = { part, leaf: firstLeaf + leaf, x: left + x, y: top + y }
  const inside = { firstLeaf: at.leaf, left: at.x, top: at.y, part, cell, turn }
  if (box.kind === "lines") {
    const { paragraph, from, to, width, frame, entry } = box
    // Written out, so that all have one form: there are many, and all that shows text reads them.
    found.fragments.push({
      part: entry === null ? part : "generated",
      cell,
      entry,
      leaf: at.leaf,
      paragraph,
      from,
      to,
      x: at.x,
      y: at.y,
      width,
      frame: frame && moved(frame, at.x, at.y),
      turn,
    })
  } else if (box.kind === "stack") {
    const turned = box.angle === undefined ? inside : { ...inside, turn: { angle: box.angle, x: at.x, y: at.y } }
    for (const own of box.inside) collect(own, turned, found)
    for (const own of box.floats ?? [])
      found.floats.push({ cell, ...own, leaf: at.leaf + own.leaf, x: at.x + own.x, y: at.y + own.y })
  } else {
    const { width, height, columns, ground, alt } = box
    const onSheet = <T extends { x: number; y: number }>(own: T): T => ({ ...own, x: own.x + at.x, y: own.y + at.y })
    const set = { fills: ground.fills.map(onSheet), rules: ground.rules.map(onSheet) }
    const table: SetTable = { alt, width, height, columns, ground: set, outer: cell, cells: [], ...at }
    found.tables.push(table)
    for (const { cells, repeated: again } of box.rows)
      for (const own of cells) {
        const { row, column, rowspan, colspan, heads, area } = own
        const repeated = again || cell?.repeated === true
        const stands: SetCell = {
          table,
          leaf: at.leaf + own.first,
          row,
          column,
          rowspan,
          colspan,
          heads,
          repeated,
          x: at.x + area.x,
          y: at.y + area.y,
          width: area.width,
          height: area.height,
          inside: { x: at.x + own.x, y: at.y + own.y, width: own.box.width, height: area.y + area.height - own.y },
        }
        table.cells.push(stands)
        collect(own, { ...inside, part: repeated && part === "text" ? "repeated" : part, cell: stands }, found)
      }
  }
}

/** The pictures on the lines of a fragment, with the corner of the upright box of each on the sheet. */
export function picturesIn(fragment: Fragment): { picture: DrawnPicture; offset: number; x: number; y: number }[] {
  const { paragraph, from, to, x, y } = fragment
  if (!paragraph.text.includes("\ufffc")) return []
  const first = paragraph.lines[from]?.top ?? 0
  return paragraph.lines.slice(from, to).flatMap((line) =>
    line.runs.flatMap(({ run, x: left }) =>
      run.picture
        ? [
            {
              picture: run.picture,
              offset: run.from,
              x: x + left,
              y: y + line.top - first + line.baseline - run.picture.box.height,
            },
          ]
        : [],
    ),
  )
}

/** What stands behind all text of a sheet, and is no text of the document. */
export function backdropOf({ furniture = [] }: PlacedSheet): Fragment[] {
  return furniture.flatMap(({ part, stack, angle = 0 }) => {
    if (part !== "watermark") return []
    const { box, x, y } = stack
    const found: Flat = { fragments: [], tables: [], floats: [] }
    const turn = { angle, x: x + box.width / 2, y: y + box.height / 2 }
    collect(stack, { firstLeaf: 0, left: 0, top: 0, part, cell: null, turn }, found)
    return found.fragments
  })
}

/** What stands directly in a box. */
function boxesIn(box: Exclude<SetBox, Lines>): readonly Placed[] {
  return box.kind === "stack" ? box.inside : box.rows.flatMap(({ cells }) => cells)
}

function moved({ box, shading, rules }: Frame, x: number, y: number): Frame {
  return {
    box: { ...box, x: box.x + x, y: box.y + y },
    shading,
    rules: rules.map((rule) => ({ ...rule, x: rule.x + x, y: rule.y + y })),
  }
}

/** Where a block begins. */
export const beginning: Break = { line: 0 }

/** Whether a block goes on at the same place. The one comparison of all places at which something may begin. */
export function sameBreak(a: Break, b: Break): boolean {
  if ("line" in a || "line" in b) return "line" in a && "line" in b && a.line === b.line && sameShape(a.shape, b.shape)
  if ("entry" in a || "entry" in b) return "entry" in a && "entry" in b && a.entry === b.entry && a.back === b.back
  return (
    a.row === b.row &&
    a.above === b.above &&
    a.cells.length === b.cells.length &&
    a.cells.every((own, i) => {
      const other = b.cells[i] ?? null
      return own === null || other === null ? own === other : own.block === other.block && sameBreak(own.at, other.at)
    })
  )
}

const noInsets: Insets = []

/** Whether the same room is taken from the lines of a paragraph. */
export function sameInsets(a: Insets = noInsets, b: Insets = noInsets): boolean {
  return (
    a === b ||
    (a.length === b.length &&
      a.every((own, i) => own.left === b[i]?.left && own.right === b[i].right && own.above === b[i].above))
  )
}

/** Whether lines were set in columns of the same widths. */
export function sameShape(a: Shape = [], b: Shape = []): boolean {
  return (
    a === b ||
    (a.length === b.length &&
      a.every((piece, i) => {
        const other = b[i]
        return (
          piece.lines === other?.lines &&
          piece.width === other.width &&
          piece.inLine === other.inLine &&
          sameInsets(piece.insets, other.insets)
        )
      }))
  )
}

/** Whether a block is set from its beginning. */
export function isBeginning(at: Break): boolean {
  return "line" in at && at.line === 0
}

/** Whether a place is where its block begins, also in a list of contents. */
export function beginsBlock(at: Break): boolean {
  return "entry" in at ? at.entry === 0 : isBeginning(at)
}

/** The block of a flow that a place is in, told by the first leaf of that block or, for one without leaves, of the one behind it. */
export function blockAt(blocks: Blocks, leaf: number, at: Break): number {
  return blocks.at(leaf) - ("entry" in at ? at.back : 0)
}

/** The section that a sheet beginning at a place of the body begins with, by its number, and whether it is the first sheet of that. */
export function sectionBegun(
  blocks: Blocks,
  sections: readonly Section[],
  leaf: number,
  at: Break,
): { section: number; first: boolean } {
  const block = blockAt(blocks, leaf, at)
  const found = sections.findLastIndex((section) => section.block <= block)
  return { section: Math.max(0, found), first: sections[found]?.block === block && beginsBlock(at) }
}

/** The same sheet with something else in place of its paragraphs, which are asked for in the order of the text. */
export function withParagraphs<P, Q>(sheet: Sheet<P>, replace: (paragraph: P) => Q): Sheet<Q> {
  return {
    ...sheet,
    columns: sheet.columns.map((column) => stackWith(column, replace)),
    notes: sheet.notes.map(({ story, stack }) => ({ story, stack: stackWith(stack, replace) })),
  }
}

/** The same stack with something else in place of its paragraphs. */
export function stackWith<P, Q>(whole: Placed<Stack<P>>, replace: (paragraph: P) => Q): Placed<Stack<Q>> {
  const placed = <B, C>(own: Placed<B>, box: C): Placed<C> => ({ ...own, box })
  const stack = (own: Stack<P>): Stack<Q> => ({
    ...own,
    inside: own.inside.map((inside) => placed(inside, boxed(inside.box))),
  })
  const boxed = (box: SetBox<P>): SetBox<Q> => {
    if (box.kind === "lines") return { ...box, paragraph: replace(box.paragraph) }
    if (box.kind === "stack") return stack(box)
    return {
      ...box,
      rows: box.rows.map(({ cells, repeated }) => ({
        repeated,
        cells: cells.map((cell) => ({ ...cell, box: stack(cell.box) })),
      })),
    }
  }
  return placed(whole, stack(whole.box))
}

/** The paragraphs of a sheet in the order of the text. */
export function paragraphsOf(sheet: Sheet, furniture: readonly Furniture[] = []): ParagraphLayout[] {
  const placed = { sheet, leaf: 0, furniture }
  return [...backdropOf(placed), ...fragmentsOf(placed)].map(({ paragraph }) => paragraph)
}

/** A box where it stands on its sheet, without what is in it. */
export interface Outline {
  kind: SetBox["kind"]
  /** Of a stack. */
  role: Stack["role"] | null
  /** How many boxes it stands in. */
  depth: number
  /** Its first leaf. */
  leaf: number
  x: number
  y: number
  width: number
  height: number
  /** Of lines: their text. */
  text: string | null
}

/** All boxes of a sheet, each before those that stand in it: for people who look how something came to stand where it does. */
export function outlinesOf({ sheet, leaf, furniture = [] }: PlacedSheet): Outline[] {
  const found: Outline[] = []
  const add = (placed: Placed, firstLeaf: number, left: number, top: number, depth: number): void => {
    const { box } = placed
    const at = { leaf: firstLeaf + placed.leaf, x: left + placed.x, y: top + placed.y, depth, kind: box.kind }
    if (box.kind === "lines") {
      const lines = box.paragraph.lines.slice(box.from, box.to)
      const [first, last] = [lines[0], lines.at(-1)]
      const height = first && last ? last.top + last.height - first.top : 0
      const text = box.paragraph.text.slice(first?.from ?? 0, last?.to ?? 0)
      found.push({ role: null, width: box.width, height, text, ...at })
    } else {
      found.push({
        role: box.kind === "stack" ? box.role : null,
        width: box.width,
        height: box.height,
        text: null,
        ...at,
      })
      for (const inside of boxesIn(box)) add(inside, at.leaf, at.x, at.y, depth + 1)
    }
  }
  for (const { stack } of furniture) add(stack, 0, 0, 0, 0)
  for (const column of sheet.columns) add(column, leaf, 0, 0, 0)
  return found
}
