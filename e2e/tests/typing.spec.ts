import { expect, test } from "../desk"
import { difference, inkOf, textAlone } from "../pictures"
import { holdable } from "../late"

test("what is typed stands on the sheet and reaches the server", async ({ desk }) => {
  await desk.blank()
  await desk.type("Dear Captain Orrin,")
  await desk.press("Enter")
  await desk.type("The hull was launched on the neap tide.")
  await desk.expectShown("Dear Captain Orrin,", "The hull was launched on the neap tide.")
  expect((await desk.stored()).map((p) => p.text)).toEqual([
    "Dear Captain Orrin,",
    "The hull was launched on the neap tide.",
  ])
})

test("deleting by character and by word, and joining paragraphs", async ({ desk }) => {
  await desk.blank()
  await desk.type("The ferry crossed")
  await desk.press("Enter")
  await desk.type("In eleven minutes")
  await desk.press("Home", "Backspace")
  await desk.expectShown("The ferry crossedIn eleven minutes")
  await desk.type(" ")
  await desk.press("Control+Delete")
  await desk.expectShown("The ferry crossed  eleven minutes")
  await desk.press("Delete")
  await desk.expectShown("The ferry crossed eleven minutes")
  await desk.press("End", "Control+Backspace", "Backspace", "Backspace")
  await desk.expectShown("The ferry crossed eleve")
  await desk.press("Control+Home", "Delete", "Delete", "Delete", "Delete")
  await desk.expectShown("ferry crossed eleve")
})

test("accents, Greek, Cyrillic and emoji are typed, shown and deleted whole", async ({ desk }) => {
  await desk.blank()
  await desk.type("Naïve Ωμέγα Привет 👩‍🚀 ✓")
  await desk.expectShown("Naïve Ωμέγα Привет 👩‍🚀 ✓")
  await desk.press("Backspace", "Backspace", "Backspace")
  await desk.expectShown("Naïve Ωμέγα Привет ")
  expect((await desk.stored())[0]?.text).toBe("Naïve Ωμέγα Привет ")
})

test("a line break stays inside its paragraph", async ({ desk }) => {
  await desk.blank()
  await desk.type("The Old Toll House")
  await desk.press("Shift+Enter")
  await desk.type("Quay Lane")
  expect((await desk.stored()).map((p) => p.text)).toEqual(["The Old Toll House\nQuay Lane"])
  await expect(desk.page.locator(".line")).toHaveCount(2)
})

test("the arrows go by character, word, line and to the ends, with shift they select", async ({ desk }) => {
  await desk.blank()
  await desk.type("One two three")
  await desk.press("Enter")
  await desk.type("Four five six")
  await desk.press("Shift+ArrowLeft", "Shift+ArrowLeft", "Shift+ArrowLeft")
  await desk.expectSelected("six")
  await desk.press("ArrowLeft", "Control+Shift+ArrowLeft")
  await desk.expectSelected("five ")
  await desk.press("Control+Home", "Shift+End")
  await desk.expectSelected("One two three")
  await desk.press("ArrowLeft", "Shift+ArrowDown")
  await desk.expectSelected("One two three\n")
  await desk.press("Control+End", "Shift+Home")
  await desk.expectSelected("Four five six")
  await desk.press("Control+Shift+Home")
  await desk.expectSelected("One two three\nFour five six")
  await desk.press("Control+Home", "ArrowDown", "Control+Shift+End")
  await desk.expectSelected("Four five six")
  await desk.press("Control+a")
  await desk.expectSelected("One two three\nFour five six")
  await desk.type("gone")
  await desk.expectShown("gone")
})

test("up and down keep to the column, and screenfuls lead through a long document and back", async ({ desk }) => {
  await desk.openNamed("Tides and timetables")
  const { left, middle } = await desk.where("promise made")
  await desk.settled()
  await desk.page.mouse.click(left, middle)
  const x = async () => (await desk.caret.boundingBox())?.x ?? 0
  await expect.poll(async () => Math.abs((await x()) - left)).toBeLessThan(12)
  const start = await x()
  await desk.press("ArrowDown", "ArrowDown", "ArrowUp", "ArrowUp")
  await expect.poll(x).toBe(start)
  for (let i = 0; i < 6; i++) await desk.press("PageDown")
  await expect(desk.page.getByText(/^Sheet [345] of/)).toBeVisible()
  for (let i = 0; i < 6; i++) await desk.press("PageUp")
  await expect(desk.page.getByText(/^Sheet 1 of/)).toBeVisible()
  await desk.press("Control+End")
  await expect(desk.page.getByText(/^Sheet (\d+) of \1$/)).toBeVisible()
  await expect(desk.page.locator(".run", { hasText: "butter on it as well." })).toBeInViewport()
  await desk.press("Control+Home")
  await expect(desk.page.getByText(/^Sheet 1 of/)).toBeVisible()
  await expect(desk.page.locator(".run", { hasText: "Tides and timetables" })).toBeInViewport()
})

test("a click, a drag, two clicks and three", async ({ desk }) => {
  await desk.blank()
  await desk.type("We ask for the use of the slip on weekdays.")
  await desk.press("Enter")
  await desk.type("The chain lies on the bed.")
  await desk.saved()
  const slip = await desk.where("slip")
  await desk.page.mouse.dblclick((slip.left + slip.right) / 2, slip.middle)
  await desk.expectSelected("slip")
  const use = await desk.where("use")
  const chain = await desk.where("chain")
  await desk.page.mouse.click(chain.left, chain.middle, { clickCount: 3 })
  await desk.expectSelected("The chain lies on the bed.")
  await desk.press("ArrowRight")
  // The bar by the selection goes with it.
  await expect(desk.page.locator(".floating")).toBeHidden()
  await desk.page.mouse.move(use.left, use.middle)
  await desk.page.mouse.down()
  await desk.page.mouse.move(slip.left, slip.middle)
  await desk.page.mouse.move(chain.right, chain.middle, { steps: 4 })
  await desk.page.mouse.up()
  await desk.expectSelected("use of the slip on weekdays.\nThe chain")
  await desk.page.mouse.click(use.left, use.middle)
  await desk.type("good ")
  await desk.expectShown("We ask for the good use of the slip on weekdays.", "The chain lies on the bed.")
})

test("an input method composes: the text shows while it is composed and lands once", async ({ desk }) => {
  await desk.blank()
  await desk.type("Captain ")
  const cdp = await desk.page.context().newCDPSession(desk.page)
  await cdp.send("Input.imeSetComposition", { text: "お", selectionStart: 1, selectionEnd: 1 })
  await desk.expectShown("Captain お")
  await cdp.send("Input.imeSetComposition", { text: "おり", selectionStart: 2, selectionEnd: 2 })
  await desk.expectShown("Captain おり")
  await expect(desk.page.locator(".composing")).toHaveCount(1)
  await cdp.send("Input.insertText", { text: "折" })
  await desk.expectShown("Captain 折")
  await expect(desk.page.locator(".composing")).toHaveCount(0)
  await desk.type("!")
  expect((await desk.stored())[0]?.text).toBe("Captain 折!")
})

test("a dead key makes one letter, also over a selection of paragraphs", async ({ desk }) => {
  await desk.blank()
  await desk.type("one")
  await desk.press("Enter")
  await desk.type("two")
  await desk.press("Control+a")
  const cdp = await desk.page.context().newCDPSession(desk.page)
  await cdp.send("Input.imeSetComposition", { text: "´", selectionStart: 1, selectionEnd: 1 })
  await cdp.send("Input.insertText", { text: "é" })
  await desk.expectShown("é")
  await desk.type("té")
  expect((await desk.stored()).map((p) => p.text)).toEqual(["été"])
})

test("plain text is pasted as paragraphs, copied and cut", async ({ desk }) => {
  await desk.blank()
  await desk.page.evaluate(() => navigator.clipboard.writeText("first line\nsecond line\r\nthird"))
  await desk.press("Control+v")
  await desk.expectShown("first line", "second line", "third")
  await desk.press("Control+a", "Control+c", "Control+End", "Control+v")
  await desk.expectShown("first line", "second line", "thirdfirst line", "second line", "third")
  await desk.press("Control+a", "Control+x")
  await desk.expectShown("")
  expect(await desk.page.evaluate(() => navigator.clipboard.readText())).toBe(
    "first line\nsecond line\nthirdfirst line\nsecond line\nthird",
  )
})

test("undo and redo go by what was meant: a stretch of typing, a paragraph, a format", async ({ desk }) => {
  await desk.blank()
  await desk.type("The ferry")
  await desk.press("Control+a", "Control+b")
  await desk.press("Control+End", "Enter")
  await desk.type("crosses")
  await desk.expectShown("The ferry", "crosses")
  await desk.press("Control+z")
  await desk.expectShown("The ferry", "")
  await desk.press("Control+z")
  await desk.expectShown("The ferry")
  await desk.press("Control+z")
  expect((await desk.stored())[0]?.runs[0]?.marks).toEqual({})
  await desk.press("Control+z")
  await desk.expectShown("")
  await expect(desk.page.getByRole("button", { name: "Undo" })).toBeDisabled()
  await desk.press("Control+y", "Control+Shift+z", "Control+y", "Control+y")
  await desk.expectShown("The ferry", "crosses")
  await desk.page.getByRole("button", { name: "Undo" }).click()
  await expect(desk.field).toBeFocused()
  await desk.expectShown("The ferry", "")
})

test("what was typed stands where it was meant to, also if somebody presses elsewhere before the sheets are there", async ({
  desk,
  page,
}) => {
  const hear = await holdable(page)
  await desk.blank()
  await desk.type("The ferry crosses")
  await desk.press("Enter")
  await desk.type("And rests at ebb")
  await desk.settled()
  await hear(false)
  await desk.press("Enter")
  await desk.type("mooring")
  await desk.press("Home")
  await desk.type("Quay ")
  const main = page.getByRole("main")
  await expect(main).toHaveAttribute("aria-busy", "true")
  const { x, y, height } = (await page.locator(".line", { hasText: "The ferry" }).boundingBox())!
  await page.mouse.click(x + 1, y + height / 2)
  await desk.type("When ")
  await hear(true)
  await desk.expectShown("When The ferry crosses", "And rests at ebb", "Quay mooring")
})

for (const view of ["Sheets", "Flow"])
  test(`a letter that makes a line more is seen before the worker has heard of it, and stays as it was seen: ${view}`, async ({
    desk,
    page,
  }) => {
    const hear = await holdable(page)
    await desk.openNamed("Tides and timetables")
    await page.getByRole("button", { name: view, exact: true }).click()
    const { left, middle } = await desk.where("promise made")
    await desk.settled()
    await page.mouse.click(left, middle)
    const main = page.getByRole("main")
    const frames = () =>
      page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
    // What it takes to set text on the page comes when the page has nothing else to do.
    await expect(async () => {
      await hear(true)
      await desk.settled()
      await hear(false)
      await desk.press("x")
      await frames()
      await expect(main).toHaveAttribute("aria-busy", "false", { timeout: 50 })
    }).toPass()
    const lines = () => page.locator(".block.text .line").count()
    const before = await lines()
    await desk.type(
      " that whoever waits at slack water is carried over before the tide turns, whatever the weather may be, and",
    )
    await expect(page.locator(".canvas")).toContainText("whatever the weather may be, and")
    expect(await lines()).toBeGreaterThan(before)
    await expect(main).toHaveAttribute("aria-busy", "false")
    const picture = async () => inkOf(page, await main.screenshot({ animations: "disabled", style: textAlone }))
    await page.mouse.move(5, 5)
    const ahead = await picture()
    await hear(true)
    await desk.settled()
    const { worst, at } = difference(ahead, await picture())
    expect(worst, at).toBeLessThan(0.02)
    // A new paragraph is left to the worker, which indeed hears nothing.
    await hear(false)
    await desk.press("Enter")
    await expect(main).toHaveAttribute("aria-busy", "true")
    await hear(true)
    await desk.settled()
  })

test("lines that were changed bit by bit are what they are when the document is opened anew", async ({
  desk,
  page,
}) => {
  await desk.openNamed("Tides and timetables")
  const { left, middle } = await desk.where("promise made")
  await desk.settled()
  await page.mouse.click(left, middle)
  const typed = " at slack water and not before "
  const acts: (() => Promise<void>)[] = [
    () => desk.type(typed),
    () => desk.press("Control+b"),
    () => desk.type("carried over"),
    () => desk.press("Control+i", "Control+b"),
    () => desk.type(typed),
    () => desk.press("Control+Shift+ArrowLeft", "Control+Shift+ArrowLeft", "Control+u"),
    () => desk.press("ArrowRight", "Backspace", "Backspace", "Backspace", "Backspace", "Backspace"),
    () => desk.press("Enter"),
    () => desk.type(typed),
    () => desk.press("Control+z", "Control+z", "Control+y"),
    () => desk.press("ArrowUp", "Control+Backspace", "Control+Delete"),
    () => desk.press("Home", "Backspace"),
    () => desk.type(typed),
  ]
  for (const act of acts) await act()
  await desk.saved()
  /** Each line, with all that says how its letters look. */
  const painted = () =>
    page.evaluate(() => {
      const said = (own: Element) =>
        (own.getAttribute("style") ?? "")
          .split(";")
          .map((part) => part.trim())
          .filter(Boolean)
          .sort()
      return [...document.querySelectorAll(".sheet[aria-label^='Sheet 1 '] .line")].map((line) => [
        said(line),
        ...[...line.children].map((run) => [run.className, run.getAttribute("lang"), run.textContent, ...said(run)]),
      ])
    })
  const live = await painted()
  expect(JSON.stringify(live)).toContain("carried over")
  await page.reload()
  await desk.saved()
  await expect.poll(painted).toEqual(live)
})
