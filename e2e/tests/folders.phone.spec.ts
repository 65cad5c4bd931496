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
  const touch = (type: "touchStart" | "touchMove" | "touchEnd", x = 0, y = 0) =>
    session.send("Input.dispatchTouchEvent", { type, touchPoints: type === "touchEnd" ? [] : [{ x, y }] })
  const from = (await row("Report").boundingBox())!
  // A finger that moves at once scrolls, and carries nothing.
  await touch("touchStart", from.x + 40, from.y + 20)
  for (let i = 1; i <= 4; i++) await touch("touchMove", from.x + 40, from.y + 20 + i * 8)
  await touch("touchEnd")
  await expect(page.getByText(/ chosen$/)).toBeHidden()
  await expect(row("Report")).toBeVisible()

  const here = (await row("Report").boundingBox())!
  await touch("touchStart", here.x + 40, here.y + 20)
  await expect(page.getByText("1 chosen")).toBeVisible()
  // The list may scroll on the way: the finger goes on until it is seen that the other one would be laid upon.
  await expect(async () => {
    const onto = (await row("Notice").boundingBox())!
    for (let i = 1; i <= 6; i++) await touch("touchMove", here.x + 40, here.y + 20 + ((onto.y - here.y) * i) / 6)
    await expect(page.locator("[data-over]", { has: page.getByRole("link", { name: /^Notice/ }) })).toBeVisible({
      timeout: 1000,
    })
  }).toPass()
  await touch("touchEnd")
  await page.getByLabel("Name of the folder").fill("Season")
  await page.keyboard.press("Enter")
  await expect(page.getByRole("link", { name: "Open the folder Season" })).toBeVisible()
  await expect(page.getByText("2 documents", { exact: false })).toBeVisible()
  await page.getByRole("button", { name: "Undo" }).tap()
  await expect(page.getByText("A folder was made.")).toBeHidden()
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
