/** Files in and out by the one table of formats. */
import { documentAttrs, document, leavesOf, p, paragraph } from "../src/document"
import { formats, formatFor, nameAndEnding, readFile } from "../src/formats/table"
import { kinds, readableEndings } from "../src/formats/kinds"
import { zip } from "../src/formats/zip"

const bytes = (text: string) => new TextEncoder().encode(text)
const texts = (file: string, source: string) =>
  leavesOf(readFile(bytes(source), file).doc).nodes.map((leaf) => `${leaf.attrs.style}: ${leaf.textContent}`)

test("what is said of a format is what it can do, and no ending belongs to two", () => {
  for (const { reads, read, write } of Object.values(formats)) expect([reads, !!write]).toEqual([!!read, true])
  const all = Object.values(kinds).flatMap(({ endings }) => endings)
  expect(new Set(all).size).toBe(all.length)
  expect(readableEndings).toContain(".html")
})

test("a file is named as it says itself, else as it is called; its ending tells its kind in any case of letters", () => {
  expect(nameAndEnding("/shelf/tide.table.TXT")).toEqual({ name: "tide.table", ending: ".txt" })
  expect(nameAndEnding("C:\\papers\\.hidden")).toEqual({ name: ".hidden", ending: "" })
  expect(readFile(bytes("Tides"), "Notice.TXT").name).toBe("Notice")
  expect(readFile(bytes("<title> Slack\n water </title><p>x"), "a.htm").name).toBe("Slack water")
  expect(formatFor("constructor", Object.values(formats))).toBeUndefined()
  expect(() => readFile(bytes("x"), "a.pdf")).toThrow("ends in .docx, ")
})

test("HTML comes back as it was written; what is left out of a foreign page is counted", () => {
  const doc = document([paragraph("heading1", ["Tides & times"]), p("Slack <water> only")])
  const page = formats.html.write!({ name: "Tide table", doc })
  const back = readFile(page, "tides.html")
  expect(back.name).toBe("Tide table")
  expect(documentAttrs(back.doc).properties.title).toBe("Tide table")
  expect(leavesOf(back.doc).nodes.map((leaf) => leaf.textContent)).toEqual(["Tides & times", "Slack <water> only"])
  const foreign = readFile(bytes("<h1>Ferry</h1><img src=x><img src=y><script>alert(1)</script><p>Now"), "f.html")
  expect(leavesOf(foreign.doc).nodes.map((leaf) => leaf.textContent)).toEqual(["Ferry", "Now"])
  expect(foreign.left).toEqual(
    expect.arrayContaining([
      { what: "pictures that lie elsewhere", count: 2, leaves: [] },
      { what: "scripts", count: 1, leaves: [] },
    ]),
  )
})

test("files that are nothing, or far too deep, neither hang nor are half read without a word", () => {
  expect(texts("empty.html", "")).toEqual(["body: "])
  expect(texts("deep.html", "<div>".repeat(100_000) + "chain")).toEqual(["body: chain"])
  expect(() => readFile(bytes('{"biblon":99,"name":null,"document":{}}'), "a.json")).toThrow("newer Biblon")
})

test("text is read in whatever encoding it is: by its mark, as UTF-8, or as it is most likely meant", () => {
  const shown = (own: readonly number[]) => readFile(new Uint8Array(own), "a.txt").doc.textContent
  expect(shown([0xff, 0xfe, 0x54, 0, 0xe9, 0])).toBe("Té")
  expect(shown([0xfe, 0xff, 0, 0x54, 0, 0xe9])).toBe("Té")
  expect(shown([0xef, 0xbb, 0xbf, 0x54])).toBe("T")
  const western = [..."Le bac passe à marée haute, et même après. Où est le câble ?"].map((sign) => sign.charCodeAt(0))
  expect(shown(western)).toBe("Le bac passe à marée haute, et même après. Où est le câble ?")
})

test("what a file is, its content says: a document with another ending is read, a PDF and archives of other things are told apart", () => {
  expect(() => readFile(bytes("%PDF-1.7"), "a.txt")).toThrow("A PDF cannot be read back")
  expect(() => readFile(zip(new Map([["a.png", bytes("x")]])), "a.docx")).toThrow(
    "archive in which there is no document",
  )
  expect(() => readFile(new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3]), "a.docx")).toThrow("damaged")
})
