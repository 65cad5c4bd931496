import { documentFormat } from "@biblon/core/document"
import { execFileSync } from "node:child_process"
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import { enhancedMetafile, pictureRun, vectorDrawing } from "../../../packages/core/test/drawings"
import { officeFile, wp, wr } from "../../../packages/core/test/office"
import { run } from "../src/command/main"

const folder = mkdtempSync(join(tmpdir(), "biblon-command-"))
const path = (name: string) => join(folder, name)
writeFileSync(path("in.txt"), "Dear Captain Orrin,\n\nThe hull was launched\non the neap tide.\n")

/** Runs the command and returns what it printed. */
async function biblon(...args: string[]) {
  let out = ""
  let err = ""
  const streams = [
    jest.spyOn(process.stdout, "write").mockImplementation((s) => !!(out += String(s))),
    jest.spyOn(process.stderr, "write").mockImplementation((s) => !!(err += String(s))),
  ]
  const code = await run(args)
  streams.forEach((s) => s.mockRestore())
  return { code, out, err }
}

test("layout prints sheets with lines in points", async () => {
  const { code, out } = await biblon(
    "layout",
    path("in.txt"),
    "--json",
    "--font",
    "Arimo",
    "--size",
    "10",
    "--margins",
    "1in",
    "--paper",
    "Letter",
  )
  expect(code).toBe(0)
  const { width, height, sheets } = JSON.parse(out)
  expect([width, height]).toEqual([612, 792])
  expect(sheets[0].lines.map((l: { text: string }) => l.text)).toEqual([
    "Dear Captain Orrin,",
    "The hull was launched on the neap tide.",
  ])
  expect(sheets[0].lines[0].x).toBe(72)
  expect(sheets[0].lines[1].width).toBeGreaterThan(150)
})

test("lines as paragraphs, and spacing", async () => {
  const lines = async (...options: string[]) =>
    JSON.parse((await biblon("layout", path("in.txt"), "--json", ...options)).out).sheets[0].lines
  expect((await lines("--lines")).length).toBe(4)
  const [a, b] = await lines("--spacing", "3")
  const [c, d] = await lines("--spacing", "1")
  expect(b.y - a.y).toBeGreaterThan(d.y - c.y)
})

test("columns, heads, feet and numbers are given by the call and stand on the sheets", async () => {
  const call = ["--columns", "2", "--header", "Ferry Trust|{title}|{page} of {pages}", "--numbers", "foot-middle"]
  expect((await biblon("convert", path("in.txt"), path("edges.pdf"), ...call)).code).toBe(0)
  const text = execFileSync("pdftotext", ["-layout", path("edges.pdf"), "-"], { encoding: "utf8" })
  expect(text).toMatch(/Ferry Trust\s+in\s+1 of 1/)
  expect(text.trim()).toMatch(/\n\s*1$/)
  expect(await biblon("convert", path("in.txt"), path("x.pdf"), "--numbers", "top")).toMatchObject({ code: 2 })
  const narrow = await biblon("convert", path("in.txt"), path("x.pdf"), "--columns", "12", "--paper", "A6")
  expect([narrow.code, narrow.err]).toEqual([2, expect.stringContaining("columns leave no room")])
})

test("text becomes a Biblon file, and that a PDF and text again", async () => {
  expect((await biblon("convert", path("in.txt"), path("out.json"))).code).toBe(0)
  expect(JSON.parse(readFileSync(path("out.json"), "utf8"))).toMatchObject({ biblon: documentFormat, name: "in" })
  expect((await biblon("convert", path("out.json"), path("out.pdf"))).code).toBe(0)
  expect(readFileSync(path("out.pdf")).subarray(0, 8).toString()).toBe("%PDF-1.7")
  expect((await biblon("convert", path("out.json"), path("out.txt"))).code).toBe(0)
  expect(readFileSync(path("out.txt"), "utf8")).toBe("Dear Captain Orrin,\n\nThe hull was launched on the neap tide.\n")
})

test.each([
  [1, ["convert", path("none.txt"), path("x.pdf")], "no such file"],
  [1, ["convert", path("in.txt"), join(folder, "no", "x.pdf")], "no such folder"],
  [2, ["convert", path("in.txt")], "one to write"],
  [2, ["convert", path("in.doc"), path("x.pdf")], "a file to read ends in .docx"],
  [2, ["convert", path("in.txt"), path("x.gif")], "a file to write ends in .docx"],
  [2, ["paint", path("in.txt")], 'no "paint"'],
  [2, ["layout", path("in.txt")], "--json"],
  [2, [], "Say what to do"],
  [2, ["layout", path("in.txt"), "--json", "--font", "Comic"], "one of Tinos"],
  [2, ["layout", path("in.txt"), "--json", "--size", "0"], "from 1 to 400"],
  [2, ["layout", path("in.txt"), "--json", "--margins", "25"], "with a unit"],
  [2, ["layout", path("in.txt"), "--json", "--margins", "40cm"], "no room for text"],
  [2, ["layout", path("in.txt"), "--json", "--loud"], "--loud"],
] as [number, string[], string][])("ends with %i: biblon %j", async (expected, args, message) => {
  const { code, err } = await biblon(...args)
  expect(code).toBe(expected)
  expect(err).toContain(message)
})

test("values divided by commas become a table", async () => {
  writeFileSync(path("fares.csv"), "Berth,Fare\nOriel,2.50\n")
  expect((await biblon("convert", path("fares.csv"), path("fares.html"))).code).toBe(0)
  const html = readFileSync(path("fares.html"), "utf8")
  expect(html).toMatch(/<table[\s\S]*<th[^>]*>[\s\S]*Berth[\s\S]*<td[^>]*>[\s\S]*2\.50/)
  expect((await biblon("convert", path("fares.csv"), path("fares.pdf"))).code).toBe(0)
})

test("metafiles and vector graphics in a file become pictures of what is made of it", async () => {
  writeFileSync(
    path("drawn.docx"),
    officeFile({
      body: wp(pictureRun("a") + pictureRun("b") + wr("gauges")),
      relations: [
        ["a", "image", "media/a.emf"],
        ["b", "image", "media/b.svg"],
      ],
      files: { "word/media/a.emf": enhancedMetafile(), "word/media/b.svg": vectorDrawing() },
    }),
  )
  expect(await biblon("convert", path("drawn.docx"), path("drawn.pdf"))).toEqual({ code: 0, out: "", err: "" })
  const found = execFileSync("pdfimages", ["-list", path("drawn.pdf")], { encoding: "utf8" })
  expect(found.match(/ image +\d+ +\d+ +rgb/g)).toHaveLength(2)
})

test("damaged files are named with what is wrong", async () => {
  writeFileSync(path("bad.json"), "{")
  writeFileSync(path("latin.txt"), Buffer.from([0x63, 0x61, 0x66, 0xe9]))
  expect((await biblon("convert", path("bad.json"), path("x.pdf"))).err).toContain("bad.json: This is not JSON")
  expect((await biblon("convert", path("latin.txt"), path("x.pdf"))).code).toBe(0)
})

test("the command works from any folder, and leaves an older file whole where the disk is full", () => {
  const bin = join(__dirname, "../bin/biblon.mjs")
  execFileSync(process.execPath, [bin, "convert", path("in.txt"), path("kept.pdf")], { cwd: folder })
  const before = readFileSync(path("kept.pdf"))
  writeFileSync(path("long.txt"), "The chain lies on the bed of the river. ".repeat(200_000))
  // No file may grow over 64 kB.
  expect(() =>
    execFileSync(
      "bash",
      [
        "-c",
        'ulimit -f 64; exec "$@"',
        "limited",
        process.execPath,
        bin,
        "convert",
        path("long.txt"),
        path("kept.pdf"),
      ],
      { cwd: folder, stdio: "pipe" },
    ),
  ).toThrow("the disk is full")
  expect(readFileSync(path("kept.pdf")).equals(before)).toBe(true)
  expect(readdirSync(folder).filter((name) => name.endsWith(".part"))).toEqual([])
}, 60_000)

test("sheets become pictures, at as many dots as asked, each under its number", async () => {
  writeFileSync(path("sheets.txt"), `${"The chain lies on the bed. ".repeat(40)}\n\n`.repeat(20))
  const call = ["--dpi", "72", "--paper", "A5"]
  expect((await biblon("convert", path("sheets.txt"), path("sheet-%d.png"), "--pages", "2-3", ...call)).code).toBe(0)
  const made = readdirSync(folder).filter((name) => name.startsWith("sheet-"))
  expect(made.sort()).toEqual(["sheet-2.png", "sheet-3.png"])
  const size = execFileSync("file", [path("sheet-2.png")], { encoding: "utf8" })
  expect(size).toMatch(/PNG image data, 420 x 59[56],/)
  // Ink on white.
  expect(readFileSync(path("sheet-2.png")).length).toBeGreaterThan(5000)
  const several = await biblon("convert", path("sheets.txt"), path("all.png"), ...call)
  expect([several.code, several.err]).toEqual([2, expect.stringContaining("write %d in the name")])
  expect((await biblon("convert", path("sheets.txt"), path("x-%d.png"), "--pages", "99")).code).toBe(1)
  expect((await biblon("convert", path("sheets.txt"), path("x-%d.png"), "--dpi", "9000")).code).toBe(2)
  expect((await biblon("convert", "--to", "png", path("in.txt"), "--out-dir", path("pictures"))).code).toBe(0)
  expect(readdirSync(path("pictures"))).toEqual(["in-1.png"])
})

test("many files are made at once, in a folder; one that cannot be read is named and stops none", async () => {
  writeFileSync(path("one.html"), "<h1>Slack</h1><p>water")
  writeFileSync(path("bad.json"), "{")
  const { code, err } = await biblon(
    "convert",
    "--to",
    "docx",
    path("in.txt"),
    path("bad.json"),
    path("one.html"),
    "--out-dir",
    path("made"),
  )
  expect(code).toBe(1)
  expect(err).toContain("bad.json: This is not JSON")
  expect(err).toContain("1 of 3 files were not made")
  expect(readdirSync(path("made")).sort()).toEqual(["in.docx", "one.docx"])
  expect((await biblon("convert", join(path("made"), "one.docx"), path("back.txt"))).code).toBe(0)
  expect(readFileSync(path("back.txt"), "utf8")).toContain("Slack")
})

test("standard input and output stand in for files, their kinds named where the content does not say them", () => {
  const program = join(__dirname, "../bin/biblon.mjs")
  const made = execFileSync(process.execPath, [program, "convert", "-", "-", "--from", "txt", "--to", "docx"], {
    input: "Slack water",
  })
  expect(made.subarray(0, 2).toString()).toBe("PK")
  const text = execFileSync(process.execPath, [program, "convert", "-", "-", "--to", "txt"], { input: made })
  expect(text.toString()).toBe("Slack water\n")
})
