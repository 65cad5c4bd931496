/** The elements of one line: its letters, and what stands on it beside them. */
import {
  caretEdges,
  capitals,
  featuresOf,
  letterRules,
  outlineWidth,
  shadowColour,
  shadowOffset,
  type Line,
  type LineRun,
  type ParagraphLayout,
} from "@biblon/core/layout"
import { element, paintRules, px } from "./elements"
import { paintPicture } from "./paintedPicture"

const roomOf = ({ extra }: LineRun) => (extra ? px(extra) : "")

const isText = ({ run }: LineRun) => !run.picture

/** The letters of a piece of a line, as they are shown. */
function wordsOf(paragraph: ParagraphLayout, { run, from, to }: LineRun): string {
  const text = run.shows ?? paragraph.text.slice(from, to)
  return run.upper ? capitals(text, run.look.language) : text
}

/** All that the element of a piece depends on but its letters, its place on the line and the room between its words. */
function styleKey({ baseline }: Line, { run }: LineRun): string {
  return `${run.face} ${run.size} ${run.rise && baseline - run.rise} ${run.level} ${lookKey(run.look)}`
}

function paintRun(paragraph: ParagraphLayout, line: Line, piece: LineRun): HTMLElement {
  const { run } = piece
  const { look, face, level } = run
  const span = element("span", "run", {
    left: px(piece.x),
    fontFamily: `"${face}"`,
    fontSize: px(run.size),
    color: look.colour,
  })
  if (piece.extra) span.style.wordSpacing = roomOf(piece)
  if (look.spacing) span.style.letterSpacing = px(look.spacing)
  const features = featuresOf(look, true)
  if (features) span.style.fontFeatureSettings = features.map(([tag, value]) => `"${tag}" ${value}`).join()
  if (run.rise) span.setAttribute("style", `${span.getAttribute("style")};--baseline:${px(line.baseline - run.rise)}`)
  if (level % 2 === 1) span.style.direction = "rtl"
  if (look.shadow)
    span.style.textShadow = `${px(shadowOffset * run.size)} ${px(shadowOffset * run.size)} 0 ${shadowColour(look.colour)}`
  if (look.outline)
    Object.assign(span.style, {
      color: "transparent",
      webkitTextStroke: `${px(outlineWidth * run.size)} ${look.colour}`,
    })
  span.lang = look.language
  span.textContent = wordsOf(paragraph, piece)
  return span
}

const signOf: Record<string, string> = { " ": "·", "\u00a0": "°", "\t": "→", "\u00ad": "¬", "\u2011": "‑" }

/** Signs for what cannot be seen: spaces, tabs, breaks, the end of the paragraph. */
function paintSigns(paragraph: ParagraphLayout, line: Line, last: boolean): HTMLElement[] {
  const { leading: edges } = caretEdges(paragraph, line)
  const size = line.runs[0]?.run.look.size ?? 11
  const signs: HTMLElement[] = []
  const add = (sign: string, x: number) => {
    const mark = element("i", "run sign", { left: px(x), fontSize: px(size) })
    mark.setAttribute("aria-hidden", "true")
    mark.textContent = sign
    signs.push(mark)
  }
  for (let at = line.from; at < line.to; at++) {
    const sign = signOf[paragraph.text[at] ?? ""]
    const [left, right] = [edges[at - line.from] as number, edges[at + 1 - line.from] as number]
    if (sign) add(sign, paragraph.text[at] === "\t" ? left : (left + right) / 2 - size * 0.125)
  }
  if (paragraph.text[line.to - 1] === "\n") add("↵", edges.at(-1) as number)
  else if (last) add("¶", edges.at(-1) as number)
  return signs
}

const looks = new WeakMap<object, string>()

/** What a look says, as text that can be compared. */
function lookKey(look: LineRun["run"]["look"]): string {
  let key = looks.get(look)
  if (key === undefined) looks.set(look, (key = JSON.stringify(Object.values(look))))
  return key
}

/** A piece of a line that is letters alone. */
interface PaintedPiece {
  span: HTMLElement
  style: string
  words: string
  left: string
  room: string
}

/** A line's letters as the page shows them, and all else that its elements depend on. */
export interface PaintedLine {
  key: string
  element: HTMLElement
  top: string
  baseline: string
  /** Null where there is more on it than letters. */
  pieces: readonly PaintedPiece[] | null
}

const lineKeys = new WeakMap<Line, { signs: boolean; last: boolean; key: string }>()

export function lineKey(paragraph: ParagraphLayout, line: Line, signs: boolean): string {
  const last = line === paragraph.lines.at(-1)
  const known = lineKeys.get(line)
  if (known?.signs === signs && known.last === last) return known.key
  const key = keyOf(paragraph, line, signs)
  lineKeys.set(line, { signs, last, key })
  return key
}

function keyOf(paragraph: ParagraphLayout, line: Line, signs: boolean): string {
  const pieces = (runs: readonly LineRun[]) =>
    runs.map(
      ({ run, from, to, x, extra }) =>
        `${x} ${extra} ${run.face} ${run.size} ${run.rise} ${run.level} ${run.upper} ${run.shows ?? paragraph.text.slice(from, to)} ${lookKey(run.look)}${run.picture ? JSON.stringify(run.picture) : ""}`,
    )
  const first = line === paragraph.lines[0]
  const shown = signs ? `${paragraph.text.slice(line.from, line.to)} ${line === paragraph.lines.at(-1)}` : ""
  return [
    line.baseline,
    shown,
    ...(first && paragraph.label ? pieces(paragraph.label.runs) : []),
    ...pieces(line.runs),
  ].join("\n")
}

export function paintLine(paragraph: ParagraphLayout, line: Line, key: string, signs: boolean): PaintedLine {
  const span = element("span", "line")
  const baseline = px(line.baseline)
  span.style.cssText = `--baseline:${baseline}`
  const pieces: PaintedPiece[] = []
  let isPlain = !signs
  for (const piece of piecesOf(paragraph, line)) {
    if (!isText(piece)) {
      span.append(paintPicture(piece.run.picture!, piece.x, line.baseline - piece.run.picture!.box.height))
      isPlain = false
      continue
    }
    const own = paintRun(paragraph, line, piece)
    const rules = paintRules(letterRules(line, piece).map((rule) => ({ ...rule, y: line.baseline + rule.y })))
    span.append(own, ...rules)
    isPlain &&= rules.length === 0
    pieces.push({
      span: own,
      style: styleKey(line, piece),
      words: own.textContent,
      left: px(piece.x),
      room: roomOf(piece),
    })
  }
  if (signs) span.append(...paintSigns(paragraph, line, line === paragraph.lines.at(-1)))
  return { key, element: span, top: "", baseline, pieces: isPlain ? pieces : null }
}

/** What stands on a line, the number or mark of an item with it. */
function piecesOf({ lines, label }: ParagraphLayout, line: Line): readonly LineRun[] {
  return line === lines[0] && label ? [...label.runs, ...line.runs] : line.runs
}

/** The elements of a line that is gone with the letters of another one that is set like it, which most are; null where it is not. */
export function repaintLine(
  gone: PaintedLine,
  paragraph: ParagraphLayout,
  line: Line,
  key: string,
): PaintedLine | null {
  const now = piecesOf(paragraph, line)
  const before = gone.pieces
  const isLike =
    before?.length === now.length &&
    now.every(
      (piece, i) =>
        isText(piece) && before[i]?.style === styleKey(line, piece) && letterRules(line, piece).length === 0,
    )
  if (!before || !isLike) return null
  const pieces = now.map((piece, i) => {
    const { span, style, ...own } = before[i] as PaintedPiece
    const [words, left, room] = [wordsOf(paragraph, piece), px(piece.x), roomOf(piece)]
    if (own.words !== words) span.textContent = words
    if (own.left !== left) span.style.left = left
    if (own.room !== room) span.style.wordSpacing = room
    return { span, style, words, left, room }
  })
  const baseline = px(line.baseline)
  const { style: own } = gone.element
  if (gone.baseline !== baseline) own.setProperty("--baseline", baseline)
  return { ...gone, key, baseline, pieces }
}
