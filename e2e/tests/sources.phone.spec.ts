import { expect, test } from "../desk"

test("on a phone a source is typed in, quoted with its page, and listed", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("As she says: ")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const tray = await desk.openPage("Place", "Sources")
  await tray.getByRole("button", { name: "New source" }).tap()
  const form = tray.getByRole("form", { name: "Source" })
  await expect(form.getByRole("button", { name: "Keep" })).toBeDisabled()
  await form.getByRole("combobox", { name: "Kind" }).selectOption("webpage")
  await form.getByRole("textbox", { name: "Authors" }).fill("Caddow, Nell; Harbour Trust")
  await form.getByRole("textbox", { name: "Title" }).fill("Boards of the tide")
  await form.getByRole("textbox", { name: "Address" }).fill("https://saltmarsh.example/boards")
  await form.getByRole("textbox", { name: "Date" }).fill("2026-05-04")
  await form.getByRole("textbox", { name: "A passage to quote" }).fill("The board is never wrong")
  await form.getByRole("textbox", { name: "Its page" }).fill("para. 2")
  await form.getByRole("button", { name: "Keep" }).tap()
  await tray.getByRole("button", { name: /The board is never wrong/ }).tap()
  await desk.expectShown("As she says: “The board is never wrong” (Caddow & Harbour Trust, 2026, para. 2)")
  await tray.getByRole("switch", { name: "List of references at the end" }).tap()
  await expect
    .poll(async () => (await desk.shown()).at(-2))
    .toBe("Caddow, N. & Harbour Trust. (2026, May 4). Boards of the tide. https://saltmarsh.example/boards")
})

test("who types in a tray still sees where in the text it will go", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("As she says: ")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  await expect(desk.caret).toBeHidden()
  const tray = await desk.openPage("Place", "Sources")
  await tray.getByRole("textbox", { name: /Cite/ }).fill("Caddow")
  await expect(desk.caret).toBeVisible()
  await expect(desk.caret).toHaveCSS("opacity", "0.4")
  const { right, middle } = await desk.where("says:")
  const caret = (await desk.caret.boundingBox())!
  expect([caret.x > right, caret.x < right + 16, caret.y < middle, caret.y + caret.height > middle]).toEqual(
    Array(4).fill(true),
  )
})
