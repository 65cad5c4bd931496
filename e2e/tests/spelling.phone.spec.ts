import { expect, test } from "../desk"

test("a letter with three misspelt words and a name is put right on a phone", async ({ desk, page }) => {
  await desk.open(await desk.server.create())
  await page.locator(".canvas").tap({ position: { x: 60, y: 40 } })
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
