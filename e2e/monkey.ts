/**
 * Somebody who does anything: `npm run monkey -- --minutes 5 --seed 7`. In copies of the demo documents it presses, drags, types, formats,
 * pastes, takes back and tries tools and trays at random. After each stretch everything has to come to rest, nothing may have failed
 * unheard, and what the sheets show has to be what a fresh opening shows.
 */
import { parseArgs } from "node:util"
import { chromium } from "playwright-core"
import { chromiumOptions } from "../scripts/chromium.mjs"
import { TestServer } from "./server"

const { values } = parseArgs({ options: { minutes: { type: "string", default: "2" }, seed: { type: "string" } } })
const seed = Number(values.seed ?? Math.floor(Math.random() * 2 ** 31))
const ends = Date.now() + Number(values.minutes) * 60_000
const stretches = 4
const actsInStretch = 14

let state = seed >>> 0
/** From 0 to 1, the same for the same seed; what it meets on the page still hangs on the machine. */
function random(): number {
  state = (state + 0x6d2b79f5) >>> 0
  let mixed = Math.imul(state ^ (state >>> 15), state | 1)
  mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
}
const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T
const upTo = (most: number) => Array.from({ length: Math.ceil(random() * most) })

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
const formats = [
  "b",
  "i",
  "u",
  "Alt+j",
  "Alt+b",
  "Alt+ArrowUp",
  "Alt+ArrowDown",
  "Alt+ArrowRight",
  "Alt+n",
  "Alt+y",
  "Alt+l",
]
const searched =
  "bold,note,table,row,column,list,heading,section,break,sheet,head,caption,link,picture,style,level,undo,sort".split(
    ",",
  )
/** What leads out of the document, or asks the machine for a file. */
const leadsOut = /shelf|print|pdf|save|file|delete the|share|camera|show marks|reading|deliver/i

const server = new TestServer()
await server.start(true)
const browser = await chromium.launch(chromiumOptions)
const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
const page = await context.newPage()
const done: string[] = []
let problems = 0
function tell(what: string): void {
  problems++
  console.log(`${what}\n  after ${done.slice(-16).join("; ")}`)
}
page.on("pageerror", (error) => tell(`Not caught: ${error.stack ?? error.message}`))
page.on("dialog", (dialog) => void dialog.accept())

/** The middle of something on the page that can be pressed, among those that a selector names. */
async function pressable(selector: string): Promise<{ name: string; x: number; y: number } | null> {
  const all = await page.locator(selector).evaluateAll((found) =>
    found.flatMap((own) => {
      const { left, top, right, bottom } = own.getBoundingClientRect()
      const seen = right - left > 2 && bottom - top > 2 && top >= 0 && bottom <= innerHeight
      const name = `${own.getAttribute("aria-label") ?? ""} ${own.textContent}`.trim().slice(0, 60)
      return seen ? [{ name, x: (left + right) / 2, y: (top + bottom) / 2 }] : []
    }),
  )
  const inside = all.filter(({ name }) => !leadsOut.test(name))
  return inside.length > 0 ? any(inside) : null
}

async function press(selector: string): Promise<void> {
  const found = await pressable(selector)
  if (!found) return
  done.push(`(${found.name})`)
  await page.mouse.click(found.x, found.y)
}

const acts: Record<string, () => Promise<void>> = {
  press: () => press(".canvas .run"),
  drag: async () => {
    const [x, y] = [350 + random() * 500, 200 + random() * 400]
    await page.mouse.move(x, y)
    await page.mouse.down()
    await page.mouse.move(x + random() * 200 - 100, y + random() * 200 - 100, { steps: 4 })
    await page.mouse.up()
  },
  type: () => page.keyboard.type(any(typed)),
  keys: async () => {
    for (const _ of upTo(3)) await page.keyboard.press(any(keys))
  },
  format: () => page.keyboard.press(`Control+${any(formats)}`),
  undo: async () => {
    for (const _ of upTo(6)) await page.keyboard.press("Control+z")
  },
  redo: () => page.keyboard.press("Control+y"),
  all: () => page.keyboard.press("Control+a"),
  paste: () =>
    page.evaluate((html) => {
      const data = new DataTransfer()
      data.setData("text/html", html)
      data.setData("text/plain", html.replace(/<[^>]*>/g, " "))
      const event = new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true })
      document.activeElement?.dispatchEvent(event)
    }, any(pages)),
  tool: async () => {
    await page.keyboard.press("Control+k")
    await page.keyboard.type(any(searched))
    await press("[role=listbox] [role=option]")
  },
  stage: () => press("nav[aria-label=Bench] button"),
  button: () =>
    press("[role=region] button, [role=region] [role=tab], [role=region] [role=radio], [role=toolbar] button"),
  away: () => page.keyboard.press("Escape"),
  scroll: () =>
    page.locator(".canvas").evaluate((canvas, by) => canvas.parentElement?.scrollBy(0, by), random() * 1600 - 800),
}
const often = ["press", "press", "type", "type", "type", "keys", "keys", "button", "button", "paste"]
const choices = [...Object.keys(acts), ...often]

async function rested(): Promise<void> {
  await page.evaluate(() => new Promise(requestAnimationFrame))
  await page.waitForFunction(
    () =>
      document.querySelector("[role=main]")?.getAttribute("aria-busy") === "false" &&
      document.querySelector("[data-testid=saving]")?.textContent?.startsWith("Saved"),
    null,
    { timeout: 45_000 },
  )
  await page.evaluate(async () => {
    for (let frame = 0; frame < 6; frame++) await new Promise(requestAnimationFrame)
  })
}

type Shown = Record<string, { what: string; x: number; y: number }[]>

/** What the sheets in sight show, by their names: each piece of text with its look, and where it stands in thousandths of a sheet's width. */
function shown(): Promise<Shown> {
  return page.evaluate(() => {
    const sheets = [...document.querySelectorAll(".canvas .sheet")].filter((sheet) => {
      const { top, bottom } = sheet.getBoundingClientRect()
      return bottom > 100 && top < innerHeight - 60
    })
    return Object.fromEntries(
      sheets.map((sheet) => {
        const { left, top, width } = sheet.getBoundingClientRect()
        const pieces = [...sheet.querySelectorAll(".run, .picture")].map((own) => {
          const box = own.getBoundingClientRect()
          const { fontFamily, color } = getComputedStyle(own)
          const place = { x: ((box.left - left) / width) * 1000, y: ((box.top - top) / width) * 1000 }
          return { what: `${own.className} ${own.textContent} ${fontFamily} ${color}`, ...place }
        })
        return [sheet.getAttribute("aria-label") ?? "", pieces]
      }),
    )
  })
}

/** What one opening shows and the other does not. */
function difference(live: Shown, fresh: Shown): string[] {
  return Object.entries(live).flatMap(([name, pieces]) => {
    if (!fresh[name]) return []
    const rest = [...fresh[name]]
    const gone = pieces.filter((own) => {
      const like = rest.findIndex(
        (other) => other.what === own.what && Math.abs(other.x - own.x) < 2.5 && Math.abs(other.y - own.y) < 2.5,
      )
      if (like >= 0) rest.splice(like, 1)
      return like < 0
    })
    return [...gone, ...rest].map((own) => `${name}: ${JSON.stringify(own)}`)
  })
}

async function stretch(): Promise<void> {
  for (let n = 0; n < actsInStretch; n++) {
    const name = any(choices)
    done.push(name)
    await acts[name]?.()
  }
  for (let n = 0; n < 3; n++) await page.keyboard.press("Escape")
  await rested()
  const sheets = await page.locator(".canvas:not(.flow):not(.reading)").count()
  const top = await page.locator(".canvas").evaluate((canvas) => canvas.parentElement?.scrollTop ?? 0)
  const live = await shown()
  await page.reload()
  await page.waitForSelector(".canvas .sheet")
  await rested()
  await page.locator(".canvas").evaluate((canvas, y) => canvas.parentElement?.scrollTo(0, y), top)
  await rested()
  const unlike = sheets > 0 ? difference(live, await shown()) : []
  if (unlike.length > 0) tell(`Not as a fresh opening shows it:\n  ${unlike.slice(0, 6).join("\n  ")}`)
}

const list = (await (await fetch(`${server.address}/api/documents`)).json()) as { id: string; name: string | null }[]
let rounds = 0
while (Date.now() < ends) {
  const { id: from, name } = any(list)
  const made = await fetch(`${server.address}/api/documents/${from}/copies`, { method: "POST" })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`${server.address}/d/${id}`)
  await page.waitForSelector(".canvas .sheet")
  done.length = 0
  try {
    for (let n = 0; n < stretches && Date.now() < ends; n++) await stretch()
  } catch (error) {
    tell(`Did not go on in ${name}: ${String(error).slice(0, 300)}`)
  }
  rounds++
}
await browser.close()
await server.stop()
console.log(`${rounds} documents, ${problems} problems, seed ${seed}`)
process.exitCode = problems > 0 ? 1 : 0
