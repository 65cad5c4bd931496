/** What is said of the wording, and what people do about it. */
import { expect, test } from "../desk"

test("wording is looked through by kind, put right from the tray and from the text, left, and looked for by choice", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.type(
    "The crew have went to the slipway. It could of been a apple on the the deck. The chain was chosen by them.",
  )
  await desk.press("Enter")
  await desk.type("We waited for the results, which was better then expected 😀 and and late.")
  await desk.saved()
  const tray = await desk.openPage("Check", "Wording")
  const kinds = tray.getByRole("list", { name: "Remarks on the wording" }).getByRole("listitem")
  await expect(tray.getByRole("status").first()).toHaveText(/^\d+ remarks of \d kinds\.$/)
  const kind = (name: string) => kinds.filter({ has: page.getByRole("button", { name }) })
  await kind("Grammar")
    .getByRole("button", { name: /Grammar/ })
    .click()
  await kind("Grammar").getByRole("button", { name: "gone", exact: true }).click()
  await expect(desk.firstSheet).toContainText("The crew have gone to the slipway.")
  await kind("Words repeated")
    .getByRole("button", { name: /Words repeated/ })
    .click()
  await kind("Words repeated").getByRole("button", { name: "and", exact: true }).click()
  // Behind a sign of two units the right words are meant.
  await expect(desk.firstSheet).toContainText("expected 😀 and late.")
  await desk.press("Control+z")
  await expect(desk.firstSheet).toContainText("and and late.")

  // A press on what is marked shows the same in the text.
  await expect(tray.getByRole("status").first()).toHaveText(/^5 remarks/)
  const { middle, left, right } = await desk.where("could of")
  await page.mouse.click((left + right) / 2, middle)
  const card = page.getByRole("group", { name: "Words that may stand for others" })
  await card.getByRole("button", { name: "could have", exact: true }).click()
  await expect(desk.firstSheet).toContainText("It could have been")
  await expect(card).toBeHidden()

  // What is left is not told again.
  const signs = kind("Words repeated")
  await signs.getByRole("button", { name: "Leave it" }).first().click()
  await expect(signs.getByRole("button", { name: "Leave it" })).toHaveCount(1)
  await desk.saved()
  await page.reload()
  await desk.openPage("Check", "Wording")
  await kind("Words repeated")
    .getByRole("button", { name: /Words repeated/ })
    .click()
  await expect(signs.getByRole("button", { name: "Leave it" })).toHaveCount(1)
  await tray.getByRole("button", { name: "What was left" }).click()
  await tray.getByRole("button", { name: "Say again Words repeated: and and" }).click()
  await expect(signs.getByRole("button", { name: "Leave it" })).toHaveCount(2)

  // Nobody is told of the passive who did not ask.
  await expect(kind("Nobody does it")).toHaveCount(0)
  await tray.getByRole("button", { name: "What is looked for" }).click()
  await tray.getByRole("switch", { name: "Nobody does it" }).click()
  await kind("Nobody does it")
    .getByRole("button", { name: /Nobody does it/ })
    .click()
  await expect(kind("Nobody does it")).toContainText("“chosen”: who does it?")

  // The marks go with the page.
  await expect(page.locator(".worded").first()).toBeVisible()
  await page.getByRole("tab", { name: "Tidy" }).click()
  await expect(page.locator(".worded")).toHaveCount(0)
})

test("where what knows English is not to be had, that is said, and asked for anew", async ({ desk, page }) => {
  await desk.blank()
  await desk.type("The crew have went home.")
  await page.context().route(/wording.*\.wasm/, (route) => route.abort())
  const tray = await desk.openPage("Check", "Wording")
  await expect(tray.getByText("English could not be looked through")).toBeVisible()
  await page.context().unroute(/wording.*\.wasm/)
  await tray.getByRole("button", { name: "Try again" }).click()
  await expect(tray.getByRole("status").first()).toHaveText(/^1 remark of 1 kind/)
})
