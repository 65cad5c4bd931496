/** Random documents of what every format of offices carries. */
import fc from "fast-check"
import { writePng } from "../../../apps/server/src/demo/png"
import {
  bodyOf,
  document,
  documentAttrs,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  table,
  tableFormat,
  type LetterFormat,
  type ParagraphFormat,
  type TableFormat,
} from "../src/document"
import { assetName } from "../src/formats/assets"
import type { Node } from "prosemirror-model"

export const png = writePng(8, 6, (x, y) => [x * 20, y * 20, 100])
export const picture = assetName(png)

const style = fc.constantFrom("body", "heading1", "heading3", "title", "quotation", "caption")
const words = fc.stringMatching(/^[a-zé .,&<"–אב\t]{1,12}$/)
const look: fc.Arbitrary<Partial<LetterFormat>> = fc.record(
  {
    bold: fc.boolean(),
    italic: fc.boolean(),
    size: fc.integer({ min: 2, max: 140 }).map((n) => n / 2),
    colour: fc.constantFrom("#7a1f4b", "#000000"),
    underline: fc.constantFrom("none", "single", "double", "thick", "dotted", "dashed", "wavy"),
    strike: fc.constantFrom("none", "single", "double"),
    caps: fc.constantFrom("none", "small", "all"),
    script: fc.constantFrom("none", "super", "sub"),
    highlight: fc.constantFrom("#ffee00", null),
    family: fc.constantFrom("Tinos", "Arimo", "Literata"),
    spacing: fc.integer({ min: -20, max: 80 }).map((n) => n / 20),
  },
  { requiredKeys: [] },
)
const inline = fc.oneof(
  { weight: 6, arbitrary: fc.tuple(words, look).map(([text, own]) => letters(text, own)) },
  {
    weight: 1,
    arbitrary: fc
      .tuple(words, fc.constantFrom("https://ferry.example/a?b=c&d", "#slack", "mailto:imre@ferry.example"))
      .map(([text, link]) => letters(text, { link })),
  },
  { weight: 1, arbitrary: fc.constant(nodes.lineBreak.create()) },
  {
    weight: 1,
    arbitrary: fc
      .tuple(fc.constantFrom("long", "full", "time", "dayMonth"), look)
      .map(([format, own]) => nodes.field.create({ kind: "date", format }).mark(letters("1", own).marks)),
  },
  {
    weight: 1,
    arbitrary: fc.constant(
      nodes.picture.create({
        asset: picture,
        source: null,
        pixels: [8, 6],
        format: { width: 40, height: 30, alt: "A buoy" },
      }),
    ),
  },
)
const twentieth = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 20)
const format: fc.Arbitrary<Partial<ParagraphFormat> | null> = fc.option(
  fc
    .record<Partial<ParagraphFormat>>(
      {
        align: fc.constantFrom("left", "center", "right", "justify"),
        direction: fc.constantFrom("ltr", "rtl"),
        lineSpacing: fc.constantFrom(
          { rule: "multiple", value: 1.5 },
          { rule: "exact", value: 14 },
          { rule: "atLeast", value: 9 },
        ),
        spaceBefore: twentieth(0, 400),
        spaceAfter: twentieth(0, 400),
        indentLeft: twentieth(-200, 900),
        indentFirst: twentieth(-400, 400),
        keepNext: fc.boolean(),
        breakBefore: fc.boolean(),
        shading: fc.constantFrom("#f4e4eb", null),
        list: fc.constantFrom(
          { definition: "numbers", run: "a", level: 0 },
          { definition: "marks", run: "b", level: 1 },
          { definition: "clauses", run: "c", level: 2 },
          { definition: "tasks", run: "d", level: 0, done: true },
        ),
      },
      { requiredKeys: [] },
    )
    .filter((own) => Object.keys(own).length > 0)
    // Where lines stand is said with the way they run.
    .map((own) => (own.direction && !own.align ? { ...own, align: "justify" as const } : own)),
)
const block = fc
  .tuple(style, fc.array(inline, { maxLength: 5 }), format)
  .map(([own, parts, said]) => paragraph(own, parts, said))
const tables = (cells: fc.Arbitrary<readonly Node[]>, columns: number[]) =>
  fc
    .tuple(
      fc.array(fc.array(cells, { minLength: 2, maxLength: 2 }), { minLength: 1, maxLength: 3 }),
      fc.boolean(),
      fc.constantFrom("left", "center", "right"),
      fc.record({ across: fc.integer({ min: 0, max: 9 }), down: fc.integer({ min: 0, max: 9 }) }),
    )
    .map(([rows, divides, align, padding]) =>
      table(rows, { look: "bare", headRows: 0, columns, divides, align, padding }),
    )
const one = block.map((own): readonly Node[] => [own])
/** Tables, and tables in their cells. */
const grid = tables(
  fc.oneof({ weight: 5, arbitrary: one }, { weight: 1, arbitrary: fc.tuple(block, tables(one, [36, 24]), block) }),
  [120, 90],
)
const setup = (width: number) =>
  nodes.sectionBreak.create({ setup: { ...documentAttrs(document([])).setup, width, begins: "sheet" } })
export const documents = fc
  .tuple(
    fc.array(
      fc.oneof(
        { weight: 6, arbitrary: block },
        { weight: 1, arbitrary: grid },
        { weight: 1, arbitrary: fc.constantFrom(500, 900).map(setup) },
      ),
      { maxLength: 8 },
    ),
    fc.boolean(),
  )
  .map(([blocks, noted]) => {
    const anchor = nodes.anchor.create({ story: "n" })
    const story = nodes.story.create({ key: "n", kind: "note" }, paragraph("note", ["Said."]))
    return document([p("Tides", ...(noted ? [anchor] : [])), ...blocks, p("End")], {}, noted ? [story] : [])
  })

/** A document without what a file names anew: runs of lists, keys of stories. */
export function plain(doc: Node): unknown {
  const runs = new Map<string, number>()
  return JSON.parse(
    JSON.stringify(doc.toJSON(), (name: string, value: unknown) => {
      if (name === "run" && typeof value === "string") {
        if (!runs.has(value)) runs.set(value, runs.size)
        return runs.get(value)
      }
      if (name === "key" || name === "story") return "n"
      return value && typeof value === "object" && !Array.isArray(value)
        ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
        : value
    }),
  )
}

export const lettersOf = (node: Node) =>
  Object.fromEntries(node.marks.map(({ type, attrs }) => [type.name, attrs.value as unknown]))

interface Ordered extends Pick<TableFormat, "divides" | "align" | "padding" | "columns"> {
  rows: (string | Ordered)[][][]
}

/** What stands one behind the other in the body or in a cell, and how its tables are. */
export const order = (doc: Node) => orderIn(bodyOf(doc))

function orderIn(parent: Node): (string | Ordered)[] {
  return parent.children.map((node) => {
    if (node.type.name !== "table") return node.type.name
    const { divides, align, padding, columns } = tableFormat(node)
    const rows = node.children.map((row) => row.children.map(orderIn))
    return { divides, align, padding, columns, rows }
  })
}

/** The paragraphs: style, text, letters and what else stands in them. */
export function said(doc: Node) {
  return leavesOf(doc).nodes.map((leaf) => ({
    text: leaf.textContent,
    style: leaf.attrs.style as string,
    letters: leaf.children.filter(({ isText, type }) => isText || type.name === "field").map(lettersOf),
    atoms: leaf.children.filter(({ isText }) => !isText).map(({ type }) => type.name),
  }))
}

/** The formats of the paragraphs of the body that say something. */
export function formatsOf(doc: Node): unknown[] {
  return bodyOf(doc)
    .children.filter((node) => node.isTextblock && node.childCount > 0)
    .map((node) => (plain(node) as { attrs: { format: object | null } }).attrs.format)
}
