/** Sources and citations in files: there and back, and as other programs write them. */
import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import {
  citationsOf,
  citationItems,
  document,
  documentAttrs,
  fieldAttrs,
  leavesOf,
  nodes,
  p,
  paragraph,
  setCiter,
  sourceFields,
  sourceKinds,
  sourceRoles,
  type CitationItem,
  type Source,
} from "../src/document"
import { changeCitationStyle, insertCitation, putSources, turnReferenceList } from "../src/editing"
import { formats } from "../src/formats/table"
import { citationFrom, citationInstruction } from "../src/formats/officeopenxml/sources"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { prepareCiting } from "../node/typesetting"
import { after, texts } from "./telling"
import { unzip, zip } from "../src/formats/zip"
import type { Node } from "prosemirror-model"

afterEach(() => setCiter(null))

const text = fc
  .string({ minLength: 1, maxLength: 12, unit: fc.constantFrom("a", "é", "<", "&", '"', "\\", " ", "7", "–", "語") })
  .map((own) => own.replace(/\s+/g, " ").trim())
  .filter((own) => own !== "")
const name = fc.oneof(fc.record({ family: text, given: text }), fc.record({ literal: text }))
const source: fc.Arbitrary<Source> = fc
  .record({
    kind: fc.constantFrom(...sourceKinds),
    names: fc.dictionary(fc.constantFrom(...sourceRoles), fc.array(name, { minLength: 1, maxLength: 2 })),
    fields: fc.dictionary(fc.constantFrom(...sourceFields), text),
    issued: fc.constantFrom("", "2019", "2019-05", "2019-05-04", "around 1890"),
    accessed: fc.constantFrom("", "2026-11-03"),
    remarks: fc.constantFrom("", "worth reading"),
    quotations: fc.constantFrom([], [{ words: "Nobody hauls alone.", page: "4" }]),
  })
  .map((own) => own as unknown as Source)
const item = (keys: readonly string[]) =>
  fc.record<CitationItem>(
    { source: fc.constantFrom(...keys), at: text, before: text, after: text, bare: fc.constant(true) },
    { requiredKeys: ["source"] },
  )
const keys = ["marlowe 2019", 'o"hara', "東京"]
const cited = fc
  .tuple(
    source,
    source,
    source,
    fc.array(fc.array(item(keys), { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 3 }),
    fc.boolean(),
  )
  .map(([a, b, c, citations, notes]) => {
    let state = after(
      EditorState.create({ doc: document([p("Tides"), p("")]) }),
      putSources({ [keys[0]!]: a, [keys[1]!]: b, [keys[2]!]: c }),
    )
    for (const items of citations) state = after(state, insertCitation(items, notes))
    return after(state, turnReferenceList(true)).doc
  })

const itemsIn = (doc: Node) => citationsOf(doc).map(({ field }) => citationItems(fieldAttrs(field).format))
const listsIn = (doc: Node) =>
  doc
    .child(0)
    .children.filter(({ type }) => type === nodes.contents)
    .map(({ attrs }) => attrs.look as string)

test.each(["docx", "odt"] as const)("sources, citations and their list go to %s and come back as they were", (kind) => {
  const { read, write } = formats[kind] as Required<(typeof formats)["docx"]>
  fc.assert(
    fc.property(cited, (doc) => {
      const back = read(
        write({ name: "Paper", doc }, () => undefined),
        {},
      ).doc
      expect(documentAttrs(back).sources).toEqual(documentAttrs(doc).sources)
      expect(itemsIn(back)).toEqual(itemsIn(doc))
      expect(listsIn(back)).toEqual(["sources"])
    }),
    { numRuns: 30 },
  )
})

test("files show citations and their list in plain words, whatever reads them", () => {
  const marlowe: Source = {
    kind: "book",
    names: { author: [{ family: "Marlowe", given: "Ida" }] },
    fields: { title: "Hauling" },
    issued: "2019",
    accessed: "",
    remarks: "",
    quotations: [],
  }
  const state = after(
    EditorState.create({ doc: document([p("Tides"), p("")]) }),
    putSources({ m: marlowe }),
    insertCitation([{ source: "m", at: "12" }], false),
    turnReferenceList(true),
  )
  const { doc } = after(state, changeCitationStyle("modern-language-association", false))
  prepareCiting(doc)
  for (const kind of ["html", "commonmark", "text"] as const) {
    const format = formats[kind]
    const written = new TextDecoder().decode(format.write!({ name: "Paper", doc }, () => undefined))
    expect([kind, written.includes("(Marlowe 12)"), /[\ue000-\ue003]/.test(written)]).toEqual([kind, true, false])
    expect(written).toContain("Marlowe, Ida")
  }
  const docx = new TextDecoder().decode(
    unzip(formats.docx.write!({ name: "Paper", doc }, () => undefined)).get("word/document.xml"),
  )
  expect(docx).toMatch(/CITATION &quot;m&quot; \\p &quot;12&quot;/)
  expect(docx).toContain("(Marlowe 12)")
})

test("citations are read as other programs write them; what tells of no source stays as its words", () => {
  expect(citationFrom(" CITATION Mar19 \\l 2057 \\p 12 \\n  \\m San21 \\f see ")).toEqual([
    { source: "Mar19", at: "12", bare: true },
    { source: "San21", before: "see" },
  ])
  fc.assert(
    fc.property(fc.array(item(keys), { minLength: 1, maxLength: 3 }), (items) =>
      expect(citationFrom(citationInstruction(items))).toEqual(items),
    ),
  )

  const { doc } = after(
    EditorState.create({ doc: document([p("Tides"), p("")]) }),
    putSources({
      Mar19: { kind: "book", names: {}, fields: { title: "X" }, issued: "", accessed: "", remarks: "", quotations: [] },
    }),
    insertCitation([{ source: "Mar19" }], false),
  )
  const files = new Map(unzip(formats.docx.write!({ name: "Paper", doc }, () => undefined)))
  const b = "http://schemas.openxmlformats.org/officeDocument/2006/bibliography"
  const put = (path: string, own: string) => files.set(path, new TextEncoder().encode(own))
  put(
    "customXml/item1.xml",
    `<b:Sources SelectedStyle="\\MLASeventhEditionOfficeOnline.xsl" xmlns:b="${b}"><b:Source><b:Tag>Mar19</b:Tag><b:SourceType>JournalArticle</b:SourceType><b:Author><b:Author><b:NameList><b:Person><b:Last>Marlowe</b:Last><b:First>Ida</b:First></b:Person></b:NameList></b:Author></b:Author><b:Title>Hauling</b:Title><b:JournalName>Estuaries</b:JournalName><b:Year>2019</b:Year><b:Month>5</b:Month></b:Source><b:Source><b:Tag>__proto__</b:Tag></b:Source></b:Sources>`,
  )
  put("customXml/item2.xml", "<x/>")
  const read = readOfficeOpenXml(zip(files)).doc
  expect(documentAttrs(read).sources).toMatchObject({
    style: "modern-language-association",
    list: {
      Mar19: {
        kind: "article-journal",
        names: { author: [{ family: "Marlowe", given: "Ida" }] },
        fields: { title: "Hauling", "container-title": "Estuaries" },
        issued: "2019-05",
      },
    },
  })
  expect(itemsIn(read)).toEqual([[{ source: "Mar19" }]])
  put("customXml/item1.xml", "<x/>")
  const bare = readOfficeOpenXml(zip(files)).doc
  expect([citationsOf(bare), documentAttrs(bare).sources.list]).toEqual([[], {}])
  expect(leavesOf(bare).node(0).textContent).toBe("…Tides")

  const ns = ["office", "text", "meta"]
    .map((own) => `xmlns:${own}="urn:oasis:names:tc:opendocument:xmlns:${own}:1.0"`)
    .join(" ")
  const flat = `<office:document ${ns} office:mimetype="application/vnd.oasis.opendocument.text"><office:body><office:text><text:p>Tides <text:bibliography-mark text:bibliography-type="book" text:identifier="San21" text:author="Sands, Ben" text:title="Ropes" text:year="2021">[San21]</text:bibliography-mark></text:p></office:text></office:body></office:document>`
  const other = readOpenDocument(new TextEncoder().encode(flat)).doc
  expect(documentAttrs(other).sources.list).toMatchObject({
    San21: {
      kind: "book",
      names: { author: [{ family: "Sands", given: "Ben" }] },
      fields: { title: "Ropes" },
      issued: "2021",
    },
  })
  expect([itemsIn(other), texts(other)[0]]).toEqual([[[{ source: "San21" }]], "Tides \ufffc"])
  expect(paragraph("body", ["x"]).textContent).toBe("x")
})
