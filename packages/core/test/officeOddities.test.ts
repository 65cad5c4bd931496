/** What other producers of Office Open XML do that few do. */
import {
  bodyOf,
  cellFormat,
  document,
  leavesOf,
  letters,
  p,
  paragraphAttrs,
  pictureAttrs,
  sectionsOf,
  storiesOf,
  textOf,
} from "../src/document"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { unzip } from "../src/formats/zip"
import { base64 } from "../src/formats/html/page"
import { officeFile, wp, wr, type Made } from "./office"
import { picture, png } from "./officeDocuments"
import { texts } from "./telling"

const read = (made: Made) => readOfficeOpenXml(officeFile(made))
const size = (width: number) => `<w:sectPr><w:pgSz w:w="${width}" w:h="15840"/></w:sectPr>`

test("what is said of the last section may stand before its text", () => {
  const { doc } = read({ body: size(12240) + wp(wr("Tides")) + wp(wr("Ropes")) })
  expect(texts(doc)).toEqual(["Tides", "Ropes"])
  expect(sectionsOf(doc).map(({ setup }) => setup.width)).toEqual([612])
})

test("a break to a sheet that stays blank before a section is kept", () => {
  const broken = wp('<w:r><w:br w:type="page"/></w:r>')
  const { doc } = read({ body: wp(wr("Tides")) + broken + wp("", size(12240)) + wp(wr("Ropes")) + size(11906) })
  const [, blank] = bodyOf(doc).children
  expect(paragraphAttrs(blank!).format?.breakBefore).toBe(true)
  expect(sectionsOf(doc)).toHaveLength(2)
})

const page = '<h1>Tides</h1><p>The <b>ferry</b> is late: caf\u00e9.</p><img src="file:///C:/x/a.png">'
const quotedPrintable = (text: string) =>
  [...Buffer.from(text)]
    .map((byte) =>
      byte === 61 || byte > 126 ? `=${byte.toString(16).toUpperCase().padStart(2, "0")}` : String.fromCharCode(byte),
    )
    .join("")
    .replace("late", "la=\r\nte")
const message = (how: string, body: string) =>
  [
    "MIME-Version: 1.0",
    'Content-Type: multipart/related;\r\n    type="text/html";\r\n    boundary="----=part"',
    "",
    "------=part",
    'Content-Type: text/html;\r\n    charset="utf-8"',
    `Content-Transfer-Encoding: ${how}`,
    "Content-Location: file:///C:/x/page.html",
    "",
    body,
    "------=part",
    "Content-Type: image/png",
    "Content-Transfer-Encoding: base64",
    "Content-Location: file:///C:/x/a.png",
    "",
    base64(png).replace(/.{60}/g, "$&\r\n"),
    "------=part--",
  ].join("\r\n")
const chunk = (name: string, content: string | Uint8Array) =>
  read({
    body: wp(wr("Before")) + '<w:altChunk r:id="c"/>' + wp(wr("Behind")),
    relations: [["c", "aFChunk", name]],
    files: { [`word/${name}`]: content },
  })

test.each([
  ["a page", "a.html", page.replace("file:///C:/x/a.png", `data:image/png;base64,${base64(png)}`)],
  ["a message with quoted signs", "a.mht", message("quoted-printable", quotedPrintable(page))],
  ["a message in 64 signs", "a.mht", message("base64", Buffer.from(page).toString("base64"))],
  ["a message as it is", "a.mht", message("8bit", page)],
])("%s in a part of its own is text like any other", (_what, name, content) => {
  const { doc, assets, left } = chunk(name, content)
  expect(texts(doc)).toEqual(["Before", "Tides", "The ferry is late: café.", "\ufffc", "Behind"])
  expect(paragraphAttrs(leavesOf(doc).node(1)).style).toBe("heading1")
  expect(pictureAttrs(leavesOf(doc).node(3).firstChild!).asset).toBe(picture)
  expect([...assets.keys()]).toEqual([picture])
  expect(left).toEqual([])
})

test("plain text in a part of its own is read, other files are counted, and no more than there is room for", () => {
  expect(texts(chunk("a.txt", "one\r\ntwo\r\n").doc)).toEqual(["Before", "one", "two", "Behind"])
  for (const other of ["{\\rtf1 x}", new Uint8Array([0x50, 0x4b, 3, 4])])
    expect(chunk("a.bin", other).left).toEqual([{ what: "parts in other files", count: 1, leaves: [1] }])
  const { doc, left } = read({
    body: '<w:altChunk r:id="c"/>'.repeat(100) + wp(wr("Behind")),
    relations: [["c", "aFChunk", "a.html"]],
    files: { "word/a.html": "<p>one</p>" },
  })
  expect(leavesOf(doc).count).toBe(65)
  expect(left[0]?.count).toBe(36)
})

const m = (inside: string) =>
  read({
    body: `<w:p xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"><m:oMath>${inside}</m:oMath></w:p>`,
  })
const run = (text: string) => `<m:r><m:t>${text}</m:t></m:r>`
test.each([
  [`${run("x=")}<m:f><m:fPr/><m:num>${run("1")}</m:num><m:den>${run("a+b")}</m:den></m:f>`, "x=1/(a+b)"],
  [`<m:sSup><m:e>${run("x")}</m:e><m:sup>${run("2")}</m:sup></m:sSup>`, "x^2"],
  [`<m:rad><m:radPr/><m:deg/><m:e>${run("2y")}</m:e></m:rad>`, "√(2y)"],
  [
    `<m:nary><m:naryPr><m:chr m:val="∑"/></m:naryPr><m:sub>${run("i=1")}</m:sub><m:sup>${run("n")}</m:sup><m:e>${run("i")}</m:e></m:nary>`,
    "∑_(i=1)^n i",
  ],
  [
    `<m:d><m:dPr><m:begChr m:val="["/><m:endChr m:val="]"/></m:dPr><m:e>${run("a")}</m:e><m:e>${run("b")}</m:e></m:d>`,
    "[a|b]",
  ],
  [
    `<m:m><m:mr><m:e>${run("1")}</m:e><m:e>${run("0")}</m:e></m:mr><m:mr><m:e>${run("0")}</m:e><m:e>${run("1")}</m:e></m:mr></m:m>`,
    "[1, 0; 0, 1]",
  ],
  ["<m:d><m:e>".repeat(100) + run("deep") + "</m:e></m:d>".repeat(100), /deep/],
])("the equation %#", (inside, text) => {
  const { doc, left } = m(inside)
  const [shown] = texts(doc)
  if (typeof text === "string") expect(shown).toBe(text)
  else expect(shown).toMatch(text)
  expect(left).toEqual([{ what: "equations, as their signs", count: 1, leaves: [0] }])
})

test("looks that have no like here are said, each with its place", () => {
  const looks = '<w:w w:val="150"/><w:em w:val="dot"/><w:bdr w:val="single"/><w:imprint/>'
  const off = '<w:w w:val="100"/><w:em w:val="none"/><w:bdr w:val="nil"/><w:emboss w:val="0"/>'
  const { left } = read({
    body: wp(wr("x", looks)) + wp(wr("x", off)) + wp(wr("framed"), '<w:framePr w:w="4000"/>'),
  })
  expect(left.map(({ what, leaves }) => [what, leaves])).toEqual([
    ["letters made wider or narrower", [0]],
    ["marks above letters", [0]],
    ["borders round words", [0]],
    ["raised and sunk letters", [0]],
    ["frames, whose text stands among the rest", [2]],
  ])
})

test("each direction of lines in cells is read as it is meant, in both forms of the standard", () => {
  const said = {
    lrTb: "across",
    tb: "across",
    lrTbV: "across",
    btLr: "up",
    lr: "up",
    tbRl: "down",
    rlV: "down",
    tbLrV: "down",
  }
  const cell = (direction: string) =>
    `<w:tc><w:tcPr><w:textDirection w:val="${direction}"/></w:tcPr>${wp(wr(direction))}</w:tc>`
  const { doc } = read({ body: `<w:tbl><w:tr>${Object.keys(said).map(cell).join("")}</w:tr></w:tbl>${wp(wr("x"))}` })
  const found: [string, string][] = []
  doc.descendants((node) => {
    if (node.type.name === "cell") found.push([node.textContent, cellFormat(node).reading ?? "across"])
    return true
  })
  expect(Object.fromEntries(found)).toEqual(said)
})

describe("what stands behind the text", () => {
  const office = "http://schemas.openxmlformats.org/"
  const declared = `xmlns:w="${office}wordprocessingml/2006/main"`
  const names = 'xmlns:v="urn:schemas-of-drawings:vml" xmlns:o="urn:of:office"'
  const words = (style: string, attributes: string, inside: string) =>
    `<w:r><w:pict><v:shape ${names} id="x" style="position:absolute;${style}" ${attributes}>${inside}</v:shape></w:pict></w:r>`
  const head = (content: string) => `<w:hdr ${declared}>${content}</w:hdr>`
  const withHeads = (body: string, ...heads: string[]) =>
    read({
      body,
      relations: heads.map((_, i) => [`h${i}`, "header", `h${i}.xml`] as const),
      files: Object.fromEntries(heads.map((own, i) => [`word/h${i}.xml`, head(own)])),
    })
  const section = (heads: string) => `<w:sectPr>${heads}</w:sectPr>`
  const refer = (i: number, type = "default") => `<w:headerReference w:type="${type}" r:id="h${i}"/>`
  const draft = words(
    "width:400pt;height:100pt;rotation:315;z-index:-1",
    'fillcolor="silver [2]" stroked="f"',
    '<v:fill opacity=".5"/><v:textpath style="font-family:&quot;Arial&quot;;font-size:1pt" string="DRAFT"/>',
  )

  test("words in a head are the watermark of its section and of those that go on with it, and leave no head", () => {
    const body = `${wp(wr("a"), section(refer(0)))}${wp(wr("b"), section(""))}${wp(wr("c"))}${section(refer(1))}`
    const { doc, left } = withHeads(body, wp(draft), wp(wr("A head")))
    const [first, second, third] = sectionsOf(doc).map(({ setup }) => setup)
    const mark = { text: "DRAFT", family: "Arimo", size: 85, angle: 45, colour: "#c0c0c0", strength: 0.5 }
    expect([first!.watermark, second!.watermark, third!.watermark]).toEqual([mark, mark, null])
    expect([first!.head.all, left]).toEqual([null, []])
    expect(third!.head.all).not.toBeNull()
  })

  test("a head with words of its own keeps them", () => {
    const { doc } = withHeads(`${wp(wr("a"))}${section(refer(0))}`, wp(wr("Minutes") + draft))
    const [{ setup }] = sectionsOf(doc) as [ReturnType<typeof sectionsOf>[number]]
    expect([setup.watermark?.text, storiesOf(doc).get(setup.head.all!)?.node.textContent]).toEqual(["DRAFT", "Minutes"])
  })

  test("sizes, turns and strengths are read in every way that they are said, and what is none is none", () => {
    const mark = (own: string) => {
      const { doc } = withHeads(`${wp(wr("a"))}${section(refer(0))}`, wp(own))
      return sectionsOf(doc)[0]!.setup.watermark
    }
    const path = '<v:textpath style="font-family:Carlito;font-size:40pt" string="Copy"/>'
    expect(mark(words("rotation:-2949120fd", 'fillcolor="#f00"', `<v:fill opacity="32768f"/>${path}`))).toMatchObject({
      family: "Carlito",
      size: 40,
      angle: 45,
      colour: "#ff0000",
      strength: 0.5,
    })
    expect(mark(words("rotation:180", 'fillcolor="constructor"', `<v:fill opacity="9000%"/>${path}`))).toMatchObject({
      angle: 0,
      colour: "#c0c0c0",
      strength: 1,
    })
    expect(mark(words("", "", '<v:textpath string=" "/>'))).toBeNull()
    expect(mark(words("height:1e9pt", "", '<v:textpath string="Huge"/>'))?.size).toBeLessThanOrEqual(999)
  })
})

test("sheets and tables that have no like here are said too", () => {
  const section =
    '<w:sectPr><w:lnNumType w:countBy="5"/><w:vAlign w:val="center"/><w:textDirection w:val="tbRl"/></w:sectPr>'
  const row = `<w:tr><w:tc>${wp(wr("a"))}</w:tc></w:tr>`
  const { left } = read({
    body: `<w:tbl><w:tblPr><w:tblpPr w:tblpX="100"/><w:bidiVisual/></w:tblPr>${row}</w:tbl>${wp(wr("Tides"))}${section}`,
  })
  expect(left.map(({ what, count }) => [what, count])).toEqual([
    ["tables that text goes round, which stand in the text", 1],
    ["tables whose columns run from right to left, as from left to right", 1],
    ["numbers beside the lines", 1],
    ["text from top to bottom", 1],
    ["text in the middle or at the foot of its sheet", 1],
  ])
})

test("what runs from right to left says so, also amid other text, and comes back as it was", () => {
  const words = "abc שלום, 12 עולם. def مرحبا 3"
  const written = unzip(
    writeOfficeOpenXml(document([p(letters(words, { bold: true }))]), { name: null, asset: () => undefined }),
  )
  const body = new TextDecoder().decode(written.get("word/document.xml"))
  const runs = [...body.matchAll(/<w:r>(.*?)<\/w:r>/g)].map(([, run = ""]) => [
    run.includes("<w:rtl/>"),
    /<w:t[^>]*>(.*)<\/w:t>/.exec(run)?.[1],
  ])
  expect(runs).toEqual([
    [false, "abc "],
    [true, "שלום, 12 עולם"],
    [false, ". def "],
    [true, "مرحبا"],
    [false, " 3"],
  ])
  const { doc } = readOfficeOpenXml(
    writeOfficeOpenXml(document([p(letters(words, { bold: true }))]), { name: null, asset: () => undefined }),
  )
  expect(leavesOf(doc).node(0).childCount).toBe(1)
  expect(texts(doc)).toEqual([words])
})

test("all boxes of a group are read, each once", () => {
  const box = (text: string) => `<w:txbxContent>${wp(wr(text))}</w:txbxContent>`
  const group = `<w:r><w:drawing><wps>${box("one")}<inner>${box("two")}</inner></wps></w:drawing></w:r>`
  const { doc } = read({ body: wp(wr("Text") + group) })
  expect(doc.textBetween(0, doc.content.size, "|")).toContain("Text|one|two")
  expect(textOf(leavesOf(doc).node(0))).toBe("Text")
})
