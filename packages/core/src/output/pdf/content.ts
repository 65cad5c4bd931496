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
import { Bytes } from "./bytes"
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
  content: Uint8Array
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
  const floats = floatsOn(placed)
  pen.out.within("/Artifact BMC\n", "EMC\n", () => {
    pen.paper()
    for (const fragment of backdropOf(placed)) pen.turned(fragment, () => pen.whole(fragment))
    pen.rules()
    pen.tables(placed)
    for (const fragment of fragments) pen.turned(fragment, () => pen.ground(fragment))
  })
  drawFurniture(pen, fragments, floats)
  const marked: Marked[] = []
  const mark = (own: Marked, tag: string, draw: () => void) => {
    pen.out.within(`/${tag}<</MCID ${marked.length}>>BDC\n`, "EMC\n", draw)
    marked.push(own)
  }
  const float = ({ leaf, offset, picture, x, y, cell }: StandingFloat) => {
    if (!cell?.repeated)
      mark({ part: "figure", leaf, offset, picture, cell }, "Figure", () => pen.picture(picture, x, y))
  }
  for (const own of floats) if (own.format.wrap !== "over") float(own)
  for (const fragment of fragments) {
    if (isFurniture(fragment)) continue
    for (const part of partsOf(fragment))
      mark({ fragment, part }, part === "label" ? "Lbl" : tagOf(fragment), () =>
        pen.turned(fragment, () => pen.text(fragment, linesOf(fragment, part))),
      )
    const { leaf, cell } = fragment
    for (const { picture, offset, x, y } of picturesIn(fragment))
      mark({ part: "figure", leaf, offset, picture, cell }, "Figure", () =>
        pen.turned(fragment, () => pen.picture(picture, x, y)),
      )
  }
  for (const own of floats) if (own.format.wrap === "over") float(own)
  const { faces, images, strengths, links } = pen
  return { content: pen.out.all, faces, images, strengths, links, marked }
}

/** Heads and feet are no part of what is read, nor is what a table shows again. */
function drawFurniture(pen: Pen, fragments: readonly Fragment[], floats: readonly StandingFloat[]): void {
  const furniture = fragments.filter(isFurniture)
  for (const fragment of furniture) {
    const kind = { header: "/Subtype/Header", footer: "/Subtype/Footer" }[fragment.part as string] ?? ""
    pen.out.within(`/Artifact<</Type/Pagination${kind}>>BDC\n`, "EMC\n", () => {
      for (const part of partsOf(fragment)) pen.turned(fragment, () => pen.text(fragment, linesOf(fragment, part)))
    })
  }
  const artifact = (draw: () => void) => pen.out.within("/Artifact BMC\n", "EMC\n", draw)
  for (const { cell, picture, x, y } of floats) if (cell?.repeated) artifact(() => pen.picture(picture, x, y))
  for (const fragment of furniture)
    for (const { picture, x, y } of picturesIn(fragment))
      artifact(() => pen.turned(fragment, () => pen.picture(picture, x, y)))
}

class Pen {
  readonly faces = new Set<PdfFace>()
  readonly images = new Set<string>()
  readonly strengths = new Set<number>()
  readonly links: LinkBox[] = []
  readonly out = new Bytes()

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
  picture(own: DrawnPicture, left: number, top: number): void {
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
    this.out.say(`${out}Q\n`)
  }

  private box({ x, y, width, height }: Box, colour: string): void {
    const corner = `${num(x)} ${num(this.sheet.height - y - height)}`
    this.out.say(`${fill(colour)}${corner} ${num(width)} ${num(height)} re f\n`)
  }

  /** A rule whose x and y are on the sheet. */
  private rule(rule: Rule): void {
    if (rule.pattern === "solid") return this.box(rule, rule.colour)
    const { d, stroke } = rulePath(rule)
    const path = d
      .replace(
        /([ML])([\d.-]+) ([\d.-]+)/g,
        (_, op: string, x: string, y: string) =>
          `${num(Number(x))} ${num(this.sheet.height - Number(y))} ${op === "M" ? "m" : "l"}\n`,
      )
      .replaceAll("Z", "h\n")
    this.out.say(
      stroke === null ? `${fill(rule.colour)}${path}f\n` : `${components(rule.colour)} RG ${num(stroke)} w\n${path}S\n`,
    )
  }

  /** The colour of the paper. */
  paper(): void {
    const { start, width, height } = this.sheet
    const colour = start.paper?.setup.colour
    if (colour) this.box({ x: 0, y: 0, width, height }, colour)
  }

  /** Lines between columns, above notes and round the sheet. */
  rules(): void {
    for (const rule of this.sheet.rules) this.rule(rule)
  }

  /** Grounds and lines of tables. */
  tables(placed: PlacedSheet): void {
    for (const { ground } of tablesOf(placed)) {
      for (const { colour, ...place } of ground.fills) this.box(place, colour)
      for (const rule of ground.rules) this.rule(rule)
    }
  }

  private link(to: LinkBox["to"], { x, y, width, height }: Box): void {
    const top = this.sheet.height - y
    this.links.push({ to, left: x, bottom: top - height, right: x + width, top })
  }

  /** All of a fragment, before it is turned. */
  whole(fragment: Fragment): void {
    for (const part of partsOf(fragment)) this.text(fragment, linesOf(fragment, part))
    for (const { picture, x, y } of picturesIn(fragment)) this.picture(picture, x, y)
  }

  /** Draws something of a fragment, turned as that is. */
  turned({ turn }: Fragment, draw: () => void): void {
    if (!turn) return draw()
    const { angle, x, y } = turn
    const radians = (angle * Math.PI) / 180
    const [sin, cos] = [Math.sin(radians), Math.cos(radians)]
    const [left, bottom] = [x, this.sheet.height - y]
    const parts = [cos, sin, -sin, cos, left - left * cos + bottom * sin, bottom - left * sin - bottom * cos]
    // A turn needs more places than lengths do.
    const matrix = parts.map((part, i) => (i < 4 ? part.toFixed(6) : num(part))).join(" ")
    this.out.within(`q ${matrix} cm\n`, "Q\n", draw)
  }

  /** Background and borders of the paragraph, of its letters, and their shadows. */
  ground(fragment: Fragment): void {
    const { frame, paragraph, from, to } = fragment
    if (frame?.shading) this.box(frame.box, frame.shading)
    for (const rule of frame?.rules ?? []) this.rule(rule)
    for (const line of paragraph.lines.slice(from, to)) {
      const top = lineTop(fragment, line)
      for (const rule of line.leaders) this.rule({ ...rule, x: fragment.x + rule.x, y: top + line.baseline + rule.y })
      for (const piece of line.runs) {
        const lit = highlightOf(line, piece)
        if (lit) this.box({ ...lit, x: fragment.x + lit.x, y: top + lit.y }, lit.colour)
        if (piece.run.look.shadow)
          this.shadow(piece, paragraph.text, fragment.x + piece.x, top + line.baseline - piece.run.rise)
      }
    }
  }

  private shadow(piece: LineRun, text: string, left: number, baseline: number): void {
    const { run } = piece
    const off = shadowOffset * run.size
    const point = (x: number, y: number) => `${num(left + off + x)} ${num(this.sheet.height - baseline - off + y)}`
    let path = ""
    for (const { glyph, x, y } of placedGlyphs(piece, text))
      path += glyphPath(this.fonts.font(run.face).outline(glyph), (gx, gy) =>
        point(x + gx * run.scale, y + gy * run.scale),
      )
    if (path) this.out.say(`${fill(shadowColour(run.look.colour))}${path}f\n`)
  }

  text(fragment: Fragment, lines: { line: Fragment["paragraph"]["lines"][number]; runs: readonly LineRun[] }[]): void {
    const { out } = this
    const rules: Rule[] = []
    out.say("BT\n")
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
        if (wanted !== font) out.say((font = wanted))
        if (look.outline !== outlined) out.say((outlined = look.outline) ? "1 Tr\n" : "0 Tr\n")
        if (look.outline) out.say(`${components(look.colour)} RG ${num(outlineWidth * run.size)} w\n`)
        else if (look.colour !== colour) out.say(fill((colour = look.colour)))
        const x = fragment.x + piece.x
        out.say(`1 0 0 1 ${num(x)} ${num(y)} Tm\n`)
        writeGlyphs(out, piece, face, fragment.paragraph.text)
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
          rules.push({ ...rule, x: fragment.x + rule.x, y: top + line.baseline + rule.y })
      }
    }
    // The mode of drawing letters outlives the text object.
    if (outlined) out.say("0 Tr\n")
    out.say("ET\n")
    for (const rule of rules) this.rule(rule)
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

/** Strings of glyphs and moves between them, as the operator TJ takes them (ISO 32000-1, 9.4.3); lengths in thousandths of the size. */
class Strings {
  private inString = false
  /** How far the widths that are declared have come. */
  private come = 0

  constructor(private readonly out: Bytes) {
    out.say("[")
  }

  /** Shows a glyph at a distance from where all began. */
  show(cid: number, at: number, width: number): void {
    const move = Math.round(at - this.come)
    if (move !== 0) {
      this.close()
      this.out.say(String(-move))
    }
    if (!this.inString) this.out.say("(")
    this.inString = true
    this.out.code(cid)
    this.come += move + width
  }

  private close(): void {
    if (this.inString) this.out.say(")")
    this.inString = false
  }

  /** Says something else between glyphs. */
  between(operators: string): void {
    this.end()
    this.out.say(`${operators}[`)
  }

  end(): void {
    this.close()
    this.out.say("]TJ\n")
  }
}

/** Writes what shows the glyphs of a run, corrected wherever the declared widths have drifted from where layout put them by half a thousandth. */
function writeGlyphs(out: Bytes, piece: LineRun, face: PdfFace, text: string): void {
  const { run, first, last, extra } = piece
  const { ids, advances, offsets, clusters } = run.glyphs
  const clusterAt = (g: number) => clusterOf(run.glyphs, g)
  const isPlain = clusters === null && offsets === null && run.shows === null && run.level === 0
  const unit = (run.scale * 1000) / run.size
  const stretch = (extra * 1000) / run.size
  const strings = new Strings(out)
  let wanted = 0
  let rise = 0
  for (let g = first; g < last;) {
    const start = clusterAt(g)
    const single = isPlain ? face.single(ids[g]!, text, start) : null
    if (single) {
      strings.show(single.cid, wanted, single.width)
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
    if (around) strings.between(`/Span<</ActualText ${textString(cluster)}>>BDC\n`)
    for (const own of texts) {
      const dx = (offsets?.[2 * g] ?? 0) * unit
      const dy = (offsets?.[2 * g + 1] ?? 0) * run.scale
      if (dy !== rise) strings.between(`${num((rise = dy))} Ts\n`)
      const glyph = ids[g] as number
      strings.show(face.cid(glyph, own), wanted + dx, face.width(glyph))
      wanted += (advances[g] as number) * unit
      g++
    }
    if (isWordSpace(text.charCodeAt(start))) wanted += stretch
    if (around) strings.between("EMC\n")
  }
  strings.end()
  if (rise !== 0) out.say("0 Ts\n")
}
