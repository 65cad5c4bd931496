import { execFileSync } from "node:child_process"
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs"
import { tmpdir } from "node:os"
import { join } from "node:path"
import opentype from "opentype.js"
import { defaultProperties, defaultStyles, document, letters, nodes, p, paragraph } from "../src/document"
import { FontFileError, readFontFile } from "../src/document/fontFile"
import { fragmentsOf } from "../src/layout"
import { createSubsetter, sheetPicture } from "../src/output"
import { Bytes } from "../src/output/pdf/bytes"
import { faceFile, layoutOf, openTypesetter, pdfOf, typesetter, wasmFile } from "../node/typesetting"

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
  { properties: { ...defaultProperties, title: "Rights & duties", author: "Imre Fallow" } },
)

test("the same document gives the same file, byte for byte, and qpdf finds nothing wrong with it", () => {
  const one = pdfOf(layoutOf(doc), "x")
  expect(Buffer.from(pdfOf(layoutOf(doc), "x")).equals(Buffer.from(one))).toBe(true)
  expect(execFileSync("qpdf", ["--check", file("a.pdf", one)], { encoding: "utf8" })).toContain(
    "No syntax or stream encoding errors",
  )
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

test("also who knows nothing of words said around glyphs reads a field, a number and a letter with its accent once", () => {
  const title = "Tides at the office, 1912"
  const own = document([p(nodes.field.create({ kind: "title", format: "" }), " e\u0301 by numbers")], {
    properties: { ...defaultProperties, title },
  })
  const path = file("said.pdf", pdfOf(layoutOf(own), "x"))
  const plain = execFileSync("qpdf", ["--qdf", "--object-streams=disable", path, "-"], { encoding: "latin1" })
  const deaf = file("deaf.pdf", Buffer.from(plain.replaceAll("/ActualText", "/NobodyText"), "latin1"))
  expect(execFileSync("pdftotext", [deaf, "-"], { encoding: "utf8" }).normalize("NFC").trim()).toBe(
    `${title} é by numbers`,
  )
})

test("letters are read whatever signs of PDF their numbers in the file are", () => {
  const signs = Array.from({ length: 0x250 - 0xa1 }, (_, i) => String.fromCharCode(0xa1 + i)).filter(
    (c) => c !== "\u00ad",
  )
  const words = signs.map((sign) => `n${sign}n`)
  const path = file("many.pdf", pdfOf(layoutOf(document([p(words.join(" "))])), "x"))
  const read = execFileSync("pdftotext", [path, "-"], { encoding: "utf8" })
  expect(read.split(/\s+/).filter(Boolean)).toEqual(words)
})

test("any two bytes come back from a literal string", () => {
  const codes = Array.from({ length: 0x10000 }, (_, code) => code)
  const bytes = new Bytes()
  for (const code of codes) bytes.code(code)
  const string = Buffer.from(bytes.all).toString("latin1")
  // What is not behind a backslash is no sign of PDF.
  expect(string.replace(/\\[r()\\]/g, "")).not.toMatch(/[\r()\\]/)
  const plain = Buffer.from(
    string.replace(/\\([r()\\])/g, (_, sign: string) => (sign === "r" ? "\r" : sign)),
    "latin1",
  )
  expect(codes.every((code) => plain.readUInt16BE(2 * code) === code)).toBe(true)
  expect(plain.length).toBe(2 * codes.length)
})

test("what is drawn between a beginning and an end, and neither where nothing is", () => {
  const bytes = new Bytes()
  bytes.within("q ", "Q", () => bytes.within("cm ", "cm", () => {}))
  bytes.within("q ", "Q", () => bytes.say("f "))
  expect(Buffer.from(bytes.all).toString("latin1")).toBe("q f Q")
})

test("glyphs stand within five hundredths of a point of where the layout put them", () => {
  const layout = layoutOf(
    document([
      paragraph("body", ["AVATAR To We, said the ferryman; fifty-two waves. ".repeat(6)], { align: "justify" }),
    ]),
  )
  const path = file("c.pdf", pdfOf(layout, "x"))
  const words = [
    ...execFileSync("pdftotext", ["-bbox", path, "-"], { encoding: "utf8" }).matchAll(
      /<word xMin="([\d.]+)" yMin="[\d.]+" xMax="([\d.]+)"/g,
    ),
  ].map((m) => Number(m[2]))
  const { lines } = layout.placed.slice(0, 1).flatMap(fragmentsOf)[0]!.paragraph
  const left = 70.866
  for (const line of lines)
    expect(Math.min(...words.map((x) => Math.abs(x - (left + line.x + line.width))))).toBeLessThan(0.05)
})

test("a subset is small and keeps its glyphs' numbers", () => {
  const bytes = readFileSync(faceFile("tinos/400Regular/Tinos_400Regular.ttf"))
  const subset = createSubsetter(readFileSync(wasmFile("harfbuzz-subset")))
  expect(subset(bytes, [36, 57]).length).toBeLessThan(bytes.length / 10)
})

test("the picture of a sheet draws each glyph as a path", () => {
  const svg = sheetPicture(layoutOf(doc).placed[0]!, typesetter().fonts)
  expect(svg).toMatch(/^<svg /)
  expect(svg.match(/<use /g)!.length).toBeGreaterThan(30)
  expect(svg).not.toContain("undefined")
  expect(svg).not.toContain("NaN")
})

/** A font with PostScript outlines and four letters, made by an independent library. */
function postscriptFont(): Uint8Array {
  const square = (size: number) => {
    const path = new opentype.Path()
    path.moveTo(50, 0)
    path.lineTo(50, size)
    path.lineTo(size, size)
    path.lineTo(size, 0)
    path.close()
    return path
  }
  const glyph = (name: string, unicode: number | undefined, size: number) =>
    new opentype.Glyph({
      name,
      ...(unicode === undefined ? {} : { unicode }),
      advanceWidth: size + 50,
      path: square(size),
    })
  const glyphs = [
    glyph(".notdef", undefined, 400),
    ...[..."fery "].map((letter, i) => glyph(letter, letter.charCodeAt(0), 300 + 60 * i)),
  ]
  return new Uint8Array(
    new opentype.Font({
      familyName: "Marsh Blocks",
      styleName: "Regular",
      unitsPerEm: 1000,
      ascender: 800,
      descender: -200,
      glyphs,
    }).toArrayBuffer(),
  )
}

describe("fonts of one's own", () => {
  const otf = postscriptFont()
  const ttf = new Uint8Array(readFileSync(faceFile("lora/400Regular_Italic/Lora_400Regular_Italic.ttf")))
  const [a, b] = ["a".repeat(64), "b".repeat(64)]
  const setter = openTypesetter((sha256) => (sha256 === a ? otf : sha256 === b ? ttf : undefined))
  const styles = {
    ...defaultStyles,
    fonts: { "Marsh Blocks": { regular: a }, "Marsh Hand": { regular: b }, Gone: { regular: "c".repeat(64) } },
  }
  const written = document(
    [
      p(
        letters("ferry ferry", { family: "Marsh Blocks" }),
        " and ",
        letters("by hand", { family: "Marsh Hand", caps: "all" }),
        letters(" gone", { family: "Gone" }),
      ),
    ],
    { styles },
  )

  test("are measured, embedded and read back, with TrueType and with PostScript outlines; a missing one gives way to the first family", () => {
    const layout = layoutOf(written, setter)
    const faces = layout.placed
      .slice(0, 1)
      .flatMap(fragmentsOf)[0]!
      .paragraph.lines[0]!.runs.map(({ run }) => run.face.slice(0, 7))
    expect(faces).toEqual(["own-aaa", "Tinos-r", "own-bbb", "Tinos-r"])
    const path = file("own.pdf", pdfOf(layout, "x", setter.fonts))
    expect(execFileSync("qpdf", ["--check", path], { encoding: "utf8" })).toContain(
      "No syntax or stream encoding errors",
    )
    const fonts = execFileSync("pdffonts", [path], { encoding: "utf8" })
    expect(fonts).toMatch(/Own-aaaaaaaa\s+CID Type 0C \(OT\)\s+Identity-H\s+yes yes yes/)
    expect(fonts).toMatch(/Own-bbbbbbbb\s+CID TrueType\s+Identity-H\s+yes yes yes/)
    expect(execFileSync("pdftotext", [path, "-"], { encoding: "utf8" }).trim()).toBe("ferry ferry and by hand gone")
  })

  test("more of them than are kept open at once are set, drawn and embedded like any, again and again", () => {
    const asked: string[] = []
    const many = openTypesetter((sha256) => (asked.push(sha256), sha256.endsWith("1") ? otf : ttf))
    const hash = (i: number) => `${i.toString(16).padStart(63, "d")}${i % 2}`
    const fonts = Object.fromEntries(Array.from({ length: 130 }, (_, i) => [`Marsh ${i}`, { regular: hash(i) }]))
    const names = Object.keys(fonts)
    const text = document(
      [
        p(...names.map((family) => letters("ferry ", { family }))),
        ...names.map((family) => p(letters("ferry", { family }))),
      ],
      { styles: { ...defaultStyles, fonts } },
    )
    const first = layoutOf(text, many)
    const shaped = (layout: typeof first) =>
      layout.placed.flatMap((own) =>
        fragmentsOf(own).flatMap(({ paragraph: own }) =>
          own.lines.flatMap(({ runs }) => runs.map(({ run }) => `${run.face} ${[...run.glyphs.advances].join()}`)),
        ),
      )
    const measured = shaped(first)
    expect(new Set(measured.slice(-130)).size).toBe(130)
    expect(new Set(measured.slice(-130).map((own) => own.split(" ")[1])).size).toBe(2)
    expect(shaped(layoutOf(text, many))).toEqual(measured)
    expect(new Set(asked).size).toBe(130)
    expect(first.placed.map((placed) => sheetPicture(placed, many.fonts)).join("")).not.toContain("NaN")
    expect(pdfOf(first, "x", many.fonts).length).toBeGreaterThan(10_000)
  })

  test("each weight beyond regular and bold is a family of its own", () => {
    const weighted = (name: string, usWeightClass: number) => {
      const font = new opentype.Font({
        familyName: name,
        styleName: "Regular",
        unitsPerEm: 1000,
        ascender: 800,
        descender: -200,
        glyphs: [new opentype.Glyph({ name: ".notdef", advanceWidth: 500, path: new opentype.Path() })],
      })
      Object.assign(font.tables, { os2: { ...font.tables.os2, usWeightClass } })
      return readFontFile(new Uint8Array(font.toArrayBuffer()))
    }
    expect(
      [300, 400, 700, 900]
        .map((weight) => weighted("Marsh", weight))
        .map(({ family, variant }) => `${family} ${variant}`),
    ).toEqual(["Marsh Light regular", "Marsh regular", "Marsh bold", "Marsh Black regular"])
  })

  test("say what they are called, or why they are not taken", () => {
    expect(readFontFile(otf)).toMatchObject({ family: "Marsh Blocks", variant: "regular", postscript: true })
    expect(readFontFile(ttf)).toMatchObject({ family: "Lora", variant: "italic", postscript: false, subsetting: true })
    const os2 = Array.from({ length: 30 }, (_, i) => 12 + 16 * i).find(
      (at) => Buffer.from(ttf.subarray(at, at + 4)).toString() === "OS/2",
    )!
    const withFlag = (flag: number) => {
      const copy = ttf.slice()
      new DataView(copy.buffer).setUint16(new DataView(copy.buffer).getUint32(os2 + 8) + 8, flag)
      return copy
    }
    expect(() => readFontFile(withFlag(2))).toThrow(FontFileError)
    expect(() => readFontFile(withFlag(2))).toThrow(/does not allow it to be embedded/)
    expect(() => readFontFile(withFlag(0x200))).toThrow(/only pictures/)
    expect(readFontFile(withFlag(0x100)).subsetting).toBe(false)
    expect(() => readFontFile(ttf.slice(0, 400))).toThrow(/damaged/)
    expect(() => readFontFile(new Uint8Array(13 * 1024 * 1024))).toThrow(/MB/)
  })
})

test("rules, frames, highlights, shadows and outlines are drawn; lists are lists for those who listen", () => {
  const border = { pattern: "wavy", width: 1, colour: "#7a1f4b", distance: 4 } as const
  const list = (level: number, text: string, definition = "numbers") =>
    paragraph("body", [text], { list: { definition, run: "a", level } })
  const shaped = document([
    paragraph(
      "body",
      [
        letters("lit", { highlight: "#f4e3b5", underline: "dotted", strike: "double" }),
        letters("drawn", { outline: true }),
        letters("cast", { shadow: true }),
        letters("2", { script: "super" }),
        "end",
      ],
      { borders: { top: border, bottom: border }, shading: "#dcebe0" },
    ),
    list(0, "first"),
    list(0, "second"),
    p("between"),
    list(0, "third", "tasks"),
    paragraph("body", ["Name\tsum"], { tabs: [{ position: 300, align: "right", leader: "dotted" }] }),
    paragraph("body", ["שלום ferry"], { direction: "rtl", align: "right" }),
  ])
  const layout = layoutOf(shaped)
  const path = file("shaped.pdf", pdfOf(layout, "x"))
  expect(execFileSync("qpdf", ["--check", path], { encoding: "utf8" })).toContain("No syntax or stream encoding errors")
  const tags = execFileSync("pdfinfo", ["-struct", path], { encoding: "utf8" }).match(/\b(P|L|LI|Lbl|LBody)\b/g)
  expect(tags).toEqual(["P", "L", "LI", "Lbl", "LBody", "LI", "Lbl", "LBody", "P", "L", "LI", "Lbl", "LBody", "P", "P"])
  const text = execFileSync("pdftotext", ["-raw", path, "-"], { encoding: "utf8" })
  for (const wanted of ["litdrawncast2", "1. first", "2. second", "Name sum", "שלום"])
    expect(text.replace(/[\u202a-\u202e]/g, "")).toContain(wanted)
  const content = execFileSync("qpdf", ["--qdf", "--object-streams=disable", path, "-"], { encoding: "latin1" })
  expect(content).toMatch(/\/Artifact BMC/)
  expect(content).toMatch(/1 Tr/)
  const svg = sheetPicture(layout.placed[0]!, typesetter().fonts)
  for (const wanted of ["#f4e3b5", "#dcebe0", 'fill="none" stroke="#7a1f4b"', 'fill="none" stroke="#1e1a16"'])
    expect(svg).toContain(wanted)
  expect(svg).not.toMatch(/NaN|undefined/)
})
