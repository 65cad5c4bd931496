import { execFileSync } from "node:child_process"
import { expect, expectAccessible, test, type DeskPage } from "../desk"
import { discPng } from "../picture"
import { expectPrintsAsSeen } from "../pictures"

const words = "The chain ferry crosses at slack water and rests when the tide runs hard. "

const place = (desk: DeskPage) =>
  desk.page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Place" })

/** A paragraph with a picture at its start, selected, and the tray for it open. */
async function pictured(desk: DeskPage, buffer = discPng(400, 300)) {
  const { page } = desk
  await desk.blank()
  for (let i = 0; i < 3; i++) {
    await page.keyboard.insertText(words.repeat(5).trim())
    await desk.press("Enter")
  }
  await desk.press("Control+Home")
  await place(desk).click()
  await page.getByLabel("Pictures to put in").setInputFiles({ name: "disc.png", mimeType: "image/png", buffer })
  await expect(page.locator(".picture img")).toHaveCount(1)
  await expect(page.locator(".picture-frame")).toBeVisible()
  return desk.openPage("Write", "Picture")
}

/** Where the picture stands. Its element is another one after each change, so one that is just going is not asked. */
async function box(desk: DeskPage) {
  const picture = desk.page.locator(".canvas .picture").first()
  let own: Awaited<ReturnType<typeof picture.boundingBox>> = null
  await expect.poll(async () => (own = await picture.boundingBox())).not.toBeNull()
  return own!
}

/** The middle of the grip at the picture's lower right corner, once the frame stands round the picture. */
async function corner(desk: DeskPage): Promise<{ x: number; y: number }> {
  const grip = desk.page.getByTestId("picture-corner 1,1")
  let middle = { x: NaN, y: NaN }
  await expect
    .poll(async () => {
      const [{ x, y, width, height }, own] = [await box(desk), (await grip.boundingBox())!]
      middle = { x: own.x + own.width / 2, y: own.y + own.height / 2 }
      return Math.hypot(x + width - middle.x, y + height - middle.y)
    })
    .toBeLessThan(4)
  return middle
}

test("a picture from a file is sized by its corner, turned, cropped and shaped; sheets are as the PDF, which says what it shows", async ({
  desk,
  page,
}) => {
  const tray = await pictured(desk)
  await tray.getByLabel("What it shows").fill("A disc")
  await tray.getByLabel("What it shows").press("Enter")
  const before = await box(desk)
  const from = await corner(desk)
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x - before.width / 2, from.y - before.height / 2, { steps: 6 })
  await page.mouse.up()
  await expect.poll(async () => (await box(desk)).width / before.width).toBeCloseTo(0.5, 1)
  const half = await box(desk)
  expect(half.width / half.height).toBeCloseTo(before.width / before.height, 1)
  // Escape puts back what is being dragged.
  const again = await corner(desk)
  await page.mouse.move(again.x, again.y)
  await page.mouse.down()
  await page.mouse.move(again.x + 82, again.y + 72, { steps: 4 })
  await expect.poll(async () => (await box(desk)).width).toBeGreaterThan(half.width + 30)
  await desk.press("Escape")
  await page.mouse.up()
  await expect.poll(async () => Math.round((await box(desk)).width)).toBe(Math.round(half.width))
  await tray.getByRole("button", { name: "Crop", exact: true }).click()
  const side = (await page.getByTestId("picture-side 1,0").boundingBox())!
  await page.mouse.move(side.x + 8, side.y + 8)
  await page.mouse.down()
  await page.mouse.move(side.x + 8 - half.width / 4, side.y + 8, { steps: 4 })
  await page.mouse.up()
  await tray.getByRole("button", { name: "Done" }).click()
  await expect.poll(async () => (await box(desk)).width / half.width).toBeCloseTo(0.75, 1)
  await tray.getByRole("button", { name: "Rounded" }).click()
  await tray.getByRole("button", { name: "Frame, shadow" }).click()
  await tray.getByLabel("Frame", { exact: true }).selectOption("solid")
  await tray.getByRole("switch", { name: "Shadow" }).click()
  await expectAccessible(page)
  await expectPrintsAsSeen(desk)
  const structure = execFileSync("pdfinfo", ["-struct", await desk.pdf()], { encoding: "utf8" })
  expect(structure).toMatch(/Figure/)
})

test("text goes round a picture that stands beside it, which is dragged to the other side; undo brings it back", async ({
  desk,
  page,
}) => {
  const tray = await pictured(desk)
  const width = tray.getByRole("textbox", { name: "Width", exact: true })
  await width.fill("2 in")
  await width.press("Enter")
  await tray.getByRole("button", { name: "Beside" }).click()
  const sheet = (await desk.firstSheet.boundingBox())!
  await expect.poll(async () => (await box(desk)).x).toBeGreaterThan(sheet.x + sheet.width / 2)
  const right = await box(desk)
  const first = page.locator(".canvas .line").first()
  await expect.poll(async () => (await first.locator(".run").last().boundingBox())?.x ?? NaN).toBeLessThan(right.x)
  const body = (await page.getByTestId("picture-body").boundingBox())!
  await page.mouse.move(body.x + body.width / 2, body.y + body.height / 2)
  await page.mouse.down()
  await page.mouse.move(sheet.x + 150, body.y + body.height / 2 + 30, { steps: 8 })
  // The text follows while it is dragged.
  await expect.poll(async () => (await box(desk)).x).toBeLessThan(sheet.x + sheet.width / 3)
  await page.mouse.up()
  await expect.poll(async () => (await box(desk)).x).toBeLessThan(sheet.x + sheet.width / 3)
  await expectPrintsAsSeen(desk)
  await page.getByRole("button", { name: "Undo", exact: true }).click()
  const now = (await desk.firstSheet.boundingBox())!
  await expect.poll(async () => Math.round((await box(desk)).x)).toBeGreaterThan(now.x + now.width / 2)
})

test("in a cell of a table the text of that cell goes round it, wherever it is dragged in the cell; printed as it is seen", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await page.evaluate(async (text) => {
    const html = `<table><tr><td>${text}</td><td>Ebb</td></tr><tr><td>Slack</td><td>Flood</td></tr></table>`
    await navigator.clipboard.write([new ClipboardItem({ "text/html": new Blob([html], { type: "text/html" }) })])
  }, words.repeat(6))
  await desk.press("Control+v")
  await page.locator(".run", { hasText: "The chain" }).first().click()
  await desk.press("Home")
  await place(desk).click()
  await page
    .getByLabel("Pictures to put in")
    .setInputFiles({ name: "disc.png", mimeType: "image/png", buffer: discPng(240, 240) })
  await expect(page.locator(".picture-frame")).toBeVisible()
  const tray = await desk.openPage("Write", "Picture")
  const width = tray.getByRole("textbox", { name: "Width", exact: true })
  await width.fill("1 in")
  await width.press("Enter")
  await tray.getByRole("button", { name: "Beside" }).click()
  await desk.settled()
  const ebb = (await page.locator(".run", { hasText: "Ebb" }).boundingBox())!
  const right = await box(desk)
  const first = () => page.locator(".canvas .line").first().locator(".run").first().boundingBox()
  expect(right.x + right.width).toBeLessThan(ebb.x)
  expect((await first())!.x + (await first())!.width).toBeLessThan(right.x)
  const body = (await page.getByTestId("picture-body").boundingBox())!
  await page.mouse.move(body.x + body.width / 2, body.y + body.height / 2)
  await page.mouse.down()
  // Further than the cell reaches, it stays in the cell.
  await page.mouse.move(body.x - 900, body.y + body.height / 2 + 20, { steps: 8 })
  await page.mouse.up()
  await desk.settled()
  const left = await box(desk)
  const slack = (await page.locator(".run", { hasText: /^Slack$/ }).boundingBox())!
  expect(Math.abs(left.x - slack.x)).toBeLessThan(2)
  expect(left.y).toBeGreaterThan(right.y + 10)
  expect(slack.y).toBeGreaterThan(left.y + left.height)
  await expectPrintsAsSeen(desk)
})

test("amid the text, it has text on both sides, through which one moves and in which one writes; printed as it is seen", async ({
  desk,
  page,
}) => {
  const tray = await pictured(desk)
  const width = tray.getByRole("textbox", { name: "Width", exact: true })
  await width.fill("1.5 in")
  await width.press("Enter")
  await tray.getByRole("button", { name: "Beside" }).click()
  await tray.getByLabel("Where it stands across").getByRole("button", { name: "Middle" }).click()
  const sheet = (await desk.firstSheet.boundingBox())!
  const middle = sheet.x + sheet.width / 2
  const own = () => box(desk)
  await expect.poll(async () => Math.abs((await own()).x + (await own()).width / 2 - middle)).toBeLessThan(3)
  const { x, y, width: wide, height } = await own()
  // On its right, in the middle of its height: what is typed there stands there.
  await page.mouse.click(x + wide + 60, y + height / 2)
  await desk.type("MARK")
  const mark = await desk.where("MARK")
  expect(mark.left).toBeGreaterThan(x + wide)
  expect(Math.abs(mark.middle - (y + height / 2))).toBeLessThan(24)
  const caret = () => desk.caret.boundingBox()
  const before = (await caret())!
  await desk.press("ArrowDown")
  await expect.poll(async () => (await caret())!.y).toBeGreaterThan(before.y + 10)
  const below = (await caret())!
  expect(Math.abs(below.x - before.x)).toBeLessThan(12)
  expect(below.y - before.y).toBeLessThan(40)
  await desk.press("ArrowUp", "ArrowUp")
  await expect.poll(async () => (await caret())!.y).toBeLessThan(before.y - 10)
  expect(Math.abs((await caret())!.x - before.x)).toBeLessThan(12)
  await expectPrintsAsSeen(desk)
})

test("a background is taken away and greys are made, from the original, which comes back", async ({ desk, page }) => {
  const tray = await pictured(desk)
  await tray.getByRole("button", { name: "Colours and background" }).click()
  const image = page.locator(".canvas .picture img")
  const corner = () =>
    image.evaluate(async (img: HTMLImageElement) => {
      await img.decode()
      const context = new OffscreenCanvas(img.naturalWidth, img.naturalHeight).getContext("2d")!
      context.drawImage(img, 0, 0)
      const at = (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data]
      return { edge: at(2, 2), middle: at(img.naturalWidth / 2, img.naturalHeight / 2) }
    })
  const original = await image.getAttribute("src")
  await tray.getByRole("switch", { name: "Background taken away" }).click()
  await expect.poll(async () => (await corner()).edge[3]).toBe(0)
  expect((await corner()).middle).toEqual([122, 31, 75, 255])
  await tray.getByRole("button", { name: "Greys" }).click()
  await expect.poll(async () => new Set((await corner()).middle.slice(0, 3)).size).toBe(1)
  await tray.getByRole("button", { name: "Its own" }).click()
  await tray.getByRole("switch", { name: "Background taken away" }).click()
  await expect(image).toHaveAttribute("src", original!)
  await desk.saved()
})

test("what is no picture is refused in words, and the text is as it was", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Notice")
  await place(desk).click()
  const input = page.getByLabel("Pictures to put in")
  const refused = async (buffer: Buffer, name: string, told: RegExp) => {
    await input.setInputFiles({ name, mimeType: "image/png", buffer })
    const notice = page.getByRole("alert").filter({ hasText: "The picture was not put in" })
    await expect(notice).toContainText(told)
    await notice.getByRole("button", { name: "Put away" }).click()
  }
  await refused(Buffer.from("GIF no"), "fake.png", /no picture|damaged/)
  await refused(discPng(50, 50).subarray(0, 90), "cut.png", /damaged|cut off/)
  await refused(Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'><"), "broken.svg", /damaged/)
  await desk.expectShown("Notice")
  // A drawing runs no script and fetches nothing.
  const asked: string[] = []
  page.on("request", (request) => asked.push(request.url()))
  await input.setInputFiles({
    name: "hostile.svg",
    mimeType: "image/svg+xml",
    buffer: Buffer.from(
      "<svg xmlns='http://www.w3.org/2000/svg' width='80' height='60' onload='document.title=1'><script>document.title='ran'</script><image href='http://elsewhere.example/a.png' width='9' height='9'/><rect width='80' height='60' fill='#7a1f4b'/></svg>",
    ),
  })
  await expect(page.locator(".picture img")).toHaveCount(1)
  expect(asked.filter((url) => url.includes("elsewhere"))).toEqual([])
  expect(await page.title()).not.toContain("ran")
})

test("without the server a picture goes in, shows and prints from this device, also after a reload, and is given to the server later", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("The buoy")
  await desk.saved()
  await page.route("**/api/pictures", (route) => route.abort())
  await place(desk).click()
  const input = page.getByLabel("Pictures to put in")
  await input.setInputFiles({ name: "disc.png", mimeType: "image/png", buffer: discPng(300, 300) })
  const image = page.locator(".picture img")
  const shown = () => image.evaluate((own: HTMLImageElement) => own.complete && own.naturalWidth)
  await expect.poll(shown).toBe(300)
  await desk.saved()
  await page.reload()
  await expect.poll(shown).toBe(300)
  await expect(image).toHaveAttribute("src", /^blob:/)
  expect(execFileSync("pdfimages", ["-list", await desk.pdf()], { encoding: "utf8" })).toMatch(/image\s+300\s+300/)
  await page.unroute("**/api/pictures")
  await page.reload()
  await expect.poll(shown).toBe(300)
  await expect.poll(() => page.evaluate(async () => (await indexedDB.databases()).length)).toBeGreaterThan(0)
  await expect
    .poll(async () => {
      await page.reload()
      await expect.poll(shown).toBe(300)
      return image.getAttribute("src")
    })
    .toMatch(/^\/api\/assets\//)
})

test("a picture in its line is dragged like a word; one that floats shows a pin where it is tied, and catches at the column's edge", async ({
  desk,
  page,
}) => {
  const tray = await pictured(desk, discPng(60, 60))
  const text = page.locator(".block.text").nth(1)
  const before = await box(desk)
  const aim = (await text.locator(".run").nth(1).boundingBox())!
  await page.mouse.move(before.x + before.width / 2, before.y + before.height / 2)
  await page.mouse.down()
  await page.mouse.move(aim.x + 200, aim.y + aim.height / 2, { steps: 8 })
  await page.mouse.up()
  await expect.poll(async () => Math.abs((await box(desk)).y - aim.y)).toBeLessThan(80)
  await expect(text.locator(".picture")).toHaveCount(1)
  await desk.press("Control+z")
  await expect(page.locator(".block.text").first().locator(".picture")).toHaveCount(1)

  await page.locator(".picture").first().click()
  await tray.getByRole("button", { name: "Beside" }).click()
  const pin = page.getByTitle("The picture moves with this line")
  await expect(pin).toBeVisible()
  const column = (await page.locator(".block.text").first().boundingBox())!
  expect((await pin.boundingBox())!.x).toBeLessThan(column.x)
  const now = await box(desk)
  await page.mouse.move(now.x + now.width / 2, now.y + now.height / 2)
  await page.mouse.down()
  await page.mouse.move(column.x + 4 + now.width / 2, now.y + now.height / 2 + 40, { steps: 6 })
  await page.mouse.up()
  await expect.poll(async () => Math.abs((await box(desk)).x - column.x)).toBeLessThan(1.5)
})
