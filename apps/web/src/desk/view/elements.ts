/**
 * What the sheets are painted with. Text is set at twice its size in points, which makes whole pixel sizes of
 * all sizes in steps of 0.5, and the sheet is scaled: so the browser's advances are those of the layout.
 */
import { rulePath, type Box, type Ground, type Rule } from "@biblon/core/layout"

/** Pixels of set text for a point. */
export const setting = 2
export const px = (points: number) => `${Math.round(points * setting * 1000) / 1000}px`

export function element(tag: string, className: string, style: Partial<CSSStyleDeclaration> = {}): HTMLElement {
  const node = document.createElement(tag)
  node.className = className
  Object.assign(node.style, style)
  return node
}

const said = new WeakMap<HTMLElement, Record<string, string>>()

/**
 * Gives an element properties that it does not have so yet; returns whether there were any. What a style says when it is asked is written
 * otherwise than it was given, with six figures and as rgb(), so that what was given is remembered.
 */
export function setStyle(element: HTMLElement, properties: Record<string, string>): boolean {
  const before = said.get(element) ?? {}
  const changed = Object.entries(properties).filter(([name, value]) => before[name] !== value)
  if (changed.length === 0) return false
  Object.assign(element.style, Object.fromEntries(changed))
  said.set(element, { ...before, ...properties })
  return true
}

export function paintBox({ x, y, width, height }: Box, className: string, colour: string): HTMLElement {
  return element("i", className, { left: px(x), top: px(y), width: px(width), height: px(height), background: colour })
}

const svgSpace = "http://www.w3.org/2000/svg"

/** Rules, their places given from the upper left corner of what they are put into: those that are no plain lines in one drawing, since each costs the browser as much as a paragraph. */
export function paintRules(rules: readonly Rule[]): Element[] {
  const drawn = rules.filter(isDrawn)
  const plain = rules.filter((rule) => !isDrawn(rule)).map((rule) => paintBox(rule, "rule", rule.colour))
  return drawn.length > 0 ? [...plain, drawing(drawn)] : plain
}

/** Rules that keep their elements as long as they are the same. */
export class KeptRules {
  private key = "[]"
  private elements: readonly Element[] = []

  painted(rules: readonly Rule[]): readonly Element[] {
    const key = JSON.stringify(rules)
    if (key !== this.key) {
      this.elements = paintRules(rules)
      this.key = key
    }
    return this.elements
  }
}

/** Whether a rule is more than a box of one colour. */
export const isDrawn = ({ pattern }: Rule) => pattern !== "solid"

function drawing(rules: readonly Rule[]): Element {
  const drawing = document.createElementNS(svgSpace, "svg")
  drawing.setAttribute("class", "rule")
  drawing.setAttribute("style", `width:${setting}px;height:${setting}px`)
  drawing.setAttribute("viewBox", "0 0 1 1")
  const paths = new Map<string, { colour: string; stroke: number | null; d: string[] }>()
  for (const rule of rules) {
    const { d, stroke } = rulePath(rule)
    const key = `${rule.colour} ${stroke}`
    const path = paths.get(key) ?? { colour: rule.colour, stroke, d: [] }
    path.d.push(d)
    paths.set(key, path)
  }
  for (const { colour, stroke, d } of paths.values()) {
    const path = document.createElementNS(svgSpace, "path")
    path.setAttribute("d", d.join(""))
    path.setAttribute("fill", stroke === null ? colour : "none")
    if (stroke !== null) {
      path.setAttribute("stroke", colour)
      path.setAttribute("stroke-width", String(stroke))
    }
    drawing.append(path)
  }
  return drawing
}

/** A rule of a frame on whole pixels of the screen, so that the lines of opposite sides look alike. @param grid pixels for a point */
export function snapped(rule: Rule, grid: number): Rule {
  const onGrid = (length: number) => Math.round(length * grid) / grid
  const thick = (length: number) => Math.max(1, Math.round(length * grid)) / grid
  const upright = rule.height > rule.width
  const [x, y] = [onGrid(rule.x), onGrid(rule.y)]
  return upright
    ? { ...rule, x, y, width: thick(rule.width), height: onGrid(rule.y + rule.height) - y }
    : { ...rule, x, y, width: onGrid(rule.x + rule.width) - x, height: thick(rule.height) }
}

/** What lies behind the text of a table, its lines on whole pixels of the screen. */
export function paintTableGround({ fills, rules }: Ground, grid: number): HTMLElement {
  const ground = element("div", "ground")
  ground.append(
    ...fills.map(({ colour, ...box }) => paintBox(box, "rule", colour)),
    ...paintRules(rules.map((rule) => (isDrawn(rule) ? rule : snapped(rule, grid)))),
  )
  return ground
}

/**
 * Brings elements into a layer in this order, touching only those that are not in their place.
 * @param alone whether nothing else may be left in the layer
 */
export function inOrder(layer: HTMLElement, wanted: readonly Element[], alone = false): void {
  wanted.forEach((own, i) => {
    if (layer.childNodes[i] !== own) layer.insertBefore(own, layer.childNodes[i] ?? null)
  })
  if (alone) while (layer.childNodes.length > wanted.length) layer.lastChild?.remove()
}
