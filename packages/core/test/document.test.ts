import {
  changedLeaves,
  defaultStyles,
  document,
  documentFormat,
  leavesOf,
  letterLook,
  letters,
  outlineLevel,
  p,
  paragraph,
  paragraphLook,
  styleChain,
  styleLook,
  type StyleSheet,
} from "../src/document"
import { checkDocument, readDocument, ReadingError } from "../src/document/reading"
import { readJson, writeJson } from "../src/formats/json"
import { readText, writeText } from "../src/formats/text"
import { texts } from "./telling"

describe("the resolved look", () => {
  test("comes from defaults, then the style chain, then direct formatting", () => {
    const heading = paragraph("heading1", ["Mooring"], { align: "right" })
    const look = paragraphLook(defaultStyles, heading)
    expect(look.paragraph).toMatchObject({ align: "right", keepNext: true, orphans: 2 })
    expect(look.letters).toMatchObject({ family: "Tinos", bold: true, size: 18 })
    const marked = letters("Mooring", { bold: false, size: 9 }).marks
    expect(letterLook(defaultStyles, look.letters, marked)).toMatchObject({ bold: false, size: 9, family: "Tinos" })
  })

  test("is one object for paragraphs that look alike, also over another style sheet", () => {
    const again: StyleSheet = structuredClone(defaultStyles)
    expect(styleLook(again, "body")).toBe(styleLook(defaultStyles, "body"))
    expect(paragraphLook(again, p("a"))).toBe(paragraphLook(defaultStyles, p("b")))
  })

  test("an unknown style counts as body, and parents in a circle end the chain", () => {
    expect(styleLook(defaultStyles, "gone")).toBe(styleLook(defaultStyles, "body"))
    const circle: StyleSheet = structuredClone(defaultStyles)
    Object.assign(circle.styles.body as object, { parent: "heading1" })
    expect(styleChain(circle, "heading1").map((s) => s.name)).toEqual(["Heading 1", "Headings", "Body"])
    expect(outlineLevel(defaultStyles, paragraph("heading3"))).toBe(3)
    expect(outlineLevel(defaultStyles, p("x"))).toBeNull()
  })
})

test("blocks are found by position", () => {
  const doc = document([p("one"), p(), p("three")])
  expect([0, 1, 2, 3].map((leaf) => leavesOf(doc).before(leaf))).toEqual([1, 6, 8, 15])
  expect([1, 2, 5, 6, 7, 8, 14, 15].map((pos) => leavesOf(doc).at(pos))).toEqual([0, 0, 0, 1, 1, 2, 2, 2])
})

test("what changed between two bodies is the span between their common ends", () => {
  const [a, b, c, d] = [p("a"), p("b"), p("c"), p("d")]
  const body = (...blocks: ReturnType<typeof p>[]) => document(blocks)
  expect(changedLeaves(body(a, b, c), body(a, b, c))).toBeNull()
  expect(changedLeaves(body(a, b, c), body(a, d, c))).toEqual({ from: 1, oldTo: 2, newTo: 2 })
  expect(changedLeaves(body(a, b, c), body(a, c))).toEqual({ from: 1, oldTo: 2, newTo: 1 })
  expect(changedLeaves(body(a), body(a, a))).toEqual({ from: 1, oldTo: 1, newTo: 2 })
})

describe("what comes from outside", () => {
  const good = document([paragraph("body", [letters("x", { bold: true })], { align: "center" })])

  test("is let in when it is right", () => {
    expect(readDocument(good.toJSON()).eq(good)).toBe(true)
    expect(() => checkDocument(good)).not.toThrow()
  })

  test.each<[string, (json: any) => void]>([
    ["an unknown node", (json) => (json.content[0].content[0].type = "script")],
    ["a body without blocks", (json) => (json.content[0].content = [])],
    [
      "a size that is no number",
      (json) => (json.content[0].content[0].content[0].marks = [{ type: "size", attrs: { value: "12" } }]),
    ],
    [
      "a colour in words",
      (json) => (json.content[0].content[0].content[0].marks = [{ type: "colour", attrs: { value: "red" } }]),
    ],
    ["an alignment that is none", (json) => (json.content[0].content[0].attrs.format = { align: "middle" })],
    ["a property that does not exist", (json) => (json.content[0].content[0].attrs.format = { shout: true })],
    ["paper of no width", (json) => (json.attrs.setup.width = 0)],
  ])("is refused with a reason: %s", (_what, spoil) => {
    const json = structuredClone(good.toJSON())
    spoil(json)
    expect(() => readDocument(json)).toThrow(ReadingError)
  })

  test("a Biblon file keeps everything; others are refused by name", () => {
    const back = readJson(writeJson({ name: "Letter", doc: good }))
    expect(back.name).toBe("Letter")
    expect(back.doc.eq(good)).toBe(true)
    expect(() => readJson("{")).toThrow("not JSON")
    expect(() => readJson('{"a":1}')).toThrow("not a Biblon document")
    expect(() => readJson(`{"biblon":${documentFormat + 1},"name":null,"document":{}}`)).toThrow("newer Biblon")
  })
})

test("plain text: a blank line ends a paragraph, or every line does", () => {
  const source = "\ufeffDear Captain,\r\nwe write\r\n\r\n \r\nto apply.\u0000\n"
  expect(texts(readText(source, { lines: false }))).toEqual(["Dear Captain, we write", "to apply."])
  expect(texts(readText(source, { lines: true }))).toEqual(["Dear Captain,", "we write", "", " ", "to apply."])
  expect(texts(readText("", { lines: false }))).toEqual([""])
  expect(writeText(document([p("one"), p("two")]))).toBe("one\n\ntwo\n")
})
