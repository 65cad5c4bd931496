import { expect, test } from "../desk"

test("corrections while typing, each taken back by one Backspace or undo, each with a switch", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type('Teh "tide"... ')
  await desk.expectShown("The “tide”… ")
  await desk.type("1/2 ")
  await desk.expectShown("The “tide”… ½ ")
  await desk.press("Backspace")
  await desk.expectShown("The “tide”… 1/2 ")
  await desk.press("Backspace")
  await desk.expectShown("The “tide”… 1/2")
  await desk.type(" (c)")
  await desk.expectShown("The “tide”… ½ ©")
  await desk.press("Control+z")
  await desk.expectShown("The “tide”… ½ (c)")

  await desk.press("Control+k")
  await page.keyboard.type("quotes")
  await page.keyboard.press("Enter")
  const tray = page.getByRole("region", { name: "Corrections" })
  await tray.getByRole("switch", { name: /^Quotation marks/ }).click()
  await tray.getByLabel("What you type").fill("sft")
  await tray.getByLabel("What you mean").fill("Saltmarsh Ferry Trust")
  await tray.getByRole("button", { name: "Add" }).click()
  await expect(tray.getByText("sft → Saltmarsh Ferry Trust")).toBeVisible()
  await desk.firstSheet.click({ position: { x: 300, y: 120 } })
  await desk.press("Control+End", "Enter")
  await desk.type('The sft says "no" ')
  await expect.poll(async () => (await desk.shown()).at(-1)).toBe('The Saltmarsh Ferry Trust says "no" ')
})

test("links: typed, made, shown under the caret, opened, changed, removed", async ({ desk, page, context }) => {
  await desk.blank()
  await desk.type("See www.ferry.example/tides for more.")
  await desk.expectShown("See www.ferry.example/tides for more.")
  expect((await desk.stored())[0]?.runs[1]).toEqual({
    text: "www.ferry.example/tides",
    marks: { link: "https://www.ferry.example/tides" },
  })
  await expect(page.locator(".run", { hasText: "www.ferry" })).toHaveCSS("color", "rgb(31, 79, 122)")
  const address = await desk.where("www.ferry")
  await page.mouse.click(address.left + 20, address.middle)
  const card = page.getByRole("group", { name: "Link" })
  await expect(card).toContainText("www.ferry.example/tides")
  const [opened] = await Promise.all([context.waitForEvent("page"), card.getByRole("button", { name: "Open" }).click()])
  expect(opened.url()).toMatch(/^(https:\/\/www\.ferry\.example\/tides|about:blank|chrome-error:)/)
  await opened.close()
  await card.getByRole("button", { name: "Edit" }).click()
  await card.getByLabel("Address").fill("javascript:alert(1)")
  await page.keyboard.press("Enter")
  await expect(card.getByRole("alert")).toContainText("no web or e-mail address")
  await card.getByLabel("Address").fill("imre@ferry.example?subject=Tides")
  await page.keyboard.press("Enter")
  await expect(desk.field).toBeFocused()
  expect((await desk.stored())[0]?.runs[1]?.marks).toEqual({ link: "mailto:imre@ferry.example?subject=Tides" })
  await card.getByRole("button", { name: "Remove" }).click()
  await expect(card).toHaveCount(0)
  expect((await desk.stored())[0]?.runs.length).toBe(1)
})

test("a link to a heading leads there", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  await desk.selectWord("promise")
  await page.getByRole("toolbar", { name: "Tools for the selection" }).getByRole("button", { name: "Link" }).click()
  await page.getByLabel("or a place of this document").selectOption({ label: "Conclusion" })
  await desk.press("ArrowLeft", "ArrowRight")
  await page.getByRole("group", { name: "Link" }).getByRole("button", { name: "Open" }).click()
  await expect(page.locator(".run", { hasText: /^Conclusion$/ })).toBeInViewport()
})
