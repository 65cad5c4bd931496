/** Drawings of Office Open XML that are not in their line, as shapes of RTF. */
import { allWithin, child, textIn, within, type XmlElement } from "../../xml/parsing"
import { text } from "./tables"

export const emusOfTwip = 635
const wholeFixed = 65_536

const twips = (emus: string | undefined) => Math.round(Number(emus ?? 0) / emusOfTwip)
const property = (name: string, value: string | number) => `{\\sp{\\sn ${name}}{\\sv ${value}}}`
const fixed = (part: number) => Math.round(part * wholeFixed)

const wrapSides: Readonly<Record<string, number>> = { bothSides: 0, left: 1, right: 2, largest: 3 }
const relatives = { H: { margin: 0, page: 1, column: 2 }, V: { margin: 0, page: 1, paragraph: 2 } } as const
const alignments: Readonly<Record<string, number>> = { left: 1, center: 2, right: 3 }

/** Words behind all text: how they are written, and what colour they have. */
function wordsOf(anchor: XmlElement): string {
  const words = allWithin(anchor, "a:t").map(textIn).join("")
  const letters = within(anchor, "a:rPr")
  const colour = within(letters, "a:srgbClr")
  const [red, green, blue] = [0, 2, 4].map((at) =>
    Number.parseInt((colour?.attrs.val ?? "c0c0c0").slice(at, at + 2), 16),
  )
  return (
    property("shapeType", 136) +
    property("gtextUNICODE", text(words)) +
    property("gtextSize", fixed(Number(letters?.attrs.sz ?? 0) / 100)) +
    property("gtextFont", text(child(letters, "a:latin")?.attrs.typeface ?? "Arimo")) +
    property("fGtext", 1) +
    property("fillColor", (red ?? 0) + (green ?? 0) * 256 + (blue ?? 0) * 65_536) +
    property("fillOpacity", fixed(Number(child(colour, "a:alpha")?.attrs.val ?? 100_000) / 100_000))
  )
}

function pictureOf(anchor: XmlElement, picture: string): string {
  const cut = within(anchor, "a:srcRect")?.attrs ?? {}
  const sides = { l: "Left", t: "Top", r: "Right", b: "Bottom" }
  const strength = Number(within(anchor, "a:alphaModFix")?.attrs.amt ?? 100_000) / 100_000
  return (
    property("shapeType", 75) +
    Object.entries(sides)
      .filter(([side]) => Number(cut[side] ?? 0) !== 0)
      .map(([side, name]) => property(`cropFrom${name}`, fixed(Number(cut[side]) / 100_000)))
      .join("") +
    (strength < 1 ? property("pictureContrast", fixed(strength)) : "") +
    property("pib", picture)
  )
}

/**
 * @param picture the picture that it shows; nothing for words
 * @returns nothing where it shows neither
 */
export function shape(anchor: XmlElement, picture: string): string {
  const size = child(anchor, "wp:extent")?.attrs
  const words = child(anchor, "wp:docPr")?.attrs
  if (picture === "" && !within(anchor, "a:t")) return ""
  const place = (axis: "H" | "V") => {
    const position = child(anchor, `wp:position${axis}`)
    const of = position?.attrs.relativeFrom ?? ""
    const align = alignments[textIn(child(position, "wp:align"))]
    const relative = new Map<string, number>(Object.entries(relatives[axis])).get(of) ?? 2
    return { at: twips(textIn(child(position, "wp:posOffset"))), align, relative }
  }
  const [x, y] = [place("H"), place("V")]
  const behind = anchor.attrs.behindDoc === "1" ? 1 : 0
  const square = child(anchor, "wp:wrapSquare")
  const wrap = child(anchor, "wp:wrapTopAndBottom")
    ? "\\shpwr1"
    : square
      ? `\\shpwr2\\shpwrk${wrapSides[square.attrs.wrapText ?? ""] ?? 0}`
      : "\\shpwr3"
  const turn =
    Number(
      within(anchor, "a:sp")
        ? within(within(anchor, "a:sp"), "a:xfrm")?.attrs.rot
        : within(anchor, "a:xfrm")?.attrs.rot,
    ) || 0
  const box = `\\shpleft${x.at}\\shptop${y.at}\\shpright${x.at + twips(size?.cx)}\\shpbottom${y.at + twips(size?.cy)}`
  return (
    `{\\shp{\\*\\shpinst${box}\\shpbxignore\\shpbyignore${wrap}\\shpfblwtxt${behind}` +
    property("posrelh", x.relative) +
    property("posrelv", y.relative) +
    (x.align === undefined ? "" : property("posh", x.align)) +
    (y.align === undefined ? "" : property("posv", y.align)) +
    (turn === 0 ? "" : property("rotation", fixed(turn / 60_000))) +
    property("fBehindDocument", behind) +
    property("dxWrapDistLeft", anchor.attrs.distL ?? 0) +
    property("dxWrapDistRight", anchor.attrs.distR ?? 0) +
    (words?.name ? property("wzName", text(words.name)) : "") +
    (words?.descr ? property("wzDescription", text(words.descr)) : "") +
    property("fLine", 0) +
    `${picture === "" ? wordsOf(anchor) : pictureOf(anchor, picture)}}}`
  )
}
