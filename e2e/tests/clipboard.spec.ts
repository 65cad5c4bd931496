import { expect, test, type DeskPage } from "../desk"

/** Puts HTML and text on the clipboard as another program would. */
const putHtml = (desk: DeskPage, html: string, text = "") =>
  desk.page.evaluate(
    ([h, t]) =>
      navigator.clipboard.write([
        new ClipboardItem({
          "text/html": new Blob([h!], { type: "text/html" }),
          "text/plain": new Blob([t!], { type: "text/plain" }),
        }),
      ]),
    [html, text],
  )

test("copying and pasting inside Biblon loses nothing; other programs get clean HTML and text", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Letter to the harbour master")
  await page.locator(".run", { hasText: "Dear Captain" }).click()
  await desk.press("Control+a", "Control+c")
  const kinds = await page.evaluate(async () => {
    const [item] = await navigator.clipboard.read()
    const read = async (type: string) => (await item!.getType(type)).text()
    return { html: await read("text/html"), text: await read("text/plain") }
  })
  expect(kinds.text).toContain("Dear Captain Orrin,\nThe Trust has")
  expect(kinds.html).toContain("<h1")
  expect(kinds.html).toContain("<strong>east slipway</strong>")
  expect(kinds.html).not.toContain("class=")
  const original = await desk.server.paragraphs(desk.id)
  await desk.blank()
  await desk.press("Control+v")
  await desk.saved()
  const pasted = await desk.stored()
  expect(pasted.slice(0, original.length)).toEqual(original)
})

test("HTML from elsewhere is cleaned; the card offers other ways, each one change", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("Before: ")
  await putHtml(
    desk,
    `<p onclick="x()">The <b style="color:#7a1f4b;font-size:20pt">chain</b> lies<script>alert(1)</script></p><h2>Head</h2>`,
    "The chain lies\nHead",
  )
  await desk.press("Control+v")
  await desk.expectShown("Before: ", "The chain lies", "Head")
  const card = page.getByRole("toolbar", { name: "How to paste" })
  await expect(card.getByRole("button", { name: "As it was" })).toHaveAttribute("aria-pressed", "true")
  let stored = await desk.stored()
  expect(stored[1]?.runs[1]).toEqual({ text: "chain", marks: { bold: true, colour: "#7a1f4b", size: 20 } })
  expect(stored[2]?.style).toBe("heading2")
  await card.getByRole("button", { name: "In the look of here" }).click()
  await expect(card.getByRole("button", { name: "In the look of here" })).toHaveAttribute("aria-pressed", "true")
  stored = await desk.stored()
  expect(stored[1]?.runs[1]).toEqual({ text: "chain", marks: { bold: true } })
  await card.getByRole("button", { name: "Text only" }).click()
  await desk.expectShown("Before: The chain lies", "Head")
  expect((await desk.stored())[0]?.runs.length).toBe(1)
  await desk.type("!")
  await expect(card).toHaveCount(0)
  await desk.press("Control+z", "Control+z")
  await desk.expectShown("Before: ")
  // The card goes when it is in the way, and when the caret goes elsewhere; the same is to be had without it.
  for (const away of ["Escape", "ArrowUp"]) {
    await desk.press("Control+v")
    await expect(card).toBeVisible()
    await desk.press(away)
    await expect(card).toHaveCount(0)
    await desk.press("Control+z")
  }
  await desk.expectShown("Before: ")
  await desk.press("Control+k")
  await page.keyboard.type("paste match")
  await page.keyboard.press("Enter")
  await desk.expectShown("Before: ", "The chain lies", "Head")
  expect((await desk.stored())[1]?.runs[1]).toEqual({ text: "chain", marks: { bold: true } })
})

test("cut by button, paste by button", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("One two")
  await desk.saved()
  await desk.selectWord("two")
  await page.getByRole("toolbar", { name: "Tools for the selection" }).getByRole("button", { name: /^Cut/ }).click()
  await desk.expectShown("One ")
  await desk.press("Control+Home", "Control+k")
  await page.keyboard.type("paste")
  await page.keyboard.press("Enter")
  await desk.expectShown("twoOne ")
})

test("the selection is dragged elsewhere, with Ctrl copied; a click inside it puts the caret there", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("Alpha beta gamma")
  await desk.saved()
  await desk.press("Control+Home", "Control+Shift+ArrowRight")
  await desk.expectSelected("Alpha")
  const [alpha, gamma] = [await desk.where("Alpha"), await desk.where("gamma")]
  const carry = async (ctrl: boolean) => {
    await page.mouse.move((alpha.left + alpha.right) / 2, alpha.middle)
    await page.mouse.down()
    await page.mouse.move(gamma.left - 60, gamma.middle, { steps: 3 })
    await page.mouse.move(gamma.left, gamma.middle, { steps: 3 })
    await expect(page.locator(".drop-caret")).toBeVisible()
    if (ctrl) await page.keyboard.down("Control")
    await page.mouse.up()
    if (ctrl) await page.keyboard.up("Control")
  }
  await carry(true)
  await desk.expectShown("Alpha beta Alpha gamma")
  await desk.expectSelected("Alpha")
  await desk.press("Control+z", "Control+Home", "Control+Shift+ArrowRight")
  await desk.expectShown("Alpha beta gamma")
  await carry(false)
  // Neither two blanks stay behind, nor do the words run together.
  await desk.expectShown(" beta Alpha gamma")
  await expect(page.locator(".drop-caret")).toBeHidden()
})

test("text dropped from elsewhere lands where it is let go", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("One three")
  const three = await desk.where("three")
  await page.evaluate(
    ([x, y]) => {
      const dataTransfer = new DataTransfer()
      dataTransfer.setData("text/html", "<b>two</b> ")
      for (const type of ["dragover", "drop"])
        document
          .querySelector(".canvas")!
          .dispatchEvent(
            new DragEvent(type, { bubbles: true, cancelable: true, clientX: x!, clientY: y!, dataTransfer }),
          )
    },
    [three.left, three.middle],
  )
  await desk.expectShown("One two three")
  expect((await desk.stored())[0]?.runs[1]).toMatchObject({ text: "two", marks: { bold: true } })
})

test("what comes as Biblon's own is checked like any file; what says nothing usable holds no keys", async ({
  desk,
}) => {
  await desk.blank()
  const own = (marks: unknown[], brought: unknown = { styles: {}, lists: {}, fonts: {} }) =>
    JSON.stringify({
      slice: {
        content: [{ type: "paragraph", content: [{ type: "text", text: "huge", marks }] }],
        openStart: 1,
        openEnd: 1,
      },
      brought,
    })
  await desk.paste({
    "application/x-biblon-slice": own([{ type: "size", attrs: { value: 50_000 } }]),
    "text/plain": "one ",
  })
  await desk.paste({
    "application/x-biblon-slice": own([], { styles: { evil: { name: 7 } }, lists: {}, fonts: {} }),
    "text/plain": "two ",
  })
  await desk.paste({ "application/x-biblon-slice": "{", "text/html": "<p>three </p>", "text/plain": "three " })
  await desk.type("four")
  await desk.paste({ "text/html": "<script>alert(1)</script>", "text/plain": "" })
  await desk.type(" five")
  expect((await desk.stored()).map(({ text }) => text).join("|")).toMatch(/^one two three ?four five$/)
  await desk.paste({
    "application/x-biblon-slice": own([{ type: "bold", attrs: { value: true } }]),
    "text/plain": "no",
  })
  expect((await desk.stored())[0]?.runs.at(-1)).toEqual({ text: "huge", marks: { bold: true } })
})
