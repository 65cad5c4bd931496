/** Paragraphs that are made to be awkward are laid out, to the last character, in time that grows with their length: each of these once took minutes or for ever. */
import { defaultTypesetting, document, paragraph } from "../src/document"
import { lineBreaks } from "../src/layout/breaking"
import { layoutOf } from "../node/typesetting"
import { fragmentsOf } from "../src/layout"

const length = 100_000
export const awkward: Record<string, string> = {
  "one long word": "a",
  tabs: "\t",
  "tabs between letters": "x\ty",
  "both ways": "אב 12 ",
  ideographs: "潮汐",
  "words without blanks between them": "น้ำขึ้นน้ำลง",
  flags: "🇫🇷",
  families: "👩‍👩‍👧",
  "marks on marks": "\u0301",
  blanks: " ",
  "places to break without width": "\u200b",
  "places for hyphens": "ab\u00ad",
  commas: ",",
  "turns of direction": "\u202e\u2066a",
}

test.each(Object.entries(awkward))("%s", (_what, unit) => {
  const text = unit.repeat(Math.ceil(length / unit.length))
  for (const breaking of ["quick", "whole"] as const) {
    const { placed } = layoutOf(
      document([paragraph("body", [text], breaking === "whole" ? { align: "justify", hyphenate: true } : null)], {
        typesetting: { ...defaultTypesetting, breaking },
      }),
    )
    const lines = placed.flatMap((own) =>
      fragmentsOf(own).flatMap((own) => own.paragraph.lines.slice(own.from, own.to)),
    )
    expect(lines[0]?.from).toBe(0)
    expect(lines.at(-1)?.to).toBe(text.length)
    lines.forEach((line, i) => expect(line.from).toBe(i === 0 ? 0 : lines[i - 1]!.to))
  }
})

test("decimal stops with long text behind them, and a language that is none, hold nothing up", () => {
  const tabs = [{ position: 200, align: "decimal" as const, leader: "dotted" as const }]
  expect(
    layoutOf(document([paragraph("body", [`price\t${"9 ".repeat(length / 2)}`], { tabs })])).placed.length,
  ).toBeGreaterThan(1)
})

test("words of scripts without blanks are found in long stretches as in short ones", () => {
  const unit = "น้ำขึ้นน้ำลงที่ท่าเรือ"
  const short = lineBreaks(unit.repeat(20)).offsets
  const long = lineBreaks(unit.repeat(2000)).offsets
  expect(long.slice(0, short.length - 4)).toEqual(short.slice(0, -4))
})
