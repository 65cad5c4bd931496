/** Sections. */
import type { PageSetup } from "../../../document"
import { xml } from "../../xml/writing"
import { border, flag, twips, value } from "./values"

const variants = [
  ["all", "default"],
  ["first", "first"],
  ["left", "even"],
] as const

/**
 * @param first whether it is the first section of the document, of which nothing is said where it begins
 * @param edge what the part calls the head or foot with the text of a story
 */
export function section(
  setup: PageSetup,
  first: boolean,
  edge: (story: string, name: "head" | "foot") => string | undefined,
): string {
  const { margins, columns, numbering, frame, begins } = setup
  const references = (["head", "foot"] as const).flatMap((name) =>
    variants.flatMap(([variant, type]) => {
      const story = setup[name][variant]
      const relation = story === null ? undefined : edge(story, name)
      return relation === undefined
        ? []
        : [xml(name === "head" ? "w:headerReference" : "w:footerReference", { "w:type": type, "r:id": relation })]
    }),
  )
  const room = setup.width - margins.left - margins.right - setup.gutter - columns.gap * (columns.count - 1)
  const total = columns.shares?.reduce((sum, share) => sum + share, 0) ?? 1
  return xml(
    "w:sectPr",
    null,
    ...references,
    value(
      "w:type",
      first ? undefined : { sheet: "nextPage", odd: "oddPage", even: "evenPage", continuous: "continuous" }[begins],
    ),
    xml("w:pgSz", {
      "w:w": twips(setup.width),
      "w:h": twips(setup.height),
      "w:orient": setup.width > setup.height ? "landscape" : undefined,
    }),
    xml("w:pgMar", {
      "w:top": twips(margins.top),
      "w:right": twips(margins.right),
      "w:bottom": twips(margins.bottom),
      "w:left": twips(margins.left),
      "w:header": twips(setup.head.distance),
      "w:footer": twips(setup.foot.distance),
      "w:gutter": twips(setup.gutter),
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
