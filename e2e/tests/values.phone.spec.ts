/** Values in trays on a phone: taken however one leaves. */
import { expect, test, type DeskPage } from "../desk"

async function typedSize(desk: DeskPage, size: string): Promise<void> {
  const { page } = desk
  await desk.blankByTap()
  await desk.type("Fares")
  await desk.press("Control+a")
  await page.getByRole("button", { name: /^Letters:/ }).tap()
  const field = page.getByRole("region", { name: "Write" }).getByRole("textbox", { name: "Size" })
  await field.tap()
  await field.fill(size)
}

const leaving: [string, (desk: DeskPage) => Promise<void>][] = [
  ["a tap on another page of the tray", ({ page }) => page.getByRole("tab", { name: "Paragraph" }).tap()],
  [
    "a tap on another stage",
    ({ page }) => page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Structure" }).tap(),
  ],
  ["a tap on the text", ({ page }) => page.locator(".canvas").tap({ position: { x: 200, y: 200 } })],
  [
    "a tap on a button beside it",
    ({ page }) =>
      page
        .getByRole("region", { name: "Write" })
        .getByRole("button", { name: /^Italic/ })
        .tap(),
  ],
  [
    "putting the tray away with a finger",
    async ({ page }) => {
      const box = (await page.getByRole("region", { name: "Write" }).boundingBox())!
      await page.mouse.move(box.x + box.width / 2, box.y + 10)
      await page.mouse.down()
      await page.mouse.move(box.x + box.width / 2, box.y + 150, { steps: 4 })
      await page.mouse.up()
      await expect(page.getByRole("region", { name: "Write" })).toBeHidden()
    },
  ],
]
for (const [how, leave] of leaving)
  test(`a typed size is taken by ${how}`, async ({ desk }) => {
    await typedSize(desk, "20pt")
    await leave(desk)
    expect((await desk.stored())[0]?.runs[0]?.marks.size).toBe(20)
  })

test("a third tap takes the paragraph; match look lays a paragraph's look by a tap, and its card leaves the text free", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await desk.type("Seen here")
  await desk.press("Control+Alt+j", "Enter")
  await desk.type("Plain text")
  const { left, middle } = await desk.where("Plain")
  for (let i = 0; i < 3; i++) await page.touchscreen.tap(left + 10, middle)
  await desk.expectSelected("Plain text")
  const seen = await desk.where("Seen")
  await page.touchscreen.tap(seen.left + 10, seen.middle)
  await desk.press("Control+Alt+l")
  const card = page.getByRole("group", { name: "Match look" })
  expect((await card.boundingBox())!.y).toBeGreaterThan(400)
  const plain = await desk.where("text")
  await page.touchscreen.tap(plain.left + 5, plain.middle)
  await expect(card).toBeHidden()
  expect((await desk.stored()).map(({ style }) => style)).toEqual(["heading1", "heading1"])
})

test("held sideways, bench and tray stand at the side and the text has the height", async ({ desk, page }) => {
  await page.setViewportSize({ width: 844, height: 390 })
  await desk.openNamed("Letter to the harbour master")
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Write" }).tap()
  const text = (await page.getByRole("main").boundingBox())!
  expect(text.height).toBeGreaterThan(300)
  expect(text.width).toBeGreaterThan(400)
})
