import { execFileSync } from "node:child_process"
import { mkdtempSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { expect, expectAccessible, test } from "../desk"

/** What is kept of a job, read by an independent reader. */
async function textOf(address: string, link: string | null): Promise<string> {
  const response = await fetch(`${address}${link}`)
  const path = join(mkdtempSync(join(tmpdir(), "biblon-job-")), "job.pdf")
  writeFileSync(path, Buffer.from(await response.arrayBuffer()))
  return execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" })
}

test("a letter from a starter is printed on the printer here, past one jam", async ({ page, server }) => {
  await page.goto(`${server.address}/starters`)
  await page.getByRole("button", { name: "Letter", exact: true }).click()
  await page.locator(".run", { hasText: "Ms Caddow" }).click()
  await page.keyboard.type("Captain Orrin")
  await expect(page.locator(".block", { hasText: "Dear Captain Orrin," })).toBeVisible()
  await fetch(`${server.address}/api/outside/print/trouble`, {
    method: "PUT",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ trouble: "jam" }),
  })
  await page.getByRole("navigation", { name: "Bench" }).getByRole("button", { name: "Deliver", exact: true }).click()
  const tray = page.getByRole("region", { name: "Deliver" })
  await tray.getByRole("button", { name: "How it lies on the paper" }).click()
  await tray.getByRole("button", { name: "On the printer here" }).click()
  await expect(page.getByText("The printer here has it.", { exact: false })).toBeVisible()
  await tray.getByRole("button", { name: "See what was printed here" }).click()
  const jobs = page.getByRole("list", { name: "Printer" }).getByRole("listitem")
  await expect(jobs.first()).toContainText("Waits: paper is jammed")
  await expectAccessible(page)
  await page.getByRole("group", { name: "State of the printer" }).getByRole("button", { name: "Ready" }).click()
  await expect(jobs.first()).toContainText(/Printed \d/)
  expect(await textOf(server.address, await jobs.first().getByRole("link").getAttribute("href"))).toContain(
    "Dear Captain Orrin,",
  )
  await page.getByRole("link", { name: "Back" }).click()
  await expect(page.locator(".block", { hasText: "Dear Captain Orrin," })).toBeVisible()
})

test("a copy is sent once, also when the line was down; an address that is none is said", async ({
  desk,
  page,
  server,
}) => {
  const { address } = server
  const trouble = (own: string | null) =>
    fetch(`${address}/api/outside/send/trouble`, {
      method: "PUT",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ trouble: own }),
    })
  await desk.openNamed("Minutes, 3 November")
  await desk.press("Control+k")
  await desk.type("e-mail")
  await desk.press("Enter")
  const tray = page.getByRole("region", { name: "Deliver" })
  await expect(tray.getByLabel("Subject")).toHaveValue("Minutes, 3 November")
  await tray.getByLabel("To", { exact: true }).fill("nobody")
  await tray.getByRole("button", { name: "Send", exact: true }).click()
  await expect(tray.getByRole("alert")).toContainText("That is no e-mail address")
  await trouble("line")
  await tray.getByLabel("To", { exact: true }).fill("tamsin@ferry.example, jonas@ferry.example")
  await tray.getByLabel("Words with it").fill("Please read them before Tuesday.")
  await tray.getByRole("button", { name: "Send", exact: true }).click()
  await expect(tray.getByText("It is in the outbox, which carries it.")).toBeVisible()
  await tray.getByLabel("As").selectOption("Office Open XML")
  await tray.getByRole("button", { name: "Send", exact: true }).click()
  await tray.getByRole("button", { name: "See the outbox" }).click()
  const letters = page.getByRole("list", { name: "Outbox" }).getByRole("listitem")
  await expect(letters).toHaveCount(2)
  await expect(letters.last()).toContainText(/Waits: the line is down; tried \d/)
  await letters.first().getByRole("button", { name: "Stop" }).click()
  await expect(letters.first()).toContainText("Stopped")
  await page.getByRole("group", { name: "State of the outbox" }).getByRole("button", { name: "Ready" }).click()
  await expect(letters.last()).toContainText(/Sent \d/, { timeout: 20_000 })
  await expect(letters.last()).toContainText("To tamsin@ferry.example,jonas@ferry.example")
  await expect(letters.last()).toContainText("Please read them before Tuesday.")
  const file = letters.last().getByRole("link", { name: "Minutes, 3 November.pdf" })
  expect(await textOf(address, await file.getAttribute("href"))).toContain("Hettie Lode to write the letter")
})
