/** What stands behind all text, as a shape of a head: words that fill it, or a picture (OpenDocument 1.3, part 3, 10.3 and 19.228). */
import type { Watermark } from "../../../document"
import { shapeName, shapeSize } from "../../behind"
import { escapeXml, xml } from "../../xml/writing"
import { points, textProperties } from "./properties"
import type { AutomaticStyles } from "./styles"

const behind = {
  "style:wrap": "run-through",
  "style:number-wrapped-paragraphs": "no-limit",
  "style:run-through": "background",
  "style:horizontal-pos": "center",
  "style:horizontal-rel": "page",
  "style:vertical-pos": "middle",
  "style:vertical-rel": "page",
}

const percent = (part: number) => `${Math.round(part * 1000) / 10}%`

/**
 * @param path of its picture; null where there is none to be had
 * @param name differs from those of other shapes
 */
export function watermarkShape(
  watermark: Watermark,
  path: string | null,
  number: string,
  automatic: AutomaticStyles,
): string {
  const { text, family, size, angle, colour, strength } = watermark
  if (watermark.picture && path === null) return ""
  const { width, height } = shapeSize(watermark)
  const place = {
    "draw:name": `${shapeName} ${number}`,
    "text:anchor-type": "paragraph",
    "svg:width": points(width),
    "svg:height": points(height),
    "draw:transform": angle === 0 ? undefined : `rotate (${Math.round(((angle * Math.PI) / 180) * 1e5) / 1e5})`,
  }
  if (path !== null) {
    const style = xml("style:graphic-properties", {
      ...behind,
      "draw:image-opacity": strength < 1 ? percent(strength) : undefined,
    })
    return xml(
      "draw:frame",
      { "draw:style-name": automatic.style("G", "graphic", {}, style), ...place },
      xml("draw:image", {
        "xlink:href": path,
        "xlink:type": "simple",
        "xlink:show": "embed",
        "xlink:actuate": "onLoad",
      }),
    )
  }
  const style =
    xml("style:graphic-properties", {
      ...behind,
      "draw:stroke": "none",
      "draw:fill": "solid",
      "draw:fill-color": colour,
      "draw:opacity": percent(strength),
      "draw:auto-grow-height": false,
    }) + textProperties({ family, size })
  return xml(
    "draw:custom-shape",
    { "draw:style-name": automatic.style("G", "graphic", {}, style), ...place },
    xml("text:p", null, escapeXml(text)),
    xml("draw:enhanced-geometry", {
      "svg:viewBox": "0 0 21600 21600",
      "draw:text-path": true,
      "draw:text-path-mode": "shape",
      "draw:text-path-scale": "path",
      // Between a line above and one below.
      "draw:enhanced-path": "M 0 0 L 21600 0 N M 0 21600 L 21600 21600 N",
    }),
  )
}
