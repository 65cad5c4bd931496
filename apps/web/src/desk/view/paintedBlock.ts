/** The elements of one fragment: its lines as text, and what lies behind them. */
import { highlightOf, lineTop, type Fragment, type Line, type ParagraphLayout, type Rule } from "@biblon/core/layout"
import { element, inOrder, isDrawn, paintBox, paintRules, px, setStyle, snapped } from "./elements"
import { roleOf } from "./nesting"
import { lineKey, paintLine, repaintLine, type PaintedLine } from "./paintedLine"

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
    const lines = paragraph.lines.slice(from, to)
    const keys = lines.map((line) => lineKey(paragraph, line, signs))
    const kept = keys.map((key) => before.get(key)?.shift())
    const gone = [...before.values()].flat()
    this.lines = lines.map((line, i) => {
      const key = keys[i] as string
      const own = kept[i] ?? this.repainted(gone, paragraph, line, key, signs) ?? paintLine(paragraph, line, key, signs)
      const top = px(line.top - first.top)
      if (own.top !== top) own.element.style.top = own.top = top
      return own
    })
    for (const { element } of gone) element.remove()
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

  /** A line that is new with the elements of the next one that is gone. */
  private repainted(gone: PaintedLine[], paragraph: ParagraphLayout, line: Line, key: string, signs: boolean) {
    const [next] = gone
    const own = next && !signs ? repaintLine(next, paragraph, line, key) : null
    if (own) gone.shift()
    return own
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
