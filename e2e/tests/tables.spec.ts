import { execFileSync } from "node:child_process"
import { expect, expectAccessible, test, type DeskPage } from "../desk"
import { expectPrintsAsSeen } from "../pictures"

const put = (desk: DeskPage, kinds: Record<string, string>) =>
  desk.page.evaluate(
    (own) =>
      navigator.clipboard.write([
        new ClipboardItem(
          Object.fromEntries(Object.entries(own).map(([kind, text]) => [kind, new Blob([text], { type: kind })])),
        ),
      ]),
    kinds,
  )

/** What the cells of the first table show, row by row, as assistive technology finds them. */
const rows = (desk: DeskPage) =>
  desk.page
    .locator("[role=table]")
    .first()
    .locator("[role=row]")
    .evaluateAll((all) =>
      all.map((row) =>
        [...row.querySelectorAll("[role=cell],[role=columnheader],[role=rowheader]")].map((cell) =>
          [...cell.querySelectorAll(".block")]
            .map((b) => [...b.querySelectorAll(".line")].map((line) => line.textContent).join(""))
            .join("/"),
        ),
      ),
    )

const expectRows = (desk: DeskPage, ...wanted: string[]) =>
  expect.poll(async () => (await rows(desk)).map((row) => row.join(" | "))).toEqual(wanted)

/** A table of three columns, begun below a line of text. */
async function begun(desk: DeskPage): Promise<void> {
  await desk.blank()
  await desk.type("Actions")
  await desk.press("Enter")
  await desk.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" }).click()
  const grid = desk.page.getByRole("button", { name: /^Table of/ })
  const box = (await grid.boundingBox())!
  await desk.page.mouse.move(box.x + 12, box.y + 12)
  await desk.page.mouse.down()
  await desk.page.mouse.move(box.x + box.width * 0.36, box.y + box.height * 0.3, { steps: 4 })
  await expect(desk.page.getByText("3 × 3", { exact: true })).toBeVisible()
  await desk.page.mouse.up()
  for (const word of ["Action", "Who", "Fare", "Grease", "Imre", "12.50", "Paint", "Oda"]) {
    await desk.type(word)
    await desk.press("Tab")
  }
  await desk.type("7")
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "Paint | Oda | 7")
}

test("a table is swept in and written; Tab adds a row, arrows go from cell to cell and out of it, rails select, move and size", async ({
  desk,
  page,
}) => {
  await begun(desk)
  await desk.press("Tab")
  await desk.type("Print")
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "Paint | Oda | 7", "Print |  | ")
  await desk.press("ArrowUp", "Home")
  await desk.type("Re")
  await desk.press("ArrowDown", "ArrowDown")
  await desk.type("below")
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "RePaint | Oda | 7", "Print |  | ")
  await expect(page.locator(".block.text").last()).toHaveText("below")
  await desk.press("ArrowUp")
  await page.getByRole("button", { name: "Column 3" }).click()
  await expect(page.getByRole("button", { name: "Column 3" })).toHaveAttribute("aria-pressed", "true")
  expect(await desk.selected()).toBe("Fare\n12.50\n7\n")
  await desk.press("Control+b")
  // The third column is moved before the first.
  const third = (await page.getByRole("button", { name: "Column 3" }).boundingBox())!
  const first = (await page.getByRole("button", { name: "Column 1" }).boundingBox())!
  await page.mouse.move(third.x + 40, third.y + 4)
  await page.mouse.down()
  await page.mouse.move(first.x + 6, first.y + 4, { steps: 6 })
  await page.mouse.up()
  await expectRows(desk, "Fare | Action | Who", "12.50 | Grease | Imre", "7 | RePaint | Oda", " | Print | ")
  // Its edge is dragged: the next column gives what it takes.
  const grip = page.getByRole("slider", { name: "Width of column 1" })
  const before = Number(await grip.getAttribute("aria-valuenow"))
  const at = (await grip.boundingBox())!
  await page.mouse.move(at.x + 4, at.y + 4)
  await page.mouse.down()
  await page.mouse.move(at.x - 76, at.y + 4, { steps: 5 })
  await page.mouse.up()
  await expect.poll(async () => Number(await grip.getAttribute("aria-valuenow"))).toBeLessThan(before - 40)
  await page.getByRole("button", { name: "Add a row at the end" }).click()
  await expect(page.locator("[role=row]")).toHaveCount(5)
  await expectAccessible(page)
  await desk.press("Control+z", "Control+z", "Control+z")
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "RePaint | Oda | 7", "Print |  | ")
  await desk.saved()
  await page.reload()
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "RePaint | Oda | 7", "Print |  | ")
})

test("cells are selected by dragging, joined, divided and emptied; sheets are as the PDF", async ({ desk, page }) => {
  await begun(desk)
  const [from, to] = [await desk.where("Grease"), await desk.where("Oda")]
  await page.mouse.move(from.left + 4, from.middle)
  await page.mouse.down()
  await page.mouse.move(to.right - 2, to.middle, { steps: 6 })
  await page.mouse.up()
  expect(await desk.selected()).toBe("Grease\tImre\nPaint\tOda")
  const tray = await desk.openPage("Write", "Table")
  await tray.getByRole("button", { name: "Join cells" }).click()
  await expectRows(desk, "Action | Who | Fare", "Grease/Imre/Paint/Oda | 12.50", "7")
  await tray.getByRole("button", { name: "Tide board" }).click()
  await tray.getByRole("switch", { name: "Bands" }).click()
  await tray.getByRole("button", { name: "Ground, lines" }).click()
  await tray.getByRole("button", { name: "Middle", exact: true }).first().click()
  await expectPrintsAsSeen(desk)
  await desk.openPage("Write", "Table")
  await page.locator(".run", { hasText: "Imre" }).click()
  await tray.getByRole("button", { name: "Divide cell" }).click()
  await expectRows(desk, "Action | Who | Fare", "Grease/Imre/Paint/Oda |  | 12.50", " |  | 7")
  await page.getByRole("button", { name: "Row 2", exact: true }).click()
  await desk.press("Delete")
  await expectRows(desk, "Action | Who | Fare", " |  | ", " |  | 7")
  await desk.press("Control+z", "Control+z")
  await expectRows(desk, "Action | Who | Fare", "Grease/Imre/Paint/Oda | 12.50", "7")
})

test("lists above, in and below a table are all seen, as they are printed", async ({ desk, page }) => {
  await desk.blank()
  const table = "<table><tr><td>Hands<td><ul><li>inner</ul></table>"
  const html = `<ul><li>above<li>it</ul>${table}<ul><li>below<li>it</ul>${table}<ol><li>behind</ol>`
  await desk.paste({ "text/html": html, "text/plain": "" })
  for (const text of ["above", "below", "behind"])
    await expect(page.getByRole("list").getByText(text, { exact: true })).toBeVisible()
  await expect(page.getByRole("list")).toHaveCount(5)
  await desk.press("Escape")
  await expectPrintsAsSeen(desk)
})

test("the lines of a head rise, are pressed, selected and typed in as they stand, print so and fall again", async ({
  desk,
  page,
}) => {
  await begun(desk)
  await page.getByRole("button", { name: "Row 1", exact: true }).click()
  const tray = await desk.openPage("Write", "Table")
  await tray.getByRole("button", { name: "Ground, lines" }).click()
  await tray.getByRole("button", { name: "Rises" }).click()
  const head = page.locator("[role=table] .run").first()
  const upright = async () => {
    const { width, height } = (await head.boundingBox())!
    return width > height
  }
  await expect.poll(upright).toBe(false)
  const word = (await head.boundingBox())!
  await page.mouse.click(word.x + word.width / 2, word.y + 1)
  const caret = (await desk.caret.boundingBox())!
  expect(caret.width).toBeGreaterThan(caret.height)
  await desk.type("s")
  await expectRows(desk, "Actions | Who | Fare", "Grease | Imre | 12.50", "Paint | Oda | 7")
  await desk.press("Home", "Shift+End")
  expect(await desk.selected()).toBe("Actions")
  await page.mouse.move(word.x + word.width / 2, word.y + word.height - 1)
  await page.mouse.down()
  await page.mouse.move(word.x + word.width / 2, word.y + word.height * 0.52, { steps: 4 })
  await page.mouse.up()
  expect("Actions".startsWith(await desk.selected())).toBe(true)
  await desk.press("ArrowDown")
  await desk.type("x")
  await expect.poll(async () => (await rows(desk))[1]?.join()).toContain("x")
  await expectPrintsAsSeen(desk)
  await desk.openPage("Write", "Table")
  await head.click()
  await tray.getByRole("button", { name: "Lies" }).click()
  await expect.poll(upright).toBe(true)
})

test("minutes: a table of actions over three sheets, its head on each, sorted by date, tagged in the PDF", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Minutes of the trustees")
  await desk.press("Enter")
  const months = ["January", "March", "May", "August", "October"]
  const lines = Array.from(
    { length: 90 },
    (_, i) => `Action ${i + 1}\t${["Imre", "Oda", "Wim"][i % 3]}\t${1 + ((i * 7) % 28)} ${months[i % 5]} 2027`,
  )
  await put(desk, { "text/plain": ["Action\tWho\tDue", ...lines].join("\n") })
  await desk.press("Control+v")
  await expect(page.getByRole("contentinfo")).toContainText(/Sheet \d of [345]/)
  await desk.press("Control+Home", "ArrowDown")
  const tray = await desk.openPage("Write", "Table")
  await tray.getByRole("button", { name: "Sort", exact: true }).click()
  await tray.getByLabel("By", { exact: true }).selectOption({ label: "Due" })
  await tray.getByRole("button", { name: "Sort 90 rows" }).click()
  const shown = await rows(desk)
  expect([shown[0], shown[1]?.[2]]).toEqual([["Action", "Who", "Due"], "1 January 2027"])
  const path = await desk.pdf()
  const text = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" })
  expect(text.split("\f").filter((sheet) => /Action\s+Who\s+Due/.test(sheet)).length).toBeGreaterThanOrEqual(3)
  const structure = execFileSync("pdfinfo", ["-struct", path], { encoding: "utf8" })
  expect(structure.match(/^\s*Table/gm)).toHaveLength(1)
  expect(structure.match(/^\s*TR/gm)).toHaveLength(91)
  expect(structure.match(/^\s*TH/gm)).toHaveLength(3)
  expect(structure.match(/^\s*TD/gm)).toHaveLength(270)
})

test("expenses: totals are computed and follow what is typed, errors are said in words", async ({ desk, page }) => {
  await begun(desk)
  await desk.press("Tab")
  await desk.type("Total")
  await desk.press("Tab", "Tab")
  const tray = await desk.openPage("Write", "Table")
  await tray.getByRole("button", { name: "Formula", exact: true }).click()
  await tray.getByRole("button", { name: "Sum of the column" }).click()
  await tray.getByLabel("Written").selectOption({ label: "1.00" })
  await tray.getByRole("switch", { name: "Total row" }).click()
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "Paint | Oda | 7", "Total |  | 19.50")
  await page.locator(".run", { hasText: /^7$/ }).click()
  await desk.press("End")
  await desk.type("0")
  await expectRows(desk, "Action | Who | Fare", "Grease | Imre | 12.50", "Paint | Oda | 70", "Total |  | 82.50")
  await page.locator(".run", { hasText: "Oda" }).click()
  await tray.getByLabel("Formula of the cell").fill("C2 / A1")
  await tray.getByLabel("Formula of the cell").press("Enter")
  await expect(page.locator("[role=row]").nth(2)).toContainText("A1 is no number")
  await desk.saved()
})

test("a table copied from a calculating program comes as one, and goes out as HTML and by tabs", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await put(desk, {
    "text/html":
      "<table><tr><th>Berth</th><th>Boat</th></tr><tr><td rowspan=2 style='background-color:#dce8f2'>4</td><td>Oriel</td></tr><tr><td>Wren</td></tr></table>",
    "text/plain": "Berth\tBoat\n4\tOriel\n\tWren",
  })
  await desk.press("Control+v")
  await expectRows(desk, "Berth | Boat", "4 | Oriel", "Wren")
  await page.locator(".run", { hasText: "Boat" }).click()
  await page.getByRole("button", { name: "Select the table" }).click()
  await desk.press("Control+c")
  const kinds = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read()
    const read = async (type: string) => (await item!.getType(type)).text()
    return { html: await read("text/html"), text: await read("text/plain") }
  })
  expect(kinds.text).toBe("Berth\tBoat\n4\tOriel\nWren")
  expect(kinds.html).toMatch(/<th scope="col"[^>]*>.*Berth/s)
  expect(kinds.html).toContain('rowspan="2"')
})
