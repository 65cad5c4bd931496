/**
 * Paints a sheet as real text. Text is set at twice its size in points, which makes whole pixel sizes of
 * all sizes in steps of 0.5, and the sheet is scaled: so the browser's advances are those of the layout.
 */
import {
  caretEdges,
  capitals,
  featuresOf,
  fragmentsOf,
  highlightOf,
  letterRules,
  lineTop,
  outlineWidth,
  rulePath,
  shadowColour,
  shadowOffset,
  type Box,
  type Fragment,
  type Line,
  type LineRun,
  type ParagraphLayout,
  type Rule,
  type PlacedSheet,
} from "@biblon/core/layout"

/** Pixels of set text for a point. */
const setting = 2
const px = (points: number) => `${Math.round(points * setting * 1000) / 1000}px`

function element(tag: string, className: string, style: Partial<CSSStyleDeclaration> = {}): HTMLElement {
  const node = document.createElement(tag)
  node.className = className
  Object.assign(node.style, style)
  return node
}

function paintBox({ x, y, width, height }: Box, className: string, colour: string): HTMLElement {
  return element("i", className, { left: px(x), top: px(y), width: px(width), height: px(height), background: colour })
}

const svgSpace = "http://www.w3.org/2000/svg"

/** A rule, its place given from the upper left corner of what it is put into. */
function paintRule(rule: Rule): Element {
  if (rule.pattern === "solid") return paintBox(rule, "rule", rule.colour)
  const drawing = document.createElementNS(svgSpace, "svg")
  drawing.setAttribute("class", "rule")
  drawing.setAttribute(
    "style",
    `left:${px(rule.x)};top:${px(rule.y)};width:${px(rule.width)};height:${px(rule.height)}`,
  )
  drawing.setAttribute("viewBox", `0 0 ${rule.width} ${rule.height}`)
  const path = document.createElementNS(svgSpace, "path")
  const { d, stroke } = rulePath(rule)
  path.setAttribute("d", d)
  path.setAttribute("fill", stroke === null ? rule.colour : "none")
  if (stroke !== null) {
    path.setAttribute("stroke", rule.colour)
    path.setAttribute("stroke-width", String(stroke))
  }
  drawing.append(path)
  return drawing
}

function paintRun(paragraph: ParagraphLayout, line: Line, piece: LineRun): Element[] {
  const { run } = piece
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
  return [span, ...letterRules(line, piece).map((rule) => paintRule({ ...rule, y: line.baseline + rule.y }))]
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

function paintFragment({ paragraph, from, to, width }: Fragment, signs: boolean): HTMLElement {
  const heading = paragraph.outline
  const last = paragraph.lines[to - 1] as Line
  const block = element("div", "block", {
    width: px(width),
    height: px(last.top + last.height - (paragraph.lines[from] as Line).top),
  })
  const item = !heading && paragraph.label ? paragraph.format.list : null
  block.setAttribute("role", heading ? "heading" : item ? "listitem" : "paragraph")
  if (heading || item) block.setAttribute("aria-level", String(heading ?? (item?.level ?? 0) + 1))
  const first = paragraph.lines[from] as Line
  for (const line of paragraph.lines.slice(from, to)) {
    const span = element("span", "line", { top: px(line.top - first.top) })
    span.setAttribute("style", `${span.getAttribute("style")};--baseline:${px(line.baseline)}`)
    if (line === paragraph.lines[0])
      for (const piece of paragraph.label?.runs ?? []) span.append(...paintRun(paragraph, line, piece))
    for (const piece of line.runs) span.append(...paintRun(paragraph, line, piece))
    if (signs) span.append(...paintSigns(paragraph, line, line === paragraph.lines.at(-1)))
    block.append(span)
  }
  return block
}

/** A rule of a frame on whole pixels of the screen, so that the lines of opposite sides look alike. @param grid pixels for a point */
function snapped(rule: Rule, grid: number): Rule {
  const onGrid = (length: number) => Math.round(length * grid) / grid
  const thick = (length: number) => Math.max(1, Math.round(length * grid)) / grid
  const upright = rule.height > rule.width
  const [x, y] = [onGrid(rule.x), onGrid(rule.y)]
  return upright
    ? { ...rule, x, y, width: thick(rule.width), height: onGrid(rule.y + rule.height) - y }
    : { ...rule, x, y, width: onGrid(rule.x + rule.width) - x, height: thick(rule.height) }
}

/** What lies behind the letters of a fragment: background, borders, highlights, leaders. Null for nothing. */
function paintGround(fragment: Fragment, grid: number): HTMLElement | null {
  const { paragraph, from, to, frame, x, y } = fragment
  const parts: Element[] = []
  if (frame?.shading)
    parts.push(paintBox({ ...frame.box, x: frame.box.x - x, y: frame.box.y - y }, "rule", frame.shading))
  for (const own of frame?.rules ?? []) {
    const rule = own.pattern === "solid" ? snapped(own, grid) : own
    parts.push(paintRule({ ...rule, x: rule.x - x, y: rule.y - y }))
  }
  for (const line of paragraph.lines.slice(from, to)) {
    const top = lineTop(fragment, line) - y
    for (const leader of line.leaders) parts.push(paintRule({ ...leader, y: top + line.baseline + leader.y }))
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

const appearances = new WeakMap<ParagraphLayout, string>()

/** All that a painted paragraph depends on, so that one that was set anew but looks the same keeps its elements. */
function appearance(paragraph: ParagraphLayout): string {
  let known = appearances.get(paragraph)
  if (known === undefined) {
    const pieces = (runs: LineRun[]) =>
      runs.flatMap(({ run, from: start, x: left, extra }) => [
        start,
        left,
        extra,
        run.face,
        run.shows,
        run.size,
        run.rise,
        run.level,
        ...Object.values(run.look),
      ])
    const lines = paragraph.lines.map(({ from, top, baseline, x, width, runs, leaders }) => [
      from,
      top,
      baseline,
      x,
      width,
      leaders,
      ...pieces(runs),
    ])
    known = JSON.stringify([paragraph.outline, paragraph.text, pieces(paragraph.label?.runs ?? []), lines])
    appearances.set(paragraph, known)
  }
  return known
}

/** The elements of a fragment. */
interface Painted {
  text: HTMLElement
  ground: HTMLElement | null
}

export class PaintedSheet {
  readonly element = element("div", "sheet")
  private readonly ground = element("div", "layer")
  /** Selections and marks, behind the text, in the same pixels as the text. */
  readonly marks = element("div", "layer marks")
  private readonly text = element("div", "layer text")
  private blocks = new Map<string, Painted[]>()
  /** Items in a row lie in an element that says that they are a list. */
  private lists: HTMLElement[] = []
  private shown = -1
  /** Pixels of the screen for a point. */
  private grid = 1
  private signs = false
  private placed = ""

  constructor() {
    this.element.setAttribute("role", "group")
    this.element.append(this.ground, this.marks, this.text)
  }

  place(left: number, top: number, width: number, height: number, scale: number, label: string): void {
    const now = `${left} ${top} ${width} ${height} ${scale} ${devicePixelRatio} ${label}`
    if (now === this.placed) return
    this.placed = now
    Object.assign(this.element.style, {
      transform: `translate(${left}px, ${top}px)`,
      width: `${width}px`,
      height: `${height}px`,
    })
    this.ground.style.transform = this.marks.style.transform = this.text.style.transform = `scale(${scale / setting})`
    this.element.setAttribute("aria-label", label)
    const grid = scale * devicePixelRatio
    if (grid !== this.grid) this.shown = -1
    this.grid = grid
  }

  /** Blocks that look as before keep their elements. */
  paint(placed: PlacedSheet, signs: boolean): void {
    const { sheet } = placed
    if (this.shown === sheet.id && this.signs === signs) return
    this.shown = sheet.id
    this.signs = signs
    const before = this.blocks
    const now = new Map<string, Painted[]>()
    const wanted: Painted[] = []
    for (const fragment of fragmentsOf(placed)) {
      const { from, to, x, y, width, frame } = fragment
      const key = `${signs} ${from} ${to} ${width} ${frame ? JSON.stringify([x, y, frame, this.grid]) : ""} ${appearance(fragment.paragraph)}`
      // Paragraphs that look alike each have their own.
      const [block = { text: paintFragment(fragment, signs), ground: paintGround(fragment, this.grid) }, ...rest] =
        before.get(key) ?? []
      if (rest.length > 0) before.set(key, rest)
      else before.delete(key)
      const place = `translate(${px(x)}, ${px(lineTop(fragment, fragment.paragraph.lines[from] as Line))})`
      for (const own of [block.text, block.ground])
        if (own && own.style.transform !== place) own.style.transform = place
      now.set(key, [...(now.get(key) ?? []), block])
      wanted.push(block)
    }
    for (const gone of before.values())
      for (const { text, ground } of gone) {
        text.remove()
        ground?.remove()
      }
    this.putText(wanted.map(({ text }) => text))
    inOrder(
      this.ground,
      wanted.flatMap(({ ground }) => ground ?? []),
    )
    this.blocks = now
  }

  private putText(blocks: readonly HTMLElement[]): void {
    const outer: HTMLElement[] = []
    const members: HTMLElement[][] = []
    blocks.forEach((block, i) => {
      if (block.role !== "listitem") return outer.push(block)
      if (blocks[i - 1]?.role !== "listitem") {
        const list = (this.lists[members.length] ??= element("div", "list"))
        list.role = "list"
        outer.push(list)
        members.push([])
      }
      return members.at(-1)!.push(block)
    })
    for (const gone of this.lists.splice(members.length)) gone.remove()
    inOrder(this.text, outer)
    members.forEach((own, i) => inOrder(this.lists[i] as HTMLElement, own))
  }

  private marked = ""

  /** Marks that are as before keep their elements. */
  mark(boxes: { x: number; y: number; width: number; height: number; kind: string }[]): void {
    const key = boxes.map((b) => `${b.kind} ${b.x} ${b.y} ${b.width} ${b.height}`).join()
    if (key === this.marked) return
    this.marked = key
    this.marks.replaceChildren(
      ...boxes.map((b) =>
        element("i", b.kind, { left: px(b.x), top: px(b.y), width: px(b.width), height: px(b.height) }),
      ),
    )
  }
}

/** Brings elements into a layer in this order, touching only those that are not in their place. */
function inOrder(layer: HTMLElement, wanted: readonly HTMLElement[]): void {
  wanted.forEach((own, i) => {
    if (layer.childNodes[i] !== own) layer.insertBefore(own, layer.childNodes[i] ?? null)
  })
}
