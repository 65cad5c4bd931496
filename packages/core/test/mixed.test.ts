/** Shaping a selection that is not of one kind, and a style as a whole. */
import {
  bodyOf,
  defaultStyles,
  document,
  documentAttrs,
  inSet,
  leavesOf,
  letters,
  lookSets,
  p,
  paragraph,
  paragraphLook,
  schema,
  styleLook,
  headingsOf,
} from "../src/document"
import {
  backTabKey,
  changeStyle,
  changeStyleFamily,
  cycleHeading,
  deleteSelection,
  dragSelection,
  editHistory,
  insertText,
  newStyle,
  numberHeadings,
  placeTab,
  priceLine,
  removeFormatHere,
  selectAll,
  setStyle,
  tabKey,
  toggleHanging,
  undo,
  updateStyle,
  withBorder,
  type Command,
} from "../src/editing"
import { writeHtml } from "../src/formats/html"
import { writeText } from "../src/formats/text"
import { labelsOf } from "../src/document"
import { layoutOf, pdfOf } from "../node/typesetting"
import { after, stateOf, styles, texts, told } from "./telling"
import { Slice } from "prosemirror-model"

const sheet = (state: ReturnType<typeof stateOf>) => documentAttrs(state.doc).styles
const formats = (state: ReturnType<typeof stateOf>) =>
  leavesOf(state.doc).nodes.map((block) => block.attrs.format as object | null)

describe("headings", () => {
  const start = () =>
    stateOf(
      [paragraph("heading1", ["Tides"]), p("text"), paragraph("heading2", [letters("Fares", { italic: true })])],
      [0, 0],
    )

  test("share a style: what is changed there shows in all of them, whatever they said themselves", () => {
    const state = after(start(), changeStyleFamily("heading", { letters: { colour: "#1f4f7a", size: 15 } }))
    for (const key of ["heading1", "heading2", "heading9"])
      expect(styleLook(sheet(state), key).letters).toMatchObject({ colour: "#1f4f7a", size: 15 })
    expect(styleLook(sheet(state), "body").letters.size).toBe(12)
    // What starts from Body keeps what it says.
    const wide = after(
      start(),
      changeStyleFamily("body", { paragraph: { lineSpacing: { rule: "multiple", value: 2 } } }),
    )
    expect(styleLook(sheet(wide), "quotation").paragraph.lineSpacing.value).toBe(2)
    expect(styleLook(sheet(wide), "heading1").paragraph.lineSpacing.value).toBe(1.1)
    expect(changeStyleFamily("emphasis", {})(start())).toBe(false)
  })

  test("get the face and colour of a set from there, so that one may change it afterwards", () => {
    const look = lookSets.find(({ id }) => id === "slipway")!
    const set = inSet(defaultStyles, look)
    expect(styleLook(set, "heading3").letters).toMatchObject(look.heading)
    expect(set.styles.heading3!.letters.colour).toBeUndefined()
  })

  test("one key goes a level deeper each time, and from the fourth back to text", () => {
    let state = stateOf([p("Tides")])
    const seen = Array.from({ length: 6 }, () => styles((state = after(state, cycleHeading)).doc)[0])
    expect(seen).toEqual(["heading1", "heading2", "heading3", "heading4", "body", "heading1"])
  })

  test("Tab before a numbered one changes its level, and the number follows", () => {
    const numbered = after(start(), numberHeadings("chapters"))
    const deeper = after(numbered, tabKey)
    expect([styles(deeper.doc), labelsOf(deeper.doc)]).toEqual([
      ["heading2", "body", "heading2"],
      ["1.1", null, "1.2"],
    ])
    expect(styles(after(deeper, backTabKey).doc)[0]).toBe("heading1")
    // Without numbers it is a tab.
    expect(texts(after(start(), tabKey).doc)[0]).toBe("\tTides")
  })
})

describe("styles made from what is selected", () => {
  test("words keep what only some of them have", () => {
    const mixed = stateOf(
      [p(letters("red ", { colour: "#a8281e", bold: true }), letters("ink", { bold: true }))],
      [0, 0],
      [0, 7],
    )
    const state = after(mixed, newStyle("Loud", "letters"))
    expect(sheet(state).styles.loud).toMatchObject({ kind: "letters", letters: { bold: true } })
    expect(
      leavesOf(state.doc)
        .node(0)
        .children.map(({ marks }) => marks.map(({ type }) => type.name).sort()),
    ).toEqual([["colour", "letterStyle"], ["letterStyle"]])
  })

  test("the look of a selected word can become its style's", () => {
    const state = after(stateOf([p("The ", letters("chain", { italic: true }), " lies")], [0, 4], [0, 9]), updateStyle)
    expect(styleLook(sheet(state), "body").letters.italic).toBe(true)
    expect(updateStyle(stateOf([p("The ", letters("chain", { italic: true }))], [0, 0], [0, 3]))).toBe(false)
  })

  test("a name belongs to one style", () => {
    const state = stateOf([p("x")])
    expect(changeStyle("quotation", { name: " Caption " })(state)).toBe(false)
    expect(sheet(after(state, changeStyle("quotation", { name: "Said\tby others" }))).styles.quotation!.name).toBe(
      "Said by others",
    )
  })
})

describe("paragraphs that differ", () => {
  const two = () =>
    stateOf(
      [
        paragraph("body", ["a"], {
          indentLeft: 20,
          borders: { top: { pattern: "solid", width: 1, colour: "#000000", distance: 2 } },
        }),
        p("b"),
      ],
      [0, 0],
      [1, 1],
    )

  test("hanging goes on and off, also twice", () => {
    const on = after(two(), toggleHanging)
    expect(formats(on)[1]).toEqual({ indentLeft: 28, indentFirst: -28 })
    expect(formats(after(on, toggleHanging))[1]).toBeNull()
  })

  test("a property by hand is taken off all of them", () => {
    expect(formats(after(two(), removeFormatHere("borders")))[0]).toEqual({ indentLeft: 20 })
    expect(removeFormatHere("borders")(stateOf([p("b")]))).toBe(false)
    expect(withBorder({}, "around", null)).toEqual({})
  })

  test("a price line ends at the edge of the text, and tab stops have an end", () => {
    const state = after(two(), priceLine)
    for (const block of leavesOf(state.doc).nodes)
      expect(paragraphLook(sheet(state), block).paragraph.tabs).toEqual([
        { position: 453.54, align: "right", leader: "dotted" },
      ])
    let full = stateOf([p("x")])
    for (let i = 0; i < 60; i++) full = after(full, placeTab({ position: i, align: "left", leader: "none" }))
    expect(placeTab({ position: 900, align: "left", leader: "none" })(full)).toBe(false)
    expect(placeTab({ position: 900, align: "left", leader: "none" }, 3)(full)).toBe(true)
  })
})

describe("what goes and comes", () => {
  const item = (text: string) => paragraph("list", [text], { list: { definition: "marks", run: "a", level: 0 } })

  test("a list that is deleted as a whole leaves no mark, one undo brings it back", () => {
    const start = stateOf([item("oars"), item("chain")], [0, 0], [0, 0], [editHistory()])
    const gone = after(start, selectAll, deleteSelection)
    expect([texts(gone.doc), labelsOf(gone.doc)]).toEqual([[""], [null]])
    expect(after(gone, undo).doc.eq(start.doc)).toBe(true)
  })

  test("a word that is carried leaves one blank and stands apart", () => {
    const carried = (to: number, ...blocks: Parameters<typeof stateOf>[0]) =>
      told(after(stateOf(blocks, [0, 4], [0, 9]), dragSelection(to, false) as Command))
    expect(carried(2, p("The chain lies"))).toBe("[chain] The lies")
    expect(carried(16, p("The chain lies"))).toBe("The lies [chain]")
    expect(carried(19, p("The chain lies"), p("low"))).toBe("The lies\nl [chain] ow")
  })

  test("fields are text in what leaves the document", () => {
    const field = schema.nodes.field!.create({ kind: "date", format: "year" })
    const year = String(new Date().getFullYear())
    const doc = document([paragraph("heading1", ["Season ", field]), p("Since ", field)])
    expect(writeText(doc)).toBe(`Season ${year}\n\nSince ${year}\n`)
    expect(headingsOf(doc)[0]?.text).toBe(`Season ${year}`)
    expect(Buffer.from(pdfOf(layoutOf(doc), "x")).length).toBeGreaterThan(0)
    const month = schema.nodes.field!.create({ kind: "date", format: "monthYear" }, null, [
      schema.marks.language!.create({ value: "de" }),
    ])
    expect(writeHtml(new Slice(bodyOf(document([p(month)])).content, 0, 0), defaultStyles)).toContain(
      new Intl.DateTimeFormat("de", { month: "long", year: "numeric" }).format(new Date()),
    )
    expect(after(stateOf([p("x")]), insertText("y"), setStyle("heading2")).doc.child(0).childCount).toBe(1)
  })
})
