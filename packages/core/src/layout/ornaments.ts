/** What is drawn beside the letters: lines under and through them, their background, borders. One description for screen, picture and PDF. */
import type { Border, Borders, ParagraphFormat } from "../document"
import type { Box } from "./turns"
import type { Frame, Line, LineRun, ParagraphLayout, Rule } from "./types"

/** Width of a run without the spaces that hang at the end of its line. */
function seen(line: Line, piece: LineRun): { x: number; width: number } {
  const left = Math.max(piece.x, line.x)
  return { x: left, width: Math.min(piece.x + piece.width, line.x + line.width) - left }
}

/** Lines under and through a run, from the column's left edge and the baseline of its line. */
export function letterRules(line: Line, piece: LineRun): Rule[] {
  if (piece.run.picture) return []
  const { look, rise, underline, strike } = piece.run
  if (look.underline === "none" && look.strike === "none") return []
  const { x, width } = seen(line, piece)
  if (width <= 0) return []
  const rules: Rule[] = []
  const add = (y: number, height: number, pattern: Rule["pattern"], colour: string) =>
    rules.push({ x, y: y - rise, width, height, pattern, colour })
  const { y, thickness } = underline
  const under = look.underlineColour ?? look.colour
  switch (look.underline) {
    case "none":
      break
    case "double":
      add(y, thickness, "solid", under)
      add(y + 2 * thickness, thickness, "solid", under)
      break
    case "thick":
      add(y, 2 * thickness, "solid", under)
      break
    case "wavy":
      add(y - thickness / 2, 3 * thickness, "wavy", under)
      break
    default:
      add(y, thickness, look.underline === "single" ? "solid" : look.underline, under)
  }
  if (look.strike === "single") add(strike.y, strike.thickness, "solid", look.colour)
  if (look.strike === "double") {
    add(strike.y - strike.thickness, strike.thickness, "solid", look.colour)
    add(strike.y + strike.thickness, strike.thickness, "solid", look.colour)
  }
  return rules
}

/** The background of a run on its line, from the column's left edge and the top of the line; null for none. */
export function highlightOf(line: Line, piece: LineRun): (Box & { colour: string }) | null {
  const { highlight } = piece.run.look
  const { x, width } = seen(line, piece)
  return highlight === null || width <= 0 ? null : { x, y: 0, width, height: line.height, colour: highlight }
}

/** Offset of a shadow, as part of the size, and its colour: that of the letters, paled. */
export const shadowOffset = 0.05
export function shadowColour(colour: string): string {
  const pale = (at: number) => Math.round(parseInt(colour.slice(at, at + 2), 16) * 0.4 + 255 * 0.6)
  return `#${[1, 3, 5].map((at) => pale(at).toString(16).padStart(2, "0")).join("")}`
}
/** Thickness of the line round outlined letters, as part of the size. */
export const outlineWidth = 0.03

/** Dots and dashes get no shorter than those of a line this thick, in points. */
const thinnest = 0.2

/** A rule as SVG path data of M, L and Z, from where its x and y are counted; filled, or for waves stroked. */
export function rulePath({ x, y, width, height, pattern, pitch }: Rule): { d: string; stroke: number | null } {
  const upright = height > width
  const [length, thickness] = upright ? [height, width] : [width, height]
  const point = (along: number, across: number) =>
    upright ? `${round(x + across)} ${round(y + along)}` : `${round(x + along)} ${round(y + across)}`
  const bar = (from: number, to: number, a = 0, b = thickness) =>
    `M${point(from, a)}L${point(to, a)}L${point(to, b)}L${point(from, b)}Z`
  if (pattern === "solid") return { d: bar(0, length), stroke: null }
  if (pattern === "double")
    return { d: bar(0, length, 0, thickness / 3) + bar(0, length, (2 * thickness) / 3, thickness), stroke: null }
  if (pattern === "wavy") {
    const line = thickness / 3
    const half = Math.max(thickness, 1.2)
    let d = `M${point(0, thickness - line / 2)}`
    for (let at = half, up = true; at < length + half; at += half, up = !up) {
      const end = Math.min(at, length)
      const part = (end - (at - half)) / half
      const [from, to] = up ? [thickness - line / 2, line / 2] : [line / 2, thickness - line / 2]
      d += `L${point(end, from + (to - from) * part)}`
    }
    return { d, stroke: line }
  }
  const unit = Math.max(thickness, thinnest)
  const mark = pattern === "dotted" ? unit : 3 * unit
  const step = pitch ?? (pattern === "dotted" ? 2.4 * unit : 5 * unit)
  let d = ""
  for (let at = 0; at < length; at += step) d += bar(at, Math.min(length, at + mark))
  return { d, stroke: null }
}

const round = (n: number) => Math.round(n * 1000) / 1000

/** Thickness of a border with all its lines. */
export function borderThickness({ pattern, width }: Border): number {
  return pattern === "double" || pattern === "wavy" ? width * 3 : width
}

const around = (border: Border | undefined) => (border ? borderThickness(border) + border.distance : 0)

/** Height that a frame takes above and below the lines of a paragraph. */
export function frameSpace({ borders }: ParagraphFormat): { top: number; bottom: number } {
  return { top: around(borders.top), bottom: around(borders.bottom) }
}

export function hasFrame({ borders, shading }: ParagraphFormat): boolean {
  return shading !== null || Object.keys(borders).length > 0
}

/** Whether neighbours stand in one frame: the same borders, background and indents. */
export function sharesFrame(a: ParagraphFormat, b: ParagraphFormat): boolean {
  return (
    hasFrame(a) &&
    a.shading === b.shading &&
    a.indentLeft === b.indentLeft &&
    a.indentRight === b.indentRight &&
    a.direction === b.direction &&
    JSON.stringify(a.borders) === JSON.stringify(b.borders)
  )
}

export interface FramePlace {
  /** The column on the sheet. */
  x: number
  width: number
  /** From the top of what the frame holds to its end, without the borders. */
  top: number
  bottom: number
  /** Whether a neighbour goes on in the same frame. */
  joinsAbove: boolean
  joinsBelow: boolean
}

/** The frame of a paragraph: sides stand outside the indents, so that text keeps its place. */
export function frameOf(paragraph: ParagraphLayout, place: FramePlace): Frame | null {
  const { format } = paragraph
  if (!hasFrame(format)) return null
  const { borders, shading, direction } = format
  const start = Math.min(0, format.indentFirst) + format.indentLeft
  const [left, right] = direction === "rtl" ? [format.indentRight, start] : [start, format.indentRight]
  const inner = { x: place.x + left, width: place.width - left - right }
  const outer = {
    left: inner.x - around(borders.left),
    right: inner.x + inner.width + around(borders.right),
    top: place.top - (place.joinsAbove ? 0 : around(borders.top)),
    bottom: place.bottom + (place.joinsBelow ? 0 : around(borders.bottom)),
  }
  return {
    box: { x: outer.left, y: outer.top, width: outer.right - outer.left, height: outer.bottom - outer.top },
    shading,
    rules: borderRules(borders, outer, place),
  }
}

function borderRules(
  borders: Borders,
  { left, right, top, bottom }: { left: number; right: number; top: number; bottom: number },
  { joinsAbove, joinsBelow }: Pick<FramePlace, "joinsAbove" | "joinsBelow">,
): Rule[] {
  const rules: Rule[] = []
  // Of two lines the inner one ends where it meets the inner one of the side next to it.
  const inset = (border: Border | undefined) => (border ? (borderThickness(border) * 2) / 3 : 0)
  const across = { start: left + inset(borders.left), end: right - inset(borders.right) }
  const down = {
    start: top + (joinsAbove ? 0 : inset(borders.top)),
    end: bottom - (joinsBelow ? 0 : inset(borders.bottom)),
  }
  /** @param inward 1 if the inside of the frame lies below or to the right, -1 if above or to the left */
  const add = (border: Border, at: number, inward: 1 | -1, upright: boolean) => {
    const { pattern, width, colour } = border
    const line = (start: number, end: number, edge: number, thickness: number, kind: Rule["pattern"]) =>
      rules.push(
        upright
          ? { x: edge, y: start, width: thickness, height: end - start, pattern: kind, colour }
          : { x: start, y: edge, width: end - start, height: thickness, pattern: kind, colour },
      )
    const [start, end, inner] = upright ? [top, bottom, down] : [left, right, across]
    if (pattern !== "double") line(start, end, at, borderThickness(border), pattern)
    else {
      const [outside, inside] = inward > 0 ? [at, at + 2 * width] : [at + 2 * width, at]
      line(start, end, outside, width, "solid")
      line(inner.start, inner.end, inside, width, "solid")
    }
  }
  if (borders.top && !joinsAbove) add(borders.top, top, 1, false)
  if (borders.bottom && !joinsBelow) add(borders.bottom, bottom - borderThickness(borders.bottom), -1, false)
  if (borders.between && joinsAbove) add(borders.between, top, 1, false)
  if (borders.left) add(borders.left, left, 1, true)
  if (borders.right) add(borders.right, right - borderThickness(borders.right), -1, true)
  return rules
}

/** The line round a sheet, as far from its edges as it is wide at most. */
export function borderRound(border: Border, width: number, height: number): Rule[] {
  const { distance } = border
  const off = Math.max(0, Math.min(distance, Math.min(width, height) / 2 - borderThickness(border)))
  const sides = { top: border, right: border, bottom: border, left: border }
  const box = { left: off, right: width - off, top: off, bottom: height - off }
  return borderRules(sides, box, { joinsAbove: false, joinsBelow: false })
}
