import fc from "fast-check"
import type { Node } from "prosemirror-model"
import type { EditorState } from "prosemirror-state"
import {
  bodyStyle,
  defaultStyles,
  directSpans,
  document,
  documentAttrs,
  inSet,
  leavesOf,
  letterLook,
  letters,
  lookSets,
  p,
  paragraph,
  paragraphAttrs,
  paragraphLook,
  readyLists,
  trailOf,
  type LetterFormat,
  type ParagraphFormat,
  headingsOf,
} from "../src/document"
import { readDocument } from "../src/document/reading"
import {
  changeStyle,
  changeStyleFormat,
  clearLetters,
  clearParagraphs,
  coloursInUse,
  deleteBackward,
  deleteStyle,
  differsFromStyle,
  editHistory,
  enter,
  familiesInUse,
  insertRule,
  insertText,
  layLook,
  letterStyleValue,
  letterValue,
  moveSection,
  newStyle,
  numberHeadings,
  paragraphValue,
  pickUpLook,
  placeTab,
  promoteSection,
  removeFormat,
  removeLetters,
  replaceSheet,
  resetToStyle,
  selectAll,
  setBorder,
  setDropCap,
  setLetters,
  setLetterStyle,
  setParagraphs,
  setStyle,
  stepIndent,
  stylesInUse,
  toggleDirection,
  trailMarks,
  undo,
  updateStyle,
} from "../src/editing"
import { labelsOf } from "../src/document"
import { after, stateOf, styles, texts } from "./telling"

const sheetOf = (state: EditorState) => documentAttrs(state.doc).styles
const lookAt = (state: EditorState, block: number) => {
  const node = leavesOf(state.doc).node(block)
  const look = paragraphLook(sheetOf(state), node)
  return { paragraph: look.paragraph, letters: letterLook(sheetOf(state), look.letters, node.firstChild?.marks ?? []) }
}

describe("styles", () => {
  const twoHeadings = () =>
    stateOf(
      [
        paragraph("heading1", [letters("Mooring", { colour: "#7a1f4b", italic: true })], { align: "center" }),
        p("text"),
        paragraph("heading1", ["Ferry"]),
      ],
      [0, 0],
      [0, 7],
    )

  test("a style made to look like its paragraph changes all that have it, and the paragraph keeps nothing by hand", () => {
    const state = after(twoHeadings(), updateStyle)
    expect(lookAt(state, 2)).toMatchObject({
      paragraph: { align: "center" },
      letters: { colour: "#7a1f4b", italic: true },
    })
    expect(paragraphAttrs(leavesOf(state.doc).node(0)).format).toBeNull()
    expect(leavesOf(state.doc).node(0).firstChild!.marks).toEqual([])
    expect(differsFromStyle(state)).toBe(false)
    expect(updateStyle(state)).toBe(false)
  })

  test("a new style from the selection starts from the old one and is laid on at once", () => {
    const state = after(twoHeadings(), newStyle("Call", "paragraph"))
    expect(styles(state.doc)).toEqual(["call", "body", "heading1"])
    expect(sheetOf(state).styles.call).toMatchObject({
      name: "Call",
      parent: "heading1",
      outline: 1,
      paragraph: { align: "center" },
      letters: { italic: true },
    })
    expect(after(state, selectAll, newStyle("Call", "paragraph")).doc.attrs.styles.styles["call-2"].name).toBe("Call 2")
    expect(newStyle("  ", "paragraph")(state)).toBe(false)
  })

  test("a style of letters changes words, under what is set by hand", () => {
    let state = after(
      stateOf([p("the east slip")], [0, 4], [0, 8]),
      setLetters("colour", "#7a1f4b"),
      newStyle("Place", "letters"),
    )
    expect(letterStyleValue(state)).toBe("place")
    expect(letterValue(state, "colour")).toBe("#7a1f4b")
    state = after(state, changeStyleFormat("place", { letters: { colour: "#3b6b4c", bold: true } }))
    expect([letterValue(state, "colour"), letterValue(state, "bold")]).toEqual(["#3b6b4c", true])
    state = after(state, setLetters("bold", false))
    expect(letterValue(state, "bold")).toBe(false)
    expect(letterStyleValue(after(state, setLetterStyle(null)))).toBeNull()
  })

  test("what used a style that is removed falls to its parent", () => {
    let state = after(
      twoHeadings(),
      newStyle("Call", "paragraph"),
      changeStyle("heading2", { parent: "call", next: "call" }),
    )
    state = after(state, deleteStyle("call"))
    expect(styles(state.doc)[0]).toBe("heading1")
    expect(sheetOf(state).styles.heading2).toMatchObject({ parent: "heading1", next: null })
    expect(deleteStyle(bodyStyle)(state)).toBe(false)
  })

  test("parents do not go round in a circle, and nothing can be said is let go of", () => {
    const state = stateOf([p("x")])
    expect(changeStyle("body", { parent: "heading1" })(state)).toBe(false)
    const said = after(state, changeStyleFormat("quotation", { letters: { italic: undefined } }))
    expect(sheetOf(said).styles.quotation!.letters).toEqual({})
  })

  test("back to the style: all that was set by hand goes, the place in a list stays", () => {
    const list = { definition: "numbers", run: "a", level: 1 }
    const state = after(
      stateOf([
        paragraph("body", [letters("a", { size: 20 }), letters("b", { link: "https://a.example", bold: true })], {
          align: "right",
          list,
        }),
      ]),
      selectAll,
    )
    const reset = after(state, resetToStyle)
    expect(paragraphAttrs(leavesOf(reset.doc).node(0)).format).toEqual({ list })
    expect(
      leavesOf(reset.doc)
        .node(0)
        .lastChild!.marks.map(({ type }) => type.name),
    ).toEqual(["link"])
    expect(resetToStyle(reset)).toBe(false)
    expect(paragraphAttrs(leavesOf(after(state, clearParagraphs).doc).node(0)).format).toEqual({ list })
    expect(letterValue(after(state, clearLetters), "size")).toBe(12)
  })

  test("headings get numbers through one list", () => {
    const state = after(
      stateOf([
        paragraph("heading1", ["a"]),
        paragraph("heading2", ["b"]),
        p("x"),
        paragraph("heading2", ["c"]),
        paragraph("heading1", ["d"]),
      ]),
      numberHeadings("chapters"),
    )
    expect(labelsOf(state.doc)).toEqual(["1", "1.1", null, "1.2", "2"])
    expect(labelsOf(after(state, numberHeadings("appendices")).doc)).toEqual(["A", "A.1", null, "A.2", "B"])
    expect(labelsOf(after(state, numberHeadings(null)).doc)).toEqual([null, null, null, null, null])
  })

  test("which are in use, and which faces and colours", () => {
    const { doc } = stateOf([paragraph("title", ["T"]), p("x", letters("y", { family: "Inter", colour: "#a8281e" }))])
    expect([...stylesInUse(doc)]).toEqual(["title", "body"])
    expect(familiesInUse(doc)).toEqual(["Literata", "Tinos", "Inter"])
    expect(coloursInUse(doc)).toEqual(["#1e1a16", "#a8281e"])
  })
})

test("a set changes faces and colours of all styles in one change, and leaves sizes alone", () => {
  expect(lookSets.length).toBeGreaterThanOrEqual(8)
  const state = stateOf(
    [paragraph("title", ["T"]), paragraph("heading1", ["H"]), p("x")],
    [0, 0],
    [0, 0],
    [editHistory()],
  )
  for (const look of lookSets) {
    const dressed = after(
      state,
      replaceSheet((sheet) => inSet(sheet, look), look.name),
    )
    expect(lookAt(dressed, 0).letters).toMatchObject(look.title)
    expect(lookAt(dressed, 1).letters).toMatchObject({ ...look.heading, size: 18 })
    expect(lookAt(dressed, 2).letters).toMatchObject(look.text)
    expect(readDocument(dressed.doc.toJSON()).eq(dressed.doc)).toBe(true)
    expect(after(dressed, undo).doc.eq(state.doc)).toBe(true)
  }
})

describe("match look", () => {
  const state = () =>
    stateOf(
      [
        paragraph("quotation", [letters("seen", { bold: true, colour: "#7a1f4b" })], { align: "right" }),
        p(letters("plain", { size: 20, link: "https://a.example" })),
        paragraph("body", ["item"], { list: { definition: "marks", run: "m", level: 0 } }),
      ],
      [0, 1],
    )
  const select = (from: EditorState, block: number) =>
    stateOf(leavesOf(from.doc).nodes as Node[], [block, 0], [block, 4])

  test("lays letters, paragraph or both; links and places in lists stay", () => {
    const look = pickUpLook(state())
    const lettersOnly = after(select(state(), 1), layLook(look, "letters"))
    expect(lookAt(lettersOnly, 1)).toMatchObject({
      letters: { bold: true, colour: "#7a1f4b", size: 12, link: "https://a.example" },
      paragraph: { align: "left" },
    })
    const both = after(select(state(), 2), layLook(look, "both"))
    expect(styles(both.doc)[2]).toBe("quotation")
    expect(lookAt(both, 2)).toMatchObject({
      letters: { bold: true, italic: true },
      paragraph: { align: "right", list: { run: "m" } },
    })
    expect(lookAt(after(select(state(), 1), layLook(look, "paragraph")), 1).letters).toMatchObject({
      size: 20,
      bold: false,
    })
  })

  test("at a caret, letters wait for what is typed next", () => {
    const typed = after(stateOf([p("x")], [0, 1]), layLook(pickUpLook(state()), "letters"), insertText("y"))
    expect(
      leavesOf(typed.doc)
        .node(0)
        .lastChild!.marks.map(({ type }) => type.name)
        .sort(),
    ).toEqual(["bold", "colour"])
  })
})

describe("what is left in an empty paragraph", () => {
  test("is what its last letter looked like, is taken by what is typed, and is not kept beside text", () => {
    const emptied = after(stateOf([p(letters("x", { bold: true }))], [0, 1]), deleteBackward)
    expect(paragraphAttrs(leavesOf(emptied.doc).node(0)).letters).toEqual({ bold: true })
    expect(directSpans(leavesOf(emptied.doc).node(0))).toEqual([
      { property: "bold", value: true, from: 0, to: 0, empty: true },
    ])
    const typed = after(stateOf(leavesOf(emptied.doc).nodes as Node[]), insertText("y"))
    expect(letterValue(after(typed, selectAll), "bold")).toBe(true)
    expect(paragraphAttrs(leavesOf(typed.doc).node(0)).letters).toBeNull()
    expect(paragraphAttrs(leavesOf(after(emptied, removeLetters("bold", 2, 2)).doc).node(0)).letters).toBeNull()
  })

  test("is also what was chosen there, and goes on with Enter", () => {
    const chosen = after(stateOf([p()]), setLetters("size", 20))
    expect(paragraphAttrs(leavesOf(chosen.doc).node(0)).letters).toEqual({ size: 20 })
    const next = after(chosen, insertText("big"), enter)
    expect(paragraphAttrs(leavesOf(next.doc).node(1)).letters).toEqual({ size: 20 })
  })
})

describe("the trail", () => {
  test("says in order what shapes a text; the last one wins", () => {
    const list = { definition: "marks", run: "m", level: 1 }
    const state = stateOf(
      [paragraph("quotation", [letters("seen", { italic: false, letterStyle: "strong" })], { indentLeft: 90, list })],
      [0, 2],
    )
    const trail = trailOf(defaultStyles, leavesOf(state.doc).node(0), trailMarks(state))
    const of = (property: string) =>
      trail
        .find((entry) => entry.property === property)!
        .sayings.map(({ source, value }) => [source.kind, "name" in source ? source.name : null, value])
    expect(of("italic")).toEqual([
      ["default", null, false],
      ["style", "Quotation", true],
      ["direct", null, false],
    ])
    expect(of("bold")).toEqual([
      ["default", null, false],
      ["letterStyle", "Strong", true],
    ])
    expect(of("indentLeft")).toEqual([
      ["default", null, 0],
      ["style", "Quotation", 28],
      ["list", readyLists.marks!.name, 40],
      ["direct", null, 90],
    ])
    expect(trail.findIndex(({ sayings }) => sayings.length === 1)).toBeGreaterThan(
      trail.findIndex(({ property }) => property === "italic"),
    )
  })

  test("never says anything but the resolved look", () => {
    const letterFormats: fc.Arbitrary<Partial<LetterFormat>> = fc.record(
      {
        bold: fc.boolean(),
        size: fc.integer({ min: 6, max: 40 }),
        colour: fc.constantFrom("#7a1f4b", "#1f4f7a"),
        caps: fc.constantFrom("none", "small", "all"),
        underline: fc.constantFrom("none", "wavy"),
      },
      { requiredKeys: [] },
    )
    const formats: fc.Arbitrary<Partial<ParagraphFormat>> = fc.record(
      {
        align: fc.constantFrom("left", "right"),
        indentLeft: fc.integer({ min: 0, max: 90 }),
        keepNext: fc.boolean(),
        list: fc.constantFrom(null, { definition: "clauses", run: "", level: 2 }),
      },
      { requiredKeys: [] },
    )
    const words = fc.tuple(letterFormats, fc.constantFrom(undefined, "strong", "code", "nowhere"), fc.boolean())
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.keys(defaultStyles.styles).filter((key) => !defaultStyles.styles[key]!.kind), "gone"),
        formats,
        words,
        (style, format, [own, letterStyle, link]) => {
          const text = letters("x", {
            ...own,
            ...(letterStyle ? { letterStyle } : {}),
            ...(link ? { link: "https://a.example" } : {}),
          })
          const node = paragraph(style, [text], Object.keys(format).length > 0 ? format : null)
          const look = paragraphLook(defaultStyles, node)
          const resolved = { paragraph: look.paragraph, letters: letterLook(defaultStyles, look.letters, text.marks) }
          for (const entry of trailOf(defaultStyles, node, text.marks))
            expect(entry.sayings.at(-1)!.value).toEqual(
              (resolved[entry.of] as unknown as Record<string, unknown>)[entry.property],
            )
        },
      ),
      { numRuns: 300 },
    )
  })

  test("shows where each piece set by hand begins and ends, also those on nothing but blanks", () => {
    const node = p(
      "The ",
      letters("east", { bold: true }),
      letters(" ", { bold: true, size: 9 }),
      "slip",
      letters("  ", { underline: "single" }),
    )
    expect(directSpans(node)).toEqual([
      { property: "bold", value: true, from: 4, to: 9, empty: false },
      { property: "size", value: 9, from: 8, to: 9, empty: true },
      { property: "underline", value: "single", from: 13, to: 15, empty: true },
    ])
  })
})

describe("sections", () => {
  const paper = () =>
    stateOf(
      [
        p("before"),
        paragraph("heading1", ["One"]),
        p("a"),
        paragraph("heading2", ["One one"]),
        p("b"),
        paragraph("heading1", ["Two"]),
        paragraph("heading3", ["Deep"]),
        p("c"),
      ],
      [0, 0],
      [0, 0],
      [editHistory()],
    )

  test("are a heading and all up to the next of its level; skipped levels are known", () => {
    expect(headingsOf(paper().doc).map(({ text, level, leaf, end, skips }) => [text, level, leaf, end, skips])).toEqual(
      [
        ["One", 1, 1, 5, false],
        ["One one", 2, 3, 5, false],
        ["Two", 1, 5, 8, false],
        ["Deep", 3, 6, 8, true],
      ],
    )
  })

  test("move with all in them, there and back, in one change", () => {
    const down = after(paper(), moveSection(1, 8))
    expect(texts(down.doc)).toEqual(["before", "Two", "Deep", "c", "One", "a", "One one", "b"])
    expect(texts(after(down, undo).doc)).toEqual(texts(paper().doc))
    expect(texts(after(paper(), moveSection(5, 1)).doc)).toEqual([
      "before",
      "Two",
      "Deep",
      "c",
      "One",
      "a",
      "One one",
      "b",
    ])
    expect(moveSection(1, 3)(paper())).toBe(false)
    expect(moveSection(0, 3)(paper())).toBe(false)
  })

  test("are promoted and demoted with the headings in them", () => {
    expect(styles(after(paper(), promoteSection(1, 1)).doc).slice(1, 5)).toEqual([
      "heading2",
      "body",
      "heading3",
      "body",
    ])
    expect(promoteSection(1, -1)(paper())).toBe(false)
    expect(styles(after(paper(), promoteSection(6, -1)).doc)[6]).toBe("heading2")
  })

  test("keep every block, wherever one moves them", () => {
    const block = fc.oneof(
      fc.constantFrom(1, 2, 3).map((level) => paragraph(`heading${level}`, ["h"])),
      fc.nat(9).map((n) => p(String(n))),
    )
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 12 }), fc.nat(12), fc.nat(12), (blocks, from, to) => {
        const state = stateOf(blocks)
        let next: EditorState = state
        moveSection(from, to)(state, (tr) => (next = state.apply(tr)))
        expect(texts(next.doc).sort()).toEqual(texts(state.doc).sort())
      }),
    )
  })
})

describe("formatting of paragraphs", () => {
  const one = () => stateOf([p("text")], [0, 2])
  const format = (state: EditorState) => paragraphAttrs(leavesOf(state.doc).node(0)).format

  test("goes in steps of indent, and not out of the text area by them", () => {
    const twice = after(one(), stepIndent(1), stepIndent(1))
    expect(paragraphValue(twice, "indentLeft")).toBe(36)
    expect(format(after(twice, stepIndent(-1), stepIndent(-1)))).toBeNull()
    expect(stepIndent(-1)(one())).toBe(false)
  })

  test("puts, moves and removes tab stops in order", () => {
    const stop = (position: number) => ({ position, align: "left", leader: "none" }) as const
    const two = after(one(), placeTab(stop(200)), placeTab(stop(100)))
    expect(paragraphValue(two, "tabs")!.map(({ position }) => position)).toEqual([100, 200])
    expect(paragraphValue(after(two, placeTab(stop(250), 100)), "tabs")!.map(({ position }) => position)).toEqual([
      200, 250,
    ])
    expect(format(after(two, placeTab(null, 100), placeTab(null, 200)))).toBeNull()
  })

  test("borders by side and all round; a cap; the other direction turns the alignment", () => {
    const border = { pattern: "solid", width: 1, colour: "#1e1a16", distance: 4 } as const
    const round = after(one(), setBorder("around", border), setBorder("top", null))
    expect(Object.keys(paragraphValue(round, "borders")!)).toEqual(["right", "bottom", "left"])
    expect(paragraphValue(after(one(), setDropCap({ lines: 3, distance: 6, family: null })), "dropCap")!.lines).toBe(3)
    expect(format(after(one(), toggleDirection))).toEqual({ direction: "rtl", align: "right" })
    expect(format(after(one(), toggleDirection, toggleDirection))).toBeNull()
    expect(format(after(round, removeFormat(1, "borders")))).toBeNull()
  })

  test("what the style says anyway is not said twice", () => {
    const state = stateOf([paragraph("quotation", ["x"])])
    expect(format(after(state, setParagraphs({ indentLeft: 90 }), setParagraphs({ indentLeft: 28 })))).toBeNull()
    expect(format(after(after(state, setParagraphs({ align: "right" })), setStyle("heading1")))).toBeNull()
  })

  test("a line across stands below, and one goes on under it", () => {
    const state = after(one(), insertRule, insertText("on"))
    expect(texts(state.doc)).toEqual(["text", "", "on"])
    expect(paragraphAttrs(leavesOf(state.doc).node(1)).format!.borders!.bottom).toBeDefined()
  })
})

test("a document from before these properties opens with what a new one has", () => {
  const old = document([p("x")]).toJSON() as {
    attrs: Record<string, unknown> & {
      styles: { defaults: { letters: Record<string, unknown>; paragraph: Record<string, unknown> } }
    }
  }
  const json = structuredClone(old) as typeof old & {
    attrs: { typesetting?: unknown; styles: { fonts?: unknown; lists?: unknown } }
  }
  delete json.attrs.typesetting
  delete json.attrs.styles.fonts
  delete json.attrs.styles.lists
  for (const name of ["caps", "highlight", "familyComplex"]) delete json.attrs.styles.defaults.letters[name]
  for (const name of ["tabs", "list", "direction"]) delete json.attrs.styles.defaults.paragraph[name]
  expect(readDocument(json, 1).eq(document([p("x")]))).toBe(true)
})
