/** The content stream of one sheet. */
import {
  backdropOf,
  floatsOn,
  frameOfPicture,
  outlinePath,
  picturesIn,
  pictureShadow,
  radiiOf,
  wholeOf,
  type DrawnPicture,
  type SetCell,
  type StandingFloat,
  clusterOf,
  fragmentsOf,
  highlightOf,
  isWordSpace,
  letterRules,
  lineTop,
  outlineWidth,
  rulePath,
  shadowColour,
  shadowOffset,
  tablesOf,
  turnedBox,
  type Box,
  type FontLibrary,
  type Fragment,
  type Line,
  type LineRun,
  type Rule,
  type PlacedSheet,
  type Sheet,
} from "../../layout"
import { placedGlyphs } from "../glyphs"
import { silent, type PdfFace } from "./fonts"
import { num, textString } from "./objects"

/** A stretch of marked content: what stands before an item of a list, or the text of a block. */
interface MarkedText {
  fragment: Fragment
  part: "label" | "text"
}
/** A picture, and where in the text it stands or is tied. */
export interface MarkedPicture {
  part: "figure"
  leaf: number
  offset: number
  picture: DrawnPicture
  cell: SetCell | null
}
export type Marked = MarkedText | MarkedPicture

/** What a file has of a picture: the name under which sheets draw it; null where it is not to be had. */
export type ImageFor = (picture: DrawnPicture) => string | null

export interface Drawn {
  content: string
  faces: Set<PdfFace>
  /** Names of the pictures that are drawn, and strengths at which some are. */
  images: Set<string>
  strengths: Set<number>
  links: LinkBox[]
  /** In the order of their numbers. */
  marked: Marked[]
}

/** A linked stretch of a line, in PDF's coordinates. */
export interface LinkBox {
  /** An address, a place of the document after #, a heading by its number, a note by its key, or the mark of a note by its leaf. */
  to: string | { heading: number } | { note: string } | { markOf: number }
  left: number
  bottom: number
  right: number
  top: number
}

export function tagOf({ paragraph, part }: Fragment): string {
  if (part === "note") return "Note"
  if (part === "generated") return "TOCI"
  return paragraph.outline ? `H${Math.min(6, paragraph.outline)}` : paragraph.label ? "LBody" : "P"
}

function components(colour: string): string {
  const part = (i: number) => num(parseInt(colour.slice(i, i + 2), 16) / 255)
  return `${part(1)} ${part(3)} ${part(5)}`
}
const fill = (colour: string) => `${components(colour)} rg\n`

/** What a fragment has to be marked for. */
function partsOf(fragment: Fragment): MarkedText["part"][] {
  const { paragraph, from, to } = fragment
  const label = from === 0 && paragraph.label !== null && paragraph.label.runs.length > 0
  const text = paragraph.lines.slice(from, to).some((line) => line.runs.some(({ run }) => !run.picture))
  return [...(label ? (["label"] as const) : []), ...(text ? (["text"] as const) : [])]
}

/** The lines of a part of a fragment, with the runs on each. */
function linesOf(
  { paragraph, from, to }: Fragment,
  part: MarkedText["part"],
): { line: Line; runs: readonly LineRun[] }[] {
  const { lines, label } = paragraph
  if (part === "text") return lines.slice(from, to).map((line) => ({ line, runs: line.runs }))
  return lines[0] && label ? [{ line: lines[0], runs: label.runs }] : []
}

/** Shown where a picture is not to be had. */
const missingPicture = "#e9e3d6"

const isFurniture = ({ part }: Fragment) => part === "header" || part === "footer" || part === "repeated"

/** Draws the fragments: first what lies behind all text, then the text of each as marked content. */
export function drawSheet(
  placed: PlacedSheet,
  fonts: FontLibrary,
  faceFor: (run: LineRun) => PdfFace,
  imageFor: ImageFor,
): Drawn {
  const pen = new Pen(placed.sheet, fonts, faceFor, imageFor)
  const fragments = fragmentsOf(placed)
  const backdrop = backdropOf(placed).map((fragment) => pen.turned(fragment, pen.whole(fragment)))
  const behind =
    pen.paper() +
    backdrop.join("") +
    pen.rules() +
    pen.tables(placed) +
    fragments.map((fragment) => pen.turned(fragment, pen.ground(fragment))).join("")
  // Heads and feet are no part of what is read, nor is what a table shows again.
  const furniture = fragments.filter(isFurniture).map((fragment) => {
    const kind = { header: "/Subtype/Header", footer: "/Subtype/Footer" }[fragment.part as string] ?? ""
    const type = `/Artifact<</Type/Pagination${kind}>>BDC\n`
    const text = partsOf(fragment).map((part) => pen.turned(fragment, pen.text(fragment, linesOf(fragment, part))))
    return text.length > 0 ? `${type}${text.join("")}EMC\n` : ""
  })
  const marked: Marked[] = []
  const parts: string[] = []
  const mark = (own: Marked, tag: string, content: string) => {
    parts.push(`/${tag}<</MCID ${marked.length}>>BDC\n${content}EMC\n`)
    marked.push(own)
  }
  const float = ({ leaf, offset, picture, x, y, cell }: StandingFloat) => {
    const drawn = pen.picture(picture, x, y)
    if (cell?.repeated) furniture.push(`/Artifact BMC\n${drawn}EMC\n`)
    else mark({ part: "figure", leaf, offset, picture, cell }, "Figure", drawn)
  }
  const floats = floatsOn(placed)
  for (const own of floats) if (own.format.wrap !== "over") float(own)
  for (const fragment of fragments) {
    const inLine = picturesIn(fragment)
    if (isFurniture(fragment)) {
      for (const { picture, x, y } of inLine)
        furniture.push(`/Artifact BMC\n${pen.turned(fragment, pen.picture(picture, x, y))}EMC\n`)
      continue
    }
    for (const part of partsOf(fragment)) {
      const text = pen.turned(fragment, pen.text(fragment, linesOf(fragment, part)))
      mark({ fragment, part }, part === "label" ? "Lbl" : tagOf(fragment), text)
    }
    const { leaf, cell } = fragment
    for (const { picture, offset, x, y } of inLine)
      mark({ part: "figure", leaf, offset, picture, cell }, "Figure", pen.turned(fragment, pen.picture(picture, x, y)))
  }
  for (const own of floats) if (own.format.wrap === "over") float(own)
  return {
    content: `${behind ? `/Artifact BMC\n${behind}EMC\n` : ""}${furniture.join("")}${parts.join("")}`,
    faces: pen.faces,
    images: pen.images,
    strengths: pen.strengths,
    links: pen.links,
    marked,
  }
}

class Pen {
  readonly faces = new Set<PdfFace>()
  readonly images = new Set<string>()
  readonly strengths = new Set<number>()
  readonly links: LinkBox[] = []

  constructor(
    private readonly sheet: Sheet,
    private readonly fonts: FontLibrary,
    private readonly faceFor: (run: LineRun) => PdfFace,
    private readonly imageFor: ImageFor,
  ) {}

  /** Path data with its y downwards from a point of the sheet. */
  private path(d: string): string {
    return d
      .replace(/([MLC])([^MLCZ]*)/g, (_, op: string, points: string) => {
        const n = points
          .trim()
          .split(/[\s,]+/)
          .map(Number)
        const pairs = Array.from(
          { length: n.length / 2 },
          (_, i) => `${num(n[2 * i] ?? 0)} ${num(-(n[2 * i + 1] ?? 0))}`,
        )
        return `${pairs.join(" ")} ${{ M: "m", L: "l", C: "c" }[op]}\n`
      })
      .replaceAll("Z", "h\n")
  }

  /** A picture whose upright box has its corner at a point of the sheet. */
  picture(own: DrawnPicture, left: number, top: number): string {
    const { width, height, box, turn, opacity } = own
    const name = this.imageFor(own)
    const radians = (-turn * Math.PI) / 180
    const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
    const [cx, cy] = [left + box.width / 2, this.sheet.height - top - box.height / 2]
    const matrix = [cos, sin, -sin, cos].map((part) => part.toFixed(6)).join(" ")
    const outline = (dx: number, dy: number) =>
      this.path(outlinePath(width, height, radiiOf(own), dx - width / 2, dy - height / 2))
    const whole = wholeOf(own)
    let out = `q ${matrix} ${num(cx)} ${num(cy)} cm\n`
    if (opacity < 1) {
      const strength = Math.round(opacity * 100)
      this.strengths.add(strength)
      out += `/S${strength} gs\n`
    }
    if (own.shadow) out += `${fill(pictureShadow.colour)}${outline(pictureShadow.by, pictureShadow.by)}f\n`
    if (name) {
      this.images.add(name)
      const [x, y] = [whole.x - width / 2, -(whole.y - height / 2) - whole.height]
      out += `q ${outline(0, 0)}W n\n${num(whole.width)} 0 0 ${num(whole.height)} ${num(x)} ${num(y)} cm /${name} Do Q\n`
    } else out += `${fill(missingPicture)}${outline(0, 0)}f\n`
    const frame = frameOfPicture(own)
    if (frame)
      out += `${components(frame.colour)} RG ${num(frame.width)} w [${frame.dashes ?? ""}] 0 d\n${outline(0, 0)}S\n`
    return `${out}Q\n`
  }

  private box({ x, y, width, height }: Box, colour: string): string {
    return `${fill(colour)}${num(x)} ${num(this.sheet.height - y - height)} ${num(width)} ${num(height)} re f\n`
  }

  /** A rule whose x and y are on the sheet. */
  private rule(rule: Rule): string {
    if (rule.pattern === "solid") return this.box(rule, rule.colour)
    const { d, stroke } = rulePath(rule)
    const path = d
      .replace(
        /([ML])([\d.-]+) ([\d.-]+)/g,
        (_, op: string, x: string, y: string) =>
          `${num(Number(x))} ${num(this.sheet.height - Number(y))} ${op === "M" ? "m" : "l"}\n`,
      )
      .replaceAll("Z", "h\n")
    return stroke === null
      ? `${fill(rule.colour)}${path}f\n`
      : `${components(rule.colour)} RG ${num(stroke)} w\n${path}S\n`
  }

  /** The colour of the paper. */
  paper(): string {
    const { start, width, height } = this.sheet
    const colour = start.paper?.setup.colour
    return colour ? this.box({ x: 0, y: 0, width, height }, colour) : ""
  }

  /** Lines between columns, above notes and round the sheet. */
  rules(): string {
    return this.sheet.rules.map((rule) => this.rule(rule)).join("")
  }

  /** Grounds and lines of tables. */
  tables(placed: PlacedSheet): string {
    return tablesOf(placed)
      .map(
        ({ ground }) =>
          ground.fills.map(({ colour, ...place }) => this.box(place, colour)).join("") +
          ground.rules.map((rule) => this.rule(rule)).join(""),
      )
      .join("")
  }

  private link(to: LinkBox["to"], { x, y, width, height }: Box): void {
    const top = this.sheet.height - y
    this.links.push({ to, left: x, bottom: top - height, right: x + width, top })
  }

  /** All of a fragment, before it is turned. */
  whole(fragment: Fragment): string {
    const text = partsOf(fragment).map((part) => this.text(fragment, linesOf(fragment, part)))
    return [...text, ...picturesIn(fragment).map((own) => this.picture(own.picture, own.x, own.y))].join("")
  }

  /** Something drawn of a fragment, turned as that is. */
  turned({ turn }: Fragment, content: string): string {
    if (!turn || content === "") return content
    const { angle, x, y } = turn
    const radians = (angle * Math.PI) / 180
    const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
    const [left, bottom] = [x, this.sheet.height - y]
    const parts = [cos, sin, -sin, cos, left - left * cos + bottom * sin, bottom - left * sin - bottom * cos]
    // A turn needs more places than lengths do.
    const matrix = parts.map((part, i) => (i < 4 ? part.toFixed(6) : num(part))).join(" ")
    return `q ${matrix} cm\n${content}Q\n`
  }

  /** Background and borders of the paragraph, of its letters, and their shadows. */
  ground(fragment: Fragment): string {
    const { frame, paragraph, from, to } = fragment
    let out = frame?.shading ? this.box(frame.box, frame.shading) : ""
    for (const rule of frame?.rules ?? []) out += this.rule(rule)
    for (const line of paragraph.lines.slice(from, to)) {
      const top = lineTop(fragment, line)
      for (const rule of line.leaders)
        out += this.rule({ ...rule, x: fragment.x + rule.x, y: top + line.baseline + rule.y })
      for (const piece of line.runs) {
        const lit = highlightOf(line, piece)
        if (lit) out += this.box({ ...lit, x: fragment.x + lit.x, y: top + lit.y }, lit.colour)
        if (piece.run.look.shadow)
          out += this.shadow(piece, paragraph.text, fragment.x + piece.x, top + line.baseline - piece.run.rise)
      }
    }
    return out
  }

  private shadow(piece: LineRun, text: string, left: number, baseline: number): string {
    const { run } = piece
    const off = shadowOffset * run.size
    const point = (x: number, y: number) => `${num(left + off + x)} ${num(this.sheet.height - baseline - off + y)}`
    let path = ""
    for (const { glyph, x, y } of placedGlyphs(piece, text))
      path += glyphPath(this.fonts.font(run.face).outline(glyph), (gx, gy) =>
        point(x + gx * run.scale, y + gy * run.scale),
      )
    return path ? `${fill(shadowColour(run.look.colour))}${path}f\n` : ""
  }

  text(
    fragment: Fragment,
    lines: { line: Fragment["paragraph"]["lines"][number]; runs: readonly LineRun[] }[],
  ): string {
    const parts: string[] = ["BT\n"]
    const rules: string[] = []
    let font = ""
    let colour = ""
    let outlined = false
    for (const { line, runs } of lines) {
      const top = lineTop(fragment, line)
      for (const piece of runs) {
        const { run } = piece
        const { look } = run
        if (run.picture) continue
        const y = this.sheet.height - (top + line.baseline - run.rise)
        const face = this.faceFor(piece)
        this.faces.add(face)
        const wanted = `/${face.name} ${num(run.size)} Tf\n`
        if (wanted !== font) parts.push((font = wanted))
        if (look.outline !== outlined) parts.push((outlined = look.outline) ? "1 Tr\n" : "0 Tr\n")
        if (look.outline) parts.push(`${components(look.colour)} RG ${num(outlineWidth * run.size)} w\n`)
        else if (look.colour !== colour) parts.push(fill((colour = look.colour)))
        const x = fragment.x + piece.x
        parts.push(`1 0 0 1 ${num(x)} ${num(y)} Tm\n`, glyphs(piece, face, fragment.paragraph.text))
        const anchor = fragment.paragraph.anchors?.find(({ offset }) => offset === piece.from)
        const to =
          fragment.entry !== null && fragment.entry >= 0
            ? { heading: fragment.entry }
            : anchor && piece.run.shows !== null
              ? { note: anchor.key }
              : fragment.part === "note" && run.shows !== null && run.to === 0
                ? { markOf: fragment.leaf }
                : look.link
        if (to) this.link(to, turnedBox(fragment.turn, { x, y: top, width: piece.width, height: line.height }))
        for (const rule of letterRules(line, piece))
          rules.push(this.rule({ ...rule, x: fragment.x + rule.x, y: top + line.baseline + rule.y }))
      }
    }
    // The mode of drawing letters outlives the text object.
    if (outlined) parts.push("0 Tr\n")
    return `${parts.join("")}ET\n${rules.join("")}`
  }
}

/** The outline of a glyph as path operators; PDF knows cubic curves only. */
function glyphPath(outline: string, point: (x: number, y: number) => string): string {
  let out = ""
  let [cx, cy] = [0, 0]
  for (const [, op, numbers] of outline.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = (numbers ?? "")
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    const at = (i: number) => [n[2 * i] ?? 0, n[2 * i + 1] ?? 0] as const
    if (op === "Z") out += "h\n"
    else if (op === "M" || op === "L") out += `${point(...at(0))} ${op === "M" ? "m" : "l"}\n`
    else if (op === "C") out += `${point(...at(0))} ${point(...at(1))} ${point(...at(2))} c\n`
    else {
      const [[qx, qy], [ex, ey]] = [at(0), at(1)]
      out += `${point(cx + (2 / 3) * (qx - cx), cy + (2 / 3) * (qy - cy))} ${point(ex + (2 / 3) * (qx - ex), ey + (2 / 3) * (qy - ey))} ${point(ex, ey)} c\n`
    }
    if (op !== "Z") [cx, cy] = [n.at(-2) ?? 0, n.at(-1) ?? 0]
  }
  return out
}

/** What each glyph of a cluster stands for, so that all together say its text once, in its order: a letter, and the last what is left. */
function textsOf(cluster: string, count: number, back: boolean): string[] {
  if (count === 1) return [cluster || silent]
  const letters = [...cluster]
  const texts = Array.from({ length: count }, (_, i) =>
    i === count - 1 ? letters.slice(i).join("") || silent : (letters[i] ?? silent),
  )
  return back ? texts.reverse() : texts
}

/** Shows the glyphs of a run, corrected wherever the declared widths have drifted from where layout put them by half a thousandth. */
function glyphs(piece: LineRun, face: PdfFace, text: string): string {
  const { run, first, last, extra } = piece
  const { ids, advances, offsets, clusters } = run.glyphs
  const clusterAt = (g: number) => clusterOf(run.glyphs, g)
  const isPlain = clusters === null && offsets === null && run.shows === null && run.level === 0
  const unit = (run.scale * 1000) / run.size
  const stretch = (extra * 1000) / run.size
  let out = "["
  let codes = ""
  let wanted = 0
  let actual = 0
  let rise = 0
  const flush = () => {
    if (codes) out += `(${codes})`
    codes = ""
  }
  const moveTo = (x: number) => {
    const adjust = Math.round(x - actual)
    if (adjust === 0) return
    flush()
    out += -adjust
    actual += adjust
  }
  for (let g = first; g < last;) {
    const start = clusterAt(g)
    const single = isPlain ? face.single(ids[g]!, text, start) : null
    if (single) {
      moveTo(wanted)
      codes += single.cid
      actual += single.width
      wanted += advances[g]! * unit
      if (stretch !== 0 && isWordSpace(text.charCodeAt(start))) wanted += stretch
      g++
      continue
    }
    let next = g
    while (next < last && clusterAt(next) === start) next++
    // In a run from right to left the text that follows stands before.
    const end =
      run.level % 2 === 1 ? (g > first ? clusterAt(g - 1) : piece.to) : next < last ? clusterAt(next) : piece.to
    // A hyphen at the end of a line is no part of the word.
    const cluster =
      run.shows === null ? text.slice(start, end) : run.from === run.to && run.shows === "-" ? "\u00ad" : run.shows
    // Where glyphs cannot stand for their own letters, the text is said around them all.
    const count = next - g
    const texts = textsOf(cluster, count, run.level % 2 === 1)
    const around =
      (count > 1 && [...cluster].length !== count) || texts.some((own, i) => !face.standsFor(ids[g + i]!, own))
    if (around) {
      flush()
      out += `]TJ\n/Span<</ActualText ${textString(cluster)}>>BDC\n[`
    }
    for (const own of texts) {
      const dx = (offsets?.[2 * g] ?? 0) * unit
      const dy = (offsets?.[2 * g + 1] ?? 0) * run.scale
      moveTo(wanted + dx)
      if (dy !== rise) {
        flush()
        out += `]TJ ${num(dy)} Ts[`
        rise = dy
      }
      const glyph = ids[g] as number
      codes += face.cid(glyph, own)
      actual += face.width(glyph)
      wanted += (advances[g] as number) * unit
      g++
    }
    if (isWordSpace(text.charCodeAt(start))) wanted += stretch
    if (around) {
      flush()
      out += "]TJ\nEMC\n["
    }
  }
  flush()
  return `${out}]TJ\n${rise !== 0 ? "0 Ts\n" : ""}`
}
