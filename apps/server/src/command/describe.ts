import type { PageSetup } from "@biblon/core/document"
import { fragmentsOf, lineTop, outlinesOf, type Layout } from "@biblon/core/layout"

export interface DescribedLine {
  text: string
  /** Left edge, baseline and width of the visible text, in points from the sheet's upper left corner. */
  x: number
  y: number
  width: number
}

export interface DescribedLayout {
  width: number
  height: number
  sheets: { number: number; lines: DescribedLine[] }[]
}

const thousandths = (n: number) => Math.round(n * 1000) / 1000

/** Sheets and lines as plain data, for people who work in batches and for tests. */
export function describeLayout(layout: Layout, setup: PageSetup): DescribedLayout {
  return {
    width: thousandths(setup.width),
    height: thousandths(setup.height),
    sheets: layout.placed.map((placed, i) => ({
      number: i + 1,
      lines: fragmentsOf(placed).flatMap((fragment) =>
        fragment.paragraph.lines.slice(fragment.from, fragment.to).map((line) => ({
          text: fragment.paragraph.text.slice(line.from, line.to).trimEnd(),
          x: thousandths(fragment.x + line.x),
          y: thousandths(lineTop(fragment, line) + line.baseline),
          width: thousandths(line.width),
        })),
      ),
    })),
  }
}

/** The tree of boxes, one a line, indented by depth: for people who look how something came to stand where it does. */
export function describeBoxes(layout: Layout): string {
  return layout.placed
    .flatMap((placed, i) => [
      `sheet ${i + 1}  ${thousandths(placed.sheet.width)} × ${thousandths(placed.sheet.height)}`,
      ...outlinesOf(placed).map(({ kind, role, depth, leaf, x, y, width, height, text }) => {
        const place = [x, y, width, height].map(thousandths).join(" ")
        return `${"  ".repeat(depth + 1)}${role ?? kind}  leaf ${leaf}  ${place}${text === null ? "" : `  ${text.slice(0, 40)}`}`
      }),
    ])
    .join("\n")
}
