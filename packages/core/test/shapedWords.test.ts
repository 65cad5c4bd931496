/** Text that is put together from words that were shaped before, and words that are from pairs of their letters, are as if shaped as a whole, in every face that ships. */
import { readFileSync } from "node:fs"
import fc from "fast-check"
import { shippedFace, wasmFile } from "../node/typesetting"
import { isShapedByWords, shippedFaces } from "../src/layout/fonts/catalogue"
import { madeGlyphs, plainWords } from "../src/layout/fonts/glyphs"
import { LetterPairs } from "../src/layout/fonts/pairs"
import { ShapedWords } from "../src/layout/fonts/words"
import { HarfBuzz, type Font, type ShapeOptions } from "../src/layout/fonts/harfbuzz"

const harfbuzz = new HarfBuzz(readFileSync(wasmFile("harfbuzz")))

const letters = "abcdefghijklmnopqrstuvwxyz"
/** Words with what stands round them, among them what faces join or move together. */
const word = fc.oneof(
  fc.constantFrom(
    "office",
    "Affairs",
    "fjord",
    "To",
    "AVA",
    "Wave",
    "“Yes,”",
    "(Tye)",
    "1,250.50",
    "T.",
    "L’été",
    "—",
    "–",
    "f",
    "fi",
    "ffl",
    "V",
    "y.",
    "’Tis",
    "A",
    "I",
    "@",
    "&c.",
    "50%",
    "$5",
    "“",
    "…",
    "",
    "r.",
    "P.",
    "re-use",
    "Qu",
    "don't",
    "www.ferry.example",
  ),
  fc.string({
    unit: fc.constantFrom(...letters, ...letters, ...letters.toUpperCase(), ..."0123456789.,;:!?-'’“”()/&"),
    maxLength: 12,
  }),
  // So few letters that most pairs have been met.
  fc.string({ unit: fc.constantFrom(..."fijltoeVA.’"), maxLength: 8 }),
)
const text = fc.array(word, { minLength: 4, maxLength: 40 }).map((words) => `${words.join(" ")} end`)
const options = fc.constantFrom<ShapeOptions>(
  { language: "en-GB" },
  {
    language: "en-GB",
    features: [
      ["liga", 0],
      ["clig", 0],
    ],
  },
  { language: "de", features: [["kern", 0]] },
  { language: "tr" },
)

const plain = (font: Font, own: string, from: number, to: number, how: ShapeOptions) => {
  const { count, ids, first, clusters, advances, offsets, unsafe } = font.shape(own, from, to, how)
  return {
    count,
    ids: [...ids],
    first,
    clusters: clusters && [...clusters],
    advances: [...advances],
    offsets: offsets && [...offsets],
    unsafe: [...unsafe],
  }
}

const faces = shippedFaces().flatMap(({ id }) => (isShapedByWords(id) ? [[id] as const] : []))

test.each(faces)("%s", (face) => {
  const bytes = shippedFace(face)
  const [byWords, whole] = [harfbuzz.font(bytes, true), harfbuzz.font(bytes)]
  try {
    fc.assert(
      fc.property(text, options, fc.nat(3), (own, how, from) => {
        expect(plain(byWords, own, from, own.length, how)).toEqual(plain(whole, own, from, own.length, how))
      }),
      { numRuns: 40 },
    )
  } finally {
    byWords.release()
    whole.release()
  }
})

test("What words say of their glyphs is what these come to", () => {
  const font = harfbuzz.font(shippedFace("Tinos-regular"), true)
  fc.assert(
    fc.property(text, options, fc.array(fc.nat(), { minLength: 1, maxLength: 12 }), (own, how, places) => {
      const words = plainWords(font.shape(own, 0, own.length, how))
      if (!words) return
      const { advances, unsafe, count } = madeGlyphs(words)
      const units = (from: number, to: number) => [...advances.slice(from, to)].reduce((sum, own) => sum + own, 0)
      const sums = new Float64Array(count + 3)
      expect(words.addUp(sums, 2, 5, 0.5)).toBe(5 + units(0, count) / 2)
      for (const place of places) {
        const at = place % count
        const isUnsafe = ((unsafe[at >> 3]! >> (at & 7)) & 1) === 1
        expect(words.isUnsafe(at)).toBe(isUnsafe)
        if (own[at - 1] === " ") for (const it of [words, words.unmade()]) expect(it.isTight(at)).toBe(isUnsafe)
        expect(sums[at + 3]).toBe(5 + units(0, at + 1) / 2)
        const to = at + ((place >> 8) % (count - at))
        expect(words.units(at, to)).toBe(units(at, to))
      }
    }),
    { numRuns: 300 },
  )
  font.release()
})

test("A word is shaped once, and not at all where its pairs of letters were met", () => {
  const font = harfbuzz.font(shippedFace("Tinos-regular"))
  const asked: string[] = []
  const whole = (text: string, from: number, to: number) => {
    asked.push(text.slice(from, to))
    return font.shape(text, from, to, { language: "en-GB" })
  }
  const glyphOf = (code: number) => font.shape(String.fromCharCode(code), 0, 1, { language: "en-GB" }).ids[0]!
  const words = new ShapedWords(whole, new LetterPairs(glyphOf))
  const told = (text: string) => {
    asked.length = 0
    words.shape(text, 0, text.length)
    return asked.filter((own) => own.trim().length > 1)
  }
  expect(told("the tolls are set here")).toEqual(["the tolls are set here"])
  expect(told("here the tolls are set")).toEqual(["set"])
  expect(told("other tolls there are lost")).toEqual(["other lost"])
  expect(told("ether these tell")).toEqual(["these tell"])
  expect(told("there sees tether less")).toEqual(["sees less"])
})
