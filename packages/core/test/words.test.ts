import { document, letters, p, paragraph, schema } from "../src/document"
import { readDocument } from "../src/document/reading"
import {
  correct,
  correctionOf,
  editHistory,
  insertText,
  linkAt,
  linkTargets,
  linkToTarget,
  markPlace,
  placeOfLink,
  readAddress,
  removeLink,
  setLink,
  undo,
  type CorrectionSettings,
} from "../src/editing"
import { layoutOf, pdfOf } from "../node/typesetting"
import { after, stateOf, texts } from "./telling"

const all: CorrectionSettings = { off: [], own: { sft: "Saltmarsh Ferry Trust" } }

/** Types a text letter by letter with corrections on. */
function typing(text: string, settings = all, language = "en-GB"): string {
  let line = ""
  for (const letter of text) {
    line += letter
    const found = correctionOf(line, language, settings)
    if (found) line = line.slice(0, found.from) + found.insert
  }
  return line
}

test.each([
  [`Say "yes", it's 'so'.`, "Say “yes”, it’s ‘so’."],
  ["Wait...", "Wait…"],
  ["One -- two", "One – two"],
  ["one--two ", "One—two "],
  ["2019--2020", "2019–2020"],
  ["9:00--17:00 daily", "9:00–17:00 daily"],
  ["one---two --- three", "One—two — three"],
  ["constructor toString __proto__ x", "Constructor toString __proto__ x"],
  ["See https://a--b.example/(c)/x...y->z now", "See https://a--b.example/(c)/x...y->z now"],
  ["www.ferry.example is", "www.ferry.example is"],
  ["imre@ferry.example is", "imre@ferry.example is"],
  ["teh tide", "The tide"],
  ["so, then", "So, then"],
  ["It rose... then fell", "It rose… then fell"],
  ["the '90s and rock 'n' roll", "The ’90s and rock ‘n’ roll"],
  ["'tis so", "’tis so"],
  ["OKed ABc PhD BSc THe THere ", "OKed ABc PhD BSc The There "],
  ["(c) (R) (tm) +- ", "© ® ™ ± "],
  ["a -> b <- c => d <-> e", "a → b ← c ⇒ d ↔ e"],
  ["Teh tide, recieved adn read.", "The tide, received and read."],
  ["TEh tide and THe BBC ", "The tide and The BBC "],
  ["The sft meets", "The Saltmarsh Ferry Trust meets"],
  ["1/2 a mile, the 3rd of 21st ", "½ a mile, the 3rd of 21st "],
  ["It rose. then it fell! so", "It rose. Then it fell! So"],
  ["the tide", "The tide"],
  ["See e.g. the bell", "See e.g. the bell"],
  ["He met Mr. oakum", "He met Mr. oakum"],
])("%s becomes %s", (typed, meant) => expect(typing(typed)).toBe(meant))

test("quotation marks follow the language, switches are heeded", () => {
  expect(typing('Er sagt "ja" ', all, "de")).toBe("Er sagt „ja“ ")
  expect(typing('Il dit "oui"', all, "fr")).toBe("Il dit «\u00a0oui\u00a0»")
  expect(typing('"a"... 1/2 ', { ...all, off: ["quotes", "ellipsis", "fractions"] })).toBe('"a"... 1/2 ')
})

test("a correction is a change of its own, which one undo takes back", () => {
  let state = stateOf([p("Teh")], [0, 3], [0, 3], [editHistory()])
  state = after(state, insertText(" "), correct(all))
  expect(texts(state.doc)).toEqual(["The "])
  expect(texts(after(state, undo).doc)).toEqual(["Teh "])
  expect(correct(all)(stateOf([p("The ")], [0, 4]))).toBe(false)
})

test("ordinals keep their letters, which are raised; what follows is not", () => {
  let state = stateOf([p("On the 3rd")], [0, 10], [0, 10], [editHistory()])
  state = after(state, insertText(" "), correct(all), insertText("of"))
  const runs = () =>
    state.doc
      .child(0)
      .child(0)
      .children.map(({ text, marks }) => [text, marks[0]?.attrs.value ?? null])
  expect(runs()).toEqual([
    ["On the 3", null],
    ["rd", "super"],
    [" of", null],
  ])
  state = after(state, undo, undo)
  expect(runs()).toEqual([["On the 3rd ", null]])
  for (const [text, settings, language] of [
    ["2nd ", { ...all, off: ["ordinals"] }, "en-GB"],
    ["2nd ", all, "de"],
    ["2nds ", all, "en-GB"],
  ] as const)
    expect(correctionOf(text, language, settings as typeof all)).toBeNull()
})

test("a typed address becomes a link", () => {
  const state = after(stateOf([p("See www.ferry.example/tides, ")], [0, 29]), correct(all))
  expect(state.doc.child(0).child(0).child(1).marks[0]?.attrs.value).toBe("https://www.ferry.example/tides")
  expect(correct({ ...all, off: ["links"] })(stateOf([p("a@b.example ")], [0, 12]))).toBe(false)
})

test("addresses are read as people write them; other schemes are none", () => {
  expect(
    [
      "ferry.example",
      "www.ferry.example/a?b",
      "http://x.example",
      "imre@ferry.example?subject=Tide",
      "mailto:a@b.example",
    ].map(readAddress),
  ).toEqual([
    "https://ferry.example",
    "https://www.ferry.example/a?b",
    "http://x.example",
    "mailto:imre@ferry.example?subject=Tide",
    "mailto:a@b.example",
  ])
  expect(["javascript:alert(1)", "ftp://x.example", "two words", "file:///etc", ""].map(readAddress)).toEqual([
    null,
    null,
    null,
    null,
    null,
  ])
})

describe("links", () => {
  const linked = stateOf(
    [
      p(
        "See ",
        letters("the ", { link: "https://a.example" }),
        letters("tide", { link: "https://a.example", bold: true }),
        " now",
      ),
    ],
    [0, 6],
  )

  test("are found under the caret as a whole, changed and removed", () => {
    expect(linkAt(linked)).toMatchObject({ href: "https://a.example", to: (linkAt(linked)?.from ?? 0) + 8 })
    expect(linkAt(stateOf([p("plain")], [0, 2]))).toBeNull()
    expect(linkAt(after(linked, setLink("https://b.example")))?.href).toBe("https://b.example")
    expect(linkAt(after(linked, removeLink))).toBeNull()
    expect(removeLink(stateOf([p("x")]))).toBe(false)
  })

  test("go on the word at the caret, or the address is put in", () => {
    expect(
      after(stateOf([p("See tide")], [0, 6]), setLink("https://a.example"))
        .doc.child(0)
        .child(0)
        .child(1).text,
    ).toBe("tide")
    expect(texts(after(stateOf([p()]), setLink("mailto:imre@ferry.example?subject=x")).doc)).toEqual([
      "imre@ferry.example",
    ])
  })

  test("lead to headings, which keep being found when their words change, and to marked places", () => {
    const start = stateOf([paragraph("heading1", ["Tides"]), p("See above"), p("Here it is")], [1, 6], [1, 9])
    const [target] = linkTargets(start.doc)
    const state = after(start, linkToTarget(target!))
    expect(linkAt(state)?.href).toBe("#Tides")
    expect(placeOfLink(state.doc, "#Tides")).toBe(2)
    const placed = after(stateOf([p("Here it is")], [0, 0], [0, 4]), markPlace("Spot"))
    expect(linkTargets(placed.doc)).toEqual([{ name: "Spot", text: "Spot", leaf: 0, level: null }])
    expect(markPlace("Spot")(placed)).toBe(false)
  })

  test("get into the PDF, and no other scheme gets into a document", () => {
    const doc = document([
      paragraph("heading1", [letters("Tides", { place: "Tides" })]),
      p(letters("web", { link: "https://a.example/(x)" }), " ", letters("in", { link: "#Tides" })),
    ])
    const pdf = Buffer.from(pdfOf(layoutOf(doc), "x"))
    expect(pdf.length).toBeGreaterThan(1000)
    expect(() =>
      readDocument(
        document([p(schema.text("x", [schema.marks.link!.create({ value: "javascript:alert(1)" })]))]).toJSON(),
      ),
    ).toThrow("a link leads to")
  })
})
