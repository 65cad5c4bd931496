/** Parts of a long work, on the phone. */
import { expect, expectAccessible, test } from "../desk"

test("parts are begun, named and switched between by taps; keys go to the text again", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("Ropes are measured in spring.")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const tray = await desk.openPage("Structure", "Parts")
  await tray.getByLabel("Its name").fill("Tides")
  await tray.getByRole("button", { name: "At the end" }).tap()
  await desk.type("Tides are read off the board.")
  await desk.expectShown("Ropes are measured in spring.", "Tides are read off the board.")
  const rows = tray.getByRole("list", { name: "Parts" }).getByRole("listitem")
  await expect(rows).toHaveText(["Opening", "Tides"])
  await rows.first().getByRole("button").tap()
  await tray.getByLabel("Name of this part").fill("Ropes")
  await tray.getByLabel("Sign: boat").tap()
  await expect(rows).toHaveText(["Ropes", "Tides"])
  await expectAccessible(page)
  await expect(page.getByLabel("Sign: boat")).toHaveAttribute("aria-pressed", "true")
})
