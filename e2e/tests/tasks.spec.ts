import { expect, test } from "../desk"
import { declareTasks } from "../tasks"

declareTasks(4)

test("tools are found by the words that people use", async ({ desk, page }) => {
  await desk.blank()
  const first: [string, RegExp][] = [
    ["center", /^Centre/],
    ["color", /^Letters and paragraphs/],
    ["time", /date/i],
    ["line spacing", /^Paragraph/],
    ["word count", /^Count/],
    ["rename", /^Name the document/],
    ["zoom in", /^Larger view/],
    ["paste plain", /^Paste text only/],
    ["spelling", /^Spelling/],
    ["dotted line", /^Price line/],
  ]
  for (const [typed, tool] of first) {
    await desk.press("Control+k")
    await desk.type(typed)
    await expect(page.getByRole("option").first()).toHaveText(tool)
    await desk.press("Escape")
  }
})
