/** Which sheets are printed, and how they lie on the sides of the paper that comes out. Lengths are points. */

/** Sheets of the document on one side of the paper. */
export type Arrangement = "one" | "two" | "four" | "booklet"

export interface PrintPlan {
  /** Which sheets: all, those with odd or even numbers, or as in "1-3, 7, 9-". Numbers count sheets from 1. */
  sheets: string
  arrangement: Arrangement
  /** The paper, upright; null for that of the sheets themselves. */
  paper: { width: number; height: number } | null
  /** Whether what is larger than the paper is made to fit; else it is printed in its own size, and its edges may be lost. */
  fits: boolean
  /** Whether both sides of the paper are printed, as those of a booklet always are. */
  twoSided: boolean
  copies: number
  /** Whether each copy comes out whole before the next one. */
  collated: boolean
}

export const plainPrint: PrintPlan = {
  sheets: "all",
  arrangement: "one",
  paper: null,
  fits: true,
  twoSided: false,
  copies: 1,
  collated: true,
}

/** Whether a plan prints on both sides of the paper. */
export function onBothSides({ arrangement, twoSided }: PrintPlan): boolean {
  return twoSided || arrangement === "booklet"
}

export const mostCopies = 999

/**
 * Numbers of sheets, from 0, in the order in which they are asked for.
 * @returns null for words that name none
 */
export function sheetsNamed(words: string, count: number): number[] | null {
  const own = words.trim().toLowerCase()
  const all = Array.from({ length: count }, (_, i) => i)
  if (own === "" || own === "all") return all
  if (own === "odd") return all.filter((i) => i % 2 === 0)
  if (own === "even") return all.filter((i) => i % 2 === 1)
  const found: number[] = []
  for (const part of own.split(/[,;]/)) {
    const range = /^\s*(\d{1,6})?\s*(?:([-–])\s*(\d{1,6})?)?\s*$/.exec(part)
    if (!range || part.trim() === "" || (range[1] === undefined && range[3] === undefined)) return null
    const from = Number(range[1] ?? 1)
    const to = range[2] ? Number(range[3] ?? count) : from
    if (from === 0 || to === 0) return null
    const step = from <= to ? 1 : -1
    const last = Math.min(Math.max(to, 1), count)
    for (let n = Math.min(Math.max(from, 1), count + 1); step > 0 ? n <= last : n >= last; n += step)
      if (n <= count) found.push(n - 1)
  }
  return found.length > 0 ? found : null
}

export interface Side {
  width: number
  height: number
  placed: {
    /** Number of the sheet, from 0. */
    sheet: number
    /** Lower left corner, and the size against that of the sheet. */
    x: number
    y: number
    scale: number
  }[]
}

interface Size {
  width: number
  height: number
}

const cells = { one: [1, 1], two: [2, 1], four: [2, 2], booklet: [2, 1] } as const

/** Sheets in the order in which they lie on the sides of a booklet: folded in the middle, they follow each other. */
function bookletOrder(sheets: readonly number[]): (number | null)[] {
  const count = Math.ceil(sheets.length / 4) * 4
  const at = (i: number) => sheets[i] ?? null
  return Array.from({ length: count / 2 }, (_, side) => {
    const [outer, inner] = [count - 1 - side, side]
    return side % 2 === 0 ? [at(outer), at(inner)] : [at(inner), at(outer)]
  }).flat()
}

/** As large as fits, but no larger than it is; in the middle. */
function placedIn(sheet: Size, { x, y, width, height }: Size & { x: number; y: number }, fits: boolean) {
  const scale = fits ? Math.min(1, width / sheet.width, height / sheet.height) : 1
  return { x: x + (width - sheet.width * scale) / 2, y: y + (height - sheet.height * scale) / 2, scale }
}

const pairsOf = <T>(all: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / 2) }, (_, i) => all.slice(2 * i, 2 * i + 2))

/** How many sides come out, where one copy has so many: each begins on paper of its own. */
export function sidesInAll(plan: PrintPlan, ofOne: number): number {
  return (ofOne + (onBothSides(plan) && plan.copies > 1 ? ofOne % 2 : 0)) * plan.copies
}

/**
 * The sides that come out, one after another.
 * @param sizes of the sheets of the document
 * @returns null where the plan names no sheets
 */
export function sidesOf(plan: PrintPlan, sizes: readonly Size[]): Side[] | null {
  const { sheets, arrangement, paper, copies, collated } = plan
  const named = sheetsNamed(sheets, sizes.length)
  if (!named) return null
  const [columns, rows] = cells[arrangement]
  const places = columns * rows
  const order: readonly (number | null)[] = arrangement === "booklet" ? bookletOrder(named) : named
  const sides: Side[] = []
  for (let from = 0; from < order.length; from += places) {
    const some = order.slice(from, from + places)
    const first = sizes[some.find((own) => own !== null && own !== undefined) ?? 0] ?? { width: 595, height: 842 }
    const own = paper ?? first
    // Two side by side want the paper turned against how one would lie on it.
    const across = columns > rows ? first.height >= first.width : first.width > first.height
    const [short, long] = [Math.min(own.width, own.height), Math.max(own.width, own.height)]
    const [width, height] = across ? [long, short] : [short, long]
    const size = paper === null && arrangement === "one" ? first : { width, height }
    const cell = { width: size.width / columns, height: size.height / rows }
    sides.push({
      placed: some.flatMap((sheet, i) => {
        const of = sheet === null ? undefined : sizes[sheet]
        if (sheet === null || !of) return []
        const place = {
          x: (i % columns) * cell.width,
          y: size.height - (Math.floor(i / columns) + 1) * cell.height,
          ...cell,
        }
        // Only one on a side can be larger than its place without lying over another.
        return [{ sheet, ...placedIn(of, place, plan.fits || arrangement !== "one") }]
      }),
      ...size,
    })
  }
  const times = Math.min(mostCopies, Math.max(1, Math.round(copies)))
  const both = onBothSides(plan)
  const last = sides.at(-1)
  // Each copy begins on paper of its own.
  if (both && times > 1 && sides.length % 2 === 1 && last) sides.push({ ...last, placed: [] })
  const papers = both ? pairsOf(sides) : sides.map((side) => [side])
  const repeated = collated
    ? Array.from({ length: times }, () => papers).flat()
    : papers.flatMap((own) => Array.from({ length: times }, () => own))
  return repeated.flat()
}
