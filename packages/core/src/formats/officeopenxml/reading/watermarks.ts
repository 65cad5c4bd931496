/** Words and pictures behind all text, which stand in a head as drawings, or as shapes of the older form (ISO/IEC 29500-4, 19.1.2). */
import type { Node } from "prosemirror-model"
import { pictureAttrs, pictureFormat, type Watermark } from "../../../document"
import { isNamedBehind, pictureBehind, risen, wordsBehind } from "../../behind"
import { familyMeant } from "../../familyMeant"
import { meanings } from "../../meanings"
import { allWithin, child, textIn, within, type XmlElement } from "../../xml/parsing"
import { colourOf, emus, lengthOfShape, valueOf } from "./values"

const colours = meanings({
  black: "#000000",
  gray: "#808080",
  silver: "#c0c0c0",
  white: "#ffffff",
  maroon: "#800000",
  red: "#ff0000",
  purple: "#800080",
  fuchsia: "#ff00ff",
  green: "#008000",
  lime: "#00ff00",
  olive: "#808000",
  yellow: "#ffff00",
  navy: "#000080",
  blue: "#0000ff",
  teal: "#008080",
  aqua: "#00ffff",
})

function colourIn(value: string | undefined): string {
  const [first = ""] = (value ?? "").trim().toLowerCase().split(/\s/)
  const short = /^#([0-9a-f])([0-9a-f])([0-9a-f])$/.exec(first)
  if (short)
    return `#${short
      .slice(1)
      .map((sign) => sign + sign)
      .join("")}`
  return /^#[0-9a-f]{6}$/.test(first) ? first : (colours(first) ?? "#c0c0c0")
}

/** A part of one: as it is, in hundredths, or in parts of 65,536. */
function partIn(value: string | undefined): number {
  const [, number, unit] = /^([\d.]+)(%|f)?$/.exec(value ?? "") ?? []
  const part = Number(number) / ({ "%": 100, f: 65_536 }[unit ?? ""] ?? 1)
  return Number.isFinite(part) ? Math.round(part * 1000) / 1000 : 1
}

function declared(style: string | undefined, name: string): string | undefined {
  for (const part of (style ?? "").split(";")) {
    const colon = part.indexOf(":")
    if (colon > 0 && part.slice(0, colon).trim().toLowerCase() === name) return part.slice(colon + 1).trim()
  }
  return undefined
}

/** Degrees by which a shape is turned clockwise, said as they are or in parts of 65,536 of one. */
function turned(style: string | undefined): number {
  const [, number, parts] = /^(-?[\d.]+)(fd|f)?$/.exec(declared(style, "rotation") ?? "") ?? []
  return Number(number ?? 0) / (parts ? 65_536 : 1)
}

/**
 * @param pictures makes pictures of what a shape shows
 * @returns null where a shape is something else
 */
export function watermarkIn(pict: XmlElement, pictures: () => readonly Node[]): Watermark | null {
  const shape = allWithin(pict, "v:shape")[0]
  if (!shape) return null
  const { style, id, fillcolor } = shape.attrs
  const path = child(shape, "v:textpath")?.attrs
  const angle = risen(-turned(style))
  const face = declared(path?.style, "font-family")?.replace(/["']|&quot;/g, "")
  const said = lengthOfShape(path?.style, "font-size") ?? 1
  const words = wordsBehind(path?.string ?? "", {
    family: familyMeant(face ?? "Arimo").family,
    size: said > 1 ? said : undefined,
    height: lengthOfShape(style, "height"),
    angle,
    colour: colourIn(fillcolor),
    strength: partIn(child(shape, "v:fill")?.attrs.opacity),
  })
  if (words || !isNamedBehind(id)) return words
  const [picture] = pictures()
  if (!picture) return null
  const gain = within(shape, "v:imagedata")?.attrs.gain
  return pictureBehind(pictureAttrs(picture), {
    width: pictureFormat(picture).width,
    angle,
    strength: partIn(gain),
  })
}

/**
 * The same of a drawing, which is one by its name: nothing else tells it from a shape that stands behind a head.
 * @param pictures makes pictures of what it shows
 */
export function watermarkDrawn(drawing: XmlElement, pictures: () => readonly Node[]): Watermark | null {
  const anchor = child(drawing, "wp:anchor")
  if (!anchor || !isNamedBehind(child(anchor, "wp:docPr")?.attrs.name)) return null
  const properties = within(anchor, "a:spPr") ?? within(anchor, "wps:spPr")
  const angle = risen(-Number(child(properties, "a:xfrm")?.attrs.rot ?? 0) / 60_000)
  const letters = within(anchor, "a:rPr")
  const run = within(anchor, "w:rPr")
  const colour = within(child(letters, "a:solidFill"), "a:srgbClr")
  const told = {
    family: child(letters, "a:latin")?.attrs.typeface ?? child(run, "w:rFonts")?.attrs["w:ascii"] ?? "Arimo",
    size: Number(letters?.attrs.sz ?? 0) / 100 || Number(valueOf(run, "w:sz") ?? 0) / 2 || undefined,
    colour: colourOf(colour?.attrs.val) ?? colourOf(valueOf(run, "w:color")) ?? "#c0c0c0",
    strength: Number(child(colour, "a:alpha")?.attrs.val ?? 100_000) / 100_000,
  }
  const words = [...allWithin(anchor, "a:t"), ...allWithin(anchor, "w:t")].map(textIn).join("")
  const behind = wordsBehind(words, {
    ...told,
    family: familyMeant(told.family).family,
    height: emus(child(anchor, "wp:extent")?.attrs.cy),
    angle,
  })
  if (behind) return behind
  const [picture] = pictures()
  if (!picture) return null
  const { width, turn, opacity } = pictureFormat(picture)
  return pictureBehind(pictureAttrs(picture), { width, angle: risen(-turn), strength: opacity })
}
