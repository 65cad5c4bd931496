/** CommonMark in and out, books, pages with pictures, Biblon's own file. */
import {
  bodyOf,
  document,
  documentAttrs,
  leavesOf,
  letters,
  nodes,
  p,
  paragraph,
  paragraphAttrs,
  pictureFormat,
  storiesOf,
  table,
} from "../src/document"
import { formats, readFile } from "../src/formats/table"
import { unzip } from "../src/formats/zip"
import { lettersOf, picture, png } from "./officeDocuments"
import type { Node } from "prosemirror-model"

const bytes = (text: string) => new TextEncoder().encode(text)
const text = (own: Uint8Array) => new TextDecoder().decode(own)
const asset = (name: string) => (name === picture ? png : undefined)
const buoy = nodes.picture.create({
  asset: picture,
  source: null,
  pixels: [8, 6],
  format: { width: 40, height: 30, alt: "A buoy" },
})
const list = (definition: string, level: number, run = "a") => ({ list: { definition, run, level } })
const report = document(
  [
    paragraph("heading1", ["Tides & times"]),
    p(
      "Slack ",
      letters("water ", { bold: true }),
      "at *noon*",
      nodes.anchor.create({ story: "n" }),
      " and ",
      letters("a page", { link: "https://ferry.example/x" }),
    ),
    paragraph("body", ["first"], list("numbers", 0)),
    paragraph("body", ["inner"], list("numbers", 1)),
    paragraph("body", ["oars"], list("marks", 0, "b")),
    paragraph("quotation", ["Said by others"]),
    table([
      [[p("Who")], [p("Fare")]],
      [[p("Oda")], [p("7")]],
    ]),
    p(buoy, letters("marked", { place: "the end" })),
    paragraph("heading1", ["Slack"]),
    p(letters("back", { link: "#the end" })),
  ],
  {},
  [nodes.story.create({ key: "n", kind: "note" }, paragraph("note", ["From the toll book."]))],
)
const write = (kind: "html" | "commonmark" | "epub" | "json", doc: Node = report) =>
  formats[kind].write?.({ name: "Tides", doc }, asset) ?? new Uint8Array()

test("CommonMark is written with its signs, and what it says comes back", () => {
  const made = text(write("commonmark"))
  expect(made).toContain(
    "# Tides & times\n\nSlack **water** at \\*noon\\*[^1] and [a page](<https://ferry.example/x>)\n",
  )
  expect(made).toContain(
    "1. first\n    1. inner\n- oars\n\n> Said by others\n\n| Who | Fare |\n| --- | --- |\n| Oda | 7 |",
  )
  expect(made).toContain("[^1]: From the toll book.")
  const { doc, assets } = readFile(bytes(made), "a.md")
  expect(
    leavesOf(doc)
      .nodes.slice(0, 6)
      .map((leaf) => `${leaf.attrs.style as string}: ${leaf.textContent}`),
  ).toEqual([
    "heading1: Tides & times",
    "body: Slack water at *noon* and a page",
    "body: first",
    "body: inner",
    "body: oars",
    "quotation: Said by others",
  ])
  expect(paragraphAttrs(bodyOf(doc).child(3)).format?.list).toMatchObject({ definition: "numbers", level: 1 })
  expect(lettersOf(bodyOf(doc).child(1).child(1))).toEqual({ bold: true })
  expect(bodyOf(doc).children.some((own) => own.type.name === "table")).toBe(true)
  expect([...assets.keys()]).toEqual([picture])
})

test.each([
  ["# not", "\\# not"],
  ["1. no item", "1\\. no item"],
  ["a_b <i> [x] &amp;", "a\\_b \\<i\\> \\[x\\] \\&amp;"],
])("signs in the text stay text: %s", (own, made) => {
  expect(text(write("commonmark", document([p(own)]))).trim()).toBe(made)
  expect(readFile(bytes(made), "a.md").doc.textContent).toBe(own)
})

test("what stands before CommonMark names it; ticks and HTML in it are read for what they are", () => {
  const { name, doc } = readFile(
    bytes("---\ntitle: The ferry\n---\n- [x] oars\n- [ ] chain\n\n<script>x</script>"),
    "a.md",
  )
  expect(name).toBe("The ferry")
  expect(bodyOf(doc).children.map((own) => paragraphAttrs(own).format?.list?.done)).toEqual([true, false, undefined])
  expect(doc.textContent).toContain("<script>x</script>")
})

test("a page holds its pictures and notes, and gives the pictures back; those elsewhere are never asked for", () => {
  const page = text(write("html"))
  expect(page).toMatch(/<sup><a id="mark-n" href="#note-n" role="doc-noteref">1<\/a><\/sup>/)
  expect(page).toContain("From the toll book.")
  expect(page).toMatch(
    /<a href="#p-the_20end">.*<a id="p-the_20end">|<a id="p-the_20end">[\s\S]*<a href="#p-the_20end">/,
  )
  const { doc, assets, left } = readFile(bytes(page + '<img src="https://evil.example/a.png">'), "a.html")
  const [own] = leavesOf(doc).nodes.flatMap((leaf) => leaf.children.filter(({ type }) => type === nodes.picture))
  expect(pictureFormat(own as Node)).toMatchObject({ width: 40, height: 30, alt: "A buoy" })
  expect([...assets.keys()]).toEqual([picture])
  expect(left).toContainEqual({ what: "pictures that lie elsewhere", count: 1, leaves: [] })
})

test("Biblon's own file carries its pictures under their true names", () => {
  const { doc, assets } = readFile(write("json"), "a.json")
  expect(doc.eq(report)).toBe(true)
  expect([...assets]).toEqual([[picture, png]])
  expect(() => readFile(bytes(text(write("json")).replace('"files":["', '"files":["%')), "a.json")).toThrow("damaged")
})

test("a book has a chapter for each first heading, contents, links that lead from one to another, and its picture once", () => {
  const files = unzip(write("epub"))
  expect([...files.keys()].slice(0, 2)).toEqual(["mimetype", "META-INF/container.xml"])
  const own = (path: string) => text(files.get(`content/${path}`) ?? new Uint8Array())
  expect(own("nav.xhtml")).toContain('<a href="chapter-1.xhtml#h-1">Tides &amp; times</a>')
  expect(own("chapter-1.xhtml")).toContain('<h1 id="h-1"')
  expect(own("chapter-1.xhtml")).toContain("From the toll book.")
  expect(own("chapter-2.xhtml")).toContain('href="chapter-1.xhtml#p-the_20end"')
  expect([...files.keys()].filter((path) => path.startsWith("content/pictures/"))).toHaveLength(1)
  expect(own("package.opf")).toMatch(/<dc:title>Tides<\/dc:title><dc:language>en-GB/)
  for (const [path, made] of files) if (/xhtml$/.test(path)) expect(text(made)).not.toMatch(/&nbsp;|<br>|<hr>/)
  expect(documentAttrs(report).styles.defaults.letters.language).toBe("en-GB")
  expect(storiesOf(report).size).toBe(1)
})
