import fc from "fast-check"
import { Slice } from "prosemirror-model"
import { EditorState } from "prosemirror-state"
import {
  cellPosition,
  defaultSetup,
  document,
  gridOf,
  leavesOf,
  nodes,
  p,
  paragraph,
  readDate,
  readNumber,
  table,
  tableAt,
  textOf,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import {
  addColumns,
  addRows,
  CellSelection,
  changeStyleFormat,
  deleteColumns,
  deleteRows,
  deleteSelection,
  deleteTable,
  divideCell,
  editHistory,
  enter,
  insertTable,
  insertText,
  joinCells,
  moveColumns,
  moveRows,
  pasteSlice,
  selectedText,
  selectionBetween,
  selectTable,
  setFormula,
  setLetters,
  setLines,
  setTable,
  settle,
  sortRows,
  tabKey,
  tableFromText,
  textFromTable,
  toggleBold,
  undo,
  type Command,
  wholeWidth,
} from "../src/editing"
import { formats, readFile } from "../src/formats/table"
import { htmlPage } from "../src/formats/html/page"
import { readHtml } from "../src/formats/html"
import { fragmentsOf, layoutDocument, tablesOf } from "../src/layout"
import { layoutOf, typesetter } from "../node/typesetting"
import { after, shown, stateOf, texts, told } from "./telling"

/** The cells of the first table, row by row; one that reaches over places says over how many. */
function cells(state: EditorState): string[][] {
  let found: string[][] = []
  state.doc.descendants((node) => {
    if (found.length > 0 || node.type !== nodes.table) return found.length === 0
    const grid = gridOf(node)
    found = Array.from({ length: grid.rows }, (_, row) =>
      grid.begun(row).map(({ node: own, rowspan, colspan }) => {
        const span = rowspan > 1 || colspan > 1 ? `${rowspan}×${colspan} ` : ""
        return span + own.children.map((block) => textOf(block)).join("/")
      }),
    )
    return false
  })
  return found
}

const words = (line: string) => line.split(" ").map((word) => [word === "_" ? p() : p(word)])
const board = (format: Parameters<typeof table>[1] = null) =>
  table([words("Crossing Fare Seats"), words("Dawn 2.50 12"), words("Noon 1,200 8"), words("Dusk 3 20")], format)

/** A state with the caret in a leaf, or with cells from one leaf to another. */
function at(state: EditorState, leaf: number, to = leaf): EditorState {
  const leaves = leavesOf(state.doc)
  return state.apply(state.tr.setSelection(selectionBetween(state.doc, leaves.start(leaf), leaves.end(to))))
}

const begun = (format: Parameters<typeof table>[1] = null) => stateOf([p("above"), board(format), p("below")])

describe("tables are edited", () => {
  test("a table comes at the caret with a head, Tab leads from cell to cell and adds a row behind the last", () => {
    let state = after(
      stateOf([p("Minutes")], [0, 7]),
      insertTable(2, 2),
      insertText("Action"),
      tabKey,
      insertText("Who"),
    )
    state = after(state, tabKey, insertText("Grease"), tabKey, insertText("Imre"), tabKey, insertText("Paint"))
    expect(cells(state)).toEqual([
      ["Action", "Who"],
      ["Grease", "Imre"],
      ["Paint", ""],
    ])
    expect(texts(state.doc)[0]).toBe("Minutes")
  })

  test("a paragraph stands behind a table that ends the text, and Enter at its beginning puts one before it", () => {
    let state = stateOf([p()])
    insertTable(1, 1)(state, (tr) => (state = state.apply(settle(tr))))
    expect(state.doc.child(0).children.map(({ type }) => type.name)).toEqual(["table", "paragraph"])
    state = after(state, enter)
    expect(state.doc.child(0).children.map(({ type }) => type.name)).toEqual(["paragraph", "table", "paragraph"])
  })

  test("rows and columns are added beside the selected ones, as many as these, and taken away", () => {
    const state = begun()
    expect(cells(after(at(state, 4, 7), addRows("above"))).map((row) => row[0])).toEqual([
      "Crossing",
      "",
      "",
      "Dawn",
      "Noon",
      "Dusk",
    ])
    expect(cells(after(at(state, 2), addColumns("behind")))[0]).toEqual(["Crossing", "Fare", "", "Seats"])
    expect(cells(after(at(state, 4, 7), deleteRows)).map((row) => row[0])).toEqual(["Crossing", "Dusk"])
    expect(cells(after(at(state, 2), deleteColumns))[3]).toEqual(["Dusk", "20"])
    expect(texts(after(at(state, 1), selectTable("table"), deleteRows).doc)).toEqual(["above", "below"])
  })

  test("a table in a cell that is taken away leaves the caret in that cell, before or behind what else is there", () => {
    for (const [inner, leaf] of [
      [[p("a"), table([[[p("x")]]])], 1],
      [[table([[[p("x")]]]), p("a")], 0],
    ] as const) {
      const own = EditorState.create({ doc: document([table([[inner, [p("next")]]]), p("behind")]) })
      const gone = after(at(own, leaf), deleteTable)
      expect(told(gone).replace("|", "")).toBe("a\nnext\nbehind")
      expect(told(gone)).toMatch(/^\|?a\|?\n/)
    }
  })

  test("cells are joined with all that they hold, and divided again", () => {
    const joined = after(at(begun(), 4, 8), joinCells)
    expect(cells(joined)).toEqual([
      ["Crossing", "Fare", "Seats"],
      ["2×2 Dawn/2.50/Noon/1,200", "12"],
      ["8"],
      ["Dusk", "3", "20"],
    ])
    expect(cells(after(joined, addRows("below")))[3]).toEqual(["", "", ""])
    expect(cells(after(joined, divideCell))).toEqual([
      ["Crossing", "Fare", "Seats"],
      ["Dawn/2.50/Noon/1,200", "", "12"],
      ["", "", "8"],
      ["Dusk", "3", "20"],
    ])
    expect(cells(after(at(begun(), 5), divideCell))[1]).toEqual(["Dawn", "2.50", "", "12"])
    // Whole rows become one.
    expect(cells(after(at(begun(), 4, 9), joinCells))).toHaveLength(3)
  })

  test("rows and columns are moved, with their widths", () => {
    const moved = (command: (pos: number) => Command) => {
      const state = begun({ columns: [100, 50, 30] })
      return after(state, command(7 + 1))
    }
    expect(cells(moved((pos) => moveRows(pos, 3, 4, 1))).map((row) => row[0])).toEqual([
      "Crossing",
      "Dusk",
      "Dawn",
      "Noon",
    ])
    const columns = moved((pos) => moveColumns(pos, 0, 1, 3))
    expect(cells(columns)[0]).toEqual(["Fare", "Seats", "Crossing"])
    expect(columns.doc.child(0).child(1).attrs.format).toMatchObject({ columns: [50, 30, 100] })
  })

  test("selected cells are formatted, emptied and read as columns, others between them are not", () => {
    const column = at(begun(), 4, 10)
    expect(column.selection).toBeInstanceOf(CellSelection)
    expect(selectedText(column)).toBe("Dawn\nNoon\nDusk")
    expect(cells(after(column, deleteSelection)).map((row) => row.join("|"))).toEqual([
      "Crossing|Fare|Seats",
      "|2.50|12",
      "|1,200|8",
      "|3|20",
    ])
    const bold = after(column, toggleBold)
    const marked = leavesOf(bold.doc).nodes.map((leaf) => leaf.firstChild?.marks.length ?? 0)
    expect(marked).toEqual([0, 0, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 0].slice(0, marked.length))
    expect(cells(after(column, insertText("x")))[1]).toEqual(["x", "2.50", "12"])
  })

  test("text selected into a table from without takes the table whole", () => {
    const state = at(begun(), 0, 5)
    expect(texts(after(state, deleteSelection).doc)).toEqual(["", "below"])
    expect(texts(after(state, insertText("All")).doc)).toEqual(["All", "below"])
  })

  test("bold that the look of a table gives its head is taken off by hand", () => {
    const head = after(at(begun(), 1), selectTable("cell"), setLetters("bold", false))
    expect(
      leavesOf(head.doc)
        .node(1)
        .firstChild!.marks.map(({ attrs }) => attrs.value as boolean),
    ).toEqual([false])
  })

  test("rows are sorted by numbers, dates and words, by more than one column, without the head", () => {
    const sorted = (column: number, direction: 1 | -1) =>
      cells(after(at(begun(), 4), sortRows([{ column, direction }]))).map((row) => row[0])
    expect(sorted(1, 1)).toEqual(["Crossing", "Dawn", "Dusk", "Noon"])
    expect(sorted(2, -1)).toEqual(["Crossing", "Dusk", "Dawn", "Noon"])
    const dated = stateOf([
      table([words("A 1"), [[p("3 May 2027")], [p("b")]], [[p("12/4/2027")], [p("b")]], [[p("2026-12-31")], [p("a")]]]),
    ])
    expect(
      cells(
        after(
          at(dated, 2),
          sortRows([
            { column: 1, direction: 1 },
            { column: 0, direction: -1 },
          ]),
        ),
      ).map((row) => row[0]),
    ).toEqual(["A", "2026-12-31", "3 May 2027", "12/4/2027"])
  })

  test("text becomes a table by what divides it, and a table text", () => {
    const lines = stateOf([p("Name, Berth"), p("Oriel, 4"), p("Wren, 7")], [0, 0], [2, 7])
    const made = after(lines, tableFromText())
    expect(cells(made)).toEqual([
      ["Name", "Berth"],
      ["Oriel", "4"],
      ["Wren", "7"],
    ])
    expect(texts(after(made, textFromTable).doc)).toEqual(["Name\tBerth", "Oriel\t4", "Wren\t7"])
  })

  test("a table takes the place of blank paragraphs that are selected", () => {
    const state = after(at(stateOf([p("above"), p(), p()]), 1, 2), insertTable(1, 1))
    expect(state.doc.child(0).children.map((own) => own.type.name)).toEqual(["paragraph", "table"])
  })

  test("lines are drawn round, between and at one side, and what stands beside has the same", () => {
    const line = { pattern: "solid" as const, width: 2, colour: "#7a1f4b", distance: 3 }
    const state = after(at(begun(), 5), setLines("round", line))
    const own = state.doc.child(0).child(1)
    const borders = (row: number, column: number) =>
      Object.keys((own.child(row).child(column).attrs.format as { borders?: object } | null)?.borders ?? {})
    expect([borders(1, 1).sort(), borders(0, 1), borders(1, 0), borders(1, 2), borders(2, 1)]).toEqual([
      ["bottom", "left", "right", "top"],
      ["bottom"],
      ["right"],
      ["left"],
      ["top"],
    ])
  })

  test("a table pasted into a table fills its cells and adds those that lack", () => {
    const copied = table([words("a b"), words("c d")])
    const state = after(at(begun(), 12), pasteSlice(new Slice(document([copied]).child(0).content, 0, 0)))
    expect(cells(state).slice(3)).toEqual([
      ["Dusk", "3", "a", "b"],
      ["", "", "c", "d"],
    ])
  })

  test("any commands on any cells leave a whole table, and undo brings back what was", () => {
    const commands: Command[] = [
      addRows("above"),
      addRows("below"),
      addColumns("before"),
      addColumns("behind"),
      deleteRows,
      deleteColumns,
      joinCells,
      divideCell,
      setTable({ headRows: 2 }),
      insertText("x"),
      selectTable("row"),
      selectTable("column"),
      deleteSelection,
      insertTable(2, 2),
      enter,
      (state, dispatch) => moveRows(tableAt(state.selection.$head)?.pos ?? 0, 1, 2, 3)(state, dispatch),
      (state, dispatch) => moveColumns(tableAt(state.selection.$head)?.pos ?? 0, 1, 2, 0)(state, dispatch),
    ]
    const act = fc.record({
      command: fc.constantFrom(...commands),
      from: fc.nat(40),
      to: fc.nat(40),
      keeps: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 25 }), (acts) => {
        let state = stateOf([p("above"), board(), p("below")], [0, 0], [0, 0], [editHistory()])
        const original = state.doc
        for (const { command, from, to, keeps } of acts) {
          const { count } = leavesOf(state.doc)
          if (!keeps) state = at(state, Math.min(from % count, to % count), Math.max(from % count, to % count))
          command(state, (tr) => (state = state.apply(settle(tr))))
          checkDocument(state.doc)
          state.doc.descendants((node) => void (node.type === nodes.table && expect(gridOf(node).whole).toBe(true)))
        }
        while (undo(state, (tr) => (state = state.apply(settle(tr)))));
        expect(state.doc.toJSON()).toEqual(original.toJSON())
      }),
      { numRuns: Number(process.env.BIBLON_RUNS ?? 150) },
    )
  })
})

describe("formulas", () => {
  const shownAt = (state: EditorState) =>
    layoutOf(state.doc).placed.flatMap((placed) =>
      fragmentsOf(placed).flatMap(({ paragraph: own }) =>
        own.lines.flatMap(({ runs }) => runs.flatMap(({ run }) => (run.shows !== null ? [run.shows] : []))),
      ),
    )
  const computed = (expression: string, leaf = 12, decimals: number | "percent" | null = null) =>
    shownAt(
      after(
        at(
          stateOf([p("above"), table([words("A B C"), words("x 2.50 4"), words("y 1,200 8"), words("z 3 _")]), p()]),
          leaf,
        ),
        setFormula({ expression, decimals }),
      ),
    ).join("")

  test("compute from cells, ranges, the column and the row, and are written by the language", () => {
    expect(computed("sum(column)")).toBe("12")
    expect(computed("=sum(B2:B4)", 12, 2)).toBe("1,205.50")
    expect(computed("average(row)")).toBe("3")
    expect(computed("(B2 + 4) * 2 - max(B2; 1)")).toBe("10.5")
    expect(computed("B2/B3", 12, "percent")).toBe("0.21%")
    expect(computed("count(A2:C3)")).toBe("4")
  })

  test("say in words why they have no value", () => {
    expect(computed("B2/C4")).toBe("The formula refers to itself")
    expect(computed("1/0")).toBe("Divided by nothing")
    expect(computed("A2+1")).toBe("A2 is no number")
    expect(computed("B9")).toBe("B9 is not in this table")
    expect(computed("constructor(1)")).toBe("There is no function “constructor”")
    expect(computed("sum(")).toBe("The formula cannot be read")
    expect(computed("this.x")).toMatch(/cannot be read|no cell/)
    expect(computed("(".repeat(300) + "1")).toBe("Too many brackets")
  })

  test("are right again after a cell changes, on layout taken over from before", () => {
    let state = after(
      at(stateOf([board(), ...Array.from({ length: 80 }, () => p("Tide and time. ".repeat(20)))]), 11),
      setFormula({ expression: "sum(B2:B3)", decimals: null }),
    )
    const before = layoutDocument(typesetter(), state.doc)
    state = after(at(state, 4), insertText("9"))
    const now = layoutDocument(typesetter(), state.doc, { mode: "sheets" }, before)
    const told = fragmentsOf(now.placed[0]!).flatMap(({ paragraph: own }) =>
      own.lines.flatMap(({ runs }) => runs.flatMap(({ run }) => run.shows ?? [])),
    )
    expect(told).toEqual(["1,209"])
    expect(now.placed[1]!.sheet).toBe(before.placed[1]!.sheet)
  })

  test("compute in a table inside a cell, and in a head, also when these change", () => {
    const sum = (expression: string) =>
      paragraph("body", [nodes.field.create({ kind: "formula", format: `:${expression}` })])
    const inner = table([words("2 3"), [[sum("sum(A1:B1)")], [p("_")]]], { headRows: 0 })
    const outer = table([[[p("7"), inner], [sum("A1 * 2")]]], { headRows: 0 })
    const head = table([[[p("4")], [sum("A1 + 1")]]], { headRows: 0 })
    const story = nodes.story.create({ key: "top", kind: "header" }, [head, p()])
    const doc = document(
      [p("above"), outer, p()],
      { setup: { ...defaultSetup, head: { ...defaultSetup.head, all: "top" } } },
      [story],
    )
    checkDocument(doc)
    const state = EditorState.create({ doc })
    expect(shownAt(state)).toEqual(["5", "14", "5"])
    const before = layoutDocument(typesetter(), doc)
    const leaves = leavesOf(doc)
    const inInner = state.apply(state.tr.insertText("1", leaves.start(2)))
    const changed = inInner.apply(inInner.tr.insertText("9", leavesOf(inInner.doc).end(leaves.count - 3)))
    const now = layoutDocument(typesetter(), changed.doc, { mode: "sheets" }, before)
    expect([shownAt(changed), now.placed.length]).toEqual([["15", "14", "50"], 1])
    expect(shown(now)).toEqual(shown(layoutDocument(typesetter(), changed.doc)))
  })

  test("numbers and dates are read as people write them", () => {
    expect(["1,234.5", "£3", "12 %", "-4", "1.234,5", "three"].map((text) => readNumber(text, "en-GB"))).toEqual([
      1234.5,
      3,
      0.12,
      -4,
      null,
      null,
    ])
    expect(["1.234,5", "12,50 €", "1 234"].map((text) => readNumber(text, "de"))).toEqual([1234.5, 12.5, 1234])
    expect([
      readDate("3 May 2027", "en-GB"),
      readDate("3. Mai 2027", "de"),
      readDate("03/05/2027", "en-GB"),
      readDate("5/3/2027", "en-US"),
    ]).toEqual(Array(4).fill(Date.UTC(2027, 4, 3) / 86_400_000))
    expect(readDate("31/02/2027", "en-GB")).toBeNull()
  })
})

describe("tables on sheets", () => {
  const long = (format: Parameters<typeof table>[1], lines = 1) =>
    document([
      p("before"),
      table(
        [words("Head Who"), ...Array.from({ length: 120 }, (_, i) => [[p(`row ${i} `.repeat(lines))], [p("x")]])],
        format,
      ),
      p("after"),
    ])

  test("a head is repeated on each sheet, once in the text, and follows its changes", () => {
    const layout = layoutDocument(typesetter(), long({}))
    expect(layout.placed.length).toBeGreaterThan(2)
    for (const placed of layout.placed.slice(1, 3)) {
      const [first] = fragmentsOf(placed)
      expect([first!.part, first!.paragraph.text, first!.cell!.repeated]).toEqual(["repeated", "Head", true])
    }
    const state = EditorState.create({ doc: long({}) })
    const typed = after(at(state, 1), insertText("New"))
    const now = layoutDocument(typesetter(), typed.doc, { mode: "sheets" }, layout)
    expect(fragmentsOf(now.placed[2]!)[0]!.paragraph.text).toBe("New")
  })

  test("a paragraph more in a row above, which stays as high, moves the leaves of the sheets behind, of their heads and of cells from above", () => {
    const tall = [p("tall"), p("cell"), p("here")]
    const row = (i: number) => [[p(`row ${i}`)], i === 0 ? tall : [p("x")]]
    const side = { blocks: [p("all along")], rowspan: 120 }
    const doc = document([
      table([
        words("Head Who Side"),
        ...Array.from({ length: 120 }, (_, i) => [...row(i), ...(i === 0 ? [side] : [])]),
      ]),
    ])
    const before = layoutDocument(typesetter(), doc)
    const { doc: longer } = after(at(EditorState.create({ doc }), 3), enter)
    expect(leavesOf(longer).count).toBe(leavesOf(doc).count + 1)
    const now = layoutDocument(typesetter(), longer, { mode: "sheets" }, before)
    expect(shown(now)).toEqual(shown(layoutDocument(typesetter(), longer)))
    expect(now.placed.slice(1).map((placed) => tablesOf(placed)[0]!.leaf)).toEqual(now.placed.slice(1).map(() => 0))
  })

  test("what running text keeps at its first lines and between its paragraphs, its tables do not, however they came", () => {
    const indented = changeStyleFormat("body", { paragraph: { indentFirst: 36, spaceBefore: 6, spaceAfter: 9 } })
    const page = "<table><tr><td>Ebb</td><td>Six</td></tr></table><p>Ebb, Six</p>"
    const made = [
      after(stateOf([p("")]), insertTable(1, 2), insertText("Ebb")),
      after(stateOf([p("Ebb\tSix")]), tableFromText("tabs")),
      EditorState.create({ doc: readFile(new TextEncoder().encode(page), "board.html").doc }),
      EditorState.create({ doc: readFile(new TextEncoder().encode("Ebb,Six"), "board.csv").doc }),
    ].map((state) => after(state, indented).doc)
    for (const doc of made) {
      const { cells } = tablesOf(layoutDocument(typesetter(), doc).placed[0]!)[0]!
      const [ebb] = fragmentsOf(layoutDocument(typesetter(), doc).placed[0]!).filter((own) => own.cell !== null)
      expect(ebb!.paragraph.lines[0]!.runs[0]!.x).toBe(0)
      expect(cells[0]!.height).toBeCloseTo(ebb!.paragraph.height + 6, 1)
    }
  })

  test("rows are kept whole, or divided where the table allows it", () => {
    const whole = layoutDocument(typesetter(), long({ divides: false }, 60))
    const divided = layoutDocument(typesetter(), long({ divides: true }, 60))
    const parts = (layout: typeof whole) =>
      layout.placed.flatMap(fragmentsOf).filter(({ from, to, paragraph: own }) => from > 0 || to < own.lines.length)
        .length
    expect([parts(whole), parts(divided) > 0, divided.placed.length < whole.placed.length]).toEqual([0, true, true])
  })

  test("a row higher than three sheets goes on over them, and a head does not stand alone at the foot", () => {
    const high = layoutDocument(
      typesetter(),
      document([table([[[p("wave ".repeat(6000))], [p("x")]]], { headRows: 0 })]),
    )
    expect(high.placed.length).toBeGreaterThan(2)
    const filled = Array.from({ length: 43 }, () => paragraph("body", ["line"], { spaceAfter: 0 }))
    const layout = layoutDocument(typesetter(), document([...filled, board(), p()]))
    const heads = layout.placed.flatMap((placed, i) =>
      fragmentsOf(placed).flatMap(({ paragraph: own }) => (own.text === "Crossing" ? [i] : [])),
    )
    const rows = layout.placed.flatMap((placed, i) =>
      fragmentsOf(placed).flatMap(({ paragraph: own }) => (own.text === "Dawn" ? [i] : [])),
    )
    expect(heads).toEqual(rows)
  })

  test("widths are kept where they have room and made narrower where not; lines and grounds follow the look", () => {
    const [own] = tablesOf(
      layoutDocument(typesetter(), document([board({ columns: [300, 300, 300], look: "tideBoard" }), p()])).placed[0]!,
    )
    const { setup } = { setup: documentSetup() }
    expect(own!.width).toBeCloseTo(setup.width - setup.margins.left - setup.margins.right)
    expect(own!.columns[1]).toBeCloseTo(own!.width / 3)
    expect(own!.ground.fills.map(({ width }) => width)).toEqual([expect.closeTo(own!.width)])
    const [narrow] = tablesOf(
      layoutDocument(typesetter(), document([board({ columns: [60, 60, 60], align: "right" }), p()])).placed[0]!,
    )
    expect([narrow!.width, Math.round(narrow!.x + 180)]).toEqual([180, Math.round(setup.width - setup.margins.right)])
  })
})

const documentSetup = () => document([p()]).attrs.setup as { width: number; margins: { left: number; right: number } }

describe("tables from outside", () => {
  test("HTML with spans, heads, widths and grounds comes in as it was written, and again", () => {
    const state = after(at(begun({ columns: [120, 60, 60] }), 4, 8), joinCells)
    const page = htmlPage(state.doc, "Board")
    const { doc } = readFile(new TextEncoder().encode(page), "board.html")
    const again = EditorState.create({ doc })
    expect(cells(again)).toEqual(cells(state))
    expect(doc.child(0).child(1).attrs.format).toMatchObject({ columns: [120, 60, 60] })
  })

  test("cells that overlap, reach too far or lack are put right; 2,000 columns become several tables", () => {
    const odd = readHtml("<table><tr><td rowspan=9>a<td>b<tr><td colspan=4>c<td>d<tr></table>")
    const doc = document([...odd.content.content, p()])
    checkDocument(doc)
    expect(gridOf(doc.child(0).child(0)).whole).toBe(true)
    const wide = readHtml(`<table><tr>${"<td>x".repeat(2000)}</table>`)
    expect(wide.content.content.filter(({ type }) => type === nodes.table)).toHaveLength(Math.ceil(2000 / 63))
    expect(wide.content.textBetween(0, wide.content.size).length).toBe(2000)
  })

  test("values divided by commas become a table whose numbers stand at the right, and go out again", () => {
    const source = 'Name,"Fare, single"\r\nDawn,2.50\r\n"Noon ""late""",3\r\n'
    const { doc } = readFile(new TextEncoder().encode(source), "fares.csv")
    expect(cells(EditorState.create({ doc }))).toEqual([
      ["Name", "Fare, single"],
      ["Dawn", "2.50"],
      ['Noon "late"', "3"],
    ])
    expect(new TextDecoder().decode(formats.csv.write!({ name: null, doc }))).toBe(source)
    const place = tableAt(doc.resolve(cellPosition(doc.child(0).child(0), 1, { row: 1, index: 1 }) + 2))
    expect(place!.cell.node.firstChild!.attrs.format).toMatchObject({ align: "right" })
  })
})

describe("in the flow view", () => {
  const flow = { mode: "flow", width: 340, margin: 12 } as const
  const long = (rows: number) =>
    document([
      table(
        Array.from({ length: rows }, (_, i) => [
          `Send the letter of the trustees again, ${i}`,
          "Imre Fallow",
          "at once",
        ]).map((row) => row.map((own) => [p(own)])),
        { columns: [260, 120, 70] },
      ),
    ])
  const placesOf = (layout: ReturnType<typeof layoutDocument>) =>
    layout.placed.flatMap((placed) => [
      ...tablesOf(placed).map(({ columns }) => columns.map((edge) => edge.toFixed(1)).join()),
      ...fragmentsOf(placed).map(({ leaf, x, y, from, to }) => [leaf, x.toFixed(1), y.toFixed(1), from, to].join()),
    ])

  test("a long word has the width that it needs, from the columns that have room, in all rows and wherever it is typed", () => {
    let doc = long(160)
    let layout = layoutDocument(typesetter(), doc, flow)
    expect(layout.placed.length).toBeGreaterThan(3)
    const widths = () => tablesOf(layout.placed[0]!)[0]!.columns
    const before = widths()
    for (const [row, word] of [
      [4, "Novembertide"],
      [90, "Michaelmastide"],
      [130, "Whitsuntide"],
    ] as const) {
      const leaf = row * 3 + 2
      const state = EditorState.create({ doc })
      doc = state.tr.insertText(`${word} `, leavesOf(doc).start(leaf)).doc
      layout = layoutDocument(typesetter(), doc, flow, layout)
      expect(placesOf(layout)).toEqual(placesOf(layoutDocument(typesetter(), doc, flow)))
      const lines = layout.placed
        .flatMap((placed) => fragmentsOf(placed))
        .filter((own) => own.leaf === leaf)
        .flatMap(({ paragraph: { lines, text }, from, to }) =>
          lines.slice(from, to).map((line) => text.slice(line.from, line.to).trim()),
        )
      // Of what stands far down nobody knows when the first rows are shown.
      if (row < 100) expect(lines[0]).toBe(word)
    }
    expect(widths()[3]).toBeCloseTo(before[3]!, 1)
    expect(widths()[3]! - widths()[2]!).toBeGreaterThan(before[3]! - before[2]! + 10)
  })

  test("rather than break a word, the room beside the text of cells becomes less; where that does not help, it stays", () => {
    const heads = ["Wednesday", "Crossings", "Passengers", "Bicycles"]
    const doc = document([
      table([heads.map((own) => [p(own)]), ["8 April", "8", "49", "9"].map((own) => [p(own)])], {}),
    ])
    const rows = (width: number) => {
      const [placed] = layoutDocument(typesetter(), doc, { mode: "flow", width, margin: 12 }).placed
      const found = fragmentsOf(placed!).slice(0, 4)
      const { columns } = tablesOf(placed!)[0]!
      return {
        broken: found.filter(({ paragraph: own }) => own.lines.length > 1).length,
        // From the edge of the first cell to its text.
        across: found[0]!.x - tablesOf(placed!)[0]!.x - columns[0]!,
      }
    }
    const [wide, tight, tighter] = [rows(340), rows(262), rows(200)]
    expect([wide.broken, tight.broken, tighter.broken > 0]).toEqual([0, 0, true])
    expect(wide.across).toBeCloseTo(5, 1)
    expect(tight.across).toBeLessThan(4.5)
    expect(tighter.across).toBeCloseTo(5, 1)
  })

  test("where there is no room for all words, each column has its part, and nothing is lost", () => {
    const words = ["Unwahrscheinlichkeitsrechnung", "Donaudampfschifffahrt", "Grundstücksverkehrsgenehmigung"]
    const doc = document([table([words.map((own) => [p(own)])], { columns: [10, 400, 40] })])
    const layout = layoutDocument(typesetter(), doc, flow)
    const { columns, width } = tablesOf(layout.placed[0]!)[0]!
    expect(width).toBeLessThanOrEqual(340 - 24 + 0.01)
    expect(Math.min(...columns.slice(1).map((edge, i) => edge - columns[i]!))).toBeGreaterThan(60)
    expect(layout.placed.flatMap((placed) => fragmentsOf(placed)).map(({ paragraph: { text } }) => text)).toEqual(words)
    // On sheets the table is as it says.
    const [onSheet] = tablesOf(layoutDocument(typesetter(), doc).placed[0]!)
    expect(onSheet!.columns[1]).toBeCloseTo(10, 1)
  })
})

test("a table of which no width is said is as wide as its column of text, but for its indent; one in a cell has no such width", () => {
  const [own, inner] = [table([[[p("a")], [p("b")]]]), table([[[p("c")]]])]
  const doc = document(
    [
      p("Tides"),
      own,
      nodes.sectionBreak.create({
        setup: { ...defaultSetup, columns: { ...defaultSetup.columns, count: 2, gap: 20 } },
      }),
      own.type.create({ format: { indent: 30 } }, own.content),
      table([[[inner]]]),
      p("b"),
    ],
    { setup: defaultSetup },
  )
  const at: number[] = []
  doc.descendants((node, pos) => void (node.type.name === "table" && at.push(pos)))
  const laid = layoutOf(doc).placed.flatMap((placed) => tablesOf(placed))
  const set = at.slice(0, 3).map((_, i) => laid[i]!.columns.at(-1)!)
  const widths = at.map((pos) => wholeWidth(doc, pos))
  expect(widths.slice(0, 3).map((own) => Math.round(own!))).toEqual(set.map((width) => Math.round(width)))
  expect([widths[3], wholeWidth(doc, 1)]).toEqual([null, null])
})
