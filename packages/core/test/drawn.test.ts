import { readFileSync } from "node:fs"
import { gzipSync } from "node:zlib"
import fc from "fast-check"
import type { Node } from "prosemirror-model"
import { leavesOf, nodes, pictureAttrs } from "../src/document"
import { readFile } from "../src/formats/table"
import { drawingIn } from "../src/formats/pictures/drawings"
import { checkPicture } from "../src/formats/pictures/file"
import { pixelsOf, withDrawings } from "../src/formats/pictures/taken"
import { zip } from "../src/formats/zip"
import { drawingFaces, drawingPng } from "../src/formats/pictures/drawn"
import { startDrawing } from "../src/output/pixels"
import { drawingFile, shippedFace } from "../node/typesetting"
import { enhancedMetafile, olderMetafile, pictureRun, vectorDrawing } from "./drawings"
import { officeFile, wp, wr } from "./office"

const all = {
  "an enhanced metafile": enhancedMetafile(),
  "an older one that says its size": olderMetafile(true),
  "an older one that does not": olderMetafile(false),
  "vector graphics": vectorDrawing(),
  "vector graphics, packed": new Uint8Array(gzipSync(vectorDrawing())),
}
const faces = drawingFaces.map((family) => shippedFace(`${family}-regular`))
const draw = (drawing: Parameters<typeof drawingPng>[0], pixels: [number, number]) => drawingPng(drawing, pixels, faces)
beforeAll(() => startDrawing(() => readFileSync(drawingFile())))

const pictures = (doc: Node) => {
  const found: Node[] = []
  doc.descendants((node) => {
    if (node.type === nodes.picture) found.push(node)
    return true
  })
  return found.map(pictureAttrs)
}

const office = (bytes: Uint8Array) =>
  officeFile({
    body: wp(wr("before") + pictureRun("d")) + wp(wr("behind")),
    relations: [["d", "image", "media/d.bin"]],
    files: { "word/media/d.bin": bytes },
  })
const openDocument = (bytes: Uint8Array) => {
  const content = `<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" xmlns:xlink="http://www.w3.org/1999/xlink"><office:body><office:text><text:p>before<draw:frame svg:width="6cm" svg:height="3cm"><draw:image xlink:href="Pictures/unknown"/><draw:image xlink:href="Pictures/d"/></draw:frame></text:p></office:text></office:body></office:document-content>`
  const file = (text: string) => new TextEncoder().encode(text)
  return zip(
    new Map([
      ["mimetype", file("application/vnd.oasis.opendocument.text")],
      ["content.xml", file(content)],
      ["Pictures/unknown", file("something else, that nobody can show")],
      ["Pictures/d", bytes],
    ]),
  )
}
const rich = (bytes: Uint8Array, word: string) =>
  new TextEncoder().encode(
    `{\\rtf1 before {\\pict\\${word}\\picwgoal3402\\pichgoal1701 ${Buffer.from(bytes).toString("hex")}}\\par}`,
  )
const page = (bytes: Uint8Array) =>
  new TextEncoder().encode(
    `<html><p>before<img src="data:image/svg+xml;base64,${Buffer.from(bytes).toString("base64")}" alt="a half"></p></html>`,
  )

test.each(Object.entries(all))("%s is told by what is in it, with its size", (_, bytes) => {
  const { width, height } = drawingIn(bytes)!
  expect(width / height).toBeCloseTo(2, 2)
})

test("sizes are said in any unit, by the box of the drawing, or not at all", () => {
  const size = (said: string) => {
    const { width, height } = drawingIn(vectorDrawing(said))!
    return [Math.round(width), Math.round(height)]
  }
  expect(size('width="60mm" height="30mm"')).toEqual([170, 85])
  expect(size('width="100" height="50px"')).toEqual([75, 38])
  expect(size('width="100%"')).toEqual([150, 75])
  expect(size("height='1in'")).toEqual([144, 72])
  const bare = new TextEncoder().encode("<svg><rect/></svg>")
  expect(drawingIn(bare)).toMatchObject({ width: 240, height: 180 })
  expect(pixelsOf({ width: 1e5, height: 10 })).toEqual([3000, 1])
})

test("what is no drawing is none, and what says that it unpacks to more than is taken is not unpacked", () => {
  const lying = new Uint8Array(gzipSync(vectorDrawing()))
  new DataView(lying.buffer).setUint32(lying.length - 4, 0xfffffff0, true)
  for (const bytes of [new Uint8Array(0), new TextEncoder().encode("<html><svg></html"), lying, lying.slice(0, 30)])
    expect(drawingIn(bytes)?.kind ?? null).toBe(bytes[0] === 0x3c ? "svg" : null)
})

test.each(Object.entries(all))("%s becomes a picture in its place, out of each kind of file", async (_, bytes) => {
  const files: [string, Uint8Array][] = [
    ["a.docx", office(bytes)],
    ["a.odt", openDocument(bytes)],
    ["a.html", page(bytes)],
  ]
  for (const [name, file] of files) {
    const { doc, assets, left } = await withDrawings(readFile(file, name), draw)
    const [own, ...others] = pictures(doc)
    expect([name, others.length, assets.size, left]).toEqual([name, 0, 1, []])
    const made = checkPicture(assets.get(own!.asset)!)
    expect([made.type, made.width, made.height]).toEqual(["image/png", ...own!.pixels])
    expect(made.width / made.height).toBeCloseTo(2, 1)
    expect(leavesOf(doc).node(0).textContent).toBe("before")
  }
})

test("metafiles in the other kind of text with words", async () => {
  for (const [bytes, word] of [
    [enhancedMetafile(), "emfblip"],
    [olderMetafile(false), "wmetafile8"],
  ] as const) {
    const { doc, assets } = await withDrawings(readFile(rich(bytes, word), "a.rtf"), draw)
    expect(pictures(doc)).toEqual([expect.objectContaining({ asset: [...assets.keys()][0] })])
  }
})

test("what cannot be drawn is left out and said, with its place; what is drawn twice is drawn once", async () => {
  const twice = officeFile({
    body: wp(wr("one") + pictureRun("d")) + wp(wr("two") + pictureRun("d")),
    relations: [["d", "image", "media/d.emf"]],
    files: { "word/media/d.emf": enhancedMetafile() },
  })
  let asked = 0
  const none = await withDrawings(readFile(twice, "a.docx"), () => {
    asked++
    return Promise.resolve(null)
  })
  expect([asked, pictures(none.doc), none.assets.size]).toEqual([1, [], 0])
  expect(none.left).toEqual([{ what: "drawings that cannot be read", count: 2, leaves: [0, 1] }])
  const both = await withDrawings(readFile(twice, "a.docx"), draw)
  expect([new Set(pictures(both.doc).map(({ asset }) => asset)).size, both.assets.size]).toEqual([1, 1])
})

test("drawings that are damaged anywhere are told or not, and nothing is thrown", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.values(all)),
      fc.array(fc.tuple(fc.nat(400), fc.nat(255)), { maxLength: 8 }),
      fc.nat(400),
      (bytes, changes, to) => {
        const own = bytes.slice(0, to < 40 ? to : bytes.length)
        for (const [at, value] of changes) if (at < own.length) own[at] = value
        const found = drawingIn(own)
        if (found) expect([found.width > 0, found.height > 0]).toEqual([true, true])
      },
    ),
    { numRuns: 300 },
  )
})
