import type { Node } from "prosemirror-model"
import {
  citationFormat,
  defaultSetup,
  document,
  enclosureFormat,
  marks,
  nodes,
  p,
  paragraph,
  schema,
  table,
  type DocumentAttrs,
  type PageSetup,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { putSources } from "../src/editing"
import { featureIds, featuresOf, isCarried, lossesIn, type FeatureId } from "../src/formats/losses"
import { formats, readFile } from "../src/formats/table"
import { assetName } from "../src/formats/assets"
import { after, stateOf } from "./telling"
import { writePng } from "../../../apps/server/src/demo/png"

const picture = new Uint8Array(writePng(8, 6, () => [122, 31, 75]))
const asset = assetName(picture)
const pictured = (format: object | null) =>
  paragraph("body", ["see ", nodes.picture.create({ asset, source: null, pixels: [8, 6], format })])
const set = (setup: Partial<PageSetup>) => document([p("text")], { setup: { ...defaultSetup, ...setup } })
const field = (kind: string, format: string) => nodes.field.create({ kind, format })
const story = (kind: "note" | "header") => nodes.story.create({ key: "s", kind }, [p("aside")])
const marlowe = {
  kind: "book",
  names: { author: [{ family: "Marlowe", given: "Ines" }] },
  fields: { title: "Tides" },
  issued: "2019",
  accessed: "",
  remarks: "",
  quotations: [],
}

const samples: Record<FeatureId, () => Node> = {
  watermark: () =>
    set({ watermark: { text: "DRAFT", family: "Tinos", size: 96, angle: 45, colour: "#7a1f4b", strength: 0.2 } }),
  frame: () => set({ frame: { pattern: "solid", width: 1, colour: "#000000", distance: 20 } }),
  paper: () => set({ colour: "#fff8e7" }),
  columns: () => set({ columns: { ...defaultSetup.columns, count: 2 } }),
  edges: () =>
    document([p("text")], { setup: { ...defaultSetup, head: { ...defaultSetup.head, all: "s" } } }, [story("header")]),
  parts: () => document([p("text")], { part: { name: "Ropes", sign: "boat" } }),
  comments: () =>
    document([paragraph("body", [schema.text("said", [marks.comment.create({ value: "a" })])])], {
      comments: { a: { author: "Oda", at: "2026-11-03T09:00:00Z", text: "Is it?" } },
    }),
  enclosures: () =>
    document([paragraph("body", ["see ", field("enclosure", enclosureFormat({ asset, size: 9, name: "rates.txt" }))])]),
  formulas: () => document([table([[[p("2")], [paragraph("body", [field("formula", ":A1*2")])]]]), p("text")]),
  citations: () =>
    document([paragraph("body", ["as ", field("citation", citationFormat([{ source: "m" }]))])], {
      sources: after(stateOf([p()]), putSources({ m: marlowe as never })).doc.attrs.sources as DocumentAttrs["sources"],
    }),
  contents: () =>
    document([nodes.contents.create({ levels: 3, look: "dotted" }), paragraph("heading1", ["One"]), p("text")]),
  notes: () => document([paragraph("body", ["text", nodes.anchor.create({ story: "s" })])], {}, [story("note")]),
  tables: () =>
    document([
      table([
        [[p("a")], [p("b")]],
        [[p("c")], [p("d")]],
      ]),
      p("text"),
    ]),
  turned: () => document([table([[{ blocks: [p("a")], format: { reading: "up" } }, [p("b")]]]), p("text")]),
  pictures: () => document([pictured(null)]),
  floats: () => document([pictured({ wrap: "beside", width: 60, height: 45 })]),
  outlines: () => document([pictured({ shape: "round", width: 60, height: 45 })]),
  dropCaps: () => document([paragraph("body", ["Once"], { dropCap: { lines: 2, distance: 2, family: null } })]),
  tabs: () => document([paragraph("body", ["a\tb"], { tabs: [{ position: 90, align: "left", leader: "none" }] })]),
}

test.each(featureIds)("%s: what is said of each format is so when it is written and read back", (id) => {
  const doc = samples[id]()
  checkDocument(doc)
  expect(featuresOf(doc).get(id)).toBeGreaterThan(0)
  for (const kind of ["docx", "odt", "rtf", "html", "commonmark", "text"] as const) {
    const file = formats[kind].write!({ name: "Sample", doc }, (own) => (own === asset ? picture : undefined))
    const back = featuresOf(readFile(file, `sample${formats[kind].endings[0]}`).doc)
    expect([kind, back.has(id)]).toEqual([kind, isCarried(id, kind)])
  }
})

test("losses are said in words, one or several; a plain document, and Biblon's own file, lose nothing", () => {
  expect(lossesIn(document([p("text")]), "text")).toEqual([])
  const doc = document([pictured({ wrap: "beside" }), pictured(null), table([[[p("a")]]]), p()])
  expect(lossesIn(doc, "rtf")).toEqual([])
  expect(lossesIn(doc, "text")).toEqual(["the table as such", "pictures", "the place of a picture beside the text"])
  for (const kind of ["json", "pdf", "png"] as const) expect(lossesIn(doc, kind)).toEqual([])
})
