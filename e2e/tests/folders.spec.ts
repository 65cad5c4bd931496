import { expect, expectAccessible, testOnOwnServer as test } from "../desk"
import type { Page } from "@playwright/test"

const list = (page: Page) => page.getByRole("list", { name: "On the shelf" })
const menu = (page: Page, name: string) => page.getByRole("button", { name: `What to do with ${name}`, exact: true })

/** Named documents on the shelf, the first one begun last. */
async function documents(address: string, names: readonly string[]): Promise<void> {
  for (const name of [...names].reverse()) {
    const made = (await (await fetch(`${address}/api/documents`, { method: "POST" })).json()) as { id: string }
    await fetch(`${address}/api/documents/${made.id}`, {
      method: "PATCH",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ name }),
    })
  }
}

/** What can be read in the list, row by row. */
const rows = (page: Page) =>
  list(page)
    .getByRole("link", { name: /^Open / })
    .evaluateAll((links) => links.map((link) => link.getAttribute("aria-label")?.replace(/^Open (the folder )?/, "")))

test("a folder is made by dragging one document on another; all of it is taken back", async ({ page, ownServer }) => {
  await documents(ownServer.address, ["Letter", "Minutes", "Report", "Notice"])
  await page.goto(ownServer.address)
  await expect.poll(() => rows(page)).toEqual(["Minutes", "Report", "Notice"])
  const row = (name: string) => list(page).getByRole("link", { name: new RegExp(`^${name}`) })
  await row("Minutes").dragTo(row("Report"))
  await page.getByLabel("Name of the folder").fill("Season of 2027")
  await page.keyboard.press("Enter")
  await expect.poll(() => rows(page)).toEqual(["Season of 2027", "Notice"])
  // The one that was changed last can be laid there too.
  await page
    .getByRole("link", { name: "Open Letter" })
    .dragTo(page.getByRole("link", { name: "Open the folder Season of 2027" }))
  await page.getByRole("link", { name: "Open the folder Season of 2027" }).click()
  await expect(page.getByRole("heading", { name: "Season of 2027" })).toBeVisible()
  await expect.poll(() => rows(page)).toEqual(["Letter", "Minutes", "Report"])
  await expectAccessible(page)
  await page.getByRole("button", { name: "A blank sheet" }).click()
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await page.getByRole("link", { name: "Open the folder Season of 2027" }).click()
  await expect(list(page).getByRole("listitem")).toHaveCount(4)
  // Onto the way that leads out.
  await row("Report").dragTo(page.getByRole("button", { name: "Shelf", exact: true }))
  await expect(list(page).getByRole("listitem")).toHaveCount(3)
  await page.getByRole("button", { name: "Shelf", exact: true }).click()
  await expect(row("Report")).toBeVisible()
  await menu(page, "Season of 2027").click()
  await page.getByRole("menuitem", { name: "Put in the bin" }).click()
  await expect(page.getByRole("button", { name: "Bin, 3 documents" })).toBeVisible()
  for (let i = 0; i < 4; i++) {
    await Promise.all([
      page.waitForResponse((response) => response.url().endsWith("/api/shelf")),
      page.keyboard.press("Control+z"),
    ])
  }
  await expect(page.getByRole("button", { name: /^Bin/ })).toBeHidden()
  await expect.poll(() => rows(page)).toEqual(["Minutes, Report…", "Letter", "Notice"])
  // What was begun in the folder since keeps it.
  await page.keyboard.press("Control+z")
  await expect(page.getByRole("alert")).toContainText("It could not be taken back: a folder still holds something.")
})

test("by keyboard alone several are chosen, laid in a new folder, sorted, moved into one another and taken apart", async ({
  page,
  ownServer,
}) => {
  await documents(ownServer.address, ["Letter 10", "Minutes", "letter 2", "Agenda"])
  await page.goto(ownServer.address)
  await page.getByLabel("Order of the shelf").selectOption("By name")
  await expect.poll(() => rows(page)).toEqual(["Agenda", "letter 2", "Minutes"])
  await page.reload()
  await expect.poll(() => rows(page)).toEqual(["Agenda", "letter 2", "Minutes"])
  const press = async (name: string) => {
    await page.getByRole("button", { name, exact: true }).focus()
    await page.keyboard.press("Enter")
  }
  await press("Choose several")
  for (const name of ["Agenda", "Minutes"]) {
    await page.getByRole("checkbox", { name }).focus()
    await page.keyboard.press("Space")
  }
  await expect(page.getByText("2 chosen")).toBeVisible()
  await expectAccessible(page)
  await press("Into a folder")
  await press("In a new folder")
  await page.getByLabel("Name of the folder").fill("Meetings")
  await page.keyboard.press("Enter")
  await expect.poll(() => rows(page)).toEqual(["Meetings", "letter 2"])
  await press("New folder")
  await page.getByLabel("Name of the folder").fill("All of 2027")
  await page.keyboard.press("Enter")
  await menu(page, "Meetings").focus()
  await page.keyboard.press("Enter")
  await page.getByRole("menuitem", { name: "Lay in a folder" }).focus()
  await page.keyboard.press("Enter")
  await expect(page.getByRole("dialog").getByRole("button", { name: "Meetings" })).toBeDisabled()
  await press("All of 2027")
  await expect.poll(() => rows(page)).toEqual(["All of 2027", "letter 2"])
  await menu(page, "All of 2027").click()
  await page.getByRole("menuitem", { name: "Take apart" }).click()
  await expect.poll(() => rows(page)).toEqual(["Meetings", "letter 2"])
  // Escape leaves choosing; with Ctrl a press chooses at once, with Shift as far as there.
  await list(page)
    .getByRole("link", { name: /^letter 2/ })
    .click({ modifiers: ["Control"] })
  await expect(page.getByText("1 chosen")).toBeVisible()
  await list(page)
    .getByRole("link", { name: /^Meetings/ })
    .click({ modifiers: ["Shift"] })
  await expect(page.getByText("2 chosen")).toBeVisible()
  await page.keyboard.press("Escape")
  await expect(page.getByText("2 chosen")).toBeHidden()
})

test("what is removed out of the bin can be had back at once; a refused change says why", async ({
  page,
  ownServer,
}) => {
  await documents(ownServer.address, ["Letter", "Minutes"])
  await page.goto(ownServer.address)
  await menu(page, "Minutes").click()
  await page.getByRole("menuitem", { name: "Put in the bin" }).click()
  await page.getByRole("button", { name: "Bin, 1 document" }).click()
  await page.getByRole("button", { name: "Empty the bin" }).click()
  await expect(page.getByText(/^Bin, /)).toBeHidden()
  await page.getByRole("button", { name: "Undo" }).click()
  await expect(page.getByRole("button", { name: "Bin, 1 document" })).toBeVisible()
  // In another tab the folder is dropped meanwhile.
  await page.getByRole("button", { name: "New folder" }).click()
  await page.getByLabel("Name of the folder").fill("Season")
  await page.keyboard.press("Enter")
  await expect(page.getByRole("link", { name: "Open the folder Season" })).toBeVisible()
  const { folders } = (await (await fetch(`${ownServer.address}/api/shelf`)).json()) as { folders: { id: string }[] }
  await fetch(`${ownServer.address}/api/shelf/changes`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ changes: [{ kind: "folder", id: folders[0]?.id, gone: true }] }),
  })
  await page
    .getByRole("link", { name: "Open Letter" })
    .dragTo(page.getByRole("link", { name: "Open the folder Season" }))
  await expect(page.getByRole("alert")).toContainText(
    "It could not be done: a folder is no longer there. Nothing was changed.",
  )
})

test("a starter becomes a document; a tap takes a sample, typing replaces it; one's own starters are made and removed", async ({
  page,
  ownServer,
}) => {
  await page.goto(ownServer.address)
  await page.getByRole("link", { name: "A starter" }).click()
  await expect(page.getByRole("list", { name: "When people meet" }).getByRole("button")).toHaveCount(3)
  for (const picture of await page.getByRole("main").locator("img").all())
    await expect
      .poll(() => picture.evaluate((own: HTMLImageElement) => own.naturalWidth), { timeout: 60_000 })
      .toBeGreaterThan(0)
  await expectAccessible(page)
  await page.getByRole("button", { name: "Letter", exact: true }).click()
  await page.locator(".run", { hasText: "Ms Caddow" }).click()
  await page.keyboard.type("Captain Orrin")
  await expect(page.locator(".block", { hasText: "Dear Captain Orrin," })).toBeVisible()
  await page.locator(".run", { hasText: "Say here what the letter" }).click()
  await page.keyboard.type("We ask for a berth.")
  await expect(page.locator(".block", { hasText: /^We ask for a berth\.$/ })).toBeVisible()
  await page.keyboard.press("Control+z")
  await expect(page.locator(".block", { hasText: "Say here what the letter" })).toBeVisible()
  await expect(page.getByTestId("saving")).toHaveText(/^Saved/)
  await page.getByRole("link", { name: "Back to the shelf" }).click()
  await menu(page, "“Harbour Authority”").click()
  await page.getByRole("menuitem", { name: "Make this a starter" }).click()
  await expect(page.getByText("“Harbour Authority” stands among your starters.")).toBeVisible()
  await page.getByRole("link", { name: "A starter" }).click()
  const own = page.getByRole("list", { name: "Yours" })
  await own.getByRole("button", { name: "Harbour Authority", exact: true }).click()
  await expect(page.locator(".block", { hasText: "Dear Captain Orrin," })).toBeVisible()
  await page.goto(`${ownServer.address}/starters`)
  await page.getByRole("button", { name: "What to do with the starter Harbour Authority" }).click()
  await page.getByRole("menuitem", { name: "Remove it" }).click()
  await expect(own).toBeHidden()
  await page.getByRole("button", { name: "Undo" }).click()
  await expect(own).toBeVisible()
})
