import { expect, expectAccessible, test } from "../desk"

test("the shelf shows every document with a picture of its first sheet, its sheets and when it changed", async ({
  page,
  server,
}) => {
  await page.goto(server.address)
  for (const name of ["Letter to the harbour master", "Tides and timetables", "Minutes, 3 November"])
    await expect(page.getByText(name, { exact: true })).toBeVisible()
  // The sheets of long documents are counted one document after the other.
  await expect(page.getByText(/^1[2-9] sheets · changed yesterday$/)).toBeVisible({ timeout: 60_000 })
  for (const picture of await page.locator("img").all()) {
    // Those far down are not asked for before one comes near.
    await picture.scrollIntoViewIfNeeded()
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0)
  }
})

test("a blank sheet is made, told apart by its text, named in place and opened again", async ({ page, server }) => {
  await page.goto(server.address)
  await page.getByRole("button", { name: "A blank sheet" }).click()
  await page
    .locator(".sheet")
    .first()
    .click({ position: { x: 120, y: 120 } })
  await page.keyboard.type("Notice: dogs travel free")
  await expect(page.getByTestId("saving")).toHaveText(/^Saved \d\d/)
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await expect(page.getByText("“Notice: dogs travel free”")).toBeVisible()
  await expect(page.getByText(/· not named yet ·/).first()).toBeVisible()
  await page.getByRole("button", { name: "Rename “Notice: dogs travel free”" }).click()
  await page.keyboard.type("Slipway notice")
  await page.keyboard.press("Enter")
  await expect(page.getByText("Slipway notice", { exact: true })).toBeVisible()
  await page.reload()
  await page.getByText("Slipway notice", { exact: true }).click()
  await expect(page.locator(".run", { hasText: "dogs travel free" })).toBeVisible()
  await expect(page.getByRole("button", { name: /^Name: Slipway notice/ })).toBeVisible()
})

test("a name given at the desk is on the shelf and in the other tab", async ({ desk, page, context }) => {
  await desk.blank()
  const other = await context.newPage()
  await other.goto(page.url())
  await page.getByRole("button", { name: /^Name: not named yet/ }).click()
  await page.keyboard.type("Risk report, draft")
  await page.keyboard.press("Enter")
  await expect(other.getByRole("button", { name: /^Name: Risk report, draft/ })).toBeVisible()
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await expect(page.getByText("Risk report, draft", { exact: true })).toBeVisible()
})

test("an address without a document says so and leads back", async ({ page, server }) => {
  await page.goto(`${server.address}/d/nothing-here`)
  await expect(page.getByText("This document is not on the shelf.")).toBeVisible()
  await page.getByRole("link", { name: "Go to the shelf" }).click()
  await expect(page.getByText("Begin", { exact: true })).toBeVisible()
})

test("shelf and desk pass the automated check of accessibility", async ({ desk, page, server }) => {
  await page.goto(server.address)
  await expect(page.getByText("On the shelf")).toBeVisible()
  await expectAccessible(page)
  await desk.openNamed("Letter to the harbour master")
  for (const stage of ["Write", "Structure", "Deliver"]) {
    await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: stage }).click()
    await expect(page.getByRole("region", { name: stage })).toBeVisible()
    await expectAccessible(page)
  }
})
