/** Parts: begun, named, moved, taken away; what their sheets show at head and foot stays theirs. */
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { TextSelection, type EditorState } from "prosemirror-state"
import {
  bodyOf,
  document,
  edgeNames,
  edgeStory,
  edgeVariants,
  namedPartAt,
  namedParts,
  nodes,
  p,
  paragraph,
  sectionsOf,
  storiesOf,
  type PartName,
} from "../src/document"
import { checkDocument, readDocument } from "../src/document/reading"
import {
  addPart,
  deletePart,
  editHistory,
  joinPart,
  joinSections,
  movePart,
  redo,
  renamePart,
  setCover,
  startPart,
  startSection,
  undo,
  writeEdge,
  type Command,
} from "../src/editing"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { after, stateOf as told } from "./telling"

const stateOf = (blocks: Node[]) => told(blocks, [0, 0], [0, 0], [editHistory()])
const part = (name: string, sign: PartName["sign"] = null): PartName => ({ name, sign })
const names = ({ doc }: EditorState) => namedParts(doc).map(({ name }) => name)
const texts = ({ doc }: EditorState) =>
  namedParts(doc).map(({ start, end }) => doc.textBetween(start, end, "|").replace(/^\||\|$/g, ""))
const inParagraph = (state: EditorState, words: string, offset = 0) => {
  let pos = -1
  state.doc.descendants((node, at) => {
    if (pos < 0 && node.isTextblock && node.textContent.includes(words)) pos = at + 1 + offset
  })
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos)))
}

const three = () => {
  const whole = stateOf(["Ropes", "Chains", "Tides"].map((word) => p(word)))
  return after(
    inParagraph(after(inParagraph(whole, "Chains"), startPart(part("Chains", "anchor"))), "Tides"),
    startPart(part("Tides", "waves")),
  )
}

test("what stands before the first part gets a name of its own, by title, heading or else", () => {
  expect(names(three())).toEqual(["Opening", "Chains", "Tides"])
  const headed = stateOf([paragraph("heading1", ["Crossings"]), p("Ropes")])
  expect(names(after(inParagraph(headed, "Ropes"), startPart(part("Rope"))))).toEqual(["Crossings", "Rope"])
})

test("a part begins in the middle of a paragraph, at the start of the document, at the end", () => {
  const middle = after(inParagraph(stateOf([p("Ropes and chains")]), "Ropes", 6), startPart(part("Chains")))
  expect(texts(middle)).toEqual(["Ropes ", "and chains"])
  const start = after(inParagraph(stateOf([p("Ropes")]), "Ropes"), startPart(part("Ropes", "boat")))
  expect(namedParts(start.doc)).toMatchObject([{ name: "Ropes", sign: "boat", from: 0, to: 1 }])
  const end = after(start, addPart(part("Tides")))
  expect(names(end)).toEqual(["Ropes", "Tides"])
  expect(namedPartAt(end.doc, end.selection.head)).toBe(1)
  expect(names(after(end, undo))).toEqual(["Ropes"])
})

test("names are cut to what names may have, and are never nothing", () => {
  const state = three()
  expect(renamePart(1, { name: "   " })(state)).toBe(false)
  const long = after(state, renamePart(1, { name: `  Ropes\n${"x".repeat(300)}` }), renamePart(2, { sign: null }))
  expect(namedParts(long.doc)[1]!.name).toHaveLength(80)
  expect(namedParts(long.doc)[2]!.sign).toBeNull()
  expect(() => checkDocument(long.doc)).not.toThrow()
})

test("a part is moved with its sections, before the first and behind the last", () => {
  const state = three()
  const first = after(state, movePart(2, 0))
  expect([names(first), texts(first)]).toEqual([
    ["Tides", "Opening", "Chains"],
    ["Tides", "Ropes", "Chains"],
  ])
  const last = after(state, movePart(0, 3))
  expect([names(last), texts(last)]).toEqual([
    ["Chains", "Tides", "Opening"],
    ["Chains", "Tides", "Ropes"],
  ])
  expect(after(last, undo).doc.eq(state.doc)).toBe(true)
  expect(after(last, undo, redo).doc.eq(last.doc)).toBe(true)
  expect(movePart(1, 1)(state)).toBe(false)
  expect(movePart(1, 2)(state)).toBe(false)
  expect(namedPartAt(last.doc, last.selection.head)).toBe(2)
})

test("a part is joined with the one before it, or taken away with its text; the last one stays", () => {
  const state = three()
  const joined = after(state, joinPart(1))
  expect([names(joined), sectionsOf(joined.doc)]).toMatchObject([["Opening", "Tides"], { length: 3 }])
  expect(joinPart(0)(state)).toBe(false)
  const less = after(state, deletePart(0), deletePart(1))
  expect([names(less), texts(less)]).toEqual([["Chains"], ["Chains"]])
  expect(deletePart(0)(less)).toBe(false)
  expect(names(after(less, joinPart(0)))).toEqual([])
  // Its break taken away, its text goes on in the part before it.
  expect(texts(after(inParagraph(state, "Chains"), joinSections))).toEqual(["Ropes|Chains", "Tides"])
})

test("a section that begins inside a part is no part, and a cover belongs to the first one", () => {
  const sectioned = after(
    inParagraph(three(), "Tides", 3),
    startSection("sheet", (own) => own),
  )
  expect(names(sectioned)).toHaveLength(3)
  expect(names(after(three(), setCover("pier"), setCover(null)))).toEqual(["Opening", "Chains", "Tides"])
})

test("office documents carry parts, also those of one name; what opens a document without one stays so", () => {
  const whole = after(three(), renamePart(0, { name: "Tides & <ropes>" }), renamePart(1, { name: "Tides & <ropes>" }))
  for (const [write, read, third] of [
    [writeOfficeOpenXml, readOfficeOpenXml, "Tides & <ropes>"],
    [writeOpenDocument, readOpenDocument, "Tides & <ropes> 2"],
  ] as const) {
    const { doc } = read(write(whole.doc, { name: "Ropes", asset: () => undefined }))
    expect(namedParts(doc).map(({ name, sign, from }) => [name, sign, from])).toEqual([
      ["Tides & <ropes>", null, 0],
      [third, "anchor", 1],
      ["Tides", "waves", 2],
    ])
  }
})

test("documents of before have no parts", () => {
  const { part: _part, ...attrs } = document([p("Ropes")]).toJSON().attrs as Record<string, unknown>
  const old = readDocument({ ...(document([p("Ropes")]).toJSON() as object), attrs }, 7)
  expect(namedParts(old)).toEqual([])
})

/** What each section shows at its edges, by the words of its first block. */
function shownBy(state: EditorState): Map<string, string> {
  const sections = sectionsOf(state.doc)
  const shown = (section: number) =>
    edgeNames.flatMap((edge) =>
      edgeVariants.map((variant) => {
        const key = edgeStory(sections, section, edge, variant)
        return key === null ? "" : storiesOf(state.doc).get(key)!.node.textContent
      }),
    )
  return new Map(sections.map(({ block }, i) => [bodyOf(state.doc).child(block).textContent, shown(i).join("|")]))
}

const type: (words: string) => Command = (words) => (state, dispatch) => (dispatch?.(state.tr.insertText(words)), true)

test("whatever is moved, taken away and taken back, each section keeps its text and what its sheets show", () => {
  const section = fc.record({
    part: fc.option(fc.constantFrom("Ropes", "Chains", "Tides")),
    head: fc.option(fc.constantFrom("all" as const, "first" as const), { freq: 2 }),
  })
  const move = fc.record({ part: fc.nat(5), before: fc.nat(6), goes: fc.boolean() })
  fc.assert(
    fc.property(
      fc.array(section, { minLength: 2, maxLength: 6 }),
      fc.array(move, { minLength: 1, maxLength: 4 }),
      (sections, moves) => {
        let state = stateOf(sections.map((_, i) => p(`text ${i}`)))
        sections.forEach((own, i) => {
          const here = inParagraph(state, `text ${i}`)
          const begins =
            own.part !== null ? startPart(part(own.part)) : i > 0 && startSection("sheet", (setup) => setup)
          if (begins) state = after(here, begins)
        })
        sections.forEach(({ head }, i) => {
          const section = sectionsOf(state.doc)[i]
          if (head !== null && section) state = after(state, writeEdge("head", head, i, true), type(`head ${i}`))
        })
        state = inParagraph(state, "text 0")
        const begun = state
        let changes = 0
        for (const { part: index, before, goes } of moves) {
          const shown = shownBy(state)
          const command = goes ? deletePart(index) : movePart(index, before)
          if (!command(state)) continue
          const next = after(state, command)
          changes++
          expect(() => checkDocument(next.doc)).not.toThrow()
          const now = shownBy(next)
          for (const [words, edges] of now) expect([words, edges]).toEqual([words, shown.get(words)])
          if (!goes) expect(now.size).toBe(shown.size)
          expect(bodyOf(next.doc).lastChild?.type).toBe(nodes.paragraph)
          state = next
        }
        const back = after(state, ...Array.from({ length: changes }, () => undo))
        expect(back.doc.eq(begun.doc)).toBe(true)
      },
    ),
  )
})
