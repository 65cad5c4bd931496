/** Somebody at a page who does anything: with mouse and keyboard, or with fingers. */
import type { CDPSession, Page } from "@playwright/test"
import { pasteInto } from "../clipboard"
import { FromServer } from "@biblon/wire"
import type { Chance } from "./random"

const sentence = "The ferry runs at slack water; the chain was greased on 3 November, and the toll book says so."
const typed = [sentence, "a", "word ", "1. ", "- ", "teh ", "tide, tide.", "שלום", "Ünïcode — “q” "]
const pages = [
  "<p>One <b>bold</b> word</p><ul><li>a<li>b<ol><li>c</ol></ul>",
  "<table><tr><td>1<td>2<tr><td colspan=2>3</table>",
  "<h1>Heading</h1><p style='text-align:center'>centre</p><hr>",
  "<p>a</p><p dir=rtl>שלום עולם</p>",
  "plain",
]
const moving = ["ArrowUp", "ArrowDown", "ArrowLeft", "ArrowRight", "Home", "End", "PageDown", "PageUp"]
const keys = [
  ...["Enter", "Enter", "Backspace", "Delete", "Tab", "Shift+Tab", "Shift+Enter", "Control+Enter", "Escape", ...moving],
  ...["Shift+ArrowDown", "Shift+ArrowUp", "Shift+End", "Control+Shift+ArrowRight", "Control+Backspace", "Control+Home"],
]
const formats = "b,i,u,Alt+j,Alt+b,Alt+ArrowUp,Alt+ArrowDown,Alt+ArrowRight,Alt+n,Alt+y,Alt+l".split(",")
const searched = [
  ..."bold,note,endnote,table,row,column,list,heading,section,break,sheet,head,caption,link,picture,style,level".split(
    ",",
  ),
  ..."undo,sort,field,date,number,watermark,cover,contents,index,source,remark,suggest,formula,symbol,shape".split(","),
  ..."margin,landscape,border,colour,tab,indent,space,capital,language,replace,merge,split,mark,paper,line".split(","),
]
/** What somebody writes into a field, right or not. */
const values = [
  "0",
  "1",
  "3",
  "12",
  "-5",
  "99999",
  "1e9",
  "2.5 cm",
  "50%",
  "abc",
  "",
  "#a03050",
  "=SUM(A1:A3)",
  sentence,
]
/** What leads out of the document, or asks the machine for a file. */
const leadsOut = /shelf|print|pdf|save|file|delete the|share|camera|show marks|reading|deliver/i
const inTray = (roles: string) =>
  ["region", "dialog"].flatMap((tray) => roles.split(", ").map((own) => `[role=${tray}] ${own}`)).join(", ")
const tools = `${inTray("button, [role=tab], [role=radio], [role=switch], [role=checkbox], [role=option]")}, [role=toolbar] button`
const fields = inTray("input, textarea, [role=spinbutton]")

type Point = { x: number; y: number }

export abstract class Person {
  /** What was done, for who wants to do it again. */
  readonly done: string[] = []

  /** The version of the document up to which the page has heard of everything. */
  heard = 0

  constructor(
    readonly page: Page,
    protected readonly chance: Chance,
  ) {
    page.on("websocket", (socket) =>
      socket.on("framereceived", ({ payload }) => {
        const message = FromServer.safeParse(JSON.parse(String(payload))).data
        if (message?.type === "ready") this.heard = message.version
        if (message?.type === "steps")
          this.heard = message.version + message.batches.reduce((sum, { steps }) => sum + steps.length, 0)
      }),
    )
  }

  protected abstract pressAt(point: Point): Promise<void>
  protected abstract drag(from: Point, to: Point): Promise<void>
  protected abstract findTool(): Promise<unknown>
  /** What only this kind of person does. */
  protected abstract own: Record<string, () => Promise<unknown>>

  private readonly common: Record<string, () => Promise<unknown>> = {
    press: () => this.press(".canvas .run"),
    drag: () => {
      const { width, height } = this.page.viewportSize()!
      const at = { x: this.chance.from(0.25, 0.7) * width, y: this.chance.from(0.25, 0.75) * height }
      const by = () => this.chance.from(-100, 100)
      return this.drag(at, { x: at.x + by(), y: at.y + by() })
    },
    type: () => this.page.keyboard.type(this.chance.any(typed)),
    keys: async () => {
      for (const _ of this.chance.upTo(3)) {
        const key = this.chance.any(keys)
        this.done.push(key)
        await this.page.keyboard.press(key)
      }
    },
    undo: async () => {
      for (const _ of this.chance.upTo(6)) await this.page.keyboard.press("Control+z")
    },
    redo: () => this.page.keyboard.press("Control+y"),
    paste: () => {
      const html = this.chance.any(pages)
      return pasteInto(this.page, { "text/html": html, "text/plain": html.replace(/<[^>]*>/g, " ") })
    },
    tool: async () => {
      await this.findTool()
      await this.page.keyboard.type(this.chance.any(searched))
      await this.press("[role=listbox] [role=option]")
    },
    stage: () => this.press("nav[aria-label=Bench] button"),
    button: () => this.press(tools),
    fill: async () => {
      if (!(await this.press(fields))) return
      await this.page.keyboard.press("Control+a")
      await this.page.keyboard.type(this.chance.any(values))
      await this.page.keyboard.press(this.chance.any(["Enter", "Tab", "Escape"]))
    },
    choose: async () => {
      const all = this.page.locator(inTray("select"))
      const [count, part] = [await all.count(), this.chance.next()]
      if (count === 0) return
      const own = all.nth(Math.floor(this.chance.next() * count))
      const options = await own.locator("option").allTextContents()
      const label = options[Math.floor(part * options.length)] ?? ""
      this.done.push(`(${label})`)
      if (await own.isVisible()) await own.selectOption({ label }, { timeout: 2000 }).catch(() => {})
    },
    away: () => this.page.keyboard.press("Escape"),
    scroll: () => {
      const by = this.chance.from(-800, 800)
      return this.page.locator(".canvas").evaluate((canvas, own) => canvas.parentElement?.scrollBy(0, own), by)
    },
  }

  /** Does one thing. */
  async act(): Promise<void> {
    const often = [
      "press",
      "press",
      "type",
      "type",
      "type",
      "keys",
      "keys",
      "button",
      "button",
      "button",
      "fill",
      "choose",
      "paste",
    ]
    const name = this.chance.any([...Object.keys(this.common), ...Object.keys(this.own), ...often])
    this.done.push(name)
    await (this.own[name] ?? this.common[name])?.()
  }

  /** Leaves whatever is open. */
  async leave(): Promise<void> {
    for (let n = 0; n < 3; n++) await this.page.keyboard.press("Escape")
  }

  /** @returns whether there was anything to press */
  protected async press(selector: string): Promise<boolean> {
    const found = await this.pressable(selector)
    if (!found) return false
    this.done.push(`(${found.name})`)
    await this.pressAt(found)
    return true
  }

  /** The middle of something on the page that can be pressed, among those that a selector names. */
  private async pressable(selector: string): Promise<(Point & { name: string }) | null> {
    const all = await this.page.locator(selector).evaluateAll((found) =>
      found.flatMap((own) => {
        const { left, top, right, bottom } = own.getBoundingClientRect()
        const [x, y] = [(left + right) / 2, (top + bottom) / 2]
        const above = document.elementFromPoint(x, y)
        const canvas = own.closest(".canvas")
        const seen = right - left > 2 && bottom - top > 2 && above !== null
        if (!seen || !(own.contains(above) || (canvas && above.closest(".canvas") === canvas))) return []
        return [{ name: `${own.getAttribute("aria-label") ?? ""} ${own.textContent}`.trim().slice(0, 60), x, y }]
      }),
    )
    const inside = all.filter(({ name }) => !leadsOut.test(name))
    return inside.length > 0 ? this.chance.any(inside) : null
  }
}

/** With mouse and keyboard. */
export class Writer extends Person {
  protected own = {
    format: () => this.page.keyboard.press(`Control+${this.chance.any(formats)}`),
    all: () => this.page.keyboard.press("Control+a"),
  }

  protected pressAt({ x, y }: Point): Promise<void> {
    return this.page.mouse.click(x, y)
  }

  protected async drag(from: Point, to: Point): Promise<void> {
    await this.page.mouse.move(from.x, from.y)
    await this.page.mouse.down()
    await this.page.mouse.move(to.x, to.y, { steps: 4 })
    await this.page.mouse.up()
  }

  protected findTool(): Promise<void> {
    return this.page.keyboard.press("Control+k")
  }
}

/** With fingers, on a phone. */
export class Toucher extends Person {
  private session: Promise<CDPSession> | null = null

  protected own = {
    twice: async () => {
      await this.press(".canvas .run")
      const last = this.lastAt
      if (last) await this.pressAt(last)
    },
    hold: async () => {
      const { width, height } = this.page.viewportSize()!
      const at = { x: this.chance.from(0.1, 0.9) * width, y: this.chance.from(0.2, 0.7) * height }
      await this.touch("touchStart", 0, at)
      await this.touch("touchMove", 0.8, { x: at.x + 1, y: at.y })
      await this.touch("touchEnd", 0.1)
    },
    pinch: async () => {
      const middle = { x: 195, y: 400 }
      const [from, to] = [this.chance.from(40, 150), this.chance.from(40, 150)]
      const fingers = (gap: number) => [
        { ...middle, y: middle.y - gap, id: 1 } as Point,
        { ...middle, y: middle.y + gap, id: 2 } as Point,
      ]
      await this.touch("touchStart", 0, ...fingers(from))
      for (let n = 1; n <= 4; n++) await this.touch("touchMove", 0.016, ...fingers(from + ((to - from) * n) / 4))
      await this.touch("touchEnd", 0.016)
    },
    sheets: () => this.press("[aria-label='Show the sheets'], [aria-label='Show the text in flow']"),
    strip: () => this.press("[role=toolbar] button"),
  }

  private lastAt: Point | null = null

  protected async pressAt(point: Point): Promise<void> {
    this.lastAt = point
    await this.page.touchscreen.tap(point.x, point.y)
  }

  protected async drag(from: Point, to: Point): Promise<void> {
    await this.touch("touchStart", 0, from)
    for (let n = 1; n <= 4; n++)
      await this.touch("touchMove", 0.016, {
        x: from.x + ((to.x - from.x) * n) / 4,
        y: from.y + ((to.y - from.y) * n) / 4,
      })
    await this.touch("touchEnd", 0.016)
  }

  protected findTool(): Promise<unknown> {
    return this.press("[aria-label='Find a tool']")
  }

  private time = Date.now() / 1000

  private async touch(
    type: "touchStart" | "touchMove" | "touchEnd",
    after: number,
    ...touchPoints: Point[]
  ): Promise<void> {
    this.session ??= this.page.context().newCDPSession(this.page)
    this.time = Math.max(this.time + after, Date.now() / 1000)
    await (await this.session).send("Input.dispatchTouchEvent", { type, timestamp: this.time, touchPoints })
  }
}
