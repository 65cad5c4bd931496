import { expect, expectAccessible, test } from "../desk"

test("on a phone a table is swept in with a finger, its rails select and add", async ({ desk, page }) => {
  await desk.open(await desk.server.create())
  await page.locator(".canvas").tap({ position: { x: 60, y: 40 } })
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
