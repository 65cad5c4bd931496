/** Enclosures: files that go along with a document. */
import { execFileSync } from "node:child_process"
import { createHash } from "node:crypto"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import fc from "fast-check"
import { EditorState } from "prosemirror-state"
import {
  assetsOf,
  document,
  enclosureFormat,
  enclosureOf,
  enclosuresOf,
  enclosureWords,
  leavesOf,
  marks,
  nodes,
  p,
  shownByFields,
  type Enclosure,
} from "../src/document"
import { checkDocument } from "../src/document/reading"
import { changeField } from "../src/editing"
import { formats, readFile } from "../src/formats/table"
import { layoutOf, pdfOf } from "../node/typesetting"
import { officeFile, wr } from "./office"

const bytes = (text: string) => new TextEncoder().encode(text)
const enclosed = (name: string, text: string): { enclosure: Enclosure; bytes: Uint8Array } => ({
  enclosure: { asset: createHash("sha256").update(text).digest("hex"), size: text.length, name },
  bytes: bytes(text),
})
const field = (enclosure: Enclosure) => nodes.field.create({ kind: "enclosure", format: enclosureFormat(enclosure) })
const telling = (format: string) => nodes.field.create({ kind: "enclosures", format })

test("a file is shown by its name, kind and size, in the words of the language", () => {
  const words = (name: string, size: number, language = "en-GB") =>
    enclosureWords(enclosureFormat({ asset: "a".repeat(64), size, name }), language)
  expect(words("Rates 2027.pdf", 12_345)).toBe("Rates 2027.pdf (PDF, 12 kB)")
  expect(words("Plan.tar.gz", 1)).toBe("Plan.tar.gz (GZ, 1 kB)")
  expect(words("notes", 2_460_000, "de-DE")).toBe("notes (2,5 MB)")
  expect(enclosureWords("nothing of the kind", "en-GB")).toBe("–")
})

test("whatever a file is called, it is written so that it is read back, and a document may hold it", () => {
  fc.assert(
    fc.property(fc.string({ unit: "grapheme", maxLength: 400 }), fc.nat(30_000_000), (name, size) => {
      const format = enclosureFormat({ asset: "0".repeat(64), size, name })
      const read = enclosureOf(format)
      expect(read?.size).toBe(size)
      expect(read?.name).not.toMatch(/[\u0000-\u001f/\\]/)
      expect(enclosureFormat(read as Enclosure)).toBe(format)
      checkDocument(document([p(nodes.field.create({ kind: "enclosure", format }))]))
    }),
  )
})

test("the line of the enclosures follows what is enclosed", () => {
  const [a, b] = [enclosed("Plan.pdf", "plan"), enclosed("Rates.csv", "rates")]
  const doc = document([
    p(field(a.enclosure), " and ", field(b.enclosure)),
    p("Enclosed: ", telling("names")),
    p(telling(""), " files"),
  ])
  const shown = (own: typeof doc) =>
    [1, 2].map((n) =>
      shownByFields(own).get(
        leavesOf(own)
          .node(n)
          .children.find((c) => c.type.name === "field")!,
      ),
    )
  expect(shown(doc)).toEqual(["Plan.pdf, Rates.csv", "2"])
  const before = EditorState.create({ doc })
  let now = before
  changeField(2, null)(before, (tr) => (now = before.apply(tr)))
  expect(shown(now.doc)).toEqual(["Rates.csv", "1"])
  expect([...assetsOf(doc).keys()].sort()).toEqual([a.enclosure.asset, b.enclosure.asset].sort())
  // From before equals from nothing.
  const text = (own: typeof doc) => layoutOf(own).placed.length
  expect(text(now.doc)).toBe(text(doc))
})

test("the PDF carries the files under their names, each once; two of one name are told apart", () => {
  const files = [
    enclosed("Plan.txt", "the plan"),
    enclosed("Plan.txt", "another plan"),
    enclosed("Gezeiten ü.csv", "a;b"),
  ]
  const [first, second, third] = files.map(({ enclosure }) => field(enclosure))
  const doc = document([p(first!, second!, third!, field(files[0]!.enclosure))])
  const assets = new Map(files.map((own) => [own.enclosure.asset, own.bytes]))
  const folder = mkdtempSync(join(tmpdir(), "biblon-enclosed-"))
  const path = join(folder, "letter.pdf")
  writeFileSync(
    path,
    pdfOf(layoutOf(doc), "Letter", undefined, (asset) => assets.get(asset)),
  )
  execFileSync("qpdf", ["--check", path])
  execFileSync("pdfdetach", ["-saveall", "-o", folder, path])
  const had = (name: string) => readFileSync(join(folder, name), "utf8")
  expect([had("Plan.txt"), had("Plan 2.txt"), had("Gezeiten ü.csv")]).toEqual(["the plan", "another plan", "a;b"])
  expect(execFileSync("pdfdetach", ["-list", path], { encoding: "utf8" })).toMatch(/^3 embedded files/)
  // Bytes that are not to be had cost nothing else.
  writeFileSync(path, pdfOf(layoutOf(doc), "Letter"))
  execFileSync("qpdf", ["--check", path])
})

test.each(["docx", "odt"] as const)(
  "%s carries the files and gives them back, named as they were; what is not to be had stays its name",
  (kind) => {
    const files = [enclosed("Plan <ü> & b.txt", "the plan"), enclosed("Rates", "a;b"), enclosed("Gone.txt", "gone")]
    const [first, second, gone] = files.map(({ enclosure }) => field(enclosure))
    const bold = first!.mark([marks.bold.create({ value: true })])
    const doc = document([p("See ", bold, " and ", second!, second!, gone!, ".")])
    const assets = new Map(files.slice(0, 2).map((own) => [own.enclosure.asset, own.bytes]))
    const file = formats[kind].write!({ name: "Letter", doc }, (asset) => assets.get(asset))
    const back = readFile(file, `letter.${kind}`)
    expect(enclosuresOf(back.doc).map(({ enclosure }) => enclosure)).toEqual(
      [files[0]!, files[1]!, files[1]!].map(({ enclosure }) => enclosure),
    )
    expect([...back.assets].map(([asset, bytes]) => [asset, Buffer.from(bytes).toString()]).sort()).toEqual(
      [...assets].map(([asset, bytes]) => [asset, Buffer.from(bytes).toString()]).sort(),
    )
    expect(back.left).toEqual([])
    const leaf = leavesOf(back.doc).node(0)
    expect(leaf.child(1).marks.map(({ type }) => type.name)).toContain("bold")
    expect(leaf.textContent).toMatch(/^See .* and .*Gone\.txt \(TXT, 1.kB\)\.$/)
  },
)

test("files that claim to be enclosed and are not there, lie elsewhere or hold nothing are no enclosures", () => {
  const body = `<w:p><w:sdt><w:sdtPr><w:alias w:val="a.txt"/><w:tag w:val="enclosure-own"/></w:sdtPr><w:sdtContent>${wr("a.txt")}</w:sdtContent></w:sdt></w:p>`
  const read = (...relations: [string, string, string][]) =>
    readFile(officeFile({ body, relations, files: { "word/embeddings/none.bin": "" } }), "a.docx")
  for (const own of [
    read(),
    read(["own", "package", "embeddings/gone.bin"]),
    read(["own", "package", "https://ferry.example/a.bin"]),
    read(["own", "package", "embeddings/none.bin"]),
  ])
    expect([enclosuresOf(own.doc).length, leavesOf(own.doc).node(0).textContent]).toEqual([0, "a.txt"])
})
