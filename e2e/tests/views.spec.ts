import { expect, test } from "../desk"

test("zoom by buttons and wheel, whole sheet and side by side, remembered for the document", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  const sheet = () => desk.firstSheet.boundingBox()
  const start = (await sheet())!
  await page.mouse.move(600, 400)
  await page.keyboard.down("Control")
  await page.mouse.wheel(0, -200)
  await page.keyboard.up("Control")
  await expect.poll(async () => (await sheet())!.width).toBeGreaterThan(start.width * 1.3)
  const zoomed = (await sheet())!.width
  await page.reload()
  await expect.poll(async () => (await sheet())?.width).toBeCloseTo(zoomed, 0)
  await page.getByRole("button", { name: "Whole", exact: true }).click()
  await expect.poll(async () => (await sheet())!.height).toBeLessThan(720)
  await page.getByRole("button", { name: "Side by side" }).click()
  const second = page.locator(".sheet").nth(1)
  await expect.poll(async () => (await second.boundingBox())!.y).toBe((await sheet())!.y)
  expect((await second.boundingBox())!.x).toBeGreaterThan((await sheet())!.x + (await sheet())!.width)
  // One can write there as anywhere.
  await page.mouse.click((await second.boundingBox())!.x + 300, (await second.boundingBox())!.y + 200)
  await expect(page.getByText(/^Sheet 2 of/)).toBeVisible()
})

test("wherever one jumps, the sheets in sight are whole at once, and those beside them soon are", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Tides and timetables")
  await desk.saved()
  const { atOnce, later } = await page.evaluate(async () => {
    const main = document.querySelector<HTMLElement>("[role=main]")!
    const frames = async (count: number) => {
      for (let i = 0; i < count; i++) await new Promise(requestAnimationFrame)
    }
    const { top, bottom } = main.getBoundingClientRect()
    const said = (inSight: boolean) =>
      [...main.querySelectorAll(".sheet")]
        .filter((sheet) => {
          const box = sheet.getBoundingClientRect()
          return !inSight || (box.bottom > top && box.top < bottom)
        })
        .map((sheet) => `${sheet.getAttribute("aria-label")}: ${sheet.textContent}`)
    const [atOnce, later]: string[][] = [[], []]
    for (const y of [6000, 1500, 9500, 3500]) {
      main.scrollTo(0, y)
      await frames(2)
      while (main.getAttribute("aria-busy") === "true") await frames(1)
      atOnce!.push(...said(true))
      await frames(60)
      later!.push(...said(false))
    }
    return { atOnce: atOnce!, later: later! }
  })
  expect(atOnce.length).toBeGreaterThanOrEqual(4)
  // More than its number stands on each.
  expect(atOnce.filter((text) => text.length < 200)).toEqual([])
  expect(later).toEqual(expect.arrayContaining(atOnce))
  // However it came into sight or beside it, a sheet says the same.
  expect(new Set(later).size).toBe(new Set(later.map((text) => text.split(":")[0])).size)
})

test("reading view turns whole sheets, two side by side, and changes nothing", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  const before = await desk.server.text(desk.id)
  await page.getByRole("button", { name: "Reading" }).click()
  const bar = page.getByRole("toolbar", { name: "Reading" })
  await expect(bar.getByRole("status")).toHaveText(/^Sheets 1 and 2 of 12$/)
  await page.keyboard.press("ArrowRight")
  await expect(bar.getByRole("status")).toHaveText(/^Sheets 3 and 4/)
  await page.keyboard.type("xyz")
  for (const key of ["Control+a", "Control+b", "Delete", "Control+v"]) await page.keyboard.press(key)
  await page.keyboard.press("End")
  await expect(bar.getByRole("status")).toHaveText(/^Sheets 11 and 12/)
  await expect(bar.getByRole("button", { name: "Next sheet" })).toBeDisabled()
  await page.mouse.click(100, 300)
  await expect(bar.getByRole("status")).toHaveText(/^Sheets 9 and 10/)
  const box = (await page.getByRole("group", { name: /^Sheet 9 / }).boundingBox())!
  expect(box.y).toBeGreaterThanOrEqual(0)
  expect(box.y + box.height).toBeLessThanOrEqual(744)
  await page.keyboard.press("Escape")
  await expect(page.getByRole("navigation", { name: "Bench" })).toBeVisible()
  expect(await desk.server.text(desk.id)).toBe(before)
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled()
})

test("marks show spaces, tabs, breaks and ends of paragraphs", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("One two")
  await desk.press("Shift+Enter")
  await desk.type("Three")
  await desk.press("Control+k")
  await page.keyboard.type("show marks")
  await page.keyboard.press("Enter")
  await expect(page.locator(".sign")).toHaveText(["·", "↵", "¶"])
  // They are for the eye: the text is as it was.
  expect((await desk.stored())[0]?.text).toBe("One two\nThree")
})

test("symbols by name and category, the last ones first; dates fixed and kept up to date; a new sheet", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("A ")
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).click()
  const tray = page.getByRole("region", { name: "Place" })
  await tray.getByLabel("Find a symbol").fill("greek small letter omega")
  await tray.getByRole("button", { name: "greek small letter omega", exact: true }).click()
  await tray.getByLabel("Find a symbol").fill("2192")
  await tray.getByRole("button", { name: "rightwards arrow", exact: true }).click()
  await tray.getByLabel("Find a symbol").fill("")
  await expect(tray.getByRole("group", { name: "Symbols" }).first().getByRole("button")).toHaveText(["→", "ω"])
  await tray.getByLabel("Category").selectOption("Currency")
  await tray.getByRole("button", { name: "pound sign" }).click()
  await desk.expectShown("A ω→£")
  const today = new Intl.DateTimeFormat("en-GB", { dateStyle: "long" }).format(new Date())
  await desk.press("Enter")
  await tray.getByRole("button", { name: today, exact: true }).click()
  await tray.getByRole("button", { name: "Kept up to date" }).click()
  await desk.press("Enter")
  await tray.getByRole("button", { name: today, exact: true }).click()
  await desk.expectShown("A ω→£", today, today)
  expect((await desk.stored()).map((p) => p.text.length)).toEqual([5, today.length, 1])
  await desk.press("Backspace")
  await desk.expectShown("A ω→£", today, "")
  await tray.getByRole("button", { name: "New sheet" }).click()
  await desk.type("Next")
  await expect(page.getByText(/^Sheet 2 of 2$/)).toBeVisible()
})
