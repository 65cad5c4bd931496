/** The boxes of sheets, laid flat: what stands where, for all that shows, measures or writes text. */
import type { Break, Fragment, Frame, ParagraphLayout, Placed, PlacedSheet, SetBox, Sheet, Stack } from "./types"

const flat = new WeakMap<PlacedSheet, readonly Fragment[]>()

/** The lines of a sheet in the order of the text, with their places on the sheet and the numbers of their leaves in the document. */
export function fragmentsOf(placed: PlacedSheet): readonly Fragment[] {
  let fragments = flat.get(placed)
  if (!fragments) {
    const found: Fragment[] = []
    for (const column of placed.sheet.columns) collect(column, placed.leaf, 0, 0, found)
    flat.set(placed, (fragments = found))
  }
  return fragments
}

function collect({ box, leaf, x, y }: Placed, firstLeaf: number, left: number, top: number, found: Fragment[]): void {
  const at = { leaf: firstLeaf + leaf, x: left + x, y: top + y }
  if (box.kind === "lines") {
    const { paragraph, from, to, width, frame } = box
    found.push({ ...at, paragraph, from, to, width, frame: frame && moved(frame, at.x, at.y) })
  } else
    for (const inside of box.kind === "stack" ? box.inside : box.rows.flatMap(({ cells }) => cells))
      collect(inside, at.leaf, at.x, at.y, found)
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
  if ("line" in a || "line" in b) return "line" in a && "line" in b && a.line === b.line
  return (
    a.row === b.row &&
    a.cells.length === b.cells.length &&
    a.cells.every((own, i) => {
      const other = b.cells[i] ?? null
      return own === null || other === null ? own === other : own.block === other.block && sameBreak(own.at, other.at)
    })
  )
}

/** Whether a block is set from its beginning. */
export function isBeginning(at: Break): boolean {
  return "line" in at && at.line === 0
}

/** The same sheet with something else in place of its paragraphs, which are asked for in the order of the text. */
export function withParagraphs<P, Q>(sheet: Sheet<P>, replace: (paragraph: P) => Q): Sheet<Q> {
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
      rows: box.rows.map(({ cells }) => ({ cells: cells.map((cell) => placed(cell, stack(cell.box))) })),
    }
  }
  return { ...sheet, columns: sheet.columns.map((column) => placed(column, stack(column.box))) }
}

/** The paragraphs of a sheet in the order of the text. */
export function paragraphsOf(sheet: Sheet): ParagraphLayout[] {
  return fragmentsOf({ sheet, leaf: 0 }).map(({ paragraph }) => paragraph)
}
