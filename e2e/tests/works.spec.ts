/** Whole works, from the first setting to the finished file. */
import { readFileSync } from "node:fs"
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs"
import { expect, test, type DeskPage } from "../desk"
import { expectPrintsAsSeen } from "../pictures"

const openPdf = async (desk: DeskPage) =>
  getDocument({ data: new Uint8Array(readFileSync(await desk.pdf())), useSystemFonts: false, verbosity: 0 }).promise

const sentence = "The chain ferry crosses at slack water and rests when the tide runs hard. "

async function paste(desk: DeskPage, text: string): Promise<void> {
  await desk.page.evaluate((own) => navigator.clipboard.writeText(own), text)
  await desk.press("Control+v")
}

test("a report: watermark, frame, cover, contents in Roman front matter, body from 1, a heading in shorter words", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Risks of the trial season of the chain ferry")
  await desk.press("Control+Alt+j", "Enter")
  await paste(desk, `${sentence.repeat(7)}\n`.repeat(12).trim())
  await desk.press("Enter")
  await desk.type("What is done about it")
  await desk.press("Control+Alt+j", "Enter")
  await paste(desk, sentence.repeat(4).trim())
  await expect(page.getByRole("contentinfo")).toContainText(/Sheet [23] of [23]/)
  await desk.press("Control+Home")
  const outline = await desk.openPage("Structure", "Outline")
  await outline.getByRole("button", { name: "Put the contents here" }).click()
  const entries = page.locator(".block.generated")
  await expect(entries).toHaveCount(2)
  await outline.getByLabel("In shorter words there").fill("Risks")
  await outline.getByLabel("In shorter words there").press("Enter")
  await expect(entries.first()).toHaveText(/^Risks\d$/)
  // The body begins a section of its own, behind the contents.
  const columns = await desk.openPage("Sheet", "Columns")
  await columns.getByRole("button", { name: "On a new sheet" }).click()
  const edges = await desk.openPage("Sheet", "Head, foot")
  await edges.getByRole("button", { name: "All sheets" }).click()
  await edges.getByRole("button", { name: "Number at the foot, right" }).click()
  await edges.getByRole("button", { name: "This section", exact: true }).click()
  await edges.getByRole("switch", { name: "Count anew here" }).click()
  await page.locator(".block.generated").first().scrollIntoViewIfNeeded()
  await desk.press("Control+Home")
  await edges.getByLabel("Figures").selectOption("lowerRoman")
  const behind = await desk.openPage("Sheet", "Behind")
  await behind.getByRole("button", { name: "All sheets" }).click()
  await behind.getByRole("button", { name: "In confidence" }).click()
  await behind.getByLabel("Line", { exact: true }).selectOption("double")
  await behind.getByLabel("Title", { exact: true }).fill("Risks of the trial season")
  await behind.getByLabel("Author").fill("Nell Caddow")
  await behind.getByRole("button", { name: "Chart" }).click()
  await expect(page.locator(".block.text").first()).toHaveText("Risks of the trial season")
  await behind.getByRole("button", { name: "Pier" }).click()
  await expect(page.locator(".block.text").nth(1)).toHaveText("Nell Caddow")
  const pdf = await openPdf(desk)
  const labels = await pdf.getPageLabels()
  expect(labels?.slice(0, 3)).toEqual(["i", "i", "1"])
  expect((await pdf.getOutline()).map(({ title }: { title: string }) => title)).toEqual([
    "Risks of the trial season of the chain ferry",
    "What is done about it",
  ])
  // What stands behind the text is no part of what is read.
  const words = async (n: number, artifacts: boolean) =>
    (
      (await (await pdf.getPage(n)).getTextContent({ includeMarkedContent: true })).items as {
        type?: string
        tag?: string
        str?: string
      }[]
    ).reduce(
      ({ depth, text }, item) => ({
        depth: item.type?.startsWith("begin")
          ? [...depth, item.tag ?? ""]
          : item.type === "endMarkedContent"
            ? depth.slice(0, -1)
            : depth,
        text: item.str !== undefined && depth.includes("Artifact") === artifacts ? text + item.str : text,
      }),
      { depth: [] as string[], text: "" },
    ).text
  expect(await words(3, true)).toContain("In confidence")
  expect(await words(3, false)).not.toContain("In confidence")
  await expectPrintsAsSeen(desk)
  await page.reload()
  await expect(page.locator(".block.text").first()).toHaveText("Risks of the trial season")
})

test("a paper by a strict brief: face, size, spacing, indent, running head with name and number, hanging references", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Tides and timetables")
  await desk.press("Enter")
  await paste(desk, `${sentence.repeat(6)}\n`.repeat(9).trim())
  await desk.press("Enter")
  await desk.type(
    "Fallow, Imre. A chain across the channel. Saltmarsh: Toll House Press, 2019. With a table of the crossings of each month.",
  )
  await desk.press("Control+a")
  const tray = await desk.openPage("Write", "Paragraph")
  await tray.getByRole("group", { name: "Line spacing" }).getByRole("button", { name: "2", exact: true }).click()
  await expect
    .poll(async () => {
      const lines = await page
        .locator(".block.text")
        .nth(1)
        .locator(".line")
        .evaluateAll((all) => all.map((own) => own.getBoundingClientRect().top))
      return lines[1]! - lines[0]!
    })
    .toBeGreaterThan(30)
  await desk.press("Control+Home")
  await tray.getByRole("button", { name: "Centre" }).click()
  const edges = await desk.openPage("Sheet", "Head, foot")
  await edges.getByRole("button", { name: "Write the head" }).click()
  await desk.type("\t\tCaddow ")
  await edges.getByRole("button", { name: "Number", exact: true }).click()
  await desk.press("Escape")
  await expect
    .poll(async () => (await page.locator(".block.header").allTextContents()).slice(0, 2))
    .toEqual(["Caddow 1", "Caddow 2"])
  await desk.press("Control+End", "Control+k")
  await desk.type("Hanging")
  await desk.press("Enter")
  const lines = page.locator(".block.text").last().locator(".line")
  await expect
    .poll(async () => {
      const [first, second] = await lines.evaluateAll((all) =>
        all.map((own) => own.querySelector(".run")!.getBoundingClientRect().left),
      )
      return Math.round(second! - first!)
    })
    .toBeGreaterThan(15)
  await expectPrintsAsSeen(desk)
  expect((await (await openPdf(desk)).getPageLabels())?.slice(0, 2)).toEqual(["1", "2"])
})

test("minutes: numbered items, and a foot that says which sheet of how many", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Minutes of the trustees")
  await desk.press("Enter", "Control+Alt+o")
  for (const item of ["Apologies", "Night notice", "Second lamp"]) {
    await desk.type(item)
    await desk.press("Enter")
  }
  await desk.press("Enter")
  await paste(desk, `${sentence.repeat(7)}\n`.repeat(9).trim())
  const edges = await desk.openPage("Sheet", "Head, foot")
  await edges.getByRole("button", { name: "Number at the foot, middle" }).click()
  await edges.getByLabel("Written as").selectOption("Sheet %1 of %2")
  await expect(page.locator(".block.footer").first()).toHaveText(/^Sheet (\d) of [23]$/)
  await expect(page.getByRole("listitem")).toHaveCount(3)
  const pdf = await openPdf(desk)
  const text = ((await (await pdf.getPage(1)).getTextContent()).items as { str: string }[])
    .map(({ str }) => str)
    .join("")
  expect(text).toMatch(/1\.\s*Apologies.*2\.\s*Night notice.*3\.\s*Second lamp/)
  expect(text).toContain(`Sheet 1 of ${pdf.numPages}`)
  await expectPrintsAsSeen(desk)
})
