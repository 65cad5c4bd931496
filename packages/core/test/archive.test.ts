/** PDF for archives: that it says so, and keeps the rules that a reader can look at. */
import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { archiveFile, pdfFormat } from "../node/typesetting"
import { readFile } from "../src/formats/table"
import { colourProfile } from "../src/output/pdf/archive"

const doc = () => {
  const source =
    "# Tides\n\nThe *ferry* — [table](https://ferry.example/)[^1]\n\n[^1]: Note.\n\n| A | B |\n|---|---|\n| 1 | 2 |\n"
  return readFile(new TextEncoder().encode(source), "tides.md")
}
const folder = mkdtempSync(join(tmpdir(), "biblon-archive-"))
const path = join(folder, "tides.pdf")

interface PdfObject {
  [name: string]: unknown
}

/** All objects of a file, by another program. */
function objects(file: string): { root: PdfObject; all: PdfObject[] } {
  const { qpdf } = JSON.parse(
    execFileSync("qpdf", ["--json", "--json-stream-data=none", file], { encoding: "utf8", maxBuffer: 1e9 }),
  ) as {
    qpdf: [unknown, Record<string, { value?: PdfObject; stream?: { dict: PdfObject } }>]
  }
  const own = qpdf[1]
  const all = Object.values(own).flatMap(({ value, stream }) =>
    stream ? [stream.dict] : value && typeof value === "object" ? [value] : [],
  )
  const root = all.find((one) => one["/Type"] === "/Catalog") as PdfObject
  return { root, all }
}

test("it is told as PDF/A-3b with a profile of its colours, and sound; one that is not for archives says nothing of that", () => {
  const { doc: own, name } = doc()
  writeFileSync(path, archiveFile({ doc: own, name }))
  execFileSync("qpdf", ["--check", path])
  const told = execFileSync("pdfinfo", ["-meta", path], { encoding: "utf8" })
  expect(told).toMatch(/<pdfaid:part>3<.*<pdfaid:conformance>B</)
  const bytes = readFileSync(path, "latin1")
  // Its description lies in it as it is, and its title is that of the file.
  expect(bytes).toContain("<pdfaid:part>3</pdfaid:part>")
  const plain = join(folder, "plain.pdf")
  writeFileSync(plain, pdfFormat.write!({ doc: own, name }))
  expect(readFileSync(plain, "latin1")).not.toContain("pdfaid")
})

test("every font is embedded and says its text, every annotation is printed, nothing runs, nothing is hidden by a key", () => {
  const { root, all } = objects(path)
  expect(root["/OutputIntents"]).toHaveLength(1)
  const fonts = all.filter((one) => one["/Type"] === "/FontDescriptor")
  expect(fonts.length).toBeGreaterThan(1)
  for (const font of fonts) expect(font["/FontFile2"] ?? font["/FontFile3"]).toBeDefined()
  for (const font of all.filter((one) => one["/Subtype"] === "/Type0")) expect(font["/ToUnicode"]).toBeDefined()
  const links = all.filter((one) => one["/Subtype"] === "/Link")
  expect(links.length).toBeGreaterThan(0)
  for (const link of links) expect(link["/F"]).toBe(4)
  expect(links.map((link) => (link["/A"] as PdfObject | undefined)?.["/S"])).toContain("/URI")
  for (const one of all)
    for (const key of ["/JS", "/AA", "/OpenAction", "/Encrypt", "/TR", "/LZW"]) expect(one[key]).toBeUndefined()
})

test("the profile is one of sRGB: its parts lie where it says, white is where the curves end", () => {
  const bytes = colourProfile()
  const view = new DataView(bytes.buffer)
  const text = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4))
  expect([view.getUint32(0), text(12), text(16), text(20), text(36)]).toEqual([
    bytes.length,
    "mntr",
    "RGB ",
    "XYZ ",
    "acsp",
  ])
  const tags = new Map(
    Array.from({ length: view.getUint32(128) }, (_, n) => [
      text(132 + 12 * n),
      [view.getUint32(136 + 12 * n), view.getUint32(140 + 12 * n)] as const,
    ]),
  )
  for (const [at, length] of tags.values()) expect([at % 4, at + length <= bytes.length]).toEqual([0, true])
  const xyz = (name: string) => [8, 12, 16].map((by) => view.getInt32((tags.get(name)?.[0] ?? 0) + by) / 65536)
  // The primaries together are white.
  const sum = [0, 1, 2].map((i) => ["rXYZ", "gXYZ", "bXYZ"].reduce((all, name) => all + (xyz(name)[i] ?? 0), 0))
  sum.forEach((part, i) => expect(part).toBeCloseTo(xyz("wtpt")[i] ?? 0, 2))
  const [curve] = tags.get("rTRC") ?? [0]
  const places = view.getUint32(curve + 8)
  const at = (n: number) => view.getUint16(curve + 12 + 2 * n) / 65535
  expect([at(0), at(places - 1)]).toEqual([0, 1])
  expect(at(Math.round((places - 1) / 2))).toBeCloseTo(0.214, 2)
})
