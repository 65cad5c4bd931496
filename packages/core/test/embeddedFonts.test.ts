/** Typefaces that go along in files of offices. */
import { readFileSync } from "node:fs"
import { faceFile } from "../node/typesetting"
import { assetsOf, defaultStyles, document, documentAttrs, letters, p } from "../src/document"
import { assetName } from "../src/formats/assets"
import { mixedFont } from "../src/formats/officeopenxml/fonts"
import { readOfficeOpenXml } from "../src/formats/officeopenxml/reading"
import { writeOfficeOpenXml } from "../src/formats/officeopenxml/writing"
import { readOpenDocument } from "../src/formats/opendocument/reading"
import { writeOpenDocument } from "../src/formats/opendocument/writing"
import { unzip, zip } from "../src/formats/zip"
import { shippedFaces } from "../src/layout"

const shipped = (id: string) =>
  new Uint8Array(readFileSync(faceFile(shippedFaces().find((face) => face.id === id)?.path ?? "")))
const [upright, slanted] = [shipped("Lora-regular"), shipped("Lora-italic")]
const [a, b] = [assetName(upright), assetName(slanted)]
const bytes = new Map([
  [a, upright],
  [b, slanted],
])
const sources = { name: "Tides", asset: (name: string) => bytes.get(name) }
const marsh = () =>
  document([p(letters("ferry ", { family: "Marsh Hand" }), letters("slip", { family: "Marsh Hand", italic: true }))], {
    styles: { ...defaultStyles, fonts: { "Marsh Hand": { regular: a, italic: b } } },
  })

test.each([
  ["Office Open XML", writeOfficeOpenXml, readOfficeOpenXml],
  ["OpenDocument", writeOpenDocument, readOpenDocument],
] as const)("%s carries them there and back, to the letter", (_name, write, read) => {
  const { doc, assets, left } = read(write(marsh(), sources))
  expect(documentAttrs(doc).styles.fonts).toEqual({ "Marsh Hand": { regular: a, italic: b } })
  expect(doc.firstChild?.firstChild?.firstChild?.marks.find(({ type }) => type.name === "family")?.attrs.value).toBe(
    "Marsh Hand",
  )
  expect([...assets.keys()].sort()).toEqual([a, b].sort())
  expect([...assetsOf(doc)].sort()).toEqual(
    [
      [a, "font"],
      [b, "font"],
    ].sort(),
  )
  for (const [name, own] of assets) expect(Buffer.compare(own, bytes.get(name)!)).toBe(0)
  expect(left).toEqual([])
})

const flagged = (flag: number) => {
  const copy = upright.slice()
  const view = new DataView(copy.buffer)
  const os2 = Array.from({ length: 30 }, (_, i) => 12 + 16 * i).find(
    (at) => Buffer.from(copy.subarray(at, at + 4)).toString() === "OS/2",
  )!
  view.setUint16(view.getUint32(os2 + 8) + 8, flag)
  return copy
}

test("what may not go along in a document that is written on stays at home; what may not be used is said", () => {
  const readOnly = { name: "Tides", asset: (name: string) => (name === a ? flagged(4) : undefined) }
  const parts = unzip(writeOfficeOpenXml(marsh(), readOnly))
  expect([...parts.keys()].filter((path) => /font/i.test(path))).toEqual([])
  // Mixed again after its licence was changed, as a file of somebody else's could have it.
  const written = writeOpenDocument(marsh(), sources)
  const files = unzip(written)
  const path = [...files.keys()].find((own) => own.startsWith("Fonts/") && own.includes(a.slice(0, 16)))!
  const changed = new Map([...files, [path, flagged(2)]])
  const { doc, left } = readOpenDocument(zip(changed))
  expect(documentAttrs(doc).styles.fonts).toEqual({ "Marsh Hand": { italic: b } })
  expect(left).toEqual([{ what: "typefaces in the file that cannot be used", count: 1, leaves: [] }])
})

test("mixing with a key and mixing again gives the file back; a key of another length is none", () => {
  const key = "{01234567-89AB-CDEF-0123-456789ABCDEF}"
  const mixed = mixedFont(upright, key)!
  expect(mixed.slice(0, 32)).not.toEqual(upright.slice(0, 32))
  expect(mixed[0]! ^ upright[0]!).toBe(0xef)
  expect(Buffer.compare(mixed.slice(32), upright.slice(32))).toBe(0)
  expect(Buffer.compare(mixedFont(mixed, key)!, upright)).toBe(0)
  expect(mixedFont(upright, "{0123}")).toBeNull()
})
