/** Scripts that break their lines in their own ways, on the sheet and in the PDF. */
import { execFileSync } from "node:child_process"
import { expect, test, type DeskPage } from "../desk"

const thai =
  "เรือข้ามฟากออกจากท่าสองชั่วโมงก่อนน้ำขึ้นสูงสุดและแล่นไปมาจนถึงสองชั่วโมงหลังจากนั้นตราบใดที่ยังมีคนอยู่บนฝั่งใดฝั่งหนึ่งที่ต้องการข้ามไปอีกฝั่ง การข้ามใช้เวลาเก้านาทีและไม่มีค่าใช้จ่าย"
const chinese =
  "渡船在高潮前两小时离开码头，来回行驶到高潮后两小时，只要两岸还有人想到对岸去。“渡河要九分钟，不收费”，理事会说；愿意拉链的人可以拉。链条在十月里换了十一节，其余的都量过了。"
const japanese =
  "渡し船は満潮の二時間前に桟橋を出て、満潮の二時間後まで行き来する。渡るのに九分かかり、料金はいらない。「鎖を引きたい人は引いてよい」と理事会は言った。ちょっとした霧でも出ないことがある。"
const arabic =
  "تغادر العبارة الرصيف قبل ساعتين من المد العالي وتذهب وتعود حتى ساعتين بعده ما دام هناك من يريد العبور، ويستغرق العبور 9 دقائق مجانا."

/** Lines of the first paragraph, as they stand on the screen. */
const lines = (desk: DeskPage) =>
  desk.page
    .locator(".canvas .block")
    .first()
    .locator(".line")
    .evaluateAll((all) => all.map((line) => line.textContent ?? ""))

/** Pastes a text into a blank document and gives its lines, none of which is wider than its column. */
async function set(desk: DeskPage, text: string): Promise<string[]> {
  await desk.blank()
  await desk.paste({ "text/plain": text })
  await expect.poll(async () => (await lines(desk)).join("")).toBe(text)
  await desk.page.evaluate(() => document.fonts.ready)
  const wide = await desk.page
    .locator(".canvas .block")
    .first()
    .evaluate((block) => {
      const column = block.getBoundingClientRect()
      return [...block.querySelectorAll(".run")]
        .filter(
          (run) =>
            run.getBoundingClientRect().right > column.right + 3 || run.getBoundingClientRect().left < column.left - 3,
        )
        .map((run) => run.textContent)
    })
  expect(wide).toEqual([])
  return lines(desk)
}

test("Thai, which writes no spaces, breaks between words", async ({ desk }) => {
  const text = thai.repeat(2)
  const found = await set(desk, text)
  expect(found.length).toBeGreaterThan(2)
  const words = [...new Intl.Segmenter("th", { granularity: "word" }).segment(text)].map(({ index }) => index)
  let at = 0
  for (const line of found.slice(0, -1)) {
    at += line.length
    expect(words, line).toContain(at)
  }
})

for (const [name, text] of [
  ["Chinese", chinese],
  ["Japanese", japanese],
] as const)
  test(`${name} breaks anywhere but before what closes and after what opens`, async ({ desk }) => {
    const found = await set(desk, text)
    expect(found.length).toBeGreaterThan(2)
    for (const [i, line] of found.entries()) {
      if (i > 0) expect(line).not.toMatch(/^[，。；、”」ょっー]/u)
      if (i < found.length - 1) expect(line).not.toMatch(/[“「]$/u)
      // Lines are filled: nothing waits for a space.
      if (i < found.length - 1) expect(line.length).toBeGreaterThan(text.length / found.length - 8)
    }
  })

test("Arabic stands to the right with its numbers from left to right, and no letter of it is missing in the PDF", async ({
  desk,
  page,
}) => {
  await desk.blank()
  await desk.openPage("Write", "Paragraph")
  await page.getByRole("button", { name: "Right to left" }).click()
  await page.keyboard.insertText(arabic)
  await expect.poll(async () => (await lines(desk)).length).toBeGreaterThan(1)
  await page.evaluate(() => document.fonts.ready)
  const block = page.locator(".canvas .block").first()
  const { column, first, number, before } = await block.evaluate((own) => {
    const box = (text: string) => {
      for (const run of own.querySelectorAll(".run")) {
        const node = [...run.childNodes].find((n) => n.nodeType === Node.TEXT_NODE) as Text | undefined
        const at = node?.data.indexOf(text) ?? -1
        if (!node || at < 0) continue
        const range = document.createRange()
        range.setStart(node, at)
        range.setEnd(node, at + text.length)
        return range.getBoundingClientRect().toJSON() as DOMRect
      }
      return null
    }
    return {
      column: own.getBoundingClientRect().toJSON() as DOMRect,
      first: box("تغادر"),
      number: box("9"),
      before: box("العبور"),
    }
  })
  expect(Math.abs(first!.right - column.right)).toBeLessThan(2)
  expect(number && before).not.toBeNull()
  await desk.saved()
  // The reader has an order of its own for letters whose dots are glyphs by themselves; but it finds each letter once.
  const letters = (text: string) => [...text.normalize("NFKC").replace(/[^\p{L}\p{N}]/gu, "")].sort().join("")
  expect(letters(execFileSync("pdftotext", ["-raw", await desk.pdf(), "-"], { encoding: "utf8" }))).toBe(
    letters(arabic),
  )
})
