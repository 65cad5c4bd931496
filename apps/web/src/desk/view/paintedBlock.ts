/** The elements of one fragment: its lines as text, and what lies behind them. */
import {
  caretEdges,
  capitals,
  featuresOf,
  highlightOf,
  letterRules,
  lineTop,
  outlineWidth,
  shadowColour,
  shadowOffset,
  type Fragment,
  type Line,
  type LineRun,
  type ParagraphLayout,
  type Rule,
} from "@biblon/core/layout"
import { element, inOrder, isDrawn, paintBox, paintRules, px, setStyle, snapped } from "./elements"
import { roleOf } from "./nesting"
import { paintPicture } from "./paintedPicture"

function paintRun(paragraph: ParagraphLayout, line: Line, piece: LineRun): Element[] {
  const { run } = piece
  if (run.picture) return [paintPicture(run.picture, piece.x, line.baseline - run.picture.box.height)]
  const { look, face, level } = run
  const span = element("span", "run", {
    left: px(piece.x),
    fontFamily: `"${face}"`,
    fontSize: px(run.size),
    color: look.colour,
  })
  if (piece.extra) span.style.wordSpacing = px(piece.extra)
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
  const text = run.shows ?? paragraph.text.slice(piece.from, piece.to)
  span.textContent = run.upper ? capitals(text, look.language) : text
  return [span, ...paintRules(letterRules(line, piece).map((rule) => ({ ...rule, y: line.baseline + rule.y })))]
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

/** A line's letters as the page shows them, and all else that its elements depend on. */
interface PaintedLine {
  key: string
  element: HTMLElement
  top: string
}

const lineKeys = new WeakMap<Line, { signs: boolean; last: boolean; key: string }>()

function lineKey(paragraph: ParagraphLayout, line: Line, signs: boolean): string {
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

function paintLine(paragraph: ParagraphLayout, line: Line, signs: boolean): HTMLElement {
  const span = element("span", "line")
  span.style.cssText = `--baseline:${px(line.baseline)}`
  if (line === paragraph.lines[0])
    for (const piece of paragraph.label?.runs ?? []) span.append(...paintRun(paragraph, line, piece))
  for (const piece of line.runs) span.append(...paintRun(paragraph, line, piece))
  if (signs) span.append(...paintSigns(paragraph, line, line === paragraph.lines.at(-1)))
  return span
}

/** The rules behind the letters of a fragment, from its upper left corner: its frame and its leaders. */
function rulesBehind(fragment: Fragment, grid: number): Rule[] {
  const { paragraph, from, to, frame, x, y } = fragment
  const rules = (frame?.rules ?? []).map((rule) => {
    const own = isDrawn(rule) ? rule : snapped(rule, grid)
    return { ...own, x: own.x - x, y: own.y - y }
  })
  for (const line of paragraph.lines.slice(from, to)) {
    const baseline = lineTop(fragment, line) - y + line.baseline
    for (const leader of line.leaders) rules.push({ ...leader, y: baseline + leader.y })
  }
  return rules
}

/** What lies behind the letters of a fragment: background, plain rules, highlights. Null for nothing. */
function paintGround(fragment: Fragment, rules: readonly Rule[]): HTMLElement | null {
  const { paragraph, from, to, frame, x, y } = fragment
  const parts: Element[] = []
  if (frame?.shading)
    parts.push(paintBox({ ...frame.box, x: frame.box.x - x, y: frame.box.y - y }, "rule", frame.shading))
  parts.push(...paintRules(rules))
  for (const line of paragraph.lines.slice(from, to)) {
    const top = lineTop(fragment, line) - y
    for (const piece of line.runs) {
      const lit = highlightOf(line, piece)
      if (lit) parts.push(paintBox({ ...lit, y: top + lit.y }, "rule", lit.colour))
    }
  }
  if (parts.length === 0) return null
  const ground = element("div", "ground")
  ground.append(...parts)
  return ground
}

/** Keys of whole paragraphs without a frame, which are most. */
const wholeKeys = new WeakMap<ParagraphLayout, { part: Fragment["part"]; width: number; signs: boolean; key: string }>()

/** All that the elements of a fragment depend on, so that one that was set anew but looks the same keeps them. */
export function blockKey(fragment: Fragment, signs: boolean, grid: number): string {
  const { paragraph, from, to, frame, part, width } = fragment
  if (frame || from > 0 || to < paragraph.lines.length) return keyOfBlock(fragment, signs, grid)
  const known = wholeKeys.get(paragraph)
  if (known?.part === part && known.width === width && known.signs === signs) return known.key
  const key = keyOfBlock(fragment, signs, grid)
  wholeKeys.set(paragraph, { part, width, signs, key })
  return key
}

function keyOfBlock(fragment: Fragment, signs: boolean, grid: number): string {
  const { paragraph, from, to, x, y, width, frame } = fragment
  const { role, level } = roleOf(paragraph)
  const lines = paragraph.lines
    .slice(from, to)
    .map(
      (line) =>
        `${line.top} ${line.leaders.length > 0 ? JSON.stringify(line.leaders) : ""} ${lineKey(paragraph, line, signs)}`,
    )
  return `${fragment.part} ${role} ${level} ${width} ${frame ? JSON.stringify([x, y, frame, grid]) : ""}\n${lines.join("\n")}`
}

const noRules: readonly Rule[] = []

export class PaintedBlock {
  readonly text = element("div", "block")
  ground: HTMLElement | null = null
  /** Rules behind its letters that are no plain lines, from its upper left corner: the sheet draws them, with those of others. */
  drawn: readonly Rule[] = noRules
  private lines: PaintedLine[] = []
  private place = ""

  constructor(fragment: Fragment, signs: boolean, grid: number) {
    this.update(fragment, signs, grid)
  }

  /** Shows another fragment: lines that are as they were keep their elements. */
  update(fragment: Fragment, signs: boolean, grid: number): void {
    const { paragraph, from, to, width, part } = fragment
    const { role, level } = roleOf(paragraph)
    const name = `block ${part}`
    if (this.text.className !== name) this.text.className = name
    const first = paragraph.lines[from] as Line
    const last = paragraph.lines[to - 1] as Line
    if (this.text.role !== role) this.text.role = role
    if (this.text.ariaLevel !== (level === null ? null : String(level)))
      this.text.ariaLevel = level === null ? null : String(level)
    Object.assign(this.text.style, { width: px(width), height: px(last.top + last.height - first.top) })
    const before = new Map<string, PaintedLine[]>()
    for (const line of this.lines) before.set(line.key, [...(before.get(line.key) ?? []), line])
    this.lines = paragraph.lines.slice(from, to).map((line) => {
      const key = lineKey(paragraph, line, signs)
      const own = before.get(key)?.shift() ?? { key, element: paintLine(paragraph, line, signs), top: "" }
      const top = px(line.top - first.top)
      if (own.top !== top) own.element.style.top = own.top = top
      return own
    })
    for (const gone of before.values()) for (const { element } of gone) element.remove()
    inOrder(
      this.text,
      this.lines.map((line) => line.element),
    )
    this.ground?.remove()
    const rules = rulesBehind(fragment, grid)
    this.drawn = rules.length > 0 ? rules.filter(isDrawn) : noRules
    this.ground = paintGround(
      fragment,
      rules.filter((rule) => !isDrawn(rule)),
    )
    this.place = ""
  }

  /** Puts it where a fragment stands, turned as that is. @returns whether it stood elsewhere */
  moveTo({ x, y, turn }: Fragment): boolean {
    const transform = `translate(${px(x)}, ${px(y)})${turn ? ` rotate(${-turn.angle}deg)` : ""}`
    const transformOrigin = turn ? `${px(turn.x - x)} ${px(turn.y - y)}` : ""
    if (this.place === `${transform} ${transformOrigin}`) return false
    this.place = `${transform} ${transformOrigin}`
    for (const own of [this.text, this.ground]) if (own) setStyle(own, { transform, transformOrigin })
    return true
  }

  remove(): void {
    this.text.remove()
    this.ground?.remove()
  }
}
