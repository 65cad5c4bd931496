/** Pictures of drawings (ISO/IEC 29500-1, 20) and of what went before them (29500-4, 19). */
import { limits, nodes, within as bound, type PictureFormat } from "../../../document"
import type { Node } from "prosemirror-model"
import type { Leaving } from "../../leaving"
import { meanings } from "../../meanings"
import { PictureError } from "../../pictures/file"
import { takePicture, type PictureTaken } from "../../pictures/taken"
import { allWithin, child, textIn, within, type XmlElement } from "../../xml/parsing"
import type { Parts } from "../parts"
import { colourOf, emus, lengthOfShape } from "./values"

/** A part of a hundred thousand. */
const part = (value: string | undefined) => {
  const number = Number(value?.replace("%", "") ?? 0) / (value?.endsWith("%") ? 100 : 100_000)
  return Number.isFinite(number) ? bound(number, limits.picture.crop) : 0
}
const rounded = (value: number) => Math.round(value * 100) / 100

export class PictureReader {
  readonly assets = new Map<string, Uint8Array>()
  /** Pictures of parts by path: one that is shown twice is read once. */
  private readonly known = new Map<string, PictureTaken | null>()

  constructor(
    private readonly parts: Parts,
    private readonly leaving: Leaving,
  ) {}

  private file(path: string, relation: string | undefined): PictureTaken | null {
    const target = this.parts.relations(path).get(relation ?? "")
    if (!target) return null
    if (target.external) {
      this.leaving.addHere("pictures that lie elsewhere")
      return null
    }
    let known = this.known.get(target.target)
    if (known === undefined) {
      known = null
      const bytes = this.parts.bytes(target.target)
      try {
        if (bytes) {
          known = takePicture(bytes)
          this.assets.set(known.asset, bytes)
        }
      } catch (error) {
        if (!(error instanceof PictureError)) throw error
      }
      this.known.set(target.target, known)
    }
    if (!known) this.leaving.addHere("pictures of a kind that is not shown")
    return known
  }

  private make(file: PictureTaken, format: Partial<PictureFormat>): Node {
    return nodes.picture.create({ asset: file.asset, source: null, pixels: file.pixels, format })
  }

  /** The pictures of a drawing. */
  drawing(drawing: XmlElement, path: string): Node[] {
    const frame = child(drawing, "wp:inline") ?? child(drawing, "wp:anchor")
    const pictures = allWithin(frame, "pic:pic")
    if (!frame || pictures.length === 0) {
      const shapes = within(frame, "wps:wsp") ?? within(frame, "wpc:wpc") ?? within(frame, "wpg:wgp")
      if (shapes && !within(frame, "w:txbxContent")) this.leaving.addHere("shapes")
      else if (!shapes) this.leaving.addHere("charts and diagrams")
      return []
    }
    const single = pictures.length === 1 && !within(frame, "wpg:wgp")
    return pictures.flatMap((picture) => {
      const fill = child(picture, "pic:blipFill")
      const file = this.file(path, child(fill, "a:blip")?.attrs["r:embed"] ?? child(fill, "a:blip")?.attrs["r:link"])
      if (!file) return []
      const properties = child(picture, "pic:spPr")
      const extent = single ? child(frame, "wp:extent")?.attrs : child(child(properties, "a:xfrm"), "a:ext")?.attrs
      const words = child(frame, "wp:docPr")?.attrs
      return [
        this.make(file, {
          ...sizeOf(emus(extent?.cx), emus(extent?.cy)),
          ...this.look(fill, properties),
          ...(words?.descr ? { alt: words.descr.slice(0, limits.alt) } : {}),
          ...(single && frame.name === "wp:anchor" ? placeOf(frame) : {}),
        }),
      ]
    })
  }

  private look(fill: XmlElement | undefined, properties: XmlElement | undefined): Partial<PictureFormat> {
    const format: Partial<PictureFormat> = {}
    const cut = child(fill, "a:srcRect")?.attrs
    if (cut) {
      const crop = { top: part(cut.t), right: part(cut.r), bottom: part(cut.b), left: part(cut.l) }
      const shown = crop.top + crop.bottom < 0.98 && crop.left + crop.right < 0.98
      if (shown && (crop.top || crop.right || crop.bottom || crop.left)) format.crop = crop
    }
    const turn = Number(child(properties, "a:xfrm")?.attrs.rot ?? 0) / 60_000
    if (Number.isFinite(turn) && turn !== 0) format.turn = rounded(((((turn + 180) % 360) + 360) % 360) - 180)
    const geometry = child(properties, "a:prstGeom")?.attrs.prst
    if (geometry === "ellipse") format.shape = "round"
    else if (geometry?.startsWith("round")) format.shape = "rounded"
    const line = child(properties, "a:ln")
    const colour = colourOf(child(child(line, "a:solidFill"), "a:srgbClr")?.attrs.val)
    if (line && colour)
      format.frame = {
        pattern:
          ({ dot: "dotted", sysDot: "dotted", dash: "dashed", sysDash: "dashed", lgDash: "dashed" } as const)[
            child(line, "a:prstDash")?.attrs.val ?? ""
          ] ?? "solid",
        width: bound(emus(line.attrs.w) ?? 0.75, limits.border.width),
        colour,
        distance: 0,
      }
    const strength = Number(child(within(fill, "a:blip"), "a:alphaModFix")?.attrs.amt ?? 100_000) / 100_000
    if (strength < 1) format.opacity = bound(strength, limits.strength)
    if (child(child(properties, "a:effectLst"), "a:outerShdw")) format.shadow = true
    return format
  }

  /** Pictures of the older form: an image whose size is said by CSS. */
  older(pict: XmlElement, path: string): Node[] {
    return allWithin(pict, "v:shape").flatMap((shape) => {
      const image = child(shape, "v:imagedata")
      const file = image && this.file(path, image.attrs["r:id"] ?? image.attrs["r:embed"])
      if (!file) return []
      const { style } = shape.attrs
      const alt = shape.attrs.alt
      return [
        this.make(file, {
          ...sizeOf(lengthOfShape(style, "width"), lengthOfShape(style, "height")),
          ...(alt ? { alt: alt.slice(0, limits.alt) } : {}),
        }),
      ]
    })
  }
}

function sizeOf(width: number | undefined, height: number | undefined): Partial<PictureFormat> {
  const fit = (value: number | undefined) =>
    value !== undefined && value > 0 ? rounded(bound(value, limits.picture.size)) : undefined
  const [w, h] = [fit(width), fit(height)]
  return { ...(w === undefined ? {} : { width: w }), ...(h === undefined ? {} : { height: h }) }
}

const across = meanings<PictureFormat["across"]["of"]>({
  page: "sheet",
  margin: "margins",
  leftMargin: "sheet",
})
const down = meanings<PictureFormat["down"]["of"]>({
  page: "sheet",
  margin: "margins",
  topMargin: "sheet",
})

/** Where a picture stands that is not in its line, and how text goes round it. */
function placeOf(anchor: XmlElement): Partial<PictureFormat> {
  const [x, y] = [child(anchor, "wp:positionH"), child(anchor, "wp:positionV")]
  const wrap = anchor.children.find(
    (own): own is XmlElement => typeof own !== "string" && own.name.startsWith("wp:wrap"),
  )
  const align = textIn(child(x, "wp:align"))
  const offset = (position: XmlElement | undefined) =>
    bound(emus(textIn(child(position, "wp:posOffset"))) ?? 0, limits.length)
  const behind = ["1", "true"].includes(anchor.attrs.behindDoc ?? "0")
  const side = wrap?.attrs.wrapText
  const distance = Math.max(emus(anchor.attrs.distL) ?? 0, emus(anchor.attrs.distR) ?? 0)
  return {
    wrap:
      !wrap || wrap.name === "wp:wrapNone"
        ? behind
          ? "under"
          : "over"
        : wrap.name === "wp:wrapTopAndBottom"
          ? "across"
          : "beside",
    side: side === "left" || side === "right" ? side : side === "largest" ? "wider" : "both",
    distance: rounded(bound(distance, limits.picture.distance)),
    across: {
      of: across(x?.attrs.relativeFrom) ?? "column",
      align:
        align === "center" || align === "left" || align === "right"
          ? align
          : align === "inside"
            ? "left"
            : align === "outside"
              ? "right"
              : null,
      at: rounded(offset(x)),
    },
    down: { of: down(y?.attrs.relativeFrom) ?? "paragraph", at: rounded(offset(y)) },
  }
}
