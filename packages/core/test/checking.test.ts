import fc from "fast-check"
import { EditorState, TextSelection } from "prosemirror-state"
import {
  counting,
  countText,
  dictionaryOf,
  guessLanguage,
  isAmong,
  meetingWords,
  readingEase,
  readingMinutes,
  entriesOf,
  Lexicons,
  spelledWords,
  type Counted,
  type DictionaryName,
} from "../src/checking"
import { defaultStyles, document, documentAttrs, leavesOf, letters, nodes, p, paragraph, textOf } from "../src/document"
import { readDocument } from "../src/document/reading"
import { insertText, knowWord, repairText, sampleAt, setLettersAt, undo, editHistory } from "../src/editing"
import type { Node } from "prosemirror-model"

const wordsOf = (node: Node) => spelledWords(defaultStyles, node).map(({ word }) => word)

test.each([
  ["The ferry's chain, well-kept.", ["The", "ferry's", "chain", "well-kept"]],
  ["It’s a co\u00adoperative’s", ["It's", "cooperative's"]],
  ["Write to imre@ferry.example or see www.ferry.example/tides.", ["Write", "to", "or", "see"]],
  ["The file tides.txt lies in C:\\ferry and https://a.example", ["The", "file", "lies", "in", "and"]],
  ["B2b on the 3rd, x2 and NASA, iPad, McNab; HOME", ["on", "the", "and"]],
  ["Привет and 渡し船", ["and"]],
  ["a\u0301 le\u0301", ["lé"]],
  ["", []],
])("of %j the words that are looked up are %j", (text, words) => {
  expect(wordsOf(p(text))).toEqual(words.map((word) => word.normalize("NFC")))
})

test("each word is looked up in the language of its letters; of none, where there is no dictionary or none is meant", () => {
  const node = p(
    "the ",
    letters("chaîne", { language: "fr-CA" }),
    " and ",
    letters("Kette", { language: "de" }),
    letters(" qwx", { language: "zxx" }),
    letters(" colour", { language: "en-US" }),
  )
  expect(spelledWords(defaultStyles, node).map(({ word, dictionary }) => `${dictionary} ${word}`)).toEqual([
    "en-gb the",
    "fr chaîne",
    "en-gb and",
    "en colour",
  ])
  expect(["en", "en-US", "en-AU", "EN-gb", "pt-BR", "nb", "", "constructor"].map(dictionaryOf)).toEqual([
    "en",
    "en",
    "en-gb",
    "en-gb",
    "pt",
    null,
    null,
    null,
  ])
})

test("words have the places that they have in the text, whatever that is, and long ones take no long time", () => {
  fc.assert(
    fc.property(fc.string({ unit: "grapheme", maxLength: 60 }), (text) => {
      const node = p(text.replace(/[\r\n\ufffc]/g, " "))
      const found = spelledWords(defaultStyles, node)
      for (const [i, { from, to }] of found.entries()) {
        expect(from).toBeGreaterThanOrEqual(found[i - 1]?.to ?? 0)
        expect(textOf(node).slice(from, to)).toMatch(/^\p{L}/u)
      }
    }),
  )
  for (const text of ["a".repeat(100_000), "a-".repeat(100_000), "'".repeat(100_000)])
    expect(wordsOf(p(text)).length).toBeLessThan(2)
})

test("a name that was learned is right with its capital, in capitals and of whom something is; a word also begins a sentence", () => {
  const known = new Set(["Zzyrk", "oild", "l'eau"])
  const right = (word: string) => isAmong(known, word)
  expect(["Zzyrk", "ZZYRK", "Zzyrk's", "oild", "Oild", "OILD", "l'eau"].map(right)).not.toContain(false)
  expect(["zzyrk", "oilds", "OIld", "constructor"].map(right)).not.toContain(true)
})

test("the language of a text is told where it is plain, and else not at all", () => {
  expect(guessLanguage("La chaîne est neuve et elle est dans le bateau avec nous pour la saison.")).toBe("fr")
  expect(guessLanguage("Die Fähre ist an der Kette und fährt auch nicht bei Nebel, das ist auf dem Fluss so.")).toBe(
    "de",
  )
  expect(guessLanguage("The ferry is at the slip and it was there for an hour by the board.")).toBe("en-GB")
  expect(guessLanguage("Harbour chain, lamp, slipway, board, tide, rope, bell, keel, mast.")).toBeNull()
  expect(guessLanguage("le la")).toBeNull()
})

const state = (doc: Node) => EditorState.create({ doc, plugins: [editHistory()] })
const after = (from: EditorState, command: ReturnType<typeof repairText>) => {
  let now = from
  command(from, (tr) => (now = from.apply(tr)))
  return now
}

test("several places are put right at once and keep their look; one undo takes all back", () => {
  const before = state(document([p("The ", letters("chian", { bold: true }), " and the chian.")]))
  const done = after(
    before,
    repairText(
      [
        { from: 6, to: 11, text: "chain" },
        { from: 20, to: 25, text: "chain" },
      ],
      "Everywhere",
    ),
  )
  const leaf = leavesOf(done.doc).node(0)
  expect(textOf(leaf)).toBe("The chain and the chain.")
  expect(leaf.child(1).marks.map(({ type }) => type.name)).toEqual(["bold"])
  expect(after(done, undo).doc.eq(before.doc)).toBe(true)
  expect(repairText([], "Nothing")(before)).toBe(false)
  expect(textOf(leavesOf(after(before, repairText([{ from: 2, to: 6, text: "" }], "Away")).doc).node(0))).toBe(
    "chian and the chian.",
  )
})

test("a word that is right here stays so in the document, also one like the names that every object has", () => {
  let now = state(document([p("constructor")]))
  for (const word of ["constructor", "Zzyrk"]) now = after(now, knowWord(word, true))
  expect(knowWord("Zzyrk", true)(now)).toBe(false)
  const read = readDocument(JSON.parse(JSON.stringify(now.doc.toJSON())))
  expect(Object.keys(documentAttrs(read).checks.known)).toEqual(["constructor", "Zzyrk"])
  expect(Object.keys(documentAttrs(after(now, knowWord("constructor", false)).doc).checks.known)).toEqual(["Zzyrk"])
  expect(documentAttrs(after(now, undo).doc).checks.known).toEqual({ constructor: true })
  const { checks: _none, ...attrs } = now.doc.toJSON().attrs as Record<string, unknown>
  expect(documentAttrs(readDocument({ ...now.doc.toJSON(), attrs }, 4)).checks).toEqual({ known: {}, left: {} })
  // Before remarks could be left, there were words alone.
  const older = { ...now.doc.toJSON(), attrs: { ...attrs, checks: { known: { Zzyrk: true } } } }
  expect(documentAttrs(readDocument(older, 8)).checks).toEqual({ known: { Zzyrk: true }, left: {} })
  expect(() => readDocument({ ...now.doc.toJSON(), attrs: { ...attrs, checks: { known: { a: 1 } } } })).toThrow(
    "settings",
  )
  expect(wordsOf(leavesOf(after(now, setLettersAt("language", "zxx", 2, 13)).doc).node(0))).toEqual([])
})

const countOf = (doc: Node, counted?: Counted, from?: number, to?: number) => {
  const work = counting(doc, counted, from, to)
  let step = work.next()
  while (!step.done) step = work.next()
  return step.value
}

test("a length is words, characters, sentences and time; notes, captions and references count if they are to", () => {
  const doc = document(
    [
      p("She runs. Does she? Yes", nodes.anchor.create({ story: "n" }), "."),
      paragraph("caption", ["Figure one"]),
      paragraph("reference", ["Caddow 2025"]),
      p(""),
    ],
    {},
    [
      nodes.story.create({ key: "n", kind: "note" }, [paragraph("note", ["So it is said."])]),
      nodes.story.create({ key: "h", kind: "header" }, [p("Head")]),
    ],
  )
  expect(countOf(doc)).toMatchObject({ words: 13, sentences: 6, paragraphs: 4 })
  expect(countOf(doc, { notes: false, captions: false, references: false })).toMatchObject({
    words: 5,
    characters: 24,
    charactersWithoutBlanks: 20,
  })
  expect(countOf(doc, undefined, 2, 5)).toMatchObject({ words: 1, characters: 3 })
  expect(readingMinutes(countText("word ".repeat(476)))).toBeCloseTo(2)
  expect(readingEase(countText("The cat sat on the mat. ".repeat(8)))).toBeGreaterThan(90)
  expect(
    readingEase(countText("Organisational responsibilities necessitate comprehensive deliberation. ".repeat(8))),
  ).toBe(0)
  expect(readingEase(countText("Too little."))).toBeNull()
})

test("a sample is found from its first letter to its last, and what is typed over it is none", () => {
  const doc = document([
    p("Dear ", letters("Ms ", { sample: true }), letters("Caddow", { sample: true, bold: true }), ","),
  ])
  expect(sampleAt(doc, 9)).toEqual({ from: 7, to: 16 })
  expect([sampleAt(doc, 3), sampleAt(doc, 7), sampleAt(doc, 16), sampleAt(doc, 17)].map((own) => own !== null)).toEqual(
    [false, true, true, false],
  )
  const before = state(doc)
  const selected = before.apply(before.tr.setSelection(TextSelection.create(doc, 7, 16)))
  const typed = after(selected, insertText("Orrin"))
  expect(leavesOf(typed.doc).node(0).textContent).toBe("Dear Orrin,")
  expect(sampleAt(typed.doc, 9)).toBeNull()
})

test("gone through without their places, no word of a paragraph is passed over", () => {
  const bits = fc.constantFrom(
    "ferry",
    "Tide",
    "NATO",
    "iPhone",
    "o’clock",
    "don't",
    "x",
    "3rd",
    "a_b",
    "rock-3",
    "-",
    " ",
    ", ",
    ". ",
    "2",
    "é",
    "’",
    "www.a.b",
    "@",
    "–",
    "\ufffc",
  )
  fc.assert(
    fc.property(fc.array(bits, { maxLength: 12 }), fc.boolean(), (parts, foreign) => {
      const block = paragraph("body", [
        parts.join(""),
        ...(foreign ? [letters(" traghetto", { language: "fr-FR" })] : []),
      ])
      const lexicons = new Lexicons()
      const all = new Set(
        entriesOf(defaultStyles, block, lexicons).flatMap(({ word, right }) => (right === null ? [word] : [])),
      )
      const found = spelledWords(defaultStyles, block)
      expect([...all]).toEqual(expect.arrayContaining(found.map(({ word }) => word)))
      if (!/\d/.test(parts.join(""))) expect(all).toEqual(new Set(found.map(({ word }) => word)))
      const unknown = lexicons.take(1).flatMap(([dictionary, words]) => words.map((word) => `${dictionary} ${word}`))
      expect(unknown).toEqual(expect.arrayContaining(found.map(({ word, dictionary }) => `${dictionary} ${word}`)))
    }),
    { numRuns: 500 },
  )
})

test("while paragraphs are gone through, each word of theirs is asked for once, few lists at a time; what got no answer, once more", async () => {
  const leaves = Array.from({ length: 400 }, (_, i) =>
    p(`The ferry${"abcdefghij"[i % 10]}${"klmnopqrst"[i % 7]} waits.`),
  )
  const many = Array.from({ length: 4000 }, (_, i) => `word${[...String(i)].map((n) => "abcdefghij"[+n]).join("")}`)
  leaves.push(p(many.join(" ")), p("The end."))
  const lexicons = new Lexicons()
  const asked: string[] = []
  let [flying, most] = [0, 0]
  const ask = async (name: DictionaryName, words: string[], answered = true) => {
    most = Math.max(most, ++flying)
    asked.push(...words)
    await Promise.resolve()
    if (answered) for (const word of words) lexicons.of(name).of(word).right = true
    flying--
  }
  const goThrough = async (answered: boolean) => {
    const meeting = meetingWords(defaultStyles, leaves, lexicons, (name, words) => ask(name, words, answered))
    let met = meeting.next()
    while (!met.done) {
      await Promise.resolve()
      met = meeting.next()
    }
    await met.value
  }
  await goThrough(false)
  const distinct = new Set(leaves.flatMap(wordsOf))
  expect(new Set(asked)).toEqual(distinct)
  expect(asked).toHaveLength(distinct.size)
  expect(most).toBeLessThanOrEqual(2)
  await goThrough(true)
  expect(asked).toHaveLength(distinct.size)
  lexicons.askAgain()
  await goThrough(true)
  expect(asked).toHaveLength(2 * distinct.size)
  lexicons.askAgain()
  await goThrough(true)
  expect(asked).toHaveLength(2 * distinct.size)
})
