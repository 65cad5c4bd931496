/** Words and pictures behind all text, which stand in a head as shapes of the older drawing form (ISO/IEC 29500-4, 19.1.2). */
import type { Node } from "prosemirror-model"
import { asName, limits, pictureAttrs, pictureFormat, within as bound, type Watermark } from "../../../document"
import { familyMeant } from "../../familyMeant"
import { meanings } from "../../meanings"
import { allWithin, child, within, type XmlElement } from "../../xml/parsing"
import { lengthOfShape } from "./values"

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
  return Number.isFinite(part) ? part : 1
}

function declared(style: string | undefined, name: string): string | undefined {
  for (const part of (style ?? "").split(";")) {
    const colon = part.indexOf(":")
    if (colon > 0 && part.slice(0, colon).trim().toLowerCase() === name) return part.slice(colon + 1).trim()
  }
  return undefined
}

/** Degrees by which a shape rises that is turned clockwise by so many, or by parts of 65,536 of one. */
function risen(style: string | undefined): number {
  const [, number, parts] = /^(-?[\d.]+)(fd|f)?$/.exec(declared(style, "rotation") ?? "") ?? []
  const turned = Number(number ?? 0) / (parts ? 65_536 : 1)
  const rises = (((-turned % 360) + 540) % 360) - 180
  // What stands on its head is read from the other side.
  return Math.round(rises > 90 ? rises - 180 : rises < -90 ? rises + 180 : rises)
}

/** Letters fill the height of their shape but for what hangs below their line. */
const filled = 0.85
const usualSize = 96

/**
 * @param pictures makes pictures of what a shape shows
 * @returns null where a shape is something else
 */
export function watermarkIn(pict: XmlElement, pictures: (pict: XmlElement) => readonly Node[]): Watermark | null {
  const shape = allWithin(pict, "v:shape")[0]
  const { style } = shape?.attrs ?? {}
  const path = child(shape, "v:textpath")
  const text = asName(path?.attrs.string ?? "", limits.watermark)
  if (shape && path && text !== "") {
    const said = lengthOfShape(path.attrs.style, "font-size") ?? 1
    const high = lengthOfShape(style, "height")
    const face = declared(path.attrs.style, "font-family")?.replace(/["']|&quot;/g, "")
    return {
      text,
      family: familyMeant(face ?? "Arimo").family,
      size: bound(Math.round(said > 1 ? said : high ? high * filled : usualSize), limits.size),
      angle: bound(risen(style), limits.angle),
      colour: colourIn(shape.attrs.fillcolor),
      strength: bound(partIn(child(shape, "v:fill")?.attrs.opacity), limits.strength),
    }
  }
  if (!shape || !/watermark/i.test(shape.attrs.id ?? "")) return null
  const [picture] = pictures(pict)
  if (!picture) return null
  const { asset, pixels } = pictureAttrs(picture)
  // It is three times as wide as its size.
  const width = pictureFormat(picture).width ?? usualSize * 3
  const faint = within(shape, "v:imagedata")?.attrs.gain !== undefined
  return {
    picture: { asset, pixels: [...pixels] },
    text: "Picture",
    family: "Arimo",
    size: bound(Math.round(width / 3), limits.size),
    angle: bound(risen(style), limits.angle),
    colour: "#808080",
    strength: faint ? 0.3 : 1,
  }
}
