import fc from "fast-check"
import { Slice, type Node } from "prosemirror-model"
import { TextSelection, type EditorState } from "prosemirror-state"
import {
  bodyOf,
  defaultStyles,
  document,
  formatNumber,
  itemNumber,
  labelsOf,
  leavesOf,
  levelOf,
  listPlace,
  p,
  paragraph,
  readyLists,
  typedItem,
  type ListPlace,
} from "../src/document"
import {
  backspace,
  backTabKey,
  continueList,
  correct,
  defineLevel,
  editHistory,
  enter,
  insertText,
  leaveList,
  numberValue,
  pasteSlice,
  pasteText,
  restartList,
  selectedSlice,
  stepLevel,
  tabKey,
  toggleDone,
  toggleList,
  undo,
} from "../src/editing"
import { readHtml, writeHtml } from "../src/formats/html"
import { after, stateOf, texts } from "./telling"

const item = (text: string, place: Partial<ListPlace> = {}) =>
  paragraph("body", [text], { list: { definition: "numbers", run: "a", level: 0, ...place } })

/** The items as they can be read: what stands before each, and its text. */
const read = (doc: Node) => texts(doc).map((text, i) => `${labelsOf(doc)[i] ?? "–"} ${text}`)
const place = (state: EditorState, block: number) => listPlace(defaultStyles, leavesOf(state.doc).node(block))
const at = (state: EditorState, block: number, offset: number, toBlock = block, toOffset = offset) => {
  const pos = (b: number, o: number) =>
    leavesOf(state.doc)
      .nodes.slice(0, b)
      .reduce((sum, node) => sum + node.nodeSize, 1) +
    1 +
    o
  return state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos(block, offset), pos(toBlock, toOffset))))
}

describe("numbers", () => {
  test("can be asked for as such, whatever is written", () => {
    const clause = (level: number) => item("x", { definition: "clauses", level })
    const doc = document([clause(0), clause(1), clause(1), p("between"), item("other"), clause(1), clause(0)])
    expect(leavesOf(doc).nodes.map((_, block) => itemNumber(doc, block))).toEqual([1, 1, 2, null, 1, 3, 2])
    expect(numberValue(at(stateOf([item("a"), item("b", { start: 7 }), item("c")]), 2, 0))).toBe(8)
  })

  test("are written in figures, letters and Roman figures", () => {
    expect([1, 9, 14, 40, 1999].map((n) => formatNumber(n, "upperRoman"))).toEqual(["I", "IX", "XIV", "XL", "MCMXCIX"])
    expect([1, 26, 27, 52, 703].map((n) => formatNumber(n, "lowerLetter"))).toEqual(["a", "z", "aa", "az", "aaa"])
    expect([formatNumber(7, "zero"), formatNumber(0, "lowerLetter"), formatNumber(4, "lowerRoman")]).toEqual([
      "07",
      "0",
      "iv",
    ])
  })

  test("follow the order of the document, level by level", () => {
    const doc = document([
      item("a"),
      item("b", { level: 1 }),
      item("c", { level: 1 }),
      p("between"),
      item("d"),
      item("e", { level: 1 }),
      item("f", { level: 2 }),
    ])
    expect(read(doc)).toEqual(["1. a", "a) b", "b) c", "– between", "2. d", "a) e", "i. f"])
  })

  test("of clauses name the levels above, also one that was never counted", () => {
    const clause = (text: string, level: number) => item(text, { definition: "clauses", level })
    expect(
      read(document([clause("a", 0), clause("b", 1), clause("c", 1), clause("d", 2), clause("e", 0), clause("f", 2)])),
    ).toEqual(["1. a", "1.1 b", "1.2 c", "1.2.1 d", "2. e", "2.1.1 f"])
  })

  test("of two lists do not mix, and marks inside numbers leave the numbers alone", () => {
    const doc = document([
      item("a"),
      item("x", { definition: "marks", run: "m", level: 1 }),
      item("b"),
      item("other", { run: "z" }),
      item("c"),
    ])
    expect(read(doc)).toEqual(["1. a", "– x", "2. b", "1. other", "3. c"])
  })

  /** Counts anew from the first block for every item: slow, and plainly right. */
  function naive(doc: Node): (string | null)[] {
    const blocks = leavesOf(doc).nodes
    const numberAt = (index: number): number => {
      const own = listPlace(defaultStyles, blocks[index] as Node) as ListPlace
      if (own.start !== undefined) return own.start
      for (let i = index - 1; i >= 0; i--) {
        const other = listPlace(defaultStyles, blocks[i] as Node)
        if (other?.definition !== own.definition || other.run !== own.run) continue
        if (other.level < own.level) break
        if (other.level === own.level) return numberAt(i) + 1
      }
      return 1
    }
    const above = (index: number, level: number): number => {
      const own = listPlace(defaultStyles, blocks[index] as Node) as ListPlace
      for (let i = index; i >= 0; i--) {
        const other = listPlace(defaultStyles, blocks[i] as Node)
        if (other?.definition !== own.definition || other.run !== own.run) continue
        if (other.level === level) return numberAt(i)
        if (other.level < level) break
      }
      return 1
    }
    return blocks.map((block, i) => {
      const own = listPlace(defaultStyles, block)
      if (!own) return null
      const level = levelOf(defaultStyles, own.definition, own.level)
      if (level.kind !== "number") return level.format
      return level.format.replace(/%(\d)/g, (_, digit: string) => {
        const depth = Number(digit) - 1
        return formatNumber(
          depth === own.level ? numberAt(i) : above(i, depth),
          levelOf(defaultStyles, own.definition, depth).numbering,
        )
      })
    })
  }

  test("are those of counting anew, after any cut, paste, change of level, undo and merge", () => {
    const places = fc.record({
      definition: fc.constantFrom("numbers", "clauses", "marks", "romans"),
      run: fc.constantFrom("a", "b"),
      level: fc.integer({ min: 0, max: 3 }),
    })
    const block = fc.oneof(
      fc.constant(p("text")),
      places.map((own) => item("x", own)),
      fc.integer({ min: 0, max: 9 }).map((start) => item("s", { start })),
    )
    const act = fc.tuple(
      fc.constantFrom("delete", "paste", "deeper", "up", "list", "restart", "enter", "undo"),
      fc.nat(30),
      fc.nat(30),
    )
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 14 }), fc.array(act, { maxLength: 8 }), (blocks, acts) => {
        let state = stateOf(blocks, [0, 0], [0, 0], [editHistory()])
        let copied = selectedSlice(at(state, 0, 0, blocks.length - 1, 0))
        for (const [kind, a, b] of acts) {
          const count = leavesOf(state.doc).count
          const [from, to] = [Math.min(a % count, b % count), Math.max(a % count, b % count)]
          state = at(state, from, 0, to, leavesOf(state.doc).node(to).content.size)
          const run = (command: Parameters<typeof after>[1]) => void command(state, (tr) => (state = state.apply(tr)))
          if (kind === "delete") {
            copied = selectedSlice(state)
            run((s, d) => (d?.(s.tr.deleteSelection()), true))
          } else if (kind === "paste") run(pasteSlice(copied))
          else if (kind === "deeper") run(stepLevel(1))
          else if (kind === "up") run(stepLevel(-1))
          else if (kind === "list") run(toggleList("numbers"))
          else if (kind === "restart") run(restartList((b % 4) + 1))
          else if (kind === "enter") run(enter)
          else run(undo)
          expect(labelsOf(state.doc)).toEqual(naive(state.doc))
        }
      }),
      { numRuns: 150 },
    )
  })
})

describe("making a list", () => {
  const three = () => stateOf([p("oars"), p("chain"), p("lamp")], [0, 0], [2, 2])

  test("of the selected paragraphs, and ending it again", () => {
    const listed = after(three(), toggleList("numbers"))
    expect(read(listed.doc)).toEqual(["1. oars", "2. chain", "3. lamp"])
    expect(read(after(listed, toggleList("numbers")).doc)).toEqual(["– oars", "– chain", "– lamp"])
    expect(leavesOf(after(listed, leaveList).doc).node(0).attrs.format).toBeNull()
  })

  test("joins the list of its kind beside it", () => {
    const listed = after(three(), toggleList("numbers"))
    const more = after(
      at(
        after(listed, (s, d) => (d?.(s.tr.insert(s.doc.content.size - 1, p("flag"))), true)),
        3,
        0,
      ),
      toggleList("numbers"),
    )
    expect(read(more.doc).at(-1)).toBe("4. flag")
  })

  test("of another kind changes all items beside the caret, but not the deeper ones of a kind of their own", () => {
    const doc = [item("a"), item("sub", { definition: "marks", run: "m", level: 1 }), item("b")]
    expect(read(after(stateOf(doc, [2, 0]), toggleList("capitals")).doc)).toEqual(["A. a", "– sub", "B. b"])
    expect(
      read(
        after(
          stateOf([item("a"), item("s", { level: 1 }), item("t", { level: 1 }), item("b")], [1, 0]),
          toggleList("marks"),
        ).doc,
      ),
    ).toEqual(["1. a", "– s", "– t", "2. b"])
  })

  test("while typing, which one undo takes back", () => {
    const typed = (text: string, before: Node[] = []) => {
      let state = stateOf([...before, p()], [before.length, 0], [before.length, 0], [editHistory()])
      for (const letter of text) {
        state = after(state, insertText(letter))
        correct({ off: [], own: {} })(state, (tr) => (state = state.apply(tr)))
      }
      return state
    }
    expect(read(typed("1. ").doc)).toEqual(["1. "])
    expect(texts(after(typed("1. "), undo).doc)).toEqual(["1. "])
    expect(read(typed("- oars").doc)).toEqual(["• oars"])
    expect(read(typed("[] call").doc)).toEqual(["☐ call"])
    expect(read(typed("7. seventh").doc)).toEqual(["7. seventh"])
    expect(read(typed("2. second", [item("first")]).doc)).toEqual(["1. first", "2. second"])
    expect(read(typed("1999. was wet").doc)).toEqual(["– 1999. Was wet"])
    expect(read(typed("i. first").doc)).toEqual(["i. first"])
    expect(read(typed("(1) first").doc)).toEqual(["(1) first"])
    expect(read(typed("1.1 first").doc)).toEqual(["1.1 first"])
    expect(read(typed("+ oars").doc)).toEqual(["+ oars"])
    // What was typed is what stands there.
    expect(read(typed("a. first").doc)).toEqual(["a. first"])
    expect(read(typed("a) first").doc)).toEqual(["a) first"])
    expect(typedItem("(a) so")?.definition).toBe("letters")
  })
})

describe("keys in a list", () => {
  test("Enter makes the next item; on an empty one it goes up, then ends the list", () => {
    let state = after(stateOf([item("one"), item("deep", { level: 1 })], [1, 4]), enter)
    expect(read(state.doc)).toEqual(["1. one", "a) deep", "b) "])
    state = after(state, enter)
    expect(read(state.doc)).toEqual(["1. one", "a) deep", "2. "])
    state = after(state, enter)
    expect(read(state.doc)).toEqual(["1. one", "a) deep", "– "])
  })

  test("a new item does not take over the number or the tick of the one before", () => {
    expect(read(after(stateOf([item("five", { start: 5 })], [0, 4]), enter).doc)).toEqual(["5. five", "6. "])
    expect(read(after(stateOf([item("done", { definition: "tasks", done: true })], [0, 4]), enter).doc)).toEqual([
      "☑ done",
      "☐ ",
    ])
  })

  test("Tab and Shift+Tab change the level at the start; elsewhere Tab is a tab", () => {
    const deeper = after(stateOf([item("one"), item("two")], [1, 0]), tabKey)
    expect(read(deeper.doc)).toEqual(["1. one", "a) two"])
    expect(read(after(deeper, backTabKey).doc)).toEqual(["1. one", "2. two"])
    expect(texts(after(stateOf([item("one")], [0, 3]), tabKey).doc)).toEqual(["one\t"])
    expect(read(after(stateOf([item("one"), item("two")], [0, 1], [1, 1]), tabKey).doc)).toEqual(["a) one", "b) two"])
  })

  test("an item that comes up a level goes on with the list that is there", () => {
    const doc = [
      item("one"),
      item("x", { definition: "marks", run: "m", level: 1 }),
      item("y", { definition: "marks", run: "m", level: 1 }),
    ]
    const up = after(stateOf(doc, [2, 0]), stepLevel(-1))
    expect(read(up.doc)).toEqual(["1. one", "– x", "2. y"])
    expect(read(after(up, stepLevel(1)).doc)).toEqual(["1. one", "– x", "– y"])
  })

  test("Backspace at the start takes the mark away, then joins", () => {
    const plain = after(stateOf([item("one"), item("two")], [1, 0]), backspace)
    expect(read(plain.doc)).toEqual(["1. one", "– two"])
    expect(texts(after(plain, backspace).doc)).toEqual(["onetwo"])
  })
})

test("a list starts anew, at any number, and goes on again", () => {
  const doc = [item("a"), item("b"), item("c"), item("d")]
  const anew = after(stateOf(doc, [2, 0]), restartList(1))
  expect(read(anew.doc)).toEqual(["1. a", "2. b", "1. c", "2. d"])
  expect(read(after(stateOf(doc, [2, 0]), restartList(8)).doc)).toEqual(["1. a", "2. b", "8. c", "9. d"])
  expect(read(after(anew, continueList).doc)).toEqual(["1. a", "2. b", "3. c", "4. d"])
  expect(continueList(stateOf(doc, [2, 0]))).toBe(false)
})

test("things to do are ticked, others are not", () => {
  const state = stateOf([item("oil the chain", { definition: "tasks", done: false }), item("one")])
  expect(read(after(state, toggleDone(0)).doc)).toEqual(["☑ oil the chain", "1. one"])
  expect(toggleDone(1)(state)).toBe(false)
})

test("a level of one's own holds for the whole list and for no other", () => {
  const state = after(
    stateOf([item("a"), item("b"), item("z", { run: "z" })]),
    defineLevel(0, { format: "§ %1", start: 10 }),
  )
  expect(read(state.doc)).toEqual(["§ 10 a", "§ 11 b", "1. z"])
  expect(place(state, 0)?.definition).toBe("list1")
  expect(read(after(state, defineLevel(0, { numbering: "upperRoman", start: 1 })).doc).slice(0, 2)).toEqual([
    "§ I a",
    "§ II b",
  ])
})

test("text with marks typed by hand is pasted as lists, a lone number is left as it is", () => {
  expect(read(after(stateOf([p()]), pasteText("To do:\n1. oars\n2. chain\n- lamp\n- flag\n3. alone")).doc)).toEqual([
    "– To do:",
    "1. oars",
    "2. chain",
    "• lamp",
    "• flag",
    "– 3. alone",
  ])
})

test("lists go out as HTML and come back as they were", () => {
  const doc = document([
    item("one"),
    item("sub", { definition: "marks", run: "a", level: 1 }),
    item("two"),
    p("between"),
    item("call", { definition: "tasks", run: "t", done: true }),
    item("write", { definition: "tasks", run: "t", done: false }),
  ])
  const html = writeHtml(new Slice(bodyOf(doc).content, 0, 0), defaultStyles)
  expect(html).toContain("<ol>")
  expect(html).toMatch(/<li[^>]*><input type="checkbox" checked>call/)
  const back = document(readHtml(html).content.content as Node[])
  expect(read(back)).toEqual(["1. one", "– sub", "2. two", "– between", "☑ call", "☐ write"])
  const pasted = document(
    readHtml(
      '<ol start="4" type="a"><li><p>four</p><p>more of four</p></li><li>five<ul><li>deep</li></ul></li></ol><p>1.\u00a0not alone</p>',
    ).content.content as Node[],
  )
  expect(read(pasted).slice(0, 4)).toEqual(["d) four", "– more of four", "e) five", "– deep"])
})

test("every definition that ships has nine levels with something before each item", () => {
  for (const definition of Object.keys(readyLists)) {
    const doc = document(Array.from({ length: 9 }, (_, level) => item("x", { definition, level })))
    expect(labelsOf(doc).filter((label) => label !== null && label.trim() !== "")).toHaveLength(9)
  }
})
