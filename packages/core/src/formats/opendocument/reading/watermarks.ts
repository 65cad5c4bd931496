/** Words and pictures behind all text, which stand in a head as shapes (OpenDocument 1.3, part 3, 10.3). */
import type { Watermark } from "../../../document"
import { isNamedBehind, pictureBehind, risen, wordsBehind } from "../../behind"
import { familyMeant } from "../../familyMeant"
import type { PictureTaken } from "../../pictures/taken"
import { allWithin, child, childrenNamed, textIn, type XmlElement } from "../../xml/parsing"
import { colourOf, familyNamedIn, lengthOf, percentOf, turnOf, type Faces } from "./properties"

/**
 * @param style of the shape
 * @param picture the first of the forms of a picture that can be shown
 * @returns null where it is something else
 */
export function watermarkIn(
  shape: XmlElement,
  style: XmlElement | undefined,
  faces: Faces,
  picture: (forms: readonly XmlElement[]) => PictureTaken | null,
): Watermark | null {
  const { attrs } = shape
  const look = child(style, "style:graphic-properties")?.attrs ?? {}
  const angle = risen(turnOf(attrs["draw:transform"]))
  const isNamed = isNamedBehind(attrs["draw:name"])
  if (shape.name === "draw:frame") {
    const images = isNamed ? childrenNamed(shape, "draw:image") : []
    const taken = images.length > 0 ? picture(images) : null
    const strength = percentOf(look["draw:image-opacity"]) ?? 1
    return taken && pictureBehind(taken, { width: lengthOf(attrs["svg:width"]) ?? null, angle, strength })
  }
  const path = child(shape, "draw:enhanced-geometry")?.attrs["draw:text-path"]
  if (path !== "true" && !isNamed) return null
  const letters = child(style, "style:text-properties")?.attrs ?? {}
  const face = faces.get(letters["style:font-name"] ?? "")
  const asked = face?.family || familyNamedIn(letters["fo:font-family"]) || letters["style:font-name"] || "Arimo"
  // Letters fill their shape whatever is said of their size, which is then none or one point.
  const size = lengthOf(letters["fo:font-size"])
  return wordsBehind(allWithin(shape, "text:p").map(textIn).join(" "), {
    family: familyMeant(asked, face?.kind).family,
    size: size !== undefined && size > 1 ? size : undefined,
    height: lengthOf(attrs["svg:height"]),
    angle,
    colour: colourOf(look["draw:fill-color"]) ?? "#c0c0c0",
    strength: percentOf(look["draw:opacity"]) ?? 1,
  })
}
