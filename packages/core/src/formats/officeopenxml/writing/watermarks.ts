/** What stands behind all text, as a drawing in a head: a picture, or words on a canvas (ISO/IEC 29500-1, 20.1 and 20.3). */
import { defaultPicture, type Watermark } from "../../../document"
import { shapeName, shapeSize } from "../../behind"
import { faceName } from "../../familyMeant"
import { escapeXml, xml } from "../../xml/writing"
import { namespaces } from "../names"
import { anchored, graphicOf } from "./pictures"
import { emus, hex } from "./values"

/** Words in the middle of a shape without lines. */
function canvas(
  { text, family, size, colour, strength, angle }: Watermark,
  extent: { cx: number; cy: number },
): string {
  const flat = { x: 0, y: 0, ...extent }
  const place = (turned: boolean, inner: boolean) =>
    xml(
      "a:xfrm",
      { rot: turned && angle !== 0 ? Math.round(((360 - angle) % 360) * 60_000) : undefined },
      xml("a:off", { x: flat.x, y: flat.y }),
      xml("a:ext", extent),
      inner && xml("a:chOff", { x: 0, y: 0 }),
      inner && xml("a:chExt", extent),
    )
  const face = { typeface: faceName(family) }
  const letters = xml(
    "a:rPr",
    { sz: Math.round(size * 100) },
    xml(
      "a:solidFill",
      null,
      xml("a:srgbClr", { val: hex(colour) }, strength < 1 && xml("a:alpha", { val: Math.round(strength * 100_000) })),
    ),
    xml("a:latin", face),
    xml("a:ea", face),
    xml("a:cs", face),
  )
  const words = xml(
    "a:p",
    null,
    xml("a:pPr", { algn: "ctr" }),
    xml("a:r", null, letters, xml("a:t", null, escapeXml(text))),
  )
  return xml(
    "a:graphic",
    { "xmlns:a": namespaces.a },
    xml(
      "a:graphicData",
      { uri: namespaces.lc },
      xml(
        "lc:lockedCanvas",
        { "xmlns:lc": namespaces.lc },
        xml("a:nvGrpSpPr", null, xml("a:cNvPr", { id: 0, name: "" }), xml("a:cNvGrpSpPr", null)),
        xml("a:grpSpPr", null, place(false, true)),
        xml(
          "a:sp",
          null,
          xml("a:nvSpPr", null, xml("a:cNvPr", { id: 2, name: shapeName }), xml("a:cNvSpPr", null)),
          xml(
            "a:spPr",
            null,
            place(true, false),
            xml("a:prstGeom", { prst: "rect" }, xml("a:avLst", null)),
            xml("a:noFill", null),
          ),
          xml(
            "a:txSp",
            null,
            xml(
              "a:txBody",
              null,
              xml("a:bodyPr", { wrap: "none", lIns: 0, tIns: 0, rIns: 0, bIns: 0, anchor: "ctr", anchorCtr: 1 }),
              xml("a:lstStyle", null),
              words,
            ),
            xml("a:useSpRect", null),
          ),
        ),
      ),
    ),
  )
}

/**
 * @param picture what the part calls the file of its picture
 * @param id different for each drawing
 * @returns a run to stand in a paragraph of the head; nothing where its picture is not to be had
 */
export function watermarkRun(watermark: Watermark, picture: string | null, id: number): string {
  const { angle, strength } = watermark
  if (watermark.picture && picture === null) return ""
  const { width, height } = shapeSize(watermark)
  const size = { cx: emus(width), cy: emus(height) }
  const name = `${shapeName} ${id}`
  const middle = xml("wp:align", null, "center")
  const format = { ...defaultPicture, turn: -angle, opacity: strength }
  return xml(
    "w:r",
    null,
    anchored({
      id,
      distance: 0,
      behind: true,
      overlaps: true,
      across: xml("wp:positionH", { relativeFrom: "page" }, middle),
      down: xml("wp:positionV", { relativeFrom: "page" }, middle),
      wrap: xml("wp:wrapNone", null),
      size,
      words: xml("wp:docPr", { id, name }) + xml("wp:cNvGraphicFramePr", null),
      graphic: picture === null ? canvas(watermark, size) : graphicOf(format, picture, { id, name }, size),
    }),
  )
}
