import type { Locator } from "@playwright/test"
import { expect, testOnOwnServer as test } from "../desk"

test("on a phone a long press chooses, and what is dragged on lies in a folder", async ({ page, ownServer }) => {
  const { address } = ownServer
  for (const name of ["Notice", "Report", "Minutes", "Letter"]) {
    const made = (await (await fetch(`${address}/api/documents`, { method: "POST" })).json()) as { id: string }
    await fetch(`${address}/api/documents/${made.id}`, {
      method: "PATCH",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ name }),
    })
  }
  await page.goto(address)
  const row = (name: string) =>
    page.getByRole("list", { name: "On the shelf" }).getByRole("link", { name: new RegExp(`^${name}`) })
  await row("Notice").scrollIntoViewIfNeeded()
  const session = await page.context().newCDPSession(page)
  const touch = (type: "touchStart" | "touchMove" | "touchEnd" | "touchCancel", x = 0, y = 0) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: /Start|Move/.test(type) ? [{ x, y }] : [] })
  const from = (await row("Report").boundingBox())!
  // A finger that moves at once scrolls, and carries nothing.
  await touch("touchStart", from.x + 40, from.y + 20)
  for (let i = 1; i <= 4; i++) await touch("touchMove", from.x + 40, from.y + 20 + i * 8)
  await expect(page.getByText(/ chosen$/)).toBeHidden()
  await expect(row("Report")).toBeVisible()

  // Where it still scrolls, a finger stops it and chooses nothing; the next one does.
  const hold = async (what: Locator) => {
    let at = { x: 0, y: 0 }
    await expect(async () => {
      await touch("touchEnd")
      const { x, y } = (await what.boundingBox())!
      at = { x: x + 40, y: y + 20 }
      await touch("touchStart", at.x, at.y)
      await expect(page.getByText("1 chosen")).toBeVisible({ timeout: 1500 })
    }).toPass()
    return at
  }
  // The list may scroll on the way: the finger goes on until it is seen that the other one would be laid upon.
  const carry = (at: { x: number; y: number }, name: string) =>
    expect(async () => {
      const onto = (await row(name).boundingBox())!
      for (let i = 1; i <= 6; i++) await touch("touchMove", at.x, at.y + ((onto.y + 20 - at.y) * i) / 6)
      await expect(page.locator("[data-over]", { hasText: name })).toBeVisible({ timeout: 1000 })
    }).toPass()
  await carry(await hold(row("Report")), "Notice")
  await touch("touchEnd")
  await page.getByLabel("Name of the folder").fill("Season")
  await page.keyboard.press("Enter")
  await expect(page.getByRole("link", { name: "Open the folder Season" })).toBeVisible()
  await expect(page.getByText("2 documents", { exact: false })).toBeVisible()
  await page.getByRole("button", { name: "Undo" }).tap()
  await expect(page.getByText("A folder was made.")).toBeHidden()
  // So is the one to go on with, which is put back here.
  await row("Minutes").scrollIntoViewIfNeeded()
  await touch("touchStart", 5, 5)
  await carry(await hold(page.getByRole("link", { name: "Letter", exact: true })), "Minutes")
  await touch("touchCancel")
  await expect(page.locator("[data-over]")).toBeHidden()
  await page.getByRole("button", { name: "Done" }).tap()
  // Those that are chosen go to the bin together.
  await page.getByRole("button", { name: "Choose several" }).tap()
  await page.getByRole("checkbox", { name: "Minutes" }).tap()
  await row("Notice")
    .or(page.getByRole("checkbox", { name: /Notice|Season/ }))
    .first()
    .scrollIntoViewIfNeeded()
  await page.getByRole("button", { name: "All" }).tap()
  await page.getByRole("button", { name: "Bin", exact: true }).tap()
  await expect(page.getByRole("button", { name: "Bin, 4 documents" })).toBeVisible()
})
