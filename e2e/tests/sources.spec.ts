import { execFileSync } from "node:child_process"
import { readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { expect, test } from "../desk"

const bib = join(tmpdir(), "biblon-sources.bib")
writeFileSync(
  bib,
  `@string{je = "Journal of Estuaries"}
@article{marlowe2019, author={Marlowe, Ida and van der Meer, Jan}, title={Hauling ropes in tidal water}, journal=je, year=2019, volume=12, number=3, pages={12--34}}
@book{sands2001, author="Sands, Ben", title="Tides and people", year="2001", publisher="Harbour Press", address="Saltmarsh"}
@book{bjorn1999, author={Bj\xf8rn, \\AA se}, title={Sm\xe5 b\xe5ter}, year=1999}
@book{broken, title = {Never closed
`,
  // As older programs write it.
  "latin1",
)

test("a list of literature is brought in, cited, changed over to notes and to numbers, and saved", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("The rope was laid ")
  const tray = await desk.openPage("Place", "Sources")
  await tray.getByLabel("File with sources").setInputFiles(bib)
  await expect(tray.getByRole("status")).toHaveText("3 sources came in. 1 could not be read.")
  await expect(tray.getByRole("list", { name: "Sources of the document" })).toContainText("Bjørn")
  const cite = tray.getByRole("textbox", { name: "Cite: a name, a title or a year" })
  await cite.fill("sands")
  await expect(tray.getByRole("list", { name: "Sources of the document" }).getByRole("listitem")).toHaveCount(1)
  await cite.press("Enter")
  await expect(desk.field).toBeFocused()
  await desk.type(" by hand ")
  await tray.getByRole("button", { name: /^Cite Marlowe and van der Meer, 2019/ }).click()
  await desk.expectShown("The rope was laid (Sands, 2001) by hand (Marlowe & van der Meer, 2019)")
  await tray.getByRole("switch", { name: "List of references at the end" }).click()
  const shown = () => desk.shown()
  await expect.poll(async () => (await shown()).at(-2)).toBe("Sands, B. (2001). Tides and people. Harbour Press.")
  await expect(page.locator(".block.generated .run", { hasText: "Tides and people" })).toHaveCSS(
    "font-family",
    /italic/,
  )

  // A page, and words before it, where the citation stands.
  await page.locator(".run", { hasText: "Sands, 2001" }).first().click()
  const card = page.getByRole("group", { name: "Field" })
  await card.getByRole("textbox", { name: "Page" }).fill("14")
  await card.getByRole("textbox", { name: "Before" }).fill("see")
  await card.getByRole("textbox", { name: "Before" }).press("Enter")
  await expect.poll(async () => (await shown())[0]).toContain("(see Sands, 2001, p. 14)")
  await desk.press("Escape")

  const style = tray.getByRole("combobox", { name: "Style" })
  await style.selectOption("chicago-fullnote-bibliography")
  await expect(page.locator(".block.note").first()).toContainText(
    "Ben Sands, Tides and People (Saltmarsh: Harbour Press, 2001), 14",
  )
  await expect.poll(async () => (await shown())[0]).toBe("The rope was laid1 by hand2")
  await style.selectOption("ieee")
  await expect.poll(async () => (await shown())[0]).toBe("The rope was laid see [1, p. 14] by hand [2]")
  await expect(page.locator(".block.note")).toHaveCount(0)

  // A source that is taken out is missed, and comes back.
  await tray.getByRole("button", { name: "Take out Tides and people" }).click()
  await expect(tray.getByRole("status").first()).toHaveText("One source that is cited is missing here.")
  await desk.field.focus()
  await desk.press("Control+z")
  await expect(tray.getByRole("button", { name: "Take out Tides and people" })).toBeVisible()

  await tray.getByRole("button", { name: "Save the list as a file" }).click()
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    tray.getByRole("button", { name: "RIS" }).click(),
  ])
  expect(readFileSync(await download.path(), "utf8")).toContain("TI  - Tides and people")
  expect(execFileSync("pdftotext", [await desk.pdf(), "-"], { encoding: "utf8" })).toContain("[1, p. 14]")
  // Somebody who opens it anew sees the same.
  await desk.saved()
  await page.reload()
  await expect.poll(async () => (await shown())[0]).toBe("The rope was laid see [1, p. 14] by hand [2]")
})
