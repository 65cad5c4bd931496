/** The first sheets of a document as the desk will show them, while the program is still on its way: to be seen, not yet to be touched. */
import { fragmentsOf, type PlacedSheet } from "@biblon/core/layout"
import viewStyle from "../desk/view/view.css"
import { fitted } from "../desk/view/fitting"
import { isDark, keptDark, keptRuler, type KeptView } from "../desk/view/kept"
import { PaintedSheet } from "../desk/view/painter"
import { Stack, type StackOptions } from "../desk/view/stack"
import { declareFaces } from "../ui/fontFaces"
import { roomOfSheets } from "../ui/frame"
import { LayoutMirror } from "../workers/layoutMirror"
import type { LayoutReport } from "../workers/protocol"

/** The language of the first letters of a sheet; "" for none. */
function languageOf(placed: PlacedSheet): string {
  const [first] = fragmentsOf(placed)
  return first?.paragraph.lines[first.from]?.runs[0]?.run.look.language ?? ""
}

export class Sight {
  private readonly mirror = new LayoutMirror()
  private readonly host = document.createElement("div")
  /** In place of bars and bench, behind them once they come. */
  private readonly ground = document.createElement("div")
  private shown = false

  /**
   * @param onShown is called when the sheets have been painted, with the language of their first letters
   * @param covers whether something else is on the page, which is covered until the desk shows its sheets
   */
  constructor(
    private readonly view: KeptView,
    private readonly onShown: (language: string) => void,
    private readonly covers: boolean,
  ) {}

  /** Shows what a report has brought, once there is something to show. */
  take(report: LayoutReport): void {
    if (this.shown) return
    this.mirror.take(report)
    const first = this.mirror.placed(0)
    if (!first) return
    const language = languageOf(first)
    this.shown = true
    declareFaces()
    this.paint()
    requestAnimationFrame(() =>
      setTimeout(() => {
        performance.mark("sight")
        this.onShown(language)
      }),
    )
  }

  private paint(): void {
    const { mode } = this.view
    const flow = mode === "flow"
    this.ground.inert = this.host.inert = true
    Object.assign(this.ground.style, {
      position: "fixed",
      inset: "0",
      zIndex: this.covers ? "" : "-1",
      background: "rgb(var(--surface))",
    })
    Object.assign(this.host.style, {
      position: "fixed",
      overflow: "auto",
      outline: "1px solid rgb(var(--line))",
      background: flow ? "#fff" : "rgb(var(--desk))",
      ...roomOfSheets(innerWidth, innerHeight, keptRuler()),
    })
    // Nothing of it is to be found by whoever looks for what can be worked with.
    const root = this.host.attachShadow({ mode: "closed" })
    const style = new CSSStyleSheet()
    style.replaceSync(viewStyle)
    root.adoptedStyleSheets = [style]
    const desk = document.createElement("div")
    if (isDark({ darkSheets: keptDark(), mode })) desk.className = "dark-sheets"
    const canvas = document.createElement("div")
    canvas.className = flow ? "canvas flow" : "canvas"
    desk.append(canvas)
    root.append(desk)
    // Else the page's own ground would hide what lies behind its text.
    document.body.style.isolation = "isolate"
    document.body.append(this.ground, this.host)
    const { table } = this.mirror
    const room = { width: this.host.clientWidth, height: this.host.clientHeight }
    const { fit, scale } = this.view
    const sheet = { width: table.widths[0] ?? 0, height: table.heights[0] ?? 0 }
    const stack = new Stack(
      table,
      this.optionsIn(room.width, fit === null ? null : fitted({ mode, fit, room, sheet }), scale),
    )
    Object.assign(canvas.style, { height: `${stack.height}px`, width: `${stack.width}px` })
    for (let index = 0; index < stack.count && stack.top(index) < room.height; index++) {
      const content = this.mirror.placed(index)
      if (!content) break
      const painted = new PaintedSheet()
      const [width, height] = [table.widths[index] ?? 0, table.heights[index] ?? 0].map(
        (points) => points * stack.options.scale,
      )
      painted.place(stack.left(index), stack.top(index), width as number, height as number, stack.options.scale, "")
      painted.paint(content, false)
      canvas.append(painted.element)
    }
  }

  private optionsIn(width: number, fit: { scale: number; columns: number } | null, scale: number): StackOptions {
    const flow = this.view.mode === "flow"
    return { scale: fit?.scale ?? scale, flow, width, columns: flow ? 1 : (fit?.columns ?? 1), rowHeight: null }
  }

  end(): void {
    this.shown = true
    document.body.style.isolation = ""
    this.ground.remove()
    this.host.remove()
  }
}
