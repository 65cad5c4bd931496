/** Office Open XML text in and out. */
import fc from "fast-check"
import mammoth from "mammoth"
import {
  bodyOf,
  cellFormat,
  document,
  documentAttrs,
  fieldAttrs,
  letters,
  leavesOf,
  nodes,
  p,
  paragraph,
  paragraphAttrs,
  pictureFormat,
  sectionsOf,
  storiesOf,
  table,
  type LetterFormat,
  type ParagraphFormat,
} from "../src/document"
import { ReadingError } from "../src/document/reading"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { readFile } from "../src/formats/table"
import { unzip, zip } from "../src/formats/zip"
import { officeFile, wp, wr, type Made } from "./office"
import { documents, formatsOf, lettersOf, order, picture, plain, png, said } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const read = (made: Made) => readOfficeOpenXml(officeFile(made))
const blocksIn = (made: Made) => bodyOf(read(made).doc).children
const first = (made: Made) => blocksIn(made)[0] as Node

const write = (doc: Node) =>
  writeOfficeOpenXml(doc, { name: "Tides", asset: (name) => (name === picture ? png : undefined) })
const around = (doc: Node) => readOfficeOpenXml(write(doc)).doc

test.each<[string, Partial<LetterFormat>]>([
  ["<w:b/><w:i w:val='0'/>", { bold: true, italic: false }],
  ["<w:sz w:val='23'/><w:color w:val='AB12CD'/>", { size: 11.5, colour: "#ab12cd" }],
  ["<w:rFonts w:ascii='Arial' w:hAnsi='Arial'/>", { family: "Arimo" }],
  ["<w:u w:val='wavyHeavy' w:color='FF0000'/>", { underline: "wavy", underlineColour: "#ff0000" }],
  [
    "<w:b w:val='0'/><w:bCs/><w:iCs/><w:sz w:val='20'/><w:szCs w:val='28'/><w:rtl/>",
    { bold: true, italic: true, size: 14 },
  ],
  ["<w:b w:val='0'/><w:bCs/><w:sz w:val='20'/><w:szCs w:val='28'/><w:rtl w:val='0'/>", { bold: false, size: 10 }],
  ["<w:dstrike/><w:smallCaps/>", { strike: "double", caps: "small" }],
  ["<w:vertAlign w:val='superscript'/><w:position w:val='-6'/>", { script: "super", raise: -3 }],
  ["<w:highlight w:val='yellow'/><w:spacing w:val='30'/>", { highlight: "#ffff00", spacing: 1.5 }],
  [
    "<w:shd w:val='pct50' w:color='000000' w:fill='FFFFFF'/><w:lang w:val='fr-FR'/>",
    { highlight: "#808080", language: "fr-FR" },
  ],
])("letters: %s", (properties, format) => {
  expect(lettersOf(first({ body: wp(wr("Tide", properties)) }).firstChild as Node)).toEqual(format)
})

test.each<[string, Partial<ParagraphFormat>]>([
  ["<w:jc w:val='both'/><w:keepNext/>", { align: "justify", keepNext: true }],
  [
    "<w:spacing w:before='120' w:after='0' w:line='360' w:lineRule='auto'/>",
    { spaceBefore: 6, spaceAfter: 0, lineSpacing: { rule: "multiple", value: 1.5 } },
  ],
  ["<w:ind w:left='720' w:hanging='360'/>", { indentLeft: 36, indentFirst: -18 }],
  ["<w:bidi/><w:jc w:val='left'/>", { direction: "rtl", align: "right" }],
  ["<w:bidi/><w:jc w:val='end'/>", { direction: "rtl", align: "left" }],
  [
    "<w:tabs><w:tab w:val='decimal' w:leader='dot' w:pos='2880'/></w:tabs>",
    { tabs: [{ position: 144, align: "decimal", leader: "dotted" }] },
  ],
  [
    "<w:pBdr><w:bottom w:val='double' w:sz='8' w:space='2' w:color='00FF00'/></w:pBdr>",
    { borders: { bottom: { pattern: "double", width: 1, colour: "#00ff00", distance: 2 } } },
  ],
  ["<w:widowControl w:val='off'/><w:pageBreakBefore/>", { orphans: 1, widows: 1, breakBefore: true }],
])("paragraphs: %s", (properties, format) => {
  expect(paragraphAttrs(first({ body: wp(wr("Tide"), properties) })).format).toEqual(format)
})

test("the strict form reads like the transitional one, with units behind its lengths", () => {
  const body = wp(wr("Tide", "<w:sz w:val='12pt'/>"), "<w:ind w:start='1in'/><w:jc w:val='end'/>")
  expect(paragraphAttrs(first({ body, strict: true })).format).toEqual({ indentLeft: 72, align: "right" })
  expect(lettersOf(first({ body, strict: true }).firstChild as Node)).toEqual({ size: 12 })
})

test("styles are known by the names that the standard gives; others keep theirs, what they start from and what follows", () => {
  const styles = `<w:docDefaults><w:rPrDefault><w:rPr><w:sz w:val="22"/></w:rPr></w:rPrDefault></w:docDefaults>
    <w:style w:type="paragraph" w:default="1" w:styleId="a"><w:name w:val="Normal"/><w:pPr><w:spacing w:after="160"/></w:pPr></w:style>
    <w:style w:type="paragraph" w:styleId="b"><w:name w:val="heading 1"/><w:basedOn w:val="a"/><w:next w:val="a"/><w:rPr><w:b/></w:rPr></w:style>
    <w:style w:type="paragraph" w:styleId="c"><w:name w:val="Toll rules"/><w:basedOn w:val="b"/><w:pPr><w:outlineLvl w:val="3"/></w:pPr></w:style>
    <w:style w:type="paragraph" w:styleId="constructor"><w:name w:val="Round"/><w:basedOn w:val="constructor"/></w:style>`
  const { doc } = read({ styles, body: wp(wr("x"), '<w:pStyle w:val="c"/>') + wp(wr("y"), '<w:pStyle w:val="gone"/>') })
  const { styles: sheet, defaults } = documentAttrs(doc).styles
  expect(defaults.letters.size).toBe(11)
  expect(sheet.body?.paragraph.spaceAfter).toBe(8)
  expect(sheet.heading1).toMatchObject({ parent: "heading", next: "body", outline: 1, letters: { bold: true } })
  expect(sheet.c).toMatchObject({ name: "Toll rules", parent: "heading1", outline: 4 })
  expect(sheet.constructor).toMatchObject({ name: "Round", parent: null })
  expect(leavesOf(doc).nodes.map((leaf) => leaf.attrs.style as string)).toEqual(["c", "body"])
})

test("lists: runs that begin anew, levels, marks of symbol faces, boxes to tick", () => {
  const lvl = (n: number, rest: string) => `<w:lvl w:ilvl="${n}"><w:start w:val="1"/>${rest}</w:lvl>`
  const numbering = `<w:abstractNum w:abstractNumId="7">${lvl(0, '<w:numFmt w:val="upperRoman"/><w:lvlText w:val="%1."/><w:pPr><w:ind w:left="720" w:hanging="360"/></w:pPr>')}${lvl(1, '<w:numFmt w:val="bullet"/><w:lvlText w:val="&#xF0B7;"/><w:rPr><w:rFonts w:ascii="Symbol"/></w:rPr>')}</w:abstractNum>
    <w:abstractNum w:abstractNumId="8">${lvl(0, '<w:numFmt w:val="bullet"/><w:lvlText w:val="☑"/>')}</w:abstractNum>
    <w:num w:numId="1"><w:abstractNumId w:val="7"/></w:num>
    <w:num w:numId="2"><w:abstractNumId w:val="7"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="5"/></w:lvlOverride></w:num>
    <w:num w:numId="3"><w:abstractNumId w:val="8"/></w:num>`
  const item = (num: number, level: number) =>
    wp(wr("x"), `<w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="${num}"/></w:numPr>`)
  const { doc } = read({
    numbering,
    body: item(1, 0) + item(1, 1) + item(2, 0) + item(2, 0) + item(3, 0) + item(99, 0),
  })
  expect(bodyOf(doc).children.map((own) => paragraphAttrs(own).format?.list)).toEqual([
    { definition: "list-7", run: "", level: 0 },
    { definition: "list-7", run: "", level: 1 },
    { definition: "list-7", run: "2", level: 0, start: 5 },
    { definition: "list-7", run: "2", level: 0 },
    { definition: "tasks", run: "", level: 0, done: true },
    null,
  ])
  const [roman, dot] = documentAttrs(doc).styles.lists["list-7"]?.levels ?? []
  expect(roman).toMatchObject({ kind: "number", numbering: "upperRoman", format: "%1.", indent: 36, hanging: 18 })
  expect(dot).toMatchObject({ kind: "mark", format: "•" })
})

test("fields: of heads and feet, over several runs, inside one another; contents stand for what they list", () => {
  const sign = (type: string) => `<w:r><w:fldChar w:fldCharType="${type}"/></w:r>`
  const instruction = (text: string) => `<w:r><w:instrText>${text}</w:instrText></w:r>`
  const head = `<w:hdr xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main">${wp(wr("Sheet ") + `<w:fldSimple w:instr=" PAGE ">${wr("4")}</w:fldSimple>`)}</w:hdr>`
  const body =
    wp(sign("begin") + instruction(' TOC \\o "1-2" ') + sign("separate") + wr("Tides 1")) +
    wp(wr("Slack 2") + sign("end")) +
    wp(
      sign("begin") +
        instruction(" DATE \\@ ") +
        instruction('"d MMMM yyyy" ') +
        sign("separate") +
        wr("1 May 2020") +
        sign("end"),
    ) +
    wp(
      sign("begin") +
        instruction(" QUOTE ") +
        sign("begin") +
        instruction(" TITLE ") +
        sign("separate") +
        wr("T") +
        sign("end") +
        sign("separate") +
        wr("kept") +
        sign("end"),
    ) +
    wp(
      sign("begin") + instruction(' HYPERLINK "https://ferry.example/a" ') + sign("separate") + wr("led") + sign("end"),
    ) +
    wp(`<w:fldSimple w:instr="PAGE">${wr("9")}</w:fldSimple>`) +
    `<w:sectPr><w:headerReference w:type="default" r:id="h"/></w:sectPr>`
  const { doc } = read({ body, relations: [["h", "header", "header1.xml"]], files: { "word/header1.xml": head } })
  const [contents, date, kept, led, page] = bodyOf(doc).children as [Node, Node, Node, Node, Node]
  expect(contents.type.name).toBe("contents")
  expect(contents.attrs).toMatchObject({ levels: 2, of: "" })
  expect(fieldAttrs(date.firstChild as Node)).toEqual({ kind: "date", format: "long" })
  expect([kept.textContent, led.textContent, page.textContent]).toEqual(["kept", "led", "9"])
  expect(lettersOf(led.firstChild as Node)).toEqual({ link: "https://ferry.example/a" })
  const [story] = storiesOf(doc).values()
  expect(story?.node.firstChild?.children.map((own) => own.text ?? fieldAttrs(own).kind)).toEqual(["Sheet ", "page"])
})

test("a reference that would show other words than it did keeps those, leading to the place", () => {
  const place = (name: string, inside: string) =>
    `<w:bookmarkStart w:id="1" w:name="${name}"/>${inside}<w:bookmarkEnd w:id="1"/>`
  const ref = (instr: string, shown: string) => wp(`<w:fldSimple w:instr="${instr}">${wr(shown)}</w:fldSimple>`)
  const { doc } = read({
    body:
      wp(place("tides", wr("Tides and times"))) +
      ref("REF tides \\h", "Tides and times") +
      ref("REF tides \\h", "Tides") +
      ref("REF nowhere", "gone") +
      ref("PAGEREF tides", "7"),
  })
  const shown = bodyOf(doc)
    .children.slice(1)
    .map((own) => own.children.map((node) => node.text ?? fieldAttrs(node).format).join())
  expect(shown).toEqual(["words tides", "Tides", "gone", "sheet tides"])
})

test("tables: joined both ways, ragged rows, conditions of their style on the cells, heads", () => {
  const cell = (text: string, properties = "") => `<w:tc><w:tcPr>${properties}</w:tcPr>${wp(wr(text))}</w:tc>`
  const styles = `<w:style w:type="table" w:styleId="T"><w:name w:val="T"/>
    <w:tblStylePr w:type="firstRow"><w:rPr><w:b/></w:rPr><w:tcPr><w:shd w:val="clear" w:fill="112233"/></w:tcPr></w:tblStylePr></w:style>`
  const grid = blocksIn({
    styles,
    body: `<w:tbl><w:tblPr><w:tblStyle w:val="T"/></w:tblPr>
      <w:tr><w:trPr><w:tblHeader/></w:trPr>${cell("a", '<w:gridSpan w:val="2"/>')}${cell("b", '<w:vMerge w:val="restart"/>')}</w:tr>
      <w:tr>${cell("c")}${cell("d")}${cell("", "<w:vMerge/>")}</w:tr>
      <w:tr>${cell("e")}</w:tr></w:tbl>`,
  })[0] as Node
  expect(
    grid.children.map((row) => row.children.map((own) => `${own.textContent}${own.attrs.colspan}${own.attrs.rowspan}`)),
  ).toEqual([
    ["a21", "b12"],
    ["c11", "d11"],
    ["e11", "11", "11"],
  ])
  expect(cellFormat(grid.firstChild?.firstChild as Node).shading).toBe("#112233")
  expect(lettersOf(grid.firstChild?.firstChild?.firstChild?.firstChild as Node)).toEqual({ bold: true })
  expect(grid.attrs.format).toMatchObject({ headRows: 1 })
})

test("what the style of a table says of the text in it holds where the styles of that say nothing; names of parts count in any case", () => {
  const styles = `<w:style w:type="paragraph" w:default="1" w:styleId="N"><w:name w:val="Normal"/><w:rPr><w:color w:val="112233"/></w:rPr></w:style>
    <w:style w:type="table" w:default="1" w:styleId="T"><w:name w:val="T"/><w:pPr><w:spacing w:after="0"/><w:jc w:val="center"/></w:pPr><w:rPr><w:color w:val="FF0000"/><w:i/></w:rPr></w:style>`
  const grid = blocksIn({
    styles,
    body: `<w:tbl><w:tblGrid/><w:tr><w:tc><w:tcPr><w:tcW w:w="1440" w:type="dxa"/></w:tcPr>${wp(wr("c"), '<w:jc w:val="right"/>')}</w:tc></w:tr></w:tbl>`,
  })[0] as Node
  const inside = grid.firstChild?.firstChild?.firstChild as Node
  expect(paragraphAttrs(inside).format).toEqual({ spaceAfter: 0, align: "right" })
  expect(lettersOf(inside.firstChild as Node)).toEqual({ italic: true })
  expect(grid.attrs.format).toMatchObject({ columns: [72] })
  const source = officeFile({ body: wp(wr("Tide")) })
  const files = new Map(
    [...unzip(source)].map(([path, bytes]) => [path.toUpperCase().replace("_RELS/.RELS", "_rels/.rels"), bytes]),
  )
  expect(readOfficeOpenXml(zip(files)).doc.textContent).toBe("Tide")
})

test("breaks divide paragraphs; sections hand their setup on; notes come along; what is removed stays out", () => {
  const section = (rest: string) => `<w:sectPr><w:pgSz w:w="16838" w:h="11906"/>${rest}</w:sectPr>`
  const { doc, left } = read({
    footnotes: `<w:footnote w:id="-1" w:type="separator">${wp("")}</w:footnote><w:footnote w:id="2">${wp(wr(" Said."))}</w:footnote>`,
    body:
      wp(wr("one") + '<w:r><w:br w:type="page"/></w:r>' + wr("two")) +
      wp('<w:r><w:br w:type="page"/></w:r>') +
      wp(wr("three") + '<w:r><w:footnoteReference w:id="2"/></w:r>', section('<w:cols w:num="2" w:space="400"/>')) +
      wp(wr("four") + `<w:del><w:r><w:delText>gone</w:delText></w:r></w:del><w:ins>${wr("!")}</w:ins>`) +
      '<w:sectPr><w:type w:val="continuous"/><w:titlePg/></w:sectPr>',
  })
  const blocks = bodyOf(doc).children
  expect(blocks.map((own) => own.textContent)).toEqual(["one", "two", "three", "", "four!"])
  expect(blocks.map((own) => (own.attrs.format as ParagraphFormat | null)?.breakBefore ?? false)).toEqual([
    false,
    true,
    true,
    false,
    false,
  ])
  expect(sectionsOf(doc).map(({ setup }) => [setup.width, setup.columns.count, setup.begins, setup.firstOwn])).toEqual([
    [841.9, 2, "sheet", false],
    [612, 1, "continuous", true],
  ])
  expect(storiesOf(doc).values()[0]?.node.textContent).toBe("Said.")
  expect(left).toContainEqual({ what: "removed text of proposed edits", count: 1, leaves: [3] })
})

test("pictures in the line and beside it, cropped and turned, each file once; those elsewhere are never fetched", () => {
  const a = "http://schemas.openxmlformats.org/drawingml/2006"
  const drawing = (id: string, frame: string, rest = "") =>
    `<w:r><w:drawing>${frame.replace("/>", ">")}<wp:extent xmlns:wp="${a}/wordprocessingDrawing" cx="914400" cy="457200"/>${rest}<a:graphic xmlns:a="${a}/main"><a:graphicData><pic:pic xmlns:pic="${a}/picture"><pic:blipFill><a:blip r:embed="${id}"/><a:srcRect l="25000"/></pic:blipFill><pic:spPr><a:xfrm rot="5400000"/><a:prstGeom prst="ellipse"/></pic:spPr></pic:pic></a:graphicData></a:graphic>${frame.replace(/<([\w:]+).*/, "</$1>")}</w:drawing></w:r>`
  const inline = `<wp:inline xmlns:wp="${a}/wordprocessingDrawing"/>`
  const anchor = `<wp:anchor xmlns:wp="${a}/wordprocessingDrawing" behindDoc="0"/>`
  const place = `<wp:positionH xmlns:wp="${a}/wordprocessingDrawing" relativeFrom="page"><wp:align>center</wp:align></wp:positionH><wp:wrapTight xmlns:wp="${a}/wordprocessingDrawing" wrapText="largest"/>`
  const { doc, assets, left } = read({
    body: wp(drawing("i", inline) + drawing("i", anchor, place) + drawing("x", inline)),
    relations: [
      ["i", "image", "media/a.png"],
      ["x", "image", "http://evil.example/a.png"],
    ],
    files: { "word/media/a.png": png },
  })
  const [one, two, ...rest] = bodyOf(doc).firstChild?.children ?? []
  expect(rest).toEqual([])
  expect(pictureFormat(one as Node)).toMatchObject({
    width: 72,
    height: 36,
    turn: 90,
    shape: "round",
    wrap: "line",
    crop: { left: 0.25 },
  })
  expect(pictureFormat(two as Node)).toMatchObject({
    wrap: "beside",
    side: "wider",
    across: { of: "sheet", align: "center" },
  })
  expect([...assets.keys()]).toEqual([picture])
  expect(left).toContainEqual({ what: "pictures that lie elsewhere", count: 1, leaves: [0] })
})

test("what is left out is told with its paragraphs, in cells and notes too, and how many were read", () => {
  const box = "<w:r><w:rPr><w:vanish/></w:rPr><w:t>unseen</w:t></w:r>"
  const told: number[] = []
  const { doc, left } = readOfficeOpenXml(
    officeFile({
      footnotes: `<w:footnote w:id="2">${wp(wr(" Said.") + box)}</w:footnote>`,
      body:
        wp(wr("one")).repeat(300) +
        `<w:tbl><w:tr><w:tc>${wp(wr("cell") + box)}</w:tc></w:tr></w:tbl>` +
        wp(wr("two") + '<w:r><w:footnoteReference w:id="2"/></w:r>') +
        wp(wr("three") + box + box),
    }),
    { progress: (count) => told.push(count) },
  )
  const [hidden] = left.filter(({ what }) => what === "hidden text")
  expect(hidden?.count).toBe(4)
  expect(hidden?.leaves.map((leaf) => leavesOf(doc).node(leaf).textContent)).toEqual(["cell", "Said.", "three"])
  expect(told).toEqual([250])
})

const runsOf = { numRuns: Number(process.env.BIBLON_RUNS ?? 60) }

test("what is written comes back: all text, letters, paragraphs, lists; and what came back comes back the same", () => {
  fc.assert(
    fc.property(documents, (doc) => {
      const once = around(doc)
      expect(plain(around(once))).toEqual(plain(once))
      expect(said(once)).toEqual(said(doc))
      expect(order(once)).toEqual(order(doc))
      expect(formatsOf(once)).toEqual(formatsOf(doc))
    }),
    runsOf,
  )
})

test("another reader finds the same headings, lists, tables, notes and links", async () => {
  const doc = document(
    [
      paragraph("heading1", ["Tides"]),
      p("Slack ", letters("water", { bold: true }), nodes.anchor.create({ story: "n" })),
      paragraph("body", ["first"], { list: { definition: "numbers", run: "a", level: 0 } }),
      paragraph("body", ["inner"], { list: { definition: "numbers", run: "a", level: 1 } }),
      p(letters("a page", { link: "https://ferry.example/x" })),
      table([
        [[p("Who")], [p("Fare")]],
        [[p("Oda")], [p("7")]],
      ]),
      p(nodes.picture.create({ asset: picture, source: null, pixels: [8, 6], format: { alt: "A buoy" } })),
    ],
    {},
    [nodes.story.create({ key: "n", kind: "note" }, paragraph("note", ["From the toll book."]))],
  )
  const { value } = await mammoth.convertToHtml({ buffer: Buffer.from(write(doc)) })
  expect(value).toContain("<h1>Tides</h1>")
  expect(value).toMatch(/Slack <strong>water<\/strong>(<sup>)+<a href="#footnote-1"/)
  expect(value).toContain("<ol><li>first<ol><li>inner</li></ol></li></ol>")
  expect(value).toContain('<a href="https://ferry.example/x">a page</a>')
  expect(value).toMatch(/<table>.*Who.*Fare.*Oda.*7.*<\/table>/)
  expect(value).toMatch(/<img alt="A buoy" src="data:image\/png;base64,/)
  expect(value).toContain("From the toll book.")
})

test("what is no such file, or wants too much, is said so or read as far as it goes", () => {
  const whole = officeFile({ body: wp(wr("Tide")) })
  expect(() => readFile(whole.subarray(0, whole.length / 2), "a.docx")).toThrow(ReadingError)
  expect(() => readOfficeOpenXml(new Uint8Array([0xd0, 0xcf, 0x11, 0xe0]))).toThrow("protected by a password")
  expect(() => read({ body: "", files: { "word/document.xml": "" } })).toThrow(ReadingError)
  expect(() =>
    read({
      body: "",
      files: { "word/document.xml": '<!DOCTYPE a [<!ENTITY b SYSTEM "file:///etc/passwd">]><a>&b;</a>' },
    }),
  ).toThrow("document type")
  const cut = read({
    body: "",
    files: {
      "word/document.xml": `<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>${wp(wr("Tide"))}<w:p><w:r><w:t>Sla`,
    },
  })
  expect(bodyOf(cut.doc).children.map((own) => own.textContent)).toEqual(["Tide", "Sla"])
  expect(cut.left).toContainEqual({ what: "damaged parts, read as far as they go", count: 1, leaves: [] })
  const deep = read({
    body: `${"<w:sdt><w:sdtContent>".repeat(5000)}${wp(wr("far down"))}${"</w:sdtContent></w:sdt>".repeat(5000)}${wp(wr("Tide"))}`,
  })
  expect(bodyOf(deep.doc).textContent).toContain("Tide")
  expect(readFile(whole, "tides.txt").doc.textContent).toBe("Tide")
})

test("a file with some bytes or signs changed is read or refused, never more", () => {
  const base = document(
    [paragraph("heading1", ["Tides"]), table([[[p("a")], [p("b")]]]), p("x", nodes.anchor.create({ story: "n" }))],
    {},
    [nodes.story.create({ key: "n", kind: "note" }, p("Said."))],
  )
  const bytes = write(base)
  const source = officeFile({
    body:
      wp(wr("Tide", "<w:b/><w:sz w:val='20'/>"), "<w:ind w:left='20'/>") +
      `<w:tbl><w:tr><w:tc>${wp(wr("c"))}</w:tc></w:tr></w:tbl>`,
  })
  fc.assert(
    fc.property(
      fc.constantFrom(bytes, source),
      fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 6 }),
      (own, changes) => {
        const mutated = Uint8Array.from(own)
        for (const [at, value] of changes) mutated[at % mutated.length] = value
        try {
          readOfficeOpenXml(mutated)
        } catch (error) {
          if (!(error instanceof ReadingError)) throw error
        }
      },
    ),
    runsOf,
  )
  const text = `${wp(wr("Tide", "<w:b/><w:sz w:val='20'/>"), "<w:ind w:left='20'/><w:numPr><w:numId w:val='1'/></w:numPr>")}<w:tbl><w:tblGrid><w:gridCol w:w='99'/></w:tblGrid><w:tr><w:tc><w:tcPr><w:gridSpan w:val='3'/></w:tcPr>${wp(wr("c"))}</w:tc></w:tr></w:tbl>`
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.nat(text.length), fc.constantFrom("<", ">", "9", "-", '"', "w:", "\u0000", "&", "/", "e99")),
        { minLength: 1, maxLength: 5 },
      ),
      (changes) => {
        const mutated = changes.reduce((own, [at, sign]) => own.slice(0, at) + sign + own.slice(at + 1), text)
        try {
          read({ body: mutated })
        } catch (error) {
          if (!(error instanceof ReadingError)) throw error
        }
      },
    ),
    runsOf,
  )
})
