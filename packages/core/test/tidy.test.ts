import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import { messy } from "../../../apps/server/src/demo/messy"
import { previewOf, tidyRules, untidy, type Rule } from "../src/checking"
import {
  bodyOf,
  defaultStyles,
  document,
  documentAttrs,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  paragraphAttrs,
  table,
  textOf,
  type FieldAttrs,
  type Style,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { editHistory, mendAll, undo } from "../src/editing"
import { documents } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const rule = (id: string): Rule => tidyRules.find((own) => own.id === id) ?? fail(id)
const fail = (id: string): never => {
  throw new Error(`There is no rule ${id}`)
}
const state = (doc: Node) => EditorState.create({ doc, plugins: [editHistory()] })

/** The document after what a rule found was put right, and how much that was. */
function mended(id: string, ...blocks: Node[]): { doc: Node; count: number; texts: string[] } {
  const before = state(document(blocks))
  const own = rule(id)
  const count = own.find(before.doc).length
  let now = before
  mendAll([(doc) => own.find(doc)], "Tidied")(before, (tr) => (now = before.apply(tr)))
  checkDocument(now.doc)
  const found = own.find(now.doc).filter(({ mend }) => mend !== null)
  expect(found).toEqual([])
  return { doc: now.doc, count, texts: leavesOf(now.doc).nodes.map(textOf) }
}

const styleAt = (doc: Node, n: number) => paragraphAttrs(bodyOf(doc).child(n)).style
const formatAt = (doc: Node, n: number) => paragraphAttrs(bodyOf(doc).child(n)).format

test.each([
  ["doubleWords", "the the ferry had had and and a a", ["the ferry had had and a a"]],
  ["doubleWords", "Walla Walla, tap-tap-tap the theatre", ["Walla Walla, tap-tap-tap the theatre"]],
  ["doubleBlanks", "one  two   three  four", ["one two   three four"]],
  ["blankBeforeSign", "one , two . three .5 and : four", ["one, two. three .5 and : four"]],
  ["blanksAtEnd", "ends so \t ", ["ends so"]],
  ["blanksAsTab", "Fare      2.50", ["Fare\t2.50"]],
  ["blanksAtStart", "    The ferry", ["The ferry"]],
])("%s: %j becomes %j", (id, text, texts) => {
  expect(mended(id, p(text)).texts).toEqual(texts)
})

test("a paragraph in another size than its like becomes like them; where many differ, or a word does, nothing is said", () => {
  const large = () => p(letters("large", { size: 20, italic: true }))
  const { doc, count } = mended("strangeLooks", p("a"), p("b"), p("c"), large())
  expect(count).toBe(1)
  expect(
    bodyOf(doc)
      .child(3)
      .firstChild?.marks.map(({ type }) => type.name),
  ).toEqual(["italic"])
  expect(mended("strangeLooks", p("a"), p("b"), large(), p("c"), large()).count).toBe(0)
  expect(mended("strangeLooks", p("a"), p("b"), p("c"), p("d ", letters("large", { size: 20 }))).count).toBe(0)
})

test("fields that show what is not written, or a place that is gone, are found", () => {
  const field = (kind: FieldAttrs["kind"], format = "") => nodes.field.create({ kind, format })
  const silent = document([
    p(field("author"), field("property", "organisation"), field("reference", "number gone"), field("title")),
  ])
  expect(
    rule("silentFields")
      .find(silent)
      .map(({ from, mend }) => [from, mend]),
  ).toEqual([
    [2, null],
    [3, null],
    [4, null],
  ])
  const written = { title: "", subtitle: "", author: "Nell", organisation: "Trust", date: "" }
  expect(
    rule("silentFields").find(
      document([p(field("author"), field("property", "organisation"))], { properties: written }),
    ),
  ).toEqual([])
})

describe("heads and feet", () => {
  const story = (key: string, kind: string, ...parts: (string | Node)[]) =>
    nodes.story.create({ key, kind }, paragraph("body", parts))
  const put = (id: string, doc: Node) => {
    let now = state(doc)
    const own = rule(id)
    const found = own.find(doc)
    mendAll([own.find], "Tidied")(now, (tr) => (now = now.apply(tr)))
    checkDocument(now.doc)
    expect(own.find(now.doc)).toEqual([])
    return { found: found.length, doc: now.doc }
  }

  test("a number typed for that of the sheet becomes a field, and no other number does", () => {
    const { found, doc } = put(
      "typedNumbers",
      document([p("12")], {}, [
        story("h", "header", "Tides\tPage 3"),
        story("f", "footer", "– 4 –\tNotice of 12 May\t"),
        story("n", "note", "5"),
      ]),
    )
    expect(found).toBe(2)
    expect(leavesOf(doc).nodes.map(textOf)).toEqual(["12", "Tides\tPage \ufffc", "– \ufffc –\tNotice of 12 May\t", "5"])
  })

  test("a typeface that nothing else has becomes the text's; that of a style may stay", () => {
    const { found, doc } = put(
      "strangeEdges",
      document([p("Text")], {}, [
        story("h", "header", "Own ", letters("strange", { family: "Jost", bold: true })),
        story("f", "footer", letters("as a title", { family: "Literata" })),
      ]),
    )
    expect(found).toBe(1)
    const runs = leavesOf(doc)
      .node(1)
      .children.map((child) => child.marks.map(({ type }) => type.name))
    expect(runs).toEqual([[], ["bold"]])
    expect(
      leavesOf(doc)
        .node(2)
        .firstChild?.marks.map(({ type }) => type.name),
    ).toEqual(["family"])
  })
})

test("what a place becomes can be read beforehand", () => {
  const doc = document(messy())
  const read = (id: string) =>
    rule(id)
      .find(doc)
      .map((finding) => previewOf(doc, finding))
  expect(read("doubleWords")).toEqual([
    {
      before: "…uled  by hand , and and nobody is in haste. She leaves wh…",
      after: "…uled  by hand , and nobody is in haste. She leaves wh…",
    },
    { before: "…mall change for the the box", after: "…mall change for the box" },
  ])
  expect(read("boldHeadings")[0]).toEqual({ before: "Before you come", after: "Heading 1: Before you come" })
  expect(read("typedLists")[1]?.after).toBe("1. Wait for the flag.")
})

test("straight quotation marks become curved where the text has curved ones, and stay where it has none", () => {
  const straight = `"Wait," she said, "for the ferry's bell" (12" deep)`
  expect(mended("mixedMarks", p(straight)).count).toBe(0)
  expect(mended("mixedMarks", p("“Slack.”"), p(straight)).texts).toEqual([
    "“Slack.”",
    `“Wait,” she said, “for the ferry’s bell” (12" deep)`,
  ])
})

test("what is put right keeps its look", () => {
  const { doc } = mended("doubleWords", p("at ", letters("slack slack", { bold: true }), " water"))
  const leaf = leavesOf(doc).node(0)
  expect([textOf(leaf), leaf.child(1).marks[0]?.type.name]).toEqual(["at slack water", "bold"])
})

test("blank paragraphs become space; up to a new sheet, a break; at the end and in cells they stay", () => {
  const { doc, count, texts } = mended("blankParagraphs", p("one"), p(), p(), p("two"), p())
  expect([count, texts]).toEqual([1, ["one", "two", ""]])
  expect(formatAt(doc, 0)?.spaceAfter).toBe(38)
  expect(mended("blankParagraphs", p(), p("one"), table([[[p()], [p("x")]]]), p(), p("two")).count).toBe(0)
  const broken = mended("blanksToSheet", p("one"), ...Array.from({ length: 20 }, () => p()), p("two"))
  expect([broken.texts, formatAt(broken.doc, 1)?.breakBefore]).toEqual([["one", "two"], true])
})

test("lists that were typed become lists, each of its kind; a single mark is none", () => {
  const { doc, count, texts } = mended("typedLists", p("- a"), p("- b"), p("1. c"), p("2. d"), p("- e"), p("text"))
  expect([count, texts]).toEqual([2, ["a", "b", "c", "d", "- e", "text"]])
  expect([0, 1, 2, 3, 4].map((n) => formatAt(doc, n)?.list?.definition)).toEqual([
    "marks",
    "marks",
    "numbers",
    "numbers",
    undefined,
  ])
})

test("bold lines become headings below the one before; sentences, titles and rows of bold lines do not", () => {
  const bold = (text: string) => p(letters(text, { bold: true }))
  const { doc } = mended("boldHeadings", paragraph("heading1", ["Ferry"]), p("x"), bold("The chain"), p("y"))
  expect([styleAt(doc, 2), leavesOf(doc).node(2).firstChild?.marks]).toEqual(["heading1", []])
  expect(mended("boldHeadings", bold("A title"), bold("One"), bold("Two"), bold("A sentence."), p("z")).count).toBe(0)
})

test("levels that are skipped are raised, each below the one before", () => {
  const { doc, count } = mended(
    "skippedLevels",
    ...["heading1", "heading3", "heading4", "heading2"].map((style) => paragraph(style, ["x"])),
  )
  expect([count, [0, 1, 2, 3].map((n) => styleAt(doc, n))]).toEqual([
    2,
    ["heading1", "heading2", "heading3", "heading2"],
  ])
})

test("formatting that changes nothing goes, links to nowhere too; pictures without words are only shown", () => {
  const { doc } = mended(
    "idleFormatting",
    p(letters("plain", { bold: false, size: 12 }), letters(" bold", { bold: true, italic: false })),
  )
  expect(
    leavesOf(doc)
      .node(0)
      .children.map((own) => own.marks.map(({ type }) => type.name)),
  ).toEqual([[], ["bold"]])
  const links = mended(
    "deadLinks",
    p(letters("a", { link: "#gone" }), letters("b", { link: "#here" }), letters("c", { place: "here" })),
  )
  expect([links.count, leavesOf(links.doc).node(0).firstChild?.marks]).toEqual([1, []])
  const picture = nodes.picture.create({ asset: "a".repeat(64), source: null, pixels: [1, 1], format: null })
  expect(rule("silentPictures").find(document([p(picture)]))).toMatchObject([{ leaf: 0, mend: null }])
})

test("what was opened and not closed is shown, in brackets of any kind and in quotation marks", () => {
  const found = (text: string) =>
    rule("openBrackets")
      .find(document([p(text)]))
      .map(({ from, mend }) => [from - 2, mend])
  expect(found("(one) [two (three)] “four” a) 1] ”")).toEqual([])
  expect(found("one (two “three) four")).toEqual([
    [4, null],
    [9, null],
  ])
  expect(rule("openBrackets").find(document([p("(".repeat(100_000))]))).toHaveLength(100_000)
})

test("styles that nothing has go; those that others start from, or that follow, stay", () => {
  const body = defaultStyles.styles.body as Style
  const styles = {
    ...defaultStyles,
    styles: {
      ...defaultStyles.styles,
      used: { ...body, name: "Used", parent: "base" },
      base: { ...body, name: "Base", next: "after" },
      after: { ...body, name: "After" },
      alone: { ...body, name: "Alone" },
    },
  }
  const before = state(document([paragraph("used", ["x"])], { styles }))
  let now = before
  mendAll([(doc) => rule("unusedStyles").find(doc)], "Tidied")(before, (tr) => (now = before.apply(tr)))
  const left = Object.keys(documentAttrs(now.doc).styles.styles)
  expect(left).toEqual(expect.arrayContaining(["used", "base", "after"]))
  expect(left).not.toContain("alone")
})

test("the draft in the demo is made tidy in one go, and one undo has it back", () => {
  const before = state(document(messy()))
  const work = untidy(before.doc)
  let step = work.next()
  while (!step.done) step = work.next()
  expect(step.value.map(({ rule: { id } }) => id).sort()).toEqual(
    [
      "blankBeforeSign",
      "blankParagraphs",
      "blanksAsTab",
      "blanksAtEnd",
      "blanksAtStart",
      "boldHeadings",
      "deadLinks",
      "doubleBlanks",
      "doubleWords",
      "typedLists",
    ].sort(),
  )
  let now = before
  mendAll(
    tidyRules.map((own) => own.find),
    "Tidied",
  )(before, (tr) => (now = before.apply(tr)))
  expect(leavesOf(now.doc).nodes.map(textOf)).toEqual([
    "What passengers ask",
    "Before you come",
    "The ferry is hauled by hand, and nobody is in haste. She leaves when the board says so.",
    "Take with you:",
    "a coat, in any weather",
    "small change for the box",
    "patience",
    "On the water",
    "Stand clear of the chain. Dogs travel free\tand so do children.",
    "Wait for the flag.",
    "Step on one at a time.",
    "Haul if you like.",
    "More stands in the rules.",
  ])
  expect([styleAt(now.doc, 1), styleAt(now.doc, 7)]).toEqual(["heading1", "heading1"])
  undo(now, (tr) => (now = now.apply(tr)))
  expect(now.doc.eq(before.doc)).toBe(true)
  expect(mendAll([() => []], "Nothing")(before)).toBe(false)
})

test("any document is sound after it was tidied, and untidied again by one undo", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const before = state(doc)
      let now = before
      if (
        !mendAll(
          tidyRules.map((own) => own.find),
          "Tidied",
        )(before, (tr) => (now = before.apply(tr)))
      )
        return
      checkDocument(now.doc)
      undo(now, (tr) => (now = now.apply(tr)))
      expect(now.doc.toJSON()).toEqual(before.doc.toJSON())
    }),
    { numRuns: Number(process.env.BIBLON_RUNS ?? 60) },
  )
})
