/** Finished documents on a phone: read in flow, seen as sheets, printed as seen. */
import { expect, expectAccessible, test } from "../desk"
import { expectPrintsAsSeen } from "../pictures"

for (const [name, words] of [
  ["Record of a ferry hand", "Saltmarsh Ferry Trust"],
  ["Risk report", "What can go wrong"],
  ["Notice for the slipway", "Old Toll House"],
] as const)
  test(`${name}: in flow nothing is wider than the phone; its sheets are those of the PDF`, async ({ desk, page }) => {
    await desk.openNamed(name)
    await page.evaluate(() => document.fonts.ready)
    const main = page.getByRole("main")
    await expect(main).toHaveAttribute("aria-busy", "false")
    const outside = () =>
      page.evaluate(() =>
        [...document.querySelectorAll(".canvas .run")].flatMap((run) => {
          const { left, right } = run.getBoundingClientRect()
          // Spaces may hang over the edge.
          return run.textContent?.trim() && (left < -1 || right > innerWidth + 6)
            ? [`${run.textContent} ${Math.round(left)}–${Math.round(right)}`]
            : []
        }),
      )
    expect(await outside()).toEqual([])
    await expectAccessible(page)
    await page.getByRole("button", { name: "Show the sheets" }).tap()
    await expect(desk.firstSheet).toHaveAttribute("aria-label", /^Sheet 1 of/)
    await desk.where(words)
    await expectPrintsAsSeen(desk)
    await page.getByRole("button", { name: "Show the text in flow" }).tap()
    await expect.poll(outside).toEqual([])
  })
