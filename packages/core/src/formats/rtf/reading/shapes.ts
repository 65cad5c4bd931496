/** Shapes of RTF: pictures that text goes round, text in boxes, words behind all text; as drawings of Office Open XML. */
import { escaped } from "./letters"
import { Picture, type PictureDone } from "./picture"
import { nothing, type Destination } from "./tellings"

const emusOfTwip = 635
const wholeFixed = 65_536
/** Shapes in groups in groups: what stands deeper is passed. */
const deepest = 12

/** What is wrapped how, by the number that \shpwr gives it. */
const wraps = new Map([
  [1, "<wp:wrapTopAndBottom/>"],
  [3, "<wp:wrapNone/>"],
])
const wrapSides = ["bothSides", "left", "right", "largest"]
/** What places are relative to, by control words and by the numbers that stand in their place. */
const across = {
  words: new Map([
    ["shpbxpage", "page"],
    ["shpbxmargin", "margin"],
  ]),
  numbers: ["margin", "page", "column"],
}
const down = {
  words: new Map([
    ["shpbypage", "page"],
    ["shpbymargin", "margin"],
  ]),
  numbers: ["margin", "page", "paragraph"],
}
const alignments = ["", "left", "center", "right"]

export class Shape implements Destination {
  private readonly sides = new Map<string, number>()
  private readonly properties = new Map<string, string>()
  private relative = { x: "column", y: "paragraph" }
  private picture: Parameters<PictureDone>[0] | null = null
  private inside = ""

  constructor(
    /** Hears the elements that runs are to hold; none for what is not shown. */
    private readonly done: (drawings: readonly string[]) => void,
    /** Takes the file of a picture. @returns what refers to it, and a number; null for one that cannot be read */
    private readonly file: (picture: Parameters<PictureDone>[0]) => { relation: string; number: number } | null,
    private readonly depth = 0,
  ) {}

  word(name: string, value: number | null): void {
    const [x, y] = [across.words.get(name), down.words.get(name)]
    if (x) this.relative.x = x
    else if (y) this.relative.y = y
    else if (name.startsWith("shp") && value !== null) this.sides.set(name, value)
  }

  group(name: string): Destination | "story" {
    if (name === "shptxt" || name === "dptxbxtext") return "story"
    if (name === "sp") return this.property()
    // Shapes that stand together, each with what it is.
    if (name === "shp" || name === "shpgrp") return { group: (own) => this.group(own) }
    if (name !== "shpinst" || this.depth >= deepest) return nothing
    return new Shape((inner) => void this.made.push(...inner), this.file, this.depth + 1)
  }

  private readonly made: string[] = []

  /** Text in the shape. */
  story(inside: string): void {
    this.inside += inside
  }

  private property(): Destination {
    let name = ""
    let value = ""
    return {
      group: (word) => {
        if (word === "sn") return { text: (text) => (name += text) }
        if (word !== "sv") return nothing
        return {
          text: (text) => (value += text),
          group: (own) => (own === "pict" ? new Picture((picture) => (this.picture = picture)) : nothing),
        }
      },
      close: () => {
        if (this.properties.size < 200) this.properties.set(name.trim(), value.trim().slice(0, 2000))
      },
    }
  }

  private number(name: string): number {
    const own = Number(this.properties.get(name) ?? 0)
    return Number.isFinite(own) ? own : 0
  }

  private colour(name: string): string | null {
    if (!this.properties.has(name)) return null
    const whole = this.number(name) & 0xffffff
    return [whole & 255, (whole >> 8) & 255, whole >> 16].map((part) => part.toString(16).padStart(2, "0")).join("")
  }

  private get size(): { cx: number; cy: number } {
    const side = (from: string, to: string) =>
      Math.max(1, Math.round(((this.sides.get(to) ?? 0) - (this.sides.get(from) ?? 0)) * emusOfTwip))
    return { cx: side("shpleft", "shpright"), cy: side("shptop", "shpbottom") }
  }

  close(): void {
    const drawing = this.drawing
    this.done(drawing === null ? this.made : [drawing, ...this.made])
  }

  private get drawing(): string | null {
    const words = this.properties.get("gtextUNICODE")
    if (words) return this.anchored(this.words(words), "Watermark")
    const file = this.picture && this.file(this.picture)
    if (file) {
      const named = /watermark/i.test(this.properties.get("wzName") ?? "")
      return this.anchored(this.pictured(file.relation), named ? "Watermark" : `Picture ${file.number}`)
    }
    return this.inside === "" ? null : `<w:pict><w:txbxContent>${this.inside}</w:txbxContent></w:pict>`
  }

  private get turned(): string {
    const turn = Math.round((this.number("rotation") / wholeFixed) * 60_000)
    return `<a:xfrm${turn === 0 ? "" : ` rot="${turn}"`}/>`
  }

  private strength(name: string): number {
    const part = Math.round((this.number(name) / wholeFixed) * 1000) / 1000
    return this.properties.has(name) ? Math.min(1, Math.max(0, part)) : 1
  }

  private words(words: string): string {
    const alpha = Math.round(this.strength("fillOpacity") * 100_000)
    const size = Math.round((this.number("gtextSize") / wholeFixed) * 100)
    const face = this.properties.get("gtextFont")
    return (
      `<a:sp><a:spPr>${this.turned}</a:spPr><a:rPr${size > 100 ? ` sz="${size}"` : ""}>` +
      `<a:solidFill><a:srgbClr val="${this.colour("fillColor") ?? "c0c0c0"}"><a:alpha val="${alpha}"/></a:srgbClr></a:solidFill>` +
      `${face ? `<a:latin typeface="${escaped(face)}"/>` : ""}</a:rPr><a:t>${escaped(words)}</a:t></a:sp>`
    )
  }

  private pictured(relation: string): string {
    const { cx, cy } = this.size
    const cut = (["Left", "Top", "Right", "Bottom"] as const).map((side) => {
      const part = Math.round((this.number(`cropFrom${side}`) / wholeFixed) * 100_000)
      return part === 0 ? "" : ` ${side.charAt(0).toLowerCase()}="${part}"`
    })
    const faint = Math.round(this.strength("pictureContrast") * 100_000)
    return (
      `<a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture"><pic:pic><pic:blipFill>` +
      `<a:blip r:embed="${relation}">${faint < 100_000 ? `<a:alphaModFix amt="${faint}"/>` : ""}</a:blip>${cut.some(Boolean) ? `<a:srcRect${cut.join("")}/>` : ""}</pic:blipFill>` +
      `<pic:spPr>${this.turned.replace("/>", `><a:ext cx="${cx}" cy="${cy}"/></a:xfrm>`)}</pic:spPr></pic:pic></a:graphicData></a:graphic>`
    )
  }

  private anchored(graphic: string, name: string): string {
    const { cx, cy } = this.size
    const behind = this.sides.get("shpfblwtxt") === 1 || this.properties.get("fBehindDocument") === "1"
    const position = (axis: "H" | "V") => {
      const { x, y } = this.relative
      const [own, side, letter] = axis === "H" ? ([x, "shpleft", "h"] as const) : ([y, "shptop", "v"] as const)
      const align = axis === "H" ? alignments[this.number("posh")] : ""
      const of = (axis === "H" ? across : down).numbers[this.number(`posrel${letter}`)]
      const relative = this.properties.has(`posrel${letter}`) && of ? of : own
      const at = align
        ? `<wp:align>${align}</wp:align>`
        : `<wp:posOffset>${Math.round((this.sides.get(side) ?? 0) * emusOfTwip)}</wp:posOffset>`
      return `<wp:position${axis} relativeFrom="${relative}">${at}</wp:position${axis}>`
    }
    const wrap =
      wraps.get(this.sides.get("shpwr") ?? 3) ??
      `<wp:wrapSquare wrapText="${wrapSides[this.sides.get("shpwrk") ?? 0] ?? "bothSides"}"/>`
    const away = this.properties.has("dxWrapDistLeft")
      ? Math.max(0, Math.round(this.number("dxWrapDistLeft")))
      : 114_300
    const alt = this.properties.get("wzDescription")
    return (
      `<w:drawing><wp:anchor distL="${away}" distR="${away}" behindDoc="${behind ? 1 : 0}">${position("H")}${position("V")}` +
      `<wp:extent cx="${cx}" cy="${cy}"/>${wrap}<wp:docPr id="1" name="${name}"${alt ? ` descr="${escaped(alt)}"` : ""}/>${graphic}</wp:anchor></w:drawing>`
    )
  }
}
