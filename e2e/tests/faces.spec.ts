/** Painted text is as wide as the layout says, in every face that ships and at sizes from 6 to 72. */
import { families, faceOf } from "@biblon/core/layout/catalogue"
import { expect, test, type DeskPage } from "../desk"

/** Pastes Biblon's own content, as copying from another document does. */
async function pasteOwn(desk: DeskPage, content: unknown[]): Promise<void> {
  const slice = { content, openStart: 0, openEnd: 0 }
  const brought = { styles: {}, lists: {}, fonts: {} }
  await desk.paste({ "application/x-biblon-slice": JSON.stringify({ slice, brought }) })
}

const sample: Record<string, string> = {
  complex: "العبّارة تعبر",
  eastAsian: "渡し船 渡船 chain",
  sans: "AVATAR office To We",
  serif: "AVATAR office To We",
  mono: "AVATAR office",
  hand: "Avatar office",
}
const samples: Record<string, string> = {
  "Noto Sans Hebrew": "המעבורת חוצה",
  "Noto Sans Thai": "ข้ามฟากด้วยเรือ",
  "Noto Sans Devanagari": "नाव नदी पार करती है",
}
const sizes = [6, 7.5, 9, 10.5, 12, 14, 18, 24, 36, 48, 72]

interface Measured {
  text: string
  face: string
  size: string
  off: number
}

/**
 * For each run in sight: by how many pixels of the screen its painted end is off the end of the rule under it, which layout placed;
 * null until the faces of all of them are here.
 */
async function measure(desk: DeskPage): Promise<Measured[] | null> {
  return desk.page.evaluate(() => {
    const found: { text: string; face: string; size: string; off: number }[] = []
    const faces = new Set(
      [...document.querySelectorAll<HTMLElement>(".canvas .run")].map((run) => run.style.fontFamily),
    )
    // A face that no frame has asked for yet is neither loading nor there.
    if (document.fonts.status !== "loaded" || ![...faces].every((face) => document.fonts.check(`12px ${face}`)))
      return null
    for (const line of document.querySelectorAll(".canvas .line")) {
      const runs = [...line.querySelectorAll<HTMLElement>(".run")]
      const rules = [...line.querySelectorAll<HTMLElement>(".rule")]
      runs.forEach((run, i) => {
        const node = [...run.childNodes].find((n) => n.nodeType === Node.TEXT_NODE)
        const rule = rules[i]
        if (!node || !rule) return
        const under = rule.getBoundingClientRect()
        const rtl = run.style.direction === "rtl"
        const offAt = (end: number) => {
          const range = document.createRange()
          range.setStart(node, 0)
          range.setEnd(node, end)
          const text = range.getBoundingClientRect()
          return Math.abs(rtl ? text.left - under.left : text.right - under.right)
        }
        // A space that hangs at the end of a line has no rule; one inside a line has.
        const text = node.textContent!
        found.push({
          text,
          face: run.style.fontFamily,
          size: run.style.fontSize,
          off: Math.min(offAt(text.length), offAt(text.trimEnd().length)),
        })
      })
    }
    return found
  })
}

/** All runs of the document, those seen twice twice: from top to bottom, each part once its sheets are painted in their faces. */
async function measureAll(desk: DeskPage): Promise<Measured[]> {
  const seen: Measured[] = []
  const main = desk.page.getByRole("main")
  for (let y = 0; ; y += 600) {
    await main.evaluate((host, top) => host.scrollTo(0, top), y)
    await desk.page.evaluate(
      () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
    )
    await expect(main).toHaveAttribute("aria-busy", "false")
    let here: Measured[] | null = null
    await expect.poll(async () => (here = await measure(desk))).not.toBeNull()
    seen.push(...(here ?? []))
    if (await main.evaluate((host) => host.scrollTop + host.clientHeight >= host.scrollHeight - 2)) return seen
  }
}

test("in every face and size", async ({ desk }) => {
  test.setTimeout(240_000)
  await desk.blank()
  const value = (marks: Record<string, unknown>) =>
    Object.entries(marks).map(([type, v]) => ({ type, attrs: { value: v } }))
  const blocks = families.flatMap(({ name, kind, faces }) =>
    faces.flatMap((face) =>
      sizes.map((size) => ({
        type: "paragraph",
        attrs: { style: "body", format: { spaceAfter: 0, lineSpacing: { rule: "multiple", value: 1 } } },
        content: [
          {
            type: "text",
            text: samples[name] ?? sample[kind],
            marks: value({
              family: name,
              familyEastAsian: kind === "eastAsian" ? name : "Noto Sans JP",
              familyComplex: kind === "complex" ? name : "Noto Naskh Arabic",
              size,
              bold: face.startsWith("bold"),
              italic: /italic/i.test(face),
              underline: "single",
            }),
          },
        ],
      })),
    ),
  )
  await pasteOwn(desk, blocks)
  await desk.press("Control+Home")
  await desk.saved()
  const seen = await measureAll(desk)
  const wrong = seen.filter(({ off }) => off > 0.1)
  expect(wrong).toEqual([])
  const painted = new Set(seen.map(({ face }) => face.replaceAll('"', "")))
  for (const { name, faces } of families)
    for (const face of faces) expect(painted).toContain(faceOf(name, face.startsWith("bold"), /italic/i.test(face)))
  expect(new Set(seen.map(({ face, size, text }) => `${face} ${size} ${text}`)).size).toBeGreaterThan(900)
})

test("with every property of letters that changes their width", async ({ desk }) => {
  await desk.blank()
  const properties: Record<string, unknown>[] = [
    {},
    { spacing: 1.5 },
    { spacing: -0.4 },
    { caps: "small" },
    { caps: "all" },
    { kerning: false },
    { ligatures: false },
    { script: "super" },
    { script: "sub" },
    { caps: "small", spacing: 0.3 },
  ]
  const blocks = ["EB Garamond", "Tinos", "Inter"].flatMap((family) =>
    properties.flatMap((marks) =>
      [10.5, 13, 31.5].map((size) => ({
        type: "paragraph",
        attrs: { style: "body", format: { spaceAfter: 0 } },
        content: [
          {
            type: "text",
            text: "AVATAR office, straße",
            marks: Object.entries({ family, size, underline: "single", ...marks }).map(([type, v]) => ({
              type,
              attrs: { value: v },
            })),
          },
        ],
      })),
    ),
  )
  await pasteOwn(desk, blocks)
  await desk.press("Control+Home")
  await desk.saved()
  const measured = await measureAll(desk)
  expect(measured.length).toBeGreaterThan(60)
  expect(measured.filter(({ off }) => off > 0.1)).toEqual([])
})
