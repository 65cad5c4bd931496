/** Letters by their codes, and words by their numbers. */
import fc from "fast-check"
import { hashed, LetterCodes, WordTable } from "../src/document/wordTable"

const text = fc.oneof(
  fc.string({ maxLength: 3000 }),
  fc.string({ unit: "binary", maxLength: 40 }),
  fc.array(fc.constantFrom("tide", "café", "’", "\ud83d", "𝄞", " "), { maxLength: 1200 }).map((all) => all.join("")),
)

test("the codes of a text are those of its letters, whatever was read before it", () => {
  fc.assert(
    fc.property(fc.array(text, { minLength: 1, maxLength: 5 }), (all) => {
      const letters = new LetterCodes()
      for (const own of all) {
        const codes = letters.of(own)
        expect([...codes.subarray(0, own.length)]).toEqual(units(own))
        expect(letters.of(own)).toBe(codes)
      }
    }),
  )
})

test("a letter that does not fit any more is not taken for one that was read", () => {
  // Room is made for one more than the letters: the last one here would need two.
  for (const length of [1023, 1024, 1025, 2000]) {
    const own = `é${"a".repeat(length - 2)}é`
    expect([...new LetterCodes().of(own).subarray(0, length)]).toEqual(units(own))
  }
})

test("the same word has the same number, wherever it stands and however it is spelt in memory", () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom("tide", "tides", "café", "’", "", "a"), { maxLength: 60 }), (words) => {
      const [table, letters] = [new WordTable(), new LetterCodes()]
      const known = new Map<string, number>()
      for (const word of words) {
        const own = `x${word}y`
        const hash = units(word).reduce((sum, code) => hashed(sum, code), 0)
        const number = table.number(letters.of(own), 1, 1 + word.length, hash)
        expect(number).toBe(known.get(word) ?? known.size)
        known.set(word, number)
      }
    }),
  )
})

function units(own: string): number[] {
  return Array.from({ length: own.length }, (_, i) => own.charCodeAt(i))
}
