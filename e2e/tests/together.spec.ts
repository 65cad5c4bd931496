/** Styles of long documents, and of documents that two people have open. */
import { journeyOptions } from "../../scripts/chromium.mjs"
import { DeskPage, expect, test } from "../desk"

// Here tabs have a process each, as with people.
test.use({ launchOptions: journeyOptions })

/** Height of the letters of the first heading that can be seen, in pixels. */
const letterHeight = (desk: DeskPage, text: string) =>
  desk.page.evaluate((wanted) => {
    const run = [...document.querySelectorAll<HTMLElement>(".canvas .run")].find((own) =>
      own.textContent?.includes(wanted),
    )
    return run ? Number.parseFloat(getComputedStyle(run).fontSize) : 0
  }, text)

test("a change of a style shows on the sheets in sight, far down in a long document, and is one undo", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Tides and timetables")
  await expect(page.getByRole("contentinfo")).toContainText("Sheet 1 of 12")
  await desk.press("Control+End", ...Array<string>(8).fill("PageUp"))
  await expect(page.getByRole("contentinfo")).toContainText(/Sheet [5-9] of/)
  await expect(desk.caret).toBeVisible()
  // A long word on the line of the caret.
  const words = await desk.caret.evaluate((caret) => {
    const { top, bottom } = caret.getBoundingClientRect()
    const runs = [...document.querySelectorAll(".canvas .run")].filter(
      (run) => run.getBoundingClientRect().top < bottom && run.getBoundingClientRect().bottom > top,
    )
    const all = document.querySelector(".canvas")!.textContent!
    const once = runs
      .flatMap((run) => run.textContent!.split(/[^\p{L}]+/u))
      .filter((word) => word.length > 3 && all.split(word).length === 2)
    return once.sort((a, b) => b.length - a.length)[0]!
  })
  const before = await letterHeight(desk, words)
  // The caret is away for a moment while its sheet is made anew.
  const line = async () => (await desk.caret.boundingBox())?.y ?? NaN
  const height = await line()
  const tray = await desk.openPage("Structure", "Styles")
  await tray.getByRole("button", { name: "Edit the style Body" }).click()
  const size = tray.getByRole("textbox", { name: "Size", exact: true })
  await size.fill("20")
  await size.press("Enter")
  await expect.poll(async () => (await letterHeight(desk, words)) / before).toBeGreaterThan(1.4)
  // Everything above has moved; what one reads stays where it is.
  await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
  await expect.poll(async () => Math.abs((await line()) - height)).toBeLessThan(4)
  await desk.saved()
  await page.getByRole("button", { name: "Undo", exact: true }).click()
  await expect.poll(async () => (await letterHeight(desk, words)) / before).toBeCloseTo(1, 2)
  await expect.poll(async () => Math.abs((await line()) - height)).toBeLessThan(4)
})

test("two people change two styles, and two properties of one paragraph, while they do not hear of each other: both stay", async ({
  desk,
  context,
  server,
}) => {
  await desk.blank()
  await desk.type("Tide board")
  await desk.saved()
  const other = new DeskPage(await context.newPage(), server)
  await other.open(desk.id)
  await other.expectShown("Tide board")
  const resize = async (who: DeskPage, style: string, size: string) => {
    await who.page.bringToFront()
    const tray = await who.openPage("Structure", "Styles")
    await tray.getByRole("button", { name: `Edit the style ${style}` }).click()
    const field = tray.getByRole("textbox", { name: "Size", exact: true })
    await field.fill(size)
    await field.press("Enter")
    await tray.getByRole("button", { name: "Back to the styles" }).click()
  }
  const format = async (who: DeskPage, tool: string) => {
    const tray = await who.openPage("Write", "Paragraph")
    await tray.getByRole("button", { name: tool, exact: true }).click()
  }
  await context.setOffline(true)
  await resize(desk, "Title", "40")
  await format(desk, "Right")
  await resize(other, "Heading 1", "30")
  await format(other, "Indent")
  await context.setOffline(false)
  await desk.page.bringToFront()
  await desk.saved()
  await other.page.bringToFront()
  await other.saved()
  const content = (await (await fetch(`${server.address}/api/documents/${desk.id}/content`)).json()) as {
    attrs: { styles: { styles: Record<string, { letters: { size?: number } }> } }
  }
  expect([content.attrs.styles.styles.title?.letters.size, content.attrs.styles.styles.heading1?.letters.size]).toEqual(
    [40, 30],
  )
  expect((await desk.stored())[0]!.format).toMatchObject({ align: "right", indentLeft: expect.any(Number) })
})

test("what is selected by dragging begins where it was begun, whatever somebody else writes or takes away meanwhile", async ({
  desk,
  page,
  context,
  server,
}) => {
  await desk.blank()
  await desk.type("The chain lies on the bed of the river.")
  await desk.saved()
  const other = new DeskPage(await context.newPage(), server)
  await other.open(desk.id)
  await page.bringToFront()
  const press = async (from: string, to: string) => {
    const [{ left, middle }, end] = [await desk.where(from), await desk.where(to)]
    await page.mouse.move(left, middle)
    await page.mouse.down()
    await page.mouse.move(end.right, end.middle, { steps: 3 })
  }
  const meanwhile = async (...act: (() => Promise<void>)[]) => {
    await other.page.bringToFront()
    for (const own of act) await own()
    await other.saved()
    await page.bringToFront()
  }
  await press("chain", "lies")
  await desk.expectSelected("chain lies")
  await meanwhile(
    () => other.press("Control+Home"),
    () => other.type("It is known: "),
  )
  await desk.expectShown("It is known: The chain lies on the bed of the river.")
  const { right, middle } = await desk.where("bed")
  await page.mouse.move(right, middle, { steps: 3 })
  await page.mouse.up()
  await desk.expectSelected("chain lies on the bed")

  await desk.press("Control+Home")
  await press("river", "river")
  await meanwhile(
    () => other.press("Control+a"),
    () => other.type("Gone"),
  )
  await desk.expectShown("Gone")
  const gone = await desk.where("Gone")
  await page.mouse.move(gone.left, gone.middle, { steps: 3 })
  await page.mouse.up()
  await desk.type("All ")
  await expect.poll(async () => (await desk.shown()).join("")).toContain("All")
})

test("who writes in a head that goes because somebody else takes away the text goes on in the text", async ({
  desk,
  page,
  context,
  server,
}) => {
  await desk.openCopy("Tides and timetables")
  await page.locator(".block.header").first().dblclick()
  await desk.press("End")
  await desk.type("Q")
  await expect(page.locator(".block.header").first()).toContainText("Q")
  const other = new DeskPage(await context.newPage(), server)
  await other.open(desk.id)
  await other.enter()
  await other.press("Control+a")
  await other.type("Short.")
  await other.saved()
  await page.bringToFront()
  await expect(page.locator(".block.header")).toHaveCount(0)
  await desk.press("ArrowDown")
  await desk.type("Slack water")
  await expect.poll(async () => (await desk.shown()).join()).toContain("Slack water")
  await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
})

test("whole paragraphs pasted over everything leave the caret behind them, though heads and notes follow", async ({
  desk,
}) => {
  await desk.openCopy("Tides and timetables")
  await desk.enter()
  await desk.press("Control+a")
  await desk.paste({ "text/html": "<p>Ebb</p><p>Flow</p>" })
  await desk.expectShown("Ebb", "Flow")
  await desk.press("ArrowDown")
  await desk.type(" tide")
  await desk.expectShown("Ebb", "Flow tide")
})
