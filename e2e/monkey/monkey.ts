/**
 * Those who do anything: `npm run monkey -- --minutes 5 --seed 7`, with `--phone` at a phone and with `--two` two people in one document.
 * In copies of the demo documents they press, drag, type, format, paste, take back and try tools and trays at random. After each stretch
 * everything has to come to rest, nothing may have failed unheard, and what the sheets show has to be what a fresh opening shows, in the
 * end also what the PDF shows.
 */
import { parseArgs } from "node:util"
import { chromium, expect, type Page } from "@playwright/test"
import { chromiumOptions } from "../../scripts/chromium.mjs"
import { DeskPage } from "../desk"
import { beLateAsAsked } from "../late"
import { expectPrintsAsSeen } from "../pictures"
import { TestServer } from "../server"
import { type Person, Toucher, Writer } from "./person"
import { Chance } from "./random"
import { difference, shown } from "./shown"

const { values } = parseArgs({
  options: {
    minutes: { type: "string", default: "2" },
    seed: { type: "string" },
    phone: { type: "boolean" },
    two: { type: "boolean" },
  },
})
const seed = Number(values.seed ?? Math.floor(Math.random() * 2 ** 31))
const ends = Date.now() + Number(values.minutes) * 60_000
const stretches = 4
const actsInStretch = 14
const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true }
const wide = { viewport: { width: 1280, height: 800 } }

const chance = new Chance(seed)
const server = new TestServer()
await server.start(true)
const browser = await chromium.launch(chromiumOptions)
let problems = 0
let rounds = 0

async function somebody(touches: boolean): Promise<Person> {
  const context = await browser.newContext(touches ? phone : wide)
  // What is evaluated there was named by a bundler.
  await context.addInitScript("globalThis.__name = (own) => own")
  const page = await context.newPage()
  await beLateAsAsked(page)
  const person = new (touches ? Toucher : Writer)(page, chance)
  person.page.on("pageerror", (error) => tell(`Not caught: ${error.stack ?? error.message}`))
  person.page.on("dialog", (dialog) => void dialog.accept())
  return person
}
// Of two, one may be at a phone.
const people = [await somebody(values.phone ?? false)]
if (values.two) people.push(await somebody(chance.next() < 0.5))

function tell(what: string): void {
  problems++
  console.log([what, ...people.map(({ done }) => `after ${done.slice(-16).join("; ")}`)].join("\n  "))
}

/** Waits until the sheets are complete and all is saved. */
const rested = (page: Page) => new DeskPage(page, server).saved(45_000)

/** Waits until all have written all that they had, heard of it from each other, and show it. */
async function allRested(): Promise<void> {
  for (const { page } of people) await rested(page)
  const versions = () => new Set(people.map(({ heard }) => heard)).size
  await expect.poll(versions, { timeout: 45_000, message: "what each has heard of" }).toBe(1)
  for (const { page } of people) await rested(page)
}

/** Holds what somebody's page shows against a fresh opening of it. */
async function compare(page: Page): Promise<void> {
  const top = await page.locator(".canvas").evaluate((canvas) => canvas.parentElement?.scrollTop ?? 0)
  const reading = (await page.locator(".canvas.reading").count()) > 0
  const live = await shown(page)
  await page.reload()
  await page.waitForSelector(".canvas .sheet")
  await rested(page)
  await page.locator(".canvas").evaluate((canvas, y) => canvas.parentElement?.scrollTo(0, y), top)
  await rested(page)
  const unlike = reading ? [] : difference(live, await shown(page))
  if (unlike.length > 0) tell(`Not as a fresh opening shows it:\n  ${unlike.slice(0, 6).join("\n  ")}`)
}

/** @returns whether all are still in the document; with the keys, one comes to the shelf too */
async function stretch(): Promise<boolean> {
  for (let n = 0; n < actsInStretch; n++) await Promise.all(people.map((person) => person.act()))
  for (const person of people) await person.leave()
  if (people.some(({ page }) => !page.url().includes("/d/"))) return false
  // What one has written last is on its way to the other: saved here, it is there a moment later.
  for (const { page } of people) {
    // Who opens it again may send what was kept of the last letters.
    await allRested()
    await compare(page)
  }
  return true
}

function picture(page: Page, what: string): Promise<unknown> {
  return page.screenshot({ path: `test-results/monkey-${seed}-${rounds}-${what}.png` })
}

/** Holds the sheets of a page against their PDF, where they look like paper. */
async function print(page: Page): Promise<void> {
  if ((await page.locator(".canvas:not(.flow, .reading, .dark-sheets *)").count()) === 0) return
  try {
    await page.locator(".canvas").evaluate((canvas) => canvas.parentElement?.scrollTo(0, 0))
    await rested(page)
    await expectPrintsAsSeen(new DeskPage(page, server))
  } catch (error) {
    tell(`Not as it is printed: ${String(error).slice(0, 600)}`)
    await picture(page, "printed")
  }
}

const list = (await (await fetch(`${server.address}/api/documents`)).json()) as { id: string; name: string | null }[]
while (Date.now() < ends) {
  const { id: from, name } = chance.any(list)
  const made = await fetch(`${server.address}/api/documents/${from}/copies`, { method: "POST" })
  const { id } = (await made.json()) as { id: string }
  for (const { page, done } of people) {
    await page.goto(`${server.address}/d/${id}`)
    await page.waitForSelector(".canvas .sheet")
    done.length = 0
  }
  try {
    for (let n = 0; n < stretches && Date.now() < ends && (await stretch()); n++);
    // Of two, each shows where the other stands; and on a phone, bars cover a part of the sheet.
    const [only, other] = people
    if (only instanceof Writer && !other && only.page.url().includes("/d/")) await print(only.page)
  } catch (error) {
    tell(`Did not go on in ${name}: ${String(error).slice(0, 300)}`)
    for (const [n, { page }] of people.entries()) {
      const busy = await page.evaluate(() => document.querySelector("[role=main]")?.getAttribute("aria-busy"))
      console.log(`  at ${page.url()}, busy ${busy}`)
      await picture(page, String(n))
    }
  }
  rounds++
}
await browser.close()
await server.stop()
console.log(`${rounds} documents, ${problems} problems, seed ${seed}`)
process.exitCode = problems > 0 ? 1 : 0
