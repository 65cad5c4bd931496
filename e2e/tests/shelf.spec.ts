import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import mammoth from "mammoth"
import { document as documentOf, letters, nodes, p, paragraph, table } from "@biblon/core/document"
import { formats } from "@biblon/core/formats"
import { assetName } from "@biblon/core/formats/assets"
import { enhancedMetafile, pictureRun } from "../../packages/core/test/drawings"
import { officeFile, wp, wr } from "../../packages/core/test/office"
import { expect, expectAccessible, test } from "../desk"
import { discPng } from "../picture"
import { inkOf } from "../pictures"
import { TestServer } from "../server"

test("the shelf shows every document with a picture of its first sheet, its sheets and when it changed", async ({
  page,
}) => {
  test.slow()
  // Of its own, so that nothing but the demo lies on it.
  const server = new TestServer()
  await server.start(true)
  await page.goto(server.address)
  for (const name of ["Letter to the harbour master", "Tides and timetables", "Minutes, 3 November"])
    await expect(page.getByText(name, { exact: true })).toBeVisible()
  // The sheets of long documents are counted one document after the other.
  await expect(page.getByText(/^1[2-9] sheets · changed yesterday$/)).toBeVisible({ timeout: 60_000 })
  for (const picture of await page.locator("img").all()) {
    // Those far down are not asked for before one comes near.
    await picture.scrollIntoViewIfNeeded()
    await expect.poll(() => picture.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(0)
  }
  await server.stop()
})

test("a blank sheet is made, told apart by its text, named in place and opened again", async ({ page, server }) => {
  await page.goto(server.address)
  await page.getByRole("button", { name: "A blank sheet" }).click()
  await page
    .locator(".sheet")
    .first()
    .click({ position: { x: 120, y: 120 } })
  await page.keyboard.type("Notice: dogs travel free")
  await expect(page.getByTestId("saving")).toHaveText(/^Saved \d\d/)
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await expect(page.getByText("“Notice: dogs travel free”")).toBeVisible()
  await expect(page.getByText(/· not named yet ·/).first()).toBeVisible()
  await page.getByRole("button", { name: "What to do with “Notice: dogs travel free”" }).click()
  await page.getByRole("menuitem", { name: "Rename" }).click()
  await page.keyboard.type("Slipway notice")
  await page.keyboard.press("Enter")
  await expect(page.getByText("Slipway notice", { exact: true })).toBeVisible()
  await page.reload()
  await page.getByText("Slipway notice", { exact: true }).click()
  await expect(page.locator(".run", { hasText: "dogs travel free" })).toBeVisible()
  await expect(page.getByRole("button", { name: /^Name: Slipway notice/ })).toBeVisible()
})

test("a name given at the desk is on the shelf and in the other tab", async ({ desk, page, context }) => {
  await desk.blank()
  const other = await context.newPage()
  await other.goto(page.url())
  await page.getByRole("button", { name: /^Name: not named yet/ }).click()
  await page.keyboard.type("Risk report, draft")
  await page.keyboard.press("Enter")
  await expect(other.getByRole("button", { name: /^Name: Risk report, draft/ })).toBeVisible()
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await expect(page.getByText("Risk report, draft", { exact: true })).toBeVisible()
})

test("an address without a document says so and leads back", async ({ page, server }) => {
  await page.goto(`${server.address}/d/nothing-here`)
  await expect(page.getByText("This document is not on the shelf.")).toBeVisible()
  await page.getByRole("link", { name: "Go to the shelf" }).click()
  await expect(page.getByText("Begin", { exact: true })).toBeVisible()
})

test("shelf and desk pass the automated check of accessibility", async ({ desk, page, server }) => {
  await page.goto(server.address)
  await expect(page.getByText("On the shelf")).toBeVisible()
  await expectAccessible(page)
  await desk.openNamed("Letter to the harbour master")
  for (const stage of ["Write", "Structure", "Deliver"]) {
    await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: stage }).click()
    await expect(page.getByRole("region", { name: stage })).toBeVisible()
    await expectAccessible(page)
  }
})

test("a file from elsewhere is brought in by button or drop, with what was left out; copies go out in other formats", async ({
  page,
  server,
}) => {
  await page.goto(server.address)
  const html = "<title>Slack water</title><h1>Slack water</h1><p>The ferry <b>waits</b>.</p><img src='x.png'>"
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "tides.html", mimeType: "text/html", buffer: Buffer.from(html) })
  await expect(page.locator(".block[role=heading]", { hasText: "Slack water" })).toBeVisible()
  await expect(page.getByText("Left out, or taken in otherwise: pictures that lie elsewhere (1).")).toBeVisible()
  await expect(page.getByRole("button", { name: /^Name: Slack water/ })).toBeVisible()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  for (const [name, ending, holds] of [
    ["Save as HTML", ".html", "<h1"],
    ["Save as plain text", ".txt", "The ferry waits."],
    ["Save as a Biblon file", ".json", '"biblon":'],
  ] as const) {
    const [file] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("button", { name: new RegExp(name) }).click(),
    ])
    expect(file.suggestedFilename()).toBe(`Slack water${ending}`)
    expect(readFileSync(await file.path(), "utf8")).toContain(holds)
  }
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.items.add(new File(["The chain is greased."], "Minutes of the chain.txt", { type: "text/plain" }))
    document.body.dispatchEvent(new DragEvent("drop", { dataTransfer: data, bubbles: true, cancelable: true }))
  })
  await expect(page.locator(".run", { hasText: "The chain is greased." })).toBeVisible()
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "cut.json", mimeType: "application/json", buffer: Buffer.from('{"biblon"') })
  await expect(page.getByRole("alert")).toContainText("cut.json was not brought in. This is not JSON")
})

test("what a format does not carry of a document is said before it is written; notes of CommonMark come in as such", async ({
  page,
  server,
}) => {
  await page.goto(server.address)
  const source =
    "# Tides\n\nSlack water[^1] waits.\n\n| Boat | Fare |\n| --- | --- |\n| Dawn | 2.50 |\n\n[^1]: Between *ebb* and flood.\n"
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "tides.md", mimeType: "text/markdown", buffer: Buffer.from(source) })
  await expect(page.locator(".block.note", { hasText: "Between ebb and flood." })).toBeVisible()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const copy = (name: string) => page.getByRole("button", { name: new RegExp(`^Save as ${name}`) })
  await expect(copy("plain text")).toContainText("Without a note as such, the table as such")
  await expectAccessible(page)
  for (const name of ["Office Open XML", "CommonMark", "HTML"]) await expect(copy(name)).not.toContainText("Without")
  await page.locator(".run", { hasText: "Tides" }).first().click()
  await page.keyboard.press("End")
  await page.keyboard.press("Enter")
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Sheet", exact: true }).click()
  await page.getByRole("tab", { name: "Behind" }).click()
  await page.getByRole("button", { name: "Draft", exact: true }).click()
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  await expect(copy("HTML")).toContainText("Without the watermark")
  await expect(copy("Office Open XML")).not.toContainText("Without")
})

test("drawings of a file from elsewhere are seen as pictures; one that cannot be drawn is said, with its place", async ({
  page,
  server,
}) => {
  const drawn = officeFile({
    body: wp(pictureRun("good") + wr("The gauge")) + wp(pictureRun("bad") + wr("The other")),
    relations: [
      ["good", "image", "media/gauge.emf"],
      ["bad", "image", "media/other.svg"],
    ],
    files: {
      "word/media/gauge.emf": enhancedMetafile(),
      "word/media/other.svg": "<svg xmlns='http://www.w3.org/2000/svg' width='80' height='40'><rect",
    },
  })
  await page.goto(server.address)
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "gauge.docx", mimeType: "", buffer: Buffer.from(drawn) })
  await expect(page.locator(".run", { hasText: "The gauge" })).toBeVisible()
  await expect(page.getByText("Left out, or taken in otherwise: drawings that cannot be read (1).")).toBeVisible()
  await expect(page.locator(".canvas .picture img")).toHaveCount(1)
  await expect
    .poll(() => page.locator(".canvas .picture img").evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(100)
  const box = (await page.locator(".canvas .picture img").boundingBox())!
  const { cells, columns, rows } = await inkOf(page, await page.screenshot({ clip: box }))
  const half = (from: number, to: number) => {
    const own = cells.filter((_, i) => i % columns >= from * columns && i % columns < to * columns)
    return own.reduce((sum, ink) => sum + ink, 0) / own.length
  }
  expect(rows / columns).toBeCloseTo(0.5, 1)
  expect([half(0.1, 0.4) > 0.6, half(0.6, 0.9) < 0.1]).toEqual([true, true])
})

test("with ?debug the boxes are drawn with the numbers of their leaves, and the layout's messages are logged", async ({
  page,
  server,
}) => {
  const logged: string[] = []
  page.on("console", (message) => void logged.push(message.text()))
  await page.goto(`${server.address}/d/${await server.create()}?debug`)
  await expect(page.locator(".outlines .column")).toHaveAttribute("data-leaf", "0")
  expect(logged.some((text) => text.startsWith("layout ← type: report"))).toBe(true)
})

test("a report is brought in as Office Open XML with its picture, changed, and goes out as that and as PDF", async ({
  desk,
  page,
  server,
}) => {
  const paper = join(mkdtempSync(join(tmpdir(), "biblon-docx-")), "report.docx")
  const asset = assetName(discPng(120, 90))
  const report = documentOf(
    [
      paragraph("heading1", ["Risks of the season"]),
      p("The chain is ", letters("worn", { bold: true }), "."),
      paragraph("body", ["grease it"], { list: { definition: "numbers", run: "a", level: 0 } }),
      table([
        [[p("Who")], [p("Fare")]],
        [[p("Oda")], [p("7")]],
      ]),
      p(nodes.picture.create({ asset, source: null, pixels: [120, 90], format: { alt: "A buoy" } })),
    ],
    {},
  )
  writeFileSync(paper, formats.docx.write?.({ name: "Risks", doc: report }, () => discPng(120, 90)) ?? new Uint8Array())
  await page.goto(server.address)
  await page.getByLabel("File to bring in").setInputFiles(paper)
  await expect(page.locator(".block[role=heading]", { hasText: "Risks of the season" })).toBeVisible()
  await expect
    .poll(() => page.locator(".picture img").evaluate((own: HTMLImageElement) => own.complete && own.naturalWidth))
    .toBe(120)
  await page.locator(".run", { hasText: "The chain is" }).click()
  await desk.press("End")
  await desk.type(" Watch it.")
  await desk.saved()
  expect(execFileSync("pdfimages", ["-list", await desk.pdf()], { encoding: "utf8" })).toMatch(/image\s+120\s+90/)
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /Save as Office Open XML/ }).click(),
  ])
  expect(file.suggestedFilename()).toBe("Risks.docx")
  const { value } = await mammoth.convertToHtml({ path: await file.path() })
  expect(value).toContain("<h1>Risks of the season</h1>")
  expect(value).toContain("The chain is <strong>worn</strong>. Watch it.")
  expect(value).toMatch(/<ol><li>grease it<\/li><\/ol>.*<table>.*Oda.*<img alt="A buoy"/)
})

test("what a file loses is listed, each with the way to its place", async ({ page, server }) => {
  const word = (text: string) => `<w:p><w:r><w:t>${text}</w:t></w:r></w:p>`
  const bytes = officeFile({
    body: `${word("A log of the crossings.").repeat(120)}<w:p><w:r><w:t>Here something was hidden.</w:t></w:r><w:r><w:rPr><w:vanish/></w:rPr><w:t>x</w:t></w:r></w:p>`,
  })
  await page.goto(server.address)
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "log.docx", mimeType: "", buffer: Buffer.from(bytes) })
  await expect(page.getByText("log.docx is here. Left out, or taken in otherwise: hidden text (1).")).toBeVisible()
  await page.getByRole("button", { name: "See where" }).click()
  const tray = page.getByRole("region", { name: "What came otherwise" })
  await expectAccessible(page)
  await tray.getByRole("button", { name: "Here something was hidden." }).click()
  await expect(page.locator(".block", { hasText: "Here something was hidden." })).toBeInViewport()
})

test("what others said of a passage is seen, read, found, and goes out again with what was written since", async ({
  desk,
  page,
  server,
}) => {
  const reference = '<w:r><w:commentReference w:id="3"/></w:r>'
  const bytes = officeFile({
    body: `${"<w:p/>".repeat(60)}<w:p><w:r><w:t xml:space="preserve">The chain is </w:t></w:r><w:commentRangeStart w:id="3"/><w:r><w:t>worn</w:t></w:r><w:commentRangeEnd w:id="3"/>${reference}<w:r><w:t>.</w:t></w:r></w:p>`,
    relations: [["c", "comments", "comments.xml"]],
    files: {
      "word/comments.xml":
        '<w:comments xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:comment w:id="3" w:author="Imre Fallow" w:date="2026-11-12T09:30:00Z"><w:p><w:r><w:t>Since when?</w:t></w:r></w:p></w:comment></w:comments>',
    },
  })
  await page.goto(server.address)
  await page
    .getByLabel("File to bring in")
    .setInputFiles({ name: "log.docx", mimeType: "", buffer: Buffer.from(bytes) })
  await expect(page.getByTestId("saving")).toHaveText(/^Saved/)
  await page.keyboard.press("Control+k")
  await page.keyboard.type("comment")
  await page.getByRole("option", { name: /Next comment/ }).click()
  const card = page.getByRole("group", { name: "Comment" })
  await expect(card).toContainText("Imre Fallow, 12 November 2026")
  await expect(card).toContainText("Since when?")
  const band = page.locator(".comment-band")
  const { left, right } = await desk.where("worn")
  const box = (await band.boundingBox())!
  expect(Math.abs(box.x - left)).toBeLessThan(1.5)
  expect(Math.abs(box.x + box.width - right)).toBeLessThan(1.5)
  // Typed before it, so that it moves.
  await desk.press("Home")
  await expect(card).toBeHidden()
  await desk.type("Once more: ")
  await page.mouse.click((await band.boundingBox())!.x + 6, (await band.boundingBox())!.y + 6)
  await expect(card).toContainText("Since when?")
  await expectAccessible(page)

  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: /Save as Office Open XML/ }).click(),
  ])
  const native = execFileSync("pandoc", [
    "-f",
    "docx",
    ["--tra", "ck-changes=all"].join(""),
    "-t",
    "markdown",
    await file.path(),
  ])
  expect(native.toString().replace(/\s+/g, " ")).toContain(
    'Once more: The chain is [Since when?]{.comment-start id="1" author="Imre Fallow" date="2026-11-12T09:30:00Z"}worn[]{.comment-end id="1"}.',
  )

  await page.mouse.click((await band.boundingBox())!.x + 6, (await band.boundingBox())!.y + 6)
  await card.getByRole("button", { name: "Take away" }).click()
  await expect(band).toBeHidden()
  await page.getByRole("button", { name: "Undo" }).click()
  await expect(band).toBeVisible()
})

test("a document is found by a phrase and opens at it; copies, the bin and the way back are one step each", async ({
  page,
}) => {
  // Of its own, so that all its rows are in sight.
  const server = new TestServer()
  await server.start(true)
  await page.goto(server.address)
  const search = page.getByRole("searchbox", { name: "Find on the shelf" })
  await search.fill("submarine elephants")
  await expect(page.getByText("No document is called that or holds these words.")).toBeVisible()
  await search.fill("half moon and a str")
  const found = page.getByRole("list", { name: "Found" }).getByRole("link")
  await expect(found).toHaveCount(1)
  await expect(found).toContainText("Tides and timetables")
  await found.click()
  await expect(page.getByTestId("find-count")).toHaveText("1 of 1")
  await expect(page.locator(".block.note", { hasText: "a half moon and a stroke" })).toBeInViewport()
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await search.fill("risk repo")
  await expect(found.first()).toContainText("Risk report")
  await search.fill("")

  const menu = (name: string) => page.getByRole("button", { name: `What to do with ${name}`, exact: true })
  await menu("Risk report").click()
  await page.getByRole("menuitem", { name: "Make a copy" }).click()
  await expect(menu("Risk report, copy")).toBeVisible()
  await menu("Risk report").focus()
  await page.keyboard.press("Enter")
  await expect(page.getByRole("menuitem", { name: "Rename" })).toBeFocused()
  await page.keyboard.press("ArrowUp")
  await expect(page.getByRole("menuitem", { name: "Put in the bin" })).toBeFocused()
  await page.keyboard.press("Enter")
  await expect(page.getByText("Risk report is in the bin.")).toBeVisible()
  await expect(menu("Risk report")).toBeHidden()
  await page.getByRole("button", { name: "Undo" }).click()
  await expect(menu("Risk report")).toBeVisible()
  await menu("Risk report, copy").click()
  await page.getByRole("menuitem", { name: "Put in the bin" }).click()
  await page.getByRole("button", { name: "Bin, 1 document" }).click()
  await expectAccessible(page)
  await page.getByRole("button", { name: "Remove for good" }).click()
  await expect(page.getByText(/^Bin, /)).toBeHidden()
  await server.stop()
})
