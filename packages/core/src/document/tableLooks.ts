/**
 * How tables look: lines and grounds by conditions (head row, total row, first and last column, bands), in the colour of the
 * document's headings. What a cell says of itself wins over its table's look.
 */
import type { Node } from "prosemirror-model"
import type { tableLooks } from "./bounds"
import type { Grid, GridCell } from "./grid"
import { gridOf } from "./grid"
import { styleLook } from "./look"
import { leavesOf } from "./leaves"
import type { Border, BorderSide, LetterFormat, StyleSheet, TableFormat } from "./shapes"
import { cellFormat, tableAt, tableFormat } from "./tables"

export type TableLookName = (typeof tableLooks)[number]

/** A colour as a part of that of the headings: 1 for that itself, 0 for white; or ink, or white. */
type Tint = number | "ink" | "white"

interface Line {
  width: number
  colour: Tint
  pattern?: Border["pattern"]
}

/** What a condition says. Its sides are those of the area that it holds for; `null` for no line. */
interface Part {
  ground?: Tint
  letters?: { bold?: boolean; colour?: Tint }
  top?: Line | null
  bottom?: Line | null
  left?: Line | null
  right?: Line | null
  /** Between rows, and between columns. */
  across?: Line | null
  down?: Line | null
}

interface TableLook {
  name: string
  whole: Part
  head?: Part
  total?: Part
  first?: Part
  last?: Part
  band?: Part
}

const hair: Line = { width: 0.5, colour: "ink" }
const fine: Line = { width: 0.5, colour: 0.45 }
const strong: Line = { width: 1.5, colour: 1 }
const bold = { letters: { bold: true } }

export const looksOfTables: Readonly<Record<TableLookName, TableLook>> = {
  ledger: {
    name: "Ledger",
    whole: { top: strong, bottom: strong, across: fine },
    head: { ...bold, bottom: { width: 1, colour: 1 } },
    total: { ...bold, top: { width: 0.75, colour: 1, pattern: "double" } },
    first: bold,
    last: bold,
    band: { ground: 0.07 },
  },
  timetable: {
    name: "Timetable",
    whole: { top: hair, bottom: hair, left: hair, right: hair, across: hair, down: hair },
    head: { ...bold, ground: 0.14 },
    total: { ...bold, ground: 0.14 },
    first: { ...bold, ground: 0.07 },
    last: { ground: 0.07 },
    band: { ground: 0.05 },
  },
  tideBoard: {
    name: "Tide board",
    whole: { bottom: { width: 2, colour: 1 }, across: { width: 0.5, colour: 0.25 } },
    head: { ground: 1, letters: { bold: true, colour: "white" } },
    total: { ground: 0.2, ...bold },
    first: { letters: { bold: true, colour: 1 } },
    last: { letters: { bold: true, colour: 1 } },
    band: { ground: 0.1 },
  },
  manifest: {
    name: "Manifest",
    whole: { across: { width: 0.75, colour: 0.5, pattern: "dotted" } },
    head: { letters: { bold: true, colour: 1 }, bottom: { width: 1, colour: 1 } },
    total: { ...bold, top: { width: 1, colour: 1 } },
    first: bold,
    last: bold,
    band: { ground: 0.06 },
  },
  logbook: {
    name: "Logbook",
    whole: { left: { width: 3, colour: 1 }, across: { width: 0.5, colour: 0.3 }, bottom: { width: 0.5, colour: 0.3 } },
    head: { ...bold, ground: 0.1 },
    total: { ...bold, ground: 0.1 },
    first: { ...bold, right: { width: 0.5, colour: 0.3 } },
    last: { ...bold, left: { width: 0.5, colour: 0.3 } },
    band: { ground: 0.05 },
  },
  buoy: {
    name: "Buoys",
    whole: { down: { width: 3, colour: "white" }, across: { width: 3, colour: "white" }, ground: 0.08 },
    head: { ground: 0.3, ...bold },
    total: { ground: 0.3, ...bold },
    first: { ground: 0.18, ...bold },
    last: { ground: 0.18, ...bold },
    band: { ground: 0.14 },
  },
  slipway: {
    name: "Slipway",
    whole: { top: { width: 0.75, colour: "ink" }, bottom: { width: 0.75, colour: "ink" } },
    head: { bottom: { width: 0.5, colour: "ink" }, ...bold },
    total: { top: { width: 0.5, colour: "ink" }, ...bold },
    first: bold,
    last: bold,
    band: { ground: 0.05 },
  },
  cordage: {
    name: "Cordage",
    whole: {
      top: { width: 1.5, colour: 0.8, pattern: "dashed" },
      bottom: { width: 1.5, colour: 0.8, pattern: "dashed" },
      down: { width: 0.5, colour: 0.5, pattern: "dashed" },
    },
    head: { letters: { bold: true, colour: 1 }, bottom: { width: 0.75, colour: 0.8, pattern: "dashed" } },
    total: { ...bold, top: { width: 0.75, colour: 0.8, pattern: "dashed" } },
    first: { letters: { bold: true, colour: 1 } },
    last: { letters: { bold: true, colour: 1 } },
    band: { ground: 0.06 },
  },
  bare: { name: "No lines", whole: {}, head: bold, total: bold, first: bold, last: bold, band: { ground: 0.06 } },
}

const ink = "#1e1a16"

/** A colour of which so much is left in white. */
export function tinted(accent: string, tint: Tint): string {
  if (tint === "ink") return ink
  if (tint === "white") return "#ffffff"
  const part = (at: number) => Math.round(255 - (255 - parseInt(accent.slice(at, at + 2), 16)) * tint)
  return `#${[1, 3, 5].map((at) => part(at).toString(16).padStart(2, "0")).join("")}`
}

/** The colour that tables take from a document: that of its headings. */
export function accentOf(styles: StyleSheet): string {
  return styleLook(styles, "heading1").letters.colour
}

/** The conditions that hold for a cell, the strongest first. */
function partsOf(look: TableLook, format: TableFormat, grid: Grid, cell: GridCell): Part[] {
  const { row, column, colspan, rowspan } = cell
  const heads = Math.min(format.headRows, grid.rows)
  const head = row < heads
  const total = format.totalRow && !head && row + rowspan === grid.rows
  const parts: (Part | undefined | false)[] = [
    head && look.head,
    total && look.total,
    !head && format.firstColumn && column === 0 && look.first,
    !head && format.lastColumn && column + colspan === grid.columns && look.last,
    !head && !total && format.bands && (row - heads) % 2 === 1 && look.band,
    look.whole,
  ]
  return parts.filter((part): part is Part => Boolean(part))
}

/** Whether a cell stands at a side of the area that a condition holds for. */
function isAtSide(
  part: Part,
  look: TableLook,
  format: TableFormat,
  grid: Grid,
  cell: GridCell,
  side: BorderSide,
): boolean {
  const heads = Math.min(format.headRows, grid.rows)
  const [first, last] =
    part === look.head ? [0, heads] : part === look.total ? [grid.rows - 1, grid.rows] : [0, grid.rows]
  switch (side) {
    case "top":
      return cell.row === first || part === look.total
    case "bottom":
      return cell.row + cell.rowspan >= last
    case "left":
      return cell.column === 0 || part === look.last
    case "right":
      return cell.column + cell.colspan === grid.columns || part === look.first
  }
}

const inner = { top: "across", bottom: "across", left: "down", right: "down" } as const

/** The ground of a cell; null for none. */
export function groundOf(styles: StyleSheet, table: Node, cell: GridCell): string | null {
  const own = cellFormat(cell.node).shading
  if (own !== undefined) return own
  const format = tableFormat(table)
  const tint = partsOf(looksOfTables[format.look], format, gridOf(table), cell).find(
    ({ ground }) => ground !== undefined,
  )?.ground
  return tint === undefined ? null : tinted(accentOf(styles), tint)
}

/** The line at a side of a cell, and whether it is said by hand. */
export function edgeOf(
  styles: StyleSheet,
  table: Node,
  cell: GridCell,
  side: BorderSide,
): { border: Border | null; byHand: boolean } {
  const own = cellFormat(cell.node).borders?.[side]
  if (own !== undefined) return { border: own, byHand: true }
  const format = tableFormat(table)
  const grid = gridOf(table)
  const look = looksOfTables[format.look]
  for (const part of partsOf(look, format, grid, cell)) {
    const line = part[isAtSide(part, look, format, grid, cell, side) ? side : inner[side]]
    if (line === undefined) continue
    if (line === null) return { border: null, byHand: false }
    const { width, colour, pattern = "solid" } = line
    return { border: { width, pattern, colour: tinted(accentOf(styles), colour), distance: 0 }, byHand: false }
  }
  return { border: null, byHand: false }
}

/** What looks say of letters, by what it says: one object for each, so that it can be compared. */
const saidOfLetters = new Map<string, Partial<LetterFormat>>()

/** What a table's look says of the letters of a cell; null for nothing. */
export function lettersOf(styles: StyleSheet, table: Node, cell: GridCell): Partial<LetterFormat> | null {
  const format = tableFormat(table)
  const letters = partsOf(looksOfTables[format.look], format, gridOf(table), cell).find(
    (part) => part.letters !== undefined,
  )?.letters
  if (!letters) return null
  const { colour } = letters
  const key = `${letters.bold === true} ${colour === undefined ? "" : tinted(accentOf(styles), colour)}`
  let said = saidOfLetters.get(key)
  if (!said) {
    said = {
      ...(letters.bold ? { bold: true } : {}),
      ...(colour === undefined ? {} : { colour: tinted(accentOf(styles), colour) }),
    }
    saidOfLetters.set(key, said)
  }
  return said
}

/** What the look of its table says of the letters of a leaf; null where it is in none, or nothing is said. */
export function tableLetters(styles: StyleSheet, doc: Node, leaf: number): Partial<LetterFormat> | null {
  const leaves = leavesOf(doc)
  const flow = leaves.flow(leaf)
  // Most text stands in no table.
  if (flow.node.type.name !== "cell") return null
  const place = tableAt(doc.resolve(leaves.start(leaf)))
  return place && lettersOf(styles, place.table, place.cell)
}
