/** Shaping on a phone: the strip, the trays over the text, lists by touch. */
import { expect, expectAccessible, test } from "../desk"

test.beforeEach(async ({ desk }) => {
  await desk.blankByTap()
})

test("a list is made, its levels are changed and things are ticked by touch", async ({ desk, page }) => {
  const strip = page.getByRole("toolbar", { name: "Tools for the text" })
  await desk.type("oars")
  await strip.getByRole("button", { name: /^Numbered list/ }).tap()
  await desk.press("Enter")
  await desk.type("chain")
  await strip.getByRole("button", { name: /^A level deeper/ }).tap()
  await desk.expectShown("1.oars", "a)chain")
  await strip.getByRole("button", { name: /^A level up/ }).tap()
  await desk.press("Enter", "Enter")
  await desk.type("[] lamp")
  await desk.expectShown("1.oars", "2.chain", "☐lamp")
  const box = (await page.locator(".canvas .run", { hasText: "☐" }).boundingBox())!
  await page.touchscreen.tap(box.x + box.width / 2, box.y + box.height / 2)
  await desk.expectShown("1.oars", "2.chain", "☑lamp")
})

test("what is chosen with nothing selected shows on the strip and holds for what is typed next", async ({
  desk,
  page,
}) => {
  const strip = page.getByRole("toolbar", { name: "Tools for the text" })
  await desk.type("Plain ")
  await strip.getByRole("button", { name: "Letters: Tinos, size 12" }).tap()
  const tray = page.getByRole("region", { name: "Write" })
  await tray.getByRole("button", { name: "Size: more" }).tap()
  await tray.getByRole("button", { name: "Laurel" }).tap()
  await expect(tray).toBeVisible()
  await desk.type("green")
  await expect(page.locator(".canvas .run", { hasText: "green" })).toHaveCSS("color", "rgb(59, 107, 76)")
  await expect(page.locator(".canvas .run", { hasText: "green" })).toHaveCSS("font-size", "28px")
  expect((await desk.stored())[0]!.runs.map(({ text }) => text)).toEqual(["Plain ", "green"])
})

test("indents are dragged on the small ruler; every page of the trays fits the phone", async ({ desk, page }) => {
  await desk.type("The ferry crosses at half tide, and so do we.")
  await page.getByRole("button", { name: "Put the keyboard away" }).tap()
  const tray = await desk.openPage("Write", "Paragraph")
  await tray.getByRole("button", { name: "Indents and tab stops" }).tap()
  const post = tray.getByRole("slider", { name: "Indent at the start" })
  await post.scrollIntoViewIfNeeded()
  const box = (await post.boundingBox())!
  expect(box.width).toBeGreaterThanOrEqual(32)
  await page.mouse.move(box.x + box.width / 2, box.y + box.height - 8)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height - 8, { steps: 4 })
  await page.mouse.up()
  expect((await desk.stored())[0]!.format!.indentLeft).toBeGreaterThan(20)
  const fits = async (name: string) => {
    const over = await page
      .getByRole("region", { name })
      .evaluate((region) =>
        [...region.querySelectorAll("*")]
          .filter((node) => node.getBoundingClientRect().right > 390.5 && !node.closest("svg"))
          .map((node) => node.outerHTML.slice(0, 80)),
      )
    expect(over, name).toEqual([])
  }
  await fits("Write")
  for (const name of ["Letters", "List"]) {
    await page.getByRole("tab", { name, exact: true }).tap()
    await fits("Write")
  }
  for (const name of ["Styles", "Outline", "Sets"]) {
    await desk.openPage("Structure", name)
    await fits("Structure")
  }
  await expectAccessible(page)
})

test("the trail and the outline are trays here; the line with the caret stays in sight", async ({ desk, page }) => {
  await desk.press("Control+Alt+j")
  await desk.type("Head")
  await desk.press("Enter")
  for (let i = 0; i < 14; i++) {
    await desk.type(`Line ${i} of a text that is long enough to fill the screen of a phone.`)
    await desk.press("Enter")
  }
  await desk.type("The end")
  await desk.press("Control+k")
  await desk.type("trail")
  await desk.press("Enter")
  await expect(page.getByRole("region", { name: "Trail" })).toBeVisible()
  await expect(page.locator(".canvas .run", { hasText: "The end" })).toBeInViewport()
  await desk.press("Control+k")
  await desk.type("outline")
  await desk.press("Enter")
  await page.getByRole("treeitem").getByRole("button", { name: "Head", exact: true }).tap()
  await expect(page.getByRole("heading", { name: "Head", exact: true })).toBeInViewport()
})
