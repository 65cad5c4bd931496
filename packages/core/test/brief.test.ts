import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import {
  briefOf,
  briefRules,
  changeBrief,
  followBrief,
  readyBriefs,
  setBrief,
  verdicts,
  writeBrief,
  type Verdict,
} from "../src/brief"
import { readBrief } from "../src/brief/reading"
import {
  bodyOf,
  document,
  documentAttrs,
  headingsOf,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  paragraphAttrs,
  paragraphLook,
  sectionsOf,
  storiesOf,
  table,
  textOf,
  type Brief,
} from "../src/document"
import { checkDocument, readDocument } from "../src/document/reading"
import { changeProperties, editHistory, undo } from "../src/editing"
import { documents } from "./officeDocuments"
import { after, texts } from "./telling"
import type { Node } from "prosemirror-model"

const world = { sheets: 3, length: (points: number) => `${points} pt`, language: (tag: string) => tag }
const stateFor = (doc: Node) => EditorState.create({ doc, plugins: [editHistory()] })

function verdictsOf(doc: Node): Verdict[] {
  const judging = verdicts(doc, world)
  for (;;) {
    const { done, value } = judging.next()
    if (done) return value
  }
}
const against = (doc: Node) => verdictsOf(doc).filter(({ agrees }) => !agrees)
const judged = (doc: Node, rule: string) => verdictsOf(doc).find((own) => own.rule === rule)
const all = followBrief(briefRules, "Follows its brief")
const ready = (words: string): Brief => readyBriefs.find(({ name }) => name?.includes(words)) as Brief

const long =
  "The estuary is crossed by hauling on a rope, which is laid anew each spring before the first tide of April. "
const paper = () =>
  stateFor(
    document([
      p("Hauling and being hauled"),
      p("Ida Marlowe"),
      p(long.repeat(4)),
      paragraph("heading1", ["Ropes"], { align: "right" }),
      paragraph("body", [letters(long, { family: "Lora", size: 14 })], { lineSpacing: { rule: "exact", value: 20 } }),
      p(`“${long.trim().repeat(3)}” (Marlowe 12)`),
      table([[[p("Rope")], [p("Metres")]]]),
      paragraph("caption", ["Table ", nodes.field.create({ kind: "caption", format: "Table" }), ": Ropes"]),
      paragraph("heading1", ["Literature"]),
      p("Sands, B. (2019). Ropes."),
      p("Abel, C. (2021). Tides."),
      p(""),
    ]),
  )

test("a paper is brought to a brief by one change, and to another one, and back by undo", () => {
  const begun = after(
    paper(),
    setBrief(ready("psychology")),
    changeProperties({ title: "Hauling", author: "Ida Marlowe", organisation: "Harbour School", date: "May 2026" }),
  )
  const wrong = against(begun.doc).map(({ rule, found }) => `${rule}: ${found}`)
  expect(wrong).toEqual([
    "typeface: Lora",
    "size: 14 pt",
    "lineSpacing: 1.25 and 1 more",
    "spaceBetween: 8 pt",
    "indentFirst: 0 pt",
    "paper: A4",
    "margins: 70.86614173228347 pt",
    "titleBlock: without organisation, date",
    "numbers: nothing there",
    "headings: level 1",
    "references: called “Literature”",
    "quotations: one of 61 words in the text",
    "captions: one on the other side",
  ])
  const psychology = after(begun, all)
  checkDocument(psychology.doc)
  expect(against(psychology.doc)).toEqual([])
  expect(texts(psychology.doc).map((own) => own.slice(0, 24))).toEqual([
    "Hauling and being hauled",
    "Ida Marlowe",
    "\ufffc",
    "\ufffc",
    long.slice(0, 24),
    "Ropes",
    long.slice(0, 24),
    long.slice(0, 24),
    "Table \ufffc: Ropes",
    "Rope",
    "Metres",
    "References",
    "Abel, C. (2021). Tides.",
    "Sands, B. (2019). Ropes.",
    "",
    "\t\t\ufffc",
  ])
  // Cells keep the look that they had.
  const cell = leavesOf(psychology.doc).nodes.find((own) => textOf(own) === "Rope") as Node
  expect(paragraphLook(documentAttrs(psychology.doc).styles, cell).paragraph).toMatchObject({
    indentFirst: 0,
    lineSpacing: { value: 1.25 },
  })

  const humanities = after(psychology, setBrief(ready("humanities")), all)
  expect(against(humanities.doc)).toEqual([])
  expect(headingsOf(humanities.doc).map(({ text }) => text)).toEqual(["Ropes", "Works Cited"])
  let back = humanities
  for (let n = 0; n < 2; n++) undo(back, (tr) => (back = back.apply(tr)))
  expect(back.doc.toJSON()).toEqual(psychology.doc.toJSON())
})

test("each rule is put right alone, in what is there to its last part, and tells what it cannot put right", () => {
  for (const rule of briefRules.filter((own) => own !== "length")) {
    const brief = {
      name: "One",
      [rule]:
        ready("psychology")[rule] ??
        { typeface: "Lora", language: "fr", runningHead: { edge: "head", part: 0, text: "{title}", first: false } }[
          rule as "language"
        ],
    }
    const begun = after(
      paper(),
      setBrief(brief as Brief),
      changeProperties({ title: "H", author: "I", organisation: "O", date: "D" }),
    )
    const before = judged(begun.doc, rule)
    const now = before?.agrees ? begun : after(begun, followBrief([rule], "Put right"))
    expect([rule, judged(now.doc, rule)]).toMatchObject([rule, { agrees: true, found: "" }])
  }
  const begun = after(
    paper(),
    setBrief({
      length: { unit: "words", least: 500, most: 0 },
      titleBlock: { ...ready("psychology").titleBlock!, lines: ["author", "date"] },
    }),
  )
  expect(judged(begun.doc, "length")).toMatchObject({
    agrees: false,
    mends: false,
    found: "188 words",
    says: "at least 500 words",
  })
  expect(judged(after(begun, all).doc, "titleBlock")).toMatchObject({
    found: "author, date not filled in",
    mends: false,
  })
})

test("numbers stand on the first sheet or not as the brief says, and what else stands there stays", () => {
  const asked = (first: boolean): Brief => ({ numbers: { edge: "foot", part: 2, text: "{page}", first } })
  const head: Brief = { runningHead: { edge: "head", part: 0, text: "{title}", first: true } }
  let now = after(paper(), setBrief({ ...head, ...asked(true) }), all)
  expect(sectionsOf(now.doc)[0]?.setup.firstOwn).toBe(false)
  now = after(now, setBrief({ ...head, ...asked(false) }))
  expect(against(now.doc)).toMatchObject([{ rule: "numbers", found: "on the first sheet too" }])
  now = after(now, all)
  expect(against(now.doc)).toEqual([])
  expect(sectionsOf(now.doc)[0]?.setup.firstOwn).toBe(true)
  now = after(now, setBrief(asked(true)), all)
  expect(against(now.doc)).toEqual([])
  expect(storiesOf(now.doc).size).toBe(4)
})

test("any document follows any brief as far as it says that it can, is sound then, and as before after one undo", () => {
  fc.assert(
    fc.property(documents, fc.constantFrom(...readyBriefs), fc.boolean(), (doc, brief, whole) => {
      const begun = after(
        stateFor(doc),
        setBrief(brief),
        ...(whole ? [changeProperties({ title: "T", author: "A", organisation: "O", date: `D ${doc.nodeSize}` })] : []),
      )
      const able = against(begun.doc).filter(({ mends }) => mends)
      let now = begun
      if (!all(begun, (tr) => (now = begun.apply(tr)))) return expect(able).toEqual([])
      checkDocument(now.doc)
      const left = against(now.doc).filter(({ mends }) => mends)
      expect(left.map(({ rule, found }) => `${rule}: ${found}`)).toEqual([])
      undo(now, (tr) => (now = now.apply(tr)))
      expect(now.doc.toJSON()).toEqual(begun.doc.toJSON())
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 60) },
  )
})

test("a brief is read out of a document that follows one, goes to a file and comes back", () => {
  const made = after(
    paper(),
    setBrief(ready("psychology")),
    changeProperties({ title: "H", author: "I", organisation: "O", date: "D" }),
    all,
  )
  const own = briefOf(made.doc, "As this one")
  const { quotations: _alone, captions: _sides, ...seen } = ready("psychology")
  expect(own).toMatchObject({ ...seen, name: "As this one" })
  expect(against(after(made, setBrief(own)).doc)).toEqual([])
  expect(readBrief(writeBrief(own))).toEqual(own)
  expect(readDocument(JSON.parse(JSON.stringify(after(made, setBrief(own)).doc.toJSON()))).attrs.brief).toEqual(own)
  for (const [text, why] of [
    ["{", "not JSON"],
    ["[]", "holds no brief"],
    ['{"biblonBrief":2}', "newer"],
    ['{"biblonBrief":1,"size":5000}', "at size"],
    ['{"biblonBrief":1,"margin":1}', "not right"],
  ] as const)
    expect(() => readBrief(text)).toThrow(why)
})

test("a rule is changed or dropped; two people who change two rules both get what they wanted", () => {
  const begun = after(paper(), setBrief(ready("psychology")))
  const now = after(begun, changeBrief({ size: 11 }), changeBrief({ margins: undefined }))
  expect(documentAttrs(now.doc).brief).toMatchObject({ size: 11, name: ready("psychology").name })
  expect(documentAttrs(now.doc).brief).not.toHaveProperty("margins")
  expect(documentAttrs(after(now, setBrief(null)).doc).brief).toBeNull()
  expect(verdictsOf(after(now, setBrief(null)).doc)).toEqual([])
  expect(documentAttrs(after(now, undo).doc).brief).toHaveProperty("margins")
  expect(paragraphAttrs(bodyOf(now.doc).child(0)).style).toBe("body")
  expect(() => checkDocument(after(begun, changeBrief({ size: 0 })).doc)).toThrow("not right")
})
