/** A sheet as elements, which stay where they are as long as they look the same. */
import {
  backdropOf,
  floatsOn,
  fragmentsOf,
  outlinesOf,
  tablesOf,
  type Fragment,
  type PlacedSheet,
  type SetFloat,
} from "@biblon/core/layout"
import { element, inOrder, KeptRules, paintTableGround, px, setStyle, setting } from "./elements"
import { Nesting, standing, type Standing } from "./nesting"
import { paintPicture } from "./paintedPicture"
import type { SetBreak } from "./spots"
import { blockKey, PaintedBlock } from "./paintedBlock"

/** Left free between text and the line that says what begins behind it, in pixels. */
const breakGap = 4

const sectionWords: Readonly<Record<SetBreak["kind"], string>> = {
  sheet: "New section",
  column: "New section",
  continuous: "New section, below",
  odd: "New section, odd sheet",
  even: "New section, even sheet",
}

/** How many lines may be painted in one go. */
export interface Lines {
  lines: number
}

export class PaintedSheet {
  readonly element = element("div", "sheet")
  /** The paper and all that is drawn on it, as large as it is set. */
  private readonly drawing = element("div", "layer drawing")
  private readonly ground = element("div", "layer")
  /** Selections and marks, behind the text, in the same pixels as the text. */
  readonly marks = element("div", "layer marks")
  private readonly text = element("div", "layer text")
  /** Pictures over the text. */
  private readonly above = element("div", "layer")
  private blocks = new Map<string, PaintedBlock[]>()
  private shown = -1
  private furniture: PlacedSheet["furniture"]
  /** Pixels of the screen for a point. */
  private grid = 1
  private signs = false
  private placed = ""
  /** Set where text has come, gone or moved; for who looks to set back. */
  changed = false

  constructor() {
    this.element.setAttribute("role", "group")
    this.drawing.append(this.ground, this.marks, this.text, this.above)
    this.element.append(this.drawing)
  }

  place(left: number, top: number, width: number, height: number, scale: number, label: string): void {
    const now = `${left} ${top} ${width} ${height} ${scale} ${devicePixelRatio} ${label}`
    if (now === this.placed) return
    this.changed = true
    this.placed = now
    Object.assign(this.element.style, {
      transform: `translate(${left}px, ${top}px)`,
      width: `${width}px`,
      height: `${height}px`,
    })
    const set = scale / setting
    Object.assign(this.drawing.style, {
      transform: `scale(${set})`,
      width: `${Math.ceil(width / set)}px`,
      height: `${Math.ceil(height / set)}px`,
    })
    this.element.setAttribute("aria-label", label)
    const grid = scale * devicePixelRatio
    if (grid !== this.grid) this.shown = -1
    this.grid = grid
  }

  /**
   * Blocks that look as before keep their elements, and all do where there is no room for new lines.
   * @param room for new lines; what has none left stays away until another call
   * @returns whether all is here
   */
  paint(placed: PlacedSheet, signs: boolean, room: Lines = { lines: Infinity }): boolean {
    const { sheet } = placed
    if (this.shown === sheet.id && this.signs === signs && this.furniture === placed.furniture) return true
    if (room.lines <= 0) return false
    this.furniture = placed.furniture
    this.signs = signs
    const before = this.blocks
    const now = new Map<string, PaintedBlock[]>()
    const fragments = fragmentsOf(placed)
    const keys = fragments.map((fragment) => blockKey(fragment, signs, this.grid))
    // Paragraphs that look alike each have their own; what is left over shows what is new.
    const kept = keys.map((key) => before.get(key)?.shift())
    const left = [...before.values()].flat()
    const wanted: PaintedBlock[] = []
    for (const [i, fragment] of fragments.entries()) {
      let block = kept[i]
      if (!block) {
        if (room.lines <= 0) break
        room.lines -= fragment.to - fragment.from
        block = left.shift()
        if (block) block.update(fragment, signs, this.grid)
        else block = new PaintedBlock(fragment, signs, this.grid)
      }
      // What is new, or shows something else, stands nowhere yet.
      if (block.moveTo(fragment)) this.changed = true
      const key = keys[i] as string
      now.set(key, [...(now.get(key) ?? []), block])
      wanted.push(block)
    }
    const whole = wanted.length === fragments.length
    this.shown = whole ? sheet.id : -1
    for (const gone of [...left, ...kept.slice(wanted.length)])
      if (gone) {
        this.changed = true
        gone.remove()
      }
    const behind = this.paintBackdrop(placed)
    this.putText(wanted.map(({ text }, i) => standing(text, fragments[i] as Fragment)))
    setStyle(this.element, { backgroundColor: sheet.start.paper?.setup.colour ?? "" })
    inOrder(
      this.ground,
      [
        ...behind,
        ...this.rules.painted(sheet.rules),
        ...this.paintTables(placed),
        ...wanted.flatMap(({ ground }) => ground ?? []),
        ...this.paintDrawn(wanted, fragments),
        ...this.paintFloats(placed, (wrap) => wrap !== "over", this.behind),
      ],
      true,
    )
    inOrder(
      this.above,
      this.paintFloats(placed, (wrap) => wrap === "over", this.before),
      true,
    )
    this.blocks = now
    return whole
  }

  private backdrop: readonly PaintedBlock[] = []

  /** What stands behind all text, which is nothing to be read. */
  private paintBackdrop(placed: PlacedSheet): HTMLElement[] {
    const wanted = backdropOf(placed)
    if (wanted.length === 0 && this.backdrop.length === 0) return []
    this.backdrop = wanted.map((fragment, i) => {
      const block = this.backdrop[i] ?? new PaintedBlock(fragment, false, this.grid)
      block.update(fragment, false, this.grid)
      block.text.ariaHidden = "true"
      block.moveTo(fragment)
      return block
    })
    return this.backdrop.map(({ text }) => text)
  }

  private readonly rules = new KeptRules()
  private readonly drawn = new KeptRules()

  /** Leaders and patterned frames of all text in one drawing. */
  private paintDrawn(blocks: readonly PaintedBlock[], fragments: readonly Fragment[]): readonly Element[] {
    return this.drawn.painted(
      blocks.flatMap(({ drawn }, i) => {
        const { x, y } = fragments[i] as Fragment
        return drawn.map((rule) => ({ ...rule, x: rule.x + x, y: rule.y + y }))
      }),
    )
  }

  private tableGrounds: { key: string; element: HTMLElement }[] = []

  /** Grounds and lines of tables; those that look as before keep their elements. */
  private paintTables(placed: PlacedSheet): HTMLElement[] {
    const wanted = tablesOf(placed)
    if (wanted.length === 0 && this.tableGrounds.length === 0) return []
    this.tableGrounds = wanted.map(({ ground }, i) => {
      const key = `${this.grid} ${JSON.stringify(ground)}`
      const known = this.tableGrounds[i]
      return known?.key === key ? known : { key, element: paintTableGround(ground, this.grid) }
    })
    return this.tableGrounds.map(({ element }) => element)
  }

  /** Pictures that stand not in lines, by how they look and where they are: behind the text, and before it. */
  private readonly behind = new Map<string, HTMLElement>()
  private readonly before = new Map<string, HTMLElement>()

  private paintFloats(
    placed: PlacedSheet,
    which: (wrap: SetFloat["format"]["wrap"]) => boolean,
    known: Map<string, HTMLElement>,
  ): HTMLElement[] {
    const wanted = floatsOn(placed).filter(({ format }) => which(format.wrap))
    if (wanted.length === 0 && known.size === 0) return []
    const keys = wanted.map(({ picture, x, y }, i) => `${i} ${x} ${y} ${JSON.stringify(picture)}`)
    const now = wanted.map(({ picture, x, y }, i) => known.get(keys[i] as string) ?? paintPicture(picture, x, y))
    known.clear()
    keys.forEach((key, i) => known.set(key, now[i] as HTMLElement))
    return now
  }

  private readonly nesting = new Nesting()

  private inText: readonly HTMLElement[] = []

  private putText(all: readonly Standing[]): void {
    const nested = this.nesting.nest(all)
    if (nested !== this.inText) inOrder(this.text, nested)
    this.inText = nested
  }

  private outlines: HTMLElement | null = null

  /** Draws the boxes with the numbers of their leaves. */
  outline(placed: PlacedSheet): void {
    this.outlines?.remove()
    this.outlines = element("div", "layer outlines")
    this.outlines.ariaHidden = "true"
    for (const { kind, role, leaf, x, y, width, height } of outlinesOf(placed)) {
      const box = element("i", role ?? kind, { left: px(x), top: px(y), width: px(width), height: px(height) })
      box.dataset.leaf = String(leaf)
      this.outlines.append(box)
    }
    this.drawing.append(this.outlines)
  }

  private breaks: HTMLElement[] = []
  private broken = ""

  /** Shows where something begins: buttons that say what, for a pointer; keys take it away from the text behind it. */
  showBreaks(breaks: readonly SetBreak[], scale: number): void {
    const key = breaks
      .map(({ kind, part, pos, x, y, width }) => `${kind} ${part} ${pos} ${x} ${y} ${width} ${scale}`)
      .join()
    if (key === this.broken) return
    this.broken = key
    for (const gone of this.breaks) gone.remove()
    this.breaks = breaks.map(({ kind, section, part, pos, x, y, width }) => {
      const sign = element("button", "break", {
        transform: `translate(${x * scale}px, ${y * scale + breakGap}px)`,
        width: `${width * scale}px`,
      })
      sign.tabIndex = -1
      sign.dataset.pos = String(pos)
      sign.textContent = part
        ? `New part: ${part}`
        : section
          ? sectionWords[kind]
          : kind === "column"
            ? "New column"
            : "New sheet"
      return sign
    })
    this.element.append(...this.breaks)
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
