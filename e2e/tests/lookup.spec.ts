import { expect, testOnOwnServer as test } from "../desk"
import { DeskPage } from "../desk"

test("a word is looked up and another takes its place; a passage comes from the library with its source, also from a slow one", async ({
  page,
  ownServer,
}) => {
  const desk = new DeskPage(page, ownServer)
  await desk.blank()
  await desk.type("The ferries waited. ")
  await page
    .locator(".run")
    .first()
    .dblclick({ position: { x: 40, y: 8 } })
  await desk.expectSelected("ferries")
  await page.keyboard.press("Control+k")
  await page.keyboard.type("synonym")
  await page.keyboard.press("Enter")
  const tray = page.getByRole("region", { name: "Look up" })
  await expect(tray.getByRole("textbox", { name: "Look up" })).toHaveValue("ferries")
  await expect(tray.getByRole("list", { name: "Meanings" })).toContainText("a boat that transports people")
  await tray.getByRole("button", { name: "ferryboat" }).first().click()
  await desk.expectShown("The ferryboat waited. ")
  await desk.press("Control+z", "Control+End")

  await tray.getByRole("tab", { name: "Library" }).click()
  await tray.getByRole("textbox", { name: "Look up" }).fill("redshank")
  const quote = tray.getByRole("button", { name: /^Quote: A redshank that nests/ }).first()
  await tray.getByRole("button", { name: "A library to practise with" }).click()
  await tray.getByRole("button", { name: "Not at all" }).click()
  await expect(tray.getByRole("status")).toHaveText("The library does not answer now. Ask again in a while.")
  await desk.field.focus()
  await desk.press("Control+End")
  await desk.type("See: ")
  await tray.getByRole("tab", { name: "Library" }).click()
  await tray.getByRole("textbox", { name: "Look up" }).fill("redshank")
  await tray.getByRole("button", { name: "Well", exact: true }).click()
  await quote.click()
  await expect
    .poll(async () => (await desk.shown())[0])
    .toMatch(
      /^The ferries waited\. See: “A redshank that nests within sight of the slip .*” \(\w+.*, \d{4}, p\. \d+\)$/,
    )
  await desk.openPage("Place", "Sources")
  await expect(page.getByRole("list", { name: "Sources of the document" }).getByRole("listitem")).toHaveCount(1)
})
