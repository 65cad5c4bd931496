import { expect, expectAccessible, test } from "../desk"

test("on a phone numbers and heads are had by taps, and what is written is seen while it is", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await desk.type("Minutes of the trustees")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Sheet" }).tap()
  await page.getByRole("tab", { name: "Head, foot" }).tap()
  await page.getByRole("button", { name: "Number at the head, right" }).tap()
  await page.getByRole("button", { name: "Write the foot" }).tap()
  await desk.type("Ferry")
  const foot = page.locator(".block.footer")
  await expect(foot).toContainText("Ferry")
  await expect(page.locator(".block.header")).toHaveText("1")
  // The card that leads back does not lie over what is written.
  const [card, line] = [await page.getByText("Foot of the sheets").boundingBox(), await foot.boundingBox()]
  expect(card!.y + card!.height < line!.y || card!.y > line!.y + line!.height).toBe(true)
  await expectAccessible(page)
  await page.getByRole("button", { name: "Back to the text" }).tap()
  await desk.type("!")
  await expect(page.locator(".block.text")).toContainText("!")
  await desk.saved()
})

test("on a phone a note is written and read in flow view, below the end of the text", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("The chain lies on the bed")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).tap()
  await page.getByRole("button", { name: "Footnote", exact: true }).tap()
  await desk.type("From the toll book.")
  await expect(page.locator(".canvas.flow .block.note")).toHaveText("1From the toll book.")
  await desk.press("Escape", "!")
  await expect(page.locator(".block.text")).toHaveText("The chain lies on the bed1!")
  // A tap on the note leads there.
  await page.locator(".block.note .run").last().tap()
  await desk.press("End", "?")
  await expect(page.locator(".block.note")).toContainText("book.?")
  await desk.saved()
})
