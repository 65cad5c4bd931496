import fc from "fast-check"
import { Slice } from "prosemirror-model"
import { bodyOf, defaultStyles, document, letters, p, paragraph } from "../src/document"
import { checkDocument } from "../src/document/reading"
import { pasteSlice } from "../src/editing"
import { inLocalLook, readHtml, safeLink, writeHtml } from "../src/formats/html"
import { after, stateOf, styles, texts, told } from "./telling"

const read = (html: string) => {
  const slice = readHtml(html)
  return slice.content.content.map((node) => ({
    style: node.attrs.style as string,
    text: node.textBetween(0, node.content.size, "", "\n"),
    runs: node.content.content.map((c) => [
      c.text ?? "\n",
      Object.fromEntries(c.marks.map((m) => [m.type.name, m.attrs.value])),
    ]),
    format: node.attrs.format as unknown,
  }))
}

test("tags become styles and marks; what gives letters a look is kept", () => {
  const [heading, body, quotation] = read(
    `<h2 class="x"><b>Mooring</b></h2><p align="center">The <b>chain</b> <span style="font-family:Georgia,serif;font-size:16px;color:rgb(122, 31, 75);font-weight:600">ferry</span><br><a href="https://ferry.example/a">see</a></p><blockquote>Patience</blockquote>`,
  )
  expect(heading).toMatchObject({ style: "heading2", runs: [["Mooring", { bold: true }]] })
  expect(body).toMatchObject({ style: "body", format: { align: "center" }, text: "The chain ferry\nsee" })
  expect(body!.runs[1]).toEqual(["chain", { bold: true }])
  expect(body!.runs[3]).toEqual(["ferry", { family: "Gelasio", size: 12, colour: "#7a1f4b", bold: true }])
  expect(body!.runs.at(-1)).toEqual(["see", { link: "https://ferry.example/a" }])
  expect(quotation).toMatchObject({ style: "quotation", text: "Patience" })
})

test("script, style, pictures and foreign addresses stay out", () => {
  const html = `<style>p{}</style><script>alert(1)</script><p onclick="x()">A<img src="https://spy.example/p.gif"><iframe src="x"></iframe><a href="javascript:alert(1)">b</a><span style="display:none">hidden</span></p><!-- note -->`
  expect(read(html)).toEqual([{ style: "body", text: "Ab", runs: [["Ab", {}]], format: null }])
  expect([
    safeLink("javascript:x"),
    safeLink(" https://a.example "),
    safeLink("mailto:imre@ferry.example"),
    safeLink("data:text/html,x"),
  ]).toEqual([undefined, "https://a.example", "mailto:imre@ferry.example", undefined])
})

test("tables come as tables; packing and white space are left out", () => {
  const html = `<html><body>outside<!--StartFragment--><ol><li>one</li><li><p>two</p></li></ol><ul>\n  <li>three</li>\n</ul><table><tr><th>Name</th><td> Sum </td></tr></table><p>\n   much \n  space </p><p>&nbsp;</p><pre>a\n  b</pre><!--EndFragment--></body></html>`
  expect(read(html).map((b) => b.text)).toEqual(["one", "two", "three", "NameSum", "much space", "", "a\n  b"])
})

test("letters join the paragraph they land in, paragraphs divide it", () => {
  const state = stateOf([p("The ferry")], [0, 4])
  expect(told(after(state, pasteSlice(readHtml("<b>old</b> "))))).toMatch(/^The old\|? ?ferry|^The old ?\|ferry/)
  const divided = after(state, pasteSlice(readHtml("<h1>Head</h1><p>tail</p>")))
  expect(texts(divided.doc)).toEqual(["The ", "Head", "tail", "ferry"])
  expect(styles(divided.doc)).toEqual(["body", "heading1", "body", "body"])
  expect(pasteSlice(Slice.empty)(state)).toBe(false)
})

test("in the look of where it lands stress and links stay, typeface, size and colour go", () => {
  const slice = inLocalLook(
    readHtml(
      `<p style="text-align:right"><b style="font-size:30pt;color:red">big</b> <a href="https://a.example">link</a></p><h1>Head</h1>`,
    ),
    "quotation",
    null,
  )
  const [first, second] = slice.content.content
  expect(first!.attrs).toMatchObject({ style: "quotation", format: null })
  expect(first!.child(0).marks.map((m) => m.type.name)).toEqual(["bold"])
  expect(first!.lastChild!.marks.map((m) => m.type.name)).toEqual(["link"])
  expect(second!.attrs.style).toBe("heading1")
})

test("what is written out reads back: headings, stress, typeface, size, colour, links, alignment", () => {
  const doc = document([
    paragraph("heading1", ["Mooring & rights"]),
    paragraph(
      "body",
      [
        "a ",
        letters("b", { bold: true, italic: true }),
        letters("c", { underline: "single", size: 20, family: "Arimo", colour: "#7a1f4b" }),
        letters("d", { link: "https://a.example/?q=1&r=2" }),
      ],
      { align: "right" },
    ),
  ])
  const html = writeHtml(new Slice(bodyOf(doc).content, 0, 0), defaultStyles)
  expect(html).toContain("<h1")
  expect(html).toContain("<strong><em>b</em></strong>")
  expect(html).not.toMatch(/class=|data-/)
  const [heading, body] = read(html)
  expect(heading).toMatchObject({ style: "heading1", text: "Mooring & rights" })
  expect(body!.format).toMatchObject({ align: "right" })
  const marked = Object.fromEntries(body!.runs.map(([text, marks]) => [text as string, marks]))
  expect(marked.b).toMatchObject({ bold: true, italic: true })
  expect(marked.c).toMatchObject({ underline: "single", size: 20, family: "Arimo", colour: "#7a1f4b" })
  expect(marked.d).toMatchObject({ link: "https://a.example/?q=1&r=2" })
})

test("no HTML breaks the reader, and whatever comes out fits the schema", () => {
  const tag = fc.constantFrom(
    "p",
    "b",
    "div",
    "table",
    "tr",
    "td",
    "li",
    "ul",
    "ol",
    "h1",
    "pre",
    "span",
    "a",
    "br",
    "script",
    "blockquote",
  )
  const piece = fc.oneof(
    fc.string(),
    tag.map((t) => `<${t}>`),
    tag.map((t) => `</${t}>`),
    fc.constantFrom(
      '<a href="x">',
      '<span style="font-size:9e9pt;color:zz;text-align:up">',
      "<p style='font-weight:bold",
      "&nbsp;",
      "\n",
    ),
  )
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
      readHtml(pieces.join("")).content.content.forEach((node) => node.check())
    }),
    { numRuns: 300 },
  )
  expect(() => readHtml("<div>".repeat(2000) + "deep")).not.toThrow()
})

describe("what is made to be awkward", () => {
  test("elements nested beyond all measure keep their text", () => {
    const deep = (tag: string, depth: number) =>
      readHtml(`${`<${tag}>`.repeat(depth)}below${`</${tag}>`.repeat(depth)}<p>after</p>`).content.textBetween(
        0,
        readHtml(`${`<${tag}>`.repeat(depth)}below${`</${tag}>`.repeat(depth)}<p>after</p>`).content.size,
        "|",
      )
    for (const tag of ["div", "b", "span", "blockquote"]) expect(deep(tag, 3000)).toContain("below")
    expect(readHtml(`${"<ul><li>".repeat(3000)}below`).content.childCount).toBeLessThan(3)
  })

  test("words that objects have are no colours, tags or kinds of lists", () => {
    const slice = readHtml(
      '<p style="color:constructor;background:toString">a</p><constructor>b</constructor><ol type="constructor"><li>c</li></ol><font color="valueOf">d</font>',
    )
    expect(() => checkDocument(document(slice.content.content))).not.toThrow()
    expect(slice.content.textBetween(0, slice.content.size, "|")).toBe("a|b|c|d")
  })

  test("long values of style are passed over in time that grows with their length", () => {
    expect(
      readHtml(
        `<p style="font-size:${"1".repeat(200_000)}x;color:rgb(${" ".repeat(200_000)}1">text</p>`,
      ).content.textBetween(0, 4),
    ).toContain("t")
  })

  test("many paragraphs beside one another are read in time that grows with their number, letters keep the blank behind them", () => {
    expect(readHtml("<p>Crossing</p>".repeat(50_000)).content.childCount).toBe(50_000)
    expect(readHtml("and <b>so </b>").content.textBetween(0, 8)).toContain("so ")
    expect(readHtml("<tr><td>a</td><td>b</td></tr>").content.firstChild?.type.name).toBe("table")
    expect(readHtml("</div><p>a</p></div><p>b</p>").content.childCount).toBe(2)
  })
})
