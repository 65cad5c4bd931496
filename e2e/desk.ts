/** What tests do at the desk, in the words of a person; and the fixtures that they start from. */
import { mkdtempSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import AxeBuilder from "@axe-core/playwright"
import { test as plain, expect, type Browser, type BrowserContext, type Locator, type Page } from "@playwright/test"
import { copiedFrom, pasteInto } from "./clipboard"
import { TestServer } from "./server"
import { beLateAsAsked } from "./late"

export { expect }

/** The automated check of accessibility on what is shown now, and that words can be read to their end. */
export async function expectAccessible(page: Page): Promise<void> {
  // There are no frames here whose findings would have to be put together on a page of their own.
  const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ["violations"] })
  expect((await axe.analyze()).violations.map((v) => `${v.id}: ${v.nodes[0]?.html}`)).toEqual([])
  expect(await page.evaluate(cutOff), "words on what is pressed that are cut off").toEqual([])
}

/** Short words on buttons and tabs that do not fit there; longer ones may be a name or the beginning of a text. */
function cutOff(): string[] {
  const pressed = document.querySelectorAll("button, [role=button], [role=tab]")
  return [...pressed].flatMap((button) =>
    [button, ...button.querySelectorAll("*")].flatMap((part) => {
      const text = part.textContent.trim()
      const hides = getComputedStyle(part).overflowX === "hidden" && part.clientWidth > 1
      return text.length < 25 && hides && part.scrollWidth > part.clientWidth + 1 ? [text] : []
    }),
  )
}

/** One profile of the browser for many journeys: each finds it empty, but the program need not be fetched and read anew. */
class Profile {
  private context: BrowserContext | null = null
  private keeper: Page | null = null

  async open(browser: Browser, server: string): Promise<BrowserContext> {
    this.context ??= await browser.newContext({ permissions: ["clipboard-read", "clipboard-write"] })
    if (!this.keeper) {
      this.keeper = await this.context.newPage()
      // Its process stays, with all that it has read.
      await this.keeper.goto(`${server}/sign.svg`)
    }
    return this.context
  }

  /** Closes all pages, and forgets what they kept of a server. */
  async clear(origin: string): Promise<void> {
    const { context, keeper } = this
    if (!context || !keeper) return
    for (const page of context.pages()) if (page !== keeper) await page.close()
    const session = await context.newCDPSession(keeper)
    const storageTypes = "cookies,local_storage,indexeddb,cache_storage,service_workers,file_systems"
    await session.send("Storage.clearDataForOrigin", { origin, storageTypes })
    await session.detach()
  }

  async close(): Promise<void> {
    await this.context?.close()
  }
}

interface Fixtures {
  /** A server with the demo documents. */
  server: TestServer
  profile: Profile
}

/** Nothing on a page may fail unheard. */
const base = plain.extend({
  page: async ({ page }, use) => {
    const errors: string[] = []
    page.on("pageerror", (error) => errors.push(error.stack ?? error.message))
    await use(page)
    expect(errors, "errors that nothing on the page has caught").toEqual([])
  },
})

export const test = base.extend<{ desk: DeskPage }, Fixtures>({
  profile: [
    async ({}, use) => {
      const profile = new Profile()
      await use(profile)
      await profile.close()
    },
    { scope: "worker" },
  ],
  context: async ({ browser, profile, server }, use) => {
    await use(await profile.open(browser, server.address))
    await profile.clear(server.address)
  },
  server: [
    async ({}, use) => {
      const server = new TestServer()
      await server.start(true)
      await use(server)
      await server.stop()
    },
    { scope: "worker" },
  ],
  desk: async ({ page, server }, use) => {
    await beLateAsAsked(page)
    await use(new DeskPage(page, server))
  },
})

/** For what ill-treats its server: each test has one of its own. */
export const testOnOwnServer = base.extend<{ ownServer: TestServer }>({
  ownServer: async ({}, use) => {
    const server = new TestServer()
    await server.start()
    await use(server)
    await server.stop()
  },
})

export class DeskPage {
  id = ""

  constructor(
    readonly page: Page,
    readonly server: TestServer,
  ) {}

  /** A new blank document, opened and ready to type in. */
  async blank(): Promise<void> {
    await this.open(await this.server.create())
    await this.enter()
  }

  /** Goes into the text by a press on the first sheet. */
  async enter(): Promise<void> {
    await this.firstSheet.click({ position: { x: 120, y: 120 } })
    await expect(this.field).toBeFocused()
  }

  /** The same on a phone. */
  async blankByTap(): Promise<void> {
    await this.open(await this.server.create())
    await this.enterByTap()
  }

  async enterByTap(): Promise<void> {
    await this.page.locator(".canvas").tap({ position: { x: 60, y: 40 } })
  }

  async open(id: string): Promise<void> {
    this.id = id
    await this.page.goto(`${this.server.address}/d/${id}`)
    await expect(this.firstSheet).toBeVisible()
  }

  /** Opens one of the demo documents by its name. */
  async openNamed(name: string): Promise<void> {
    const list = (await (await fetch(`${this.server.address}/api/documents`)).json()) as {
      id: string
      name: string | null
    }[]
    await this.open(list.find((d) => d.name === name)?.id ?? "")
    await expect(this.page.locator(".run").first()).toBeVisible()
  }

  /** Opens a copy of one of them, in which a journey may do what it likes. */
  async openCopy(name: string): Promise<void> {
    await this.openNamed(name)
    const copied = await fetch(`${this.server.address}/api/documents/${this.id}/copies`, { method: "POST" })
    await this.open(((await copied.json()) as { id: string }).id)
    await expect(this.page.locator(".run").first()).toBeVisible()
  }

  get firstSheet(): Locator {
    return this.page.locator(".sheet").first()
  }
  get field(): Locator {
    return this.page.getByLabel("Text of the document")
  }
  get caret(): Locator {
    return this.page.locator(".caret")
  }
  get saving(): Locator {
    return this.page.getByTestId("saving")
  }

  /** Opens a tray of the bench at one of its pages. */
  async openPage(stage: string, name: string): Promise<Locator> {
    const button = this.page
      .getByRole("navigation", { name: "Bench" })
      .getByRole("button", { name: stage, exact: true })
    if ((await button.getAttribute("aria-expanded")) !== "true") await button.click()
    await this.page.getByRole("tab", { name, exact: true }).click()
    return this.page.getByRole("region", { name: stage, exact: true })
  }

  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text)
  }
  async press(...keys: string[]): Promise<void> {
    for (const key of keys) await this.page.keyboard.press(key)
  }

  /** Pastes what lies on the clipboard, by its media type; plain text comes as one change. */
  async paste(data: Readonly<Record<string, string>>): Promise<void> {
    await pasteInto(this.page, data)
  }

  /** The paragraphs that can be read on the sheets in sight. */
  async shown(): Promise<string[]> {
    return this.page
      .locator(".block")
      .evaluateAll((blocks) => blocks.map((b) => [...b.querySelectorAll(".line")].map((l) => l.textContent).join("")))
  }
  async expectShown(...paragraphs: string[]): Promise<void> {
    await expect.poll(() => this.shown()).toEqual(paragraphs)
  }

  /** Waits until the server has everything, and reads it there. */
  async stored() {
    await this.saved()
    return this.server.paragraphs(this.id)
  }
  /** Waits until the sheets show what was done last. @param timeout milliseconds, where more than a stroke was done */
  async settled(timeout?: number): Promise<void> {
    // What was done has to be taken in before the state that it leads to can be read.
    await this.page.evaluate(() => new Promise(requestAnimationFrame))
    // Also where a dialog hides it from those who cannot see.
    await expect(this.page.locator("[role=main]")).toHaveAttribute("aria-busy", "false", { timeout })
    await this.page.evaluate(async () => {
      for (let frame = 0; frame < 4; frame++) await new Promise(requestAnimationFrame)
    })
  }
  async saved(timeout?: number): Promise<void> {
    await this.settled(timeout)
    await expect(this.saving).toHaveText(/^Saved/, { timeout })
  }

  /** The PDF that a person saves, as a file. */
  async pdf(): Promise<string> {
    const button = this.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver" })
    await button.click()
    const [download] = await Promise.all([
      this.page.waitForEvent("download", { timeout: 60_000 }),
      this.page.getByRole("button", { name: /Save as PDF/ }).click(),
    ])
    const path = join(mkdtempSync(join(tmpdir(), "biblon-pdf-")), download.suggestedFilename())
    await download.saveAs(path)
    await button.click()
    await expect(this.page.getByRole("region", { name: "Deliver" })).toBeHidden()
    return path
  }

  /** @param timeout in milliseconds; left out for as long as all is waited for */
  async expectSelected(text: string, timeout?: number): Promise<void> {
    await expect.poll(() => this.selected(), timeout === undefined ? {} : { timeout }).toBe(text)
  }

  /** The text that is selected, by the browser's own copy. */
  async selected(): Promise<string> {
    return (await copiedFrom(this.page)).text
  }

  /** Where a piece of text stands on the screen: from its first to its last character. */
  async where(text: string): Promise<{ left: number; right: number; top: number; bottom: number; middle: number }> {
    const found = await this.page.waitForFunction((wanted) => {
      for (const run of document.querySelectorAll(".canvas .run")) {
        const at = run.textContent?.indexOf(wanted) ?? -1
        const node = [...run.childNodes].find((n) => n.nodeType === Node.TEXT_NODE)
        if (at < 0 || !node) continue
        const range = document.createRange()
        range.setStart(node, at)
        range.setEnd(node, at + wanted.length)
        const { left, right } = range.getBoundingClientRect()
        const { top, bottom } = range.getBoundingClientRect()
        return { left, right, top, bottom, middle: (top + bottom) / 2 }
      }
      return null
    }, text)
    return (await found.jsonValue()) as { left: number; right: number; top: number; bottom: number; middle: number }
  }

  async selectWord(word: string): Promise<void> {
    const { left, right, middle } = await this.where(word)
    await this.page.mouse.dblclick((left + right) / 2, middle)
  }
}
