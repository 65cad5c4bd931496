/** Sections. */
import {
  edgeNames,
  edgeStory,
  edgeWidth,
  type EdgeName,
  type EdgeVariant,
  type Section,
  type Watermark,
} from "../../../document"
import { xml } from "../../xml/writing"
import { border, flag, twips, value } from "./values"

const variants = [
  ["all", "default"],
  ["first", "first"],
  ["left", "even"],
] as const

/** What the main part calls the head or foot with the text of a story, or without any, and with what stands behind the text. */
export type WriteEdge = (story: string | null, name: EdgeName, behind: Watermark | null) => string | undefined

const isSame = (a: Watermark | null, b: Watermark | null) => JSON.stringify(a) === JSON.stringify(b)

/**
 * The heads and feet that a section names: its own, and where other things stand behind its text than behind that before it,
 * all of its heads, since it is they that carry these.
 */
function references(sections: readonly Section[], i: number, edge: WriteEdge): string[] {
  const { setup } = sections[i] as Section
  const behind = setup.watermark
  const anew = !isSame(behind, sections[i - 1]?.setup.watermark ?? null)
  const shows: Readonly<Record<EdgeVariant, boolean>> = {
    all: true,
    first: setup.firstOwn,
    left: sections.some((own) => own.setup.leftRight),
  }
  return edgeNames.flatMap((name) =>
    variants.flatMap(([variant, type]) => {
      const names = name === "head" && anew && shows[variant]
      const story = names ? edgeStory(sections, i, name, variant) : setup[name][variant]
      const relation = story === null && !names ? undefined : edge(story, name, name === "head" ? behind : null)
      return relation === undefined
        ? []
        : [xml(name === "head" ? "w:headerReference" : "w:footerReference", { "w:type": type, "r:id": relation })]
    }),
  )
}

/** Margins of which the text between them is as long as it was: what is rounded away is theirs. */
function margins(length: number, before: number, behind: number): [number, number] {
  const first = twips(before)
  return [first, Math.max(0, twips(length) - first - twips(length - before - behind))]
}

/**
 * @param i of the first section of the document nothing is said where it begins
 */
export function section(sections: readonly Section[], i: number, edge: WriteEdge): string {
  const { setup } = sections[i] as Section
  const { columns, numbering, frame, begins, gutter } = setup
  const [left, right] = margins(setup.width, setup.margins.left, setup.margins.right + gutter)
  const [top, bottom] = margins(setup.height, setup.margins.top, setup.margins.bottom)
  const room = edgeWidth(setup) - columns.gap * (columns.count - 1)
  const total = columns.shares?.reduce((sum, share) => sum + share, 0) ?? 1
  return xml(
    "w:sectPr",
    null,
    ...references(sections, i, edge),
    value(
      "w:type",
      i === 0 ? undefined : { sheet: "nextPage", odd: "oddPage", even: "evenPage", continuous: "continuous" }[begins],
    ),
    xml("w:pgSz", {
      "w:w": twips(setup.width),
      "w:h": twips(setup.height),
      "w:orient": setup.width > setup.height ? "landscape" : undefined,
    }),
    xml("w:pgMar", {
      "w:top": top,
      "w:right": Math.max(0, right - twips(gutter)),
      "w:bottom": bottom,
      "w:left": left,
      "w:header": twips(setup.head.distance),
      "w:footer": twips(setup.foot.distance),
      "w:gutter": twips(gutter),
    }),
    frame &&
      xml(
        "w:pgBorders",
        { "w:offsetFrom": "page" },
        ...["top", "left", "bottom", "right"].map((side) => border(`w:${side}`, frame)),
      ),
    xml("w:pgNumType", {
      "w:fmt": numbering.form,
      "w:start": numbering.start ?? undefined,
    }),
    xml(
      "w:cols",
      {
        "w:num": columns.count,
        "w:sep": columns.line ? 1 : undefined,
        "w:space": twips(columns.gap),
        "w:equalWidth": columns.shares ? 0 : undefined,
      },
      ...(columns.shares ?? []).map((share, i) =>
        xml("w:col", {
          "w:w": Math.max(1, twips((room * share) / total)),
          "w:space": i + 1 < columns.count ? twips(columns.gap) : undefined,
        }),
      ),
    ),
    flag("w:titlePg", setup.firstOwn || undefined),
  )
}
