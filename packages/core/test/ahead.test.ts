/** Sheets composed of those at hand, ahead of the whole. */
import fc from "fast-check"
import { type EditorState, TextSelection } from "prosemirror-state"
import { defaultSetup, leavesOf, nodes, paragraph, valuesNow } from "../src/document"
import * as editing from "../src/editing"
import { changeSetup, insertNote, placeNumbers, settleStories, startSection, writeEdge } from "../src/editing"
import {
  composeAhead,
  fragmentsOf,
  Furnisher,
  layoutDocument,
  receivedParagraph,
  sentParagraph,
  stackWith,
  withParagraphs,
  type Layout,
  type LayoutSpec,
  type ParagraphLayout,
  type PlacedSheet,
} from "../src/layout"
import { typesetter } from "../node/typesetting"
import { after, stateOf } from "./telling"

const small = { ...defaultSetup, width: 300, height: 300, margins: { top: 30, right: 30, bottom: 30, left: 30 } }
const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "
const at = (state: EditorState, leaf: number, offset = 0) =>
  state.apply(state.tr.setSelection(TextSelection.create(state.doc, leavesOf(state.doc).start(leaf) + offset)))

/** A document in which much may hang together. */
const made = fc.record({
  contents: fc.boolean(),
  columns: fc.constantFrom(1, 2),
  notes: fc.array(fc.tuple(fc.nat(19), fc.nat(3)), { maxLength: 5 }),
  restart: fc.constantFrom("document", "document", "sheet"),
  ends: fc.boolean(),
  section: fc.option(fc.constantFrom("sheet", "odd", "continuous"), { nil: null }),
  head: fc.boolean(),
  sides: fc.boolean(),
  lengths: fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 20, maxLength: 20 }),
})
type Made = typeof made extends fc.Arbitrary<infer T> ? T : never

function documentOf({ contents, columns, notes, restart, ends, section, head, sides, lengths }: Made): EditorState {
  const blocks = lengths.map((n, i) => {
    if (i % 7 === 5) return paragraph("heading1", [`Part ${i}`])
    const list = i % 5 === 3 ? { list: { definition: "numbers", run: "a", level: 0 } } : {}
    return paragraph("body", [`${i} ${sentence.repeat(n)}`], list)
  })
  let state = stateOf([...(contents ? [nodes.contents.create({ levels: 2, look: "dotted" })] : []), ...blocks])
  const setup = { ...small, mirrored: sides, columns: { ...small.columns, count: columns } }
  state = after(
    state,
    changeSetup(() => setup, "all", "Paper"),
  )
  if (section)
    state = after(
      at(state, 9),
      startSection(section, (own) => own),
    )
  for (const [leaf, n] of notes)
    state = after(
      at(state, leaf, 3),
      ends && n === 0 ? editing.insertEndnote : insertNote,
      editing.insertText(`Note ${sentence.repeat(n)}`),
    )
  if (restart === "sheet") state = after(state, editing.changeNotes("foot", { form: "decimal", restart }))
  if (head)
    state = after(
      state,
      writeEdge("head", "all", 0),
      editing.insertText("Ferry"),
      placeNumbers({ edge: "foot", part: 1 }, "%1 of %2"),
    )
  return state
}

/** As it comes from another thread: nothing in it is the same object. */
function sent({ sheet, leaf, furniture }: PlacedSheet): PlacedSheet {
  const across = (own: ParagraphLayout) => receivedParagraph(structuredClone(sentParagraph(own)))
  const all = new Map<number, ParagraphLayout>()
  const number = (own: ParagraphLayout) => (all.set(own.id, all.get(own.id) ?? across(own)), own.id)
  const back = (id: number) => all.get(id)!
  const crossed = withParagraphs(structuredClone(withParagraphs(sheet, number)), back)
  const edges = furniture?.map((one) => ({
    ...one,
    stack: stackWith(structuredClone(stackWith(one.stack, number)), back),
  }))
  return { sheet: crossed, leaf, ...(edges ? { furniture: edges } : {}) }
}

/** What stands where. @param whole whether with heads and feet, which say how many sheets there are */
function look(placed: PlacedSheet, whole: boolean) {
  const { leaf, sheet } = placed
  const { at, left, blank, owed } = sheet.start
  const fragments = fragmentsOf(placed)
    .filter(({ part }) => whole || (part !== "header" && part !== "footer"))
    .map(({ paragraph, part, leaf, x, y, width, from, to, frame }) => {
      const lines = paragraph.lines.slice(from, to).map((line) => [line.from, line.to, line.x, line.width, line.height])
      return { part, leaf, x, y, width, frame, text: paragraph.text, label: paragraph.label?.text, lines }
    })
  return { leaf, at, left, blank, owed, height: sheet.height, next: sheet.next, rules: sheet.rules, fragments }
}

/** Lines of strips, which may end elsewhere, by their height on all of them. */
function lines(strips: readonly PlacedSheet[]) {
  let top = 0
  return strips.flatMap((placed) => {
    const own = fragmentsOf(placed).flatMap(({ paragraph, part, leaf, y, from, to }) =>
      paragraph.lines.slice(from, to).map((line) => ({
        part,
        leaf,
        y: Math.round(100 * (top + y + line.top - paragraph.lines[from]!.top)) / 100,
        text: paragraph.text.slice(line.from, line.to),
      })),
    )
    top += placed.sheet.height
    return own
  })
}

const furnished = (layout: Layout, from = 0, to = layout.placed.length) => {
  const furnisher = new Furnisher(typesetter(), layout, valuesNow)
  return Array.from({ length: to - from }, (_, i) => furnisher.of(from + i))
}

const letter = fc.record({
  leaf: fc.nat(200),
  offset: fc.nat(400),
  text: fc.constantFrom("e", sentence, sentence.repeat(4), null),
})
const spec = fc.constantFrom<LayoutSpec>(
  { mode: "sheets" },
  { mode: "sheets" },
  { mode: "flow", width: 260, margin: 20 },
)
const window = fc.record({ before: fc.nat(2), behind: fc.nat(3), seen: fc.nat(2) })

/** A change of the text of one paragraph of the body. */
function written(state: EditorState, { leaf, offset, text }: typeof letter extends fc.Arbitrary<infer T> ? T : never) {
  const leaves = leavesOf(state.doc)
  const own = leaf % 20
  const from = leaves.start(own) + Math.min(offset, leaves.node(own).content.size)
  const $from = state.doc.resolve(from)
  const tr = text === null ? state.tr.delete(from, Math.min($from.end(), from + 90)) : state.tr.insertText(text, from)
  return { leaf: own, state: state.apply(settleStories(tr)) }
}

test("what is composed of the sheets at hand, as they come from another thread, is what the whole comes to", () => {
  const outcomes = { said: 0, left: 0, several: 0 }
  fc.assert(
    fc.property(made, fc.array(fc.tuple(letter, window), { minLength: 1, maxLength: 4 }), spec, (own, letters, how) => {
      let state = documentOf(own)
      let layout = layoutDocument(typesetter(), state.doc, how)
      for (const [typed, { before, behind, seen }] of letters) {
        const { leaf, state: next } = written(state, typed)
        // What takes a mark away takes its note away too.
        if (leavesOf(next.doc).count !== leavesOf(state.doc).count) return
        const first = layout.placed.findIndex((placed) => placed.leaf + placed.sheet.next.leaf >= leaf)
        const from = Math.max(0, first - before)
        const to = Math.min(layout.placed.length, first + 1 + behind)
        const sheets = furnished(layout, from, to).map(sent)
        const hand = { doc: state.doc, sheets, from, count: layout.placed.length, pages: new Map(layout.pages) }
        const ahead = composeAhead(typesetter(), hand, next.doc, how, leaf, first + seen)
        const now = layoutDocument(typesetter(), next.doc, how, layout)
        const samePages = [...now.pages].every(([at, page]) => layout.pages.get(at) === page)
        if (ahead && samePages) {
          const all = furnished(now)
          const whole = now.placed.length === layout.placed.length
          // What is not told of stays as it was.
          const shown = sheets
            .map((own, i) => ahead.get(from + i) ?? own)
            .slice(0, Math.max(...ahead.keys(), first + seen - 1) + 1 - from)
          if (how.mode === "flow") expect(lines(all.slice(from)).slice(0, lines(shown).length)).toEqual(lines(shown))
          else
            expect(shown.map((placed) => look(placed, whole))).toEqual(
              all.slice(from, from + shown.length).map((placed) => look(placed, whole)),
            )
          expect([...ahead.values()].flatMap(fragmentsOf).some((at) => at.leaf === leaf && at.part === "text")).toBe(
            true,
          )
        }
        outcomes[ahead ? "said" : "left"]++
        if (ahead && ahead.size > 1) outcomes.several++
        state = next
        layout = now
      }
    }),
    { numRuns: 120 },
  )
  // Not all can be said, with few sheets at hand and marks that are counted on each.
  expect(outcomes.said).toBeGreaterThan(outcomes.left / 3)
  expect(outcomes.several).toBeGreaterThan(10)
})
