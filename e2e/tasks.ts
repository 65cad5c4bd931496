/** Common tasks, with the presses that each takes, on a wide screen and on a phone. Typing and going to the text do not count. */
import type { Locator } from "@playwright/test"
import { document, p, paragraph } from "@biblon/core/document"
import { expect, test as base, type DeskPage } from "./desk"

class Presses {
  count = 0
  constructor(
    readonly desk: DeskPage,
    readonly phone: boolean,
  ) {}
  async on(target: Locator): Promise<void> {
    this.count++
    await (this.phone ? target.tap() : target.click())
  }
  async stage(name: string): Promise<void> {
    const strip = this.desk.page.getByRole("toolbar", { name: "Tools for the text" })
    if (this.phone && (await strip.isVisible())) {
      // With the keyboard up, the strip leads to the trays that are asked for most.
      if (name === "Write") return this.on(strip.getByRole("button", { name: /^Letters:/ }))
      if (name === "Structure") return this.on(strip.getByRole("button", { name: /^Style:/ }))
      await this.on(this.desk.page.getByRole("button", { name: "Put the keyboard away" }))
    }
    await this.on(this.desk.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name, exact: true }))
  }
  /** A tool of the bars, which on a phone is found by its name. */
  async tool(name: string | RegExp, typed: string): Promise<void> {
    if (!this.phone) return this.button(name)
    await this.button("Find a tool")
    await this.desk.type(typed)
    await this.desk.press("Enter")
  }
  async selectWord(word: string): Promise<void> {
    if (!this.phone) return this.desk.selectWord(word)
    const { left, right, middle } = await this.desk.where(word)
    const at = [(left + right) / 2, middle] as const
    // On a busy machine the two taps may come too far apart for one press of two.
    await expect(async () => {
      await this.desk.page.touchscreen.tap(...at)
      await this.desk.page.touchscreen.tap(...at)
      await this.desk.expectSelected(word, 3000)
    }).toPass()
  }
  async button(name: string | RegExp): Promise<void> {
    await this.on(this.desk.page.getByRole("button", { name }).first())
  }
  async page(name: string): Promise<void> {
    await this.on(this.desk.page.getByRole("tab", { name, exact: true }))
  }
  async choose(label: string, value: string): Promise<void> {
    this.count += 2
    await this.desk.page.getByRole("combobox", { name: label, exact: true }).selectOption(value)
  }
}

const text = document([
  paragraph("heading1", ["Tides"]),
  p("The ferry crosses at slack water."),
  paragraph("heading2", ["Fares"]),
  p("Nobody pays."),
]).toJSON() as unknown

const test = base.extend<{ press: Presses }>({
  press: async ({ desk, hasTouch }, use) => {
    await desk.open(await desk.server.create(text))
    await (hasTouch ? desk.enterByTap() : desk.enter())
    await expect(desk.field).toBeFocused()
    await desk.press("Control+End")
    await use(new Presses(desk, hasTouch === true))
  },
})

const body = (press: Presses) => press.selectWord("slack")
const heading = (press: Presses) => press.selectWord("Tides")
const css = (desk: DeskPage, text: string, property: string) =>
  desk.page
    .locator(".canvas .run", { hasText: text })
    .first()
    .evaluate((run, name) => getComputedStyle(run).getPropertyValue(name), property)
const left = async (desk: DeskPage, text: string) => (await desk.where(text)).left

interface Task {
  what: string
  do: (press: Presses, desk: DeskPage) => Promise<void>
  done: (desk: DeskPage) => Promise<void>
}
const format = async (desk: DeskPage, text: string) =>
  (await desk.stored()).find((own) => own.text.includes(text))?.format
const marks = async (desk: DeskPage, text: string) =>
  (await desk.stored()).flatMap(({ runs }) => runs).find((run) => run.text.includes(text))?.marks

// prettier-ignore
const tasks: Task[] = [
  { what: "all headings blue", do: async (press) => { await heading(press); await press.stage("Write"); await press.button("All headings"); await press.button("Deep water") }, done: async (desk) => { for (const text of ["Tides", "Fares"]) await expect.poll(() => css(desk, text, "color")).toBe("rgb(31, 79, 122)") } },
  { what: "double-space everything", do: async (press, desk) => { await body(press); await press.stage("Write"); await press.page("Paragraph"); await press.button("All Body"); await press.on(desk.page.getByRole("group", { name: "Line spacing" }).getByRole("button", { name: "2", exact: true })) }, done: async (desk) => { await expect.poll(async () => (await desk.server.styles(desk.id)).body?.paragraph.lineSpacing).toEqual({ rule: "multiple", value: 2 }) } },
  { what: "indent the first line of all paragraphs", do: async (press) => { await body(press); await press.stage("Write"); await press.page("Paragraph"); await press.button("All Body"); await press.button("First line: more") }, done: async (desk) => { await expect.poll(async () => (await left(desk, "Nobody")) - (await left(desk, "Tides"))).toBeGreaterThan(5) } },
  { what: "a dotted line from word to price", do: async (press, desk) => { await desk.press("Control+End", "Enter"); await press.stage("Write"); await press.page("Paragraph"); await press.on(desk.page.getByText("Indents and tab stops")); await press.button("Price line: dots to the right edge"); await desk.type("Adult\t2.00") }, done: async (desk) => { expect((await desk.stored()).at(-1)?.text).toBe("Adult\t2.00"); await expect(desk.page.locator(".canvas svg.rule")).toHaveCount(1) } },
  { what: "centre a title", do: async (press) => { await heading(press); await press.button("Centre") }, done: async (desk) => { expect(await format(desk, "Tides")).toEqual({ align: "center" }) } },
  { what: "a word bold", do: async (press) => { await body(press); await press.button(/^Bold/) }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({ bold: true }) } },
  { what: "a word in another typeface", do: async (press, desk) => { await body(press); await press.stage("Write"); await press.button(/^Typeface/); await press.on(desk.page.getByRole("option", { name: "Lora", exact: true }).last()) }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({ family: "Lora" }) } },
  { what: "a word larger", do: async (press) => { await body(press); await press.stage("Write"); await press.button("Size: more") }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({ size: 14 }) } },
  { what: "a word highlighted", do: async (press) => { await body(press); await press.stage("Write"); await press.button("Sand") }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({ highlight: "#f4e3b5" }) } },
  { what: "a list with marks", do: async (press) => { await body(press); await press.stage("Write"); await press.page("List"); await press.button("Dots and dashes") }, done: async (desk) => { expect((await format(desk, "slack"))?.list).toMatchObject({ definition: "marks" }) } },
  { what: "a numbered list", do: async (press) => { await body(press); await press.stage("Write"); await press.page("List"); await press.button("1.  a)  i.") }, done: async (desk) => { expect((await format(desk, "slack"))?.list).toMatchObject({ definition: "numbers" }) } },
  { what: "numbered headings", do: async (press) => { await press.stage("Structure"); await press.page("Outline"); await press.choose("Numbers of headings", "chapters") }, done: async (desk) => { await desk.expectShown("1Tides", "The ferry crosses at slack water.", "1.1Fares", "Nobody pays.") } },
  { what: "a quotation", do: async (press) => { await body(press); await press.stage("Structure"); await press.button("Quotation") }, done: async (desk) => { expect((await desk.stored())[1]?.style).toBe("quotation") } },
  { what: "another set of faces and colours", do: async (press) => { await press.stage("Structure"); await press.page("Sets"); await press.on(press.desk.page.getByRole("option", { name: "Lantern" })) }, done: async (desk) => { await expect.poll(() => css(desk, "slack", "font-family")).toContain("Garamond") } },
  { what: "a new sheet", do: async (press) => { await body(press); await press.stage("Place"); await press.button(/^New sheet/) }, done: async (desk) => { expect((await desk.stored()).filter(({ format }) => format?.breakBefore)).toHaveLength(1) } },
  { what: "today's date", do: async (press, desk) => { await desk.press("Control+End"); await press.stage("Place"); await press.button(/^\d{1,2} \p{L}+ \d{4}/u) }, done: async (desk) => { expect((await desk.stored()).at(-1)?.text).toMatch(/pays\.\d{1,2} \p{L}+ \d{4}$/u) } },
  { what: "a word that leads to a page of the web", do: async (press, desk) => { await body(press); await press.button("Link"); await desk.type("ferry.example"); await press.on(desk.page.getByRole("button", { name: "Link", exact: true }).last()) }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({ link: "https://ferry.example" }) } },
  { what: "a word replaced everywhere", do: async (press, desk) => { await press.tool(/^Find and replace/, "find and replace"); await desk.type("ferry"); await press.on(desk.page.getByRole("textbox", { name: "Replace with" })); await desk.type("boat"); await press.button("Replace all") }, done: async (desk) => { expect((await desk.stored())[1]?.text).toContain("boat") } },
  { what: "one earlier change taken back", do: async (press, desk) => { await body(press); await desk.press("Control+b", "Control+End"); await desk.type(" Ever."); await press.tool(/^What was done/, "what was done"); await press.button(/Bold on “slack”/); await press.button(/Take back/) }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({}) } },
  { what: "a drop cap", do: async (press, desk) => { await body(press); await press.stage("Write"); await press.page("Paragraph"); await press.on(desk.page.getByText("Drop cap and line across")); await press.on(desk.page.getByRole("switch", { name: "Drop cap" })) }, done: async (desk) => { expect(await format(desk, "slack")).toEqual({ dropCap: { lines: 3, distance: 6, family: null } }) } },
  { what: "a frame round a paragraph", do: async (press, desk) => { await body(press); await press.stage("Write"); await press.page("Paragraph"); await press.on(desk.page.getByText("Borders and background")); press.count++; await desk.page.getByRole("combobox", { name: "Line", exact: true }).selectOption("solid") }, done: async (desk) => { expect(Object.keys((await format(desk, "slack"))?.borders ?? {})).toEqual(["top", "right", "bottom", "left"]) } },
  { what: "the look of one text on another", do: async (press, desk) => { await heading(press); await press.button("Find a tool"); await desk.type("copy format"); await desk.press("Enter"); await press.selectWord("slack") }, done: async (desk) => { expect((await desk.stored())[1]?.style).toBe("body") } },
  { what: "all formatting by hand taken off", do: async (press, desk) => { await body(press); await desk.press("Control+b", "Control+i"); await press.stage("Write"); await press.button(/^Clear letters/) }, done: async (desk) => { expect(await marks(desk, "slack")).toEqual({}) } },
  { what: "the number of words", do: async (press, desk) => { await press.button("Find a tool"); await desk.type("word count"); await desk.press("Enter") }, done: async (desk) => { await expect(desk.page.getByRole("region", { name: "Check" })).toContainText("Words10") } },
  { what: "the document named", do: async (press, desk) => { await press.button(/^Name:/); await desk.type("Fares"); await desk.press("Enter") }, done: async (desk) => { await expect(desk.page.getByRole("button", { name: /^Name: Fares/ })).toBeVisible() } },
]

/** Declares each task as a test. */
export function declareTasks(most: number, but: readonly string[] = []): void {
  for (const { what, do: act, done } of tasks.filter((task) => !but.includes(task.what)))
    test(`${what}: at most ${most} presses`, async ({ desk, press }) => {
      await act(press, desk)
      await done(desk)
      expect(press.count).toBeLessThanOrEqual(most)
    })
}
