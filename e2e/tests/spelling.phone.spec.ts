import { expect, test } from "../desk"

test("a letter with three misspelt words and a name is put right on a phone", async ({ desk, page }) => {
  await desk.blankByTap()
  await desk.type("Dear Captian Zzyrk, the chian is reddy. ")
  await expect(page.locator(".misspelt")).toHaveCount(4)
  const put = async (word: string, button: string) => {
    const at = await desk.where(word)
    await page.touchscreen.tap((at.left + at.right) / 2, at.middle)
    const card = page.getByRole("group", { name: `Spelling of ${word}` })
    const own = card.getByRole("button", { name: button, exact: true })
    expect((await own.boundingBox())!.height).toBeGreaterThanOrEqual(44)
    await own.tap()
    await expect(card).toBeHidden()
  }
  await put("Captian", "Captain")
  await put("Zzyrk", "Right in this document")
  await put("chian", "chain")
  await put("reddy", "ready")
  await desk.expectShown("Dear Captain Zzyrk, the chain is ready. ")
  await expect(page.locator(".misspelt")).toHaveCount(0)
})

test("a tap on a mark tells of it, whole in sight, and leaves caret and keyboard; a second one means the text", async ({
  desk,
  page,
}) => {
  await desk.blankByTap()
  for (let line = 0; line < 13; line++) {
    await desk.type("The ferry ran on time.")
    await desk.press("Enter")
  }
  await desk.type("Its chian ran dry, and the moorng held.")
  await desk.saved()
  await page.reload()
  await expect(page.locator(".misspelt")).toHaveCount(2)
  const sheets = (await page.locator(".canvas").locator("..").boundingBox())!
  // Taps in turn at either end of a word: two in one place would be a double tap.
  let end = 0.2
  const tap = async (word: string) => {
    const { left, right, middle } = await desk.where(word)
    end = 1 - end
    await page.touchscreen.tap(left + (right - left) * end, middle)
  }
  const card = (word: string) => page.getByRole("group", { name: `Spelling of ${word}` })
  const expectInSight = async (word: string, foot: number) => {
    await expect(card(word).getByRole("button", { name: "Learn it" })).toBeVisible()
    await expect(card(word).getByText("Looking it up")).toBeHidden()
    await expect
      .poll(async () => {
        const { y, height } = (await card(word).boundingBox())!
        return y >= sheets.y && y + height <= foot
      })
      .toBe(true)
  }

  // Below the word there is no room: the card is above it, and nothing begins to be written.
  await tap("chian")
  await expectInSight("chian", (await desk.where("chian")).top)
  await expect(desk.field).not.toBeFocused()
  await tap("moorng")
  await expect(card("chian")).toBeHidden()
  await card("moorng").getByRole("button", { name: "mooring", exact: true }).tap()
  await expect(card("moorng")).toBeHidden()
  await expect(page.locator(".misspelt")).toHaveCount(1)
  await expect(desk.field).not.toBeFocused()

  // Beside the card a tap only puts it away.
  await tap("chian")
  await expect(card("chian")).toBeVisible()
  await tap("time")
  await expect(card("chian")).toBeHidden()
  await expect(desk.field).not.toBeFocused()

  // With the keyboard up the caret stays where one writes.
  await tap("held")
  await expect(desk.field).toBeFocused()
  await desk.press("End")
  await page.setViewportSize({ width: 390, height: 430 })
  await desk.settled()
  await tap("chian")
  await expectInSight("chian", 430)
  await desk.type(" Now")
  await expect(card("chian")).toBeHidden()
  await tap("chian")
  await expect(card("chian")).toBeVisible()
  await tap("chian")
  await expect(card("chian")).toBeHidden()
  await desk.press("End", "Backspace")
  await expect.poll(async () => (await desk.shown()).at(-1)).toBe("Its chian ran dry, and the mooring held. No")
})
