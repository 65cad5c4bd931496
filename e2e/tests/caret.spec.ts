import { expect, test, type DeskPage } from "../desk"
import { hearLate } from "../late"

/** Distances between the caret and the edge of the glyph beside it, as the browser painted it, while the caret walks along lines. */
async function caretErrors(desk: DeskPage, steps: number, stride: number): Promise<number[]> {
  const errors: number[] = []
  for (let i = 0; i < steps; i += stride) {
    await desk.press(...Array.from({ length: stride }, () => "ArrowRight"))
    const error = await desk.page.evaluate(() => {
      const caret = document.querySelector(".caret")!.getBoundingClientRect()
      const field = document.querySelector<HTMLTextAreaElement>(".field")!
      const paragraph = field.value.slice(1, -1)
      const offset = field.selectionStart - 1
      const block = [...document.querySelectorAll(".block")].find(
        (b) => [...b.querySelectorAll(".line")].map((l) => l.textContent).join("") === paragraph,
      )!
      let at = 0
      for (const run of block.querySelectorAll(".run")) {
        const node = [...run.childNodes].find((n) => n.nodeType === Node.TEXT_NODE) as Text
        if (offset >= at && offset < at + node.length) {
          const range = document.createRange()
          range.setStart(node, offset - at)
          range.setEnd(node, offset - at + 1)
          const rect = range.getBoundingClientRect()
          return caret.left + 1 - rect.left + (caret.bottom < rect.top || caret.top > rect.bottom ? 1000 : 0)
        }
        at += node.length
      }
      return 0
    })
    errors.push(Math.abs(error))
  }
  return errors
}

for (const zoom of [1, 1.15 ** 3, 1.15 ** -3])
  test(`the caret stands where the glyphs are, in justified text of several faces, at ${Math.round(zoom * 100)} % of the fitted size`, async ({
    desk,
    page,
  }) => {
    await desk.blank()
    await desk.openPage("Write", "Paragraph")
    await page.getByRole("button", { name: "Justify" }).click()
    await desk.type("AVATAR To We office efficient flow naïve Привет ")
    await desk.press("Control+b")
    await desk.type("The Trust has now completed the survey of the east slipway, ")
    await desk.press("Control+i")
    await desk.type("and writes to apply for the mooring rights that the ferry will need ")
    await desk.press("Control+b", "Control+i")
    await desk.type("when trials begin in the spring, weather and tide permitting, as they will.")
    const name = zoom > 1 ? "Larger view" : "Smaller view"
    for (let i = 0; i < Math.abs(Math.round(Math.log(zoom) / Math.log(1.15))); i++)
      await page.getByRole("button", { name }).click()
    await desk.press("Control+Home")
    await desk.saved()
    await page.evaluate(() => document.fonts.ready)
    // Zoomed, what may differ is the scale: each third place tells.
    const errors = await caretErrors(desk, 201, zoom === 1 ? 1 : 3)
    expect(Math.max(...errors)).toBeLessThan(0.5)
  })

test("flow view re-wraps the text and keeps the place", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  await desk.press("Escape")
  const { left, middle } = await desk.where("promise made")
  await page.mouse.click(left, middle)
  for (let i = 0; i < 5; i++) await desk.press("PageDown")
  // Screenfuls that wait for their sheet are through.
  await expect(page.getByRole("main")).toHaveAttribute("aria-busy", "false")
  const before = await desk.field.inputValue()
  await page.getByRole("button", { name: "Flow" }).click()
  await expect(page.locator(".canvas.flow")).toBeVisible()
  await expect(desk.caret).toBeInViewport()
  expect(await desk.field.inputValue()).toBe(before)
  await page.getByRole("button", { name: "Sheets" }).click()
  await expect(page.getByText(/^Sheet \d+ of/)).toBeVisible()
  await expect(desk.caret).toBeInViewport()
})

test("opening a tray and zooming keep the caret in sight", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  const { left, middle } = await desk.where("promise made")
  await page.mouse.click(left, middle)
  for (let i = 0; i < 4; i++) await desk.press("PageDown")
  await page.getByRole("button", { name: "Structure" }).click()
  await expect(desk.caret).toBeInViewport()
  for (let i = 0; i < 5; i++) {
    await page.getByRole("button", { name: "Larger view" }).click()
    await expect(desk.caret).toBeInViewport()
  }
})

test("who presses while the sheets are behind means what is seen there, and what is gone to comes into sight", async ({
  desk,
  page,
}) => {
  await hearLate(page, 700)
  await desk.blank()
  const lines = ["One tide", "Two bells", "Three ferries"]
  for (const line of lines) {
    await desk.type(line)
    await desk.press("Enter")
  }
  await desk.settled()
  const { left, middle } = await desk.where("bells")
  await desk.press("Control+Home", "Enter", "Enter")
  await page.mouse.click(left, middle)
  await desk.type("brass ")
  await desk.settled()
  expect((await desk.stored()).map(({ text }) => text)).toEqual([
    "",
    "",
    "One tide",
    "Two brass bells",
    "Three ferries",
    "",
  ])
  await desk.expectShown("", "", "One tide", "Two brass bells", "Three ferries", "")
})

test("heads are seen on sheets alone: in flow the caret is in the text, also when what was written in a head is taken back", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Body text.")
  const tray = await desk.openPage("Sheet", "Head, foot")
  await tray.getByRole("button", { name: "Write the head" }).click()
  await desk.type("Minutes")
  await page.getByRole("contentinfo").getByRole("button", { name: "Flow" }).click()
  await desk.field.focus()
  await desk.press("Home")
  await desk.type("The ")
  await desk.expectShown("The Body text.")
  await desk.press("Control+z", "Control+z")
  await desk.type("One ")
  await desk.expectShown("One Body text.")
  expect((await desk.stored()).map(({ text }) => text)).toEqual(["One Body text."])
})
