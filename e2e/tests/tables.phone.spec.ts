import { expect, expectAccessible, test } from "../desk"

test("on a phone a table is swept in with a finger, its rails select and add", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("Actions")
  await desk.press("Enter")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).tap()
  const grid = page.getByRole("button", { name: /^Table of/ })
  const box = (await grid.boundingBox())!
  const session = await page.context().newCDPSession(page)
  const touch = async (type: string, x: number, y: number) => {
    await session.send("Input.dispatchTouchEvent", {
      type: type as "touchStart",
      touchPoints: type === "touchEnd" ? [] : [{ x, y }],
    })
  }
  await touch("touchStart", box.x + 10, box.y + 10)
  await touch("touchMove", box.x + box.width * 0.2, box.y + box.height * 0.2)
  await touch("touchMove", box.x + box.width * 0.24, box.y + box.height * 0.24)
  await expect(page.getByText("2 × 2", { exact: true })).toBeVisible()
  await touch("touchEnd", 0, 0)
  await expect(page.locator("[role=cell], [role=columnheader]")).toHaveCount(4)
  await desk.type("Tide")
  await desk.press("Tab")
  await desk.type("Hour")
  await page.getByRole("button", { name: "Column 2" }).tap()
  await expect(page.getByRole("button", { name: "Column 2" })).toHaveAttribute("aria-pressed", "true")
  await page.getByRole("button", { name: "Add a column at the end" }).tap()
  await expect(page.locator("[role=cell], [role=columnheader]")).toHaveCount(6)
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Write" }).tap()
  await expect(page.getByRole("tab", { name: "Table" })).toHaveAttribute("aria-selected", "true")
  await page.getByRole("button", { name: "Timetable" }).tap()
  await page.getByRole("button", { name: "Row below" }).tap()
  await expect(page.locator("[role=row]")).toHaveCount(3)
  await page.getByRole("button", { name: "Ground, lines" }).tap()
  await page.getByRole("button", { name: "Rises" }).tap()
  const turned = page.getByRole("button", { name: "Rises" })
  await expect(turned).toHaveAttribute("aria-pressed", "true")
  await expectAccessible(page)
  await desk.saved()
})

test("an edge dragged in the flow view does on the sheet what it does there: the table keeps its width on paper", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await desk.paste({
    "text/html": "<table><tr><td>Tide</td><td>Hour</td></tr><tr><td>ebb</td><td>six</td></tr></table>",
  })
  await expect(page.locator("[role=cell], [role=columnheader]")).toHaveCount(4)
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const place = await desk.where("Hour")
  await page.touchscreen.tap(place.left + 4, place.middle)
  const grip = page.getByRole("slider", { name: "Width of column 1" })
  // Two columns alike, as wide as the text of an A4 sheet together.
  const half = 453.54 / 2
  await expect(grip).toHaveAttribute("aria-valuenow", String(Math.round(half)))
  const at = (await grip.boundingBox())!
  const session = await page.context().newCDPSession(page)
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", x: number) =>
    session.send("Input.dispatchTouchEvent", {
      type,
      touchPoints: type === "touchEnd" ? [] : [{ x, y: at.y + at.height / 2 }],
    })
  const x = at.x + at.width / 2
  await touch("touchStart", x)
  for (const by of [10, 20, 30, 40]) await touch("touchMove", x + by)
  await touch("touchEnd", x)
  // A paragraph's format is what every block has: here, the table's.
  const columns = async () => {
    const format = (await desk.stored()).map((block) => block.format as { columns?: number[] } | null)
    return format.flatMap((own) => own?.columns ?? [])
  }
  await expect.poll(columns).toHaveLength(2)
  const [first = 0, second = 0] = await columns()
  expect(first).toBeGreaterThan(half + 15)
  expect(Math.abs(first + second - 2 * half)).toBeLessThan(2)
  await expect(grip).toHaveAttribute("aria-valuenow", String(Math.round(first)))
})
