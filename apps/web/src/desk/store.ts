/** What the screens of the desk show. The document itself lives in the session; this is its surface. */
import { createStore } from "zustand/vanilla"
import type { EditorState } from "prosemirror-state"
import type { Saving } from "../live/connection"
import { readKept } from "../kept"
import type { FileProgress } from "../workers/fileClient"
import type { Box } from "@biblon/core/layout"
import type { LookPart, PickedLook } from "@biblon/core/editing"
import type { ViewMode } from "./view/fitting"
import { keptDark, keptRuler } from "./view/kept"
import type { ViewSummary } from "./view/summary"
import type { BroughtIn } from "./brought"
import type { Aside } from "../live/records"

export type TrayId =
  | "trail"
  | "document"
  | "write"
  | "structure"
  | "place"
  | "sheet"
  | "deliver"
  | "changes"
  | "find"
  | "help"
  | "corrections"
  | "brought"
  | "check"
  | "lookup"

/** What is said of words: by spelling, of their wording, by people. */
export type SaidKind = "word" | "remark" | "comment"

/** Something in the text that was pressed, and of which a card tells: a field, a word that looks wrong, wording of which something is said, a passage with a comment, or where something begins. */
export interface Pressed {
  kind: "field" | "break" | SaidKind
  pos: number
  /** What it shows. */
  words: string
  /** In pixels of the canvas. */
  box: Box
}

/** A look that was picked up, and whether it is laid on more than one text. */
export interface Laying {
  look: PickedLook
  part: LookPart
  many: boolean
}

export interface DeskState {
  phase: { kind: "opening" } | { kind: "waiting"; message: string } | { kind: "missing" } | { kind: "open" }
  editor: EditorState | null
  name: string | null
  saving: Saving
  /** The tray that is open. */
  tray: TrayId | null
  /** The page at which each tray stands. */
  pages: Partial<Record<TrayId, string>>
  /** The style that the Write tray shapes as a whole, as long as the text here is in the style in which it was chosen; null for the text here. */
  scope: { at: string; of: string } | null
  /** A look that was picked up. */
  laying: Laying | null
  /** Where a line is shown through the text while something is dragged, in pixels of the canvas. */
  guide: { x: number | null; y: number | null } | null
  mode: ViewMode
  /** CSS pixels for a point. */
  scale: number
  /** Sheets in a row. */
  columns: number
  /** Whether spaces, tabs, breaks and ends of paragraphs are shown. */
  signs: boolean
  /** Whether the ruler is shown above the sheets. */
  ruler: boolean
  /** Whether the text has the keyboard. */
  writing: boolean
  /** Whether the last pointer was a finger. */
  touch: boolean
  view: ViewSummary
  /** The element on which the sheets lie. */
  canvas: HTMLElement | null
  /** Something went wrong that people should know; shown until put away. */
  trouble: string | null
  /** The tray that tells more of it, as long as it is that. */
  more: { of: string; tray: TrayId } | null
  /** What the document was made of, if that was a file brought in just now. */
  brought: BroughtIn | null
  /** What was written here and could not become a part of the document. */
  aside: readonly Aside[]
  delivering: FileProgress | null
  /** Whether PDFs are made for archives. */
  archive: boolean
  /** Whether a tool is being looked for. */
  findingTool: boolean
  /** Counts how often somebody asked to find something: the field then takes what is selected. */
  findAsked: number
  /** What was pressed last, as long as its card is open. */
  pressed: Pressed | null
  /** What is being done with a picture, in words; null for nothing. */
  picturing: string | null
  /** Whether the bars of the selected picture crop it. */
  cropping: boolean
  /** Whether a link is being made or changed. */
  linking: boolean
  /** Whether it is asked where to go. */
  goingTo: boolean
  /** Whether the document is being named. */
  naming: boolean
  /** Whether the sheets are shown dark; null for as the surroundings ask. */
  darkSheets: boolean | null
  /** Counts how often somebody asked to save: the saving state then shows itself. */
  confirmed: number
}

export function createDeskStore(initial: Pick<DeskState, "mode" | "scale">) {
  return createStore<DeskState>(() => ({
    phase: { kind: "opening" },
    editor: null,
    name: null,
    saving: { kind: "saved", at: null },
    tray: null,
    pages: {},
    scope: null,
    laying: null,
    guide: null,
    columns: 1,
    signs: false,
    ruler: keptRuler(),
    writing: false,
    touch: false,
    view: {
      sheets: 0,
      complete: false,
      caretSheet: 1,
      firstShown: 1,
      caret: null,
      column: null,
      table: null,
      picture: null,
      selection: { from: null, to: null },
    },
    canvas: null,
    trouble: null,
    more: null,
    brought: null,
    aside: [],
    delivering: null,
    archive: readKept("archive") === true,
    findingTool: false,
    findAsked: 0,
    pressed: null,
    picturing: null,
    cropping: false,
    linking: false,
    goingTo: false,
    naming: false,
    darkSheets: keptDark(),
    confirmed: 0,
    ...initial,
  }))
}
export type DeskStore = ReturnType<typeof createDeskStore>
