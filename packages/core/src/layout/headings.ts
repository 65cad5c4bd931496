/** The headings that begin on a sheet. */
import { fragmentsOf } from "./boxes"
import { shownText } from "./paragraph"
import type { Sheet } from "./types"

export interface SheetHeading {
  /** Counted from the sheet's first. */
  leaf: number
  level: number
  text: string
}

const known = new WeakMap<Sheet, readonly SheetHeading[]>()

export function headingsOn(sheet: Sheet): readonly SheetHeading[] {
  let headings = known.get(sheet)
  if (!headings) {
    headings = fragmentsOf({ sheet, leaf: 0 }).flatMap(({ leaf, paragraph, from, part }) =>
      part === "text" && paragraph.outline !== null && from === 0
        ? [{ leaf, level: paragraph.outline, text: shownText(paragraph).replaceAll("\n", " ").trim() }]
        : [],
    )
    known.set(sheet, headings)
  }
  return headings
}
