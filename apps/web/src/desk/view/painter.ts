/**
 * Paints a sheet as real text. Text is set at twice its size in points, which makes whole pixel sizes of
 * all sizes in steps of 0.5, and the sheet is scaled: so the browser's advances are those of the layout.
 */
import { caretEdges, lineTop, underlineOf, type Fragment, type Line, type LineRun, type ParagraphLayout, type Sheet } from "@biblon/core/layout"

/** Pixels of set text for a point. */
const setting = 2
const px = (points: number) => `${Math.round(points * setting * 1000) / 1000}px`

function element(tag: string, className: string, style: Partial<CSSStyleDeclaration> = {}): HTMLElement {
  const node = document.createElement(tag)
  node.className = className
  Object.assign(node.style, style)
  return node
}

function paintRun(paragraph: ParagraphLayout, line: Line, piece: LineRun): Node[] {
  const { look, face } = piece.run
  const span = element("span", "run", { left: px(piece.x), fontFamily: `"${face}"`, fontSize: px(look.size), color: look.colour })
  if (piece.extra) span.style.wordSpacing = px(piece.extra)
  span.lang = look.language
  span.textContent = piece.run.shows ?? paragraph.text.slice(piece.from, piece.to)
  const rule = underlineOf(line, piece)
  if (!rule) return [span]
  return [span, element("i", "rule", { left: px(rule.x), top: px(line.baseline + rule.y), width: px(rule.width), height: px(rule.height), background: look.colour })]
}

const signOf: Record<string, string> = { " ": "·", "\u00a0": "°", "\t": "→", "\u00ad": "¬", "\u2011": "‑" }

/** Signs for what cannot be seen: spaces, tabs, breaks, the end of the paragraph. */
function paintSigns(paragraph: ParagraphLayout, line: Line, last: boolean): HTMLElement[] {
  const edges = caretEdges(paragraph, line)
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

function paintFragment({ paragraph, from, to, width }: Fragment, signs: boolean): HTMLElement {
  const heading = paragraph.outline
  const last = paragraph.lines[to - 1] as Line
  const block = element("div", "block", { width: px(width), height: px(last.top + last.height - (paragraph.lines[from] as Line).top) })
  block.setAttribute("role", heading ? "heading" : "paragraph")
  if (heading) block.setAttribute("aria-level", String(heading))
  const first = paragraph.lines[from] as Line
  for (const line of paragraph.lines.slice(from, to)) {
    const span = element("span", "line", { top: px(line.top - first.top) })
    span.setAttribute("style", `${span.getAttribute("style")};--baseline:${px(line.baseline)}`)
    for (const piece of line.runs) span.append(...paintRun(paragraph, line, piece))
    if (signs) span.append(...paintSigns(paragraph, line, line === paragraph.lines.at(-1)))
    block.append(span)
  }
  return block
}

const appearances = new WeakMap<ParagraphLayout, string>()

/** All that a painted paragraph depends on, so that one that was set anew but looks the same keeps its elements. */
function appearance(paragraph: ParagraphLayout): string {
  let known = appearances.get(paragraph)
  if (known === undefined) {
    const lines = paragraph.lines.map(({ from, top, baseline, x, width, runs }) => [from, top, baseline, x, width, ...runs.flatMap(({ run, from: start, x: left, extra }) => [start, left, extra, run.face, run.shows, ...Object.values(run.look)])])
    known = JSON.stringify([paragraph.outline, paragraph.text, lines])
    appearances.set(paragraph, known)
  }
  return known
}

export class PaintedSheet {
  readonly element = element("div", "sheet")
  /** Selections and marks, behind the text, in the same pixels as the text. */
  readonly marks = element("div", "layer marks")
  private readonly text = element("div", "layer text")
  private blocks = new Map<string, HTMLElement[]>()
  private shown = -1
  private signs = false

  constructor() {
    this.element.setAttribute("role", "group")
    this.element.append(this.marks, this.text)
  }

  place(left: number, top: number, width: number, height: number, scale: number, label: string): void {
    Object.assign(this.element.style, { transform: `translate(${left}px, ${top}px)`, width: `${width}px`, height: `${height}px` })
    this.marks.style.transform = this.text.style.transform = `scale(${scale / setting})`
    this.element.setAttribute("aria-label", label)
  }

  /** Blocks that look as before keep their elements. */
  paint(sheet: Sheet, signs: boolean): void {
    if (this.shown === sheet.id && this.signs === signs) return
    this.shown = sheet.id
    this.signs = signs
    const before = this.blocks
    const now = new Map<string, HTMLElement[]>()
    const wanted: HTMLElement[] = []
    for (const fragment of sheet.fragments) {
      const { from, to, width } = fragment
      const key = `${signs} ${from} ${to} ${width} ${appearance(fragment.paragraph)}`
      // Paragraphs that look alike each have their own.
      const [block = paintFragment(fragment, signs), ...rest] = before.get(key) ?? []
      if (rest.length > 0) before.set(key, rest)
      else before.delete(key)
      const place = `translate(${px(fragment.x)}, ${px(lineTop(fragment, fragment.paragraph.lines[from] as Line))})`
      if (block.style.transform !== place) block.style.transform = place
      now.set(key, [...(now.get(key) ?? []), block])
      wanted.push(block)
    }
    for (const gone of before.values()) gone.forEach((block) => block.remove())
    wanted.forEach((block, i) => {
      if (this.text.childNodes[i] !== block) this.text.insertBefore(block, this.text.childNodes[i] ?? null)
    })
    this.blocks = now
  }

  private marked = ""

  /** Marks that are as before keep their elements. */
  mark(boxes: { x: number; y: number; width: number; height: number; kind: string }[]): void {
    const key = boxes.map((b) => `${b.kind} ${b.x} ${b.y} ${b.width} ${b.height}`).join()
    if (key === this.marked) return
    this.marked = key
    this.marks.replaceChildren(...boxes.map((b) => element("i", b.kind, { left: px(b.x), top: px(b.y), width: px(b.width), height: px(b.height) })))
  }
}
