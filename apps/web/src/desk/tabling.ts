/** What the desk does with tables beyond what commands alone can: it asks how wide things are. */
import { tableFormat } from "@biblon/core/document"
import { selectedRect, setColumns, wholeWidth, type Command } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import type { TableSeen } from "./view/source"

export interface TablingTarget {
  editor(): EditorState | null
  run(command: Command): boolean
  seen(): TableSeen | null
  /** Widths that the columns of the table at a position need. */
  measure(pos: number): Promise<number[]>
  /** Whether the text is shown as wide as the screen. */
  inFlow(): boolean
}

/** Widths of columns as they are seen, in points. */
export function widthsSeen({ columns }: TableSeen): number[] {
  return columns.slice(1).map((edge, i) => Math.round((edge - (columns[i] ?? 0)) * 100) / 100)
}

/** What columns take together. */
export const total = (widths: readonly number[]): number => widths.reduce((sum, own) => sum + own, 0)

export class Tabling {
  constructor(private readonly target: TablingTarget) {}

  /** Widths of the columns: those that were set, or as they are seen; on a screen in the flow view, as they are on the sheet. */
  widths(): number[] {
    const editor = this.target.editor()
    const rect = editor && selectedRect(editor)
    const said = rect && tableFormat(rect.table).columns
    const seen = this.target.seen()
    if (said || !seen) return said ?? []
    const shown = widthsSeen(seen)
    const whole = rect && this.target.inFlow() ? wholeWidth(editor.doc, rect.pos) : null
    const part = whole === null ? 1 : whole / Math.max(1, total(shown))
    return shown.map((width) => Math.round(width * part * 100) / 100)
  }

  /** Makes the columns as wide as their text, or as wide as they have room where that is wider. */
  async fitToText(): Promise<void> {
    const editor = this.target.editor()
    const rect = editor && selectedRect(editor)
    if (!rect) return
    const widths = await this.target.measure(rect.pos)
    // It may have gone meanwhile.
    const now = this.target.editor()
    if (widths.length > 0 && now && selectedRect(now)?.pos === rect.pos) this.target.run(setColumns(rect.pos, widths))
  }
}
