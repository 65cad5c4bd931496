import { readFileSync } from "node:fs"
import { join } from "node:path"
import fc from "fast-check"
import { EditorState, TextSelection } from "prosemirror-state"
import { Transform } from "prosemirror-transform"
import {
  citationFormat,
  citationItems,
  citationsOf,
  citedIn,
  document,
  documentAttrs,
  leavesOf,
  nodes,
  notesOf,
  p,
  paragraph,
  plainShown,
  setEntries,
  setCiter,
  sourceKinds,
  storiesOf,
  stretchesOf,
  type CitationItem,
  type Source,
} from "../src/document"
import { checkDocument, readDocument, ReadingError } from "../src/document/reading"
import {
  changeCitation,
  changeCitationStyle,
  citationAt,
  citedSources,
  editHistory,
  insertCitation,
  insertQuotation,
  putSources,
  referenceList,
  removeSource,
  turnReferenceList,
  undo,
} from "../src/editing"
import { fragmentsOf, layoutDocument, shownText, type Layout } from "../src/layout"
import { citationStyles, keyFor, locatorOf, sameSource, sourceOf, sourceWords, writeSources } from "../src/sources"
import { readSources } from "../src/sources/reading"
import { layoutOf, pdfOf, prepareCiting, typesetter } from "../node/typesetting"
import { after, texts } from "./telling"
import type { Node } from "prosemirror-model"

const source = (rest: Partial<Source>): Source => ({
  kind: "book",
  names: {},
  fields: {},
  issued: "",
  accessed: "",
  remarks: "",
  quotations: [],
  ...rest,
})
const marlowe = source({
  names: { author: [{ family: "Marlowe", given: "Ida" }] },
  fields: { title: "Hauling and being hauled", publisher: "Harbour Press", "publisher-place": "Saltmarsh" },
  issued: "2019",
})
const sands = source({
  kind: "article-journal",
  names: {
    author: [
      { family: "Sands", given: "Ben" },
      { family: "Caddow", given: "Nell" },
    ],
  },
  fields: {
    title: "Ropes in water",
    "container-title": "Journal of Estuaries",
    volume: "12",
    issue: "3",
    page: "12-34",
  },
  issued: "2021-05",
})
const list = { marlowe2019: marlowe, sands2021: sands }
const begun = () =>
  after(
    EditorState.create({ doc: document([p("The ferry crosses"), p("")]), plugins: [editHistory()] }),
    putSources(list),
  )
const at = (state: EditorState, pos: number) => state.apply(state.tr.setSelection(TextSelection.create(state.doc, pos)))
const cite = (items: CitationItem[], notes = false) => insertCitation(items, notes)
/** What the citations and the list of references of a document show. */
function shown(doc: Node): { texts: string[]; references: string[] } {
  prepareCiting(doc)
  const { texts: own, references } = citedIn(doc)
  return { texts: own.map(plainShown), references: references.map(({ text }) => plainShown(text)) }
}
afterEach(() => setCiter(null))

const endOfFirst = (state: EditorState) => at(state, leavesOf(state.doc).end(0))
const cited = () =>
  after(endOfFirst(begun()), cite([{ source: "marlowe2019", at: "12", before: "see" }, { source: "sands2021" }]))

test("a citation shows what each style that ships has for it, with the list of references", () => {
  const { doc } = cited()
  const told = Object.fromEntries(
    citationStyles.map(({ id, notes }) => {
      const now = after(
        EditorState.create({ doc }),
        (state, dispatch) => changeCitationStyle(id, notes)(state, dispatch) || (dispatch?.(state.tr), true),
      )
      return [id, shown(now.doc)]
    }),
  )
  expect(told.apa).toEqual({
    texts: ["(see Marlowe, 2019, p. 12; Sands & Caddow, 2021)"],
    references: [
      "Marlowe, I. (2019). Hauling and being hauled. Harbour Press.",
      "Sands, B., & Caddow, N. (2021). Ropes in water. Journal of Estuaries, 12(3), 12–34.",
    ],
  })
  expect(told["modern-language-association"]!.texts).toEqual(["(see Marlowe 12; Sands and Caddow)"])
  expect(told["chicago-author-date"]!.texts).toEqual(["(see Marlowe 2019, 12; Sands and Caddow 2021)"])
  expect(told.ieee!.texts).toEqual(["see [1, p. 12], [2]"])
  expect(told.ieee!.references[0]).toBe("[1]\tI. Marlowe, Hauling and being hauled. Saltmarsh: Harbour Press, 2019.")
  expect(told.vancouver!.texts).toEqual(["(see 1,2)"])
  expect(told["chicago-fullnote-bibliography"]!.texts[0]).toMatch(
    /^see Ida Marlowe, Hauling and Being Hauled \(Saltmarsh: Harbour Press, 2019\), 12; Ben Sands and Nell Caddow/,
  )
  expect(told.nature!.texts).toEqual(["see 1,2"])
  for (const { id } of citationStyles) expect([id, told[id]!.references.length]).toEqual([id, 2])
})

test("sources of one name and year are told apart, the same source again is said shortly, one that is missing is said to be", () => {
  const twin = source({ ...marlowe, fields: { ...marlowe.fields, title: "Slack water" } })
  let state = after(begun(), putSources({ twin }))
  state = after(endOfFirst(state), cite([{ source: "marlowe2019" }]), cite([{ source: "twin" }]))
  expect(shown(state.doc).texts).toEqual(["(Marlowe, 2019a)", "(Marlowe, 2019b)"])
  state = after(state, removeSource("twin"))
  expect(shown(state.doc).texts).toEqual(["(Marlowe, 2019)", "(source missing)"])
  state = after(endOfFirst(state), cite([{ source: "marlowe2019", bare: true }]))
  expect(shown(state.doc).texts[2]).toBe("(2019)")
  const notes = after(state, changeCitationStyle("chicago-note-bibliography", true))
  expect(shown(notes.doc).texts).toEqual(
    ["Marlowe, Hauling and Being Hauled", "(source missing)", "Hauling and Being Hauled"].map(
      (own) => expect.stringContaining(own.slice(0, 8)) as string,
    ),
  )
})

test("citations go into notes where the style has them there, and come back into the text; one undo takes it back", () => {
  const before = cited()
  const inNotes = after(before, changeCitationStyle("chicago-note-bibliography", true))
  checkDocument(inNotes.doc)
  expect(notesOf(inNotes.doc)).toHaveLength(1)
  expect(citationsOf(inNotes.doc)).toMatchObject([{ note: 1 }])
  expect(texts(inNotes.doc)).toEqual(["The ferry crosses\ufffc", "", "\ufffc"])
  const back = after(inNotes, changeCitationStyle("apa", false))
  checkDocument(back.doc)
  expect([storiesOf(back.doc).size, texts(back.doc)]).toEqual([0, ["The ferry crosses \ufffc", ""]])
  expect(shown(back.doc).texts).toEqual(shown(before.doc).texts)
  expect(after(inNotes, undo).doc.toJSON()).toEqual(before.doc.toJSON())
  // In a note style what is cited gets its note, and within a note none.
  const noted = after(
    endOfFirst(begun()),
    changeCitationStyle("chicago-note-bibliography", true),
    cite([{ source: "sands2021" }], true),
  )
  expect(notesOf(noted.doc)).toHaveLength(1)
  const inside = at(noted, leavesOf(noted.doc).end(2))
  expect(notesOf(after(inside, cite([{ source: "marlowe2019" }], true)).doc)).toHaveLength(1)
})

test("citations that are made each alone are those that are made in their order", () => {
  const twin = source({ ...marlowe, fields: { ...marlowe.fields, title: "Slack water" } })
  const items = fc.array(
    fc.record<CitationItem>(
      {
        source: fc.constantFrom("marlowe2019", "sands2021", "twin"),
        at: fc.constantFrom("12", "ch. 3"),
        before: fc.constant("see"),
        bare: fc.constant(true),
      },
      { requiredKeys: ["source"] },
    ),
    { minLength: 1, maxLength: 3 },
  )
  const inText = citationStyles.filter(({ notes }) => !notes)
  fc.assert(
    fc.property(
      fc.array(items, { minLength: 1, maxLength: 5 }),
      fc.constantFrom(...inText),
      (citations, { id, name }) => {
        let state = after(begun(), putSources({ twin }))
        for (const own of citations) state = after(endOfFirst(state), cite(own))
        const xml = `${readFileSync(join(__dirname, "../citing/styles", `${id}.csl`), "utf8")}<!-- position="first" -->`
        const [alone, inOrder] = [
          { style: id, own: null },
          { style: "own", own: { name, notes: false, xml } },
        ].map((how) =>
          shown(
            setEntries(new Transform(state.doc), null, "sources", { ...documentAttrs(state.doc).sources, ...how }).doc,
          ),
        )
        expect(alone).toEqual(inOrder)
      },
    ),
    { numRuns: 12 },
  )
})

test("a passage is quoted in the line, or a long one in a paragraph of its own, with its citation in the text or in a note", () => {
  const item = { source: "sands2021", at: "14" }
  const short = after(endOfFirst(begun()), insertQuotation("Nobody  hauls\nalone.", item, false))
  expect(texts(short.doc)).toEqual(["The ferry crosses“Nobody hauls alone.” \ufffc", ""])
  expect(shown(short.doc).texts).toEqual(["(Sands & Caddow, 2021, p. 14)"])
  const long = after(endOfFirst(begun()), insertQuotation("word ".repeat(45), item, true))
  expect(texts(long.doc)).toEqual(["The ferry crosses", `${"word ".repeat(45).trim()}\ufffc`, "", "\ufffc"])
  expect(long.doc.child(0).child(1).attrs.style).toBe("quotation")
  checkDocument(long.doc)
  expect(after(long, undo).doc.toJSON()).toEqual(begun().doc.toJSON())
})

test("a citation is changed and taken away, the list of references put at the end and taken away", () => {
  let state = cited()
  const own = citationAt(state)!
  expect(own.items).toEqual([{ source: "marlowe2019", at: "12", before: "see" }, { source: "sands2021" }])
  state = after(state, changeCitation(own.pos, [{ source: "sands2021", at: "ch. 3" }]))
  expect(shown(state.doc).texts).toEqual(["(Sands & Caddow, 2021, Chapter 3)"])
  expect([...citedSources(state.doc)]).toEqual(["sands2021"])
  state = after(state, turnReferenceList(true))
  expect([texts(state.doc), referenceList(state.doc)]).toEqual([["The ferry crosses\ufffc", "References", ""], 33])
  expect(turnReferenceList(true)(state)).toBe(false)
  expect(referenceList(after(state, turnReferenceList(false)).doc)).toBeNull()
  expect(citationsOf(after(state, changeCitation(own.pos, [])).doc)).toEqual([])
})

const told = (layout: Layout) =>
  layout.placed.flatMap((placed) => fragmentsOf(placed).map(({ paragraph: own, part }) => `${part}: ${shownText(own)}`))

test("sheets show citations with words in italics, and the list; what is laid out from before equals what is from nothing", () => {
  const state = after(cited(), turnReferenceList(true))
  prepareCiting(state.doc)
  const set = typesetter()
  const first = layoutDocument(set, state.doc)
  expect(told(first)).toEqual([
    "text: The ferry crosses(see Marlowe, 2019, p. 12; Sands & Caddow, 2021)",
    "text: References",
    "generated: Marlowe, I. (2019). Hauling and being hauled. Harbour Press.",
    "generated: Sands, B., & Caddow, N. (2021). Ropes in water. Journal of Estuaries, 12(3), 12–34.",
    "text: ",
  ])
  const notes = after(state, changeCitationStyle("chicago-fullnote-bibliography", true))
  const now = layoutDocument(set, notes.doc, { mode: "sheets" }, first)
  expect(told(now)).toEqual(told(layoutDocument(set, notes.doc)))
  const note = layoutOf(notes.doc)
    .placed.flatMap(fragmentsOf)
    .find(({ part }) => part === "note")!
  const italic = note.paragraph.lines.flatMap(({ runs }) =>
    runs.filter(({ run }) => run.look.italic).map(({ run }) => run.shows),
  )
  expect(italic.join("")).toContain("Hauling and Being Hauled")
  // A change of a source alone changes both.
  const renamed = after(state, putSources({ marlowe2019: { ...marlowe, issued: "1999" } }))
  const later = layoutDocument(set, renamed.doc, { mode: "sheets" }, first)
  expect(told(later)).toEqual(told(layoutDocument(set, renamed.doc)))
  expect(told(later)[0]).toContain("Marlowe, 1999")
  expect(pdfOf(later, "Paper").length).toBeGreaterThan(1000)
})

test("lists of sources come from BibTeX, RIS and CSL JSON, and go there and come back", () => {
  for (const format of ["csl", "ris", "bibtex"] as const) {
    const read = readSources(writeSources(list, format))
    expect([format, read.lost, read.sources.map(({ source: own }) => own.fields.title)]).toEqual([
      format,
      0,
      ["Hauling and being hauled", "Ropes in water"],
    ])
    const [first, second] = read.sources.map((own) => own.source)
    expect(first).toMatchObject({
      kind: "book",
      names: marlowe.names,
      issued: "2019",
      fields: { publisher: "Harbour Press" },
    })
    expect(second).toMatchObject({
      kind: "article-journal",
      names: sands.names,
      fields: { "container-title": "Journal of Estuaries", volume: "12", issue: "3" },
    })
    expect(sameSource(second!, sands)).toBe(true)
  }
  expect(readSources(writeSources(list, "csl")).sources).toEqual(
    Object.entries(list).map(([key, own]) => ({ key, source: own })),
  )
  const broken = readSources(
    '@book{a, author={Sands, B.}, title={Tides}\n@book{b, title={Ropes {in} w{\\"a}ter}, year=1999}\n@comment{x}\n',
  )
  expect(broken.sources.map(({ source: own }) => own.fields.title)).toContain("Ropes in wäter")
  for (const text of ["", "nothing here", "[1,2]", "{", "TY  -"]) expect(() => readSources(text)).toThrow(ReadingError)
})

test("BibTeX of all kinds is read: letters by commands, the fields of its successors, entries without a key", () => {
  const told = (text: string) => readSources(text).sources.map(({ key, source: own }) => ({ key, ...own }))
  expect(
    told(String.raw`@comment{ kept by a program: {x} }
@book{a, author = {M{\"u}ller, J{\'e}r{\^o}me and {\O}stergaard, S{\o}ren}, title = {Sk{\aa}ne \& \AA rhus, \textit{by ferry}}, year = 1998}
@online{b, author={{Saltmarsh Ferry Trust}}, title={Tables}, date={2021-03-05/2021-03-09}, urldate={2022-01-01}, url={https://ferry.example/a_b%20c}}
@book{, title={No key}, author={al-Farsi, Omar}, editor={Jan van der Meer}, year=2000}
@article(d, title = "Tides", author = "Sands, Ben", journaltitle = {J. Est.}, date = 2020)`),
  ).toMatchObject([
    {
      key: "a",
      names: {
        author: [
          { family: "Müller", given: "Jérôme" },
          { family: "Østergaard", given: "Søren" },
        ],
      },
      fields: { title: "Skåne & Århus, <i>by ferry</i>" },
    },
    {
      kind: "webpage",
      issued: "2021-03-05/2021-03-09",
      accessed: "2022-01-01",
      fields: { URL: "https://ferry.example/a_b%20c" },
    },
    {
      key: null,
      names: { author: [{ family: "al-Farsi" }], editor: [{ family: "van der Meer" }] },
      fields: { title: "No key" },
    },
    { kind: "article-journal", issued: "2020", fields: { "container-title": "J. Est." } },
  ])
  expect(
    sourceWords(source({ kind: "book", names: {}, fields: { title: "By <i>ferry</i> < 3" }, issued: "" })).what,
  ).toBe("By ferry < 3")
})

test("RIS of all kinds is read: people of newspapers and laws, addresses of documents, lines that go on", () => {
  const { sources, lost } = readSources(`TY  - NEWS
AU  - Sands, Ben
T1  - A ferry
      that runs
T2  - Saltmarsh Echo
PY  - 2021/03/05/
DO  - https://doi.org/10.1/x
ER  -

TY  - BOOK
A1  - King, Ida, Jr.
A2  - Saltmarsh Ferry Trust
TI  - Ropes
T2  - Handbooks of the Trust
SP  - 212
PY  - 1998
DA  - 2023/01/05
SN  - 978-3-16-148410-0
ER  - `)
  expect([sources.map(({ source: own }) => own), lost]).toMatchObject([
    [
      {
        kind: "article-newspaper",
        names: { author: [{ family: "Sands", given: "Ben" }] },
        fields: { title: "A ferry that runs", "container-title": "Saltmarsh Echo", DOI: "10.1/x" },
        issued: "2021-03-05",
      },
      {
        names: { author: [{ family: "King", given: "Ida, Jr." }], editor: [{ literal: "Saltmarsh Ferry Trust" }] },
        fields: { "collection-title": "Handbooks of the Trust", "number-of-pages": "212", ISBN: "978-3-16-148410-0" },
        issued: "1998",
      },
    ],
    0,
  ])
})

test("whatever a source says comes back from BibTeX and RIS", () => {
  const signs = fc.constantFrom(..."\\{}$&#%_^~\"',<>å- ", "and", "<i>", "</i>")
  const words = fc.array(fc.oneof(signs, fc.stringMatching(/^[a-zé]{1,4}$/)), { minLength: 1 })
  const said = words.map((all) => `x${all.join("")}x`.replace(/\s+/g, " "))
  const kind = fc.constantFrom(
    ...sourceKinds.filter(
      (own) => !["interview", "speech", "broadcast", "entry-encyclopedia", "legal_case"].includes(own),
    ),
  )
  const own = fc.record({
    kind,
    title: said,
    publisher: said,
    family: said,
    given: fc.stringMatching(/^[A-Z][a-z]{1,6}$/),
    URL: fc.webUrl(),
    month: fc.integer({ min: 1, max: 12 }),
    genre: fc.option(fc.constantFrom("PhD thesis", "Master’s thesis", "Note"), { nil: undefined }),
  })
  fc.assert(
    fc.property(own, ({ kind: made, title, publisher, family, given, URL, month, genre }) => {
      const translator = [{ family: "Sands", given: `${given}, Jr.` }]
      const one = source({
        kind: made,
        names: { author: [{ family, given }, { family }], translator },
        fields: {
          title,
          "collection-title": title,
          publisher,
          URL,
          ...(genre && ["thesis", "report"].includes(made) ? { genre } : {}),
        },
        issued: `2021-${String(month).padStart(2, "0")}-05`,
        accessed: "2022-01-02",
      })
      expect(readSources(writeSources({ one }, "bibtex")).sources).toEqual([{ key: "one", source: one }])
      // A name has no comma in RIS, and whoever has but one name no parts.
      const bare = family.replaceAll(",", "")
      const people = [{ family: bare, given }, { literal: bare }]
      const two = {
        ...one,
        names: made === "motion_picture" ? { director: people, translator } : { author: people, translator },
      }
      expect(readSources(writeSources({ two }, "ris")).sources).toEqual([{ key: "two", source: two }])
    }),
  )
})

test("whatever comes as an item of CSL JSON is a source that a document may hold, or none", () => {
  const value = fc.oneof(
    fc.string(),
    fc.integer(),
    fc.constant(null),
    fc.array(fc.oneof(fc.string(), fc.dictionary(fc.string(), fc.string()))),
  )
  const item = fc.record(
    {
      type: fc.oneof(fc.constantFrom(...sourceKinds), fc.string()),
      title: value,
      author: value,
      issued: fc.oneof(value, fc.record({ "date-parts": fc.array(fc.array(fc.oneof(fc.integer(), fc.string()))) })),
      page: value,
      __proto__: value,
    },
    { requiredKeys: [] },
  )
  fc.assert(
    fc.property(item, fc.string(), (json, key) => {
      const made = sourceOf(json)
      if (!made) return
      const state = EditorState.create({ doc: document([p("x")]) })
      const own = keyFor(made, () => false)
      checkDocument(after(state, putSources({ [own]: made })).doc)
      putSources({ [key]: made })(state, (tr) => checkDocument(tr.doc))
    }),
  )
  expect(sourceOf("x")).toBeNull()
  const taken = new Set<string>()
  for (let i = 0; i < 40; i++) taken.add(keyFor(marlowe, (key) => taken.has(key)))
  expect([...taken].slice(0, 3)).toEqual(["marlowe2019", "marlowe2019a", "marlowe2019b"])
  expect(taken.size).toBe(40)
})

test("a citation is kept as text that says itself, and one that cannot be read names nothing", () => {
  const items = fc.array(
    fc.record(
      {
        source: fc.string({ minLength: 1 }),
        at: fc.string({ minLength: 1 }),
        before: fc.string({ minLength: 1 }),
        after: fc.string({ minLength: 1 }),
        bare: fc.constant(true),
      },
      { requiredKeys: ["source"] },
    ),
    { maxLength: 4 },
  )
  fc.assert(fc.property(items, (own) => expect(citationItems(citationFormat(own))).toEqual(own)))
  fc.assert(
    fc.property(fc.oneof(fc.string(), fc.json()), (text) => expect(Array.isArray(citationItems(text))).toBe(true)),
  )
  expect([locatorOf("12"), locatorOf("ch. 3"), locatorOf("§ 4"), locatorOf("ch. ")]).toEqual([
    { label: "page", locator: "12" },
    { label: "chapter", locator: "3" },
    { label: "section", locator: "4" },
    { label: "page", locator: "ch. " },
  ])
  expect(stretchesOf("a \ue000b\ue001c")).toEqual([
    { text: "a ", italic: false, raised: false },
    { text: "b", italic: true, raised: false },
    { text: "c", italic: false, raised: false },
  ])
})

test("a style that was added is used; one that is broken harms nothing; documents from before have no sources", () => {
  const { doc } = cited()
  const xml =
    '<style xmlns="http://purl.org/net/xbiblio/csl" class="in-text" version="1.0"><info><title>Own</title><id>own</id><updated>2020-01-01T00:00:00+00:00</updated></info><citation><layout prefix="{" suffix="}" delimiter="|"><names variable="author"><name form="short"/></names></layout></citation></style>'
  const own = (text: string) =>
    after(EditorState.create({ doc }), changeCitationStyle("own", false, { name: "Own", notes: false, xml: text }))
  expect(shown(own(xml).doc)).toEqual({ texts: ["{see Marlowe|Sands, Caddow}"], references: [] })
  expect(shown(own("<style").doc).texts[0]).toMatch(/^\(citation: /)
  const { sources: _none, brief: _none2, ...attrs } = doc.toJSON().attrs as Record<string, unknown>
  expect(documentAttrs(readDocument({ ...doc.toJSON(), attrs }, 5)).sources).toEqual({
    style: "apa",
    own: null,
    list: {},
  })
  expect(nodes.field.create({ kind: "citation" }).textContent).toBe("–")
  expect(paragraph("reference", ["x"]).textContent).toBe("x")
})
