/** Paper, margins and columns of RTF, those of the document and those of a section, as properties of sections of Office Open XML. */

import { sectionBegins, sheetNumberForms } from "../pairs"
import { lineXml, usualLine, withLine, type Line } from "./paragraphs"

export type Setup = ReadonlyMap<string, number>

/** What is said for the whole document, by the names that sections have for the same. */
const ofDocument = new Map([
  ["paperw", "pgwsxn"],
  ["paperh", "pghsxn"],
  ["margl", "marglsxn"],
  ["margr", "margrsxn"],
  ["margt", "margtsxn"],
  ["margb", "margbsxn"],
  ["gutter", "guttersxn"],
  ["landscape", "lndscpsxn"],
  ["pgnstart", "pgnstarts"],
])

const ofSection = new Set([
  ...ofDocument.values(),
  "headery",
  "footery",
  "cols",
  "colsx",
  "linebetcol",
  "titlepg",
  "pgnrestart",
  "pgndec",
  "pgnucrm",
  "pgnlcrm",
  "pgnucltr",
  "pgnlcltr",
])
export interface Section {
  setup: Setup
  type: string | null
  /** Numbers of its heads and feet by their control words. */
  edges: ReadonlyMap<string, string>
  /** Lines round its sheets, and the side whose line is being told. */
  frame: ReadonlyMap<string, Line>
  side: string | null
}

export const sectionFrom = (setup: Setup): Section => ({
  setup,
  type: null,
  edges: new Map(),
  frame: new Map(),
  side: null,
})

const sides = new Map([
  ["pgbrdrt", "top"],
  ["pgbrdrl", "left"],
  ["pgbrdrb", "bottom"],
  ["pgbrdrr", "right"],
])

/** What a control word makes of the document's setup; null for one that says nothing of it. */
export function withDocumentSetup(setup: Setup, name: string, value: number | null): Setup | null {
  const own = ofDocument.get(name)
  return own ? new Map(setup).set(own, value ?? 1) : null
}

/** And of a section's. */
export function withSection(
  section: Section,
  name: string,
  value: number | null,
  colours: readonly (string | null)[],
): Section | null {
  const type = sectionBegins.get(name)
  if (type) return { ...section, type }
  const side = sides.get(name)
  if (side) return { ...section, side, frame: new Map(section.frame).set(side, usualLine) }
  const line = section.side === null ? null : withLine(section.frame.get(section.side), name, value, colours)
  if (line) return { ...section, frame: new Map(section.frame).set(section.side ?? "", line) }
  return ofSection.has(name) ? { ...section, setup: new Map(section.setup).set(name, value ?? 1) } : null
}

const edgeKinds = new Map([
  ["header", ["header", "default"]],
  ["headerr", ["header", "default"]],
  ["headerl", ["header", "even"]],
  ["headerf", ["header", "first"]],
  ["footer", ["footer", "default"]],
  ["footerr", ["footer", "default"]],
  ["footerl", ["footer", "even"]],
  ["footerf", ["footer", "first"]],
])

export const isEdge = (name: string): boolean => edgeKinds.has(name)

export function sectionXml({ setup, type, edges, frame }: Section): string {
  const get = (name: string, usual: number) => setup.get(name) ?? usual
  const references = [...edges].flatMap(([name, id]) => {
    const [kind, at] = edgeKinds.get(name) ?? []
    return kind ? [`<w:${kind}Reference w:type="${at}" r:id="${id}"/>`] : []
  })
  const form = [...sheetNumberForms].find(([name]) => setup.has(name))?.[1]
  const restarts = setup.has("pgnrestart") ? ` w:start="${get("pgnstarts", 1)}"` : ""
  return (
    `<w:sectPr>${references.join("")}${type ? `<w:type w:val="${type}"/>` : ""}` +
    `<w:pgSz w:w="${get("pgwsxn", 12240)}" w:h="${get("pghsxn", 15840)}"${setup.has("lndscpsxn") ? ' w:orient="landscape"' : ""}/>` +
    `<w:pgMar w:top="${get("margtsxn", 1440)}" w:right="${get("margrsxn", 1800)}" w:bottom="${get("margbsxn", 1440)}" w:left="${get("marglsxn", 1800)}" w:header="${get("headery", 720)}" w:footer="${get("footery", 720)}" w:gutter="${get("guttersxn", 0)}"/>` +
    (frame.size > 0
      ? `<w:pgBorders w:offsetFrom="page">${[...frame].map(([side, line]) => lineXml(side, line)).join("")}</w:pgBorders>`
      : "") +
    (form || restarts ? `<w:pgNumType${form ? ` w:fmt="${form}"` : ""}${restarts}/>` : "") +
    (get("cols", 1) > 1
      ? `<w:cols w:num="${Math.min(12, get("cols", 1))}" w:space="${get("colsx", 720)}"${setup.has("linebetcol") ? ' w:sep="1"' : ""}/>`
      : "") +
    (setup.has("titlepg") ? "<w:titlePg/>" : "") +
    "</w:sectPr>"
  )
}
