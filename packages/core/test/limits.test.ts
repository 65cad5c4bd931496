/** By construction: whatever command runs on whatever document, with whatever it may be given, the server takes the result. */
import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import { document, documentAttrs, gridOf, letters, p, paragraph, schema, table } from "../src/document"
import { checkDocument } from "../src/document/reading"
import * as editing from "../src/editing"
import { editHistory } from "../src/editing"
import { acted, anyAct, commands } from "./anyCommand"

/** What the folder gives that is no command, nor makes one. */
const others = new Set(
  "freeName referenceTargets usualLabels fitPicture pictureFormatHere pictureHere CellSelection endOfTable cellsHere cellsIn formulaHere likelyDivider linesHere partOf putBlock rowHeightHere selectRect selectedRect selectionBetween settle sortedRows stretchesOf tableHere breakBefore coverOf withoutForeignComments partTitle setupBehind breakSection breakSectionAt ensureEdge fieldAt isOfSheet putSetup typedNumber usualContents blanksBefore contentsIn markHere newKey noteHere numberPatterns numberPlace sectionHere setupHere turned Search accurate answers asideOf asName atItemStart beforeBlock bring broughtBy changes coloursInUse commonSlips correctionKinds correctionOf defaultBorder differsFromStyle directFormat documentEdge documentOf eachParagraph editHistory expressionOf familiesInUse findInText firstOf formatNames formatOf formatOfStyle formatParagraph graphemeBoundary headingAt headingNumbers headingStyle headingsOf heldInPart indentStep insertedBy isLong isLongText joining labelValue landingMarks letterExtent letterStyleValue letterValue linkAt linkTargets listOnly listValue lostBetween marksOf moveHorizontally named nextSize noQuery numberValue onParagraphs onWords paragraphValue partAt partsOf paragraphValues pickUpLook placeOfLink propertyNames quoted readAddress selectedSlice selectedText selectionSlice marksAt setTypingMarks settleStories sizeSteps styleValue stylesInUse textParts touchedBy trailMarks typingMarks usualSizes valueName whyNot withBorder withTab wholePart wholeWidth wordAround wordBoundary wordsOf sampleAt samplesIn changeEdgeLine propertyField citationAt citedSources referenceList".split(
    " ",
  ),
)

const start = document([
  paragraph("heading1", ["Tides\tand", schema.nodes.lineBreak!.create(), "timetables"]),
  p("The chain ", letters("lies", { bold: true, size: 20 }), " on the bed."),
  paragraph("list", ["Winch"], { list: { definition: "numbers", run: "a", level: 0 } }),
  paragraph("list", ["Chain"], { list: { definition: "tasks", run: "b", level: 8, done: false } }),
  p(),
  paragraph("heading2", ["Fares"]),
  table(
    [
      [[p("Action")], [p("Who")], [p("Due")]],
      [{ blocks: [p("Grease the winch"), p("and the chain")], rowspan: 2 }, [p("Imre")], [p("3 May 2027")]],
      [{ blocks: [paragraph("list", ["Oil"], { list: { definition: "numbers", run: "a", level: 0 } })], colspan: 2 }],
      [[p("12.50")], [p()], [p("1,200")]],
    ],
    { columns: [200, 100, 80] },
  ),
  p("x".repeat(2200)),
  paragraph("body", ["far in"], {
    indentLeft: 3990,
    tabs: Array.from({ length: 60 }, (_, i) => ({ position: i * 10, align: "left" as const, leader: "none" as const })),
  }),
])

test("every command is among those that are tried", () => {
  expect(Object.keys(editing).filter((name) => !(name in commands) && !others.has(name))).toEqual([])
})

test("any commands on any selection leave a document that the server takes, and that undo takes back", () => {
  fc.assert(
    fc.property(fc.array(anyAct(200), { minLength: 1, maxLength: 12 }), (acts) => {
      let state = EditorState.create({ doc: start, plugins: [editHistory()] })
      for (const act of acts) {
        const { ran, applied, state: next } = acted(state, act)
        state = next
        expect(ran).toBe(applied)
        checkDocument(state.doc)
        state.doc.descendants((node) => void (node.type.name === "table" && expect(gridOf(node).whole).toBe(true)))
        // What only a style sheet knows has no text that could break.
        expect(documentAttrs(state.doc).styles.styles.body).toBeDefined()
      }
      while (editing.undo(state, (tr) => (state = state.apply(tr))));
      checkDocument(state.doc)
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 400) },
  )
})
