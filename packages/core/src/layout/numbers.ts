/** The numbers of sheets. */
import { blocksOf, bodyOf, formatNumber, sectionsOf, type PageSetup, type Section } from "../document"
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
  const [only] = sections
  // Most documents are one section, whose sheets need not be looked at.
  if (sections.length === 1 && only) {
    const { numbering } = only.setup
    return placed.map((_, i) => numbered(0, (numbering.start ?? 1) + i, numbering))
  }
  const blocks = blocksOf(bodyOf(doc))
  let [section, number] = [0, 0]
  return placed.map(({ leaf, sheet }, i) => {
    const { at } = sheet.start
    const block = blockAt(blocks, leaf, at)
    const before = section
    // One that was left blank stands before its section begins.
    if (sheet.start.blank) return { section, number: ++number, text: String(number) }
    while ((sections[section + 1]?.block ?? Infinity) <= block) section++
    const first = (i === 0 || section !== before) && beginsBlock(at)
    const { numbering } = (sections[section] as Section).setup
    number = (first ? numbering.start : null) ?? number + 1
    return numbered(section, number, numbering)
  })
}

function numbered(section: number, number: number, { form }: PageSetup["numbering"]): SheetNumber {
  return { section, number, text: form === "decimal" ? String(number) : formatNumber(number, form) || String(number) }
}
