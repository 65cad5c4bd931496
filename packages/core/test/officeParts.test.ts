/** Single properties of Office Open XML and OpenDocument, in and out. */
import {
  bodyOf,
  defaultSetup,
  defaultTypesetting,
  document,
  documentAttrs,
  fieldAttrs,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  paragraphAttrs,
  paragraphLook,
  pictureFormat,
  sectionsOf,
  storiesOf,
  table,
  textWidth,
  type LetterFormat,
  type PageSetup,
  type ParagraphFormat,
  type PictureFormat,
} from "../src/document"
import { fieldOf, instructionOf } from "../src/formats/officeopenxml/reading/fields"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { symbolOf } from "../src/formats/officeopenxml/reading/symbols"
import { borderOf, highlightOf, shadingOf, twips } from "../src/formats/officeopenxml/reading/values"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { writeRtf } from "../src/formats/rtf/writing"
import { readFile } from "../src/formats/table"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { unzip } from "../src/formats/zip"
import { officeFile, wp, wr, type Made } from "./office"
import { lettersOf, picture, png } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const read = (made: Made) => readOfficeOpenXml(officeFile(made))
const blocksIn = (made: Made) => bodyOf(read(made).doc).children
const sources = { name: "Tides", asset: (name: string) => (name === picture ? png : undefined) }
const element = (name: string, attrs: Record<string, string>) => ({ name, attrs, children: [] })

test.each([
  [" PAGE  \\* MERGEFORMAT ", { kind: "page", format: "" }],
  ["NUMPAGES", { kind: "pages", format: "" }],
  ["SECTIONPAGES", { kind: "sectionPages", format: "" }],
  ['DATE \\@ "dddd, d MMMM yyyy"', { kind: "date", format: "full" }],
  ['DATE \\@ "d MMM yyyy"', { kind: "date", format: "medium" }],
  ['DATE \\@ "dd/MM/yyyy"', { kind: "date", format: "short" }],
  ['DATE \\@ "MMMM yyyy"', { kind: "date", format: "monthYear" }],
  ['DATE \\@ "d MMMM"', { kind: "date", format: "dayMonth" }],
  ['DATE \\@ "yyyy"', { kind: "date", format: "year" }],
  ['DATE \\@ "dddd"', { kind: "date", format: "weekday" }],
  ['DATE \\@ "d MMMM yyyy HH:mm"', { kind: "date", format: "dateTime" }],
  ["TIME", { kind: "date", format: "time" }],
  ["AUTHOR", { kind: "author", format: "" }],
  ["SUBJECT", { kind: "property", format: "subtitle" }],
  ['DOCPROPERTY "Company"', { kind: "property", format: "organisation" }],
  ["DOCPROPERTY Title", { kind: "title", format: "" }],
  ['STYLEREF "Heading 2" \\l', { kind: "heading", format: "2 last" }],
  ["STYLEREF 1", { kind: "heading", format: "1" }],
  ["SEQ Figure \\* ARABIC", { kind: "caption", format: "Figure" }],
  ['SEQ "Map of it"', { kind: "caption", format: "Map of it" }],
  ["REF _Ref12 \\r \\h", { kind: "reference", format: "number _Ref12" }],
  ["PAGEREF slack", { kind: "reference", format: "sheet slack" }],
  ["DOCPROPERTY constructor", null],
  ["QUOTE x", null],
  ["", null],
])("the instruction %s", (text, field) => expect(fieldOf(instructionOf(text))).toEqual(field))

test("instructions are words, quoted ones with blanks and quotes in them, and switches with what follows these", () => {
  const { name, words, switches } = instructionOf(' hyperlink "https://a.example/a \\"b\\"" \\l "place one" \\h')
  expect([name, words]).toEqual(["HYPERLINK", ['https://a.example/a "b"']])
  expect([...switches]).toEqual([
    ["l", "place one"],
    ["h", ""],
  ])
})

test.each([
  ["Symbol", 0xf061, "α"],
  ["Symbol", 0x44, "Δ"],
  ["Symbol", 0xf0b7, "•"],
  ["Wingdings", 0xf0fc, "✓"],
  ["Wingdings", 0xf0a7, "▪"],
  ["Wingdings 3", 0xf001, "•"],
  ["Arial", 0x41, undefined],
  [undefined, 0xf041, "Α"],
])("the sign %s %i", (face, code, sign) => expect(symbolOf(face, code)).toBe(sign))

test("lengths, colours, grounds and lines as the standard writes them", () => {
  expect(["240", "12pt", "1in", "-20", "x", undefined].map(twips)).toEqual([12, 12, 72, -1, undefined, undefined])
  expect([highlightOf("darkCyan"), highlightOf("none"), highlightOf("constructor")]).toEqual([
    "#008080",
    undefined,
    undefined,
  ])
  expect(shadingOf(element("w:shd", { "w:fill": "auto" }))).toBeNull()
  expect(shadingOf(element("w:shd", { "w:val": "pct25", "w:color": "FF0000", "w:fill": "FFFFFF" }))).toBe("#ffbfbf")
  expect(borderOf(element("w:top", { "w:val": "nil" }))).toBeNull()
  expect(borderOf(element("w:top", { "w:val": "dashSmallGap", "w:sz": "12" }))).toMatchObject({
    pattern: "dashed",
    width: 1.5,
  })
  expect(borderOf(element("w:top", { "w:val": "thinThickSmallGap" }))).toMatchObject({ pattern: "double", width: 0.5 })
})

test("a letter set as high as several lines joins its paragraph", () => {
  const [block, ...rest] = blocksIn({
    body:
      wp(wr("T", "<w:sz w:val='120'/><w:b/>"), '<w:framePr w:dropCap="drop" w:lines="3" w:hSpace="100"/>') +
      wp(wr("he ferry")),
  })
  expect(rest).toEqual([])
  expect(block?.textContent).toBe("The ferry")
  expect(paragraphAttrs(block as Node).format?.dropCap).toEqual({ lines: 3, distance: 5, family: null })
  expect(lettersOf(block?.firstChild as Node)).toEqual({ bold: true })
})

test("what is wrapped round text is passed through, alternatives are read once, signs by font become letters", () => {
  const [block] = blocksIn({
    body: wp(
      `<w:smartTag>${wr("a")}</w:smartTag><w:sdt><w:sdtContent>${wr("b")}</w:sdtContent></w:sdt><w:customXml>${wr("c")}</w:customXml>` +
        `<mc:AlternateContent xmlns:mc="http://schemas.openxmlformats.org/markup-compatibility/2006"><mc:Choice Requires="zz">${wr("x")}</mc:Choice><mc:Fallback>${wr("d")}</mc:Fallback></mc:AlternateContent>` +
        `<w:r><w:noBreakHyphen/><w:softHyphen/><w:sym w:font="Wingdings" w:char="F0FC"/><w:tab/><w:br/></w:r>` +
        `<w:ruby><w:rt>${wr("no")}</w:rt><w:rubyBase>${wr("e")}</w:rubyBase></w:ruby>`,
    ),
  })
  expect(block?.textContent).toBe("abcd\u2011\u00ad✓\t\ne")
})

test("boxes of text come behind the paragraph to which they are tied, hidden text is counted", () => {
  const box = `<w:r><w:pict><v:shape xmlns:v="urn:schemas-made-up-com:vml"><v:textbox><w:txbxContent>${wp(wr("boxed"))}</w:txbxContent></v:textbox></v:shape></w:pict></w:r>`
  const { doc, left } = read({
    body: wp(wr("before") + box + wr("after") + wr("unseen", "<w:vanish/>")) + wp(wr("next")),
  })
  expect(bodyOf(doc).children.map((own) => own.textContent)).toEqual(["beforeafter", "boxed", "next"])
  expect(left.map(({ what }) => what)).toEqual(["text boxes, whose text follows the paragraph", "hidden text"])
})

test("links lead where links may lead, places are kept where their words are", () => {
  const link = (inside: string, attrs: string) => `<w:hyperlink ${attrs}>${inside}</w:hyperlink>`
  const [block] = blocksIn({
    body: wp(
      link(wr("a"), 'r:id="one"') +
        link(wr("b"), 'w:anchor="here"') +
        link(wr("c"), 'r:id="bad"') +
        '<w:bookmarkStart w:id="9" w:name="here"/><w:bookmarkEnd w:id="9"/>' +
        wr("d"),
    ),
    relations: [
      ["one", "hyperlink", "https://ferry.example/x y"],
      ["bad", "hyperlink", "javascript:alert(1)"],
    ],
  })
  expect(block?.children.map(lettersOf)).toEqual([
    { link: "https://ferry.example/x%20y" },
    { link: "#here" },
    {},
    { place: "here" },
  ])
})

test("sections: paper, margins, columns of their own widths, numbers, a line round the sheet, heads of three kinds", () => {
  const head = (text: string) =>
    `<w:hdr xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${wp(wr(text))}</w:hdr>`
  const { doc } = read({
    settings: "<w:mirrorMargins/><w:evenAndOddHeaders/>",
    body: `${wp(wr("x"))}<w:sectPr><w:headerReference w:type="default" r:id="a"/><w:headerReference w:type="first" r:id="f"/><w:headerReference w:type="even" r:id="e"/>
      <w:type w:val="oddPage"/><w:pgSz w:w="10000" w:h="14000"/><w:pgMar w:top="-1000" w:right="800" w:bottom="1000" w:left="800" w:header="500" w:footer="400" w:gutter="200"/>
      <w:pgBorders><w:top w:val="double" w:sz="8" w:space="20" w:color="112233"/></w:pgBorders><w:pgNumType w:fmt="lowerRoman" w:start="3"/>
      <w:cols w:num="2" w:equalWidth="0" w:sep="1"><w:col w:w="2000" w:space="300"/><w:col w:w="4000"/></w:cols><w:titlePg/></w:sectPr>`,
    relations: [
      ["a", "header", "h1.xml"],
      ["f", "header", "h2.xml"],
      ["e", "header", "h3.xml"],
    ],
    files: { "word/h1.xml": head("all"), "word/h2.xml": head("first"), "word/h3.xml": head("even") },
  })
  const { setup } = documentAttrs(doc)
  expect(setup).toMatchObject({
    width: 500,
    height: 700,
    margins: { top: 50, right: 40, bottom: 50, left: 40 },
    gutter: 10,
    mirrored: true,
    begins: "odd",
    columns: { count: 2, gap: 15, line: true, shares: [1, 2] },
    frame: { pattern: "double", width: 1, distance: 20 },
    firstOwn: true,
    leftRight: true,
    numbering: { form: "lowerRoman", start: 3 },
  })
  const { all, first, left } = setup.head
  const shown = [all, first, left].map((key) => storiesOf(doc).get(key ?? "")?.node.textContent)
  expect(shown).toEqual(["all", "first", "even"])
})

test("words are divided where the settings say so, and not where a style or a paragraph says otherwise", () => {
  const body = wp(wr("a")) + wp(wr("b"), "<w:suppressAutoHyphens/>")
  const hyphens = (settings: string) => {
    const { doc } = read({ settings, body })
    return leavesOf(doc).nodes.map((leaf) => paragraphLook(documentAttrs(doc).styles, leaf).paragraph.hyphenate)
  }
  expect(hyphens("")).toEqual([false, false])
  expect(hyphens("<w:autoHyphenation/>")).toEqual([true, false])
})

test("how words are divided comes back, and the text is as wide as it was to a hundredth of a point", () => {
  const hyphenation = { ...defaultTypesetting.hyphenation, inRow: 2, capitals: false }
  const attrs = { typesetting: { ...defaultTypesetting, hyphenation } }
  const doc = document([p("a"), paragraph("body", ["b"], { hyphenate: true })], attrs)
  const { doc: odt } = readOpenDocument(writeOpenDocument(doc, sources))
  // Whether words with a capital may be divided has no place there.
  expect(documentAttrs(odt).typesetting.hyphenation).toEqual({ ...hyphenation, capitals: true })
  for (const { doc: back } of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readFile(writeRtf(doc, sources), "x.rtf"),
  ])
    expect(documentAttrs(back).typesetting.hyphenation).toEqual(hyphenation)
  for (const back of [odt, readFile(writeRtf(doc, sources), "x.rtf").doc]) {
    const { styles, setup } = documentAttrs(back)
    const looks = leavesOf(back).nodes.map((leaf) => paragraphLook(styles, leaf).paragraph.hyphenate)
    expect(looks).toEqual([false, true])
    expect(Math.abs(textWidth(setup) - textWidth(documentAttrs(doc).setup))).toBeLessThan(0.011)
  }
})

test("notes are numbered as the settings say, endnotes are endnotes, a note that is gone is no mark", () => {
  const { doc } = read({
    settings:
      '<w:footnotePr><w:numFmt w:val="chicago"/><w:numRestart w:val="eachPage"/></w:footnotePr><w:endnotePr><w:numFmt w:val="upperLetter"/></w:endnotePr>',
    body: wp(wr("a") + '<w:r><w:endnoteReference w:id="4"/></w:r><w:r><w:footnoteReference w:id="77"/></w:r>'),
    files: {
      "word/endnotes.xml": `<w:endnotes xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:endnote w:id="4">${wp("<w:r><w:endnoteRef/></w:r>" + wr("  last"))}</w:endnote></w:endnotes>`,
    },
    relations: [["e", "endnotes", "endnotes.xml"]],
  })
  expect(documentAttrs(doc).notes).toEqual({ foot: { form: "signs", restart: "sheet" }, end: { form: "upperLetter" } })
  expect(
    storiesOf(doc)
      .values()
      .map(({ node }) => [node.attrs.kind, node.textContent]),
  ).toEqual([["endnote", "last"]])
  expect(bodyOf(doc).child(0).childCount).toBe(2)
})

test("properties and the name come from the parts that hold them", () => {
  const { doc, name } = read({
    body: wp(wr("x")),
    files: {
      "_rels/.rels": `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="a" Type="x/officeDocument" Target="/word/document.xml"/><Relationship Id="b" Type="x/core-properties" Target="docProps/core.xml"/><Relationship Id="c" Type="x/extended-properties" Target="docProps/app.xml"/></Relationships>`,
      "docProps/core.xml":
        '<c xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>Slack\n water</dc:title><dc:creator>Nell</dc:creator><dc:subject>Tides</dc:subject></c>',
      "docProps/app.xml":
        '<Properties xmlns="http://schemas.openxmlformats.org/officeDocument/2006/extended-properties"><Company>Trust</Company></Properties>',
    },
  })
  expect(name).toBe("Slack water")
  expect(documentAttrs(doc).properties).toMatchObject({ title: "Slack water", author: "Nell", subtitle: "Tides" })
})

const setup: PageSetup = {
  ...defaultSetup,
  width: 500,
  height: 700,
  margins: { top: 60, right: 40, bottom: 50, left: 40 },
  columns: { count: 2, gap: 20, line: true, shares: [1, 2] },
  frame: { pattern: "solid", width: 1, colour: "#112233", distance: 12 },
  colour: "#f4e4eb",
  firstOwn: true,
  leftRight: true,
  head: { distance: 20, all: "h", first: "f", left: null },
  numbering: { form: "upperRoman", start: 4 },
}
const story = (key: string, kind: string, ...parts: (string | Node)[]) => nodes.story.create({ key, kind }, p(...parts))
const whole = document(
  [
    p("x"),
    nodes.sectionBreak.create({
      setup: { ...defaultSetup, width: 900, height: 600, numbering: { form: "decimal", start: null } },
    }),
    p("wide"),
  ],
  { setup, properties: { title: "Slack", subtitle: "Tides", author: "Nell", organisation: "Trust", date: "" } },
  [story("h", "header", "Sheet ", nodes.field.create({ kind: "page", format: "" })), story("f", "header", "First")],
)

test.each([
  ["Office Open XML", (doc: Node) => readOfficeOpenXml(writeOfficeOpenXml(doc, sources))],
  ["OpenDocument", (doc: Node) => readOpenDocument(writeOpenDocument(doc, sources))],
])("%s carries sections, heads, numbers, lines round sheets and properties", (format, around) => {
  const { doc, name, left } = around(whole)
  expect(left).toEqual([])
  expect(name).toBe("Slack")
  const [first, second] = sectionsOf(doc).map((own) => own.setup)
  expect(first).toMatchObject({
    width: 500,
    height: 700,
    margins: { top: 60, right: 40, left: 40 },
    columns: { count: 2, gap: 20, line: true, shares: [1, 2] },
    colour: "#f4e4eb",
    firstOwn: true,
    numbering: { form: "upperRoman", start: 4 },
  })
  expect(first?.frame).toMatchObject({ pattern: "solid", width: 1, colour: "#112233" })
  expect(first?.head.distance).toBe(20)
  expect([second?.width, second?.height, second?.begins]).toEqual([900, 600, "sheet"])
  const shown = [first?.head.all, first?.head.first].map((key) => storiesOf(doc).get(key ?? "")?.node.textContent)
  expect(shown).toEqual(["Sheet –", "First"])
  const { title, subtitle, author, organisation } = documentAttrs(doc).properties
  expect([title, subtitle, author]).toEqual(["Slack", "Tides", "Nell"])
  if (format === "Office Open XML") expect(organisation).toBe("Trust")
})

const shown: Partial<PictureFormat>[] = [
  { width: 40, height: 30, alt: "A buoy & chain" },
  { width: 40, height: 30, crop: { top: 0, right: 0.1, bottom: 0.2, left: 0.25 } },
  { width: 40, height: 30, turn: 30 },
  { width: 40, height: 30, opacity: 0.45, shadow: true },
  { width: 40, height: 30, frame: { pattern: "solid", width: 2, colour: "#112233", distance: 0 } },
  {
    width: 40,
    height: 30,
    wrap: "beside",
    side: "left",
    distance: 6,
    across: { of: "column", align: null, at: 12 },
    down: { of: "paragraph", at: 5 },
  },
  {
    width: 40,
    height: 30,
    wrap: "beside",
    side: "wider",
    distance: 0,
    across: { of: "margins", align: "center", at: 0 },
    down: { of: "margins", at: 40 },
  },
  {
    width: 40,
    height: 30,
    wrap: "across",
    distance: 0,
    across: { of: "sheet", align: "right", at: 0 },
    down: { of: "sheet", at: 90 },
  },
  {
    width: 40,
    height: 30,
    wrap: "under",
    distance: 0,
    across: { of: "sheet", align: null, at: 7 },
    down: { of: "paragraph", at: 0 },
  },
  {
    width: 40,
    height: 30,
    wrap: "over",
    distance: 0,
    across: { of: "column", align: "left", at: 0 },
    down: { of: "paragraph", at: 0 },
  },
]

test.each(shown)("pictures keep how they stand: %j", (format) => {
  const doc = document([p(nodes.picture.create({ asset: picture, source: null, pixels: [8, 6], format }))])
  const own = pictureFormat(bodyOf(doc).child(0).child(0))
  for (const around of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
  ]) {
    const back = pictureFormat(bodyOf(around.doc).child(0).child(0))
    expect({ ...back, crop: null }).toEqual({ ...own, crop: null })
    for (const side of ["top", "right", "bottom", "left"] as const)
      expect(back.crop[side]).toBeCloseTo(own.crop[side], 2)
    expect([...around.assets.keys()]).toEqual([picture])
  }
})

test("what Office Open XML alone says of pictures: their outlines", () => {
  const format: Partial<PictureFormat> = { width: 40, height: 30, shape: "round" }
  const doc = document([p(nodes.picture.create({ asset: picture, source: null, pixels: [8, 6], format }))])
  const back = readOfficeOpenXml(writeOfficeOpenXml(doc, sources)).doc
  expect(pictureFormat(bodyOf(back).child(0).child(0))).toMatchObject(format)
})

const fielded: [string, string, "edge" | "body"][] = [
  ["page", "", "edge"],
  ["pages", "", "edge"],
  ["heading", "2", "edge"],
  ["title", "", "body"],
  ["author", "", "body"],
  ["name", "", "body"],
  ["property", "subtitle", "body"],
  ["date", "monthYear", "body"],
  ["date", "weekday", "body"],
  ["date", "time", "body"],
  ["caption", "Map of it", "body"],
]

test.each(fielded)("fields come back as fields: %s %s", (kind, format, where) => {
  const field = nodes.field.create({ kind, format })
  const doc =
    where === "body"
      ? document([p("a ", field)])
      : document([p("x")], { setup: { ...defaultSetup, head: { ...defaultSetup.head, all: "h" } } }, [
          story("h", "header", "a ", field),
        ])
  for (const { doc: back } of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
  ]) {
    const leaf = leavesOf(back).nodes.find((own) => own.textContent.startsWith("a "))
    expect(fieldAttrs(leaf?.child(1) as Node)).toEqual({ kind, format })
  }
})

test("contents, captions and references come back, and show what they showed", () => {
  const doc = document([
    nodes.contents.create({ levels: 2, look: "dotted", of: "" }),
    paragraph("heading1", [letters("Tides", { place: "the tides" })]),
    nodes.contents.create({ levels: 1, look: "dotted", of: "Figure" }),
    paragraph("caption", [
      letters("Figure ", { place: "one" }),
      nodes.field.create({ kind: "caption", format: "Figure" }),
      ": a buoy",
    ]),
    p(
      "see ",
      nodes.field.create({ kind: "reference", format: "words the tides" }),
      " and ",
      nodes.field.create({ kind: "reference", format: "number one" }),
    ),
  ])
  for (const { doc: back } of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
  ]) {
    const kinds = bodyOf(back).children.map((own) =>
      own.type.name === "contents" ? `contents ${own.attrs.of as string}` : own.textContent,
    )
    expect(kinds.slice(0, 3)).toEqual(["contents ", "Tides", "contents Figure"])
    const fields = bodyOf(back)
      .child(4)
      .children.filter(({ type }) => type === nodes.field)
    expect(fields.map((own) => fieldAttrs(own).format.split(" ")[0])).toEqual(["words", "number"])
  }
})

test("contents look as they looked: with dots, with a line, with the number close behind the words", () => {
  const looks = ["dotted", "ruled", "plain", "dotted"] as const
  const doc = document([
    ...looks.map((look, i) => nodes.contents.create({ levels: 2, look, of: i < 3 ? "" : "Table" })),
    paragraph("heading1", ["Tides"]),
  ])
  const through = [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
    readFile(writeRtf(doc, sources), "x.rtf"),
  ]
  for (const { doc: back } of through)
    expect(bodyOf(back).children.flatMap(({ type, attrs }) => (type === nodes.contents ? [attrs.look] : []))).toEqual(
      looks,
    )
})

test("tables of our looks arrive as they are seen, with joined cells, heads and words in bold", () => {
  const doc = document([
    table(
      [
        [{ blocks: [p("Head")], colspan: 2 }, [p("b")]],
        [{ blocks: [p("c")], rowspan: 2, format: { vertical: "middle", shading: "#ffeecc" } }, [p("d")], [p("e")]],
        [[p("f")], [p("g")]],
      ],
      { look: "tideBoard", columns: [100, 80, 60], align: "center", alt: "Hours & fares" },
    ),
  ])
  for (const [back, alt] of [
    [readOfficeOpenXml(writeOfficeOpenXml(doc, sources)).doc, undefined],
    [readOpenDocument(writeOpenDocument(doc, sources)).doc, "Hours & fares"],
  ] as const) {
    const own = bodyOf(back).child(0)
    expect((own.attrs.format as { alt?: string }).alt).toBe(alt)
    expect(
      own.children.map((row) =>
        row.children.map((cell) => `${cell.textContent}${cell.attrs.colspan}${cell.attrs.rowspan}`),
      ),
    ).toEqual([
      ["Head21", "b11"],
      ["c12", "d11", "e11"],
      ["f11", "g11"],
    ])
    expect(own.attrs.format).toMatchObject({ headRows: 1, align: "center", look: "bare" })
    const [head, below] = [own.child(0).child(0), own.child(1).child(0)]
    expect(lettersOf(head.child(0).child(0))).toMatchObject({ bold: true, colour: "#ffffff" })
    expect(below.attrs.format).toMatchObject({ vertical: "middle", shading: "#ffeecc" })
  }
})

const lettered: Partial<LetterFormat>[] = [
  { outline: true, shadow: true },
  { underline: "dotted", underlineColour: "#112233" },
  { family: "Courier Prime", language: "de-DE" },
  { caps: "all", script: "sub" },
]
test.each(lettered)("letters come back: %j", (format) => {
  const doc = document([p(letters("Tide", format))])
  expect(
    lettersOf(
      bodyOf(readOfficeOpenXml(writeOfficeOpenXml(doc, sources)).doc)
        .child(0)
        .child(0),
    ),
  ).toEqual(format)
  expect(
    lettersOf(
      bodyOf(readOpenDocument(writeOpenDocument(doc, sources)).doc)
        .child(0)
        .child(0),
    ),
  ).toEqual(format)
})

const formatted: Partial<ParagraphFormat>[] = [
  {
    tabs: [
      { position: 72, align: "decimal", leader: "dotted" },
      { position: 200, align: "right", leader: "solid" },
    ],
  },
  { borders: { top: { pattern: "double", width: 1, colour: "#112233", distance: 3 } }, shading: "#ffeecc" },
  { orphans: 1, widows: 1, keepTogether: true, hyphenate: true, spaceAlike: false },
  { dropCap: { lines: 3, distance: 4, family: null } },
  { dropCap: { lines: 2, distance: 4, family: "Lora" } },
  { columnBefore: true },
]
test.each(formatted)("paragraphs come back: %j", (format) => {
  const doc = document([p("before"), paragraph("body", ["The tide"], format)])
  for (const { doc: back } of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
  ])
    expect(paragraphAttrs(bodyOf(back).child(1)).format).toEqual(format)
})

test("a paragraph that is still empty begins a column all the same", () => {
  const doc = document([p("before"), paragraph("body", [], { columnBefore: true }), p("behind")])
  for (const { doc: back } of [
    readOfficeOpenXml(writeOfficeOpenXml(doc, sources)),
    readOpenDocument(writeOpenDocument(doc, sources)),
    readFile(writeRtf(doc, sources), "x.rtf"),
  ])
    expect(bodyOf(back).children.map((own) => [own.textContent, paragraphAttrs(own).format])).toEqual([
      ["before", null],
      ["", { columnBefore: true }],
      ["behind", null],
    ])
})

test("a file holds a picture once, and says of each part what it is", () => {
  const buoy = nodes.picture.create({ asset: picture, source: null, pixels: [8, 6], format: null })
  const doc = document([
    p(buoy),
    p(buoy),
    p(nodes.picture.create({ asset: "0".repeat(64), source: null, pixels: [8, 6], format: null })),
  ])
  const docx = unzip(writeOfficeOpenXml(doc, sources))
  expect([...docx.keys()].filter((path) => path.startsWith("word/media/"))).toHaveLength(1)
  const odt = unzip(writeOpenDocument(doc, sources))
  expect([...odt.keys()][0]).toBe("mimetype")
  expect([...odt.keys()].filter((path) => path.startsWith("Pictures/"))).toHaveLength(1)
  const text = (own: Uint8Array | undefined) => new TextDecoder().decode(own)
  for (const path of [...docx.keys()].filter((own) => /^(word|docProps)\/[^/]*\.xml$/.test(own)))
    expect(text(docx.get("[Content_Types].xml"))).toContain(`"/${path}"`)
  for (const path of [...odt.keys()].filter((own) => !/^(mimetype|META-INF)/.test(own)))
    expect(text(odt.get("META-INF/manifest.xml"))).toContain(`"${path}"`)
})
