/** The numbers of sheets. */
import { blocksOf, bodyOf, formatNumber, sectionsOf, type Section } from "../document"
import { beginsBlock, blockAt } from "./boxes"
import type { Layout } from "./types"

/** What is known of a sheet beside what is on it. */
export interface SheetNumber {
  section: number
  number: number
  /** As its section writes it. */
  text: string
}

/** The numbers of all sheets. */
export function numbersOf({ doc, placed }: Pick<Layout, "doc" | "placed">): SheetNumber[] {
  const sections = sectionsOf(doc)
  const blocks = blocksOf(bodyOf(doc))
  let [section, number] = [0, 0]
  return placed.map(({ leaf, sheet }, i) => {
    const { at } = sheet.start
    const block = sections.length === 1 ? 0 : blockAt(blocks, leaf, at)
    const before = section
    // One that was left blank stands before its section begins.
    if (sheet.start.blank) return { section, number: ++number, text: String(number) }
    while ((sections[section + 1]?.block ?? Infinity) <= block) section++
    const first = (i === 0 || section !== before) && beginsBlock(at)
    const { form, start } = (sections[section] as Section).setup.numbering
    number = (first ? start : null) ?? number + 1
    return { section, number, text: form === "decimal" ? String(number) : formatNumber(number, form) || String(number) }
  })
}
