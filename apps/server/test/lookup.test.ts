import { join } from "node:path"
import fc from "fast-check"
import { Meanings, Work } from "@biblon/wire"
import { findWorks, Library } from "../src/lookup/library"
import { works } from "../src/lookup/works"
import { Lexicon } from "../src/lookup/words"

const lexicon = new Lexicon(join(__dirname, "../../.."))

test("a word is looked up in the form in which it stands, with its meanings and others of the same", () => {
  const ferry = lexicon.look("ferries")
  expect(ferry.meanings.map(({ part }) => part)).toContain("noun")
  expect(ferry.meanings[0]).toMatchObject({ part: "noun", words: ["ferryboat"] })
  expect(ferry.meanings[0]!.sense).toMatch(/^a boat that transports people/)
  expect(lexicon.look("Hauled").meanings[0]!.words).toEqual(expect.arrayContaining(["drag"]))
  expect(lexicon.look("tide table").meanings).toEqual([])
  expect(lexicon.look("ice cream").meanings[0]!.words).toContain("icecream")
  expect(lexicon.look("happier").meanings[0]!.part).toBe("adjective")
  // The first and the last word of a list are found too, and nothing is found behind or before them.
  for (const word of ["a", "zymurgy", "zyrian"]) expect(lexicon.look(word).meanings.length).toBeGreaterThan(0)
  for (const word of ["", "zzzz", "!", "constructor_", "../x", "x".repeat(500), "\u0000"])
    expect(lexicon.look(word).meanings).toEqual([])
})

test("whatever is asked is answered in the form that the page expects", () => {
  fc.assert(
    fc.property(fc.string(), (word) => void Meanings.parse(lexicon.look(word))),
    { numRuns: 200 },
  )
  fc.assert(
    fc.property(fc.string(), (words) => findWorks(words).forEach((own) => Work.parse(own))),
    { numRuns: 200 },
  )
})

test("the library holds more than a hundred works, each with a name of its own, and finds them by who, what, when and words", async () => {
  expect(works.length).toBeGreaterThanOrEqual(120)
  for (const key of ["id", "title"] as const) expect(new Set(works.map((own) => own[key])).size).toBe(works.length)
  for (const own of works) {
    Work.parse(own)
    expect(own.passages.length).toBeGreaterThan(0)
    if (own.pages) {
      const [from, to] = own.pages.split("–").map(Number) as [number, number]
      for (const { page } of own.passages) expect(Number(page) >= from && Number(page) <= to).toBe(true)
    }
  }
  const [first] = findWorks("redshank timetable")
  expect(first!.passages[0]!.words).toContain("redshank")
  expect(findWorks("PELLOW").every(({ authors }) => authors.some(({ family }) => family === "Pellow"))).toBe(true)
  expect(findWorks("")).toEqual([])
  const library = new Library()
  library.mood = "silent"
  await expect(library.ask("tide")).rejects.toThrow("does not answer")
})
