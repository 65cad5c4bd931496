import { nodes, p, paragraph, table, captionsOf, textOf, leavesOf } from "../src/document"
import { type EditorState } from "prosemirror-state"
import {
  insertCaption,
  insertContents,
  insertReference,
  insertText,
  referenceTargets,
  selectionBetween,
} from "../src/editing"
import { fragmentsOf, layoutDocument, shownText, type Layout } from "../src/layout"
import { typesetter } from "../node/typesetting"
import { after, shown, stateOf } from "./telling"

const at = (state: EditorState, leaf: number, offset = 0) => {
  const pos = leavesOf(state.doc).start(leaf) + offset
  return state.apply(state.tr.setSelection(selectionBetween(state.doc, pos, pos)))
}
const told = (layout: Layout) =>
  layout.placed.flatMap((placed) =>
    fragmentsOf(placed)
      .filter(({ from }) => from === 0)
      .map(({ paragraph: own }) => shownText(own)),
  )

const begun = () => stateOf([p("A chart."), table([[[p("Fare")]]]), p("Another chart."), p("See ")])

describe("captions", () => {
  test("are counted by their labels, above or below what they tell of", () => {
    let state = after(at(begun(), 0), insertCaption("Figure", "below"), insertText("Tides"))
    state = after(at(state, 2), insertCaption("Table", "above"), insertText("Fares"))
    state = after(at(state, 4), insertCaption("Figure", "below"), insertText("Times"))
    expect(told(layoutDocument(typesetter(), state.doc))).toEqual([
      "A chart.",
      "Figure 1: Tides",
      "Table 1: Fares",
      "Fare",
      "Another chart.",
      "Figure 2: Times",
      "See ",
    ])
    expect(captionsOf(state.doc).map(({ label, number }) => `${label} ${number}`)).toEqual([
      "Figure 1",
      "Table 1",
      "Figure 2",
    ])
  })

  test("references and lists of them are right after one comes before them, on layout taken over from before", () => {
    const filler = Array.from({ length: 60 }, () => p("The chain ferry crosses at slack water. ".repeat(9)))
    let state = stateOf([p("See "), ...filler, p("A chart.")])
    state = after(at(state, 61), insertCaption("Figure", "below"), insertText("Tides"))
    const [target] = referenceTargets(state.doc)
    state = after(
      at(state, 0, 4),
      insertReference(target!, "number"),
      insertText(" on "),
      insertReference(referenceTargets(state.doc)[0]!, "sheet"),
    )
    state = after(at(state, 0), insertContents({ levels: 1, look: "plain", of: "Figure" }))
    const before = layoutDocument(typesetter(), state.doc)
    const sheet = String(before.placed.length)
    expect(told(before).slice(0, 2)).toEqual([`Figure 1: Tides  ${sheet}`, `See Figure 1 on ${sheet}`])
    state = after(at(state, 1), insertCaption("Figure", "above"), insertText("First"))
    const now = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, before)
    expect(told(now).slice(0, 3)).toEqual([
      "Figure 1: First  1",
      `Figure 2: Tides  ${sheet}`,
      `See Figure 2 on ${sheet}`,
    ])
    expect(shown(now)).toEqual(shown(layoutDocument(typesetter(), state.doc)))
  })

  test("a reference to what is gone says so, and one to a heading shows its words", () => {
    let state = stateOf([paragraph("heading1", ["Tides"]), p("See ")])
    state = after(at(state, 1, 4), insertReference(referenceTargets(state.doc)[0]!, "words"))
    expect(told(layoutDocument(typesetter(), state.doc))).toEqual(["Tides", "See Tides"])
    state = after(at(state, 0), (own, dispatch) => (dispatch?.(own.tr.delete(0 + 1, 8)), true))
    expect(told(layoutDocument(typesetter(), state.doc)).at(-1)).toBe("See what is no longer there")
    expect(textOf(leavesOf(state.doc).node(0))).toContain("\ufffc")
    expect(nodes.field).toBeDefined()
  })
})
