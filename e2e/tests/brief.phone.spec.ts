import { expect, test } from "../desk"

test("on a phone a paper is held against its brief, and each rule leads to its place or puts it right", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  await desk.type("The tide allows it.")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const tray = await desk.openPage("Check", "Brief")
  await tray.getByRole("button", { name: "Minutes", exact: true }).tap()
  await expect(tray.getByRole("status")).toHaveText(/^\d+ of 13 rules agree/)
  const put = tray.getByRole("button", { name: "Put right: Size" })
  expect((await put.boundingBox())!.height).toBeGreaterThanOrEqual(44)
  await put.tap()
  await expect(put).toBeHidden()
  await tray.getByRole("button", { name: "Show where: Space between paragraphs" }).tap()
  await desk.expectSelected("The tide allows it.")
})
