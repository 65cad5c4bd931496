/** Sections (ISO/IEC 29500-1, 17.6). */
import { defaultSetup, fitBorder, fitSetup, type PageSetup } from "../../../document"
import { meanings } from "../../meanings"
import { child, childrenNamed, type XmlElement } from "../../xml/parsing"
import { borderOf, isOn, numberForms, twips, valueOf, whole } from "./values"

/** What is said for the whole document. */
export interface SectionSettings {
  mirrored: boolean
  leftRight: boolean
  colour: string | null
}

const begins = meanings<PageSetup["begins"]>({
  continuous: "continuous",
  nextColumn: "continuous",
  oddPage: "odd",
  evenPage: "even",
})
const forms = meanings<PageSetup["numbering"]["form"]>(numberForms)
const variants = meanings<"all" | "first" | "left">({ default: "all", first: "first", even: "left" })

/** @param story makes a story of the part that a section refers to, and gives its key */
export function readSection(
  sectPr: XmlElement | undefined,
  settings: SectionSettings,
  story: (relation: string, edge: "head" | "foot") => string | null,
): PageSetup {
  const size = child(sectPr, "w:pgSz")?.attrs
  const margins = child(sectPr, "w:pgMar")?.attrs
  const columns = child(sectPr, "w:cols")
  const numbers = child(sectPr, "w:pgNumType")?.attrs
  const sideOf = (name: string) => Math.abs(twips(margins?.[`w:${name}`]) ?? 72)
  const edge = (name: "head" | "foot") => {
    const own: PageSetup["head"] = {
      distance: Math.max(0, twips(margins?.[name === "head" ? "w:header" : "w:footer"]) ?? 36),
      all: null,
      first: null,
      left: null,
    }
    for (const { attrs } of childrenNamed(sectPr, name === "head" ? "w:headerReference" : "w:footerReference")) {
      const variant = variants(attrs["w:type"] ?? "default")
      if (variant) own[variant] = story(attrs["r:id"] ?? "", name)
    }
    return own
  }
  const widths = childrenNamed(columns, "w:col").map(({ attrs }) => twips(attrs["w:w"]) ?? 0)
  const equal = columns?.attrs["w:equalWidth"]
  const unequal = widths.length > 1 && (equal === "0" || equal === "false" || equal === "off")
  const least = Math.max(1, Math.min(...widths))
  const frame = borderOf(child(child(sectPr, "w:pgBorders"), "w:top"))
  const flag = (element: XmlElement | undefined) => element !== undefined && isOn(element)
  const line = columns?.attrs["w:sep"]
  return fitSetup({
    ...defaultSetup,
    width: twips(size?.["w:w"]) ?? 612,
    height: twips(size?.["w:h"]) ?? 792,
    margins: { top: sideOf("top"), right: sideOf("right"), bottom: sideOf("bottom"), left: sideOf("left") },
    gutter: Math.max(0, twips(margins?.["w:gutter"]) ?? 0),
    mirrored: settings.mirrored,
    colour: settings.colour,
    columns: {
      count: unequal ? widths.length : (whole(columns?.attrs["w:num"]) ?? 1),
      gap: twips(unequal ? childrenNamed(columns, "w:col")[0]?.attrs["w:space"] : columns?.attrs["w:space"]) ?? 36,
      line: line === "1" || line === "true" || line === "on",
      shares: unequal ? widths.map((width) => Math.round((width / least) * 1000) / 1000) : null,
    },
    frame: frame ? fitBorder(frame) : null,
    begins: begins(valueOf(sectPr, "w:type")) ?? "sheet",
    firstOwn: flag(child(sectPr, "w:titlePg")),
    leftRight: settings.leftRight,
    head: edge("head"),
    foot: edge("foot"),
    numbering: { form: forms(numbers?.["w:fmt"]) ?? "decimal", start: whole(numbers?.["w:start"]) ?? null },
  })
}
