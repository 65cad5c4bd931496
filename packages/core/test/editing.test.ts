import fc from "fast-check"
import { document, leavesOf, letters, p, paragraph } from "../src/document"
import {
  deleteBackward,
  deleteForward,
  deleteWordBackward,
  deleteWordForward,
  editHistory,
  insertLineBreak,
  insertText,
  letterValue,
  moveHorizontally,
  paragraphValue,
  pasteText,
  redo,
  selectAll,
  selectedText,
  setLetters,
  setParagraphs,
  setStyle,
  splitParagraph,
  stepSize,
  styleValue,
  toggleBold,
  toggleUnderline,
  undo,
  wordAround,
  type Command,
} from "../src/editing"
import { countingWords, countWords } from "../src/checking"
import { after, stateOf, styles, texts, told } from "./telling"

describe("typing", () => {
  test("goes in at the caret, over a selection, and over paragraphs", () => {
    expect(told(after(stateOf([p("ferry")], [0, 5]), insertText(" crosses")))).toBe("ferry crosses|")
    expect(told(after(stateOf([p("one"), p("two")], [0, 1], [1, 2]), insertText("X")))).toBe("oX|o")
    expect(told(after(stateOf([p("one"), p("two")], [0, 1], [1, 2]), pasteText("a\r\nb\nc")))).toBe("oa\nb\nc|o")
  })

  test("keeps the look of the letters before it; at the start of a paragraph of those behind", () => {
    const bold = letters("bold", { bold: true })
    expect(letterValue(after(stateOf([p(bold, " plain")], [0, 4]), insertText("er")), "bold")).toBe(true)
    expect(letterValue(after(stateOf([p(bold)], [0, 0]), insertText("very ")), "bold")).toBe(true)
  })

  test("Backspace takes what people see as one character, but an accent by itself", () => {
    expect(told(after(stateOf([p("x👩‍🚀")], [0, 6]), deleteBackward))).toBe("x|")
    expect(told(after(stateOf([p("xe\u0301")], [0, 3]), deleteBackward))).toBe("xe|")
    expect(told(after(stateOf([p("🇬🇧x")], [0, 0]), deleteForward))).toBe("|x")
  })

  test("by word, and at the edges paragraphs are joined", () => {
    expect(told(after(stateOf([p("the chain ferry")], [0, 10]), deleteWordBackward))).toBe("the |ferry")
    expect(told(after(stateOf([p("the chain ferry")], [0, 3]), deleteWordForward))).toBe("the| ferry")
    expect(told(after(stateOf([p("one"), p("two")], [1, 0]), deleteBackward))).toBe("one|two")
    expect(told(after(stateOf([p("one"), p("two")], [0, 3]), deleteForward))).toBe("one|two")
    expect(deleteBackward(stateOf([p("one")], [0, 0]))).toBe(false)
  })

  test("joining an empty paragraph to a heading keeps the heading", () => {
    const joined = after(stateOf([p(), paragraph("heading1", ["Mooring"])], [1, 0]), deleteBackward)
    expect(styles(joined.doc)).toEqual(["heading1"])
    expect(told(joined)).toBe("|Mooring")
  })
})

describe("Enter", () => {
  test("after a heading returns to body, in the middle of it makes two headings", () => {
    expect(styles(after(stateOf([paragraph("heading1", ["Mooring"])], [0, 7]), splitParagraph).doc)).toEqual([
      "heading1",
      "body",
    ])
    expect(styles(after(stateOf([paragraph("heading1", ["Mooring"])], [0, 4]), splitParagraph).doc)).toEqual([
      "heading1",
      "heading1",
    ])
  })

  test("keeps direct formatting and the look of letters, but not a break before", () => {
    const split = after(
      stateOf([paragraph("body", [letters("x", { bold: true })], { align: "right", breakBefore: true })], [0, 1]),
      splitParagraph,
      insertText("y"),
    )
    expect(split.doc.child(0).child(1).attrs.format).toEqual({ align: "right" })
    expect(letterValue(split, "bold")).toBe(true)
  })

  test("with Shift makes a new line in the paragraph", () => {
    expect(texts(after(stateOf([p("ab")], [0, 1]), insertLineBreak).doc)).toEqual(["a\nb"])
  })
})

describe("letters", () => {
  test("a button knows on, off and mixed; toggling a mixed selection puts it on", () => {
    const mixed = stateOf([p(letters("a", { bold: true }), "b")], [0, 0], [0, 2])
    expect(letterValue(mixed, "bold")).toBeUndefined()
    const on = after(mixed, toggleBold)
    expect(letterValue(on, "bold")).toBe(true)
    expect(letterValue(after(on, toggleBold), "bold")).toBe(false)
  })

  test("bold can be taken off inside a bold style, and a value of the style leaves no mark", () => {
    const heading = stateOf([paragraph("heading1", ["ab"])], [0, 0], [0, 1])
    const off = after(heading, toggleBold)
    expect(off.doc.child(0).child(0).child(0).marks[0]?.attrs.value).toBe(false)
    expect(after(off, toggleBold).doc.eq(heading.doc)).toBe(true)
  })

  test("without a selection a choice holds for what is typed next", () => {
    const state = after(stateOf([p("a")], [0, 1]), setLetters("colour", "#7a1f4b"), insertText("b"), insertText("c"))
    expect(state.doc.child(0).child(0).toString()).toBe('paragraph("a", colour("bc"))')
  })

  test("sizes step through the list", () => {
    const selected = stateOf([p("ab")], [0, 0], [0, 2])
    expect(letterValue(after(selected, stepSize(1)), "size")).toBe(14)
    expect(letterValue(after(selected, setLetters("size", 72.5), stepSize(-1)), "size")).toBe(72)
    expect(letterValue(after(selected, setLetters("size", 72), stepSize(1)), "size")).toBe(84)
    expect(stepSize(1)(after(selected, setLetters("size", 999)))).toBe(false)
  })

  test("each stretch of a mixed selection steps from its own value; a kind of line stays what it is", () => {
    const mixed = stateOf(
      [p(letters("a", { size: 12 }), letters("b", { size: 20, underline: "wavy" }))],
      [0, 0],
      [0, 2],
    )
    const sizes = (state: typeof mixed) =>
      state.doc
        .child(0)
        .child(0)
        .children.map(({ marks }) => marks.find(({ type }) => type.name === "size")?.attrs.value as number)
    expect(sizes(after(mixed, stepSize(1)))).toEqual([14, 24])
    expect(sizes(after(mixed, stepSize(-1), stepSize(-1)))).toEqual([10.5, 16])
    const lines = (state: typeof mixed) =>
      state.doc
        .child(0)
        .child(0)
        .children.map(({ marks }) => marks.find(({ type }) => type.name === "underline")?.attrs.value as string)
    const lined = after(mixed, toggleUnderline)
    expect(lines(lined)).toEqual(["single", "wavy"])
    expect(lines(after(lined, toggleUnderline))).toEqual([undefined])
  })
})

describe("paragraphs", () => {
  test("formats go on all selected ones; what the style says anyway is not kept", () => {
    const state = stateOf([p("one"), p("two"), p("three")], [0, 1], [1, 1])
    const right = after(state, setParagraphs({ align: "right" }))
    expect(paragraphValue(right, "align")).toBe("right")
    expect(paragraphValue(after(right, selectAll), "align")).toBeUndefined()
    expect(after(right, setParagraphs({ align: "left" })).doc.eq(state.doc)).toBe(true)
  })

  test("a style replaces direct formatting of the paragraph and leaves that of letters", () => {
    const state = after(
      stateOf([paragraph("body", [letters("x", { italic: true })], { align: "right" })]),
      setStyle("heading2"),
    )
    expect(styleValue(state)).toBe("heading2")
    expect(state.doc.child(0).child(0).attrs.format).toBeNull()
    expect(letterValue(state, "italic")).toBe(true)
    expect(setStyle("nothing")(state)).toBe(false)
  })
})

describe("movement", () => {
  test("goes by character and word, and from paragraph to paragraph", () => {
    const state = stateOf([p("ab cd"), p("ef")])
    const go = (from: number, direction: -1 | 1, unit: "character" | "word") =>
      moveHorizontally(state, from, direction, unit)
    expect([
      go(2, 1, "character"),
      go(2, 1, "word"),
      go(4, 1, "word"),
      go(7, 1, "character"),
      go(9, -1, "character"),
    ]).toEqual([3, 4, 7, 9, 7])
    expect([go(2, -1, "word"), go(11, 1, "word")]).toEqual([2, 11])
  })

  test("the word around an offset, not the space behind it", () => {
    expect(wordAround("the ferry, now", 6)).toEqual({ from: 4, to: 9 })
    expect(wordAround("the ferry", 3)).toEqual({ from: 0, to: 3 })
    expect(wordAround("the ferry", 9)).toEqual({ from: 4, to: 9 })
    expect(wordAround("", 0)).toEqual({ from: 0, to: 0 })
  })
})

test("the selected text divides paragraphs by a line feed", () => {
  expect(selectedText(after(stateOf([p("one"), p("two")]), selectAll))).toBe("one\ntwo")
})

test("words are counted as people count them", () => {
  expect(countWords("It’s 9 o’clock — the well-kept ferry, e.g. now.")).toBe(8)
  expect(countWords("  ")).toBe(0)
  const doc = document([p("one two"), p("three"), p("four five six")])
  /** The words of a range, and how many blocks were looked at. */
  const counted = (from?: number, to?: number) => {
    const counting = countingWords(doc, from, to)
    let blocks = 0
    let step = counting.next()
    for (; !step.done; step = counting.next()) blocks++
    return [step.value, blocks]
  }
  const [first, second, third] = [0, 1, 2].map((leaf) => leavesOf(doc).before(leaf)) as [number, number, number]
  expect(counted()).toEqual([6, 3])
  // From the middle of "two" to behind "five": the rest of "two", "three", "four five".
  expect(counted(first + 6, third + 10)).toEqual([4, 3])
  expect(counted(second + 1, second + 6)).toEqual([1, 1])
})

test("undoing everything leads back to the start, redoing to the end, whatever was done", () => {
  const act = fc.oneof(
    fc.record({ kind: fc.constant("type" as const), text: fc.constantFrom("a", "ferry ", "é", "\n"), at: fc.nat(60) }),
    fc.record({
      kind: fc.constantFrom("split" as const, "back" as const, "bold" as const, "style" as const, "right" as const),
      text: fc.constant(""),
      at: fc.nat(60),
    }),
  )
  const heading = setStyle("heading1")
  const command: Record<string, Command> = {
    style: heading,
    split: splitParagraph,
    back: deleteBackward,
    bold: toggleBold,
    right: setParagraphs({ align: "right" }),
  }
  fc.assert(
    fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
      const start = stateOf([p("The chain lies"), p("on the bed.")], [0, 0], [0, 0], [editHistory()])
      let state = start
      for (const { kind, text, at } of acts) {
        const positions = state.doc.content.size - 2
        const from = Math.min(2 + (at % positions), positions)
        state = state.apply(state.tr.setSelection((state.selection.constructor as any).near(state.doc.resolve(from))))
        const run = kind === "type" ? insertText(text) : (command[kind] as Command)
        run(state, (tr) => (state = state.apply(tr)))
      }
      const end = state.doc
      while (undo(state, (tr) => (state = state.apply(tr))));
      expect(state.doc.eq(start.doc)).toBe(true)
      while (redo(state, (tr) => (state = state.apply(tr))));
      expect(state.doc.eq(end)).toBe(true)
    }),
    { numRuns: 150 },
  )
})
