import { expect, expectAccessible, test } from "../desk"

test("words that look wrong are marked while one writes, put right from a card, learned, and left in one place", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("The chian was oild by Hettie Zzyrk at www.ferry.example on 3rd B2b. ")
  const marks = page.locator(".misspelt")
  const foot = page.getByRole("contentinfo")
  await expect(foot).toContainText("3 to look at")
  await expect(marks).toHaveCount(3)
  // The dots stand under the word.
  const [dots, run] = [(await marks.first().boundingBox())!, await desk.where("chian")]
  expect(Math.abs(dots.x - run.left)).toBeLessThan(2)
  expect(dots.y).toBeGreaterThan(run.middle)

  await page.mouse.click(run.left + 6, run.middle)
  const card = page.getByRole("group", { name: "Spelling of chian" })
  await card.getByRole("button", { name: "chain", exact: true }).click()
  await desk.expectShown("The chain was oild by Hettie Zzyrk at www.ferry.example on 3rd B2b. ")
  await expect(foot).toContainText("2 to look at")
  await expect(card).toBeHidden()
  // A name is learned, on this device and for all documents.
  const name = await desk.where("Zzyrk")
  await page.mouse.click(name.left + 6, name.middle)
  await page.getByRole("button", { name: "Learn it" }).click()
  await expect(foot).toContainText("1 to look at")
  await desk.press("Control+End")
  await desk.type("Zzyrk’s lamp, ZZYRK, zzyrk. ")
  await expect(foot).toContainText("2 to look at")
  // Escape puts the card away, and typing goes on.
  await desk.press("Control+Home", "F7", "Control+Alt+w")
  await expect(page.getByRole("group", { name: "Spelling of oild" })).toBeVisible()
  await page.getByRole("button", { name: "Leave it here" }).click()
  await expect(foot).toContainText("1 to look at")
  const { runs } = (await desk.stored())[0]!
  expect(runs.find(({ text }) => text === "oild")?.marks).toEqual({ language: "zxx" })
  await desk.press("Control+z")
  await expect(foot).toContainText("2 to look at")
})

test("the Check tray goes through the words: everywhere, of one's own, in this document, in another language", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type("A chian here, and a chian there, and Qwobble.")
  await desk.press("Enter")
  await desk.type("La chaîne est neuve et elle est dans le bateau avec nous pour la saison.")
  const tray = await desk.openPage("Check", "Spelling")
  await expect(tray.getByRole("status").first()).toContainText(/words look wrong/)
  const list = tray.getByRole("list", { name: "Words that look wrong" })
  await list.getByRole("button", { name: "chian 2 times" }).click()
  await expect(tray.getByRole("button", { name: "chain", exact: true })).toBeVisible()
  await expectAccessible(page)
  await tray.getByRole("button", { name: "“chain” in both places" }).click()
  await desk.expectShown(
    "A chain here, and a chain there, and Qwobble.",
    "La chaîne est neuve et elle est dans le bateau avec nous pour la saison.",
  )
  // Then one is at the next.
  await tray.getByRole("button", { name: "Right in this document" }).click()
  await tray.getByRole("button", { name: "This paragraph is French" }).click()
  await expect(tray.getByRole("status").first()).toHaveText("No word looks wrong.")
  await expect(page.locator(".misspelt")).toHaveCount(0)
  await page.reload()
  await expect(page.getByRole("contentinfo")).toContainText("Spelling fine")
  await desk.openPage("Check", "Spelling")
  await tray.getByRole("button", { name: "Words that are right" }).click()
  await tray.getByRole("button", { name: "Forget Qwobble" }).click()
  await expect(tray.getByRole("status").first()).toHaveText("1 word looks wrong.")
  await list.getByRole("button", { name: "Qwobble" }).click()
  await tray.getByLabel("Or write it yourself").fill("Wobble")
  await page.keyboard.press("Enter")
  await expect(page.locator(".block", { hasText: "and Wobble." })).toBeVisible()
  await tray.getByRole("switch", { name: "Mark words while I write" }).click()
  await expect(tray.getByRole("status").first()).toHaveText("Spelling is not looked at.")
  await tray.getByRole("switch", { name: "Mark words while I write" }).click()
})

test("the count of a part, without notes, towards a goal", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("The ferry runs at half tide. She does not run in fog.")
  await desk.press("Control+Alt+n")
  await desk.type("So says the log.")
  await desk.press("Escape")
  const tray = await desk.openPage("Check", "Count")
  const row = (name: string) => tray.getByText(name, { exact: true }).locator("..")
  await expect(row("Words")).toHaveText("Words16")
  await expect(row("Sentences")).toHaveText("Sentences3")
  await tray.getByRole("switch", { name: "Notes" }).click()
  await expect(row("Words")).toHaveText("Words12")
  await expect(row("Characters without blanks")).toHaveText("Characters without blanks42")
  await tray.getByLabel("Words to reach").fill("20")
  await expect(tray.getByText("8 to go")).toBeVisible()
  await tray.getByRole("button", { name: "Selected" }).click()
  await expect(tray.getByText("Nothing is selected.")).toBeVisible()
  await page.locator(".run", { hasText: "The ferry runs" }).dblclick({ position: { x: 40, y: 8 } })
  await expect(row("Words")).toHaveText("Words1")
  await expectAccessible(page)
})

test("without a dictionary to be had, it is said, and asked for again only later", async ({ desk, page }) => {
  let asked = 0
  await page.route("**/dictionaries/**", (route) => {
    asked++
    return route.abort()
  })
  await desk.blank()
  await desk.type("The chian was oild.")
  const tray = await desk.openPage("Check", "Spelling")
  await expect(tray.getByRole("alert")).toContainText("A dictionary could not be had (en-gb)")
  await desk.type(" And agian.")
  expect(asked).toBeLessThan(9)
})

test("a draft that was made by hand is made tidy: seen before it is done, one kind or all, and taken back at once", async ({
  desk,
  page,
}) => {
  await desk.openNamed("What passengers ask, draft")
  const tray = await desk.openPage("Check", "Tidy")
  const list = tray.getByRole("list", { name: "What is untidy" })
  await expect(list.getByRole("listitem")).toHaveCount(10)
  await expectAccessible(page)
  const before = await desk.shown()
  // Pointing at what moves no text shows it on the sheet; leaving it shows the draft again.
  const size = () => page.locator(".run", { hasText: "On the water" }).evaluate((run) => getComputedStyle(run).fontSize)
  const small = await size()
  await list.getByRole("button", { name: "Make headings, in both places" }).hover()
  await expect.poll(size).not.toBe(small)
  await tray.getByRole("status").hover()
  await expect.poll(size).toBe(small)
  // All else is read beside it.
  await list.getByRole("button", { name: /^Lists typed by hand/ }).click()
  await expect(list.getByText("→ • a coat, in any weather")).toBeVisible()
  await list.getByRole("button", { name: /^Words written twice/ }).click()
  await list.getByRole("button", { name: /for the the box.*→ .*for the box/ }).click()
  await desk.expectSelected("the the")
  await list.getByRole("button", { name: "Once", exact: true }).last().click()
  await expect(page.locator(".block", { hasText: "- small change for the box" })).toBeVisible()
  await tray.getByRole("button", { name: "Put all right" }).click()
  await expect(tray.getByRole("status")).toHaveText("The document is tidy.")
  await expect(page.locator(".block[role=heading]")).toHaveCount(2)
  await desk.saved()
  await page.locator(".run", { hasText: "patience" }).click()
  await desk.press("Control+z", "Control+z")
  await desk.expectShown(...before)
})
