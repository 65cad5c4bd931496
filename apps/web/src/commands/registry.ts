/**
 * Every tool of the desk, once: what it is called and might be called, its icon and keys, whether it is
 * on, and what it does. Trays, bars and keys are drawn from here.
 */
import type { EditorState } from "prosemirror-state"
import type { ParagraphFormat } from "@biblon/core/document"
import {
  deleteBackward,
  deleteForward,
  deleteWordBackward,
  deleteWordForward,
  insertLineBreak,
  letterValue,
  paragraphValue,
  redo,
  selectAll,
  setParagraphs,
  splitParagraph,
  stepSize,
  toggleBold,
  toggleItalic,
  toggleUnderline,
  undo,
  type Command,
  type Extent,
} from "@biblon/core/editing"
import type { DeskSession } from "../desk/session"
import { printPdf, savePdf } from "../desk/delivering"
import { ArrowUUpLeft, ArrowUUpRight, FileArrowDown, Printer, SelectionAll, TextAlignCenter, TextAlignJustify, TextAlignLeft, TextAlignRight, TextB, TextItalic, TextUnderline, type Icon } from "../ui/icons"

export interface Tool {
  id: string
  name: string
  /** Other words people might look for it by. */
  words: string
  icon?: Icon
  /** "Mod" is Ctrl, or Command on a Mac. The first one is shown. */
  keys?: readonly string[]
  extent?(editor: EditorState): Extent
  /** Whether it does anything now. */
  applies?(editor: EditorState): boolean
  run(session: DeskSession): void
}

function command(id: string, name: string, words: string, act: Command, rest: Partial<Tool> = {}): Tool {
  return { id, name, words, applies: (editor) => act(editor), run: (session) => void session.run(act), ...rest }
}

function extentOf<T>(value: T | undefined, on: T): Extent {
  return value === undefined ? "mixed" : value === on ? "on" : "off"
}

const alignment = (align: ParagraphFormat["align"], name: string, words: string, icon: Icon) =>
  command(`align-${align}`, name, words, setParagraphs({ align }), { icon, extent: (editor) => extentOf(paragraphValue(editor, "align"), align) })

export const tools: readonly Tool[] = [
  command("undo", "Undo", "back revert mistake", undo, { icon: ArrowUUpLeft, keys: ["Mod+z"] }),
  command("redo", "Redo", "again forward repeat", redo, { icon: ArrowUUpRight, keys: ["Mod+Shift+z", "Mod+y"] }),
  command("bold", "Bold", "strong heavy thick", toggleBold, { icon: TextB, keys: ["Mod+b"], extent: (e) => extentOf(letterValue(e, "bold"), true) }),
  command("italic", "Italic", "slanted emphasis", toggleItalic, { icon: TextItalic, keys: ["Mod+i"], extent: (e) => extentOf(letterValue(e, "italic"), true) }),
  command("underline", "Underline", "line below", toggleUnderline, { icon: TextUnderline, keys: ["Mod+u"], extent: (e) => extentOf(letterValue(e, "underline"), "single") }),
  command("larger", "Larger letters", "bigger size grow", stepSize(1), { keys: ["Mod+Alt+ArrowUp"] }),
  command("smaller", "Smaller letters", "size shrink", stepSize(-1), { keys: ["Mod+Alt+ArrowDown"] }),
  alignment("left", "Left", "align ragged", TextAlignLeft),
  alignment("center", "Centre", "align middle", TextAlignCenter),
  alignment("right", "Right", "align", TextAlignRight),
  alignment("justify", "Justify", "align block both sides", TextAlignJustify),
  command("select-all", "Select all", "everything mark", selectAll, { icon: SelectionAll, keys: ["Mod+a"] }),
  { id: "print", name: "Print", words: "paper printer", icon: Printer, keys: ["Mod+p"], run: (session) => void printPdf(session) },
  { id: "pdf", name: "Save as PDF", words: "export download file", icon: FileArrowDown, run: (session) => void savePdf(session) },
  { id: "save", name: "Save", words: "keep store", keys: ["Mod+s"], run: (session) => session.confirmSaved() },
  command("split", "New paragraph", "enter return", splitParagraph, { keys: ["Enter"] }),
  command("line-break", "New line in the paragraph", "break", insertLineBreak, { keys: ["Shift+Enter"] }),
  command("delete-back", "Delete before the caret", "backspace", deleteBackward, { keys: ["Backspace", "Shift+Backspace"] }),
  command("delete-forward", "Delete after the caret", "", deleteForward, { keys: ["Delete"] }),
  command("delete-word-back", "Delete the word before", "", deleteWordBackward, { keys: ["Mod+Backspace", "Alt+Backspace"] }),
  command("delete-word-forward", "Delete the word after", "", deleteWordForward, { keys: ["Mod+Delete", "Alt+Delete"] }),
]

const byId = new Map(tools.map((tool) => [tool.id, tool]))

export function toolNamed(id: string): Tool {
  const tool = byId.get(id)
  if (!tool) throw new Error(`There is no tool ${id}`)
  return tool
}
