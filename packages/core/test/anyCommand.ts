/** Whatever command, with whatever it may be given, on whatever selection. */
import fc from "fast-check"
import { type EditorState, TextSelection } from "prosemirror-state"
import {
  leavesOf,
  p,
  readyLists,
  type CitationItem,
  type LetterFormat,
  type ParagraphFormat,
  type Source,
  coverNames,
  fieldKinds,
  referenceParts,
  table,
  tableLooks,
  noteForms,
  noteRestarts,
  partSigns,
} from "../src/document"
import { briefRules, followBrief, readyBriefs, setBrief } from "../src/brief"
import { tidyRules } from "../src/checking"
import * as editing from "../src/editing"
import type { Command } from "../src/editing"
import { readHtml } from "../src/formats/html"

/** Texts with all that slips into them: what objects answer to, new lines, tabs, halves of characters, great length. */
const text = fc.oneof(
  fc.constantFrom(
    "",
    " ",
    "constructor",
    "__proto__",
    "a\tb\nc",
    "\u0000\u0001",
    "https://ferry.example/a",
    "mailto:imre@ferry.example",
    "#Tides",
    "x".repeat(3000),
    "\ud83d",
    "1.1 ",
    "(1) ",
  ),
  fc.string({ maxLength: 30, unit: "grapheme" }),
)
const number = fc.oneof(
  fc.constantFrom(0, -1, 0.5, 1, 2, 36, 4000, 4001, -4001, 1e9, -1e9, 1e-9),
  fc.double({ noNaN: true, min: -5000, max: 5000 }),
)
const boolean = fc.boolean()
const sourceKey = fc.oneof(fc.constantFrom("a", "b", "constructor", "__proto__", ""), fc.string({ maxLength: 90 }))
const citationParts = fc.array(
  fc.record<CitationItem>({ source: sourceKey, at: fc.string(), bare: boolean }, { requiredKeys: ["source"] }),
  { minLength: 1, maxLength: 3 },
)
const sources = ["Tides", "Ropes"].map((title): Source => ({
  kind: "book",
  names: {},
  fields: { title },
  issued: "2019",
  accessed: "",
  remarks: "",
  quotations: [],
}))
const colour = fc.constantFrom("#000000", "#7a1f4b")
const key = fc.constantFrom("body", "heading1", "list", "constructor", "emphasis", "none", "__proto__")
const definition = fc.constantFrom(...Object.keys(readyLists), "constructor", "own")
const partSign = fc.option(fc.constantFrom(...partSigns))
const partName = fc.record({ name: text, sign: partSign })
const direction = fc.constantFrom(-1 as const, 1 as const)
const block = fc.nat(12)

const letterValues: Partial<Record<keyof LetterFormat, fc.Arbitrary<unknown>>> = {
  size: number,
  raise: number,
  spacing: number,
  bold: boolean,
  italic: boolean,
  underline: fc.constantFrom("none", "single", "wavy"),
  colour,
  highlight: fc.option(colour),
  family: fc.constantFrom("Tinos", "Lora"),
  language: fc.constantFrom("en-GB", "de", "th"),
  caps: fc.constantFrom("none", "small", "all"),
}
const letterFormat = fc.record(letterValues, { requiredKeys: [] }) as fc.Arbitrary<Partial<LetterFormat>>
const border = fc.record({
  pattern: fc.constantFrom("solid" as const, "double" as const),
  width: number,
  colour,
  distance: number,
})
const tab = fc.record({
  position: number,
  align: fc.constantFrom("left" as const, "decimal" as const),
  leader: fc.constantFrom("none" as const, "dotted" as const),
})
const paragraphFormat = fc.record(
  {
    align: fc.constantFrom("left", "center", "justify"),
    lineSpacing: fc.record({ rule: fc.constantFrom("multiple", "exact", "atLeast"), value: number }),
    spaceBefore: number,
    spaceAfter: number,
    indentLeft: number,
    indentRight: number,
    indentFirst: number,
    tabs: fc.array(tab, { maxLength: 70 }),
    borders: fc.record({ top: border, left: border }, { requiredKeys: [] }),
    dropCap: fc.option(fc.record({ lines: number, distance: number, family: fc.constant(null) })),
    orphans: number,
    widows: number,
    keepNext: boolean,
    breakBefore: boolean,
    columnBefore: boolean,
    listed: boolean,
    listedAs: text,
  },
  { requiredKeys: [] },
) as fc.Arbitrary<Partial<ParagraphFormat>>

/** Every command of the folder, with arguments of the kinds that the interface gives and beyond. A new one has to be named here. */
const edge = fc.constantFrom("head" as const, "foot" as const)
const far = fc.double({ min: -1e5, max: 1e5, noNaN: true })
/** Values of a setup far beyond their bounds. */
const anySetup = fc
  .record({
    width: far,
    height: far,
    gutter: far,
    margin: far,
    count: far,
    gap: far,
    start: fc.option(far),
    words: text,
  })
  .map(({ width, height, gutter, margin, count, gap, start, words }) => ({
    width,
    height,
    gutter,
    margins: { top: margin, right: margin / 2, bottom: gap, left: -margin },
    columns: { count, gap, line: true, shares: [gap, height] },
    numbering: { form: "lowerRoman" as const, start },
    frame: { pattern: "double" as const, width: gap, colour: "#7a1f4b", distance: margin },
    watermark: { text: words, family: "Lora", size: width, angle: gap, colour: "#7a1f4b", strength: margin },
  }))

const pictureChange = fc.record(
  {
    width: fc.option(number),
    height: fc.option(number),
    turn: number,
    opacity: number,
    distance: number,
    alt: text,
    crop: fc.record({ top: number, right: number, bottom: number, left: number }),
    wrap: fc.constantFrom("line" as const, "beside" as const, "over" as const),
    frame: fc.option(border),
    colours: fc.record({
      tone: fc.constantFrom("own" as const, "tint" as const),
      brightness: number,
      contrast: number,
      cut: fc.option(number),
    }),
    across: fc.record({
      of: fc.constantFrom("column" as const, "sheet" as const),
      align: fc.constant(null),
      at: number,
    }),
    down: fc.record({ of: fc.constantFrom("paragraph" as const, "sheet" as const), at: number }),
  },
  { requiredKeys: [] },
)

/** A command on the first table of the document. */
const inTable =
  (command: (pos: number) => Command): Command =>
  (state, dispatch) => {
    let at = -1
    state.doc.descendants((node, pos) => {
      if (at < 0 && node.type.name === "table") at = pos
      return at < 0
    })
    return at >= 0 && command(at)(state, dispatch)
  }

export const commands: Record<string, fc.Arbitrary<Command>> = {
  ...Object.fromEntries(
    (
      [
        "backspace",
        "backTabKey",
        "clearLetters",
        "clearParagraphs",
        "continueList",
        "deleteBackward",
        "deleteForward",
        "deleteMark",
        "deleteColumns",
        "deleteRows",
        "deleteSelection",
        "deleteTable",
        "divideCell",
        "joinCells",
        "paragraphBefore",
        "textFromTable",
        "deleteWordBackward",
        "deleteWordForward",
        "endItem",
        "enter",
        "insertLineBreak",
        "insertRule",
        "insertSheetBreak",
        "insertColumnBreak",
        "insertBlankSheet",
        "insertEndnote",
        "turnNote",
        "typedToNumber",
        "takeBreak",
        "leaveList",
        "listFromTyping",
        "redo",
        "removeLink",
        "resetToStyle",
        "selectAll",
        "splitParagraph",
        "tabKey",
        "toggleBold",
        "toggleCapitals",
        "toggleDirection",
        "toggleDoneHere",
        "toggleHanging",
        "priceLine",
        "toggleItalic",
        "toggleSmallCapitals",
        "toggleStrike",
        "toggleSubscript",
        "toggleSuperscript",
        "toggleUnderline",
        "undo",
        "updateStyle",
      ] as const
    ).map((name) => [name, fc.constant(editing[name] as Command)]),
  ),
  insertText: text.map((own) => editing.insertText(own)),
  insertCaption: fc
    .tuple(text, fc.constantFrom("above" as const, "below" as const))
    .map(([label, side]) => editing.insertCaption(label, side)),
  insertReference: fc.tuple(fc.nat(6), fc.constantFrom(...referenceParts)).map(
    ([n, part]) =>
      ((state, dispatch) => {
        const target = editing.referenceTargets(state.doc)[n]
        return target !== undefined && editing.insertReference(target, part)(state, dispatch)
      }) as Command,
  ),
  insertPicture: fc
    .tuple(fc.integer({ min: 1, max: 40_000 }), pictureChange)
    .map(([width, change]) =>
      editing.insertPicture({ asset: "a".repeat(64), source: null, pixels: [width, 9] }, change),
    ),
  setPicture: fc.tuple(fc.nat(120), pictureChange).map(([pos, change]) => editing.setPicture(pos, change)),
  replacePicture: fc
    .tuple(fc.nat(120), pictureChange)
    .map(([pos, change]) =>
      editing.replacePicture(pos, { asset: "b".repeat(64), source: null, pixels: [3, 4] }, change),
    ),
  behindPicture: fc.nat(120).map(editing.behindPicture),
  insertTable: fc.tuple(number, number).map(([rows, columns]) => editing.insertTable(Math.min(rows, 30), columns)),
  tableFromText: fc
    .constantFrom(undefined, "tabs" as const, "commas" as const, "paragraphs" as const)
    .map(editing.tableFromText),
  pasteCells: fc.nat(3).map((n) =>
    editing.pasteCells(
      table([
        [[p(`${n}`)], [p("b")]],
        [[p("c")], [p("d")]],
      ]),
    ),
  ),
  addRows: fc.constantFrom("above" as const, "below" as const).map(editing.addRows),
  addColumns: fc.constantFrom("before" as const, "behind" as const).map(editing.addColumns),
  moveRows: fc
    .tuple(fc.nat(4), fc.nat(4), fc.nat(5))
    .map(([from, to, at]) => inTable((pos) => editing.moveRows(pos, from, to, at))),
  moveColumns: fc
    .tuple(fc.nat(4), fc.nat(4), fc.nat(5))
    .map(([from, to, at]) => inTable((pos) => editing.moveColumns(pos, from, to, at))),
  nextCell: direction.map(editing.nextCell),
  setTable: fc
    .record(
      {
        headRows: number,
        indent: number,
        alt: text,
        look: fc.constantFrom(...tableLooks),
        padding: fc.record({ across: number, down: number }),
        columns: fc.array(number, { minLength: 1, maxLength: 80 }),
      },
      { requiredKeys: [] },
    )
    .map((change) => editing.setTable(change)),
  setColumns: fc.array(number, { maxLength: 5 }).map((widths) => inTable((pos) => editing.setColumns(pos, widths))),
  evenColumns: fc.array(number, { maxLength: 5 }).map(editing.evenColumns),
  setRowHeight: number.map(editing.setRowHeight),
  setHeights: fc
    .tuple(fc.nat(3), number)
    .map(([row, height]) => inTable((pos) => editing.setHeights(pos, row, row + 1, height))),
  setCells: fc
    .record(
      {
        shading: fc.option(colour),
        vertical: fc.constantFrom("middle" as const, "bottom" as const),
        reading: fc.constantFrom("across" as const, "up" as const, "down" as const),
      },
      { requiredKeys: [] },
    )
    .map((change) => editing.setCells(change)),
  setLines: fc
    .tuple(fc.constantFrom("all" as const, "round" as const, "between" as const, "left" as const), fc.option(border))
    .map(([which, own]) => editing.setLines(which, own)),
  selectTable: fc
    .constantFrom("cell" as const, "row" as const, "column" as const, "table" as const)
    .map(editing.selectTable),
  selectCells: fc
    .tuple(fc.nat(4), fc.nat(4), fc.nat(4), fc.nat(4))
    .map(([top, left, bottom, right]) => inTable((pos) => editing.selectCells(pos, { top, left, bottom, right }))),
  sortRows: fc.tuple(fc.nat(3), direction).map(([column, by]) =>
    editing.sortRows([
      { column, direction: by },
      { column: 0, direction: 1 },
    ]),
  ),
  setFormula: fc
    .tuple(
      fc.oneof(text, fc.constantFrom("sum(column)", "B2/A9", "C4*2")),
      fc.constantFrom(null, 2, "percent" as const),
    )
    .map(([expression, decimals]) => editing.setFormula({ expression, decimals })),
  pasteText: text.map(editing.pasteText),
  pasteSlice: fc
    .oneof(
      text,
      fc.constantFrom(
        "<ul><li>a<ol type=i><li>b</ol></ul>",
        "<h1>T</h1><p style='font-size:900pt;letter-spacing:-99pt;margin-left:9999pt'>x</p>",
        "<p lang='xx-x'>q<br>r</p>",
      ),
    )
    .map((html) => editing.pasteSlice(readHtml(html))),
  insertPart: fc.nat(20).map(
    (count) =>
      ((state, dispatch) =>
        editing.insertPart(
          editing.beforeBlock(state),
          Array.from({ length: count + 1 }, () => p("part")),
        )(state, dispatch)) as Command,
  ),
  insertStory: fc.constantFrom("note" as const, "textBox" as const).map((kind) => editing.insertStory(kind)),
  insertField: fc.constantFrom("long", "constructor", "time").map(editing.insertField),
  dragSelection: fc.tuple(fc.nat(80), boolean).map(([to, copies]) => editing.dragSelection(to, copies)),
  setLetters: fc
    .constantFrom(...(Object.keys(letterValues) as (keyof LetterFormat)[]))
    .chain((name) => letterValues[name]!.map((value) => editing.setLetters(name, value as never))),
  setLettersAt: fc
    .tuple(number, fc.nat(9))
    .map(
      ([size, at]) =>
        ((state, dispatch) =>
          editing.setLettersAt("size", size, at, Math.min(state.doc.content.size, at + 3))(state, dispatch)) as Command,
    ),
  eachLetters: number.map((by) => editing.eachLetters("size", (size) => size + by, "Size")),
  setLetterStyle: fc.option(key).map(editing.setLetterStyle),
  removeLetters: fc.constant<Command>((state, dispatch) =>
    editing.removeLetters("size", state.selection.from, state.selection.to)(state, dispatch),
  ),
  stepSize: direction.map(editing.stepSize),
  setParagraphs: paragraphFormat.map((format) => editing.setParagraphs(format)),
  eachFormatted: number.map((by) =>
    editing.eachFormatted(({ indentLeft }) => ({ indentLeft: indentLeft + by }), "Indent"),
  ),
  toggleParagraph: fc.constantFrom("keepNext" as const, "hyphenate" as const).map(editing.toggleParagraph),
  stepIndent: direction.map(editing.stepIndent),
  placeTab: fc.tuple(fc.option(tab), fc.option(number)).map(([stop, from]) => editing.placeTab(stop, from)),
  setBorder: fc
    .tuple(fc.constantFrom("around" as const, "top" as const, "between" as const), fc.option(border))
    .map(([side, own]) => editing.setBorder(side, own)),
  setDropCap: fc
    .option(fc.record({ lines: number, distance: number, family: fc.constant(null) }))
    .map(editing.setDropCap),
  removeFormatHere: fc.constantFrom("indentLeft" as const, "tabs" as const).map(editing.removeFormatHere),
  changeStyleFamily: fc
    .tuple(fc.constantFrom("body", "heading", "heading1", "constructor"), paragraphFormat, letterFormat)
    .map(([style, own, ink]) => editing.changeStyleFamily(style, { paragraph: own, letters: ink })),
  cycleHeading: fc.constant(editing.cycleHeading),
  removeFormat: fc.constant<Command>((state, dispatch) =>
    editing.removeFormat(state.selection.$from.before(), "indentLeft")(state, dispatch),
  ),
  setTypesetting: fc
    .record({ word: number, before: number, after: number, inRow: number, capitals: boolean })
    .map((hyphenation) => editing.setTypesetting({ breaking: "whole", hyphenation })),
  toggleList: definition.map(editing.toggleList),
  stepLevel: direction.map(editing.stepLevel),
  restartList: number.map(editing.restartList),
  toggleDone: block.map(
    (own) =>
      ((state, dispatch) =>
        editing.toggleDone(Math.min(own, leavesOf(state.doc).count - 1))(state, dispatch)) as Command,
  ),
  defineList: text.map((name) => editing.defineList((list) => ({ ...list, name }))),
  defineLevel: fc
    .tuple(fc.nat(8), text, number, number)
    .map(([level, format, indent, start]) => editing.defineLevel(level, { format, indent, hanging: indent, start })),
  setStyle: key.map(editing.setStyle),
  newStyle: fc
    .tuple(text, fc.constantFrom("paragraph" as const, "letters" as const))
    .map(([name, kind]) => editing.newStyle(name, kind)),
  changeStyle: fc.tuple(key, text).map(([style, name]) => editing.changeStyle(style, { name })),
  changeStyleFormat: fc
    .tuple(key, paragraphFormat, letterFormat)
    .map(([style, own, ink]) => editing.changeStyleFormat(style, { paragraph: own, letters: ink })),
  deleteStyle: key.map(editing.deleteStyle),
  numberHeadings: fc.option(definition).map(editing.numberHeadings),
  changeDefaults: fc
    .tuple(paragraphFormat, letterFormat)
    .map(([own, ink]) => editing.changeDefaults({ paragraph: own, letters: ink }, "Defaults")),
  replaceSheet: fc.constant(editing.replaceSheet((sheet) => sheet, "Set")),
  addFont: text.filter((name) => name.trim() !== "").map((name) => editing.addFont(name, { regular: "a".repeat(64) })),
  setLink: text.map((href) => editing.setLink(editing.readAddress(href) ?? href)),
  linkToTarget: fc.nat(5).map(
    (n) =>
      ((state, dispatch) => {
        const target = editing.linkTargets(state.doc)[n]
        return target !== undefined && editing.linkToTarget(target)(state, dispatch)
      }) as Command,
  ),
  markPlace: text.map(editing.markPlace),
  moveSection: fc.tuple(block, block).map(([from, to]) => editing.moveSection(from, to)),
  promoteSection: fc.tuple(block, direction).map(([own, by]) => editing.promoteSection(own, by)),
  layLook: fc
    .constantFrom("letters" as const, "paragraph" as const, "both" as const)
    .map((part) => ((state, dispatch) => editing.layLook(editing.pickUpLook(state), part)(state, dispatch)) as Command),
  correct: fc.constant(editing.correct({ off: [], own: {} })),
  replaceHits: fc.tuple(text, text).map(
    ([wanted, by]) =>
      ((state, dispatch) => {
        const search = new editing.Search({ ...editing.noQuery, text: wanted.slice(0, 3) })
        return editing.replaceHits(search, search.all(state.doc).slice(0, 20), by)(state, dispatch)
      }) as Command,
  ),
  leaveRemark: fc.tuple(text, boolean).map(([remark, left]) => editing.leaveRemark(remark, left)),
  knowWord: fc.tuple(text, boolean).map(([word, known]) => editing.knowWord(word, known)),
  mendAll: fc.constant(
    editing.mendAll(
      tidyRules.map((rule) => rule.find),
      "Tidied",
    ),
  ),
  repairText: fc.array(fc.tuple(fc.nat(60), fc.nat(60), text), { maxLength: 4 }).map((repairs) =>
    editing.repairText(
      repairs.map(([from, to, own]) => ({ from, to, text: own })),
      "Right",
    ),
  ),
  takeBack: fc
    .nat(3)
    .map(
      (n) =>
        ((state, dispatch) => editing.takeBack(editing.changes(state).done[n]?.id ?? -1)(state, dispatch)) as Command,
    ),
  undoBackTo: fc
    .nat(3)
    .map(
      (n) =>
        ((state, dispatch) => editing.undoBackTo(editing.changes(state).done[n]?.id ?? -1)(state, dispatch)) as Command,
    ),
  redoUpTo: fc
    .nat(3)
    .map(
      (n) =>
        ((state, dispatch) => editing.redoUpTo(editing.changes(state).undone[n]?.id ?? -1)(state, dispatch)) as Command,
    ),
  changeSetup: fc
    .tuple(anySetup, fc.constantFrom("all" as const, "here" as const))
    .map(([own, scope]) => editing.changeSetup((before) => ({ ...before, ...own }), scope, "Paper")),
  startSection: fc
    .tuple(anySetup, fc.constantFrom("sheet" as const, "odd" as const, "continuous" as const))
    .map(([own, begins]) => editing.startSection(begins, (before) => ({ ...before, ...own }))),
  blanksToBreak: fc.constant(editing.blanksToBreak),
  joinSections: fc.constant(editing.joinSections),
  insertNote: fc.constant(editing.insertNote),
  changeNotes: fc.oneof(
    fc
      .tuple(fc.constantFrom(...noteForms), fc.constantFrom(...noteRestarts))
      .map(([form, restart]) => editing.changeNotes("foot", { form, restart })),
    fc.constantFrom(...noteForms).map((form) => editing.changeNotes("end", { form })),
  ),
  setCover: fc.option(fc.constantFrom(...coverNames)).map(editing.setCover),
  changeProperties: fc.record({ title: text, date: text }, { requiredKeys: [] }).map(editing.changeProperties),
  removeBreak: fc.nat(120).map(editing.removeBreak),
  changeField: fc
    .tuple(fc.nat(120), fc.option(fc.constantFrom(...fieldKinds)))
    .map(
      ([pos, kind]) =>
        ((state, dispatch) =>
          pos < state.doc.content.size && editing.changeField(pos, kind && { kind })(state, dispatch)) as Command,
    ),
  fieldToText: fc
    .tuple(fc.nat(120), text)
    .map(
      ([pos, words]) =>
        ((state, dispatch) =>
          pos < state.doc.content.size && editing.fieldToText(pos, words)(state, dispatch)) as Command,
    ),
  insertContents: fc.integer({ min: 1, max: 9 }).map((levels) => editing.insertContents({ levels, look: "plain" })),
  changeContents: fc.option(fc.constant({ look: "ruled" as const })).map(editing.changeContents),
  crossNote: fc.constant(editing.crossNote),
  writeEdge: fc
    .tuple(edge, fc.constantFrom("all" as const, "first" as const, "left" as const), fc.nat(3), boolean)
    .map(([at, variant, section, own]) => editing.writeEdge(at, variant, section, own)),
  fillEdge: fc.tuple(edge, text).map(([at, line]) => editing.fillEdge(at, `${line}|{page} of {pages}|{title}`)),
  leaveEdge: fc.nat(3).map(editing.leaveEdge),
  divideEdges: fc
    .tuple(fc.constantFrom("firstOwn" as const, "leftRight" as const), boolean)
    .map(([which, on]) => editing.divideEdges(which, on)),
  insertFieldOf: fc.constantFrom(...fieldKinds).map((kind) => editing.insertFieldOf(kind, "long")),
  placeNumbers: fc
    .tuple(fc.option(fc.record({ edge, part: fc.constantFrom(0 as const, 1 as const, "outer" as const) })), text)
    .map(([place, pattern]) => editing.placeNumbers(place, pattern.replace(/[\t\n]/g, " "))),
  writeNumbers: text.map((pattern) => editing.writeNumbers(pattern.replace(/[\t\n]/g, " "))),
  putSources: fc.dictionary(sourceKey, fc.option(fc.constantFrom(...sources))).map(editing.putSources),
  removeSource: sourceKey.map(editing.removeSource),
  insertCitation: fc.tuple(citationParts, boolean).map(([items, notes]) => editing.insertCitation(items, notes)),
  insertQuotation: fc
    .tuple(text, citationParts, boolean)
    .map(([words, [item], notes]) => editing.insertQuotation(words, item!, notes)),
  changeCitation: fc.tuple(fc.nat(200), citationParts).map(
    ([pos, items]): Command =>
      (state, dispatch) =>
        editing.changeCitation(editing.citationAt(state)?.pos ?? pos % state.doc.content.size, items)(state, dispatch),
  ),
  changeCitationStyle: fc
    .tuple(fc.constantFrom("apa", "own", ""), boolean)
    .map(([style, notes]) => editing.changeCitationStyle(style, notes)),
  removeComment: key.map(editing.removeComment),
  startPart: partName.map(editing.startPart),
  addPart: partName.map(editing.addPart),
  renamePart: fc
    .tuple(fc.nat(3), fc.record({ name: text, sign: partSign }, { requiredKeys: [] }))
    .map(([index, change]) => editing.renamePart(index, change)),
  joinPart: fc.nat(3).map(editing.joinPart),
  movePart: fc.tuple(fc.nat(3), fc.nat(4)).map(([index, before]) => editing.movePart(index, before)),
  deletePart: fc.nat(3).map(editing.deletePart),
  turnReferenceList: boolean.map(editing.turnReferenceList),
  setBrief: fc.option(fc.constantFrom(...readyBriefs)).map(setBrief),
  followBrief: fc.subarray([...briefRules], { minLength: 1 }).map((rules) => followBrief(rules, "Follows")),
}

/** A command, and the selection that it runs on; null for the one that is there. */
export interface Act {
  name: string
  command: Command
  selection: [anchor: number, head: number] | null
}

/** @param most places up to which selections lie */
export const anyAct = (most: number): fc.Arbitrary<Act> =>
  fc
    .record({
      act: fc.oneof(...Object.entries(commands).map(([name, own]) => own.map((command) => ({ name, command })))),
      anchor: fc.nat(most),
      head: fc.nat(most),
      keeps: boolean,
    })
    .map(({ act, anchor, head, keeps }) => ({ ...act, selection: keeps ? null : [anchor, head] }))

/** @returns the state behind it, and whether the command said that it applies, and changed something */
export function acted(
  state: EditorState,
  { command, selection }: Act,
): { state: EditorState; applied: boolean; ran: boolean } {
  if (selection) {
    const [anchor, head] = selection.map((n) => state.doc.resolve(n % (state.doc.content.size + 1)))
    const ends = TextSelection.between(anchor!, head!)
    state = state.apply(state.tr.setSelection(editing.selectionBetween(state.doc, ends.anchor, ends.head)))
  }
  let ran = false
  const applied = command(state, (tr) => {
    ran = true
    state = state.apply(editing.settle(tr))
  })
  return { state, applied, ran }
}
