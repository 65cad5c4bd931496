/** What other programs put into a file is given back to them. */
import {
  bodyOf,
  defaultProperties,
  defaultTypesetting,
  document,
  documentAttrs,
  fieldAttrs,
  nodes,
  p,
  type Kept,
  type Typesetting,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { formats } from "../src/formats/table"
import { unzip } from "../src/formats/zip"
import { officeFile } from "./office"

const sources = { name: "Tides", asset: () => undefined }
const relations = "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
const packaged = (content: string) =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${content}</Relationships>`
const property = (name: string, type: string, value: string) =>
  `<property fmtid="{D5CDD505-2E9C-101B-9397-08002B2CF9AE}" pid="2" name="${name}"><vt:${type}>${value}</vt:${type}></property>`

const data = '<log xmlns="urn:ferry"><crossing at="09:30">3 &amp; a dog</crossing></log>'
const about = '<ds:datastoreItem xmlns:ds="urn:about" ds:itemID="{1}"/>'

const file = () =>
  officeFile({
    body: "<w:p><w:r><w:t>Log</w:t></w:r></w:p>",
    relations: ["1", "2", "3", "4"].map((n) => [`x${n}`, "customXml", `../customXml/item${n}.xml`] as const),
    files: {
      "_rels/.rels": packaged(
        `<Relationship Id="a" Type="${relations}/officeDocument" Target="word/document.xml"/><Relationship Id="b" Type="${relations}/custom-properties" Target="docProps/custom.xml"/>`,
      ),
      "docProps/custom.xml": `<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/custom-properties" xmlns:vt="http://schemas.openxmlformats.org/officeDocument/2006/docPropsVTypes">${[
        property("Vessel", "lpwstr", "The Grey &lt;Heron&gt;"),
        property("Crossings", "i4", "212"),
        property("Checked", "bool", "true"),
        property("When", "filetime", "2026-11-12T09:30:00Z"),
        property("Odd", "r8", "many"),
        property("__proto__", "lpwstr", "x"),
        property("Picture", "blob", "AAAA"),
      ].join("")}</Properties>`,
      "customXml/item1.xml": `<?xml version="1.0"?>${data}`,
      "customXml/_rels/item1.xml.rels": packaged(
        `<Relationship Id="p" Type="${relations}/customXmlProps" Target="itemProps1.xml"/>`,
      ),
      "customXml/itemProps1.xml": about,
      "customXml/item2.xml": '<!DOCTYPE log [<!ENTITY a SYSTEM "file:///etc/passwd">]><log>&a;</log>',
      "customXml/item3.xml": "<log><crossing></log>",
      "customXml/item4.xml": `<log>${"x".repeat(300_000)}</log>`,
    },
  })

const properties = {
  Vessel: { kind: "text", value: "The Grey <Heron>" },
  Crossings: { kind: "number", value: "212" },
  Checked: { kind: "yes", value: "true" },
  When: { kind: "date", value: "2026-11-12T09:30:00Z" },
  Odd: { kind: "text", value: "many" },
  proto: { kind: "text", value: "x" },
}

test("properties and data of other programs are kept, what is broken or too large is not", () => {
  const { doc } = readOfficeOpenXml(file())
  expect(documentAttrs(checkDocument(doc)).kept).toEqual({ properties, parts: { "part-1": { content: data, about } } })
})

test("they go back as they were, and properties by way of the other formats too", () => {
  const { doc } = readOfficeOpenXml(file())
  const written = writeOfficeOpenXml(doc, sources)
  const parts = unzip(written)
  const text = (path: string) => new TextDecoder().decode(parts.get(path))
  expect(text("customXml/item1.xml").endsWith(data)).toBe(true)
  expect(text("customXml/itemProps1.xml").endsWith(about)).toBe(true)
  expect(text("[Content_Types].xml")).toContain('PartName="/docProps/custom.xml"')
  expect(documentAttrs(readOfficeOpenXml(written).doc).kept).toEqual(documentAttrs(doc).kept)
  const open = readOpenDocument(writeOpenDocument(doc, sources)).doc
  expect(documentAttrs(open).kept).toEqual({ properties, parts: {} })
  expect(documentAttrs(readOfficeOpenXml(writeOfficeOpenXml(open, sources)).doc).kept.properties).toEqual(properties)
})

test.each(["docx", "odt", "rtf"] as const)(
  "properties that people made, and that whole paragraphs are looked at, come back from %s; what only has such a name stays what it is",
  (ending) => {
    const { read, write } = formats[ending]
    const back = (kept: Kept, breaking: Typesetting["breaking"]) => {
      const attrs = { kept, typesetting: { ...defaultTypesetting, breaking } }
      return documentAttrs(read!(write!({ name: "Log", doc: document([p("Log")], attrs) }), {}).doc)
    }
    const kept = documentAttrs(readOfficeOpenXml(file()).doc).kept
    expect(back(kept, "whole")).toMatchObject({ kept: { properties }, typesetting: { breaking: "whole" } })
    expect(back(kept, "quick").kept.properties).toEqual(properties)
    const named = { "Line breaking": { kind: "text" as const, value: "by hand" } }
    const { kept: same, typesetting } = back({ properties: named, parts: {} }, "quick")
    expect([same.properties, typesetting.breaking]).toEqual([named, "quick"])
    expect(back({ properties: {}, parts: {} }, "whole").kept.properties).toEqual({})
  },
)

test("properties are read out of RTF as they are told there, also whole numbers; what has no name or no kind is none", () => {
  const told = String.raw`{\propname Vessel}\proptype30{\staticval The Grey <Heron>}{\propname Crossings}\proptype3{\staticval 212}{\propname Odd}\proptype5{\staticval many}{\propname }\proptype30{\staticval x}{\propname Other}\proptype7{\staticval x}`
  const { doc } = formats.rtf.read!(new TextEncoder().encode(String.raw`{\rtf1{\*\userprops${told}}Log\par}`), {})
  const { Vessel, Crossings, Odd } = properties
  expect(documentAttrs(doc).kept.properties).toEqual({ Vessel, Crossings, Odd })
})

test("a document without them has neither part nor property", () => {
  const parts = unzip(writeOfficeOpenXml(document([p("Log")]), sources))
  expect([...parts.keys()].filter((path) => /custom/i.test(path))).toEqual([])
})

test.each(["docx", "odt", "rtf"] as const)(
  "what a cover shows of a document comes back from %s, as fields",
  (ending) => {
    const { read, write } = formats[ending]
    const kinds = ["title", "author", "property subtitle", "property organisation", "property date"] as const
    const fields = kinds.map((own) => {
      const [kind, format = ""] = own.split(" ")
      return p(nodes.field.create({ kind, format }))
    })
    const told = {
      title: "Tides",
      subtitle: "A year",
      author: "Nell Caddow",
      organisation: "The Trust",
      date: "Spring",
    }
    const back = (properties: typeof told) => {
      const { doc } = read!(write!({ name: "Tides", doc: document(fields, { properties }) }), {})
      const shown = bodyOf(doc).children.flatMap(({ children }) => children.map((own) => fieldAttrs(own)))
      return { properties: documentAttrs(doc).properties, shown, kept: documentAttrs(doc).kept.properties }
    }
    const shown = fields.map(({ firstChild }) => fieldAttrs(firstChild!))
    expect(back(told)).toEqual({ properties: told, shown, kept: {} })
    const none = { ...defaultProperties, title: "Tides" }
    expect(back(none).properties).toEqual(none)
  },
)
