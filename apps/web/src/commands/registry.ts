/**
 * Every tool of the desk, once: what it is called and might be called, its icon and keys, whether it is
 * on, and what it does. Trays, bars and keys are drawn from here.
 */
import type { EditorState } from "prosemirror-state"
import { commentsOf, edgeAt, leavesOf, namedParts, type ParagraphFormat } from "@biblon/core/document"
import {
  backspace,
  backTabKey,
  clearLetters,
  clearParagraphs,
  cycleHeading,
  deleteForward,
  deleteWordBackward,
  deleteWordForward,
  differsFromStyle,
  insertLineBreak,
  insertRule,
  insertSheetBreak,
  leaveList,
  letterExtent,
  letterValue,
  listValue,
  markPlace,
  paragraphValue,
  priceLine,
  promoteSection,
  headingAt,
  redo,
  resetToStyle,
  selectAll,
  setParagraphs,
  setStyle,
  styleValue,
  stepIndent,
  stepLevel,
  tabKey,
  toggleCapitals,
  toggleDirection,
  toggleDoneHere,
  toggleHanging,
  toggleList,
  toggleSmallCapitals,
  toggleStrike,
  toggleSubscript,
  toggleSuperscript,
  updateStyle,
  crossNote,
  insertContents,
  insertNote,
  addColumns,
  addRows,
  deleteColumns,
  deleteRows,
  deleteTable,
  divideCell,
  joinCells,
  pictureHere,
  selectTable,
  setCells,
  tableFromText,
  textFromTable,
  insertBlankSheet,
  insertCaption,
  insertColumnBreak,
  insertEndnote,
  turnNote,
  usualContents,
  noteHere,
  enter,
  stepSize,
  toggleBold,
  toggleItalic,
  toggleUnderline,
  undo,
  type Command,
  type Extent,
} from "@biblon/core/editing"
import type { DeskSession } from "../desk/session"
import type { TrayId } from "../desk/store"
import { markSelection } from "./telling"
import {
  Article,
  ArrowsInLineHorizontal,
  ArrowsOutLineHorizontal,
  ArrowUUpLeft,
  ArrowUUpRight,
  ArrowDown,
  ArrowUp,
  BookOpen,
  CaretLeft,
  CaretRight,
  Check,
  Clipboard,
  ClockCounterClockwise,
  Columns,
  ColumnsPlusLeft,
  ColumnsPlusRight,
  Compass,
  Copy,
  DeviceMobile,
  Eraser,
  Eyedropper,
  FileArrowDown,
  FileArrowUp,
  FileHtml,
  FileText,
  FilePlus,
  Files,
  Footprints,
  Globe,
  ImageIcon,
  LineVertical,
  Link,
  ListBullets,
  ListChecks,
  ListMagnifyingGlass,
  ListNumbers,
  MagicWand,
  MagnifyingGlass,
  MapPin,
  PaperPlaneTilt,
  NoteIcon,
  Paragraph,
  PenNib,
  Printer,
  Question,
  Rows,
  RowsPlusBottom,
  RowsPlusTop,
  Ruler,
  Scissors,
  SelectionAll,
  Stamp,
  Plus,
  Minus,
  Moon,
  PencilSimpleLine,
  Swatches,
  Table,
  TextAa,
  TextAlignCenter,
  TextAlignJustify,
  TextAlignLeft,
  TextAlignRight,
  TextB,
  TextIndent,
  TextItalic,
  TextOutdent,
  TextStrikethrough,
  TextSubscript,
  TextSuperscript,
  TextUnderline,
  TreeStructure,
  TreeView,
  X,
  type Icon,
  Quotes,
  Bookmarks,
  ChatText,
} from "../ui/icons"

export interface Tool {
  id: string
  name: string
  /** Other words people might look for it by. */
  words: string
  icon?: Icon
  /** "Mod" is Ctrl, or Command on a Mac. The first one is shown. */
  keys?: readonly string[]
  /** A key that the browser itself answers to. */
  keysShown?: string
  extent?(editor: EditorState): Extent
  /** Whether it does anything now. */
  applies?(editor: EditorState): boolean
  run(session: DeskSession): void
  /** Keys of typing, which nobody looks for by name. */
  silent?: boolean
  /** A short how-to for the help. */
  how?: string
}

function command(id: string, name: string, words: string, act: Command, rest: Partial<Tool> = {}): Tool {
  return { id, name, words, applies: (editor) => act(editor), run: (session) => void session.run(act), ...rest }
}

function extentOf<T>(value: T | undefined, on: T): Extent {
  return value === undefined ? "mixed" : value === on ? "on" : "off"
}

function tray(id: TrayId, name: string, words: string, icon: Icon, how?: string): Tool {
  return { id: `tray-${id}`, name, words, icon, run: (session) => session.opening.tray(id), ...(how ? { how } : {}) }
}

const hasComments = (editor: EditorState) => commentsOf(editor.doc).length > 0
const inParts = (editor: EditorState) => namedParts(editor.doc).length > 1

/** A page of a tray. */
function page(id: TrayId, at: string, name: string, words: string, icon: Icon, how?: string): Tool {
  return { ...tray(id, name, words, icon, how), id: `page-${at}`, run: (session) => session.opening.tray(id, at) }
}

const list = (definition: string, name: string, words: string, icon: Icon, keys: string) =>
  command(`list-${definition}`, name, words, toggleList(definition), {
    icon,
    keys: [keys],
    extent: (e) => (listValue(e) === undefined ? "mixed" : listValue(e)?.definition === definition ? "on" : "off"),
  })

const heading = (level: number) =>
  command(`heading-${level}`, `Heading ${level}`, "style title section", setStyle(`heading${level}`), {
    extent: (e) => extentOf(styleValue(e), `heading${level}`),
  })

/** The heading in whose section the caret stands, a level up or down. */
const promote =
  (direction: -1 | 1): Command =>
  (state, dispatch) => {
    const at = headingAt(state.doc, leavesOf(state.doc).at(state.selection.head))
    return at !== null && promoteSection(at.leaf, direction)(state, dispatch)
  }

/** Whether a document has a table, which can then be saved as values. */
function hasTable({ firstChild }: EditorState["doc"]): boolean {
  return firstChild?.children.some(({ type }) => type.name === "table") ?? false
}

const alignment = (align: ParagraphFormat["align"], name: string, words: string, icon: Icon) =>
  command(`align-${align}`, name, words, setParagraphs({ align }), {
    icon,
    extent: (editor) => extentOf(paragraphValue(editor, "align"), align),
  })

// prettier-ignore
export const tools: readonly Tool[] = [
  command("undo", "Undo", "back revert mistake", undo, { icon: ArrowUUpLeft, keys: ["Mod+z"], how: "Takes back the last change. The list “What was done” goes back several at once, or takes back one earlier change alone." }),
  command("redo", "Redo", "again forward repeat", redo, { icon: ArrowUUpRight, keys: ["Mod+Shift+z", "Mod+y"] }),
  command("bold", "Bold", "strong heavy thick", toggleBold, { icon: TextB, keys: ["Mod+b"], extent: (e) => extentOf(letterValue(e, "bold"), true) }),
  command("italic", "Italic", "slanted emphasis", toggleItalic, { icon: TextItalic, keys: ["Mod+i"], extent: (e) => extentOf(letterValue(e, "italic"), true) }),
  command("underline", "Underline", "line below", toggleUnderline, { icon: TextUnderline, keys: ["Mod+u"], extent: (e) => letterExtent(e, "underline", (line) => line !== "none") }),
  command("strike", "Strike through", "cross out delete line", toggleStrike, { icon: TextStrikethrough, extent: (e) => letterExtent(e, "strike", (line) => line !== "none") }),
  command("superscript", "Superscript", "raised power exponent", toggleSuperscript, { icon: TextSuperscript, extent: (e) => extentOf(letterValue(e, "script"), "super") }),
  command("subscript", "Subscript", "lowered index", toggleSubscript, { icon: TextSubscript, extent: (e) => extentOf(letterValue(e, "script"), "sub") }),
  command("small-capitals", "Small capitals", "caps", toggleSmallCapitals, { icon: TextAa, extent: (e) => extentOf(letterValue(e, "caps"), "small") }),
  command("all-capitals", "All capitals", "caps upper case", toggleCapitals, { extent: (e) => extentOf(letterValue(e, "caps"), "all") }),
  command("clear-letters", "Clear letters", "remove formatting plain reset", clearLetters, { icon: Eraser, keys: ["Mod+Alt+y"], how: "Takes what was set by hand off the letters; styles, links and places stay." }),
  command("clear-paragraph", "Clear paragraph", "remove formatting plain reset", clearParagraphs, { icon: Eraser }),
  { id: "pick-look", name: "Pick up look", words: "match look copy format style paint", icon: Eyedropper, keys: ["Mod+Alt+l"], run: (session) => session.laying.pickUp(), how: "Match look: picks up the look of the text at the caret. What you select next gets it, once or until you put it down; letters, paragraph or both." },
  { id: "lay-look", name: "Lay look", words: "match look paste format apply", keys: ["Mod+Alt+k"], run: (session) => session.laying.lay() },
  command("larger", "Larger letters", "bigger size grow", stepSize(1), { keys: ["Mod+Alt+ArrowUp"] }),
  command("smaller", "Smaller letters", "size shrink", stepSize(-1), { keys: ["Mod+Alt+ArrowDown"] }),
  alignment("left", "Left", "align ragged", TextAlignLeft),
  alignment("center", "Centre", "center align middle", TextAlignCenter),
  alignment("right", "Right", "align", TextAlignRight),
  alignment("justify", "Justify", "align block both sides", TextAlignJustify),
  command("indent-more", "Indent", "move in right", stepIndent(1), { icon: TextIndent, keys: ["Mod+Alt+ArrowRight"] }),
  command("indent-less", "Indent less", "move out left", stepIndent(-1), { icon: TextOutdent, keys: ["Mod+Alt+ArrowLeft"] }),
  command("hanging", "Hanging indent", "reference list bibliography second line", toggleHanging),
  command("direction", "Right to left", "arabic hebrew bidi direction rtl", toggleDirection, { icon: LineVertical, extent: (e) => extentOf(paragraphValue(e, "direction"), "rtl") }),
  command("line-across", "Line across", "horizontal rule separator divider", insertRule),
  list("marks", "List with marks", "bullets points", ListBullets, "Mod+Alt+u"),
  list("numbers", "Numbered list", "numbers ordered steps", ListNumbers, "Mod+Alt+o"),
  list("tasks", "Things to do", "check list boxes tick", ListChecks, "Mod+Alt+t"),
  command("level-deeper", "A level deeper", "list nested sub point", stepLevel(1), { icon: CaretRight }),
  command("level-up", "A level up", "list outdent", stepLevel(-1), { icon: CaretLeft }),
  command("tick", "Tick", "done check box", toggleDoneHere, { icon: Check, keys: ["Mod+Alt+d"] }),
  command("leave-list", "Leave the list", "end remove bullets numbers", leaveList, { icon: X }),
  ...[1, 2, 3].map(heading),
  command("heading-deeper", "Heading, or one level deeper", "heading title chapter", cycleHeading, { keys: ["Mod+Alt+j"], how: "Text becomes a heading, a heading goes a level deeper, and the fourth is text again." }),
  command("body", "Body", "text style normal", setStyle("body"), { keys: ["Mod+Alt+b"], extent: (e) => extentOf(styleValue(e), "body") }),
  command("update-style", "Make the style look like this", "update style selection", updateStyle, { icon: Swatches, how: "What was set by hand at the caret becomes the look of its style; every text in that style follows." }),
  command("reset-style", "Back to the style", "remove direct formatting reset", resetToStyle, { icon: Eraser, applies: differsFromStyle }),
  command("promote", "Section a level up", "heading outline promote", promote(-1), { icon: ArrowUp }),
  command("demote", "Section a level down", "heading outline demote", promote(1), { icon: ArrowDown }),
  { id: "copy", name: "Copy", words: "clipboard", icon: Copy, keysShown: "Mod+c", applies: (e) => !e.selection.empty, run: (session) => void session.clipboard.copy(false) },
  { id: "cut", name: "Cut", words: "clipboard move", icon: Scissors, keysShown: "Mod+x", applies: (e) => !e.selection.empty, run: (session) => void session.clipboard.copy(true) },
  { id: "paste", name: "Paste", words: "clipboard insert", icon: Clipboard, keysShown: "Mod+v", how: "Pastes as it was. The card that follows offers the look of where it landed, or the text alone.", run: (session) => void session.clipboard.pasteFromButton() },
  command("select-all", "Select all", "everything mark", selectAll, { icon: SelectionAll, keys: ["Mod+a"] }),
  { id: "print", name: "Print", words: "paper printer", icon: Printer, keys: ["Mod+p"], run: (session) => void session.delivery.print() },
  page("deliver", "print", "How it lies on the paper", "print booklet fold double sided duplex both sides handout pages per sheet two four true size fit scale copies collate odd even range some", Printer),
  { id: "pdf", name: "Save as PDF", words: "export download file", icon: FileArrowDown, run: (session) => void session.delivery.save("pdf") },
  { id: "send", name: "Send a copy", words: "email e-mail mail share attach letter outbox post", icon: PaperPlaneTilt, run: (session) => session.opening.sending() },
  { id: "outbox", name: "Printer and outbox", words: "sent mail printed jobs queue printing status", icon: Printer, run: () => void window.open("/outbox") },
  { id: "save-png", name: "Save as pictures", words: "export png image jpg screenshot sheets download copy other format", icon: ImageIcon, run: (session) => void session.delivery.save("png") },
  { id: "save-docx", name: "Save as Office Open XML", words: "export docx word processor download copy other format office", icon: Article, run: (session) => void session.delivery.save("docx") },
  { id: "save-odt", name: "Save as OpenDocument", words: "export odt open document download copy other format office", icon: Article, run: (session) => void session.delivery.save("odt") },
  { id: "save-rtf", name: "Save as Rich Text", words: "export rtf download copy other format older", icon: Article, run: (session) => void session.delivery.save("rtf") },
  { id: "save-html", name: "Save as HTML", words: "export web page download copy other format", icon: FileHtml, run: (session) => void session.delivery.save("html") },
  { id: "save-epub", name: "Save as EPUB", words: "export book reader ebook download copy other format", icon: BookOpen, run: (session) => void session.delivery.save("epub") },
  { id: "save-commonmark", name: "Save as CommonMark", words: "export markdown md download copy other format", icon: FileText, run: (session) => void session.delivery.save("commonmark") },
  { id: "save-text", name: "Save as plain text", words: "export txt words download copy other format", icon: FileText, run: (session) => void session.delivery.save("text") },
  { id: "save-csv", name: "Save the table as values", words: "export csv spreadsheet comma separated calculate", icon: Table, applies: (e) => hasTable(e.doc), run: (session) => void session.delivery.save("csv") },
  { id: "save-json", name: "Save as a Biblon file", words: "export backup download copy keep everything json", icon: FileArrowDown, run: (session) => void session.delivery.save("json") },
  tray("write", "Letters and paragraphs", "format typeface font size colour color spacing", PenNib),
  tray("structure", "Styles", "heading title quotation body structure", TreeStructure, "Choose a style for the paragraph at the caret. Headings stay with what follows and become bookmarks in the PDF."),
  tray("trail", "Trail", "why look formatting source inspect what gives", Footprints, "Says in words what gives the text at the caret its look, from which style or by hand, and lets you change or remove it there. Under it, where each piece of hand-made formatting begins and ends."),
  tray("document", "Language, units and line breaking", "locale settings hyphenation centimetres inches default typeface justify", Globe),
  page("write", "paragraph", "Paragraph", "line spacing double borders shading indent first tab drop cap price dots", Paragraph),
  page("write", "list", "Lists", "bullets numbers numbering levels", ListBullets, "Tab at the start of an item takes it a level deeper, Shift+Tab up. Enter on an empty item ends the list; Backspace at its start takes the mark away."),
  page("sheet", "paper", "Paper and margins", "page setup size orientation landscape portrait margins gutter colour a4 letter", Article, "Paper, orientation and margins, for the whole document, a section, or from the caret on."),
  page("sheet", "edges", "Head, foot and page numbers", "header footer page number running title first different odd even", Article, "Tap where the number goes. Two taps at the top or bottom of a sheet write its head or foot; Escape leads back to the text."),
  page("sheet", "columns", "Columns and sections", "newspaper newsletter two columns section break", Columns),
  page("sheet", "behind", "Watermark, line round the sheet, cover", "draft confidential background text page border frame title page front first sheet design", Article, "Words behind the text, a line round each sheet, and a cover that shows title, author and date; its design can be changed at any time."),
  { id: "write-head", name: "Write the head of the sheets", words: "header top running title", icon: Article, run: (session) => void session.going.toEdge("head", false) },
  { id: "write-foot", name: "Write the foot of the sheets", words: "footer bottom page number", icon: Article, run: (session) => void session.going.toEdge("foot", false) },
  { id: "go-to", name: "Go to a sheet, heading or note", words: "jump page number line chapter", icon: Compass, keys: ["Mod+Alt+g"], run: (session) => session.store.setState({ goingTo: true }) },
  command("contents", "Contents", "table of contents toc index headings list overview", insertContents(usualContents), { icon: TreeView, how: "Lists the headings with their sheets before the paragraph with the caret, always right. A press on an entry goes there." }),
  { id: "note", name: "Footnote", words: "note reference citation bottom of page superscript number", icon: NoteIcon, keys: ["Mod+Alt+n"], applies: (e) => insertNote(e), run: (session) => session.going.intoNote(insertNote), how: "Puts a mark at the caret and the caret into its note, at the foot of the sheet. Escape leads back behind the mark." },
  { id: "endnote", name: "Endnote", words: "note reference citation end of document superscript", icon: NoteIcon, applies: (e) => insertEndnote(e), run: (session) => session.going.intoNote(insertEndnote), how: "Puts a mark at the caret and the caret into its note, below the end of the text." },
  command("turn-note", "Footnote ⇄ endnote", "convert change kind of note", turnNote, { icon: NoteIcon }),
  { id: "cross-note", name: "Between mark and note", words: "go to footnote reference jump back", icon: NoteIcon, keys: ["Mod+Alt+Shift+n"], applies: (e) => crossNote(e), run: (session) => session.going.intoNote(crossNote) },
  { id: "back-to-text", name: "Back to the text", words: "leave close header footer note body", icon: ArrowUUpLeft, applies: (e) => edgeAt(e.doc, e.selection.head) !== null || noteHere(e) !== null, run: (session) => void session.going.backToText() },
  page("structure", "outline", "Outline", "headings navigate sections contents map", TreeView, "Headings by level: tap to go there, fold, drag to move a section with all in it."),
  page("structure", "parts", "Parts", "chapters divide split tabs several documents in one long work switch between annex appendix volume book", Bookmarks, "A long work in parts with names and signs: switch between them, move them, deliver all or one."),
  { id: "next-part", name: "Next part", words: "switch chapter forward tab", icon: Bookmarks, applies: inParts, run: (session) => session.going.toPartBeside(1) },
  { id: "part-before", name: "Part before", words: "switch chapter back previous tab", icon: Bookmarks, applies: inParts, run: (session) => session.going.toPartBeside(-1) },
  { id: "next-comment", name: "Next comment", words: "remark annotation note review feedback said", icon: ChatText, applies: hasComments, run: (session) => session.going.toComment(1), how: "What others said of a passage is kept when a document comes in, shown by a band, read by a press on it, and goes out with it again." },
  { id: "comment-before", name: "Comment before", words: "previous remark annotation review feedback", icon: ChatText, applies: hasComments, run: (session) => session.going.toComment(-1) },
  page("structure", "sets", "Sets of faces and colours", "theme palette fonts design", Swatches),
  page("place", "objects", "Symbols, date and breaks", "insert special character emoji unicode arrow time clock today", Stamp, "Symbols by category or by name, the last ones first; date and time, fixed or kept up to date."),
  page("place", "sources", "Sources and citations", "cite citation reference bibliography works cited literature references list author date footnote style import bibtex ris book article quote", Quotes, "Type a part of a name and press the source: its citation stands at the caret. The style is changed for all at once, and the list of references makes itself."),
  page("check", "spelling", "Spelling", "spell check misspelt typos mistakes proofread errors dictionary words", ListMagnifyingGlass, "Words that look wrong have small dots below. Press one for what could be meant; Learn it for names. The Check tray goes through all of them."),
  { ...page("place", "objects", "Enclose a file", "attachment attach file enclosure pdf spreadsheet annex appendix", FilePlus, "Names a file at the caret. It goes along in the PDF and in what is sent; press its name to have it back."), id: "enclose" },
  page("check", "wording", "Wording", "grammar check mistakes style proofread passive long sentences usage commas readability", ListMagnifyingGlass, "What there is to say of the wording, with what could stand there. Short dashes mark it as long as the page is open; press them, or go through the list. Each kind can be looked for or not."),
  { id: "next-wrong", name: "Next word that looks wrong", words: "spelling error mistake jump", icon: ListMagnifyingGlass, keys: ["F7"], run: (session) => void session.spelling.go(1) },
  { id: "suggest", name: "What could be meant", words: "spelling suggestions correct word", icon: ListMagnifyingGlass, keys: ["Mod+Alt+w"], run: (session) => session.suggestHere() },
  page("check", "tidy", "Tidy", "clean up repair problems accessibility double spaces blank lines typed lists headings grammar wording", ListMagnifyingGlass, "Blank paragraphs as space, blanks that line text up, lists and headings made by hand, words written twice: found, explained, and put right in one place or all."),
  tray("lookup", "Look up", "dictionary thesaurus synonyms meaning definition word library research articles books encyclopedia quote", BookOpen, "What the word at the caret means, and others of the same meaning, which take its place by a press; and a library, from which a passage goes into the text with its source."),
  page("check", "brief", "Brief", "rules requirements assignment style guide psychology humanities notes bibliography format paper teacher guidelines check against", ListMagnifyingGlass, "Holds the document against the rules that it must follow: ready ones, your own, or those of another document. Each rule shows what agrees and what does not, and one press puts it right."),
  page("check", "count", "Count", "word count characters sentences length readability reading time goal how many", ListMagnifyingGlass),
  tray("deliver", "Deliver", "finish export send output", PaperPlaneTilt),
  tray("changes", "What was done", "undo list history back", ClockCounterClockwise, "Lists every change. Point at one to see in the text what it touched; open it to go back to it, or to take back that one alone."),
  { id: "link", name: "Link", words: "url web address hyperlink email heading anchor", icon: Link, run: (session) => session.opening.link(true), how: "Leads to the web, to an e-mail address (a subject goes behind ?subject=), or to a heading or marked place. A typed address becomes a link by itself; Ctrl and a click follow it." },
  { id: "mark-place", name: "Mark this place", words: "bookmark anchor target", icon: MapPin, applies: (e) => markPlace("\u0000")(e), run: markSelection, how: "Gives the selected words a name that links can lead to." },
  tray("corrections", "Corrections while typing", "autocorrect spelling quotes dashes capitals slips", MagicWand, "Each kind has its switch; slips of your own can be added."),
  tray("brought", "What came otherwise", "import left out lost converted file differences", FileArrowUp, "Lists what of a file that was brought in is not in the document, each with the way to its place."),
  { ...tray("help", "Help", "keys shortcuts manual how", Question), keys: ["F1"] },
  {
    id: "find",
    name: "Find and replace",
    words: "search look for substitute pattern",
    icon: MagnifyingGlass,
    keys: ["Mod+f"],
    how: "Marks all places as you type. A pattern is a regular expression; its groups are $1, $2 in the replacement. “By look” finds a style, a typeface or a colour, with or without text.",
    run: (session) => session.opening.search(),
  },
  { id: "find-tool", name: "Find a tool", words: "command search action", icon: Compass, keys: ["Mod+k"], how: "Any tool by its name or by what you would call it. The pin puts it in your pocket.", run: (session) => session.opening.findTool(true) },
  { id: "sheets", name: "Sheet view", words: "paper page real view", icon: Files, run: (session) => session.viewing.setMode("sheets") },
  { id: "reading", name: "Reading view", words: "present read only slides full screen view", icon: BookOpen, keys: ["F9"], run: (session) => session.viewing.startReading(), how: "Shows whole sheets to be turned by keys, tap or swipe; nothing can be changed by accident. Escape leads back." },
  { id: "zoom-in", name: "Larger view", words: "zoom in magnify bigger", icon: Plus, run: (session) => session.viewing.zoom(session.store.getState().scale * 1.15) },
  { id: "zoom-out", name: "Smaller view", words: "zoom out", icon: Minus, run: (session) => session.viewing.zoom(session.store.getState().scale / 1.15) },
  { id: "dark-sheets", name: "Dark sheets", words: "night black background light mode", icon: Moon, run: (session) => session.viewing.toggleDark(), how: "Shows the sheets dark in dark surroundings. What is printed stays as it is." },
  { id: "name", name: "Name the document", words: "rename title file name", icon: PencilSimpleLine, run: (session) => session.opening.name() },
  { id: "paste-plain", name: "Paste text only", words: "paste plain unformatted without formatting", icon: Clipboard, run: (session) => void session.clipboard.pasteFromButton("textOnly") },
  { id: "paste-here", name: "Paste in the look of here", words: "paste match destination formatting surroundings", icon: Clipboard, run: (session) => void session.clipboard.pasteFromButton("asHere") },
  command("price-line", "Price line", "dots leader tab right menu contents dotted line", priceLine, { how: "A tab from a word leads to the right edge, with dots between: prices, programmes, contents." }),
  { id: "whole-sheet", name: "Whole sheet", words: "zoom fit page view", run: (session) => session.viewing.fitTo("sheet") },
  { id: "page-width", name: "Sheet's width", words: "zoom fit page view", run: (session) => session.viewing.fitTo("width") },
  { id: "side-by-side", name: "Side by side", words: "zoom two pages spread view", run: (session) => session.viewing.fitTo("pair") },
  { id: "signs", name: "Show marks", words: "invisible characters spaces paragraph pilcrow tabs", icon: Paragraph, run: (session) => session.viewing.toggleSigns(), how: "Shows spaces, tabs, breaks and the ends of paragraphs." },
  { id: "ruler", name: "Ruler", words: "tabs indents margin show hide", icon: Ruler, run: (session) => session.viewing.toggleRuler(), how: "Drag the pins for the first line and the edges, click to put a tab stop, drag one off to remove it. Arrow keys move a pin that has the focus." },
  { id: "flow", name: "Flow view", words: "wrap continuous screen view", icon: DeviceMobile, run: (session) => session.viewing.setMode("flow") },
  { id: "save", name: "Save", words: "keep store", keys: ["Mod+s"], run: (session) => session.opening.confirmSaved() },
  { ...page("place", "objects", "Table", "grid rows columns insert spreadsheet", Table, "Sweep over as many rows and columns as you need. Tab leads to the next cell and adds a row behind the last; rails along the table select, move and size."), id: "table" },
  { ...page("place", "objects", "Picture", "image photo drawing camera insert logo graphic", ImageIcon, "From a file, the camera, the clipboard, or our own drawings. Its corners size it, its stem turns it; how text goes round it is chosen in the Write tray."), id: "picture" },
  { ...page("write", "picture", "Shape the picture", "wrapping words beside crop rotate size alt text background remove brightness colour frame", ImageIcon), applies: (e) => pictureHere(e) !== null },
  command("caption-figure", "Caption: figure", "picture number label title below", insertCaption("Figure", "below"), { icon: ImageIcon }),
  command("caption-table", "Caption: table", "number label title above", insertCaption("Table", "above"), { icon: Table }),
  { ...page("place", "objects", "Refer to a figure, table or heading", "cross reference see number list of figures captions", Link), id: "reference" },
  command("row-above", "Row above", "table insert add", addRows("above"), { icon: RowsPlusTop }),
  command("row-below", "Row below", "table insert add", addRows("below"), { icon: RowsPlusBottom }),
  command("column-before", "Column before", "table insert add left", addColumns("before"), { icon: ColumnsPlusLeft }),
  command("column-behind", "Column after", "table insert add right", addColumns("behind"), { icon: ColumnsPlusRight }),
  command("rows-away", "Row away", "table delete remove rows", deleteRows, { icon: Rows }),
  command("columns-away", "Column away", "table delete remove columns", deleteColumns, { icon: Columns }),
  command("table-away", "Table away", "delete remove table", deleteTable, { icon: X }),
  command("join-cells", "Join cells", "table merge combine span", joinCells, { icon: ArrowsInLineHorizontal }),
  command("divide-cell", "Divide the cell", "table split unmerge", divideCell, { icon: ArrowsOutLineHorizontal }),
  command("lines-rise", "Lines of the cells rise", "table rotate turn vertical sideways upwards text direction", setCells({ reading: "up" }, "Lines turned"), { icon: Table, how: "What is written in the selected cells is read from foot to head." }),
  command("lines-fall", "Lines of the cells fall", "table rotate turn vertical sideways downwards text direction", setCells({ reading: "down" }, "Lines turned"), { icon: Table }),
  command("lines-lie", "Lines of the cells lie", "table rotate turn horizontal text direction", setCells({ reading: "across" }, "Lines turned"), { icon: Table }),
  command("select-cell", "Select the cell", "table", selectTable("cell"), { icon: SelectionAll }),
  command("select-row", "Select the row", "table", selectTable("row"), { icon: Rows }),
  command("select-column", "Select the column", "table", selectTable("column"), { icon: Columns }),
  command("select-table", "Select the table", "whole", selectTable("table"), { icon: Table }),
  command("table-from-text", "Table of the selected text", "convert tabs commas lines", tableFromText(), { icon: Table }),
  command("text-from-table", "Text of the table", "convert tabs", textFromTable, { icon: Paragraph }),
  { ...page("write", "table", "Look, sizes, sorting and formulas of the table", "sort order ascending sum total average calculate borders shading header row merge width", Table), applies: (e) => selectTable("cell")(e) },
  command("sheet-break", "New sheet", "page break", insertSheetBreak, { icon: FilePlus, keys: ["Mod+Enter"] }),
  command("column-break", "New column", "column break next column", insertColumnBreak, { icon: Columns, how: "What follows begins at the top of the next column. Backspace at its start takes that back." }),
  command("blank-sheet", "Blank sheet", "empty page white insert", insertBlankSheet, { icon: FilePlus }),
  command("split", "New paragraph", "enter return", enter, { keys: ["Enter"], silent: true }),
  command("tab", "Tab", "", tabKey, { keys: ["Tab"], silent: true, applies: () => true }),
  command("back-tab", "Tab back", "", backTabKey, { keys: ["Shift+Tab"], silent: true }),
  command("line-break", "New line in the paragraph", "break", insertLineBreak, { keys: ["Shift+Enter"], silent: true }),
  { ...command("delete-back", "Delete before the caret", "backspace", backspace), run: (session) => session.deleteBack(backspace), keys: ["Backspace", "Shift+Backspace"], silent: true },
  command("delete-forward", "Delete after the caret", "", deleteForward, { keys: ["Delete"], silent: true }),
  command("delete-word-back", "Delete the word before", "", deleteWordBackward, { keys: ["Mod+Backspace", "Alt+Backspace"], silent: true }),
  command("delete-word-forward", "Delete the word after", "", deleteWordForward, { keys: ["Mod+Delete", "Alt+Delete"], silent: true }),
]

const byId = new Map(tools.map((tool) => [tool.id, tool]))

export function toolNamed(id: string): Tool {
  const tool = byId.get(id)
  if (!tool) throw new Error(`There is no tool ${id}`)
  return tool
}
