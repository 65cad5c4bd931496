/** Shaped content that goes out and comes in: HTML, plain text, other documents; and what is refused. */
import fc from "fast-check"
import { Slice, type Node } from "prosemirror-model"
import { EditorState, TextSelection } from "prosemirror-state"
import {
  bodyOf,
  defaultStyles,
  document,
  documentAttrs,
  labelsOf,
  leavesOf,
  letters,
  listPlace,
  p,
  paragraph,
  paragraphAttrs,
  withTypedLists,
  type LetterFormat,
  type ListPlace,
  type ParagraphFormat,
} from "../src/document"
import { readDocument, ReadingError } from "../src/document/reading"
import {
  broughtBy,
  correct,
  deleteBackward,
  deleteSelection,
  dragSelection,
  enter,
  insertText,
  pasteSlice,
  pasteText,
  selectAll,
  selectedSlice,
  selectedText,
  setLetters,
} from "../src/editing"
import { inLocalLook, readHtml, writeHtml } from "../src/formats/html"
import { readText, writeText } from "../src/formats/text"
import { after, stateOf, texts } from "./telling"

const slice = (...blocks: Node[]) => new Slice(bodyOf(document(blocks)).content, 0, 0)
const back = (html: string) => readHtml(html).content.content as Node[]
const marksOf = (node: Node) =>
  Object.fromEntries(node.marks.map(({ type, attrs }) => [type.name, attrs.value as unknown]))

describe("HTML", () => {
  const properties: Partial<LetterFormat>[] = [
    { strike: "single" },
    { strike: "double" },
    { script: "super" },
    { script: "sub" },
    { underline: "wavy", underlineColour: null },
    { underline: "double" },
    { caps: "small" },
    { caps: "all" },
    { highlight: "#f4e3b5" },
    { spacing: 1.5 },
    { raise: 4 },
    { kerning: false },
    { ligatures: false },
    { shadow: true },
    { language: "de-AT" },
  ]
  test.each(properties)("carries %j there and back", (format) => {
    const [read] = back(writeHtml(slice(p("a ", letters("b", format), " c")), defaultStyles))
    const { underlineColour: _mixed, ...wanted } = format
    expect(marksOf(read!.child(1))).toMatchObject(wanted)
    expect(read!.textContent).toBe("a b c")
  })

  test("carries direction, borders, background and lines across", () => {
    const border = { pattern: "dashed", width: 1.5, colour: "#1f4f7a", distance: 3 } as const
    const html = writeHtml(
      slice(
        paragraph("body", ["x"], { direction: "rtl", align: "right" }),
        paragraph("body", ["y"], { borders: { top: border, bottom: border }, shading: "#dcebe0" }),
        paragraph("body", [], { borders: { bottom: border } }),
      ),
      defaultStyles,
    )
    expect(html).toContain("<hr>")
    const [rtl, framed, across] = back(html).map((node) => paragraphAttrs(node).format)
    expect(rtl).toMatchObject({ direction: "rtl", align: "right" })
    expect(framed).toMatchObject({ shading: "#dcebe0", borders: { top: border, bottom: border } })
    expect(Object.keys(across!.borders!)).toEqual(["bottom"])
  })

  test("of other programs: tags for the same things", () => {
    const [line] = back(
      "<p>H<sub>2</sub>O is <del>not</del> <mark>here</mark>, <font color='#7a1f4b'>said</font> <cite>Nell</cite></p>",
    )
    expect(line!.content.content.map((child) => [child.text, marksOf(child)])).toEqual([
      ["H", {}],
      ["2", { script: "sub" }],
      ["O is ", {}],
      ["not", { strike: "single" }],
      [" ", {}],
      ["here", { highlight: "#f4e3b5" }],
      [", ", {}],
      ["said", { colour: "#7a1f4b" }],
      [" ", {}],
      ["Nell", { italic: true }],
    ])
    expect(back("<h5>five</h5><hr><p>x</p>").map((node) => node.attrs.style as string)).toEqual([
      "heading5",
      "body",
      "body",
    ])
  })

  test("lists of any depth and kind come back in their levels, whatever their order", () => {
    const items = fc.array(
      fc.record({ definition: fc.constantFrom("numbers", "marks"), level: fc.integer({ min: 0, max: 3 }) }),
      { minLength: 1, maxLength: 8 },
    )
    fc.assert(
      fc.property(items, (places) => {
        // An item stands at most one level below the one before it, as in HTML.
        let deepest = -1
        const listed = places.map(({ definition, level }, i) => {
          deepest = Math.min(level, deepest + 1)
          return paragraph("body", [`i${i}`], { list: { definition, run: `${definition}`, level: deepest } })
        })
        const read = back(writeHtml(slice(...listed), defaultStyles)).filter((node) => node.textContent !== "")
        const levels = (nodes: readonly Node[]) =>
          nodes.map((node) => [node.textContent, listPlace(defaultStyles, node)?.level])
        expect(levels(read)).toEqual(levels(listed))
      }),
      { numRuns: 200 },
    )
  })
})

describe("plain text", () => {
  const list = (text: string, level = 0) =>
    paragraph("body", [text], { list: { definition: "numbers", run: "a", level } })

  test("has the marks of items, and comes back as lists", () => {
    const doc = document([p("Bring:"), list("oars"), list("long", 1), list("chain"), p("Done.")])
    expect(writeText(doc)).toBe("Bring:\n\n1. oars\n  a) long\n2. chain\n\nDone.\n")
    expect(selectedText(after(stateOf(leavesOf(doc).nodes as Node[]), selectAll))).toBe(
      "Bring:\n1. oars\na) long\n2. chain\nDone.",
    )
    const read = readText("Bring:\n1. oars\n2. chain", { lines: true })
    const turned = withTypedLists(leavesOf(read).nodes)
    expect(labelsOf(document(turned))).toEqual([null, "1.", "2."])
  })

  test("part of an item has no mark, nor has text that only looks like a list", () => {
    expect(selectedText(stateOf([list("oars")], [0, 0], [0, 4]))).toBe("oars")
    expect(selectedText(stateOf([list("oars"), list("chain")], [0, 2], [1, 5]))).toBe("rs\n2. chain")
    const pasted = after(stateOf([p()]), pasteText("1. alone\ntext\n- also alone"))
    expect(labelsOf(pasted.doc)).toEqual([null, null, null])
  })

  test("a ticked thing stays ticked, and a number that does not begin with one says so", () => {
    const pasted = after(stateOf([p()]), pasteText("[x] oars\n[ ] chain\n3. third\n4. fourth"))
    expect(labelsOf(pasted.doc)).toEqual(["☑", "☐", "3.", "4."])
  })
})

describe("from another document", () => {
  const call = { name: "Call", parent: "quotation", next: null, outline: null, paragraph: {}, letters: { bold: true } }
  const own: ListPlace = { definition: "list1", run: "z", level: 0 }
  const theirs = {
    ...defaultStyles,
    styles: { ...defaultStyles.styles, call, quotation: { ...defaultStyles.styles.quotation!, letters: { size: 30 } } },
    lists: { list1: { name: "My list", levels: Array.from({ length: 9 }, () => ({ ...listLevel() })) } },
    fonts: { "Marsh Hand": { regular: "a".repeat(64) } },
  }
  function listLevel() {
    return {
      format: "§ %1",
      kind: "number" as const,
      numbering: "decimal" as const,
      start: 1,
      indent: 20,
      hanging: 20,
      align: "left" as const,
      follow: "tab" as const,
      restart: 0,
      legal: false,
      tight: true,
      letters: {},
    }
  }

  test("text brings the styles, lists and typefaces that it uses, and nothing more; what is here stays as it is", () => {
    const copied = slice(
      paragraph("call", [letters("x", { family: "Marsh Hand" })]),
      paragraph("body", ["item"], { list: own }),
    )
    const brought = broughtBy(copied, document([], { styles: theirs }))
    expect([Object.keys(brought.styles).sort(), Object.keys(brought.lists), Object.keys(brought.fonts)]).toEqual([
      ["body", "call", "quotation"],
      ["list1"],
      ["Marsh Hand"],
    ])
    const pasted = after(stateOf([p("here")], [0, 4]), pasteSlice(copied, "Pasted", brought))
    const { styles, lists, fonts } = documentAttrs(pasted.doc).styles
    expect([styles.call?.name, lists.list1?.name, fonts["Marsh Hand"]?.regular?.length]).toEqual([
      "Call",
      "My list",
      64,
    ])
    expect(styles.quotation).toEqual(defaultStyles.styles.quotation)
    expect(labelsOf(pasted.doc).at(-1)).toBe("§ 1")
    expect(readDocument(pasted.doc.toJSON()).eq(pasted.doc)).toBe(true)
  })

  test("text that brings nothing new leaves the style sheet alone", () => {
    const state = stateOf([p("here")])
    const pasted = after(state, pasteSlice(slice(p("x")), "Pasted", broughtBy(slice(p("x")), document([]))))
    expect(documentAttrs(pasted.doc).styles).toBe(documentAttrs(state.doc).styles)
  })

  test("in the look of where it lands, items stay items and stress stays stress", () => {
    const local = inLocalLook(
      slice(
        paragraph("title", [letters("x", { strike: "single", highlight: "#f4e3b5", size: 40 })], {
          list: own,
          shading: "#dcebe0",
        }),
      ),
      "quotation",
      { align: "right" },
    )
    const [node] = local.content.content
    expect(paragraphAttrs(node!)).toMatchObject({ style: "quotation", format: { align: "right", list: own } })
    expect(marksOf(node!.child(0))).toEqual({ strike: "single" })
  })
})

describe("corrections in lists", () => {
  const typed = (blocks: Node[], block: number, offset: number, text: string) => {
    let state = stateOf(blocks, [block, offset])
    for (const letter of text) {
      state = after(state, insertText(letter))
      correct({ off: [], own: {} })(state, (tr) => (state = state.apply(tr)))
    }
    return texts(state.doc)[block]
  }
  const item = paragraph("body", [], { list: { definition: "numbers", run: "a", level: 0 } })

  test("leave the first letter of an item as it was typed; those of other paragraphs get their capital", () => {
    expect(typed([item], 0, 0, "oars and ")).toBe("oars and ")
    expect(typed([p()], 0, 0, "oars and ")).toBe("Oars and ")
    expect(typed([item], 0, 0, "one. two ")).toBe("one. Two ")
  })

  test("a mark typed in an item: its own is not kept twice, one of another kind changes the item, other numbers are text", () => {
    expect(typed([item], 0, 0, "1. ")).toBe("")
    expect(typed([item], 0, 0, "4. ")).toBe("4. ")
    const inside = (definition: string, text: string) => {
      let state = stateOf([item, paragraph("body", [], { list: { definition, run: "b", level: 1 } })], [1, 0])
      for (const letter of text) {
        state = after(state, insertText(letter))
        correct({ off: [], own: {} })(state, (tr) => (state = state.apply(tr)))
      }
      return after(state, enter)
    }
    expect(labelsOf(inside("numbers", "- ten links").doc)).toEqual(["1.", "–", "–"])
    expect(labelsOf(inside("marks", "1. ten links").doc)).toEqual(["1.", "a)", "b)"])
    expect(labelsOf(inside("numbers", "[x] ten links").doc)).toEqual(["1.", "☑", "☐"])
  })

  test("make no list where lists are switched off", () => {
    let state = stateOf([p("- ")], [0, 2])
    expect(correct({ off: ["lists"], own: {} })(state)).toBe(false)
    correct({ off: [], own: {} })(state, (tr) => (state = state.apply(tr)))
    expect(labelsOf(state.doc)).toEqual(["•"])
  })
})

test("what letters look like is kept in paragraphs without text, and never beside text", () => {
  const acts = fc.array(
    fc.tuple(
      fc.constantFrom("type", "enter", "back", "bold", "size", "cut", "paste", "lines", "slice", "drag"),
      fc.nat(40),
      fc.nat(40),
    ),
    { maxLength: 14 },
  )
  fc.assert(
    fc.property(acts, (list) => {
      let state = stateOf([p("The ferry"), p(), p(letters("tide", { bold: true }))])
      for (const [kind, a, b] of list) {
        const leaves = leavesOf(state.doc)
        const place = (n: number) => {
          const leaf = n % leaves.count
          return leaves.start(leaf) + (n % (leaves.node(leaf).content.size + 1))
        }
        state = EditorState.create({
          doc: state.doc,
          selection: TextSelection.create(state.doc, place(a), place(["cut", "bold", "drag"].includes(kind) ? b : a)),
        })
        const command = {
          type: insertText("x"),
          enter,
          back: deleteBackward,
          bold: setLetters("bold", true),
          size: setLetters("size", 20),
          cut: deleteSelection,
          paste: pasteText("a\nb"),
          lines: insertText("1. a\n2. b"),
          slice: pasteSlice(selectedSlice(stateOf([p("here")], [0, 0], [0, 4]))),
          drag: dragSelection(place(b + 3), a % 2 === 0),
        }[kind]
        command?.(state, (tr) => (state = state.apply(tr)))
        for (const block of leavesOf(state.doc).nodes)
          if (block.content.size > 0) expect(paragraphAttrs(block).letters).toBeNull()
      }
      expect(readDocument(state.doc.toJSON()).eq(state.doc)).toBe(true)
    }),
    { numRuns: 200 },
  )
})

describe("what does not fit is refused in words", () => {
  const json = (
    change: (doc: {
      attrs: Record<string, never>
      content: { content: { attrs: Record<string, unknown> }[] }[]
    }) => void,
  ) => {
    const value = JSON.parse(JSON.stringify(document([p("x")]).toJSON())) as Parameters<typeof change>[0]
    change(value)
    return () => readDocument(value)
  }
  const format = (own: Record<string, unknown>) => json((doc) => (doc.content[0]!.content[0]!.attrs.format = own))

  test.each([
    ["a tab stop beyond the sheet", { tabs: [{ position: 9000, align: "left", leader: "none" }] }],
    [
      "a border of no known pattern",
      { borders: { top: { pattern: "zigzag", width: 1, colour: "#000000", distance: 0 } } },
    ],
    ["a tenth level", { list: { definition: "numbers", run: "a", level: 9 } }],
    ["a drop cap of twenty lines", { dropCap: { lines: 20, distance: 0, family: null } }],
    ["a property that nobody knows", { sparkle: true }],
    ["a colour by name", { shading: "red" }],
  ] as [string, Partial<ParagraphFormat> & Record<string, unknown>][])("%s", (_what, own) => {
    expect(format(own)).toThrow(ReadingError)
    expect(format(own)).toThrow(/A paragraph's format is not right at format/)
  })

  test("letters, styles, lists and typefaces too", () => {
    expect(json((doc) => (doc.content[0]!.content[0]!.attrs.letters = { size: 0 }))).toThrow(/letters.size/)
    const styles = (change: Record<string, unknown>) =>
      json((doc) => Object.assign(doc.attrs.styles as unknown as object, change))
    expect(styles({ lists: { x: { name: "x", levels: [] } } })).toThrow(/lists.x.levels/)
    expect(styles({ fonts: { "Marsh Hand": { regular: "../../etc" } } })).toThrow(/an asset is named by its SHA-256/)
    expect(json((doc) => ((doc.attrs as Record<string, unknown>).typesetting = { breaking: "slow" }))).toThrow(
      /typesetting/,
    )
  })
})
