/** Values of paragraphs as properties, in the order that the standard wants. */
import type { ParagraphFormat, TabStop } from "../../../document"
import { xml } from "../../xml/writing"
import { border, flag, shading, twips, value } from "./values"

export interface ParagraphParts {
  style?: string | undefined
  /** The instance of a list and the level in it; null for no list. */
  numbering?: { num: number; level: number } | null | undefined
  /** 0 to 8. */
  outline?: number | undefined
  /** The stops that it starts from, to be cleared where it has others. */
  inherited?: readonly TabStop[]
  /** No space towards neighbours of the same style, said of this paragraph alone. */
  tight?: boolean | undefined
  /** Number of lines of a letter that is set as high as these. */
  cap?: { lines: number; distance: number } | undefined
  /** Properties of its mark, and those of the section that it ends. */
  mark?: string
  section?: string
}

const tabAligns: Readonly<Record<TabStop["align"], string>> = {
  left: "left",
  center: "center",
  right: "right",
  decimal: "decimal",
}
const leaders: Readonly<Record<TabStop["leader"], string | undefined>> = {
  none: undefined,
  dotted: "dot",
  dashed: "hyphen",
  solid: "underscore",
}

function stops(tabs: readonly TabStop[], inherited: readonly TabStop[]): string {
  const own = new Set(tabs.map(({ position }) => twips(position)))
  const cleared = inherited
    .filter(({ position }) => !own.has(twips(position)))
    .map(({ position }) => ({ at: twips(position), xml: xml("w:tab", { "w:val": "clear", "w:pos": twips(position) }) }))
  const all = [
    ...cleared,
    ...tabs.map(({ position, align, leader }) => ({
      at: twips(position),
      xml: xml("w:tab", { "w:val": tabAligns[align], "w:leader": leaders[leader], "w:pos": twips(position) }),
    })),
  ].sort((a, b) => a.at - b.at)
  return all.length > 0 ? xml("w:tabs", null, ...all.map((tab) => tab.xml)) : ""
}

function spacing({ spaceBefore, spaceAfter, lineSpacing }: Partial<ParagraphFormat>): string {
  if (spaceBefore === undefined && spaceAfter === undefined && !lineSpacing) return ""
  return xml("w:spacing", {
    "w:before": spaceBefore === undefined ? undefined : twips(spaceBefore),
    "w:after": spaceAfter === undefined ? undefined : twips(spaceAfter),
    "w:line":
      lineSpacing && (lineSpacing.rule === "multiple" ? Math.round(lineSpacing.value * 240) : twips(lineSpacing.value)),
    "w:lineRule": lineSpacing && { multiple: "auto", exact: "exact", atLeast: "atLeast" }[lineSpacing.rule],
  })
}

function indents({ indentLeft, indentRight, indentFirst }: Partial<ParagraphFormat>): string {
  if (indentLeft === undefined && indentRight === undefined && indentFirst === undefined) return ""
  return xml("w:ind", {
    "w:left": indentLeft === undefined ? undefined : twips(indentLeft),
    "w:right": indentRight === undefined ? undefined : twips(indentRight),
    ...(indentFirst === undefined
      ? {}
      : indentFirst < 0
        ? { "w:hanging": twips(-indentFirst) }
        : { "w:firstLine": twips(indentFirst) }),
  })
}

/** @param rtl whether it runs from right to left, after all that it starts from */
export function paragraphProperties(format: Partial<ParagraphFormat>, parts: ParagraphParts, rtl: boolean): string {
  const { borders, align, tabs, direction } = format
  const { style, numbering, outline, inherited = [], tight, cap, mark = "", section = "" } = parts
  const keeps = format.orphans ?? format.widows
  const jc =
    align === undefined
      ? undefined
      : align === "center"
        ? "center"
        : align === "justify"
          ? "both"
          : (align === "right") !== rtl
            ? "right"
            : "left"
  const all =
    value("w:pStyle", style) +
    flag("w:keepNext", format.keepNext) +
    flag("w:keepLines", format.keepTogether) +
    flag("w:pageBreakBefore", format.breakBefore) +
    (cap
      ? xml("w:framePr", {
          "w:dropCap": "drop",
          "w:lines": cap.lines,
          "w:hSpace": twips(cap.distance),
          "w:wrap": "around",
          "w:vAnchor": "text",
          "w:hAnchor": "text",
        })
      : "") +
    flag("w:widowControl", keeps === undefined ? undefined : keeps > 1) +
    (numbering === undefined
      ? ""
      : xml(
          "w:numPr",
          null,
          numbering ? value("w:ilvl", numbering.level) : false,
          value("w:numId", numbering?.num ?? 0),
        )) +
    (borders === undefined
      ? ""
      : xml(
          "w:pBdr",
          null,
          ...["top", "left", "bottom", "right", "between"].map((side) =>
            border(`w:${side}`, borders[side as "top"] ?? null),
          ),
        )) +
    (format.shading === undefined ? "" : shading(format.shading)) +
    (tabs === undefined ? "" : stops(tabs, inherited)) +
    flag("w:suppressAutoHyphens", format.hyphenate === undefined ? undefined : !format.hyphenate) +
    flag("w:bidi", direction === undefined ? undefined : direction === "rtl") +
    spacing(format) +
    indents(format) +
    flag("w:contextualSpacing", tight ?? (format.spaceAlike === undefined ? undefined : !format.spaceAlike)) +
    value("w:jc", jc) +
    value("w:outlineLvl", outline) +
    mark +
    section
  return all === "" ? "" : `<w:pPr>${all}</w:pPr>`
}
