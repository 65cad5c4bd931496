/** Letters, paragraphs, lists, styles, sets, the trail and the outline, as a person shapes with them. */
import { readFileSync } from "node:fs"
import { join } from "node:path"
import { copiedFrom } from "../clipboard"
import { expect, expectAccessible, test, type DeskPage } from "../desk"
import { root } from "../server"

const run = (desk: DeskPage, text: string) => desk.page.locator(".canvas .run", { hasText: text }).first()

test("a value is tried on the text while the pointer is on it, and is no change until it is chosen", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Saltmarsh ferry")
  await desk.press("Control+a")
  const tray = await desk.openPage("Write", "Letters")
  await tray.getByRole("button", { name: /^Typeface/ }).click()
  const option = tray.getByRole("option", { name: "Inter" })
  await option.hover()
  await expect(run(desk, "Saltmarsh")).toHaveCSS("font-family", "Inter-regular")
  expect((await desk.stored())[0]!.runs[0]!.marks).toEqual({})
  await tray.getByRole("button", { name: "Laurel" }).hover()
  await expect(run(desk, "Saltmarsh")).toHaveCSS("color", "rgb(59, 107, 76)")
  await expect(run(desk, "Saltmarsh")).toHaveCSS("font-family", "Tinos-regular")
  await page.mouse.move(900, 500)
  await expect(run(desk, "Saltmarsh")).toHaveCSS("color", "rgb(30, 26, 22)")
  await option.click()
  await expect(run(desk, "Saltmarsh")).toHaveCSS("font-family", "Inter-regular")
  expect((await desk.stored())[0]!.runs[0]!.marks).toEqual({ family: "Inter" })
  await expect(tray.getByRole("option", { name: "Inter" }).first()).toBeVisible()
})

test("lines, places, capitals and grounds of letters show on the sheet", async ({ desk }) => {
  await desk.blank()
  const tray = await desk.openPage("Write", "Letters")
  await tray.getByRole("button", { name: "Lines and capitals" }).click()
  await tray.getByRole("button", { name: "Spacing and joins" }).click()
  await desk.type("The area in m")
  await tray.getByRole("button", { name: "Superscript" }).click()
  await desk.type("2")
  await tray.getByRole("button", { name: "Superscript" }).click()
  await desk.type(" crossing")
  await desk.selectWord("crossing")
  await tray.getByRole("combobox", { name: "Underline" }).selectOption("wavy")
  await tray.getByRole("combobox", { name: "Strike-through" }).selectOption("double")
  await tray.getByRole("button", { name: "Sand" }).click()
  await tray.getByRole("combobox", { name: "Capitals" }).selectOption("all")
  const spacing = tray.getByRole("textbox", { name: "Letter spacing (pt)" })
  await spacing.fill("2")
  await spacing.press("Enter")
  await expect(run(desk, "CROSSING")).toHaveCSS("letter-spacing", "4px")
  await expect(desk.page.locator(".canvas svg.rule")).toHaveCount(1)
  await expect(desk.page.locator(".canvas .text i.rule")).toHaveCount(2)
  await expect(desk.page.locator(".canvas .ground i.rule")).toHaveCSS("background-color", "rgb(244, 227, 181)")
  const sizes = await Promise.all(
    ["The", "2"].map((text) => run(desk, text).evaluate((node) => parseFloat(getComputedStyle(node).fontSize))),
  )
  expect(sizes[1]).toBeLessThan(sizes[0]! * 0.8)
  expect((await desk.where("2")).bottom).toBeLessThan((await desk.where("The")).bottom)
  expect((await desk.stored())[0]!.runs.map(({ text }) => text)).toEqual(["The area in m", "2", " ", "crossing"])
})

test("match look lays a look once or many times; clearing puts the letters back", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Seen plain other")
  await desk.selectWord("Seen")
  await desk.press("Control+b", "Control+u")
  await desk.press("Control+Alt+l")
  const card = page.getByRole("group", { name: "Match look" })
  await expect(card).toBeVisible()
  await card.getByRole("switch", { name: "Keep it in hand for more" }).click()
  await desk.selectWord("plain")
  await desk.selectWord("other")
  await card.getByRole("button", { name: "Put the look down" }).click()
  await expect(card).toBeHidden()
  const marks = async () => (await desk.stored())[0]!.runs.map(({ text, marks }) => [text, Object.keys(marks).length])
  expect(await marks()).toEqual([
    ["Seen", 2],
    [" ", 0],
    ["plain", 2],
    [" ", 0],
    ["other", 2],
  ])
  await desk.selectWord("plain")
  await desk.press("Control+Alt+y")
  expect(await marks()).toEqual([
    ["Seen", 2],
    [" plain ", 0],
    ["other", 2],
  ])
})

test("styles: the look here becomes the style's; a new one from this; the dot; renaming and removing", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("One")
  await desk.press("Control+Alt+j", "Enter")
  await desk.type("text")
  await desk.press("Enter")
  await desk.type("Two")
  await desk.press("Control+Alt+j")
  const tray = await desk.openPage("Structure", "Styles")
  await desk.press("Home", "Shift+End", "Control+i")
  await expect(tray.getByRole("button", { name: "Heading 1, the text here looks different" })).toBeVisible()
  await tray.getByRole("button", { name: "Make the style look like this" }).click()
  await expect(run(desk, "One")).toHaveCSS("font-family", "Tinos-boldItalic")
  await expect(tray.getByRole("button", { name: "Heading 1", exact: true })).toBeVisible()
  expect((await desk.stored())[2]!.runs[0]!.marks).toEqual({})

  await desk.press("Control+Alt+ArrowRight")
  await tray.getByRole("textbox", { name: "Name of the new style" }).fill("Call")
  await tray.getByRole("button", { name: "Make", exact: true }).click()
  expect((await desk.stored())[2]).toMatchObject({ style: "call", format: null })
  await tray.getByRole("button", { name: "Edit the style Call" }).click()
  const name = tray.getByRole("textbox", { name: "Name of the style" })
  await name.fill("Hail")
  await name.press("Tab")
  await tray.getByRole("button", { name: "Back to the styles" }).click()
  await expect(tray.getByRole("button", { name: "Hail", exact: true })).toBeVisible()
  await tray.getByRole("button", { name: "Edit the style Hail" }).click()
  await tray.getByRole("button", { name: "Remove the style Hail" }).click()
  expect((await desk.stored())[2]!.style).toBe("heading1")
  await expectAccessible(page)
})

test("a set is tried on the whole document, taken with one tap and taken back with one undo", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Tides and timetables")
  const tray = await desk.openPage("Structure", "Sets")
  expect(await tray.getByRole("option").count()).toBeGreaterThanOrEqual(8)
  const title = page.locator(".canvas .run", { hasText: "Tides and timetables" })
  await tray.getByRole("option", { name: "Samphire" }).hover()
  await expect(title).toHaveCSS("font-family", "PlayfairDisplay-bold")
  await page.mouse.move(900, 500)
  await expect(title).toHaveCSS("font-family", "Literata-bold")
  await tray.getByRole("option", { name: "Slipway" }).click()
  await expect(title).toHaveCSS("font-family", "SourceSans3-bold")
  await expect(page.locator(".canvas .run", { hasText: "A ferry is a promise" })).toHaveCSS(
    "font-family",
    "SourceSerif4-regular",
  )
  await page.getByRole("button", { name: /^Undo/ }).click()
  await page.mouse.move(900, 500)
  await expect(title).toHaveCSS("font-family", "Literata-bold")
})

test("the trail says what wins and why; what is set by hand can be selected and removed there, also where nothing is left", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Quiet ")
  await desk.press("Control+b")
  await desk.type("loud")
  await desk.press("Enter")
  await desk.press("Control+k")
  await desk.type("trail")
  await desk.press("Enter")
  const tray = page.getByRole("region", { name: "Trail" })
  await expect(tray.getByText("on nothing: waits for what is typed")).toBeVisible()
  await tray.getByRole("button", { name: "Remove bold from nothing: waits for what is typed" }).click()
  await expect(tray.getByText("Nothing: all of it comes from styles.")).toBeVisible()
  await desk.where("loud").then(({ left, right, middle }) => page.mouse.click((left + right) / 2, middle))
  const bold = tray.getByRole("group", { name: "Bold" })
  await expect(bold).toContainText("Every text of this document, overruled")
  await expect(bold).toContainText("Set by hand here")
  await tray.getByRole("button", { name: "Select bold yes, “loud”" }).click()
  await desk.expectSelected("loud")
  await bold.getByRole("button", { name: "Remove bold from: Set by hand here" }).click()
  expect((await desk.stored())[0]!.runs).toEqual([{ text: "Quiet loud", marks: {} }])

  await desk.press("Control+Alt+j")
  const size = tray.getByRole("group", { name: "Size" })
  await size.getByRole("button", { name: "Change size in: Style Heading 1" }).click()
  await size.getByRole("textbox", { name: "Size" }).fill("30")
  await size.getByRole("textbox", { name: "Size" }).press("Enter")
  await expect(run(desk, "Quiet loud")).toHaveCSS("font-size", "60px")
  await size.getByRole("link", { name: "Style Heading 1" }).click()
  await expect(
    page.getByRole("region", { name: "Structure" }).getByRole("textbox", { name: "Name of the style" }),
  ).toHaveValue("Heading 1")
})

test("the outline goes to headings, folds, moves a section by dragging and changes levels", async ({ desk, page }) => {
  await desk.openNamed("Tides and timetables")
  const before = (await desk.stored()).map(({ text }) => text)
  const tray = await desk.openPage("Structure", "Outline")
  const item = (name: string) => tray.getByRole("treeitem").filter({ hasText: name })
  await item("The printed timetable").getByRole("button", { name: "The printed timetable", exact: true }).click()
  await expect(page.getByRole("heading", { name: "The printed timetable" })).toBeInViewport()
  await expect(item("The printed timetable")).toHaveAttribute("aria-selected", "true")
  await tray.getByRole("button", { name: "Fold The printed timetable" }).click()
  await expect(item("Promises in print")).toHaveCount(0)

  const grip = (await tray.getByRole("img", { name: "Move the section The printed timetable" }).boundingBox())!
  const target = (await item("Three ways of telling the time").boundingBox())!
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2)
  await page.mouse.down()
  await page.mouse.move(grip.x, target.y + 20, { steps: 4 })
  await page.mouse.move(grip.x, target.y + 3)
  await page.mouse.up()
  const after = (await desk.stored()).map(({ text }) => text)
  expect([...after].sort()).toEqual([...before].sort())
  expect(after.indexOf("The printed timetable")).toBeLessThan(after.indexOf("Three ways of telling the time"))
  expect(after.indexOf("Promises in print")).toBe(
    before.indexOf("Promises in print") -
      before.indexOf("The printed timetable") +
      after.indexOf("The printed timetable"),
  )
  await page.getByRole("button", { name: "Down a level: The printed timetable" }).click()
  await expect(item("The printed timetable")).toHaveAttribute("aria-level", "2")
  await desk.press("Control+z", "Control+z")
  await expect.poll(async () => (await desk.stored()).map(({ text }) => text).join()).toBe(before.join())
  await tray.getByRole("combobox", { name: "Numbers of headings" }).selectOption("chapters")
  await expect(item("The tide board")).toContainText(/\d\.\d/)
  await expectAccessible(page)
})

test("the ruler: pins and flags are dragged with a line through the text, put by a click, pulled off, moved by key", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Name\tsum")
  await desk.saved()
  const ruler = page.getByRole("region", { name: "Ruler" })
  const start = ruler.getByRole("slider", { name: "Indent at the start" })
  const box = (await start.boundingBox())!
  const sheet = (await desk.firstSheet.boundingBox())!
  const scale = sheet.width / 595.276
  const centimetre = (72 / 2.54) * scale
  await page.mouse.move(box.x + box.width / 2, box.y + 20)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + centimetre, box.y + 20, { steps: 3 })
  await expect(page.locator(".canvas > .bg-murex")).toBeVisible()
  await page.mouse.move(box.x + box.width / 2 + 2 * centimetre, box.y + 20)
  await expect.poll(async () => (await desk.where("Name")).left - sheet.x).toBeCloseTo((70.866 + 56.69) * scale, 0)
  await page.mouse.up()
  await expect(page.locator(".canvas > .bg-murex")).toBeHidden()
  expect((await desk.stored())[0]!.format!.indentLeft).toBeCloseTo(56.69, 1)

  const bar = (await ruler.boundingBox())!
  await page.mouse.click(sheet.x + (70.866 + 283.46) * scale, bar.y + 22)
  const tab = ruler.getByRole("slider", { name: /^Tab stop 1/ })
  await expect(tab).toHaveAttribute("aria-valuetext", "10 cm")
  await expect.poll(async () => (await desk.where("sum")).left - sheet.x).toBeCloseTo((70.866 + 283.46) * scale, 0)
  await tab.focus()
  await tab.press("ArrowRight")
  await expect(tab).toHaveAttribute("aria-valuetext", "10.25 cm")
  const flag = (await tab.boundingBox())!
  await page.mouse.move(flag.x + flag.width / 2, flag.y + flag.height / 2)
  await page.mouse.down()
  await page.mouse.move(flag.x + flag.width / 2, flag.y + 90, { steps: 3 })
  await page.mouse.up()
  await expect(tab).toHaveCount(0)
})

test("lists typed as text, changed in kind, numbered anew, ticked; their keys; one undo takes the list back", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("1. oars")
  await desk.expectShown("1.oars")
  await desk.press("Enter", "Tab")
  await desk.type("the long ones")
  await desk.press("Enter", "Shift+Tab")
  await desk.type("chain")
  await desk.expectShown("1.oars", "a)the long ones", "2.chain")
  // A screen reader hears a list with its levels.
  const items = page.getByRole("main").getByRole("list").getByRole("listitem")
  await expect(items).toHaveText(["1.oars", "a)the long ones", "2.chain"])
  await expect(items.nth(1)).toHaveAttribute("aria-level", "2")
  const tray = await desk.openPage("Write", "List")
  await tray.getByRole("button", { name: "I.  A.  1." }).click()
  await desk.expectShown("I.oars", "A.the long ones", "II.chain")
  const number = tray.getByRole("textbox", { name: "Number of this item" })
  await expect(number).toHaveValue("2")
  await tray.getByRole("button", { name: "1.  a)  i.", exact: true }).click()
  await number.fill("7")
  await number.press("Enter")
  await desk.expectShown("1.oars", "a)the long ones", "7.chain")
  await tray.getByRole("button", { name: "Go on", exact: true }).click()
  await desk.expectShown("1.oars", "a)the long ones", "2.chain")
  await desk.press("Enter", "Enter")
  await desk.type("[] call the harbour master")
  await desk.expectShown("1.oars", "a)the long ones", "2.chain", "☐call the harbour master")
  const label = page.locator(".canvas .run", { hasText: "☐" })
  await label.click()
  await desk.expectShown("1.oars", "a)the long ones", "2.chain", "☑call the harbour master")
  await desk.press("Control+Alt+d")
  await expect(label).toBeVisible()
  await tray.getByRole("button", { name: "Level 1 of this list" }).click()
  await expectAccessible(page)
})

test("lists pasted from elsewhere are lists here, and go out as lists", async ({ desk }) => {
  await desk.blank()
  await desk.paste({ "text/html": "<p>Bring:</p><ol><li>oars<ul><li>long</li></ul></li><li>chain</li></ol>" })
  await desk.expectShown("Bring:", "1.oars", "–long", "2.chain")
  await desk.press("Control+a", "Delete")
  await desk.paste({ "text/plain": "1. oars\n2. chain\n3. lamp" })
  await desk.expectShown("1.oars", "2.chain", "3.lamp")
  await desk.press("Control+a")
  const { html, text } = await copiedFrom(desk.page)
  expect(html).toMatch(/<ol><li[^>]*>oars<\/li>/)
  expect(text).toBe("1. oars\n2. chain\n3. lamp")
})

test("text from right to left: typed, with the caret where it is seen, arrows by sight and the selection in pieces", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.openPage("Write", "Paragraph")
  await page.getByRole("button", { name: "Right to left" }).click()
  await desk.type("שלום ferry עולם")
  await desk.saved()
  const x = async () => (await desk.caret.boundingBox())!.x
  const sheet = (await desk.firstSheet.boundingBox())!
  await desk.press("Home")
  expect(await x()).toBeGreaterThan(sheet.x + sheet.width * 0.7)
  // By the left arrow the caret goes left at every step, through both directions, to the end.
  const seen = [await x()]
  for (let i = 0; i < 15; i++) {
    await desk.press("ArrowLeft")
    seen.push(await x())
  }
  for (let i = 1; i < seen.length; i++) expect(seen[i]).toBeLessThan(seen[i - 1]!)
  await desk.press("Control+a")
  await expect.poll(() => page.locator(".canvas .selected").count()).toBeGreaterThanOrEqual(3)
  expect((await desk.stored())[0]).toMatchObject({
    text: "שלום ferry עולם",
    format: { direction: "rtl", align: "right" },
  })
})

test("language, units and line breaking of the document", async ({ desk, page }) => {
  await desk.openNamed("Letter to the harbour master")
  await page.getByRole("button", { name: "Language of the document: British English" }).click()
  const tray = page.getByRole("region", { name: "Document" })
  const lines = () => page.locator(".canvas .line").evaluateAll((all) => all.map((line) => line.textContent))
  const before = await lines()
  await tray.getByRole("switch", { name: "Divide words at the end of lines" }).click()
  await expect.poll(async () => (await lines()).some((line) => /\p{L}-$/u.test(line ?? ""))).toBe(true)
  const quick = await lines()
  await tray.getByRole("button", { name: "Whole paragraph" }).click()
  await expect.poll(lines).not.toEqual(quick)
  await tray.getByRole("combobox", { name: "Language of the document" }).selectOption("th")
  await expect(tray.getByText("Words in Thai are not divided")).toBeVisible()
  await tray.getByRole("group", { name: "Unit of length" }).getByRole("button", { name: "pt" }).click()
  await desk.openPage("Write", "Paragraph")
  await expect(page.getByText("Space before (pt)")).toBeVisible()
  for (let i = 0; i < 3; i++) await page.getByRole("button", { name: /^Undo/ }).click()
  await expect.poll(lines).toEqual(before)
})

test("a font of one's own is used on the sheet and in every list; one that may not be embedded is refused with the reason", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("In a face of our own")
  await desk.press("Control+a")
  const tray = await desk.openPage("Write", "Letters")
  await tray.getByRole("button", { name: /^Typeface/ }).click()
  const bytes = readFileSync(
    join(root, "node_modules/@expo-google-fonts/comic-neue/400Regular/ComicNeue_400Regular.ttf"),
  )
  const renamed = Buffer.from(bytes)
  // The same font under another name: "Comic Neue" in UTF-16 becomes "Marsh Hand".
  const wide = (text: string) => Buffer.from([...text].flatMap((c) => [0, c.charCodeAt(0)]))
  for (let at = renamed.indexOf(wide("Comic Neue")); at >= 0; at = renamed.indexOf(wide("Comic Neue")))
    wide("Marsh Hand").copy(renamed, at)
  const add = tray.getByLabel("Font file")
  await add.setInputFiles({ name: "marsh.ttf", mimeType: "font/ttf", buffer: renamed })
  await expect(run(desk, "In a face")).toHaveCSS("font-family", /^"?own-[0-9a-f]{64}"?$/)
  await expect(tray.getByRole("option", { name: "Marsh Hand" }).first()).toBeVisible()
  expect((await desk.stored())[0]!.runs[0]!.marks).toEqual({ family: "Marsh Hand" })

  const tables = renamed.readUInt16BE(4)
  const os2 = Array.from({ length: tables }, (_, i) => 12 + 16 * i).find(
    (at) => renamed.subarray(at, at + 4).toString("latin1") === "OS/2",
  )!
  renamed.writeUInt16BE(2, renamed.readUInt32BE(os2 + 8) + 8)
  await add.setInputFiles({ name: "locked.ttf", mimeType: "font/ttf", buffer: renamed })
  await expect(page.getByRole("alert")).toContainText(
    "locked.ttf was not added. The maker of this font does not allow it to be embedded",
  )
  await page.getByRole("button", { name: "Put away", exact: true }).click()
  await add.setInputFiles({ name: "letter.ttf", mimeType: "font/ttf", buffer: Buffer.from("Dear Captain Orrin") })
  await expect(page.getByRole("alert")).toContainText("This is not a font file")
  await page.getByRole("button", { name: "Put away", exact: true }).click()
  const styles = await desk.openPage("Structure", "Styles")
  await styles.getByRole("button", { name: "Edit the style Body" }).click()
  await styles.getByRole("combobox", { name: "Typeface" }).selectOption("Marsh Hand")
  await expect.poll(async () => (await desk.server.styles(desk.id)).body?.letters.family).toBe("Marsh Hand")
})

test("a pin stops before the other edge, Escape puts back what is dragged, Enter makes a style by its name", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("The chain lies on the bed.")
  const start = page.getByRole("region", { name: "Ruler" }).getByRole("slider", { name: "Indent at the start" })
  const grip = async () => {
    const box = (await start.boundingBox())!
    await page.mouse.move(box.x + box.width / 2, box.y + 20)
    await page.mouse.down()
  }
  await grip()
  await page.mouse.move(1270, 80, { steps: 4 })
  await desk.press("Escape")
  await page.mouse.up()
  expect((await desk.stored())[0]!.format).toBeNull()
  await grip()
  await page.mouse.move(1270, 80, { steps: 4 })
  await page.mouse.up()
  const far = (await desk.stored())[0]!.format!.indentLeft as number
  expect(far).toBeGreaterThan(350)
  expect(far).toBeLessThanOrEqual(453.6 - 18)
  await desk.press("Control+z")
  await desk.press("Control+a", "Control+b")
  const tray = await desk.openPage("Structure", "Styles")
  await tray.getByRole("textbox", { name: "Name of the new style" }).fill("Notice board")
  await tray.getByRole("textbox", { name: "Name of the new style" }).press("Enter")
  expect((await desk.stored())[0]!.style).toBe("notice-board")
})
