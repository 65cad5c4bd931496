/** What the desk does with tables beyond what commands alone can: it asks how wide things are. */
import { tableFormat } from "@biblon/core/document"
import { selectedRect, setColumns, type Command } from "@biblon/core/editing"
import type { EditorState } from "prosemirror-state"
import type { TableSeen } from "./view/source"

export interface TablingTarget {
  editor(): EditorState | null
  run(command: Command): boolean
  seen(): TableSeen | null
  /** Widths that the columns of the table at a position need. */
  measure(pos: number): Promise<number[]>
}

/** Widths of columns as they are seen, in points. */
export function widthsSeen({ columns }: TableSeen): number[] {
  return columns.slice(1).map((edge, i) => Math.round((edge - (columns[i] ?? 0)) * 100) / 100)
}

export class Tabling {
  constructor(private readonly target: TablingTarget) {}

  /** Widths of the columns: those that were set, or as they are seen. */
  widths(): number[] {
    const editor = this.target.editor()
    const rect = editor && selectedRect(editor)
    const seen = this.target.seen()
    return (rect && tableFormat(rect.table).columns) ?? (seen ? widthsSeen(seen) : [])
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
