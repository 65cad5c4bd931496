/** Takes the pictures of docs/screenshots anew, from the demo data. */
import { spawn } from "node:child_process"
import { mkdtempSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { chromium } from "playwright-core"
import { chromiumOptions } from "./chromium.mjs"
import { programNamed } from "./programs.mjs"
import { installPackages, installPrograms, root } from "./setup.mjs"

installPackages()
installPrograms()
const { buildApp } = await import("./build.mjs")
await buildApp()

const server = spawn(process.execPath, [programNamed("server")], {
  cwd: root,
  env: {
    ...process.env,
    BIBLON_ROOT: root,
    BIBLON_DEMO: "1",
    BIBLON_PORT: "0",
    BIBLON_DATABASE: join(mkdtempSync(join(tmpdir(), "biblon-shots-")), "demo.sqlite"),
  },
})
const address = await new Promise((resolve) =>
  server.stdout.on("data", (data) => resolve(/http:\S+/.exec(String(data))?.[0])),
)
const browser = await chromium.launch(chromiumOptions)
const phone = await (
  await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, locale: "en-GB" })
).newPage()
const wide = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: "en-GB" })).newPage()

async function shot(page, name) {
  await page.evaluate(() => document.fonts.ready)
  await page.waitForTimeout(300)
  await page.screenshot({ path: join(root, "docs/screenshots", `${name}.png`) })
}

/** The middle of a piece of text on a sheet. */
async function middle(page, text) {
  await page.waitForFunction(
    (wanted) => [...document.querySelectorAll(".run")].some((r) => r.textContent.includes(wanted)),
    text,
  )
  return page.evaluate((wanted) => {
    const run = [...document.querySelectorAll(".run")].find((r) => r.textContent.includes(wanted))
    const node = [...run.childNodes].find((n) => n.nodeType === Node.TEXT_NODE)
    if (run.getBoundingClientRect().bottom > innerHeight - 60) run.scrollIntoView({ block: "center" })
    const range = document.createRange()
    range.setStart(node, node.data.indexOf(wanted))
    range.setEnd(node, node.data.indexOf(wanted) + wanted.length)
    const { left, width, top, height } = range.getBoundingClientRect()
    return [left + width / 2, top + height / 2]
  }, text)
}

for (const [page, size] of [
  [phone, "phone"],
  [wide, "wide"],
]) {
  await page.goto(address)
  await page
    .getByText(/^1[0-9] sheets/)
    .first()
    .waitFor()
  await page.waitForFunction(() => [...document.images].every((i) => i.complete && i.naturalWidth))
  await shot(page, `shelf-${size}`)
}

await phone.getByText("Letter to the harbour master").tap()
await middle(phone, "Dear Captain")
await shot(phone, "desk-phone-flow")
const word = await middle(phone, "completed")
await phone.touchscreen.tap(...word)
await phone.touchscreen.tap(...word)
await phone.getByRole("button", { name: "Put the keyboard away" }).tap()
await phone.getByRole("button", { name: "Write" }).tap()
await shot(phone, "desk-phone-tray")

await wide.getByText("Letter to the harbour master").click()
await wide.getByRole("button", { name: "Write" }).click()
await wide.mouse.dblclick(...(await middle(wide, "insurers")))
await shot(wide, "desk-wide-sheets")

await wide.getByRole("link", { name: "Back to the shelf" }).click()
await wide.getByText("Tides and timetables", { exact: true }).click()
await middle(wide, "promise made")
await wide.getByRole("button", { name: "Reading" }).click()
await shot(wide, "reading-wide")

await phone.getByRole("button", { name: "Find a tool" }).tap()
await phone.getByRole("combobox").fill("s")
await shot(phone, "tool-phone")

await phone.keyboard.press("Escape")
await phone.goto(address)
await phone.getByText("Risk report", { exact: true }).tap()
await middle(phone, "Nell Caddow")
await phone.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Structure" }).tap()
await phone.getByRole("tab", { name: "Outline" }).tap()
await shot(phone, "outline-phone")

/** Opens a document of the shelf, puts the caret into a word and opens a page of a stage. */
async function at(name, word, stage, tab) {
  await wide.goto(address)
  await wide.getByText(name, { exact: true }).first().click()
  await wide.mouse.click(...(await middle(wide, word)))
  await wide.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: stage }).click()
  await wide.getByRole("tab", { name: tab }).click()
  await wide.mouse.move(1270, 790)
}
await at("Notice for the slipway", "crosses", "Structure", "Styles")
await shot(wide, "styles-wide")
await at("Record of a ferry hand", "Chalked", "Structure", "Styles")
await wide.getByRole("button", { name: "Trail", exact: true }).click()
await shot(wide, "trail-wide")
await at("Risk report", "What can go wrong", "Sheet", "Head, foot")
await shot(wide, "sheet-wide")
await at("Risk report", "Caddow", "Sheet", "Behind")
await wide.getByRole("button", { name: "Draft" }).click()
await wide.getByRole("button", { name: "Pier" }).scrollIntoViewIfNeeded()
await wide.getByRole("button", { name: "Side by side" }).click()
await shot(wide, "cover-wide")
await wide.keyboard.press("Control+z")
await at("Tides and timetables", "promise made", "Check", "Brief")
await wide.getByRole("button", { name: /psychology/ }).click()
await wide.getByText(/rules agree/).waitFor()
await shot(wide, "brief-wide")
await wide.getByRole("tab", { name: "Brief" }).focus()
await wide.getByRole("button", { name: "No brief" }).click()
await at("Tides and timetables", "promise made", "Place", "Sources")
await wide.getByLabel("File with sources").setInputFiles({
  name: "literature.bib",
  mimeType: "text/plain",
  buffer:
    Buffer.from(`@article{a, author={Marlowe, Ida and van der Meer, Jan}, title={Hauling ropes in tidal water}, journal={Journal of Estuaries}, year=2019, volume=12, number=3, pages={12--34}}
@book{b, author={Sands, Ben}, title={Tides and people}, year=2001, publisher={Harbour Press}, address={Saltmarsh}}
@book{c, author={Caddow, Nell}, title={A winter on the chain}, year=2014, publisher={Harbour Press}, address={Saltmarsh}}`),
})
await wide.getByText("3 sources came in.").waitFor()
await wide.getByRole("combobox", { name: "Style" }).selectOption("chicago-fullnote-bibliography")
await wide.mouse.click(...(await middle(wide, "promise made")))
await wide.keyboard.press("End")
for (const name of ["Cite Marlowe", "Cite Sands"]) await wide.getByRole("button", { name }).click()
await wide.locator(".block.note", { hasText: "Tides and People" }).first().waitFor()
await wide.mouse.move(800, 400)
await wide.mouse.wheel(0, 420)
await shot(wide, "sources-wide")
await at("The first week", "Saturday", "Write", "Table")
await shot(wide, "tables-wide")
await at("What passengers ask, draft", "Take with you", "Check", "Tidy")
await wide.getByRole("button", { name: /^Lists typed by hand/ }).click()
await shot(wide, "check-wide")
await wide.goto(`${address}/starters`)
await wide.getByText("Booklet").waitFor()
await wide.waitForFunction(() => [...document.images].every((i) => i.complete && i.naturalWidth))
await shot(wide, "starters-wide")

const dark = await (
  await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    locale: "en-GB",
    colorScheme: "dark",
  })
).newPage()
await dark.goto(address)
await dark.getByText("Tides and timetables", { exact: true }).tap()
await middle(dark, "promise made")
await shot(dark, "desk-phone-dark")

// A change that the server does not take: here a word stands for what does not fit.
await wide.routeWebSocket(/\/live\//, (ws) => {
  const live = ws.connectToServer()
  ws.onMessage((message) => {
    const own = JSON.parse(String(message))
    const at = own.steps.findIndex((step) => JSON.stringify(step).includes("larger bell"))
    if (at === 0)
      ws.send(JSON.stringify({ type: "refused", reason: "A change does not fit this document: it has a mark twice." }))
    else live.send(at < 0 ? message : JSON.stringify({ ...own, steps: own.steps.slice(0, at) }))
  })
})
await at("Letter to the harbour master", "Dear Captain", "Write", "Paragraph")
await wide.mouse.click(...(await middle(wide, "Dear Captain")))
await wide.keyboard.press("End")
await wide.evaluate(() => {
  const clipboardData = new DataTransfer()
  clipboardData.setData("text/plain", " The Trust asks for a larger bell at the slipway, and offers to haul it there.")
  document.activeElement.dispatchEvent(new ClipboardEvent("paste", { clipboardData, bubbles: true, cancelable: true }))
})
await wide.getByRole("alertdialog").waitFor()
await shot(wide, "aside-wide")

await browser.close()
server.kill()
