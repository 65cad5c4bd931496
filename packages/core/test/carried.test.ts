/** What is remembered from the document before a change is what a document that was never seen before gives. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import {
  captionsOf,
  changedLeaves,
  computedOf,
  formulaFormat,
  gridOf,
  headingsOf,
  labelsOf,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  table,
} from "../src/document"
import { readDocument } from "../src/document/reading"
import { settle } from "../src/editing"
import { stateOf } from "./telling"

const caption = (label: string, name: string) =>
  paragraph("caption", [
    letters(`${label} `, { place: name }),
    nodes.field.create({ kind: "caption", format: label }),
    `: ${name}`,
  ])
const reference = (part: string, name: string) =>
  p("See ", nodes.field.create({ kind: "reference", format: `${part} ${name}` }))
const names = ["Tides", "Fares", "The chain"] as const
const name = fc.constantFrom(...names)
const sum = () =>
  p(nodes.field.create({ kind: "formula", format: formulaFormat({ expression: "sum(A1:A2)", decimals: 0 }) }))

/** A table of numbers with a sum, and a caption inside. */
const counted = (first: number) =>
  table([
    [[p(String(first))], [p("fares")]],
    [[p("2")], [sum()]],
  ])

const block: fc.Arbitrary<Node> = fc.oneof(
  fc.constant(p("The ferry waits.")),
  fc.constant(paragraph("heading1", ["Part"])),
  fc.constant(paragraph("body", ["Item"], { list: { definition: "numbers", run: "a", level: 0 } })),
  fc.tuple(fc.constantFrom("Figure", "Table"), name).map((own) => caption(...own)),
  fc.tuple(fc.constantFrom("number", "words"), name).map((own) => reference(...own)),
  fc.nat(9).map(counted),
)

type Change = [where: number, kind: "letter" | "number" | "gone" | "twice" | "put" | "row", by: Node]
const change: fc.Arbitrary<Change> = fc.tuple(
  fc.nat(100),
  fc.constantFrom(
    "letter" as const,
    "number" as const,
    "gone" as const,
    "twice" as const,
    "put" as const,
    "row" as const,
  ),
  block,
)

/** One change, as commands make it. */
function changed(state: EditorState, [where, kind, by]: Change): EditorState {
  const body = state.doc.child(0)
  const index = where % body.childCount
  let pos = 1
  for (let i = 0; i < index; i++) pos += body.child(i).nodeSize
  const own = body.child(index)
  const leaves = leavesOf(state.doc)
  const { tr } = state
  if (kind === "letter") tr.insertText("e", leaves.start(where % leaves.count))
  else if (kind === "number") tr.insertText("3", leaves.end(where % leaves.count))
  else if (kind === "gone" && body.childCount > 1) tr.delete(pos, pos + own.nodeSize)
  else if (kind === "twice") tr.insert(pos, own)
  else if (kind === "put") tr.insert(pos, by)
  // A row that is short of a cell: the table is made whole.
  else if (kind === "row" && own.type === nodes.table) tr.insert(pos + 1, nodes.row.create(null, own.child(0).child(0)))
  return state.apply(settle(tr))
}

/** All that is computed of a document, in plain values. */
const computed = (doc: Node) => ({
  captions: captionsOf(doc).map(({ leaf, label, number, text }) => [leaf, label, number, text]),
  shown: [...computedOf(doc, new Map())]
    .map(([leaf, own]): [number, string[]] => [leaf, [...own.values()]])
    .sort(([a], [b]) => a - b),
  headings: headingsOf(doc).map(({ leaf, text, end }) => [leaf, text, end]),
  labels: labelsOf(doc),
  places: Array.from({ length: leavesOf(doc).count }, (_, leaf) => [
    leavesOf(doc).before(leaf),
    leavesOf(doc).flow(leaf).kind,
  ]),
  whole: doc.child(0).children.map((own) => own.type !== nodes.table || gridOf(own).whole),
})

test("captions, references, formulas, headings, labels and places after changes are those of a document that is read anew", () => {
  fc.assert(
    fc.property(
      fc.array(block, { minLength: 1, maxLength: 8 }),
      fc.array(change, { minLength: 1, maxLength: 8 }),
      (blocks, changes) => {
        let state = stateOf(blocks)
        computed(state.doc)
        for (const own of changes) {
          state = changed(state, own)
          const now = computed(state.doc)
          expect(now).toEqual(computed(readDocument(state.doc.toJSON())))
          expect(now.whole.every(Boolean)).toBe(true)
        }
      },
    ),
    { numRuns: 60 },
  )
})

test("a letter in a table of many rows changes one leaf, and the leaves around it are the same ones", () => {
  const rows = 3000
  const state = stateOf([
    p("Before"),
    table(Array.from({ length: rows }, (_, i) => [[p(`${i}`)], [p("crossing")]])),
    p(),
  ])
  const middle = rows + 1
  const typed = state.apply(settle(state.tr.insertText("e", leavesOf(state.doc).start(middle))))
  expect(changedLeaves(state.doc, typed.doc)).toEqual({ from: middle, oldTo: middle + 1, newTo: middle + 1 })
  const [before, now] = [leavesOf(state.doc), leavesOf(typed.doc)]
  expect(now.count).toBe(2 * rows + 2)
  for (const leaf of [0, 1, middle - 1, middle + 1, 2 * rows, 2 * rows + 1]) {
    expect(now.node(leaf)).toBe(before.node(leaf))
    expect(now.before(leaf) - before.before(leaf)).toBe(leaf > middle ? 1 : 0)
    expect(now.at(now.start(leaf))).toBe(leaf)
  }
})
