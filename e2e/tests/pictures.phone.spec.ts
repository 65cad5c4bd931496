import { expect, expectAccessible, test } from "../desk"
import { discPng } from "../picture"

test("on a phone a notice gets a round picture beside its text, which a finger drags from left to right", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await page.keyboard.insertText("Notice: the ferry rests on Thursday while its chain is turned. ".repeat(8).trim())
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const bench = page.getByRole("navigation", { name: "Bench" })
  await bench.getByRole("button", { name: "Place" }).tap()
  await page
    .getByLabel("Pictures to put in")
    .setInputFiles({ name: "disc.png", mimeType: "image/png", buffer: discPng(300, 300) })
  const picture = page.locator(".canvas .picture").first()
  await expect(picture.locator("img")).toHaveCount(1)
  await bench.getByRole("button", { name: "Write" }).tap()
  await page.getByRole("button", { name: "Beside" }).tap()
  await page.getByRole("button", { name: "Left", exact: true }).first().tap()
  await page.getByRole("button", { name: "Round", exact: true }).tap()
  await expectAccessible(page)
  // On a phone the sheet shows where it stands.
  await page.getByRole("button", { name: "Show the sheets" }).tap()
  await desk.settled()
  const sheet = (await desk.firstSheet.boundingBox())!
  await expect.poll(async () => (await picture.boundingBox())?.x ?? NaN).toBeLessThan(sheet.x + sheet.width / 2)
  await picture.tap({ force: true })
  const body = page.getByTestId("picture-body")
  await expect(body).toBeVisible()
  const from = (await body.boundingBox())!
  const session = await page.context().newCDPSession(page)
  const [x, y] = [from.x + from.width / 2, from.y + from.height / 2]
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", dx: number) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x: x + dx, y }] })
  await touch("touchStart", 0)
  for (let step = 1; step <= 8; step++) await touch("touchMove", (step * sheet.width) / 14)
  await touch("touchEnd", 0)
  await expect.poll(async () => (await picture.boundingBox())?.x ?? NaN).toBeGreaterThan(sheet.x + sheet.width * 0.4)
  await desk.saved()
})
