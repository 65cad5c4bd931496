/** Files that go along with a letter. */
import { execFileSync } from "node:child_process"
import { createHash } from "node:crypto"
import { mkdtempSync, readFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { faceFile } from "@biblon/core/node"
import { expect, test } from "../desk"

const rates = { name: "Rates 2027.csv", mimeType: "text/csv", buffer: Buffer.from("Crossing;Fare\nSingle;2.50\n") }

test("a file is enclosed, told of, called otherwise, had back, and goes along in the PDF", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("With this letter: ")
  await page.keyboard.press("Control+k")
  await page.keyboard.type("attach file")
  await page.keyboard.press("Enter")
  const tray = page.getByRole("region", { name: "Place", exact: true })
  await tray.getByLabel("File to enclose").setInputFiles(rates)
  await desk.expectShown("With this letter: Rates 2027.csv (CSV, 1 kB)")
  await desk.press("Enter")
  await desk.type("Enclosed: ")
  await tray.getByRole("button", { name: "Put in their names" }).click()
  await desk.expectShown("With this letter: Rates 2027.csv (CSV, 1 kB)", "Enclosed: Rates 2027.csv")

  const { middle, left } = await desk.where("Rates 2027.csv (CSV")
  await page.mouse.click(left + 20, middle)
  const card = page.getByRole("group", { name: "Field" })
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    card.getByRole("button", { name: "Save the file" }).click(),
  ])
  expect(download.suggestedFilename()).toBe("Rates 2027.csv")
  expect(readFileSync(await download.path(), "utf8")).toBe(rates.buffer.toString())
  await card.getByLabel("Called").fill("Fares.csv")
  await card.getByLabel("Called").press("Enter")
  await desk.expectShown("With this letter: Fares.csv (CSV, 1 kB)", "Enclosed: Fares.csv")

  await desk.saved()
  const path = await desk.pdf()
  const folder = mkdtempSync(join(tmpdir(), "biblon-enclosed-"))
  execFileSync("pdfdetach", ["-saveall", "-o", folder, path])
  expect(readFileSync(join(folder, "Fares.csv"), "utf8")).toBe(rates.buffer.toString())

  // Taken out, and had back with one undo.
  await desk.press("Control+Home", "Shift+End", "Delete")
  await desk.expectShown("", "Enclosed: –")
  await desk.press("Control+z")
  await desk.expectShown("With this letter: Fares.csv (CSV, 1 kB)", "Enclosed: Fares.csv")
})

test("Biblon's own file brings what is enclosed along, and a typeface of one's own", async ({ desk, page, server }) => {
  await desk.blank()
  const tray = await desk.openPage("Place", "Things")
  await tray.getByLabel("File to enclose").setInputFiles(rates)
  await desk.expectShown("Rates 2027.csv (CSV, 1 kB)")
  await desk.saved()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /Save as a Biblon/ }).click(),
  ])
  const whole = JSON.parse(readFileSync(await file.path(), "utf8")) as {
    files: string[]
    document: { attrs: { styles: { fonts: object; defaults: { letters: { family: string } } } } }
  }
  const face = readFileSync(faceFile("lora/400Regular_Italic/Lora_400Regular_Italic.ttf"))
  const asset = createHash("sha256").update(face).digest("hex")
  whole.files.push(face.toString("base64"))
  whole.document.attrs.styles.fonts = { "Marsh Hand": { regular: asset } }
  whole.document.attrs.styles.defaults.letters.family = "Marsh Hand"
  await page.goto(server.address)
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "letter.json", mimeType: "", buffer: Buffer.from(JSON.stringify(whole)) })
  await desk.expectShown("Rates 2027.csv (CSV, 1 kB)")
  expect(execFileSync("pdffonts", [await desk.pdf()], { encoding: "utf8" })).toContain("Own-")
})

test("a file that is too large is said to be, and one without a server is had from this device", async ({
  desk,
  page,
}) => {
  await desk.blank()
  const tray = await desk.openPage("Place", "Things")
  await tray.getByLabel("File to enclose").setInputFiles({ ...rates, name: "empty.csv", buffer: Buffer.alloc(0) })
  await expect(page.getByRole("alert")).toContainText("The file was not put in. There is nothing in it.")
  await page.getByRole("button", { name: "Put away", exact: true }).click()
  await page.route("**/api/enclosures", (route) => route.abort())
  await tray.getByLabel("File to enclose").setInputFiles(rates)
  await desk.expectShown("Rates 2027.csv (CSV, 1 kB)")
  const item = tray.getByRole("list", { name: "Enclosed files" }).getByRole("listitem")
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    item.getByRole("button", { name: "Save" }).click(),
  ])
  expect(readFileSync(await download.path(), "utf8")).toBe(rates.buffer.toString())
})
