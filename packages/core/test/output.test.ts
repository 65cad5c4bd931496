import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { document, letters, p, paragraph } from "../src/document"
import { createSubsetter, sheetPicture } from "../src/output"
import { faceFile, layoutOf, pdfOf, typesetter, wasmFile } from "../node/typesetting"

const folder = mkdtempSync(join(tmpdir(), "biblon-core-"))
const file = (name: string, bytes: Uint8Array) => {
  const path = join(folder, name)
  writeFileSync(path, bytes)
  return path
}

const doc = document(
  [
    paragraph("heading1", ["Mooring rights"]),
    p("office ", letters("under", { underline: "single", colour: "#7a1f4b" }), " naïve e\u0301 😀"),
    paragraph("heading3", ["Skips a level"]),
    p(),
    paragraph("heading2", ["Second (part)"]),
  ],
  { properties: { title: "Rights & duties", author: "Imre Fallow" } },
)

test("the same document gives the same file, byte for byte, and qpdf finds nothing wrong with it", () => {
  const one = pdfOf(layoutOf(doc), "x")
  expect(Buffer.from(pdfOf(layoutOf(doc), "x")).equals(Buffer.from(one))).toBe(true)
  expect(execFileSync("qpdf", ["--check", file("a.pdf", one)], { encoding: "utf8" })).toContain("No syntax or stream encoding errors")
})

test("structure, bookmarks and text are those of the document", () => {
  const path = file("b.pdf", pdfOf(layoutOf(doc), "x"))
  const tags = execFileSync("pdfinfo", ["-struct", path], { encoding: "utf8" }).match(/\b(H\d|P)\b/g)
  expect(tags).toEqual(["H1", "P", "H3", "H2"])
  const info = execFileSync("pdfinfo", [path], { encoding: "utf8" })
  expect(info).toMatch(/Title:\s+Rights & duties/)
  expect(info).toMatch(/Tagged:\s+yes/)
  expect(execFileSync("pdftotext", [path, "-"], { encoding: "utf8" })).toContain("office under naïve e\u0301 😀")
  const plain = execFileSync("qpdf", ["--qdf", "--object-streams=disable", path, "-"], { encoding: "latin1" })
  expect(plain).toContain("/Lang (en-GB)")
  expect(plain.match(/\/Count 2/)).not.toBeNull()
})

test("glyphs stand within five hundredths of a point of where the layout put them", () => {
  const layout = layoutOf(document([paragraph("body", ["AVATAR To We, said the ferryman; fifty-two waves. ".repeat(6)], { align: "justify" })]))
  const path = file("c.pdf", pdfOf(layout, "x"))
  const words = [...execFileSync("pdftotext", ["-bbox", path, "-"], { encoding: "utf8" }).matchAll(/<word xMin="([\d.]+)" yMin="[\d.]+" xMax="([\d.]+)"/g)].map((m) => Number(m[2]))
  const { lines } = layout.placed[0]!.sheet.fragments[0]!.paragraph
  const left = 70.866
  for (const line of lines) expect(Math.min(...words.map((x) => Math.abs(x - (left + line.x + line.width))))).toBeLessThan(0.05)
})

test("a subset is small and keeps its glyphs' numbers", () => {
  const bytes = readFileSync(faceFile("tinos/400Regular/Tinos_400Regular.ttf"))
  const subset = createSubsetter(readFileSync(wasmFile("harfbuzz-subset")))
  expect(subset(bytes, [36, 57]).length).toBeLessThan(bytes.length / 10)
})

test("the picture of a sheet draws each glyph as a path", () => {
  const svg = sheetPicture(layoutOf(doc).placed[0]!.sheet, typesetter().fonts)
  expect(svg).toMatch(/^<svg /)
  expect(svg.match(/<use /g)!.length).toBeGreaterThan(30)
  expect(svg).not.toContain("undefined")
  expect(svg).not.toContain("NaN")
})
