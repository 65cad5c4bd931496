/**
 * Formulas in the cells of tables: fields of the kind "formula", whose value is computed from other cells whenever it is asked for.
 * Cells are called by column and row (B2), ranges by their corners (B2:B5); `column` is all cells above in the same column below
 * the head, `row` all cells before in the same row. The text is parsed by jsep; what may stand in it is an allow-list.
 */
import jsep from "jsep"
import type { Node } from "prosemirror-model"
import { readNumber } from "./cellValues"
import { childrenThat } from "./children"
import { fieldAttrs } from "./fields"
import { cellAt, gridOf, leafOfCell, type Grid, type GridCell } from "./grid"
import { knownLanguage } from "./language"
import { blocksOf, leavesIn, leavesOfBody, ofStories, structuresOf } from "./leaves"
import { bodyOf, documentAttrs } from "./schema"
import { tableFormat } from "./tables"

/** How the value is written: as many decimals, or as percent; null for as many as it has. */
export interface Formula {
  expression: string
  decimals: number | "percent" | null
}

/** The formula of a field, from its format. */
export function formulaOf(format: string): Formula {
  const match = /^([0-6%]?):/.exec(format)
  if (!match) return { expression: format, decimals: null }
  const form = match[1] ?? ""
  return {
    expression: format.slice(match[0].length),
    decimals: form === "" ? null : form === "%" ? "percent" : Number(form),
  }
}

export function formulaFormat({ expression, decimals }: Formula): string {
  return `${decimals === "percent" ? "%" : (decimals ?? "")}:${expression}`
}

/** Why a formula has no value, in words for its cell. */
export class FormulaError extends Error {
  override name = "FormulaError"
}

const most = 10_000

/** What functions make of the numbers in their ranges. */
const functions: Readonly<Record<string, (numbers: readonly number[]) => number>> = {
  sum: (all) => all.reduce((sum, own) => sum + own, 0),
  average: (all) => {
    if (all.length === 0) throw new FormulaError("No numbers to average")
    return all.reduce((sum, own) => sum + own, 0) / all.length
  },
  count: (all) => all.length,
  min: (all) => (all.length === 0 ? 0 : all.reduce((a, b) => Math.min(a, b))),
  max: (all) => (all.length === 0 ? 0 : all.reduce((a, b) => Math.max(a, b))),
  product: (all) => all.reduce((product, own) => product * own, 1),
  round: ([number = 0, decimals = 0]) => Math.round(number * 10 ** decimals) / 10 ** decimals,
  abs: ([number = 0]) => Math.abs(number),
}
export const formulaFunctions = Object.keys(functions)

const parser = jsep
parser.removeAllBinaryOps()
for (const [sign, strength] of [
  ["+", 9],
  ["-", 9],
  ["*", 10],
  ["/", 10],
  ["^", 11],
] as const)
  parser.addBinaryOp(sign, strength)
parser.addBinaryOp(":", 12)
parser.removeAllUnaryOps()
parser.addUnaryOp("-")
parser.addUnaryOp("+")

/** A formula as it is typed: with or without the sign = before it, semicolons between values, × and ÷. */
function parse(expression: string): jsep.Expression {
  const text = expression.replace(/^\s*=/, "").replaceAll(";", ",").replaceAll("×", "*").replaceAll("÷", "/")
  if (text.length > 400) throw new FormulaError("The formula is too long")
  if (/\(\s*\(\s*\(\s*\(\s*\(\s*\(\s*\(\s*\(\s*\(/.test(text)) throw new FormulaError("Too many brackets")
  try {
    return parser(text)
  } catch {
    throw new FormulaError("The formula cannot be read")
  }
}

interface Place {
  row: number
  column: number
}

function placeNamed(name: string): Place | null {
  const match = /^([A-Za-z]{1,2})([1-9]\d{0,4})$/.exec(name)
  if (!match) return null
  const column = [...(match[1] as string).toUpperCase()].reduce(
    (sum, letter) => sum * 26 + letter.charCodeAt(0) - 64,
    0,
  )
  return { row: Number(match[2]) - 1, column: column - 1 }
}

/** What a cell is called in formulas, such as B2. */
export function cellName({ row, column }: Place): string {
  const letters = column >= 26 ? String.fromCharCode(64 + Math.floor(column / 26)) : ""
  return `${letters}${String.fromCharCode(65 + (column % 26))}${row + 1}`
}

/** What a cell holds: a number, or what it says. */
type Value = number | string

class Sheet {
  private readonly grid: Grid
  private readonly values = new Map<Node, Value>()
  private readonly asked = new Set<Node>()
  private steps = 0

  constructor(
    private readonly table: Node,
    private readonly language: string,
  ) {
    this.grid = gridOf(table)
  }

  /** @throws FormulaError */
  private at({ row, column }: Place): Value {
    const cell = cellAt(this.grid, row, column)
    if (!cell) throw new FormulaError(`${cellName({ row, column })} is not in this table`)
    return this.valueOf(cell)
  }

  private valueOf(cell: GridCell): Value {
    const known = this.values.get(cell.node)
    if (known !== undefined) return known
    if (this.asked.has(cell.node)) throw new FormulaError("The formula refers to itself")
    this.asked.add(cell.node)
    if (++this.steps > most) throw new FormulaError("The formula asks for too many cells")
    let text = ""
    let computed: number | null = null
    cell.node.descendants((node) => {
      if (node.isText) text += node.text ?? ""
      else if (node.type.name === "field" && fieldAttrs(node).kind === "formula")
        computed = this.compute(formulaOf(fieldAttrs(node).format).expression, cell)
      // What stands in a table of its own is no value of this one.
      return node.type.name !== "table"
    })
    this.asked.delete(cell.node)
    const value: Value =
      computed !== null && text.trim() === "" ? computed : (readNumber(text, this.language) ?? text.trim())
    this.values.set(cell.node, value)
    return value
  }

  /** The value of a formula that stands in a cell. @throws FormulaError */
  compute(expression: string, cell: GridCell): number {
    const value = this.evaluate(parse(expression), cell)
    if (!Number.isFinite(value)) throw new FormulaError("The value is too large")
    return value
  }

  private range(from: Place, to: Place): Value[] {
    const found: Value[] = []
    const [top, bottom] = [Math.min(from.row, to.row), Math.max(from.row, to.row)]
    const [left, right] = [Math.min(from.column, to.column), Math.max(from.column, to.column)]
    if (bottom >= this.grid.rows || right >= this.grid.columns)
      throw new FormulaError(`${cellName({ row: bottom, column: right })} is not in this table`)
    for (let row = top; row <= bottom; row++)
      for (const cell of this.grid.begun(row))
        if (cell.column >= left && cell.column <= right) found.push(this.valueOf(cell))
    return found
  }

  /** The cells that a name or range stands for; null where it stands for one value. */
  private several(node: jsep.Expression, cell: GridCell): Value[] | null {
    if (node.type === "Identifier") {
      const name = (node as jsep.Identifier).name.toLowerCase()
      const heads = Math.min(tableFormat(this.table).headRows, this.grid.rows)
      if (name === "column")
        return cell.row <= heads
          ? []
          : this.range({ row: heads, column: cell.column }, { row: cell.row - 1, column: cell.column })
      if (name === "row")
        return cell.column === 0
          ? []
          : this.range({ row: cell.row, column: 0 }, { row: cell.row, column: cell.column - 1 })
      return null
    }
    if (node.type !== "BinaryExpression" || (node as jsep.BinaryExpression).operator !== ":") return null
    const { left, right } = node as jsep.BinaryExpression
    const [from, to] = [left, right].map((side) =>
      side.type === "Identifier" ? placeNamed((side as jsep.Identifier).name) : null,
    )
    if (!from || !to) throw new FormulaError("A range is written as B2:B5")
    return this.range(from, to)
  }

  private evaluate(node: jsep.Expression, cell: GridCell): number {
    if (++this.steps > most) throw new FormulaError("The formula is too long")
    switch (node.type) {
      case "Literal": {
        const { value } = node as jsep.Literal
        if (typeof value !== "number") throw new FormulaError("A formula holds numbers, cells and functions")
        return value
      }
      case "Identifier": {
        const { name } = node as jsep.Identifier
        const place = placeNamed(name)
        if (!place) throw new FormulaError(`“${name}” is no cell`)
        const value = this.at(place)
        if (value === "") return 0
        if (typeof value !== "number") throw new FormulaError(`${name.toUpperCase()} is no number`)
        return value
      }
      case "UnaryExpression": {
        const { operator, argument } = node as jsep.UnaryExpression
        return (operator === "-" ? -1 : 1) * this.evaluate(argument, cell)
      }
      case "BinaryExpression":
        return this.calculated(node as jsep.BinaryExpression, cell)
      case "CallExpression":
        return this.called(node as jsep.CallExpression, cell)
      default:
        throw new FormulaError("The formula cannot be read")
    }
  }

  private calculated({ operator, left, right }: jsep.BinaryExpression, cell: GridCell): number {
    if (operator === ":") throw new FormulaError("A range stands in a function, such as sum(B2:B5)")
    const [a, b] = [this.evaluate(left, cell), this.evaluate(right, cell)]
    switch (operator) {
      case "+":
        return a + b
      case "-":
        return a - b
      case "*":
        return a * b
      case "/":
        if (b === 0) throw new FormulaError("Divided by nothing")
        return a / b
      default:
        return a ** b
    }
  }

  private called({ callee, arguments: given }: jsep.CallExpression, cell: GridCell): number {
    const name = callee.type === "Identifier" ? (callee as jsep.Identifier).name.toLowerCase() : ""
    const call = Object.hasOwn(functions, name) ? functions[name] : undefined
    if (!call) throw new FormulaError(`There is no function “${name}”`)
    const numbers = given.flatMap((argument) => {
      const all = this.several(argument, cell)
      // Words and empty cells of a range count for nothing.
      return all ? all.filter((value): value is number => typeof value === "number") : [this.evaluate(argument, cell)]
    })
    return call(numbers)
  }
}

/** A number in the words of a language. */
export function writeNumber(value: number, decimals: Formula["decimals"], language: string): string {
  const digits =
    decimals === null
      ? { maximumFractionDigits: 6 }
      : decimals === "percent"
        ? { style: "percent" as const, maximumFractionDigits: 2 }
        : { minimumFractionDigits: decimals, maximumFractionDigits: decimals }
  return new Intl.NumberFormat(knownLanguage(language), digits).format(value)
}

/** What a formula shows that stands in a cell: its value, or in words why it has none. */
export function formulaValue(table: Node, cell: GridCell, format: string, language: string): string {
  const { expression, decimals } = formulaOf(format)
  try {
    return writeNumber(new Sheet(table, language).compute(expression, cell), decimals, language)
  } catch (error) {
    if (error instanceof FormulaError) return error.message
    throw error
  }
}

/** Whether anything in a node computes. */
function computes(node: Node): boolean {
  if (node.type.name === "field") return fieldAttrs(node).kind === "formula"
  return node.type.name === "table" ? rowsThatCompute(node).length > 0 : node.children.some(computes)
}
const rowsThatCompute = childrenThat(computes)

/** What the formulas of one leaf show, by their fields. */
export type Computed = ReadonlyMap<Node, string>
type ByLeaf = ReadonlyMap<number, Computed>
const none: ByLeaf = new Map()
const inTables = new WeakMap<Node, { language: string; computed: ByLeaf }>()

/** What the formulas of a table show, and of those in its cells, by its leaves. */
function computedIn(table: Node, language: string): ByLeaf {
  const known = inTables.get(table)
  if (known?.language === language) return known.computed
  const found = new Map<number, Computed>()
  const grid = gridOf(table)
  for (const row of rowsThatCompute(table))
    for (const cell of grid.begun(row)) {
      let leaf = leafOfCell(table, cell)
      for (const block of cell.node.children) {
        const fields = block.isTextblock ? block.children.filter(computes) : []
        if (fields.length > 0)
          found.set(
            leaf,
            new Map(fields.map((field) => [field, formulaValue(table, cell, fieldAttrs(field).format, language)])),
          )
        if (block.type.name === "table")
          for (const [inside, computed] of computedIn(block, language)) found.set(leaf + inside, computed)
        leaf += leavesIn(block)
      }
    }
  inTables.set(table, { language, computed: found })
  return found
}

/** The tables that stand in stories, with their first leaves counted from the end of the body. */
const besideBody = ofStories((stories) => {
  const tables: { table: Node; leaf: number }[] = []
  let leaf = 0
  for (const { node } of stories)
    for (const block of node.children) {
      if (block.type.name === "table") tables.push({ table: block, leaf })
      leaf += leavesIn(block)
    }
  return tables
})

const inDocuments = new WeakMap<Node, ByLeaf>()

/** What the formulas in the tables of a document show, by leaf. */
export function formulasOf(doc: Node): ByLeaf {
  let known = inDocuments.get(doc)
  if (!known) {
    known = computedInTables(doc)
    inDocuments.set(doc, known)
  }
  return known
}

function computedInTables(doc: Node): ByLeaf {
  const body = bodyOf(doc)
  const tables = structuresOf(body, "table")
  const beside = besideBody(doc)
  if (tables.length === 0 && beside.length === 0) return none
  const language = documentAttrs(doc).styles.defaults.letters.language
  let all: Map<number, Computed> | null = null
  const add = (table: Node, first: number) => {
    for (const [leaf, computed] of computedIn(table, language)) (all ??= new Map()).set(first + leaf, computed)
  }
  for (const i of tables) add(body.child(i), blocksOf(body).leaf(i))
  for (const { table, leaf } of beside) add(table, leavesOfBody(doc) + leaf)
  return all ?? none
}
