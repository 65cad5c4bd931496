/** Pictures as drawings. */
import { pictureAttrs, pictureFormat, pictureSize, type PictureFormat, type Size } from "../../../document"
import type { Node } from "prosemirror-model"
import { xml } from "../../xml/writing"
import { namespaces } from "../names"
import { emus, hex } from "./values"

const shapes: Readonly<Record<PictureFormat["shape"], string>> = {
  plain: "rect",
  rounded: "roundRect",
  round: "ellipse",
  arch: "round2SameRect",
}
const dashes: Readonly<Record<string, string>> = { dotted: "sysDot", dashed: "dash" }
const part = (own: number) => Math.round(own * 100_000)

/**
 * What is seen of a picture.
 * @param relation what the part calls its file
 */
export function graphicOf(
  { crop, turn, shape, frame, shadow, opacity, alt }: PictureFormat,
  relation: string,
  named: { id: number; name: string },
  size: { cx: number; cy: number },
): string {
  const cropped = crop.top || crop.right || crop.bottom || crop.left
  return xml(
    "a:graphic",
    { "xmlns:a": namespaces.a },
    xml(
      "a:graphicData",
      { uri: namespaces.pic },
      xml(
        "pic:pic",
        { "xmlns:pic": namespaces.pic },
        xml("pic:nvPicPr", null, xml("pic:cNvPr", { ...named, descr: alt || undefined }), xml("pic:cNvPicPr", null)),
        xml(
          "pic:blipFill",
          null,
          xml("a:blip", { "r:embed": relation }, opacity < 1 && xml("a:alphaModFix", { amt: part(opacity) })),
          cropped
            ? xml("a:srcRect", { l: part(crop.left), t: part(crop.top), r: part(crop.right), b: part(crop.bottom) })
            : false,
          xml("a:stretch", null, xml("a:fillRect", null)),
        ),
        xml(
          "pic:spPr",
          null,
          xml(
            "a:xfrm",
            { rot: turn === 0 ? undefined : Math.round(((turn + 360) % 360) * 60_000) },
            xml("a:off", { x: 0, y: 0 }),
            xml("a:ext", size),
          ),
          xml("a:prstGeom", { prst: shapes[shape] }, xml("a:avLst", null)),
          frame &&
            xml(
              "a:ln",
              { w: emus(frame.width) },
              xml("a:solidFill", null, xml("a:srgbClr", { val: hex(frame.colour) })),
              dashes[frame.pattern] && xml("a:prstDash", { val: dashes[frame.pattern] }),
            ),
          shadow &&
            xml(
              "a:effectLst",
              null,
              xml("a:outerShdw", { blurRad: 0, dist: emus(5), dir: 2_700_000 }, xml("a:srgbClr", { val: "808080" })),
            ),
        ),
      ),
    ),
  )
}

/**
 * @param relation what the part calls the file
 * @param id different for each drawing
 */
export function drawing(picture: Node, relation: string, id: number, room: Size): string {
  const format = pictureFormat(picture)
  const { width, height } = pictureSize(picture, room)
  const { alt, wrap } = format
  const size = { cx: emus(width), cy: emus(height) }
  const named = { id, name: `Picture ${id}` }
  const graphic = graphicOf(format, relation, named, size)
  const words = xml("wp:docPr", { ...named, descr: alt || undefined })
  const locks = xml(
    "wp:cNvGraphicFramePr",
    null,
    xml("a:graphicFrameLocks", { "xmlns:a": namespaces.a, noChangeAspect: 1 }),
  )
  if (wrap === "line")
    return xml(
      "w:drawing",
      null,
      xml("wp:inline", { distT: 0, distB: 0, distL: 0, distR: 0 }, xml("wp:extent", size), words, locks, graphic),
    )
  return anchored({
    id,
    distance: format.distance,
    behind: wrap === "under",
    overlaps: wrap === "under" || wrap === "over",
    across: xml(
      "wp:positionH",
      { relativeFrom: { column: "column", margins: "margin", sheet: "page" }[format.across.of] },
      format.across.align === null
        ? xml("wp:posOffset", null, String(emus(format.across.at)))
        : xml("wp:align", null, format.across.align),
    ),
    down: xml(
      "wp:positionV",
      { relativeFrom: { paragraph: "paragraph", margins: "margin", sheet: "page" }[format.down.of] },
      xml("wp:posOffset", null, String(emus(format.down.at))),
    ),
    wrap:
      wrap === "across"
        ? xml("wp:wrapTopAndBottom", null)
        : wrap === "beside"
          ? xml("wp:wrapSquare", {
              wrapText: { both: "bothSides", left: "left", right: "right", wider: "largest" }[format.side],
            })
          : xml("wp:wrapNone", null),
    size,
    words: words + locks,
    graphic,
  })
}

interface Anchored {
  id: number
  /** Of the text from it, in points. */
  distance: number
  behind: boolean
  overlaps: boolean
  across: string
  down: string
  wrap: string
  size: { cx: number; cy: number }
  words: string
  graphic: string
}

/** A drawing that is not in its line. */
export function anchored({ id, distance, behind, overlaps, size, ...parts }: Anchored): string {
  const away = emus(distance)
  return xml(
    "w:drawing",
    null,
    xml(
      "wp:anchor",
      {
        distT: away,
        distB: away,
        distL: away,
        distR: away,
        simplePos: 0,
        relativeHeight: id,
        behindDoc: behind ? 1 : 0,
        locked: 0,
        layoutInCell: 1,
        allowOverlap: overlaps ? 1 : 0,
      },
      xml("wp:simplePos", { x: 0, y: 0 }),
      parts.across,
      parts.down,
      xml("wp:extent", size),
      xml("wp:effectExtent", { l: 0, t: 0, r: 0, b: 0 }),
      parts.wrap,
      parts.words,
      parts.graphic,
    ),
  )
}

export const assetOf = (picture: Node): string => pictureAttrs(picture).asset
