/** Values in trays: taken however one leaves, stepped each from its own, and after a choice the text has the keys. */
import { expect, test, type DeskPage } from "../desk"

const sizes = async (desk: DeskPage) =>
  (await desk.stored()).flatMap(({ runs }) => runs.map(({ marks }) => marks.size ?? 12))

async function selectAllOf(desk: DeskPage, text: string): Promise<void> {
  await desk.blank()
  await desk.type(text)
  await desk.press("Control+a")
}

const leaving: [string, (desk: DeskPage) => Promise<void>][] = [
  ["Enter", (desk) => desk.press("Enter")],
  ["Tab", (desk) => desk.press("Tab")],
  ["a press on another page of the tray", (desk) => desk.page.getByRole("tab", { name: "Paragraph" }).click()],
  [
    "a press on another stage",
    (desk) => desk.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Structure" }).click(),
  ],
  ["putting the tray away", (desk) => desk.page.getByRole("button", { name: "Put the tray away" }).click()],
  ["a press on the text", (desk) => desk.firstSheet.click({ position: { x: 300, y: 400 } })],
]
for (const [how, leave] of leaving)
  test(`a typed size is taken by ${how}, for what was selected then`, async ({ desk }) => {
    await selectAllOf(desk, "Fares at low water")
    const tray = await desk.openPage("Write", "Letters")
    await tray.getByRole("textbox", { name: "Size" }).fill("20 pt")
    await leave(desk)
    expect(await sizes(desk)).toEqual([20])
  })

test("Escape puts a typed value back; a name, a pattern of a list and a space are taken by leaving too", async ({
  desk,
  page,
}) => {
  await selectAllOf(desk, "oars")
  let tray = await desk.openPage("Write", "Letters")
  await tray.getByRole("textbox", { name: "Size" }).fill("30")
  await desk.press("Escape")
  expect(await sizes(desk)).toEqual([12])
  tray = await desk.openPage("Write", "Paragraph")
  await tray.getByRole("textbox", { name: "Space after" }).fill("30")
  await page.getByRole("tab", { name: "List" }).click()
  expect((await desk.stored())[0]?.format).toEqual({ spaceAfter: 30 })
  await tray.getByRole("button", { name: "1.  a)  i." }).click()
  await tray.getByText("Level 1 of this list").click()
  await tray.getByRole("textbox", { name: "Pattern of the level" }).fill("Item %1:")
  await page.getByRole("tab", { name: "Letters" }).click()
  await desk.expectShown("Item 1:oars")
  tray = await desk.openPage("Structure", "Styles")
  await tray.getByRole("button", { name: "Edit the style Quotation" }).click()
  await tray.getByRole("textbox", { name: "Name of the style" }).fill("Caption")
  await tray.getByRole("button", { name: "Done" }).click()
  await expect(page.getByRole("alert")).toContainText("There is a style “Caption” already")
  await page.getByRole("button", { name: "Put away" }).click()
  await tray.getByRole("button", { name: "Edit the style Quotation" }).click()
  await tray.getByRole("textbox", { name: "Name of the style" }).fill("Said by others")
  await tray.getByRole("button", { name: "Done" }).click()
  await expect(tray.getByRole("button", { name: "Said by others", exact: true })).toBeVisible()
})

test("after a choice the text has the keys: a typeface that was found, a size and a button, an entry of a list", async ({
  desk,
}) => {
  await desk.blank()
  const tray = await desk.openPage("Write", "Letters")
  await tray.getByRole("button", { name: /^Typeface/ }).click()
  await tray.getByRole("combobox", { name: "Find a typeface" }).fill("lora")
  await tray.getByRole("option", { name: "Lora" }).click()
  await desk.type("new text ")
  await tray.getByRole("textbox", { name: "Size" }).fill("20")
  await tray.getByRole("button", { name: /^Italic/ }).click()
  await desk.type("big")
  const [line] = await desk.stored()
  expect(line?.runs).toEqual([
    { text: "New text ", marks: { family: "Lora" } },
    { text: "big", marks: { family: "Lora", size: 20, italic: true } },
  ])
  // By keys: the arrows go through what was found, Enter takes it.
  await tray.getByRole("combobox", { name: "Find a typeface" }).fill("gar")
  await desk.press("ArrowDown", "Enter")
  await desk.type("!")
  expect((await desk.stored())[0]?.runs.at(-1)?.marks.family).toBe("EB Garamond")
})

test("what is mixed is said to be so, and stepped each from its own", async ({ desk }) => {
  await desk.blank()
  const tray = await desk.openPage("Write", "Letters")
  await desk.type("small ")
  await tray.getByRole("textbox", { name: "Size" }).fill("20")
  await tray.getByRole("button", { name: /^Bold/ }).click()
  await desk.type("large")
  await desk.press("Control+a")
  await expect(tray.getByRole("textbox", { name: "Size" })).toHaveValue("")
  await expect(tray.getByRole("textbox", { name: "Size" })).toHaveAttribute("placeholder", "several")
  await tray.getByRole("button", { name: "Size: more" }).click()
  expect(await sizes(desk)).toEqual([14, 24])
  await tray.getByRole("button", { name: "Size: less" }).click()
  await tray.getByRole("button", { name: "Size: less" }).click()
  expect(await sizes(desk)).toEqual([11, 18])
})

test("borders and tab stops that differ can be taken away", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("a")
  const tray = await desk.openPage("Write", "Paragraph")
  await tray.getByText("Borders and background").click()
  await tray.getByRole("combobox", { name: "Line" }).selectOption("dotted")
  await tray.getByText("Indents and tab stops").click()
  await tray.getByRole("button", { name: "Add a tab stop" }).click()
  await desk.firstSheet.click({ position: { x: 300, y: 110 } })
  await desk.press("Control+End", "Enter")
  await tray.getByRole("combobox", { name: "Line" }).selectOption("solid")
  await tray.getByRole("button", { name: "Add a tab stop" }).click()
  await page.keyboard.press("Control+a")
  await expect(tray.getByRole("combobox", { name: "Line" })).toHaveValue("")
  await expect(tray.getByText("Some of these paragraphs have further stops")).toBeVisible()
  await tray.getByRole("combobox", { name: "Line" }).selectOption("none")
  await tray.getByRole("button", { name: "Remove all stops" }).click()
  expect((await desk.stored()).map(({ format }) => format)).toEqual([null, null])
})

test("a style's borders, tab stops and drop cap are edited where its other properties are, found by name", async ({
  desk,
}) => {
  await desk.blank()
  await desk.type("The ferry runs by hand and by tide, and costs nothing.")
  const tray = await desk.openPage("Structure", "Styles")
  await tray.getByRole("button", { name: "Edit the style Body" }).click()
  const find = tray.getByRole("textbox", { name: "Find a property" })
  await find.fill("border")
  await tray.getByRole("combobox", { name: "Line", exact: true }).selectOption("dotted")
  await find.fill("drop cap")
  await tray.getByRole("switch", { name: "Drop cap" }).click()
  await find.fill("tab stops")
  await tray.getByRole("button", { name: "Add a tab stop" }).click()
  const said = async () => (await desk.server.styles(desk.id)).body?.paragraph
  await expect.poll(said).toMatchObject({
    borders: { top: { pattern: "dotted" }, left: { pattern: "dotted" } },
    dropCap: { lines: 3 },
    tabs: [{}],
  })
  expect((await desk.stored())[0]?.format).toBeNull()
})

test("a backspace after the caret has moved deletes, and takes no correction back", async ({ desk }) => {
  await desk.blank()
  await desk.type("Teh tide ")
  await desk.expectShown("The tide ")
  await desk.press("Control+a", "Backspace")
  await desk.expectShown("")
  await desk.type("teh ")
  await desk.press("Backspace")
  expect((await desk.stored())[0]?.text).toBe("teh ")
})
